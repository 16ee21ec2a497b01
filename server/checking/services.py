"""What happens to checks, in transactions."""

from __future__ import annotations

import logging
import time
from collections import Counter
from collections.abc import Sequence

import msgspec
from django.db import transaction
from django.db.models import QuerySet
from django.utils import timezone

from assignments.models import Assignment
from config import children
from partitor.classwide.patterns import shared_patterns
from partitor.errors import TooCostly
from partitor.exchange.report import SubmissionReport
from partitor.isolation import Failed, Stopped
from partitor.records import Finding
from review.services import keep_results

from .models import Check, ClassPattern
from .silhouette import silhouette

log = logging.getLogger(__name__)
TOO_COSTLY = "It is too costly to check: it {}. The program is kept and can be read on the desk."
GIVEN_UP = "Checking it failed several times. The program is kept; check it again, or report this."
KEPT_EVERY = 0.7
"""Seconds after which results are kept, so that people see them come."""
READ = ("attempt__files", "version__assignment__given_files")
"""What all checks of a job read, in one query each."""
RESULT = (
    "state",
    "problem",
    "finished",
    "report",
    "measures",
    "rules",
    "silhouette",
    "remark_count",
    "statements",
    "repeated_share",
    "longest_procedure",
    "possible_saving",
)
"""The fields that a result fills."""

SHOWN = frozenset({"repeated-run", "repeated-block", "twin-functions", "missing-function", "idle-loop"})
"""Rules of which a few lines of code say more than the title."""


def run(numbers: Sequence[int]) -> None:
    """Check attempts one after the other and keep the results, several in one go. What was cancelled, dropped or done
    meanwhile stays so."""
    done: list[tuple[Check, SubmissionReport | str]] = []
    since = time.monotonic()
    for check in _begun(numbers):
        done.append((check, outcome(check)))
        if time.monotonic() - since > KEPT_EVERY:
            keep(done)
            done, since = [], time.monotonic()
    keep(done)


def _begun(numbers: Sequence[int]) -> list[Check]:
    """The checks among these that wait, or were begun by a worker that died: begun now."""
    waiting = Check.objects.filter(pk__in=numbers, state__in=[Check.State.QUEUED, Check.State.RUNNING])
    waiting.update(state=Check.State.RUNNING)
    begun = Check.objects.filter(pk__in=numbers, state=Check.State.RUNNING).order_by("pk")
    return list(begun.select_related("attempt__submission", "version__assignment").prefetch_related(*READ))


def outcome(check: Check) -> SubmissionReport | str:
    """The report of a check, or a sentence that says why there is none."""
    assignment = check.version.assignment
    try:
        report = children.checked(
            check.attempt.work(), check.version.spec(), assignment.given("starter"), assignment.given("reference")
        )
    except TooCostly:
        return TOO_COSTLY.format("could not even be read in time")
    except Stopped as problem:
        return TOO_COSTLY.format(problem)
    except Failed as problem:  # where in the child it happened is all that the log needs
        log.error("A check failed: %s", problem, extra={"check": check.pk})
        return "Partitor itself failed on it. The program is kept; please report this."
    return msgspec.structs.replace(report, name=check.attempt.submission.name)


@transaction.atomic
def keep(done: Sequence[tuple[Check, SubmissionReport | str]]) -> None:
    """Keep results, each where its check is still wanted, and finish the batches that they were the last of."""
    from intake.services import finish_if_done

    kept = [(check, result) for check, result in done if _keep_one(check, result)]
    keep_results([(c, r) for c, r in kept if not isinstance(r, str) and not c.trial])
    for batch in sorted({check.attempt.batch_id for check, _ in done}):
        finish_if_done(batch)


def _keep_one(check: Check, result: SubmissionReport | str) -> bool:
    """Write a check's row; False where it was dropped or cancelled meanwhile."""
    check.finished = timezone.now()
    if isinstance(result, str):
        check.state, check.problem = Check.State.FAILED, result
    else:
        fill(check, result)
    fields = {field: getattr(check, field) for field in RESULT}
    return bool(Check.objects.filter(pk=check.pk, state=Check.State.RUNNING).update(**fields))


def fill(check: Check, report: SubmissionReport) -> None:
    """Put a report into a check, and what lists and the class view read of it into its columns."""
    check.state, check.problem = Check.State.DONE, report.unfinished
    check.report = msgspec.to_builtins(report)
    check.measures = report.measures
    check.rules = dict(Counter(f.rule for f in report.findings))
    check.silhouette = silhouette([(f.path, f.text) for f in check.attempt.files.all()], check.report)
    check.remark_count = len(report.findings)
    check.statements = int(report.measures["statements"])
    check.repeated_share = report.measures["repeated_share"]
    check.longest_procedure = int(report.measures["longest_procedure"])
    check.possible_saving = report.measures["possible_saving"]


@transaction.atomic
def give_up(numbers: Sequence[int]) -> None:
    """After the last try: what still waits fails with a sentence, and its batch can end."""
    from intake.services import finish_if_done

    waiting = Check.objects.filter(pk__in=numbers, state__in=[Check.State.QUEUED, Check.State.RUNNING])
    batches = set(waiting.values_list("attempt__batch", flat=True))
    waiting.update(state=Check.State.FAILED, finished=timezone.now(), problem=GIVEN_UP)
    for batch in sorted(batches):
        finish_if_done(batch)


def latest_checks(assignment: Assignment) -> list[Check]:
    """The newest finished check of each submission's newest attempt."""
    checks = (
        Check.objects.filter(attempt__submission__assignment=assignment, state=Check.State.DONE, trial=False)
        .select_related("attempt__submission")
        .order_by("attempt__submission_id", "-attempt__number", "-pk")
        .distinct("attempt__submission_id")
    )
    return list(checks)


def light_checks() -> QuerySet[Check]:
    """Checks without what is large in them, for lists of many."""
    return Check.objects.defer("report", "silhouette", "measures", "rules")


@transaction.atomic
def finish_class(number: int) -> None:
    """Find the templates that several submissions of an assignment share."""
    assignment = Assignment.objects.select_for_update().get(pk=number)
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
