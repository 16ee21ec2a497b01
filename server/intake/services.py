"""What happens to a batch, in transactions: received, divided, matched, queued, finished."""

from __future__ import annotations

import re
import shutil
import uuid
from pathlib import Path
from typing import Any

import msgspec
from django.conf import settings
from django.core.files.uploadedfile import UploadedFile
from django.db import transaction
from django.utils import timezone

from assignments.models import Assignment
from checking.models import Check
from checking.queue import defer_check, defer_finish, defer_receive
from courses.models import Course, RosterEntry
from courses.roster import match_name
from courses.services import note, roster_rows
from partitor.errors import UnreadableSubmission
from partitor.reading.archives import Entry, Unpacked, Unpacker, is_archive
from partitor.reading.collect import Batch as ReadBatch
from partitor.reading.collect import Submission as Work
from partitor.reading.collect import batch_of

from .models import Attempt, Batch, SourceFile, Submission, Unread


def receive(assignment: Assignment, user: Any, uploads: list[UploadedFile]) -> Batch:
    """Keep the uploaded files on disk and queue the batch, both or neither."""
    folder = Path(settings.UPLOADS) / uuid.uuid4().hex
    folder.mkdir(parents=True)
    for number, upload in enumerate(uploads):
        with (folder / f"{number:05d}").open("wb") as target:
            shutil.copyfileobj(upload, target, 1 << 20)
        (folder / f"{number:05d}.name").write_text(upload.name or f"upload-{number}")
    title = uploads[0].name or "upload"
    if len(uploads) > 1:
        title = f"{title} and {len(uploads) - 1} more"
    with transaction.atomic():
        batch = Batch.objects.create(assignment=assignment, user=user, file_name=title[:300], path=folder.name)
        note(assignment.course, user, "batch received", file=title, batch=batch.pk)
        defer_receive(batch.pk, assignment.pk)
    return batch


def divide(batch: Batch) -> None:
    """Unpack a batch, match its submissions to students and queue a check for each.

    A worker may die in the middle: what is stored is then not stored again, and the batch counts as
    being divided until the last submission is, so that no check takes it for finished before.
    """
    if batch.state != Batch.State.RECEIVED:
        return
    try:
        found = _read(batch)
    except UnreadableSubmission as problem:
        _refuse(batch, str(problem))
        return
    entries, rows = roster_rows(batch.assignment.course)
    with transaction.atomic():
        batch.unread.all().delete()
        Unread.objects.bulk_create(Unread(batch=batch, name=u.name[:300], why=u.why) for u in found.unreadable)
    for work in found.submissions[batch.attempts.count() :]:
        match = match_name(work.name, rows)
        with transaction.atomic():
            if not _still(batch, Batch.State.RECEIVED):
                return
            store_attempt(batch, work, entries[match] if match is not None else None)
    with transaction.atomic():
        if _still(batch, Batch.State.RECEIVED):
            batch.state = Batch.State.CHECKING
            batch.save(update_fields=["state"])
    finish_if_done(batch.pk)


def _still(batch: Batch, state: str) -> bool:
    """True where nobody has cancelled the batch meanwhile; holds it until the transaction ends."""
    return Batch.objects.select_for_update().get(pk=batch.pk).state == state


def _read(batch: Batch) -> ReadBatch:
    folder = Path(settings.UPLOADS) / batch.path
    spec = batch.assignment.current().spec()
    whole = Unpacked([])
    uploads = sorted(p for p in folder.iterdir() if p.suffix != ".name")
    for upload in uploads:
        name = Path(upload.with_suffix(".name").read_text().replace("\\", "/")).name or "upload"
        data = upload.read_bytes()
        if len(uploads) == 1 and (is_archive(name) or data[:4] == b"PK\x03\x04"):
            whole = Unpacker().unpack(name, data)
        else:
            whole.entries.append(Entry(name, data))
    batch.junk = whole.junk
    batch.save(update_fields=["junk"])
    return batch_of(whole, spec.pattern, spec.language)


def _refuse(batch: Batch, why: str) -> None:
    batch.state, batch.problem, batch.finished = Batch.State.REFUSED, why, timezone.now()
    batch.save(update_fields=["state", "problem", "finished"])


def store_attempt(batch: Batch, work: Work, student: RosterEntry | None) -> Attempt:
    """Keep one submission's files as the student's next attempt and queue its check, in one go."""
    assignment = batch.assignment
    if student is not None:
        submission, _ = Submission.objects.get_or_create(
            assignment=assignment, student=student, defaults={"name": student.name}
        )
    else:
        submission = Submission.objects.create(assignment=assignment, name=shown_name(work.name))
    Submission.objects.select_for_update().get(pk=submission.pk)
    number = submission.attempts.count() + 1
    attempt = Attempt.objects.create(
        submission=submission,
        batch=batch,
        number=number,
        received_as=work.name[:300],
        ignored=msgspec.to_builtins(work.ignored),
    )
    SourceFile.objects.bulk_create(
        SourceFile(
            attempt=attempt,
            path=s.path,
            text=_storable(s.text),
            original=None if s.original is None else _storable(s.original),
            language=s.language or "",
            encoding=s.encoding,
            newline=s.newline,
        )
        for s in work.sources
    )
    if submission.reviewed:
        submission.reviewed = False
        submission.save(update_fields=["reviewed"])
    check = Check.objects.create(attempt=attempt, version=assignment.current())
    defer_check(check.pk)
    return attempt


def _storable(text: str) -> str:
    """PostgreSQL text holds no NUL; such a character means nothing in a program either."""
    return text.replace("\x00", "\ufffd")


def shown_name(received: str) -> str:
    """A received name made readable, for work that no student is matched to."""
    return re.sub(r"[_\s]+", " ", received).strip()[:300] or "unnamed"


@transaction.atomic
def finish_if_done(batch_id: int) -> None:
    """When the last check of a batch is through, queue the job that finishes the class results."""
    batch = Batch.objects.select_for_update().get(pk=batch_id)
    if batch.state != Batch.State.CHECKING:
        return
    waiting = Check.objects.filter(
        attempt__batch=batch, trial=False, state__in=[Check.State.QUEUED, Check.State.RUNNING]
    ).exists()
    if not waiting:
        batch.state, batch.finished = Batch.State.DONE, timezone.now()
        batch.save(update_fields=["state", "finished"])
        defer_finish(batch.assignment_id)


@transaction.atomic
def cancel(batch: Batch, user: Any) -> None:
    """Stop a batch: what is checked stays, what still waits is not checked."""
    batch = Batch.objects.select_for_update().get(pk=batch.pk)
    if batch.state in {Batch.State.RECEIVED, Batch.State.CHECKING}:
        batch.state, batch.finished = Batch.State.CANCELLED, timezone.now()
        batch.save(update_fields=["state", "finished"])
        Check.objects.filter(attempt__batch=batch, trial=False, state=Check.State.QUEUED).update(
            state=Check.State.CANCELLED
        )
        note(batch.assignment.course, user, "batch cancelled", batch=batch.pk)


@transaction.atomic
def assign_student(submission: Submission, student: RosterEntry | None, user: Any) -> Submission:
    """Say whose work this is. Where that student has work already, it becomes their next attempt."""
    note(
        submission.assignment.course,
        user,
        "submission matched",
        name=submission.name,
        student=student.name if student else "",
    )
    existing = (
        Submission.objects.filter(assignment=submission.assignment, student=student).exclude(pk=submission.pk).first()
        if student
        else None
    )
    if existing is None:
        submission.student = student
        submission.name = student.name if student else shown_name(submission.latest().received_as)
        submission.save(update_fields=["student", "name"])
        return submission
    number = existing.attempts.count()
    for offset, attempt in enumerate(submission.attempts.order_by("number"), 1):
        attempt.submission, attempt.number = existing, number + offset
        attempt.save(update_fields=["submission", "number"])
    submission.delete()
    existing.reviewed = False
    existing.save(update_fields=["reviewed"])
    return existing


def missing_students(assignment: Assignment) -> list[RosterEntry]:
    """Students on the class list who have handed in nothing."""
    course: Course = assignment.course
    return list(course.roster.exclude(submissions__assignment=assignment))
