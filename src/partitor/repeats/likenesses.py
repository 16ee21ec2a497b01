"""What is alike but for a line or two, or in some way only, where nothing that is quite alike was found."""

from __future__ import annotations

import itertools
from collections import Counter
from collections.abc import Iterable, Iterator, Sequence

import msgspec

from ..program.program import Procedure, Program, ProgramFile
from ..program.shapes import ShapeTable
from .asking import Span, Statements, alike_but_for_tests
from .beginnings import alike_at_first
from .blocks import RepeatedBlock, Twins
from .choices import Choice, choices
from .directions import directions
from .framed import Framed, framed
from .grown import around_heads
from .judge import inner_statements
from .near import LEAST_ALIKE, Likeness, NearBlock, NearTwins, near_blocks, near_rows, near_stretches, near_twins
from .parallel import parallel_variables
from .runs import Run, StatementList
from .slots import Copy
from .third import nearly_copies


class NearFinder:
    """Finds near copies in what is left by runs, blocks and twins."""

    def __init__(
        self,
        program: Program,
        shapes: ShapeTable,
        sequences: Sequence[StatementList],
        runs: Sequence[Run],
        blocks: Sequence[RepeatedBlock],
        twins: Sequence[Twins],
    ) -> None:
        self.program = program
        self.shapes = shapes
        self.sequences = sequences
        self.blocks = blocks
        self.twins = twins
        tables = [*(r.table for r in runs), *(b.table for b in blocks)]
        self.known = [(c.file, c.span) for table in tables for c in table.copies]
        """What was found already, as node ranges."""
        self.bodies = [pair for group in twins for pair in group.procedures]
        """Functions that are alike as a whole."""
        self.recursive: set[tuple[int, int]] | None = None
        """The functions that call themselves, once somebody asked."""

    def functions(self, handed_out: frozenset[tuple[str, int]]) -> list[NearTwins]:
        """Functions that are nearly alike."""
        known = {id(p) for twin in self.twins for _, p in twin.procedures}
        functions = [
            (file, p)
            for file in self.program.files
            for p in file.procedures[1:]
            if p.name and not is_a_stack(file, p) and id(p) not in known and (file.path, p.start_line) not in handed_out
        ]
        found = near_twins(functions, self._shape, self._worded, self._blunt)
        near = [n for n in found if not _is_told(n, self.blocks)]
        self.bodies = [*(pair for group in near for pair in group.procedures), *self.bodies]
        return near

    def with_further_places(self, blocks: Iterable[RepeatedBlock]) -> list[RepeatedBlock]:
        """The blocks, with the places that are nearly copies of theirs."""
        return [self._with_further_places(block) for block in blocks]

    def _with_further_places(self, block: RepeatedBlock) -> RepeatedBlock:
        nearly: list[Copy] = []
        for copy in nearly_copies(block, self._every(), self._shape, self._worded, self._is_free):
            if not any(copy.overlaps(other) for other in nearly):
                nearly.append(copy)
        self.known += [(copy.file, copy.span) for copy in nearly]
        return msgspec.structs.replace(block, nearly=tuple(nearly)) if nearly else block

    def _every(self) -> list[Statements]:
        return [(q.file, q.block.statements, q.symbols) for q in self.sequences]

    def places(self, alike_but_for_operators: Iterable[list[Copy]]) -> list[NearBlock]:
        """Stretches of statements that are nearly alike; the surest way first, as what is found is part of nothing
        else."""
        lists = [(s.file, s.block.statements) for s in self.sequences if s.block.node and min(s.symbols) >= 0]
        every = self._every()
        found = self._added(self._branches(choices(lists, lambda place: self._is_free(Copy(*place)))))
        copies = (Copy(*place) for place in lists)
        places = [(c.file, c.statements) for c in copies if inner_statements(c) >= LEAST_ALIKE and self._is_free(c)]
        found += self._added(near_blocks(places, self._shape, self._worded, self._blunt))
        found += self._added(alike_at_first(every, self.shapes, self._is_free_span))
        found += self._added(map(_but_for_tests, alike_but_for_tests(every, self.shapes, self._is_free_span)))
        alike = list(alike_but_for_operators)
        found += self._added(near_rows([a for a in alike if len(a) > 2], self._shape, self._is_free))
        two = ((a[0], a[1]) for a in alike if len(a) == 2)
        pairs = itertools.chain(two, around_heads(every, self.shapes, self._is_free_span))
        found += self._added(near_stretches(pairs, self._shape, self._worded, self._is_free))
        found += self._added(parallel_variables(every, self._is_free_span))
        return found

    def _added(self, found: Iterable[NearBlock]) -> list[NearBlock]:
        """What is found, which is known from now on."""
        blocks = list(found)
        self.known += [(c.file, span) for block in blocks for c, span in zip(block.copies, block.spans, strict=True)]
        return blocks

    def _is_free(self, copy: Copy) -> bool:
        return self._is_free_span(copy.file, copy.span)

    def _is_free_span(self, file: ProgramFile, span: Span) -> bool:
        """What was found already is no part of anything else."""
        start, stop = span
        for other, (first, end) in self.known:
            if first < stop and start < end and other is file:
                return False
        for other, procedure in self.bodies:
            if procedure.node < start < other.tree.end[procedure.node] and other is file:
                return False
        return True

    def _shape(self, file: ProgramFile, statement: int, texts_stay: bool = False) -> int:
        """What a statement by itself looks like."""
        if self._calls_itself(file, statement):
            return self.shapes.open_calls(file.tree, statement)
        return self.shapes.alone(file.tree, statement, texts_stay)

    def _worded(self, file: ProgramFile, statement: int) -> int:
        return self._shape(file, statement, texts_stay=True)

    def _blunt(self, file: ProgramFile, statement: int) -> int:
        """What holds something that was found already is like nothing else."""
        stop = file.tree.end[statement]
        if any(f is file and span[0] < stop and statement < span[1] for f, span in self.known):
            return -id(file.tree) - statement
        return self.shapes.symbols(file.tree, statement).blunt

    def _branches(self, found: list[Choice]) -> Iterator[NearBlock]:
        """Branches of each choice that do the same in several directions, or begin and end alike."""
        for choice in found:
            told = [_in_directions(group) for group in directions(choice)]
            row = None if told else framed(choice, lambda file, s: self.shapes.shape(file.tree, s))
            yield from told
            if row is not None:
                yield _in_a_frame(row)

    def _calls_itself(self, file: ProgramFile, statement: int) -> bool:
        """True for a simple statement in which a function calls itself: in another function that is another name."""
        tree = file.tree
        if self.recursive is None:
            self.recursive = {
                (id(f), p.node) for f in self.program.files for p in f.procedures[1:] if is_recursive(f, p)
            }
        if not self.recursive:
            return False
        around = file.procedure_around(statement)
        if (id(file), around.node) not in self.recursive or file.language.blocks & set(
            tree.kind[statement : tree.end[statement]]
        ):
            return False
        return around.name in tree.text[statement : tree.end[statement]]


def is_recursive(file: ProgramFile, procedure: Procedure) -> bool:
    """True for a function whose statements call it by its name."""
    tree, language = file.tree, file.language
    start, stop = procedure.node, tree.end[procedure.node]
    if not procedure.name or tree.text[start:stop].count(procedure.name) < 2:
        return False
    called = (n for n in range(start, stop) if tree.text[n] == procedure.name)
    return any(tree.field[n] == language.callee_field for n in called)


def is_a_stack(file: ProgramFile, procedure: Procedure) -> bool:
    """True for what only has the form of a function: nothing calls it, something starts it or nothing does."""
    prefix = file.language.started_prefix
    return bool(prefix) and procedure.name.startswith((prefix, "unused_stack"))


def _in_directions(group: Choice) -> NearBlock:
    copies = tuple(Copy(file, statements) for file, statements in group)
    return NearBlock(copies, inner_statements(copies[0]), 0, Likeness.DIRECTIONS)


def _but_for_tests(copies: tuple[Copy, ...]) -> NearBlock:
    file, kinds = copies[0].file, copies[0].file.tree.kind
    inside = file.statements_within(*copies[0].span)
    tests = sum(kinds[s] in file.language.conditionals for s in inside)
    return NearBlock(copies, len(inside) - tests, tests, Likeness.ALL_BUT_TESTS)


def _in_a_frame(row: Framed) -> NearBlock:
    """Branches that all begin and end alike, the nearest thing to copies that they hold."""
    copies = tuple(Copy(file, statements) for file, statements in row.branches)
    file, first = row.branches[0]
    shared = (*first[: row.before], *first[len(first) - row.behind :])
    alike = sum(file.count_within(s, file.tree.end[s]) for s in shared)
    return NearBlock(copies, alike, max(inner_statements(c) for c in copies) - alike, Likeness.FRAME)


def _is_told(near: NearTwins, blocks: Sequence[RepeatedBlock]) -> bool:
    """True for near twins that have hardly more in common than a block that stands elsewhere, too, or several times in
    each, or of which one is what the others could call."""
    for block in blocks:
        copies = block.table.copies
        holders = Counter(map(near.holding, copies))
        held = [holders[k] for k in range(len(near.procedures))]
        more = len(copies) > len(held) or block.known is not None or near.likeness is not Likeness.MOST_LINES
        left = near.alike - min(held) * inner_statements(copies[0])
        if all(held) and more and left < (LEAST_ALIKE if min(held) > 1 else 2):
            return True
    return False
