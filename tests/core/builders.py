"""Builders for core tests: a program text in, what the core makes of it out."""

from __future__ import annotations

import re
import subprocess
import sys
from pathlib import Path
from textwrap import dedent

from partitor.check import check, program_of
from partitor.exchange.assignment import Assignment, parse_assignment
from partitor.exchange.report import SubmissionReport
from partitor.languages.python.table import PYTHON
from partitor.languages.registry import LANGUAGES
from partitor.program.program import ProgramFile
from partitor.reading.collect import Submission
from partitor.repeats.find import Repeats, find_repeats
from partitor.repeats.limits import Limits
from partitor.source import Source
from partitor.suggestions.proof import Claim, Verdict, prove

ROOT = Path(__file__).resolve().parent.parent.parent
DEMO = ROOT / "demo" / "sluice-gates"


FILE_NAMES = {
    "python": "main.py",
    "javascript": "main.js",
    "typescript": "main.ts",
    "java": "Main.java",
    "c": "main.c",
    "cpp": "main.cpp",
    "arduino": "main.ino",
    "csharp": "Main.cs",
    "gamescript": "step.gml",
    "swift": "main.swift",
    "visualbasic": "Module1.bas",
    "racket": "main.rkt",
    "scheme": "main.scm",
}


def source(text: str, language: str = "python") -> Source:
    """A file with this text, dedented."""
    return Source(FILE_NAMES[language], dedent(text).lstrip("\n"), language)


def read(text: str, language: str) -> ProgramFile:
    """A parsed file in any language."""
    return ProgramFile(source(text, language), LANGUAGES[language])


def file(text: str) -> ProgramFile:
    """A parsed Python file."""
    return ProgramFile(source(text), PYTHON)


def named(files: dict[str, str], language: str) -> SubmissionReport:
    """What is found in a program of several files, by path."""
    sources = tuple(Source(path, text, language) for path, text in sorted(files.items()))
    return check(Submission("ada", sources), Assignment())


def repeats(text: str, limits: Limits | None = None) -> Repeats:
    """The repeats of a one-file program."""
    return find_repeats(program_of([source(text)]), limits or Limits(), frozenset())


def report(text: str, assignment: str = "", language: str = "python", **more: object) -> SubmissionReport:
    """The whole report of a one-file program."""
    asked = parse_assignment(dedent(assignment)) if assignment else Assignment()
    return check(Submission("student", (source(text, language),)), asked, **more)  # type: ignore[arg-type]


def asked(language: str, *functions: str) -> str:
    """An assignment that asks for functions, each told as `name/parameters/r: purpose` (`r`: it gives something)."""
    parts = [re.fullmatch(r"(\w+)/(\d+)/(r?): (.*)", function) for function in functions]
    tables = "".join(
        f'[[functions]]\nname = "{m[1]}"\nparameters = {m[2]}\nreturns = {str(bool(m[3])).lower()}\npurpose = "{m[4]}"\n'
        for m in parts
        if m
    )
    return f'format = "partitor-assignment"\nversion = 1\ntitle = "T"\nlanguage = "{language}"\n{tables}'


def rules(text: str, assignment: str = "", language: str = "python") -> list[str]:
    """The rules of all findings."""
    return [f.rule for f in report(text, assignment, language).findings]


def worked(text: str, language: str = "python") -> str:
    """The program after the worked answer."""
    answer = report(text, language=language).worked_answer
    return answer.files.get(FILE_NAMES[language], dedent(text).lstrip("\n"))


def verdict(before: str, after: str, claim: Claim) -> Verdict:
    """What the proof says of a rewriting."""
    return prove(file(before), file(after), claim)


def run(text: str | Path, stdin: str = "") -> tuple[int, str]:
    """Exit status and output of a program that this repository itself contains or makes."""
    command = [sys.executable, "-I", str(text)] if isinstance(text, Path) else [sys.executable, "-I", "-c", text]
    done = subprocess.run(command, input=stdin, capture_output=True, text=True, timeout=20, check=False)
    return done.returncode, done.stdout


def printed(text: str) -> str:
    """What a program prints; of an error only what it says, as its place changes."""
    done = subprocess.run([sys.executable, "-I", "-c", text], capture_output=True, text=True, timeout=20, check=False)
    return done.stdout + done.stderr.strip().rpartition("\n")[2]
