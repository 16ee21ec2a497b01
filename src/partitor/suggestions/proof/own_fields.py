"""Fields that an object has from the start and keeps, in languages in which a method finds its object as `this`:

class Board {
  levels = [];                                a method may hand `this.levels` on: it is the same list
  addLevel(x) { this.levels.push(x); }        whenever it is asked for
}
"""

from __future__ import annotations

import itertools

from ...program.members import class_name
from ...program.program import Procedure, ProgramFile

WAYS_TO_ANY_FIELD = frozenset(
    """
    assign defineProperty defineProperties Proxy Reflect setPrototypeOf __proto__ __defineGetter__ prototype with
    """.split()
)
"""What gives an object fields, or others in their place, without naming them."""
HELD_BY_THIS = frozenset({"javascript", "typescript"})


def is_kept_by_this(file: ProgramFile, field: str, first: int) -> bool:
    """True for a field of the object that the method around statement `first` belongs to, which its class gives it
    before any method is called, and to which nothing gives another value."""
    tree = file.tree
    method = file.procedure_around(first)
    if file.language.id not in HELD_BY_THIS or not _is_plain_method(file, method):
        return False
    home = tree.parent[tree.parent[method.node]]
    texts = set(tree.text)
    if WAYS_TO_ANY_FIELD & texts or any(field in f.names.everything for f in file.beside):
        return False
    if (
        not _finds_one_object(file, method)
        or not _stands_alone(file, home)
        or _sets_by_key(file)
        or not _is_only_called(file, method)
    ):
        return False
    named = [n for n, text in enumerate(tree.text) if text == field]
    given = [n for n in named if _is_given_at_first(file, n, home)]
    others = [n for n in named if n not in given]
    return len(given) == 1 and all(_is_only_read(file, n) for n in others)


def _is_plain_method(file: ProgramFile, method: Procedure) -> bool:
    """True for a method of a class that belongs to its objects, and is no property."""
    tree = file.tree
    around = tree.parent[method.node] if method.node else -1
    if around <= 0 or tree.kind[tree.parent[around]] not in file.language.classes:
        return False
    return not {"static", "get", "set"} & set(file.words_before_name(method.node))


def _finds_one_object(file: ProgramFile, method: Procedure) -> bool:
    """True where `this` is the same object everywhere in the method: a `function` inside it has a `this` of its own."""
    tree, kinds = file.tree, file.language.procedures
    inside = [n for n in range(method.node + 1, tree.end[method.node]) if tree.kind[n] in kinds]
    others = [n for n in inside if "=>" not in {tree.text[c] for c in tree.children(n)}]
    return not any("this" in tree.leaf_texts(n) for n in others)


def _stands_alone(file: ProgramFile, home: int) -> bool:
    """True for a class that is made of no other, and of which no other is made, and whose fields are worked out without
    a look at the object."""
    tree = file.tree
    body, name = tree.child(home, "body"), tree.child(home, file.language.name_field)
    if body is None or name is None or name + 1 != body:
        return False
    if ("extends", class_name(file, home)) in itertools.pairwise(tree.leaf_texts(0)):
        return False
    values = [n for n in tree.children(body) if tree.kind[n] == "field"]
    return not any("this" in tree.leaf_texts(n) for n in values)


def _sets_by_key(file: ProgramFile) -> bool:
    """True where something that may be an object is given a field whose name is worked out."""
    tree = file.tree
    given = {name for p in file.procedures for name in p.parameters}
    for node in [n for n, kind in enumerate(tree.kind) if kind == "subscript"]:
        held = tree.child(node, "value")
        key = tree.child(node, "subscript")
        plain = key is not None and tree.kind[key] in file.language.numbers
        if plain or not is_given_a_value(file, node):
            continue
        if held is None or tree.text[held] == "this" or tree.text[held] in given or not _holds_a_list(file, held):
            return True
    return False


def _holds_a_list(file: ProgramFile, held: int) -> bool:
    """True for a variable that is a list from the start."""
    tree, names = file.tree, file.names
    if tree.kind[held] != file.language.name:
        return tree.kind[held] == "attribute"
    declared = [i for i in names.nodes if tree.text[i] == tree.text[held] and names.declared_at(i)]
    values = [tree.child(tree.parent[i], "right") for i in declared]
    return bool(values) and all(v is not None and tree.kind[v] in {"list", "dictionary"} for v in values)


def _is_only_called(file: ProgramFile, method: Procedure) -> bool:
    """True where the method is always asked of an object."""
    tree, language = file.tree, file.language
    for node in [n for n, text in enumerate(tree.text) if text == method.name]:
        if tree.parent[node] == method.node:
            continue
        member = tree.parent[node]
        called = tree.kind[member] == language.member[0] and tree.field[member] == language.callee_field
        if not called or tree.kind[tree.parent[member]] != language.call:
            return False
    return True


def _is_given_at_first(file: ProgramFile, node: int, home: int) -> bool:
    """True where the class gives the field its value: in its declaration, or at once in its constructor."""
    tree = file.tree
    parent = tree.parent[node]
    if tree.kind[parent] == "field" and tree.field[node] == "name":
        words = {tree.text[n] for n in range(parent, node)}
        return (
            tree.parent[tree.parent[parent]] == home
            and "static" not in words
            and tree.child(parent, "value") is not None
        )
    maker = file.procedure_around(node)
    statement = tree.parent[parent]
    inside = maker.name == "constructor" and tree.parent[tree.parent[maker.node]] == home
    if not inside or tree.kind[statement] != "assignment" or tree.field[parent] != "left":
        return False
    before = [s for s in file.statements_of(maker) if s < statement]
    own = tree.text[parent + 1] == "this" and statement in file.statements_of(maker)
    return own and all(_only_gives_a_field(file, s) for s in before)


def _only_gives_a_field(file: ProgramFile, statement: int) -> bool:
    """True for `this.name = name;`, before which nobody can be given the object."""
    tree = file.tree
    right = tree.child(statement, "right")
    return tree.kind[statement] == "assignment" and right is not None and "this" not in tree.leaf_texts(right)


def is_set_through_an_object(file: ProgramFile, field: str) -> bool:
    """True where a field of this name is given a value by `this.name`, or of any other object."""
    tree = file.tree
    named = [n for n, text in enumerate(tree.text) if text == field and tree.kind[tree.parent[n]] == "attribute"]
    return any(is_given_a_value(file, tree.parent[n]) for n in named if tree.field[n] == file.language.member[1])


def _is_only_read(file: ProgramFile, node: int) -> bool:
    """True where a field of this name is asked for, or the name is no field's at all."""
    tree = file.tree
    parent = tree.parent[node]
    if (tree.kind[parent], tree.field[node]) == file.language.member:
        return not is_given_a_value(file, parent)
    return tree.kind[parent] not in {"field", *file.language.procedures} and not file.names.declared_at(node)


def is_given_a_value(file: ProgramFile, node: int) -> bool:
    """True for an element or field that is given a value, changed or taken away, also in a pattern."""
    tree = file.tree
    child, parent = node, tree.parent[node]
    while parent >= 0 and parent not in file.block_at:
        kind = tree.kind[parent]
        if kind in {"attribute", "subscript"} and child == parent + 1:
            return False
        if kind in {"update", "delete_statement"} or (kind == "unary_operator" and tree.text[parent + 1] == "delete"):
            return True
        if tree.field[child] == "left" and kind not in {"binary_operator", "comparison_operator", "boolean_operator"}:
            return True
        if kind in {file.language.call, "argument_list", "binary_operator", "comparison_operator"}:
            return False
        child, parent = parent, tree.parent[parent]
    return False
