"""What became of programs that were changed at random does what they did."""

from __future__ import annotations

from pathlib import Path
from random import Random

import pytest

from core.builders import ROOT
from core.changed import changed_programs, shown, without_words
from core.runners import can_run, outputs


def demo(pattern: str) -> list[str]:
    """The demo's programs."""
    return [path.read_text(errors="replace") for path in sorted((ROOT / "demo").glob(pattern))]


@pytest.mark.parametrize("seed", range(4))
def test_changed_programs_do_the_same(seed: int, tmp_path: Path) -> None:
    texts = demo("sluice-gates/submissions/*.py")
    run = 0
    for text, after in changed_programs(Random(f"python {seed}"), texts, "python", 12):
        before = shown(text, tmp_path / "run")
        for rewritten in after if before is not None else ():
            assert shown(rewritten, tmp_path / "run") == before, f"{text}\n----- became\n{rewritten}"
            run += 1
    assert run >= 12


def test_changed_scripts_do_the_same(tmp_path: Path) -> None:
    texts = demo("ferry-tickets/submissions/*.js")
    groups = changed_programs(Random("scripts"), texts, "javascript", 40)
    every = [t for text, after in groups for t in (text, *after)]
    told = iter(without_words(outputs("javascript", every, tmp_path)) if can_run("javascript") else every)
    for text, after in groups:
        before = next(told)
        for rewritten in after:
            now = next(told)
            # What a script engine does not even begin with does nothing.
            same = now == before or before.startswith("ERROR SyntaxError") or not can_run("javascript")
            assert same, f"{text}\n----- became\n{rewritten}"
