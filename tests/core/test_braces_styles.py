"""How suggestions look in each language: where they stand, what they are called, how lists are written."""

import pytest
from builders import report, worked


def test_csharp_runs_through_words_with_foreach_and_keeps_braces_below():
    lines = "".join(f'        Show("{w}");\n        Wait(20);\n' for w in ["mill", "quay", "ferry", "dyke"])
    text = "class Program\n{\n    static void Main()\n    {\n" + lines + "    }\n"
    text += "    static void Show(string what)\n    {\n        Log(what);\n    }\n}\n"
    result = worked(text, "csharp")
    assert 'foreach (string whatValue in new[] { "mill", "quay", "ferry", "dyke" })\n        {\n' in result
    assert "            Show(whatValue);\n            Wait(20);\n" in result


def test_java_runs_through_words_in_place():
    lines = "".join(f'        show("{w}");\n        rest(20);\n' for w in ["mill", "quay", "ferry", "dyke"])
    text = "class Main {\n    static void show(String what) {\n        log(what);\n    }\n"
    text += "    public static void main(String[] args) {\n" + lines + "    }\n}\n"
    assert 'for (String what2 : new String[] {"mill", "quay", "ferry", "dyke"}) {' in worked(text, "java").replace(
        "whatValue", "what2"
    )


def test_two_columns_in_java_are_two_lists_with_one_index():
    rows = [("mill", 3), ("quay", 8), ("ferry", 2), ("dyke", 9)]
    lines = "".join(f'        show("{w}");\n        rest({n});\n' for w, n in rows)
    text = "class Main {\n    public static void main(String[] args) {\n" + lines + "    }\n}\n"
    result = worked(text, "java")
    assert 'String[] names = {"mill", "quay", "ferry", "dyke"};' in result
    assert "= {3, 8, 2, 9};" in result
    assert "for (int i = 0; i < 4; i++) {" in result


def test_values_of_different_types_are_no_list():
    lines = "".join(f"    show({v});\n    rest(20);\n    beep();\n" for v in ["3", "2.5", "7", "1.25"])
    text = "int main(void) {\n" + lines + "    return 0;\n}\n"
    (suggestion,) = report(text, language="c").suggestions
    assert suggestion.status == "outline"
    assert "not the others'" in suggestion.why_not


def test_parameters_on_boards_are_called_after_what_takes_them():
    block = "  digitalWrite({0}, HIGH);\n  delay({1});\n  digitalWrite({0}, LOW);\n  delay(50);\n"
    text = "void loop() {\n" + block.format(4, 100) + "  readAll();\n" + block.format(5, 300) + "  readAll();\n"
    text += block.format(9, 250) + "}\n"
    result = worked(text, "arduino")
    assert "(int pin, int pause) {" in result
    assert "(4, 100);" in result


def test_a_function_in_javascript_stands_after_the_constants_above():
    block = "show({0});\nlog.push({0});\ncount = count + {0};\nconsole.log(count);\n"
    text = (
        "const log = [];\nlet count = 0;\n\n"
        + block.format(3)
        + "rest();\n"
        + block.format(8)
        + "rest();\n"
        + block.format(5)
    )
    result = worked(text, "javascript")
    assert result.startswith("const log = [];\nlet count = 0;\n\nfunction ")


def test_a_function_is_an_arrow_where_all_of_the_students_are():
    block = "  show({0});\n  wait({0});\n  console.log('gate', {0});\n  rest();\n"
    text = (
        "const rest = () => {\n  wait(1);\n};\n\nconst main = () => {\n"
        + block.format(3)
        + "  sing();\n"
        + block.format(8)
    )
    text += "  sing();\n" + block.format(5) + "};\n\nmain();\n"
    result = worked(text, "javascript")
    assert ") => {\n  show(" in result
    assert "function" not in result


@pytest.mark.parametrize("stop", ["", ";"])
def test_semicolons_are_written_where_the_student_writes_them(stop):
    block = ["show({0})", "wait({0})", "console.log('gate', {0}, 'cm')", "rest()"]
    parts = [line.format(n) for n, after in ((3, "sing()"), (8, "hum()"), (5, "end()")) for line in (*block, after)]
    result = worked("\n".join(f"{line}{stop}" for line in parts) + "\n", "javascript")
    assert result.count("log(") == 1
    assert f"(8){stop}\nhum(){stop}\n" in result


def test_a_step_is_cut_out_of_a_branch():
    inner = "".join(f"      total = total + part{n}(total);\n      show(total, {n});\n" for n in range(1, 7))
    text = "function main(n) {\n  let total = 0;\n  for (let i = 0; i < n; i++) {\n    if (i % 2 === 0) {\n"
    text += inner + "    } else {\n      rest(i);\n    }\n  }\n"
    text += "".join(f"  end{n}(total);\n" for n in range(8)) + "}\nmain(4);\n"
    result = worked(text, "javascript")
    assert "      total = " in result
    assert "return total;" in result


def test_near_copies_in_branches_are_said():
    branch = (
        '    puts("opening {0}");\n    motor(3);\n    rest(20);\n{1}    lamp(3, 1);\n    puts("open");\n    count++;\n'
    )
    text = "int count;\nvoid go(int which) {\n  if (which == 1) {\n" + branch.format("north", "") + "  } else {\n"
    text += branch.format("south", "    horn(1);\n") + "  }\n}\nint main(void) {\n  go(1);\n  return 0;\n}\n"
    found = [f for f in report(text, language="c").findings if f.rule == "repeated-block"]
    assert len(found) == 1
    assert "alike but for one line" in found[0].message or "stand in two places" in found[0].message
