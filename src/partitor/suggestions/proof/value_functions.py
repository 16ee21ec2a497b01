"""Proof of a function that gives a value where it was worked out: with the value back in place of each call the program
is the original."""

from __future__ import annotations

from collections.abc import Sequence

from ...program.flow import flow_of
from ...program.names import Role
from ...program.program import ProgramFile
from ...program.types import result_type, type_of_expression
from . import declared, places, rules
from .elements import ADDING, is_worked_out_first
from .functions import FunctionProof
from .quiet import OPEN, calls_the_library
from .terms import is_literal, matches, substitute, term_of
from .verdict import Refused, ValueFunction
from .walk import Walk

CHANGING = frozenset(
    {"update", "assignment", "augmented_assignment", "named_expression", "await", "yield", "declaration"}
)
ELEMENT = 5
"""Parts of the term of `marks[i]`."""


def prove_value_function(before: ProgramFile, after: ProgramFile, claim: ValueFunction) -> None:
    """Raises Refused unless each call of the new function, in the place of a value, gives that value."""
    rules.refuse_reflection(before)
    rules.require_fresh(claim.name, before)
    proof = _ValueProof(before, after, claim.name)
    proof.require_only_a_value()
    Walk(before, after, proof.statement, proof.expression).run()
    proof.finish()


class _ValueProof(FunctionProof):
    """As for a function in place of statements; its calls stand inside statements."""

    @property
    def value(self) -> int:
        """The node of all that the function does; 0 where it does more than to give a value."""
        statements = self.definition.statements
        if self.after.language.values_everywhere:
            return statements[0] if len(statements) == 1 else 0
        return 0 if statements else self.definition.value

    def statement(self, left: Sequence[int], new: int) -> int | None:
        """The walk's rule: skip the definition, and what tells of it."""
        return 0 if self._is_of_the_definition(new) else None

    def require_only_a_value(self) -> None:
        """Nothing is done for the value that anything else could see: what it is given may be read a little earlier."""
        after, definition = self.after, self.definition
        if not self.value or definition.outer:
            raise Refused("the new function does more than to give a value")
        inside = range(self.value, after.tree.end[self.value])
        if (CHANGING | OPEN | after.language.suspending) & {after.tree.kind[n] for n in inside}:
            raise Refused("working the value out changes something")
        for n in inside:
            called = after.tree.kind[n] == after.language.call
            if called and (after.called_name(n) in ADDING or not calls_the_library(after, n)):
                raise Refused("what is called might change what the value is worked out from")

    def expression(self, old: int, new: int) -> bool:
        """The walk's rule for expressions: a call of the new function stands for a value."""
        tree, language = self.after.tree, self.after.language
        if tree.kind[new] != language.call:
            return False
        callee, arguments = tree.child(new, language.callee_field), tree.child(new, "arguments")
        if callee is None or arguments is None or self._callee(callee) is None:
            return False
        self._require_known(new)
        given = declared.without_labels(self.after, self.definition.node, tree.items(arguments))
        if len(given) != len(self.definition.parameters):
            raise Refused("a call gives another number of values than the function takes")
        statement = next(p for p in self.before.parents(old) if p in self.before.statement_set)
        around = {self.before.tree.kind[p] for p in self.before.parents(old)}
        if self.before.language.declares and "with_statement" in around:
            raise Refused("the value stands where names are those of another object")
        scope = rules.scope_of_statement(self.before, statement)
        between = {self.before.tree.kind[p] for p in self.before.parents(old) if p > statement}
        if between & (self.before.language.scopes | self.before.language.procedures | OPEN):
            raise Refused("the value is worked out in a place with names of its own")
        self.changed_scopes.add((scope, rules.scope_of_statement(self.after, new)))
        self._require_the_value(old, list(given))
        for parameter, node in zip(self.definition.parameters, given, strict=True):
            self._require_good_early(statement, scope, parameter, node)
        self._check_names([statement], scope, {})
        if self.before.language.declares:
            self._require_at_home(old, statement, list(given))
        return True

    def _require_the_value(self, old: int, given: list[int]) -> None:
        after, definition = self.after, self.definition
        inside = after.names.within(self.value, after.tree.end[self.value])
        holes = frozenset(
            i for i in inside if after.names.owner(i) == definition.node and after.names.role[i] <= Role.UPDATE
        )
        values = {p: term_of(after, n) for p, n in zip(definition.parameters, given, strict=True)}
        template = substitute(term_of(after, self.value, holes), values, self.meaning)[0]
        if not matches(template, term_of(self.before, old), {}):
            line = self.before.tree.start_line(old)
            raise Refused(f"the function does not give the value on line {line} of the program")

    def _require_good_early(self, statement: int, scope: int, parameter: str, node: int) -> None:
        """What is given is a literal, a variable that has its value, or an element that is looked up at once."""
        after, tree = self.after, self.after.tree
        value = term_of(after, node)
        if is_literal(value):
            return
        names = [tree.text[n] for n in range(node, tree.end[node]) if tree.kind[n] == after.language.name]
        bound = flow_of(self.before, scope).bound_before.get(statement, frozenset())
        if any(self.before.names.owner_of(n, scope) == scope and n not in bound for n in names):
            raise Refused("what is given may have no value yet")
        if value[0] == after.language.name:
            return
        held, place = tree.child(node, "value"), tree.child(node, "subscript")
        plain = value[0] == "subscript" and held is not None and place is not None and len(value) == ELEMENT
        if not plain or any(tree.end[part] > part + 1 for part in (held, place) if part is not None):
            raise Refused("what is given is worked out on the spot")
        first = min(self._uses(parameter), default=-1)
        if first < 0 or not is_worked_out_first(after, self.value, first):
            raise Refused("what is given is looked up sooner than it was")

    def _require_at_home(self, old: int, statement: int, given: list[int]) -> None:
        before, after, language = self.before, self.after, self.before.language
        if language.implicit_locals or language.by_reference:
            raise Refused("functions here may change what they are given")
        declared.refuse_aliases(before, [statement])
        self._refuse_members([statement])
        scope = rules.scope_of_statement(before, statement)
        declared.require_simple_scopes(before, scope)
        declared.require_simple_scopes(after, self.definition.node)
        if language.methods:
            self._check_home([statement])
        if not language.typed:
            return
        procedure = next(p for p in after.procedures if p.node == self.definition.node)
        kind = type_of_expression(before, old)
        if kind is None or kind.dimensions or result_type(after, procedure) != kind:
            raise Refused("the function might give something else than the value is")
        for parameter, node in zip(self.definition.parameters, given, strict=True):
            declared.require_argument_type(after, node, parameter, self.definition.node)
        holes = [i for p in self.definition.parameters for i in self._uses(p)]
        variables = zip(self.definition.parameters, given, strict=True)
        places.require_values_fit(after, holes, frozenset(p for p, n in variables if _is_a_name(after, n)))


def _is_a_name(file: ProgramFile, node: int) -> bool:
    """True for a plain name."""
    return file.tree.kind[node] == file.language.name
