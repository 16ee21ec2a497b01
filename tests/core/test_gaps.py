"""Texts with gaps (`f"…{x}"`, `${x}`, `\\(x)`): words between the gaps that differ, and numbers in them."""

from __future__ import annotations

from pathlib import Path

import pytest

from core.builders import report, run, verdict, worked
from core.runners import require_same_output
from core.test_proof_declared import verdict as verdict_in
from partitor.suggestions.proof import NewFunction, NewLoop

REPORT = """
def tide(levels):
    total = 0
    for level in levels:
        total += level
    mean = total / len(levels)
    print(f"{mean:.1f} is the tide's mean")
    print(f"tide: {total} of {len(levels)}")


def wind(speeds, note):
    print(note)
    total = 0
    for level in speeds:
        total += level
    mean = total / len(speeds)
    print(f"{mean:.1f} is the wind's mean")
    print(f"wind: {total} of {len(speeds)}")


tide([3, 4])
wind([5, 7, 1], "north")
"""


def test_words_between_gaps_are_given_and_what_is_alike_around_them_stays() -> None:
    text = REPORT.replace("'s mean", " mean")
    after = worked(text)
    assert 'print(f"{mean:.1f} is the {name} mean")' in after
    assert 'print(f"{name}: {total} of {len(values)}")' in after
    assert '(levels, "tide")' in after
    assert '(speeds, "wind")' in after
    assert run(after) == run(text)


def test_words_with_a_sign_in_them_stay_as_they_are() -> None:
    assert run(worked(REPORT)) == run(REPORT)
    assert "the {name}'s" not in worked(REPORT)


def test_numbers_between_gaps_count() -> None:
    text = "level = 4\n" + "".join(f'print(f"gate {n} at {{level}}")\nlevel += {n}\n' for n in range(1, 6))
    after = worked(text)
    assert "{level}" in after
    assert "range(1, 6)" in after
    assert run(after) == run(text)


def test_a_text_in_braces_is_no_gap() -> None:
    text = "x = 7\n" + "".join(f'print(f"{{{{gate {n}}}}} {{x}}")\nprint({n})\nx += 1\n' for n in range(1, 5))
    assert run(worked(text)) == run(text)


LOOP = 'x = 5\nfor name in ["tide", "wind", "rain"]:\n    print(f"{0}: {{x}}")\n    print(x)\n'
COPIES = 'x = 5\nprint(f"tide: {x}")\nprint(x)\nprint(f"wind: {x}")\nprint(x)\nprint(f"rain: {x}")\nprint(x)\n'


@pytest.mark.parametrize(
    ("words", "right"),
    [
        ("{name}", True),
        ("{name} ", False),
        ("{name!r}", False),
        ("{name:>9}", False),
        ("{x}", False),
        ("name", False),
        ("{{name}}", False),
    ],
)
def test_the_proof_reads_words_and_gaps_together(words: str, right: bool) -> None:
    after = LOOP.replace("{0}", words).replace("{{x}}", "{x}")
    assert verdict(COPIES, after, NewLoop("main.py", 2)).proved is right


def test_a_raw_text_is_not_taken_for_a_plain_one() -> None:
    copies = COPIES.replace('f"', 'rf"').replace("tide", "ti\\\\de")
    after = LOOP.replace("{0}", "{name}").replace("{{x}}", "{x}").replace('"tide"', '"ti\\\\de"')
    assert not verdict(copies, after, NewLoop("main.py", 2)).proved


TAGGED = "function f(word) {{\n  console.log(html`<{0}> ${{x}}`);\n  console.log(x);\n}}\n"


def test_what_a_tag_makes_of_a_text_is_not_known() -> None:
    before = "const x = 1;\n" + "".join(f"console.log(html`<{w}> ${{x}}`);\nconsole.log(x);\n" for w in ("b", "i"))
    after = "const x = 1;\n" + TAGGED.format("${word}") + 'f("b");\nf("i");\n'
    assert not verdict_in("javascript", before, after, NewFunction("main.js", "f")).proved
    plain = [text.replace("html`", "`") for text in (before, after)]
    assert verdict_in("javascript", *plain, NewFunction("main.js", "f")).proved


SHOWS = {
    "javascript": (
        "function tide(a) {{\n{0}}}\nfunction wind(b, c) {{\n  console.log(c);\n{1}}}\ntide(2);\nwind(3, 4);\n",
        "  let n = {0} * {0};\n  n = n + {0};\n  n = n * 2 + 1;\n  n = n - 3;\n  n = n * n;\n  console.log(`{1}: ${{n}} m`);\n  console.log(`{1} ${{n - 1}}`);\n",
    ),
    "csharp": (
        "using System;\nclass P {{\n  static void Tide(int a) {{\n{0}  }}\n  static void Wind(int b, int c) {{\n"
        "    Console.WriteLine(c);\n{1}  }}\n  static void Main() {{\n    Tide(2);\n    Wind(3, 4);\n  }}\n}}\n",
        '    int n = {0} * {0};\n    n = n + {0};\n    n = n * 2 + 1;\n    n = n - 3;\n    n = n * n;\n    Console.WriteLine($"{1}: {{n}} m");\n'
        '    Console.WriteLine($"{1} {{n - 1}}");\n',
    ),
    "swift": (
        "func tide(_ a: Int) {{\n{0}}}\nfunc wind(_ b: Int, _ c: Int) {{\n  print(c)\n{1}}}\ntide(2)\nwind(3, 4)\n",
        '  var n = {0} * {0}\n  n = n + {0}\n  n = n * 2 + 1\n  n = n - 3\n  n = n * n\n  print("{1}: \\(n) m")\n  print("{1} \\(n - 1)")\n',
    ),
}


@pytest.mark.parametrize("language", SHOWS)
def test_other_languages_fill_their_own_gaps(language: str, tmp_path: Path) -> None:
    whole, copy = SHOWS[language]
    text = whole.format(copy.format("a", "tide"), copy.format("b", "wind"))
    after = worked(text, language)
    gap = {"javascript": "${name}: ", "csharp": "{name}: ", "swift": "\\(name): "}[language]
    assert gap in after
    assert after.count(' m"') + after.count(" m`") == 1
    require_same_output(language, text, after, tmp_path)


def test_headings_that_differ_are_prose() -> None:
    text = 'total = 3\nmean = 4\nmost = 5\nprint(f"In all {total}")\nprint(f"Mean {mean}")\nprint(f"Most {most}")\n'
    assert report(text).findings == ()
