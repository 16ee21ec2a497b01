"""Maximal repetitions (stretches with a period) of a symbol sequence.

A stretch `[start, stop)` has period p when s[i] = s[i + p] throughout; it is maximal when it
cannot grow (Main and Lorentz 1984). Found here by comparing the sequence with itself shifted by
each period that can repeat often enough, as array work: O(n) each, and only for periods at which
enough symbols meet at all.
"""

from __future__ import annotations

from collections.abc import Iterator, Sequence

import numpy as np

from ..deadline import look
from ..frozen import Frozen

LONGEST_PERIOD = 400
"""Statements in one copy. Longer ones repeated in a row have not been seen from a person's hand."""


class Repetition(Frozen, frozen=True):
    """`stop - start` symbols with the primitive period `period`."""

    start: int
    stop: int
    period: int


def maximal_repetitions(symbols: Sequence[int], fewest_copies: int, *finer: Sequence[int]) -> list[Repetition]:
    """All maximal repetitions of at least `fewest_copies` whole copies, shortest period first.

    `finer` sequences (equal only where `symbols` are) show periods inside monotonous stretches, and
    are searched themselves as well: there a repetition ends where the words change, not where the
    shapes do. Multiples of a period are among what is given: whether the shorter copies are worth
    anything is for the caller to say, with `explains`.

    >>> maximal_repetitions([7, 1, 2, 1, 2, 1, 2, 9], 3)
    [Repetition(start=1, stop=7, period=2)]
    >>> maximal_repetitions([1, 1, 1, 1, 1, 1], 3, [5, 6, 5, 6, 5, 6])[1]
    Repetition(start=0, stop=6, period=2)
    """
    if not may_repeat(symbols, fewest_copies):
        return []
    texts = [list(symbols), *(list(text) for text in finer)]
    longest = min(len(symbols) // fewest_copies, LONGEST_PERIOD)
    promising = [_promising_periods(text, longest, fewest_copies) for text in texts]
    found: dict[Repetition, None] = {}
    for k, text in enumerate(texts):
        for period in sorted(set().union(*promising) if k == 0 else promising[k]):
            look()
            for start, stop in _equal_to_shifted(text, period):
                if stop + period - start >= period * fewest_copies:
                    found[Repetition(start, stop + period, period)] = None
    return sorted(found, key=lambda r: (r.period, r.start, -r.stop))


SHORT = 200
"""Symbols up to which a loop is quicker than starting up array work."""


def _equal_to_shifted(text: list[int], period: int) -> Iterator[tuple[int, int]]:
    """Stretches [start, stop) in which each symbol is the one `period` further on."""
    if len(text) > SHORT:
        array = np.array(text, dtype=np.int64)
        same = np.flatnonzero(np.diff(np.concatenate(([0], array[period:] == array[:-period], [0]))))
        yield from zip(same[::2].tolist(), same[1::2].tolist(), strict=True)
        return
    start = 0
    later = text[period:]
    for k, (symbol, other) in enumerate(zip(text, later, strict=False)):
        if symbol != other:
            if start < k:
                yield start, k
            start = k + 1
    if start < len(later):
        yield start, len(later)


def may_repeat(symbols: Sequence[int], fewest_copies: int) -> bool:
    """False where no symbol stands as often as a repetition needs it."""
    if len(symbols) < fewest_copies or len(set(symbols)) > len(symbols) - fewest_copies + 1:
        return False
    counts: dict[int, int] = {}
    for symbol in symbols:
        counts[symbol] = counts.get(symbol, 0) + 1
        if counts[symbol] >= fewest_copies:
            return True
    return False


def _promising_periods(text: Sequence[int], longest: int, copies: int) -> set[int]:
    """Periods that some symbol shows between consecutive occurrences of itself, often enough."""
    last: dict[int, int] = {}
    gaps: dict[int, int] = {}
    for position, symbol in enumerate(text):
        before = last.get(symbol)
        if before is not None and position - before <= longest:
            gaps[position - before] = gaps.get(position - before, 0) + 1
        last[symbol] = position
    return {gap for gap, count in gaps.items() if count >= copies - 1}


def explains(shorter: Repetition, stretch: Repetition) -> bool:
    """A period that is a multiple of one already found on the same stretch says nothing new."""
    return stretch.period % shorter.period == 0 and shorter.start <= stretch.start and stretch.stop <= shorter.stop
