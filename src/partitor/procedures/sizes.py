"""How long procedures are."""

from __future__ import annotations

from collections import Counter

from ..program.program import Procedure, ProgramFile


def own_statements(file: ProgramFile, procedure: Procedure) -> int:
    """Statements of a procedure; those of functions defined inside it are theirs."""
    known = file.derived.get("own statements")
    if not isinstance(known, Counter):
        known = Counter(
            block.procedure
            for block in file.blocks
            for s in block.statements
            if not file.is_definition(s) and not file.is_bare_string(s)
        )
        file.derived["own statements"] = known
    count: int = known[procedure.node]
    return count


def oversized(file: ProgramFile, most: int) -> list[tuple[Procedure, int]]:
    """Procedures with more statements of their own than `most`, with that number."""
    sizes = ((procedure, own_statements(file, procedure)) for procedure in file.procedures)
    return [(procedure, size) for procedure, size in sizes if size > most]
