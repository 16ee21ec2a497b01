"""Proof of merged methods, where a method is given its object by name: every call goes through an object that is
certain to be one of their class."""

from __future__ import annotations

import msgspec

from ...program.program import Procedure, ProgramFile
from . import rules
from .merges import MergeProof, check
from .methods import OWN, is_object_of, require_plain_class
from .verdict import MergedFunctions, Refused


def prove_merged_methods(before: ProgramFile, after: ProgramFile, claim: MergedFunctions) -> None:
    """Raises Refused unless every rewritten call does what the call of its twin did."""
    require_plain_class(before, claim.home)
    check(before, after, claim, MethodMergeProof)


class MethodMergeProof(MergeProof):
    """The object is no parameter here: it is the same in the general method as in each twin."""

    by_object = True

    def _twin(self, file: ProgramFile, name: str) -> Procedure:
        if name.startswith("__"):
            raise Refused(f"{name} is called by other ways than its name")
        found = super()._twin(file, name)
        return msgspec.structs.replace(found, parameters=found.parameters[1:])

    def _is_plain(self, file: ProgramFile, procedure: Procedure) -> bool:
        """A method of the class in sight, given its object first."""
        own = procedure.in_class and rules.class_of(file, procedure.node) == self.claim.home
        return own and not procedure.decorated and procedure.parameters[:1] == (OWN,)

    def _own_object(self) -> dict[str, str]:
        return {OWN: OWN}

    def _through_an_object(self, old: int, new: int) -> Procedure | None:
        twin = super()._through_an_object(old, new)
        holder = self.before.tree.child(old, "object")
        if twin is not None and (holder is None or not is_object_of(self.before, holder, self.claim.home)):
            raise Refused(f"{twin.name} is called through an object whose class is not in sight")
        return twin
