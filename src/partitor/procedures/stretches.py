"""Consecutive statements that could be a function's job: what they do, what they need, and what comes of them.

Nothing here depends on what is asked for, so that a program is looked through once for all functions.
"""

from __future__ import annotations

from collections import Counter
from collections.abc import Iterator, Sequence
from functools import cached_property

import msgspec

from ..program.blocks import Block
from ..program.elements import elements_used
from ..program.flow import EMPTY, Set, flow_of, has_no_value_yet, summaries_of
from ..program.names import WRITES, Role
from ..program.program import Procedure, ProgramFile
from ..program.shapes import given_value, is_plain_list
from .deeds import (
    GIVEN_BACK,
    Deed,
    Done,
    asks_within,
    deeds_of,
    deeds_of_value,
    given_either_way,
    shown_texts_only,
    shows_in_every_loop,
    starts_as_text,
    values_in,
)
from .labels import label_before

MOST_BEFORE_A_VALUE = 4
"""Statements that serve a value which is worked out where it is shown, at most."""
WIDEST = 10
"""Statements that a job has at most."""
MOST_STATEMENTS = 400
"""Statements of one list that are looked at."""
GOING_ON = frozenset({Deed.FORMULA, Deed.MORE, Deed.LESS, Deed.EACH, Deed.CHANCE, Deed.SORT})
FROM_NOTHING = frozenset(Deed) - GOING_ON - {Deed.SHOW, Deed.ACT}
"""Deeds whose outcome had no value before they began."""
NUMBERS = frozenset("int float Number parseInt parseFloat Double Int atoi atof stoi".split())
"""Functions that make a number of a text."""
GIVING = frozenset({"assignment", "augmented_assignment", "declaration"})
BUILT_UP = frozenset({Deed.COUNT, Deed.SUM, Deed.PRODUCT, Deed.LARGEST, Deed.SMALLEST})
"""Deeds that go on from what a variable had before: it is theirs, too, to give it its first value."""
ADDING_UP = frozenset({"sum", "Sum", "apply", "foldl", "foldr", "fold", "reduce"})
"""Functions of the library that add up, or are given what does."""
PREPARED = 0.8
"""How much of a formula it is whose values loops work out first."""
DIVIDED_ONLY, OF_UNKNOWN_START = 0.5, 0.8
"""How much of a mean is done by a division alone; how much of a sum, or of a text, where the first value does not tell
which of the two it is."""
ACTS, SHOWS = Done(Deed.ACT, ""), Done(Deed.SHOW, "")


class Outcome(msgspec.Struct, frozen=True):
    """A variable that holds what comes of a stretch, and how much of each deed was done for it. `goes_on`: it had a
    value before, which counts; `filled`: the places of a list are given values, and the list itself stays."""

    variable: str
    deeds: dict[Deed, float]
    goes_on: bool
    filled: bool
    label: str = ""
    """The text before a value that is shown at once."""
    menu: bool = False
    """Lines are shown before it is asked for what the question itself tells."""


class Show(msgspec.Struct, frozen=True):
    """How a stretch shows something."""

    statements: int
    looped: bool
    literal: bool
    """Always in the same words."""
    aside: bool
    """Some loop only works something out."""
    repeated: int
    """Loops in it that do the same as an earlier one."""


class Stretch(msgspec.Struct, frozen=True, eq=False, kw_only=True):
    """Consecutive statements of one list, or a value inside the last of them."""

    file: ProgramFile
    statements: tuple[int, ...]
    following: int | None
    procedure: Procedure
    in_loop: bool
    """They are done in a turn of a loop."""
    choice: int | None
    """The choice in a branch of which they stand: what stands in another branch is done instead of them."""
    taken: Set
    """Variables whose values they need."""
    settled: Set
    """Those of them that have one plain value all through the program."""
    elements: int
    """How many values they need, where elements of lists count as one each and their lists and places do not."""
    given: Set
    outcomes: tuple[Outcome, ...]
    begun: bool
    """The statement above gives a variable a value from which these go on, and nothing else does."""
    looped: bool
    size: int
    """Statements, those inside loops and branches included."""
    is_all: bool = False
    """They are all that the procedure does, but for a `return` of a plain variable."""
    is_turn: bool = False
    """They are all that a loop does in a turn."""
    is_condition: bool = False
    """It is what a choice depends on."""
    show: Show | None = None
    shows: bool = False
    shows_instead: bool = False
    """What they show they show in branches that work nothing out."""
    shows_all: bool = False
    """Nothing else in the program shows anything but questions."""
    asks: bool = False
    acts: bool = False
    around_acts: bool = False
    """The loop or choice they stand in does nothing but act on something."""
    changes: bool = False
    """They begin with giving a place in a list or dictionary another value, by what it had."""
    chooses: bool = False
    """The last statement is a choice."""
    cuts_a_row: int = 0
    """0 to 2: at how many of its ends statements of the same form go on."""
    paragraph: int = 0
    """0 to 2: at how many of its ends the student begins a paragraph."""

    @property
    def span(self) -> tuple[int, int]:
        """The node range of the statements."""
        return self.statements[0], self.file.tree.end[self.statements[-1]]


def stretches_of(file: ProgramFile) -> Iterator[Stretch]:
    """All stretches of a file, in the order of their first statements."""
    for block in file.blocks:
        if 0 < len(block.statements) <= MOST_STATEMENTS:
            yield from _Cutter(file, block).stretches()


class _Cutter:
    """Cuts one statement list into stretches."""

    def __init__(self, file: ProgramFile, block: Block) -> None:
        self.file, self.tree, self.language = file, file.tree, file.language
        self.statements = block.statements
        self.usable = [
            not (file.is_definition(s) or file.is_import(s) or file.is_bare_string(s)) for s in self.statements
        ]
        empty: frozenset[Done] = frozenset()
        self.deeds = [deeds_of(file, s) if ok else empty for s, ok in zip(self.statements, self.usable, strict=True)]
        self.summaries = summaries_of(file, block.procedure, self.statements)
        self.live = flow_of(file, block.procedure).live_after
        self.sizes = [file.count_within(s, self.tree.end[s]) for s in self.statements]
        self.procedure = file.procedure_around(self.statements[0])
        body = file.body_of(self.procedure) if self.procedure.node else None
        self.is_body = body is not None and body.node == block.node
        steered = self.language.conditionals | self.language.loops | self.language.procedures
        steering = next((p for p in file.parents(block.node) if self.tree.kind[p] in steered), -1)
        inside = steering >= 0 and self.tree.kind[steering] not in self.language.procedures
        self.in_loop = inside and self.tree.kind[steering] in self.language.loops
        self.choice = steering if inside and not self.in_loop else None
        self.around = deeds_of(file, steering) if inside else empty
        """What the choice or loop does inside which the statements stand."""
        self.ignored = _no_variables(file)

    @cached_property
    def either_way(self) -> set[str]:
        """The variables that other branches of the choice give a value as well."""
        return given_either_way(self.file, self.choice) if self.choice is not None else set()

    def stretches(self) -> Iterator[Stretch]:
        """Those that could be a job."""
        for start in range(len(self.statements)):
            for stop in range(start + 1, min(start + WIDEST, len(self.statements)) + 1):
                if not self.usable[stop - 1]:
                    break
                if stop == len(self.statements) or not self._is_cut_off(start, stop):
                    yield self._stretch(start, stop)
        yield from self._values()

    def _is_cut_off(self, start: int, stop: int) -> bool:
        """True where it is asked for something, and asked again right afterwards until it fits."""
        if self.tree.kind[self.statements[stop]] not in self.language.loops:
            return False
        again = {d for d in self.deeds[stop] if d.deed is Deed.ASK}
        return bool(again) and any(again & self.deeds[k] for k in range(start, stop))

    def _stretch(self, start: int, stop: int) -> Stretch:
        window = self.statements[start:stop]
        taken, given = self._flow(start, stop)
        if self.is_body and stop - start == len(self.statements):
            given |= {GIVEN_BACK}
        loops = self.language.loops
        return Stretch(
            file=self.file,
            statements=window,
            following=self.statements[stop] if stop < len(self.statements) else None,
            procedure=self.procedure,
            is_all=self.is_body and self._is_all(start, stop),
            is_turn=self.in_loop and stop - start == len(self.statements),
            in_loop=self.in_loop,
            choice=self.choice,
            taken=taken,
            settled=taken & _settled(self.file),
            elements=self._with_elements(window, taken),
            given=given,
            outcomes=tuple(self._outcomes(start, stop, taken, given)),
            show=self._show(start, stop) if not given else None,
            shows=any(SHOWS in done for done in self.deeds[start:stop]),
            shows_instead=self._shows_instead(window),
            asks=any(d.deed is Deed.ASK for done in self.deeds[start:stop] for d in done),
            cuts_a_row=self._same_form(start - 1) + self._same_form(stop - 1),
            chooses=self.tree.kind[window[-1]] in self.language.conditionals,
            acts=self._acts(start, stop),
            changes=self._changes(window[0]),
            begun=self._is_begun(start, stop, taken, given),
            shows_all=self._shows_all(window),
            around_acts=ACTS in self.around,
            looped=any(self.tree.kind[s] in loops for s in window),
            paragraph=self._paragraph(window),
            size=sum(self.sizes[start:stop]),
        )

    def _used(self, start: int, stop: int) -> tuple[Set, Set]:
        """The variables whose values the statements need, and those that they may give one."""
        taken: Set = EMPTY
        certain: Set = EMPTY
        written: Set = EMPTY
        for summary in self.summaries[start:stop]:
            taken |= summary.needed - certain
            certain |= summary.certain
            written |= summary.written
        return taken, written

    def _with_elements(self, window: Sequence[int], taken: Set) -> int:
        elements = elements_used(self.file, window)
        nodes = [n for found in elements.values() for n in found]
        inside = {self.tree.text[i] for n in nodes for i in self.file.names.within(n, self.tree.end[n])}
        return len(taken - inside) + len(elements)

    def _is_begun(self, start: int, stop: int, taken: Set, given: Set) -> bool:
        written = self._used(start, stop)[1]
        above = self.summaries[start - 1].certain if start else EMPTY
        return bool(above & written & taken - given)

    def _shows_all(self, window: Sequence[int]) -> bool:
        first, stop = window[0], self.tree.end[window[-1]]
        return all(first <= s < stop for s in _showing(self.file))

    def _acts(self, start: int, stop: int) -> bool:
        first, end = self.statements[start], self.tree.end[self.statements[stop - 1]]
        inside = self.file.statements_within(first, end)
        whole = all({ACTS, SHOWS} & found for found in self.deeds[start:stop])
        return whole and any(ACTS in deeds_of(self.file, s) for s in inside)

    def _same_form(self, k: int) -> bool:
        """True where the statement at `k` is a call of the same form as the next one."""
        tree, statements = self.tree, self.statements
        if not 0 <= k < len(statements) - 1 or tree.kind[statements[k]] != self.language.call:
            return False
        one, other = statements[k : k + 2]
        if ACTS in self.deeds[k] and tree.kind[other] == self.language.call:
            return self.file.called_name(one) == self.file.called_name(other)
        return tree.kind[one : tree.end[one]] == tree.kind[other : tree.end[other]]

    def _shows_instead(self, window: Sequence[int]) -> bool:
        tree, own = self.tree, {*window}
        first, stop = window[0], tree.end[window[-1]]
        shown = [s for s in _showing(self.file) if first <= s < stop]
        given = {tree.parent[s] for s in self.file.statements_within(first, stop) if tree.kind[s] in GIVING}
        return bool(given) and all(s not in own and tree.parent[s] not in given for s in shown)

    def _changes(self, statement: int) -> bool:
        left = self.tree.child(statement, "left")
        changes = self.tree.kind[statement] == "augmented_assignment" and left is not None
        return changes and left is not None and self.tree.kind[left] == "subscript"

    def _flow(self, start: int, stop: int) -> tuple[Set, Set]:
        """The variables whose values the statements need, and those whose values are needed behind them."""
        taken, written = self._used(start, stop)
        certain = EMPTY.union(*(summary.certain for summary in self.summaries[start:stop]))
        given = written & self.live.get(self.statements[stop - 1], EMPTY)
        # What it may leave as it was is needed, too.
        kept = given - certain
        if kept and self.language.declares:
            names, tree = self.file.names, self.tree
            nodes = names.within(self.statements[start], tree.end[self.statements[stop - 1]])
            kept -= {tree.text[n] for n in nodes if names.declared_at(n)}
        return frozenset(n for n in taken | kept if not n.isupper()) - self.ignored, given

    def _is_all(self, start: int, stop: int) -> bool:
        left = [s for k, s in enumerate(self.statements) if not start <= k < stop]
        if len(left) != 1 or self.tree.kind[left[0]] != self.language.returning:
            return len(left) < 2
        values = [c for c in self.tree.children(left[0]) if self.tree.text[c] not in {"return", ";"}]
        return all(self.tree.kind[v] == self.language.name for v in values)

    # -- values worked out --------------------------------------------------------------------------

    def _outcomes(self, start: int, stop: int, taken: Set, given: Set) -> Iterator[Outcome]:
        done = frozenset().union(*self.deeds[start:stop])
        done |= {Done(Deed.ASK, made) for made, of in self._converted(start, stop) if Done(Deed.ASK, of) in done}
        if not given and not any(d.variable for d in done):
            return
        if any(d.deed in BUILT_UP and d.variable in taken for d in done):
            return
        window = self.statements[start:stop]
        looped = any(self.tree.kind[s] in self.language.loops for s in window)
        for variable in sorted({d.variable for d in done if d.variable}):
            filled = variable not in given and self._is_filled(window, variable)
            alone = stop - start == len(self.statements) and variable in self.either_way
            if not (variable in given or filled) or alone or Done(Deed.DECIDE, variable) in self.around:
                continue
            serves, menu = self._serves(variable, start, stop)
            if not serves or self._goes_further(variable, start, stop, filled):
                continue
            shares = {d.deed: self._share(d, done, window, looped) for d in done if d.variable == variable}
            # All statements serve the one value: what is left to chance on the way to it is part of it.
            if any(d.deed is Deed.CHANCE and d.variable not in given for d in done):
                shares[Deed.CHANCE] = 1.0
            deeds = {deed: share for deed, share in shares.items() if share}
            if self.in_loop and not filled:
                # What grows turn by turn is a sum of all.
                deeds = {deed: share for deed, share in deeds.items() if deed not in (Deed.MORE, Deed.LESS)}
            if deeds:
                goes_on = variable in taken and not (Deed.ASK in deeds and self._asks_first(start, stop, variable))
                yield Outcome(variable, deeds, goes_on, filled, menu=menu)

    def _converted(self, start: int, stop: int) -> Iterator[tuple[str, str]]:
        """(variable, other variable) of which the one is given the other's text as a number."""
        tree, language = self.tree, self.language
        for statement in self.statements[start:stop]:
            given = given_value(tree, statement)
            if (
                given is not None
                and tree.kind[given[1]] == language.call
                and self.file.called_name(given[1]) in NUMBERS
            ):
                inside = self.file.names.within(given[1], tree.end[given[1]])
                if len(inside) == 2:
                    yield tree.text[given[0]], tree.text[inside[1]]

    def _goes_further(self, variable: str, start: int, stop: int, filled: bool) -> bool:
        """True where the statement above has begun to work a variable's value out, or the one behind goes on."""
        if start and variable in self.summaries[start - 1].written and not filled:
            return True
        below = self.summaries[stop] if stop < len(self.summaries) else None
        return below is not None and (
            variable in below.written and (variable in below.needed or variable not in below.certain)
        )

    def _share(self, done: Done, everything: frozenset[Done], window: Sequence[int], looped: bool) -> float:
        """How much of the deed is really done here."""
        deed, variable = done.deed, done.variable
        if deed is Deed.FORMULA:
            last = self.tree.kind[window[-1]] not in self.language.loops and done in deeds_of(self.file, window[-1])
            return 1.0 if not looped else PREPARED if last else 0.0
        if deed is Deed.MEAN:
            added = any(d.deed in {Deed.SUM, Deed.MEAN} and d != done for d in everything)
            calls = (n for s in window for n in range(s, self.tree.end[s]) if self.tree.kind[n] == self.language.call)
            called = any(ADDING_UP & {*self.tree.text[n : n + 3]} for n in calls)
            return 1.0 if added or called else DIVIDED_ONLY
        if deed in {Deed.SUM, Deed.TEXT} and {Done(Deed.SUM, variable), Done(Deed.TEXT, variable)} <= everything:
            text = starts_as_text(self.file, window, variable)
            return OF_UNKNOWN_START if text is None else float(text == (deed is Deed.TEXT))
        return 1.0

    def _serves(self, variable: str, start: int, stop: int) -> tuple[bool, bool]:
        """True where every statement has a part in the variable's value, be it only to get a sensor ready or to show
        what is to be typed; and whether the question itself shows that as well."""
        wanted: set[str] = {variable}
        asking = any(d.deed is Deed.ASK for done in self.deeds[start:stop] for d in done)
        prompts = menu = told = False
        for k in range(stop - 1, start - 1, -1):
            done, summary = self.deeds[k], self.summaries[k]
            wrote = summary.written | {d.variable for d in done if d.variable}
            shown = prompts and SHOWS in done and shown_texts_only(self.file, self.statements[k])
            if not (wrote & wanted or (ACTS in done and asking) or shown):
                return False, False
            menu = menu or (shown and told)
            if any(d.deed is Deed.ASK for d in done):
                prompts, told = True, self._has_text(self.statements[k])
            else:
                prompts, told = shown, told or shown
            wanted |= summary.needed
        return True, menu

    def _is_filled(self, window: Sequence[int], variable: str) -> bool:
        names, tree = self.file.names, self.tree
        own = [n for n in names.within(window[0], tree.end[window[-1]]) if tree.text[n] == variable]
        inside = [n for n in own if tree.kind[tree.parent[n]] == "subscript"]
        # What is in it, or how long it is, may be asked as well.
        given = any(self._is_given(tree.parent[n]) for n in inside)
        return given and all(names.role[n] is Role.READ for n in own if n not in inside)

    def _is_given(self, place: int) -> bool:
        """True for what an assignment gives a value, be it together with others."""
        tree = self.tree
        while tree.field[place] != "left" and tree.kind[tree.parent[place]] in self.language.patterns:
            place = tree.parent[place]
        return tree.field[place] == "left"

    def _asks_first(self, start: int, stop: int, variable: str) -> bool:
        """True where the first thing that is asked is asked once, not again and again; or nothing was there before."""
        span = self.statements[start], self.tree.end[self.statements[stop - 1]]
        if has_no_value_yet(self.file, self.procedure.node, variable, *span):
            return True
        asking = next(k for k in range(start, stop) if any(d.deed is Deed.ASK for d in self.deeds[k]))
        return self.tree.kind[self.statements[asking]] not in self.language.loops

    def _has_text(self, statement: int) -> bool:
        """True where words stand in a text; a mark such as `> ` asks for nothing."""
        tree, texts = self.tree, {"string", "string_content"}
        blocks = (n for n in range(statement, tree.end[statement]) if tree.kind[n] in self.language.blocks)
        body = next(blocks, tree.end[statement])
        # A loop that asks on top has been told above what it asks for.
        inside = range(statement, body if asks_within(self.file, statement, body) else tree.end[statement])
        return any(tree.kind[n] in texts and any(map(str.isalpha, tree.text[n])) for n in inside)

    # -- values inside a statement --------------------------------------------------------------------

    def _values(self) -> Iterator[Stretch]:
        """Values that are worked out where they are shown or added, each with the statements that only serve it."""
        for k, statement in enumerate(self.statements):
            if self.tree.kind[statement] in self.language.loops or not self.usable[k]:
                continue
            for value in values_in(self.file, statement):
                deeds = deeds_of_value(self.file, statement, value)
                for start in range(k, max(-1, k - MOST_BEFORE_A_VALUE - 1), -1) if deeds else ():
                    if start < k and not self.usable[start]:
                        break
                    found = self._value(start, k, value, deeds)
                    if found is not None:
                        yield found

    def _value(self, start: int, k: int, value: int, deeds: frozenset[Deed]) -> Stretch | None:
        """A value inside the statement `k`, with the statements from `start` on where all of them serve it."""
        names, tree, statement, window = self.file.names, self.tree, self.statements[k], self.statements[start:k]
        read = {tree.text[n] for n in names.within(value, tree.end[value]) if names.role[n] is Role.READ}
        if not self._all_serve(start, k, read):
            return None
        taken, written = self._used(start, k)
        certain = EMPTY.union(*(summary.certain for summary in self.summaries[start:k]))
        taken |= (read & self.summaries[k].needed) - certain
        taken = frozenset(n for n in taken if not n.isupper()) - self.ignored
        around = (n for n in names.within(statement, tree.end[statement]) if not value <= n < tree.end[value])
        given = written & (self.live.get(statement, EMPTY) | {tree.text[n] for n in around})
        looped = any(tree.kind[s] in self.language.loops for s in window)
        return Stretch(
            file=self.file,
            statements=(*window, value),
            following=statement,
            procedure=self.procedure,
            in_loop=self.in_loop,
            choice=self.choice,
            taken=taken,
            settled=taken & _settled(self.file),
            elements=self._with_elements((*window, value), taken),
            given=given,
            outcomes=(self._value_of(start, k, value, deeds, looped),),
            is_condition=tree.kind[statement] in self.language.conditionals,
            begun=self._is_begun(start, k, taken, given),
            looped=looped,
            size=sum(self.sizes[start:k]) + 1,
        )

    def _all_serve(self, start: int, k: int, read: set[str]) -> bool:
        """True where all statements before the one at `k` work something out that is `read`, or needed for it."""
        wanted = read
        for summary, done in zip(self.summaries[start:k][::-1], self.deeds[start:k][::-1], strict=True):
            if not (summary.written | {d.variable for d in done if d.variable}) & wanted:
                return False
            wanted = wanted | summary.needed
        return True

    def _value_of(self, start: int, k: int, value: int, deeds: frozenset[Deed], looped: bool) -> Outcome:
        everything = frozenset().union(*self.deeds[start:k], {Done(deed, "") for deed in deeds})
        shares = {
            deed: self._share(Done(deed, ""), everything, (*self.statements[start:k], value), looped)
            for deed in deeds - {Deed.FORMULA}
        }
        if Deed.FORMULA in deeds:
            shares[Deed.FORMULA] = PREPARED if looped else 1.0
        return Outcome("", shares, False, False, label_before(self.file, self.statements[k], value))

    # -- something shown ----------------------------------------------------------------------------

    def _show(self, start: int, stop: int) -> Show | None:
        """None where some statement neither shows anything nor simply works out what is shown behind it."""
        window = self.statements[start:stop]
        if SHOWS not in self.deeds[stop - 1]:
            return None
        needed: Set = EMPTY
        for k in range(stop - 1, start - 1, -1):
            prepares = self.summaries[k].written & needed and self._prepares(k, window, needed)
            if SHOWS not in self.deeds[k] and not prepares:
                return None
            needed |= self.summaries[k].needed
        loops = [s for s in window if self.tree.kind[s] in self.language.loops]
        forms = Counter(tuple(self.tree.kind[s : self.tree.end[s]]) for s in loops)
        return Show(
            statements=sum(SHOWS in done for done in self.deeds[start:stop]),
            looped=bool(loops),
            literal=all(shown_texts_only(self.file, s) for s in window),
            aside=not all(shows_in_every_loop(self.file, s) for s in window),
            repeated=sum(count - 1 for count in forms.values()),
        )

    def _prepares(self, k: int, window: Sequence[int], needed: Set) -> bool:
        """True for a plain statement that asks for nothing, and for a loop that makes a text."""
        texts = {d.variable for d in self.deeds[k] if d.deed is Deed.TEXT and d.variable in needed}
        if any(starts_as_text(self.file, window, variable) for variable in texts):
            return True
        steering = self.language.loops | self.language.conditionals
        asks = any(d.deed is Deed.ASK for d in self.deeds[k])
        return self.tree.kind[self.statements[k]] not in steering and not asks

    def _paragraph(self, window: Sequence[int]) -> int:
        tree, lines = self.tree, self.file.lines
        first, last = tree.start_line(window[0]), tree.end_line(window[-1])
        above = lines[first - 2].strip() if first > 1 else ""
        below = lines[last].strip() if last < len(lines) else ""
        marks = (*self.language.comment_marks, "}", "{")
        return (not above or above.startswith(marks)) + (not below or below.startswith(marks))


def _showing(file: ProgramFile) -> frozenset[int]:
    """All simple statements that show something."""
    known = file.derived.get("showing")
    if not isinstance(known, frozenset):
        steering = file.language.loops | file.language.conditionals
        simple = [s for s in file.statement_nodes if file.tree.kind[s] not in steering and not file.is_definition(s)]
        known = frozenset(s for s in simple if SHOWS in deeds_of(file, s))
        file.derived["showing"] = known
    return known


def _settled(file: ProgramFile) -> Set:
    """Variables of the program's own that are given one plain value, and nothing else."""
    known = file.derived.get("settled")
    if not isinstance(known, frozenset):
        tree, names = file.tree, file.names
        plain = file.language.numbers | file.language.strings
        given = [given_value(tree, s) for s in file.blocks[0].statements]
        found = {tree.text[g[0]] for g in given if g and (tree.kind[g[1]] in plain or is_plain_list(tree, g[1]))}
        times = Counter(tree.text[n] for n in names.nodes if names.role[n] in WRITES)
        changed = {tree.text[tree.parent[n] + 1] for n in names.nodes if tree.text[n] in CHANGING}
        changed |= {
            tree.text[n + 1] for n, kind in enumerate(tree.kind) if kind == "subscript" and tree.field[n] == "left"
        }
        known = frozenset(name for name in found - changed if times[name] == 1)
        file.derived["settled"] = known
    return known


CHANGING = frozenset(
    "append extend insert remove pop clear sort reverse push shift splice unshift add Add put set".split()
)


def _no_variables(file: ProgramFile) -> Set:
    """Names of functions, classes and modules."""
    known = file.derived.get("no variables")
    if not isinstance(known, frozenset):
        tree, language = file.tree, file.language
        defining = language.procedures | language.classes
        names = {
            tree.text[i]
            for i in file.names.nodes
            if (file.names.role[i] is Role.WRITE and tree.kind[tree.parent[i]] in defining)
            or any(tree.kind[p] in language.imports for p in file.parents(i))
        }
        known = frozenset(names)
        file.derived["no variables"] = known
    return known
