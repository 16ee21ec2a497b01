"""A function that was introduced, taken apart: its parameters, statements, and what it gives back."""

from __future__ import annotations

import itertools
from collections.abc import Sequence

from ...frozen import Single
from ...program.flow import flow_of
from ...program.names import Role
from ...program.program import Procedure, ProgramFile
from . import declared, rules
from .verdict import Leaving, Refused


class Definition(Single, frozen=True, eq=False):
    """The introduced function, taken apart."""

    node: int
    statement: int
    """The statement that holds the definition."""
    parameters: tuple[str, ...]
    statements: tuple[int, ...]
    returned: tuple[str, ...]
    variables: frozenset[str]
    """Every name the function binds, parameters included."""
    written: frozenset[str]
    """Names its statements bind; a parameter among them changes inside."""
    value: int = 0
    """The node of what it works out and gives back, where that is no variable; it stands for `RESULT`."""
    leaves: bool = False
    """It returns early, with nothing; it can stand only for what ends a procedure."""
    outer: frozenset[str] = frozenset()
    """Variables of the program that it says it changes."""
    references: frozenset[str] = frozenset()
    """Parameters that are other names of the variables that they are given."""

    @property
    def parts(self) -> tuple[int, ...]:
        """The nodes of all that it does: its statements, and the value that it works out and gives back."""
        return (*self.statements, self.value) if self.value else self.statements


RESULT = "(result)"
"""The variable for which a value stands that a function works out and gives back at once."""


def take_apart(
    file: ProgramFile,
    name: str,
    own: frozenset[str] = frozenset(),
    in_class: bool = False,
    may_work_out: bool = False,
    leaving: Leaving | None = None,
) -> Definition:
    """The one plain function `name` at the top of a file, or where asked for the one method; what it gives back are
    variables, or, where it `may_work_out`, one value. One that is `leaving` may return anywhere. Raises Refused for any
    other kind."""
    tree, language = file.tree, file.language
    found = [p for p in file.procedures if p.name == name]
    statement = statement_of(file, found[0], in_class) if len(found) == 1 else None
    if statement is None and may_work_out and len(found) == 1:
        statement = _exporting(file, found[0])
    if statement is None:
        raise Refused("the new function does not stand at the top of the program")
    node = found[0].node
    plain = plain_parameters(file, node)
    body = tree.child(node, "body")
    assert body is not None
    if len({tree.text[c] for c in plain}) != len(plain):
        raise Refused("two parameters of the new function have one name")
    statements = list(file.block_at[body].statements)
    if statements and file.is_bare_string(statements[0]):
        statements = statements[1:]
    outer = _outer_names(file, statements[0], plain) if statements else frozenset()
    statements = statements[1:] if outer else statements
    returned: tuple[str, ...] = ()
    value = _worked_out(file, statements[-1]) if may_work_out and statements and leaving is not Leaving.ALWAYS else 0
    if value:
        statements.pop()
        returned = (RESULT,)
    elif (
        statements
        and leaving is not Leaving.ALWAYS
        and tree.kind[statements[-1]] in {language.returning, "result_statement"}
    ):
        returned = _returned_names(file, statements.pop())
    while statements and declared.only_name(file, statements[0]) in own and not _has_value(file, statements[0]):
        statements.pop(0)
    if not statements and not value:
        raise Refused("the new function does nothing")
    leaves = not returned and not language.implicit_locals and not leaving and _leaves_with_nothing(file, statements)
    parts = [*statements, *([value] if value else [])]
    _refuse_unmovable(file, parts, node, leaves or leaving is not None, in_class)
    written = frozenset(rules.names_written(file, parts, node))
    if returned and not value:
        last = file.block_at[body].statements[-1]
        flow = flow_of(file, node)
        bound = flow.bound_before.get(last)
        if bound is None or set(returned) - bound - _surely_assigned(file, statements):
            raise Refused("what is returned might have no value")
    return Definition(
        node,
        statement,
        tuple(tree.text[c] for c in plain),
        tuple(statements),
        returned,
        frozenset(file.names.bound[node]),
        written | ({RESULT} if value else set()),
        value,
        leaves,
        outer,
        frozenset(tree.text[c] for c in plain if _is_a_reference(file, c)),
    )


def _is_a_reference(file: ProgramFile, parameter: int) -> bool:
    """True for a parameter's name that is another name of the variable that it is given, and may change it."""
    tree = file.tree
    around = list(itertools.takewhile(lambda p: tree.kind[p] != "parameters", file.parents(parameter)))
    words = {word for p in around[-1:] for word in tree.leaf_texts(p)}
    named = any(tree.kind[p] == "reference_declarator" for p in around)
    return file.language.references and named and not {"const", "&&"} & words


def _outer_names(file: ProgramFile, statement: int, parameters: Sequence[int]) -> frozenset[str]:
    """The variables of the program that a function's first statement says it changes; none for another statement."""
    tree = file.tree
    if tree.kind[statement] != "global_statement":
        return frozenset()
    named = [c for c in tree.children(statement) if tree.text[c] not in {"global", ","}]
    if any(tree.kind[c] != file.language.name for c in named):
        raise Refused("the new function names variables of the program in an unusual way")
    names = frozenset(tree.text[c] for c in named)
    if names & {tree.text[p] for p in parameters}:
        raise Refused("a parameter of the new function is a variable of the program, too")
    return names


def _surely_assigned(file: ProgramFile, statements: Sequence[int]) -> set[str]:
    """Variables that the statements declare, as the copies do, where a compiler has seen to it that they have a value
    before they are read."""
    names, tree, language = file.names, file.tree, file.language
    if not (language.methods or language.value_types):
        return set()
    return {tree.text[i] for s in statements for i in names.within(s, tree.end[s]) if names.declared_at(i)}


def statement_of(file: ProgramFile, procedure: Procedure, in_class: bool = False) -> int | None:
    """The top-level statement (or member of a class) that is the plain function; None for any other kind."""
    tree, language, node = file.tree, file.language, procedure.node
    parent = tree.parent[node]
    if language.methods or in_class:
        return node if tree.kind[tree.parent[parent]] in language.classes else None
    if parent == 0 and not procedure.decorated:
        return node
    holder = tree.parent[parent]
    named = tree.kind[holder] == "function_variable" and tree.parent[holder] == 0
    constant = named and any(tree.text[c] == "const" for c in tree.children(holder))
    return holder if constant else None


def _exporting(file: ProgramFile, procedure: Procedure) -> int | None:
    """The statement at the top that exports the plain function, and does nothing else."""
    tree, parent = file.tree, file.tree.parent[procedure.node]
    plain = tree.kind[parent] == "export_statement" and tree.parent[parent] == 0
    words = [text for text in tree.text[parent + 1 : procedure.node] if text]
    return parent if plain and words == ["export"] else None


def plain_parameters(file: ProgramFile, function: int) -> list[int]:
    """The names of a function's parameters. Raises Refused unless each is a name (with its type) without a
    value of its own, and the function one that runs when it is called."""
    tree, language = file.tree, file.language
    parameters, body = tree.child(function, "parameters"), tree.child(function, "body")
    if parameters is None or body is None:
        raise Refused("a function has an unusual form")
    plain = tree.items(parameters)
    if language.typed or language.annotates:
        if len(plain) > 1 and any(tree.source_of(c).strip() == "void" for c in plain):
            raise Refused("a function takes nothing, and more")
        plain = [p for c in plain for p in _typed_parameter(file, c)]
    marks = {"async"} if language.typed else {"async", "*"}
    if any(tree.kind[c] != "identifier" for c in plain) or marks & set(tree.text[function:body]):
        raise Refused("a function has unusual parameters")
    return plain


def _typed_parameter(file: ProgramFile, parameter: int) -> list[int]:
    """The name of a plain parameter with a type; `void` alone is none."""
    names, tree = file.names, file.tree
    found = [i for i in names.within(parameter, tree.end[parameter]) if names.role[i] is Role.PARAMETER]
    if not found and tree.source_of(parameter).strip() == "void":
        return []
    plain = tree.kind[parameter] == "typed_parameter" and tree.child(parameter, "value") is None
    if not plain or len(found) != 1 or {"?", "...", "Optional", "ParamArray"} & set(tree.leaf_texts(parameter)):
        raise Refused("the new function has unusual parameters")
    return found


def _has_value(file: ProgramFile, declaration: int) -> bool:
    return any(
        file.tree.kind[c] == "declarator" and file.tree.child(c, "right") is not None
        for c in file.tree.children(declaration)
    )


def _returned_names(file: ProgramFile, statement: int) -> tuple[str, ...]:
    tree = file.tree
    values = [c for c in tree.children(statement) if tree.text[c] != "return"]
    if tree.kind[statement] == "result_statement":
        values = values[-1:]
    if len(values) == 1 and tree.kind[values[0]] == "expression_list":
        values = [c for c in tree.children(values[0]) if tree.text[c] != ","]
    if not values or any(tree.kind[v] != "identifier" for v in values):
        raise Refused("the new function returns something unusual")
    return tuple(tree.text[v] for v in values)


def _worked_out(file: ProgramFile, statement: int) -> int:
    """The value that a statement returns, where that is no variable; 0 for any other statement."""
    tree, language = file.tree, file.language
    if tree.kind[statement] != language.returning:
        return 0
    values = [c for c in tree.children(statement) if tree.text[c] not in {"return", ";"}]
    plain = len(values) == 1 and tree.kind[values[0]] not in {language.name, "expression_list", "tuple"}
    return values[0] if plain else 0


def _leaves_with_nothing(file: ProgramFile, statements: Sequence[int]) -> bool:
    """True where the statements return, never with a value."""
    tree, language = file.tree, file.language
    returns = [n for s in statements for n in range(s, tree.end[s]) if tree.kind[n] == language.returning]
    own = [n for n in returns if file.procedure_around(n).node <= statements[0]]
    return bool(own) and all(tree.end[n] - n == 2 for n in own)


def _refuse_unmovable(
    file: ProgramFile, statements: Sequence[int], function: int, may_leave: bool, in_class: bool
) -> None:
    """Statements that mean something else inside another function."""
    tree, language = file.tree, file.language
    inside = 0
    """Up to here stands a function that the statements hand on, with jumps of its own."""
    for node in (n for s in statements for n in range(s, tree.end[s])):
        kind = tree.kind[node]
        if language.declares:
            _refuse_tied(file, node, in_class)
        if kind in language.suspending:
            raise Refused("the copies leave the function they stand in")
        if node < inside:
            continue
        if kind == language.returning and not may_leave:
            raise Refused("the copies leave the function they stand in")
        if kind in language.outer_declarations or kind in language.deleting:
            raise Refused("the copies declare or delete a name")
        if kind in language.procedures | language.classes | {"lambda", "wildcard_import"}:
            if not _is_handed_on(file, node):
                raise Refused("the copies define something themselves")
            inside = tree.end[node]
        if kind in {"break_statement", "continue_statement"} and not any(
            rules.is_left_by(file, p, node) for p in file.parents(node) if p > function
        ):
            raise Refused("the copies leave a loop they stand in")


def _is_handed_on(file: ProgramFile, node: int) -> bool:
    """True for a function without a name that is a value, in a language where it keeps the variables around it."""
    tree, language = file.tree, file.language
    value = node not in file.block_at and tree.parent[node] not in file.block_at
    plain = tree.kind[node] in language.procedures | {"lambda"} and tree.child(node, "name") is None
    return language.functions_keep_variables and value and plain


def _refuse_tied(file: ProgramFile, node: int, in_class: bool) -> None:
    """What is tied to the function that it stands in."""
    tree, language = file.tree, file.language
    kind, text = tree.kind[node], tree.text[node]
    if kind in {"goto_statement", "labeled_statement", "preprocessor"} or text == "static":
        raise Refused("the copies hold a label, a jump, or something that is kept from call to call")
    if kind in {"result_statement", "result_name"}:
        raise Refused("the copies work out the result of the function they stand in")
    if kind in {"super", "with_object"} or (kind == "this" and not (language.methods or in_class)):
        raise Refused("the copies use the object they belong to")
    implicit = text == "arguments" or (language.id == "gamescript" and text.startswith("argument"))
    if implicit and kind == language.name:
        raise Refused("the copies use the arguments of the function they stand in")
