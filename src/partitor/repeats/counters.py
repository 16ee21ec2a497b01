"""Variables that copies give values to, each its own, and that could be kept in one list."""

from __future__ import annotations

from ..program.program import ProgramFile
from ..program.shapes import given_value
from .columns import Column
from .slots import Table

SEVERAL = 3
"""Statements of a copy from which it is worth a list that none of them is under a test."""


def are_listable(table: Table, column: Column) -> bool:
    """True for variables that count up by their names, and for such as all begin with the same literal, one under the
    other, where the copies otherwise differ in literals only: `if letter == "a": a += 1`; copies of three lines."""
    if column.is_family:
        return True
    first = table.copies[0]
    rest = [c for c in table.columns if c is not column]
    literals = first.file.language.numbers | first.file.language.strings | {"character"}
    in_literals = all(first.file.tree.kind[s.nodes[0]] in literals and s.group < 0 for c in rest for s in c.spots)
    longer = len(first.statements) >= SEVERAL or first.file.count_within(*first.span) > len(first.statements)
    return column.is_name and bool(rest) and in_literals and longer and _begin_alike(first.file, column.values)


def _begin_alike(file: ProgramFile, names: tuple[str, ...]) -> bool:
    """True where statements in a row give these variables the same literal."""
    tree = file.tree
    for block in file.blocks:
        given = [given_value(tree, s) for s in block.statements]
        called = [tree.text[pair[0]] if pair else "" for pair in given]
        for at in range(len(called) - len(names) + 1):
            if called[at : at + len(names)] == list(names):
                values = {tree.text[pair[1]] for pair in given[at : at + len(names)] if pair}
                return len(values) == 1 and bool(values.pop())
    return False
