"""What can have run by a place of the loose code, and what that lets suggestions do."""

import pytest
from builders import printed, read, worked
from runners import can_run, outputs

from partitor.suggestions.proof.reach import is_unseen_until


def unseen(text: str, language: str = "python") -> bool:
    """Whether `total` can be seen before the end of the statement marked by `here`."""
    file = read(text, language)
    marked = next(n for n, line in enumerate(text.split("\n"), 1) if "here" in line)
    statement = next(
        s for s in file.block_at[0].statements if file.tree.start_line(s) <= marked <= file.tree.end_line(s)
    )
    return is_unseen_until(file, "total", statement)


SHOW = "def show():\n    print(total)\n\n"


@pytest.mark.parametrize(
    ("text", "expected"),
    [
        ("total = 1  # here\n" + SHOW + "show()\n", True),
        (SHOW + "total = 1  # here\nshow()\n", True),
        (SHOW + "run(show)\ntotal = 1  # here\n", False),
        (SHOW + "total = run(show)  # here\n", False),
        (SHOW + "def other():\n    show()\n\nother()\ntotal = 1  # here\n", False),
        (SHOW + "def other():\n    show()\n\ntotal = 1  # here\nother()\n", True),
        ("@button\ndef show():\n    print(total)\n\ntotal = 1  # here\n", False),
        ("class Shown:\n    def __del__(self):\n        print(total)\n\ntotal = 1  # here\n", False),
        ("total = 1  # here\n\nclass Shown:\n    def __del__(self):\n        print(total)\n", True),
        ("run(lambda: total)\ntotal = 1  # here\n", False),
        (
            "for i in range(3):\n    total = i  # here\n    if i:\n        show()\n    def show():\n        print(total)\n",
            False,
        ),
        (SHOW + "actions = {'go': show}\ntotal = 1  # here\n", False),
        (SHOW + "f = globals\ngetattr(f, 'x')\ntotal = 1  # here\n", False),
        ("def show(total):\n    print(total)\n\nrun(show)\ntotal = 1  # here\n", True),
        ("def change():\n    global total\n    total = 2\n\nrun(change)\ntotal = 1  # here\n", False),
    ],
)
def test_what_python_functions_can_see(text: str, expected: bool) -> None:
    assert unseen(text) is expected


HOISTED = "function show() {\n  console.log(total);\n}\n"


@pytest.mark.parametrize(
    ("text", "expected"),
    [
        ("let total = 1; // here\n" + HOISTED + "show();\n", True),
        ("run(show);\nlet total = 1; // here\n" + HOISTED, False),
        ("later();\nlet total = 1; // here\nfunction later() {\n  run(() => show());\n}\n" + HOISTED, False),
        ("run(() => total);\nlet total = 1; // here\n", False),
        ("const all = { show() { return total; } };\nrun(all);\nlet total = 1; // here\n", False),
        ("class Shown {\n  go() {\n    return total;\n  }\n}\nlet total = 1; // here\n", False),
        ("const show = function () {\n  return total;\n};\nlet total = 1; // here\n", False),
        ("let total = 1; // here\nconst show = () => total;\nshow();\n", True),
        ("window.go();\nlet total = 1; // here\n" + HOISTED, False),
        ("button.onclick = show;\nlet total = 1; // here\n" + HOISTED, False),
    ],
)
def test_what_functions_of_a_script_can_see(text: str, expected: bool) -> None:
    assert unseen(text, "javascript") is expected


FORM = """class Entry:
    def __init__(self, width):
        self.width = width

    def place(self, row):
        print("at", row, self.width)

    def get(self):
        return self.width


{first}print("Name", 0)
name_entry = Entry(30)
name_entry.place(0)
print("placed", name_entry.get(), "wide")

print("Port", 1)
port_entry = Entry(20)
port_entry.place(1)
print("placed", port_entry.get(), "wide")

print("Length", 2)
length_entry = Entry(12)
length_entry.place(2)
print("placed", length_entry.get(), "wide")


{then}save()
"""
SAVE = "def save():\n    print(name_entry.get(), port_entry.get(), length_entry.get())\n\n\n"


@pytest.mark.parametrize(("first", "then"), [("", SAVE), (SAVE, "")])
def test_what_a_later_function_reads_is_returned(first: str, then: str) -> None:
    text = FORM.format(first=first, then=then)
    after = worked(text)
    assert after.count(".place(") == 1
    assert printed(after) == printed(text)


def test_what_may_be_called_back_stays() -> None:
    text = FORM.format(first=SAVE + "Entry.on_place = save\n", then="")
    assert worked(text) == text


BALLS = """let x1 = 20;
let dx1 = 2;
{between}let x2 = 50;
let dx2 = 3;
let x3 = 90;
let dx3 = 4;

function draw() {{
  console.log("at", x1);
  x1 = x1 + dx1;
  if (x1 > 60) {{
    dx1 = -dx1;
  }}
  console.log("at", x2);
  x2 = x2 + dx2;
  if (x2 > 60) {{
    dx2 = -dx2;
  }}
  console.log("at", x3);
  x3 = x3 + dx3;
  if (x3 > 60) {{
    dx3 = -dx3;
  }}
}}
"""


def test_variables_that_stand_apart_become_lists_with_their_values(tmp_path) -> None:
    text = BALLS.format(between="") + "draw();\ndraw();\n"
    after = worked(text, "javascript")
    assert "const xs = [20, 50, 90];\nconst dxs = [2, 3, 4];\n\nfunction draw" in after
    if can_run("javascript"):
        before, rewritten = outputs("javascript", [text, after], tmp_path)
        assert before == rewritten
        assert before.count("at") == 6


@pytest.mark.parametrize("between", ["draw();\n", "setTimeout(draw, 5);\n"])
def test_lists_are_not_made_before_a_function_can_ask_for_them(between: str) -> None:
    text = BALLS.format(between=between) + "draw();\n"
    after = worked(text, "javascript")
    assert "[20, 50, 90]" not in after


def test_what_has_no_value_yet_is_not_given() -> None:
    text = """\
class Dinghy:
    def __init__(self, name):
        self.name = name
        self.log = []

    def move_north(self, metres):
        if metres > 20:
            raise ValueError("too far")
        self.log.append(("north", blue))
        print(self.name, "goes", metres, "m north")
        if len(self.log) > 10:
            self.log.pop(0)

    def move_south(self, metres):
        if metres > 20:
            raise ValueError("too far")
        self.log.append(("south", metres))
        print(self.name, "goes", metres, "m south")
        if len(self.log) > 10:
            self.log.pop(0)


red = Dinghy("Red")
try:
    red.move_north(30)
except ValueError:
    print("it stays")
red.move_south(10)
{late}red.move_north(5)
"""
    late = text.format(late="blue = 7\n")
    assert printed(worked(late)) == printed(late)
    early = "blue = 7\n\n\n" + text.format(late="")
    assert len(worked(early)) < len(early)
    assert printed(worked(early)) == printed(early)
