"""Branches of one choice that begin with the same statement and end alike, and work something else out in between:

if kind == "km":                                   what is asked for first can be asked once,
    value = float(input("Value: "))                before the choice, and what is shown last once, behind it
    result = value * 0.621
    print(value, "km are", round(result, 2), "miles")
elif kind == "c":
    value = float(input("Value: "))
    result = value * 1.8 + 32
    print(value, "c are", round(result, 2), "fahrenheit")
"""

from __future__ import annotations

import itertools
from collections.abc import Callable

from ..frozen import Single
from ..program.program import ProgramFile
from .choices import FEWEST_BRANCHES, FEWEST_STATEMENTS, Branch, Choice

MOST_BETWEEN = 3
"""Statements of a branch between what all begin with and what all end with."""
LEAST_ALIKE = 8
"""Tokens that the ends have in common, if these are not the very same."""


class Framed(Single, frozen=True, eq=False):
    """Branches, and how many statements all begin and end with."""

    branches: tuple[Branch, ...]
    before: int
    behind: int


def framed(choice: Choice, shape: Callable[[ProgramFile, int], int]) -> Framed | None:
    """The longest row of such branches of a choice."""
    branches = [(file, statements) for file, statements in choice if len(statements) >= FEWEST_STATEMENTS]
    starts = range(len(branches) - FEWEST_BRANCHES + 1)
    found = max((_row(branches, first, shape) for first in starts), key=lambda row: len(row.branches), default=None)
    return found if found and len(found.branches) >= FEWEST_BRANCHES else None


def _row(branches: Choice, first: int, shape: Callable[[ProgramFile, int], int]) -> Framed:
    """The branches from one on that are framed alike."""
    file, template = branches[first]
    found = Framed((branches[first],), len(template), len(template))
    for _, statements in branches[first + 1 :]:
        pairs = list(zip(template, statements, strict=False))
        same = itertools.takewhile(lambda pair: _is_the_same(file, *pair), pairs)
        alike = itertools.takewhile(
            lambda pair: _ends_alike(file, *pair, shape), zip(reversed(template), reversed(statements), strict=False)
        )
        before = min(found.before, len(list(same)))
        behind = min(found.behind, len(list(alike)), len(statements) - before, len(template) - before)
        between = max(len(s) for _, s in (*found.branches, (file, statements))) - before - behind
        if not before or not behind or before + behind < 2 or between > MOST_BETWEEN:
            break
        found = Framed((*found.branches, (file, statements)), before, behind)
    return found


def _is_the_same(file: ProgramFile, one: int, other: int) -> bool:
    tree = file.tree
    return tree.text[one : tree.end[one]] == tree.text[other : tree.end[other]]


def _ends_alike(file: ProgramFile, one: int, other: int, shape: Callable[[ProgramFile, int], int]) -> bool:
    """True for statements of one shape that have enough in common."""
    if _is_the_same(file, one, other):
        return True
    tree = file.tree
    tokens = zip(tree.text[one : tree.end[one]], tree.text[other : tree.end[other]], strict=False)
    return shape(file, one) == shape(file, other) and sum(bool(a) and a == b for a, b in tokens) >= LEAST_ALIKE
