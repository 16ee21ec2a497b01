"""All repetition of a program: runs first, then blocks, then twins, each opportunity once."""

from __future__ import annotations

import itertools
from bisect import bisect_right, insort
from collections.abc import Callable, Iterator, Sequence
from functools import partial
from heapq import heapify, heappop, heappush

from ..deadline import look
from ..frozen import Single
from ..languages.table import Language
from ..program.blocks import Block
from ..program.names import Role
from ..program.program import Procedure, Program, ProgramFile
from ..program.shapes import ShapeTable, Symbols
from ..program.tree import Tree
from .blocks import RepeatedBlock, Twins
from .branches import alike_branches, equal_branches
from .classes import AlikeClasses, alike_classes
from .declarations import without_lost_declarations
from .judge import exchanges, inner_statements, leaves, worth_a_function, worth_merging
from .known import body_of, copies_of, windows_like
from .likenesses import NearFinder, is_a_stack, is_recursive
from .limits import Limits
from .near import LEAST_ALIKE, NearBlock, NearTwins
from .order import SHORTEST, in_one_order, may_move, reordered_copies
from .paragraphs import Break, break_above
from .rows import Rows
from .runs import (
    Run,
    RunFinder,
    StatementList,
    as_assignments,
    begins_with_an_end,
    without_repeated_inner_runs,
)
from .seeds import stretches
from .slots import Copy, Table, calling_one_other, compare, differing_names, likeness
from .suffixes import Repeat, maximal_repeats
from .windows import windows

MOST_COMPARED, LEAST_COMPARED = 1, 20_000
"""Statements looked at when blocks are compared: so many for each statement of the program, and at least
so many. A person's program stays far below; a monotonous file of thousands of lines ends there."""


MOST_REORDERED = 3000
"""Statements of a program beyond which copies in another order are not looked for."""


FEWEST_MOVED = 4
"""Statements that have to be able to change places: two in one copy and their like in another one."""
MOST_CHOICES = 100
"""Choices of a file that are told for their branches: a person's program has a few."""
OFTEN = 3
"""How often a variable has to stand in copies again, under another name in each, to be more than chance in many."""
MOST_RECURSIONS = 60
"""Functions of a program among which those are looked for that call themselves alike."""
MOST_UNLIKE = 2
"""Columns in which such functions may differ: what each calls itself, and one more."""
MOST_IN_A_ROW = 60
"""Copies side by side that are looked at together; more are data."""
HEADED = 1.5
"""How much more copies are worth that each stand under a comment of their own, when others overlap them."""
FEWEST_OF_METHODS = 4
"""Statements from which methods that do the same with different fields are worth a remark."""


class Repeats(Single, frozen=True, eq=False):
    """Everything found, strongest first in each list."""

    runs: tuple[Run, ...]
    blocks: tuple[RepeatedBlock, ...]
    twins: tuple[Twins, ...]
    near_twins: tuple[NearTwins, ...] = ()
    near_blocks: tuple[NearBlock, ...] = ()
    classes: tuple[AlikeClasses, ...] = ()
    complete: bool = True
    """False where the program holds so many possible repeats that not all were compared."""


def find_repeats(
    program: Program, limits: Limits, handed_out: frozenset[tuple[str, int]], near: bool = False
) -> Repeats:
    """Find runs, blocks and twins, and where asked for what is nearly such; `handed_out` are (path, line)
    pairs never to be reported."""
    return _Finder(program, limits, handed_out, near).find()


def find_runs(program: Program, limits: Limits) -> list[Run]:
    """The runs alone, as they stand one after the other."""
    return _Finder(program, limits, frozenset()).runs()


class _Finder:
    def __init__(
        self, program: Program, limits: Limits, handed_out: frozenset[tuple[str, int]], near: bool = False
    ) -> None:
        self.program = program
        self.near = near
        self.limits = limits
        self.handed_out = handed_out
        self.shapes = ShapeTable(program.files)
        self.complete = True
        self.unusable = -(1 << 40)
        self.never_copied: dict[str, frozenset[str]] = {}
        self.sequences = [
            StatementList(file, block, *self._symbols(file, block))
            for file in program.files
            for block in file.blocks
            if block.statements
        ]

    def runs(self) -> list[Run]:
        """What stands in a row, but for branches."""
        finder = RunFinder(self.shapes, self.limits)
        runs = [run for sequence in self.sequences for run in finder.runs(sequence)]
        runs = without_repeated_inner_runs(runs)
        return [*runs, *finder.together(runs)]

    def find(self) -> Repeats:
        twins = self._twins()
        runs = self.runs()
        runs += [run for file in self.program.files for run in self._alike_branches(file, runs)]
        blocks = self._blocks(runs, twins)
        tables = [*(r.table for r in runs), *(t.table for t in twins)]
        classes = [
            found
            for found in alike_classes(self.program.files, self.shapes.shape)
            if not any(_overlap(own, other) for own in found.tables for other in tables)
            and not any((f.path, f.tree.start_line(node)) in self.handed_out for f, node in found.classes)
        ]
        # Of classes that are alike as a whole, their methods' parts are no matter of their own.
        blocks = [b for b in blocks if not any(found.holds(b.table) for found in classes)]
        if not self.near:
            return Repeats(tuple(runs), tuple(blocks), tuple(twins), complete=self.complete)
        left = NearFinder(self.program, self.shapes, self.sequences, runs, blocks, twins)
        near = left.functions(self.handed_out)
        blocks = left.with_further_places(blocks)
        near_parts = left.places(self._alike_but_for_operators())
        return Repeats(
            tuple(runs), tuple(blocks), tuple(twins), tuple(near), tuple(near_parts), tuple(classes), self.complete
        )

    def _alike_branches(self, file: ProgramFile, runs: list[Run]) -> Iterator[Run]:
        found: list[Run] = []
        alike = map(partial(Run, in_branches=True), alike_branches(file))
        equal = map(partial(Run, in_branches=True, is_one_branch=True), equal_branches(file))
        for run in itertools.islice(itertools.chain(alike, equal), MOST_CHOICES):
            lines = {(file.path, copy.start_line) for copy in run.table.copies}
            if not lines & self.handed_out and not any(_overlap(run.table, other.table) for other in (*runs, *found)):
                found.append(run)
        yield from found

    def _alike_but_for_operators(self) -> Iterator[list[Copy]]:
        """Stretches that differ in their operators only: the best is looked for, then the worst."""
        blunt = [[found.blunt for found in q.details] for q in self.sequences]
        for copies in self._stretches([q.symbols for q in self.sequences], blunt):
            if inner_statements(copies[0]) >= LEAST_ALIKE - (len(copies) > 2):
                yield copies

    def _stretches(self, symbols: list[list[int]], sort: list[list[int]]) -> Iterator[list[Copy]]:
        """Copies that are alike by symbols of another sort, and not by their own."""
        if sum(map(len, symbols)) > MOST_REORDERED or sort == [[d.shape for d in q.details] for q in self.sequences]:
            return
        others = [
            [sort[q][i] if symbols[q][i] >= 0 else symbols[q][i] for i in range(len(symbols[q]))]
            for q in range(len(symbols))
        ]
        fewest = self.limits.repeat_statements
        for starts, length in stretches(symbols, others):
            (q, first), *_ = starts
            if length < fewest:
                statements = self.sequences[q].block.statements[first : first + length]
                if inner_statements(Copy(self.sequences[q].file, statements)) < fewest:
                    continue
            copies = _apart([(self.sequences[q], i) for q, i in starts], length)
            if len(copies) == len(starts):
                yield copies

    def _never_copied(self, language: Language) -> frozenset[str]:
        """Kinds of statements that are part of no copy."""
        if language.id not in self.never_copied:
            never = language.outer_declarations | language.procedures | language.classes | language.wrappers
            never |= language.fields | (frozenset() if language.values_everywhere else language.strings)
            self.never_copied[language.id] = never
        return self.never_copied[language.id]

    def _symbols(self, file: ProgramFile, block: Block) -> tuple[list[int], list[Symbols]]:
        """Shape symbols, and all symbols; what can never be part of a copy gets a shape of its own (negative)."""
        symbols = []
        details = [self.shapes.symbols(file.tree, s) for s in block.statements]
        tree, kinds, ends = file.tree, file.tree.kind, file.tree.end
        whole, never = file.is_whole, self._never_copied(file.language)
        for s, found in zip(block.statements, details, strict=True):
            unusable = (
                kinds[s] in never
                or file.is_import(s)
                or (not whole and "ERROR" in kinds[s : ends[s]])
                or (bool(self.handed_out) and (file.path, tree.start_line(s)) in self.handed_out)
            )
            self.unusable -= unusable
            symbols.append(self.unusable if unusable else found.shape)
        return symbols, details

    # -- blocks ----------------------------------------------------------------------------------

    def _blocks(self, runs: list[Run], twins: list[Twins]) -> list[RepeatedBlock]:
        places: list[tuple[StatementList, int]] = []
        for sequence in self.sequences:
            places.extend((sequence, i) for i in range(len(sequence.symbols) + 1))
        symbols = self._without_later_copies(runs)
        rows = Rows(runs)
        known = [*(twin.table for twin in twins), *(run.table for run in runs if run.in_branches)]
        taken = [copy for table in known for copy in table.copies]
        left = MOST_COMPARED * len(places) + LEAST_COMPARED
        waiting: list[tuple[int, int, list[Copy]]] = []
        """At most so many statements saved, in which order, by which copies."""
        for repeat in itertools.chain(maximal_repeats(symbols, 1), self._repeats_that_declare(symbols)):
            look()
            left -= len(repeat.starts)
            if left < 0:
                self.complete = False
                break
            sequence, first = places[repeat.starts[0]]
            longest = Copy(sequence.file, sequence.block.statements[first : first + repeat.length])
            if inner_statements(longest) < self.limits.repeat_statements:
                continue
            starts = [places[s] for s in repeat.starts]
            for length in _lengths(starts, repeat.length):
                look()
                copies = _without_an_end(_apart(_first_statements(starts, repeat.length, length), length))
                copies = rows.kept_whole(copies)
                if len(copies) < 2 or rows.folded_size(copies[0]) < self.limits.repeat_statements:
                    continue
                if any(copy.lies_in(other) for copy in copies for other in taken):
                    # Any part of it would be no matter of its own.
                    continue
                left -= len(copies) * length
                most = (len(copies) - 1) * inner_statements(copies[0]) - len(copies)
                waiting.append((-most, len(waiting), copies))
        others = [*self._reordered(symbols), *self._calling_others(symbols, rows)]
        weighed = [(_saved_statements(b.table), b) for b in others]
        weighed += [(HEADED * _saved_statements(b.table), b) for b in self._headed(symbols, rows)]
        found = [
            (-weight, -inner_statements(b.table.copies[0]), len(waiting) + k, b)
            for k, (weight, b) in enumerate(weighed)
        ]
        heapify(found)
        waiting.sort()
        chosen = _Chosen(known)
        for block in self._known(symbols):
            chosen.add(block)
        at = 0
        while at < len(waiting) or found:
            look()
            if at < len(waiting) and (not found or waiting[at][0] <= found[0][0]):
                _, k, copies = waiting[at]
                at += 1
                made = None if chosen.leave_nothing_of(copies) else self._block_of(copies, rows)
                if made is not None:
                    weight, size = _saved_statements(made.table), inner_statements(made.table.copies[0])
                    heappush(found, (-weight, -size, k, made))
            else:
                # All that saves more was looked at before.
                chosen.add(heappop(found)[3])
        return chosen.blocks

    def _block_of(self, copies: Sequence[Copy], rows: Rows) -> RepeatedBlock | None:
        """What of some copies is worth a function, if anything."""
        length = len(copies[0].statements)
        short = len(copies) < 3 or inner_statements(copies[0]) <= self.limits.repeat_statements
        alike = likeness(copies[:2])
        again = alike.renamed if short else alike.renamed // 2 if alike.renamed >= OFTEN else 0
        swapped = length == 1 and len(copies) > 2 and exchanges(copies[0])
        if alike.tokens + again + alike.told < 2 * self.limits.repeat_statements and not swapped:
            # More copies have no more in common, nor has any part of them: never enough for a function.
            return None
        table = compare(copies, walk=alike.walk if len(copies) == 2 else None)
        table = without_lost_declarations(table) if table else None
        for found in windows(table) if table else ():
            if rows.are_whole(found) and worth_a_function(found, self.limits.repeat_statements):
                return RepeatedBlock(found, None, rows.are_inside(found), rows.are_unlike(found))
        return None

    def _headed(self, symbols: list[list[int]], rows: Rows) -> Iterator[RepeatedBlock]:
        """Blocks of which each copy is all that stands under a comment: the student says where they begin."""
        alike: dict[tuple[int, ...], list[Copy]] = {}
        for sequence, found in zip(self.sequences, symbols, strict=True):
            file, statements = sequence.file, sequence.block.statements
            breaks = [break_above(file, s) for s in statements] if file.tree.comments else []
            heads = [k for k, above in enumerate(breaks) if above is Break.COMMENT]
            for first, following in itertools.pairwise([*heads, len(statements)]):
                blank = next((k for k in range(first + 1, following) if breaks[k] is Break.BLANK), following)
                for stop in dict.fromkeys((blank, following)):
                    copy = Copy(file, statements[first:stop])
                    alike.setdefault(tuple(found[first:stop]), []).append(copy)
        for copies in alike.values():
            if len(copies) < 2 or [c.statements for c in rows.kept_whole(copies)] != [c.statements for c in copies]:
                continue
            if rows.folded_size(copies[0]) < self.limits.repeat_statements:
                continue
            table = compare(copies)
            table = without_lost_declarations(table) if table else None
            if table is not None and worth_a_function(table, self.limits.repeat_statements):
                yield RepeatedBlock(table, None, rows.are_inside(table), rows.are_unlike(table))

    def _calling_others(self, symbols: list[list[int]], rows: Rows) -> Iterator[RepeatedBlock]:
        """Blocks that differ in the one function that they call, where functions can be given like any value."""
        if not self.program.files or not self.program.files[0].language.functions_are_values:
            return
        opened = [[found.open_calls for found in q.details] for q in self.sequences]
        for found in self._stretches(symbols, opened):
            copies = rows.kept_whole(found)
            if not copies or rows.folded_size(copies[0]) < self.limits.repeat_statements:
                continue
            looked_at = calling_one_other(copies)
            known = {p.name for p in copies[0].file.procedures} | copies[0].file.language.builtins
            if looked_at is None or not known.issuperset(looked_at[1]):
                continue
            table = compare(copies, open_calls=True, walk=looked_at[0])
            if table is None or sum(c.is_called for c in table.columns) != 1:
                continue
            if worth_a_function(table, self.limits.repeat_statements):
                yield RepeatedBlock(table)

    def _repeats_that_declare(self, symbols: list[list[int]]) -> Iterator[Repeat]:
        """Repeats of which the first copy declares what the others only give another value."""
        changed = [symbols_of[:] for symbols_of in symbols]
        for sequence, found in zip(self.sequences, changed, strict=True):
            alike = as_assignments(sequence, self.shapes)
            for k, s in enumerate(sequence.block.statements) if alike else ():
                if s in alike and found[k] >= 0:
                    found[k] = self.shapes.shape(sequence.file.tree, alike[s])
        if changed != symbols:
            yield from maximal_repeats(changed, 1)

    def _known(self, symbols: list[list[int]]) -> Iterator[RepeatedBlock]:
        """Copies of what a function does already."""
        functions = []
        for file in self.program.files:
            for procedure in file.procedures[1:]:
                body = body_of(file, procedure)
                copy = Copy(file, body) if body else None
                inside = procedure.in_class or procedure.parent
                exported = file.tree.kind[file.tree.parent[procedure.node]] == "export_statement"
                free = exported or not procedure.decorated
                plain = free and (procedure.in_class if file.language.methods else not inside)
                if copy is None or not plain or inner_statements(copy) < self.limits.repeat_statements:
                    continue
                shape = tuple(self.shapes.shape(file.tree, s) for s in body)
                functions.append((file, procedure, body, shape))
        sequences = [(s.file, s.block.statements, found) for s, found in zip(self.sequences, symbols, strict=True)]
        places = windows_like([shape for *_, shape in functions], sequences)
        for file, procedure, body, shape in functions:
            found = places.get(shape, ())
            for table in copies_of(file, procedure, body, found) if len(found) > 1 else ():
                if table.constant_tokens >= self.limits.repeat_statements:
                    yield RepeatedBlock(table, procedure)

    def _reordered(self, symbols: list[list[int]]) -> Iterator[RepeatedBlock]:
        """Blocks of which some copy has its independent statements in another order."""
        if sum(map(len, symbols)) > MOST_REORDERED:
            return
        sequences = [(s.file, s.block.statements, found) for s, found in zip(self.sequences, symbols, strict=True)]
        if sum(map(may_move, sequences)) < FEWEST_MOVED:
            return
        kinded = [
            (file, statements, [d.kinded if x >= 0 else x for d, x in zip(q.details, found, strict=True)])
            for q, (file, statements, found) in zip(self.sequences, sequences, strict=True)
        ]
        plain = {x for *_, found in sequences for x in found}
        finer = {x for *_, found in kinded for x in found}
        both = [sequences, kinded] if len(finer) > len(plain) else [sequences]
        for copies in itertools.chain.from_iterable(map(reordered_copies, both)):
            table = compare(copies)
            if table is not None and worth_a_function(table, self.limits.repeat_statements):
                yield RepeatedBlock(table)

    def _without_later_copies(self, runs: list[Run]) -> list[list[int]]:
        """The symbols, with a symbol of its own for each statement inside a run's second or later copy:
        the loop removes those, so that they are no opportunity of another kind. Only a run as it stands may be
        part of a block: as many copies of the same statements elsewhere have the same symbols, one after another."""
        spans: dict[int, list[tuple[int, int]]] = {}
        for run in runs:
            for copy in (*run.table.copies[1:], *([run.rest] if run.rest else []), *run.more):
                spans.setdefault(id(copy.file), []).append(copy.span)
        inside = {key: _merged(found) for key, found in spans.items()}
        if not runs:
            return [sequence.symbols[:] for sequence in self.sequences]
        result = []
        for sequence in self.sequences:
            starts, stops = inside.get(id(sequence.file), ((), ()))
            symbols = sequence.symbols[:]
            statements = sequence.block.statements
            for i in range(len(symbols)) if starts else ():
                k = bisect_right(starts, statements[i]) - 1
                if k >= 0 and statements[i] < stops[k]:
                    self.unusable -= 1
                    symbols[i] = self.unusable
            result.append(symbols)
        alike: dict[tuple[int, ...], int] = {}
        standing: dict[tuple[int, int], int] = {}
        for run in runs:
            first, *later = run.table.copies
            if run.rest or run.more or run.in_branches:
                continue
            form = tuple(self.shapes.shape(first.file.tree, s) for s in first.statements)
            block = id(first.file.block_at[first.file.tree.parent[first.first]])
            for k, s in enumerate(s for copy in later for s in copy.statements):
                standing[block, s] = alike.setdefault((*form, len(later), k), -(1 << 50) - len(alike))
        blocks = {file for file, _ in standing}
        for sequence, symbols in zip(self.sequences, result, strict=True) if standing else ():
            if id(sequence.block) in blocks:
                for i, s in enumerate(sequence.block.statements):
                    symbols[i] = standing.get((id(sequence.block), s), symbols[i])
        return result

    # -- twins -----------------------------------------------------------------------------------

    def _twins(self) -> list[Twins]:
        whole = self._alike(self.shapes.shape, frozenset(), False)
        known = frozenset(id(p) for twins in whole for _, p in twins.procedures)
        opened = self._alike(self.shapes.open_calls, known, True)
        known |= frozenset(id(p) for twins in opened for _, p in twins.procedures)
        return [*whole, *opened, *self._alike_methods(known), *self._alike_recursions(known)]

    def _alike_recursions(self, known: frozenset[int]) -> Iterator[Twins]:
        """Functions that call themselves alike and only work something else out of each part, where a function can
        be given to another as a matter of course."""
        left = [
            (file, p, Copy(file, file.statements_of(p)))
            for file in self.program.files
            if file.language.values_everywhere
            for p in file.procedures[1:]
            if id(p) not in known
            and is_recursive(file, p)
            and file.statements_of(p)
            and (file.path, p.start_line) not in self.handed_out
        ][:MOST_RECURSIONS]
        while left:
            first, *left = left
            members = [first, *(other for other in left if _is_alike_recursion([first, other]))]
            table = _is_alike_recursion(members) if len(members) > 1 else None
            if table is not None:
                left = [other for other in left if other not in members]
                yield Twins(tuple((f, p) for f, p, _ in members), table)

    def _alike_methods(self, known: frozenset[int]) -> Iterator[Twins]:
        """Methods of one class, or functions, that do the same with different fields of an object."""
        groups: dict[tuple[int, int, tuple[str, ...]], list[tuple[ProgramFile, Procedure]]] = {}
        for file in self.program.files:
            for p in file.procedures[1:]:
                if p.name and not p.decorated and id(p) not in known:
                    statements = file.statements_of(p)
                    if file.count_within(p.node, file.tree.end[p.node]) < FEWEST_OF_METHODS or not statements:
                        continue
                    kinds = tuple(file.tree.kind[statements[0] : file.tree.end[statements[-1]]])
                    home = file.tree.parent[p.node] if p.in_class else 0
                    groups.setdefault((id(file), home, kinds), []).append((file, p))
        for members in groups.values():
            copies = [Copy(f, f.statements_of(p)) for f, p in members]
            table = compare(copies, open_fields=True) if len(members) > 1 else None
            if table is None or not any(c.is_field for c in table.columns):
                continue
            if worth_merging(table, [p for _, p in members]):
                yield Twins(tuple(members), table)

    def _alike(self, shape: Callable[[Tree, int], int], known: frozenset[int], open_calls: bool) -> list[Twins]:
        """Twins by a kind of shape; with `open_calls` also those that call other functions, where functions can be
        given like any value."""
        groups: dict[tuple[int, ...], list[tuple[ProgramFile, Procedure, Copy]]] = {}
        for file in self.program.files:
            if open_calls and not file.language.functions_are_values:
                continue
            for procedure in file.procedures[1:]:
                if not procedure.name or is_a_stack(file, procedure) or id(procedure) in known:
                    continue
                statements = file.statements_of(procedure)
                if not statements or (file.path, procedure.start_line) in self.handed_out:
                    continue
                key = (
                    len(procedure.parameters),
                    *(shape(file.tree, s) for s in statements),
                )
                groups.setdefault(key, []).append((file, procedure, Copy(file, statements)))
        found = []
        for members in _brought_to_one_order(list(groups.values()), shape, self.shapes.kinded):
            if len(members) < 2 or len({p.name for _, p, _ in members}) == 1:
                continue
            table = compare([copy for _, _, copy in members], open_calls)
            own = tuple(p.name for _, p, _ in members)
            called = [c for c in table.columns if c.is_called and c.values != own] if table is not None else []
            if table is not None and len(called) <= 1 and worth_merging(table, [p for _, p, _ in members]):
                elsewhere = frozenset(
                    name for f in self.program.files if f is not members[0][0] for name in f.names.everything
                )
                found.append(Twins(tuple((f, p) for f, p, _ in members), table, elsewhere))
        return found


FunctionCopy = tuple[ProgramFile, Procedure, Copy]
"""A function and its body."""


def _brought_to_one_order(
    groups: Sequence[list[FunctionCopy]], shape: Callable[[Tree, int], int], kinded: Callable[[Tree, int], int]
) -> list[list[FunctionCopy]]:
    """The groups, with functions that only become twins once lines of theirs change places in groups of their own,
    their bodies in the first one's order."""
    alike: dict[tuple[int, ...], list[FunctionCopy]] = {}
    every = [member for members in groups for member in members]
    sizes: dict[tuple[int, int], int] = {}
    for _, procedure, copy in every:
        size = len(procedure.parameters), len(copy.statements)
        sizes[size] = sizes.get(size, 0) + 1
    several = {size for size, count in sizes.items() if count > 1 and size[1] >= SHORTEST}
    if not several:
        return list(groups)
    for member in every:
        file, procedure, copy = member
        if (len(procedure.parameters), len(copy.statements)) in several:
            symbols = sorted(shape(file.tree, s) for s in copy.statements)
            alike.setdefault((len(procedure.parameters), *symbols), []).append(member)
    moved: list[list[FunctionCopy]] = []
    for members in alike.values():
        finer = [[kinded(f.tree, s) for s in copy.statements] for f, _, copy in members] if len(members) > 1 else []
        if not finer or any(sorted(symbols) != sorted(finer[0]) for symbols in finer):
            continue
        sequences = [(file, copy.statements, symbols) for symbols, (file, _, copy) in zip(finer, members, strict=True)]
        copies = in_one_order(sequences, [(k, 0) for k in range(len(members))], len(finer[0]))
        if copies is None or len(copies) < len(members):
            continue
        as_they_are, in_order = compare([copy for *_, copy in members]), compare(copies)
        if in_order and (as_they_are is None or len(in_order.columns) < len(as_they_are.columns)):
            moved.append([(file, p, copy) for (file, p, _), copy in zip(members, copies, strict=True)])
    taken = {id(p) for members in moved for _, p, _ in members}
    return [*([m for m in members if id(m[1]) not in taken] for members in groups), *moved]


def _is_alike_recursion(members: Sequence[tuple[ProgramFile, Procedure, Copy]]) -> Table | None:
    """What differs in functions of equally many parameters that call themselves; None where it is too much."""
    if len({(len(p.parameters), len(copy.statements)) for _, p, copy in members}) > 1:
        return None
    copies, own = [copy for *_, copy in members], tuple([p.name for _, p, _ in members])
    looked_at = differing_names(copies)
    if looked_at is None or own not in looked_at[1] or len(looked_at[1]) > MOST_UNLIKE:
        return None
    table = compare(copies, open_calls=True, walk=looked_at[0])
    if (
        table is None
        or len(table.columns) > MOST_UNLIKE
        or not any(c.is_called and c.values == own for c in table.columns)
    ):
        return None
    return table if worth_merging(table, [p for _, p, _ in members]) else None


def _saved_statements(table: Table) -> float:
    size = inner_statements(table.copies[0])
    return (len(table.copies) - 1) * size - len(table.copies) - len(table.columns)


def _lengths(starts: Sequence[tuple[StatementList, int]], length: int) -> list[int]:
    """How long the copies of a repeat may be: as long as it is; where its occurrences overlap, no longer than from
    one to the next; where each is made of shorter copies side by side, as long as one of these."""
    gaps = [b - a for (one, a), (other, b) in itertools.pairwise(starts) if one is other and a < b < a + length]
    sequence, first = starts[0]
    symbols = sequence.symbols[first : first + length]
    inner = [p for p in range(1, length // 2 + 1) if length % p == 0 and symbols[p:] == symbols[:-p]]
    # Two tests that leave are no copy of the next two, where one after the other they are all alike.
    whole = [] if gaps and inner and _are_guards(starts, length, inner[0]) else [length]
    return list(dict.fromkeys([*whole, *([min(gaps)] if gaps else []), *inner[:1]]))


def _are_guards(starts: Sequence[tuple[StatementList, int]], whole: int, length: int) -> bool:
    """True where all that stands there is tests that leave, one after the other."""
    copies = _apart(_first_statements(starts, whole, length), length)
    table = compare(copies) if len(copies) <= MOST_IN_A_ROW and leaves(copies[0]) else None
    return table is not None and table.constant_tokens > sum(len(c.spots) for c in table.columns)


def _first_statements(
    starts: Sequence[tuple[StatementList, int]], whole: int, length: int
) -> list[tuple[StatementList, int]]:
    """Where copies of `length` statements begin in occurrences of a repeat of `whole` statements: where each is made
    of shorter ones side by side, at each of these; where they overlap, at the statement with which the student begins
    a paragraph each time."""
    if whole % length == 0:
        return _side_by_side(starts, whole, length)
    for k in range(whole - length + 1):
        moved = [(sequence, first + k) for sequence, first in starts]
        if all(break_above(s.file, s.block.statements[i]) for s, i in moved):
            return moved
    if length < whole and _shows_what_was_above(starts[1], starts[0], length):
        return [(sequence, first + 1) for sequence, first in starts]
    return list(starts)


def _side_by_side(
    starts: Sequence[tuple[StatementList, int]], whole: int, length: int
) -> list[tuple[StatementList, int]]:
    """Every `length` statements from each start on, each place once: of a long row nearly all that one start leads to
    another one led to before."""
    found: list[tuple[StatementList, int]] = []
    seen: set[tuple[int, int]] = set()
    for sequence, first in starts:
        new: list[tuple[StatementList, int]] = []
        for at in range(first + whole - length, first - 1, -length):
            if (id(sequence), at) in seen:
                break
            seen.add((id(sequence), at))
            new.append((sequence, at))
        found += reversed(new)
    return found


BEGINNINGS = {"end": "begin", "close": "open", "stop": "start", "finish": "start"}


def _without_an_end(copies: list[Copy]) -> list[Copy]:
    """The copies, without a first statement that ends what began above them, where another of the sort begins in them:
    `end_fill()` before `begin_fill()`."""
    if not copies or not begins_with_an_end(copies[0]):
        return copies
    file, (first, stop) = copies[0].file, copies[0].span
    ended = file.called_name(first)
    begun = [f"{word}{ended.removeprefix(end)}" for end, word in BEGINNINGS.items() if ended.startswith(end)]
    called = {file.called_name(n) for n in range(first, stop) if file.tree.kind[n] == file.language.call}
    return [Copy(c.file, c.statements[1:]) for c in copies] if called.intersection(begun) else copies


def _shows_what_was_above(start: tuple[StatementList, int], above: tuple[StatementList, int], length: int) -> bool:
    """True for a first statement that shows what the copy above works out: it is that one's last."""
    (sequence, first), file = start, start[0].file
    statement, names, tree = sequence.block.statements[first], file.names, file.tree
    if sequence is not above[0] or file.called_name(statement) not in file.language.output_calls:
        return False
    shown = {tree.text[i] for i in names.within(statement, tree.end[statement])}
    inside = Copy(file, sequence.block.statements[above[1] + 1 : above[1] + length])
    return any(names.role[i] is Role.WRITE and tree.text[i] in shown for i in names.within(*inside.span))


def _apart(starts: Sequence[tuple[StatementList, int]], length: int) -> list[Copy]:
    """Occurrences that do not overlap, first come first served."""
    copies: list[Copy] = []
    last: dict[int, int] = {}
    for sequence, index in starts:
        key = id(sequence)
        if index >= last.get(key, 0):
            copies.append(Copy(sequence.file, sequence.block.statements[index : index + length]))
            last[key] = index + length
    return sorted(copies, key=lambda c: (c.file.path, c.first))


def _merged(spans: list[tuple[int, int]]) -> tuple[list[int], list[int]]:
    """The union of node ranges as ascending starts and stops."""
    starts: list[int] = []
    stops: list[int] = []
    for start, stop in sorted(spans):
        if stops and start <= stops[-1]:
            stops[-1] = max(stops[-1], stop)
        else:
            starts.append(start)
            stops.append(stop)
    return starts, stops


class _Chosen:
    """The blocks that are told, none overlapping another one."""

    def __init__(self, told: Sequence[Table]) -> None:
        self.told = told
        """What is told otherwise."""
        self.blocks: list[RepeatedBlock] = []
        self.starts: dict[int, list[int]] = {}
        """Where copies of blocks begin in each file, in the order of the text."""
        self.stops: dict[tuple[int, int], int] = {}

    def add(self, block: RepeatedBlock) -> None:
        """Choose a block, unless it overlaps what was chosen before."""
        for other in self.blocks:
            look()
            if _overlap(block.table, other.table, 1 if block.known and block.known is other.known else 0):
                return
        for table in self.told:
            look()
            if _overlap(block.table, table):
                return
        self.blocks.append(block)
        for copy in block.table.copies:
            start, stop = copy.span
            insort(self.starts.setdefault(id(copy.file), []), start)
            self.stops[id(copy.file), start] = stop

    def leave_nothing_of(self, copies: Sequence[Copy]) -> bool:
        """True where each part of the copies overlaps what was chosen."""
        if not self.blocks:
            return False
        return all(any(self._hold(copy, k) for copy in copies) for k in range(len(copies[0].statements)))

    def _hold(self, copy: Copy, place: int) -> bool:
        """True where one of the copies' statements is part of a block."""
        file, statement = id(copy.file), copy.statements[place]
        starts = self.starts.get(file, ())
        k = bisect_right(starts, statement) - 1
        return k >= 0 and statement < self.stops[file, starts[k]]


def _overlap(table: Table, other: Table, from_copy: int = 0) -> bool:
    return any(
        a.file is b.file and a.span[0] < b.span[1] and b.span[0] < a.span[1]
        for a in table.copies[from_copy:]
        for b in other.copies[from_copy:]
    )
