"""What happens to courses, in transactions."""

from __future__ import annotations

from typing import Any

from django.contrib.auth.models import AbstractBaseUser
from django.db import transaction
from rest_framework.exceptions import PermissionDenied

from partitor.errors import PartitorError

from .models import Course, Event, Membership, RosterEntry
from .roster import Row, read_roster


def note(course: Course, user: Any, verb: str, **data: Any) -> None:
    """Add a line to the course's record of who did what."""
    known = user if isinstance(user, AbstractBaseUser) and user.is_authenticated else None
    Event.objects.create(course=course, user=known, verb=verb, data=data)


@transaction.atomic
def create_course(user: Any, title: str, term: str) -> Course:
    """A new course, owned by the person who makes it."""
    course = Course.objects.create(title=title, term=term)
    Membership.objects.create(course=course, user=user, part=Membership.Part.OWNER)
    note(course, user, "course made", title=title)
    return course


@transaction.atomic
def replace_roster(course: Course, user: Any, data: bytes) -> int:
    """Take over a class list: known students stay with their work, new ones come, others go if they
    have handed in nothing. Returns the number of students."""
    rows = read_roster(data)
    known = {(e.name, e.number): e for e in course.roster.all()}
    for row in rows:
        entry = known.pop((row.name, row.number), None) or RosterEntry(course=course, name=row.name, number=row.number)
        entry.also = list(row.also)
        entry.save()
    RosterEntry.objects.filter(pk__in=[e.pk for e in known.values()], submissions=None).delete()
    note(course, user, "class list read", students=len(rows))
    return len(rows)


def roster_rows(course: Course) -> tuple[list[RosterEntry], list[Row]]:
    """The class list as records, and as rows to match names with."""
    entries = list(course.roster.all())
    return entries, [Row(e.name, e.number, tuple(e.also)) for e in entries]


@transaction.atomic
def set_member(course: Course, by: Any, user: Any, part: str) -> None:
    """Add a member, or change a member's part. Only an owner makes an owner or changes one's part; the last owner
    stays. Raises PermissionDenied or PartitorError."""
    parts = _parts(course)
    if Membership.Part.OWNER in (part, parts.get(user.pk)) and parts.get(by.pk) != Membership.Part.OWNER:
        raise PermissionDenied("Only an owner of this course makes an owner, or changes what an owner is.")
    if part != Membership.Part.OWNER:
        _require_another_owner(parts, user)
    Membership.objects.update_or_create(course=course, user=user, defaults={"part": part})
    note(course, by, "member set", member=user.get_username(), part=part)


@transaction.atomic
def remove_member(course: Course, by: Any, user: Any) -> None:
    """Take a member out of the course: anyone themselves, an owner anyone, a teacher an assistant. The last owner
    stays. Raises PermissionDenied or PartitorError."""
    parts = _parts(course)
    own, theirs = parts.get(by.pk), parts.get(user.pk)
    if theirs is None:
        raise PartitorError("That person is no member of this course.")
    teachers = own == Membership.Part.TEACHER and theirs == Membership.Part.ASSISTANT
    if by.pk != user.pk and own != Membership.Part.OWNER and not teachers:
        raise PermissionDenied("Only an owner removes a teacher or an owner, and only a teacher an assistant.")
    _require_another_owner(parts, user)
    Membership.objects.filter(course=course, user=user).delete()
    note(course, by, "member removed", member=user.get_username())


def _parts(course: Course) -> dict[int, str]:
    """The members' parts by user, locked against who changes them at the same time."""
    Course.objects.select_for_update().get(pk=course.pk)
    return dict(course.memberships.values_list("user", "part"))


def _require_another_owner(parts: dict[int, str], user: Any) -> None:
    owners = [key for key, part in parts.items() if part == Membership.Part.OWNER]
    if owners == [user.pk]:
        raise PartitorError("A course needs an owner. Make someone else one first.")
