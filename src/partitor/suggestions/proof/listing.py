"""Proof of variables kept in one list: with each element a variable again, the program is the original."""

from __future__ import annotations

from collections.abc import Sequence

from ...program.flow import flow_of
from ...program.names import NO_VARIABLES, Role
from ...program.program import ProgramFile
from . import rules
from .entries import entries_of
from .folding import Term, integer_value
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
        self.uses = [i for i in names.nodes if tree.text[i] in self.place and names.role[i] not in NO_VARIABLES]
        if not self.uses or len(self.place) != len(claim.variables):
            raise Refused("there is nothing to keep in a list")
        self.scope = names.scope[self.uses[0]]
        self.elements = 0
        """Uses of the variables that became the list's, and first values."""
        self.mentions = 0
        """How often the list is named for them."""
        self.seen = False
        self.keys: list[Term] = []
        """What the elements of a dictionary are found by."""

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
        if tree.kind[value] == "dictionary" and self.before.language.id == "python":
            return self._first_entries(left, value)
        return self._first_values(left, value)

    def _first_entries(self, left: Sequence[int], value: int) -> int:
        """`{"Ama": 0, "Ben": 0}` for assignments of these values, in a row."""
        entries = entries_of(self.after, value)
        self.keys = [key for key, _ in entries]
        return self._given_in_a_row(left, [given for _, given in entries])

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
        if tree.kind[value] != "list":
            raise Refused("the list is made in an unusual way")
        return self._given_in_a_row(left, values)

    def _given_in_a_row(self, left: Sequence[int], values: Sequence[int]) -> int:
        if len(values) != len(self.place) or len(left) < len(values):
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
        if b.kind[new] == "call" and self.before.language.id == "python" and self._is_given_whole(old, new):
            return True
        if b.kind[new] != "subscript" or a.kind[old] != "identifier" or a.text[old] not in self.place:
            return False
        wanted = (
            "subscript",
            ("identifier", self.claim.name),
            ("[", "["),
            self.keys[self.place[a.text[old]]] if self.keys else ("integer", self.place[a.text[old]]),
            ("]", "]"),
        )
        if not self.seen or term_of(self.after, new) != wanted:
            raise Refused(f"{a.text[old]} becomes another element")
        self.elements += 1
        self.mentions += 1
        return True

    def _is_given_whole(self, old: int, new: int) -> bool:
        """True for the largest or smallest of all variables, asked of the list, and for their sum where they are whole
        numbers: to begin with nothing and add them is then to add them."""
        a, b = self.before.tree, self.after.tree
        callee, arguments = b.child(new, "function"), b.child(new, "arguments")
        given = b.items(arguments) if arguments is not None else []
        whole = f"{self.claim.name}.values()" if self.keys else self.claim.name
        if callee is None or len(given) != 1 or b.source_of(given[0]) != whole:
            return False
        name, wanted = b.text[callee], list(self.claim.variables)
        if not self.seen or name not in {"max", "min", "sum"}:
            raise Refused("the list is handed on")
        rules.require_builtin(name, self.before, self.scope)
        if name == "sum":
            while a.kind[old] == "parenthesized_expression":
                old = next(c for c in a.children(old) if a.text[c] not in {"(", ")"})
            same = self._added(old) == wanted and all(self._holds_integers(v) for v in wanted)
        else:
            arguments = a.child(old, "arguments") if a.kind[old] == "call" else None
            called = a.text[old + 1] == name and arguments is not None
            same = called and [a.text[c] for c in a.items(arguments or 0)] == wanted
        if not same:
            raise Refused("the list does not stand for all its variables")
        self.elements += len(wanted)
        self.mentions += 1
        return True

    def _added(self, node: int) -> list[str]:
        """The variables of which a node is the sum, first to last; [""] for anything else."""
        tree = self.before.tree
        if tree.kind[node] == "identifier":
            return [tree.text[node]]
        parts = tree.parts(node) if tree.kind[node] == "binary_operator" else []
        if len(parts) != 3 or tree.text[parts[1]] != "+" or tree.kind[parts[2]] != "identifier":
            return [""]
        return [*self._added(parts[0]), tree.text[parts[2]]]

    def _holds_integers(self, name: str) -> bool:
        """True where a variable is never given anything but whole numbers."""
        before, tree = self.before, self.before.tree
        for i in self.uses:
            if tree.text[i] != name or before.names.role[i] is Role.READ:
                continue
            value = tree.child(tree.parent[i], "right")
            if value is None or not self._is_an_integer(value):
                return False
            if tree.kind[tree.parent[i]] == "augmented_assignment" and tree.text[value - 1] not in {"+=", "-=", "*="}:
                return False
        return True

    def _is_an_integer(self, node: int) -> bool:
        """True for whole numbers, for what `int` gives, and for what is reckoned of these and the variables."""
        tree = self.before.tree
        if tree.kind[node] == "call" and tree.text[node + 1] == "int":
            rules.require_builtin("int", self.before, self.scope)
            return True
        if tree.kind[node] == "binary_operator":
            left, sign, right = tree.parts(node)
            return tree.text[sign] in {"+", "-", "*"} and self._is_an_integer(left) and self._is_an_integer(right)
        return tree.text[node] in self.place or integer_value(term_of(self.before, node)) is not None

    def finish(self) -> None:
        """After the walk: every use became an element, and the list is used in no other way."""
        names, tree = self.after.names, self.after.tree
        uses = [i for i in names.nodes if tree.text[i] == self.claim.name]
        left = [i for i in names.nodes if tree.text[i] in self.place and names.role[i] not in NO_VARIABLES]
        made = len(uses) - 1
        if not self.seen or left or self.elements != len(self.uses) or made != self.mentions:
            raise Refused("some use of the variables is not the list's")
        if any(names.owner(i) != (0 if not self.scope else names.scope[uses[0]]) for i in uses):
            raise Refused("the list belongs to another function in one place")
