"""Copies in a row: every promising period, where they begin, what goes on behind an interruption."""

from __future__ import annotations

import itertools
import re
from collections import Counter
from collections.abc import Iterator, Sequence

from ..deadline import look
from ..frozen import Single
from ..program.blocks import Block
from ..program.program import ProgramFile
from ..program.shapes import ShapeTable, Symbols, given_value
from .counted import alternating, counted, counts, cycles, even_parts, in_frames
from .declarations import declares_for_later
from .judge import LEAST_SAVED, MANY_CALLS, are_many_numbers, code_lines, inner_statements, worth_a_loop
from .limits import Limits
from .paragraphs import Break, break_above
from .periods import Repetition, explains, maximal_repetitions, may_repeat
from .series import family_of
from .slots import Copy, Table, compare


class Run(Single, frozen=True, eq=False):
    """Copies in a row. `rest`: a last copy that is not whole, at least half of one; `more`: further copies, behind
    one or two statements that interrupt the row."""

    table: Table
    rest: Copy | None = None
    more: tuple[Copy, ...] = ()
    in_branches: bool = False
    """The copies are branches of one choice, each with what it asks."""
    is_one_branch: bool = False
    """These branches do the very same."""


class StatementList(Single, frozen=True, eq=False):
    file: ProgramFile
    block: Block
    symbols: list[int]
    """The shape of each statement; negative for one that is no part of any copy."""
    details: list[Symbols]
    """Their further symbols."""


def as_assignments(sequence: StatementList, shapes: ShapeTable) -> dict[int, int]:
    """Declarations that only differ from an assignment further down by declaring, with that assignment: the
    first copy of a run often declares what the others give another value."""
    tree, language = sequence.file.tree, sequence.file.language
    if not language.declares or language.implicit_locals:
        return {}
    if not any(tree.kind[s] == "declaration" for s in sequence.block.statements):
        return {}
    declared: dict[str, tuple[int, int]] = {}
    found: dict[int, int] = {}
    for s in sequence.block.statements:
        given = given_value(tree, s)
        if given is None:
            continue
        name, shape = tree.text[given[0]], shapes.shape(tree, given[1])
        if tree.kind[s] == "declaration":
            declared[name] = (s, shape)
        elif name in declared and declared[name][1] == shape:
            found.setdefault(declared[name][0], s)
    return found


FEWEST_IN_A_ROW = 2
"""Copies that are a run at all."""
MOST_SMALL = 100
"""Small runs of a program beyond which it is data."""
LONG_ROW, OFTEN_COMPARED = 100, 20
"""Copies of a row that is data unless it is a run, and how often all of it is looked at for longer periods."""
MOST_OFFSETS = 16
"""Statements at which long copies of a row may begin; where there are more, only some that begin a paragraph."""
MOST_IN_PARTS = 500
"""Copies of a stretch that are looked through for parts: more are data."""


class RunFinder:
    """Finds the runs of one statement list after the other."""

    def __init__(self, shapes: ShapeTable, limits: Limits) -> None:
        self.shapes = shapes
        self.limits = limits
        self.small: list[Run] = []
        """What saves a line only: with others over the same variables it is worth a list and its loops."""

    def runs(self, sequence: StatementList) -> list[Run]:
        candidates = []
        worthy: list[Repetition] = []
        tree = sequence.file.tree
        copies = max(2, self.limits.run_copies)
        alike = as_assignments(sequence, self.shapes)
        if not alike and not may_repeat(sequence.symbols, copies):
            return []
        finer = [
            [
                symbol_of(tree, alike.get(s, s)) if symbol >= 0 else symbol
                for s, symbol in zip(sequence.block.statements, sequence.symbols, strict=True)
            ]
            for symbol_of in (self.shapes.exact, self.shapes.worded)
        ]
        symbols = sequence.symbols
        if alike:
            symbols = [
                self.shapes.shape(tree, alike[s]) if s in alike else symbol
                for s, symbol in zip(sequence.block.statements, symbols, strict=True)
            ]
        rows: dict[Repetition, int] = {}
        """Long rows of statements that are no run themselves, with how many statements may be looked at for others in
        each."""
        for found in maximal_repetitions(symbols, copies, *finer):
            look()
            if any(explains(shorter, found) for shorter in worthy):
                continue
            row = next((r for r in rows if explains(r, found)), None)
            if row is not None:
                size = found.stop - found.start
                rows[row] -= size * min(size % found.period + 1, MOST_OFFSETS)
                if rows[row] < 0:
                    continue
            runs = self._in_stretch(sequence, found)
            candidates += runs
            # What is only a run in parts may be one altogether with a longer period.
            covered = sum(len(copy.statements) for run in runs for copy in run.table.copies)
            if not runs and found.stop - found.start >= LONG_ROW * found.period:
                rows[found] = OFTEN_COMPARED * (found.stop - found.start)
            if runs and covered + 2 * len(runs[0].table.copies[0].statements) > found.stop - found.start:
                worthy.append(found)
        candidates.sort(key=lambda r: (-_statements(r.table), len(r.table.copies[0].statements)))
        chosen: list[Run] = []
        for run in candidates:
            look()
            if all(_compatible(run, other) for other in chosen):
                chosen.append(run)
        in_order = sorted(chosen, key=lambda r: r.table.copies[0].start_line)
        return [self._with_more(sequence, run, in_order) for run in in_order]

    def _in_stretch(self, sequence: StatementList, found: Repetition) -> list[Run]:
        """The runs of a stretch of equal shapes: all of it, or where what differs only steps evenly for a while, its
        parts; where it begins anew every few copies, so many copies are one."""
        start, period = found.start, found.period
        run, table = self._best_offset(sequence, start, found.stop, period)
        if run is not None and all(c.step() is not None or c.is_family for c in run.table.columns):
            return [run]
        count = (found.stop - start) // period
        if table is None or count > MOST_IN_PARTS:
            return [run] if run else []
        counting = any(map(counts, table.columns))
        signs = [counted(column) for column in table.columns] if counting else []
        fewest = max(2, self.limits.run_copies)
        again_after = (cycles(signs, fewest), alternating(table.columns, fewest), in_frames(table.columns, fewest))
        for size in itertools.chain(*again_after):
            again, _ = self._best_offset(sequence, start, start + count * period, size * period)
            if again is not None:
                return [again]
        if run is not None and not are_many_numbers(run.table):
            return [self._without_an_odd_one(sequence, start, count, period) or run]
        parts = (
            self._best_offset(sequence, start + first * period, start + stop * period, period)[0]
            for first, stop in even_parts(signs)
            if self.limits.run_copies <= stop - first < count
        )
        in_parts = [part for part in parts if part is not None]
        if in_parts:
            return in_parts
        if run is not None:
            return [run]
        for first, stop in _without_an_odd_end(table):
            trimmed, _ = self._best_offset(sequence, start + first * period, start + stop * period, period)
            if trimmed is not None:
                return [trimmed]
        interrupted = self._interrupted(sequence, table)
        return [interrupted] if interrupted else []

    def _without_an_odd_one(self, sequence: StatementList, start: int, count: int, period: int) -> Run | None:
        """The run without its first or last copy, where only that keeps everything from stepping evenly."""
        for first, stop in ((0, count - 1), (1, count)) if count > MANY_CALLS else ():
            run, _ = self._best_offset(sequence, start + first * period, start + stop * period, period)
            if run is not None and all(column.step() is not None for column in run.table.columns):
                return run
        return None

    def together(self, runs: Sequence[Run]) -> list[Run]:
        """Small runs over variables of one family that are worth it together; their first values are none."""
        alone = {
            (id(run.table.copies[0].file), *run.table.copies[0].span): run
            for run in self.small
            if not _gives_literals(run.table.copies[0])
        }
        if len(alone) > MOST_SMALL:
            return []
        found = [run for run in alone.values() if all(_compatible(run, other) for other in runs)]
        names = Counter(family for run in found for family in _families(run.table))
        return [run for run in found if any(names[family] > 1 for family in _families(run.table))]

    def _interrupted(self, sequence: StatementList, table: Table) -> Run | None:
        """Too few copies for a loop, which go on behind an interruption: together they are worth one for each part."""
        copies = table.copies
        more = self._behind(sequence, copies)
        whole = compare([*copies, *more]) if more else None
        if whole is None or not worth_a_loop(whole, self.limits.run_copies):
            return None
        lines = code_lines(copies[0])
        saved = (sum(code_lines(c) for c in part) - lines - 1 for part in (copies, *side_by_side(more)))
        return Run(table, None, tuple(more)) if sum(s for s in saved if s > 0) >= 2 else None

    def _with_more(self, sequence: StatementList, run: Run, runs: Sequence[Run]) -> Run:
        """The run with the copies that go on behind an interruption, where these are no run of their own."""
        look()
        if run.rest is not None or run.more:
            return run
        more = self._behind(sequence, run.table.copies)
        taken = any(
            other is not run and c.span[0] < copy.span[1] and copy.span[0] < c.span[1]
            for other in runs
            for c in other.table.copies
            for copy in more
        )
        if not more or taken:
            return run
        whole = compare([*run.table.copies, *more])
        same = whole is not None and len(whole.columns) == len(run.table.columns)
        return Run(run.table, run.rest, tuple(more)) if same else run

    @staticmethod
    def _behind(sequence: StatementList, copies: Sequence[Copy]) -> list[Copy]:
        """The copies that go on behind one or two statements of another kind."""
        statements, symbols = sequence.block.statements, sequence.symbols
        first, period = statements.index(copies[0].first), len(copies[0].statements)
        template = symbols[first : first + period]
        position = first + period * len(copies)
        more: list[Copy] = []
        for gap in (1, 2):
            start = position + gap
            while symbols[start : start + period] == template:
                more.append(Copy(sequence.file, statements[start : start + period]))
                start += period
            if more:
                break
        return more

    def _best_offset(
        self, sequence: StatementList, start: int, stop: int, period: int
    ) -> tuple[Run | None, Table | None]:
        """Where in a stretch the copies begin: where paragraphs begin, else as early as possible; and what differs
        between the copies that begin as early as possible."""
        count = (stop - start) // period
        earliest: Table | None = None
        best: tuple[tuple[int, ...], Run] | None = None
        statements = sequence.block.statements
        offsets = list(range((stop - start) % period + 1))
        if len(offsets) > MOST_OFFSETS:
            begun = (k for k in offsets[1:] if break_above(sequence.file, statements[start + k]) is not Break.NONE)
            offsets = [0, *itertools.islice(begun, MOST_OFFSETS)]
        titles = [0]
        if len(offsets) > 1:
            titles = [_titles(sequence, range(start + offset, stop - period + 1, period)) for offset in offsets]
        most_told = max(titles)
        for offset, heads_told in zip(offsets, titles, strict=True):
            if offset and heads_told < most_told:
                continue
            first = start + offset
            copies = [
                Copy(sequence.file, statements[first + k * period : first + (k + 1) * period]) for k in range(count)
            ]
            table = compare(copies)
            if not offset:
                earliest = table
            if table is not None and declares_for_later(table):
                first, copies = first + period, copies[1:]
                table = compare(copies)
            if table is None or heads_told < most_told or _only_begins(table):
                continue
            if not worth_a_loop(table, self.limits.run_copies):
                if _families(table) and worth_a_loop(table, self.limits.run_copies, LEAST_SAVED - 1):
                    self.small.append(Run(table))
                continue
            end = first + len(copies) * period
            left_over = statements[end:stop]
            rest = _rest(table, Copy(sequence.file, left_over)) if 2 * len(left_over) > period else None
            heads = sum(break_above(copy.file, copy.first) is not Break.NONE for copy in copies)
            uneven = sum(column.step() is None for column in table.columns)
            odd = _worked_out(table) + begins_with_an_end(copies[0])
            rank = (heads, -odd, -uneven, -len(table.columns), -offset)
            if best is None or rank > best[0]:
                best = (rank, Run(table, rest))
        return (best[1] if best else None), earliest


ENDING = re.compile(r"(end|close|stop|finish)(?![a-z])")
"""How what ends something is called: `end_fill`, `endShape`."""


def begins_with_an_end(copy: Copy) -> bool:
    """True for a copy whose first statement ends what began before it (`end_fill()`)."""
    calls = copy.file.tree.kind[copy.first] == copy.file.language.call and len(copy.statements) > 1
    return calls and ENDING.match(copy.file.called_name(copy.first)) is not None


def _worked_out(table: Table) -> int:
    """How many columns hold calls: what begins a copy elsewhere may have its own there."""
    tree, call = table.copies[0].file.tree, table.copies[0].file.language.call
    return sum(any(tree.kind[spot.nodes[0]] == call for spot in column.spots) for column in table.columns)


def _without_an_odd_end(table: Table) -> Iterator[tuple[int, int]]:
    """From where to where copies go that differ in less without the first, or the last: where something is the same in
    all others."""
    count = len(table.copies)
    if count <= FEWEST_IN_A_ROW:
        return
    if any(len(set(c.values[1:])) == 1 for c in table.columns):
        yield 1, count
    if any(len(set(c.values[:-1])) == 1 for c in table.columns):
        yield 0, count - 1


def _only_begins(table: Table) -> bool:
    """True for variables that are all given the same literal to begin with, and nothing else."""
    return all(c.is_target for c in table.columns) and _gives_literals(table.copies[0])


def _gives_literals(copy: Copy) -> bool:
    """True where variables are only given something that is written there."""
    tree, language = copy.file.tree, copy.file.language
    given = [given_value(tree, s) for s in copy.statements]
    worked_out = {language.call, language.name}
    return all(pair and worked_out.isdisjoint(tree.kind[pair[1] : tree.end[pair[1]]]) for pair in given)


def _families(table: Table) -> set[tuple[int, tuple[str, ...]]]:
    """The file, and the variables that are told apart by counting up behind a word, or are days or months."""
    families = ((c.values, family_of(c.values)) for c in table.columns if c.is_family)
    told = (values for values, family in families if family and (family.stem or family.about in {"days", "months"}))
    return {(id(table.copies[0].file), values) for values in told}


def side_by_side(copies: Sequence[Copy]) -> list[list[Copy]]:
    """Copies in groups of such as stand right behind each other."""
    groups: list[list[Copy]] = []
    for copy in copies:
        if groups and groups[-1][-1].span[1] == copy.span[0]:
            groups[-1].append(copy)
        else:
            groups.append([copy])
    return groups


def _rest(table: Table, rest: Copy) -> Copy | None:
    """The beginning of one more copy, if it assigns to nothing else than the copies do."""
    first = table.copies[0]
    beginning = Copy(first.file, first.statements[: len(rest.statements)])
    both = compare([beginning, rest])
    return rest if both is not None and not any(c.is_target for c in both.columns) else None


def _titles(sequence: StatementList, positions: range) -> int:
    """How many of the statements at some positions have a comment above them; none if only one has."""
    found = sum(break_above(sequence.file, sequence.block.statements[k]) is Break.COMMENT for k in positions)
    return found if found > 1 else 0


def _statements(table: Table) -> int:
    return sum(inner_statements(copy) for copy in table.copies)


def _compatible(run: Run, other: Run) -> bool:
    """Runs of one block may stand apart, or one inside a single copy of the other."""
    return _apart_or_inside(run.table, other.table) or _apart_or_inside(other.table, run.table)


def _apart_or_inside(inner: Table, outer: Table) -> bool:
    if inner.copies[0].file is not outer.copies[0].file:
        return True
    start, stop = inner.copies[0].span[0], inner.copies[-1].span[1]
    first, last = outer.copies[0].span[0], outer.copies[-1].span[1]
    if stop <= first or last <= start:
        return True
    return any(c.span[0] <= start and stop <= c.span[1] for c in outer.copies)


def without_repeated_inner_runs(runs: list[Run]) -> list[Run]:
    """An inner run that stands again in every outer copy is one opportunity: the first is kept."""
    kept = []
    for run in runs:
        start, stop = run.table.copies[0].span[0], run.table.copies[-1].span[1]
        file = run.table.copies[0].file
        in_later_copy = any(
            copy.span[0] <= start and stop <= copy.span[1]
            for other in runs
            if other is not run and other.table.copies[0].file is file
            for copy in other.table.copies[1:]
        )
        if not in_later_copy:
            kept.append(run)
    return kept
