"""Places that are nearly what a block's copies are, which one statement keeps from being a copy, too."""

from __future__ import annotations

from collections.abc import Callable, Iterator, Sequence

from .asking import Statements
from .blocks import RepeatedBlock
from .near import Symbol, nearly_alike
from .slots import Copy

FEWEST_STATEMENTS = 3
"""Statements of a block, side by side, of which another place may have one otherwise."""
MOST_STATEMENTS = 2000
"""Statements of a program that is looked through; in more it is data."""


def nearly_copies(
    block: RepeatedBlock, lists: Sequence[Statements], shape: Symbol, worded: Symbol, free: Callable[[Copy], bool]
) -> Iterator[Copy]:
    """Stretches of as many statements as the block's copies have, all alike but one, and that one mostly; `free`: those
    that are part of nothing yet."""
    first = block.table.copies[0]
    size = len(first.statements)
    if size < FEWEST_STATEMENTS or first.is_reordered or sum(len(s) for _, s, _ in lists) > MOST_STATEMENTS:
        return
    own = next(((s, x) for f, s, x in lists if f is first.file and first.first in s), None)
    if own is None:
        return
    start = own[0].index(first.first)
    template = own[1][start : start + size]
    for file, statements, symbols in lists:
        for i in range(len(statements) - size + 1):
            if _has_one_other(template, symbols, i):
                copy = Copy(file, tuple(statements[i : i + size]))
                if free(copy) and nearly_alike(first, copy, shape, worded):
                    yield copy


def _has_one_other(template: Sequence[int], symbols: Sequence[int], start: int) -> bool:
    """True where just one of the symbols from `start` on is not the template's."""
    others = 0
    for k in range(len(template)):
        if template[k] != symbols[start + k]:
            others += 1
            if others > 1:
                return False
    return others == 1
