"""The function that an assignment asks for, made of the statements that do its job."""

from __future__ import annotations

from collections.abc import Callable, Iterator, Sequence
from functools import partial

import msgspec

from ..errors import CannotWrite
from ..procedures.jobs import Job
from ..procedures.wanted import RequiredFunction
from ..program.elements import elements_used
from ..program.names import WRITES
from ..program.program import ProgramFile
from ..repeats.slots import Copy, Table, compare
from .candidate import Candidate
from .edits import apply_edits, rewritten
from .functions import Asked, function_candidate
from .named_values import named_value, statement_around
from .renames import name_of_its_value, renamed_variables
from .value_functions import element_column, value_function
from .words import words_of


def job_candidates(jobs: Sequence[Job], function: RequiredFunction) -> Iterator[Callable[[], Candidate]]:
    """What makes the function: for all places that do the job alike, else for the likeliest alone."""
    file = jobs[0].file
    if jobs[0].statements[-1] not in file.statement_set:
        if len(jobs[0].statements) == 1:
            yield partial(_in_its_place, copy_of(jobs[0]), function)
        yield partial(_with_a_name, copy_of(jobs[0]), function)
        return
    used = [i for i in file.names.nodes if file.tree.text[i] == function.name]
    if not any(file.names.role[i] in WRITES for i in used):
        yield from _candidates([copy_of(job) for job in jobs], function)
    elif all(job.file is file for job in jobs):
        yield from _after_renaming([copy_of(job) for job in jobs], function)


def _in_its_place(copy: Copy, function: RequiredFunction) -> Candidate:
    """The function for a value that is worked out inside a statement, called in its place; variables that have its name
    get another one first."""
    file, (value,) = copy.file, copy.statements
    statement = statement_around(file, value)
    if not any(file.tree.text[n] == function.name for n in file.names.nodes):
        return value_function(file, statement, value, function)
    first, after = _under_another_name(file, function.name)
    return _renamed_first(first, value_function(after, statement, value, function))


def _with_a_name(copy: Copy, function: RequiredFunction) -> Candidate:
    """The function for a value that is worked out inside a statement, once it has a name. Raises CannotWrite where that
    cannot be put into code."""
    file = copy.file
    if any(file.tree.text[n] == function.name for n in file.names.nodes):
        raise CannotWrite(f"{function.name} is a variable's name, too")
    named = named_value(file, copy.statements[-1], name_of_its_value(file, function.name))
    after = rewritten(file, apply_edits(file, named.edits))
    line = file.tree.start_line(statement_around(file, copy.statements[-1]))
    at = {after.tree.start_line(s): s for s in reversed(after.statement_nodes)}
    wanted = [*(file.tree.start_line(s) for s in copy.statements[:-1]), line]
    if any(number not in at for number in wanted):
        raise CannotWrite("the statements are not where they were")
    moved = Copy(after, tuple(at[number] for number in wanted))
    return _following(named, _first_that_can_be_written(list(_candidates([moved], function))))


def _first_that_can_be_written(makings: Sequence[Callable[[], Candidate]]) -> Candidate:
    for make in makings[:-1]:
        try:
            return make()
        except CannotWrite:
            continue
    return makings[-1]()


def _after_renaming(copies: Sequence[Copy], function: RequiredFunction) -> Iterator[Callable[[], Candidate]]:
    """The function where variables have its name, which get another one first."""
    try:
        first, after = _under_another_name(copies[0].file, function.name)
    except CannotWrite:
        return
    for make in _candidates([Copy(after, copy.statements) for copy in copies], function):
        yield partial(_making_renamed_first, first, make)


def _under_another_name(file: ProgramFile, name: str) -> tuple[Candidate, ProgramFile]:
    """What renames the variables that have a name, and the program then, node for node the same. Raises CannotWrite
    where it would be another one."""
    first = renamed_variables(file, name)
    after = rewritten(file, apply_edits(file, first.edits))
    if after.tree.kind != file.tree.kind:
        raise CannotWrite("another name makes another program of it")
    return first, after


def _making_renamed_first(first: Candidate, make: Callable[[], Candidate]) -> Candidate:
    return _renamed_first(first, make())


def _renamed_first(first: Candidate, candidate: Candidate) -> Candidate:
    """A candidate for the program in which variables got another name, which its title tells."""
    title = f"{candidate.title}; the variable {candidate.name} becomes {first.name}"
    return msgspec.structs.replace(_following(first, candidate), title=title)


def _following(first: Candidate, candidate: Candidate) -> Candidate:
    """A candidate for the program that another one gives."""
    plainer = candidate.plainer and msgspec.structs.replace(candidate.plainer, via=first)
    return msgspec.structs.replace(candidate, via=first, plainer=plainer)


def _candidates(copies: Sequence[Copy], function: RequiredFunction) -> Iterator[Callable[[], Candidate]]:
    """The function for all copies, for the first alone given elements, and for the first alone."""
    alone = copies[0]
    _, most = function.bounds or (0, 0)
    asked = Asked(most, tuple(words_of(f"{function.name} {function.purpose}")))
    make = partial(function_candidate, name=function.name, asked=asked)
    copies = sorted(copies, key=lambda copy: (copy.file.path, copy.span))
    table = compare(copies) if len(copies) > 1 else None
    if table is not None:
        yield partial(make, table)
    elements = elements_used(alone.file, alone.statements)
    if elements:
        columns = tuple(element_column(text, nodes) for text, nodes in elements.items())
        yield partial(_given_elements, partial(make, Table((alone,), columns, 1)), function)
    yield partial(make, Table((alone,), (), 1))


def _given_elements(make: Callable[[], Candidate], function: RequiredFunction) -> Candidate:
    """A function that is given elements of lists, not the lists: where that makes as many parameters as are asked for.
    Raises CannotWrite for any other."""
    candidate = make()
    if not function.accepts(len(candidate.parameters)):
        raise CannotWrite("the elements are more or fewer than it is asked for")
    return candidate


def copy_of(job: Job) -> Copy:
    """The statements of a job."""
    return Copy(job.file, job.statements)
