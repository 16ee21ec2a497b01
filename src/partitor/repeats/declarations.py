"""Copies of which the first declares what the others only give another value."""

from __future__ import annotations

from ..program.flow import flow_of
from ..program.shapes import given_value
from .slots import Copy, Table, compare


def declares_for_later(table: Table) -> bool:
    """True where the first copy declares what the others give another value, and what is used behind them too: the
    loop could not declare it."""
    first, last = table.copies[0], table.copies[-1]
    file, tree = first.file, first.file.tree
    second = table.copies[1].statements
    if all(tree.kind[a] == tree.kind[b] for a, b in zip(first.statements, second, strict=True)):
        return False
    own = {
        tree.text[given[0]]
        for s in first.statements
        if (given := given_value(tree, s)) and tree.kind[s] == "declaration"
    }
    stop = last.span[1]
    return any(i >= stop and tree.text[i] in own for i in file.names.nodes)


def without_lost_declarations(table: Table) -> Table | None:
    """The table without what it begins with, as long as that declares, in the first copy alone, what others need and
    no copy leaves behind: with the first copy the declaration would go."""
    first = table.copies[0]
    file, tree = first.file, first.file.tree
    if not file.language.declares or len(table.copies) < 2:
        return table
    spans = [c.span for c in table.copies if c.file is file]
    declared = [
        k
        for k, (a, b) in enumerate(zip(first.statements, table.copies[1].statements, strict=True))
        if tree.kind[a] == "declaration" and table.copies[1].file.tree.kind[b] == "assignment"
    ]
    if not declared:
        return table
    scope = file.procedure_around(first.first).node
    behind = flow_of(file, scope).live_after.get(first.last, frozenset())
    start = 0
    for k in declared:
        given = given_value(tree, first.statements[k])
        name = tree.text[given[0]] if given else ""
        outside = any(
            tree.text[i] == name and not any(a <= i < b for a, b in spans) and file.names.owner(i) == scope
            for i in file.names.nodes
        )
        if outside and name not in behind:
            start = k + 1
    if not start:
        return table
    left = [Copy(c.file, c.statements[start:]) for c in table.copies]
    return compare(left) if left[0].statements else None
