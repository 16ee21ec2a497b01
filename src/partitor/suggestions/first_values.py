"""Literals that copies first give to a variable: the function can be given them instead, under the variable's name."""

from __future__ import annotations

from collections.abc import Iterable, Sequence

from ..program.names import Role
from ..program.shapes import given_value, is_plain_list
from ..repeats.columns import Column
from ..repeats.slots import Copy, Table


def first_values(
    table: Table, columns: Sequence[Column], taken: Iterable[str], renamed: bool = False
) -> dict[Column, tuple[str, int]]:
    """Columns that the copies begin by giving to a variable of one name, or where `renamed` is allowed of another name
    throughout, with the first copy's name and statement; `taken` are names that stand for something else in the
    function."""
    first = table.copies[0]
    file, tree, language = first.file, first.file.tree, first.file.language
    found: dict[Column, tuple[str, int]] = {}
    if language.declares:
        return found
    literals = language.numbers | language.strings | language.constants
    targets = {spot.nodes[0]: c for c in table.columns if c.is_target for spot in c.spots}
    for s in first.statements[:-1]:
        given = given_value(tree, s)
        if given is None or tree.child(s, "type") is not None or tree.start_line(s) in file.shared_lines:
            break
        left, right = given
        column = next((c for c in columns if [spot.nodes[0] for spot in c.spots] == [right]), None)
        if column is None or column.spots[0].group >= 0:
            break
        if left in targets and not (renamed and is_throughout(targets[left], table)):
            break
        noted = any(
            c.line == copy.file.tree.start_line(n)
            for copy, n in zip(table.copies, column.spots[0].nodes, strict=True)
            for c in copy.file.tree.comments
        )
        known = {*taken, *(name for name, _ in found.values())}
        kinds = {c.file.tree.kind[n] for c, n in zip(table.copies, column.spots[0].nodes, strict=True)}
        lists = all(is_plain_list(c.file.tree, n) for c, n in zip(table.copies, column.spots[0].nodes, strict=True))
        if noted or tree.text[left] in known or not (kinds <= literals or lists):
            break
        found[column] = (tree.text[left], s)
    return found


def is_throughout(column: Column, table: Table) -> bool:
    """True where the column's places are all that mention the first copy's variable."""
    return _uses(column, table.copies[0]) == {spot.nodes[0] for spot in column.spots}


def is_the_same_elsewhere(column: Column, first: Copy) -> bool:
    """True where all copies mention the first one's variable, too, besides what each calls otherwise."""
    spots, names = {spot.nodes[0] for spot in column.spots}, first.file.names
    owners = {names.owner(i) for i in spots}
    return any(names.owner(i) in owners for i in _uses(column, first) - spots)


def _uses(column: Column, first: Copy) -> set[int]:
    """Where the first copy mentions its variable."""
    names, tree = first.file.names, first.file.tree
    return {i for i in names.within(*first.span) if tree.text[i] == column.values[0] and names.role[i] < Role.MEMBER}
