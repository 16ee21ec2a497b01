"""Proof of variables kept in one list: with each element a variable again, the program is the original."""

from __future__ import annotations

from collections.abc import Sequence

from ...program.flow import flow_of
from ...program.names import Role
from ...program.program import ProgramFile
from . import rules
from .folding import integer_value
from .terms import is_literal, term_of
from .verdict import ListedVariables, Refused
from .walk import Walk


def prove_listing(before: ProgramFile, after: ProgramFile, claim: ListedVariables) -> None:
    """Raises Refused unless the list stands before all uses of its variables, and each use of the k-th is the
    list's k-th element."""
    rules.refuse_reflection(before)
    rules.require_fresh(claim.name, before)
    proof = _ListingProof(before, after, claim)
    proof.check_uses()
    Walk(before, after, proof.statement, proof.expression, names=frozenset({claim.name, *claim.variables})).run()
    proof.finish()


class _ListingProof:
    def __init__(self, before: ProgramFile, after: ProgramFile, claim: ListedVariables) -> None:
        self.before = before
        self.after = after
        self.claim = claim
        self.place = {name: k for k, name in enumerate(claim.variables)}
        names, tree = before.names, before.tree
        self.uses = [i for i in names.nodes if tree.text[i] in self.place and names.role[i] not in UNTOUCHED]
        if not self.uses or len(self.place) != len(claim.variables):
            raise Refused("there is nothing to keep in a list")
        self.scope = names.scope[self.uses[0]]
        self.elements = 0
        self.seen = False

    def check_uses(self) -> None:
        """All uses are plain ones in one procedure, and none could come before a value was given."""
        before, names, tree = self.before, self.before.names, self.before.tree
        if rules.scope_of_statement(before, self.uses[0]) != self.scope:
            raise Refused("the variables belong to a class")
        bound = flow_of(before, self.scope).bound_before
        for i in self.uses:
            name, parent = tree.text[i], tree.parent[i]
            if names.scope[i] != self.scope or names.owner(i) != self.scope:
                raise Refused(f"{name} is used by another function")
            given = tree.kind[parent] in {"assignment", "augmented_assignment"} and tree.field[i] == "left"
            role = names.role[i]
            if role is not Role.READ and (role not in (Role.WRITE, Role.UPDATE) or not given):
                raise Refused(f"{name} gets a value in an unusual way")
            if tree.child(parent, "type") is not None and given:
                raise Refused(f"{name} is declared with a type")
            if role is not Role.WRITE:
                statement = next((s for s in (i, *before.parents(i)) if s in bound), None)
                if statement is None or name not in bound[statement]:
                    raise Refused(f"{name} may have no value yet")

    def statement(self, left: Sequence[int], new: int) -> int | None:
        """The walk's rule: the statement that makes the list, empty or with the variables' first values."""
        tree = self.after.tree
        target = tree.child(new, "left") if tree.kind[new] == "assignment" else None
        if target is None or tree.text[target] != self.claim.name:
            return None
        if self.seen or not left or left[0] > self.uses[0]:
            raise Refused("the list is not made once, before it is used")
        if self.before.tree.parent[left[0]] != self._body():
            raise Refused("the list is made where it may not be made")
        self.seen = True
        value = tree.child(new, "right")
        if value is None or tree.child(new, "type") is not None:
            raise Refused("the list is made in an unusual way")
        if tree.kind[value] == "binary_operator":
            self._require_places(value)
            return 0
        return self._first_values(left, value)

    def _body(self) -> int:
        """The statement list that always runs first."""
        return self.before.tree.child(self.scope, "body") or 0 if self.scope else 0

    def _require_places(self, value: int) -> None:
        """`[0] * 8`: a place for each variable, whatever stands in it."""
        term = term_of(self.after, value)
        listed, sign, count = term[1:4] if len(term) == 4 else ((), (), ())
        assert isinstance(listed, tuple)
        assert isinstance(count, tuple)
        if len(listed) != 4 or listed[0] != "list" or sign != ("*", "*") or not is_literal(listed[2]):
            raise Refused("the list is made in an unusual way")
        if integer_value(count) != len(self.place):
            raise Refused("the list has another number of places than there are variables")

    def _first_values(self, left: Sequence[int], value: int) -> int:
        """`[310, 270, 230]` for assignments of these values, in a row."""
        tree = self.after.tree
        values = [c for c in tree.children(value) if tree.text[c] not in {"[", "]", ","}]
        if tree.kind[value] != "list" or len(values) != len(self.place) or len(left) < len(values):
            raise Refused("the list has another number of values than there are variables")
        for name, given, statement in zip(self.claim.variables, values, left, strict=False):
            wanted = ("assignment", ("identifier", name), ("=", "="), term_of(self.after, given))
            if term_of(self.before, statement) != wanted or not is_literal(wanted[3]):
                raise Refused("the list has other values than the variables")
        self.elements += len(values)
        return len(values)

    def expression(self, old: int, new: int) -> bool:
        """The walk's rule for uses: the variable's element for the variable."""
        a, b = self.before.tree, self.after.tree
        if b.kind[new] != "subscript" or a.kind[old] != "identifier" or a.text[old] not in self.place:
            return False
        wanted = (
            "subscript",
            ("identifier", self.claim.name),
            ("[", "["),
            ("integer", self.place[a.text[old]]),
            ("]", "]"),
        )
        if not self.seen or term_of(self.after, new) != wanted:
            raise Refused(f"{a.text[old]} becomes another element")
        self.elements += 1
        return True

    def finish(self) -> None:
        """After the walk: every use became an element, and the list is used in no other way."""
        names, tree = self.after.names, self.after.tree
        uses = [i for i in names.nodes if tree.text[i] == self.claim.name]
        left = [i for i in names.nodes if tree.text[i] in self.place and names.role[i] not in UNTOUCHED]
        made = len(uses) - 1
        if not self.seen or left or self.elements != len(self.uses) or made > self.elements:
            raise Refused("some use of the variables is not the list's")
        if any(names.owner(i) != (0 if not self.scope else names.scope[uses[0]]) for i in uses):
            raise Refused("the list belongs to another function in one place")


UNTOUCHED = frozenset({Role.MEMBER, Role.KEYWORD, Role.IGNORED})
