"""What happens when feedback goes back, in transactions."""

from __future__ import annotations

import hashlib
import hmac
import io
import secrets
import zipfile
from collections.abc import Iterable, Iterator
from typing import Any

import msgspec
from django.conf import settings
from django.db import transaction
from django.utils import timezone

from assignments.models import Assignment
from checking.models import Check
from courses.services import note
from intake.models import Attempt, Submission
from partitor.exchange.report import SubmissionReport
from partitor.exchange.scores import csv_text
from partitor.feedback.render import page_html, page_markdown
from partitor.feedback.wording import FeedbackPage, RemarkText, feedback_page, remark_text
from partitor.reading.collect import file_name
from partitor.records import Finding
from partitor.scoring.rubric import Score
from review.models import Mark, Remark

from .models import Handback, ReturnPlan

MOST_OPEN = 4
"""Open remarks beyond the weightiest four are not given back; accepted ones always are."""


def plan_of(assignment: Assignment) -> ReturnPlan:
    """The assignment's plan, made when first asked for."""
    return ReturnPlan.objects.get_or_create(assignment=assignment)[0]


def handback_of(submission: Submission) -> Handback:
    """The submission's handback, made when first asked for."""
    return Handback.objects.get_or_create(submission=submission)[0]


def finished_check(attempt: Attempt) -> Check | None:
    """The attempt's newest finished check."""
    return attempt.checks.filter(state=Check.State.DONE, trial=False).order_by("-pk").first()


def page_for(submission: Submission, plan: ReturnPlan, handback: Handback) -> FeedbackPage | None:
    """What the student would get now; None while nothing is checked."""
    attempt = submission.latest()
    check = finished_check(attempt)
    if check is None:
        return None
    report = check.record()
    spec = check.version.spec()
    texts = {f.path: f.text for f in attempt.files.all()}
    hint = handback.hint or plan.hint
    marks = list(attempt.marks.all())
    scores = tuple(_as_score(m) for m in marks)
    total, out_of = _totals(marks)
    report = msgspec.structs.replace(report, name=submission.name, scores=scores, total=total, of=out_of)
    chosen = _chosen(report, list(attempt.remarks.all()))
    base = feedback_page(report, spec, texts, hint)
    return msgspec.structs.replace(
        base,
        remarks=tuple(_remark(r, f, report, texts, hint) for r, f in chosen),
        more=max(0, len(report.findings) - sum(1 for _, f in chosen if f)),
        words=handback.words,
        changed=_changed(submission, attempt, report),
    )


def _as_score(mark: Mark) -> Score:
    level = mark.level if mark.set_level is None else mark.set_level
    because = mark.because if mark.set_level is None else ""
    return Score(mark.criterion, level, mark.final_points, mark.of, because)


def _totals(marks: Iterable[Mark]) -> tuple[float, float]:
    judged = [m for m in marks if m.final_points is not None]
    return sum(m.final_points or 0 for m in judged), sum(m.of for m in judged)


def _chosen(report: SubmissionReport, remarks: list[Remark]) -> list[tuple[Remark, Finding | None]]:
    """Accepted remarks, and of the open ones the weightiest; weightiest first, own remarks last."""
    findings = {f.id: f for f in report.findings}
    known = [(r, findings.get(r.finding)) for r in remarks if r.state != Remark.State.ASIDE]
    accepted = [(r, f) for r, f in known if r.state == Remark.State.ACCEPTED]
    still_open = [(r, f) for r, f in known if r.state == Remark.State.OPEN and f is not None]
    still_open.sort(key=lambda pair: -pair[1].weight if pair[1] else 0)
    chosen = accepted + still_open[: max(0, MOST_OPEN - len(accepted))]
    return sorted(chosen, key=lambda pair: -pair[1].weight if pair[1] else 1)


def _remark(
    remark: Remark, finding: Finding | None, report: SubmissionReport, texts: dict[str, str], hint: str
) -> RemarkText:
    if finding is None:
        where = f"line {remark.line}" if remark.line else "your program as a whole"
        return RemarkText(title=f"About {where}", message=remark.words, advice="")
    suggestions = {s.id: s for s in report.suggestions}
    text = remark_text(finding, suggestions.get(finding.suggestion or ""), texts, remark.hint or hint)
    return msgspec.structs.replace(text, message=remark.words, advice="") if remark.words else text


def _changed(submission: Submission, attempt: Attempt, report: SubmissionReport) -> tuple[str, ...]:
    """What is different from the attempt before, in sentences."""
    before = submission.attempts.filter(number=attempt.number - 1).first()
    check = finished_check(before) if before else None
    if before is None or check is None:
        return ()
    old, now = check.record().measures, report.measures
    said = []
    total, _ = _totals(before.marks.all())
    if total != report.total:
        said.append(f"Your score went from {total:g} to {report.total:g}.")
    if round(old["repeated_share"], 2) != round(now["repeated_share"], 2):
        said.append(
            f"The share that is written again went from {old['repeated_share']:.0%} to {now['repeated_share']:.0%}."
        )
    if old["procedures"] != now["procedures"]:
        said.append(f"You now have {now['procedures']:g} functions; you had {old['procedures']:g}.")
    return tuple(said)


# -- publishing ----------------------------------------------------------------------------------


def key_of(handback: Handback) -> str:
    """The key of the student's private page. Only its hash is stored."""
    text = f"{handback.pk}:{handback.salt}".encode()
    return hmac.new(settings.SECRET_KEY.encode(), text, hashlib.sha256).hexdigest()[:40]


def key_hash(key: str) -> str:
    """What is stored of a key."""
    return hashlib.sha256(key.encode()).hexdigest()


def _ready(assignment: Assignment, plan: ReturnPlan) -> Iterator[tuple[Submission, Handback, FeedbackPage]]:
    """Everything that is not held back, with its page as it would be given now."""
    for submission in assignment.submissions.all():
        handback = handback_of(submission)
        page = None if handback.held else page_for(submission, plan, handback)
        if page is not None:
            yield submission, handback, page


@transaction.atomic
def publish(assignment: Assignment, user: Any) -> int:
    """Freeze and open every page that is not held back. Returns how many."""
    count = 0
    for _, handback, page in _ready(assignment, plan_of(assignment)):
        handback.page = msgspec.to_builtins(page)
        handback.published = timezone.now()
        if not handback.salt:
            handback.salt = secrets.token_hex(16)
            handback.key_hash = key_hash(key_of(handback))
        handback.save()
        count += 1
    note(assignment.course, user, "published", students=count)
    return count


@transaction.atomic
def withdraw(handback: Handback, user: Any) -> None:
    """Close a student's page again; its link stops working for good."""
    handback.published, handback.page, handback.key_hash, handback.salt = None, None, "", ""
    handback.save()
    note(handback.submission.assignment.course, user, "withdrawn", submission=handback.submission_id)


def published_page(key: str) -> FeedbackPage | None:
    """The frozen page behind a private link."""
    handback = Handback.objects.filter(key_hash=key_hash(key), published__isnull=False).first()
    return msgspec.convert(handback.page, FeedbackPage) if handback and handback.page else None


# -- files -----------------------------------------------------------------------------------------


def gradebook(assignment: Assignment) -> str:
    """All marks as CSV: one row a student, those who handed in nothing included."""
    criteria = assignment.current().spec().rubric()
    rows = [["name", "number", *(c.id for c in criteria), "total", "out of", "percent", "attempt"]]
    for submission in assignment.submissions.select_related("student"):
        attempt = submission.latest()
        marks = {m.criterion: m for m in attempt.marks.all()}
        total, out_of = _totals(marks.values())
        points = [marks[c.id].final_points if c.id in marks else None for c in criteria]
        rows.append(
            [
                submission.name,
                submission.student.number if submission.student else "",
                *("" if p is None else f"{p:g}" for p in points),
                f"{total:g}",
                f"{out_of:g}",
                f"{100 * total / out_of:.1f}" if out_of else "",
                str(attempt.number),
            ]
        )
    for student in assignment.course.roster.exclude(submissions__assignment=assignment):
        rows.append([student.name, student.number, *("" for _ in criteria), "", "", "", ""])
    return csv_text(rows)


def pack(assignment: Assignment, address: str) -> bytes:
    """A ZIP with every page as HTML and Markdown, the gradebook, and the private links."""
    plan = plan_of(assignment)
    out = io.BytesIO()
    links = [["name", "link"]]
    used: set[str] = set()
    with zipfile.ZipFile(out, "w", zipfile.ZIP_DEFLATED) as archive:
        for submission, handback, page in _ready(assignment, plan):
            name = file_name(submission.name)
            while name.casefold() in used:
                name += "_"
            used.add(name.casefold())
            archive.writestr(f"{name}/feedback.html", page_html(page))
            archive.writestr(f"{name}/feedback.md", page_markdown(page))
            _add_patch(archive, name, submission, handback.hint or plan.hint)
            if handback.published:
                links.append([submission.name, f"{address}/s/{key_of(handback)}"])
        archive.writestr("gradebook.csv", gradebook(assignment))
        archive.writestr("links.csv", csv_text(links))
    return out.getvalue()


def _add_patch(archive: zipfile.ZipFile, name: str, submission: Submission, hint: str) -> None:
    """The worked answer goes along only where the student is shown answers."""
    check = finished_check(submission.latest())
    diff = check.record().worked_answer.diff if check else ""
    if hint == "answer" and diff:
        archive.writestr(f"{name}/all.patch", diff)
