"""How often the place is found where a missing function's job is done, by language.

Each program in `jobs/*.txt` begins with a line `===== language name`, then a line
`!!requires name/parameters/r: purpose` for each function that is asked for (`r`: it gives something back).
`@@missing=name` stands at the end of a line that the place of that function's job has to hold; what has no mark is done
nowhere, and a place told for it is wrong. The programs were fresh when they were first measured; what they say today
is that nothing was lost. Write new ones to learn more.
"""

from __future__ import annotations

import re
from collections.abc import Iterator
from pathlib import Path

import msgspec
from programs import parts_in, with_all

from partitor.check import check
from partitor.exchange.assignment import Assignment
from partitor.exchange.report import SubmissionReport
from partitor.languages.registry import LANGUAGES
from partitor.procedures.wanted import RequiredFunction
from partitor.reading.collect import Submission
from partitor.source import Source

HERE = Path(__file__).resolve().parent / "jobs"
WIDEST = 15
"""Lines beyond which a place tells nobody where to look."""


class Case(msgspec.Struct, frozen=True):
    """A program, what is asked for, and the 1-based line at which each function's job begins."""

    language: str
    name: str
    text: str
    functions: tuple[RequiredFunction, ...]
    jobs: dict[str, int]


def cases() -> Iterator[Case]:
    """All programs."""
    for head, text in parts_in(HERE):
        yield _case(head, text.split("\n"))


def _case(head: str, lines: list[str]) -> Case:
    language, name = head.split()
    asked = [m for line in lines if (m := re.match(r"!!requires (\S+)/(\d+)/(r?): (.*)", line))]
    lines = [line for line in lines if not line.startswith("!!requires")]
    jobs = {m[1]: n for n, line in enumerate(lines, 1) if (m := re.search(r"@@missing=(\S+)", line))}
    text = "\n".join(re.sub(r"\s*@@missing=\S+", "", line) for line in lines)
    functions = tuple(
        RequiredFunction(name=m[1], parameters=int(m[2]), returns=bool(m[3]), purpose=m[4]) for m in asked
    )
    return Case(language, name, text, functions, jobs)


def report_of(case: Case) -> SubmissionReport:
    """The whole report of a case's program."""
    source = Source(f"Main{LANGUAGES[case.language].extensions[0]}", case.text, case.language)
    return check(Submission(case.name, (source,)), Assignment(language=case.language, functions=case.functions))


def main() -> None:
    """Print a line a language, and what was missed or wrongly told."""
    told: dict[str, list[int]] = {}
    surprises = []
    for case in cases():
        report = report_of(case)
        proved = {s.id for s in report.suggestions if s.status == "proved"}
        row = told.setdefault(case.language, [0] * 4)
        row[0] += len(case.jobs)
        found = {f.subject: f for f in report.findings if f.rule == "missing-function" and not f.whole}
        for name, line in case.jobs.items():
            places = found[name].places if name in found else ()
            if any(p.start_line <= line <= p.end_line < p.start_line + WIDEST for p in places):
                row[1] += 1
                row[2] += found[name].suggestion in proved
            else:
                where = [(p.start_line, p.end_line) for p in places]
                surprises.append(f"{case.language} {case.name}: {name} at line {line}: {where or 'not found'}")
        for name in found.keys() - case.jobs.keys():
            row[3] += 1
            surprises.append(f"{case.language} {case.name}: {name} is done nowhere, and a place is told")
    print("language     jobs  found  with proved code  wrong places")
    for language, row in with_all(told):
        print(f"{language:<12} {row[0]:4} {row[1]:6} {row[2]:17} {row[3]:13}")
    for line in surprises:
        print(line)


if __name__ == "__main__":
    main()
