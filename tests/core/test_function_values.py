"""Twins that call themselves, and twins that differ in what they call: one function, given the other."""

from __future__ import annotations

import pytest

from core.builders import named, report, rules, run, verdict, worked
from partitor.suggestions.proof import MergedFunctions

TOTALS = """
def total_rye(bags):
    if not bags:
        return 0
    print("rye", bags[0])
    return bags[0] + total_rye(bags[1:])


def total_oat(bags):
    if not bags:
        return 0
    print("oat", bags[0])
    return bags[0] + total_oat(bags[1:])


print(total_rye([1, 2, 3]))
print(total_oat([4, 5]))
"""

SHOWS = """
def double(n):
    return n * 2


def half(n):
    return n // 2


def show_doubles(values):
    print("-----")
    for v in values:
        print("value", v, double(v))
    print("-----")


def show_halves(values):
    print("-----")
    for v in values:
        print("value", v, half(v))
    print("-----")


show_doubles([1, 2])
show_halves([3, 4])
"""


@pytest.mark.parametrize("text", [TOTALS, SHOWS], ids=["itself", "another"])
def test_such_twins_become_one_function(text: str) -> None:
    after = worked(text)
    assert after.count("\ndef ") < text.count("\ndef ")
    assert run(after) == run(text)


def test_a_call_of_itself_hands_the_values_on() -> None:
    assert "return bags[0] + total(bags[1:], name)" in worked(TOTALS)


def test_what_is_called_becomes_a_parameter() -> None:
    after = worked(SHOWS)
    assert 'print("value", v, action(v))' in after
    assert after.endswith("show_values([1, 2], double)\nshow_values([3, 4], half)\n")


def test_functions_that_call_many_unlike_ones_are_no_twins() -> None:
    text = """
    def morning(n):
        print("morning")
        open_gate(n)
        feed_birds(n)
        print(count_eggs(n))

    def evening(n):
        print("evening")
        close_gate(n)
        water_beds(n)
        print(read_tide(n))

    morning(1)
    evening(2)
    """
    assert "twin-functions" not in rules(text)


GENERAL = "def total(bags, name):\n    if not bags:\n        return 0\n    print(name, bags[0])\n"
CALLS = 'print(total([1, 2, 3], "rye"))\nprint(total([4, 5], "oat"))\n'
CLAIM = MergedFunctions("main.py", "total", ("total_rye", "total_oat"))


@pytest.mark.parametrize(
    ("last", "right"),
    [
        ("return bags[0] + total(bags[1:], name)", True),
        ("return bags[0] + total(bags[1:], bags)", False),
        ('return bags[0] + total(bags[1:], "rye")', False),
        ("return bags[0] + total(name, bags[1:])", False),
        ("return bags[0] + total(bags[2:], name)", False),
        ("return bags[0] + total(bags[1:])", False),
    ],
)
def test_the_values_must_be_handed_on_unchanged(last: str, right: bool) -> None:
    assert verdict(TOTALS, f"{GENERAL}    {last}\n\n\n{CALLS}", CLAIM).proved is right


def shows(head: str, text: str = SHOWS) -> tuple[str, str]:
    """A program, and what it would be with one function for both, each with `head` above it."""
    before = head + text
    start, stop = before.index("def show_doubles"), before.index("def show_halves")
    one = before[start:stop].replace("show_doubles(values)", "show(values, action)").replace("double(v)", "action(v)")
    after = before[:start] + one + before[before.index("show_doubles([") :]
    return before, after.replace("show_doubles([1, 2])", "show([1, 2], double)").replace(
        "show_halves([3, 4])", "show([3, 4], half)"
    )


SHOW = MergedFunctions("main.py", "show", ("show_doubles", "show_halves"))


def test_the_function_given_is_the_one_that_was_called() -> None:
    before, after = shows("")
    assert verdict(before, after, SHOW).proved
    swapped = after.replace("double)", "HALF)").replace("half)", "double)").replace("HALF)", "half)")
    assert not verdict(before, swapped, SHOW).proved


@pytest.mark.parametrize(
    "head",
    [
        "if input():\n    def half(n):\n        return 1\n\n\n",
        "def swap():\n    global half\n    half = abs\n\n\n",
        "half = abs\n",
        "print(1)\n",
    ],
    ids=["twice", "global", "rebound", "later"],
)
def test_a_function_that_may_be_another_one_is_not_given(head: str) -> None:
    before, after = shows(head)
    assert not verdict(before, after, SHOW).proved


def test_a_variable_of_the_function_is_no_function_to_give() -> None:
    before, after = shows(
        "",
        SHOWS.replace(
            'for v in values:\n        print("value", v, half', 'for half in values:\n        print("value", v, half'
        ),
    )
    assert not verdict(before, after, SHOW).proved


def test_such_an_answer_is_what_the_report_shows() -> None:
    found = report(SHOWS)
    assert [f.rule for f in found.findings] == ["twin-functions"]
    assert [s.status for s in found.suggestions] == ["proved"]


TABLES = """import math


def table_sqrt(values):
    for v in values:
        r = math.sqrt(v)
        print(f"{v:5} {r:8.3f}")
    print("done")


def table_log(values):
    for v in values:
        r = math.log(v)
        print(f"{v:5} {r:8.3f}")
    print("done")


table_sqrt([1, 4])
table_log([1, 4])
"""


def test_functions_of_a_module_of_the_library_are_given_like_others():
    (found,) = named({"main.py": TABLES}, "python").suggestions
    assert found.status == "proved"
    assert "+table([1, 4], math.log)\n" in found.diff


@pytest.mark.parametrize(
    ("old", "new"),
    [
        ("import math\n", "import math\nmath.log = print\n"),
        ("import math\n", "import math\nmath = list\n"),
        ("import math\n", "import mill as math\n"),
        ("import math\n", "try:\n    import math\nexcept ImportError:\n    pass\n"),
        ("def table_log(values):\n", "def table_log(values):\n    math = values\n"),
        ("table_log([1, 4])", "setattr(math, 'log', print)\ntable_log([1, 4])"),
    ],
)
def test_a_module_that_may_change_is_not_given(old, new):
    report = named({"main.py": TABLES.replace(old, new)}, "python")
    assert not any("math.log)" in s.diff for s in report.suggestions)
