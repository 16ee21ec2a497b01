"""Branches that each change a variable of their own in the same way: `if letter == "a": a += 1`, `elif letter == "e":
e += 1`. As places of one list or dictionary they need no branches."""

from __future__ import annotations

import itertools
from collections.abc import Iterator

from ..program.names import Role
from ..program.program import ProgramFile
from .slots import Copy, Table, compare

FEWEST_BRANCHES = 4
MOST_STATEMENTS = 2
"""Statements of a branch; what has more may be a block."""
MOST_BRANCHES = 60


def alike_branches(file: ProgramFile) -> Iterator[Table]:
    """The longest rows of such branches, one of each chain: its tests and what is done."""
    kinds = file.tree.kind
    for node, kind in enumerate(kinds):
        if kind in {"if_statement", "match_statement"}:
            branches = list(itertools.islice(_branches(file, node), MOST_BRANCHES))
            if len(branches) >= FEWEST_BRANCHES:
                table = _longest(branches)
                if table is not None:
                    yield table


def _branches(file: ProgramFile, node: int) -> Iterator[Copy]:
    """What each branch asks and does."""
    tree = file.tree
    if tree.kind[node] == "if_statement":
        inside = [node, *(c for c in tree.children(node) if tree.kind[c] == "elif_clause")]
        field = "condition"
    else:
        inside = [c for c in tree.children(node) if tree.kind[c] == "case_clause"]
        field = "value"
    for branch in inside:
        asked = [c for c in tree.children(branch) if tree.field[c] == field and tree.text[c] not in {"case", "default"}]
        block = next((c for c in tree.children(branch) if c in file.block_at), None)
        statements = file.block_at[block].statements if block is not None else ()
        statements = tuple(s for s in statements if tree.kind[s] != "break_statement")
        if len(asked) == 1 and 1 <= len(statements) <= MOST_STATEMENTS:
            yield Copy(file, (asked[0], *statements))
        else:
            return


def _longest(branches: list[Copy]) -> Table | None:
    """The branches from the first on that are alike but for a literal that is asked for and the variable changed."""
    for count in range(len(branches), FEWEST_BRANCHES - 1, -1):
        copies = branches[:count]
        if len({len(c.statements) for c in copies}) == 1:
            table = compare(copies)
            if table is not None and _count_up(table):
                return table
    return None


def _count_up(table: Table) -> bool:
    copy = table.copies[0]
    tree = copy.file.tree
    literals = copy.file.language.numbers | copy.file.language.strings | {"character", "string", "switch_pattern"}
    targets = [c for c in table.columns if c.is_target and c.is_name and len(set(c.values)) == len(c.values)]
    others = [c for c in table.columns if c not in targets]
    in_literals = all(tree.kind[s.nodes[0]] in literals for c in others for s in c.spots)
    asked = all(s.nodes[0] < copy.statements[1] for c in others for s in c.spots)
    if len(targets) != 1 or len(others) != 1 or not in_literals or not asked:
        return False
    # What is set is a choice; what goes on from what it was is counted.
    return len(targets[0].spots) > 1 or copy.file.names.role[targets[0].spots[0].nodes[0]] is Role.UPDATE
