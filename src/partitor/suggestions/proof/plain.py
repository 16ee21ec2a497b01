"""Which variables hold nothing but numbers, texts, truths or `None`: what a dictionary can be asked for, by the same
equality that `==` tests."""

from __future__ import annotations

from ...program.names import NO_VARIABLES, UNBOUND, Role
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
    return _lists_plain(file, node, depth) or is_plain(file, node, depth)


ASKING_LISTS = frozenset("len sum max min sorted print".split())
"""Built-ins that change nothing of what they are given, nor keep it."""


def _lists_plain(file: ProgramFile, node: int, depth: int) -> bool:
    """True for a list of plain values, written out, or kept in a variable that never holds anything else, and that
    nothing but what is seen here could put something into."""
    tree, names = file.tree, file.names
    if tree.kind[node] in {"list", "tuple"}:
        items = [c for c in tree.children(node) if tree.text[c] not in {"[", "]", "(", ")", ","}]
        return all(is_plain(file, item, depth) for item in items)
    owner = names.owner(node) if tree.kind[node] == "identifier" and depth else UNBOUND
    if owner == UNBOUND or file.is_used_beside(tree.text[node]) or tree.kind[owner] in file.language.classes:
        return False
    uses = (i for i in names.nodes if tree.text[i] == tree.text[node] and names.role[i] not in NO_VARIABLES)
    return all(_keeps_a_list_plain(file, i, depth - 1) for i in uses if names.owner(i) == owner)


def _keeps_a_list_plain(file: ProgramFile, use: int, depth: int) -> bool:
    """True for a use of a list after which there is nothing in it but plain values, and no other name for it."""
    tree, around = file.tree, file.tree.parent[use]
    if file.names.role[use] is Role.WRITE:
        right = tree.child(around, "right")
        made = tree.kind[around] == "assignment" and right is not None and tree.kind[right] in {"list", "tuple"}
        return made and right is not None and _lists_plain(file, right, depth)
    if file.names.role[use] is not Role.READ:
        return False
    kind = tree.kind[around]
    if kind == "for_statement" or kind == "comparison_operator":
        return kind == "comparison_operator" or tree.field[use] == "right"
    if kind == "subscript":
        held = tree.kind[tree.parent[around]]
        changed = held in {"delete_statement", "augmented_assignment"} or tree.field[around] == "left"
        return tree.child(around, "value") == use and not changed
    if kind == "argument_list":
        call = tree.parent[around]
        return _called(file, call) in ASKING_LISTS or _is_of_random(file, call, frozenset({"choice", "shuffle"}))
    call = tree.parent[around]
    appends = kind == "attribute" and tree.kind[call] == "call" and file.called_name(call) == "append"
    arguments = tree.child(call, "arguments") if appends else None
    given = tree.items(arguments) if arguments is not None else []
    return appends and len(given) == 1 and tree.child(call, "function") == around and is_plain(file, given[0], depth)


def _is_of_random(file: ProgramFile, call: int, methods: frozenset[str]) -> bool:
    """True for a call of one of some functions of the library's module `random`."""
    tree, callee = file.tree, file.tree.child(call, "function")
    owner = tree.child(callee, "object") if callee is not None and tree.kind[callee] == "attribute" else None
    known = owner is not None and tree.text[owner] == "random" and "random" in file.library_modules
    return known and file.called_name(call) in methods


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
        of_a_list = value is not None and "slice" not in tree.kind[node : tree.end[node]]
        of_a_list = of_a_list and value is not None and _lists_plain(file, value, depth)
        return of_a_list or (value is not None and tree.kind[value] == "identifier" and is_plain(file, value, depth))
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
    if _is_of_random(file, call, frozenset({"choice"})):
        arguments = tree.child(call, "arguments")
        given = tree.items(arguments) if arguments is not None else []
        return len(given) == 1 and _gives_plain_turns(file, given[0], depth)
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
