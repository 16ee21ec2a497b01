"""Places that begin alike: the same is asked for, the same is checked, and refused in the same words; only what is done
otherwise is each place's own.

Of a test with further branches the form is what it asks and its first branch. Where the same forms stand again, a place
goes from the first statement that is alike to the end of that branch.
"""

from __future__ import annotations

from collections import Counter
from collections.abc import Callable, Iterator, Sequence

from ..program.program import ProgramFile
from ..program.shapes import ShapeTable
from .asking import FIRST_FORM, Form, Span, Statements
from .near import Likeness, NearBlock
from .seeds import stretches
from .slots import Copy

ENOUGH = {2: 6, 3: 4}
"""Statements that so many places, or more, have to share."""
MOST_STATEMENTS = 400
"""Statements in the lists with such places; in more it is data."""


def alike_at_first(
    lists: Sequence[Statements], shapes: ShapeTable, free: Callable[[ProgramFile, Span], bool]
) -> Iterator[NearBlock]:
    """Such places; `free`: a node range that is part of nothing yet."""
    parting = [(k, _size(file, s)) for k, (file, statements, _) in enumerate(lists) for s in _parting(file, statements)]
    # What begins alike asks as much.
    sizes = Counter(size for _, size in parting)
    asking = [lists[k] for k in dict.fromkeys(k for k, size in parting if sizes[size] >= min(ENOUGH))]
    if not asking or sum(len(s) for _, s, _ in asking) > MOST_STATEMENTS:
        return
    known: dict[Form, int] = {}
    forms = []
    for file, statements, symbols in asking:
        parting_here = set(_parting(file, statements))
        forms.append(
            [
                known.setdefault(_form(file, shapes, s), FIRST_FORM + len(known)) if s in parting_here and x >= 0 else x
                for s, x in zip(statements, symbols, strict=True)
            ]
        )
    taken: list[tuple[ProgramFile, Span]] = []
    for starts, length in stretches([symbols for *_, symbols in asking], forms):
        shared = next(k for k in range(length) if len({asking[q][2][i + k] for q, i in starts}) > 1)
        if not shared:
            continue
        found = _places(asking, starts, shared)
        enough = ENOUGH[min(len(starts), max(ENOUGH))]
        held = [(c.file, span) for c, span in zip(found.copies, found.spans, strict=True)]
        apart = not any(f is file and a < stop and start < b for f, (a, b) in taken for file, (start, stop) in held)
        if found.alike >= enough and apart and all(free(*place) for place in held):
            taken += held
            yield found


def _parting(file: ProgramFile, statements: Sequence[int]) -> list[int]:
    """Those that are tests with further branches."""
    tree, clauses, conditionals = file.tree, file.language.clauses, file.language.conditionals
    tests = [s for s in statements if tree.kind[s] in conditionals]
    parting = [s for s in tests if any(tree.kind[child] in clauses for child in tree.children(s))]
    return [s for s in parting if _first_branch(file, s)]


def _first_branch(file: ProgramFile, statement: int) -> int:
    """The block of a test's first branch; 0 where it has none."""
    return file.first_block(statement) or 0


def _size(file: ProgramFile, statement: int) -> int:
    """How many nodes a test and its first branch have."""
    return file.tree.end[_first_branch(file, statement)] - statement


def _form(file: ProgramFile, shapes: ShapeTable, statement: int) -> Form:
    """What a test asks, and what is done in its first branch."""
    tree, block = file.tree, file.block_at[_first_branch(file, statement)]
    test = tree.child(statement, "condition")
    asked = shapes.worded(tree, test) if test is not None else statement
    return tree.kind[statement], asked, *(shapes.worded(tree, s) for s in block.statements)


def _places(asking: Sequence[Statements], starts: Sequence[tuple[int, int]], shared: int) -> NearBlock:
    """The places with so many statements before the one in which they part."""
    copies = [Copy(asking[q][0], tuple(asking[q][1][i : i + shared + 1])) for q, i in starts]
    stops = [c.file.tree.end[_first_branch(c.file, c.last)] for c in copies]
    alike = copies[0].file.count_within(copies[0].first, stops[0])
    return NearBlock(tuple(copies), alike, 0, Likeness.BEGINNING, stops=tuple(stops))
