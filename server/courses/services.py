"""What happens to courses, in transactions."""

from __future__ import annotations

from typing import Any

from django.contrib.auth.models import AbstractBaseUser
from django.db import transaction

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
