"""Proof of several new functions at once: with all their calls inlined the program is the original again.

Each is held against the original's own statements as if it were the only one. That is enough where no call reads early
what another one's statements may leave without a value: what the others keep to themselves nobody needs afterwards, as
the original's flow tells, and new functions are called in one place, never by one another.
"""

from __future__ import annotations

from collections.abc import Mapping, Sequence

from ...program.flow import needed_by
from ...program.program import ProgramFile
from . import rules
from .functions import Call, FunctionProof
from .terms import term_of
from .verdict import NewFunctions, Refused
from .walk import Walk


def prove_functions(before: ProgramFile, after: ProgramFile, claim: NewFunctions) -> None:
    """Raises Refused unless the rewritten file with all the functions inlined is the original."""
    names = frozenset(function.name for function in claim.functions)
    if before.language.declares or len(names) < len(claim.functions):
        raise Refused("such functions are proved one by one")
    rules.refuse_reflection(before)
    proofs = []
    for function in claim.functions:
        rules.require_fresh(function.name, before)
        proofs.append(_OneOfSeveral(before, after, function.name, function.declared))
    _Several(after, proofs).walk(before)
    for proof in proofs:
        proof.require_followed()
        proof.require_own_values(proofs)
    for old, new in {scopes for proof in proofs for scopes in proof.changed_scopes}:
        rules.require_same_owners(before, after, old, new, names)


class _OneOfSeveral(FunctionProof):
    """The proof of one of them, with the statements that its call stands for."""

    segment: tuple[int, ...] = ()
    scope = 0
    read: frozenset[str] = frozenset()
    """Names that its call reads."""
    written: frozenset[str] = frozenset()
    """Names that its statements may give another value."""

    def _inline(self, segment: Sequence[int], statement: int, call: Call, first: Mapping[str, str]) -> None:
        super()._inline(segment, statement, call, first)
        if first:
            raise Refused("such functions are proved one by one")
        if self.segment:
            raise Refused("one of several new functions is called more than once")
        before, after = self.before, self.after
        self.segment = tuple(segment)
        self.scope = rules.scope_of_statement(before, segment[0])
        self.read = frozenset(name for a in call.arguments for name in rules.names_in(term_of(after, a)))
        self.written = frozenset(rules.names_written(before, segment, self.scope))

    def require_own_values(self, proofs: Sequence[_OneOfSeveral]) -> None:
        """What the call reads, and other calls may keep to themselves, its statements read too before they change it:
        then these calls give it back."""
        others = {name for p in proofs if p is not self and p.scope == self.scope for name in p.written}
        if self.read & others - needed_by(self.before, self.scope, self.segment):
            raise Refused("a call reads what another one's statements may leave without a value")


class _Several:
    """Hands each new construct to the proof of its function."""

    def __init__(self, after: ProgramFile, proofs: Sequence[_OneOfSeveral]) -> None:
        self.after = after
        self.by_name = {proof.name: proof for proof in proofs}
        self.by_statement = {proof.definition.statement: proof for proof in proofs}

    def walk(self, before: ProgramFile) -> None:
        """Compare the two files. Raises Refused at the first difference."""
        Walk(before, self.after, self._statement).run()

    def _statement(self, left: Sequence[int], new: int) -> int | None:
        proof = self.by_statement.get(new) or self.by_name.get(self._called(new))
        return proof.statement(left, new) if proof is not None else None

    def _called(self, statement: int) -> str:
        """The function that a statement calls, where it does no more than call one, or keep what one gives."""
        tree = self.after.tree
        call = tree.child(statement, "right") if tree.kind[statement] == "assignment" else statement
        return self.after.called_name(call) if call is not None and tree.kind[call] == self.after.language.call else ""
