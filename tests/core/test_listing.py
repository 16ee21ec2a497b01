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


ASKED = """
def main():
    mark1 = int(input("Mark 1: "))
    mark2 = int(input("Mark 2: "))
    mark3 = int(input("Mark 3: "))
    mark4 = int(input("Mark 4: "))
    mark5 = int(input("Mark 5: "))
    print({0})


main()
"""
TYPED = "3\n9\n-4\n7\n0\n"


@pytest.mark.parametrize(
    ("asked", "expected"),
    [
        ("max(mark1, mark2, mark3, mark4, mark5)", "print(max(marks))"),
        ("min(mark1, mark2, mark3, mark4, mark5) + 1", "print(min(marks) + 1)"),
        ("mark1 + mark2 + mark3 + mark4 + mark5", "print(sum(marks))"),
        ("(mark1 + mark2 + mark3 + mark4 + mark5) / 5", "print(sum(marks) / 5)"),
        ("mark1 + mark2 + mark3 + mark4 + mark5 + 2", "print(sum(marks) + 2)"),
    ],
)
def test_all_of_them_are_asked_for_at_once(asked: str, expected: str) -> None:
    text = ASKED.format(asked)
    after = worked(text)
    assert expected in after
    assert run(after, TYPED) == run(text, TYPED)


@pytest.mark.parametrize(
    "asked",
    [
        "max(mark1, mark2, mark3, mark4)",
        "max(mark1, mark2, mark3, mark5, mark4)",
        "max(mark1, mark2, mark3, mark4, mark5, 2)",
        "max(mark1, mark2, mark3, mark4, mark5, key=abs)",
        "abs(mark1) + mark2 + mark3 + mark4 + mark5",
        "mark1 + mark2 + mark3 + mark4",
        "mark1 + mark2 + mark3 - mark4 + mark5",
        "mark1 + (mark2 + mark3 + mark4 + mark5)",
        "(mark1, mark2, mark3, mark4, mark5)",
        "2 * mark1 + mark2 + mark3 + mark4 + mark5",
    ],
)
def test_what_is_asked_of_some_of_them_is_asked_one_by_one(asked: str) -> None:
    text = ASKED.format(asked)
    after = worked(text)
    assert "marks[1]" in after
    assert run(after, TYPED) == run(text, TYPED)


@pytest.mark.parametrize(
    ("first", "second"),
    [
        ("int(", "float("),
        ("def main():", "def main():\n    sum = 3\n    print(sum)"),
        ("def main():", "def int(text):\n    return float(text)\n\n\ndef main():"),
        ("    print(", "    mark5 = mark5 / 2\n    print("),
        ("    print(", "    mark5 += 0.5\n    print("),
        ("int(input(", "(input("),
    ],
)
def test_only_whole_numbers_are_added_up_by_the_list(first: str, second: str) -> None:
    text = ASKED.format("mark1 + mark2 + mark3 + mark4 + mark5").replace(first, second)
    after = worked(text)
    assert "sum(marks)" not in after
    assert run(after, TYPED) == run(text, TYPED)


FAMILY = "a1 = 3\na2 = {0}\na3 = 5\na1 = a1 + 1\nprint({1})\n"
LISTED = "a = [3, {0}, 5]\na[0] = a[0] + 1\nprint({1})\n"


@pytest.mark.parametrize(
    ("value", "asked", "whole", "right"),
    [
        ("4", "max(a1, a2, a3)", "max(a)", True),
        ("4", "min(a1, a2, a3)", "min(a)", True),
        ("4", "a1 + a2 + a3", "sum(a)", True),
        ("4", "(a1 + a2 + a3) * 2", "sum(a) * 2", True),
        ("4", "max(a1, a2, a3)", "min(a)", False),
        ("4", "max(a1, a3, a2)", "max(a)", False),
        ("4", "max(a1, a2, a3, a1)", "max(a)", False),
        ("4", "max(a1, a2, a3, key=abs)", "max(a)", False),
        ("4", "max(a1, a2, a3)", "max(a, key=abs)", False),
        ("4", "a1 + a2", "sum(a)", False),
        ("4", "a1 - a2 + a3", "sum(a)", False),
        ("4", "a3 + a2 + a1", "sum(a)", False),
        ("4", "a1 + (a2 + a3)", "sum(a)", False),
        ("4", "a1 + a2 + a3", "sum(a, 1)", False),
        ("4.5", "a1 + a2 + a3", "sum(a)", False),
        ("4", "len((a1, a2, a3))", "len(a)", False),
        ("4", "print(a1, a2, a3)", "print(a)", False),
        ("4", "sorted((a1, a2, a3))", "sorted(a)", False),
        ("4", "[a1, a2, a3]", "list(a)", False),
    ],
)
def test_the_proof_of_all_at_once(value: str, asked: str, whole: str, right: bool) -> None:
    claim = ListedVariables("main.py", "a", ("a1", "a2", "a3"))
    before, after = FAMILY.format(value, asked), LISTED.format(value, whole)
    assert verdict(before, after, claim).proved is right
    shadowed = f"def {whole.split('(')[0]}(*given):\n    return 7\n\n\n"
    assert not verdict(shadowed + before, shadowed + after, claim).proved or not right
