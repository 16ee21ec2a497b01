"""From a repeated block, or one stretch of a long procedure, to a function and its calls."""

from __future__ import annotations

import re
from collections.abc import Iterable, Sequence

import msgspec

from ..errors import CannotWrite, TooMuch
from ..languages.writers import writer_for
from ..languages.writing import Variable, Writer, leading_space
from ..program.flow import flow_of, has_no_value_yet, needed_by, summaries_of
from ..program.members import members_named
from ..program.names import Role
from ..program.program import Procedure, ProgramFile
from ..program.shapes import given_value, variables_of
from ..program.together import Sharing
from ..program.types import Type
from ..records import SlotColumn
from ..repeats.columns import Column, Spot
from ..repeats.judge import MOST_PARAMETERS, jumps_out
from ..repeats.known import gives_a_value
from ..repeats.slots import Copy, Table
from .candidate import Candidate
from .edits import Edit, closers_behind, require_whole_lines
from .first_values import first_values, is_the_same_elsewhere, is_throughout
from .given_back import WIDEST_RETURN, given_back
from .insertion import at_the_end, definition_edit, last_prototype
from .leaving import Exit
from .naming import Namer, differing_words
from .proof import CalledFunction, LeavingFunction, NewFunction
from .sharing import class_around, home_for, in_a_class, in_several_files, refuse_apart, with_module_variables
from .text import body_lines, heading_of, in_terms_of, told_order
from .typed import column_type, handed_on, only_looked_at, variable_type, with_fractions
from .words import words_of

MOST_RESULTS = 4


class Interface(msgspec.Struct, frozen=True, eq=False):
    """What a function takes and gives: names in the body, and what each copy calls them."""

    parameters: tuple[Variable, ...]
    arguments: tuple[tuple[str, ...], ...]
    """One tuple of expressions a copy."""
    returned: tuple[Variable, ...]
    targets: tuple[tuple[str, ...], ...]
    filled: dict[Column, str]
    names: dict[Column, str]
    """What people are told each column is called."""
    declared: tuple[Variable, ...] = ()
    """Variables that the function must declare, because the copies did not."""
    dropped: frozenset[int] = frozenset()
    """Statements of the first copy in whose place values are given."""
    uses_object: bool = False
    """It needs the object to whose class the copies belong."""
    outer: tuple[str, ...] = ()
    """Variables of the program that it changes, where a function has to say so."""


class Asked(msgspec.Struct, frozen=True):
    """What an assignment says of a function: how many parameters at most, and the words of its purpose."""

    parameters: int = 0
    words: tuple[str, ...] = ()


ANY = Asked()
OUT_OF_LOOPS = frozenset({"break_statement", "continue_statement"})


def function_candidate(
    table: Table,
    kind: str = "function",
    comment: str = "",
    name: str = "",
    asked: Asked = ANY,
    leaving: Exit | None = None,
    besides: Iterable[str] = (),
) -> Candidate:
    """The function for the copies of a table; variables of the program are given to it where it is `asked` for more
    parameters than it needs otherwise; `leaving`: how the copies leave what they stand in, where the function is to
    tell its callers when to; `besides`: names that other functions are given at the same time. Raises CannotWrite
    where it cannot be put into code."""
    table = _with_whole_texts(with_fractions(table))
    copies = table.copies
    file = copies[0].file
    apart = any(copy.file is not file for copy in copies) or _in_several_classes(copies)
    sharing = refuse_apart(copies) if apart else None
    if leaving is None and any(file.tree.kind[jump] in OUT_OF_LOOPS for jump in jumps_out(copies[0])):
        raise CannotWrite("the copies leave a loop they stand in")
    require_whole_lines(copies)
    writer = writer_for(file)
    namer = Namer(file, writer.style, besides=besides)
    try:
        interface = _interface(table, namer.inside(copies[:1], table.columns), sharing, asked)
    except TooMuch:
        interface = _interface(table, namer.inside(copies[:1], table.columns), sharing, asked, few=True)
    if apart and leaving is not None:
        raise CannotWrite("the copies leave what they stand in")
    if apart and interface.uses_object:
        raise CannotWrite("the copies use the objects they belong to")
    heading, unlike = heading_of(copies)
    comment = comment or heading
    returned = [v.name for v in interface.returned]
    given = [p.name for p in interface.parameters]
    if not name and kind == "step":
        name = namer.step(copies[0], comment, returned, given)
    name = name or namer.function(copies[0], comment, returned, differing_words(table), given, unlike)
    home = _own_class(copies, interface)
    if sharing is Sharing.CLASS or (home and not apart):
        beside = _member_around(copies[0])
    else:
        beside = 0 if apart else beside_which(copies)
    inner = writer.function_indent(beside) + writer.style.indent
    body = body_lines(writer, copies[0], interface.filled, inner, interface.dropped, derived=table.derived)
    body = _with_declarations(writer, body, interface, inner)
    if interface.outer:
        body = [inner + writer.outer_declaration(interface.outer), *body]
    if leaving is not None:
        body = leaving.body(body, writer, returned)
    given_object = [Variable(file.language.own_object)] if home and file.language.object_is_given else []
    lines = writer.function(name, [*given_object, *interface.parameters], body, interface.returned, beside)
    calls = _calls(table, interface, writer, name, bool(home), leaving, body)
    order = told_order(copies)
    times = f"called in {len(copies)} places{order}" if len(copies) > 1 else "for this step"
    declared = tuple(v.name for v in interface.declared)
    whole = Candidate(
        kind=kind,
        title=f"A {'method' if home else 'function'} {name}({', '.join(given)}), {times}",
        file=file,
        edits=(),
        claim=NewFunction(file.path, name, declared, home)
        if leaving is None
        else LeavingFunction(file.path, name, leaving.how, declared, home),
        slots=tuple(SlotColumn(interface.names.get(c, c.values[0]), c.values) for c in table.columns),
        table=table,
        name=name,
        parameters=tuple(given),
    )
    if sharing is Sharing.CLASS:
        return in_a_class(
            whole, copies, calls, lines, declared, definition_edit(file, copies, lines, writer.style, beside)
        )
    if sharing is not None:
        lines[0] = lines[0].removeprefix("Private ")
        return in_several_files(whole, copies, calls, home_for(copies, sharing, writer, name, lines), declared)
    returning = copies if len(interface.returned) == 1 and kind == "function" and leaving is None else ()
    plain = msgspec.structs.replace(whole, edits=(*definition_edits(copies, lines, writer, beside), *calls))
    longer = given_back(plain, returning)
    shorter = _giving_its_value(copies, interface, lines)
    if not shorter:
        return longer
    edits = (*definition_edits(copies, shorter, writer, beside), *calls)
    return given_back(msgspec.structs.replace(plain, edits=edits, plainer=longer), returning)


def _with_whole_texts(table: Table) -> Table:
    """The table with texts as one column that have nothing but signs in common: `"1. Are you cold?"`."""
    inside: dict[int, list[Column]] = {}
    for column in table.columns:
        if len(column.spots) == 1 and column.spots[0].group >= 0:
            inside.setdefault(column.spots[0].nodes[0], []).append(column)
    columns = list(table.columns)
    for found in inside.values():
        nodes = found[0].spots[0].nodes
        texts = tuple(c.file.tree.source_of(n) for c, n in zip(table.copies, nodes, strict=True))
        rest = texts[0]
        for column in found:
            rest = rest.replace(column.values[0].strip("\"'"), "", 1)
        if len(found) > 1 and not any(sign.isalpha() for sign in rest) and texts[0][:1] in "\"'":
            columns[columns.index(found[0])] = Column(values=texts, spots=(Spot(nodes),))
            columns = [c for c in columns if c not in found]
    return msgspec.structs.replace(table, columns=tuple(columns)) if len(columns) < len(table.columns) else table


def definition_edits(copies: Sequence[Copy], lines: Sequence[str], writer: Writer, beside: int) -> list[Edit]:
    """What puts the lines of a new function into the file of the copies."""
    file = copies[0].file
    told = last_prototype(file)
    if not told or beside:
        return [definition_edit(file, copies, lines, writer.style, beside)]
    head = lines[0].rstrip(" {")
    line = file.tree.end_line(told)
    return [Edit(line + 1, line, (f"{head};",)), at_the_end(file, lines, writer.style)]


def _giving_its_value(copies: Sequence[Copy], interface: Interface, lines: Sequence[str]) -> list[str]:
    """The lines of a function that ends in a variable's value, giving the value back at once; [] for any other."""
    copy = copies[0]
    file, tree, last = copy.file, copy.file.tree, copy.last
    if len(interface.returned) != 1 or file.language.by_reference or not file.language.returning:
        return []
    name = interface.returned[0].name
    value = given_value(tree, last, for_good=True)
    simple = value is not None and tree.kind[value[1]] not in {file.language.name, "expression_list", "tuple"}
    declares_it = file.language.declares and tree.kind[last] != "declaration"
    if not simple or tree.start_line(last) != tree.end_line(last) or (declares_it and interface.declared):
        return []
    ending = [k for k, line in enumerate(lines) if re.fullmatch(rf"\s*return {re.escape(name)};?", line)]
    if not ending:
        return []
    at = ending[-1]
    above = lines[at - 1]
    parts = re.fullmatch(rf"(\s*)(?:[^=]*[^\w=])?{re.escape(name)}(?:\s*:[^=]+)?\s*=(?!=)\s*(.+)", above)
    if parts is None or len(above) > WIDEST_RETURN:
        return []
    return [*lines[: at - 1], f"{parts[1]}return {parts[2]}", *lines[at + 1 :]]


def _calls(
    table: Table,
    interface: Interface,
    writer: Writer,
    name: str,
    is_method: bool,
    leaving: Exit | None,
    body: Sequence[str],
) -> list[Edit]:
    """The call that each copy becomes."""
    copies, language = table.copies, table.copies[0].file.language
    returned = [v.name for v in interface.returned]
    edits = []
    for k, copy in enumerate(copies):
        indent = leading_space(copy.file, copy.first)
        declares = _declaring_words(copy, interface.targets[k])
        arguments = [
            writer.argument(p.name, v) for p, v in zip(interface.parameters, interface.arguments[k], strict=True)
        ]
        called = f"{language.own_object}.{name}" if is_method and not language.bare_members else name
        call = writer.call(called, arguments, interface.targets[k], indent, declares)
        kept = _comments_of(copy, copies[0]) if k else []
        call += closers_behind(copy)
        done = leaving.call(call, interface.targets[k], returned, body, writer) if leaving is not None else [call]
        edits.append(Edit(copy.start_line, copy.end_line, (*(f"{indent}{c}" for c in kept), *done)))
    return edits


def _in_several_classes(copies: Sequence[Copy]) -> bool:
    """True where functions are methods, and the copies stand in more than one class."""
    return copies[0].file.language.methods and len({class_around(copy) for copy in copies}) > 1


def _own_class(copies: Sequence[Copy], interface: Interface) -> str:
    """The class whose method the function has to be, because the copies use their object; "" where they use none."""
    if not interface.uses_object:
        return ""
    file, tree = copies[0].file, copies[0].file.tree
    homes = {class_around(copy) for copy in copies}
    methods = [file.procedure_around(copy.first) for copy in copies]
    own = file.language.own_object
    given = all(m.parameters[:1] == (own,) for m in methods) or not file.language.object_is_given
    # What stands above a method may take its object away, where that is handed on by name.
    plain = all(m.in_class and not (m.decorated and file.language.object_is_given) for m in methods)
    if len(homes) > 1 or not given or not plain:
        raise CannotWrite("it would have to be a method of several classes")
    named = tree.child(homes.pop(), file.language.name_field)
    return tree.text[named] if named is not None else ""


def beside_which(copies: Sequence[Copy]) -> int:
    """The method beside which a new one is to stand: the first copy's, or one without an object if any copy
    stands in such a one."""
    file = copies[0].file
    if not file.language.methods:
        return 0
    members = [_member_around(copy) for copy in copies]
    return next((m for m in members if "static" in file.words_before_name(m)), members[0])


def _member_around(copy: Copy) -> int:
    file, tree = copy.file, copy.file.tree
    around = [p for p in file.parents(copy.first) if tree.kind[p] in file.language.procedures]
    member = next((p for p in around if tree.kind[tree.parent[tree.parent[p]]] in file.language.classes), None)
    if member is None:
        raise CannotWrite("the copies stand in no method of a class")
    return member


def _declaring_words(copy: Copy, targets: Sequence[str]) -> str:
    """The words with which a copy declares the variable that the call gives a value to; "" where it does not."""
    tree = copy.file.tree
    for s in copy.statements:
        if tree.kind[s] != "declaration":
            continue
        for part in tree.children(s):
            left = tree.child(part, "left") if tree.kind[part] == "declarator" else part
            if left is None or tree.text[left] not in targets:
                continue
            if any(tree.kind[c] == "dimensions" for c in tree.children(part)):
                raise CannotWrite("a function gives back an array that is declared in an unusual way")
            first = next(iter(tree.children(part))) if tree.kind[part] == "declarator" else part
            words: list[str] = []
            for c in tree.children(s):
                if tree.kind[c] == "declarator" or c in (part, first):
                    break
                words += tree.leaf_texts(c)
            return " ".join(words)
    return ""


def _with_declarations(writer: Writer, body: list[str], interface: Interface, indent: str) -> list[str]:
    """The body with its variables declared: where it first gives them a value, or else above."""
    above = []
    for variable in interface.declared:
        declaration = writer.declaration(variable)
        declared = declaration.removesuffix(";")
        start = f"{indent}{variable.name} = "
        at = next((k for k, line in enumerate(body) if line.startswith(start)), None)
        mentioned = at is not None and any(variable.name in line for line in body[:at])
        if at is None or mentioned or not declared.endswith(f" {variable.name}"):
            above.append(f"{indent}{declaration}")
        else:
            body = [*body[:at], f"{indent}{declared}{body[at][len(start) - 3 :]}", *body[at + 1 :]]
    return [*above, *body]


def call_candidate(table: Table, known: Procedure) -> Candidate:
    """Calls of a function that is there already, in place of copies of its body (the table's first copy)."""
    home = table.copies[0].file
    copies = table.copies[1:]
    file = copies[0].file
    require_whole_lines(copies)
    writer, of_home = writer_for(file), writer_for(home)
    columns = {column.values[0]: column for column in table.columns}
    last = table.copies[0].statements[-1]
    gives = gives_a_value(home, last)
    returned = [] if gives else _returned(home, known)
    edits = []
    for k, copy in enumerate(copies, 1):
        values = {name: column.values[k] for name, column in columns.items()}
        indent = leading_space(file, copy.first)
        arguments = [of_home.argument_of(known.node, j, values.get(p, p)) for j, p in enumerate(known.parameters)]
        targets = [_given_variable(copy)] if gives else [values.get(r, r) for r in returned]
        call = writer.call(known.name, arguments, targets, indent, _declaring_words(copy, targets))
        call += closers_behind(copy)
        kept = [f"{indent}{c}" for c in _comments_of(copy, table.copies[0])]
        edits.append(Edit(copy.start_line, copy.end_line, (*kept, call)))
    places = "in one place" if len(copies) == 1 else f"in {len(copies)} places"
    return Candidate(
        kind="function",
        title=f"{known.name}, which is there already{f' in {home.path}' if home is not file else ''}, called {places}",
        file=file,
        edits=tuple(edits),
        claim=CalledFunction(file.path, known.name, home.path if home is not file else ""),
        slots=tuple(SlotColumn(c.values[0], c.values) for c in table.columns),
        table=table,
        name=known.name,
    )


def _given_variable(copy: Copy) -> str:
    """The variable to which a copy's last statement gives what a function would return."""
    tree = copy.file.tree
    given = given_value(tree, copy.statements[-1], for_good=True)
    if given is None:
        raise CannotWrite("the copies do something else with what the function gives back")
    return tree.text[given[0]]


def _returned(file: ProgramFile, known: Procedure) -> list[str]:
    """The names that a function's last statement returns."""
    tree = file.tree
    block = file.body_of(known)
    last = block.statements[-1] if block else None
    if last is None or tree.kind[last] != file.language.returning:
        return []
    names = list(file.names.within(last, tree.end[last]))
    if len(names) != sum(tree.kind[n] == file.language.name for n in range(last, tree.end[last])):
        raise CannotWrite("the function gives back something else than its variables")
    return [tree.text[i] for i in names]


def _interface(
    table: Table, namer: Namer, sharing: Sharing | None = None, asked: Asked = ANY, few: bool = False
) -> Interface:
    """What the function takes and gives; with `few` it uses the program's loop variables where they stand. Raises
    TooMuch where that is too much for a function."""
    copies = table.copies
    scopes = [_scope(copy) for copy in copies]
    renames = [
        {c.values[0]: c.values[k] for c in table.columns if c.is_name and _is_variable(c)} for k in range(len(copies))
    ]
    file = copies[0].file
    own_object = file.language.own_object
    uses_object = file.language.declares and not file.language.methods and _uses_object(copies)
    if uses_object and not own_object:
        raise CannotWrite("the copies use the object they belong to")
    inputs = _inputs(copies[0], scopes[0], few)
    kept = sharing in (Sharing.IMPORT, Sharing.REQUIRE, Sharing.CLASS)
    table = with_module_variables(table) if kept else table
    inputs = [n for n in inputs if not _only_in_slots(copies[0], n, table)]
    lent = _lent(table, scopes[0])
    borrowed = _borrowed(table, scopes[0]) - lent
    lent |= borrowed
    inputs += sorted(borrowed.difference(inputs), key=lambda n: _order_of_names(copies[0]).get(n, 0))
    results = _results(copies, scopes, renames, lent)
    inputs += _of_the_program(copies[0], scopes[0], inputs, asked, asked.parameters - len(table.columns))
    inputs += _kept_values(copies[0], scopes[0], [r for r in results if r not in inputs and r not in lent])
    inputs = [n for n in inputs if not _is_unset(copies, scopes, [names.get(n, n) for names in renames])]
    first_line_order = _order_of_names(copies[0])
    parameters: list[tuple[int, Variable, tuple[str, ...]]] = []
    for name in inputs:
        if name == own_object and file.language.object_is_given:
            uses_object = True
            continue
        values = tuple(renames[k].get(name, name) for k in range(len(copies)))
        kind = variable_type(file, name, 0 if name in lent else scopes[0])
        if file.language.fixed_parameters and _assigned(copies[0], name):
            raise CannotWrite(f"the function would have to change {name}, which is given to it")
        uses = [i for i in file.names.within(*copies[0].span) if file.tree.text[i] == name]
        looked_at = all(only_looked_at(file, i) for i in uses)
        parameter = Variable(name, handed_on(kind, file, looked_at) if kind else None)
        parameters.append((first_line_order.get(name, 0), parameter, values))
    of_copies = len(parameters)
    filled: dict[Column, str] = {}
    given: dict[str, Column] = {}
    called: dict[str, str] = {}
    """What the first copy's variables are called in the function, where the copies call them otherwise."""
    given_first = first_values(table, table.columns, [*inputs, *results], True) if len(copies) > 1 else {}
    first_given = {name for name, _ in given_first.values()}
    told = {w for c in table.columns if not c.is_target for w in words_of(c.values[0])}
    writer = writer_for(file)
    # What the copies call their variables is no name for anything else.
    for column in sorted(table.columns, key=lambda c: not _is_variable(c)):
        if _is_variable(column):
            if column.values[0] not in inputs and not _assigned(copies[0], column.values[0]):
                raise CannotWrite("the copies use different variables in ways that do not match")
            own = column.values[0]
            if is_throughout(column, table):
                if own in first_given:
                    called[own] = namer.first_given(column, copies)
                elif own in inputs:
                    called[own] = namer.neutral(column, copies)
                else:
                    called[own] = namer.own(column, copies, own in results, told)
            elif is_the_same_elsewhere(column, copies[0]):
                raise CannotWrite(f"{own} is one variable in one copy and two in another")
            filled[column] = called.get(own, own)
            continue
        if column.is_target:
            raise CannotWrite("the copies change different things")
        if column in given_first:
            own = called.get(given_first[column][0], given_first[column][0])
            given_first[column] = (own, given_first[column][1])
            parameters.append((given_first[column][1], Variable(own), column.values))
            given[own] = column
            continue
        follows = in_terms_of(file, column, given, table.columns)
        if follows is not None:
            filled[column] = writer.linear(follows[0], 1, follows[1])
            continue
        _require_given_early(copies, column)
        name = namer.column(column, copies, table.columns)
        filled[column] = name
        given[name] = column
        parameter = Variable(name, column_type(column, copies))
        parameters.append((min(s.nodes[0] for s in column.spots), parameter, column.values))
    # What differs has a name of its own, whatever the copies call their variables.
    parameters[:of_copies] = [(at, _renamed(own, called), values) for at, own, values in parameters[:of_copies]]
    if file.language.references and (len(results) > 1 or _is_a_reference(file, set(results) - lent, scopes[0])):
        parameters += _references(copies, results, renames, parameters, called, scopes[0], lent)
        inputs, results = [*inputs, *results], []
    parameters.sort(key=lambda p: p[0])
    if len(parameters) > MOST_PARAMETERS:
        raise TooMuch(f"the function would need {len(parameters)} parameters")
    if len(results) > (1 if file.language.declares else MOST_RESULTS):
        raise TooMuch(f"the function would have to return {len(results)} values")
    if "cls" in inputs:
        raise CannotWrite("it would have to be a method of the class")
    return Interface(
        tuple(p[1] for p in parameters),
        tuple(tuple(p[2][k] for p in parameters) for k in range(len(copies))),
        tuple(_renamed(Variable(r, variable_type(file, r, 0 if r in lent else scopes[0])), called) for r in results),
        tuple(tuple(renames[k].get(r, r) for r in results) for k in range(len(copies))),
        filled,
        {**filled, **{column: name for column, (name, _) in given_first.items()}},
        tuple(_renamed(v, called) for v in _undeclared(copies[0], scopes[0], inputs, lent)),
        frozenset(statement for _, statement in given_first.values()),
        uses_object,
        _changed_outside(copies[0], scopes[0], lent),
    )


def _is_a_reference(file: ProgramFile, results: Iterable[str], scope: int) -> bool:
    """True for results of which one is a reference already."""
    kinds = [variable_type(file, name, scope) for name in results]
    return any(kind is not None and kind.reference for kind in kinds)


def _references(
    copies: Sequence[Copy],
    results: Sequence[str],
    renames: Sequence[dict[str, str]],
    parameters: list[tuple[int, Variable, tuple[str, ...]]],
    called: dict[str, str],
    scope: int,
    lent: frozenset[str],
) -> list[tuple[int, Variable, tuple[str, ...]]]:
    """Parameters that are other names of the variables which the copies change, in place of several results; the
    `parameters` that are such variables already become references."""
    order = _order_of_names(copies[0])
    declared_inside = {name for copy in copies for name in _declared(copy)}
    given = {variable.name: k for k, (_, variable, _) in enumerate(parameters)}
    found: list[tuple[int, Variable, tuple[str, ...]]] = []
    for result in results:
        kind = variable_type(copies[0].file, result, 0 if result in lent else scope)
        values = tuple(names.get(result, result) for names in renames)
        if kind is None or kind.dimensions or kind.base in {"auto", "var"} or set(values) & declared_inside:
            raise TooMuch(f"the function would have to return {len(results)} values")
        own = Variable(called.get(result, result), Type(kind.base, kind.pointers, (), True))
        if own.name in given:
            at, _, arguments = parameters[given[own.name]]
            parameters[given[own.name]] = (at, own, arguments)
        else:
            found.append((order.get(result, 0), own, values))
    return found


def _is_unset(copies: Sequence[Copy], scopes: Sequence[int], names: Sequence[str]) -> bool:
    """True for a variable that no copy finds a value in: the function can declare one of its own."""
    return all(
        has_no_value_yet(copy.file, scope, name, *copy.span)
        for copy, scope, name in zip(copies, scopes, names, strict=True)
    )


def _renamed(variable: Variable, called: dict[str, str]) -> Variable:
    return msgspec.structs.replace(variable, name=called.get(variable.name, variable.name))


def _uses_object(copies: Sequence[Copy]) -> bool:
    """True where the copies mention the object to whose class they belong, or a member of it by its bare name."""
    file = copies[0].file
    mentioned = any(kind in {"this", "super"} for c in copies for kind in file.tree.kind[c.span[0] : c.span[1]])
    return mentioned or (file.language.bare_members and any(members_named(file, c.statements) for c in copies))


def _written(copy: Copy, scope: int, lent: frozenset[str] = frozenset()) -> set[str]:
    """Variables of `scope`, and those `lent` by the program, that a copy gives values to itself, not only a function in
    it that runs later."""
    file, names = copy.file, copy.file.names
    return {
        file.tree.text[i]
        for i in names.within(*copy.span)
        if names.role[i] in (Role.WRITE, Role.UPDATE)
        if names.owner(i) == scope or (file.tree.text[i] in lent and names.owner(i) == 0)
        if names.scope[i] == scope or not file.language.functions_keep_variables
    }


def _lent(table: Table, scope: int) -> frozenset[str]:
    """Variables of the program that each copy gives a value under another name, where that can be done a little later:
    the function gives the value back."""
    first = table.copies[0]
    if not first.file.language.changes_unseen or not scope:
        return frozenset()
    tree = first.file.tree
    given = [pair for pair in (given_value(tree, s) for s in first.statements) if pair is not None]
    anew = [pair for pair in given if tree.text[pair[0]] not in tree.text[pair[1] : tree.end[pair[1]]]]
    certain = {tree.text[pair[0]]: pair[0] for pair in reversed(anew)}
    order = _order_of_names(first)
    targets = {c.values[0] for c in table.columns if _is_variable(c)}
    return frozenset(
        name
        for name in targets
        if first.file.names.owner_of(name, scope) == 0 and name in certain and certain[name] == order.get(name)
    )


def _borrowed(table: Table, scope: int) -> frozenset[str]:
    """Variables of the program that each copy reads and changes under another name: the function is given the value,
    and gives it back. Where a function has to say which variables of the program it changes, so are all of them."""
    first = table.copies[0]
    file, names = first.file, first.file.names
    if not file.language.changes_unseen or not scope:
        return frozenset()
    targets = {c.values[0] for c in table.columns if _is_variable(c) and is_throughout(c, table)}
    lent = frozenset(name for name in targets if names.owner_of(name, scope) == 0)
    if not lent or file.language.declares:
        return lent
    written = {file.tree.text[i] for i in names.within(*first.span) if names.role[i] in (Role.WRITE, Role.UPDATE)}
    return lent | {name for name in written if names.owner_of(name, scope) == 0}


def _changed_outside(copy: Copy, scope: int, lent: frozenset[str]) -> tuple[str, ...]:
    """Variables of the program that a copy in a function changes, where a function has to say so; those that are `lent`
    are given back instead."""
    file, names = copy.file, copy.file.names
    if not scope or not file.language.outer_declarations:
        return ()
    order = _order_of_names(copy)
    written = {file.tree.text[i] for i in names.within(*copy.span) if names.role[i] in (Role.WRITE, Role.UPDATE)}
    outer = {name for name in written - lent if names.owner_of(name, scope) == 0}
    return tuple(sorted(outer, key=lambda name: order.get(name, 0)))


def _declared(copy: Copy) -> set[str]:
    """Variables that a copy declares."""
    names, tree = copy.file.names, copy.file.tree
    return {tree.text[i] for i in names.within(*copy.span) if names.declared_at(i)}


def _undeclared(copy: Copy, scope: int, inputs: Sequence[str], lent: frozenset[str]) -> tuple[Variable, ...]:
    """Variables around the copy that it gives values to without needing their old ones."""
    file = copy.file
    if not file.language.declares:
        return ()
    declared = _declared(copy)
    written = _written(copy, scope, lent)
    order = _order_of_names(copy)
    return tuple(
        Variable(n, variable_type(file, n, 0 if n in lent else scope))
        for n in sorted(written - declared - set(inputs), key=lambda n: order[n])
    )


def _is_variable(column: Column) -> bool:
    """The column renames a variable that the copies assign to."""
    return column.is_name and column.is_target


def _require_given_early(copies: Sequence[Copy], column: Column) -> None:
    """A variable that a copy itself gives its value, before it is used, cannot be given to the function. Raises
    CannotWrite."""
    for k, (copy, value) in enumerate(zip(copies, column.values, strict=True)):
        tree, names = copy.file.tree, copy.file.names
        last = max(spot.nodes[k] for spot in column.spots)
        if tree.text[last] != value or copy.is_reordered:
            continue
        above = [s for s in copy.statements if tree.end[s] <= last]
        loops = [p for p in copy.file.parents(last) if p >= copy.first and tree.kind[p] == "for_statement"]
        turned = [tree.child(loop, "left") for loop in loops]
        for node in [*above, *(left for left in turned if left is not None and left < last)]:
            written = (i for i in names.within(node, tree.end[node]) if names.role[i] in (Role.WRITE, Role.UPDATE))
            if any(tree.text[i] == value for i in written):
                raise CannotWrite(f"{value} changes between the copies")


def _scope(copy: Copy) -> int:
    return copy.file.procedure_around(copy.statements[0]).node


def _assigned(copy: Copy, name: str) -> bool:
    names, tree = copy.file.names, copy.file.tree
    return any(tree.text[i] == name and names.role[i] in (Role.WRITE, Role.UPDATE) for i in names.within(*copy.span))


def _only_in_slots(copy: Copy, name: str, table: Table) -> bool:
    """True where the first copy mentions `name` nowhere but inside values that differ."""
    tree = copy.file.tree
    spans = [
        (spot.nodes[0], tree.end[spot.nodes[0]])
        for column in table.columns
        if not _is_variable(column)
        for spot in column.spots
    ]
    names = copy.file.names
    uses = [i for i in names.within(*copy.span) if tree.text[i] == name and names.role[i] <= Role.DECLARATION]
    return all(any(start <= i < stop for start, stop in spans) for i in uses)


def _inputs(copy: Copy, scope: int, few: bool) -> list[str]:
    """Variables the copy needs from around it; constants and what the module shares are left there, with `few` also
    what only a loop changes."""
    file = copy.file
    needed = needed_by(file, scope, copy.statements)
    if scope == 0:
        names, tree = file.names, file.tree
        here = {tree.text[i] for i in names.within(*copy.span) if names.scope[i] == scope}
        inner = file.language.functions_keep_variables
        needed = frozenset(
            n for n in needed if (n in here or not inner) and (_assigned(copy, n) or _changes(file, n, few))
        )
    return sorted(needed, key=lambda n: _order_of_names(copy).get(n, 0))


def _of_the_program(copy: Copy, scope: int, inputs: Sequence[str], asked: Asked, most: int) -> list[str]:
    """Variables of the program that a copy only reads, where no more than the `most` parameters come of them; of more
    those that the purpose speaks of first."""
    if most <= len(inputs):
        return []
    file = copy.file
    names, tree = file.names, file.tree
    found = (i for i in names.within(*copy.span) if names.role[i] is Role.READ and names.owner(i) == 0)
    plain = variables_of(file)
    used = dict.fromkeys(tree.text[i] for i in found if tree.text[i] in plain and tree.text[i] not in inputs)
    read = [n for n in used if not n.isupper() and not _assigned(copy, n)]
    needed = [n for n in read if scope or n in needed_by(file, 0, copy.statements)]
    room = most - len(inputs)
    if len(needed) <= room:
        return needed
    told = {n: min((asked.words.index(w) for w in words_of(n) if w in asked.words), default=-1) for n in needed}
    first = sorted((n for n in needed if told[n] >= 0), key=told.__getitem__)[:room]
    return [n for n in needed if n in first]


def _changes(file: ProgramFile, name: str, by_hand: bool) -> bool:
    """True where the module's `name` is a plain variable that is given a value more than once, as a loop does, or only
    `by_hand`."""
    names, tree = file.names, file.tree
    writes = [
        i
        for i in names.nodes
        if tree.text[i] == name and names.role[i] in (Role.WRITE, Role.UPDATE) and names.owner(i) == 0
    ]
    looped = not by_hand and any(_is_of_a_loop(file, i) for i in writes)
    return (len(writes) > 1 or looped) and not any(
        tree.kind[tree.parent[i]] in file.language.procedures | file.language.imports for i in writes
    )


def _is_of_a_loop(file: ProgramFile, name: int) -> bool:
    """True for a name that a loop over values gives one after the other."""
    tree = file.tree
    while tree.field[name] != "left" and tree.kind[tree.parent[name]] in file.language.patterns:
        name = tree.parent[name]
    return tree.field[name] == "left" and tree.kind[tree.parent[name]] == "for_statement"


def _results(
    copies: Sequence[Copy], scopes: Sequence[int], renames: Sequence[dict[str, str]], lent: frozenset[str]
) -> list[str]:
    """Variables of the first copy that some copy's surroundings need afterwards."""
    order = _order_of_names(copies[0])
    written = _written(copies[0], scopes[0], lent)
    after = [flow_of(copy.file, scope).live_after for copy, scope in zip(copies, scopes, strict=True)]
    if any(copy.last not in after[k] for k, copy in enumerate(copies)):
        raise CannotWrite("what is needed after the copies cannot be told there")
    needed = lent | {
        name for k, copy in enumerate(copies) for name in written if renames[k].get(name, name) in after[k][copy.last]
    }
    alone = {
        n for n in needed if all(_is_only_inside(c, renames[k].get(n, n), scopes[k]) for k, c in enumerate(copies))
    }
    return sorted(needed - (alone - lent), key=lambda n: order[n])


def _is_only_inside(copy: Copy, name: str, scope: int) -> bool:
    """True where only the copy, and functions in it, have to do with a variable."""
    names, tree = copy.file.names, copy.file.tree
    uses = [i for i in names.nodes if tree.text[i] == name and names.owner(i) == scope]
    return all(copy.span[0] <= i < copy.span[1] for i in uses)


def _kept_values(copy: Copy, scope: int, results: Sequence[str]) -> list[str]:
    """Results that the copy does not give a value whatever happens: they may keep the one they had."""
    certain: frozenset[str] = frozenset()
    for summary in summaries_of(copy.file, scope, copy.statements):
        certain |= summary.certain
    return [name for name in results if name not in certain]


def _order_of_names(copy: Copy) -> dict[str, int]:
    order: dict[str, int] = {}
    for i in copy.file.names.within(*copy.span):
        order.setdefault(copy.file.tree.text[i], i)
    return order


def _comments_of(copy: Copy, first: Copy) -> list[str]:
    """Comments inside a copy that the first copy, which becomes the body, does not have."""
    file = copy.file
    known = {c.text for c in file.tree.comments if first.start_line <= c.line <= first.end_line}
    return [c.text for c in file.tree.comments if copy.start_line <= c.line <= copy.end_line and c.text not in known]
