"""Branches that give a literal for a literal become a table that is looked into, where it can be asked for anything that
the branches are asked with."""

import pytest
from builders import file, printed, report, run, worked

from partitor.suggestions.proof import LookedUp, prove


def chain(target: str = "name = {}", otherwise: str = '"later"') -> str:
    months = ["January", "February", "March", "April", "May"]
    lines = []
    for k, month in enumerate(months, 1):
        done = target.format(f'"{month}"')
        lines += [f"    {'el' if k > 1 else ''}if month == {k}:", f"        {done}"]
    if otherwise:
        lines += ["    else:", f"        {target.format(otherwise)}"]
    return "\n".join(lines)


def program(choice: str, calls: str = "print(describe(2), describe(5), describe(9))") -> str:
    return f'def some(n):\n    return str(n)\n\n\ndef describe(month):\n    name = "none"\n{choice}\n    return name\n\n\n{calls}\n'


@pytest.mark.parametrize(
    ("choice", "looked_up"),
    [
        (chain(), 'name = name_by_month.get(month, "later")'),
        (chain(otherwise="month"), "name = name_by_month.get(month, month)"),
        (chain(otherwise=""), "if month in name_by_month:\n        name = name_by_month[month]"),
        (chain("name += {}"), '.get(month, "later")'),
        (chain(otherwise="some(month)"), "else:\n        name = some(month)"),
        (chain(otherwise='"late"\n        print("no")'), 'else:\n        name = "late"\n        print("no")'),
        (chain("return {}"), '.get(month, "later")'),
        (chain("return {}", ""), "return name"),
    ],
)
def test_a_choice_of_literals_becomes_a_table(choice: str, looked_up: str) -> None:
    text = program(choice)
    after = worked(text)
    assert looked_up in after
    assert "elif" not in after
    assert printed(after) == printed(text)


def test_tests_in_a_row_that_return_become_a_table_too() -> None:
    text = "def days(month):\n"
    text += "".join(f"    if month == {k}:\n        return {n}\n" for k, n in enumerate([31, 28, 31, 30, 31], 1))
    text += "    return 30\n\n\nprint(days(2), days(6))\n"
    after = worked(text)
    assert "{1: 31, 2: 28, 3: 31, 4: 30, 5: 31}" in after
    assert ".get(month, 30)" in after
    assert printed(after) == printed(text)


def test_the_table_stands_before_the_loop() -> None:
    text = """
def leet(text):
    out = ""
    for c in text:
        if c == "a":
            out += "4"
        elif c == "e":
            out += "3"
        elif c == "i":
            out += "1"
        elif c == "o":
            out += "0"
        elif c == "s":
            out += "5"
        else:
            out += c
    return out


print(leet(input("Text? ")))
"""
    after = worked(text)
    assert after.index("{") < after.index("for c in text")
    assert run(after, "tides and eels\n") == run(text, "tides and eels\n")


@pytest.mark.parametrize(
    ("changed", "why"),
    [
        # What cannot be a key, or may be equal to one without being it.
        (program(chain(), "print(describe([1]))"), "certain"),
        (program(chain(), "print(describe(some()))"), "certain"),
        (program(chain(), "print(list(map(describe, [1, 2])))"), "certain"),
        (program(chain(), "print(describe(2))\nprint(describe(month=2))"), "certain"),
        (program(chain()).replace("(month):", "(month=[]):"), "certain"),
        (program(chain()).replace('    name = "none"', '    name = "none"\n    month = some(month)'), "certain"),
        (
            program(chain()).replace(
                '    name = "none"', '    name = "none"\n    for month in [[1], [2]]:\n        pass'
            ),
            "",
        ),
        # Not every branch is an entry.
        (program(chain().replace("month == 3", "month == 2")), ""),
        (program(chain().replace("    else:", "    elif month > 9:")), "branches"),
        (program(chain().replace('"March"', '"March"  # the third')), "comment"),
    ],
)
def test_other_choices_stay(changed: str, why: str) -> None:
    suggestions = [s for s in report(changed).suggestions if s.kind in {"table", "loop"}]
    assert not any(s.status == "proved" and s.kind == "table" for s in suggestions)
    if why:
        assert any(why in s.why_not for s in suggestions), [s.why_not for s in suggestions]


BEFORE = program(chain())
AFTER = """
def some(n):
    return str(n)


def describe(month):
    name = "none"
    names = {1: "January", 2: "February", 3: "March", 4: "April", 5: "May"}
    name = names.get(month, "later")
    return name


print(describe(2), describe(5), describe(9))
"""


@pytest.mark.parametrize(
    ("was", "wrong"),
    [
        ("", ""),
        ('3: "March"', '3: "Mars"'),
        ('3: "March", 4: "April"', '4: "April", 3: "March"'),
        (', 5: "May"', ""),
        ('5: "May"', '5: "May", 6: "June"'),
        ("5:", "5.0:"),
        ("1:", "True:"),
        ('"later"', '"never"'),
        ("get(month", "get(name"),
        (".get(", ".pop("),
        ("name = names", "name += names"),
        ("    return name", '    names[6] = "June"\n    return name'),
        ("    return name", "    return name, names"),
        ("    names = {", "    if month:\n        names = {"),
        ("def some(n):", "def some(n, names=3):"),
    ],
)
def test_a_table_that_says_something_else_is_refused(was: str, wrong: str) -> None:
    verdict = prove(file(BEFORE), file(AFTER.replace(was, wrong, 1) if was else AFTER), LookedUp("main.py", "names"))
    assert verdict.proved is (not was)
