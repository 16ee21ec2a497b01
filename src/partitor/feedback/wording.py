"""What is said to a student: what is good, what matters most, and each remark at its hint level."""

from __future__ import annotations

import re
from collections.abc import Mapping, Sequence

import msgspec

from ..exchange.assignment import Assignment
from ..exchange.report import SubmissionReport
from ..records import Finding, Suggestion
from ..rules import RULES
from ..scoring.measures import MEASURES
from ..scoring.rubric import Criterion, Score, formatted

HINT_LEVELS = ("where", "shape", "answer")
MOST_REMARKS = 4
BLANK = "____"


class Excerpt(msgspec.Struct, frozen=True):
    """Lines of the student's program: a number and a text each."""

    title: str
    lines: tuple[tuple[int, str], ...]


class RemarkText(msgspec.Struct, frozen=True, kw_only=True):
    """One remark as the student reads it."""

    title: str
    message: str
    advice: str
    excerpts: tuple[Excerpt, ...] = ()
    differences: tuple[tuple[str, tuple[str, ...]], ...] = ()
    code_title: str = ""
    code: str = ""


class RubricRow(msgspec.Struct, frozen=True):
    """A criterion as the student reads it."""

    title: str
    level: str
    points: str
    because: str


class FeedbackPage(msgspec.Struct, frozen=True, kw_only=True):
    """Everything on a student's page, as text."""

    assignment: str
    name: str
    praise: tuple[str, ...]
    remarks: tuple[RemarkText, ...]
    more: int
    rubric: tuple[RubricRow, ...]
    total: str
    next_steps: tuple[str, ...]
    unread: tuple[str, ...] = ()
    words: str = ""
    changed: tuple[str, ...] = ()


def feedback_page(
    report: SubmissionReport,
    assignment: Assignment,
    texts: Mapping[str, str],
    hint: str = "shape",
) -> FeedbackPage:
    """The page from a report alone: the weightiest findings at one hint level."""
    chosen = sorted(report.findings, key=lambda f: -f.weight)[:MOST_REMARKS]
    suggestions = {s.id: s for s in report.suggestions}
    remarks = tuple(remark_text(f, suggestions.get(f.suggestion or ""), texts, hint) for f in chosen)
    unread = [f"{i.path} was not read: it {i.why}." for i in report.ignored]
    unread += [f"{f.path}, line {p.line}: {p.message}." for f in report.files for p in f.problems[:3]]
    if report.unfinished:
        unread.append(report.unfinished)
    return FeedbackPage(
        assignment=assignment.title,
        name=report.name,
        praise=praise(report, assignment),
        remarks=remarks,
        more=len(report.findings) - len(chosen),
        rubric=rubric_rows(assignment.rubric(), report.scores),
        total=f"{report.total:g} of {report.of:g}",
        next_steps=next_steps(chosen),
        unread=tuple(unread),
    )


def remark_text(finding: Finding, suggestion: Suggestion | None, texts: Mapping[str, str], hint: str) -> RemarkText:
    """A finding in words: the place always, the outline with blanks or the code by hint level."""
    title, advice = RULES[finding.rule][0], advice_of(finding)
    code_title, code = "", ""
    if suggestion is not None and hint != "where":
        if suggestion.status != "proved":
            code_title, code = "A direction", suggestion.outline
        elif hint == "shape":
            code_title, code = "The shape of it", shape_of(suggestion)
        else:
            code_title, code = "It could read", answer_of(suggestion)
    shown = finding.places[:2] if hint == "where" else finding.places[:1]
    if finding.whole:
        shown = ()
    return RemarkText(
        title=title if finding.whole else f"{title} ({_lines(finding)})",
        message=finding.message,
        advice=advice,
        excerpts=tuple(_excerpt(p.file, p.start_line, p.end_line, texts) for p in shown),
        differences=tuple((s.name, s.values) for s in finding.slots),
        code_title=code_title,
        code=code,
    )


def advice_of(finding: Finding) -> str:
    """What to do about a finding: what it says itself, else what its rule does."""
    return finding.advice or RULES[finding.rule][1]


def _lines(finding: Finding) -> str:
    files = list(dict.fromkeys(p.file for p in finding.places))
    if len(files) > 1:
        spans = [f"{p.file}, line {p.start_line}" for p in finding.places]
        return "; ".join(spans[:4]) + (" …" if len(spans) > 4 else "")
    spans = [
        str(p.start_line) if p.start_line == p.end_line else f"{p.start_line}–{p.end_line}" for p in finding.places
    ]
    shown = ", ".join(spans[:6]) + (" …" if len(spans) > 6 else "")
    return f"line {shown}" if len(spans) == 1 and "–" not in shown else f"lines {shown}"


LONGEST_EXCERPT = 14


def _excerpt(path: str, start: int, end: int, texts: Mapping[str, str]) -> Excerpt:
    lines = texts.get(path, "").split("\n")[start - 1 : end]
    numbered = [(n, line) for n, line in enumerate(lines, start)]
    if len(numbered) > LONGEST_EXCERPT:
        numbered = [*numbered[: LONGEST_EXCERPT - 2], (0, "…")]
    return Excerpt(path, tuple(numbered))


def answer_of(suggestion: Suggestion) -> str:
    """The new code of a suggestion, its pieces in the order of the text; file by file where it touches several."""
    files: dict[str, list[str]] = {}
    for change in suggestion.changes:
        if change.text.strip():
            files.setdefault(change.file or suggestion.path, []).append(change.text.strip("\n"))
    answers = {path: "\n…\n".join(dict.fromkeys(pieces)) for path, pieces in files.items()}
    if not any(change.file for change in suggestion.changes):
        return "\n".join(answers.values())
    return "\n\n".join(f"{path}:\n{text}" for path, text in answers.items())


def shape_of(suggestion: Suggestion) -> str:
    """The new code with blanks where the student is to think: headers, names, and what differs."""
    text = answer_of(suggestion)
    name = re.search(r"^\s*def (\w+)\(([^)]*)\)", text, re.MULTILINE)
    hidden = {s.name for s in suggestion.slots if s.name.isidentifier()}
    if name:
        hidden |= {p.strip() for p in name.group(2).split(",") if p.strip()}
        text = re.sub(rf"\b{name.group(1)}\([^()]*\)", f"{BLANK}({BLANK})", text)
        text = re.sub(rf"^(\s*)\w+(, \w+)* = {BLANK}\(", rf"\1{BLANK} = {BLANK}(", text, flags=re.MULTILINE)
    if suggestion.kind == "loop":
        text = re.sub(
            r"^(\s*)for .+? in .*?:$",
            rf"\1for {BLANK} in {BLANK}:",
            text,
            count=1,
            flags=re.MULTILINE | re.DOTALL,
        )
    if suggestion.kind == "branch":
        test = r"^(\s*(?:\} *)?(?:else )?(?:el)?if )(.*?)(:| *\{)$"
        text = re.sub(test, rf"\1{BLANK}\3", text, count=1, flags=re.MULTILINE | re.DOTALL)
    for word in sorted(hidden, key=len, reverse=True):
        text = re.sub(rf"\b{re.escape(word)}\b", BLANK, text)
    return text


def praise(report: SubmissionReport, assignment: Assignment) -> tuple[str, ...]:
    """What is good, from the measures: never empty, never more than three."""
    m = report.measures
    said: list[str] = []
    if m["procedures"] >= 2 and m["entry_call_share"] >= 0.6:
        said.append("Your main routine reads like a table of contents.")
    if assignment.functions and m["required_present"] >= 1:
        said.append("All the functions that were asked for are there and are used.")
    if m["statements"] >= 8 and m["repeated_share"] == 0:
        said.append("Nothing in your program is written twice.")
    if m["procedures"] >= 2 and m["self_contained"] >= 0.9:
        said.append("Your functions get what they need through parameters and give back what they find.")
    if m["procedures"] >= 1 and m["documented_share"] >= 0.8:
        said.append("You say in a line what your functions do.")
    if m["deepest_nesting"] <= 2 and m["statements"] >= 8:
        said.append("Your branches and loops are easy to follow: they are never nested deep.")
    if m["procedures"] >= 1:
        said.append("You have begun to divide the program into functions.")
    said.append("Your program does its work from beginning to end, one clear step after the other.")
    return tuple(said[:3])


def next_steps(findings: Sequence[Finding]) -> tuple[str, ...]:
    """What to do first, at most three steps, none twice."""
    return tuple(dict.fromkeys(map(advice_of, findings)))[:3]


def rubric_rows(criteria: Sequence[Criterion], scores: Sequence[Score]) -> tuple[RubricRow, ...]:
    """The rubric with the level each criterion reached."""
    by_id = {s.criterion: s for s in scores}
    rows = []
    for criterion in criteria:
        score = by_id.get(criterion.id)
        if score is None:
            continue
        level = criterion.levels[score.level - 1].text if score.level else "Still to be judged."
        points = "–" if score.points is None else f"{score.points:g}"
        rows.append(RubricRow(criterion.title, level, f"{points} of {score.of:g}", score.because))
    return tuple(rows)


def measure_rows(measures: Mapping[str, float]) -> list[tuple[str, str]]:
    """Every measure with its value as people read it."""
    return [(MEASURES[k].title, formatted(k, v)) for k, v in measures.items() if k in MEASURES]
