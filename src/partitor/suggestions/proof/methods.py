"""Proof of a new method: with every `self.name(…)` inlined the program is the original again. Here where a method is
given its object by name; `members` has the languages where it knows it."""

from __future__ import annotations

from ...program.members import class_name
from ...program.names import UNBOUND, WRITES, Role
from ...program.program import ProgramFile
from . import rules
from .definitions import Definition, take_apart
from .functions import FunctionProof, Taken
from .members import MemberProof
from .verdict import NewFunction, Refused
from .walk import Walk

OWN = "self"
BY_NAME = frozenset({"getattr", "setattr", "delattr", "hasattr"})
"""Built-ins that look members up by their names' texts."""
INTERCEPTING = frozenset({"__getattr__", "__getattribute__", "__setattr__", "__dict__", "__init_subclass__"})


def prove_method(before: ProgramFile, after: ProgramFile, claim: NewFunction) -> None:
    """Raises Refused unless the rewritten file with the method inlined is the original."""
    rules.refuse_reflection(before)
    rules.require_fresh(claim.name, before)
    given = before.language.object_is_given
    proof = MethodProof(before, after, claim) if given else MemberProof(before, after, claim)
    Walk(before, after, proof.statement).run()
    proof.finish()


def require_plain_class(file: ProgramFile, home: str) -> None:
    """Raises Refused unless the class `home` and all that it builds on are in sight, no member is looked up by its
    name's text, and no method is called through a class."""
    names, tree = file.names, file.tree
    if (BY_NAME | INTERCEPTING) & names.everything:
        raise Refused("the program looks members up by their names")
    nodes = [n for n, kind in enumerate(tree.kind) if kind in file.language.classes]
    classes = {class_name(file, n): n for n in nodes}
    if home not in classes or len(classes) != len(nodes) or tree.parent[classes[home]] != 0:
        raise Refused("the class is not one plain class of the program")
    for name in [home, *_above(file, classes, classes[home])]:
        if name not in classes and name != "object":
            raise Refused(f"{name}, on which the class builds, is not in sight")
    for i in names.nodes:
        around = tree.parent[i]
        named = tree.kind[around] == "attribute" and tree.field[i] == "object"
        called = tree.kind[tree.parent[around]] == "call" and tree.field[around] == "function"
        if tree.text[i] in classes and named and called:
            raise Refused(f"a method is called through {tree.text[i]} itself")


def _above(file: ProgramFile, classes: dict[str, int], definition: int) -> list[str]:
    """The names of all classes on which one builds, as far as they are in sight."""
    tree = file.tree
    found: list[str] = []
    waiting = [definition]
    while waiting:
        bases = tree.child(waiting.pop(), "superclasses")
        for base in tree.items(bases) if bases is not None else ():
            if not tree.text[base] or tree.text[base] in found:
                raise Refused("the class builds on others in an unusual way")
            found.append(tree.text[base])
            waiting += [classes[tree.text[base]]] if tree.text[base] in classes else []
    return found


def is_object_of(file: ProgramFile, holder: int, home: str) -> bool:
    """True where what a member is asked of is certain to be an object of the class `home`: the object of a method of
    it, something just made, or a variable that is only given such."""
    names, tree = file.names, file.tree
    if _makes(file, holder, home):
        return True
    if tree.kind[holder] != "identifier":
        return False
    name, scope = tree.text[holder], names.owner(holder)
    writes = [i for i in names.nodes if tree.text[i] == name and names.role[i] in WRITES and names.owner(i) == scope]
    if name == OWN:
        method = next((p for p in file.procedures if p.node == scope), None)
        around = tree.parent[tree.parent[scope]] if method is not None and method.in_class else 0
        plain = method is not None and method.parameters[:1] == (OWN,) and not method.decorated and len(writes) == 1
        return plain and bool(around) and class_name(file, around) == home and names.scope[holder] == scope
    if not writes or scope == UNBOUND or rules.declared_global_somewhere(file, name) or file.is_used_beside(name):
        return False
    for i in writes:
        given = tree.parent[i]
        right = tree.child(given, "right") if tree.kind[given] == "assignment" else None
        if tree.field[i] != "left" or right is None or not _makes(file, right, home):
            return False
    return True


def _makes(file: ProgramFile, node: int, home: str) -> bool:
    """True for a call of the class by its name."""
    tree = file.tree
    callee = tree.child(node, "function") if tree.kind[node] == "call" else None
    given = [i for i in file.names.nodes if tree.text[i] == home and file.names.role[i] in WRITES]
    made_otherwise = "__new__" in file.names.everything or "metaclass" in file.names.everything
    return callee is not None and tree.text[callee] == home and len(given) == 1 and not made_otherwise


class MethodProof(FunctionProof):
    """The proof of one new method that is given its object by name."""

    def __init__(self, before: ProgramFile, after: ProgramFile, claim: NewFunction) -> None:
        self.home = claim.home
        super().__init__(before, after, claim.name, claim.declared)
        self.require_own_class()

    def require_own_class(self) -> None:
        """The new method stands in its class, and is given its object."""
        definition, tree = self.definition, self.after.tree
        around = tree.parent[tree.parent[definition.node]]
        if tree.child(around, "name") is None or tree.text[tree.child(around, "name") or 0] != self.home:
            raise Refused("the new method stands in another class")
        if definition.parameters[:1] != (OWN,) or OWN in definition.written:
            raise Refused("the new method is not given its object")
        self._check_class()

    def _definition(self) -> Definition:
        return take_apart(self.after, self.name, self.own, in_class=True)

    def _check_class(self) -> None:
        """Every object with one of the class's methods has the new method too, and nothing else of that name."""
        require_plain_class(self.before, self.home)

    def _callee(self, callee: int) -> Taken | None:
        """`self.name` gives its object on."""
        tree = self.after.tree
        if tree.kind[callee] != "attribute":
            return None
        held, member = tree.child(callee, "object"), tree.child(callee, "attribute")
        if held is None or member is None or tree.text[member] != self.name:
            return None
        method = self.after.procedure_around(callee)
        parameters = tree.child(method.node, "parameters") if method.node else None
        first = tree.items(parameters)[:1] if parameters is not None else []
        bare = bool(first) and tree.kind[first[0]] == "identifier" and tree.text[first[0]] == OWN
        inside = method.in_class and not method.decorated and self._class_around(method.node) == self.home
        names = self.after.names
        writes = [
            i
            for i in names.within(method.node, tree.end[method.node])
            if tree.text[i] == OWN and names.role[i] in (Role.WRITE, Role.UPDATE, Role.PARAMETER)
        ]
        if not (bare and inside and tree.text[held] == OWN and len(writes) == 1):
            raise Refused("the new method is called through another object")
        return Taken((held,))

    def _class_around(self, method: int) -> str:
        tree = self.after.tree
        around = tree.parent[tree.parent[method]]
        named = tree.child(around, "name") if tree.kind[around] in self.after.language.classes else None
        return tree.text[named] if named is not None else ""

    def _known_everywhere(self) -> bool:
        return True
