"""Values that are certain not to be nothing (`None`)."""

from __future__ import annotations

from ...program.names import Role
from ...program.program import ProgramFile
from . import rules

MAKING = frozenset({"int", "float", "str", "len", "input", "bool", "ord", "chr", "list", "dict", "set", "tuple"})
"""Built-ins that always give something."""
TEXT_METHODS = frozenset({"strip", "lstrip", "rstrip", "lower", "upper", "title", "capitalize", "split", "replace"})
SOMETHING = frozenset(
    """
    integer float string true false list dictionary set tuple comparison_operator not_operator list_comprehension
    """.split()
)
"""Kinds of values that are never nothing."""


def is_something(file: ProgramFile, node: int, scope: int) -> bool:
    """True for a value that is certain not to be nothing."""
    tree = file.tree
    kind = tree.kind[node]
    if kind in SOMETHING:
        return kind != "comparison_operator" or not file.names.everything & {"__eq__", "__lt__", "__gt__"}
    if kind in file.language.parentheses:
        return all(is_something(file, c, scope) for c in tree.children(node) if tree.text[c] not in {"(", ")"})
    if kind == "binary_operator":
        left, right = tree.child(node, "left"), tree.child(node, "right")
        return all(part is not None and is_something(file, part, scope) for part in (left, right))
    callee = tree.child(node, "function") if kind == "call" else None
    if callee is None:
        return False
    if tree.kind[callee] == "attribute":
        held, member = tree.child(callee, "object"), tree.child(callee, "attribute")
        return member is not None and tree.text[member] in TEXT_METHODS and _is_text(file, held or 0, scope)
    return _is_making(file, callee, scope)


def _is_making(file: ProgramFile, callee: int, scope: int) -> bool:
    name = file.tree.text[callee]
    if name not in MAKING or file.names.role.get(callee) is not Role.READ:
        return False
    rules.require_builtin(name, file, scope)
    return True


def _is_text(file: ProgramFile, node: int, scope: int) -> bool:
    """True for what is certain to be a text."""
    tree = file.tree
    if tree.kind[node] == "string":
        return True
    callee = tree.child(node, "function") if tree.kind[node] == "call" else None
    if callee is None:
        return False
    if tree.kind[callee] == "attribute":
        held, member = tree.child(callee, "object"), tree.child(callee, "attribute")
        texts = TEXT_METHODS - {"split"}
        return member is not None and tree.text[member] in texts and _is_text(file, held or 0, scope)
    return tree.text[callee] in {"str", "input", "chr"} and _is_making(file, callee, scope)
