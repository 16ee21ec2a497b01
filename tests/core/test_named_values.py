"""A value that is worked out inside a statement gets a name first, so that a function can give it."""

from __future__ import annotations

from pathlib import Path

import pytest

from core.builders import FILE_NAMES, asked, printed, read, report
from core.runners import can_run, outputs
from partitor.suggestions.proof import NamedValue, prove

ASKED = ("average/1/r: the average of the numbers", "area/2/r: the area of a field")
PROGRAMS = {
    "python": """
numbers = [3, 4, 8]
width, length = 4, 5
total = 0
for n in numbers:
    total += n
print("average:", total / len(numbers))
print(f"{width} by {length}: area {width * length}")
""",
    "javascript": """
const numbers = [3, 4, 8];
const width = 4;
let length = 5;
let total = 0;
for (const n of numbers) {
  total += n;
}
console.log("average: " + total / numbers.length);
console.log(`area ${width * length}`);
""",
    "java": """
class Main {
    public static void main(String[] args) {
        int[] numbers = {3, 4, 8};
        double width = 4;
        double length = 5;
        int total = 0;
        for (int n : numbers) {
            total += n;
        }
        System.out.println("average: " + total / 3);
        System.out.println(width + " by " + length + ": area " + width * length);
    }
}
""",
    "cpp": """
#include <iostream>
using namespace std;
int main() {
    int numbers[3] = {3, 4, 8};
    double width = 4;
    double length = 5;
    int total = 0;
    for (int i = 0; i < 3; i++) {
        total += numbers[i];
    }
    cout << "average: " << total / 3 << endl;
    cout << width << " by " << length << ": area " << width * length << endl;
    return 0;
}
""",
}


@pytest.mark.parametrize("language", PROGRAMS)
def test_the_functions_give_what_was_worked_out_inside(language: str, tmp_path: Path) -> None:
    text = PROGRAMS[language].lstrip("\n")
    told = report(text, asked(language, *ASKED), language)
    places = {f.subject: (f.places[0].start_line, f.places[0].end_line) for f in told.findings if f.subject}
    lines = text.split("\n")
    assert "total = 0" in lines[places["average"][0] - 1]
    assert "average" in lines[places["average"][1] - 1]
    assert "area" in lines[places["area"][0] - 1]
    after = told.worked_answer.files[FILE_NAMES[language]]
    assert "average(numbers)" in after
    assert "area(width, length)" in after
    if language == "python":
        assert printed(after) == printed(text)
    elif can_run(language):
        first, second = outputs(language, [text, after], tmp_path)
        assert first == second


def said(before: str, after: str, language: str = "python") -> bool:
    return prove(read(before, language), read(after, language), NamedValue("x", "fresh")).proved


@pytest.mark.parametrize(
    ("language", "line", "value"),
    [
        ("python", "print('a', n, [] , a / b, input())", ""),
        ("python", "print('a', n, a / b)", "a / b"),
        ("python", "print(f'{a / b:.2f} of {n}')", "a / b"),
        ("python", "total += a * b", "a * b"),
        ("python", "print(max(a, b), n)", "max(a, b)"),
        ("python", "print(input(), a / b)", ""),
        ("python", "print(a / b, more())", ""),
        ("python", "print(more() + a, more())", ""),
        ("python", "total += more()", ""),
        ("python", "print([a * k for k in n])", ""),
        ("python", "print(a or a / b)", ""),
        ("python", "print(1 if a else a / b)", ""),
        ("python", "print(lambda: a / b)", ""),
        ("python", "if a / b > 2: print(n)", ""),
        ("python", "while a / b > 2: a -= 1", ""),
        ("javascript", "console.log(n + ' is ' + a * b + (a > b ? 1 : 0));", "a * b"),
        ("javascript", "console.log(a++, a * b);", ""),
        ("javascript", "console.log(a * b, a++);", ""),
        ("javascript", "console.log(a && a * b);", ""),
        ("javascript", "more(a * b);", "a * b"),
    ],
)
def test_it_was_worked_out_first_and_for_certain(language: str, line: str, value: str) -> None:
    head = "def more(): return 1\n" if language == "python" else "function more() { return 1; }\n"
    shown = value or next(v for v in ("a / b", "a * b", "a * k", "more()") if v in line)
    naming = f"fresh = {shown}\n" if language == "python" else f"const fresh = {shown};\n"
    after = head + naming + line.replace(shown, "fresh", 1) + "\n"
    assert said(head + line + "\n", after, language) is bool(value)


@pytest.mark.parametrize(
    "after",
    [
        "fresh = a / b\nprint(fresh, fresh)\n",
        "fresh = a / b\nprint('x')\nprint(fresh)\n",
        "fresh = a / c\nprint(fresh)\n",
        "fresh = b / a\nprint(fresh)\n",
        "fresh = a / b\nprint(fresh, 2)\n",
        "print(fresh)\nfresh = a / b\n",
        "if a:\n    fresh = a / b\nprint(fresh)\n",
        "fresh = a / b; a = 1\nprint(fresh)\n",
        "fresh = other = a / b\nprint(fresh)\n",
    ],
)
def test_nothing_else_may_change(after: str) -> None:
    assert not said("print(a / b)\n", after)


def test_a_class_and_a_name_in_use_refuse() -> None:
    assert not said("class A:\n    print(a / b)\n", "class A:\n    fresh = a / b\n    print(fresh)\n")
    assert not said("fresh = 2\nprint(a / b)\n", "fresh = 2\nfresh = a / b\nprint(fresh)\n")
    assert not said("print(a / b, eval('1'))\n", "fresh = a / b\nprint(fresh, eval('1'))\n")


def test_the_type_has_to_be_the_value_s() -> None:
    before = 'int main() {\n    double a = 3;\n    printf("%f", a * 2);\n}\n'
    after = 'int main() {\n    double a = 3;\n    KIND fresh = a * 2;\n    printf("%f", fresh);\n}\n'
    assert said(before, after.replace("KIND", "double"), "c")
    assert not said(before, after.replace("KIND", "int"), "c")
    assert not said(before, after.replace("KIND", "float"), "c")
