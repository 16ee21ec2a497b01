"""Proof of a method that stands in the class on which others build, in place of the same one in each of these.

Whoever looks the method up finds the same statements, as each class has no other way to it than through the one it
builds on. Only those who ask whether something has such a method could see it.
"""

from __future__ import annotations

from collections.abc import Sequence

from ...program.members import class_name
from ...program.names import Role
from ...program.program import Procedure, ProgramFile
from . import rules
from .methods import BY_NAME, INTERCEPTING
from .terms import term_of
from .verdict import PulledUp, Refused
from .walk import Walk

SEEING = frozenset({"dir", "vars", "AttributeError", "mro", "type", "issubclass", "ABC", "abstractmethod", "Enum"})
"""What a program sees a class's own members with, or what makes them mean more."""


def prove_pulled_up(before: ProgramFile, after: ProgramFile, claim: PulledUp) -> None:
    """Raises Refused unless each class had the very method that the class it builds on has now, and nothing else has to
    do with that."""
    rules.refuse_reflection(before)
    seeing = before.names.everything & (SEEING | BY_NAME | INTERCEPTING)
    if before.language.id != "python" or seeing or before.beside or catches_all(before):
        raise Refused("the program may see which class a method stands in")
    _require_one_line_of_classes(before, claim)
    methods = [method_of(before, name, claim.name) for name in claim.classes]
    made = method_of(after, claim.home, claim.name)
    if len(set(claim.classes)) != len(methods) or claim.home in claim.classes:
        raise Refused("a class is named twice")
    for method in methods:
        if term_of(before, method.node) != term_of(after, made.node):
            raise Refused("the methods are not the same")
    refuse_tied(before, methods[0])
    refuse_other_uses(before, claim.name)
    gone = frozenset(method.node for method in methods)
    found: list[int] = []

    def statement(left: Sequence[int], new: int) -> int | None:
        if new == made.node:
            found.append(new)
            return 0
        return None

    Walk(before, after, statement, skip_before=gone).run()
    if not found:
        raise Refused("the method is lost")


def classes_of(file: ProgramFile) -> dict[str, tuple[int, str]]:
    """By name, the node of each class and the bare name of what it builds on, or "". Raises Refused where one stands
    elsewhere than at the top, builds on something in another way, or has the name of another."""
    tree, known = file.tree, dict[str, tuple[int, str]]()
    for node in (n for n, kind in enumerate(tree.kind) if kind in file.language.classes):
        told = tree.child(node, "superclasses")
        named = tree.items(told) if told is not None else []
        name = class_name(file, node)
        if len(named) > 1 or any(not tree.text[n] for n in named) or tree.parent[node] != 0 or name in known:
            raise Refused("a class builds on others in an unusual way")
        known[name] = (node, tree.text[named[0]] if named else "")
    return known


def _require_one_line_of_classes(file: ProgramFile, claim: PulledUp) -> None:
    """Every class builds on one other at most; those of the claim on the same, which has no such method, nor have those
    above it, and they do not ask it for one."""
    tree, known = file.tree, classes_of(file)
    if any(name not in known or known[name][1] != claim.home for name in claim.classes):
        raise Refused("the classes do not build on the same one")
    if any(f"super().{claim.name}" in tree.source_of(known[name][0]) for name in claim.classes):
        raise Refused("a class asks the one that it builds on for the method")
    above, seen = claim.home, set[str]()
    while above and above != "object":
        if above not in known or above in seen:
            raise Refused(f"{above}, on which the class builds, is not in sight")
        seen.add(above)
        node, base = known[above]
        if claim.name in tree.text[node : tree.end[node]]:
            raise Refused(f"{above} has something to do with {claim.name} already")
        above = base


def catches_all(file: ProgramFile) -> bool:
    """True where a handler may notice that something has no such method."""
    tree = file.tree
    handlers = [list(tree.children(n)) for n, kind in enumerate(tree.kind) if kind == "except_clause"]
    return any(tree.text[h[1]] == ":" or "Exception" in tree.source_of(h[1]) for h in handlers)


def method_of(file: ProgramFile, home: str, name: str) -> Procedure:
    """The one plain method of a class."""
    tree = file.tree
    found = [
        p
        for p in file.procedures
        if p.name == name and p.in_class and class_name(file, tree.parent[tree.parent[p.node]]) == home
    ]
    if len(found) != 1 or found[0].decorated or tree.kind[tree.parent[found[0].node]] not in file.language.blocks:
        raise Refused(f"{home} has no plain method {name}")
    return found[0]


def refuse_tied(file: ProgramFile, method: Procedure) -> None:
    """What means something else in another class."""
    tree = file.tree
    inside = range(method.node, tree.end[method.node])
    private = any(t.startswith("__") and not t.endswith("__") for t in tree.text[inside.start : inside.stop])
    if private or {"super", "__class__"} & set(tree.text[inside.start : inside.stop]):
        raise Refused("the methods use names that only mean something inside their class")
    parameters = tree.child(method.node, "parameters")
    plain = tree.items(parameters) if parameters is not None else []
    if any(tree.kind[p] != file.language.name for p in plain):
        raise Refused("the methods have unusual parameters")


def refuse_other_uses(file: ProgramFile, name: str) -> None:
    """The method is only ever looked up on an object."""
    names, tree = file.names, file.tree
    given = [i for i in names.nodes if tree.text[i] == name and names.role[i] is not Role.MEMBER]
    defined = {tree.child(p.node, file.language.name_field) for p in file.procedures if p.name == name}
    if any(i not in defined for i in given):
        raise Refused(f"{name} means something else, too")
    for i in names.nodes:
        if tree.text[i] != name or names.role[i] is not Role.MEMBER:
            continue
        around = tree.parent[i]
        if tree.kind[tree.parent[around]] in {"assignment", "augmented_assignment", "delete_statement"}:
            raise Refused(f"something is given to a member {name}")
