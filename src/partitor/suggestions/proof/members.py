"""Proof of a new method where methods know their object without being given it: with every `this.name(…)` inlined, or
`name(…)` where members go by their bare names, the program is the original again."""

from __future__ import annotations

from collections.abc import Mapping, Sequence

from ...program.members import members_named
from ...program.names import Role
from ...program.program import ProgramFile
from . import rules
from .definitions import Definition, take_apart
from .folding import Term
from .functions import FunctionProof, Taken
from .verdict import NewFunction, Refused

UNSTEADY = frozenset(
    """
    prototype Proxy Reflect call apply __proto__ getOwnPropertyNames setPrototypeOf getPrototypeOf defineProperty assign
    defineProperties eval
    """.split()
)
"""What can give an object other members, or a method another object."""
OTHERWISE = frozenset({"get", "set", "async", "*", "abstract", "convenience", "required", "init", "deinit"})
"""Words of members that are no plain methods."""
OVERRIDING = frozenset({"override", "final"})
TIES = ("static", "class", "mutating", "nonmutating")
"""Words that tell with what a method can be called."""


class MemberProof(FunctionProof):
    """The proof of one new method."""

    def __init__(self, before: ProgramFile, after: ProgramFile, claim: NewFunction) -> None:
        self.home = claim.home
        super().__init__(before, after, claim.name, claim.declared)
        if rules.class_of(after, self.definition.node) != self.home:
            raise Refused("the new method stands in another class")
        self._check_class()

    def _definition(self) -> Definition:
        return take_apart(self.after, self.name, self.own, in_class=True)

    def _check_class(self) -> None:
        """Objects of the class have the new method and no other of its name; its methods keep their objects."""
        before, tree, names = self.before, self.before.tree, self.before.names
        language = before.language
        classes = [n for n, kind in enumerate(tree.kind) if kind in language.classes]
        called = [tree.text[c] if (c := tree.child(n, "name")) is not None else "" for n in classes]
        if called.count(self.home) != 1:
            raise Refused("the class is not one plain class of the program")
        if language.bare_members:
            return
        for name in sorted(UNSTEADY & names.everything):
            raise Refused(f"the program uses {name}, which may give an object other members")
        built_on = {t for n in classes for c in tree.children(n) for t in self._heritage(c)}
        for base in sorted(built_on - set(called)):
            raise Refused(f"{base}, on which the class builds, is not in sight")
        if any(
            kind in language.strings and text[1:-1] == self.name
            for kind, text in zip(tree.kind, tree.text, strict=True)
        ):
            raise Refused(f"the text {self.name} might name a member")

    def _heritage(self, node: int) -> list[str]:
        tree = self.before.tree
        texts = tree.leaf_texts(node) if tree.kind[node] == "class_heritage" else []
        return [t for t in texts if t not in {"extends", "implements", ","}]

    def _callee(self, callee: int) -> Taken | None:
        tree, language = self.after.tree, self.after.language
        if tree.kind[callee] == language.name:
            if tree.text[callee] != self.name:
                return None
            if not language.bare_members:
                raise Refused("the new method is called without its object")
        else:
            held, member = tree.child(callee, "object"), tree.child(callee, "attribute")
            if member is None or tree.text[member] != self.name:
                return None
            if held is None or tree.leaf_texts(held) != [language.own_object] or tree.kind[held] != "this":
                raise Refused("the new method is called through another object")
        self._check_caller(callee)
        return Taken()

    def _check_caller(self, callee: int) -> None:
        """The call stands right in a plain method of the class, of the same kind as the new one. What is written above
        a method (`@Override`) only tells others of it, where its members are known by their bare names."""
        after, tree, language = self.after, self.after.tree, self.after.language
        method = after.procedure_around(callee)
        if (
            not method.node
            or not method.in_class
            or (method.decorated and not language.bare_members)
            or rules.class_of(after, method.node) != self.home
        ):
            raise Refused("the new method is called outside the methods of its class")
        between = [p for p in after.parents(callee) if p > method.node]
        if any(tree.kind[p] in language.scopes | {"lambda", "closure"} for p in between):
            raise Refused("the new method is called by what may run elsewhere")
        words, own = (after.words_before_name(n) for n in (method.node, self.definition.node))
        if OTHERWISE & {*words, *own, method.name}:
            raise Refused("the copies stand in no plain method")
        kinds = [
            [w for w in head if w in TIES] + (after.words_behind_parameters(n) if language.struct_values else [])
            for head, n in ((words, method.node), (own, self.definition.node))
        ]
        if [w for w in kinds[0] if w not in OVERRIDING] != kinds[1]:
            raise Refused("the new method is of another kind than those that call it")
        if not language.bare_members:
            self._require_own_calls(method.name)

    def _require_own_calls(self, method: str) -> None:
        """Where a method is handed on by its name, it would be called without its object."""
        names, tree, language = self.before.names, self.before.tree, self.before.language
        keys = (n for n, kind in enumerate(tree.kind) if kind in language.strings and tree.text[n][1:-1] == method)
        if any(tree.kind[tree.parent[n]] == "subscript" for n in keys):
            raise Refused(f"the text {method} might name a member")
        for i in names.nodes:
            if tree.text[i] != method:
                continue
            if names.role[i] is not Role.MEMBER:
                if tree.kind[tree.parent[i]] in language.procedures and tree.field[i] == language.name_field:
                    continue
                raise Refused(f"{method} is a name in other places too")
            attribute = tree.parent[i]
            around = tree.parent[attribute]
            called = tree.kind[around] == "call" and tree.field[attribute] == "function"
            bound = tree.kind[around] == "attribute" and tree.text[tree.child(around, "attribute") or 0] == "bind"
            given = tree.child(tree.parent[around], "arguments") if bound else None
            kept = given is not None and [tree.leaf_texts(c) for c in tree.items(given)[:1]] == [["this"]]
            if not (called or kept):
                raise Refused(f"{method} is handed on, and may be called without its object")

    def _refuse_members(self, segment: Sequence[int]) -> None:
        """What belongs to the object the method sees too."""

    def _refuse_given(self, segment: Sequence[int], arguments: Mapping[str, Term]) -> None:
        """A member by its bare name may be worked out anew each time it is read."""
        members = set(members_named(self.before, segment)) if self.before.language.bare_members else set()
        given = {name for value in arguments.values() for name in rules.names_in(value)}
        for name in sorted(given & members):
            raise Refused(f"{name} belongs to the object, and may change before it is read")

    def _known_everywhere(self) -> bool:
        return True
