"""Branches that give several literals for a literal become a table of rows."""

from __future__ import annotations

import itertools

import pytest

from core.builders import file, printed, repeats, report, worked
from partitor.suggestions.proof import LookedUp, prove

SHOP = [("t", "tea", 1.2), ("c", "coffee", 2.4), ("k", "cake", 3.1), ("s", "scone", 2.0)]


def chain(*forms: str, otherwise: str = "", rows=SHOP, ind: str = "    ") -> str:
    lines = []
    for word, (key, name, price) in zip(itertools.chain(["if"], itertools.repeat("elif")), rows, strict=False):
        lines += [f'{ind}{word} code == "{key}":', *(f"{ind}    {form.format(name, price)}" for form in forms)]
    if otherwise:
        lines += [f"{ind}else:", *(f"{ind}    {line}" for line in otherwise.split("; "))]
    return "\n".join(lines)


def program(choice: str) -> str:
    return (
        'def ask(code):\n    name = "none"\n    price = 0\n'
        f"{choice}\n    print(name, price)\n\n\nfor key in 'tckx':\n    ask(key)\n"
    )


@pytest.mark.parametrize(
    ("choice", "looked_up"),
    [
        (chain('name = "{}"', "price = {1}"), "name, price = values_by_code[code]"),
        (chain("price = {1}", 'name = "{0}"', otherwise='name = "?"; price = 9'), "price, name = values_by_code[code]"),
        (chain('print("Name:", "{}")', 'print("Costs", {1})'), 'print("Costs", '),
    ],
)
def test_a_choice_of_several_literals_becomes_a_table_of_rows(choice: str, looked_up: str) -> None:
    text = program(choice)
    after = worked(text)
    assert "if code in values_by_code:" in after
    assert looked_up in after
    assert "elif" not in after
    assert printed(after) == printed(text)


def test_the_table_stands_before_the_loop() -> None:
    choice = chain('name = "{}"', "price = {1}")
    text = f"for code in 'tkx':\n    name, price = '', 0\n{choice}\n    print(name, price)\n"
    after = worked(text)
    assert after.startswith('values_by_code = {\n    "t": ("tea", 1.2), ')
    assert printed(after) == printed(text)


@pytest.mark.parametrize(
    ("choice", "told"),
    [
        (chain('name = "{}"', "price = {1}", rows=SHOP[:3]), False),
        (chain('print("{}")', "print({1})"), False),
        (chain('name = "tea"', "price = {1}"), False),
        (chain('name = "{}"', "price = len(name) + {1}"), False),
        (chain('name = "{}"', "price = {1}", rows=[*SHOP, ("t", "tart", 4)]), True),
        (chain('name = "{}"', 'print("Costs", {1})'), True),
        (chain('name = "{}"', "price = {1}  # euros"), True),
        (chain('name = "{}"', 'name = "{} ({})"'), True),
        (chain('print("In short:", "{0}")', 'print("Name:", "{0}")'), True),
    ],
)
def test_other_choices_stay(choice: str, told: bool) -> None:
    text = program(choice)
    assert bool([run for run in repeats(text).runs if run.in_branches]) is told
    assert not [s for s in report(text).suggestions if s.kind == "table"]
    assert printed(worked(text)) == printed(text)


BEFORE = program(chain('name = "{}"', "price = {1}", otherwise="price = 7"))
AFTER = program(
    """\
    rows = {"t": ("tea", 1.2), "c": ("coffee", 2.4), "k": ("cake", 3.1), "s": ("scone", 2.0)}
    if code in rows:
        name, price = rows[code]
    else:
        price = 7"""
)
SHOWN = program(chain('print("Name:", "{}")', 'print("Costs", {1})'))
SHOWN_AFTER = program(
    """\
    rows = {"t": ("tea", 1.2), "c": ("coffee", 2.4), "k": ("cake", 3.1), "s": ("scone", 2.0)}
    if code in rows:
        what, cost = rows[code]
        print("Name:", what)
        print("Costs", cost)"""
)
CLAIM = LookedUp("main.py", "rows")


@pytest.mark.parametrize(
    ("was", "wrong"),
    [
        ("2.4", "2.5"),
        ('"c": ("coffee", 2.4), ', ""),
        ('"c": ("coffee", 2.4), "k": ("cake", 3.1)', '"k": ("cake", 3.1), "c": ("coffee", 2.4)'),
        ('("tea", 1.2)', '("tea", 1.2, 3)'),
        ('("tea", 1.2)', '["tea", 1.2]'),
        ("name, price =", "price, name ="),
        ("name, price =", "name, name ="),
        ("name, price =", "name, *price ="),
        ("rows[code]", 'rows["t"]'),
        ("if code in rows", "if code not in rows"),
        ("if code in rows", "if name in rows"),
        ("price = 7", "price = 8"),
        ("    else:\n        price = 7", "    price = 7"),
        ("name, price = rows[code]", "name, price = rows[code]\n        price = 1"),
    ],
)
def test_rows_that_say_something_else_are_refused(was: str, wrong: str) -> None:
    assert prove(file(BEFORE), file(AFTER), CLAIM).proved
    assert was in AFTER
    assert not prove(file(BEFORE), file(AFTER.replace(was, wrong, 1)), CLAIM).proved


@pytest.mark.parametrize(
    ("was", "wrong"),
    [
        ("2.4", "2.5"),
        ('print("Costs", cost)', 'print("Costs", what)'),
        ('print("Costs", cost)', 'print("Costs", cost, cost)'),
        ('        print("Costs", cost)', ""),
        ("what, cost =", "what, price ="),
        ("what, cost =", "cost, what ="),
        ("what, cost =", "what, code ="),
        ('print("Costs", cost)', 'cost = 3\n        print("Costs", cost)'),
    ],
)
def test_what_is_done_with_a_row_is_what_was_done(was: str, wrong: str) -> None:
    assert prove(file(SHOWN), file(SHOWN_AFTER), CLAIM).proved
    assert was in SHOWN_AFTER
    assert not prove(file(SHOWN), file(SHOWN_AFTER.replace(was, wrong, 1)), CLAIM).proved


def test_what_is_asked_for_later_is_not_what_a_row_has_now() -> None:
    """A function that is called later would see what the last row has."""
    kept = "later.append(lambda: {})"
    before = SHOWN.replace('print("Costs", ', "later.append(lambda: ").replace("def ask", "later = []\n\n\ndef ask")
    after = SHOWN_AFTER.replace('print("Costs", cost)', kept.format("cost")).replace(
        "def ask", "later = []\n\n\ndef ask"
    )
    assert not prove(file(before), file(after), CLAIM).proved
