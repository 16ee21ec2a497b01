"""Twins that each work on a variable of the program, or the class: one function that is given it, where it is the same
thing whenever the function runs."""

from pathlib import Path

import pytest
from builders import printed, report, rules, worked
from runners import require_same_output

PYTHON = """
def biggest_{0}():
    best = {0}s[0]
    for one in {0}s:
        if one > best:
            best = one
    return best
"""
PYTHON_DATA = "jumps = [3, 9, 4]\nweights = [20, 35]\n"
PYTHON_CALLS = "print(biggest_jump())\nprint(biggest_weight())\n"
BRACES = """{head} {{
  {kind} best = {0}[0];
  for (int i = 1; i < 2; i++) {{
    if ({0}[i] > best) {{
      best = {0}[i];
    }}
  }}
  return best;
}}
"""


def both(form: str, **told: str) -> str:
    return "".join(
        form.format(name, head=told.get("head", "").format(name), kind=told.get("kind", ""))
        for name in ("jumps", "weights")
    )


@pytest.mark.parametrize("order", [PYTHON_DATA + "{0}" + PYTHON_CALLS, "{0}" + PYTHON_DATA + PYTHON_CALLS])
def test_a_list_above_or_below_the_functions_is_handed_on(order: str) -> None:
    text = order.format(PYTHON.format("jump") + PYTHON.format("weight"))
    after = worked(text)
    assert after.count("def ") == 1
    assert "(jumps)" in after
    assert printed(after) == printed(text)


@pytest.mark.parametrize(
    ("language", "text"),
    [
        (
            "javascript",
            'const jumps = document.find("a"), weights = [20, 35];\n'
            + both(BRACES, head="function biggest_{0}()", kind="let").replace("int i", "let i")
            + "console.log(biggest_jumps(), biggest_weights());\n",
        ),
        (
            "java",
            "class Main {\n  private static int[] jumps = {3, 9};\n  static int[] weights = {20, 35};\n"
            + both(BRACES, head="static int biggest_{0}()", kind="int")
            + "  public static void main(String[] args) {\n"
            + "    System.out.println(biggest_jumps() + biggest_weights());\n  }\n}\n",
        ),
        (
            "c",
            "#include <stdio.h>\nint jumps[] = {3, 9};\nint weights[] = {20, 35};\n"
            + both(BRACES, head="int biggest_{0}(void)", kind="int")
            + 'int main(void) {\n  printf("%d %d\\n", biggest_jumps(), biggest_weights());\n  return 0;\n}\n',
        ),
        (
            "swift",
            "let jumps = [3, 9]\nlet weights = [20, 35]\n"
            + both(BRACES, head="func biggest_{0}() -> Int", kind="var")
            .replace("for (int i = 1; i < 2; i++)", "for i in 1..<2")
            .replace(";", "")
            + "print(biggest_jumps())\nprint(biggest_weights())\n",
        ),
    ],
)
def test_so_it_is_in_languages_with_braces(language: str, text: str, tmp_path) -> None:
    after = worked(text, language)
    assert after.count("best = ") == 2
    assert after.count("(jumps)") == 1
    text, after = (t.replace('document.find("a")', "[3, 9]") for t in (text, after))
    require_same_output(language, text, after, tmp_path)


@pytest.mark.parametrize(
    "spoiled",
    [
        # A call before the list is there prints before it fails, and then not.
        "try:\n    biggest_weight()\nexcept NameError:\n    print('not yet')\n{data}{calls}",
        # The name may stand for another list later.
        "{data}{calls}jumps = [1]\n{calls}",
        "{data}def change():\n    global weights\n    weights = [1]\nchange()\n{calls}",
        "{data}{calls}del weights\n",
    ],
)
def test_a_variable_that_may_be_another_thing_is_not(spoiled: str) -> None:
    text = PYTHON.format("jump") + PYTHON.format("weight")
    text += spoiled.format(data=PYTHON_DATA, calls=PYTHON_CALLS)
    assert [f.rule for f in report(text).findings].count("twin-functions") == 1
    after = worked(text)
    # At most each looks the variable up when it is called, and hands it on.
    assert after.count("def biggest_jump()") == after.count("def biggest_weight()") == 1
    assert printed(after) == printed(text)


def test_a_number_of_a_class_that_a_method_changes_by_its_full_name_is_not() -> None:
    form = """
  static void show{0}() {{
    bump();
    System.out.println("it is " + count{0});
    System.out.println("twice " + count{0} * 2);
    System.out.println("done");
  }}
"""
    text = (
        "class Main {\n  static int countA = 3;\n  static int countB = 4;\n"
        + form.format("A")
        + form.format("B")
        + "  static void bump() { Main.countA = Main.countA + 1; Main.countB += 2; }\n"
        + "  public static void main(String[] args) {\n    showA();\n    showB();\n  }\n}\n"
    )
    assert "static void showB" in worked(text, "java")


@pytest.mark.parametrize("loop", ["for (int one : {0})", "for (int one : {0}) if (one > 0)"])
def test_an_array_whose_length_is_asked_for_is_not_handed_on(loop: str) -> None:
    form = "int biggest_{0}() {{\n  int best = 0;\n  {loop} {{\n    if (one > best) {{\n      best = one;\n    }}\n"
    form += '    cout << "seen" << one << endl;\n  }}\n  return best;\n}}\n'
    text = "#include <iostream>\nusing namespace std;\nint jumps[] = {3, 9, 4};\nint weights[] = {20, 35, 18};\n"
    text += "".join(form.format(name, loop=loop.format(name)) for name in ("jumps", "weights"))
    text += "int main() {\n  cout << biggest_jumps() << biggest_weights() << endl;\n}\n"
    after = worked(text, "cpp")
    assert "int biggest_jumps()" in after
    assert "int biggest_weights()" in after


RECORD = "using System;\n{0} Boat {{ public string Name; public int Length; }}\nclass P {{\n"
GROW = "{0}.Length = {0}.Length + 1;\nConsole.WriteLine({0}.Name + {0}.Length);\n"


@pytest.mark.parametrize(("kind", "right"), [("class", True), ("struct", False)])
def test_a_record_that_is_copied_is_not_changed_through_a_variable(kind: str, right: bool, tmp_path) -> None:
    """Neither by a loop over several nor by a function that is given one."""
    names = ("first", "second", "third")
    given = [f'Boat {name} = new Boat {{ Name = "{name}", Length = {k} }};\n' for k, name in enumerate(names)]
    head = RECORD.format(kind)
    row = f"{head}static void Main() {{\n{''.join(given)}{''.join(map(GROW.format, names))}"
    row += "Console.WriteLine(first.Length + second.Length);\n}\n}\n"
    twins = head + "".join(f"static {line}" for line in given[:2])
    twins += "".join(f"static void Grow{name}() {{\n{GROW.format(name)}{GROW.format(name)}}}\n" for name in names[:2])
    twins += "static void Main() {\nGrowfirst();\nGrowsecond();\nGrowfirst();\nConsole.WriteLine(first.Length);\n}\n}\n"
    for text in (row, twins):
        after = worked(text, "csharp")
        assert (after != text) is right
        if right:
            require_same_output("csharp", text, after, tmp_path)


def test_what_changes_a_field_is_not_what_changes_another_already() -> None:
    text = "class Crab {\n  int x, y;\n"
    text += "".join(
        f"  void {name}(int far) {{\n    erase();\n    {own} = {own} + far;\n    draw();\n  }}\n"
        for name, own in (("right", "x"), ("down", "y"))
    )
    text += "  void erase() {}\n  void draw() {}\n  void go() { right(3); down(4); }\n}\n"
    assert not any("already" in f.message for f in report(text, language="java").findings)


HANDLERS = """
let score = 0;
function checkOne() {
  const given = document.getElementById("q1").value;
  if (given === "tern") {
    score += 1;
    document.getElementById("r1").textContent = "Right!";
  } else {
    document.getElementById("r1").textContent = "Wrong";
  }
}
function checkTwo() {
  const given = document.getElementById("q2").value;
  if (given === "eel") {
    score += 1;
    document.getElementById("r2").textContent = "Right!";
  } else {
    document.getElementById("r2").textContent = "Wrong";
  }
}
function checkThree() {
  const given = document.getElementById("q3").value;
  if (given === "sole") {
    score += 1;
    document.getElementById("r3").textContent = "Right!";
  } else {
    document.getElementById("r3").textContent = "Wrong";
  }
}
"""


def test_functions_that_only_the_page_calls_keep_their_names_and_share_what_they_do() -> None:
    after = worked(HANDLERS, "javascript")
    assert after.count("score += 1") == 1
    assert all(f"function check{name}() {{\n" in after for name in ("One", "Two", "Three"))


ZOO = """
import java.util.ArrayList;

public class Main {
    private ArrayList<String> seals = new ArrayList<>();
    private ArrayList<String> gulls = new ArrayList<>();

    public void addSeal(String name) {
        if (seals.contains(name)) {
            System.out.println(name + " is here already");
        } else {
            seals.add(name);
            System.out.println("Welcome " + name);
        }
    }

    public void addGull(String name) {
        if (gulls.contains(name)) {
            System.out.println(name + " is here already");
        } else {
            gulls.add(name);
            System.out.println("Welcome " + name);
        }
    }

    public static void main(String[] args) {
        Main zoo = new Main();
        zoo.addSeal("Bo");
        zoo.addSeal("Bo");
        zoo.addGull("Bo");
    }
}
"""


def test_methods_that_each_use_a_list_of_their_object_share_a_method_that_is_given_it(tmp_path: Path) -> None:
    after = worked(ZOO, "java")
    assert "(ArrayList<String> values, String name)" in after
    assert after.count("is here already") == 1
    require_same_output("java", ZOO, after, tmp_path)


def test_handlers_of_a_form_in_c_sharp_are_given_colours_and_need_not_read_their_event() -> None:
    handler = """
    void {0}Button_Click(object sender, EventArgs e)
    {{
        count++;
        label.Text = "{0} was clicked";
        panel.BackColor = Color.{0};
        log.Items.Add("{1} " + count);
    }}
"""
    handlers = "".join(handler.format(name, name.lower()) for name in ("Red", "Blue", "Green"))
    text = f"using System;\n\nclass Form1\n{{\n    int count = 0;\n{handlers}}}\n"
    assert "(string color, Color backColor, string name)" in worked(text, "csharp")
    assert "unused-parameter" not in rules(text, language="csharp")
