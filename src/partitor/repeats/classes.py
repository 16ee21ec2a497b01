"""Classes of which all methods are alike: one class that is given what differs, or a base class for what they share."""

from __future__ import annotations

from collections.abc import Callable, Iterator, Sequence

from ..frozen import Single
from ..program.members import class_name
from ..program.program import Procedure, ProgramFile
from ..program.tree import Tree
from .judge import MOST_PARAMETERS, inner_statements
from .slots import Copy, Table, compare

FEWEST_METHODS = 2
LEAST_STATEMENTS = 5
"""Statements of all methods together, without which a class is too small to say that it was written twice."""


class AlikeClasses(Single, frozen=True, eq=False):
    """Classes with the same methods, which differ in a few values."""

    classes: tuple[tuple[ProgramFile, int], ...]
    """File and node of each."""
    tables: tuple[Table, ...]
    """What differs in each method."""

    def holds(self, table: Table) -> bool:
        """True where every copy stands in one of the classes."""
        spans = [(file, node, file.tree.end[node]) for file, node in self.classes]
        return all(any(c.file is f and start < c.first < stop for f, start, stop in spans) for c in table.copies)

    @property
    def names(self) -> list[str]:
        """What the classes are called."""
        return [class_name(file, node) for file, node in self.classes]


def alike_classes(files: Sequence[ProgramFile], shape: Callable[[Tree, int], int]) -> Iterator[AlikeClasses]:
    """Groups of classes that have the same methods, alike but for values, in the order of the text."""
    groups: dict[tuple[object, ...], list[tuple[ProgramFile, int, list[Copy]]]] = {}
    for file in files:
        methods: dict[int, list[Procedure]] = {}
        for procedure in file.procedures:
            if procedure.in_class and procedure.name:
                methods.setdefault(procedure.parent, []).append(procedure)
        for node, own in methods.items():
            name = class_name(file, node)
            bodies = [Copy(file, file.statements_of(p)) for p in own]
            sizes = [inner_statements(b) if b.statements else 0 for b in bodies]
            if len(own) < FEWEST_METHODS or not name or 0 in sizes or sum(sizes) < LEAST_STATEMENTS:
                continue
            key = tuple(
                ("" if p.name == name else p.name, len(p.parameters), *(shape(file.tree, s) for s in b.statements))
                for p, b in zip(own, bodies, strict=True)
            )
            groups.setdefault(key, []).append((file, node, bodies))
    for members in groups.values():
        tables = [compare(copies) for copies in zip(*(bodies for *_, bodies in members), strict=True)]
        whole = tuple(t for t in tables if t is not None)
        if len(members) > 1 and len(whole) == len(tables) and _are_one(whole):
            yield AlikeClasses(tuple((file, node) for file, node, _ in members), whole)


def _are_one(tables: Sequence[Table]) -> bool:
    """True where little differs, and much is the same."""
    differing = {column.values for table in tables for column in table.columns}
    spots = sum(len(column.spots) for table in tables for column in table.all_columns)
    alike = sum(table.constant_tokens for table in tables)
    return len(differing) <= MOST_PARAMETERS and alike >= max(2 * spots, 2 * LEAST_STATEMENTS)
