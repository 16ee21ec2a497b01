"""Required functions, the call map, and the slips that refactoring invites."""

import pytest
from builders import report, rules

ASKED = """
    format = "partitor-assignment"
    version = 1
    entry = "main"

    [[functions]]
    name = "mean_level"
    also = ["average"]
    parameters = 1
    returns = true
    purpose = "works out the mean of the levels"
    """


def finding(text: str, rule: str, assignment: str = ""):
    found = [f for f in report(text, assignment).findings if f.rule == rule]
    assert len(found) == 1, [f.message for f in found]
    return found[0]


MAIN = "\ndef main():\n    print({call})\n\nmain()\n"


def test_a_required_function_is_known_in_any_naming_style():
    for name in ("mean_level", "meanLevel", "average"):
        text = f"def {name}(levels):\n    return sum(levels) / len(levels)\n" + MAIN.format(call=f"{name}([1, 2])")
        assert rules(text, ASKED) == []


def test_a_misspelt_one_is_named_and_not_called_uncalled_too():
    text = "def mean_levle(levels):\n    return sum(levels) / len(levels)\n" + MAIN.format(call="mean_levle([1])")
    assert finding(text, "missing-function", ASKED).message == "mean_level is asked for; it is there as mean_levle."


def test_a_function_that_is_not_as_asked_is_said_so():
    text = "def mean_level(levels, unit):\n    return sum(levels), unit\n" + MAIN.format(call="mean_level([1], 2)")
    assert "takes 2 parameters, where 1 is asked" in finding(text, "missing-function", ASKED).message
    text = "def mean_level(levels):\n    print(sum(levels))\n" + MAIN.format(call="mean_level([1])")
    assert "returns nothing" in finding(text, "missing-function", ASKED).message


def test_the_lines_that_do_a_missing_functions_job_are_pointed_at_and_moved():
    text = """
        def main():
            levels = [3, 4, 8]
            print("levels", levels)
            # mean of the levels
            total = 0
            for level in levels:
                total = total + level
            mean = total / len(levels)
            print("mean", mean)

        main()
        """
    found = finding(text, "missing-function", ASKED)
    place = found.places[0]
    assert (place.start_line, place.end_line) == (5, 8)
    (suggestion,) = report(text, ASKED).suggestions
    assert suggestion.status == "proved"
    assert any("mean = mean_level(levels)" in c.text for c in suggestion.changes)


def test_uncalled_undefined_and_redefined():
    text = """
        def open_gate():
            print("open")

        def shut_gate():
            print("shut")

        def shut_gate():
            print("shut again")

        def ring():
            print("ring")

        opengate()
        shut_gate()
        """
    # What the misspelt call means is told once.
    assert finding(text, "uncalled-function").message == "ring is defined, and nothing calls it."
    assert "open_gate is" in finding(text, "undefined-call").message
    assert len(finding(text, "redefined-function").places) == 2


def test_functions_used_as_values_are_not_uncalled():
    text = "def tick():\n    print(1)\n\ndef tock():\n    print(2)\n\nfor f in [tick, tock]:\n    f()\n"
    assert rules(text) == []
    decorated = "import x\n\n@x.route('/')\ndef page():\n    return 1\n\nx.run()\n"
    assert rules(decorated) == []


def test_a_star_import_may_define_anything():
    assert rules("from turtle import *\nforward(10)\nleft(90)\ndone()\n") == []


def test_outer_variables_unused_parameters_and_vague_names():
    text = """
        count = 0

        def func1(gate, unit):
            global count
            count = count + 1
            print(gate)

        func1(3, "cm")
        print(count)
        """
    assert "changes count" in finding(text, "outer-variable").message
    assert finding(text, "unused-parameter").message == "func1 never reads its parameter unit."
    assert finding(text, "vague-name").subject == "func1"


def test_idle_loops():
    assert "never runs" in finding("for i in range(10, 0):\n    print(i)\n", "idle-loop").message
    assert "never runs" in finding("n = 10\nwhile n < 5:\n    n = n + 1\n", "idle-loop").message
    past = "levels = [3, 4]\nfor i in range(len(levels) + 1):\n    print(levels[i])\n"
    assert "past the end" in finding(past, "idle-loop").message
    assert "number 2" in finding("a = [3, 4]\nfor i in range(3):\n    print(a[i])\n", "idle-loop").message


def test_loops_that_run_are_not_idle():
    for text in (
        "for i in range(10, 0, -1):\n    print(i)\n",
        "n = 10\nwhile n > 5:\n    n = n - 1\n",
        "a = [3, 4]\na.append(5)\nfor i in range(3):\n    print(a[i])\n",
        "a = [3, 4]\nfor i in range(3):\n    if i < 2:\n        print(a[i])\n",
        "n = 10\nn = int(input())\nwhile n < 5:\n    n = n + 1\n",
    ):
        assert rules(text) == []


def test_loose_code_counts_work_only():
    found = finding(
        "import math\nLIMIT = 3\nprint(LIMIT)\n\ndef main():\n    print(math.pi)\n\nmain()\n", "loose-code", ASKED
    )
    assert [(p.start_line, p.end_line) for p in found.places] == [(3, 3)]


def test_comments_are_asked_for_only_where_the_assignment_asks():
    text = "def show():\n    print(1)\n\n# says two\ndef tell():\n    print(2)\n\nshow()\ntell()\n"
    assert rules(text) == []
    asked = 'format = "partitor-assignment"\nversion = 1\n[rules]\ndocumented = true\n'
    assert finding(text, "undocumented-function", asked).subject == "show"


def test_a_rule_can_be_switched_off():
    off = 'format = "partitor-assignment"\nversion = 1\n[rules]\noff = ["idle-loop"]\n'
    assert rules("for i in range(10, 0):\n    print(i)\n", off) == []


def test_nesting_and_size():
    deep = "def f(a):\n" + "".join("    " * n + "if a:\n" for n in range(1, 6)) + "    " * 6 + "print(a)\n\nf(1)\n"
    assert "nested five deep" in finding(deep, "oversized-procedure").message
    long = (
        "def f(a):\n"
        + "".join(f"    a{n} = a * {n} + {n * n % 7}\n    show{n % 3}(a{n}, '{n}')\n" for n in range(12))
        + "f(1)\n"
    )
    found = [f for f in report(long).findings if f.rule == "oversized-procedure"]
    assert len(found) <= 1


def test_a_forgotten_bracket_costs_one_line_and_no_false_alarm():
    text = """
        def show(name):
            print("gate", name

        def main():
            show("north")
            show("mill")

        main()
        """
    found = report(text)
    assert [p.line for p in found.files[0].problems][:1] == [2]
    assert found.findings == ()
    assert found.measures["procedures"] == 2


def test_a_required_function_that_need_not_be_called_is_not_reported_as_uncalled():
    text = """
    def main():
        print("nothing yet")


    def mean_level(levels):
        return sum(levels) / len(levels)


    main()
    """
    asked = """
    entry = "main"

    [[functions]]
    name = "mean_level"
    called = {}
    """
    assert rules(text, asked.format("false")) == []
    assert rules(text, asked.format("true")) == ["uncalled-function"]


def test_a_handler_may_keep_something_outside_itself():
    text = """
    import turtle

    colour = "red"


    def change_colour(x, y):
        global colour
        colour = "blue"
        turtle.color(colour)


    turtle.onclick(change_colour)
    turtle.mainloop()
    """
    assert rules(text) == []


@pytest.mark.parametrize(
    ("language", "head", "end", "runs"),
    [
        ("visualbasic", "For i = 10 To 1", "Next i", False),
        ("visualbasic", "For i = 10 To 1 Step -1", "Next i", True),
        ("visualbasic", "For i = 1 To 1", "Next i", True),
        ("visualbasic", "For i = 1 To 9 Step -2", "Next i", False),
        ("swift", "for i in stride(from: 5, to: 1, by: 1) {", "}", False),
        ("swift", "for i in stride(from: 5, to: 1, by: -1) {", "}", True),
        ("swift", "for i in 3..<3 {", "}", False),
        ("swift", "for i in 3...3 {", "}", True),
    ],
)
def test_numbers_that_a_loop_cannot_run_through(language, head, end, runs):
    show = "Debug.Print i" if language == "visualbasic" else "print(i)"
    lines = [head, f"    {show}", end]
    text = "\n".join(["Sub Main()", *lines, "End Sub"] if language == "visualbasic" else lines) + "\n"
    assert ("idle-loop" in rules(text, language=language)) is not runs


@pytest.mark.parametrize(("called", "told"), [("aera", True), ("acre", False), ("arc", False)])
def test_two_letters_in_the_wrong_order_are_a_slip(called, told):
    text = f"func area(_ a: Int) -> Int {{\n    return a * a\n}}\n\nprint({called}(2))\nprint(area(3))\n"
    assert ("undefined-call" in rules(text, language="swift")) is told


BERTHS = """
import java.util.ArrayList;

public class Berths {
    private ArrayList<String> boats = new ArrayList<>();

    public void arrive(String boat) {
        boats.add(boat);
    }

    public String toString() {
        return boats.size() + " boats";
    }
}
"""


def test_a_class_that_nothing_uses_yet_is_handed_in_to_be_used():
    assert rules(BERTHS, language="java") == []
    runs = BERTHS.rstrip().removesuffix("}") + "    public static void main(String[] words) {\n    }\n}\n"
    assert rules(runs, language="java") == ["uncalled-function"]
    gauge = "export class Gauge {\n  mean(): number {\n    return 0;\n  }\n}\n"
    assert rules(gauge, language="typescript") == []
