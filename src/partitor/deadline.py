"""The time that one check may take, looked at by every part that may take long."""

from __future__ import annotations

import time
from collections.abc import Iterator
from contextlib import contextmanager

from .errors import TooCostly


class Deadline:
    """A time budget in seconds; `check()` raises TooCostly when it is spent."""

    def __init__(self, seconds: float) -> None:
        self.end = time.monotonic() + seconds

    def check(self) -> None:
        """Raise TooCostly where the budget is spent."""
        if time.monotonic() > self.end:
            raise TooCostly("the time for this submission is used up")


_kept: list[Deadline] = []
"""The deadlines of the checks that run in this process, the innermost last. A check runs in one thread of a process of
its own; handing its deadline down through every call of reading and finding would be in all signatures."""


@contextmanager
def keeping(deadline: Deadline) -> Iterator[None]:
    """Make `look` look at this deadline."""
    _kept.append(deadline)
    try:
        yield
    finally:
        _kept.pop()


@contextmanager
def without_deadline() -> Iterator[None]:
    """Let what has to be finished after a deadline be finished."""
    held = _kept[:]
    _kept.clear()
    try:
        yield
    finally:
        _kept[:] = held


def look() -> None:
    """Raise TooCostly where the time of the check that runs is spent; nothing where none runs."""
    if _kept:
        _kept[-1].check()
