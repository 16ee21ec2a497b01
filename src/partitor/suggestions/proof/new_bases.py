"""Proof of a class that has what others had each for themselves, and on which these build now.

Whoever looks a method up finds the same statements: the classes built on nothing before, and build on a class now that
nobody knew and that has these methods only.
"""

from __future__ import annotations

from collections.abc import Sequence

from ...program.members import class_name
from ...program.names import WRITES
from ...program.program import ProgramFile
from . import rules
from .methods import BY_NAME, INTERCEPTING
from .pulled_up import SEEING, catches_all, classes_of, method_of, refuse_other_uses, refuse_tied
from .terms import term_of
from .verdict import NewBase, Refused
from .walk import Walk

SEEING_BASES = SEEING | frozenset(
    {"__bases__", "__base__", "__mro__", "__subclasses__", "__init_subclass__", "__slots__", "__dict__", "__qualname__"}
)
"""What a program sees what a class builds on with, or what makes that mean more."""
PLAIN_DUNDERS = frozenset({"__init__", "__str__", "__repr__"})


def prove_new_base(before: ProgramFile, after: ProgramFile, claim: NewBase) -> None:
    """Raises Refused unless each class had the very methods that the new class has, and nothing else has to do with
    where they stand."""
    rules.refuse_reflection(before)
    rules.require_fresh(claim.name, before)
    seeing = before.names.everything & (SEEING_BASES | BY_NAME | INTERCEPTING)
    if before.language.id != "python" or seeing or before.beside or catches_all(before):
        raise Refused("the program may see which class a method stands in")
    if len(set(claim.classes)) != len(claim.classes) or len(set(claim.methods)) != len(claim.methods):
        raise Refused("something is named twice")
    _require_free_classes(before, claim)
    made = _class_named(after, claim.name)
    gone = set()
    for name in claim.methods:
        if name.startswith("__") and name not in PLAIN_DUNDERS:
            raise Refused(f"{name} means something else in another class")
        new = method_of(after, claim.name, name)
        for home in claim.classes:
            method = method_of(before, home, name)
            if term_of(before, method.node) != term_of(after, new.node):
                raise Refused("the methods are not the same")
            refuse_tied(before, method)
            gone.add(method.node)
        refuse_other_uses(before, name)
    _require_nothing_else(after, made, len(claim.methods))
    proof = _BaseProof(before, after, claim, made, frozenset(gone))
    proof.walk.run()
    if not proof.made or proof.headed != set(claim.classes):
        raise Refused("the class is not there, or not built on")


class _BaseProof:
    def __init__(
        self, before: ProgramFile, after: ProgramFile, claim: NewBase, made: int, gone: frozenset[int]
    ) -> None:
        self.before = before
        self.after = after
        self.claim = claim
        self.node = made
        self.made = False
        self.headed: set[str] = set()
        self.walk = Walk(before, after, self.statement, self.expression, gone, frozenset(claim.classes))

    def statement(self, left: Sequence[int], new: int) -> int | None:
        """The walk's rule: the new class stands for nothing, before the classes that build on it."""
        if new != self.node:
            return None
        tree = self.before.tree
        classes = self.before.language.classes
        later = {class_name(self.before, s) for s in left if tree.kind[s] in classes and tree.parent[s] == 0}
        if self.made or not set(self.claim.classes) <= later:
            raise Refused("the new class is not there yet where it is built on")
        self.made = True
        return 0

    def expression(self, old: int, new: int) -> bool:
        """The walk's rule for the classes: the same but for what they build on."""
        a, b = self.before.tree, self.after.tree
        classes = self.before.language.classes
        if a.kind[old] not in classes or b.kind[new] != a.kind[old]:
            return False
        name = class_name(self.before, old)
        if name not in self.claim.classes or a.parent[old] != 0 or class_name(self.after, new) != name:
            return False
        bases = b.child(new, "superclasses")
        named = b.items(bases) if bases is not None else []
        if len(named) != 1 or term_of(self.after, named[0]) != ("identifier", self.claim.name) or not self.made:
            raise Refused(f"{name} does not build on the new class")
        olds = [c for c in a.children(old) if a.field[c] != "superclasses"]
        news = [c for c in b.children(new) if b.field[c] != "superclasses"]
        if len(olds) != len(news):
            raise Refused(f"{name} changes its form")
        for o, n in zip(olds, news, strict=True):
            self.walk.compare(o, n)
        self.headed.add(name)
        return True


def _class_named(file: ProgramFile, name: str) -> int:
    """The one class of that name, at the top of the file and built on nothing."""
    tree = file.tree
    found = [n for n, kind in enumerate(tree.kind) if kind in file.language.classes and class_name(file, n) == name]
    if len(found) != 1 or tree.parent[found[0]] != 0 or tree.child(found[0], "superclasses") is not None:
        raise Refused(f"{name} is no plain class")
    return found[0]


def _require_nothing_else(file: ProgramFile, definition: int, methods: int) -> None:
    """The class holds so many definitions of functions and nothing else."""
    tree = file.tree
    body = tree.child(definition, "body")
    held = list(tree.children(body)) if body is not None else []
    if len(held) != methods or any(tree.kind[n] not in file.language.procedures for n in held):
        raise Refused("the new class holds something else, too")


def _require_free_classes(file: ProgramFile, claim: NewBase) -> None:
    """Every class builds on one other at most, by its bare name, and stands at the top of the file; those of the claim
    on none. Each name is one class's, and never another thing's."""
    tree, names = file.tree, file.names
    known = classes_of(file)
    if not set(claim.classes) <= set(known):
        raise Refused("a class is not in sight")
    for name in claim.classes:
        node, base = known[name]
        if base:
            raise Refused(f"{name} builds on something already")
        if not {"super", "__class__"}.isdisjoint(tree.text[node : tree.end[node]]):
            raise Refused(f"{name} asks what it builds on for something")
        writes = [i for i in names.nodes if tree.text[i] == name and names.role[i] in WRITES]
        if len(writes) != 1:
            raise Refused(f"{name} is another thing elsewhere")
