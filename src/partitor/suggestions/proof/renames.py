"""Proof of a function, or of variables, with another name: with the old name back, the program is the original."""

from __future__ import annotations

import re

from ...program.names import NO_VARIABLES, UNBOUND, Role
from ...program.program import ProgramFile
from . import rules
from .reach import finds_by_name
from .verdict import Refused, RenamedFunction, RenamedVariables


def prove_rename(before: ProgramFile, after: ProgramFile, claim: RenamedFunction) -> None:
    """Raises Refused unless the only difference is the name, everywhere, and the new one meant nothing."""
    rules.refuse_reflection(before)
    rules.require_fresh(claim.name, before)
    rules.require_untold(claim.old, before)
    names, tree = before.names, before.tree
    uses = [i for i in names.nodes if tree.text[i] == claim.old]
    writes = [i for i in uses if names.role[i] in (Role.WRITE, Role.UPDATE, Role.PARAMETER, Role.DECLARATION)]
    if len(writes) != 1 or any(names.role[i] in NO_VARIABLES for i in uses):
        raise Refused(f"{claim.old} means more than one thing")
    if any(claim.old in text for kind, text in zip(tree.kind, tree.text, strict=True) if kind in TEXTS):
        raise Refused(f"{claim.old} stands in a text too")
    _require_only_renamed(before, after, set(uses), claim.name)


def prove_renamed_variables(before: ProgramFile, after: ProgramFile, claim: RenamedVariables) -> None:
    """Raises Refused unless the only difference is the name of plain variables, and the new one meant nothing."""
    rules.refuse_reflection(before)
    rules.require_fresh(claim.name, before)
    rules.require_untold(claim.old, before)
    names, tree, language = before.names, before.tree, before.language
    if finds_by_name(before) or language.case_blind or any(p.name == claim.old for p in before.procedures):
        raise Refused(f"{claim.old} may be found by its name")
    told = [i for i, text in enumerate(tree.text) if text == claim.old and tree.kind[i] not in TEXTS]
    members = language.bare_members or language.methods
    uses = [i for i in told if names.role.get(i) is not Role.MEMBER or members]
    for i in uses:
        around = tree.kind[tree.parent[i]]
        plain = tree.kind[i] == language.name and names.role.get(i, Role.IGNORED) <= Role.DECLARATION
        # `{cost}` is a variable and the name of a field.
        keyed = around == "dictionary" or (language.declares and around in language.patterns)
        imported = any(tree.kind[p] in language.imports for p in before.parents(i))
        if not plain or keyed or imported or around in language.procedures | language.classes:
            raise Refused(f"{claim.old} means more than one thing")
        owner = names.owner(i)
        if owner == UNBOUND or tree.kind[owner] in language.classes:
            raise Refused(f"{claim.old} is more than a variable")
    written = re.compile(rf"\b{re.escape(claim.old)}\b")
    for kind, text in zip(tree.kind, tree.text, strict=True):
        if kind in {"prototype", "preprocessor"} and written.search(text):
            raise Refused(f"{claim.old} stands in a macro or a prototype")
    _require_only_renamed(before, after, set(uses), claim.name)


def _require_only_renamed(before: ProgramFile, after: ProgramFile, uses: set[int], name: str) -> None:
    renamed = [name if k in uses else text for k, text in enumerate(before.tree.text)]
    if before.tree.kind != after.tree.kind or renamed != after.tree.text:
        raise Refused("more than the name changes")


TEXTS = frozenset({"string", "string_content", "concatenated_string", "prototype", "preprocessor"})
