"""What happens to checks, in transactions."""

from __future__ import annotations

import msgspec
from django.conf import settings
from django.db import transaction
from django.utils import timezone

from assignments.models import Assignment
from partitor.check import check as check_submission
from partitor.classwide.patterns import shared_patterns
from partitor.exchange.report import SubmissionReport
from partitor.records import Finding
from review.services import keep_results

from .models import Check, ClassPattern

SHOWN = frozenset({"repeated-run", "repeated-block", "twin-functions", "missing-function", "idle-loop"})
"""Rules of which a few lines of code say more than the title."""


def run(check_id: int) -> None:
    """Check one attempt and keep the result. One that was cancelled or dropped meanwhile stays so."""
    from intake.services import finish_if_done

    check = Check.objects.select_related("attempt__submission", "version__assignment").filter(pk=check_id).first()
    waiting = Check.objects.filter(pk=check_id, state__in=[Check.State.QUEUED, Check.State.RUNNING])
    if check is None or not waiting.update(state=Check.State.RUNNING):
        return
    assignment = check.version.assignment
    try:
        report = check_submission(
            check.attempt.work(),
            check.version.spec(),
            assignment.given("starter"),
            assignment.given("reference"),
            settings.CHECK_SECONDS,
        )
        _keep(check, report)
    except Exception as problem:
        _fail(check, problem)
        raise
    finally:
        finish_if_done(check.attempt.batch_id)


def _fail(check: Check, problem: Exception) -> None:
    """An error of ours: said plainly to the teacher, and raised on for the worker's log."""
    check.state, check.finished = Check.State.FAILED, timezone.now()
    check.problem = f"Partitor itself failed on it ({type(problem).__name__}). The program is kept."
    check.save(update_fields=["state", "finished", "problem"])


@transaction.atomic
def _keep(check: Check, report: SubmissionReport) -> None:
    report = msgspec.structs.replace(report, name=check.attempt.submission.name)
    check.report = msgspec.to_builtins(report)
    check.state, check.finished = Check.State.DONE, timezone.now()
    check.remark_count = len(report.findings)
    check.statements = int(report.measures["statements"])
    check.repeated_share = report.measures["repeated_share"]
    check.longest_procedure = int(report.measures["longest_procedure"])
    check.possible_saving = report.measures["possible_saving"]
    check.problem = report.unfinished
    check.save()
    if not check.trial:
        keep_results(check, report)


def latest_checks(assignment: Assignment) -> list[Check]:
    """The newest finished check of each submission's newest attempt."""
    checks = (
        Check.objects.filter(attempt__submission__assignment=assignment, state=Check.State.DONE, trial=False)
        .select_related("attempt__submission")
        .order_by("attempt__submission_id", "-attempt__number", "-pk")
        .distinct("attempt__submission_id")
    )
    return list(checks)


@transaction.atomic
def finish_class(assignment: Assignment) -> None:
    """Find the templates that several submissions share."""
    checks = {c.attempt.submission_id: c for c in latest_checks(assignment)}
    patterns = shared_patterns({number: c.record() for number, c in checks.items()})
    assignment.patterns.all().delete()
    ClassPattern.objects.bulk_create(
        ClassPattern(
            assignment=assignment,
            rule=p.finding.rule,
            title=p.title[:300],
            example=_example(checks[p.first], p.finding),
            submissions=list(p.submissions),
        )
        for p in patterns
    )


def _example(check: Check, finding: Finding) -> str:
    if finding.whole or finding.rule not in SHOWN:
        return ""
    place = finding.places[0]
    file = check.attempt.files.filter(path=place.file).first()
    lines = file.text.split("\n")[place.start_line - 1 : place.end_line] if file else []
    return "\n".join(lines[:8])
