"""A function for a value that is worked out inside a statement, called in its place."""

from __future__ import annotations

from ..errors import CannotWrite
from ..languages.writers import writer_for
from ..languages.writing import Variable
from ..procedures.wanted import RequiredFunction
from ..program.elements import elements_used
from ..program.names import UNBOUND, Role
from ..program.program import ProgramFile
from ..program.shapes import variables_of
from ..program.types import Type
from ..repeats.columns import Column, Spot
from ..repeats.slots import Copy
from .candidate import Candidate
from .edits import require_whole_lines
from .functions import beside_which, definition_edits
from .named_values import type_of_value, with_value
from .naming import Namer
from .proof import ValueFunction
from .typed import column_type, handed_on, variable_type
from .words import words_of


def value_function(file: ProgramFile, statement: int, value: int, function: RequiredFunction) -> Candidate:
    """The function that gives the value at a node of a statement. Raises CannotWrite where it cannot be put into
    code, or would be given another number of values than is asked for."""
    tree, language, writer = file.tree, file.language, writer_for(file)
    copy = Copy(file, (statement,))
    require_whole_lines([copy])
    given = _given(file, statement, value, function)
    parameters = [Variable(name, kind) for name, kind, _ in given]
    beside = beside_which([copy]) if language.methods else 0
    inner = writer.function_indent(beside) + writer.style.indent
    body = tree.source_of(value)
    spans = sorted(((n, name) for name, _, nodes in given for n in nodes), reverse=True)
    for n, name in spans:
        start, stop = tree.start_byte[n] - tree.start_byte[value], tree.end_byte[n] - tree.start_byte[value]
        body = (body.encode()[:start] + name.encode() + body.encode()[stop:]).decode()
    if language.values_everywhere:
        lines = writer.function(function.name, parameters, [inner + body], (), beside)
    else:
        result = Variable("result", type_of_value(file, value))
        lines = writer.function(function.name, parameters, [f"{inner}{writer.named(result, body)}"], (result,), beside)
        lines = _at_once(lines, body)
    arguments = [writer.argument(name, tree.source_of(nodes[0])) for name, _, nodes in given]
    call = writer.call(function.name, arguments, (), "").strip().removesuffix(";")
    edit = with_value(file, statement, value, call)
    return Candidate(
        kind="function",
        title=f"A function {function.name}({', '.join(p.name for p in parameters)}), for this value",
        file=file,
        edits=(*definition_edits([copy], lines, writer, beside), edit),
        claim=ValueFunction(file.path, function.name),
        slots=(),
        name=function.name,
        parameters=tuple(p.name for p in parameters),
    )


def _at_once(lines: list[str], body: str) -> list[str]:
    """The lines of a function without the variable that its value was given to."""
    at = next((k for k, line in enumerate(lines) if line.strip().removesuffix(";") == "return result"), 0)
    if not at:
        raise CannotWrite("a function gives its value in another way")
    indent = lines[at][: len(lines[at]) - len(lines[at].lstrip())]
    ending = ";" if lines[at].endswith(";") else ""
    return [*lines[: at - 1], f"{indent}return {body}{ending}", *lines[at + 1 :]]


Given = tuple[str, Type | None, list[int]]
"""A parameter with its type, and the nodes for which it stands."""


def _given(file: ProgramFile, statement: int, value: int, function: RequiredFunction) -> list[Given]:
    """What the function is given: the variables of the value, or the elements, whichever are as many as asked for."""
    scope = file.procedure_around(statement).node
    elements = elements_used(file, [value])
    inside = {i for nodes in elements.values() for n in nodes for i in range(n, file.tree.end[n])}
    variables = _variables(file, scope, value)
    apart = {name: nodes for name, nodes in variables.items() if not inside.issuperset(nodes)}
    if elements and function.accepts(len(apart) + len(elements)):
        namer = Namer(file, writer_for(file).style).inside([Copy(file, (statement,))], ())
        found = [_element(file, statement, text, nodes, namer) for text, nodes in elements.items()]
        return sorted([*found, *_typed(file, scope, apart)], key=lambda g: g[2][0])
    given = _typed(file, scope, variables)
    if not function.accepts(len(given)):
        given = _told(file, given, function) if not scope else []
    if not function.accepts(len(given)):
        raise CannotWrite("the value is worked out from more or fewer things than are asked for")
    return given


def _variables(file: ProgramFile, scope: int, value: int) -> dict[str, list[int]]:
    """The variables in a value with the nodes where they stand; constants are left where they are."""
    names, tree, plain = file.names, file.tree, variables_of(file)
    found: dict[str, list[int]] = {}
    for n in names.within(value, tree.end[value]):
        if names.role[n] is not Role.READ or names.owner(n) == UNBOUND:
            continue
        own = names.owner(n) == scope if scope else tree.text[n] in plain and not tree.text[n].isupper()
        if own or (names.owner(n) == 0 and tree.text[n] in plain and not tree.text[n].isupper()):
            found.setdefault(tree.text[n], []).append(n)
    return found


def _typed(file: ProgramFile, scope: int, variables: dict[str, list[int]]) -> list[Given]:
    result: list[Given] = []
    for name, nodes in variables.items():
        owner = max(file.names.owner_of(name, scope), 0)
        kind = variable_type(file, name, owner)
        result.append((name, handed_on(kind, file) if kind else None, nodes))
    return result


def _element(file: ProgramFile, statement: int, text: str, nodes: list[int], namer: Namer) -> Given:
    column = element_column(text, nodes)
    copy = Copy(file, (statement,))
    return namer.column(column, [copy]), column_type(column, [copy]), nodes


def element_column(text: str, nodes: list[int]) -> Column:
    """An element as what would differ between copies: what it is, and where it stands."""
    return Column(values=(text,), spots=tuple(Spot((n,)) for n in nodes))


def _told(file: ProgramFile, given: list[Given], function: RequiredFunction) -> list[Given]:
    """Of variables of the program those that the purpose speaks of; the others stay where they are."""
    told = words_of(f"{function.name} {function.purpose}")
    return [g for g in given if set(words_of(g[0])) & set(told)]
