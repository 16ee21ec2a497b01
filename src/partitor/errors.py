"""The errors that reach a person: each carries one clear sentence; and what a log may say of all others."""

from __future__ import annotations

import traceback


class PartitorError(Exception):
    """Something a person can mend; ``str(error)`` is the sentence they are shown."""


class UnreadableSubmission(PartitorError):
    """A submission, or the whole batch, could not be read or breaks a limit."""


class AssignmentFileError(PartitorError):
    """An assignment file says something that is unknown or impossible."""


class TooCostly(PartitorError):
    """A check ran out of its time budget; what was found so far stands."""


class CannotWrite(Exception):
    """The suggestion cannot be put into code; the message says why, as a clause."""


class TooMuch(CannotWrite):
    """A function would take, or give back, more than is good to read."""


def where(problem: BaseException) -> list[str]:
    """The kind of an error and its frames, outermost first, without its message, which may hold a student's words."""
    frames = traceback.extract_tb(problem.__traceback__)
    return [type(problem).__name__, *(f"{frame.filename}:{frame.lineno} {frame.name}" for frame in frames)]
