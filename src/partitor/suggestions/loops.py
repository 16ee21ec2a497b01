"""From a repeated run to a loop: which column drives it, what the others are in terms of it."""

from __future__ import annotations

from collections.abc import Sequence

import msgspec

from ..errors import CannotWrite
from ..languages.writers import writer_for
from ..languages.writing import WIDTH, Counting, Listed, LoopText, Turns, Variable, Writer, leading_space, linear
from ..program.names import Role
from ..program.program import ProgramFile
from ..records import SlotColumn
from ..repeats.columns import Column
from ..repeats.counters import are_listable
from ..repeats.judge import most_listed
from ..repeats.moves import following
from ..repeats.private import private_columns
from ..repeats.runs import Run
from ..repeats.slots import Copy, Table
from .accumulators import Accumulator, accumulator_of
from .candidate import Candidate
from .edits import Edit, closers_behind, require_whole_lines
from .families import listed_run, over_lists
from .interrupted import with_further_loops
from .joined_branches import joined_candidate
from .lookups import lookup_candidate
from .naming import Namer
from .proof import NewLoop
from .text import body_lines
from .typed import column_type, with_fractions


class Plan(msgspec.Struct, frozen=True, eq=False):
    """How the loop is to be written."""

    variables: tuple[Variable, ...]
    turns: Turns
    filled: dict[Column, str]
    absorbed: frozenset[int] = frozenset()
    """Assignments of the first copy that the loop's own variables make needless."""
    tables: tuple[tuple[Variable, tuple[str, ...]], ...] = ()
    """Lists that stand before the loop."""


COUNTED = 4
"""Copies from which a number that steps evenly is reckoned from a count, and no longer written out in a list."""


def loop_candidate(run: Run) -> Candidate:
    """The loop for a run, one for each part of it where something interrupts it. Raises CannotWrite where it cannot be
    put into code."""
    if run.is_one_branch:
        return joined_candidate(run.table)
    if run.in_branches:
        return lookup_candidate(run.table)
    return with_further_loops(_one_loop(run), run, _one_loop)


def _one_loop(run: Run) -> Candidate:
    run = msgspec.structs.replace(run, table=with_fractions(run.table))
    table = run.table
    private = private_columns(table)
    targets = [c for c in table.columns if c.is_target and c not in private]
    if targets and all(are_listable(table, c) for c in targets):
        listing, again = listed_run(run)
        return over_lists(_one_loop(again), listing)
    file = table.copies[0].file
    accumulator = None if file.language.declares else accumulator_of(run)
    copies = table.copies
    if accumulator and run.rest:
        copies = (*copies, run.rest)
    first = copies[0]
    require_whole_lines(copies)
    writer = writer_for(file)
    namer = Namer(file, writer.style).for_a_loop(copies)
    own = {c: namer.neutral(c, copies) for c in private}
    varying = msgspec.structs.replace(table, columns=tuple(c for c in table.columns if c not in private))
    plan = _accumulating(accumulator) if accumulator else _plan(varying, namer, writer)
    plan = msgspec.structs.replace(plan, filled={**plan.filled, **own})
    if any(file.tree.start_line(s) in file.shared_lines for s in plan.absorbed):
        raise CannotWrite("several statements share a line there")
    indent = leading_space(file, first.statements[0])
    body = body_lines(writer, first, plan.filled, indent + writer.style.indent, plan.absorbed, derived=table.derived)
    heading_start, heading = _heading(copies, indent, writer)
    loop: LoopText = writer.loop(plan.variables, plan.turns, body, indent, plan.tables)
    lines = (*heading, *loop.lines[:-1], loop.lines[-1] + closers_behind(copies[-1]))
    edits = [Edit(heading_start, copies[-1].end_line, lines)]
    if loop.above:
        edits.append(_where_the_procedure_begins(first, loop.above))
    return Candidate(
        kind="loop",
        title=_title(copies, plan, loop),
        file=file,
        edits=tuple(edits),
        claim=NewLoop(
            file.path,
            heading_start + len(heading) + loop.head + len(loop.above),
            loop.tables,
            loop.declared,
            tuple(own.values()),
        ),
        slots=tuple(
            SlotColumn(plan.filled.get(c, plan.variables[0].name if plan.variables else "value"), c.values)
            for c in table.columns
        ),
        table=table,
    )


def _where_the_procedure_begins(copy: Copy, lines: Sequence[str]) -> Edit:
    """Declarations behind those with which the procedure around a copy begins."""
    file, tree = copy.file, copy.file.tree
    block = file.body_of(file.procedure_around(copy.first))
    statements = block.statements if block else copy.statements
    first = next((s for s in statements if tree.kind[s] != "declaration"), statements[0])
    line = tree.start_line(first)
    if statements.index(first):
        line = tree.end_line(statements[statements.index(first) - 1]) + 1
    return Edit(line, line - 1, tuple(f"{leading_space(file, statements[0])}{text}" for text in lines))


def _accumulating(found: Accumulator) -> Plan:
    """The number that the copies move on drives the loop, and the statement that moves it goes."""
    turns = Counting(found.start, found.step, found.count)
    return Plan((Variable(found.variable),), turns, {}, frozenset({found.statement}))


def _title(copies: Sequence[Copy], plan: Plan, loop: LoopText) -> str:
    if plan.variables and plan.variables[0].name not in loop.lines[loop.head]:
        return f"A loop with {len(copies)} turns in place of the copies"
    # Where it goes through lists by a place, the place is only how.
    head = ", ".join(v.name for v in ([t for t, _ in plan.tables] or plan.variables)[:3])
    return f"A loop over {head} in place of {len(copies)} copies"


def needs_arrays(file: ProgramFile) -> bool:
    """True where a loop over values needs an array of them above it."""
    writer = writer_for(file)
    return writer.lists_by_index and not writer.runs_through_lists


def _plan(table: Table, namer: Namer, writer: Writer) -> Plan:
    irregular = [c for c in table.columns if c.step() is None]
    even = [c for c in table.columns if c.step() is not None]
    if any(c.is_target for c in table.columns):
        raise CannotWrite("the copies give their results to different variables")
    leading = {} if writer.file.language.declares else _leading_assignments(table)
    moved = following(irregular)
    if moved:
        fewer = tuple(c for c in table.columns if c not in moved)
        plan = _plan(msgspec.structs.replace(table, columns=fewer), namer, writer)
        told = {c: writer.linear(plan.filled[base], 1, more) for c, (base, more) in moved.items()}
        return msgspec.structs.replace(plan, filled={**plan.filled, **told})
    if irregular and writer.lists_by_index:
        return _indexed(irregular, even, namer, table, writer)
    if not irregular:
        return _counting(table, even, leading, namer)
    if len(irregular) == 1 and not even:
        return _listing(irregular, leading, namer, table)
    if len(irregular) == 1 and not (set(leading) & set(table.columns)):
        counters = [c for c in even if c.step() == 1]
        if counters and writer.counts_turns:
            return _enumerating(counters[0], irregular[0], even, namer, table)
        if even and writer.counts_turns and len(table.copies) >= COUNTED:
            return _enumerating(None, irregular[0], even, namer, table)
    return _listing([*irregular, *_not_derivable(even)], leading, namer, table, even)


def _not_derivable(even: Sequence[Column]) -> list[Column]:
    return [even[0]] if even else []


def _counting(table: Table, even: Sequence[Column], leading: dict[Column, str], namer: Namer) -> Plan:
    """All columns step evenly (or nothing differs): a range, the others computed from it."""
    count = len(table.copies)
    if not even:
        return Plan((Variable(namer.counter()),), Counting(0, 1, count), {})
    driver = _driver(even, leading)
    if driver is None:
        variable, first, step = namer.counter(), 0, 1
    else:
        assert driver.numbers is not None
        variable = leading.get(driver) or namer.counting(driver, table.copies)
        first, step = driver.numbers[0], driver.step() or 1
        if driver not in leading and step == 1 and len(variable) == 1:
            # A counter that means nothing by itself counts from where the rest is told most simply.
            first = min((first, 1, 0), key=lambda start: _signs(even, start))
    filled = {c: _in_terms_of(table, c, variable, first, step) for c in even}
    absorbed = frozenset({_statement_of(table, driver)}) if driver in leading and driver else frozenset()
    return Plan((Variable(variable),), Counting(first, step, count), filled, absorbed)


def _signs(even: Sequence[Column], first: int) -> int:
    """How much has to be worked out in the loop if its counter goes up by one from `first`."""
    told = [(c, linear("i", c.step() or 0, (c.numbers or (0,))[0] - (c.step() or 0) * first)) for c in even]
    return sum(len(c.spots) * text.count(" ") for c, text in told)


def _indexed(irregular: Sequence[Column], even: Sequence[Column], namer: Namer, table: Table, writer: Writer) -> Plan:
    """One list a column, run through in place where that is possible, else by an index that they share."""
    copies = table.copies
    variables = {c: Variable(namer.column(c, copies), column_type(c, copies, listed=True)) for c in irregular}
    rows = tuple(tuple(c.values[k] for c in irregular) for k in range(len(copies)))
    in_place = not even and (not writer.file.language.typed or len(irregular) == 1)
    if in_place and writer.runs_through_lists:
        filled = {c: v.name for c, v in variables.items()}
        return Plan(tuple(variables.values()), Listed(rows), filled)
    counter = namer.counter()
    tables = []
    filled = {c: _in_terms_of(table, c, counter, 0, 1) for c in even}
    for column, variable in variables.items():
        kind = variable.type
        if kind is not None and (kind.dimensions or kind.reference):
            raise CannotWrite("the values that differ are lists or records themselves")
        listed = kind and msgspec.structs.replace(kind, dimensions=("",))
        name = namer.plural(variable.name)
        tables.append((Variable(name, listed), tuple(column.values)))
        filled[column] = writer.element(name, counter)
    return Plan((Variable(counter),), Counting(0, 1, len(copies)), filled, tables=tuple(tables))


def _driver(even: Sequence[Column], leading: dict[Column, str]) -> Column | None:
    """The column of whose numbers every other is a whole multiple (plus something)."""

    def drives(driver: Column) -> bool:
        step = driver.step() or 1
        return all((other.step() or 0) % step == 0 for other in even)

    fitting = [c for c in even if drives(c)]
    if not fitting:
        return None
    return min(
        fitting,
        key=lambda c: (
            c not in leading,
            abs(c.step() or 1) != 1,
            (c.numbers or (9,))[0] not in (0, 1),
            abs(c.step() or 1),
        ),
    )


def _in_terms_of(table: Table, column: Column, variable: str, first: int, step: int) -> str:
    assert column.numbers is not None
    factor = (column.step() or 0) // step
    if factor < 0 and all(spot.group >= 0 for spot in column.spots):
        # `f"{10 - 3 * row}"` is harder to read than the texts.
        raise CannotWrite("the numbers in the texts count the other way")
    writer = writer_for(table.copies[0].file)
    return writer.linear(variable, factor, column.numbers[0] - factor * first)


def _listing(
    listed: Sequence[Column],
    leading: dict[Column, str],
    namer: Namer,
    table: Table,
    even: Sequence[Column] = (),
) -> Plan:
    """The values in a list, a tuple a turn where there are several."""
    if len(listed) > most_listed(listed, table.copies):
        raise CannotWrite("too many things differ for a readable list")
    own = {c: name for c, name in leading.items() if c in listed}
    absorbed = frozenset(_statement_of(table, c) for c in own)
    variables = {c: own.get(c) or namer.column(c, table.copies, listed) for c in listed}
    order = [*own, *(c for c in listed if c not in own)]
    filled = {c: variables[c] for c in order}
    driver = next((c for c in listed if c in even), None)
    if driver is not None:
        assert driver.numbers is not None
        step = driver.step() or 1
        if any((c.step() or 0) % step for c in even):
            raise CannotWrite("the numbers do not step together")
        for column in even:
            if column is not driver:
                filled[column] = _in_terms_of(table, column, variables[driver], driver.numbers[0], step)
    rows = tuple(tuple(c.values[k] for c in order) for k in range(len(table.copies)))
    return Plan(tuple(Variable(variables[c]) for c in order), Listed(rows), filled, absorbed)


def _enumerating(counter: Column | None, listed: Column, even: Sequence[Column], namer: Namer, table: Table) -> Plan:
    """The values in a list, and a number that counts from the first of a column, or from 0."""
    number = namer.column(counter, table.copies) if counter is not None else namer.counter()
    value = namer.column(listed, table.copies)
    first = counter.numbers[0] if counter is not None and counter.numbers else 0
    filled = {c: _in_terms_of(table, c, number, first, 1) for c in even}
    filled[listed] = value
    rows = tuple((v,) for v in listed.values)
    return Plan((Variable(number), Variable(value)), Listed(rows, first), filled)


def _leading_assignments(table: Table) -> dict[Column, str]:
    """Columns that each copy assigns to a variable before it mentions it, with the variable."""
    first = table.copies[0]
    _file, tree = first.file, first.file.tree
    found: dict[Column, str] = {}
    for statement in first.statements:
        left, right = tree.child(statement, "left"), tree.child(statement, "right")
        if tree.kind[statement] != "assignment" or left is None or right is None or not tree.text[left]:
            continue
        column = next((c for c in table.columns if any(s.nodes[0] == right and s.group < 0 for s in c.spots)), None)
        if column is None or column in found or tree.child(statement, "type") is not None:
            continue
        name = tree.text[left]
        if name in found.values() or _mentioned_before_or_changed(first, statement, name):
            continue
        found[column] = name
    return found if len(found) < len(first.statements) else {}


def _mentioned_before_or_changed(copy: Copy, statement: int, name: str) -> bool:
    names, tree = copy.file.names, copy.file.tree
    start, stop = copy.span
    before = any(tree.text[i] == name for i in names.within(start, statement))
    changed = any(
        tree.text[i] == name and names.role[i] in (Role.WRITE, Role.UPDATE)
        for i in names.within(tree.end[statement], stop)
    )
    return before or changed


def _statement_of(table: Table, column: Column) -> int:
    """The first copy's assignment whose right side is the column's."""
    first = table.copies[0]
    tree = first.file.tree
    rights = {spot.nodes[0] for spot in column.spots if spot.group < 0}
    return next(s for s in first.statements if tree.child(s, "right") in rights)


def _heading(copies: Sequence[Copy], indent: str, writer: Writer) -> tuple[int, list[str]]:
    """First line to replace, and the comment to put above the loop so that none is lost."""
    file = copies[0].file
    start = copies[0].start_line
    alone = {c.last_line: c for c in file.tree.comments if c.alone}
    kept = {c.text for c in file.tree.comments if start <= c.line <= copies[0].end_line}
    lost = [
        c.words for c in file.tree.comments if copies[0].end_line < c.line <= copies[-1].end_line and c.text not in kept
    ]
    lost = list(dict.fromkeys(text for text in lost if text))
    if not lost:
        return start, []
    above = alone.get(start - 1)
    heads = [alone.get(copy.start_line - 1) for copy in copies]
    if above and all(heads):
        own = above.words
        every = [own, *(text for text in lost if text != own)]
        return (start, []) if len(every) == 1 else (above.line, _wrapped(every, indent, writer))
    return start, _wrapped(lost, indent, writer)


def _wrapped(texts: Sequence[str], indent: str, writer: Writer) -> list[str]:
    lines: list[str] = []
    for text in texts:
        if lines and len(lines[-1]) + len(text) + 2 <= WIDTH:
            lines[-1] += f", {text}"
        else:
            lines.append(f"{indent}{writer.comment_mark} {text}")
    return lines
