"""A run that something interrupts: a loop for each part of it, one link after the other."""

from __future__ import annotations

from collections.abc import Callable, Sequence

import msgspec

from ..errors import CannotWrite
from ..program.program import ProgramFile
from ..repeats.judge import code_lines
from ..repeats.runs import Run, side_by_side
from ..repeats.slots import Copy, compare
from .candidate import Candidate
from .edits import apply_edits, rewritten


def with_further_loops(first: Candidate, run: Run, make: Callable[[Run], Candidate]) -> Candidate:
    """The loop for a run, and further ones for the copies behind its interruption, where they save a line."""
    candidate = first
    copies = len(run.table.copies)
    for part in side_by_side(run.more):
        if sum(map(code_lines, part)) - code_lines(part[0]) - 1 < 1:
            continue
        after = rewritten(candidate.file, apply_edits(candidate.file, candidate.edits))
        table = compare(_moved(part, run.table.copies[0].file, after))
        if table is None:
            raise CannotWrite("the copies behind the interruption are not alike")
        copies += len(part)
        further = make(Run(table))
        candidate = msgspec.structs.replace(further, via=candidate, table=first.table, slots=first.slots)
    if candidate is first:
        return first
    title = f"{first.title.partition(' in place')[0]} for each part of the row, in place of {copies} copies"
    return msgspec.structs.replace(candidate, title=title)


def _moved(copies: Sequence[Copy], before: ProgramFile, after: ProgramFile) -> list[Copy]:
    """Copies as they stand in the file after what is above them was changed: the same lines, counted from the end."""
    moved = len(after.lines) - len(before.lines)
    at = {after.tree.start_line(s): s for block in reversed(after.blocks) for s in block.statements}
    result = []
    for copy in copies:
        found = tuple(at.get(before.tree.start_line(s) + moved, -1) for s in copy.statements)
        for old, new in zip(copy.statements, found, strict=True):
            if new < 0 or before.tree.source_of(old) != after.tree.source_of(new):
                raise CannotWrite("the copies behind the interruption are not where they were")
        result.append(Copy(after, found))
    return result
