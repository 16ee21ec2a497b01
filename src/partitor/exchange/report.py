"""The report's records: what `report.json` holds, and what the server keeps of a check."""

from __future__ import annotations

import msgspec

from ..reading.collect import Ignored, Unreadable
from ..records import Finding, Routine, Suggestion, WorkedAnswer
from ..scoring.rubric import Score

FORMAT, VERSION = "partitor-report", 1


class ProblemRecord(msgspec.Struct, frozen=True):
    """A place that could not be parsed."""

    line: int
    message: str


class FileRecord(msgspec.Struct, frozen=True):
    """A file of a submission; `lines` counts lines that hold code."""

    path: str
    language: str
    lines: int
    problems: tuple[ProblemRecord, ...] = ()


class SubmissionReport(msgspec.Struct, frozen=True, kw_only=True):
    """Everything about one submission."""

    name: str
    files: tuple[FileRecord, ...]
    measures: dict[str, float]
    findings: tuple[Finding, ...]
    suggestions: tuple[Suggestion, ...]
    worked_answer: WorkedAnswer
    scores: tuple[Score, ...]
    total: float
    of: float
    ignored: tuple[Ignored, ...] = ()
    junk: int = 0
    procedures: tuple[Routine, ...] = ()
    unfinished: str = ""


class AssignmentRecord(msgspec.Struct, frozen=True):
    """What the report says of the assignment."""

    title: str
    language: str


class Report(msgspec.Struct, frozen=True, kw_only=True):
    """A whole batch."""

    format: str = FORMAT
    version: int = VERSION
    assignment: AssignmentRecord
    submissions: tuple[SubmissionReport, ...]
    unreadable: tuple[Unreadable, ...] = ()


def report_json(report: Report) -> bytes:
    """The report as indented UTF-8 JSON."""
    return msgspec.json.format(msgspec.json.encode(report), indent=1) + b"\n"
