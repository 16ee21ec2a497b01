"""Copies whose independent statements stand in another order, brought to one form.

Windows of one length that hold the same shapes, in whatever order, are candidates; a sum of mixed
symbols, which does not depend on the order, finds them in linear time for each length (the set hash
of Zobrist, 1970). A window becomes a copy when its statements can be put in the first window's order
by moving assignments past others that they have nothing to do with.
"""

from __future__ import annotations

from collections import Counter
from collections.abc import Iterator, Sequence
from itertools import accumulate

from ..program.names import READS, Role
from ..program.program import ProgramFile
from .slots import Copy

SHORTEST, LONGEST = 3, 14
MOST_WINDOWS = 60
"""Windows of one set of shapes beyond which the text is a monotonous list, not copies."""


Statements = tuple[ProgramFile, Sequence[int], Sequence[int]]
"""A list of statements in a file, and their symbols; negative: unusable."""


def may_move(sequence: Statements) -> int:
    """How many statements of a list are of a kind that may change places."""
    file, statements, symbols = sequence
    kinds, count = file.tree.kind, 0
    for statement, symbol in zip(statements, symbols, strict=True):
        if symbol >= 0 and kinds[statement] in MOVABLE:
            count += 1
    return count


def reordered_copies(sequences: Sequence[Statements]) -> Iterator[list[Copy]]:
    """Groups of at least two copies of which some had to be reordered; each copy's statements stand in
    the order of the first."""
    known: Counter[int] = Counter()
    for *_, symbols in sequences:
        known.update(symbols)
    if not _may_be_reordered(sequences, known):
        return
    sums = [
        (number, start, found)
        for number, (file, statements, symbols) in enumerate(sequences)
        for start, stop in _stretches(symbols, known)
        if (found := _Sums(file, statements[start:stop], symbols[start:stop])).mixed
    ]
    for length in range(SHORTEST, LONGEST + 1):
        groups: dict[int, list[tuple[int, int]]] = {}
        sums = [entry for entry in sums if len(entry[2].mixed) > length]
        for number, first, found in sums:
            for start, value in found.windows(length):
                groups.setdefault(value, []).append((number, first + start))
        for places in groups.values():
            if 2 <= len(places) <= MOST_WINDOWS and not _stand_alike(sequences, places, length):
                copies = in_one_order(sequences, places, length)
                if copies:
                    yield copies


def _may_be_reordered(sequences: Sequence[Statements], known: Counter[int]) -> bool:
    """True where two statements that might move stand in one order here, and near each other in the other one there:
    copies in another order cannot be without such."""
    seen: set[tuple[int, int]] = set()
    for file, statements, symbols in sequences:
        kinds = file.tree.kind
        places = enumerate(zip(statements, symbols, strict=True))
        movable = [(k, x) for k, (s, x) in places if x >= 0 and known[x] > 1 and kinds[s] in MOVABLE]
        for k, (place, symbol) in enumerate(movable):
            near = k + 1
            while near < len(movable) and movable[near][0] - place < LONGEST:
                other = movable[near][1]
                if (other, symbol) in seen:
                    return True
                if other != symbol:
                    seen.add((symbol, other))
                near += 1
    return False


def _stand_alike(
    sequences: Sequence[Statements],
    places: Sequence[tuple[int, int]],
    length: int,
) -> bool:
    """True where all windows hold their shapes in one order as it is."""
    number, start = places[0]
    model = sequences[number][2][start : start + length]
    return all(sequences[n][2][s : s + length] == model for n, s in places[1:])


def _stretches(symbols: Sequence[int], known: Counter[int]) -> Iterator[tuple[int, int]]:
    """Where statements in a row each have their like somewhere in the program: from one to before another."""
    start = 0
    for position, symbol in enumerate((*symbols, -1)):
        if symbol < 0 or known[symbol] < 2:
            if position - start >= SHORTEST:
                yield start, position
            start = position + 1


class _Sums:
    """Running sums over a stretch of statements: of mixed symbols, and of statements that might move."""

    def __init__(self, file: ProgramFile, statements: Sequence[int], symbols: Sequence[int]) -> None:
        kinds = file.tree.kind
        movable = [kinds[s] in MOVABLE for s in statements]
        self.movable = list(accumulate(movable, initial=0))
        self.mixed = list(accumulate(map(_mixed, symbols), initial=0)) if self.movable[-1] > 1 else []

    def windows(self, length: int) -> Iterator[tuple[int, int]]:
        """(start, hash of the multiset) of every window in which two might move."""
        mixed, movable = self.mixed, self.movable
        for start in range(len(mixed) - length):
            stop = start + length
            if movable[stop] - movable[start] > 1:
                yield start, (mixed[stop] - mixed[start]) & MASK


MOVABLE = frozenset({"assignment", "declaration"})
MASK = (1 << 64) - 1


def _mixed(symbol: int) -> int:
    """A symbol's bits well mixed (the finalizer of splitmix64, Steele et al. 2014)."""
    value = (symbol + 1) * 0x9E3779B97F4A7C15 & MASK
    value = (value ^ value >> 29) * 0xBF58476D1CE4E5B9 & MASK
    return value ^ value >> 32


def in_one_order(
    sequences: Sequence[Statements],
    places: Sequence[tuple[int, int]],
    length: int,
) -> list[Copy] | None:
    """The windows that do not overlap as copies in the first one's order; None where all stand so already
    or fewer than two are left."""
    number, start = places[0]
    model = list(sequences[number][2][start : start + length])
    copies: list[Copy] = []
    moved = False
    last: dict[int, int] = {}
    for number, start in places:
        file, statements, symbols = sequences[number]
        if start < last.get(number, 0):
            continue
        order = _order_like(model, list(symbols[start : start + length]))
        if order is None:
            continue
        window = [statements[start + k] for k in order]
        inverted = [(a, b) for i, b in enumerate(order) for a in order[i + 1 :] if a < b]
        if not all(may_pass(file, statements[start + a], statements[start + b]) for a, b in inverted):
            continue
        moved = moved or bool(inverted)
        copies.append(Copy(file, tuple(window)))
        last[number] = start + length
    return copies if moved and len(copies) > 1 else None


def _order_like(model: Sequence[int], symbols: Sequence[int]) -> list[int] | None:
    """Positions of `symbols` in the order of `model`; equal symbols keep their order."""
    waiting: dict[int, list[int]] = {}
    for position, symbol in enumerate(symbols):
        waiting.setdefault(symbol, []).append(position)
    order = []
    for symbol in model:
        left = waiting.get(symbol)
        if not left:
            return None
        order.append(left.pop(0))
    return order


def may_pass(file: ProgramFile, first: int, second: int) -> bool:
    """True where two statements are assignments without effects that have nothing to do with each other."""
    one, other = _assignment(file, first), _assignment(file, second)
    if one is None or other is None:
        return False
    return not (one[1] & (other[0] | other[1]) or other[1] & one[0])


def _assignment(file: ProgramFile, statement: int) -> tuple[set[str], set[str]] | None:
    """(names read, names written) of a plain assignment of a value without effects; else None."""
    tree, names, language = file.tree, file.names, file.language
    holder = statement
    if tree.kind[statement] == "declaration":
        declarators = [c for c in tree.children(statement) if tree.kind[c] == "declarator"]
        holder = declarators[0] if len(declarators) == 1 else statement
    left, right = tree.child(holder, "left"), tree.child(holder, "right")
    if (
        tree.kind[holder] not in {"assignment", "declarator"}
        or left is None
        or right is None
        or tree.kind[left] != language.name
    ):
        return None
    for node in range(right, tree.end[right]):
        if tree.kind[node] == language.call and file.called_name(node) not in language.pure_calls:
            return None
    reads = {tree.text[i] for i in names.within(right, tree.end[right]) if names.role[i] in READS}
    writes = {tree.text[i] for i in names.within(statement, tree.end[statement]) if names.role[i] is Role.WRITE}
    return reads, writes
