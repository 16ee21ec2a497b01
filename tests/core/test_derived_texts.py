"""Texts that hold what differs elsewhere: written around it, in each language's way."""

from __future__ import annotations

from pathlib import Path

import pytest

from core.builders import report, run, verdict, worked
from core.runners import can_run, outputs
from partitor.suggestions.proof import NewFunction

SHOP = """
def buy(stock, choice):
    if choice == "rope":
        if stock["rope"] > 0:
            stock["rope"] -= 1
            print("you bought rope")
            print("left:", stock["rope"])
        else:
            print("sorry, no rope")
    elif choice == "lamp":
        if stock["lamp"] > 0:
            stock["lamp"] -= 1
            print("you bought lamp")
            print("left:", stock["lamp"])
        else:
            print("sorry, no lamp")


shelf = {"rope": 2, "lamp": 0}
buy(shelf, "rope")
buy(shelf, "lamp")
"""


def test_one_parameter_stands_in_all_texts() -> None:
    after = worked(SHOP)
    assert 'print(f"you bought {name}")' in after
    assert 'print(f"sorry, no {name}")' in after
    assert run(after) == run(SHOP)
    assert [len(s.slots) for s in report(SHOP).suggestions] == [1]


def test_a_text_that_only_happens_to_hold_it_once_is_a_value_of_its_own() -> None:
    after = worked(SHOP.replace('"sorry, no lamp"', '"no lamps, sorry"'))
    assert 'f"you bought {name}"' in after
    assert "no rope" in after.split("shelf =")[0].split("elif")[0]


PROGRAMS = {
    "javascript": (
        "function line(word) {{\n  console.log(word);\n}}\n{}",
        'line("{0}");\nline("sell {0} now");\nline("{0}: full");\nconsole.log("--");\n',
        "`sell ${",
    ),
    "java": (
        "public class Main {{\n    static void line(String word) {{\n        System.out.println(word);\n    }}\n\n"
        "    public static void main(String[] args) {{\n{}    }}\n}}\n",
        '        line("{0}");\n        line("sell {0} now");\n        line("{0}: full");\n        System.out.println("--");\n',
        '"sell " + ',
    ),
    "racket": (
        "#lang racket/base\n(define (line word)\n  (display word)\n  (newline))\n{}",
        '(line "{0}")\n(line "sell {0} now")\n(line "{0}: full")\n(newline)\n',
        '(string-append "sell " ',
    ),
    "swift": (
        "func line(_ word: String) {{\n    print(word)\n}}\n{}",
        'line("{0}")\nline("sell {0} now")\nline("{0}: full")\nprint("--")\n',
        '"sell \\(',
    ),
}


@pytest.mark.parametrize("language", PROGRAMS)
def test_every_language_has_its_way(language: str, tmp_path: Path) -> None:
    frame, block, shown = PROGRAMS[language]
    text = frame.format("".join(block.format(word) for word in ("rope", "lamp", "hook", "oar")))
    after = worked(text, language)
    assert shown in after
    if language != "swift" and can_run(language):
        before, now = outputs(language, [text, after], tmp_path)
        assert before == now


BEFORE = 'print("rope")\nprint("buy rope")\nprint(1)\nprint("lamp")\nprint("buy lamp")\nprint(1)\n'


@pytest.mark.parametrize(
    ("text", "right"),
    [
        ('f"buy {w}"', True),
        ('"buy " + w', True),
        ('f"buy  {w}"', False),
        ('f"buy {w}s"', False),
        ('f"{w} buy"', False),
        ('f"buy {w!r}"', False),
        ('f"buy {w:>5}"', False),
    ],
)
def test_only_the_same_text_is_proved(text: str, right: bool) -> None:
    after = f'def show(w):\n    print(w)\n    print({text})\n    print(1)\n\n\nshow("rope")\nshow("lamp")\n'
    assert verdict(BEFORE, after, NewFunction("main.py", "show")).proved is right


DAYS = """
lines = ["monday,soup,3", "tuesday,fish,2", "monday,cake,1", "sunday,soup,2"]
print("MONDAY")
monday = 0
for line in lines:
    parts = line.split(",")
    if parts[0] == "monday":
        monday = monday + int(parts[2])
        print(parts[1])
print("Orders on Monday:", monday)

print("TUESDAY")
tuesday = 0
for line in lines:
    parts = line.split(",")
    if parts[0] == "tuesday":
        tuesday = tuesday + int(parts[2])
        print(parts[1])
print("Orders on Tuesday:", tuesday)

print(monday + tuesday)
"""


def test_the_same_word_in_other_letters_is_given_once() -> None:
    after = worked(DAYS)
    assert "(day):\n    print(day.upper())\n" in after
    assert 'print(f"Orders on {day.capitalize()}:", total)' in after
    assert after.count('("monday")') == after.count('("tuesday")') == 1
    assert run(after) == run(DAYS)


@pytest.mark.parametrize(
    ("words", "way"),
    [
        (("sea gate", "Sea Gate"), ".title()"),
        (("sea gate", "Sea gate"), ".capitalize()"),
        (("sea gate", "SEA GATE"), ".upper()"),
        (("Mill", "mill"), "mill"),
        (("mühle", "MÜHLE"), "MÜHLE"),
        (("mcgee", "McGee"), "McGee"),
        (("7", "8"), '"8"'),
    ],
)
def test_only_what_a_method_gives_exactly_is_left_to_it(words, way) -> None:
    rows = [words, ("tide", {".title()": "Tide", ".capitalize()": "Tide", ".upper()": "TIDE"}.get(way, "Zip"))]
    text = "seen = {}\n" + "".join(
        f'print("{other}")\nfor k in range({n}):\n    seen["{name}"] = k + {n}\n    print(seen["{name}"], k)\n'
        f'if seen["{name}"] > 3:\n    print("many")\nprint(len(seen))\nprint({n} * "-")\n'
        for n, (name, other) in enumerate(rows, 3)
    )
    after = worked(text.replace('print(3 * "-")', 'print("between")'))
    assert way in after
    assert run(after) == run(text.replace('print(3 * "-")', 'print("between")'))


SAID = """\
print("TIDE")
print("the tide", 1)
print("MILL")
print("the mill", 1)
"""
TOLD = """\
def say(name):
    print(name{way})
    print(f"the {{name}}", 1)


say("tide")
say("mill")
"""


@pytest.mark.parametrize(
    ("way", "proved"),
    [
        (".upper()", True),
        (".lower()", False),
        (".title()", False),
        (".swapcase()", False),
        (".upper(1)", False),
        (".upper", False),
        (".upper().lower()", False),
        ("[0].upper()", False),
        ("", False),
    ],
)
def test_the_proof_works_out_what_the_method_gives(way: str, proved: bool) -> None:
    assert verdict(SAID, TOLD.format(way=way), NewFunction("main.py", "say")).proved is proved


def test_a_name_that_is_changed_before_is_no_text_any_more() -> None:
    told = TOLD.format(way=".upper()").replace("    print(name", "    name = name + name\n    print(name", 1)
    assert not verdict(SAID, told, NewFunction("main.py", "say")).proved


PARTS = """
counts = {{"eel": 2, "crab": 5}}
for name in sorted(counts):
    print(name)
print("{0}{1}{2}")
print("{3}")
for name in sorted(counts):
    print(name, counts[name])
print(sum(counts.values()))
print("and")
print("{0}{4}{2}")
print("{5}")
for name in sorted(counts):
    print(name, counts[name])
print(sum(counts.values()))
"""


@pytest.mark.parametrize(
    ("texts", "line"),
    [
        (("By ", "bird", "", "-------", "place", "--------"), '"-" * (len(text) + 3)'),
        (("", "Birds", "", "=====", "Places", "======"), '"=" * len('),
        (("By ", "bird", "", "-------", "place", "-------"), '"-------"'),
        (("By ", "bird", "", "------", "place", "---------"), '"---------")'),
        (("By ", "bird", "", "--", "place", "---"), '"---"'),
        (("By ", "bird", "", "-------", "place", "-------="), '"-------="'),
        (("", "möwe", "", "----", "gans", "----"), '"----"'),
    ],
)
def test_a_line_below_a_heading_is_as_long_as_it(texts: tuple[str, ...], line: str) -> None:
    text = PARTS.format(*texts)
    after = worked(text)
    assert line in after
    assert run(after) == run(text)


LINED = """\
print("tide")
print("----")
print("ebb")
print("---")
"""
LINES = """\
{0}def say(name):
    print(name)
    print({1})


say("tide")
say("ebb")
"""


@pytest.mark.parametrize(
    ("before", "line", "proved"),
    [
        ("", '"-" * len(name)', True),
        ("", '"-" * (len(name) + 1)', False),
        ("", '"-" * (len(name) - 0)', True),
        ("", "'-' * len(name)", True),
        ("", '"=" * len(name)', False),
        ("", '"-" * len(name + name)', False),
        ("", '"-" * len([name])', False),
        ("def len(text):\n    return 4\n\n\n", '"-" * len(name)', False),
        ("from beach import *\n", '"-" * len(name)', False),
    ],
)
def test_the_proof_measures_plain_texts(before: str, line: str, proved: bool) -> None:
    assert verdict(before + LINED, LINES.format(before, line), NewFunction("main.py", "say")).proved is proved
