"""Which suggestions a program gets, each proved on its own, and all of them in one chain.

The order is a practitioner's: runs become loops, blocks functions, twins one function, and what is
still too long is cut into steps. Each link of the chain is read afresh and proved against the one
before it.
"""

from __future__ import annotations

from collections.abc import Callable, Iterable, Iterator
from functools import partial

import msgspec

from ..errors import TooCostly
from ..program.program import Procedure, Program, ProgramFile
from ..records import Step
from ..repeats.find import Repeats, find_repeats
from ..repeats.judge import inner_statements
from ..repeats.limits import Limits
from ..repeats.paragraphs import Break, break_above
from ..repeats.slots import Copy, Table
from .attempts import LEAST_SAVING, Deadline, Proved, attempt
from .candidate import Candidate
from .folds import Folds
from .functions import function_candidate
from .leaving import exit_of
from .makings import block_candidate, makings
from .steps import LEAST_INNER, NO_COPIES, Unfolded, steps_of, unfolded

LONGEST_CHAIN = 40
LONGEST_READ = 600
"""Lines of a program in which a single line less is worth looking through all of it once more."""


def proved_suggestions(file: ProgramFile, limits: Limits) -> list[Proved]:
    """Every loop, function and merge for a program of one file that the proof accepts, each on its own."""
    repeats = find_repeats(Program([file]), limits, frozenset())
    results = [attempt(*making) for making in makings(repeats)]
    return [r for r in results if isinstance(r, Proved)]


def oversized(file: ProgramFile, limits: Limits) -> list[tuple[Procedure, int]]:
    """Procedures with more statements of their own than allowed, with that number."""
    found = []
    for procedure in file.procedures:
        size = own_statements(file, procedure)
        if size > limits.procedure_statements:
            found.append((procedure, size))
    return found


def own_statements(file: ProgramFile, procedure: Procedure) -> int:
    """Statements of a procedure; those of functions defined inside it are theirs."""
    return sum(
        1
        for block in file.blocks
        if block.procedure == procedure.node
        for s in block.statements
        if not file.is_definition(s) and not file.is_bare_string(s)
    )


class Worked(msgspec.Struct, frozen=True, eq=False):
    """The chain: the program after its last link, and what each link was."""

    program: Program
    steps: tuple[Step, ...]
    complete: bool


def work_through(
    program: Program,
    limits: Limits,
    handed_out: frozenset[tuple[str, int]],
    deadline: Deadline,
    repeats: Repeats | None = None,
    asked: Callable[[Program], Iterator[Callable[[], Candidate]]] | None = None,
) -> Worked:
    """Apply the best suggestion, read afresh, choose again, until nothing is worth it. `repeats` are
    those of the program as it is, where they are known already; `asked` gives the candidates for functions that an
    assignment requires: they take the place of other functions of the same copies, and come before the steps."""
    steps: list[Step] = []
    complete = True
    folding = True
    cutting = Cutting(set(), set(), NO_COPIES)
    folds = Folds(deadline)
    near = repeats is not None and bool(repeats.near_twins)
    try:
        for _ in range(LONGEST_CHAIN):
            deadline.check()
            link = None
            if folding:
                found = repeats or find_repeats(program, limits, handed_out, near)
                link = folds.best(found) or _small_fold(found, program, limits)
                repeats = None
            if link is not None and asked is not None:
                link = _asked_for(link, asked(program)) or link
            elif asked is not None:
                link = next((p for p in map(attempt, asked(program)) if isinstance(p, Proved)), None)
                folding = folding or link is not None
                asked = asked if link is not None else None
            if link is None and folding:
                tried = [(table, attempt(make, table)) for make, table in makings(found) if isinstance(table, Table)]
                told = (table for table, result in tried if not isinstance(result, Proved))
                cutting = Cutting(set(), set(), unfolded(told))
            if link is None:
                folding = False
                link = _next_step(program, limits, deadline, cutting)
            if link is None:
                break
            program = replaced(program, link.changed)
            lines = sum(len(f.code_lines) for f in program.files)
            steps.append(Step(link.candidate.kind, link.candidate.title, lines))
            handed_out = frozenset()
    except TooCostly:
        complete = False
    return Worked(program, tuple(steps), complete)


def replaced(program: Program, changed: Iterable[tuple[ProgramFile | None, ProgramFile]]) -> Program:
    """The program with some files changed, or made."""
    new = {id(old): after for old, after in changed if old is not None}
    made = [after for old, after in changed if old is None]
    return Program([*(new.get(id(f), f) for f in program.files), *made])


def _asked_for(fold: Proved, asked: Iterator[Callable[[], Candidate]]) -> Proved | None:
    """The function that an assignment asks for, made of the copies that a fold would make another one of."""
    if fold.candidate.kind != "function" or fold.candidate.table is None:
        return None
    copies = fold.candidate.table.copies
    for result in map(attempt, asked):
        table = result.candidate.table if isinstance(result, Proved) else None
        if isinstance(result, Proved) and table is not None and len(table.copies) >= len(copies):
            same = all(any(one.lies_in(other) for other in copies) for one in table.copies)
            if same and result.saved_lines + LEAST_SAVING >= fold.saved_lines:
                return result
    return None


def _small_fold(repeats: Repeats, program: Program, limits: Limits) -> Proved | None:
    """A function for a block that saves a line only, where it is a step of what is too long, too."""
    if sum(len(f.code_lines) for f in program.files) > LONGEST_READ:
        return None
    too_long = {(id(f), p.node) for f in program.files for p, _ in oversized(f, limits)}
    for block in repeats.blocks:
        inside = {(id(c.file), c.file.procedure_around(c.first).node) for c in block.table.copies}
        if inside & too_long:
            result = attempt(partial(block_candidate, block), block.table)
            if isinstance(result, Proved) and result.saved_lines > 0:
                return result
    return None


Texts = tuple[str, ...]
"""Statements in a row, as written."""


class Cutting(msgspec.Struct, frozen=True, eq=False):
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


def _next_step(program: Program, limits: Limits, deadline: Deadline, cutting: Cutting) -> Proved | None:
    """A step of the first oversized procedure that has one. Steps make no new repetition, so that once
    they are reached nothing else needs to be looked for."""
    for file in program.files:
        too_long = {p.node for p, _ in oversized(file, limits)}
        for procedure in file.procedures:
            name = (file.path, procedure.name)
            if procedure.node not in too_long and name not in cutting.begun:
                continue
            deadline.check()
            step = next_step(file, procedure, limits, cutting, procedure.node in too_long)
            if step is not None:
                cutting.begun.add(name)
                return step
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
    tables = steps_of(file, procedure, limits.procedure_statements, cutting.copies)
    large = [t for t in tables if inner_statements(t.copies[0]) >= LEAST_INNER]
    tables = [*large, *(t for t in tables if t not in large)]
    # With most of what is left in it, a step would only be the procedure by another name.
    return first(tables, [t.copies[0].texts for t in tables], size // 2)


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
        (copy,) = table.copies
        tree, (first, stop) = copy.file.tree, copy.span
        text = tree.source[tree.start_byte[first] : tree.end_byte[stop - 1]].decode()
        if text in refused:
            continue
        result = attempt(partial(step_candidate, table))
        if isinstance(result, Proved):
            return result
        refused.add(text)
    return None


def step_candidate(table: Table) -> Candidate:
    """The function for one step."""
    copy: Copy = table.copies[0]
    step = Table((copy,), (), 1)
    return function_candidate(step, kind="step", leaving=exit_of(step))
