"""Numbers that move together: the same picture drawn at another place has all its coordinates moved alike."""

from __future__ import annotations

from collections.abc import Iterable

from .columns import Column

LEAST_MOVE = 10
"""How far two copies alone have to be apart for their numbers to move together by more than chance."""
LEAST_FOLLOWING = 2
"""How many numbers then have to follow others."""

Move = tuple[int, ...]
"""By how much the number of each copy is more than the first one's."""


def move_of(column: Column) -> Move | None:
    """How a column's numbers move from copy to copy; None where they are no whole numbers."""
    numbers = column.numbers
    return tuple(n - numbers[0] for n in numbers) if numbers is not None else None


def moving_together(columns: Iterable[Column]) -> dict[Move, list[Column]]:
    """The columns whose numbers are always so much more than the first one's, by how they move. What only two copies
    tell is believed where they are far apart and several numbers agree."""
    groups: dict[Move, list[Column]] = {}
    for column in columns:
        move = move_of(column)
        if move is not None:
            groups.setdefault(move, []).append(column)
    groups = {move: members for move, members in groups.items() if len(members) > 1}
    if all(len(move) > 2 for move in groups):
        return groups
    far = {move: members for move, members in groups.items() if abs(move[1]) >= LEAST_MOVE}
    return far if sum(len(members) - 1 for members in far.values()) >= LEAST_FOLLOWING else {}


def following(columns: Iterable[Column]) -> dict[Column, tuple[Column, int]]:
    """Columns that always are so much more than another one, with that one and how much."""
    found: dict[Column, tuple[Column, int]] = {}
    for base, *others in moving_together(columns).values():
        for column in others:
            assert base.numbers is not None
            assert column.numbers is not None
            found[column] = (base, column.numbers[0] - base.numbers[0])
    return found
