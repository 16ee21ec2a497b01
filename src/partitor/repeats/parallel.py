"""Variables that are one list in pieces: the same three or more, in the same order, in one row of statements after the
other. No row is worth a loop; together they are worth a list."""

from __future__ import annotations

import itertools
from collections.abc import Callable, Iterator, Sequence

from ..program.names import WRITES
from ..program.program import ProgramFile
from .asking import Span, Statements
from .judge import code_lines
from .near import Likeness, NearBlock
from .slots import Copy

FEWEST = 3
"""Variables, and rows of statements in which they stand."""
FEWEST_LETTERS = 3
"""Letters of their names: `x`, `y` and `z` are no list."""
MOST_IN_A_ROW = 8
"""Statements of a row; more are a table."""
LEAST_LINES = 6
"""Lines of the rows in which something is done with them."""
MOST_STATEMENTS = 400
"""Statements of a program that is looked through; in more it is data."""

Names = tuple[str, ...]


def parallel_variables(lists: Sequence[Statements], free: Callable[[ProgramFile, Span], bool]) -> Iterator[NearBlock]:
    """Variables with which the same is done in three rows at least, in some of them something worked out; `free`: a
    node range that is part of nothing yet."""
    if sum(len(statements) for _, statements, _ in lists) > MOST_STATEMENTS:
        return
    every = [row for one in lists for row in (*_rows(*one), *_branches(*one))]
    if len(every) < FEWEST:
        return
    rows: dict[tuple[int, Names], list[Copy]] = {}
    for row in every:
        for names, part in _parts_of(row):
            rows.setdefault((id(row[0].file), names), []).append(_as_one(part))
    taken: list[Copy] = []
    for (_, names), found in sorted(rows.items(), key=lambda entry: (-len(entry[0][1]), -len(entry[1]))):
        if len(found) < FEWEST or any(row.overlaps(other) for row in found for other in taken):
            continue
        shown = sum(code_lines(row) for row in found if not _only_begins(row))
        if shown >= LEAST_LINES and any(map(_works_out, found)) and all(free(r.file, r.span) for r in found):
            taken += found
            in_order = tuple(sorted(found, key=lambda row: row.first))
            yield NearBlock(in_order, len(names), 0, Likeness.PARALLEL, names)


def _as_one(copies: Sequence[Copy]) -> Copy:
    """All of a row as one stretch."""
    return Copy(copies[0].file, tuple(s for copy in copies for s in copy.statements))


def _rows(file: ProgramFile, statements: Sequence[int], symbols: Sequence[int]) -> Iterator[list[Copy]]:
    """Three statements or more of one shape, one behind the other."""
    if len(statements) < FEWEST:
        return
    first = 0
    for symbol, group in itertools.groupby(symbols):
        size = len(list(group))
        if symbol >= 0 and size >= FEWEST:
            yield [Copy(file, (s,)) for s in statements[first : first + size]]
        first += size


def _branches(file: ProgramFile, statements: Sequence[int], symbols: Sequence[int]) -> Iterator[list[Copy]]:
    """What three branches or more of one choice do, of one form."""
    tree, conditionals, clauses = file.tree, file.language.conditionals, file.language.clauses
    tests = [s for s, x in zip(statements, symbols, strict=True) if x >= 0 and tree.kind[s] in conditionals]
    for statement in tests:
        if sum(tree.kind[child] in clauses for child in tree.children(statement)) < FEWEST - 1:
            continue
        done = [file.block_at[b].statements for b in file.blocks_of(statement)]
        sizes = [[tree.end[s] - s for s in inside] for inside in done]
        if not any(len(list(group)) >= FEWEST for _, group in itertools.groupby(sizes)):
            continue
        kinds = [tuple(tree.kind[s : tree.end[s]] for s in inside) for inside in done]
        for _, group in itertools.groupby(zip(kinds, done, strict=True), key=lambda pair: pair[0]):
            copies = [Copy(file, tuple(inside)) for _, inside in group if inside]
            if len(copies) >= FEWEST:
                yield copies


def _parts_of(row: Sequence[Copy]) -> Iterator[tuple[Names, Sequence[Copy]]]:
    """The variables that differ from statement to statement, each once in the row; of more than three any three that
    follow each other and more."""
    (start, stop), tree = row[0].span, row[0].file.tree
    firsts = [copy.first for copy in row]
    if len(row) > MOST_IN_A_ROW or any(copy.span[1] - copy.first != stop - start for copy in row):
        return
    places = [n - start for n in row[0].file.names.within(start, stop)]
    columns = {tuple(tree.text[first + k] for first in firsts) for k in places}
    for names in sorted(columns):
        for size in range(FEWEST, len(names) + 1):
            for k in range(len(names) - size + 1):
                part = names[k : k + size]
                if min(map(len, part)) >= FEWEST_LETTERS and len(set(part)) == size:
                    yield part, row[k : k + size]


def _works_out(row: Copy) -> bool:
    """True where the row's statements reckon with something."""
    kinds = row.file.tree.kind[slice(*row.span)]
    return "binary_operator" in kinds or "augmented_assignment" in kinds


def _only_begins(row: Copy) -> bool:
    """True where the variables only get what is written there."""
    file, (start, stop) = row.file, row.span
    written = [n for n in file.names.within(start, stop) if file.names.role[n] in WRITES]
    return len(written) == len(row.statements) and len(file.names.within(start, stop)) == len(written)
