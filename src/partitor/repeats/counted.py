"""Where the numbers in a column step evenly for a while, or begin anew every few copies."""

from __future__ import annotations

import itertools
import re
from collections.abc import Iterator, Sequence

from ..frozen import Frozen
from ..program.shapes import SAME_SIGNS
from .columns import QUOTES, Column
from .series import shared_start

DIGITS = re.compile(r"(\d+)")


class Counted(Frozen, frozen=True):
    """What a value is made of: the numbers in it, and everything else."""

    numbers: tuple[int, ...]
    words: str


def counts(column: Column) -> bool:
    """True where the values may count in some way."""
    first = column.values[0]
    return column.numbers is not None or DIGITS.search(first) is not None or SAME_SIGNS.fullmatch(first) is not None


def counted(column: Column) -> list[Counted]:
    """The values of a column, copy by copy; a text of one sign is that sign and how many there are."""
    result = []
    for value in column.values:
        grown = SAME_SIGNS.fullmatch(value)
        if grown and not grown[3].isdigit():
            result.append(Counted((len(grown[2]),), f"{grown[1]}{grown[3]}{grown[4]}"))
            continue
        parts = DIGITS.split(value)
        if any(len(part) > 9 for part in parts[1::2]):
            parts = [value]
        result.append(Counted(tuple(map(int, parts[1::2])), "\0".join(parts[::2])))
    return result


def even_parts(columns: Sequence[Sequence[Counted]]) -> list[tuple[int, int]]:
    """The stretches of copies, from one to before another, along which everything steps evenly: a copy that two of
    them could have, the last of one and the first of the next, belongs to the longer one."""
    count = len(columns[0]) if columns else 0
    stretches: list[tuple[int, int]] = []
    start = 0
    while start < count:
        stop = start + 1
        while stop < count and all(_goes_on(column, start, stop) for column in columns):
            stop += 1
        stretches.append((start, stop))
        start = stop if stop == count or stop - start == 1 else stop - 1
    parts: list[tuple[int, int]] = []
    for start, stop in sorted(stretches, key=lambda s: s[0] - s[1]):
        first = start + any(part[1] == start + 1 for part in parts)
        last = stop - any(part[0] == stop - 1 for part in parts)
        if first < last:
            parts.append((first, last))
    return sorted(parts)


def _goes_on(column: Sequence[Counted], start: int, stop: int) -> bool:
    """True where the value at `stop` steps on as those from `start` do."""
    one, other = column[stop - 1], column[stop]
    if one.words != other.words or len(one.numbers) != len(other.numbers):
        return False
    if stop - start < 2:
        return True
    return _steps(column[start].numbers, column[start + 1].numbers) == _steps(one.numbers, other.numbers)


def _steps(one: tuple[int, ...], other: tuple[int, ...]) -> tuple[int, ...]:
    return tuple(b - a for a, b in zip(one, other, strict=True))


LONGEST_CYCLE = 12


def cycles(columns: Sequence[Sequence[Counted]], fewest: int) -> Iterator[int]:
    """After how many copies the numbers begin anew, or all by so much more: `A1`, `A2`, `B1`, `B2`, `C1`, `C2` after
    two, and so do 0, 5, 100, 105, 200, 205. There are `fewest` such groups at least."""
    count = len(columns[0]) if columns else 0
    for size in range(2, min(count // fewest, LONGEST_CYCLE) + 1):
        if count % size:
            continue
        counting = 0
        for column in columns:
            numbers = [value.numbers for value in column]
            if len({len(n) for n in numbers}) > 1:
                break
            moved = {_steps(a, b) for a, b in zip(numbers, numbers[size:], strict=False)}
            if len(moved) > 1:
                break
            steps = {_steps(a, b) for a, b in itertools.pairwise(numbers)}
            counting += len(steps) > 1
        else:
            if counting:
                yield size


FRAME = 3
"""Signs that texts have in common around what differs, quotes aside."""


def in_frames(columns: Sequence[Column], fewest: int) -> Iterator[int]:
    """After how many copies texts begin anew that are alike but for what stands between the same words, each of them in
    words of its own: `"<b>Ama</b>"`, `"<hr>"`, `"<b>Ben</b>"`, `"<hr>"`. There are `fewest` such groups at least."""
    values = columns[0].values if len(columns) == 1 and not columns[0].is_target else ()
    if not all(value[:1] in QUOTES for value in values):
        return
    for size in range(2, min(len(values) // fewest, LONGEST_CYCLE) + 1):
        if len(values) % size:
            continue
        frames = [_frame_of(values[place::size]) for place in range(size)]
        differing = any(len(set(values[place::size])) > 1 for place in range(size))
        if differing and len(set(frames)) == size and all(len("".join(f).strip("\"'")) >= FRAME for f in frames):
            yield size


def _frame_of(values: Sequence[str]) -> tuple[str, str]:
    """What texts begin and end with alike."""
    before = shared_start(values)
    return before, shared_start([value[len(before) :][::-1] for value in values])[::-1]


def alternating(columns: Sequence[Column], fewest: int) -> Iterator[int]:
    """After how many copies some column begins anew with the same values, one after the other different ones, while
    another stays the same for as long: on, off, on, off of one lamp after the other. There are `fewest` such groups at
    least."""
    count = len(columns[0].values) if columns else 0
    for size in range(2, min(count // fewest, LONGEST_CYCLE) + 1):
        if count % size:
            continue
        again = any(
            len(set(c.values[:size])) == size and c.values == c.values[:size] * (count // size) for c in columns
        )
        kept = any(
            all(len(set(c.values[first : first + size])) == 1 for first in range(0, count, size))
            and len(set(c.values[::size])) == count // size
            for c in columns
        )
        if again and kept:
            yield size
