"""Proof of a function with another name: with the old name back, the program is the original."""

from __future__ import annotations

from ...program.names import Role
from ...program.program import ProgramFile
from . import rules
from .verdict import Refused, RenamedFunction


def prove_rename(before: ProgramFile, after: ProgramFile, claim: RenamedFunction) -> None:
    """Raises Refused unless the only difference is the name, everywhere, and the new one meant nothing."""
    rules.refuse_reflection(before)
    rules.require_fresh(claim.name, before)
    rules.require_untold(claim.old, before)
    names, tree = before.names, before.tree
    uses = [i for i in names.nodes if tree.text[i] == claim.old]
    writes = [i for i in uses if names.role[i] in (Role.WRITE, Role.UPDATE, Role.PARAMETER, Role.DECLARATION)]
    if len(writes) != 1 or any(names.role[i] in (Role.MEMBER, Role.KEYWORD, Role.IGNORED) for i in uses):
        raise Refused(f"{claim.old} means more than one thing")
    if any(claim.old in text for kind, text in zip(tree.kind, tree.text, strict=True) if kind in TEXTS):
        raise Refused(f"{claim.old} stands in a text too")
    renamed = [claim.name if k in set(uses) else text for k, text in enumerate(tree.text)]
    if tree.kind != after.tree.kind or renamed != after.tree.text:
        raise Refused("more than the name changes")


TEXTS = frozenset({"string", "string_content", "concatenated_string", "prototype", "preprocessor"})
