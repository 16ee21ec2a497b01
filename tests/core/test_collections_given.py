"""Lists, tuples and sets of literals that are only looked at are given to functions as one; and what that proof refuses."""

from __future__ import annotations

import pytest

from core.builders import printed, report, verdict, worked
from partitor.suggestions.proof import MergedFunctions, NewFunction, NewLoop

BEDS = """
def plan_spring(beds):
    chosen = []
    for bed in beds:
        if bed in {spring}:
            chosen.append(bed)
    chosen.sort()
    print("Spring:")
    for bed in chosen:
        print("-", bed)
    return chosen


def plan_summer(beds):
    chosen = []
    for bed in beds:
        if bed in {summer}:
            chosen.append(bed)
    chosen.sort()
    print("Summer:")
    for bed in chosen:
        print("-", bed)
    return chosen


crops = ["peas", "maize", "onions", "gourds"]
print(plan_spring(crops), plan_summer(crops))
"""


@pytest.mark.parametrize(
    ("spring", "summer"),
    [
        ('("peas", "beans", "onions")', '("gourds", "maize")'),
        ('("peas", "beans")', '("gourds", "maize")'),
        ('["peas", "beans", "onions"]', '["gourds", "maize"]'),
        ('{"peas", "beans", "onions"}', '{"gourds", "maize"}'),
    ],
)
def test_what_is_asked_what_is_in_it_is_one_value(spring: str, summer: str) -> None:
    text = BEDS.format(spring=spring, summer=summer)
    after = worked(text)
    assert after.count("def ") == 1
    assert "def plan(beds, wanted, label):" in after
    assert f"plan(crops, {spring}, " in after
    assert printed(after) == printed(text)


ASKING = """
def choose_way():
    way = input("Which way? ").lower()
    while way not in ("left", "right"):
        print("I do not know that.")
        way = input("Which way? ").lower()
    if way == "left":
        print("A wall.")
    mood = input("How do you feel? ").lower()
    while mood not in ("well", "so so", "ill"):
        print("I do not know that.")
        mood = input("How do you feel? ").lower()
    return way + mood


print(choose_way())
"""


def test_the_answers_that_are_taken_are_one_parameter() -> None:
    (suggestion,) = [s for s in report(ASKING).suggestions if s.kind == "function"]
    assert suggestion.status == "proved"
    assert suggestion.title.endswith("(prompt, ways), called in 2 places")


def test_a_variable_is_no_tuple() -> None:
    unlike = BEDS.format(spring='("peas", "beans")', summer="beds")
    (told,) = [f for f in report(unlike).findings if f.rule == "twin-functions"]
    assert told.message == "plan_spring and plan_summer are alike but for one line."


BEFORE = """
def tell(found):
    for turn in range(2):
        if found in ["eel", "crab"]:
            print("wet")
            print("cold")
    for turn in range(2):
        if found in ["hare", "deer", "fox"]:
            print("wet")
            print("cold")


tell("eel")
"""
RIGHT = """
def show(found, names):
    for turn in range(2):
        if found in names:
            print("wet")
            print("cold")


def tell(found):
    show(found, ["eel", "crab"])
    show(found, ["hare", "deer", "fox"])


tell("eel")
"""


def test_a_list_may_be_made_once_where_it_is_only_looked_at() -> None:
    assert verdict(BEFORE, RIGHT, NewFunction("x.py", "show")).proved


KEPT = [
    # (what stands in the copies, with a list in the place of {0})
    "        log.append({0})\n        print(log)\n",
    "        last = {0}\n        last.append(turn)\n        print(last)\n",
    "        for name in {0}:\n            print(name)\n        print({0} is log)\n",
    "        print(turn in {0} is log)\n",
    "        print(len({0}, turn))\n        print(turn)\n",
    "        print(sum({0}, turn))\n        print([{0}])\n",
]


@pytest.mark.parametrize("lines", KEPT)
def test_a_list_that_somebody_may_keep_or_change_is_made_anew(lines: str) -> None:
    head = "    for turn in range(2):\n"
    before = f"def tell(log):\n{head}{lines.format('[3]')}{head}{lines.format('[5, 4]')}\n\ntell([])\n"
    body = lines.format("names")
    after = f"def show(log, names):\n{head}{body}\n\ndef tell(log):\n    show(log, [3])\n    show(log, [5, 4])\n\n\ntell([])\n"
    assert not verdict(before, after, NewFunction("x.py", "show")).proved


def test_a_function_of_the_program_s_own_may_keep_a_list() -> None:
    own = "def len(names):\n    names.append(1)\n    return names\n\n\n"
    lines = "    for turn in range(2):\n        print(len({0}))\n        print(turn)\n"
    before = f"{own}def tell():\n{lines.format('[3]')}{lines.format('[5, 4]')}\n\ntell()\n"
    after = f"def show(names):\n{lines.format('names')}\n\ndef tell():\n    show([3])\n    show([5, 4])\n\n\ntell()\n"
    assert not verdict(before, own + after, NewFunction("x.py", "show")).proved
    assert verdict(before.replace(own, ""), after, NewFunction("x.py", "show")).proved


def test_lists_of_lists_may_change_inside() -> None:
    lines = "    for turn in range(2):\n        for row in {0}:\n            row.append(turn)\n            print(row)\n"
    before = f"def tell():\n{lines.format('[[3]]')}{lines.format('[[5], [4]]')}\n\ntell()\n"
    after = (
        f"def show(rows):\n{lines.format('rows')}\n\ndef tell():\n    show([[3]])\n    show([[5], [4]])\n\n\ntell()\n"
    )
    assert not verdict(before, after, NewFunction("x.py", "show")).proved


def test_twins_and_loops_are_given_lists_too() -> None:
    twins = "def a(x):\n    return x in ['p', 'q'] or x in ['p', 'q']\n\n\ndef b(x):\n    return x in ['r'] or x in ['r']\n\n\n"
    one = "def c(x, names):\n    return x in names or x in names\n\n\n"
    merged = MergedFunctions("x.py", "c", ("a", "b"))
    assert verdict(f"{twins}print(a('p'), b('p'))\n", f"{one}print(c('p', ['p', 'q']), c('p', ['r']))\n", merged).proved
    kept = twins.replace("return x in ['p', 'q'] or", "return ['p', 'q'] or").replace(
        "return x in ['r'] or", "return ['r'] or"
    )
    wrong = one.replace("return x in names or", "return names or")
    assert not verdict(
        f"{kept}print(a('p'), b('p'))\n", f"{wrong}print(c('p', ['p', 'q']), c('p', ['r']))\n", merged
    ).proved
    copies = "".join(f"for k in range(3):\n    print(k in {v}, len({v}))\n" for v in ("[1]", "[0, 2]", "[2, 1]"))
    loop = "for held in [[1], [0, 2], [2, 1]]:\n    for k in range(3):\n        print(k in held, len(held))\n"
    assert verdict(copies, loop, NewLoop("x.py", 1)).proved
    assert printed(copies) == printed(loop)
