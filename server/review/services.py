"""What happens to marks and remarks, in transactions. A check never touches what a person set."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Any

from django.db import transaction
from django.db.models import Sum
from django.db.models.functions import Coalesce
from django.utils import timezone
from rest_framework.exceptions import PermissionDenied, ValidationError

from checking.models import Check
from config.conflict import changed, fields_of
from courses.permissions import decides
from courses.services import note
from intake.models import Attempt, Submission
from partitor.exchange.report import SubmissionReport
from partitor.records import Finding

from .models import Mark, Remark

DECIDED = ("state", "hint", "words")
"""What people decide about a remark."""


def keep_results(results: Sequence[tuple[Check, SubmissionReport]]) -> None:
    """Take over checks' scores and findings, in a few statements for all of them; overrides, wording and decisions
    stay."""
    _keep_marks(results)
    _keep_remarks(results)


def _keep_marks(results: Sequence[tuple[Check, SubmissionReport]]) -> None:
    marks = []
    for check, report in results:
        titles = {c.id: c.title for c in check.version.spec().rubric()}
        gone = Mark.objects.filter(attempt=check.attempt_id, set_level=None).exclude(criterion__in=titles)
        if check.trial:  # only one that is taken over can meet marks of another rubric
            gone.delete()
        marks += [
            Mark(
                attempt_id=check.attempt_id,
                criterion=score.criterion,
                title=titles[score.criterion],
                level=score.level,
                points=score.points,
                of=score.of,
                because=score.because,
                order=order,
            )
            for order, score in enumerate(report.scores)
        ]
    Mark.objects.bulk_create(
        marks,
        update_conflicts=True,
        unique_fields=["attempt", "criterion"],
        update_fields=["title", "level", "points", "of", "because", "order"],
    )


def _keep_remarks(results: Sequence[tuple[Check, SubmissionReport]]) -> None:
    known: dict[int, dict[str, Remark]] = {}
    own = Remark.objects.select_for_update().filter(attempt__in=[c.attempt_id for c, _ in results])
    for remark in own.exclude(finding=""):
        known.setdefault(remark.attempt_id, {})[remark.key] = remark
    made, moved = [], []
    for check, report in results:
        before = known.get(check.attempt_id, {})
        for finding in report.findings:
            key = _key(finding)
            remark = before.pop(key, None)
            if remark is None:
                made.append(Remark(attempt_id=check.attempt_id, key=key, finding=finding.id, weight=finding.weight))
            else:
                remark.finding, remark.weight = finding.id, finding.weight
                moved.append(remark)
    Remark.objects.bulk_create(made)
    Remark.objects.bulk_update(moved, ["finding", "weight"])
    lost = [remark for remarks in known.values() for remark in remarks.values()]
    # What a person wrote stays, as a remark of their own; of the rest nothing is left to speak of.
    Remark.objects.filter(pk__in=[r.pk for r in lost if r.words]).update(finding="", key="")
    Remark.objects.filter(pk__in=[r.pk for r in lost if not r.words]).delete()


def _key(finding: Finding) -> str:
    place = finding.places[0] if finding.places else None
    where = f"{place.file}:{place.start_line}" if place else ""
    return f"{finding.rule}|{finding.subject}|{where}"[:200]


def totals_of(attempts: Sequence[int]) -> dict[int, tuple[float, float]]:
    """Points that count so far and points that can be had, by attempt."""
    points = Coalesce("set_points", "points")
    marks = Mark.objects.filter(attempt__in=attempts).annotate(final=points).exclude(final=None)
    sums = marks.order_by().values("attempt").annotate(total=Sum("final"), out_of=Sum("of"))
    return {line["attempt"]: (line["total"], line["out_of"]) for line in sums}


@transaction.atomic
def set_mark(
    attempt: Attempt, criterion: str, level: int | None, reason: str, user: Any, version: int | None = None
) -> Mark:
    """Override a criterion by level with a reason, or (level None) go back to what was measured. Raises Conflict where
    the mark is no longer as it was in `version`."""
    mark = attempt.marks.select_for_update().filter(criterion=criterion).first()
    if mark is None:
        raise ValidationError("The rubric has no such criterion.")
    changed(mark, version, user, "this mark", lambda: {"level": mark.set_level, "reason": mark.reason})
    course = attempt.submission.assignment.course
    if mark.set_by is not None and decides(mark.set_by, course) and not decides(user, course):
        raise PermissionDenied("A teacher has set this mark; only a teacher changes it.")
    if level is None:
        mark.set_level = mark.set_points = mark.set_by = mark.set_at = None
        mark.reason = ""
    else:
        levels = {c.id: c for c in _rubric(attempt)}[criterion].levels
        if not 1 <= level <= len(levels):
            raise ValidationError(f"The criterion has levels 1 to {len(levels)}.")
        if not reason.strip() and mark.level is not None:
            raise ValidationError("An override needs a reason, which only teachers see.")
        mark.set_level, mark.set_points = level, levels[level - 1].points
        mark.set_by, mark.set_at, mark.reason = user, timezone.now(), reason.strip()
    own = ["set_level", "set_points", "set_by", "set_at", "reason", "version", "changed_by", "changed_at"]
    mark.save(update_fields=own)
    note(course, user, "mark set", submission=attempt.submission_id, criterion=criterion, level=level)
    return mark


def _rubric(attempt: Attempt) -> Any:
    check = attempt.checks.filter(state=Check.State.DONE, trial=False).first()
    version = check.version if check else attempt.submission.assignment.current()
    return version.spec().rubric()


@transaction.atomic
def change_remark(number: int, user: Any, changes: dict[str, Any], version: int | None = None) -> Remark:
    """Accept, set aside, reword or choose the hint level of a remark: only what is changed is written. Raises Conflict
    where the remark is no longer as it was in `version`."""
    remark = Remark.objects.select_for_update().get(pk=number)
    chosen = {field: changes[field] for field in DECIDED if field in changes}
    changed(remark, version, user, "this remark", lambda: fields_of(remark, DECIDED))
    for field, value in chosen.items():
        setattr(remark, field, value)
    remark.save(update_fields=[*chosen, "version", "changed_by", "changed_at"])
    note(remark.attempt.submission.assignment.course, user, "remark changed", remark=remark.pk, **chosen)
    return remark


@transaction.atomic
def add_remark(attempt: Attempt, user: Any, words: str, path: str, line: int | None) -> Remark:
    """The reviewer's own remark, to a line or to the whole."""
    remark = Remark.objects.create(attempt=attempt, words=words, path=path, line=line, state=Remark.State.ACCEPTED)
    note(attempt.submission.assignment.course, user, "remark made", submission=attempt.submission_id)
    return remark


@transaction.atomic
def delete_remark(remark: Remark, user: Any) -> None:
    """Take back a remark of one's own; its words stay in the record."""
    attempt = remark.attempt
    note(
        attempt.submission.assignment.course,
        user,
        "remark deleted",
        submission=attempt.submission_id,
        words=remark.words,
    )
    remark.delete()


@transaction.atomic
def set_reviewed(submission: Submission, user: Any, reviewed: bool) -> None:
    """Mark a submission as looked through, or not."""
    submission.reviewed = reviewed
    submission.save(update_fields=["reviewed"])
    note(
        submission.assignment.course,
        user,
        "reviewed" if reviewed else "not reviewed",
        submission=submission.pk,
    )
