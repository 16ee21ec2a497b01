"""Names for what a suggestion introduces, in the student's own words and convention.

A function's name comes from the comment above it, else from the verb of its main call and the word
its statements share. A parameter's name comes from where its values stand: the parameter they are
given to, the variable they are assigned to, the word before them in a text. Never a name in use.
"""

from __future__ import annotations

import re
from collections import Counter
from collections.abc import Iterable, Sequence

from ..languages.writing import Style
from ..program.names import Role
from ..program.program import ProgramFile
from ..program.shapes import given_value
from ..program.tree import CLASS
from ..program.types import type_of_expression
from ..repeats.columns import Column, Spot
from ..repeats.judge import exchanges
from ..repeats.series import family_of, series_of
from ..repeats.slots import Copy, Table
from ..repeats.texts import integers
from .menus import asked_for, chosen_words
from .topics import ends_with_output, heading_of_copies, topic_of_step
from .words import (
    CHOSEN_VERBS,
    COLORS,
    COMMON_VERBS,
    HEADING_NAMES,
    LETTER_NAMES,
    MAKING_NUMBERS,
    MESSAGE_NAMES,
    NUMBER_NAMES,
    ORDINALS,
    QUANTITIES,
    STOP_WORDS,
    TEXT_NAMES,
    TOPICS_OF_VERBS,
    VALUE_NAMES,
    VERBS,
    comment_words,
    in_convention,
    is_a_thing,
    plural_of,
    shared_words,
    singular,
    words_of,
)

EQUALITY = frozenset({"==", "!=", "===", "!=="})
ORDERINGS = frozenset({"<", "<=", ">", ">="})
BOUNDS = {"<", ">"}
ELEMENT = re.compile(r"""(\w+)\[(?:["'](\w+)["']|\w+)\]""")
"""An element of a list or dictionary: what holds it, and its key where that is a word."""
CHANGES_OF_COLLECTIONS = frozenset("append extend insert remove pop sort reverse push unshift splice".split())
LONGEST_LETTERS = 2
"""Letters of a name that says nothing."""
LONGEST_OF_TWO = 2
"""Words of a name that may stand beside another in one."""


def differing_words(table: Table) -> set[str]:
    """Words that stand in some copy's values and not in every copy's."""
    found: set[str] = set()
    for column in table.columns:
        words = Counter(word for value in column.values for word in set(words_of(value)))
        found.update(word for word, count in words.items() if count < len(column.values))
    return found


def _shared_names(file: ProgramFile) -> frozenset[str]:
    """Names that are not some function's own; where capitals are not told apart, those of members too."""
    known = file.derived.get("shared names")
    if not isinstance(known, frozenset):
        names, functions = file.names, {p.node for p in file.procedures if p.node}
        members = file.language.case_blind
        known = frozenset(
            file.tree.text[i]
            for i in names.nodes
            if (members if names.role[i] > Role.DECLARATION else names.owner(i) not in functions)
        )
        file.derived["shared names"] = known
    return known


def _class_made(file: ProgramFile, name: str) -> str:
    """The class of which a variable is made wherever it gets a value: `Boat` by `tern = Boat("Tern")`; "" where that
    is not told."""
    known = file.derived.get("classes made")
    if not isinstance(known, dict):
        known = file.derived["classes made"] = _classes_made(file)
    made: set[str] = known.get(name, set())
    return next(iter(made)) if len(made) == 1 and not file.language.capitals else ""


def _classes_made(file: ProgramFile) -> dict[str, set[str]]:
    """By variable, the classes of what it is given; "" for anything else."""
    tree, known = file.tree, dict[str, set[str]]()
    for block in file.blocks:
        for statement in block.statements:
            given = given_value(tree, statement)
            if given is not None:
                called = file.called_name(given[1]) if tree.kind[given[1]] == file.language.call else ""
                known.setdefault(tree.text[given[0]], set()).add(called if called[:1].isupper() else "")
    return known


class Namer:
    """Gives fresh names in one file."""

    def __init__(self, file: ProgramFile, style: Style, outer: Namer | None = None) -> None:
        self.file = file
        self.style = style
        self.outer = outer
        language = file.language
        self.taken = {self._key(name) for name in {*language.builtins, *language.keywords}}
        if outer is None:
            for one in (file, *file.beside):
                self.taken |= {self._key(name) for name in one.names.everything | one.told_outside}

    def inside(self, copies: Sequence[Copy], columns: Sequence[Column], besides: Iterable[str] = ()) -> Namer:
        """Gives names for the variables of a new function with the statements of `copies`: what only other
        functions use is free there, and so is what a column's new name stands for."""
        namer = Namer(self.file, self.style, self)
        names, tree = self.file.names, self.file.tree
        replaced = {spot.nodes[0] for column in columns if column.is_name for spot in column.spots}
        inside = {
            tree.text[i]
            for copy in copies
            for i in names.within(*copy.span)
            if i not in replaced and names.role[i] <= Role.DECLARATION
        }
        shared = _shared_names(self.file)
        gone = self._only_there({node for c in columns if c.is_name for spot in c.spots for node in spot.nodes}, shared)
        namer.taken |= {self._key(name) for name in {*(shared - gone), *inside, *besides}}
        return namer

    def _only_there(self, replaced: set[int], wanted: Iterable[str]) -> set[str]:
        """Names that stand nowhere but in places that are replaced."""
        text, found = self.file.tree.text, set(wanted)
        for i in self.file.names.nodes:
            if i not in replaced:
                found.discard(text[i])
        return found

    def _is_name(self, text: str) -> bool:
        return text.replace(self.style.joint, "_").isidentifier()

    def _key(self, name: str) -> str:
        return name.casefold() if self.file.language.case_blind else name

    def fresh(self, words: Sequence[str], alternatives: Iterable[str] = ()) -> str:
        """The name made of `words`, or an alternative, or the name with a number: one not in use."""
        for candidate in (in_convention(words, self.style), *alternatives):
            if self._key(candidate) not in self.taken and self._is_name(candidate):
                return self._given(candidate)
        base, number = in_convention(words, self.style), 2
        while self._key(f"{base}{number}") in self.taken or not self._is_name(f"{base}{number}"):
            number += 1
        return self._given(f"{base}{number}")

    def _given(self, name: str) -> str:
        self.taken.add(self._key(name))
        if self.outer is not None:
            self.outer.taken.add(self._key(name))
        return name

    def counter(self) -> str:
        """A fresh name for a loop's counter."""
        return self.fresh(["i"], ["j", "k", "n", "count", "turn"])

    def column(self, column: Column, copies: Sequence[Copy]) -> str:
        """A fresh name for what stands in a column."""
        words = self._column_words(column, copies) or ["value"]
        numbered = column.numbers is not None and copies[0].file.language.declares
        others = [] if numbered else [in_convention([*words[-1:], "value"], self.style)]
        return self.fresh(words[-2:], ["shade", *others] if words in (["color"], ["colour"]) else others)

    def general(self, column: Column, copies: Sequence[Copy]) -> str:
        """A name for a variable of one function in place of several that each call theirs otherwise: what their
        names share, else what stands in it; the first function's where that says nothing wrong."""
        own, shared = words_of(column.values[0]), shared_words(column.values)
        if shared == own and not any(c.isdigit() for c in column.values[0]):
            return column.values[0]
        if shared:
            return self.fresh(shared, [in_convention(["one", *shared], self.style)])
        if column.is_target and self._is_returned(column, copies[0]):
            return self.fresh(["result"])
        if not any(len(w) > 2 for w in own):
            return column.values[0]
        if self._used_as_collection(copies[0], column):
            return self.fresh(["values"], ["items", "things"])
        if column.is_target:
            return self.fresh(["item"]) if self._turns_a_loop(column, copies[0]) else column.values[0]
        return self.fresh(["amount"] if self._is_reckoned_with(column, copies[0]) else ["value"], ["given"])

    def own(self, column: Column, copies: Sequence[Copy], returned: bool, told: set[str]) -> str:
        """A name for a variable of a new function that each copy calls otherwise; `told`: words of the first copy's
        other values, which its own name should not repeat."""
        words = words_of(column.values[0])
        if len({tuple(words_of(v)) for v in column.values}) == 1 and any(len(w) > 2 for w in words):
            known = in_convention(words, self.style) in self.file.language.builtins
            plain = ["result", "found"] if returned and known else []
            return self.fresh(words, [column.values[0], *plain, in_convention(["this", *words], self.style)])
        shared = shared_words(column.values)
        if shared and not set(shared) & STOP_WORDS:
            return self.fresh(shared, [column.values[0]])
        if returned and told & set(words):
            return self.fresh(["result"], ["found"])
        if not shared and self._asks_for_a_number(column, copies[0]):
            return self.fresh(["number"], ["amount"])
        return self._given(column.values[0])

    @staticmethod
    def _asks_for_a_number(column: Column, copy: Copy) -> bool:
        """True for a variable that is first given a number made of what somebody typed."""
        tree, language = copy.file.tree, copy.file.language
        statement = next((s for s in copy.statements if s <= column.spots[0].nodes[0] < tree.end[s]), None)
        given = given_value(tree, statement) if statement is not None else None
        asks = given is not None and tree.kind[given[1]] == language.call
        return given is not None and asks and copy.file.called_name(given[1]) in MAKING_NUMBERS

    def neutral(self, column: Column, copies: Sequence[Copy]) -> str:
        """A name for what each copy calls otherwise, and nothing else has to do with."""
        shared = shared_words(column.values)
        if shared and not set(shared) & STOP_WORDS:
            return self.fresh(shared, [in_convention(["one", *shared], self.style)])
        if self._used_as_collection(copies[0], column):
            return self.fresh(["values"], ["items", "things"])
        return self.fresh(["amount"] if self._is_reckoned_with(column, copies[0]) else ["value"], ["result", "given"])

    def first_given(self, column: Column, copies: Sequence[Copy]) -> str:
        """A name for a parameter in place of variables that each copy gives its value first, and calls otherwise."""
        shared = shared_words(column.values)
        if shared and not set(shared) & STOP_WORDS:
            return self.fresh(shared, [column.values[0]])
        if self._used_as_collection(copies[0], column):
            return self.fresh(["values"], ["items", "things"])
        return self.fresh(["value"], ["given", column.values[0]])

    def counting(self, column: Column, copies: Sequence[Copy]) -> str:
        """A fresh name for a loop's number: what the numbers are of, where that is told, else a counter."""
        return self.column(column, copies) if self._told_words(column, copies) else self.counter()

    def plural(self, name: str) -> str:
        """A fresh name for a list of what `name` is one of."""
        words = words_of(name) or ["value"]
        last = words[-1]
        if last.endswith("s"):
            return self.fresh(["all", *words])
        return self.fresh([*words[:-1], plural_of(last)], [in_convention([*words, "list"], self.style)])

    def table(self, name: str, variable: str) -> str:
        """A fresh name for a table in which `name` is looked up by a variable."""
        words, by = words_of(name), words_of(variable)
        if min(max(map(len, words), default=0), max(map(len, by), default=0)) <= LONGEST_LETTERS:
            return self.plural(name)
        return self.fresh([*words, "by", *by])

    def family(self, names: Sequence[str]) -> str:
        """A fresh name for the list of what these variables hold."""
        family = family_of(names)
        if family is None or not (family.stem or (family.about.endswith("s") and family.about != "letters")):
            return self.plural("count" if family is None else "value")
        return self.plural(family.stem) if family.stem else self.fresh(words_of(family.about))

    def flag(self, only: Copy, shared: Copy, owner: str, other: str) -> str:
        """A fresh name for what says whether the statements `only` are run beside those that are `shared`: for what
        they are about, else for what only the name of their `owner` says, and not the `other`'s."""
        tree, (start, stop) = shared.file.tree, shared.span
        known = {w for text in tree.text[start:stop] if text for w in words_of(text)}
        words = [w for w in self._topic(only, known) if w != "part" and w not in known]
        own = [w for w in words_of(owner) if w not in words_of(other)]
        if not words and own:
            return self.fresh(["as", *own], [in_convention(["with", "more"], self.style)])
        return self.fresh(["with", *(words or ["more"])], [in_convention(["with", "more"], self.style)])

    def function(
        self, copy: Copy, comment: str, returned: Sequence[str], differing: set[str], given: Sequence[str] = ()
    ) -> str:
        """A fresh name for a function with the statements of `copy`; `returned` and `given`: names that it gives back
        and is given."""
        return self._capital(self._function(copy, comment, returned, differing, changed=set(returned) <= set(given)))

    def _capital(self, name: str) -> str:
        """A function's name with a capital, where this student gives functions one."""
        if not self.style.capital_functions:
            return name
        wanted, number = name[0].upper() + name[1:], 2
        if self.file.language.case_blind:
            return wanted
        base = wanted
        while wanted in self.taken:
            wanted, number = f"{base}{number}", number + 1
        return self._given(wanted)

    def step(self, copy: Copy, comment: str, returned: Sequence[str], given: Sequence[str]) -> str:
        """A fresh name for a function that is one step of a longer one: of its heading, or what it works out."""
        new = [name for name in returned if name not in given]
        if not comment_words(comment):
            chosen, asked = chosen_words(copy), asked_for(copy)
            if chosen:
                return self._capital(self._chosen(copy, chosen, new))
            if asked:
                return self._capital(self.fresh(["handle", *words_of(asked)[:2]]))
        return self._capital(self._function(copy, comment, new, set(), topic_of_step(copy, returned, given)))

    def _chosen(self, copy: Copy, chosen: list[str], returned: Sequence[str]) -> str:
        """A fresh name for what is done where somebody chooses it: `sell`, but `print_boats` for boats."""
        verb = self._main_verb(copy, returned)
        whole = [verb, *chosen[:2]]
        if chosen[0] in COMMON_VERBS or chosen[0] in CHOSEN_VERBS:
            return self.fresh(chosen[:3], [in_convention(whole, self.style)])
        return self.fresh(whole)

    def _function(
        self,
        copy: Copy,
        comment: str,
        returned: Sequence[str],
        differing: set[str],
        about: Sequence[str] = (),
        changed: bool = False,
    ) -> str:
        words = comment_words(comment)
        if not words and len(copy.statements) == 1 and exchanges(copy):
            return self.fresh(["put", "in", "order"])
        bounded = self._keeps_within_bounds(copy) and len(returned) == 1
        verb = "limit" if bounded else self._main_verb(copy, returned, changed)
        if words and words[0] in COMMON_VERBS:
            if len(words) > 1:
                return self.fresh(words[:3])
            verb, words = words[0], []
        nouns = words[:2] if 1 <= len(words) <= 4 else list(about)
        if not nouns:
            told = words_of(returned[0])[:2] if len(returned) == 1 and returned[0] not in {"result", "found"} else []
            given = [w for w in told if len(w) > 2 and w not in differing and w not in STOP_WORDS]
            if verb in {"print", "show"} and not given:
                given = heading_of_copies(copy, differing)
            nouns = given or self._topic(copy, differing, asks=verb == "read")
            if verb == "read" and nouns[0] in {"number", "value"} and self._gathers(copy):
                nouns = [plural_of(nouns[0])]
        nouns = [n for n in nouns if not n.startswith(verb)] or ["part"]
        if nouns == ["part"] and verb in {"move", "set", "update"} and verb == self._verb_of_changes(copy):
            nouns = ["one"]
        if nouns == ["part"] and verb in TOPICS_OF_VERBS:
            nouns = [TOPICS_OF_VERBS[verb]]
        return self.fresh([verb, *(["value"] if bounded and nouns == ["part"] else nouns)])

    @staticmethod
    def _gathers(copy: Copy) -> bool:
        """True where something is put into a list that is empty at first."""
        tree = copy.file.tree
        lists = (n for n in range(*copy.span) if tree.kind[n] == "list" and tree.kind[tree.parent[n]] == "assignment")
        return any(tree.source_of(n).strip("[] ") == "" for n in lists)

    @staticmethod
    def _keeps_within_bounds(copy: Copy) -> bool:
        """True for a variable that gets another value where it is too small or too large, and nothing else."""
        tree, language = copy.file.tree, copy.file.language
        inside = range(*copy.span)
        signs = [tree.text[n] for n in inside if tree.text[n] in ORDERINGS]
        given = [given_value(tree, n) for n in copy.file.statements_within(*copy.span)]
        changed = {tree.text[pair[0]] for pair in given if pair}
        bounds = len(signs) == len(BOUNDS) and {sign[0] for sign in signs} == BOUNDS
        return bounds and len(changed) == 1 and language.call not in {tree.kind[n] for n in inside}

    def merged(self, names: Sequence[str], body: Copy, either: bool = False) -> str:
        """A fresh name for one function in place of several: the words that all their names share; where it does
        `either` of two things, and these share no word, both."""
        words = [words_of(name) for name in names]
        if either and not set(words[0]) & set(words[1]) and max(map(len, words)) <= LONGEST_OF_TWO:
            return self._capital(self.fresh([*words[0], "or", *words[1]]))
        return self._capital(self._merged(names, body))

    def _merged(self, names: Sequence[str], body: Copy) -> str:
        lists = [words_of(n) for n in names]
        shared = [w for w in shared_words(names, 1) if w not in STOP_WORDS]
        if all("to" in words[1:-1] for words in lists):
            return self.fresh(["convert", *shared])
        if shared:
            alternatives = [in_convention([*shared, "for"], self.style)]
            if len(shared) == 1 and shared[0] in COMMON_VERBS:
                own = {w for words in lists for w in words}
                topic = [w for w in self._topic(body, own) if w != "part" and not w.startswith(shared[0])]
                return self.fresh([shared[0], *(topic or ["one"])], alternatives)
            begins = all(words[0] == shared[0] for words in lists) and len(shared[0]) > 2
            if not begins and not any(w in COMMON_VERBS for w in shared):
                return self.fresh([self._main_verb(body, ()), *shared], alternatives)
            return self.fresh(shared, alternatives)
        topic = self._topic(body, {w for words in lists for w in words})
        both = len(lists) == 2 and max(map(len, lists)) <= LONGEST_OF_TWO
        alternatives = [in_convention([*lists[0], "or", *lists[1]], self.style)] if both else []
        return self.fresh([self._main_verb(body, ()), *(["one"] if topic == ["part"] else topic)], alternatives)

    # -- columns ---------------------------------------------------------------------------------

    def _column_words(self, column: Column, copies: Sequence[Copy]) -> list[str]:
        if column.is_called:
            if (MAKING_NUMBERS | {"str", "String"}).issuperset(column.values):
                return ["convert"]
            return ["action" if column.values[0][0].isalpha() else "operation"]
        told = self._told_words(column, copies)
        if told:
            return told
        if copies[0].file.tree.kind[column.spots[0].nodes[0]] == CLASS:
            return ["kind"]
        colors = {value.strip("\"'").lower() for value in column.values}
        if colors <= COLORS and column.values[0][:1] in "\"'":
            return ["shade" if self.taken & {"color", "colour"} else "color"]
        if self._picks_an_element(column, copies[0]):
            return ["index"]
        kind: Sequence[str] = NUMBER_NAMES if column.numbers is not None else VALUE_NAMES
        if column.numbers is None and column.values[0][:1] in "\"'":
            kind = self._names_for_texts(column.values)
        if copies[0].file.tree.kind[column.spots[0].nodes[0]] == "character":
            kind = LETTER_NAMES
        if self._is_a_factor(column, copies[0]):
            return ["factor"]
        if column.numbers is not None and self._limits_a_loop(column, copies[0]):
            return ["count"]
        if column.values[0][:1] in "[{":
            return ["words" if any(mark in column.values[0] for mark in "\"'") else "numbers"]
        return [next((n for n in kind if n not in self.taken), kind[0])]

    @staticmethod
    def _names_for_texts(values: Sequence[str]) -> Sequence[str]:
        """Names for what such texts are: of several words they say something, before a colon they are a label."""
        texts = [value.strip("\"'").strip() for value in values]
        if all(text.endswith(":") for text in texts):
            return HEADING_NAMES
        return MESSAGE_NAMES if any(len(text.split()) > LONGEST_OF_TWO for text in texts) else TEXT_NAMES

    @staticmethod
    def _limits_a_loop(column: Column, copy: Copy) -> bool:
        """True for the number up to which a loop counts."""
        file, tree = copy.file, copy.file.tree
        for spot in column.spots:
            parent = tree.parent[spot.nodes[0]]
            counting = tree.kind[tree.parent[parent]] in file.language.loops and tree.field[parent] == "condition"
            ranged = tree.kind[parent] == "argument_list" and file.called_name(tree.parent[parent]) == "range"
            if counting or (ranged and tree.items(parent)[-1] == spot.nodes[0]):
                return True
        return False

    @staticmethod
    def _picks_an_element(column: Column, copy: Copy) -> bool:
        """True for a number that stands for a place in a list."""
        tree = copy.file.tree
        node = column.spots[0].nodes[0]
        inside = tree.kind[tree.parent[node]] == "subscript" and tree.field[node] == "subscript"
        return inside and tree.kind[node] in copy.file.language.numbers

    @staticmethod
    def _is_returned(column: Column, copy: Copy) -> bool:
        """True where the function gives back what stands in the column, and nothing else."""
        tree = copy.file.tree
        nodes = {spot.nodes[0] for spot in column.spots}
        last = copy.statements[-1]
        return tree.kind[last] == copy.file.language.returning and bool(nodes & set(tree.children(last)))

    @staticmethod
    def _turns_a_loop(column: Column, copy: Copy) -> bool:
        """True for the variable of a loop over values."""
        tree = copy.file.tree
        node = column.spots[0].nodes[0]
        return tree.kind[tree.parent[node]] in copy.file.language.loops and tree.field[node] == "left"

    @staticmethod
    def _is_a_factor(column: Column, copy: Copy) -> bool:
        """True for a number that something is multiplied by."""
        tree = copy.file.tree
        node = column.spots[0].nodes[0]
        return (
            column.spots[0].group < 0
            and tree.kind[node] in copy.file.language.numbers
            and "*" in [tree.text[c] for c in tree.children(tree.parent[node])]
        )

    @staticmethod
    def _is_reckoned_with(column: Column, copy: Copy) -> bool:
        """True where what stands in the column is part of a sum or product."""
        tree = copy.file.tree
        around = (tree.parent[spot.nodes[0]] for spot in column.spots)
        return any({"+", "-", "*", "/"} & {tree.text[c] for c in tree.children(p)} for p in around)

    def _told_words(self, column: Column, copies: Sequence[Copy]) -> list[str]:
        """The words of what stands in a column, from its surroundings; [] where they tell nothing."""
        finders = (
            self._from_place,
            self._from_text_before,
            self._from_parameter,
            self._from_values,
            self._from_sum,
            self._from_comparison,
        )
        if column.series not in {"", "letters"}:
            return [singular(column.series)]
        bound = self._bound(column, copies[0])
        if bound:
            return [bound]
        of_a_series = series_of(column.values)
        if of_a_series:
            return [of_a_series]
        for finder in finders:
            for spot in column.spots:
                if spot.is_part and finder == self._from_parameter:
                    continue
                words = [w for w in finder(column, copies, spot.nodes[0]) if len(w) > 2 or w in {"x", "y"}]
                if words:
                    return words
        return []

    @staticmethod
    def _bound(column: Column, copy: Copy) -> str:
        """What a number is called that something is compared with: the lower or the upper one, where there are two."""
        tree, language = copy.file.tree, copy.file.language
        if column.numbers is None or Namer._limits_a_loop(column, copy):
            return ""
        compared: dict[str, set[int]] = {}
        own = ""
        for node in range(*copy.span):
            if tree.text[node] not in ORDERINGS:
                continue
            beside = [c for c in tree.children(tree.parent[node]) if c != node]
            numbers = [c for c in beside if tree.kind[c] in language.numbers]
            for number in numbers if len(beside) == len(numbers) + 1 else ():
                other = next(tree.source_of(c) for c in beside if c not in numbers)
                compared.setdefault(other, set()).update(integers((tree.text[number],)) or ())
                own = other if any(number == spot.nodes[0] for spot in column.spots) else own
        values = compared.get(own, set())
        if len(values) < len(BOUNDS):
            return "limit" if values else ""
        return {min(values): "lowest", max(values): "highest"}.get(column.numbers[0], "limit")

    def _from_place(self, column: Column, copies: Sequence[Copy], node: int) -> list[str]:
        file = copies[0].file
        tree, language = file.tree, file.language
        parent = tree.parent[node]
        if tree.kind[parent] == language.keyword_argument[0]:
            return words_of(tree.text[next(iter(tree.children(parent)))])
        if tree.kind[node] == "list" and tree.kind[parent] == "for_statement":
            left = tree.child(parent, "left")
            words = words_of(tree.text[left]) if left is not None else []
            return [*words[:-1], plural_of(words[-1])] if words and len(words[-1]) > 2 else []
        if tree.kind[parent] in {"assignment", "augmented_assignment"} and tree.field[node] == "right":
            left = tree.child(parent, "left")
            words = words_of(tree.text[left]) if left is not None else []
            return words if tree.kind[parent] == "assignment" else []
        if tree.kind[parent] == "subscript" and tree.field[node] == "subscript" and column.values[0][:1] in "\"'":
            # `packets["beet"]` is what a packet is called by.
            held = tree.child(parent, "value")
            words = words_of(tree.text[held])[-1:] if held is not None else []
            return [singular(w) for w in words if w.endswith("s") and len(w) > 3]
        return []

    @staticmethod
    def _from_sum(column: Column, copies: Sequence[Copy], node: int) -> list[str]:
        """What something is changed by."""
        tree = copies[0].file.tree
        changed = tree.kind[tree.parent[node]] == "augmented_assignment" and tree.field[node] == "right"
        return ["amount"] if changed and column.values[0][:1] not in "\"'" else []

    @staticmethod
    def _from_comparison(column: Column, copies: Sequence[Copy], node: int) -> list[str]:
        """The field or entry that something is compared with: `boat.number == …`, `seal["kind"] == …`."""
        file = copies[0].file
        tree, language = file.tree, file.language
        beside = [c for c in tree.children(tree.parent[node]) if c != node]
        others = [c for c in beside if tree.text[c] not in EQUALITY]
        if len(beside) != 2 or len(others) != 1:
            return []
        (other,) = others
        last = tree.end[other] - 1
        if tree.kind[other] == language.member[0]:
            return words_of(tree.text[last])
        key = tree.child(other, "subscript") if tree.kind[other] == "subscript" else None
        return words_of(tree.text[key]) if key is not None and tree.kind[key] in language.strings else []

    def _from_parameter(self, column: Column, copies: Sequence[Copy], node: int) -> list[str]:
        """The parameter that the value is given to, or the list it is added to."""
        file = copies[0].file
        tree = file.tree
        arguments = tree.parent[node]
        if tree.kind[arguments] != "argument_list":
            return []
        call = tree.parent[arguments]
        given = tree.items(arguments)
        position = given.index(node)
        called = file.called_name(call)
        for procedure in file.procedures:
            if procedure.name == called and position < len(procedure.parameters):
                return words_of(procedure.parameters[position])
        known = file.language.argument_names.get(called, ())
        if position < len(known) and (known[position] != "text" or column.values[0][:1] == '"'):
            return [known[position]]
        callee = tree.child(call, file.language.callee_field)
        if callee is None or tree.kind[callee] != file.language.member[0]:
            return []
        if called in {"append", "push", "add"}:
            owner = words_of(tree.source_of(callee).rpartition(".")[0])[-1:]
            return [singular(word) for word in owner if word.endswith("s")]
        # What a thing is told by a call of its own: `pen.color("red")`, `label.setText("open")`.
        words = words_of(called)
        told = words[1:] if words[:1] == ["set"] else words if column.values[0][:1] in "\"'" else []
        alone = len(given) == 1 and tree.parent[call] in file.block_at and called not in file.language.output_calls
        return told if alone and told and told[0] not in COMMON_VERBS else []

    def _from_text_before(self, column: Column, copies: Sequence[Copy], node: int) -> list[str]:
        """The word before a number inside a text, or the label printed just before the value."""
        file = copies[0].file
        tree = file.tree
        source = tree.source_of(node)
        spot = next(s for s in column.spots if s.nodes[0] == node)
        named = all(value.strip("\"'")[:1].isupper() for value in column.values)
        if spot.is_part and named and spot.before.endswith(" "):
            # "your boat Tern is due": a boat is what it is.
            above = re.search(r"(?<![A-Za-z])([a-z]+) $", spot.before)
            return [above[1]] if above and len(above[1]) > 2 and is_a_thing(above[1]) else []
        if spot.group >= 0:
            parts = file.language.numbers_in(source)
            if (
                not spot.is_words
                and parts[::2] != file.language.numbers_in(copies[1].file.tree.source_of(spot.nodes[1]))[::2]
            ):
                # `"Stop 1: mill"`: the words are the stop, this is its number.
                return ["number"]
            of = re.match(r" ([A-Za-z]{3,}s)\b", "".join(parts[spot.group + 1 :]))
            before = "".join(parts[: spot.group])
            beside = (re.findall(r"[A-Za-z]+", before) or ["of"])[-1].lower()
            if of and beside in STOP_WORDS and of[1].lower() not in STOP_WORDS:
                # "every 30 seconds", "3 boats", but "gate 3 opens"
                return [of[1].lower()]
            words = [w for w in words_of(before) if w not in STOP_WORDS and len(w) > 2]
            return words[-1:]
        if tree.kind[tree.parent[node]] == "argument_list" and column.numbers is not None:
            given = tree.items(tree.parent[node])
            position = given.index(node)
            told = position and tree.kind[given[position - 1]] == "string"
            if told and self._is_the_same_label(column, copies, spot):
                words = [w for w in words_of(tree.text[given[position - 1]]) if w not in STOP_WORDS]
                return [w for w in words if len(w) > 2][-1:]
        return []

    @staticmethod
    def _is_the_same_label(column: Column, copies: Sequence[Copy], spot: Spot) -> bool:
        """True where the text before the value is the same in all copies, and so tells what the value is."""
        labels = set()
        for copy, node in zip(copies, spot.nodes, strict=True):
            tree = copy.file.tree
            given = tree.items(tree.parent[node])
            labels.add(tree.text[given[given.index(node) - 1]])
        return len(labels) == 1

    def _from_values(self, column: Column, copies: Sequence[Copy], node: int) -> list[str]:
        """What the names that stand in the slot share."""
        if not column.is_name:
            if self._used_as_collection(copies[0], column):
                return ["values"]
            if column.is_of_its_object:
                return shared_words([value.partition(".")[2] for value in column.values], 1)
            element = ELEMENT.fullmatch(column.values[0])
            if element and len(column.values) == 1:
                return words_of(element[2]) if element[2] else [w for w in [singular(element[1])] if "_" not in w]
            holders = {value.rpartition(".")[0] for value in column.values}
            # `Color.RED` and `Color.BLUE` are colours, `prices.tea` and `prices.cake` prices.
            words = words_of(holders.pop())[-1:] if len(holders) == 1 else []
            return [singular(w) if w.endswith("s") else w for w in words if len(w) > 3]
        shared = [w for w in shared_words(column.values, 1) if len(w) > 1]
        collection = ["values"] if self._used_as_collection(copies[0], column) else []
        return shared or collection or self._from_types(column, copies)

    @staticmethod
    def _from_types(column: Column, copies: Sequence[Copy]) -> list[str]:
        """What things of one class are: a `JButton` is a button."""
        file = copies[0].file
        if not file.language.typed:
            made = {_class_made(c.file, name) for c, name in zip(copies, column.values, strict=True)}
            return words_of(made.pop())[-1:] if len(made) == 1 else []
        kinds = {type_of_expression(c.file, node) for c, node in zip(copies, column.spots[0].nodes, strict=True)}
        kind = kinds.pop() if len(kinds) == 1 else None
        types = file.language.types
        told = {types.text, types.truth, *types.ranks}
        plain = kind is None or kind.dimensions or kind.base in told or not kind.base[:1].isupper()
        if kind is None or plain:
            return []
        return ["values"] if "<" in kind.base else words_of(kind.base)[-1:]

    def _used_as_collection(self, copy: Copy, column: Column) -> bool:
        file = copy.file
        tree = file.tree
        for spot in column.spots:
            parent = tree.parent[spot.nodes[0]]
            if tree.kind[parent] == "for_statement" and tree.field[spot.nodes[0]] == "right":
                return True
            if tree.kind[parent] == "subscript" and tree.field[spot.nodes[0]] == "value":
                return True
            held = tree.kind[parent] == file.language.member[0] and spot.nodes[0] == parent + 1
            if held and tree.text[tree.end[parent] - 1] in CHANGES_OF_COLLECTIONS:
                return True
            if tree.kind[parent] == "argument_list" and file.called_name(tree.parent[parent]) in {
                "len",
                "sum",
                "max",
                "min",
                "sorted",
            }:
                return True
        return False

    # -- functions -------------------------------------------------------------------------------

    def _main_verb(self, copy: Copy, returned: Sequence[str], changed: bool = False) -> str:
        """What is done, in a word; `changed`: to what is given, which is given back."""
        file = copy.file
        start, stop = copy.span
        calls = Counter(file.called_name(n) for n in range(start, stop) if file.tree.kind[n] == file.language.call)
        own = [w for name in calls for w in words_of(name)[:1] if w in COMMON_VERBS]
        if returned:
            reads = (
                any(calls[name] for name, verb in VERBS.items() if verb == "read")
                or "cin" in file.tree.text[start:stop]
            )
            if reads or ends_with_output(copy):
                return "read" if reads else "print"
            return "make" if self._makes(calls) else "update" if changed else "find"
        for name, verb in VERBS.items():
            if calls[name]:
                return verb
        if "cout" in file.tree.text[start:stop]:
            return "print"
        gives = file.language.values_everywhere or file.language.returning in file.tree.kind[start:stop]
        if own or gives or self._makes(calls):
            return own[0] if own else "find" if gives else "make"
        return self._verb_of_changes(copy)

    @staticmethod
    def _verb_of_changes(copy: Copy) -> str:
        """For what is neither shown nor read: what is done to the variables that get another value, or to the one
        thing that is told everything."""
        file, tree, (start, stop) = copy.file, copy.file.tree, copy.span
        kinds = {"assignment", "augmented_assignment"}
        changed = [tree.child(n, "left") for n in range(start, stop) if tree.kind[n] in kinds]
        words = [words_of(tree.source_of(n)) for n in changed if n is not None]
        if any(set(found) & {"x", "y"} for found in words):
            return "move"
        callees = [
            tree.child(n, file.language.callee_field) for n in copy.statements if tree.kind[n] == file.language.call
        ]
        told = {tree.source_of(n).rpartition(".")[0] for n in callees if n is not None}
        return "update" if words else "set" if len(told) == 1 and all(told) else "do"

    def _makes(self, calls: Iterable[str]) -> bool:
        """True where something is made by its class's name."""
        return any(name[:1].isupper() for name in calls) and not self.file.language.capitals

    def _topic(self, copy: Copy, differing: set[str], asks: bool = False) -> list[str]:
        """The word that the copy's names and texts use most, but for the words of `differing`; where the copy asks for
        something, its texts are what it says to people, and tell nothing."""
        file = copy.file
        start, stop = copy.span
        counts: Counter[str] = Counter()
        for i in file.names.within(start, stop):
            name = file.tree.text[i]
            if file.names.role[i] <= Role.UPDATE and name not in file.language.builtins:
                counts.update({w: 2 for w in words_of(name) if len(w) > 2})
        for node in range(start, stop) if not asks else ():
            listed = file.tree.kind[file.tree.parent[node]] == "list"
            if file.tree.kind[node] in {"string", "string_content"} and not listed:
                words = words_of(re.sub(r"%[-\d.]*[a-z]|\\.", " ", file.tree.text[node]))
                counts.update(w for w in dict.fromkeys(words) if len(w) > 3)
        reckoned = next((word for word in counts if word in QUANTITIES), "part")
        if asks:
            called = {file.called_name(n) for n in range(start, stop) if file.tree.kind[n] == file.language.call}
            reckoned = "number" if called & MAKING_NUMBERS else "value"
        for word in list(counts):
            if word in differing or word in STOP_WORDS or word in COMMON_VERBS or word in ORDINALS:
                del counts[word]
        return [counts.most_common(1)[0][0] if counts else reckoned]
