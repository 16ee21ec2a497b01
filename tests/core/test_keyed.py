"""Branches that each count a variable of their own: the variables are kept in a dictionary, and one branch is left."""

from __future__ import annotations

import pytest

from core.builders import file, printed, report, run, verdict, worked
from partitor.suggestions.proof import KeyedBranches, ListedVariables, prove

VOTES = """\
red = 0
green = 0
blue = 0
plaid = 0
for k in range(6):
    vote = input("Vote: ")
    if vote == "red":
        red = red + 1
    elif vote == "green":
        green = green + 1
    elif vote == "blue":
        blue = blue + 1
    elif vote == "plaid":
        plaid = plaid + 1
    else:
        print("What?")
print("red and green:", red, green)
print(f"blue: {blue}, plaid: {plaid:>3}")
print(red + green + blue + plaid, max(red, green, blue, plaid))
"""
TYPED = "red\nblue\npuce\nred\nplaid\ngreen\n"


def test_the_variables_become_a_dictionary_and_one_branch_is_left() -> None:
    after = worked(VOTES)
    assert after.startswith('count_by_vote = {"red": 0, "green": 0, "blue": 0, "plaid": 0}\n')
    assert "    if vote in count_by_vote:\n        count_by_vote[vote] = count_by_vote[vote] + 1\n    else:\n" in after
    assert "f\"blue: {count_by_vote['blue']}, plaid: {count_by_vote['plaid']:>3}\"" in after
    assert "print(sum(count_by_vote.values()), max(count_by_vote.values()))" in after
    assert run(after, TYPED) == run(VOTES, TYPED)
    (told,) = [s for s in report(VOTES).suggestions if s.kind == "table"]
    assert told.title == "A dictionary count_by_vote in place of 4 branches"


def test_votes_in_a_list_and_numbers_thrown_are_known_to_be_plain() -> None:
    listed = VOTES.replace("for k in range(6):\n", 'votes = ["red", "blue", "red"]\nfor vote in votes:\n')
    listed = listed.replace('    vote = input("Vote: ")\n', "")
    assert "if vote in count_by_vote:" in worked(listed)
    assert printed(worked(listed)) == printed(listed)
    thrown = "import random\nrandom.seed(3)\n" + VOTES.replace('input("Vote: ")', "random.randint(1, 6)")
    for number, word in enumerate(("red", "green", "blue", "plaid"), 1):
        thrown = thrown.replace(f'"{word}"', str(number))
    after = worked(thrown)
    assert "{1: 0, 2: 0, 3: 0, 4: 0}" in after
    assert printed(after) == printed(thrown)


@pytest.mark.parametrize(
    ("was", "now"),
    [
        ("red = 0\n", "print('begin')\nred = 0\nprint(red)\n"),
        ("    else:\n        print", "    else:\n        red += 2\n        print"),
        ("green = green + 1", "green = green + 2"),
        ("green = green + 1", "green = green + 1\n        print('green!')"),
        ('vote == "green"', 'vote != "green"'),
        ('vote == "green"', 'vote == "red"'),
        ('vote = input("Vote: ")', 'vote = input("Vote: ").split()'),
        ("for k in range(6):", "def count():\n    print(red)\n\n\nfor k in range(6):"),
        ("for k in range(6):", "green, plaid = 1, 2\nfor k in range(6):"),
        ("for k in range(6):", "del green\ngreen = 3\nfor k in range(6):"),
        ('"blue":\n', '"blue":  # the best\n'),
        ("print(red + green", "print(locals())\nprint(red + green"),
    ],
)
def test_other_branches_stay(was: str, now: str) -> None:
    text = VOTES.replace(was, now)
    assert text != VOTES
    assert not [s for s in report(text).suggestions if s.kind == "table" and s.status == "proved"]
    assert run(worked(text), TYPED) == run(text, TYPED)


KEPT = VOTES.replace("red = 0\ngreen = 0\nblue = 0\nplaid = 0", 'n = {"red": 0, "green": 0, "blue": 0, "plaid": 0}')
for word in ("red", "green", "blue", "plaid"):
    KEPT = KEPT.replace(f"{word} = {word} + 1", f'n["{word}"] = n["{word}"] + 1')
KEPT = KEPT.replace(", red, green)", ', n["red"], n["green"])')
KEPT = KEPT.replace("{blue}", "{n['blue']}").replace("{plaid:>3}", "{n['plaid']:>3}")
KEPT = KEPT.replace("red + green + blue + plaid, max(red, green, blue, plaid)", "sum(n.values()), max(n.values())")
ONE = (
    KEPT[: KEPT.index("    if vote")]
    + "    if vote in n:\n        n[vote] = n[vote] + 1\n"
    + KEPT[KEPT.index("    else:") :]
)
LISTED = ListedVariables("main.py", "n", ("red", "green", "blue", "plaid"))
KEYED = KeyedBranches("main.py", "n")


@pytest.mark.parametrize(
    ("was", "wrong"),
    [
        ('"green": 0', '"green": 1'),
        ('"green": 0', '"red": 0'),
        ('"green": 0', "3: 0"),
        ('"green": 0, "blue": 0', '"blue": 0, "green": 0'),
        ('"green": 0, ', ""),
        ('"plaid": 0}', '"plaid": 0, "puce": 0}'),
        ("n = {", "n = n2 = {"),
        ('n["green"] + 1', 'n["red"] + 1'),
        ('n["green"] + 1', "n[1] + 1"),
        ("sum(n.values())", "sum(n)"),
        ("sum(n.values())", "sum(n.keys())"),
        ("sum(n.values())", "len(n.values())"),
        ("max(n.values())", "min(n.values())"),
        ("print(sum", "n.clear()\nprint(sum"),
    ],
)
def test_another_dictionary_is_refused(was: str, wrong: str) -> None:
    assert verdict(VOTES, KEPT, LISTED).proved
    assert was in KEPT
    assert not verdict(VOTES, KEPT.replace(was, wrong, 1), LISTED).proved


@pytest.mark.parametrize(
    ("was", "wrong"),
    [
        ("if vote in n:", "if vote not in n:"),
        ("if vote in n:", "if vote:"),
        ("if vote in n:", "if k in n:"),
        ("n[vote] + 1", "n[vote] + 2"),
        ("n[vote] + 1", 'n["red"] + 1'),
        ("n[vote] = n[vote] + 1", 'n["red"] = n[vote] + 1'),
        ("n[vote] = n[vote] + 1", "n[vote] = n[vote] + 1\n        vote = 3"),
        ("n[vote] = n[vote] + 1", "n[vote] = n[vote] + 1\n        n[vote] = n[vote] + 1"),
        ('print("What?")', 'print("No")'),
        ('    else:\n        print("What?")\n', ""),
    ],
)
def test_another_branch_is_refused(was: str, wrong: str) -> None:
    assert verdict(KEPT, ONE, KEYED).proved
    assert was in ONE
    assert not verdict(KEPT, ONE.replace(was, wrong, 1), KEYED).proved


@pytest.mark.parametrize(
    ("was", "now"),
    [
        # Other keys, or another dictionary.
        ("for k in range(6):", 'n["puce"] = 0\nfor k in range(6):'),
        ("for k in range(6):", "n[input()] = 0\nfor k in range(6):"),
        ("for k in range(6):", 'del n["blue"]\nfor k in range(6):'),
        ("for k in range(6):", "n.clear()\nfor k in range(6):"),
        ("for k in range(6):", "m = n\nfor k in range(6):"),
        ("for k in range(6):", "print(n)\nfor k in range(6):"),
        ("for k in range(6):", "n = {}\nfor k in range(6):"),
        ("for k in range(6):", "def change():\n    n['puce'] = 1\n\n\nfor k in range(6):"),
        ('"plaid": 0}', '"plaid": 0, "puce": 0}'),
        # What is asked for may be no key at all.
        ('vote = input("Vote: ")', 'vote = input("Vote: ").split()'),
        ('vote = input("Vote: ")', 'vote = [input("Vote: ")]'),
    ],
)
def test_keys_that_may_be_others_are_refused(was: str, now: str) -> None:
    assert was in KEPT
    assert not verdict(KEPT.replace(was, now, 1), ONE.replace(was, now, 1), KEYED).proved


def test_what_is_called_may_change_what_is_asked_for() -> None:
    head = "def other():\n    global vote\n    vote = 'blue'\n    return 1\n\n\n"
    before, after = (head + text.replace("] + 1", "] + other()") for text in (KEPT, ONE))
    assert not verdict(before, after, KEYED).proved


LOOP = """\
codes = {0}
{1}
for code in codes:
    kind = "?"
    if code == "a":
        kind = "A"
    elif code == "b":
        kind = "B"
    elif code == "c":
        kind = "C"
    elif code == "d":
        kind = "D"
    elif code == "e":
        kind = "E"
    print(kind)
"""


@pytest.mark.parametrize(
    ("codes", "more", "plain"),
    [
        ('["a", "c"]', "", True),
        ('("a", 3, None)', "", True),
        ('["a", "c"]', 'codes.append("b")', True),
        ('["a", "c"]', "codes.append(input())\nprint(codes, len(codes), codes[0])", True),
        (
            '["a", "c"]',
            "import random\nrandom.seed(2)\nrandom.shuffle(codes)\nfor code in codes:\n    print(code in codes)",
            True,
        ),
        ('["a", ["c"]]', "", False),
        ('["a", "c"]', "codes.append([1])", False),
        ('["a", "c"]', "codes[0] = [1]", False),
        ('["a", "c"]', "codes += [[1]]", False),
        ('["a", "c"]', "codes = codes + [[1]]", False),
        ('["a", "c"]', "other = codes\nother.append([1])", False),
        ('["a", "c"]', "codes.extend([[1]])", False),
        ('["a", "c"]', "[codes][0].append([1])", False),
        ('["a", "c"]', "def change():\n    codes.insert(0, [1])\n\n\nchange()", False),
        ('["a", "c"]', "def change(some):\n    some.append([1])\n\n\nchange(codes)", False),
        ('["a", "c"]', "for code in [codes[0:1]]:\n    print(code)", False),
        ("[[1] for k in range(3)]", "", False),
        ("[*[[1]]]", "", False),
        ("{}", "", False),
    ],
)
def test_which_lists_hold_nothing_but_plain_values(codes: str, more: str, plain: bool) -> None:
    text = LOOP.format(codes, more)
    assert ("elif" not in worked(text)) is plain
    assert printed(worked(text)) == printed(text)


def test_a_file_beside_it_may_change_the_dictionary() -> None:
    before, after = file(KEPT), file(ONE)
    before.beside = (file("from main import n\nn['puce'] = 1\n"),)
    assert not prove(before, after, KEYED).proved
