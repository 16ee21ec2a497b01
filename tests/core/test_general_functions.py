"""Functions that do one job under several names: what they become, and what it and its variables are called."""

from __future__ import annotations

from pathlib import Path

import pytest

from core.builders import report, rules, run, verdict, worked
from core.runners import require_same_output
from partitor.suggestions.proof import MergedFunctions, NewFunction

CONVERT = """
def miles_to_km(miles):
    km = miles * 1.609
    km = round(km, 2)
    print(miles, "miles is", km, "km")
    return km


def pounds_to_kg(pounds):
    kg = pounds * 0.4536
    kg = round(kg, 2)
    print(pounds, "pounds is", kg, "kg")
    return kg


print(miles_to_km(3) + pounds_to_kg(4))
"""


def test_variables_that_only_are_called_otherwise_make_no_function_unlike() -> None:
    after = worked(CONVERT)
    assert "def convert(amount, factor, name, text):\n    result = amount * factor\n" in after
    assert run(after) == run(CONVERT)


def test_a_name_in_use_inside_is_not_given_again() -> None:
    text = CONVERT.replace("round(km, 2)", "round(km, amount)").replace("round(kg, 2)", "round(kg, amount)")
    text = text.replace("\ndef miles", "\namount = 2\n\n\ndef miles", 1)
    after = worked(text)
    assert "def convert(amount" not in after
    assert "def convert(" in after
    assert run(after) == run(text)


SPEEDS = """
def speed(metres, seconds):
    found = metres / seconds
    print("speed", found)
    return found


def density(mass, volume):
    heavy = mass / volume
    print("density", heavy)
    return heavy


print(speed(3, 4), density(5, 6))
"""


def test_small_functions_that_only_reckon_alike_stay_apart() -> None:
    assert rules(SPEEDS) == []


HANDLERS = """\
let score = 0;
function check1() {
  const box = document.getElementById("q1");
  const answer = box.value.trim().toLowerCase();
  if (answer === "salt") {
    score++;
    box.style.background = "green";
  } else {
    box.style.background = "red";
  }
}
function check2() {
  const box = document.getElementById("q2");
  const answer = box.value.trim().toLowerCase();
  if (answer === "two") {
    score++;
    box.style.background = "green";
  } else {
    box.style.background = "red";
  }
}
document.getElementById("b1").onclick = check1;
document.getElementById("b2").onclick = check2;
"""


def test_handlers_keep_their_names_and_call_one_function() -> None:
    after = worked(HANDLERS, "javascript")
    assert 'function check1() {\n  checkBox(1, "salt");\n}' in after
    assert "function checkBox(number, rightAnswer) {" in after
    assert after.rstrip().endswith('document.getElementById("b2").onclick = check2;')


TANKS = """
class Pump:
    def __init__(self):
        self.left = 0
        self.right = 0

    def fill_left(self, amount):
        if amount <= 0:
            print("no amount")
            return False
        self.left += amount
        print("left tank holds", self.left)
        return True

    def fill_right(self, amount):
        if amount <= 0:
            print("no amount")
            return False
        self.right += amount
        print("right tank holds", self.right)
        return True


pump = Pump()
pump.fill_left(3)
pump.fill_right(4)
"""


def test_methods_that_work_on_different_fields_are_told_and_not_merged() -> None:
    found = report(TANKS)
    assert [f.rule for f in found.findings] == ["twin-functions"]
    assert [(s.status, s.why_not) for s in found.suggestions] == [
        ("outline", "they work on different fields of the object, which cannot be given as values")
    ]


SETTERS = """
class Gate:
    def set_width(self, width):
        if width < 0:
            raise ValueError("width")
        self.width = width

    def set_height(self, height):
        if height < 0:
            raise ValueError("height")
        self.height = height


gate = Gate()
gate.set_width(2)
gate.set_height(3)
"""


def test_setters_stay_as_they_are() -> None:
    assert rules(SETTERS) == []


LARGEST = """\
#include <stdio.h>

int main(void) {
    int a[5] = {3, 4, 8, 1, 2};
    int b[4] = {7, 7, 2, 9};
    int i;
    int largest = a[0];
    for (i = 1; i < 5; i++) {
        if (a[i] > largest) {
            largest = a[i];
        }
    }
    printf("largest of a: %d\\n", largest);
    int big = b[0];
    for (i = 1; i < 4; i++) {
        if (b[i] > big) {
            big = b[i];
        }
    }
    printf("largest of b: %d\\n", big);
    int c[3] = {5, 1, 2};
    int most = c[0];
    for (i = 1; i < 3; i++) {
        if (c[i] > most) {
            most = c[i];
        }
    }
    printf("largest of c: %d\\n", most);
    return 0;
}
"""


def test_arrays_of_any_length_are_handed_on(tmp_path: Path) -> None:
    after = worked(LARGEST, "c")
    assert "void printLargest(int values[], int count, const char *name) {" in after
    assert 'printf("largest of %s: %d\\n", name, largest);' in after
    require_same_output("c", LARGEST, after, tmp_path)


ASKING = """
def ask():
    while True:
        text = input("width: ")
        if text.isdigit():
            width = int(text)
            break
        print("please give a number")
    while True:
        text = input("height: ")
        if text.isdigit():
            height = int(text)
            break
        print("please give a number")
    print(width * height)


ask()
"""


def test_asking_until_the_answer_fits_becomes_a_function_that_gives_it_back() -> None:
    after = worked(ASKING)
    assert "def read_text(prompt):\n    while True:\n        text = input(prompt)\n" in after
    assert "            result = int(text)\n            break\n" in after
    assert run(after, "x\n3\n4\n") == run(ASKING, "x\n3\n4\n")


def test_a_loop_that_may_end_without_a_value_keeps_the_old_one() -> None:
    text = ASKING.replace("while True:", "while more():").replace(
        "\ndef ask", "\ndef more():\n    return True\n\n\ndef ask"
    )
    assert [s.status for s in report(text).suggestions] == ["outline"]
    early = ASKING.replace(
        "        if text.isdigit", '        if text == "":\n            break\n        if text.isdigit'
    )
    assert [s.status for s in report(early).suggestions] == ["outline"]


SHEET = """
Sub MakeReports()
    Dim i As Integer
    Dim total As Double
    Worksheets("North").Activate
    total = 0
    For i = 2 To 20
        total = total + Cells(i, 3).Value
    Next i
    Cells(21, 3).Value = total
    Cells(21, 3).Font.Bold = True
    Worksheets("South").Activate
    total = 0
    For i = 2 To 30
        total = total + Cells(i, 3).Value
    Next i
    Cells(31, 3).Value = total
    Cells(31, 3).Font.Bold = True
    MsgBox "Done"
End Sub
"""


def test_a_number_that_follows_another_is_no_parameter_of_its_own() -> None:
    found = report(SHEET, language="visualbasic").suggestions
    assert [(s.status, len(s.slots)) for s in found] == [("proved", 3)]
    assert "Cells(number + 1, 3).Value = total" in found[0].diff
    assert 'UpdateTotal "South", 30\n' in found[0].diff
    apart = report(SHEET.replace("Cells(31", "Cells(33"), language="visualbasic").suggestions
    assert "number + 1" not in apart[0].diff


QUIZ = """\
public class Main {
    static int step(int n) {
        return n * 7 % 5;
    }
    public static void main(String[] args) {
        int score = 0;
        System.out.println("first");
        int answer = step(1);
        if (answer > 2) {
            score++;
        }
        System.out.println("second");
        answer = step(2);
        if (answer > 2) {
            score++;
        }
        System.out.println("third");
        answer = step(4);
        if (answer > 2) {
            score++;
        }
        System.out.println(score);
    }
}
"""


def test_the_first_copy_may_declare_what_the_others_change(tmp_path: Path) -> None:
    found = report(QUIZ, language="java").suggestions[0]
    assert (found.kind, found.status) == ("loop", "proved")
    after = worked(QUIZ, "java")
    assert "            int answer = step(" in after
    require_same_output("java", QUIZ, after, tmp_path)
    later = report(QUIZ.replace("println(score)", "println(score + answer)"), language="java")
    assert all(s.kind != "loop" for s in later.suggestions)


BLINK = """\
const int RED = 9;
const int GREEN = 10;

void blinkRed() {
  digitalWrite(RED, HIGH);
  delay(500);
  digitalWrite(RED, LOW);
  delay(500);
}

void blinkGreen() {
  digitalWrite(GREEN, HIGH);
  delay(250);
  digitalWrite(GREEN, LOW);
  delay(250);
}

void loop() {
  blinkRed();
  blinkGreen();
}
"""


def test_named_constants_are_given_like_numbers() -> None:
    for head in ("const int RED = 9;", "#define RED 9"):
        after = worked(BLINK.replace("const int RED = 9;", head), "arduino")
        assert "void blink(int pin, int pause) {" in after
        assert "blink(RED, 500);" in after
    changing = BLINK.replace("const int RED", "int RED").replace("  blinkRed();", "  RED = 3;\n  blinkRed();")
    assert [s.status for s in report(changing, language="arduino").suggestions] == ["outline"]
    twice = BLINK.replace("const int RED = 9;", "#define RED 9\n#undef RED\n#define RED 8")
    assert [s.status for s in report(twice, language="arduino").suggestions] == ["outline"]


OWN_LEVELS = """
def opening(level):
    return level // 3


def north_gate():
    level = 311
    percent = opening(level)
    print("North gate")
    print("   level  ", level, "cm")
    level += 1
    print("   opening", percent, "%")
    return level


def mill_gate():
    level = 254
    percent = opening(level)
    print("Mill gate")
    print("   level  ", level, "cm")
    level += 1
    print("   opening", percent, "%")
    return level


print(north_gate(), mill_gate())
"""


def test_the_first_value_of_a_variable_is_given_to_it() -> None:
    after = worked(OWN_LEVELS)
    assert "def print_gate(level, name):\n    percent = opening(level)\n" in after
    assert run(after) == run(OWN_LEVELS)


GIVEN = OWN_LEVELS.split("def north_gate")[0] + (
    'def gate(level, name):\n    percent = opening(level)\n    print(name)\n    print("   level  ", level, "cm")\n'
    '    level += 1\n    print("   opening", percent, "%")\n    return level\n\n\n'
    'print(gate(311, "North gate"), gate(254, "Mill gate"))\n'
)


@pytest.mark.parametrize(
    ("old", "new", "right"),
    [
        ("", "", True),
        ("gate(311", "gate(312", False),
        ("    level += 1\n", "", False),
        ("percent = opening(level)", "percent = opening(311)", False),
        ("    percent = opening(level)\n", "    level = 3\n    percent = opening(level)\n", False),
    ],
)
def test_a_given_first_value_is_the_one_it_was(old: str, new: str, right: bool) -> None:
    claim = MergedFunctions("main.py", "gate", ("north_gate", "mill_gate"))
    after = GIVEN.replace(old, new, 1) if old else GIVEN
    assert verdict(OWN_LEVELS, after, claim).proved is right


def test_who_calls_itself_begins_anew_each_time() -> None:
    again = "    if level > 400:\n        return {0}()\n    level += 100\n    return {0}()\n"
    text = OWN_LEVELS
    for name in ("north_gate", "mill_gate"):
        head, _, tail = text.partition(f"def {name}")
        text = head + f"def {name}" + tail.replace("    return level\n", again.format(name), 1)
    after = GIVEN.replace("    return level\n", again.format("gate").replace("gate()", "gate(level, name)"), 1)
    claim = MergedFunctions("main.py", "gate", ("north_gate", "mill_gate"))
    assert not verdict(text, after, claim).proved


BLOCKS = """
def opening(level):
    return level // 3


def main(level):
    print("start", level)
    level = 311
    percent = opening(level)
    print("level", level, "cm", percent)
    level += 1
    print("opening", percent, "%", level)
    print("between")
    level = 254
    percent = opening(level)
    print("level", level, "cm", percent)
    level += 1
    print("opening", percent, "%", level)


main(5)
"""
TAKEN_OUT = """
def opening(level):
    return level // 3


def show(level):
    percent = opening(level)
    print("level", level, "cm", percent)
    level += 1
    print("opening", percent, "%", level)


def main(level):
    print("start", level)
    show(311)
    print("between")
    show(254)


main(5)
"""


@pytest.mark.parametrize(
    ("before", "after", "right"),
    [
        ("", "", True),
        ("", "show(254)|show(255)", False),
        ("main(5)|main(5)\nprint(7)", "main(5)|main(5)\nprint(7)", True),
        ('    print("between")|    print("between", level)', '    print("between")|    print("between", level)', False),
        ("", "def show(level):|def show(gate):", False),
        ("    level += 1\n|", "    level += 1\n|", True),
        ("    level = 311|    other = 1\n    level = 311", "    show(311)|    other = 1\n    show(311)", True),
    ],
)
def test_a_copys_first_value_is_given_to_the_function(before: str, after: str, right: bool) -> None:
    texts = []
    for text, change in ((BLOCKS, before), (TAKEN_OUT, after)):
        old, _, new = change.partition("|")
        assert old in text
        texts.append(text.replace(old, new) if old else text)
    assert verdict(*texts, NewFunction("main.py", "show")).proved is right


def test_another_value_is_not_worked_out_before_the_variable_has_its_own() -> None:
    copy = "    level = {0}\n    print('level', level + {1})\n    print('of', level)\n"
    before = "def main(level):\n" + copy.format(3, 1) + copy.format(4, 1) + "\n\nmain(5)\n"
    shown = "def show(level, more):\n    print('level', more)\n    print('of', level)\n\n\n"
    after = shown + "def main(level):\n    show(3, level + 1)\n    show(4, level + 1)\n\n\nmain(5)\n"
    assert not verdict(before, after, NewFunction("main.py", "show")).proved
