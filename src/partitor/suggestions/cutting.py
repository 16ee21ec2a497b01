"""Cuts what is too long into steps, one after the other or several at once.

Steps make no new repetition, so that once they are reached nothing else needs to be looked for. Those of a whole file
are taken out together where the proof accepts them so: it is read once then, not once for each.
"""

from __future__ import annotations

from collections.abc import Iterable
from functools import partial
from itertools import groupby

import msgspec

from ..deadline import Deadline
from ..errors import CannotWrite
from ..procedures.sizes import oversized, own_statements
from ..program.program import Procedure, Program, ProgramFile
from ..repeats.judge import code_lines, inner_statements
from ..repeats.limits import Limits
from ..repeats.paragraphs import Break, break_above
from ..repeats.slots import Copy, Table
from .attempts import Proved, attempt, spend
from .candidate import Candidate
from .edits import Edit, apply_edits, rewritten
from .functions import function_candidate
from .leaving import exit_of
from .proof import NewFunction, NewFunctions, prove
from .steps import LEAST_INNER, Unfolded, steps_of

SHORTEST = 2 * LEAST_INNER
"""Statements of a procedure below which none of its steps is worth it: half of them are too few."""
Texts = tuple[str, ...]
"""Statements in a row, as written."""


class Cutting(msgspec.Struct, frozen=True):
    """What is remembered while procedures are cut into steps."""

    refused: set[str]
    """The texts that were tried and could not be proved."""
    begun: set[tuple[str, str]]
    """(path, name) of the procedures that are being cut: all their larger steps become functions, not only as many
    as the limit asks for."""
    copies: Unfolded
    """Those that could not be folded."""
    waiting: dict[tuple[str, str], list[Texts]] = msgspec.field(default_factory=dict)
    """(path, name) of a procedure → the texts of its further steps, as it was cut last."""
    singly: set[str] = msgspec.field(default_factory=set)
    """Paths of files whose steps cannot be taken together."""


class Cut(msgspec.Struct, frozen=True, eq=False):
    """Steps that were taken out of a file, in their order, each with how many lines of code longer it made the file."""

    file: ProgramFile
    after: ProgramFile
    steps: tuple[tuple[Candidate, int], ...]


def next_cut(program: Program, limits: Limits, deadline: Deadline, cutting: Cutting) -> Cut | None:
    """The steps of the first file with oversized procedures that has several; else a step of the first such procedure
    that has one."""
    for file in program.files:
        too_long = {p.node for p, _ in oversized(file, limits.procedure_statements)}
        begun = [p for p in file.procedures if p.node in too_long or (file.path, p.name) in cutting.begun]
        together = _together(file, begun, limits, deadline, cutting)
        if together is not None:
            return together
        for procedure in begun:
            deadline.check()
            step = next_step(file, procedure, limits, cutting, procedure.node in too_long)
            if step is not None:
                cutting.begun.add((file.path, procedure.name))
                return Cut(file, step.after, ((step.candidate, -step.saved_lines),))
    return None


def next_step(
    file: ProgramFile, procedure: Procedure, limits: Limits, cutting: Cutting, too_long: bool
) -> Proved | None:
    """The first provable step as people read, small ones last. Once the procedure is no longer too long, only those of
    several statements are worth it, or under a comment of their own. What is refused is remembered; where the procedure
    was cut once, its other steps are taken one after the other before it is cut anew."""
    key = (file.path, procedure.name)

    def first(tables: Iterable[Table | None], texts: list[Texts], most: int) -> Proved | None:
        for k, table in enumerate(tables):
            if table is not None and (too_long or _is_worth_it_anyway(table, most)):
                step = first_proved([table], cutting.refused)
                if step is not None:
                    cutting.waiting[key] = texts[k + 1 :]
                    return step
        return None

    waiting = cutting.waiting.pop(key, [])
    size = own_statements(file, procedure)
    step = first((_standing(file, procedure, texts) for texts in waiting), waiting, size)
    if step is not None:
        return step
    tables = _largest_first(file, procedure, limits, cutting)
    return first(tables, [t.copies[0].texts for t in tables], _most_at_first(size))


def _largest_first(file: ProgramFile, procedure: Procedure, limits: Limits, cutting: Cutting) -> list[Table]:
    """The steps of a procedure in their order, small ones last; none where it is too short for any."""
    if own_statements(file, procedure) < min(limits.procedure_statements, SHORTEST):
        return []
    tables = steps_of(file, procedure, limits.procedure_statements, cutting.copies)
    large = [t for t in tables if inner_statements(t.copies[0]) >= LEAST_INNER]
    return [*large, *(t for t in tables if t not in large)]


def _most_at_first(size: int) -> int:
    """How many statements the first step of a procedure may have that is not too long: with most of what is left in
    it, it would only be the procedure by another name."""
    return size // 2


def _is_worth_it_anyway(step: Table, most: int) -> bool:
    """True for a step of so many statements at most that makes a procedure clearer that is not too long."""
    copy = step.copies[0]
    return LEAST_INNER <= inner_statements(copy) <= most and (len(copy.statements) > 1 or _is_headed(step))


def _standing(file: ProgramFile, procedure: Procedure, texts: Texts) -> Table | None:
    """The step with these statements, where they still stand in a row in the procedure."""
    for block in file.blocks:
        if block.procedure != procedure.node:
            continue
        for k, statement in enumerate(block.statements[: len(block.statements) - len(texts) + 1]):
            if file.tree.source_of(statement) == texts[0]:
                copy = Copy(file, block.statements[k : k + len(texts)])
                if copy.texts == texts:
                    return Table((copy,), (), 1)
    return None


def _is_headed(table: Table) -> bool:
    """True where a comment says what the step does."""
    return break_above(table.copies[0].file, table.copies[0].first) is Break.COMMENT


def first_proved(tables: Iterable[Table], refused: set[str]) -> Proved | None:
    """The first of the steps that can be proved; the texts of those that cannot are added to `refused`."""
    for table in tables:
        text = _text_of(table)
        if text in refused:
            continue
        result = attempt(partial(step_candidate, table), table)
        if isinstance(result, Proved):
            return result
        refused.add(text)
    return None


def _text_of(step: Table) -> str:
    """What stands in the file from the step's first statement to its last."""
    (copy,) = step.copies
    tree, (first, stop) = copy.file.tree, copy.span
    return tree.source[tree.start_byte[first] : tree.end_byte[stop - 1]].decode()


def step_candidate(table: Table, besides: Iterable[str] = ()) -> Candidate:
    """The function for one step; `besides`: names that others are given at the same time."""
    copy: Copy = table.copies[0]
    step = Table((copy,), (), 1)
    return function_candidate(step, kind="step", leaving=exit_of(step), besides=besides)


# -- several at once -----------------------------------------------------------------------------


def _together(
    file: ProgramFile, procedures: Iterable[Procedure], limits: Limits, deadline: Deadline, cutting: Cutting
) -> Cut | None:
    """All steps of a file's procedures that were not cut before, or None where they are better taken one by one."""
    if file.language.declares or file.path in cutting.singly:
        return None
    candidates: list[Candidate] = []
    for procedure in procedures:
        if not cutting.waiting.get((file.path, procedure.name)):
            deadline.check()
            candidates += _planned(file, procedure, limits, cutting, {c.name for c in candidates})
    if len(candidates) < 2:
        return None
    try:
        spend(file)
        text = apply_edits(file, _in_place(edit for c in candidates for edit in c.edits))
    except CannotWrite:
        cutting.singly.add(file.path)
        return None
    after = rewritten(file, text)
    claims = tuple(c.claim for c in candidates if isinstance(c.claim, NewFunction))
    if not prove(file, after, NewFunctions(file.path, claims)).proved:
        cutting.singly.add(file.path)
        return None
    cutting.begun.update((file.path, file.procedure_around(_cut_out(c).first).name) for c in candidates)
    return Cut(file, after, tuple((c, _lines_more(c, after)) for c in candidates))


def _planned(
    file: ProgramFile, procedure: Procedure, limits: Limits, cutting: Cutting, besides: set[str]
) -> list[Candidate]:
    """The steps of a procedure that `next_step` would take one after the other, as far as can be told beforehand."""
    found: list[Candidate] = []
    left = own_statements(file, procedure)
    most = _most_at_first(left)
    for table in _largest_first(file, procedure, limits, cutting):
        too_long = left > limits.procedure_statements
        if (not too_long and not _is_worth_it_anyway(table, most)) or _text_of(table) in cutting.refused:
            continue
        try:
            candidate = step_candidate(table, besides | {c.name for c in found})
        except CannotWrite:
            cutting.refused.add(_text_of(table))
            continue
        if isinstance(candidate.claim, NewFunction) and not candidate.claim.home and candidate.via is None:
            found.append(candidate)
            left -= inner_statements(table.copies[0]) - 1
            most = left
    return found


def _in_place(edits: Iterable[Edit]) -> list[Edit]:
    """The edits, with what several put in the same place joined to one, and no more blank lines between than one of
    them asks for."""
    joined: list[Edit] = []
    for _, group in groupby(sorted(edits, key=lambda e: (e.start, e.end)), key=lambda e: (e.start, e.end)):
        first, *others = group
        lines = list(first.lines)
        for edit in others:
            new = list(edit.lines)
            while lines and not lines[-1] and new and not new[0]:
                new.pop(0)
            lines += new
        joined.append(Edit(first.start, first.end, tuple(lines)))
    return joined


def _lines_more(step: Candidate, after: ProgramFile) -> int:
    """How many lines of code longer a step made its file."""
    function = next(p for p in after.procedures if p.name == step.name)
    own = after.code_lines_within(function.start_line, function.end_line)
    copy = _cut_out(step)
    call = next(edit for edit in step.edits if edit.start == copy.start_line and edit.end == copy.end_line)
    return own - code_lines(copy) + len(call.lines)


def _cut_out(step: Candidate) -> Copy:
    """What a step takes out of its procedure."""
    assert step.table is not None
    return step.table.copies[0]
