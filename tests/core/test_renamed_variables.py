"""Variables that have the name of a function that is asked for get another one first."""

from __future__ import annotations

import pytest

from core.builders import FILE_NAMES, asked, printed, read, report
from partitor.suggestions.proof import RenamedVariables, prove

ASKED = ("average/1/r: the mean of the numbers",)
PYTHON = """
def main():
    numbers = [3, 4, 8]
    total = 0
    for n in numbers:
        total += n
    average = total / len(numbers)
    print("average:", average)


main()
"""
SCRIPT = """
const numbers = [3, 4, 8];
let total = 0;
for (const n of numbers) {
  total += n;
}
const average = total / numbers.length;
console.log("average: " + average);
"""


def test_python() -> None:
    told = report(PYTHON, asked("python", *ASKED))
    after = told.worked_answer.files[FILE_NAMES["python"]]
    assert "    the_average = average(numbers)\n" in after
    assert 'print("average:", the_average)' in after
    assert printed(after) == printed(PYTHON)
    assert [s.status for s in told.suggestions if "becomes the_average" in s.title] == ["proved"]


def test_javascript() -> None:
    after = report(SCRIPT, asked("javascript", *ASKED), "javascript").worked_answer.files[FILE_NAMES["javascript"]]
    assert "const theAverage = average(numbers);" in after
    assert 'console.log("average: " + theAverage);' in after


def said(text: str, language: str = "python") -> bool:
    """Whether the proof takes `the_cost` in place of each `cost` in a text, and leaves what is written `@`."""
    before, after = text.replace("@", "cost"), text.replace("cost", "the_cost").replace("@", "cost")
    return prove(read(before, language), read(after, language), RenamedVariables("x", "the_cost", "cost")).proved


@pytest.mark.parametrize(
    ("language", "text"),
    [
        ("python", "cost = 3\ndef f():\n    global cost\n    cost = 1\n    print(f'{cost}', shop.@)\nf()\n"),
        ("python", "def f(cost):\n    return cost + 1\nprint(f(2))\n"),
        ("python", "for cost, n in [(1, 2)]:\n    print(cost, {'@': n})\n"),
        ("javascript", "let cost = 1;\nconsole.log(`${cost}`, shop.@, {a: cost});\n"),
    ],
)
def test_all_that_is_the_variable_is_renamed(language: str, text: str) -> None:
    assert said(text, language)
    assert not said(text.replace("cost", "@", 1), language)


@pytest.mark.parametrize(
    ("language", "text"),
    [
        ("python", "def f(cost):\n    return cost + 1\nprint(f(@=2))\n"),
        ("python", "cost = 3\nprint(eval('@'))\n"),
        ("python", "class Shop:\n    cost = 4\nprint(Shop.@)\n"),
        ("python", "from prices import cost\nprint(cost)\n"),
        ("python", "cost = 1\nimport sys\nprint(sys.modules['__main__'].@)\n"),
        ("python", "def cost():\n    cost = 1\n    return cost\n"),
        ("python", "print(cost)\n"),
        ("python", "the_cost = 1\ncost = 2\nprint(the_cost, cost)\n"),
        ("javascript", "let cost = 1;\nsend({cost});\n"),
        ("javascript", "var cost = 1;\nconsole.log(window.@);\n"),
        ("javascript", "const {cost} = shop;\nconsole.log(cost);\n"),
        ("java", "class A { int cost = 1; int f() { return this.@; } }"),
        ("csharp", "class A { int cost; A Make() { return new A { @ = 1 }; } }"),
        ("c", "#define PAY @\nint main() { int cost = 1; return PAY; }"),
        ("visualbasic", "Sub A()\n    cost = 1\n    MsgBox cost\nEnd Sub\n"),
    ],
)
def test_what_may_be_more_than_a_variable_is_not(language: str, text: str) -> None:
    assert not said(text, language)
