"""Two people at one thing: a write that was made on an old version is refused, with what is there now."""

from __future__ import annotations

from typing import Any, Protocol

from django.utils import timezone
from rest_framework import serializers
from rest_framework.exceptions import APIException


class Versioned(Protocol):
    """A record that counts its changes and knows who made the last one."""

    version: int
    changed_by: Any
    changed_at: Any


class Conflict(APIException):
    """409: `detail` says who changed it when, `current` is the record as it is now."""

    status_code = 409

    def __init__(self, what: str, who: str, current: Any) -> None:
        by = who or "Someone"
        super().__init__(f"{by} changed {what} while you were writing. Nothing of yours is stored yet: choose.")
        self.current = current


class VersionField(serializers.IntegerField):
    """The version that a change was made on; a change without one is made on whatever is there."""

    def __init__(self) -> None:
        super().__init__(required=False, min_value=0, max_value=1_000_000_000)


def changed(record: Versioned, given: int | None, user: Any, what: str, current: Any) -> None:
    """Count a change of a locked record. Raises Conflict where `given` is an older version and the last change was
    another person's (nobody has to choose between two changes of their own); `current` makes the record's
    representation."""
    by = record.changed_by
    if given is not None and given != record.version and by != user:
        raise Conflict(what, by.get_full_name() or by.get_username() if by else "", current(record))
    record.version += 1
    record.changed_by, record.changed_at = user, timezone.now()
