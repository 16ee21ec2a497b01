"""Two functions alike but for a line or two: one that is told what to do, and what the proof refuses."""

from __future__ import annotations

import pytest

from core.builders import report, run, verdict, worked
from partitor.suggestions.proof import MergedFunctions

REPORTS = """
def report_mill(levels):
    print("Station mill")
    print("-----")
    total = 0
    for level in levels:
        print("level", level)
        total = total + level
    print("total", total)
    print("-----")


def report_ferry(levels):
    print("Station ferry")
    print("-----")
    total = 0
    for level in levels:
        # a gauge that hangs
        if level < 0:
            print("broken gauge")
        print("level", level)
        total = total + level
    print("total", total)
    print("mean", total / len(levels))
    print("-----")


report_mill([3, 4, 5])
report_ferry([6, -7, 8])
"""


def test_what_only_one_does_goes_under_a_condition() -> None:
    after = worked(REPORTS)
    assert run(after) == run(REPORTS)
    assert after.count("\ndef ") == 1 or after.startswith("def ")
    assert "# a gauge that hangs" in after
    name = after.split("def ")[1].split("(")[0]
    assert after.endswith(f'\n{name}([3, 4, 5], "Station mill", False)\n{name}([6, -7, 8], "Station ferry", True)\n')


def test_what_each_does_otherwise_goes_to_either_side() -> None:
    text = REPORTS.replace('print("total", total)', 'print("sum", total, "cm")', 1).replace(
        '        # a gauge that hangs\n        if level < 0:\n            print("broken gauge")\n', ""
    )
    text = text.replace('    print("mean", total / len(levels))\n', "")
    after = worked(text)
    assert run(after) == run(text)
    assert "    else:\n" in after


def test_it_is_told_as_a_merge() -> None:
    found = report(REPORTS)
    assert [(f.rule, f.message) for f in found.findings] == [
        ("twin-functions", "report_mill and report_ferry are alike but for three lines.")
    ]
    assert [(s.kind, s.status) for s in found.suggestions] == [("merge", "proved")]


MINE = "def a(n):\n    print('a')\n    print(n)\n\n\n"
YOURS = "def b(n):\n    print('a')\n    print(n)\n    print('b')\n\n\n"
USED = "a(1)\nb(2)\n"
CLAIM = MergedFunctions("main.py", "one", ("a", "b"))


def merged(body: str, calls: str = "one(1, False)\none(2, True)\n", before: str = MINE + YOURS + USED) -> bool:
    return verdict(before, f"def one(n, more):\n{body}\n\n{calls}", CLAIM).proved


def test_a_flag_chooses_its_branch() -> None:
    head = "    print('a')\n    print(n)\n"
    assert merged(head + "    if more:\n        print('b')\n")
    assert merged(head + "    if not more:\n        print('b')\n", "one(1, True)\none(2, False)\n")
    assert merged(head + "    if more:\n        print('b')\n", "one(1, False)\none(2, False)\n") is False


@pytest.mark.parametrize(
    "tail",
    [
        "    if not more:\n        print('b')\n",
        "    if more:\n        print('c')\n",
        "    if more:\n        print('b')\n        print('b')\n",
        "    if more:\n        print('b')\n    else:\n        print('c')\n",
        "    if more == True:\n        print('b')\n",
        "    if n:\n        print('b')\n",
        "    while more:\n        print('b')\n",
        "    more = True\n    if more:\n        print('b')\n",
        "    if more:\n        print('b')\n    elif n:\n        print('c')\n",
    ],
)
def test_any_other_branch_is_refused(tail: str) -> None:
    assert not merged("    print('a')\n    print(n)\n" + tail)


def test_what_would_mark_the_whole_function_is_refused() -> None:
    yours = YOURS.replace("print('b')", "yield 3")
    assert not merged("    print('a')\n    print(n)\n    if more:\n        yield 3\n", before=MINE + yours + USED)
    yours = "m = 1\n\n\n" + MINE.replace("print(n)", "m = n") + YOURS.replace("print(n)", "global m\n    m = n")
    body = "    print('a')\n    if more:\n        global m\n    m = n\n    if more:\n        print('b')\n"
    assert not verdict(
        yours + USED, f"m = 1\n\n\ndef one(n, more):\n{body}\n\none(1, False)\none(2, True)\n", CLAIM
    ).proved


def test_a_name_that_only_one_gives_a_value_is_its_own() -> None:
    """`m` belongs to the program in one function and to the other function alone."""
    before = (
        "m = 1\n\n\n" + MINE.replace("print(n)", "print(m)") + YOURS.replace("print(n)", "m = n\n    print(m)") + USED
    )
    body = "    print('a')\n    if more:\n        m = n\n    print(m)\n    if more:\n        print('b')\n"
    assert not verdict(before, f"m = 1\n\n\ndef one(n, more):\n{body}\n\none(1, False)\none(2, True)\n", CLAIM).proved
