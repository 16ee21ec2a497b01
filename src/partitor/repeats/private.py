"""Variables that only one copy has to do with: in a loop each turn can call its own by the same name."""

from __future__ import annotations

from ..program.flow import needed_by
from ..program.names import WRITES, Role
from ..program.program import ProgramFile
from .columns import Column
from .slots import Copy, Table

SIMPLE = frozenset({Role.READ, Role.WRITE, Role.UPDATE})


def are_private(table: Table, column: Column) -> bool:
    """True for variables of which each belongs to its copy alone."""
    named = column.is_target and column.is_name and len(set(column.values)) == len(column.values)
    return named and all(is_private(c, name) for c, name in zip(table.copies, column.values, strict=True))


def is_private(copy: Copy, name: str) -> bool:
    """True for a variable that stands nowhere but in the copy, which gives it a value before it asks for it."""
    file = copy.file
    start, stop = copy.span
    uses = _standing(file).get(name, [])
    roles = file.names.role
    if not uses or not start <= uses[0] <= uses[-1] < stop or any(roles.get(i) not in SIMPLE for i in uses):
        return False
    if name in file.told_outside or file.is_used_beside(name) or not any(roles[i] in WRITES for i in uses):
        return False
    if file.language.declares and not (file.language.implicit_locals or any(map(file.names.declared_at, uses))):
        return False
    scope = file.procedure_around(copy.first).node
    if any(file.names.scope[i] != scope for i in uses) or name in file.names.outward.get(scope, {}):
        return False
    return name not in needed_by(file, scope, copy.statements)


def _standing(file: ProgramFile) -> dict[str, list[int]]:
    """Where each name stands in the file."""
    known = file.derived.get("standing names")
    if isinstance(known, dict):
        return known
    found: dict[str, list[int]] = {}
    for i in file.names.nodes:
        found.setdefault(file.tree.text[i], []).append(i)
    file.derived["standing names"] = found
    return found
