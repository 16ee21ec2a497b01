"""Loops and tests with the same head that are not alike inside, together with the statements around them that are."""

from __future__ import annotations

import itertools
from collections.abc import Callable, Iterator, Sequence

from ..program.program import ProgramFile
from ..program.shapes import ShapeTable
from .asking import Span, Statements
from .slots import Copy

MOST_HEADS = 6
"""Places with one head; more are no slip of a hand."""
FEWEST_INSIDE = 2
"""Statements inside such a loop or test."""


def around_heads(
    lists: Sequence[Statements], shapes: ShapeTable, free: Callable[[ProgramFile, Span], bool]
) -> Iterator[tuple[Copy, Copy]]:
    """Pairs of stretches of statements, one behind the other, around two such places; `free`: a node range that is part
    of nothing yet."""
    heads: dict[int, list[tuple[int, int]]] = {}
    for q, (file, statements, symbols) in enumerate(lists):
        compound, tree = file.language.loops | file.language.conditionals, file.tree
        for i, s in enumerate(statements):
            if tree.kind[s] in compound and symbols[i] >= 0:
                heads.setdefault(shapes.alone(tree, s), []).append((q, i))

    def is_free(place: tuple[int, int]) -> bool:
        file, statements, _ = lists[place[0]]
        return free(file, (statements[place[1]], file.tree.end[statements[place[1]]]))

    for places in heads.values():
        left = [place for place in places if is_free(place)] if 1 < len(places) <= MOST_HEADS else []
        for one, other in itertools.combinations(left, 2):
            pair = _grown(lists, one, other)
            if pair is not None:
                yield pair


def _grown(lists: Sequence[Statements], one: tuple[int, int], other: tuple[int, int]) -> tuple[Copy, Copy] | None:
    """The two places with what stands around both; None where they are alike, or one stands in the other."""
    (file, statements, symbols), (home, others, alike) = lists[one[0]], lists[other[0]]
    (first, last), (start, stop) = (one[1], one[1] + 1), (other[1], other[1] + 1)
    if symbols[first] == alike[start]:
        return None
    beside = one[0] == other[0]
    while first and start and symbols[first - 1] == alike[start - 1] >= 0 and not (beside and start <= last):
        first, start = first - 1, start - 1
    while last < len(symbols) and stop < len(alike) and symbols[last] == alike[stop] >= 0:
        if beside and last + 1 > start:
            break
        last, stop = last + 1, stop + 1
    copies = Copy(file, tuple(statements[first:last])), Copy(home, tuple(others[start:stop]))
    inside = all(c.file.count_within(*c.span) > FEWEST_INSIDE + 1 for c in copies)
    return None if copies[0].overlaps(copies[1]) or not inside else copies
