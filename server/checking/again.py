"""Checking again after the assignment has changed: shown first, and taken over only when a person says so.

The checks against the new version are trials; until they are taken over nothing that students or
teachers see depends on them. What a person set (marks, wording, decisions) stays either way.
"""

from __future__ import annotations

from typing import Any

import msgspec
from django.db import transaction

from assignments.models import Assignment
from courses.services import note
from partitor.errors import PartitorError
from review.services import keep_results

from .models import Check
from .queue import defer_checks, defer_finish
from .services import latest_checks

TYPICAL_STATEMENT = 30
"""Characters of a statement, to guess how large a program is that was counted in statements."""


class Change(msgspec.Struct, frozen=True):
    """What a check against the new version would change for one submission."""

    submission: int
    name: str
    total_before: float
    total_after: float
    of_after: float
    remarks_before: int
    remarks_after: int


class Again(msgspec.Struct, frozen=True):
    """How far checking again is. `outdated`: submissions whose check is of an older version."""

    outdated: int
    total: int
    done: int
    failed: int
    changes: tuple[Change, ...]


def outdated(assignment: Assignment) -> list[Check]:
    """The checks that count and were made against an older version."""
    version = assignment.current()
    return [c for c in latest_checks(assignment) if c.version_id != version.pk]


def trials_of(assignment: Assignment) -> Any:
    """The trial checks of an assignment."""
    return Check.objects.filter(attempt__submission__assignment=assignment, trial=True)


@transaction.atomic
def start(assignment: Assignment, user: Any) -> None:
    """Queue a trial check of every outdated submission, in place of earlier trials."""
    Assignment.objects.select_for_update().get(pk=assignment.pk)
    trials_of(assignment).delete()
    version = assignment.current()
    old = outdated(assignment)
    trials = Check.objects.bulk_create(Check(attempt=check.attempt, version=version, trial=True) for check in old)
    defer_checks((trial.pk, check.statements * TYPICAL_STATEMENT) for trial, check in zip(trials, old, strict=True))
    note(assignment.course, user, "check again started", submissions=len(old), version=version.number)


def progress(assignment: Assignment) -> Again:
    """Counts, and once all trials are through, every submission they would change."""
    trials = list(trials_of(assignment).select_related("attempt__submission").prefetch_related("attempt__marks"))
    done = [t for t in trials if t.state == Check.State.DONE]
    failed = sum(t.state == Check.State.FAILED for t in trials)
    kept = {c.attempt_id: c for c in latest_checks(assignment)}
    changes: list[Change] = []
    if len(done) + failed == len(trials):
        compared = [_change(t, kept[t.attempt_id]) for t in done if t.attempt_id in kept]
        changes = [c for c in compared if c.total_before != c.total_after or c.remarks_before != c.remarks_after]
    return Again(len(outdated(assignment)), len(trials), len(done), failed, tuple(changes))


def _change(trial: Check, kept: Check) -> Change:
    marks = {m.criterion: m for m in trial.attempt.marks.all()}
    before = [m.final_points for m in marks.values() if m.final_points is not None]
    after = of = 0.0
    for score in trial.record().scores:
        mark = marks.get(score.criterion)
        points = mark.set_points if mark and mark.set_points is not None else score.points
        if points is not None:
            after, of = after + points, of + score.of
    return Change(
        trial.attempt.submission_id,
        trial.attempt.submission.name,
        sum(before),
        after,
        of,
        kept.remark_count,
        trial.remark_count,
    )


@transaction.atomic
def take_over(assignment: Assignment, user: Any) -> None:
    """Let the finished trials count. Raises PartitorError while some still run."""
    trials = list(trials_of(assignment).select_for_update(of=("self",)).select_related("version", "attempt"))
    if any(t.state in {Check.State.QUEUED, Check.State.RUNNING} for t in trials):
        raise PartitorError("Some programs are still being checked. Wait until all are through.")
    done = [trial for trial in trials if trial.state == Check.State.DONE]
    keep_results([(trial, trial.record()) for trial in done])
    Check.objects.filter(pk__in=[trial.pk for trial in done]).update(trial=False)
    trials_of(assignment).delete()
    defer_finish(assignment.pk)
    note(assignment.course, user, "check again taken over", submissions=len(trials))


@transaction.atomic
def drop(assignment: Assignment, user: Any) -> None:
    """Leave everything as it is."""
    trials_of(assignment).delete()
    note(assignment.course, user, "check again dropped")
