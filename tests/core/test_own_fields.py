"""Methods that do the same with different fields of `this`: the field's value is given where it stays."""

from __future__ import annotations

from pathlib import Path

import pytest

from core.builders import worked
from core.runners import can_run, outputs
from partitor.check import check
from partitor.exchange.assignment import Assignment
from partitor.reading.collect import Submission
from partitor.source import Source

BOARD = """class Board {
  levels = [];
  winds = [];
%s
  addLevel(place, value) {
    if (value < 0) {
      console.log(`Level at ${place} is none`);
      return;
    }
    this.levels.push(place + value);
    if (this.levels.length > 2) {
      this.levels.shift();
    }
  }

  addWind(place, value) {
    if (value < 0) {
      console.log(`Wind at ${place} is none`);
      return;
    }
    this.winds.push(place + value);
    if (this.winds.length > 2) {
      this.winds.shift();
    }
  }

  show() {
    console.log(this.levels.join(), this.winds.join(), this.winds.length < 3, -this.winds.length);
  }
}
const board = new Board();
%s
for (let turn = 0; turn < 4; turn++) {
  board.addLevel("quay", turn);
  board.addWind("pier", turn - 1);
}
board.show();
"""


def is_given(text: str) -> bool:
    """True where each method hands its field on."""
    after = worked(text, "javascript")
    return after.count(".push(place + value)") == 1 and "this.levels);" in after and "this.winds);" in after


def test_the_fields_are_given(tmp_path: Path) -> None:
    text = BOARD % ("", "")
    assert is_given(text)
    if can_run("javascript"):
        assert len(set(outputs("javascript", [text, worked(text, "javascript")], tmp_path))) == 1


def test_fields_that_the_constructor_gives_are_given_too() -> None:
    made = "  constructor(name) {\n    this.name = name;\n    this.levels = [];\n    this.winds = [];\n  }\n"
    text = (BOARD % (made, "")).replace("  levels = [];\n  winds = [];\n", "")
    assert is_given(text)
    late = text.replace("    this.levels = [];\n", "    fill(this);\n    this.levels = [];\n")
    assert not is_given(late)
    twice = text.replace("  constructor", "  levels = [];\n  constructor")
    assert not is_given(twice)


def test_a_typed_field_is_a_typed_parameter() -> None:
    text = (BOARD % ("", "")).replace("levels = [];", "private levels: string[] = [];")
    text = text.replace("winds = [];", "winds: string[] = [];").replace(
        "(place, value)", "(place: string, value: number)"
    )
    after = worked(text, "typescript")
    assert "values: string[])" in after
    assert "this.winds);" in after


@pytest.mark.parametrize(
    ("inside", "outside"),
    [
        ("  clear() {\n    this.levels = [];\n  }\n", ""),
        ("  clear(other) {\n    other.levels = [];\n  }\n", ""),
        ("  clear() {\n    [this.levels, this.winds] = [[], []];\n  }\n", ""),
        ("  clear() {\n    delete this.levels;\n  }\n", ""),
        ("  clear(key) {\n    this[key] = [];\n  }\n", ""),
        ("  get levels() {\n    return this.winds;\n  }\n", ""),
        ("  first = this.addLevel('a', 1);\n", ""),
        ("", "board.levels = ['spring'];"),
        ("", "for (board.levels of [[1], [2]]) {}"),
        ("", "function put(thing, key) {\n  thing[key] = [];\n}\nput(board, 'levels');"),
        ("", "const key = 'lev' + 'els';\nboard[key] = [];"),
        ("", "Object.assign(board, { winds: [] });"),
        ("", "class Wide extends Board {\n  get levels() {\n    return [];\n  }\n}"),
        ("", "setTimeout(board.addLevel, 10);"),
        ("", "const add = board.addWind;"),
    ],
)
def test_a_field_that_might_change_is_not_given(inside: str, outside: str) -> None:
    assert not is_given(BOARD % (inside, outside))


@pytest.mark.parametrize(
    ("before", "after"),
    [
        ("  addLevel(", "  static addLevel("),
        ("class Board {", "class Board extends Base {"),
        ("  levels = [];", "  static levels = [];"),
    ],
)
def test_a_method_that_finds_another_object_is_left_alone(before: str, after: str) -> None:
    assert not is_given((BOARD % ("", "")).replace(before, after, 1))


def test_a_function_inside_finds_another_object() -> None:
    text = BOARD % ("", "")
    for field in ("levels", "winds"):
        plain = f"this.{field}.push(place + value);"
        text = text.replace(plain, f"[1].forEach(function () {{\n      {plain}\n    }});")
    assert not is_given(text)


def test_what_only_looks_at_the_field_does_not_matter() -> None:
    inside = "  most() {\n    return this.levels.length > 1 ? this.levels[0] : this.winds.at(-1);\n  }\n"
    assert is_given(BOARD % (inside, "const seen = board.levels;\nconst counts = [];\ncounts[seen.length] = 1;"))


JAVA = """import java.util.ArrayList;

public class Board {
    private ArrayList<String> levels = new ArrayList<>();
    private ArrayList<String> winds = new ArrayList<>();
%s
    public void addLevel(String place, int value) {
        if (value < 0) {
            System.out.println("Level at " + place + " is none");
            return;
        }
        this.levels.add(place + value);
        if (this.levels.size() > 2) {
            this.levels.remove(0);
        }
    }

    public void addWind(String place, int value) {
        if (value < 0) {
            System.out.println("Wind at " + place + " is none");
            return;
        }
        this.winds.add(place + value);
        if (this.winds.size() > 2) {
            this.winds.remove(0);
        }
    }

    public static void main(String[] args) {
        Board board = new Board();
        for (int turn = 0; turn < 4; turn++) {
            board.addLevel("quay", turn);
            board.addWind("pier", turn - 1);
        }
        System.out.println(board.levels + " " + board.winds);
    }
}
"""


def test_java_fields_are_given_by_this(tmp_path: Path) -> None:
    text = JAVA % ""
    after = worked(text, "java")
    assert "ArrayList<String> values) {" in after
    assert after.count(", this.winds);") == after.count(", this.levels);") == 1
    if can_run("java"):
        assert len(set(outputs("java", [text, after], tmp_path))) == 1


@pytest.mark.parametrize(
    "method",
    [
        "    void clear() {\n        this.levels = new ArrayList<>();\n    }\n",
        "    void clear() {\n        levels = new ArrayList<>();\n    }\n",
        "    void clear(Board other) {\n        other.winds = other.levels = new ArrayList<>();\n    }\n",
        "    Board(ArrayList<String> levels) {\n        this.levels = levels;\n    }\n\n    Board() {\n    }\n",
    ],
)
def test_java_fields_that_might_change_are_not(method: str) -> None:
    assert worked(JAVA % method, "java").count(".add(place + value)") == 2


def test_a_field_that_another_file_changes_is_not_given() -> None:
    def added(other: str) -> int:
        files = {"Board.java": JAVA % "", "Other.java": other}
        submission = Submission("student", tuple(Source(name, text, "java") for name, text in files.items()))
        return check(submission, Assignment()).worked_answer.diff.count(", this.levels);")

    other = (
        "public class Other {\n    void clear(Board board) {\n        System.out.println(board.hashCode());\n    }\n}\n"
    )
    assert added(other) == 1
    assert added(other.replace("System.out.println(board.hashCode())", "board.levels = null")) == 0
