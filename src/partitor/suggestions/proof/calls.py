"""Proof of calls of a function that is there already, in place of what it does: inlined, they are the original."""

from __future__ import annotations

from collections.abc import Sequence

from ...program.names import Role
from ...program.program import ProgramFile
from . import rules
from .definitions import Definition, take_apart
from .functions import FunctionProof
from .quiet import unknown_star_import
from .terms import term_of
from .verdict import CalledFunction, Refused
from .walk import Walk

UNWRITTEN = frozenset({Role.READ, Role.MEMBER, Role.KEYWORD, Role.IGNORED})


def prove_call(before: ProgramFile, after: ProgramFile, claim: CalledFunction) -> None:
    """Raises Refused unless the rewritten file, with its further calls of a function that was there
    already inlined, is the original."""
    rules.refuse_reflection(before)
    names, tree = before.names, before.tree
    writes = [i for i in names.nodes if tree.text[i] == claim.name and names.role[i] not in UNWRITTEN]
    if len(writes) != 1 or rules.declared_global_somewhere(before, claim.name) or unknown_star_import(before):
        raise Refused(f"{claim.name} means more than one thing")
    if before.language.methods and any(p.name == claim.name for f in before.beside for p in f.procedures):
        raise Refused(f"{claim.name} may be another method in another class")
    proof = _CallProof(before, after, claim.name)
    Walk(before, after, proof.statement).run()
    proof.finish()


class _CallProof(FunctionProof):
    """As for a new function, but the definition and some calls stand in the original too."""

    def _definition(self) -> Definition:
        return take_apart(self.after, self.name, self.own, may_work_out=True)

    def statement(self, left: Sequence[int], new: int) -> int | None:
        """The walk's rule: inline the calls that the original does not have."""
        after, definition = self.after, self.definition
        unchanged = left and term_of(self.before, left[0]) == term_of(after, new)
        if unchanged or self._call_at(new) is None:
            return None
        if definition.node <= new < after.tree.end[definition.node]:
            raise Refused("the function would call itself")
        return super().statement(left, new)

    def finish(self) -> None:
        """After the walk: every other use of the name was there before."""
        before, after = self.before, self.after
        was = sum(before.tree.text[i] == self.name for i in before.names.nodes)
        uses = sum(after.tree.text[i] == self.name for i in after.names.nodes)
        if self.inlined == 0 or uses != was + self.inlined:
            raise Refused("the function is used in a way that cannot be followed")
        for old, new in self.changed_scopes:
            if before.names.owner_of(self.name, old) != 0:
                raise Refused(f"{self.name} means something else there")
            rules.require_same_owners(self.before, self.after, old, new, {self.name})
