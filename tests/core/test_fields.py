"""Fields as values that differ: given to a function or listed only where reading them early changes nothing."""

from __future__ import annotations

import pytest

from core.builders import report, worked

ROUTES = """
let northTotal = 0;
for (const n of routes.north) {
  northTotal += n;
}
const northMean = northTotal / routes.north.length;
console.log("north " + northMean);

let southTotal = 0;
for (const n of routes.south) {
  southTotal += n;
}
const southMean = southTotal / routes.south.length;
console.log("south " + southMean);
console.log(northMean + southMean);
"""
PLAIN = "const routes = { north: [4, 8], south: [16] };\n"


def statuses(language: str, text: str) -> list[tuple[str, str]]:
    """(rule, suggestion's status) of what is found in a text."""
    found = report(text, language=language)
    status = {s.id: s.status for s in found.suggestions}
    return [(f.rule, status.get(f.suggestion or "", "")) for f in found.findings if f.rule.startswith("repeated")]


def test_fields_of_an_object_in_sight_are_given_to_the_function() -> None:
    assert statuses("javascript", PLAIN + ROUTES) == [("repeated-block", "proved")]


@pytest.mark.parametrize(
    "above",
    [
        PLAIN + "routes.north = [1];\n",
        PLAIN + "change(routes);\nfunction change(r) { r.north = [2, 3]; }\n",
        PLAIN + "const other = routes;\n",
        PLAIN + "routes.north++;\n",
        PLAIN + "[routes.north] = [[9]];\n",
        "const routes = { get north() { return [1]; }, south: [2] };\n",
        "const more = { south: [2] };\nconst routes = { north: [1], ...more };\n",
        "let routes = { north: [1], south: [2] };\nroutes = make();\n",
    ],
    ids=["assigned", "handed on", "second name", "counted", "pattern", "getter", "spread", "given again"],
)
def test_a_field_that_may_change_is_told_in_words(above: str) -> None:
    assert statuses("javascript", above + ROUTES) == [("repeated-block", "outline")]


C_FIELDS = """#include <stdio.h>
struct Tank {{ int level; int room; }};
int main(void) {{
    struct Tank tank = {{30, 45}};
    {above}
    printf("a line for the level\\n");
    if (tank.level > 20) {{
        printf("this is over twenty by %d\\n", tank.level - 20);
        printf("open the valve\\n");
    }}
    printf("half of it is %d\\n", tank.level / 2);
    puts("and now");
    if (tank.room > 20) {{
        printf("this is over twenty by %d\\n", tank.room - 20);
        printf("open the valve\\n");
    }}
    printf("half of it is %d\\n", tank.room / 2);
    return 0;
}}
"""


def test_fields_of_a_record_have_their_types() -> None:
    assert statuses("c", C_FIELDS.format(above="")) == [("repeated-block", "proved")]


def test_a_record_that_a_pointer_may_change_stays() -> None:
    found = statuses("c", C_FIELDS.format(above="struct Tank *other = &tank; other->level = 3;"))
    assert found == [("repeated-block", "outline")]


def test_constants_of_an_enumeration_are_listed() -> None:
    lines = "".join(
        f'        Console.ForegroundColor = ConsoleColor.{colour};\n        Console.WriteLine("{word}");\n'
        '        Console.WriteLine("----");\n        Console.ResetColor();\n'
        for colour, word in (("Red", "stop"), ("Green", "go"), ("Yellow", "wait"))
    )
    text = worked(f"using System;\n\nclass P\n{{\n    static void Main()\n    {{\n{lines}    }}\n}}\n", "csharp")
    assert "ConsoleColor[] foregroundColors = " in text


GREENHOUSE = """{declared} fan = 5;
{declared} mist = 6;

void setup() {{
  pinMode(fan, OUTPUT);
}}

void runFan(int seconds) {{
  digitalWrite(fan, HIGH);
  delay(1000 * seconds);
  digitalWrite(fan, LOW);
  Serial.println("done");
}}

void runMist(int seconds) {{
  digitalWrite(mist, HIGH);
  delay(1000 * seconds);
  digitalWrite(mist, LOW);
  Serial.println("done");
}}

void loop() {{
  runFan(5);
  runMist(3);{changed}
}}
"""


def test_a_variable_that_nobody_changes_is_given_like_a_constant() -> None:
    assert "fan)" in worked(GREENHOUSE.format(declared="int", changed=""), "arduino")


@pytest.mark.parametrize(
    ("declared", "changed"),
    [("volatile int", ""), ("int", "\n  fan = 7;"), ("int", "\n  int *pin = &fan;"), ("int", "\n  int &pin = fan;")],
)
def test_a_variable_that_may_change_is_not(declared: str, changed: str) -> None:
    text = GREENHOUSE.format(declared=declared, changed=changed)
    assert worked(text, "arduino") == text


def test_a_variable_that_a_macro_may_change_is_not() -> None:
    text = "#define RESET() fan = 9\n" + GREENHOUSE.format(declared="int", changed="\n  RESET();")
    assert worked(text, "arduino") == text
