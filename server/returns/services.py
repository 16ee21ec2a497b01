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
from config.conflict import changed, fields_of
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
from review.services import totals_of

from .models import Handback, ReturnPlan

MOST_OPEN = 4
"""Open remarks beyond the weightiest four are not given back; accepted ones always are."""


def plan_of(assignment: Assignment) -> ReturnPlan:
    """The assignment's plan; one that is not stored yet where nothing was chosen."""
    return ReturnPlan.objects.filter(assignment=assignment).first() or ReturnPlan(assignment=assignment)


def handback_of(submission: Submission) -> Handback:
    """The submission's handback; one that is not stored yet where nothing was chosen."""
    return Handback.objects.filter(submission=submission).first() or Handback(submission=submission)


@transaction.atomic
def set_plan(assignment: Assignment, user: Any, hint: str) -> None:
    """Choose the hint level for all."""
    ReturnPlan.objects.update_or_create(assignment=assignment, defaults={"hint": hint})
    note(assignment.course, user, "hint level set", hint=hint)


@transaction.atomic
def set_handback(submission: Submission, user: Any, changes: dict[str, Any], version: int | None = None) -> None:
    """Hold a return back, choose its hint level, or add words: only what is changed is written. Raises Conflict where
    the return is no longer as it was in `version`."""
    Handback.objects.get_or_create(submission=submission)
    handback = Handback.objects.select_for_update().get(submission=submission)
    changed(handback, version, user, "this return", lambda: fields_of(handback, ("hint", "held", "words")))
    for field, value in changes.items():
        setattr(handback, field, value)
    handback.save(update_fields=[*changes, "version", "changed_by", "changed_at"])
    note(submission.assignment.course, user, "return changed", submission=submission.pk, **changes)


class State(msgspec.Struct, frozen=True):
    """What a student would get now, as far as a list of all of them shows it."""

    submission: Submission
    handback: Handback
    check: int | None
    """The newest finished check of the newest attempt."""
    remarks: int
    total: str
    fingerprint: str
    """Of everything that the page would be made of."""

    @property
    def stale(self) -> bool:
        """True where the published page is no longer what would be given."""
        return bool(self.handback.published) and self.handback.made_from != self.fingerprint


def states_of(assignment: Assignment, plan: ReturnPlan) -> list[State]:
    """Every student's return, in a handful of queries and without making a page."""
    newest = Attempt.objects.filter(submission__assignment=assignment).order_by("submission_id", "-number")
    attempts = list(newest.distinct("submission_id").select_related("submission"))
    keys = [a.pk for a in attempts]
    done = Check.objects.filter(attempt__submission__assignment=assignment, state=Check.State.DONE, trial=False)
    checks = dict(done.order_by("pk").values_list("attempt", "pk"))
    every = list(Attempt.objects.filter(submission__assignment=assignment).values_list("submission", "number", "pk"))
    earlier = {(submission, number): pk for submission, number, pk in every}
    points = totals_of([pk for *_, pk in every])
    handbacks = {h.submission_id: h for h in Handback.objects.filter(submission__assignment=assignment)}
    marks = _by_attempt(Mark, keys, "criterion", "level", "points", "of", "because", "set_level", "set_points")
    remarks = _by_attempt(Remark, keys, "finding", "state", "hint", "words", "line", "path", "weight")
    found = []
    for attempt in attempts:
        submission = attempt.submission
        handback = handbacks.get(submission.pk) or Handback(submission=submission)
        own, before = remarks.get(attempt.pk, []), earlier.get((submission.pk, attempt.number - 1))
        total, out_of = points.get(attempt.pk, (0.0, 0.0))
        check = checks.get(attempt.pk)
        parts = (
            submission.name,
            check,
            marks.get(attempt.pk),
            own,
            handback.hint or plan.hint,
            handback.words,
            before and (checks.get(before), points.get(before)),
        )
        fingerprint = hashlib.sha256(msgspec.json.encode(parts)).hexdigest()
        shown = f"{total:g} of {out_of:g}" if check else ""
        found.append(State(submission, handback, check, _given_back(own) if check else 0, shown, fingerprint))
    return sorted(found, key=lambda state: (state.submission.name, state.submission.pk))


def _by_attempt(model: Any, attempts: list[int], *fields: str) -> dict[int, list[tuple[Any, ...]]]:
    """Rows of a model as tuples of these fields, in their order, by attempt."""
    found: dict[int, list[tuple[Any, ...]]] = {}
    for attempt, *values in model.objects.filter(attempt__in=attempts).values_list("attempt", *fields):
        found.setdefault(attempt, []).append(tuple(values))
    return found


def _given_back(remarks: list[tuple[Any, ...]]) -> int:
    """How many of these remarks, (finding, state, …) each, the page holds."""
    accepted = sum(state == Remark.State.ACCEPTED for _, state, *_ in remarks)
    waiting = sum(state == Remark.State.OPEN and bool(finding) for finding, state, *_ in remarks)
    return accepted + min(waiting, max(0, MOST_OPEN - accepted))


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


def _ready(assignment: Assignment, plan: ReturnPlan) -> Iterator[tuple[State, FeedbackPage]]:
    """Everything that is not held back, with its page as it would be given now."""
    for state in states_of(assignment, plan):
        page = None if state.handback.held else page_for(state.submission, plan, state.handback)
        if page is not None:
            yield state, page


@transaction.atomic
def publish(assignment: Assignment, user: Any) -> int:
    """Freeze and open every page that is not held back. Returns how many."""
    missing = assignment.submissions.filter(handback=None)
    Handback.objects.bulk_create((Handback(submission=s) for s in missing), ignore_conflicts=True)
    # Held until the end: who changes a return meanwhile waits, and changes what is published then.
    held = {h.pk for h in Handback.objects.select_for_update().filter(submission__assignment=assignment)}
    count = 0
    for state, page in _ready(assignment, plan_of(assignment)):
        handback = state.handback
        if handback.pk not in held:
            continue  # handed in while this runs
        handback.page, handback.made_from = msgspec.to_builtins(page), state.fingerprint
        handback.published = timezone.now()
        if not handback.salt:
            handback.salt = secrets.token_hex(16)
            handback.key_hash = key_hash(key_of(handback))
        handback.save(update_fields=["page", "made_from", "published", "salt", "key_hash"])
        count += 1
    note(assignment.course, user, "published", students=count)
    return count


@transaction.atomic
def withdraw(handback: Handback, user: Any) -> None:
    """Close a student's page again; its link stops working for good."""
    if handback.pk is None:
        return
    handback.published, handback.page, handback.key_hash, handback.salt, handback.made_from = None, None, "", "", ""
    handback.save(update_fields=["published", "page", "key_hash", "salt", "made_from"])
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
        for state, page in _ready(assignment, plan):
            submission, handback = state.submission, state.handback
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
