"""Variables that only a few statements have to do with."""

from __future__ import annotations

from collections.abc import Sequence

from .flow import needed_by
from .names import WRITES, Role
from .program import ProgramFile

SIMPLE = frozenset({Role.READ, Role.WRITE, Role.UPDATE})
"""What a name does that is a plain variable."""


def is_private(file: ProgramFile, statements: Sequence[int], name: str) -> bool:
    """True for a variable that stands nowhere but in the statements, which give it a value before they ask for it."""
    start, stop = min(statements), file.tree.end[max(statements)]
    uses = _standing(file).get(name, [])
    roles = file.names.role
    if not uses or not start <= uses[0] <= uses[-1] < stop or any(roles.get(i) not in SIMPLE for i in uses):
        return False
    if name in file.told_outside or file.is_used_beside(name) or not any(roles[i] in WRITES for i in uses):
        return False
    if file.language.declares and not (file.language.implicit_locals or any(map(file.names.declared_at, uses))):
        return False
    scope = file.procedure_around(start).node
    if any(file.names.scope[i] != scope for i in uses) or name in file.names.outward.get(scope, {}):
        return False
    return name not in needed_by(file, scope, statements)


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
