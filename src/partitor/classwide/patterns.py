"""What a class has not yet understood: opportunities that several submissions share.

Repeats are compared by their skeletons (what the copied statements do), as multisets of word pairs;
a submission joins the first group it is like enough to. Other findings are shared by their subject.
Quadratic in the number of different skeletons only, not in the number of submissions.
"""

from __future__ import annotations

import itertools
from collections import Counter
from collections.abc import Mapping

import msgspec

from ..exchange.report import SubmissionReport
from ..records import Finding

REPEATS = frozenset({"repeated-run", "repeated-block", "twin-functions"})
ALIKE = 0.6
FEWEST = 2
MOST = 12


class SharedPattern(msgspec.Struct, frozen=True):
    """An opportunity with everyone who has it; `finding` and `first` give an example."""

    title: str
    finding: Finding
    first: int
    submissions: tuple[int, ...]


class _Cluster:
    def __init__(self, finding: Finding, words: Counter[str], first: int) -> None:
        self.finding = finding
        self.words = words
        self.members = [first]


def shared_patterns(reports: Mapping[int, SubmissionReport]) -> tuple[SharedPattern, ...]:
    """The patterns of at least two submissions, commonest first; keys are the caller's own."""
    clusters: dict[tuple[str, str], list[_Cluster]] = {}
    for number, report in reports.items():
        for finding in report.findings:
            kind, words = _signature(finding)
            if not words:
                continue
            group = clusters.setdefault((finding.rule, kind), [])
            home = next((c for c in group if _likeness(c.words, words) >= ALIKE), None)
            if home is None:
                group.append(_Cluster(finding, words, number))
            elif home.members[-1] != number:
                home.members.append(number)
    shared = [c for group in clusters.values() for c in group if len(c.members) >= FEWEST]
    shared.sort(key=lambda c: (-len(c.members), c.finding.rule))
    return tuple(SharedPattern(_title(c.finding), c.finding, c.members[0], tuple(c.members)) for c in shared[:MOST])


def _signature(finding: Finding) -> tuple[str, Counter[str]]:
    if finding.rule in REPEATS:
        words = finding.pattern.split()
        pairs = [*words, *(f"{a} {b}" for a, b in itertools.pairwise(words))]
        return "", Counter(pairs)
    if finding.rule in {"missing-function", "undefined-call"}:
        return finding.subject, Counter([finding.subject])
    return "", Counter([finding.rule])


def _likeness(a: Counter[str], b: Counter[str]) -> float:
    """Shared ÷ all, as multisets (Jaccard)."""
    return sum((a & b).values()) / max(1, sum((a | b).values()))


TITLES = {
    "repeated-run": "write out a row of copies like this",
    "repeated-block": "have this block in several places",
    "twin-functions": "have functions alike like these",
    "oversized-procedure": "have a procedure that does too much",
    "uncalled-function": "have a function that nothing calls",
    "redefined-function": "define one name twice",
    "loose-code": "leave statements outside any function",
    "unused-parameter": "have a parameter that is never read",
    "idle-loop": "have a loop that cannot run as meant",
    "outer-variable": "change an outer variable in a function",
    "undocumented-function": "have functions without a comment",
    "vague-name": "have a function whose name says little",
}


def _title(finding: Finding) -> str:
    if finding.rule == "missing-function":
        return f"do not have {finding.subject} as asked"
    if finding.rule == "undefined-call":
        return f"call {finding.subject}, which is not defined"
    return TITLES[finding.rule]
