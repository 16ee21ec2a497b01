"""Suggestions in other languages: what is written, in the student's style; what is left alone."""

from pathlib import Path

import pytest
from builders import report, rules, worked
from runners import require_same_output


def test_a_counting_loop_in_c_takes_the_number_out_of_the_text():
    lines = "".join(f'    printf("gate {n}\\n");\n    open_gate({n});\n' for n in range(1, 5))
    text = "#include <stdio.h>\nvoid open_gate(int gate);\nint main(void) {\n" + lines + "    return 0;\n}\n"
    result = worked(text, "c")
    assert '    for (int gate = 1; gate < 5; gate++) {\n        printf("gate %d\\n", gate);\n' in result
    assert "        open_gate(gate);\n    }\n" in result


def test_words_in_c_stand_in_a_list_before_the_loop():
    words = ["north", "mill", "east", "quay"]
    lines = "".join(f'    puts("{w}");\n    puts("-----");\n    beep(3);\n' for w in words)
    result = worked("#include <stdio.h>\nvoid beep(int n);\nint main(void) {\n" + lines + "    return 0;\n}\n", "c")
    assert '= {"north", "mill", "east", "quay"};' in result
    assert "const char *" in result
    assert "for (int i = 0; i < 4; i++) {" in result


def test_javascript_runs_through_values_in_place_and_joins_texts_as_the_student_does():
    lines = "".join(f"  show('{w}', {n});\n  wait(10);\n" for w, n in [("mill", 3), ("ferry", 8), ("quay", 2)])
    result = worked("function main() {\n" + lines + "}\nmain();\n", "javascript")
    assert "of [['mill', 3], ['ferry', 8], ['quay', 2]]) {" in result


def test_old_javascript_gets_no_new_words():
    lines = "".join(f"  show('gate {n}');\n  wait({n} * 2);\n" for n in range(1, 5))
    result = worked("var used = 1;\nfunction main() {\n" + lines + "}\nmain();\n", "javascript")
    assert "for (var gate = 1; gate < 5; gate++) {" in result
    assert "`" not in result
    assert "let " not in result


def test_java_methods_stand_after_the_one_they_come_from():
    block = (
        '        System.out.println("-----");\n        System.out.println("level " + {0});\n'
        '        if ({0} > 250) {{\n            System.out.println("high water");\n        }}\n'
    )
    text = (
        "public class Main {\n    static void day(int tide) {\n"
        + block.format("tide")
        + '    }\n\n    static void night(int flood) {\n        System.out.println("night");\n'
        + block.format("flood")
        + "    }\n\n    public static void main(String[] args) {\n        day(200);\n        night(300);\n        int ebb = 7;\n"
        + block.format("ebb")
        + "    }\n}\n"
    )
    result = worked(text, "java")
    assert "    static void day(int tide) {\n" in result
    assert result.count("high water") == 1
    assert "(flood);" in result


def test_a_result_that_was_declared_in_the_copies_is_declared_by_the_call():
    block = "    int {0} = analogRead({1});\n    {0} = {0} * 2 + 5;\n    delay(20);\n    Serial.println({0});\n"
    text = "void loop() {\n" + block.format("first", "A0") + "    blink();\n" + block.format("second", "A1")
    text += "    blink();\n" + block.format("third", "A2")
    text += "    if (first > second + third) {\n        blink();\n    }\n}\n\nvoid blink() {\n    delay(5);\n}\n"
    result = worked(text, "arduino")
    assert "    int first = " in result
    assert "    int second = " in result
    assert result.count("analogRead") == 1
    assert "return value;" in result


def test_braces_below_stay_below():
    lines = "".join(f"    shut({n});\n    lock({n});\n" for n in range(1, 5))
    text = "void shut(int n);\nvoid lock(int n);\nint main(void)\n{\n" + lines + "    return 0;\n}\n"
    assert "i++)\n    {\n        shut(i);" in worked(text, "c")


def test_twins_in_javascript_become_one_and_their_calls_are_rewritten():
    twin = (
        "function weigh{0}(n) {{\n  let sum = 0;\n  for (let i = 0; i < n; i++) {{\n    sum += {1};\n  }}\n"
        '  console.log("{0} weigh " + sum);\n  return sum;\n}}\n'
    )
    text = twin.format("Goats", 40) + twin.format("Sheep", 55) + "console.log(weighGoats(4) + weighSheep(7));\n"
    result = worked(text, "javascript")
    assert result.count("function ") == 1
    assert '(4, 40, "Goats")' in result
    assert '(7, 55, "Sheep")' in result


@pytest.mark.parametrize(
    ("language", "text"),
    [
        (
            "arduino",
            "void setup() {\n  pinMode(2, OUTPUT);\n}\n\nvoid loop() {\n  digitalWrite(2, HIGH);\n  delay(5);\n}\n",
        ),
        (
            "java",
            "public class Gate {\n  private int level;\n  public Gate(int level) {\n    this.level = level;\n  }\n  public int getLevel() {\n    return level;\n  }\n  public static void main(String[] args) {\n    System.out.println(new Gate(3).getLevel());\n  }\n}\n",
        ),
        (
            "javascript",
            "function setup() {\n  createCanvas(400, 300);\n}\nfunction draw() {\n  circle(mouseX, mouseY, 20);\n}\n",
        ),
        (
            "c",
            '#include <stdio.h>\nint main(int argc, char **argv) {\n  for (int i = 0; i < 3; i++) puts("a");\n  return 0;\n}\n',
        ),
        (
            "csharp",
            "class Program {\n  static void Main(string[] args) {\n    System.Console.WriteLine(Twice(2));\n  }\n  static int Twice(int n) {\n    return n * 2;\n  }\n}\n",
        ),
    ],
)
def test_what_a_framework_calls_is_no_finding(language, text):
    assert rules(text, language=language) == []


@pytest.mark.parametrize(
    ("head", "said"),
    [
        ("for (int i = 0; i <= 5; i++) sum += levels[i];", "past its end"),
        ("for (int i = 9; i < 5; i++) sum += i;", "never runs"),
        ("for (int i = 5; i > 0; i++) sum += i;", "counts up"),
    ],
)
def test_loops_that_cannot_run_as_meant(head, said):
    text = f"int main(void) {{\n  int levels[5] = {{1, 2, 3, 4, 5}};\n  int sum = 0;\n  {head}\n  return sum;\n}}\n"
    (finding,) = [f for f in report(text, language="c").findings if f.rule == "idle-loop"]
    assert said in finding.message


def test_an_unknown_library_function_is_no_slip_but_a_misspelt_own_one_is():
    text = "function openGate(n) {\n  console.log(n);\n}\nopenGaet(1);\nopenGate(2);\nwibble(3);\n"
    found = [f for f in report(text, language="javascript").findings if f.rule == "undefined-call"]
    assert [f.subject for f in found] == ["openGaet"]


def test_overloads_are_no_redefinition():
    text = "class Main {\n  static int twice(int n) {\n    return n * 2;\n  }\n  static double twice(double n) {\n    return n * 2;\n  }\n  public static void main(String[] a) {\n    System.out.println(twice(2) + twice(2.5));\n  }\n}\n"
    assert "redefined-function" not in rules(text, language="java")


def test_a_variable_with_a_second_name_is_left_alone():
    block = '    total = total + {0};\n    printf("%d\\n", total);\n    count = count + total;\n    puts("---");\n'
    text = "#include <stdio.h>\nint work(void) {\n    int total = 0, count = 0;\n    int *p = &total;\n"
    text += (
        block.format(3)
        + "    *p = 5;\n"
        + block.format(4)
        + "    return count;\n}\nint main(void) {\n    return work();\n}\n"
    )
    found = report(text, language="c")
    assert all(s.status == "outline" for s in found.suggestions if s.kind == "function")


def test_a_number_worked_out_inside_a_text_is_proved():
    lines = "".join(f'  show("bag {n} is sealed");\n  show("  shelf {n + 10}");\n' for n in range(1, 5))
    result = worked("function main() {\n" + lines + "}\nmain();\n", "javascript")
    assert "show(`  shelf ${bag + 10}`);" in result


def test_copies_that_return_early_at_the_end_of_handlers_become_calls():
    handler = (
        'on("{0}", function () {{\n  const plate = read();\n  if (plate === "") {{\n    say("type a plate first");\n'
        '    return;\n  }}\n  say(plate + " parks on {0}");\n  clear();\n}});\n'
    )
    result = worked("".join(handler.format(w) for w in ["red", "blue", "green"]), "javascript")
    assert result.count("type a plate first") == 1
    assert result.count("    return;") == 1


def test_copies_that_return_early_in_the_middle_are_left_alone():
    block = '  if (n > {0}) {{\n    say("stop");\n    return;\n  }}\n  say("go");\n  n = n + 1;\n  say(n);\n'
    text = (
        "function main() {\n  let n = 1;\n"
        + block.format(5)
        + "  wait();\n"
        + block.format(6)
        + "  wait();\n}\nmain();\n"
    )
    assert all(s.status == "outline" for s in report(text, language="javascript").suggestions if s.kind == "function")


def test_near_twins_are_said_with_what_they_share():
    twin = 'void {0}(void) {{\n  puts("{0}");\n  int level = measure(3);\n  beep(level);\n  if (level > 600) {{\n    pump(4);\n    wait(30);\n  }}\n{1}  puts("done");\n}}\n'
    text = (
        twin.format("day", "")
        + twin.format("night", "  lamp(1);\n")
        + "int main(void) {\n  day();\n  night();\n  return 0;\n}\n"
    )
    (finding,) = [f for f in report(text, language="c").findings if f.rule == "twin-functions"]
    assert finding.message == "day and night are alike but for one line."


RINK = """\
public class Rink {{
    int skaters = 0;

    void openMorning() {{
        System.out.println("lights on");
        System.out.println("music: waltz");
        skaters = skaters + 20;
        System.out.println("skaters now " + skaters);
    }}

    void openEvening() {{
        System.out.println("lights on");
        System.out.println("music: disco");
        skaters = skaters + 55;
        System.out.println("skaters now " + skaters);
    }}

    public static void main(String[] args) {{
        {0} r = {1};
        r.openMorning();
        r.openEvening();
    }}
}}
"""


def test_twin_methods_are_merged_where_their_object_is_in_sight():
    result = worked(RINK.format("Rink", "new Rink()"), "java")
    assert result.count("lights on") == 1
    assert "r." in result
    assert '("waltz", 20);' in result
    assert '("disco", 55);' in result


def test_twin_methods_stay_where_the_object_could_be_another():
    result = worked(RINK.format("Hall", "Hall.nearest()"), "java")
    assert result.count("lights on") == 2


GALLERY = """\
const later = [];
later.push(() => {
  console.log("heron");
  console.log(level, 1);
});
later.push(() => {
  console.log("tern");
  console.log(level, 2);
});
later.push(() => {
  console.log("gull");
  console.log(level, 3);
});
let level = 4;
later.forEach((show) => show());
"""


def test_what_a_handler_keeps_of_a_turn_stays_that_turns(tmp_path: Path) -> None:
    after = worked(GALLERY, "javascript")
    assert "for (let i = " in after
    require_same_output("javascript", GALLERY, after, tmp_path)
    old = GALLERY.replace("const later", "var later").replace("let level", "var level")
    assert [s.status for s in report(old, language="javascript").suggestions] == ["outline"]
