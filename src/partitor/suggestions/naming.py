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
from ..repeats.columns import Column
from ..repeats.judge import exchanges
from ..repeats.series import family_of
from ..repeats.slots import Copy, Table
from .column_words import (
    BOUNDS,
    LONGEST_OF_TWO,
    ORDERINGS,
    beside_words,
    class_made,
    class_of_fields,
    column_words,
    is_reckoned_with,
    is_returned,
    stands_for_a_thing,
    told_words,
    turns_a_loop,
    used_as_collection,
)
from .free_names import names_of_loops, names_to_use_again, shared_names
from .menus import asked_for, chosen_words
from .topics import ends_with_output, heading_of_copies, topic_of_step
from .words import (
    ASKING,
    CHARTS,
    CHOSEN_VERBS,
    COLORS,
    COMMON_VERBS,
    MAKING_NUMBERS,
    NO_THINGS,
    ORDINALS,
    QUANTITIES,
    SHOWING,
    STOP_WORDS,
    TOPICS_OF_VERBS,
    VERBS,
    comment_words,
    in_convention,
    may_be_a_topic,
    plural_of,
    shared_words,
    tells_what_to_do,
    words_of,
)

SENSED = frozenset({"analogRead", "digitalRead", "pulseIn"})
"""What is read of a sensor, not of somebody who types."""
DRAWING_LOTS = frozenset({"randint", "randrange", "choice"})
PLAIN = frozenset({"result", "found"})
"""Names that say nothing of what they are."""
MANY_MADE = 2
"""Things of one class that a function makes, from which it is called after them."""
MOST_TOPICS = 4
"""Words of a function's texts that it may be called after."""
LONGEST_LETTERS = 2
"""Letters of a name that says nothing."""


def differing_words(table: Table) -> set[str]:
    """Words that stand in some copy's values and not in every copy's."""
    found: set[str] = set()
    for column in table.columns:
        words = Counter(word for value in column.values for word in set(words_of(value)))
        found.update(word for word, count in words.items() if count < len(column.values))
    return found


PLACE = re.compile(r"[a-z]?[xyz]")
"""What tells where something is, or how fast it moves: `x1`, `dy2`."""


class Namer:
    """Gives fresh names in one file, none of them one of `besides`."""

    def __init__(
        self, file: ProgramFile, style: Style, outer: Namer | None = None, besides: Iterable[str] = ()
    ) -> None:
        self.file = file
        self.style = style
        self.outer = outer
        language = file.language
        self.columns: set[str] = set()
        """Names that were given to columns."""
        self.taken = self._keys({*language.builtins, *language.keywords, *besides})
        if outer is None:
            for one in (file, *file.beside):
                self.taken |= self._keys(one.names.everything | one.told_outside)

    def inside(self, copies: Sequence[Copy], columns: Sequence[Column], besides: Iterable[str] = ()) -> Namer:
        """Gives names for the variables of a new function with the statements of `copies`: what only other
        functions use is free there, and so is what a column's new name stands for."""
        namer = Namer(self.file, self.style, self)
        names, tree = self.file.names, self.file.tree
        spots = [spot.nodes[0] for column in columns if not column.is_called for spot in column.spots]
        replaced = {i for node in spots for i in names.within(node, tree.end[node])}
        inside = {
            tree.text[i]
            for copy in copies
            for i in names.within(*copy.span)
            if i not in replaced and names.role[i] <= Role.DECLARATION
        }
        shared = shared_names(self.file) - names_of_loops(self.file)
        gone = self._only_there({node for c in columns if c.is_name for spot in c.spots for node in spot.nodes}, shared)
        namer.taken |= self._keys({*(shared - gone), *inside, *besides})
        return namer

    def for_a_loop(self, copies: Sequence[Copy]) -> Namer:
        """Gives names for the variables of a loop in place of `copies`: what only other loops use is free there."""
        self.taken -= self._keys(names_to_use_again(self.file, copies))
        return self

    def _only_there(self, replaced: set[int], wanted: Iterable[str]) -> set[str]:
        """Names that stand nowhere but in places that are replaced."""
        if not replaced:
            return set()
        text, found = self.file.tree.text, set(wanted)
        for i in self.file.names.nodes:
            if i not in replaced:
                found.discard(text[i])
        return found

    def _is_name(self, text: str) -> bool:
        return text.replace(self.style.joint, "_").isidentifier()

    def _keys(self, names: Iterable[str]) -> set[str]:
        return {name.casefold() for name in names} if self.file.language.case_blind else set(names)

    def _key(self, name: str) -> str:
        return name.casefold() if self.file.language.case_blind else name

    def fresh(self, words: Sequence[str], alternatives: Iterable[str] = ()) -> str:
        """The name made of `words`, or an alternative, or the name with a number: one not in use."""
        for candidate in (in_convention(words, self.style), *alternatives):
            if self._key(candidate) not in self.taken and self._is_name(candidate):
                return self._given(candidate)
        base, number = in_convention(words, self.style), 2
        if not self._is_name(f"{base}{number}"):
            base = "value"
        while self._key(f"{base}{number}") in self.taken:
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

    def column(self, column: Column, copies: Sequence[Copy], among: Sequence[Column] = ()) -> str:
        """A fresh name for what stands in a column, `among` those of its table."""
        words = beside_words(column, copies, among) or column_words(column, copies, self.taken) or ["value"]
        if words == ["index"] and sum(column_words(c, copies, self.taken) == words for c in among) > 1:
            return self.fresh(["first"], ["second", "third", "fourth", "fifth"])
        wanted = in_convention(words[-2:], self.style)
        numbered = column.numbers is not None and copies[0].file.language.declares
        beside = [[other, *words[-2:]] for other in ("other", "third", "fourth", "fifth")]
        if self._key(wanted) not in self.columns:
            held = stands_for_a_thing(column, copies[0]) and not words[-1].endswith("s")
            beside = [] if numbered else [["one", *words[-1:]] if held else [*words[-1:], "value"]]
        others = [in_convention(parts, self.style) for parts in beside]
        if words and words[-1].endswith(("color", "colour")):
            others = [*words[-1:], "color", "shade", *others]
            if len(words) == 1:
                # `fillcolor` and `bgcolor` are colours.
                words = [words[0][words[0].index("col") :]]
        name = self.fresh(words[-2:], others)
        self.columns.add(self._key(name))
        return name

    def general(self, column: Column, copies: Sequence[Copy]) -> str:
        """A name for a variable of one function in place of several that each call theirs otherwise: what their
        names share, else what stands in it; the first function's where that says nothing wrong."""
        own, shared = words_of(column.values[0]), shared_words(column.values)
        if shared == own and not any(c.isdigit() for c in column.values[0]):
            return column.values[0]
        if shared:
            return self.fresh(shared, [in_convention(["one", *shared], self.style)])
        if column.is_target and is_returned(column, copies[0]):
            return self.fresh(["result"])
        if not any(len(w) > 2 for w in own):
            return column.values[0]
        if used_as_collection(copies[0], column):
            return self.fresh(["values"], ["items", "things"])
        if column.is_target:
            added = self._added_up(column, copies[0])
            if added:
                return self.fresh(added[:1], [*added[1:], column.values[0]])
            return self.fresh(["item"]) if turns_a_loop(column, copies[0]) else column.values[0]
        return self.fresh(["amount"] if is_reckoned_with(column, copies[0]) else ["value"], ["given"])

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
            # `sum_parts` and `sum_hours` have a word in common that is no name for a variable.
            known = in_convention(shared, self.style) in self.file.language.builtins
            return self.fresh(shared, [*(self._gathered_in(column, copies[0]) if known else []), column.values[0]])
        gathered = [] if shared else self._gathered_in(column, copies[0])
        if gathered:
            return self.fresh(gathered[:1], [*gathered[1:], column.values[0]])
        if returned and told & set(words):
            return self.fresh(["result"], ["found"])
        if not shared and self._asks_for_a_number(column, copies[0]):
            return self.fresh(["number"], ["amount"])
        family = family_of(column.values)
        place = told_by_place(column)
        if place:
            return self.fresh(place)
        if family is not None and len(family.stem) <= LONGEST_LETTERS:
            # `a1`, `a2` and `a3` are called something by their place only.
            return self.fresh(["answer" if self._is_typed(column, copies[0]) else "value"], ["result"])
        made = class_made(copies[0].file, column.values[0])
        if made and not shared:
            words = words_of(made)[-1:]
            return self.fresh(words, [in_convention(["new", *words], self.style), column.values[0]])
        return self._given(column.values[0])

    def _gathered_in(self, column: Column, copy: Copy) -> list[str]:
        """What a variable is that begins at nothing and to which something is added, time after time; [] for others."""
        tree, name = copy.file.tree, column.values[0]
        given = given_value(tree, copy.first)
        if given is not None and tree.text[given[0]] == name and tree.source_of(given[1]) == "[]":
            return ["found", "values"]
        return self._added_up(column, copy)

    @staticmethod
    def _added_up(column: Column, copy: Copy) -> list[str]:
        """What a number is that begins at nothing and grows."""
        tree, name = copy.file.tree, column.values[0]
        pairs = ((s, given_value(tree, s)) for s in copy.file.statements_within(*copy.span))
        first, value = next(((s, g[1]) for s, g in pairs if g is not None and tree.text[g[0]] == name), (0, 0))
        if not first or tree.source_of(value) not in {"0", "0.0"}:
            return []
        added: set[str] = set()
        for n in range(*copy.span):
            left, right = tree.child(n, "left"), tree.child(n, "right")
            if left is None or right is None or tree.text[left] != name or n == first:
                continue
            if tree.kind[n] == "augmented_assignment":
                added.add(tree.source_of(right))
            elif tree.kind[n] == "assignment" and name in tree.text[right : tree.end[right]]:
                added.add(tree.text[tree.end[right] - 1])
        return (["count", "number"] if added == {"1"} else ["total", "amount"]) if added else []

    @staticmethod
    def _is_typed(column: Column, copy: Copy) -> bool:
        """True for a variable that gets what somebody typed."""
        file, tree, name = copy.file, copy.file.tree, column.values[0]
        given = (given_value(tree, s) for s in copy.file.statements_within(*copy.span))
        right = [pair[1] for pair in given if pair and tree.text[pair[0]] == name]
        calls = [n for n in right if tree.kind[n] == file.language.call]
        return any(file.called_name(n) in file.language.input_calls - SENSED for n in calls)

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
        shared = shared_words(column.values) or told_by_place(column)
        if shared and not set(shared) & STOP_WORDS:
            return self.fresh(shared, [in_convention(["one", *shared], self.style)])
        if used_as_collection(copies[0], column):
            return self.fresh(["values"], ["items", "things"])
        kind = class_of_fields(column, copies[0])
        if kind:
            return self.fresh(words_of(kind)[-1:], ["one"])
        return self.fresh(["amount"] if is_reckoned_with(column, copies[0]) else ["value"], ["result", "given"])

    def first_given(self, column: Column, copies: Sequence[Copy]) -> str:
        """A name for a parameter in place of variables that each copy gives its value first, and calls otherwise."""
        shared = shared_words(column.values)
        if shared and not set(shared) & STOP_WORDS:
            return self.fresh(shared, [column.values[0]])
        if used_as_collection(copies[0], column):
            return self.fresh(["values"], ["items", "things"])
        return self.fresh(["value"], ["given", column.values[0]])

    def counting(self, column: Column, copies: Sequence[Copy]) -> str:
        """A fresh name for a loop's number: what the numbers are of, where that is told, else a counter."""
        words = told_words(column, copies)
        if not words or self._key(in_convention(words[-2:], self.style)) in self.taken:
            return self.counter()
        return self.column(column, copies)

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
        self,
        copy: Copy,
        comment: str,
        returned: Sequence[str],
        differing: set[str],
        given: Sequence[str] = (),
        unlike: Iterable[str] = (),
    ) -> str:
        """A fresh name for a function with the statements of `copy`; `returned` and `given`: names that it gives back
        and is given; `unlike`: words that only some of the comments above the copies hold."""
        changed = set(returned) <= set(given)
        new = [name for name in returned if name not in given] or returned
        told = returned if len(returned) == 1 else [*(name for name in returned if name not in new), *new]
        return self._capital(self._function(copy, comment, told, differing, changed=changed, unlike=unlike))

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
        kept = [name for name in returned if name in given and len(name) > LONGEST_LETTERS]
        about = topic_of_step(copy, returned, given)
        verb = self._main_verb(copy, kept, True) if len(kept) == 1 and not (new or comment_words(comment)) else ""
        if verb == "update" and self._main_verb(copy, ()) == "print":
            wanted = in_convention([verb, *words_of(kept[0])[:2]], self.style)
            if self._key(wanted) not in self.taken:
                return self._capital(self._given(wanted))
        if verb == "read":
            new = kept
        return self._capital(self._function(copy, comment, new, set(), about, kept=kept))

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
        kept: Sequence[str] = (),
        unlike: Iterable[str] = (),
    ) -> str:
        words = comment_words(comment)
        if not words and len(copy.statements) == 1 and exchanges(copy):
            return self.fresh(["put", "in", "order"])
        if not words and self._draws_a_chart(copy):
            return self.fresh(["draw", "chart"])
        does = bool(words) and tells_what_to_do(comment)
        if len(words) == 1 and (words[0] in CHOSEN_VERBS or (does and words[0] not in COMMON_VERBS)):
            return self.fresh(words, [in_convention([self._main_verb(copy, returned, changed), *words], self.style)])
        made = self._made_often(copy) if not (words or returned) else []
        if made:
            return self.fresh(["make", *made])
        bounded = self._keeps_within_bounds(copy) and len(returned) == 1
        verb = "limit" if bounded else self._main_verb(copy, returned, changed)
        if words and (does or words[0] in COMMON_VERBS):
            if len(words) > 1:
                return self.fresh(words[:3])
            verb, words = words[0], []
        nouns = words[:2] if 1 <= len(words) <= 4 else list(about)
        if not nouns:
            # What is worked out last is what the others are worked out for.
            result = returned[-1] if len(returned) == 1 or (returned and verb == "find") else ""
            told = words_of(result)[:2] if result not in PLAIN else []
            given = [w for w in told if len(w) > 2 and w not in differing | STOP_WORDS | {"new"}]
            differing = {*differing, *unlike}
            if verb in {"print", "show"} and not given:
                given = heading_of_copies(copy, differing)
            nouns = given or self._topic(copy, differing, asks=verb in {"read", "ask"})
            if verb in {"read", "ask"} and nouns[0] in {"number", "value"} and not self._gathers(copy):
                nouns = _asked_in_all(copy, differing) or nouns
            if verb == "read" and nouns[0] in {"number", "value"} and self._gathers(copy):
                nouns = [plural_of(nouns[0])]
        nouns = [n for n in nouns if not n.startswith(verb)] or ["part"]
        if nouns == ["part"] and verb in {"move", "set", "update"} and verb == self._verb_of_changes(copy):
            nouns = ["one"]
        if nouns == ["part"] and verb in TOPICS_OF_VERBS:
            nouns = [TOPICS_OF_VERBS[verb]]
        others: list[str] = []
        if not (words or bounded):
            others = self._other_names(copy, verb, returned or kept, differing, changed or not returned)
        return self.fresh([verb, *(["value"] if bounded and nouns == ["part"] else nouns)], others)

    def _other_names(
        self, copy: Copy, verb: str, returned: Sequence[str], differing: set[str], changed: bool
    ) -> list[str]:
        """Further names for a function, where the first one is in use: what it works out beside what it shows, else
        the next words that its names and texts use most."""
        if returned:
            worked_out = words_of(returned[0])[:2] if len(returned) == 1 and returned[0] not in PLAIN else []
            other = {"update": "change"}.get(verb) or ("update" if changed else "find")
            verbs = [verb, other] if verb == "read" else [other]
            return [in_convention([v, *worked_out], self.style) for v in verbs] if worked_out else []
        topics = self._topics(copy, differing, verb == "read")[1:]
        return [in_convention([verb, word], self.style) for word in topics if may_be_a_topic(word)]

    @staticmethod
    def _draws_a_chart(copy: Copy) -> bool:
        """True where something is told to draw a chart, and how."""
        file, tree = copy.file, copy.file.tree
        calls = [n for n in copy.statements if tree.kind[n] == file.language.call]
        held = {tree.text[n + 2] for n in calls if tree.kind[n + 1] == file.language.member[0]}
        alone = len(held) == 1 and len(calls) > 1 and "matplotlib" in file.names.everything
        return alone and any(file.called_name(n) in CHARTS for n in calls)

    def _made_often(self, copy: Copy) -> list[str]:
        """What several things are that are made by the name of their class; [] where they are not of one class."""
        file, tree = copy.file, copy.file.tree
        called = Counter(file.called_name(n) for n in range(*copy.span) if tree.kind[n] == file.language.call)
        made = [(name, count) for name, count in called.items() if self._makes([name])]
        if len(made) != 1 or made[0][1] < MANY_MADE:
            return []
        return [plural_of(word) for word in words_of(made[0][0])[-1:]]

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
        bounds = bounds and language.loops.isdisjoint(tree.kind[slice(*copy.span)])
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
        verb = self._main_verb(body, ())
        if topic == ["part"]:
            given = body.file.procedure_around(body.first).parameters[:1] if verb in {"keep", "change"} else ()
            topic = words_of(given[0]) if given else ["one"]
        return self.fresh([verb, *topic], alternatives)

    # -- functions -------------------------------------------------------------------------------

    def _main_verb(self, copy: Copy, returned: Sequence[str], changed: bool = False) -> str:
        """What is done, in a word; `changed`: to what is given, which is given back."""
        file = copy.file
        start, stop = copy.span
        statements = set(file.statements_within(start, stop))
        made = [n for n in range(start, stop) if file.tree.kind[n] == file.language.call]
        # What is typed to go on, and kept nowhere, is not read.
        calls = Counter(file.called_name(n) for n in made if not (n in statements and file.called_name(n) in ASKING))
        own = [w for name in calls for w in words_of(name)[:1] if w in COMMON_VERBS]
        if returned and changed and any(PLACE.fullmatch(name.rstrip("0123456789")) for name in returned):
            return "move"
        if returned:
            reads = (
                any(calls[name] for name, verb in VERBS.items() if verb == "read")
                or "cin" in file.tree.text[start:stop]
            )
            if reads or (ends_with_output(copy) and not changed):
                return "read" if reads else "print"
            drawn = not changed and any(calls[name] for name in DRAWING_LOTS)
            return "make" if self._makes(calls) else "update" if changed else "pick" if drawn else "find"
        last = copy.statements[-1]
        at_last = words_of(file.called_name(last))[:1] if file.tree.kind[last] == file.language.call else []
        if at_last and at_last[0] in SHOWING and file.called_name(last) not in VERBS:
            return at_last[0]
        for name, verb in VERBS.items():
            if calls[name]:
                return verb
        if "cout" in file.tree.text[start:stop]:
            return "print"
        if file.language.values_everywhere and any(calls[name] for name in file.language.output_calls):
            return "show"
        gives = file.language.values_everywhere or _gives_a_value(copy)
        if not own and "cons" in calls and file.language.values_everywhere:
            return "keep" if _keeps_parts(copy) else "change"
        # What gives nothing back gets nothing, whatever it asks for on its way.
        own = own if gives else [verb for verb in own if verb != "get"]
        if own or gives or self._makes(calls):
            return own[0] if own else "find" if gives else "make"
        return "show" if _shows_on_a_page(copy) else self._verb_of_changes(copy)

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
        made = [name for name in calls if name[:1].isupper() and name not in MAKING_NUMBERS]
        return bool(made) and not self.file.language.capitals

    def _topic(self, copy: Copy, differing: set[str], asks: bool = False) -> list[str]:
        """The word that the copy's names and texts use most."""
        return self._topics(copy, differing, asks)[:1]

    def _topics(self, copy: Copy, differing: set[str], asks: bool = False) -> list[str]:
        """The words that the copy's names and texts use, most used first, but for the words of `differing`; where the
        copy asks for something, its texts are what it says to people, and tell nothing."""
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
                counts.update(w for w in dict.fromkeys(words) if len(w) > 3 and w not in NO_THINGS)
        reckoned = next((word for word in counts if word in QUANTITIES), "part")
        if asks:
            called = {file.called_name(n) for n in range(start, stop) if file.tree.kind[n] == file.language.call}
            reckoned = "number" if called & MAKING_NUMBERS else "value"
        for word in list(counts):
            if word in differing or word in STOP_WORDS or word in COMMON_VERBS or word in ORDINALS:
                del counts[word]
        most = [word for word, count in counts.items() if count == max(counts.values())]
        if len(most) > LONGEST_OF_TWO and COLORS.issuperset(most):
            # Red, yellow and green are not what only one of them is.
            return ["lights"]
        return [word for word, _ in counts.most_common(MOST_TOPICS)] or [reckoned]


ON_PAGES = frozenset("textContent innerText innerHTML".split())
"""What an element of a page shows."""


def _shows_on_a_page(copy: Copy) -> bool:
    """True where an element of a page, or of a window, is given what it shows."""
    file, tree = copy.file, copy.file.tree
    for n in range(*copy.span):
        shown = tree.kind[n] == file.language.keyword_argument[0] and tree.text[n + 1] == "text"
        if shown and file.called_name(tree.parent[tree.parent[n]]) in {"config", "configure", "itemconfig"}:
            return True
    lefts = (tree.child(n, "left") for n in range(*copy.span) if tree.kind[n] == "assignment")
    return any(tree.text[tree.end[left] - 1] in ON_PAGES for left in lefts if left is not None)


def _asked_in_all(copy: Copy, differing: set[str]) -> list[str]:
    """The word with which something is asked for in all copies: `mark` of `"Maths mark: "` and `"Art mark: "`."""
    file, tree = copy.file, copy.file.tree
    for node in range(*copy.span):
        if tree.kind[node] != file.language.call or file.called_name(node) not in ASKING:
            continue
        words = [w for n in range(node, tree.end[node]) if tree.kind[n] == "string" for w in words_of(tree.text[n])]
        told = [w for w in words if len(w) > LONGEST_LETTERS and w not in differing and may_be_a_topic(w)]
        if told and any(w in differing for w in words):
            return told[-1:]
    return []


def _gives_a_value(copy: Copy) -> bool:
    """True where something is returned, not only left."""
    tree, (start, stop) = copy.file.tree, copy.span
    returning = copy.file.language.returning
    return any(tree.kind[n] == returning and len(tree.leaf_texts(n)) > 1 for n in range(start, stop))


def _keeps_parts(copy: Copy) -> bool:
    """True where a list is built of parts of another as they are (`(cons (first boats) …)`)."""
    file, (start, stop) = copy.file, copy.span
    calls = [n for n in range(start, stop) if file.tree.kind[n] == file.language.call]
    given = [file.tree.child(n, "arguments") for n in calls if file.called_name(n) == "cons"]
    firsts = [parts[0] for n in given if n is not None and (parts := file.tree.items(n))]
    return any(n in calls and file.called_name(n) in {"first", "car"} for n in firsts)


def told_by_place(column: Column) -> list[str]:
    """`dx` of `dx1`, `dx2` and `dx3`; [] for names that tell nothing of where something is."""
    family = family_of(column.values)
    return [family.stem] if family is not None and PLACE.fullmatch(family.stem) else []
