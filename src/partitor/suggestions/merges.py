"""From twin functions to one general function: each thing that differs becomes a parameter."""

from __future__ import annotations

import re
from collections.abc import Sequence

import msgspec

from ..errors import CannotWrite
from ..languages.writers import writer_for
from ..languages.writing import Variable, Writer
from ..program.members import class_name
from ..program.names import Role
from ..program.program import Procedure, ProgramFile
from ..records import SlotColumn
from ..repeats.blocks import Twins
from ..repeats.columns import Column, Derived
from ..repeats.judge import MOST_PARAMETERS
from ..repeats.slots import Copy
from .candidate import Candidate
from .edits import Edit, changed, with_comments_above
from .first_values import first_values
from .naming import Namer
from .proof import MergedFunctions, is_object_of
from .text import body_lines, in_terms_of, replacements, told_order
from .typed import column_type, with_fractions
from .words import shared_words


def merge_candidate(twins: Twins) -> Candidate:
    """One function for twins of one file. Raises CannotWrite where it cannot be put into code."""
    file = twins.procedures[0][0]
    twins = msgspec.structs.replace(twins, table=with_fractions(twins.table))
    procedures, copies = [p for _, p in twins.procedures], twins.table.copies
    if any(f is not file for f, _ in twins.procedures):
        raise CannotWrite("the functions stand in different files")
    if any(c.is_field for c in twins.table.columns):
        raise CannotWrite("they work on different fields of the object, which cannot be given as values")
    home = class_of_methods(file, procedures)
    if not home and not all(is_plain(file, p) for p in procedures):
        raise CannotWrite("the functions are methods, decorated or stand inside another function")
    own = tuple(p.name for p in procedures)
    columns = [c for c in twins.table.columns if not c.is_target and not (c.is_called and c.values == own)]
    called_elsewhere = twins.elsewhere & {p.name for p in procedures}
    if called_elsewhere:
        raise CannotWrite(f"{min(called_elsewhere)} is used in another file")
    writer = writer_for(file)
    namer = Namer(file, writer.style)
    first = procedures[0]
    inside = namer.inside(twins.table.copies[:1], twins.table.columns, first.parameters)
    given_first = first_values(twins.table, columns, first.parameters, renamed=True)
    values, filled = values_of(twins, [c for c in columns if c not in given_first], inside)
    values = {**{name: c for c, (name, _) in given_first.items()}, **values}
    if len(first.parameters) + len(values) - bool(home) > MOST_PARAMETERS:
        raise CannotWrite(f"the function would need {len(first.parameters) + len(values)} parameters")
    name = namer.merged([p.name for p in procedures], twins.table.copies[0])
    called = _general_names(twins, inside, filled)
    values = {called.get(n, n) if c in given_first else n: c for n, c in values.items()}
    added = [Variable(n, column_type(c, twins.table.copies)) for n, c in values.items()]
    renamed, inserted = _own_calls(file, first, name, [writer.argument(n, n) for n in values], writer)
    parameters = [*(called.get(p, p) for p in first.parameters), *values]
    if file.language.declares:
        renamed += _at_parameters(file, first, called)
        definition = _general(file, first, name, added, filled, writer, [*renamed, *inserted], twins.table.derived)
    else:
        calls = [(at, new) for at, _, new in inserted]
        filled |= {c: name for c in twins.table.columns if c.is_called and c.values == own}
        body = body_lines(
            writer,
            twins.table.copies[0],
            filled,
            writer.function_indent(first.node if home else 0) + writer.style.indent,
            frozenset(statement for _, statement in given_first.values()),
            inserted=calls,
            derived=twins.table.derived,
        )
        definition = writer.function(name, [Variable(p) for p in parameters], body, (), first.node)
    edits = [Edit(first.start_line, first.end_line, tuple(definition))]
    edits += [removal(file, p) for p in procedures[1:]]
    edits += rewritten_calls(
        file,
        procedures,
        name,
        writer,
        {p.name: [writer.argument(n, c.values[k]) for n, c in values.items()] for k, p in enumerate(procedures)},
        bool(home),
    )
    head = f"One {'method' if home else 'function'} {name}({', '.join(parameters[bool(home) :])})"
    return Candidate(
        kind="merge",
        title=f"{head} in place of {len(procedures)}{told_order(copies)}",
        file=file,
        edits=tuple(edits),
        claim=MergedFunctions(file.path, name, tuple(p.name for p in procedures), home),
        slots=tuple(SlotColumn(v, c.values) for v, c in values.items()),
        table=twins.table,
        name=name,
    )


def _general_names(twins: Twins, namer: Namer, filled: dict[Column, str]) -> dict[str, str]:
    """What the first function's variables are called in the general one, where the others call theirs otherwise;
    `filled` is told too."""
    (file, first), *_ = twins.procedures
    tree, names = file.tree, file.names
    called: dict[str, str] = {}
    lists = set(zip(*(p.parameters for _, p in twins.procedures), strict=False))
    for column in twins.table.columns:
        own = column.values[0]
        if not column.is_name or not (column.is_target or column.values in lists):
            continue
        spots = {spot.nodes[0] for spot in column.spots}
        inside = names.within(first.node, tree.end[first.node])
        if spots == {i for i in inside if tree.text[i] == own and names.role[i] is not Role.PARAMETER}:
            called[own] = filled[column] = namer.general(column, twins.table.copies)
    return called


def _at_parameters(file: ProgramFile, procedure: Procedure, called: dict[str, str]) -> list[tuple[int, int, str]]:
    """The changes that call parameters otherwise in a function's head."""
    tree, names = file.tree, file.names
    return [
        (tree.start_byte[i], tree.end_byte[i], called[tree.text[i]])
        for i in names.within(procedure.node, tree.end[procedure.node])
        if names.role[i] is Role.PARAMETER and names.owner(i) == procedure.node and tree.text[i] in called
    ]


def is_plain(file: ProgramFile, procedure: Procedure) -> bool:
    """A function that its own callers alone know: not decorated, nested, overriding, or called by a framework."""
    language, tree = file.language, file.tree
    if not language.declares:
        return not (procedure.in_class or procedure.decorated or procedure.parent)
    if (
        any(word.startswith("@") for word in file.words_before_name(procedure.node))
        or procedure.name in language.framework_calls
    ):
        return False
    if language.methods:
        return procedure.in_class
    if language.started_by_hand and "_" in procedure.name:
        return False
    declared_before = any(
        kind == "prototype" and re.search(rf"\b{re.escape(procedure.name)}\s*\(", text)
        for kind, text in zip(tree.kind, tree.text, strict=True)
    )
    return not procedure.in_class and not procedure.parent and not declared_before


def class_of_methods(file: ProgramFile, procedures: Sequence[Procedure]) -> str:
    """The class whose methods these are, where each is given its object by name and only called through objects that
    are certain to be of that class; "" otherwise."""
    tree, names = file.tree, file.names
    parents = {p.parent for p in procedures}
    plain = all(p.in_class and not p.decorated and not p.name.startswith("__") for p in procedures)
    if not file.language.object_is_given or not plain or len(parents) != 1:
        return ""
    home, called = class_name(file, parents.pop()), {p.name for p in procedures}
    for i in names.nodes:
        if tree.text[i] not in called or names.role[i] is not Role.MEMBER:
            continue
        holder = tree.child(tree.parent[i], "object")
        is_callee = tree.field[tree.parent[i]] == file.language.callee_field
        if holder is None or not is_callee or not is_object_of(file, holder, home):
            return ""
    return home


def is_handed_on(file: ProgramFile, procedure: Procedure) -> bool:
    """True where a function is given to something by its name, as a handler is, or started by whoever uses the
    program."""
    names, tree = file.names, file.tree
    uses = [
        i
        for i in names.nodes
        if tree.text[i] == procedure.name and names.role[i] is Role.READ and tree.parent[i] != procedure.node
    ]
    handed_on = any(tree.field[i] != file.language.callee_field for i in uses)
    told = any(procedure.name in one.told_outside for one in (file, *file.beside))
    return handed_on or told or (file.language.started_by_hand and not uses)


def shared_name(twins: Twins) -> str:
    """A name for what twins do that keep their own; "" where their names share no word."""
    file, first = twins.procedures[0]
    handlers = file.language.started_by_hand and any("_" in p.name for _, p in twins.procedures)
    if handlers or not shared_words([p.name for _, p in twins.procedures], 1):
        return ""
    namer = Namer(file, writer_for(file).style)
    return namer.merged([p.name for _, p in twins.procedures], Copy(file, file.statements_of(first)))


def _general(
    file: ProgramFile,
    first: Procedure,
    name: str,
    added: Sequence[Variable],
    filled: dict[Column, str],
    writer: Writer,
    own_calls: Sequence[tuple[int, int, str]],
    derived: Sequence[Derived],
) -> list[str]:
    """The first function's own text with another name, more parameters, and values instead of constants."""
    tree = file.tree
    changes = [*headed(file, first, name, [writer.typed(v) for v in added], writer), *own_calls]
    for node in range(first.node, tree.end[first.node]):
        if tree.kind[node] == "result_name":
            changes.append((tree.start_byte[node], tree.end_byte[node], name))
    for node, new in replacements(writer, filled, 0, derived):
        changes.append((tree.start_byte[node], tree.end_byte[node], new))
    start = tree.line_starts[first.start_line - 1]
    text = "\n".join(file.lines[first.start_line - 1 : first.end_line]).encode()
    return changed(text, start, changes).split("\n")


def headed(
    file: ProgramFile, procedure: Procedure, name: str, added: Sequence[str], writer: Writer
) -> list[tuple[int, int, str]]:
    """The changes (from byte, to byte, text) that give a function another name and further parameters."""
    tree = file.tree
    named, parameters = tree.child(procedure.node, "name"), tree.child(procedure.node, "parameters")
    if named is None:
        left = tree.child(tree.parent[procedure.node], "left")
        named = left if left is not None and tree.text[left] == procedure.name else None
    if named is None or parameters is None:
        raise CannotWrite("the functions have an unusual form")
    changes = [(tree.start_byte[named], tree.end_byte[named], name)]
    return [*changes, writer.with_parameters(parameters, added)] if added else changes


def _own_calls(
    file: ProgramFile, first: Procedure, name: str, added: Sequence[str], writer: Writer
) -> tuple[list[tuple[int, int, str]], list[tuple[int, int, str]]]:
    """How the calls that a function makes of itself change: by name, and by the values that are handed on."""
    tree, names = file.tree, file.names
    renamed, inserted = [], []
    for i in names.within(first.node, tree.end[first.node]):
        if tree.text[i] != first.name or tree.field[i] != file.language.callee_field:
            continue
        arguments = tree.child(tree.parent[i], "arguments")
        if arguments is None:
            raise CannotWrite("a function is used in another way than being called")
        renamed.append((tree.start_byte[i], tree.end_byte[i], name))
        at, text = writer.with_arguments(arguments, added)
        inserted += [(at, at, text)] if added else []
    return renamed, inserted


def values_of(twins: Twins, columns: Sequence[Column], namer: Namer) -> tuple[dict[str, Column], dict[Column, str]]:
    """New parameter → its column, and what to write in place of each column."""
    copies = twins.table.copies
    values: dict[str, Column] = {}
    filled: dict[Column, str] = {}
    writer = writer_for(copies[0].file)
    for column in columns:
        if column.is_name and local_in_all(twins, column):
            filled[column] = column.values[0]
            continue
        follows = in_terms_of(copies[0].file, column, values, columns)
        if follows is not None:
            filled[column] = writer.linear(follows[0], 1, follows[1])
            continue
        name = namer.column(column, copies)
        values[name] = column
        filled[column] = name
    return values, filled


def local_in_all(twins: Twins, column: Column) -> bool:
    """The column only renames the functions' own variables."""
    return all(
        file.names.owner_of(value, procedure.node) == procedure.node
        for (file, procedure), value in zip(twins.procedures, column.values, strict=True)
    )


def removal(file: ProgramFile, procedure: Procedure) -> Edit:
    """Take the function out with the blank lines (and the comment) above it."""
    start = with_comments_above(file, procedure.start_line)
    while start > 1 and not file.lines[start - 2].strip():
        start -= 1
    return Edit(start, procedure.end_line, ())


def rewritten_calls(
    file: ProgramFile,
    procedures: Sequence[Procedure],
    name: str,
    writer: Writer,
    values: dict[str, list[str]],
    by_object: bool = False,
) -> list[Edit]:
    """Rewrite every line that calls one of the functions; `by_object`: they are called through objects."""
    tree, names = file.tree, file.names
    changes: dict[int, list[tuple[int, int, str]]] = {}
    for i in names.nodes:
        text = tree.text[i]
        through_object = names.role[i] is Role.MEMBER and (file.language.methods or by_object)
        callee = tree.parent[i] if through_object else i
        plain = names.role[i] is Role.READ or through_object
        if text not in values or not plain or tree.field[callee] != "function":
            continue
        inside = next((p for p in procedures if p.node < i < tree.end[p.node]), None)
        if inside is not None and inside.name == text:
            continue
        if inside is not None:
            raise CannotWrite("the functions call each other")
        arguments = tree.child(tree.parent[callee], "arguments")
        if arguments is None:
            raise CannotWrite("a function is used in another way than being called")
        line = tree.start_line(i)
        if tree.end_line(arguments) != line:
            raise CannotWrite("a call runs over several lines")
        changes.setdefault(line, []).append((tree.start_byte[i], tree.end_byte[i], name))
        if values[text]:
            close, added = writer.with_arguments(arguments, values[text])
            changes[line].append((close, close, added))
    return [_line_edit(file, line, spots) for line, spots in changes.items()]


def _line_edit(file: ProgramFile, line: int, spots: list[tuple[int, int, str]]) -> Edit:
    start = file.tree.line_starts[line - 1]
    return Edit(line, line, (changed(file.lines[line - 1].encode(), start, spots),))
