"""Copies that give variables a value anew: declared in the first, or the program's; and words in what is printed."""

from __future__ import annotations

from pathlib import Path

import pytest

from core.builders import file, named, printed, read
from core.runners import can_run, outputs, require_same_output
from core.sweeps import Group, proved_in, require_same
from core.wild_braces import wild_again
from core.wild_first import wild_first
from partitor.suggestions.proof import NewFunction, prove

RAIN = """#include <stdio.h>

int main(void) {
    int north[4] = {3, 5, 2, 8};
    int south[4] = {1, 0, 4, 6};
    int sum = 0;
    int most = north[0];
    for (int i = 0; i < 4; i++) {
        sum += north[i];
        if (north[i] > most) {
            most = north[i];
        }
    }
    printf("%d: most in the north %d\\n", sum, most);
    sum = 0;
    most = south[0];
    for (int i = 0; i < 4; i++) {
        sum += south[i];
        if (south[i] > most) {
            most = south[i];
        }
    }
    printf("%d: most in the south %d\\n", sum, most);
    return 0;
}
"""


def worked(text: str, language: str) -> str:
    (name,) = {"c": ("main.c",), "arduino": ("main.ino",), "javascript": ("main.js",)}[language]
    return named({name: text}, language).worked_answer.files.get(name, text)


def test_what_the_first_copy_declares_becomes_the_functions_own(tmp_path: Path) -> None:
    after = worked(RAIN, "c")
    assert "void printMost(int values[], const char *name) {\n    int sum = 0;\n    int most = values[0];\n" in after
    assert 'printf("%d: most in the %s %d\\n", sum, name, most);' in after
    assert '    printMost(north, "north");\n    printMost(south, "south");\n    return 0;' in after
    require_same_output("c", RAIN, after, tmp_path)


@pytest.mark.parametrize(
    "behind",
    [
        '    sum = 7;\n    printf("%d\\n", sum);\n',
        '    printf("%d\\n", sum);\n',
        "    int *kept = &sum;\n    *kept = 3;\n",
    ],
)
def test_a_declaration_that_others_need_stays(behind: str, tmp_path: Path) -> None:
    text = RAIN.replace("    return 0;\n", f"{behind}    return 0;\n")
    after = worked(text, "c")
    require_same_output("c", text, after, tmp_path)


def test_a_function_that_begins_with_another_value_is_refused() -> None:
    before = read(RAIN, "c")
    good = worked(RAIN, "c")
    claim = NewFunction(before.path, "printMost")
    assert prove(before, read(good, "c"), claim).proved
    for old, new in (
        ("int sum = 0;", "int sum = 1;"),
        ("int sum = 0;", "int sum;"),
        ("int sum = 0;", "static int sum = 0;"),
        ("int sum = 0;", "long sum = 0;"),
        ("int most = values[0];", "int most = values[1];"),
        ("sum, name, most", "most, name, sum"),
        ("sum, name, most", "sum, most, name"),
        ("most in the %s %d", "most in the %5s %d"),
        ('printMost(south, "south")', 'printMost(south, "north")'),
    ):
        assert good.replace(old, new) != good, old
        assert not prove(before, read(good.replace(old, new), "c"), claim).proved, new


BUTTONS = """int northState = 0;
int southState = 0;

void setup() {
  pinMode(8, INPUT);
  pinMode(9, INPUT);
}

void loop() {
  northState = digitalRead(8);
  if (northState == HIGH) {
    tone(4, 440);
    delay(50);
    noTone(4);
    Serial.println("north");
  }
  southState = digitalRead(9);
  if (southState == HIGH) {
    tone(4, 880);
    delay(50);
    noTone(4);
    Serial.println("south");
  }
}
"""


def test_a_variable_of_the_program_gets_what_the_function_gives_back() -> None:
    after = worked(BUTTONS, "arduino")
    assert '  northState = readState(8, 440, "north");\n  southState = readState(9, 880, "south");\n' in after
    assert "int readState(int input, int pitch, const char *text) {\n  int state = digitalRead(input);\n" in after


@pytest.mark.parametrize(
    ("old", "new"),
    [
        ("int northState = 0;", "volatile int northState = 0;"),
        ("pinMode(9, INPUT);", "pinMode(9, INPUT);\n  attachInterrupt(0, ring, RISING);"),
        ("delay(50);", "ring();"),
        ("delay(50);", "unknownCall();"),
        ("int northState = 0;", "int northState = 0;\nint *watched = &northState;"),
        ("int northState = 0;", "int northState = 0;\n#define LEVEL northState"),
    ],
)
def test_what_could_see_it_in_between_stops_it(old: str, new: str) -> None:
    ring = "void ring() {\n  Serial.println(northState);\n}\n\nvoid setup() {"
    text = BUTTONS.replace("void setup() {", ring).replace(old, new)
    assert not any(
        "readState" in s.title for s in named({"main.ino": text}, "arduino").suggestions if s.status == "proved"
    )


RUN = [x for x in ("javascript", "gamescript", "c", "arduino", "java", "csharp") if can_run(x)]


@pytest.mark.parametrize("language", RUN)
def test_wild_programs_that_give_values_anew_print_the_same(language: str, tmp_path: Path) -> None:
    groups: list[Group] = []
    for seed in range(30):
        text = wild_again(seed, language)
        groups.append((text, proved_in(text, language)[1]))
    assert sum(len(texts) for _, texts in groups) > 15
    require_same(groups, lambda texts: outputs(language, texts, tmp_path), unless="ERROR|DOES NOT COMPILE|timed out")


MEANS = """prices = [3, 9, 4]
dearest = prices[0]
for p in prices:
    if p > dearest:
        dearest = p
print("dearest", dearest)
weights = [12, 7, 30]
top = weights[0]
for w in weights:
    if w > top:
        top = w
print("heaviest", top)
"""


def test_a_list_that_each_copy_calls_otherwise_is_given_to_the_function() -> None:
    before = file(MEANS)
    after = named({"main.py": MEANS}, "python").worked_answer.files["main.py"]
    assert "(values, name):\n" in after
    assert '([3, 9, 4], "dearest")\n' in after
    name = after.split("def ")[1].split("(")[0]
    claim = NewFunction(before.path, name)
    assert prove(before, file(after), claim).proved
    for old, new in (("[3, 9, 4]", "[3, 9, 5]"), ("values[0]", "[3, 9, 4][0]"), ("in values", "in [3, 9, 4]")):
        assert not prove(before, file(after.replace(old, new, 1)), claim).proved, new
    for line in ("print(weights)\n", "def late():\n    return weights\n", "kept = weights\n"):
        more = MEANS + line
        assert not prove(file(more), file(after + line), claim).proved, line


def test_decimals_in_texts_run_through_their_list() -> None:
    text = "".join(f'print("{n / 2} m:", {n / 2} * 3.2)\n' for n in range(1, 6))
    after = named({"main.py": text}, "python").worked_answer.files["main.py"]
    assert 'in [0.5, 1.0, 1.5, 2.0, 2.5]:\n    print(f"{' in after
    odd = text.replace("2.0", "2.00")
    assert not any('f"{' in s.diff for s in named({"main.py": odd}, "python").suggestions)


def test_tests_in_even_steps_that_return_are_a_loop() -> None:
    head = "def wins(b, p):\n"
    rows = "".join(f"    if b[{k}] == p and b[{k + 1}] == p:\n        return True\n" for k in (0, 3, 6))
    text = f"{head}{rows}    return False\n\n\nprint(wins('xxooxx   ', 'x'))\n"
    (found,) = named({"main.py": text}, "python").suggestions
    assert found.kind == "loop"
    assert found.status == "proved"
    grades = (
        head
        + "".join(f'    if b > {k}:\n        return "{w}"\n' for k, w in ((3, "a"), (2, "b"), (1, "c")))
        + "    return p\n"
    )
    assert not any(
        f.rule == "repeated-run" for f in named({"main.py": grades + "\nprint(wins(2, 3))\n"}, "python").findings
    )


def test_wild_first_values_print_the_same() -> None:
    given = 0
    for seed in range(120):
        text = wild_first(seed)
        texts = proved_in(text, "python")[1]
        given += sum("def print_" in after for after in texts)
        said = printed(text) if texts else ""
        for after in texts:
            assert printed(after) == said, f"{text}\n----- became\n{after}"
    assert given > 20
