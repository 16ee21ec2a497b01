"""Maximal repeats of symbol sequences by one generalised suffix array.

Prefix doubling after Manber and Myers (1993), vectorised; the LCP array after Kasai, Lee, Arimura,
Arikawa and Park (2001); repeats as LCP intervals after Abouelhoda, Kurtz and Ohlebusch (2004).
O(n log² n) for n symbols.
"""

from __future__ import annotations

import itertools
from collections import Counter
from collections.abc import Iterator, Sequence

import numpy as np
import numpy.typing as npt

from ..frozen import Frozen

Ints = npt.NDArray[np.int64]
LONGEST = 120
"""Symbols of one copy. Longer blocks in separate places are whole programs, not slips of a hand."""
SHORT = 200
"""Symbols up to which sorting the suffixes as they are, one byte a symbol, is quicker than starting up array work."""


class Repeat(Frozen, frozen=True):
    """`length` symbols that stand at each of `starts` (positions in the joined text, ascending)."""

    length: int
    starts: tuple[int, ...]


def suffix_array(symbols: list[int]) -> tuple[list[int], list[int]]:
    """The suffix array of a text of `n` symbols (64 bits each) and the rank of each suffix.

    >>> suffix_array([2, 1, 2, 1])
    ([3, 1, 2, 0], [3, 1, 2, 0])
    """
    n = len(symbols)
    if n > SHORT:
        order, rank = _sorted_by_doubling(np.array(symbols, dtype=np.int64))
        return order.tolist(), rank.tolist()
    numbered = {symbol: k for k, symbol in enumerate(sorted(set(symbols)))}
    text = bytes([numbered[symbol] for symbol in symbols])
    by_suffix = sorted(range(n), key=lambda i: text[i:])
    ranks = [0] * n
    for k, i in enumerate(by_suffix):
        ranks[i] = k
    return by_suffix, ranks


def _sorted_by_doubling(text: Ints) -> tuple[Ints, Ints]:
    n = len(text)
    rank = np.unique(text, return_inverse=True)[1].astype(np.int64)
    order = np.argsort(rank, kind="stable")
    width = 1
    while width < n:
        behind = np.full(n, -1, dtype=np.int64)
        behind[: n - width] = rank[width:]
        key = (rank + 1) * (n + 2) + behind + 1
        order = np.argsort(key, kind="stable")
        ranked = key[order]
        new_rank = np.empty(n, dtype=np.int64)
        new_rank[order] = np.concatenate(([0], np.cumsum(ranked[1:] != ranked[:-1])))
        rank = new_rank
        if rank[order[-1]] == n - 1:
            break
        width *= 2
    return order, rank


def lcp_array(symbols: list[int], positions: list[int], ranks: list[int]) -> list[int]:
    """`lcp[k]`: common prefix length of the suffixes at `positions[k - 1]` and `positions[k]`; lcp[0] = 0."""
    n = len(symbols)
    lcp = [0] * n
    length = 0
    for i in range(n):
        if ranks[i] == 0:
            length = 0
            continue
        j = positions[ranks[i] - 1]
        while i + length < n and j + length < n and symbols[i + length] == symbols[j + length]:
            length += 1
        lcp[ranks[i]] = length
        length = max(length - 1, 0)
    return lcp


def maximal_repeats(sequences: Sequence[Sequence[int]], shortest: int) -> Iterator[Repeat]:
    """Every left- and right-maximal repeat of at least `shortest` symbols, over all sequences, those
    that cover most first.

    Positions count through the sequences joined with one separator after each. A repeat never
    crosses a separator. Occurrences may overlap; the caller chooses. Longer repeats than LONGEST are
    given cut to it, so that a monotonous text of n symbols has no more than n · LONGEST occurrences.

    >>> [(r.length, r.starts) for r in maximal_repeats([[1, 2, 3], [9, 1, 2, 3]], 2)]
    [(3, (0, 5))]
    """
    joined, places = _joined(sequences)
    if len(joined) < 2:
        return
    positions, ranks = suffix_array(joined)
    lcp = [min(height, LONGEST) for height in lcp_array(joined, positions, ranks)]
    found: list[tuple[int, int, int]] = []
    stack: list[tuple[int, int]] = []
    for k in range(1, len(lcp) + 1):
        height = lcp[k] if k < len(lcp) else 0
        left = k - 1
        while stack and stack[-1][1] > height:
            left, length = stack.pop()
            if length >= shortest:
                found.append((length, left, k))
        if height and (not stack or stack[-1][1] < height):
            stack.append((left, height))
    found.sort(key=lambda f: (-f[0] * (f[2] - f[1] - 1), -f[0], f[1]))
    for length, left, k in found:
        starts = sorted(positions[left:k])
        if _left_maximal(joined, starts):
            yield Repeat(length, tuple(places[start] for start in starts))


def _joined(sequences: Sequence[Sequence[int]]) -> tuple[list[int], list[int]]:
    """The sequences as one text, and where each of its symbols stands in them joined. What there is only once is part
    of no repeat: one separator, a number of its own, stands for all that lies between what there is again."""
    often = Counter(itertools.chain.from_iterable(sequences))
    text: list[int] = []
    places: list[int] = []
    position = separator = -1
    for sequence in sequences:
        for symbol in sequence:
            position += 1
            if often[symbol] > 1:
                if places and position > places[-1] + 1:
                    text.append(separator)
                    places.append(position - 1)
                    separator -= 1
                text.append(symbol)
                places.append(position)
        position += 1
    return text, places


def _left_maximal(text: list[int], starts: list[int]) -> bool:
    """True where the occurrences are not all preceded by the same symbol."""
    if starts[0] == 0:
        return True
    first = text[starts[0] - 1]
    return any(text[s - 1] != first for s in starts[1:]) or first < 0
