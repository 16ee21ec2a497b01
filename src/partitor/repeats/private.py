"""Variables that only one copy has to do with: in a loop each turn can call its own by the same name."""

from __future__ import annotations

from ..program.private import is_private
from .columns import Column
from .slots import Table


def private_columns(table: Table) -> list[Column]:
    """The columns of variables of which each belongs to its copy alone."""
    return [column for column in table.columns if column.is_target and are_private(table, column)]


def are_private(table: Table, column: Column) -> bool:
    """True for variables of which each belongs to its copy alone."""
    named = column.is_target and column.is_name and len(set(column.values)) == len(column.values)
    return named and all(
        is_private(c.file, c.statements, name) for c, name in zip(table.copies, column.values, strict=True)
    )
