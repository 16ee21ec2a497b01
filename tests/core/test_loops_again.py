"""Loops whose variables have names that other loops, or other functions, have already."""

import pytest
from builders import printed, verdict, worked

from partitor.suggestions.proof import NewLoop

WEEK = "tuesday wednesday thursday friday"
HIGHEST = "most = monday\n" + "".join(f"if {d} > most:\n    most = {d}\n" for d in WEEK.split())
LOWEST = HIGHEST.replace("most", "least").replace(" > ", " < ")
LEVELS = "".join(f"{day} = {level}\n" for day, level in zip(f"monday {WEEK}".split(), (4, 9, 2, 7, 5), strict=True))


def test_two_loops_over_the_days_both_call_them_days() -> None:
    text = f"{LEVELS}{HIGHEST}print(most)\n{LOWEST}print(least)\n"
    after = worked(text)
    assert after.count("for day in [tuesday, wednesday, thursday, friday]:") == 2
    assert printed(after) == printed(text)


def test_counters_of_loops_that_follow_each_other_are_all_called_i() -> None:
    text = "board = list(range(9))\n" + "".join(
        f"if board[{a}] > 2 and board[{b}] > 3:\n    print({a}, 'to', {b})\n"
        for a, b in [(0, 3), (1, 4), (2, 5), (0, 1), (2, 3), (4, 5)]
    ).replace("    print(0, 'to', 1)", "    print('now', 0, 'to', 1)").replace(
        "print(2, 'to', 3)", "print('now', 2, 'to', 3)"
    )
    text = text.replace("print(4, 'to', 5)", "print('now', 4, 'to', 5)")
    after = worked(text)
    assert after.count("for i in range(") == 2
    assert printed(after) == printed(text)


def test_what_another_function_calls_its_own_is_free() -> None:
    own = "def show(text):\n    for day in text:\n        print(day)\n\n\n"
    after = worked(f"{own}{LEVELS}{HIGHEST}print(most)\nshow('ab')\n")
    assert "for day in [tuesday" in after


@pytest.mark.parametrize(
    "rest",
    [
        "for day in 'ab':\n    pass\nprint(most, day)\n",
        "for day in 'ab':\n    print(day)\nelse:\n    print(most, day)\n",
        "for day in [day for day in 'ab']:\n    print(day)\nprint(day)\n",
        "def later():\n    return day\nfor day in 'ab':\n    print(later())\n",
        "for day in 'ab':\n    print(lambda: day)\n",
        "try:\n    for day in '':\n        print(day)\n    print(day)\nexcept NameError:\n    print('no day')\n",
    ],
)
def test_a_name_that_is_needed_elsewhere_is_not_used_again(rest) -> None:
    text = f"day = 3\n{LEVELS}{HIGHEST}print(most)\n{rest}"
    after = worked(text)
    assert "in [tuesday, wednesday, thursday, friday]:" in after
    assert "for day in [tuesday" not in after


BEFORE = "{0}print(4)\nprint(7)\nprint(1)\n{1}"
AFTER = "{0}for day in [4, 7, 1]:\n    print(day)\n{1}"


def proved(before: str, after: str) -> bool:
    """Whether a loop over `day` may stand between."""
    old, new = BEFORE.format(before, after), AFTER.format(before, after)
    return verdict(old, new, NewLoop("main.py", before.count("\n") + 1)).proved


@pytest.mark.parametrize(
    ("before", "after"),
    [
        ("", "for day in 'ab':\n    print(day)\n"),
        ("for day in 'ab':\n    print(day)\n", ""),
        ("day = 2\nprint(day)\n", "day = 3\nprint(day)\n"),
        ("def show():\n    day = 2\n    print(day)\n\n", "show()\n"),
        ("print([day for day in 'ab'])\n", "print(list(day for day in 'cd'))\n"),
        ("while input():\n    for day in 'ab':\n        print(day)\n", ""),
        ("print(dict(day=3))\n", "print(dict(day=4))\n"),
        ("import datetime\n", "print(datetime.date(2021, 3, 4).day)\n"),
        ("class Week:\n    def __init__(self, day):\n        self.day = day\n\n", "print(Week(3).day)\n"),
    ],
)
def test_a_variable_that_nobody_needs_behind_the_loop_may_turn_it(before, after) -> None:
    assert proved(before, after)


@pytest.mark.parametrize(
    ("before", "after"),
    [
        ("day = 2\n", "print(day)\n"),
        ("", "print(day)\n"),
        ("for day in 'ab':\n    pass\n", "print(day)\n"),
        ("day = 2\n", "day += 1\n"),
        ("day = 2\n", "del day\n"),
        ("day = 2\n", "for day in input():\n    pass\nprint(day)\n"),
        ("day = 2\n", "for day in input():\n    pass\nelse:\n    print(day)\n"),
        ("day = 2\n", "if input():\n    day = 3\nprint(day)\n"),
        ("day = 2\ndef show():\n    print(day)\n\n", "show()\n"),
        ("day = 2\ndef show():\n    global day\n    day += 1\n\n", "show()\n"),
        ("def show():\n    print(day)\n\n", "show()\n"),
        ("day = 2\nshow = lambda: day\n", "print(show())\n"),
        ("day = 2\nlater = (day for k in 'ab')\n", "print(list(later))\n"),
        ("from calendar import *\n", "print(day)\n"),
        ("import day\n", "day.show()\n"),
        ("def day():\n    pass\n\n", "day()\n"),
        ("class day:\n    pass\n\n", "print(day())\n"),
        ("day = 2\nclass Week:\n    first = day\n\n", "class Later:\n    last = day\n\nprint(Later.last)\n"),
        ("day = 2\n", "print(f'{day}')\n"),
        ("day = 2\n", "match input():\n    case 'a':\n        day = 3\nprint(day)\n"),
        ("day = 2\n", "print(locals())\n"),
        ("day = 2\n", "exec('print(day)')\n"),
        ("day: int = 2\n", "print(day)\n"),
        ("import main\n", "print(main.day)\n"),
        ("import __main__\n", "print(__main__.day)\n"),
        ("import sys\n", "print(sys.modules['__main__'].day)\n"),
        ("def show(day=2):\n    print(day)\n\nday = 3\n", "show(day=day)\n"),
    ],
)
def test_no_other_variable_may(before, after) -> None:
    assert not proved(before, after)


def test_nor_may_one_that_is_needed_when_the_copies_come_round_again() -> None:
    before = "day = 2\nwhile input():\n    print(day)\n    print(4)\n    print(7)\n    print(1)\n"
    after = "day = 2\nwhile input():\n    print(day)\n    for day in [4, 7, 1]:\n        print(day)\n"
    assert not verdict(before, after, NewLoop("main.py", 4)).proved
    before, after = (text.replace("    print(day)\n", "", 1) for text in (before, after))
    assert verdict(before, after, NewLoop("main.py", 3)).proved


@pytest.mark.parametrize("handler", ["except ValueError:\n    print(day)\n", "finally:\n    print(day)\n"])
def test_nor_one_that_is_needed_where_an_error_is_dealt_with(handler) -> None:
    before = f"day = 2\ntry:\n    print(int(input()))\n    print(4)\n    print(7)\n    print(1)\n{handler}"
    after = f"day = 2\ntry:\n    print(int(input()))\n    for day in [4, 7, 1]:\n        print(day)\n{handler}"
    assert not verdict(before, after, NewLoop("main.py", 4)).proved


def test_nor_a_variable_of_the_function_around() -> None:
    inner = "    def inner():\n        print(4)\n        print(7)\n        print(1)\n{}"
    looped = "    def inner():\n        for day in [4, 7, 1]:\n            print(day)\n{}"
    deeper = "        def deepest():\n            return day\n        print(deepest())\n"
    head, tail = "def outer():\n    day = 2\n", "    inner()\n    print(day)\n\nouter()\n"
    refused = verdict(head + inner.format(deeper) + tail, head + looped.format(deeper) + tail, NewLoop("main.py", 4))
    assert not refused.proved
    assert verdict(head + inner.format("") + tail, head + looped.format("") + tail, NewLoop("main.py", 4)).proved


def test_what_arguments_are_called_the_loop_calls_them_too() -> None:
    rows = [("reed", "#7a8b3a"), ("mud", "#5d4a36"), ("sky", "#9fc4d9")]
    lines = [f'show(text="{name}", bg="{color}", width=20)\nprint()\n' for name, color in rows]
    text = f"def show(**what):\n    print(what)\n\n\n{''.join(lines)}"
    after = worked(text)
    assert "for text, bg in [" in after
    assert "    show(text=text, bg=bg, width=20)\n" in after
    assert printed(after) == printed(text)


def test_what_fields_are_called_the_loop_calls_them_too() -> None:
    lines = "".join(
        f"{boat}.color = '{color}'\n{boat}.paint()\n" for boat, color in zip("abc", ("red", "tan", "navy"), strict=True)
    )
    text = (
        f"class Boat:\n    def paint(self):\n        print(self.color)\n\n\na = Boat()\nb = Boat()\nc = Boat()\n{lines}"
    )
    after = worked(text)
    assert "color = color" in after.replace("    ", "").replace(".", " ")
    assert printed(after) == printed(text)
