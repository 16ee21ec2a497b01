"""What happens to a batch, in transactions: received, divided, matched, queued, finished."""

from __future__ import annotations

import os
import re
import shutil
import uuid
from collections.abc import Sequence
from pathlib import Path, PurePosixPath
from typing import Any

import msgspec
from django.conf import settings
from django.core.files.uploadedfile import UploadedFile
from django.db import transaction
from django.db.models import Max
from django.utils import timezone

from assignments.models import Assignment
from checking.models import Check
from checking.queue import defer_checks, defer_finish, defer_receive
from config import children
from courses.models import Course, RosterEntry
from courses.roster import match_name
from courses.services import note, roster_rows
from partitor.errors import UnreadableSubmission
from partitor.isolation import Stopped
from partitor.reading.collect import Batch as ReadBatch
from partitor.reading.collect import Submission as Work
from partitor.reading.text import printable

from .models import Attempt, Batch, SourceFile, Submission, Unread

NAMES = "names.json"
"""The file beside an upload's files that holds what they were called."""
AT_ONCE = 40
"""Submissions that are stored in one transaction: few, so that the first are checked while the rest is stored."""


def receive(assignment: Assignment, user: Any, uploads: list[UploadedFile]) -> Batch:
    """Keep the uploaded files on disk and queue the batch, both or neither."""
    folder = Path(settings.UPLOADS) / uuid.uuid4().hex
    folder.mkdir(parents=True, mode=0o700)
    names = [printable(upload.name or f"upload-{number}") for number, upload in enumerate(uploads)]
    for number, upload in enumerate(uploads):
        with open(folder / f"{number:05d}", "wb", opener=_private) as target:
            shutil.copyfileobj(upload, target, 1 << 20)
    with open(folder / NAMES, "wb", opener=_private) as target:
        target.write(msgspec.json.encode(names))
    title = names[0] if len(names) == 1 else f"{names[0][:250]} and {len(names) - 1} more"
    with transaction.atomic():
        batch = Batch.objects.create(assignment=assignment, user=user, file_name=title[:300], path=folder.name)
        note(assignment.course, user, "batch received", file=title, batch=batch.pk)
        defer_receive(batch.pk, assignment.pk)
    return batch


def _private(path: str, flags: int) -> int:
    """Opens a file that only this user can read."""
    return os.open(path, flags, 0o600)


def divide(number: int) -> None:
    """Unpack a batch, match its submissions to students and queue their checks; the upload is then deleted.

    A worker may die in the middle: what is stored is then not stored again, and the batch counts as
    being divided until the last submission is, so that no check takes it for finished before.
    """
    batch = Batch.objects.select_related("assignment__course").get(pk=number)
    if batch.state != Batch.State.RECEIVED:
        return
    try:
        found, junk = _read(batch)
    except UnreadableSubmission as problem:
        _refuse(batch, f"{problem}.")
        return
    except Stopped as problem:
        _refuse(batch, f"{batch.file_name}: reading it {problem}, so it was stopped. Send it in smaller parts.")
        return
    entries, rows = roster_rows(batch.assignment.course)
    with transaction.atomic():
        if not _still(batch, Batch.State.RECEIVED):
            return
        batch.unread.all().delete()
        Unread.objects.bulk_create(Unread(batch=batch, name=u.name[:300], why=u.why) for u in found.unreadable)
        Batch.objects.filter(pk=batch.pk).update(junk=junk)
    before = batch.attempts.count()
    for start in range(before, len(found.submissions), AT_ONCE):
        part = [(work, match_name(work.name, rows)) for work in found.submissions[start : start + AT_ONCE]]
        with transaction.atomic():
            if not _still(batch, Batch.State.RECEIVED):
                return
            store_attempts(batch, [(w, entries[m] if m is not None else None) for w, m in part], start)
    with transaction.atomic():
        if _still(batch, Batch.State.RECEIVED):
            Batch.objects.filter(pk=batch.pk).update(state=Batch.State.CHECKING)
    _delete_upload(batch)
    finish_if_done(batch.pk)


def give_up(number: int) -> None:
    """After the last try: the batch is refused with a sentence; what is stored of it is checked all the same."""
    batch = Batch.objects.get(pk=number)
    with transaction.atomic():
        if not _still(batch, Batch.State.RECEIVED):
            return
        stored = batch.attempts.count()
        kept = f" The {stored} that were read are kept and checked." if stored else ""
        _refuse(batch, f"Partitor itself failed to read it, several times.{kept} Please report this, with the file.")


def _still(batch: Batch, state: str) -> bool:
    """True where nobody has cancelled the batch meanwhile; holds it until the transaction ends."""
    return Batch.objects.select_for_update().get(pk=batch.pk).state == state


def _read(batch: Batch) -> tuple[ReadBatch, int]:
    folder = Path(settings.UPLOADS) / batch.path
    spec = batch.assignment.current().spec()
    names = msgspec.json.decode((folder / NAMES).read_bytes(), type=list[str])
    shown = [PurePosixPath(name.replace("\\", "/")).name or "upload" for name in names]
    uploads = [(name, folder / f"{number:05d}") for number, name in enumerate(shown)]
    return children.read(uploads, spec.pattern, spec.language)


def _refuse(batch: Batch, why: str) -> None:
    Batch.objects.filter(pk=batch.pk, state=Batch.State.RECEIVED).update(
        state=Batch.State.REFUSED, problem=why, finished=timezone.now()
    )
    _delete_upload(batch)


def _delete_upload(batch: Batch) -> None:
    """What was uploaded is in the database by now, or was refused."""
    shutil.rmtree(Path(settings.UPLOADS) / batch.path, ignore_errors=True)


def store_attempts(batch: Batch, works: Sequence[tuple[Work, RosterEntry | None]], before: int) -> list[Attempt]:
    """Keep submissions' files as their students' next attempts and queue their checks, all in one go; `before` are
    those of the batch that are kept already."""
    submissions = _submissions_for(batch.assignment, works)
    numbers = dict(
        Submission.objects.filter(pk__in={s.pk for s in submissions})
        .annotate(last=Max("attempts__number"))
        .values_list("pk", "last")
    )
    attempts = []
    for (work, _), submission in zip(works, submissions, strict=True):
        numbers[submission.pk] = (numbers[submission.pk] or 0) + 1
        attempts.append(
            Attempt(
                submission=submission,
                batch=batch,
                number=numbers[submission.pk],
                received_as=work.name[:300],
                ignored=msgspec.to_builtins(work.ignored),
            )
        )
    Attempt.objects.bulk_create(attempts)
    SourceFile.objects.bulk_create(
        SourceFile(
            attempt=attempt,
            path=s.path,
            text=s.text,
            original=s.original,
            language=s.language or "",
            encoding=s.encoding,
            newline=s.newline,
        )
        for attempt, (work, _) in zip(attempts, works, strict=True)
        for s in work.sources
    )
    Submission.objects.filter(pk__in=numbers, reviewed=True).update(reviewed=False)
    version = batch.assignment.current()
    checks = Check.objects.bulk_create(Check(attempt=attempt, version=version) for attempt in attempts)
    sizes = [sum(len(s.text) for s in work.sources) for work, _ in works]
    defer_checks(((c.pk, size) for c, size in zip(checks, sizes, strict=True)), before)
    return attempts


def _submissions_for(assignment: Assignment, works: Sequence[tuple[Work, RosterEntry | None]]) -> list[Submission]:
    """The submission that each work belongs to, locked; those that are not there are made."""
    students = {student.pk: student for _, student in works if student is not None}
    held = Submission.objects.select_for_update().filter(assignment=assignment)
    known = {s.student_id: s for s in held.filter(student__in=students)}
    new = [s for pk, s in students.items() if pk not in known]
    made = Submission.objects.bulk_create(Submission(assignment=assignment, student=s, name=s.name) for s in new)
    known |= {s.student_id: s for s in made}
    unmatched = [work for work, student in works if student is None]
    alone = iter(
        Submission.objects.bulk_create(Submission(assignment=assignment, name=shown_name(w.name)) for w in unmatched)
    )
    return [known[student.pk] if student is not None else next(alone) for _, student in works]


def shown_name(received: str) -> str:
    """A received name made readable, for work that no student is matched to."""
    return re.sub(r"[_\s]+", " ", printable(received)).strip()[:300] or "unnamed"


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
