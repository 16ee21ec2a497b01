"""Copies of what a function of the program does already: written out instead of called."""

from __future__ import annotations

from collections.abc import Iterator, Mapping, Sequence

from ..deadline import look
from ..program.names import Role
from ..program.program import Procedure, ProgramFile
from ..program.together import knows
from .slots import Copy, Table, compare, given_back

Places = Mapping[tuple[int, ...], Sequence[tuple[ProgramFile, tuple[int, ...]]]]
"""Symbols of a stretch of statements → every place where they stand."""


def body_of(file: ProgramFile, procedure: Procedure) -> tuple[int, ...]:
    """The statements of a function's body without documentation and without a last plain return."""
    statements = list(file.statements_of(procedure))
    if statements and file.tree.kind[statements[-1]] == file.language.returning and len(statements) > 1:
        statements.pop()
    return tuple(statements)


def windows_like(
    bodies: Sequence[tuple[int, ...]], sequences: Sequence[tuple[ProgramFile, Sequence[int], Sequence[int]]]
) -> dict[tuple[int, ...], list[tuple[ProgramFile, tuple[int, ...]]]]:
    """Where the symbols of each body stand. Linear in the program for each length of a body."""
    wanted = set(bodies)
    beginnings = {body[0] for body in wanted if body}
    found: dict[tuple[int, ...], list[tuple[ProgramFile, tuple[int, ...]]]] = {}
    for length in sorted({len(body) for body in wanted}):
        for file, statements, symbols in sequences:
            free = 0
            for start in range(len(symbols) - length + 1):
                if symbols[start] not in beginnings or start < free:
                    continue
                key = tuple(symbols[start : start + length])
                if key in wanted:
                    found.setdefault(key, []).append((file, tuple(statements[start : start + length])))
                    free = start + length
    return found


def copies_of(
    file: ProgramFile,
    procedure: Procedure,
    body: tuple[int, ...],
    places: Sequence[tuple[ProgramFile, tuple[int, ...]]],
) -> Iterator[Table]:
    """The tables of the body and the places outside the function that calls of it could stand for, one for each file
    that knows the function."""
    by_file: dict[int, tuple[ProgramFile, list[tuple[int, ...]]]] = {}
    for other, statements in places:
        inside = other is file and procedure.node <= statements[0] < file.tree.end[procedure.node]
        if not inside:
            by_file.setdefault(id(other), (other, []))[1].append(statements)
    for other, outside in by_file.values():
        if other is file or (not procedure.parent and not procedure.in_class and knows(other, procedure.name, file)):
            found = _copies_in(other, outside, file, procedure, body)
            if found is not None:
                yield found


def _copies_in(
    other: ProgramFile,
    outside: Sequence[tuple[int, ...]],
    file: ProgramFile,
    procedure: Procedure,
    body: tuple[int, ...],
) -> Table | None:
    """The table of a function's body and its copies in one file."""
    last = file.statements_of(procedure)[-1]
    if last not in body and gives_a_value(file, last):
        longer = [(*statements, after) for statements in outside if (after := _next(other, statements[-1])) is not None]
        found = _fitting(procedure, Copy(file, (*body, last)), [Copy(other, s) for s in longer])
        if found is not None:
            return found
    return _fitting(procedure, Copy(file, body), [Copy(other, s) for s in outside])


def gives_a_value(file: ProgramFile, statement: int) -> bool:
    """True for a statement that returns what it works out, not only variables."""
    tree, language = file.tree, file.language
    value = given_back(tree, statement) if tree.kind[statement] == language.returning else None
    return value is not None and tree.kind[value] not in {language.name, "expression_list", "tuple"}


def _next(file: ProgramFile, statement: int) -> int | None:
    """The statement behind another one in its block."""
    statements = file.block_at[file.tree.parent[statement]].statements
    at = statements.index(statement) + 1
    return statements[at] if at < len(statements) else None


def _fitting(procedure: Procedure, own: Copy, others: Sequence[Copy]) -> Table | None:
    """The table of a function's statements and the copies that a call could stand for; None where there are none."""
    fixed = _fixed_tokens(procedure, own)
    alone = []
    for copy in others:
        look()
        if _holds(copy, fixed):
            alone.append((copy, compare([own, copy])))
    fitting = [(copy, table) for copy, table in alone if _fits(procedure, table)]
    if len(fitting) == 1:
        return fitting[0][1]
    if fitting:
        table = compare([own, *(copy for copy, _ in fitting)])
        if table is not None and _fits(procedure, table):
            return table
    return None


def _fixed_tokens(procedure: Procedure, own: Copy) -> list[str]:
    """What every copy of a function's statements has to hold, in this order: its numbers and texts, and the names of
    what is neither given to it nor its own."""
    language, (start, stop) = own.file.language, own.span
    kinds, texts = own.file.tree.kind[start:stop], own.file.tree.text[start:stop]
    kept = language.numbers | language.strings | (frozenset() if language.typed else {language.name})
    changing = {*procedure.parameters, *own.file.names.bound.get(procedure.node, ())}
    return [t for kind, t in zip(kinds, texts, strict=True) if t and kind in kept and t not in changing]


def _holds(copy: Copy, tokens: list[str]) -> bool:
    """True where the copy has these tokens in this order, whatever stands between them."""
    start, stop = copy.span
    there = iter(copy.file.tree.text[start:stop])
    return all(token in there for token in tokens)


def _fits(procedure: Procedure, table: Table | None) -> bool:
    """True where all that differs are parameters, and variables of the function's own that the body assigns to, each
    in one way throughout."""
    if table is None or len({column.values[0] for column in table.columns}) != len(table.columns):
        return False
    first = table.copies[0]
    names, tree = first.file.names, first.file.tree
    given = (i for i in names.within(*first.span) if names.role[i] in (Role.WRITE, Role.UPDATE))
    written = {tree.text[i] for i in given if names.owner(i) == procedure.node}
    return all(
        spot.group < 0 and (column.values[0] in procedure.parameters or column.values[0] in written)
        for column in table.columns
        for spot in column.spots
    )
