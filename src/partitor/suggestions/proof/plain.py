"""Which variables hold nothing but numbers, texts, truths or `None`: what a dictionary can be asked for, by the same
equality that `==` tests."""

from __future__ import annotations

from ...program.names import UNBOUND, Role
from ...program.program import Procedure, ProgramFile
from . import rules
from .verdict import Refused

PLAIN_CALLS = frozenset("input int float str len ord chr round abs".split())
"""Built-ins that give a number or a text, or stop."""
TEXT_METHODS = frozenset("lower upper strip lstrip rstrip title capitalize swapcase replace zfill".split())
"""Methods of texts that give a text."""
NUMBER_MAKERS = frozenset("randint randrange random uniform".split())
LITERALS = frozenset({"integer", "float", "string", "true", "false", "none"})
DEEPEST = 4


def require_plain(file: ProgramFile, name: str, scope: int, depth: int = DEEPEST) -> None:
    """Raises Refused unless the variable that `name` is in `scope` only ever holds such values."""
    names, tree = file.names, file.tree
    owner = names.owner_of(name, scope)
    if owner == UNBOUND or depth == 0 or file.is_used_beside(name) or tree.kind[owner] in file.language.classes:
        raise Refused(f"it is not certain what {name} holds")
    for i in names.nodes:
        if tree.text[i] != name or names.role[i] not in GIVING or names.owner(i) != owner:
            continue
        if names.role[i] is Role.PARAMETER:
            _require_plain_calls(file, name, owner, depth)
        elif not _is_given_plain(file, i, depth):
            raise Refused(f"it is not certain what {name} holds")


GIVING = (Role.WRITE, Role.UPDATE, Role.PARAMETER)


def _is_given_plain(file: ProgramFile, node: int, depth: int) -> bool:
    """True where the variable at `node` is given a plain value there."""
    tree = file.tree
    parent = tree.parent[node]
    right = tree.child(parent, "right")
    if tree.field[node] != "left" or right is None:
        return False
    if tree.kind[parent] == "for_statement":
        return _gives_plain_turns(file, right, depth)
    return tree.kind[parent] in {"assignment", "augmented_assignment"} and is_plain(file, right, depth)


def _gives_plain_turns(file: ProgramFile, node: int, depth: int) -> bool:
    """True for what a loop goes through where each turn gets a plain value: a range, a text, a list of such."""
    tree = file.tree
    if tree.kind[node] == "call":
        return _called(file, node) == "range"
    if tree.kind[node] in {"list", "tuple"}:
        items = [c for c in tree.children(node) if tree.text[c] not in {"[", "]", "(", ")", ","}]
        return all(is_plain(file, item, depth) for item in items)
    return is_plain(file, node, depth)


def _called(file: ProgramFile, call: int) -> str:
    """The built-in that is called; "" for anything else."""
    callee = file.tree.child(call, "function")
    plain = callee is not None and file.tree.kind[callee] == "identifier" and file.names.owner(callee) == UNBOUND
    return file.tree.text[callee] if callee is not None and plain else ""


def is_plain(file: ProgramFile, node: int, depth: int = DEEPEST) -> bool:
    """True for an expression that gives a number, a text, a truth or `None`, or stops the program."""
    tree, kind = file.tree, file.tree.kind[node]
    if kind in LITERALS:
        return True
    if kind == "identifier":
        try:
            require_plain(file, tree.text[node], file.names.scope[node], depth - 1)
        except Refused:
            return False
        return True
    if kind in {"binary_operator", "unary_operator", "parenthesized_expression"}:
        parts = [c for c in tree.children(node) if tree.field[c] != "operator" and not tree.text[c]]
        parts += [c for c in tree.children(node) if tree.kind[c] in LITERALS | {"identifier"}]
        return bool(parts) and all(is_plain(file, part, depth) for part in parts)
    if kind == "subscript":
        value = tree.child(node, "value")
        return value is not None and tree.kind[value] == "identifier" and is_plain(file, value, depth)
    return kind == "call" and _calls_plain(file, node, depth)


def _calls_plain(file: ProgramFile, call: int, depth: int) -> bool:
    tree = file.tree
    if _called(file, call) in PLAIN_CALLS:
        return True
    callee = tree.child(call, "function")
    if callee is None or tree.kind[callee] != "attribute":
        return False
    owner, method = tree.child(callee, "object"), file.called_name(call)
    if owner is None:
        return False
    if tree.kind[owner] == "identifier" and tree.text[owner] == "random" and "random" in file.library_modules:
        return method in NUMBER_MAKERS
    return method in TEXT_METHODS and is_plain(file, owner, depth)


def _require_plain_calls(file: ProgramFile, name: str, function: int, depth: int) -> None:
    """Raises Refused unless each call of a plain function at the top gives its parameter a plain value."""
    tree, names = file.tree, file.names
    procedure = next((p for p in file.procedures if p.node == function), None)
    if procedure is None or tree.parent[function] != 0 or procedure.decorated or not _takes_names_only(file, procedure):
        raise Refused(f"it is not certain what {name} is given")
    own = procedure.name
    if rules.declared_global_somewhere(file, own) or file.is_used_beside(own):
        raise Refused(f"it is not certain what {name} is given")
    place = procedure.parameters.index(name)
    uses = [i for i in names.nodes if tree.text[i] == own and names.role[i] < Role.MEMBER]
    calls = [i for i in uses if tree.field[i] == "function" and tree.kind[tree.parent[i]] == "call"]
    writes = [i for i in uses if names.role[i] in (Role.WRITE, Role.UPDATE)]
    if not calls or len(calls) + len(writes) != len(uses) or len(writes) != 1:
        raise Refused(f"it is not certain what {name} is given")
    for i in calls:
        arguments = tree.child(tree.parent[i], "arguments")
        given = tree.items(arguments) if arguments is not None else []
        plain = not any(tree.kind[c] in {"keyword_argument", "list_splat", "dictionary_splat"} for c in given)
        if not plain or place >= len(given) or not is_plain(file, given[place], depth - 1):
            raise Refused(f"it is not certain what {name} is given")


def _takes_names_only(file: ProgramFile, procedure: Procedure) -> bool:
    parameters = file.tree.child(procedure.node, "parameters")
    return parameters is not None and all(file.tree.kind[c] == "identifier" for c in file.tree.items(parameters))
