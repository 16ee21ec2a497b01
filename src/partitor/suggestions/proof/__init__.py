"""The proof: does the rewritten program, expanded, give the original's statements back?

It shares no code with the writers, looks at nothing but the two texts and the claim, and refuses
by default. `docs/method.md` lists what it knows of evaluation order, aliasing and scopes.
"""

from __future__ import annotations

from collections.abc import Callable
from typing import Any

from ...program.program import ProgramFile
from .arrays import prove_array
from .branches import prove_branches
from .calls import prove_call
from .functions import prove_function
from .given_back import prove_given_back
from .keyed import prove_keyed
from .leaving import prove_leaving
from .listing import prove_listing
from .lookups import prove_lookup
from .loops import prove_loop
from .merges import prove_merge
from .method_merges import prove_merged_methods
from .methods import is_object_of, prove_method
from .named_values import prove_named_value
from .new_bases import prove_new_base
from .pulled_up import prove_pulled_up
from .renames import prove_rename, prove_renamed_variables
from .several import prove_functions
from .sharing import Both, prove_known, prove_shared
from .value_functions import prove_value_function
from .verdict import (
    CalledFunction,
    Claim,
    GivenBack,
    JoinedBranches,
    KeyedBranches,
    Leaving,
    LeavingFunction,
    ListedVariables,
    LookedUp,
    MergedFunctions,
    MovedFunction,
    NamedValue,
    NewBase,
    NewFunction,
    NewFunctions,
    NewLoop,
    PulledUp,
    Refused,
    RenamedFunction,
    RenamedVariables,
    SharedFunction,
    ValueFunction,
    Verdict,
)

__all__ = [
    "CalledFunction",
    "Claim",
    "GivenBack",
    "JoinedBranches",
    "KeyedBranches",
    "Leaving",
    "LeavingFunction",
    "ListedVariables",
    "LookedUp",
    "MergedFunctions",
    "MovedFunction",
    "NamedValue",
    "NewBase",
    "NewFunction",
    "NewFunctions",
    "NewLoop",
    "PulledUp",
    "RenamedFunction",
    "RenamedVariables",
    "SharedFunction",
    "ValueFunction",
    "Verdict",
    "is_object_of",
    "prove",
    "prove_together",
]


SIMPLE: dict[type[Claim], Callable[[ProgramFile, ProgramFile, Any], None]] = {
    NewLoop: prove_loop,
    NewFunctions: prove_functions,
    LookedUp: prove_lookup,
    JoinedBranches: prove_branches,
    RenamedFunction: prove_rename,
    RenamedVariables: prove_renamed_variables,
    NamedValue: prove_named_value,
    GivenBack: prove_given_back,
    LeavingFunction: prove_leaving,
    PulledUp: prove_pulled_up,
    NewBase: prove_new_base,
    KeyedBranches: prove_keyed,
    ValueFunction: prove_value_function,
}
"""What proves claims of which there is one kind in all languages."""


def prove(before: ProgramFile, after: ProgramFile, claim: Claim) -> Verdict:
    """Whether `after` does what `before` does, given what was introduced. Never raises."""
    if len(after.tree.problems) > len(before.tree.problems):
        return Verdict(False, "the rewritten program would not parse")
    if before.outside != after.outside:
        return Verdict(False, "what stands around the program's code would change")
    try:
        simple = SIMPLE.get(type(claim))
        if simple is not None:
            simple(before, after, claim)
        elif isinstance(claim, NewFunction):
            (prove_method if claim.home else prove_function)(before, after, claim)
        elif isinstance(claim, CalledFunction):
            (prove_known if claim.home else prove_call)(before, after, claim)
        elif isinstance(claim, ListedVariables):
            (prove_array if before.language.declares else prove_listing)(before, after, claim)
        elif isinstance(claim, MergedFunctions):
            (prove_merged_methods if claim.home else prove_merge)(before, after, claim)
        elif isinstance(claim, SharedFunction | MovedFunction):
            return prove_together([(before, after)], claim)
        else:
            raise Refused("nothing proves such a claim")
    except Refused as refusal:
        return Verdict(False, str(refusal))
    except RecursionError:
        return Verdict(False, "the program is nested too deep to follow")
    return Verdict(True)


def prove_together(changed: Both, claim: SharedFunction | MovedFunction) -> Verdict:
    """Whether all files of a program that change do what they did. Never raises."""
    try:
        prove_shared(changed, claim)
    except Refused as refusal:
        return Verdict(False, str(refusal))
    except RecursionError:
        return Verdict(False, "the program is nested too deep to follow")
    return Verdict(True)
