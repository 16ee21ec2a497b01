"""Proof of variables kept in one array, where variables are declared: with each place a variable again, the program
is the original."""

from __future__ import annotations

import re
from collections.abc import Sequence

from ...program.names import Role
from ...program.program import ProgramFile
from ...program.types import declared_type, type_of_expression, type_of_name
from . import declared, rules
from .folding import integer_value
from .reach import is_unseen_until
from .terms import is_literal, term_of
from .verdict import ListedVariables, Refused
from .walk import Walk

LASTING = frozenset({"static", "extern", "register", "volatile", "thread_local", "export", "declare", "async", "await"})
"""Words with which a variable is more than one: none of these may stand before it."""
UNFIT = frozenset({"dictionary", "case_clause", "array_declarator", "sizeof_expression", "list_pattern"})
"""Places that want a variable itself, or a constant."""


def prove_array(before: ProgramFile, after: ProgramFile, claim: ListedVariables) -> None:
    """Raises Refused unless the array stands where its variables were declared, each declaration gives its place the
    same value, and each use of the k-th variable is the array's k-th place."""
    rules.refuse_reflection(before)
    rules.require_fresh(claim.name, before)
    proof = _ArrayProof(before, after, claim)
    proof.walk.run()
    proof.finish()


class _ArrayProof:
    def __init__(self, before: ProgramFile, after: ProgramFile, claim: ListedVariables) -> None:
        self.before = before
        self.after = after
        self.claim = claim
        self.place = {name: k for k, name in enumerate(claim.variables)}
        names, tree = before.names, before.tree
        self.uses = [i for i in names.nodes if tree.text[i] in self.place and names.role[i] < Role.MEMBER]
        found = [i for i in self.uses if names.declared_at(i)]
        if [tree.text[i] for i in found] != list(claim.variables):
            raise Refused("the variables are not declared once each")
        self.scope = names.scope[found[0]]
        self.declarations = {tree.text[i]: self._declaration(i) for i in found}
        self.block = tree.parent[next(iter(self.declarations.values()))]
        self.seen = 0
        """The node of the array's declaration."""
        self.kept = 0
        self.shortened = -1
        """The declaration that is left without the variables, while it is still to come."""
        names_seen = frozenset({claim.name, *claim.variables})
        self.gathered = self._gathered()
        self.walk = Walk(before, after, self.statement, self.expression, frozenset(self.gathered[1:]), names=names_seen)
        self._check()

    def _gathered(self) -> list[int]:
        """The declarations that stand apart and are all made where the first one stands; [] where that is not so."""
        after = self.after
        made = [n for n, kind in enumerate(after.tree.kind) if kind == "declaration"]
        made = [n for n in made if declared.only_name(after, n) == self.claim.name]
        statements = list(self.declarations.values())
        beside = self.before.block_at[self.block].statements if self.block in self.before.block_at else ()
        at = beside.index(statements[0]) if statements[0] in beside else 0
        in_a_row = beside[at : at + len(statements)] == tuple(statements)
        if in_a_row or len(set(statements)) < len(self.place) or len(made) != 1 or not self._literals(made[0]):
            return []
        for name, statement in self.declarations.items():
            value = self._value(statement, name)
            if value is None or not is_literal(term_of(self.before, value)):
                raise Refused("the array would have its values too early")
            if declared.only_name(self.before, statement) != name:
                raise Refused(f"{name} is declared in an unusual way")
        if not self._is_hidden():
            raise Refused("a function could ask for the array's values before they are given")
        return statements

    def _is_hidden(self) -> bool:
        """True where no function can use the variables before all of them are declared."""
        if self.before.language.typed or all(self.before.names.scope[i] == self.scope for i in self.uses):
            return True
        last = max(self.declarations.values())
        return self.scope == 0 and all(is_unseen_until(self.before, name, last) for name in self.place)

    def _declaration(self, name: int) -> int:
        tree = self.before.tree
        found = next((p for p in self.before.parents(name) if tree.kind[p] == "declaration"), None)
        if found is None or tree.parent[found] not in self.before.block_at:
            raise Refused(f"{tree.text[name]} is declared in an unusual place")
        if LASTING & set(tree.leaf_texts(found)):
            raise Refused(f"{tree.text[name]} is declared in an unusual way")
        return found

    def _check(self) -> None:
        before, names, tree = self.before, self.before.names, self.before.tree
        declared.require_simple_scopes(before, self.scope)
        if any(tree.parent[d] != self.block for d in self.declarations.values()):
            raise Refused("the variables are declared in different places")
        if before.language.implicit_locals or before.language.value_types:
            raise Refused("a list means something else in this language")
        hoisted = any(tree.text[c] == "var" for d in self.declarations.values() for c in tree.children(d))
        for i in self.uses:
            name, parent = tree.text[i], tree.parent[i]
            if names.owner(i) != self.scope or (hoisted and names.scope[i] != self.scope):
                raise Refused(f"{name} is used by another function")
            if not tree.start_byte[self.declarations[name]] <= tree.start_byte[i]:
                raise Refused(f"{name} is used above the place where it is declared")
            if tree.kind[parent] in UNFIT:
                raise Refused(f"{name} stands where an array's place may not stand")
            if names.role[i] is not Role.READ and not names.declared_at(i):
                if {"const", "final", "readonly"} & set(tree.leaf_texts(self.declarations[name])):
                    raise Refused(f"{name} may not be given another value")
                given = tree.kind[parent] in {"assignment", "augmented_assignment"} and tree.field[i] == "left"
                read = (
                    tree.kind[parent] == "binary_operator"
                    and tree.field[i] == "right"
                    and before.language.struct_values
                )
                if not (given or read) and tree.kind[parent] not in {"update", "address_of"}:
                    raise Refused(f"{name} gets a value in an unusual way")
        self._refuse_hidden_uses(hoisted)
        apart = set(self.declarations.values())
        if len(apart) > 1 and any(self._others(d) for d in apart):
            raise Refused("the variables are declared together with others")
        kinds = {type_of_name(before, name, self.scope) for name in self.place}
        if before.language.typed and (len(kinds) != 1 or None in kinds):
            raise Refused("the variables are of different types")

    def _refuse_hidden_uses(self, hoisted: bool) -> None:
        """A macro may name a variable that is not seen there, and the page's object holds what `var` declares."""
        names, tree = self.before.names, self.before.tree
        members = {tree.text[i] for i in names.nodes if names.role[i] is Role.MEMBER} if hoisted else set()
        for name in self.place:
            if rules.is_named_by_a_macro(self.before, name) or name in members:
                raise Refused(f"{name} may be used where that is not in sight")

    # -- the walk's rules ----------------------------------------------------------------------------

    def statement(self, left: Sequence[int], new: int) -> int | None:
        """The array's declaration; then each declaration of a variable as an assignment to its place."""
        after = self.after
        if declared.only_name(after, new) == self.claim.name:
            return self._made(left, new)
        old = left[0] if left else -1
        if old == self.shortened >= 0:
            self.shortened = -1
            if not self._declares_the_rest(old, new):
                raise Refused("the variables' declaration tells something else of the others")
            return 1
        name = declared.only_name(self.before, old) if left else ""
        if not self.seen or self.declarations.get(name) != old:
            return None
        if after.tree.kind[new] != "assignment":
            raise Refused(f"{name} does not become a place of the array")
        target, value = after.tree.child(new, "left"), after.tree.child(new, "right")
        was = self._value(old, name)
        operators = [after.tree.text[c] for c in after.tree.children(new) if c not in (target, value)]
        if target is None or value is None or was is None or operators != ["="]:
            raise Refused(f"{name} does not become a place of the array")
        self._require_place(target, name)
        self.walk._node(was, value)
        return 1

    def _made(self, left: Sequence[int], new: int) -> int:
        """How many statements the array's declaration stands for."""
        before, tree = self.before, self.after.tree
        first = next(iter(self.declarations.values()))
        if self.seen or not left or left[0] > first or before.tree.parent[left[0]] != self.block:
            raise Refused("the array is not made once, in the block of its variables")
        if LASTING & set(tree.leaf_texts(new)):
            raise Refused("the array is made in an unusual way")
        self.seen = new
        self._require_type(new)
        values = self._literals(new)
        if values:
            made = self.gathered or left
            for (name, declaration), value, statement in zip(self.declarations.items(), values, made, strict=False):
                was = self._value(declaration, name)
                if statement != declaration or was is None or term_of(before, was) != term_of(self.after, value):
                    raise Refused("the array has other values than the variables")
            self.kept += len(values)
            return 1 if self.gathered else len(values)
        if not self._has_places(new):
            raise Refused("the array has another number of places than there are variables")
        if left[0] == first and set(self.declarations.values()) == {first}:
            if any(self._value(first, name) is not None for name in self.place):
                raise Refused("the array's places do not get their first values")
            self.kept += len(self.place)
            if self._others(first):
                self.shortened = first
                return 0
            return 1
        if not self._is_hidden():
            raise Refused("a function could ask for the array's places before they have values")
        return 0

    def _others(self, declaration: int) -> list[int]:
        """The parts of a declaration that declare something else than the variables."""
        tree, names = self.before.tree, self.before.names
        found: list[int] = []
        for child in tree.children(declaration):
            told = [tree.text[i] for i in names.within(child, tree.end[child]) if names.declared_at(i)]
            found += [child] if told and told[0] not in self.place else []
        return found

    def _declares_the_rest(self, old: int, new: int) -> bool:
        """True for a declaration that says what another one says, without the variables."""
        before, after = self.before, self.after
        tree, others = before.tree, self._others(old)
        declaring = [
            c
            for c in tree.children(old)
            if c in others or not any(before.names.declared_at(i) for i in before.names.within(c, tree.end[c]))
        ]
        told = [term_of(before, c) for c in declaring if tree.text[c] != ","]
        return (
            tree.kind[old] == after.tree.kind[new]
            and bool(others)
            and told == [term_of(after, c) for c in after.tree.children(new) if after.tree.text[c] != ","]
        )

    def _value(self, declaration: int, name: str) -> int | None:
        """What a declaration gives a variable."""
        names, tree = self.before.names, self.before.tree
        inside = names.within(declaration, tree.end[declaration])
        node = next(i for i in inside if tree.text[i] == name and names.declared_at(i))
        parent = tree.parent[node]
        return tree.child(parent, "right") if tree.kind[parent] == "declarator" else None

    def _require_type(self, new: int) -> None:
        """The array's places are of the variables' type."""
        if not self.after.language.typed:
            return
        node = next(i for i in self.after.names.within(new, self.after.tree.end[new]) if self._is_the_array(i))
        kind = declared_type(self.after, node)
        wanted = type_of_name(self.before, self.claim.variables[0], self.scope)
        if kind is None or len(kind.dimensions) != 1 or kind.element() != wanted:
            raise Refused("the array's places are of another type than the variables")

    def _is_the_array(self, node: int) -> bool:
        return self.after.tree.text[node] == self.claim.name

    def _literals(self, new: int) -> list[int]:
        """The values in the array's declaration; [] where it has places only."""
        tree = self.after.tree
        listed = [n for n in range(new, tree.end[new]) if tree.kind[n] == "list"]
        if not listed:
            return []
        values = [c for c in tree.children(listed[0]) if tree.text[c] not in {"[", "]", "{", "}", ","}]
        if not values:
            return []
        if len(values) != len(self.place) or not all(is_literal(term_of(self.after, v)) for v in values):
            raise Refused("the array has another number of values than there are variables")
        return values

    def _has_places(self, new: int) -> bool:
        """True for an array with a place for each variable: `new int[4]`, `int gates[4]`, or `[]` where it grows."""
        tree, language = self.after.tree, self.after.language
        inside = range(new, tree.end[new])
        if any(tree.kind[n] == "list" for n in inside):
            return not language.typed
        made = [n for n in inside if tree.kind[n] in {"array_creation_expression", "array_declarator"}]
        if len(made) != 1 or self._number_of_places(made[0]) != [len(self.place)]:
            return False
        right = made[0]
        if tree.kind[right] == "array_declarator":
            return True
        kind = type_of_name(self.before, self.claim.variables[0], self.scope)
        told = tree.child(right, "type")
        return told is not None and kind is not None and "".join(tree.leaf_texts(told)).partition("[")[0] == kind.base

    def _number_of_places(self, made: int) -> list[int | None]:
        """The numbers in what makes an array; a grammar may leave them in the type's text."""
        tree = self.after.tree
        inside = range(made, tree.end[made])
        told = [n for text in tree.text[made : tree.end[made]] for n in re.findall(r"\[(\d+)\]", text)]
        return [*(integer_value(term_of(self.after, n)) for n in inside if tree.kind[n] == "integer"), *map(int, told)]

    def expression(self, old: int, new: int) -> bool:
        """The walk's rule for uses: the variable's place for the variable."""
        a, b = self.before.tree, self.after.tree
        if b.kind[new] != "subscript" or a.kind[old] != "identifier" or a.text[old] not in self.place:
            return False
        self._require_place(new, a.text[old])
        return True

    def _require_place(self, node: int, name: str) -> None:
        wanted = ("subscript", ("identifier", self.claim.name), ("[", "["), ("integer", self.place[name]), ("]", "]"))
        if not self.seen or term_of(self.after, node) != wanted:
            raise Refused(f"{name} becomes another place")
        self.kept += 1

    def finish(self) -> None:
        """After the walk: every use became a place, and the array is used in no other way."""
        names, tree = self.after.names, self.after.tree
        uses = [i for i in names.nodes if self._is_the_array(i) and names.role[i] < Role.MEMBER]
        left = [i for i in names.nodes if tree.text[i] in self.place and names.role[i] < Role.MEMBER]
        if not self.seen or left or self.shortened >= 0 or self.kept != len(self.uses) or len(uses) - 1 > self.kept:
            raise Refused("some use of the variables is not the array's")
        owner = names.owner(next(i for i in uses if names.declared_at(i)))
        if any(names.owner(i) != owner for i in uses):
            raise Refused("the array belongs to another function in one place")
        types = {type_of_expression(self.after, tree.parent[i]) for i in uses if not names.declared_at(i)}
        if self.after.language.typed and len(types) > 1:
            raise Refused("the array's places are of different types")
