"""A changed text read from its earlier tree gives the same tree as read afresh."""

from __future__ import annotations

from hypothesis import given, settings
from hypothesis import strategies as st

from core.builders import DEMO
from partitor.languages.python.table import PYTHON
from partitor.program.tree import parse

TEXTS = [path.read_bytes().decode(errors="replace") for path in sorted((DEMO / "submissions").rglob("*.py"))][:8]
PARTS = "source kind text field parent end start_byte end_byte line_starts comments problems braces".split()
EXTRA = [
    "",
    "x = 1",
    "# a note",
    "def g(a):",
    "    return 2",
    "if x:",
    '"""text',
    "    # deeper",
    "a = 1; b = 2",
    "é = 'ü'",
]


@settings(max_examples=150, deadline=None)
@given(
    st.sampled_from(TEXTS),
    st.lists(st.tuples(st.integers(0, 10_000), st.sampled_from(["drop", "double", *EXTRA])), min_size=1, max_size=4),
)
def test_a_changed_text_reads_the_same_either_way(text: str, changes: list[tuple[int, str]]) -> None:
    lines = text.split("\n")
    for place, change in changes:
        at = place % len(lines)
        if change == "drop":
            del lines[at]
        else:
            lines.insert(at, lines[at] if change == "double" else change)
        lines = lines or [""]
    new = "\n".join(lines).encode()
    again = parse(new, PYTHON, parse(text.encode(), PYTHON))
    afresh = parse(new, PYTHON)
    for part in PARTS:
        assert getattr(again, part) == getattr(afresh, part), part
