"""A function for a value that is worked out inside a statement, called in its place."""

from __future__ import annotations

from pathlib import Path

import pytest

from core.builders import FILE_NAMES, asked, printed, read, report
from core.runners import can_run, outputs
from partitor.suggestions.proof import ValueFunction, prove

ASKED = ("area/2/r: the area of a field",)
PROGRAMS = {
    "python": 'width, length = 4, 5\nprint(input, "by", [1], f"area {width * length}")\n'.replace("input", "width"),
    "javascript": 'const width = 4;\nlet length = 5;\nconsole.log(width + " by", [1], `area ${width * length}`);\n',
    "java": """
class Main {
    public static void main(String[] args) {
        double width = 4;
        double length = 5;
        System.out.println(width + " by " + length + ": area " + width * length);
    }
}
""",
    "c": """
#include <stdio.h>
int main(void) {
    int width = 4;
    double length = 5;
    printf("%d by %f: area %f\\n", width, length, width * length);
    return 0;
}
""",
    "racket": '#lang racket\n(define width 4)\n(define length-of-it 5)\n(printf "area ~a" (* width length-of-it))\n',
}


@pytest.mark.parametrize("language", PROGRAMS)
def test_the_value_is_given_where_it_was_worked_out(language: str, tmp_path: Path) -> None:
    text = PROGRAMS[language].lstrip("\n")
    after = report(text, asked(language, *ASKED), language).worked_answer.files[FILE_NAMES[language]]
    assert "area(width, length)" in after or "(area width length-of-it)" in after
    if language == "python":
        assert printed(after) == printed(text)
    elif can_run(language):
        first, second = outputs(language, [text, after], tmp_path)
        assert first == second


def test_it_is_given_elements_where_these_are_as_many_and_variables_of_its_name_another() -> None:
    text = """
prices = [4, 20]
pieces = [3, 1]
names = ["rope", "net"]
area = 0
for i in range(2):
    print(names[i], "area:", prices[i] * pieces[i], area)
"""
    after = report(text, asked("python", *ASKED)).worked_answer.files[FILE_NAMES["python"]]
    assert 'print(names[i], "area:", area(prices[i], pieces[i]), the_area)' in after
    assert printed(after) == printed(text)


FUNCTION = "def fresh({0}):\n    return {1}\n"


def said(before: str, parameters: str, value: str, call: str, shown: str, above: str = "") -> bool:
    after = above + FUNCTION.format(parameters, value) + before.replace(shown, call, 1)
    return prove(read(above + before, "python"), read(after, "python"), ValueFunction("x", "fresh")).proved


LINES = "a = 3\nb = 4\nrows = [5]\nprint(input(), a * b)\n"


RIGHT = [
    ("x * y", "a * b", "x, y", "fresh(a, b)"),
    ("x * b", "a * b", "x", "fresh(a)"),
    ("x * y", "a * 4", "x, y", "fresh(a, 4)"),
    ("len(x) + y", "len(rows) + a", "x, y", "fresh(rows, a)"),
    ("x + y", "rows[0] + rows[a]", "x, y", "fresh(rows[0], rows[a])"),
    ("x and y", "a and b", "x, y", "fresh(a, b)"),
]
WRONG = [
    ("x * y", "a * b", "x, y", "fresh(b, b)"),
    ("x + y", "a * b", "x, y", "fresh(a, b)"),
    ("x * y", "a * b", "x, y", "fresh(a)"),
    ("x * y", "a * b", "x, y", "fresh(a, b=b)"),
    ("x * y", "a * more()", "x, y", "fresh(a, more())"),
    ("x * more()", "a * more()", "x", "fresh(a)"),
    ("x * (y := 3)", "a * (b := 3)", "x", "fresh(a)"),
    ("x and y", "a and rows[9]", "x, y", "fresh(a, rows[9])"),
    ("a / b + x", "a / b + rows[9]", "x", "fresh(rows[9])"),
    ("[x for k in rows]", "[a for k in rows]", "x", "fresh(b)"),
    ("x", "k * 2 for k in rows", "x", "fresh(k) for k in rows"),
    ("x * 2", "[k * 2 for k in rows]", "x", "[fresh(k) for k in rows]"),
    ("print(x)", "a * b", "x", "fresh(a)"),
]


@pytest.mark.parametrize(("value", "shown", "parameters", "call"), RIGHT + WRONG)
def test_it_is_the_value_worked_out_where_it_was(value: str, shown: str, parameters: str, call: str) -> None:
    above = "def more():\n    return 2\n"
    right = (value, shown, parameters, call) in RIGHT
    assert said(LINES.replace("a * b", shown), parameters, value, call, shown, above) is right


def test_what_has_no_value_for_certain_or_another_owner_refuses() -> None:
    inside = "def go(n):\n    if n:\n        m = 2\n    print(n * m)\n    return n\n"
    assert not said(inside, "x, y", "x * y", "fresh(n, m)", "n * m")
    assert not said("def go(n, m):\n    print(n * m)\n", "x", "x * m", "fresh(n)", "n * m")
    assert said("def go(n, m):\n    print(n * m)\n", "x, y", "x * y", "fresh(n, m)", "n * m")
    before = "print(2 * 3)\n"
    after = "print(fresh(2, 3))\n" + FUNCTION.format("x, y", "x * y")
    assert not prove(read(before, "python"), read(after, "python"), ValueFunction("x", "fresh")).proved


def test_types_have_to_be_the_same() -> None:
    before = 'int main() {\n    int a = 3;\n    double b = 2;\n    printf("%f", a * b);\n}\n'
    for kind, right in (("double", True), ("int", False), ("float", False)):
        function = f"{kind} fresh(int x, double y) {{\n    return x * y;\n}}\n"
        after = function + before.replace("a * b", "fresh(a, b)")
        assert prove(read(before, "c"), read(after, "c"), ValueFunction("x", "fresh")).proved is right
        wrong = after.replace("int x, double y", "double x, double y")
        assert not prove(read(before, "c"), read(wrong, "c"), ValueFunction("x", "fresh")).proved
