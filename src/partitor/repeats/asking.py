"""Places in one procedure that are alike but for what they ask: three loops that each count or show other things.

A statement's form is its symbol without the tests in it. Where the same forms stand three times and more, and only the
tests are of other shapes, they are near copies.
"""

from __future__ import annotations

import itertools
from collections.abc import Callable, Iterator, Sequence

from ..program.program import ProgramFile
from ..program.shapes import ShapeTable
from .judge import inner_statements
from .seeds import stretches
from .slots import Copy

FEWEST_PLACES = 3
"""Two that ask something else are two things to do."""
FEWEST_STATEMENTS = 4
MOST_STATEMENTS = 400
"""Statements in the lists with such places; in more it is data."""

FIRST_FORM = 1 << 40
"""The numbers of forms are none that a symbol has."""

Span = tuple[int, int]
Form = tuple[object, ...]
Statements = tuple[ProgramFile, Sequence[int], Sequence[int]]
"""A file, a statement list of it, and the list's symbols; negative for one that is part of nothing."""


def alike_but_for_tests(
    lists: Sequence[Statements], shapes: ShapeTable, free: Callable[[ProgramFile, Span], bool]
) -> Iterator[tuple[Copy, ...]]:
    """Such places; `free`: a node range that is part of nothing yet."""
    tests = [
        (k, _outline(file, shapes, s), symbol)
        for k, (file, statements, symbols) in enumerate(lists)
        for s, symbol in zip(statements, symbols, strict=True)
        if symbol >= 0 and _asks(file, s)
    ]
    # What has one form is of one kind, and equally large; where all is the very same, no more is to be said.
    alike: dict[tuple[object, ...], list[int]] = {}
    for _, outline, symbol in tests:
        alike.setdefault(outline, []).append(symbol)
    several = {one for one, found in alike.items() if len(found) >= FEWEST_PLACES and len(set(found)) > 1}
    asking = [lists[k] for k in dict.fromkeys(k for k, outline, _ in tests if outline in several)]
    if not asking or sum(len(s) for _, s, _ in asking) > MOST_STATEMENTS:
        return
    known: dict[Form, int] = {}
    sharp: list[list[int]] = []
    forms: list[list[int]] = []
    for k, (file, statements, symbols) in enumerate(asking):
        ends = file.tree.end
        usable = [x >= 0 and free(file, (s, ends[s])) for s, x in zip(statements, symbols, strict=True)]
        sharp.append([x if may else -1 - k for x, may in zip(symbols, usable, strict=True)])
        forms.append(
            [
                known.setdefault(_form(file, shapes, s), FIRST_FORM + len(known)) if may else -1 - k
                for s, may in zip(statements, usable, strict=True)
            ]
        )
    taken: list[Copy] = []
    for starts, length in stretches(sharp, forms):
        copies = tuple(Copy(asking[q][0], tuple(asking[q][1][i : i + length])) for q, i in starts)
        apart = not any(a.overlaps(b) for a, b in itertools.combinations(copies, 2))
        inside = {id(c.file.procedure_around(c.first)) for c in copies}
        if len(copies) < FEWEST_PLACES or not apart or len(inside) > 1:
            continue
        if inner_statements(copies[0]) >= FEWEST_STATEMENTS and not any(a.overlaps(b) for a in copies for b in taken):
            taken += copies
            yield copies


def _outline(file: ProgramFile, shapes: ShapeTable, statement: int) -> tuple[object, ...]:
    """The kind of a statement, how many it holds, and what a loop goes through."""
    tree, kind = file.tree, file.tree.kind[statement]
    head = 0 if kind in file.language.conditionals else shapes.alone(tree, statement)
    return kind, file.count_within(statement, tree.end[statement]), head


def _asks(file: ProgramFile, statement: int) -> bool:
    """True for a statement with others inside it, and a test among them or above them."""
    tree, language = file.tree, file.language
    kind = tree.kind[statement]
    if kind in language.conditionals:
        return True
    return kind in language.loops and not language.conditionals.isdisjoint(tree.kind[statement : tree.end[statement]])


def _form(file: ProgramFile, shapes: ShapeTable, statement: int) -> Form:
    """What a statement looks like without what it asks."""
    tree, language = file.tree, file.language
    kind = tree.kind[statement]
    blocks = file.blocks_of(statement)
    if not blocks:
        return kind, shapes.shape(tree, statement)
    head = kind if kind in language.conditionals else shapes.alone(tree, statement)
    return head, *(tuple(_form(file, shapes, s) for s in file.block_at[b].statements) for b in blocks)
