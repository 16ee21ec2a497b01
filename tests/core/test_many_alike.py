"""What is worth a loop, a function or a table where it was not told before; and what still is not."""

from textwrap import dedent

import pytest

from core.builders import file, printed, report, worked
from partitor.source import Source
from partitor.suggestions.patches import unified_diff, with_line_ends

TOLD = {
    "many numbers one under the other": (
        "def beep(a, b):\n    print(a, b)\n\n\n"
        + "".join(
            f"beep({a}, {b})\n" for a, b in [(262, 4), (294, 4), (330, 2), (349, 4), (392, 8), (392, 8), (440, 1)]
        ),
        "repeated-run",
        "for ",
    ),
    "so much differs that only a part can be given it": (
        """
        values = []
        for k in range(5):
            values.append(k * 10 % 30)
        s = 0
        for v in values:
            s = s + v
        print("warmth:", s / 5)
        if s / 5 > 25:
            print("too warm")
        values = []
        for k in range(8):
            values.append(k * 40 % 90)
        s = 0
        for v in values:
            s = s + v
        print("rain:", s / 8)
        if s / 8 > 70:
            print("too wet")
        """,
        "repeated-block",
        "def ",
    ),
    "two variables that get each other's values": (
        """
        a, b, c = 5, 9, 2
        if a > b:
            h = a
            a = b
            b = h
        if b > c:
            h = b
            b = c
            c = h
        if a > b:
            h = a
            a = b
            b = h
        print(a, b, c)
        """,
        "repeated-block",
        "def put_in_order(",
    ),
    "variables called ones, twos, threes": (
        """
        rolls = [3, 5, 6, 6, 1]
        ones = rolls.count(1)
        twos = rolls.count(2)
        threes = rolls.count(3)
        fours = rolls.count(4)
        fives = rolls.count(5)
        print(ones, twos, threes, fours, fives)
        """,
        "repeated-run",
        "for ",
    ),
    "texts that differ in a name": (
        "".join(
            f'print("To: {n.lower()}@club.example")\nprint("Dear {n}, see you on Friday.")\nprint("---")\n'
            for n in ("Ada", "Ben", "Cy", "Dee")
        ),
        "repeated-run",
        "for ",
    ),
    "things put into a list one after the other": (
        "fruits = []\n"
        + "".join(f"fruits.append({w!r})\n" for w in ("apple", "pear", "plum", "fig", "kiwi"))
        + "print(fruits)\n",
        "repeated-run",
        "for ",
    ),
    "a picture with another line below": (
        """
        print("    *")
        print("   ***")
        print("  *****")
        print(" *******")
        print("*********")
        print("    |")
        """,
        "repeated-run",
        "for ",
    ),
    "one line each that differs in a name": (
        "".join(f'print("{n} played", 1, "match")\n' for n in ("Ajo", "Bru", "Cel", "Dor")),
        "repeated-run",
        "for ",
    ),
    "three lines for each kind, with a counter of its own": (
        """
        soups = 0
        salads = 0
        cakes = 0
        money = 0
        ask = len
        n = ask("soups: ")
        soups += n
        money += n * 4
        n = ask("salads: ")
        salads += n
        money += n * 6
        n = ask("cakes: ")
        cakes += n
        money += n * 3
        print(soups, salads, cakes, money)
        """,
        "repeated-run",
        "for ",
    ),
    "words at places that step evenly": (
        "def at(x, y, text):\n    print(x, y, text)\n\n\n"
        + "".join(
            f'at(20, {20 + 30 * k}, "{w}")\n' for k, w in enumerate(["score", "lives", "level", "boats", "gulls"])
        ),
        "repeated-run",
        "for ",
    ),
    "copies of which the first has something else, too": (
        """
        def at(x, y):
            print(x, y)
        def dot(size, colour):
            print("dot", size, colour)
        at(0, -20)
        dot(40, "yellow")
        at(60, 0)
        dot(8, "gray")
        at(90, 0)
        dot(12, "orange")
        at(130, 0)
        dot(13, "blue")
        at(170, 0)
        dot(10, "red")
        print("done")
        """,
        "repeated-run",
        "for ",
    ),
}


@pytest.mark.parametrize("about", TOLD)
def test_it_is_told_and_folded(about):
    program, rule, form = TOLD[about]
    text = dedent(program).lstrip("\n")
    assert rule in {f.rule for f in report(text).findings}
    assert form in worked(text)
    assert printed(worked(text)) == printed(text)


def test_three_things_that_differ_beside_numbered_variables_are_a_loop() -> None:
    """Each copy uses variables of its own, but these are one family."""
    text = "".join(
        f"w{k} = {w}\nh{k} = {h}\nb{k} = w{k} / (h{k} * h{k})\nprint('{n}', b{k})\n"
        for k, (w, h, n) in enumerate([(70, 1.8, "Ada"), (82, 1.7, "Ben"), (65, 1.6, "Cy")], 1)
    )
    (found,) = [f for f in report(text).findings if f.rule == "repeated-run"]
    assert [(p.start_line, p.end_line) for p in found.places] == [(1, 4), (5, 8), (9, 12)]


def test_numbers_that_step_evenly_twice_are_two_loops_not_a_list():
    calls = [f"dot({x}, {y})\n" for y in (1, 3) for x in range(1, 6)]
    text = "def dot(x, y):\n    print(x, y)\n\n\n" + "".join(calls)
    found = [f for f in report(text).findings if f.rule == "repeated-run"]
    assert [len(f.places) for f in found] == [5, 5] or len(worked(text).split("\n")) < 10
    assert "[(" not in worked(text)
    assert printed(worked(text)) == printed(text)


def test_texts_that_say_what_the_value_beside_them_is_called_differ_once():
    words = ["coins", "keys", "hearts", "arrows"]
    text = "def at(x, y, text):\n    print(x, y, text)\n\n\ncoins, keys, hearts, arrows = 3, 1, 2, 7\n"
    called = [f'at(20, {20 + 20 * k}, "{w.title()}: " + str({w}))\n' for k, w in enumerate(words)]
    assert "repeated-run" in {f.rule for f in report(text + "".join(called)).findings}
    others = [line.replace("Hearts", "Lives") for line in called]
    assert not report(text + "".join(others)).findings


LOOKED_UP = "".join(
    f'{"el" if k else ""}if word == "{a}":\n    print("{b}")\n'
    for k, (a, b) in enumerate(
        [("cat", "chat"), ("dog", "chien"), ("sea", "mer"), ("boat", "bateau"), ("sun", "soleil")]
    )
)


def test_branches_that_show_a_literal_for_a_literal_are_a_table():
    text = f'word = "sea"\n{LOOKED_UP}else:\n    print("?")\n'
    assert "repeated-run" in {f.rule for f in report(text).findings}
    assert worked(text) == text


RECURSIVE = """
def count_even(values):
    if not values:
        return 0
    rest = count_even(values[1:])
    if values[0] % 2 == 0:
        return rest + 1
    return rest


def count_big(values):
    if not values:
        return 0
    rest = count_big(values[1:])
    if values[0] > 10:
        return rest + 1
    return rest


print(count_even([1, 2, 14]), count_big([1, 2, 14]))
"""


def test_functions_that_call_themselves_are_alike_but_for_a_line():
    (found,) = [f for f in report(RECURSIVE).findings if f.rule == "twin-functions"]
    assert len(found.places) == 2


QUIET = {
    "four things put into a list": "rows = []\n" + "".join(f"rows.append({k * k % 7})\n" for k in range(4)),
    "six calls with two numbers": "".join(f"beep({a}, {a * 7 % 5})\n" for a in (3, 8, 2, 9, 4, 7)),
    "eight calls in a row are no function in two places": "".join(
        f"put('{w}', {k * k % 7})\n" for k, w in enumerate(["a", "x", "q", "z", "k", "d", "r", "f"])
    ),
    "prose": 'print("The boat is red.")\nprint("The gull is grey.")\nprint("The sea is blue.")\nprint("The sand is white.")\n',
    "four of a table": "\n".join(LOOKED_UP.split("\n")[:8]) + "\n",
    "four weights, one a column": "".join(f"put({k}, {w})\n" for k, w in enumerate([1, 3, 1, 2])),
    "four lines of a menu": "".join(
        f'print({k}, "{w}")\n' for k, w in enumerate(["Add", "Remove a book", "Find", "Quit"], 1)
    ),
    "counters that begin with nothing": "".join(f"{w} = 0\n" for w in "ones twos threes fours fives sixes".split()),
    "a menu": "".join(f'print("{k}. {w}")\n' for k, w in enumerate(["Add", "Remove a book", "Find one", "Quit"], 1)),
    "an exchange here, another there": "if a > b:\n    h = a\n    a = b\n    b = h\nprint(a)\nif b > c:\n    h = b\n    b = c\n    c = h\n",
}


@pytest.mark.parametrize("about", QUIET)
def test_it_is_not_told(about):
    text = "def beep(a, b):\n    print(a, b)\n\n\ndef put(a, b):\n    print(a, b)\n\n\nword = 'x'\na, b, c = 3, 2, 1\n"
    rules = {f.rule for f in report(text + QUIET[about]).findings}
    assert not rules & {"repeated-run", "repeated-block", "near-copies"}


def test_a_byte_order_mark_and_a_missing_last_line_end_are_kept_apart_from_the_change():
    marked = Source("m.py", "a = 1\nb = 2\n", "python", original="\ufeffa = 1\nb = 2\n")
    assert with_line_ends(marked, "a = 1\nb = 3\n") == "\ufeffa = 1\nb = 3\n"
    assert "\ufeff" not in "".join(x for x in unified_diff(marked, "a = 1\nb = 3\n").split("\n") if x[:1] in "+-")
    mixed = Source("m.py", "a = 1\nb = 2", "python", newline="\r\n", original="a = 1\r\nb = 2")
    assert with_line_ends(mixed, "a = 1\nb = 2\nc = 3\n") == "a = 1\r\nb = 2\r\nc = 3\r\n"
    assert file("a = 1\n").code_lines_before[:2] == [0, 1]
