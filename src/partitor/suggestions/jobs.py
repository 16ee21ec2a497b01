"""The function that an assignment asks for, made of the statements that do its job."""

from __future__ import annotations

from collections.abc import Callable, Iterator, Sequence
from functools import partial

from ..procedures.jobs import Job
from ..procedures.wanted import RequiredFunction
from ..repeats.slots import Copy, Table, compare
from .candidate import Candidate
from .functions import function_candidate


def job_candidates(jobs: Sequence[Job], function: RequiredFunction) -> Iterator[Callable[[], Candidate]]:
    """What makes the function: for all places that do the job alike, else for the likeliest alone."""
    _, most = function.bounds or (0, 0)
    make = partial(function_candidate, name=function.name, asked=most)
    copies = sorted((copy_of(job) for job in jobs), key=lambda copy: (copy.file.path, copy.span))
    table = compare(copies) if len(copies) > 1 else None
    if table is not None:
        yield partial(make, table)
    yield partial(make, Table((copy_of(jobs[0]),), (), 1))


def copy_of(job: Job) -> Copy:
    """The statements of a job."""
    return Copy(job.file, job.statements)
