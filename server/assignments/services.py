"""What happens to assignments, in transactions."""

from __future__ import annotations

from typing import Any

import msgspec
from django.db import transaction
from django.db.models import Count, Q

from config import children
from config.conflict import require_newest
from courses.models import Course
from courses.services import note
from partitor.errors import PartitorError, TooCostly
from partitor.exchange.assignment import Assignment as Spec
from partitor.exchange.assignment import parse_assignment, write_assignment
from partitor.exchange.report import SubmissionReport
from partitor.isolation import Stopped
from partitor.languages.registry import LANGUAGES
from partitor.reading.collect import Submission
from partitor.source import Source

from .models import Assignment, AssignmentVersion, GivenFile


def assignment_lines(course: Course) -> list[dict[str, Any]]:
    """A course's assignments with the number of submissions and of what waits."""
    counted = course.assignments.annotate(
        submission_count=Count("submissions", distinct=True),
        unread_count=Count("batches__unread", distinct=True),
        returned_count=Count("submissions", filter=Q(submissions__handback__published__isnull=False), distinct=True),
        unfinished_count=Count("submissions", filter=Q(submissions__reviewed=False), distinct=True),
    )
    return [
        {
            "id": a.pk,
            "title": a.title,
            "language": a.current().spec().language,
            "submissions": a.submission_count,
            "unfinished": a.unfinished_count,
            "unread": a.unread_count,
            "returned": a.returned_count,
        }
        for a in counted
    ]


@transaction.atomic
def create_assignment(course: Course, user: Any, text: str) -> Assignment:
    """A new assignment from the text of its file. Raises AssignmentFileError."""
    spec = parse_assignment(text)
    assignment = Assignment.objects.create(course=course, title=spec.title[:200])
    AssignmentVersion.objects.create(assignment=assignment, number=1, text=text, created_by=user)
    note(course, user, "assignment made", title=spec.title)
    return assignment


@transaction.atomic
def change_assignment(assignment: Assignment, user: Any, text: str, version: int | None = None) -> AssignmentVersion:
    """A new version where the text asks something else; checks made before keep theirs. Raises Conflict where the
    newest is no longer `version`."""
    spec = parse_assignment(text)
    Assignment.objects.select_for_update().get(pk=assignment.pk)
    current = assignment.current()
    require_newest(
        version,
        current.number,
        current.created_by,
        user,
        "this assignment",
        lambda: {"version": current.number, "spec": msgspec.to_builtins(current.spec())},
    )
    if current.text == text or parse_assignment(current.text) == spec:
        return current
    assignment.title = spec.title[:200]
    assignment.save(update_fields=["title"])
    note(assignment.course, user, "assignment changed", version=current.number + 1)
    return AssignmentVersion.objects.create(
        assignment=assignment, number=current.number + 1, text=text, created_by=user
    )


def text_of(data: dict[str, Any]) -> str:
    """The assignment file for a form's fields. Raises AssignmentFileError where they make no sense."""
    try:
        spec = msgspec.convert(data, Spec)
    except msgspec.ValidationError as problem:
        from partitor.errors import AssignmentFileError

        raise AssignmentFileError(f"The assignment is not complete: {problem}.") from problem
    text = write_assignment(spec)
    parse_assignment(text, "The assignment")
    return text


@transaction.atomic
def replace_given(assignment: Assignment, user: Any, kind: str, files: dict[str, str]) -> None:
    """Replace the starter code or the reference solution."""
    assignment.given_files.filter(kind=kind).delete()
    GivenFile.objects.bulk_create(
        GivenFile(assignment=assignment, kind=kind, path=path, text=text) for path, text in files.items()
    )
    note(assignment.course, user, f"{kind} code set", files=len(files))


def sample_report(spec: Spec, text: str) -> SubmissionReport | None:
    """What would be said about this program; None for an empty one."""
    if not text.strip():
        return None
    language = LANGUAGES[spec.language if spec.language in LANGUAGES else "python"]
    source = Source(f"sample{language.extensions[0]}", text.replace("\r\n", "\n"), language.id)
    try:
        return children.sampled(Submission("sample", (source,)), spec)
    except (Stopped, TooCostly) as problem:
        raise PartitorError("This program is too costly to check here. Try a shorter one.") from problem
