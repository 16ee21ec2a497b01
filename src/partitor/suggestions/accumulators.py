"""Runs whose copies end by moving one number on, and whose last copy does not: the number drives the loop.

`print(tank)`, `tank = tank - 35`, `print(tank)`, `tank = tank - 35`, `print(tank)` after `tank = 410` is
`for tank in range(410, 339, -35)`. The copies must leave the number where the loop does.
"""

from __future__ import annotations

import re

import msgspec

from ..program.names import Role
from ..program.program import ProgramFile
from ..repeats.runs import Run

WHOLE = re.compile(r"-?\d{1,9}\Z")


class Accumulator(msgspec.Struct, frozen=True):
    """`variable` runs from `start` by `step` through `count` turns; `statement` moves it on in the first copy."""

    variable: str
    start: int
    step: int
    count: int
    statement: int


def accumulator_of(run: Run) -> Accumulator | None:
    """The accumulator that drives a run; None where there is none."""
    first = run.table.copies[0]
    if run.rest is None or run.table.columns or len(run.rest.statements) != len(first.statements) - 1:
        return None
    file, statement = first.file, first.statements[-1]
    moved = _moved_on(file, statement)
    if moved is None:
        return None
    variable, step = moved
    names, tree = file.names, file.tree
    others = [i for i in names.within(first.span[0], statement) if tree.text[i] == variable]
    if not others or any(names.role[i] is not Role.READ for i in others):
        return None
    start = _value_before(file, first.statements[0], variable)
    if start is None:
        return None
    return Accumulator(variable, start, step, len(run.table.copies) + 1, statement)


def _moved_on(file: ProgramFile, statement: int) -> tuple[str, int] | None:
    """(variable, step) of `v = v + 3`, `v = v - 3`, `v += 3`, `v -= 3`."""
    tree = file.tree
    left, right = tree.child(statement, "left"), tree.child(statement, "right")
    if left is None or right is None or tree.kind[left] != file.language.name:
        return None
    variable = tree.text[left]
    text = re.sub(r"\s", "", tree.source_of(statement))
    found = re.fullmatch(rf"{re.escape(variable)}(?:={re.escape(variable)}([+-])|([+-])=)(\d{{1,9}})", text)
    if found is None or not int(found.group(3)):
        return None
    sign = found.group(1) or found.group(2)
    return variable, int(sign + found.group(3))


def _value_before(file: ProgramFile, statement: int, variable: str) -> int | None:
    """The whole number that `variable` is given last before `statement`, in the same block."""
    tree, names = file.tree, file.names
    block = file.block_at.get(tree.parent[statement])
    for s in reversed([s for s in (block.statements if block else ()) if s < statement]):
        written = any(tree.text[i] == variable and names.role[i] is not Role.READ for i in names.within(s, tree.end[s]))
        if written:
            left, right = tree.child(s, "left"), tree.child(s, "right")
            if tree.kind[s] != "assignment" or left is None or right is None or tree.text[left] != variable:
                return None
            text = tree.source_of(right).replace(" ", "")
            return int(text) if WHOLE.match(text) else None
    return None
