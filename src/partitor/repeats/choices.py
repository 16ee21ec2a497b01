"""The branches of each choice: an `if` with all that follows it, or tests one behind the other in one block."""

from __future__ import annotations

from collections.abc import Callable, Sequence

from ..program.program import ProgramFile

FEWEST_BRANCHES = 3
FEWEST_STATEMENTS = 3
"""Statements of a branch, those inside included: a lone step is no more than its line."""

Branch = tuple[ProgramFile, tuple[int, ...]]
Choice = list[Branch]


def choices(places: Sequence[Branch], free: Callable[[Branch], bool]) -> list[Choice]:
    """Those of the statement lists that are branches of one choice, three or more; `free`: those that may be part of
    something."""
    found: dict[tuple[int, int], Choice] = {}
    for file, statements in places:
        tree = file.tree
        clause = tree.parent[tree.parent[statements[0]]]
        if clause >= 0 and tree.kind[clause] in file.language.conditionals | CLAUSES:
            inside = file.statements_within(statements[0], tree.end[statements[-1]])
            if len(inside) >= FEWEST_STATEMENTS:
                around = next((node for node in file.parents(clause) if node in file.block_at), 0)
                found.setdefault((id(file), around), []).append((file, statements))
    longer = ([b for b in branches if free(b)] for branches in found.values() if len(branches) >= FEWEST_BRANCHES)
    return [branches for branches in longer if len(branches) >= FEWEST_BRANCHES]


CLAUSES = frozenset({"elif_clause", "else_clause", "case_clause"})
