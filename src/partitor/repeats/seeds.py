"""Stretches of statements that become alike once something of one sort is the same: found from the statements that do,
as far as those around them are alike."""

from __future__ import annotations

import itertools
from collections.abc import Iterator, Sequence

MOST_PLACES = 6
"""Places in which statements may stand that are alike but for this; more are no slip of a hand."""

Place = tuple[int, int]
"""A list of statements, and a statement in it."""


def stretches(
    sharp: Sequence[Sequence[int]], blunt: Sequence[Sequence[int]]
) -> Iterator[tuple[tuple[Place, ...], int]]:
    """(where they begin, how many statements they have) of stretches with equal `blunt` symbols that hold a statement
    of which the `sharp` symbols differ; negative symbols are part of none. For each such statement the places all
    together, and two by two."""
    changed = [(q, i) for q in range(len(sharp)) if sharp[q] != blunt[q] for i in _unlike(sharp[q], blunt[q])]
    first: dict[int, int] = {}
    unlike = set[int]()
    """What is alike bluntly and not sharply. Most programs have nothing of the sort."""
    for q, i in changed:
        other = blunt[q][i]
        if first.setdefault(other, sharp[q][i]) != sharp[q][i]:
            unlike.add(other)
    places: dict[int, list[Place]] = {}
    for q, i in changed if unlike else ():
        if blunt[q][i] in unlike:
            places.setdefault(blunt[q][i], []).append((q, i))
    seen: set[tuple[tuple[Place, ...], int]] = set()
    for found in places.values():
        if len(found) > MOST_PLACES:
            continue
        for group in (tuple(found), *itertools.combinations(found, 2)):
            if len({sharp[q][i] for q, i in group}) > 1:
                stretch = _grown(blunt, group)
                if stretch not in seen:
                    seen.add(stretch)
                    yield stretch


def _unlike(symbols: Sequence[int], others: Sequence[int]) -> list[int]:
    """Where two rows of symbols differ."""
    return [i for i in range(len(symbols)) if symbols[i] != others[i]]


def _grown(blunt: Sequence[Sequence[int]], group: tuple[Place, ...]) -> tuple[tuple[Place, ...], int]:
    """A statement in several places, with those before and behind it that are alike in all."""
    before = after = 0
    while _same(blunt, group, -before - 1):
        before += 1
    while _same(blunt, group, after + 1):
        after += 1
    return tuple((q, i - before) for q, i in group), before + 1 + after


def _same(blunt: Sequence[Sequence[int]], group: tuple[Place, ...], away: int) -> bool:
    symbols = {blunt[q][i + away] if 0 <= i + away < len(blunt[q]) else -1 for q, i in group}
    return len(symbols) == 1 and min(symbols) >= 0
