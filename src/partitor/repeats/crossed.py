"""Copies whose variables change their parts: `for c in …: sum += grid[r][c]` beside `for r in …: sum += grid[r][c]`.

All that differs is the loop's variable, and yet one goes along a row and the other down a column: they look alike, and
no function does both.
"""

from __future__ import annotations

from ..program.names import Role
from ..program.program import ProgramFile
from .slots import Table


def is_crossed(table: Table) -> bool:
    """True where a loop's variable is called otherwise in the copies, and its first name stands inside the loop in all
    of them: there it is another variable."""
    first = table.copies[0]
    file, tree, names = first.file, first.file.tree, first.file.names
    slots = [spot.nodes[0] for column in table.all_columns for spot in column.spots]
    for column in table.columns:
        if not (column.is_name and column.is_target):
            continue
        for spot in column.spots:
            loop = _loop_of(file, spot.nodes[0])
            if loop is None:
                continue
            inside = [i for i in names.within(loop, tree.end[loop]) if tree.text[i] == column.values[0]]
            if any(not any(s <= i < tree.end[s] for s in slots) and names.role[i] < Role.MEMBER for i in inside):
                return True
    return False


def _loop_of(file: ProgramFile, node: int) -> int | None:
    """The loop that gives the variable at `node` its values; None for any other variable."""
    tree, language = file.tree, file.language
    if file.names.role[node] not in (Role.WRITE, Role.UPDATE):
        return None
    child = node
    for parent in file.parents(node):
        if tree.kind[parent] in language.loops:
            return parent if tree.field[child] in {"left", "initializer"} else None
        if tree.kind[parent] in language.blocks:
            return None
        child = parent
    return None
