"""Two people at one thing: a write that was made on an old version is refused, with what is there now."""

from __future__ import annotations

from collections.abc import Callable, Sequence
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

    def __init__(self, what: str, by: Any, current: Any) -> None:
        who = by.get_full_name() or by.get_username() if by else "Someone"
        super().__init__(
            f"{who} changed {what} while you were writing. Your change is not saved yet. Choose which one to keep."
        )
        self.current = current


class VersionField(serializers.IntegerField):
    """The version that a change was made on; a change without one is made on whatever is there."""

    def __init__(self) -> None:
        super().__init__(required=False, min_value=0, max_value=1_000_000_000)


def require_newest(given: int | None, newest: int, by: Any, user: Any, what: str, current: Callable[[], Any]) -> None:
    """Raises Conflict where a change was made on a version that is `given` and not the `newest`, and the last change,
    `by`, was another person's: nobody has to choose between two changes of their own. `current` makes the record's
    representation."""
    if given is not None and given != newest and by != user:
        raise Conflict(what, by, current())


def changed(record: Versioned, given: int | None, user: Any, what: str, current: Callable[[], Any]) -> None:
    """Count a change of a locked record. Raises Conflict as above."""
    require_newest(given, record.version, record.changed_by, user, what, current)
    record.version += 1
    record.changed_by, record.changed_at = user, timezone.now()


def fields_of(record: object, names: Sequence[str]) -> dict[str, Any]:
    """A record's fields as a person who has to choose sees them."""
    return {name: getattr(record, name) for name in names}
