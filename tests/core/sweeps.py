"""Proves all that it can of a text, and compares what the texts do that came of it."""

from __future__ import annotations

import re
from collections.abc import Callable, Sequence

from core.builders import read
from partitor.deadline import Deadline
from partitor.program.program import Program
from partitor.repeats.find import find_repeats
from partitor.repeats.limits import Limits
from partitor.suggestions.attempts import Proved, attempt
from partitor.suggestions.makings import makings
from partitor.suggestions.worked import replaced, work_through

Group = tuple[str, list[str]]
"""A text, and what became of it."""


def proved_in(text: str, language: str) -> tuple[list[Proved], list[str]]:
    """Every proved suggestion of a text, and the texts that they give, the worked answer's last."""
    proved, programs = proved_of(Program([read(text, language)]))
    return proved, [program.files[0].source.text for program in programs]


def proved_of(program: Program) -> tuple[list[Proved], list[Program]]:
    """Every proved suggestion of a program, and the programs that they give, the worked answer's last."""
    found = find_repeats(program, Limits(), frozenset(), near=True)
    proved = [r for r in (attempt(*making) for making in makings(found)) if isinstance(r, Proved)]
    chain = work_through(program, Limits(), frozenset(), Deadline(60), found)
    return proved, [*(replaced(program, r.changed) for r in proved), *([chain.program] if chain.steps else [])]


def require_same(groups: Sequence[Group], run: Callable[[list[str]], list[str]], unless: str = "") -> None:
    """What became of a text does what the text did, but for texts whose own output matches `unless`."""
    told = iter(run([text for original, rewritten in groups for text in (original, *rewritten)]))
    for original, rewritten in groups:
        before = next(told)
        for after in rewritten:
            now = next(told)
            assert (unless and re.search(unless, before)) or now == before, f"{original}\n----- became\n{after}"
