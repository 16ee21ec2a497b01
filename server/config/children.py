"""The child processes in which everything that people hand in is read and checked, a few of each kind a process."""

from __future__ import annotations

import threading
from collections.abc import Callable, Sequence
from pathlib import Path
from typing import Any

from django.conf import settings
from rest_framework.exceptions import APIException

from partitor.check import check
from partitor.exchange.assignment import Assignment
from partitor.exchange.report import SubmissionReport
from partitor.isolation import CallLimits, Child
from partitor.reading.collect import Batch, Submission, read_uploads
from partitor.source import Source


class Busy(APIException):
    """Too many people ask for the same at once."""

    status_code = 503
    default_detail = "Partitor is busy with other programs. Try again in a moment."


class Guarded:
    """One child process that threads share: a call waits for its turn, for at most `patience` seconds."""

    def __init__(self, limits: CallLimits, patience: float) -> None:
        self.child = Child(limits)
        self.lock = threading.Lock()
        self.patience = patience

    def call(self, function: Callable[..., Any], *arguments: Any) -> Any:
        """What the function gives; raises as `Child.call` does, and Busy where it is not its turn in time."""
        if not self.lock.acquire(timeout=self.patience):
            raise Busy
        try:
            return self.child.call(function, *arguments)
        finally:
            self.lock.release()


_checks = Guarded(settings.CHECK_LIMITS, patience=600)
_samples = Guarded(settings.SAMPLE_LIMITS, patience=10)
_uploads = Guarded(settings.READING_LIMITS, patience=600)


def warm() -> None:
    """Start the children that a worker needs, so that the first batch does not wait for them."""
    for guarded in (_uploads, _checks):
        guarded.call(len, "")


def checked(
    work: Submission, spec: Assignment, starter: tuple[Source, ...], reference: tuple[Source, ...]
) -> SubmissionReport:
    """A submission's report. Raises Stopped, Failed or TooCostly."""
    report: SubmissionReport = _checks.call(check, work, spec, starter, reference, settings.CHECK_SECONDS)
    return report


def sampled(work: Submission, spec: Assignment) -> SubmissionReport:
    """The report of the live sample. Raises as `checked`, and Busy."""
    report: SubmissionReport = _samples.call(check, work, spec, (), (), settings.SAMPLE_SECONDS)
    return report


def read(uploads: Sequence[tuple[str, Path]], pattern: str, language: str) -> tuple[Batch, int]:
    """What is in the files of an upload. Raises UnreadableSubmission, Stopped or Failed."""
    found: tuple[Batch, int] = _uploads.call(read_uploads, uploads, pattern, language)
    return found
