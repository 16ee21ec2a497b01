"""The functions an assignment asks for: there, nearly there, or done inline somewhere."""

from __future__ import annotations

from collections.abc import Sequence

import msgspec
from rapidfuzz import fuzz

from ..program.names import Role
from ..program.program import Procedure, Program, ProgramFile
from .calls import CallMap
from .jobs import NO_NAMES, Job, find_jobs
from .vocabulary import are_opposed
from .wanted import Asked, RequiredFunction, words_of


class Match(msgspec.Struct, frozen=True, eq=False):
    """How a required function was met; `found` is the function itself or the near-miss."""

    required: RequiredFunction
    state: str
    """"there", "near", "missing" or "wrong" (there, but not as asked: see `wrong`)."""
    found: tuple[ProgramFile, Procedure] | None = None
    wrong: str = ""
    jobs: tuple[Job, ...] = ()
    """Where a missing function's job is done inline: the likeliest place, and those alike."""


NEAR = 78.0
"""Similarity (0 to 100) from which another name counts as a misspelling."""


def match_required(
    program: Program, required: Sequence[RequiredFunction], calls: CallMap, reference: Program | None
) -> list[Match]:
    """Match each required function: by name in any naming style, else by near-miss, else by its job."""
    found: dict[int, tuple[ProgramFile, Procedure]] = {}
    taken: set[int] = set()
    everything = [(f, p) for f in program.files for p in f.procedures[1:]]
    for k, function in enumerate(required):
        accepted = {tuple(words_of(n)) for n in (function.name, *function.also)}
        for f, p in everything:
            if tuple(words_of(p.name)) in accepted:
                found[k] = (f, p)
                taken.add(p.node)
                break
    near: dict[int, tuple[ProgramFile, Procedure]] = {}
    for k, function in enumerate(required):
        miss = _near_miss(function, [(f, p) for f, p in everything if p.node not in taken]) if k not in found else None
        if miss is not None:
            near[k] = miss
            taken.add(miss[1].node)
    missing = [f for k, f in enumerate(required) if k not in found and k not in near]
    owners = {p.node for _, p in found.values()}
    jobs = find_jobs(program, missing, required, owners, reference) if missing else {}
    matches = []
    for k, function in enumerate(required):
        done = jobs.get(function.name, [])
        whole = _whole_function(done[0], function) if done else None
        if k in found:
            file, procedure = found[k]
            wrong = _what_is_wrong(function, file, procedure)
            matches.append(Match(function, "wrong" if wrong else "there", (file, procedure), wrong))
        elif k in near:
            matches.append(Match(function, "near", near[k]))
        elif whole is not None and whole.node not in taken:
            taken.add(whole.node)
            matches.append(Match(function, "near", (done[0].file, whole)))
        else:
            matches.append(Match(function, "missing", jobs=tuple(done)))
    return matches


def _whole_function(job: Job, function: RequiredFunction) -> Procedure | None:
    """The function of which the statements are most of the body, so that it does the job under another name."""
    procedure = job.file.procedure_around(job.statements[0])
    if not procedure.node or procedure.name in NO_NAMES:
        return None
    inside = job.file.statements_of(procedure)
    most = set(job.statements) <= set(inside) and len(inside) - len(job.statements) <= 1
    fits = function.accepts(len(procedure.parameters)) and Asked(function, ()).could_be(procedure.name)
    return procedure if most and fits else None


def _near_miss(
    function: RequiredFunction, candidates: Sequence[tuple[ProgramFile, Procedure]]
) -> tuple[ProgramFile, Procedure] | None:
    best, best_score = None, NEAR
    for file, procedure in candidates:
        for name in (function.name, *function.also):
            likeness = fuzz.ratio("".join(words_of(name)), "".join(words_of(procedure.name)))
            if are_opposed(words_of(name), words_of(procedure.name)):
                continue
            if likeness >= best_score and function.accepts(len(procedure.parameters)):
                best, best_score = (file, procedure), likeness
    return best


def _what_is_wrong(function: RequiredFunction, file: ProgramFile, procedure: Procedure) -> str:
    """What is not as asked of a function that is there, as a clause; "" where all is well."""
    count = len([p for p in procedure.parameters if p not in {"self", "cls"}])
    if not function.accepts(count):
        asked = function.parameters
        wanted = f"{asked}" if isinstance(asked, int) else f"{asked[0]} to {asked[1]}" if asked else "other"
        return f"takes {count} parameter{'s' * (count != 1)}, where {wanted} {'is' if wanted == '1' else 'are'} asked"
    if function.returns is True and not returns_value(file, procedure):
        return "returns nothing, where a result is asked"
    if function.returns is False and returns_value(file, procedure):
        return "returns a result, where none is asked"
    if function.parameter_decides and not parameter_decides(file, procedure):
        return "has no parameter that decides what it does"
    return ""


def returns_value(file: ProgramFile, procedure: Procedure) -> bool:
    """True where some return of the function itself gives a value (or it yields)."""
    tree = file.tree
    for node in range(procedure.node + 1, tree.end[procedure.node]):
        own = file.names.parent_scope and _procedure_of(file, node) == procedure.node
        if own and tree.kind[node] == file.language.returning and tree.end[node] - node > 2:
            return True
        if own and tree.kind[node] == "yield":
            return True
    return False


def _procedure_of(file: ProgramFile, node: int) -> int:
    node = file.tree.parent[node]
    while node > 0 and file.tree.kind[node] not in file.language.procedures:
        node = file.tree.parent[node]
    return node


def parameter_decides(file: ProgramFile, procedure: Procedure) -> bool:
    """True where a parameter stands in a test that decides which statements run."""
    tree, language = file.tree, file.language
    deciding = language.conditionals | {"while_statement", "elif_clause", "conditional_expression"}
    for i in file.names.within(procedure.node, tree.end[procedure.node]):
        if tree.text[i] not in procedure.parameters or file.names.role[i] is not Role.READ:
            continue
        node = i
        while node != procedure.node:
            if tree.kind[tree.parent[node]] in deciding and tree.field[node] in {"condition", "subject"}:
                return True
            node = tree.parent[node]
    return False
