"""What statements do, told by their form: count, add up, keep the largest, look for something, print, ask.

A deed belongs to the variable that holds its outcome; what is shown has none. The forms are those of
first courses (an accumulator before a loop, a test with a replacement inside it, a chain of branches that
assign one variable); what fits no form has no deed.
"""

from __future__ import annotations

import re
from collections.abc import Iterator, Sequence
from enum import StrEnum
from functools import cached_property

import msgspec

from ..program.names import Role
from ..program.program import ProgramFile
from ..program.shapes import is_plain_list

GIVEN_BACK = "return"
"""Stands for a variable where a function gives its outcome back."""


class Deed(StrEnum):
    """What a stretch of statements does."""

    COUNT = "count"
    SUM = "sum"
    MEAN = "mean"
    PRODUCT = "product"
    LARGEST = "largest"
    SMALLEST = "smallest"
    SEARCH = "search"
    TEST = "test"
    TEXT = "text"
    LIST = "list"
    SORT = "sort"
    FORMULA = "formula"
    MORE = "more"
    LESS = "less"
    EACH = "each"
    """All places of a list are given values by what they had."""
    DECIDE = "decide"
    CHANCE = "chance"
    ASK = "ask"
    ACT = "act"
    SHOW = "show"


class Done(msgspec.Struct, frozen=True):
    """A deed, and the variable that holds what came of it ("" for what is shown)."""

    deed: Deed
    variable: str


CALLS = {
    "max": Deed.LARGEST,
    "min": Deed.SMALLEST,
    "sum": Deed.SUM,
    "reduce": Deed.SUM,
    "mean": Deed.MEAN,
    "average": Deed.MEAN,
    "count": Deed.COUNT,
    "sorted": Deed.SORT,
    "sort": Deed.SORT,
    "reversed": Deed.TEXT,
    "reverse": Deed.TEXT,
    "join": Deed.TEXT,
    "index": Deed.SEARCH,
    "indexOf": Deed.SEARCH,
    "find": Deed.SEARCH,
    "findIndex": Deed.SEARCH,
    "filter": Deed.LIST,
    "map": Deed.LIST,
    "split": Deed.LIST,
    "choice": Deed.CHANCE,
    "shuffle": Deed.CHANCE,
    "sample": Deed.CHANCE,
    "Next": Deed.CHANCE,
}
"""What a call of the library does that gives its outcome to a variable."""
ADDING = frozenset({"append", "push", "add", "Add", "insert", "push_back", "addLast", "append!"})
TEXT_CALLS = frozenset(
    "slice substring substr upper lower toUpperCase toLowerCase ToUpper ToLower charAt strip replace join".split()
)
CHANGING_TEXTS = frozenset(
    "replace upper lower title capitalize toUpperCase toLowerCase ToUpper ToLower swapcase".split()
)
QUOTES = frozenset("'\"`")
LESS, MORE = frozenset({"<", "<="}), frozenset({">", ">="})
SAME = frozenset({"==", "===", "!=", "!==", "in", "equals", "eq", "strcmp", "includes", "contains"})
TESTING = frozenset({"boolean_operator", "comparison_operator", "not_operator"})
TESTS = frozenset({"<", "<=", ">", ">=", "==", "!=", "===", "!==", "&&", "||", "!"})
RECKONING = frozenset({"+", "-", "*", "/", "//", "%", "**", "\\", "Mod"})
CHANGING = {"+": Deed.MORE, "-": Deed.LESS}
"""What it is to give a variable once what it had, and something more or less."""
DISPLAYS = frozenset({"list_comprehension"})
TRUTHS = frozenset({"true", "false", "True", "False"})
FLAGS = (["0"], ["1"])
"""Numbers that stand for truths."""


def deeds_of(file: ProgramFile, statement: int) -> frozenset[Done]:
    """The deeds of one statement with all that is inside it; worked out once for each."""
    known = file.derived.get(("deeds", statement))
    if not isinstance(known, frozenset):
        known = frozenset(_Reader(file, statement).read())
        file.derived["deeds", statement] = known
    return known


def given_either_way(file: ProgramFile, choice: int) -> set[str]:
    """The variables that more than one branch of a choice gives a value, or changes."""
    return _Reader(file, choice).given_either_way()


def deeds_of_value(file: ProgramFile, statement: int, node: int) -> frozenset[Deed]:
    """What is done for a value that is worked out inside a statement."""
    reader = _Reader(file, statement)
    told = {done.deed for done in reader._told_by(node, "", node, False)}
    if file.language.values_everywhere and _reckons(file, node):
        told |= {Deed.FORMULA, *([Deed.MEAN] if file.called_name(node) == "/" else [])}
    return frozenset(told)


def values_in(file: ProgramFile, statement: int) -> Iterator[int]:
    """The values that a statement works out to show or add them: the largest arithmetic, tests, and calls of the
    library that stand in it, but for the texts that are joined to them."""
    tree, language = file.tree, file.language
    if tree.kind[statement] in language.conditionals:
        condition = tree.child(statement, "condition")
        while condition is not None and tree.kind[condition] == "parenthesized_expression":
            condition = condition + 2
        if condition is not None and tree.kind[condition] in TESTING | {"binary_operator"}:
            yield condition
        return
    if not (tree.kind[statement] == "augmented_assignment" or shows(file, statement)):
        return
    node, stop = statement + 1, tree.end[statement]
    while node < stop:
        kind = tree.kind[node]
        joins = bool((language.strings | {"string", "string_content"}) & set(tree.kind[node : tree.end[node]]))
        reckons = _reckons(file, node)
        works = kind == language.call and file.called_name(node) in CALLS.keys() | CHANGING_TEXTS
        if (reckons and not joins) or works or kind in DISPLAYS or kind == "comparison_operator":
            yield node
            node = tree.end[node]
        else:
            node += 1


def _reckons(file: ProgramFile, node: int) -> bool:
    """True for arithmetic, but for what is only one more or one less."""
    tree, language = file.tree, file.language
    if language.values_everywhere and tree.kind[node] == language.call:
        return file.called_name(node) in RECKONING
    parts = [tree.text[c] for c in tree.children(node)]
    one_more = len(parts) == 3 and parts[1] in {"+", "-"} and parts[2] == "1"
    return tree.kind[node] == "binary_operator" and bool(RECKONING & {*parts}) and not one_more


def shows_only(file: ProgramFile, statement: int) -> bool:
    """True for a statement that shows something and does nothing else that lasts, but count its turns."""
    tree, language = file.tree, file.language
    if tree.kind[statement] in language.loops | language.conditionals:
        inner = file.statements_within(statement + 1, tree.end[statement])
        shown = any(shows(file, s) for s in _simple_statements(file, statement))
        return shown and not any(_asks(file, s) for s in inner)
    return shows(file, statement)


def acts_only(file: ProgramFile, statement: int) -> bool:
    """True for a statement that calls functions of the surroundings for what they do, and for a loop of such."""
    tree, language = file.tree, file.language
    simple = _simple_statements(file, statement)
    own = {p.name for p in file.procedures}
    calls = [next((n for n in range(s, tree.end[s]) if tree.kind[n] == language.call), -1) for s in simple]
    alone = all(n >= 0 and tree.end[n] == tree.end[s] for n, s in zip(calls, simple, strict=True))
    given = any(tree.kind[s] in {"assignment", "augmented_assignment", "declaration"} for s in simple)
    return bool(simple) and alone and not given and not any(file.called_name(n) in own for n in calls)


def _simple_statements(file: ProgramFile, statement: int) -> list[int]:
    """The statement itself, or of a loop or choice those inside that are none."""
    tree, steering = file.tree, file.language.loops | file.language.conditionals
    if tree.kind[statement] not in steering:
        return [statement]
    return [s for s in file.statements_within(statement + 1, tree.end[statement]) if tree.kind[s] not in steering]


def shows_in_every_loop(file: ProgramFile, statement: int) -> bool:
    """True where no loop of a statement only works something out."""
    tree, loops = file.tree, file.language.loops
    found = [s for s in file.statements_within(statement, tree.end[statement]) if tree.kind[s] in loops]
    return all(shows(file, s) for s in found)


def shown_texts_only(file: ProgramFile, statement: int) -> bool:
    """True for a statement that shows nothing but texts in which no value stands."""
    stop = file.tree.end[statement]
    names = [n for n in file.names.within(statement, stop) if not file.tree.text[n].isupper()]
    roles = [file.names.role[n] for n in names if file.names.owner(n) >= 0]
    numbers = file.language.numbers & set(file.tree.kind[statement:stop])
    repeats = "*" in file.tree.text[statement:stop]
    return shows(file, statement) and not any(role <= Role.UPDATE for role in roles) and (repeats or not numbers)


def shows(file: ProgramFile, statement: int) -> bool:
    """True for a statement that shows something, whatever else it does."""
    tree, language = file.tree, file.language
    if tree.kind[statement] in {"assignment", "augmented_assignment", "declaration"}:
        return False
    return any(
        (tree.kind[n] == language.call and file.called_name(n) in language.output_calls) or tree.text[n] == "cout"
        for n in range(statement, tree.end[statement])
    )


def _asks(file: ProgramFile, statement: int) -> bool:
    return asks_within(file, statement, file.tree.end[statement])


def asks_within(file: ProgramFile, start: int, stop: int) -> bool:
    """True where somebody is asked, or a sensor read, between two nodes."""
    tree, language = file.tree, file.language
    return any(
        (tree.kind[n] == language.call and file.called_name(n) in language.input_calls and not by_chance(file, n))
        or tree.text[n] == "cin"
        for n in range(start, stop)
    )


def by_chance(file: ProgramFile, call: int) -> bool:
    """True for a call that leaves something to chance: `rand()`, `random.choice(…)`, `random.nextInt(6)`."""
    callee = file.tree.child(call, file.language.callee_field)
    return callee is not None and "rand" in file.tree.source_of(callee).lower()


class _Reader:
    """Reads one statement, and the conditions and loops that each thing in it stands under."""

    def __init__(self, file: ProgramFile, statement: int) -> None:
        self.file, self.tree, self.language = file, file.tree, file.language
        self.statement = statement
        self.assigned: list[tuple[int, str]] = []
        """(node, variable) of all assignments, for what is told by several of them."""

    def read(self) -> Iterator[Done]:
        tree, language = self.tree, self.language
        stop = tree.end[self.statement]
        for node in range(self.statement, stop):
            kind = tree.kind[node]
            if kind in {"assignment", "augmented_assignment", "declarator", "named_expression"}:
                yield from self._given(node)
            elif kind == "update":
                yield from self._counted(node)
            elif kind == language.call:
                yield from self._called(node)
            elif kind == language.returning:
                yield from self._returned(node)
        yield from self._decided()
        yield from self._sorted()
        yield from (Done(Deed.ASK, name) for name in self._asked_for())
        if shows_only(self.file, self.statement):
            yield Done(Deed.SHOW, "")
        elif acts_only(self.file, self.statement):
            yield Done(Deed.ACT, "")

    def _asked_for(self) -> set[str]:
        """The variables that get what somebody types, or what a sensor tells."""
        file, tree = self.file, self.tree
        found = {variable for node, variable in self.assigned if _asks(file, node)}
        if {"scanf", "fgets", "cin"} & set(tree.text[self.statement : tree.end[self.statement]]):
            asking = [s for s in _simple_statements(file, self.statement) if _asks(file, s)]
            found |= {n for s in asking for n in _written_in(file, s)}
        stop = tree.end[self.statement]
        if "out" in tree.text[self.statement : stop] and _asks(file, self.statement):
            found |= {tree.text[n] for n in file.names.within(self.statement, stop) if tree.text[n - 1] == "out"}
        return found | self._filled_with(found)

    def _filled_with(self, asked: set[str]) -> set[str]:
        """Lists and dictionaries into which a loop puts what was asked for."""
        tree, language = self.tree, self.language
        filled: set[str] = set()
        for node in range(self.statement, tree.end[self.statement]) if asked else ():
            left = tree.child(node, "left")
            if tree.kind[node] in {"assignment", "augmented_assignment"} and left is not None:
                held, stop = left, tree.end[node]
                given = tree.kind[left] == "subscript" and tree.kind[left + 1] == language.name
            else:
                held, stop = tree.child(node, language.callee_field) or 0, tree.end[node]
                given = tree.kind[node] == language.call and tree.kind[held] == language.member[0]
                given = given and self.file.called_name(node) in ADDING
            if given and self._in_loop(node) and asked & set(tree.text[held + 2 : stop]):
                filled.add(tree.text[held + 1])
        return filled - {""}

    # -- one assignment ----------------------------------------------------------------------------

    def _given(self, node: int) -> Iterator[Done]:
        tree = self.tree
        left, right = tree.child(node, "left"), tree.child(node, "right")
        if left is None or right is None:
            return
        left = self._first_target(left)
        name = left + 1 if tree.kind[left] == "subscript" else left
        variable = tree.text[name]
        if tree.kind[name] != self.language.name:
            return
        self.assigned.append((node, variable))
        looped = self._in_loop(node)
        if looped and tree.kind[left] == "subscript" and tree.source_of(left) in tree.source_of(right):
            yield Done(Deed.EACH, variable)
        if looped and tree.kind[left] == "subscript" and self.by_chance:
            yield Done(Deed.CHANCE, variable)
        operator = self._growth(node, variable, right)
        place = tree.kind[left] == "subscript" and tree.kind[node] != "augmented_assignment"
        if operator and looped and not place:
            yield from self._grown(variable, operator, right)
            yield from self._by_calls(variable, right)
            return
        if operator in CHANGING and not looped:
            yield Done(CHANGING[operator], variable)
        yield from self._told_by(node, variable, right, looped)

    def _first_target(self, left: int) -> int:
        """Of several targets the first: `a[i], a[j] = a[j], a[i]` changes one list."""
        return left + 1 if self.tree.kind[left] in self.language.patterns else left

    @cached_property
    def by_chance(self) -> bool:
        """True where chance plays a part in the statement."""
        tree = self.tree
        calls = (n for n in range(self.statement, tree.end[self.statement]) if tree.kind[n] == self.language.call)
        return any(by_chance(self.file, n) for n in calls)

    def _told_by(self, node: int, variable: str, right: int, looped: bool) -> Iterator[Done]:
        """What a value does that replaces another, or is worked out in one go."""
        tree = self.tree
        texts = tree.text[right : tree.end[right]]
        if looped:
            yield from self._replaced(node, variable, bool(set(texts) & TRUTHS) or texts in FLAGS)
        else:
            yield from self._chosen(node, variable, right)
        if tree.kind[right] == self.language.call and self.file.called_name(right) in CHANGING_TEXTS:
            yield from () if _asks(self.file, right) else (Done(Deed.TEXT, variable),)
        if "+" in texts and (TEXT_CALLS & set(texts) or any(t[:1] in QUOTES for t in texts)):
            yield Done(Deed.TEXT, variable)
        if tree.kind[right] in DISPLAYS:
            yield Done(Deed.LIST, variable)
        yield from self._by_calls(variable, right)
        if looped and tree.kind[tree.child(node, "left") or node] == "subscript" and texts[-2:] == ["+", "1"]:
            yield Done(Deed.COUNT, variable)
        if tree.kind[right] in TESTING or any(t in TESTS for t in self._own_signs(right)):
            yield Done(Deed.TEST, variable)
        operators = set(self._reckoned(right))
        # A list of numbers, some of them below 0, is worked out of nothing.
        listed = tree.kind[right] == "list" and is_plain_list(tree, right)
        if operators and tree.kind[right] not in self.language.strings and not listed:
            yield Done(Deed.FORMULA, variable)
        if {"/", "//"} & operators:
            yield Done(Deed.MEAN, variable)

    def _reckoned(self, node: int) -> Iterator[str]:
        """The arithmetic signs of a value, but for what only names the next place of a list."""
        tree = self.tree
        near = 0
        for n in range(node, tree.end[node]):
            if tree.kind[n] == "subscript":
                near = max(near, tree.end[n])
            sign = tree.text[n]
            if sign in RECKONING and tree.kind[n] == sign and not (n < near and sign in {"+", "-"}):
                yield sign

    def _by_calls(self, variable: str, right: int) -> Iterator[Done]:
        """What functions of the library do that give a value to a variable."""
        for n in range(right, self.tree.end[right]):
            if self.tree.kind[n] == self.language.call:
                name = self.file.called_name(n)
                if name in CALLS:
                    yield Done(CALLS[name], variable)
                if by_chance(self.file, n):
                    yield Done(Deed.CHANCE, variable)

    def _own_signs(self, node: int) -> list[str]:
        """The operators of an expression itself, not of its operands."""
        while self.tree.kind[node] == "parenthesized_expression":
            node = node + 2
        if self.tree.kind[node] not in {"binary_operator", "unary_operator"}:
            return []
        return [self.tree.text[c] for c in self.tree.children(node) if self.tree.text[c]]

    def _growth(self, node: int, variable: str, right: int) -> str:
        """The operator by which a variable grows here: `+` for `x += 1` and `x = x + 1`; "" for anything else."""
        tree = self.tree
        if tree.kind[node] == "augmented_assignment":
            signs = [tree.text[c] for c in tree.children(node) if tree.text[c].endswith("=")]
            return signs[0][:1] if signs else ""
        if tree.kind[right] != "binary_operator":
            return ""
        parts = list(tree.children(right))
        signs = [tree.text[c] for c in parts if tree.text[c] in {"+", "*", "-", "&"}]
        sides = [parts[0], parts[-1]]
        deeper = parts[0] + 1
        while tree.kind[sides[0]] == "binary_operator" and deeper < tree.end[right]:
            sides[0] = sides[0] + 1
        given = tree.child(node, "left")
        kept = tree.source_of(given) if given is not None and tree.kind[given] == "subscript" else variable
        return signs[0] if signs and any(kept in (tree.text[s], tree.source_of(s)) for s in sides) else ""

    def _grown(self, variable: str, operator: str, right: int) -> Iterator[Done]:
        tree = self.tree
        if operator == "*":
            yield Done(Deed.PRODUCT, variable)
            return
        texts = [t for t in tree.leaf_texts(right) if t != variable]
        if operator == "+" and texts in (["1"], ["+", "1"], ["1", "+"]):
            yield Done(Deed.COUNT, variable)
            return
        if any(t[:1] in QUOTES for t in texts) or operator == "&":
            yield Done(Deed.TEXT, variable)
        elif texts[:1] == ["["]:
            yield Done(Deed.LIST, variable)
        elif operator == "+":
            # Which of the two it is tells the first value.
            yield from (Done(deed, variable) for deed in (Deed.SUM, Deed.TEXT))

    def _replaced(self, node: int, variable: str, truth: bool) -> Iterator[Done]:
        """What an assignment does that only some turns of a loop get to."""
        test = self._test_above(node)
        if test is None:
            return
        words = self.tree.text[test[0] : test[1]]
        compared = [i for i, t in enumerate(words) if t in LESS | MORE]
        beside = {variable} if variable in words or not compared else self._given_beside(node)
        own = [i for i, t in enumerate(words) if t in beside]
        if compared and own:
            sign, place = compared[0], own[0]
            kept_if_more = (words[sign] in MORE) == (place > sign)
            yield Done(Deed.LARGEST if kept_if_more else Deed.SMALLEST, variable)
        elif truth:
            yield Done(Deed.TEST, variable)
        elif compared or SAME & set(words):
            yield Done(Deed.SEARCH, variable)

    def _given_beside(self, node: int) -> set[str]:
        """The variables that the other statements of a branch give values."""
        tree = self.tree
        around = tree.parent[node]
        if tree.kind[around] not in self.language.blocks:
            return set()
        lefts = [tree.child(c, "left") for c in tree.children(around) if tree.kind[c] == "assignment" and c != node]
        return {tree.text[left] for left in lefts if left is not None and tree.text[left]}

    def _chosen(self, node: int, variable: str, right: int) -> Iterator[Done]:
        """The larger or smaller one of two, which a test tells."""
        test = self._test_above(node)
        words = self.tree.text[test[0] : test[1]] if test is not None else []
        texts = self.tree.text[right : self.tree.end[right]]
        if test is not None and (set(texts) & TRUTHS or texts in FLAGS):
            yield Done(Deed.TEST, variable)
        value = self.tree.text[right] if self.tree.kind[node] != "augmented_assignment" else ""
        compared = [i for i, t in enumerate(words) if t in LESS | MORE]
        if value and value != variable and len(compared) == 1 and value in words:
            larger = (words[compared[0]] in MORE) == (words.index(value) < compared[0])
            yield Done(Deed.LARGEST if larger else Deed.SMALLEST, variable)

    def _counted(self, node: int) -> Iterator[Done]:
        tree = self.tree
        names = [n for n in range(node, tree.end[node]) if tree.kind[n] == self.language.name]
        if names and self._in_loop(node) and tree.field[node] != "update":
            yield Done(Deed.COUNT, tree.text[names[0]])

    def _called(self, node: int) -> Iterator[Done]:
        tree, name = self.tree, self.file.called_name(node)
        callee = tree.child(node, self.language.callee_field)
        if callee is None or tree.kind[callee] != self.language.member[0]:
            return
        owner = tree.text[callee + 1] or (tree.text[callee + 2] if tree.kind[callee + 1] == "subscript" else "")
        if owner and name in ADDING and self._in_loop(node):
            yield Done(Deed.LIST, owner)
        if owner and name in {"sort", "Sort"}:
            yield Done(Deed.SORT, owner)

    def _returned(self, node: int) -> Iterator[Done]:
        tree = self.tree
        values = [c for c in tree.children(node) if tree.text[c] not in {"return", ";"}]
        if len(values) != 1 or tree.kind[values[0]] == self.language.name:
            return
        truth = set(tree.text[values[0] : tree.end[values[0]]]) & TRUTHS != set()
        self.assigned.append((node, GIVEN_BACK))
        if truth:
            yield Done(Deed.TEST, GIVEN_BACK)
        yield from self._told_by(node, GIVEN_BACK, values[0], self._in_loop(node) and not truth)

    # -- several assignments ------------------------------------------------------------------------

    def _decided(self) -> Iterator[Done]:
        """Branches of one choice that all give the same variable its value."""
        tree, language = self.tree, self.language
        if tree.kind[self.statement] not in language.conditionals:
            return
        branches = self._branches([n for n, _ in self.assigned if tree.kind[n] != "augmented_assignment"])
        decided = [variable for variable, places in branches.items() if len(places) > 1]
        yield from (Done(Deed.DECIDE, variable) for variable in decided)
        yield from (Done(Deed.SEARCH, variable) for variable in decided if self._is_looked_up(variable))

    def _branches(self, nodes: Sequence[int]) -> dict[str, set[int]]:
        """For each variable the branches of the statement, as their blocks, in which some assignments give it a
        value."""
        branches: dict[str, set[int]] = {}
        for node, variable in self.assigned:
            if node in nodes and not self._in_loop(node):
                *_, above = (-1, *(p for p in self._above(node) if self.tree.kind[p] in self.language.blocks))
                branches.setdefault(variable, set()).add(above)
        return branches

    def given_either_way(self) -> set[str]:
        """The variables that more than one branch of the statement gives a value, or changes."""
        for _ in self.read():
            pass
        branches = self._branches([node for node, _ in self.assigned])
        return {variable for variable, places in branches.items() if len(places) > 1}

    def _is_looked_up(self, variable: str) -> bool:
        """True for what is taken out of a dictionary in which it is said to be."""
        tree = self.tree
        test = self._test_above(self.assigned[0][0])
        if test is None or not {"in", "has", "containsKey", "ContainsKey"} & set(tree.text[slice(*test)]):
            return False
        values = [tree.child(node, "right") for node, given in self.assigned if given == variable]
        return any(
            v is not None and tree.kind[v] == "subscript" and tree.text[v + 1] in tree.text[slice(*test)]
            for v in values
        )

    def _sorted(self) -> Iterator[Done]:
        """Values of a list that change places under a comparison, in a loop in a loop."""
        for node, variable in self.assigned:
            left = self.tree.child(node, "left")
            inside = left is not None and self.tree.kind[self._first_target(left)] != self.language.name
            test = self._test_above(node)
            if not inside or test is None:
                continue
            loops = [p for p in self._above(node) if self.tree.kind[p] in self.language.loops]
            words = self.tree.text[test[0] : test[1]]
            if len(loops) > 1 and variable in words and (LESS | MORE) & set(words):
                yield Done(Deed.SORT, variable)

    # -- what stands around -------------------------------------------------------------------------

    def _above(self, node: int) -> Iterator[int]:
        """The nodes around a node, up to the statement, from the inside."""
        while node > self.statement:
            node = self.tree.parent[node]
            yield node

    def _in_loop(self, node: int) -> bool:
        return any(self.tree.kind[p] in self.language.loops for p in self._above(node))

    def _test_above(self, node: int) -> tuple[int, int] | None:
        """The node range of the nearest test that a node stands under."""
        tree, language = self.tree, self.language
        for above in self._above(node):
            if tree.kind[above] in language.conditionals | language.clauses:
                blocks = [c for c in tree.children(above) if tree.kind[c] in language.blocks]
                if blocks and blocks[0] > above + 2:
                    return above + 1, blocks[0]
        return None


def _written_in(file: ProgramFile, statement: int) -> set[str]:
    """The variables that a statement gives values."""
    names = file.names
    found = names.within(statement, file.tree.end[statement])
    given = {file.tree.text[n] for n in found if names.role[n] in (Role.WRITE, Role.UPDATE)}
    if {"scanf", "fgets"} & set(file.tree.text[statement : file.tree.end[statement]]):
        given |= {file.tree.text[n] for n in found if file.tree.text[n - 1] == "&"}
    return given


def starts_as_text(file: ProgramFile, statements: Sequence[int], variable: str) -> bool | None:
    """True where the variable's first value is a text, False for another plain value; None where none is in sight."""
    tree = file.tree
    for statement in statements:
        for node in range(statement, tree.end[statement]):
            left, right = tree.child(node, "left"), tree.child(node, "right")
            if left is not None and right is not None and tree.text[left] == variable:
                named = tree.kind[right] == file.language.name
                return None if named else re.match(r"""[a-zA-Z]?["'`]""", tree.source_of(right)) is not None
    return None
