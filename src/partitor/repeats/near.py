"""Copies that are alike but for a line or two: one has a statement more, or one that was changed.

Statements are aligned by their shapes (the longest common subsequence; Needleman and Wunsch 1970 with
no price for a gap, and a bound on the gaps afterwards). A pair is looked at only where it shares most
of its shapes, whatever their order, so that unlike places cost nothing but a count.
"""

from __future__ import annotations

import itertools
from collections import Counter
from collections.abc import Callable, Hashable, Iterable, Iterator, Sequence
from enum import Enum

from ..frozen import Frozen, Single
from ..program.program import Procedure, ProgramFile
from .slots import Copy

LEAST_ALIKE = 4
"""Statements, those in branches and loops included, that two near copies must share."""
MOST_UNLIKE = 3
ALIKE_SHARE = 0.72
UNLIKE_SHARE = 0.6
"""How many may be unlike, in both, for each that is alike, where most of these are the very same."""
MANY_ALIKE = 8
"""Statements alike from which two places are near copies although they ask for something else."""
OPERATORS_SHARE = 0.55
"""How much has to be alike where the rest differs in its operators only."""
BUILT = 6
"""Statements of functions that are the same line by line, but for how something is worked out."""
FEWEST_SAME, SAME_SHARE = 6, 0.45
"""Lines of functions that are the same word for word, and their share, from which they have something in common."""
LONGEST = 60
MOST_PLACES = 120

Symbol = Callable[[ProgramFile, int], int]


class Likeness(Enum):
    """What near copies have in common."""

    MOST_LINES = "most lines"
    DIRECTIONS = "all but the direction in which each moves"
    ALL_BUT_TESTS = "all but what they ask"
    FRAME = "how they begin and how they end"
    BEGINNING = "how they begin"
    PARALLEL = "the variables that stand in each"
    BUILT = "what each line does, and to what"
    SAME_LINES = "many lines, word for word"
    ONE_LINE = "all but what one line works out of each part"


class NearTwins(Single, frozen=True, eq=False):
    """Procedures that are alike but for `unlike` statements, changed, missing or more."""

    procedures: tuple[tuple[ProgramFile, Procedure], ...]
    alike: int
    unlike: int
    likeness: Likeness = Likeness.MOST_LINES

    def holding(self, copy: Copy) -> int | None:
        """Which of the procedures the copy stands in; None for none."""
        for k, (file, procedure) in enumerate(self.procedures):
            if copy.file is file and procedure.node < copy.first < file.tree.end[procedure.node]:
                return k
        return None


class NearBlock(Single, frozen=True, eq=False):
    """Stretches of statements that are alike but for `unlike` statements, changed, missing or more."""

    copies: tuple[Copy, ...]
    alike: int
    unlike: int
    likeness: Likeness = Likeness.MOST_LINES
    names: tuple[str, ...] = ()
    """The variables, where these are what they have in common."""
    stops: tuple[int, ...] = ()
    """Where what they share ends, in nodes, where that is not all of them."""

    @property
    def spans(self) -> list[tuple[int, int]]:
        """The node ranges of what they share."""
        if not self.stops:
            return [c.span for c in self.copies]
        return [(c.first, stop) for c, stop in zip(self.copies, self.stops, strict=True)]

    @property
    def last_lines(self) -> list[int]:
        """The last line of what they share, in each copy."""
        stops = self.stops or (None,) * len(self.copies)
        pairs = zip(self.copies, stops, strict=True)
        return [c.end_line if stop is None else c.file.tree.end_line(stop - 1) for c, stop in pairs]


class _Line(Frozen, frozen=True):
    """One statement by itself: its place in the nesting with what it looks like, and where it stands."""

    shape: tuple[int, Hashable]
    file: ProgramFile
    node: int

    @property
    def head(self) -> tuple[str, ...]:
        """The statement as far as its first block, token for token."""
        stop = self.file.first_block(self.node)
        return tuple(self.file.tree.text[self.node : self.file.tree.end[self.node] if stop is None else stop])


def near_twins(
    functions: Sequence[tuple[ProgramFile, Procedure]], shape: Symbol, worded: Symbol, blunt: Symbol
) -> Iterator[NearTwins]:
    """Pairs of functions of which most lines are the same, or all by a `blunt` symbol that does not tell operators
    apart; grouped where one is like several."""
    bodies = [(file, file.statements_of(procedure)) for file, procedure in functions]
    lines = _worth_comparing(bodies, shape)
    groups: list[tuple[set[int], int, int, Likeness]] = []
    if len(functions) > MOST_PLACES:
        return
    blunted = _blunted(bodies, lines, blunt)
    heads = [_heads(found) for found in lines]
    for a, b in itertools.combinations([k for k, found in enumerate(lines) if found], 2):
        found = _compared(lines[a], lines[b], worded)
        built = found is None and _are_built_alike(lines[a], lines[b])
        if found is None and (built or blunted[a] == blunted[b]):
            found = _compared(lines[a], lines[b], worded, OPERATORS_SHARE)
        likeness = Likeness.BUILT if built else Likeness.MOST_LINES
        if found is None and _are_alike_but_for_a_line(functions[a], lines[a], functions[b], lines[b]):
            found, likeness = (len(lines[a]) - 1, 1), Likeness.ONE_LINE
        if found is None:
            found, likeness = _with_same_lines(heads[a], heads[b]), Likeness.SAME_LINES
        if found is None:
            continue
        alike, unlike = found
        known = next((g for g in groups if a in g[0] or b in g[0]), None)
        if known is None:
            groups.append(({a, b}, alike, unlike, likeness))
        elif likeness is not Likeness.SAME_LINES or known[3] is likeness:
            known[0].update((a, b))
    for members, alike, unlike, likeness in groups:
        yield NearTwins(tuple(functions[k] for k in sorted(members)), alike, unlike, likeness)


def near_blocks(
    places: Sequence[tuple[ProgramFile, Sequence[int]]], shape: Symbol, worded: Symbol, blunt: Symbol
) -> Iterator[NearBlock]:
    """Pairs of statement lists, in branches, handlers or functions, that hold near copies, or are alike altogether by a
    `blunt` symbol."""
    if len(places) > MOST_PLACES:
        return
    lines = _worth_comparing(places, shape)
    blunted = _blunted(places, lines, blunt)
    heads = [_heads(found) for found in lines]
    copies = [Copy(file, tuple(statements)) for file, statements in places]
    taken: set[int] = set()
    for a, b in itertools.combinations([k for k, found in enumerate(lines) if found], 2):
        if a in taken or b in taken or copies[a].overlaps(copies[b]):
            continue
        found = _compared(lines[a], lines[b], worded)
        likeness = Likeness.MOST_LINES
        if found is None and blunted[a] == blunted[b]:
            found = _compared(lines[a], lines[b], worded, OPERATORS_SHARE)
        if found is None:
            found, likeness = _with_same_lines(heads[a], heads[b]), Likeness.SAME_LINES
        if found is not None:
            # What stands inside these is like what stands inside the other one, of course.
            taken |= {k for k, c in enumerate(copies) if c.overlaps(copies[a]) or c.overlaps(copies[b])}
            yield NearBlock((copies[a], copies[b]), *found, likeness)


def _blunted(
    places: Sequence[tuple[ProgramFile, Sequence[int]]], lines: Sequence[list[_Line]], blunt: Symbol
) -> list[list[int]]:
    """The `blunt` symbols of the places that are compared at all."""
    return [
        [blunt(file, s) for s in statements] if found else []
        for (file, statements), found in zip(places, lines, strict=True)
    ]


def near_stretches(
    pairs: Iterable[tuple[Copy, Copy]], shape: Symbol, worded: Symbol, free: Callable[[Copy], bool]
) -> Iterator[NearBlock]:
    """Those pairs of stretches of statements that are near copies, the longest first, and of which none is part of
    anything else; `free`: a stretch that is part of nothing yet."""
    taken: list[Copy] = []
    for one, other in sorted(pairs, key=lambda pair: -pair[0].file.count_within(*pair[0].span)):
        if not (free(one) and free(other)) or any(a.overlaps(b) for a in (one, other) for b in taken):
            continue
        found = nearly_alike(one, other, shape, worded)
        if found is not None:
            taken += [one, other]
            yield NearBlock((one, other), *found)


def near_rows(groups: Iterable[Sequence[Copy]], shape: Symbol, free: Callable[[Copy], bool]) -> Iterator[NearBlock]:
    """Those groups of stretches, alike but for their operators, of which more than half of the statements are alike
    altogether; `free`: a stretch that is part of nothing yet."""
    taken: list[Copy] = []
    for copies in groups:
        if not all(map(free, copies)) or any(c.overlaps(other) for c in copies for other in taken):
            continue
        lines = [_lines_of(c.file, c.statements, shape) for c in copies]
        if len({len(found) for found in lines}) > 1 or not lines[0]:
            continue
        alike = sum(len({line.shape for line in row}) == 1 for row in zip(*lines, strict=True))
        if 2 * alike > len(lines[0]):
            taken += copies
            yield NearBlock(tuple(copies), alike, len(lines[0]) - alike)


def nearly_alike(one: Copy, other: Copy, shape: Symbol, worded: Symbol) -> tuple[int, int] | None:
    """(statements alike, statements unlike) of stretches that are near copies; None where they are none."""
    lines = [_lines_of(copy.file, copy.statements, shape) for copy in (one, other)]
    found = _compared(lines[0], lines[1], worded, loose=True)
    if found is not None or len(lines[0]) == len(lines[1]):
        return found
    # What stands under one test more is deeper, and the same.
    flat = [[_Line((0, line.shape[1]), line.file, line.node) for line in side] for side in lines]
    return _compared(flat[0], flat[1], worded, loose=True)


def _worth_comparing(places: Sequence[tuple[ProgramFile, Sequence[int]]], shape: Symbol) -> list[list[_Line]]:
    """The lines of each place; [] for one that has no other of about its size."""
    sizes = [
        file.count_within(statements[0], file.tree.end[statements[-1]]) if statements else 0
        for file, statements in places
    ]
    found = []
    for k, (file, statements) in enumerate(places):
        partners = any(abs(size - sizes[k]) <= MOST_UNLIKE for j, size in enumerate(sizes) if j != k)
        compared = LEAST_ALIKE <= sizes[k] <= LONGEST and partners
        found.append(_lines_of(file, statements, shape) if compared else [])
    return found


def _lines_of(file: ProgramFile, statements: Sequence[int], shape: Symbol) -> list[_Line]:
    """The statements and those inside them, in order, each by itself."""
    if not statements:
        return []
    inside = file.statements_within(statements[0], file.tree.end[statements[-1]])
    if len(inside) > LONGEST:
        return []
    depths = file.depths
    top = depths[statements[0]]
    return [_Line((depths[s] - top, shape(file, s)), file, s) for s in inside]


def _compared(
    one: list[_Line], other: list[_Line], worded: Symbol, share: float = ALIKE_SHARE, loose: bool = False
) -> tuple[int, int] | None:
    """(statements alike, statements unlike) of near copies; None where they are none, or alike altogether. `loose`:
    nothing but their likeness tells where they begin and end."""
    longer, shorter = max(len(one), len(other)), min(len(one), len(other))
    if shorter < LEAST_ALIKE or longer - shorter > MOST_UNLIKE:
        return None
    shapes, others = [line.shape for line in one], [line.shape for line in other]
    fewest = LEAST_ALIKE - (share == OPERATORS_SHARE and shorter > LEAST_ALIKE)
    least = max(fewest, share * longer)
    known = set(others)
    if sum(shape in known for shape in shapes) < least or sum((Counter(shapes) & Counter(others)).values()) < least:
        return None
    pairs = _aligned(one, other)
    unlike = len(one) + len(other) - 2 * len(pairs)
    said_alike = sum(worded(a.file, a.node) == worded(b.file, b.node) for a, b in pairs)
    enough = len(pairs) >= least and 2 * said_alike >= len(pairs) + 1
    most = MOST_UNLIKE + 1 if share == ALIKE_SHARE else 2 * MOST_UNLIKE
    if share == ALIKE_SHARE and unlike > most and 2 * sum(_says_the_same(a, b) for a, b in pairs) > len(pairs):
        most = int(UNLIKE_SHARE * len(pairs))
    if not enough or not 0 < unlike <= most:
        return None
    if loose and len(pairs) < MANY_ALIKE and _tests_left(one, pairs, 0) != _tests_left(other, pairs, 1):
        mostly = len(pairs) >= FEWEST_SAME and 2 * sum(_says_the_same(a, b) for a, b in pairs) > len(pairs)
        return (len(pairs), longer - len(pairs)) if mostly else None
    return len(pairs), longer - len(pairs)


def _are_built_alike(one: list[_Line], other: list[_Line]) -> bool:
    """True for functions of the same statements, line by line: giving a value to the same, calling the same."""
    return len(one) == len(other) >= BUILT and all(
        a.shape == b.shape or _does(a) == _does(b) for a, b in zip(one, other, strict=True)
    )


def _are_alike_but_for_a_line(
    function: tuple[ProgramFile, Procedure],
    one: list[_Line],
    another: tuple[ProgramFile, Procedure],
    other: list[_Line],
) -> bool:
    """True for two functions that call themselves, of the same lines but for one that asks or works out something else,
    where a function can be given to another as a matter of course."""
    if not function[0].language.values_everywhere or not len(one) == len(other) >= LEAST_ALIKE:
        return False
    if len(function[1].parameters) != len(another[1].parameters):
        return False
    unlike = [(a, b) for a, b in zip(one, other, strict=True) if a.shape != b.shape]
    if len(unlike) != 1 or any(a.shape[0] != b.shape[0] or _kind(a) != _kind(b) for a, b in unlike):
        return False
    return all(
        p.name in file.tree.text[lines[0].node : file.tree.end[lines[0].node]]
        for (file, p), lines in ((function, one), (another, other))
    )


def _kind(line: _Line) -> str:
    return line.file.tree.kind[line.node]


def _does(line: _Line) -> tuple[int, str, str]:
    """How deep a statement stands, what kind it is of, and what it calls or changes."""
    tree, node = line.file.tree, line.node
    changed = tree.child(node, "left")
    return line.shape[0], tree.kind[node], line.file.called_name(node) or (tree.source_of(changed) if changed else "")


def _heads(lines: list[_Line]) -> list[_Line]:
    """The lines with what they say, word for word, in place of their shapes; [] for too few."""
    return [_Line((k.shape[0], k.head), k.file, k.node) for k in lines] if len(lines) >= FEWEST_SAME else []


def _with_same_lines(one: list[_Line], other: list[_Line]) -> tuple[int, int] | None:
    """(statements that are the same word for word, others) where that is much of both; None where it is not."""
    longer = max(len(one), len(other))
    least = max(FEWEST_SAME, SAME_SHARE * longer)
    said = {line.shape for line in other}
    if sum(line.shape in said for line in one) < least:
        return None
    same = len(_aligned(one, other))
    return (same, longer - same) if same >= least else None


def _says_the_same(one: _Line, other: _Line) -> bool:
    """True for two statements that are the same, token for token, as far as their blocks."""
    return one.head == other.head


def _compared_kinds(line: _Line) -> tuple[str, ...]:
    """Of a test on which others depend, the kinds of what it compares, without its operators; () of anything else."""
    file, statement, tree = line.file, line.node, line.file.tree
    if tree.kind[statement] not in file.language.conditionals:
        return ()
    block = next((c for c in tree.children(statement) if tree.kind[c] in file.language.blocks), tree.end[statement])
    return tuple(tree.kind[n] for n in range(statement, block) if tree.kind[n] != tree.text[n])


def _tests_left(lines: list[_Line], pairs: list[tuple[_Line, _Line]], side: int) -> list[tuple[str, ...]]:
    """The tests among the lines that have no partner: what stands under another test is done for another reason."""
    partners = {pair[side].node for pair in pairs}
    return [asked for line in lines if line.node not in partners and (asked := _compared_kinds(line))]


def _aligned(one: list[_Line], other: list[_Line]) -> list[tuple[_Line, _Line]]:
    """A longest common subsequence of shapes, as pairs."""
    n, m = len(one), len(other)
    best = [[0] * (m + 1) for _ in range(n + 1)]
    for i in range(n - 1, -1, -1):
        for j in range(m - 1, -1, -1):
            alike = one[i].shape == other[j].shape
            best[i][j] = 1 + best[i + 1][j + 1] if alike else max(best[i + 1][j], best[i][j + 1])
    pairs, i, j = [], 0, 0
    while i < n and j < m:
        if one[i].shape == other[j].shape:
            pairs.append((one[i], other[j]))
            i, j = i + 1, j + 1
        elif best[i + 1][j] >= best[i][j + 1]:
            i += 1
        else:
            j += 1
    return pairs
