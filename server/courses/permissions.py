"""Who may do what in a course. Someone else's course does not exist for you: 404, not 403."""

from __future__ import annotations

from typing import Any, TypeVar

from django.db.models import Model, QuerySet
from django.http import Http404
from rest_framework.exceptions import PermissionDenied
from rest_framework.request import Request

from .models import Course, Membership

M = TypeVar("M", bound=Model)
DECIDING = frozenset({Membership.Part.OWNER, Membership.Part.TEACHER})


def own_courses(request: Request) -> QuerySet[Course]:
    """The courses the person is a member of."""
    return Course.objects.filter(memberships__user=request.user)


def find_own(request: Request, queryset: QuerySet[M], path: str, **lookup: object) -> M:
    """The one object whose course (at the lookup `path`) is the person's own; else Http404."""
    prefix = f"{path}__" if path else ""
    found = queryset.filter(**{f"{prefix}memberships__user": request.user}, **lookup).first()
    if found is None:
        raise Http404
    return found


def decides(user: Any, course: Course) -> bool:
    """True for the owners and teachers of a course."""
    return course.memberships.filter(user=user, part__in=DECIDING).exists()


def require_deciding(request: Request, course: Course) -> None:
    """Assistants review; setting up and handing back is for owners and teachers."""
    if not decides(request.user, course):
        raise PermissionDenied("Only a teacher of this course can do that.")
