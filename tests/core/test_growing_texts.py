"""Texts of one sign that grow from copy to copy: a loop writes the sign so often."""

from __future__ import annotations

from pathlib import Path

import pytest

from core.builders import file, report, rules, run, verdict, worked
from core.runners import can_run, outputs
from partitor.suggestions.proof import NewLoop

TRIANGLE = 'print("A triangle")\n' + "".join(f'print("{"*" * n}")\n' for n in range(1, 6)) + 'print("done")\n'


def test_a_triangle_is_a_loop() -> None:
    after = worked(TRIANGLE)
    assert 'for i in range(1, 6):\n    print("*" * i)\n' in after
    assert run(after) == run(TRIANGLE)


def test_two_things_grow_at_once() -> None:
    text = "".join(f"print('{' ' * (8 - n)}' + '{'#' * (2 * n - 1)}')\n" for n in range(1, 6))
    after = worked(text)
    assert after.count("print(") == 1
    assert run(after) == run(text)


@pytest.mark.parametrize(
    "texts",
    [["*", "**", "***"], ["*", "**", "****", "*****"], ["-", "--", "**", "***"], ["1", "11", "111", "1111"]],
    ids=["too few", "unevenly", "another sign", "digits"],
)
def test_other_rows_are_no_triangle(texts: list[str]) -> None:
    assert rules("".join(f'print("{t}")\n' for t in texts)) == []


def test_a_wrong_count_is_refused() -> None:
    after = worked(TRIANGLE)
    claim = NewLoop("program.py", 2)
    assert verdict(TRIANGLE, after, NewLoop(file(TRIANGLE).path, 2)).proved
    for old, new in (
        ("range(1, 6)", "range(1, 7)"),
        ('"*" * i', '"*" * (i + 1)'),
        ('"*" * i', '"+" * i'),
        ("* i", "+ i"),
    ):
        faulty = after.replace(old, new)
        assert faulty != after
        assert not verdict(TRIANGLE, faulty, claim).proved


@pytest.mark.parametrize("language", [x for x in ("javascript", "typescript") if can_run(x)])
def test_scripts_repeat_the_sign(language: str, tmp_path: Path) -> None:
    text = "".join(f'console.log("{"=" * n}");\nconsole.log({n} + "!");\n' for n in range(2, 7))
    after = worked(text, language)
    assert '"=".repeat(i)' in after
    before, now = outputs(language, [text, after], tmp_path)
    assert before == now
    changed = "String.prototype.repeat = () => 'x';\n" + text
    assert ".repeat(i)" not in worked(changed, language)


def test_a_language_without_such_texts_is_told_in_words() -> None:
    lines = "".join(f'    printf("{"*" * n}\\n");\n' for n in range(1, 6))
    found = report(f"#include <stdio.h>\nint main(void) {{\n{lines}    return 0;\n}}\n", language="c")
    assert [f.rule for f in found.findings] == ["repeated-run"]
    assert [s.why_not for s in found.suggestions] == ["the texts grow, which would need a loop of its own"]
