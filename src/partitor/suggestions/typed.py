"""The types of what a suggestion introduces, in languages that name them."""

from __future__ import annotations

import re
from collections.abc import Sequence

import msgspec

from ..errors import CannotWrite
from ..program.program import ProgramFile
from ..program.types import (
    Type,
    is_a_plain_class,
    is_made_a_fraction,
    is_object,
    is_reference_like,
    type_of_expression,
    type_of_name,
)
from ..repeats.columns import Column
from ..repeats.slots import Copy, Table

TEXTS = frozenset(map(Type, ("string", "std::string", "String")))
"""Texts that are things of a class (C++, boards): a copy is as good as the text."""


def column_type(column: Column, copies: Sequence[Copy], listed: bool = False) -> Type | None:
    """The one type of all values of a column; None in languages without types. Where they are `listed` and a list
    can hold values of any type, it is that of such values. Raises CannotWrite where the values are of different
    types, or of one that is not in sight."""
    file = copies[0].file
    if not file.language.typed and not file.language.annotates:
        return None
    spot = column.spots[0]
    if column.is_fraction:
        return Type(file.language.types.fraction)
    if spot.group >= 0 and not spot.is_words:
        return Type(file.language.types.whole)
    found = {
        _without_length(type_of_expression(copy.file, node)) for copy, node in zip(copies, spot.nodes, strict=True)
    }
    if listed and file.language.untyped and None not in found:
        return Type(file.language.untyped)
    kind = found.pop() if len(found) == 1 else None
    if file.language.annotates:
        return kind
    if kind is None:
        raise CannotWrite(f"the type of {column.values[0]} is not in sight, or not the others'")
    looked_at = all(only_looked_at(file, node) for node in (s.nodes[0] for s in column.spots))
    if listed and kind in TEXTS and all(_is_joined(file, s.nodes[0]) for s in column.spots):
        # A list of texts that are only shown or compared holds them as well as their variables do.
        return kind
    return handed_on(kind, file, looked_at)


def with_fractions(table: Table) -> Table:
    """The table with whole numbers written as fractions where they stand beside such, and are given to variables for
    fractions: `3.5`, `2.0`."""
    if not table.copies[0].file.language.typed:
        return table
    return msgspec.structs.replace(table, columns=tuple(_as_fractions(c, table.copies) for c in table.columns))


def _as_fractions(column: Column, copies: Sequence[Copy]) -> Column:
    numbers = [NUMBER.fullmatch(value) for value in column.values]
    mixed = all(numbers) and len({"." in value for value in column.values}) == 2
    if not mixed or not all(spot.is_plain for spot in column.spots):
        return column
    whole = [
        (copy.file, spot.nodes[k])
        for k, copy in enumerate(copies)
        for spot in column.spots
        if "." not in column.values[k]
    ]
    if not all(is_made_a_fraction(file, node) for file, node in whole):
        return column
    values = tuple(value if "." in value else f"{value}.0" for value in column.values)
    return msgspec.structs.replace(column, values=values, is_fraction=True)


NUMBER = re.compile(r"-?\d+(?:\.\d+)?")


def _without_length(kind: Type | None) -> Type | None:
    """The type of an array whatever its length."""
    if kind is None or not kind.dimensions:
        return kind
    return msgspec.structs.replace(kind, dimensions=("", *kind.dimensions[1:]))


def variable_type(file: ProgramFile, name: str, scope: int) -> Type | None:
    """The type of a variable that is handed to a function."""
    if file.language.annotates:
        return type_of_name(file, name, scope)
    if not file.language.typed:
        return None
    kind = type_of_name(file, name, scope)
    if kind is None:
        raise CannotWrite(f"the type of {name} is not in sight")
    return kind


LOOKS = frozenset({"count", "isEmpty", "first", "last", "contains", "min", "max", "joined", "reversed", "sorted"})


def only_looked_at(file: ProgramFile, node: int) -> bool:
    """True where a list at `node` is run through, asked for an element or for what changes nothing."""
    tree = file.tree
    parent = tree.parent[node]
    if tree.kind[parent] in file.language.loops:
        return tree.field[node] == "right"
    if tree.kind[parent] == "subscript":
        around = tree.parent[parent]
        written = tree.field[parent] == "left" and "assignment" in tree.kind[around]
        return tree.field[node] == "value" and not written and "&" not in tree.leaf_texts(around)
    return tree.kind[parent] == file.language.member[0] and _only_read(file, parent)


def _only_read(file: ProgramFile, member: int) -> bool:
    """True for a field that is given no value and has no method called that might change it, nor one of its own."""
    tree, language = file.tree, file.language
    name, parent = tree.child(member, language.member[1]), tree.parent[member]
    if name is not None and tree.text[name] in LOOKS:
        return True
    if tree.kind[parent] == language.member[0]:
        return tree.field[member] == "object" and _only_read(file, parent)
    called = tree.kind[parent] == language.call and tree.field[member] == language.callee_field
    given = tree.field[member] == "left" and "assignment" in tree.kind[parent]
    return not (called or given or tree.kind[parent] in {"subscript", "update"} or "&" in tree.leaf_texts(parent))


def _is_joined(file: ProgramFile, node: int) -> bool:
    """True for what is only joined to something, sent to a stream, or compared."""
    return file.tree.kind[file.tree.parent[node]] == "binary_operator"


def handed_on(kind: Type, file: ProgramFile, looked_at: bool = False) -> Type:
    """The type of a parameter that takes a value of `kind`, which the function only looks at where `looked_at`."""
    if file.language.annotates:
        return kind
    types = file.language.types
    if file.language.value_types and kind.dimensions and looked_at:
        return kind
    if file.language.value_types and (is_object(file, kind) or (looked_at and is_a_plain_class(file, kind.base))):
        return kind
    if file.language.value_types and (kind.dimensions or kind.base not in {*types.ranks, types.text, types.truth}):
        raise CannotWrite("something would have to be handed on that the function could not change")
    if not is_reference_like(kind, file.language):
        if file.language.id == "c":
            raise CannotWrite("a record would have to be handed on")
        return Type(kind.base, kind.pointers, kind.dimensions, True)
    dimensions = ("", *kind.dimensions[1:]) if kind.dimensions else ()
    return Type(kind.base, kind.pointers, dimensions, kind.reference)
