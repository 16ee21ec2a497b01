"""The same picture drawn at another place: all its coordinates move alike, and a function is given two of them."""

import random
from pathlib import Path

import pytest
from builders import printed, report, worked
from runners import require_same_output

FACES = """
function setup() {
  createCanvas(400, 400);
}

function draw() {
  fill(255, 204, 0);
  ellipse(100, 100, 80, 80);
  fill(0);
  ellipse(85, 90, 10, 10);
  ellipse(115, 90, 10, 10);
  arc(100, 110, 40, 30, 0, PI);
  fill(255, 204, 0);
  ellipse(250, 120, 80, 80);
  fill(0);
  ellipse(235, 110, 10, 10);
  ellipse(265, 110, 10, 10);
  arc(250, 130, 40, 30, 0, PI);
}
"""


def test_a_face_is_drawn_by_a_function_that_is_told_where() -> None:
    after = worked(FACES, "javascript")
    assert "ellipse(x - 15, y - 10, 10, 10);" in after
    assert "drawEllipse(100, 100);" in after
    assert "drawEllipse(250, 120);" in after


DOTS = """
def dot(x, y):
    print(x * 2, y)


dot(10, 20)
dot(12, 25)
dot(8, 25)
print("star")
dot(40, 70)
dot(42, 75)
dot(38, 75)
print("star")
dot(90, 30)
dot(92, 35)
dot(88, 35)
print("star")
"""


def test_a_loop_lists_what_moves_once() -> None:
    after = worked(DOTS)
    assert "in [(10, 20), (40, 70), (90, 30)]:" in after
    assert printed(after) == printed(DOTS)


def test_two_copies_close_together_tell_nothing_of_the_kind() -> None:
    """`4` and `9`, `5` and `10` are one more each by chance."""
    text = """
def order(name, count, price):
    print(name, count, price)
    print("packed")
    print("sent")
    print("to the harbour")


def first():
    print("first")
    total = 4 * 3 + 9
    order("tea", 4, 20)
    print("paid", total, "for tea")
    print("by the pier master")


def second():
    total = 7 * 3 + 12
    order("tea", 7, 23)
    print("paid", total, "for tea")
    print("by the pier master")
    print("second")


first()
second()
"""
    assert " + 5" not in worked(text)
    assert printed(worked(text)) == printed(text)


PICTURES = {
    "python": (
        "dot({0}, {1} * 2)",
        "print(-{0}, {1} ** 2)",
        "print(f'at {0}', {1} % 7)",
        "print('p', 100 - {0}, not {1})",
    ),
    "javascript": (
        "console.log({0}, {1} * 2);",
        "console.log('at ' + {0} + ',' + {1});",
        "console.log(`p{0} ${{100 - {1}}}`);",
        "console.log([{0}, {1} % 7].join());",
    ),
    "java": (
        "System.out.println({0} + {1} * 2);",
        'System.out.println("at " + {0} + "," + {1});',
        "System.out.println(100 - {0} - {1} % 7);",
        "System.out.println({0} > 60 ? {1} : -{1});",
    ),
    "c": (
        'printf("%d %d\\n", {0}, {1} * 2);',
        'printf("at %d\\n", 100 - {0} - {1});',
        'printf("%d\\n", {0} % 7 + ~{1});',
        'printf("%.1f\\n", {0} / 2.0 + {1});',
    ),
}
AROUND = {
    "python": "def dot(x, y):\n    print('dot', x, y)\n\n\n{0}",
    "javascript": "{0}",
    "java": "public class Main {{\n    public static void main(String[] args) {{\n{0}    }}\n}}\n",
    "c": "#include <stdio.h>\n\nint main(void) {{\n{0}    return 0;\n}}\n",
}


@pytest.mark.parametrize("language", sorted(PICTURES))
def test_pictures_that_are_moved_come_out_the_same(language: str, tmp_path: Path) -> None:
    chance = random.Random(7)
    changed = 0
    indent = {"java": "        ", "c": "    "}.get(language, "")
    for k in range(12):
        lines = [(chance.choice(PICTURES[language]), chance.randint(0, 20), chance.randint(0, 20)) for _ in range(5)]
        places = [(chance.randint(1, 300), chance.randint(1, 300)) for _ in range(chance.choice((2, 3)))]
        body = "".join(f"{indent}{line.format(x + a, y + b)}\n" for x, y in places for line, a, b in lines)
        text = AROUND[language].format(body)
        after = worked(text, language)
        if after != text:
            changed += 1
            folder = tmp_path / str(k)
            folder.mkdir()
            require_same_output(language, text, after, folder)
            if language == "python":
                assert printed(text) == printed(after)
    assert changed >= 3


def test_moved_twins_become_one_function_with_two_parameters() -> None:
    text = """
def rect(x, y, w, h):
    print(x, y, w, h)


def oak():
    rect(10, 60, 8, 30)
    rect(0, 40, 28, 20)
    rect(5, 30, 18, 10)
    print("tree")


def elm():
    rect(110, 90, 8, 30)
    rect(100, 70, 28, 20)
    rect(105, 60, 18, 10)
    print("tree")


oak()
elm()
"""
    after = worked(text)
    assert "rect(x - 10, y - 20, 28, 20)" in after
    assert printed(after) == printed(text)


def test_what_is_worked_out_from_another_thing_is_no_further_difference() -> None:
    (finding,) = [f for f in report(FACES, language="javascript").findings if f.rule == "repeated-block"]
    assert finding.message.endswith("they differ only in x and y.")
