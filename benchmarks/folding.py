"""Folding and proving under attack: `./run bench folding [programs]`.

1. Hidden originals: structured programs are unrolled and inlined into what a beginner would have
   copied. Does the worked answer get as short as the hidden original, and print the same?
2. Wild programs: blocks pasted about with changes that often make folding wrong. Every proved
   suggestion and worked answer is run before and after.
3. Right rewritings: what the writers make of hidden originals, where folding is right by the way they are
   made, and prints the same. How many of them does the proof accept? The wild programs' are told beside: there
   a wrong rewriting may print the same by chance.
4. Seeded faults: right rewritings made wrong in one small way; the proof has to refuse them. One that
   is accepted is run: some faults change nothing.

Programs are made here and run here; nothing else is.
"""

from __future__ import annotations

import contextlib
import io
import statistics
import sys
from collections.abc import Iterable
from random import Random

from faults import with_faults
from hidden import hidden
from programs import source
from wild import wild

from partitor.check import check
from partitor.errors import CannotWrite
from partitor.exchange.assignment import Assignment
from partitor.exchange.report import SubmissionReport
from partitor.languages.python.table import PYTHON
from partitor.program.program import Program, ProgramFile, code_line_numbers
from partitor.reading.collect import Submission
from partitor.records import Suggestion
from partitor.repeats.find import find_repeats
from partitor.repeats.limits import Limits
from partitor.suggestions.attempts import LEAST_SAVING, Proved, attempt
from partitor.suggestions.edits import apply_edits
from partitor.suggestions.makings import makings
from partitor.suggestions.proof import prove
from partitor.suggestions.worked import proved_suggestions

WITHOUT_STEPS = Assignment(limits=Limits(procedure_statements=10_000))


def run(text: str) -> str:
    """What a program made here prints, and how it ends."""
    out = io.StringIO()
    try:
        with contextlib.redirect_stdout(out):
            exec(compile(text, "made", "exec"), {"__name__": "__main__"})
    except Exception as problem:
        return out.getvalue() + repr(type(problem))
    return out.getvalue()


def checked(text: str) -> SubmissionReport:
    """The report on a made program."""
    return check(Submission("made", (source(text),)), WITHOUT_STEPS)


def code_lines(text: str) -> int:
    """Lines with code."""
    return len(code_line_numbers(ProgramFile(source(text), PYTHON).tree))


def applied(text: str, suggestion: Suggestion) -> str:
    """The text after one suggestion."""
    lines = text.split("\n")
    for change in sorted(suggestion.changes, key=lambda c: (c.start_line, c.end_line), reverse=True):
        lines[change.start_line - 1 : change.end_line] = change.text.split("\n")
    return "\n".join(lines)


def hidden_originals(programs: int) -> tuple[int, list[float], list[int]]:
    """(rewritings that print something else, saving ÷ the original's saving, seeds that stay longer)."""
    wrong, shares, longer = 0, [], []
    for seed in range(programs):
        original, copied = hidden(seed)
        answer = checked(copied).worked_answer
        text = answer.files.get("main.py", copied)
        wrong += run(text) != run(copied)
        could = code_lines(copied) - code_lines(original)
        if could >= LEAST_SAVING:
            shares.append((code_lines(copied) - code_lines(text)) / could)
            if code_lines(text) > code_lines(original):
                longer.append(seed)
    return wrong, shares, longer


def wild_programs(programs: int, first: int = 0) -> tuple[int, int]:
    """(rewritings tried, rewritings that print something else)."""
    tried = wrong = 0
    for seed in range(first, first + programs):
        text = wild(seed)
        before = run(text)
        report = checked(text)
        texts = [applied(text, s) for s in report.suggestions if s.status == "proved"]
        texts += list(report.worked_answer.files.values())
        tried += len(texts)
        wrong += sum(run(t) != before for t in texts)
    return tried, wrong


def right_rewritings(texts: Iterable[str]) -> tuple[int, int]:
    """(rewritings that print the same, those of them that the proof accepts), proved or not."""
    right = accepted = 0
    for text in texts:
        file, before = ProgramFile(source(text), PYTHON), run(text)
        for make, _ in makings(find_repeats(Program([file]), WITHOUT_STEPS.limits, frozenset())):
            try:
                candidate = make()
                after = apply_edits(candidate.file, candidate.edits)
            except CannotWrite:
                continue
            if run(after) == before:
                right += 1
                accepted += isinstance(attempt(make), Proved)
    return right, accepted


def seeded_faults(programs: int, first: int = 0) -> tuple[int, int, int]:
    """(faults, accepted without a difference, accepted although they print something else)."""
    seeded = harmless = wrong = 0
    random = Random(first)
    for seed in range(first, first + programs):
        text = wild(seed) if seed % 2 else hidden(seed)[1]
        before = ProgramFile(source(text), PYTHON)
        for proved in proved_suggestions(before, WITHOUT_STEPS.limits):
            for _, changed in with_faults(text, proved.after.source.text, random):
                seeded += 1
                if _accepted(before, changed, proved):
                    same = run(changed) == run(text)
                    harmless += same
                    wrong += not same
    return seeded, harmless, wrong


def _accepted(before: ProgramFile, text: str, proved: Proved) -> bool:
    return prove(before, ProgramFile(source(text), PYTHON), proved.candidate.claim).proved


def main(programs: int) -> None:
    """Print the figures."""
    wrong, shares, longer = hidden_originals(programs)
    low = sorted(shares)[len(shares) // 20]
    print(f"hidden originals: {programs} programs, {wrong} print something else")
    print(
        f"  as short as the original: {1 - len(longer) / len(shares):.1%}; saving realised: "
        f"median {statistics.median(shares):.2f}, 5th percentile {low:.2f}, least {min(shares):.2f}"
    )
    print(f"  longer, by seed: {longer[:20]}")
    tried, wrong = wild_programs(4 * programs)
    print(f"wild programs: {4 * programs}, {tried} rewritings, {wrong} print something else")
    right, accepted = right_rewritings(hidden(seed)[1] for seed in range(programs))
    print(f"right rewritings of hidden originals: {right}, {accepted / right:.1%} accepted")
    same, accepted = right_rewritings(wild(seed) for seed in range(programs))
    print(f"  of wild programs, those that print the same: {same}, {accepted / same:.1%} accepted")
    seeded, harmless, wrong = seeded_faults(2 * programs)
    print(f"seeded faults: {seeded}, {harmless} accepted that change nothing, {wrong} accepted that do")


if __name__ == "__main__":
    main(int(sys.argv[1]) if len(sys.argv) > 1 else 500)
