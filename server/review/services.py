"""What happens to marks and remarks, in transactions. A check never touches what a person set."""

from __future__ import annotations

from typing import Any

from django.db import transaction
from django.utils import timezone
from rest_framework.exceptions import ValidationError

from checking.models import Check
from courses.services import note
from intake.models import Attempt, Submission
from partitor.exchange.report import SubmissionReport
from partitor.records import Finding

from .models import Mark, Remark


def keep_results(check: Check, report: SubmissionReport) -> None:
    """Take over a check's scores and findings; overrides, wording and decisions stay."""
    attempt = check.attempt
    criteria = {c.id: c for c in check.version.spec().rubric()}
    attempt.marks.exclude(criterion__in=criteria).filter(set_level=None).delete()
    for order, score in enumerate(report.scores):
        Mark.objects.update_or_create(
            attempt=attempt,
            criterion=score.criterion,
            defaults={
                "title": criteria[score.criterion].title,
                "level": score.level,
                "points": score.points,
                "of": score.of,
                "because": score.because,
                "order": order,
            },
        )
    known = {r.key: r for r in attempt.remarks.exclude(finding="")}
    for finding in report.findings:
        key = _key(finding)
        remark = known.pop(key, None) or Remark(attempt=attempt, key=key)
        remark.finding = finding.id
        remark.save()
    Remark.objects.filter(pk__in=[r.pk for r in known.values()]).delete()


def _key(finding: Finding) -> str:
    place = finding.places[0] if finding.places else None
    where = f"{place.file}:{place.start_line}" if place else ""
    return f"{finding.rule}|{finding.subject}|{where}"[:200]


@transaction.atomic
def set_mark(attempt: Attempt, criterion: str, level: int | None, reason: str, user: Any) -> Mark:
    """Override a criterion by level with a reason, or (level None) go back to what was measured."""
    mark = attempt.marks.select_for_update().filter(criterion=criterion).first()
    if mark is None:
        raise ValidationError("The rubric has no such criterion.")
    course = attempt.submission.assignment.course
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
    mark.save()
    note(course, user, "mark set", submission=attempt.submission_id, criterion=criterion, level=level)
    return mark


def _rubric(attempt: Attempt) -> Any:
    check = attempt.checks.filter(state=Check.State.DONE, trial=False).first()
    version = check.version if check else attempt.submission.assignment.current()
    return version.spec().rubric()


@transaction.atomic
def change_remark(remark: Remark, user: Any, changes: dict[str, Any]) -> Remark:
    """Accept, set aside, reword or choose the hint level of a remark."""
    for field in ("state", "hint", "words"):
        if field in changes:
            setattr(remark, field, changes[field])
    remark.save()
    note(remark.attempt.submission.assignment.course, user, "remark changed", remark=remark.pk, **changes)
    return remark


@transaction.atomic
def add_remark(attempt: Attempt, user: Any, words: str, path: str, line: int | None) -> Remark:
    """The reviewer's own remark, to a line or to the whole."""
    remark = Remark.objects.create(attempt=attempt, words=words, path=path, line=line, state=Remark.State.ACCEPTED)
    note(attempt.submission.assignment.course, user, "remark made", submission=attempt.submission_id)
    return remark


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
