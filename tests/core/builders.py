"""Builders for core tests: a program text in, what the core makes of it out."""

from __future__ import annotations

import subprocess
import sys
from pathlib import Path
from textwrap import dedent

from partitor.check import check, program_of
from partitor.exchange.assignment import Assignment, parse_assignment
from partitor.exchange.report import SubmissionReport
from partitor.languages.python.table import PYTHON
from partitor.program.program import ProgramFile
from partitor.reading.collect import Submission
from partitor.repeats.find import Limits, Repeats, find_repeats
from partitor.source import Source
from partitor.suggestions.proof import Claim, Verdict, prove

ROOT = Path(__file__).resolve().parent.parent.parent
DEMO = ROOT / "demo" / "sluice-gates"


def source(text: str, path: str = "main.py") -> Source:
    """A file with this text, dedented."""
    return Source(path, dedent(text).lstrip("\n"), "python")


def file(text: str) -> ProgramFile:
    """A parsed Python file."""
    return ProgramFile(source(text), PYTHON)


def repeats(text: str, limits: Limits | None = None) -> Repeats:
    """The repeats of a one-file program."""
    return find_repeats(program_of([source(text)]), limits or Limits(), frozenset())


def report(text: str, assignment: str = "", **more: object) -> SubmissionReport:
    """The whole report of a one-file program."""
    asked = parse_assignment(dedent(assignment)) if assignment else Assignment()
    return check(Submission("student", (source(text),)), asked, **more)  # type: ignore[arg-type]


def rules(text: str, assignment: str = "") -> list[str]:
    """The rules of all findings."""
    return [f.rule for f in report(text, assignment).findings]


def worked(text: str) -> str:
    """The program after the worked answer."""
    answer = report(text).worked_answer
    return answer.files.get("main.py", dedent(text).lstrip("\n"))


def verdict(before: str, after: str, claim: Claim) -> Verdict:
    """What the proof says of a rewriting."""
    return prove(file(before), file(after), claim)


def run(text: str | Path, stdin: str = "") -> tuple[int, str]:
    """Exit status and output of a program that this repository itself contains or makes."""
    command = [sys.executable, "-I", str(text)] if isinstance(text, Path) else [sys.executable, "-I", "-c", text]
    done = subprocess.run(command, input=stdin, capture_output=True, text=True, timeout=20, check=False)
    return done.returncode, done.stdout
