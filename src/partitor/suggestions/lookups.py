"""Branches that give a literal for a literal: a table that is looked into instead."""

from __future__ import annotations

from collections.abc import Mapping, Sequence

from ..errors import CannotWrite
from ..languages.writers import writer_for
from ..languages.writing import leading_space
from ..program.program import ProgramFile
from ..program.shapes import given_value
from ..records import SlotColumn
from ..repeats.columns import Column
from ..repeats.slots import Copy, Table
from .candidate import Candidate
from .edits import Edit
from .keyed import keyed_candidate
from .naming import Namer
from .proof import LookedUp
from .text import body_lines


def lookup_candidate(table: Table) -> Candidate:
    """The table with what belongs to what, and the one statement that looks it up. Raises CannotWrite."""
    first = table.copies[0]
    file, tree = first.file, first.file.tree
    writer = writer_for(file)
    asked = next(c for c in table.columns if c.spots[0].nodes[0] < first.statements[1])
    given = next((c for c in table.columns if c is not asked), None)
    variable = _variable(first)
    if any(c.is_target for c in table.columns) and file.language.id == "python":
        return keyed_candidate(table, asked, variable)
    if len(first.statements) > len(("test", "done")):
        return _rows_candidate(table, asked, variable)
    if given is None or any(c.is_target for c in table.columns) or not variable:
        raise CannotWrite("what differs in the branches would have to be one list first")
    choice = tree.parent[first.statements[0]]
    stop, otherwise, kept = _otherwise(file, choice, table, variable)
    start, end = tree.start_line(choice), tree.end_line(stop)
    if any(start <= c.line <= end for c in tree.comments):
        raise CannotWrite("a comment belongs to one of the branches")
    indent = leading_space(file, choice)
    namer = Namer(file, writer.style)
    name = namer.table(_called(first) or namer.column(given, table.copies), variable)
    done = first.statements[1]
    spot = given.spots[0].nodes[0]
    before = tree.source[tree.start_byte[done] : tree.start_byte[spot]].decode()
    if tree.end_byte[spot] != tree.end_byte[tree.end[done] - 1] or "\n" in before:
        raise CannotWrite("what the branches do has an unusual form")
    entries = [f"{key}: {value}" for key, value in zip(asked.values, given.values, strict=True)]
    looked_up = [*writer.looked_up(name, variable, before, otherwise, indent), *kept]
    return _looking_up(table, asked, variable, name, entries, looked_up, range(start, end + 1), {name: given})


def _rows_candidate(table: Table, asked: Column, variable: str) -> Candidate:
    """The same where a branch gives several literals: a table of rows, each taken apart into what it is made of."""
    first = table.copies[0]
    file, tree = first.file, first.file.tree
    test, *done = first.statements
    choice = tree.parent[test]
    branches = tree.branches_of(choice)
    whole = [tree.parent[c.statements[0]] for c in table.copies] == branches
    if file.language.id != "python" or not variable or not whole or not _are_plain(table):
        raise CannotWrite("what differs in the branches would have to be one list first")
    lines = range(tree.start_line(choice), tree.end_line(choice) + 1)
    if any(c.line in lines for c in tree.comments) or file.shared_lines.intersection(lines):
        raise CannotWrite("a comment belongs to one of the branches, or a line to several statements")
    writer = writer_for(file)
    namer = Namer(file, writer.style)
    indent = leading_space(file, choice)
    columns = [_column_at(table, statement) for statement in done]
    targets = [given_value(tree, s) for s in done]
    if all(targets):
        names, rest = [tree.text[pair[0]] for pair in targets if pair], []
        if len(set(names)) < len(names):
            raise CannotWrite("a variable gets two values in one branch")
    elif any(targets):
        raise CannotWrite("some of what differs is kept, and some is shown")
    else:
        columns = list(dict.fromkeys(columns))
        filled = {c: namer.column(c, table.copies) for c in columns}
        names = list(filled.values())
        copy = Copy(file, tuple(done))
        rest = body_lines(writer, copy, filled, indent + writer.style.indent, frozenset())
    if len(names) < len("ab"):
        raise CannotWrite("what is shown twice would have to be kept first")
    name = namer.table("values", variable)
    rows = zip(asked.values, zip(*(c.values for c in columns), strict=True), strict=True)
    entries = [f"{key}: ({', '.join(values)})" for key, values in rows]
    clause = tree.otherwise_of(choice)
    kept = file.lines[tree.start_line(clause) - 1 : tree.end_line(clause)] if clause is not None else []
    taken = f"{indent}{writer.style.indent}{', '.join(names)} = {name}[{variable}]"
    looked_up = [f"{indent}if {variable} in {name}:", taken, *rest, *kept]
    held = dict(zip(names, columns, strict=True))
    return _looking_up(table, asked, variable, name, entries, looked_up, lines, held)


def _looking_up(
    table: Table,
    asked: Column,
    variable: str,
    name: str,
    entries: Sequence[str],
    looked_up: Sequence[str],
    lines: range,
    held: Mapping[str, Column],
) -> Candidate:
    """The candidate that puts a table above the loops around branches, and what looks into it in the place of their
    lines; `held`: what the table has, by its names."""
    file = table.copies[0].file
    choice = file.tree.parent[table.copies[0].statements[0]]
    above = _outermost_loop(file, choice)
    at = file.tree.start_line(above)
    made = writer_for(file).table(name, entries, leading_space(file, above))
    if above == choice:
        edits = [Edit(lines.start, lines.stop - 1, (*made, *looked_up))]
    else:
        edits = [Edit(at, at - 1, tuple(made)), Edit(lines.start, lines.stop - 1, tuple(looked_up))]
    return Candidate(
        kind="table",
        title=f"A table {name} in place of {len(table.copies)} branches",
        file=file,
        edits=tuple(edits),
        claim=LookedUp(file.path, name),
        slots=(SlotColumn(variable, asked.values), *(SlotColumn(n, c.values) for n, c in held.items())),
        table=table,
        name=name,
    )


def _column_at(table: Table, statement: int) -> Column:
    """What differs in a statement of the first branch."""
    stop = table.copies[0].file.tree.end[statement]
    return next(c for c in table.columns if any(statement <= s.nodes[0] < stop for s in c.spots))


def _are_plain(table: Table) -> bool:
    """True where literals differ as a whole, and nothing follows from anything."""
    return not table.derived and all(s.is_plain for c in table.columns for s in c.spots)


def _variable(first: Copy) -> str:
    """The variable that the first branch's test compares with a literal; "" where it asks for something else."""
    tree, test = first.file.tree, first.statements[0]
    sides = list(tree.children(test))
    compared = len(sides) == len(("variable", "==", "literal")) and tree.text[sides[1]] == "=="
    plain = compared and tree.kind[sides[0]] == first.file.language.name
    return tree.text[sides[0]] if plain else ""


def _called(first: Copy) -> str:
    """The variable that each branch gives a value; "" where they do something else."""
    given = given_value(first.file.tree, first.statements[1])
    return first.file.tree.text[given[0]] if given else ""


def _otherwise(file: ProgramFile, choice: int, table: Table, variable: str) -> tuple[int, str, tuple[str, ...]]:
    """(the last statement of the choice, what is given for anything else or "", the lines of an `else` that stays)."""
    tree = file.tree
    choices = list(dict.fromkeys(tree.parent[copy.statements[0]] for copy in table.copies))
    chained = len(choices) > 1 and tree.kind[choices[1]] == "elif_clause"
    if chained and choices != tree.branches_of(choice):
        raise CannotWrite("not all of the branches ask for a literal")
    last = choice if chained else choices[-1]
    clause = tree.otherwise_of(choice)
    around = file.block_at.get(tree.parent[last])
    if around is None:
        raise CannotWrite("the branches stand in a place that cannot be read")
    block = around.statements
    behind = block[block.index(last) + 1 :][:1]
    done = table.copies[0].statements[1]
    if clause is not None:
        inside = next((file.block_at[c].statements for c in tree.children(clause) if c in file.block_at), ())
        value = _value(file, done, inside[0], variable) if len(inside) == 1 else ""
        lines = file.lines[tree.start_line(clause) - 1 : tree.end_line(clause)]
        return last, value, () if value else tuple(lines)
    if tree.kind[done] == file.language.returning and behind:
        value = _value(file, done, behind[0], variable)
        return (behind[0] if value else last), value, ()
    return last, "", ()


def _value(file: ProgramFile, done: int, other: int, variable: str) -> str:
    """The literal, or the variable that is asked for, that another statement gives, which is like the branches' but for
    that; "" for any other statement."""
    tree, language = file.tree, file.language
    if tree.text[other]:
        return ""
    values = [[c for c in tree.children(s) if tree.text[c] != ";"][-1] for s in (done, other)]
    before = [tree.source[tree.start_byte[s] : tree.start_byte[v]] for s, v in zip((done, other), values, strict=True)]
    known = tree.kind[values[1]] in language.numbers | language.strings | language.constants
    plain = known or tree.text[values[1]] == variable
    return tree.source_of(values[1]) if plain and before[0] == before[1] else ""


def _outermost_loop(file: ProgramFile, choice: int) -> int:
    """The outermost loop of its procedure around a choice: what never changes is made before it; else the choice."""
    above = choice
    for parent in file.parents(choice):
        if file.tree.kind[parent] in file.language.procedures | file.language.classes:
            break
        if file.tree.kind[parent] in file.language.loops:
            above = parent
    return above
