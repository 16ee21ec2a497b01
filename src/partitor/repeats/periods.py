"""Maximal repetitions (stretches with a period) of a symbol sequence.

A stretch `[start, stop)` has period p when s[i] = s[i + p] throughout; it is maximal when it
cannot grow (Main and Lorentz 1984). Found here by comparing the sequence with itself shifted by
each period that can repeat often enough, as array work: O(n) each, and only for periods at which
enough symbols meet at all.
"""

from __future__ import annotations

from collections import Counter
from collections.abc import Sequence

import msgspec
import numpy as np

LONGEST_PERIOD = 400
"""Statements in one copy. Longer ones repeated in a row have not been seen from a person's hand."""


class Repetition(msgspec.Struct, frozen=True):
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
    n = len(symbols)
    if n < fewest_copies or max(Counter(symbols).values()) < fewest_copies:
        return []
    texts = [np.array(text, dtype=np.int64) for text in (symbols, *finer)]
    found: dict[Repetition, None] = {}
    for text in texts:
        hints = texts if text is texts[0] else [text]
        for period in _promising_periods(hints, n // fewest_copies, fewest_copies):
            same = np.flatnonzero(np.diff(np.concatenate(([0], text[period:] == text[:-period], [0]))))
            for start, stop in zip(same[::2].tolist(), same[1::2].tolist(), strict=True):
                if stop + period - start >= period * fewest_copies:
                    found[Repetition(start, stop + period, period)] = None
    return sorted(found, key=lambda r: (r.period, r.start, -r.stop))


def _promising_periods(texts: Sequence[np.typing.NDArray[np.int64]], longest: int, copies: int) -> list[int]:
    """Periods that some symbol shows between consecutive occurrences of itself, often enough."""
    promising: set[int] = set()
    for text in texts:
        order = np.argsort(text, kind="stable")
        gaps = np.diff(order)
        gaps = gaps[(text[order][1:] == text[order][:-1])]
        gaps = gaps[(gaps <= min(longest, LONGEST_PERIOD))]
        periods, counts = np.unique(gaps, return_counts=True)
        promising.update(int(p) for p, count in zip(periods, counts, strict=True) if count >= copies - 1)
    return sorted(promising)


def explains(shorter: Repetition, stretch: Repetition) -> bool:
    """A period that is a multiple of one already found on the same stretch says nothing new."""
    return stretch.period % shorter.period == 0 and shorter.start <= stretch.start and stretch.stop <= shorter.stop
