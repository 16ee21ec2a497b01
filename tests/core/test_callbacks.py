"""Functions for rows of things with a callback: what a `lambda` keeps is what it was given, and never changes."""

from __future__ import annotations

import pytest

from core.builders import printed, report, verdict, worked
from partitor.suggestions.proof import NewFunction

HEAD = """
class Button:
    made = []

    def __init__(self, root, text, width, command):
        self.text = text
        self.command = command
        Button.made.append(self)

    def grid(self, row, column):
        print(self.text, "at", row, column)


def press(key):
    print("pressed", key)


"""
ROWS = "".join(
    f'b{key} = Button("root", text="{key}", width=5, command=lambda: press("{key}"))\nb{key}.grid(row={row}, column={column})\n'
    for row, keys in enumerate(["789", "456", "123"], 1)
    for column, key in enumerate(keys)
)
TAIL = "for b in Button.made:\n    b.command()\n"


def test_buttons_are_made_by_a_function() -> None:
    text = HEAD + ROWS + TAIL
    after = worked(text)
    assert "command=lambda: press(text))" in after
    assert printed(after) == printed(text)
    assert [f.rule for f in report(text).findings].count("repeated-run") == 1


BEFORE = """
def main():
    total = 1
    size = 3
    show = [size, lambda: total + size]
    print(show[1]())
    {}
    print(show[1]())


main()
"""
AFTER = """
def make_show(total, size):
    show = [size, lambda: total + size]
    print(show[1]())
    return show


def main():
    total = 1
    size = 3
    show = make_show(total, size)
    {}
    print(show[1]())


main()
"""


@pytest.mark.parametrize(("later", "proved"), [("pass", True), ("total = 5", False), ("size += 1", False)])
def test_what_may_change_later_is_not_kept(later: str, proved: bool) -> None:
    claim = NewFunction("main.py", "make_show")
    assert verdict(BEFORE.format(later), AFTER.format(later), claim).proved is proved


def test_no_text_counts_against_its_row() -> None:
    text = "def cell(text, row):\n    print(text, row)\n\n\n" + "".join(
        f'cell("{10 - 3 * row}", {row})\nprint("--")\n' for row in range(1, 4)
    )
    assert "10 -" not in worked(text)
