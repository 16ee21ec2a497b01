"""Places in one procedure that are alike but for what they ask, and what is no such thing."""

from __future__ import annotations

import pytest

from core.builders import report

COLD = """
temperatures = [12, 15, 9, 20]
cold = 0
for t in temperatures:
    if t < 10:
        cold += 1
mild = 0
for t in temperatures:
    if 10 <= t < 16:
        mild += 1
warm = 0
for t in temperatures:
    if t * 2 >= 32:
        warm += 1
print(cold, mild, warm)
"""
PAGE = """
members = [("Ada", 1999, True), ("Bo", 2004, False), ("Cy", 2001, True)]
print("Members")
print("<ul>")
for name, year, paid in members:
    if paid:
        print("<li>" + name + "</li>")
print("</ul>")
print("Not paid")
print("<ul>")
for name, year, paid in members:
    if not paid:
        print("<li>" + name + "</li>")
print("</ul>")
print("Born after 2000")
print("<ul>")
for name, year, paid in members:
    if year > 2000:
        print("<li>" + name + "</li>")
print("</ul>")
"""
TOLD = {"counters": (COLD, [2, 6, 10]), "lists": (PAGE, [2, 8, 14])}


@pytest.mark.parametrize("about", TOLD)
def test_three_places_are_told_once(about):
    text, starts = TOLD[about]
    (found,) = [f for f in report(text).findings if f.rule == "repeated-block"]
    assert [p.start_line for p in found.places] == starts
    assert found.message == "These statements stand in three places, alike but for what they ask."
    assert all(len(slot.values) == len(starts) for slot in found.slots)
    assert any("if " in value for slot in found.slots for value in slot.values)
    (suggestion,) = [s for s in report(text).suggestions if s.id == found.suggestion]
    assert (suggestion.status, suggestion.patch) == ("outline", None)


QUIET = {
    "two places": COLD[: COLD.index("warm = 0")],
    "something else is done each time": COLD.replace("cold += 1", "cold += t").replace("mild += 1", "print(t)"),
    "functions of their own": """
def first_even(values):
    for v in values:
        if v % 2 == 0:
            return v
    return None


def first_big(values):
    for v in values:
        if v > 100:
            return v
    return None


def first_between(values):
    for v in values:
        if 3 < v < 7:
            return v
    return None


print(first_even([1, 2]), first_big([1, 200]), first_between([4]))
""",
    "guards": """
def check(a, b, c):
    if a < 0:
        return False
    if b > 10 or c:
        return False
    if not c:
        return False
    return True


print(check(1, 2, 3))
""",
}


@pytest.mark.parametrize("about", QUIET)
def test_it_is_not_told(about):
    assert not any("what they ask" in f.message for f in report(QUIET[about]).findings)


GAME = """
def play(me, you):
    if you == "rock":
        if me == "rock":
            print("I had rock as well.")
            return 0
        elif me == "paper":
            print("I had paper.")
            return -1
        else:
            print("I had scissors.")
            return 1
    elif you == "paper":
        if me == "paper":
            print("I had paper as well.")
            return 0
        elif me == "scissors":
            print("I had scissors.")
            return -1
        else:
            print("I had rock.")
            return 1
    return None


print(play("rock", "paper"))
"""


def test_whole_choices_that_leave_the_function_are_a_block():
    (found,) = [f for f in report(GAME).findings if f.rule == "repeated-block"]
    assert [p.start_line for p in found.places] == [3, 13]


SORTED = """
data = [5, 2, 9, 1]
if input() == "a":
    for i in range(len(data)):
        for j in range(len(data) - 1):
            if data[j] > data[j + 1]:
                tmp = data[j]
                data[j] = data[j + 1]
                data[j + 1] = tmp
    for d in data:
        print(d, end=" ")
    print()
else:
    for i in range(len(data)):
        for j in range(len(data) - 1):
            if data[j] < data[j + 1]:
                tmp = data[j]
                data[j] = data[j + 1]
                data[j + 1] = tmp
    for d in data:
        print(d, end=" ")
    print()
"""


def test_what_stands_inside_near_copies_is_not_told_again():
    blocks = [f for f in report(SORTED).findings if f.rule == "repeated-block"]
    assert [[(p.start_line, p.end_line) for p in f.places] for f in blocks] == [[(3, 11), (13, 21)]]
