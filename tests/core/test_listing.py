"""Numbered variables in one list, and the loop over its places: what comes of it, and what is refused."""

from __future__ import annotations

import pytest

from core.builders import report, run, verdict, worked
from partitor.suggestions.proof import ListedVariables

LEVELS = """
def main():
    print("Levels")
    gate1 = float(input("Gate 1: "))
    gate2 = float(input("Gate 2: "))
    gate3 = float(input("Gate 3: "))
    gate4 = float(input("Gate 4: "))
    total = gate1 + gate2 + gate3 + gate4
    print("total", total)
    if gate1 > 300:
        print("Gate 1 is high by", gate1 - 300)
    if gate2 > 300:
        print("Gate 2 is high by", gate2 - 300)
    if gate3 > 300:
        print("Gate 3 is high by", gate3 - 300)
    if gate4 > 300:
        print("Gate 4 is high by", gate4 - 300)
    print(f"{gate1:.1f}")


main()
"""


def test_what_is_read_into_numbered_variables_goes_into_a_list() -> None:
    after = worked(LEVELS)
    assert "    gates = [0] * 4\n    for i in range(4):\n" in after
    assert 'gates[i] = float(input(f"Gate {i + 1}: "))' in after
    assert "gate1" not in after
    typed = "310\n250\n301\n12\n"
    assert run(after, typed) == run(LEVELS, typed)


def test_first_values_in_a_row_become_the_lists() -> None:
    text = """
    bag1 = 20
    bag2 = 5
    bag3 = 12
    print("refill")
    bag1 = bag1 + 10
    print("bag 1 holds", bag1)
    bag2 = bag2 + 10
    print("bag 2 holds", bag2)
    bag3 = bag3 + 10
    print("bag 3 holds", bag3)
    print(bag1 + bag2 + bag3)
    """
    after = worked(text)
    assert after.startswith("bags = [20, 5, 12]\n")
    assert run(after) == run("\n".join(line[4:] for line in text.split("\n")))


def test_the_suggestion_is_told_as_one() -> None:
    found = report(LEVELS)
    first = found.suggestions[0]
    assert (first.status, first.kind) == ("proved", "loop")
    assert first.title.startswith("gate1 to gate4 kept in one list, gates, and a loop over ")
    assert first.lines_after < first.lines_before


BEFORE = """
def f(n):
    a1 = n
    a2 = n + 1
    if n > 3:
        a1 = 7
    a2 += a1
    print(a1, [x + a2 for x in range(a1)])


f(3)
f(5)
"""
AFTER = """
def f(n):
    a = [0] * 2
    a[0] = n
    a[1] = n + 1
    if n > 3:
        a[0] = 7
    a[1] += a[0]
    print(a[0], [x + a[1] for x in range(a[0])])


f(3)
f(5)
"""
CLAIM = ListedVariables("main.py", "a", ("a1", "a2"))


def proved(before: str = BEFORE, after: str = AFTER, claim: ListedVariables = CLAIM) -> bool:
    return verdict(before, after, claim).proved


def test_elements_stand_for_the_variables() -> None:
    plain = BEFORE.replace("[x + a2 for x in range(a1)]", "a2")
    listed = AFTER.replace("[x + a[1] for x in range(a[0])]", "a[1]")
    assert proved(plain, listed)
    assert run(plain) == run(listed)
    assert not proved(), "a comprehension has a scope of its own"


@pytest.mark.parametrize(
    ("old", "new"),
    [
        ("a[1] = n + 1", "a[0] = n + 1"),
        ("a = [0] * 2", "a = [0] * 3"),
        ("a = [0] * 2", "a = [n] * 2"),
        ("a = [0] * 2", "a = [0, 0, 0]"),
        ("    a = [0] * 2\n    a[0] = n\n", "    a[0] = n\n    a = [0] * 2\n"),
        ("    if n > 3:\n        a[0] = 7\n", "    if n > 3:\n        a = [0] * 2\n        a[0] = 7\n"),
        ("print(a[0], a[1])", "print(a[0], a[-1])"),
        ("print(a[0], a[1])", "print(a, a[1])"),
        ("a[0] = 7", "a1 = 7"),
    ],
)
def test_anything_else_is_refused(old: str, new: str) -> None:
    plain = BEFORE.replace("[x + a2 for x in range(a1)]", "a2")
    listed = AFTER.replace("[x + a[1] for x in range(a[0])]", "a[1]")
    assert old in listed
    assert not proved(plain, listed.replace(old, new))


@pytest.mark.parametrize(
    ("old", "new"),
    [
        ("a1 = n\n", "if n:\n        a1 = n\n"),
        ("a1 = n\n", "for a1 in range(n):\n        print(n)\n"),
        ("a1 = n\n", "a1: int = n\n"),
        ("a1 = n\n", "a1, b = n, n\n"),
        ("print(a1, a2)", "print(a1, a2)\n    del a1"),
        ("print(a1, a2)", "print(a1, a2, locals())"),
        ("print(a1, a2)", "print(a1, a2, a := 3)"),
        ("print(a1, a2)", "def g():\n        return a1\n    print(g(), a2)"),
        ("def f(n):\n", "def f(n):\n    global a1\n"),
    ],
)
def test_variables_that_are_more_than_plain_ones_are_left_alone(old: str, new: str) -> None:
    plain = BEFORE.replace("[x + a2 for x in range(a1)]", "a2").replace(old, new)
    listed = plain.replace("    a1", "    a = [0] * 2\n    a1", 1) if "global" not in new else plain
    for k, name in enumerate(("a1", "a2")):
        listed = listed.replace(name, f"a[{k}]")
    assert not proved(plain, listed)


def test_first_values_must_be_literals_in_a_row() -> None:
    claim = ListedVariables("main.py", "a", ("a1", "a2"))
    assert proved("a1 = 3\na2 = 4\nprint(a1, a2)\n", "a = [3, 4]\nprint(a[0], a[1])\n", claim)
    assert not proved("a1 = 3\na2 = 4\nprint(a1, a2)\n", "a = [4, 3]\nprint(a[0], a[1])\n", claim)
    assert not proved("a1 = 3\na2 = a1\nprint(a1, a2)\n", "a = [3, a[0]]\nprint(a[0], a[1])\n", claim)
    assert not proved("a2 = 4\na1 = 3\nprint(a1, a2)\n", "a = [3, 4]\nprint(a[0], a[1])\n", claim)
