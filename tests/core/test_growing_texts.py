"""Texts of one sign that grow from copy to copy: a loop writes the sign so often."""

from __future__ import annotations

from pathlib import Path

import pytest

from core.builders import file, read, report, rules, run, verdict, worked
from core.runners import can_run, outputs
from partitor.suggestions.proof import NewLoop, prove

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


IN_OTHER_WORDS = {
    "java": ('System.out.println("{}");', '"*".repeat(i)'),
    "csharp": ('System.Console.WriteLine("{}");', "new string('*', i)"),
    "swift": ('print("{}")', 'String(repeating: "*", count: i)'),
}
AROUND = {
    "java": "class Main {{\n    public static void main(String[] args) {{\n{}    }}\n}}\n",
    "csharp": "class Program {{\n    static void Main() {{\n{}    }}\n}}\n",
    "swift": "{}",
}


@pytest.mark.parametrize("language", sorted(IN_OTHER_WORDS))
def test_other_languages_repeat_the_sign_in_their_words(language: str, tmp_path: Path) -> None:
    say, repeated = IN_OTHER_WORDS[language]
    inset = "" if language == "swift" else "        "
    text = AROUND[language].format("".join(f"{inset}{say.format('*' * n)}\n" for n in range(1, 6)))
    after = worked(text, language)
    assert repeated in after
    for fault in ("'+', i", '"+"', "i + 1"):
        wrong = after.replace({"i + 1": "i", "'+', i": "'*', i", '"+"': '"*"'}[fault], fault)
        claim = NewLoop(read(text, language).path, 1 if language == "swift" else 3)
        assert verdict_of(text, after, claim, language)
        assert wrong == after or not verdict_of(text, wrong, claim, language)
    if language != "swift" and can_run(language):
        before, now = outputs(language, [text, after], tmp_path)
        assert before == now


def test_a_string_of_the_program_s_own_repeats_nothing_for_certain() -> None:
    text = "".join(f'print("{"*" * n}")\n' for n in range(1, 6))
    own = "extension String {\n    init(repeating: String, count: Int) {\n        self = repeating\n    }\n}\n"
    assert "count: i" in worked(text, "swift")
    assert "count: i" not in worked(own + text, "swift")


def verdict_of(before: str, after: str, claim: NewLoop, language: str) -> bool:
    return prove(read(before, language), read(after, language), claim).proved


PYRAMID = [" " * (4 - n) + "*" * (2 * n + 1) for n in range(5)]


def test_spaces_get_fewer_while_signs_get_more() -> None:
    text = "".join(f'print("{row}")\n' for row in PYRAMID)
    after = worked(text)
    assert 'print(" " * i + "*" * (9 - 2 * i))' in after
    assert run(after) == run(text)
    claim = NewLoop(file(text).path, 1)
    assert verdict(text, after, claim).proved
    for old, new in (
        ("9 - 2", "8 - 2"),
        ("range(4, -1, -1)", "range(4, 0, -1)"),
        ('" " * i +', '"." * i +'),
        ("+ ", "* "),
    ):
        assert old in after
        assert not verdict(text, after.replace(old, new), claim).proved


def test_what_stays_between_signs_that_grow() -> None:
    text = "".join(f"print('<{'-' * n}>')\n" for n in (1, 3, 5, 7))
    after = worked(text)
    assert "'<' + '-' * i + '>'" in after
    assert run(after) == run(text)


@pytest.mark.parametrize(
    "rows",
    [
        ["+---+", "|   |", "|   |", "+---+", "+---+"],
        ["  *", " **", "***", "****", "**"],
        [" a", "  a", "   a", "    a"],
        ["- -", "-  -", "-    -", "-     -"],
    ],
    ids=["a box", "unevenly", "letters", "uneven gaps"],
)
def test_other_pictures_are_left(rows: list[str]) -> None:
    assert rules("".join(f'print("{row}")\n' for row in rows)) == []


@pytest.mark.parametrize("language", sorted(IN_OTHER_WORDS))
def test_pyramids_in_other_languages(language: str, tmp_path: Path) -> None:
    say = IN_OTHER_WORDS[language][0]
    text = AROUND[language].format("".join(f"{say.format(row)}\n" for row in PYRAMID))
    after = worked(text, language)
    assert "9 - 2 * i" in after
    if language != "swift" and can_run(language):
        before, now = outputs(language, [text, after], tmp_path)
        assert before == now
