"""Which suggestions a program gets, each proved on its own, and all of them in one chain.

The order is a practitioner's: runs become loops, blocks functions, twins one function, and what is
still too long is cut into steps. Each link of the chain is read afresh and proved against the one
before it.
"""

from __future__ import annotations

from collections.abc import Callable, Iterable, Iterator
from functools import partial

import msgspec

from ..deadline import Deadline
from ..errors import TooCostly
from ..procedures.sizes import oversized
from ..program.program import Program, ProgramFile
from ..records import Step
from ..repeats.find import Repeats, find_repeats
from ..repeats.limits import Limits
from ..repeats.slots import Table
from .attempts import LEAST_SAVING, Proved, attempt
from .candidate import Candidate
from .cutting import Cutting, next_cut
from .folds import Folds
from .makings import block_candidate, makings
from .steps import NO_COPIES, unfolded

LONGEST_CHAIN = 40
LONGEST_READ = 600
"""Lines of a program in which a single line less is worth looking through all of it once more."""


def proved_suggestions(file: ProgramFile, limits: Limits) -> list[Proved]:
    """Every loop, function and merge for a program of one file that the proof accepts, each on its own."""
    repeats = find_repeats(Program([file]), limits, frozenset())
    results = [attempt(*making) for making in makings(repeats)]
    return [r for r in results if isinstance(r, Proved)]


class Worked(msgspec.Struct, frozen=True, eq=False):
    """The chain: the program after its last link, and what each link was."""

    program: Program
    steps: tuple[Step, ...]
    complete: bool


def work_through(
    program: Program,
    limits: Limits,
    handed_out: frozenset[tuple[str, int]],
    deadline: Deadline,
    repeats: Repeats | None = None,
    asked: Callable[[Program], Iterator[Callable[[], Candidate]]] | None = None,
) -> Worked:
    """Apply the best suggestion, read afresh, choose again, until nothing is worth it. `repeats` are
    those of the program as it is, where they are known already; `asked` gives the candidates for functions that an
    assignment requires: they take the place of other functions of the same copies, and come before the steps."""
    steps: list[Step] = []
    complete = True
    folding = True
    cutting = Cutting(set(), set(), NO_COPIES)
    folds = Folds(deadline)
    near = repeats is not None and bool(repeats.near_twins)
    try:
        for _ in range(LONGEST_CHAIN):
            deadline.check()
            link = None
            if folding:
                found = repeats or find_repeats(program, limits, handed_out, near)
                link = folds.best(found) or _small_fold(found, program, limits)
                repeats = None
            if link is not None and asked is not None:
                link = _asked_for(link, asked(program)) or link
            elif asked is not None:
                link = next((p for p in map(attempt, asked(program)) if isinstance(p, Proved)), None)
                folding = folding or link is not None
                asked = asked if link is not None else None
            if link is None and folding:
                tried = [(table, attempt(make, table)) for make, table in makings(found) if isinstance(table, Table)]
                told = (table for table, result in tried if not isinstance(result, Proved))
                cutting = Cutting(set(), set(), unfolded(told))
            if link is None:
                folding = False
                cut = next_cut(program, limits, deadline, cutting)
                if cut is None:
                    break
                lines = lines_of(program)
                for step, more in cut.steps:
                    lines += more
                    steps.append(Step(step.kind, step.title, lines))
                program = replaced(program, [(cut.file, cut.after)])
                continue
            program = replaced(program, link.changed)
            steps.append(Step(link.candidate.kind, link.candidate.title, lines_of(program)))
            handed_out = frozenset()
    except TooCostly:
        complete = False
    return Worked(program, tuple(steps), complete)


def lines_of(program: Program) -> int:
    """Lines of code of all files."""
    return sum(len(f.code_lines) for f in program.files)


def replaced(program: Program, changed: Iterable[tuple[ProgramFile | None, ProgramFile]]) -> Program:
    """The program with some files changed, or made."""
    new = {id(old): after for old, after in changed if old is not None}
    made = [after for old, after in changed if old is None]
    return Program([*(new.get(id(f), f) for f in program.files), *made])


def _asked_for(fold: Proved, asked: Iterator[Callable[[], Candidate]]) -> Proved | None:
    """The function that an assignment asks for, made of the copies that a fold would make another one of."""
    if fold.candidate.kind != "function" or fold.candidate.table is None:
        return None
    copies = fold.candidate.table.copies
    for result in map(attempt, asked):
        table = result.candidate.table if isinstance(result, Proved) else None
        if isinstance(result, Proved) and table is not None and len(table.copies) >= len(copies):
            same = all(any(one.lies_in(other) for other in copies) for one in table.copies)
            if same and result.saved_lines + LEAST_SAVING >= fold.saved_lines:
                return result
    return None


def _small_fold(repeats: Repeats, program: Program, limits: Limits) -> Proved | None:
    """A function for a block that saves a line only, where it is a step of what is too long, too."""
    if lines_of(program) > LONGEST_READ:
        return None
    too_long = {(id(f), p.node) for f in program.files for p, _ in oversized(f, limits.procedure_statements)}
    for block in repeats.blocks:
        inside = {(id(c.file), c.file.procedure_around(c.first).node) for c in block.table.copies}
        if inside & too_long:
            result = attempt(partial(block_candidate, block), block.table)
            if isinstance(result, Proved) and result.saved_lines > 0:
                return result
    return None
