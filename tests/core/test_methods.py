"""Copies inside the methods of a class: a new method of it, called through the object."""

from __future__ import annotations

import pytest

from core.builders import file, report, run, verdict, worked
from core.wild_functions import alike_methods
from partitor.deadline import Deadline
from partitor.program.program import Program
from partitor.repeats.limits import Limits
from partitor.suggestions.proof import NewFunction
from partitor.suggestions.worked import proved_suggestions, work_through

PUMP = """
class Pump:
    def __init__(self):
        self.level = 3
        self.log = []

    def up(self, by):
        old = self.level
        self.level += by
        if self.level > 9:
            self.level = 9
        change = self.level - old
        self.log.append(change)
        print("up", change)
        return change

    def rise(self):
        old = self.level
        self.level += 2
        if self.level > 9:
            self.level = 9
        change = self.level - old
        self.log.append(change)
        print("rise")
        return change * 2


pump = Pump()
print(pump.up(3), pump.rise(), pump.rise(), pump.log)
"""


def test_what_methods_share_becomes_a_method() -> None:
    after = worked(PUMP)
    assert "\n\n    def find_change(self, amount):\n        old = self.level\n" in after
    assert "        change = self.find_change(by)\n" in after
    assert run(after) == run(PUMP)
    assert report(PUMP).suggestions[0].title == "A method find_change(amount), called in 2 places"


@pytest.mark.parametrize(
    ("old", "new"),
    [
        ("class Pump:", "import tkinter as tk\n\n\nclass Pump(tk.Frame):"),
        ("pump = Pump()", "pump = Pump()\nPump.rise(pump)"),
        ("pump = Pump()", 'pump = Pump()\ngetattr(pump, "ri" + "se")()'),
        ("    def rise(self):", "    @classmethod\n    def rise(self):"),
        ("    def rise(self):\n", "    def rise(self):\n        self = self.log and self\n"),
        ("        self.log = []\n", "        self.log = []\n\n    def __getattr__(self, name):\n        return 0\n"),
        ("    def rise(self):", "    def rise(it):"),
    ],
)
def test_a_class_that_is_more_than_it_seems_gets_no_method(old: str, new: str) -> None:
    assert old in PUMP
    found = report(PUMP.replace(old, new)).suggestions
    assert all("method" not in s.title or s.status == "outline" for s in found)


BEFORE = """
class Gate:
    def one(self, n):
        self.width = n + 1
        print(self.width)

    def two(self):
        self.width = 4 + 1
        print(self.width)


class Door(Gate):
    pass


Gate().one(2)
"""
METHOD = "    def show(self, n):\n        self.width = n + 1\n        print(self.width)\n\n"
AFTER = (
    BEFORE.replace("        self.width = n + 1\n        print(self.width)\n", "        self.show(n)\n")
    .replace("        self.width = 4 + 1\n        print(self.width)\n", "        self.show(4)\n")
    .replace("    def two", METHOD + "    def two")
)
CLAIM = NewFunction("main.py", "show", (), "Gate")


def test_the_proof_inlines_the_method() -> None:
    assert verdict(BEFORE, AFTER, CLAIM).proved


@pytest.mark.parametrize(
    ("old", "new"),
    [
        ("self.show(4)", "self.show(5)"),
        ("self.show(4)", "Gate.show(4)"),
        ("self.show(4)", "show(4)"),
        ("self.width = n + 1", "self.width = n + 2"),
        ("def show(self, n)", "def show(n, self)"),
        ("    def show", "    @staticmethod\n    def show"),
        ("class Door(Gate):\n    pass", "class Door(Gate):\n    show = None"),
        ("Gate().one(2)", "Gate().one(2)\nGate().show(1)"),
    ],
)
def test_a_slip_is_refused(old: str, new: str) -> None:
    assert old in AFTER
    assert not verdict(BEFORE, AFTER.replace(old, new), CLAIM).proved


def test_a_method_of_another_class_is_refused() -> None:
    assert not verdict(BEFORE, AFTER, NewFunction("main.py", "show", (), "Door")).proved
    moved = AFTER.replace(METHOD, "").replace("    pass\n", METHOD)
    assert not verdict(BEFORE, moved, NewFunction("main.py", "show", (), "Door")).proved


def test_wild_methods_print_the_same() -> None:
    methods = 0
    for seed in range(70):
        text = alike_methods(seed)
        program = file(text)
        found = proved_suggestions(program, Limits())
        answer = work_through(Program([program]), Limits(), frozenset(), Deadline(60))
        methods += sum(p.candidate.title.startswith("A method") for p in found)
        rewritten = {*(p.after.source.text for p in found), answer.program.files[0].source.text} - {text}
        expected = run(text) if rewritten else ""
        assert all(run(after) == expected for after in rewritten), text
    assert methods > 5
