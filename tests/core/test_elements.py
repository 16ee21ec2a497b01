"""A function is given the element it looks at, not the list and the place in it: where nothing can put another there."""

from __future__ import annotations

import pytest

from core.builders import FILE_NAMES, asked, printed, report, verdict
from partitor.suggestions.proof import NewFunction

MEANS = """
names = ["Ada", "Bo"]
marks = [[71, 88], [90, 95]]
for i in range(2):
    total = 0
    for m in marks[i]:
        total += m
    avg = total / len(marks[i])
    print(names[i], avg)
"""
WORDS = """
scores = {"Ada": 9, "Bo": 4}
for name in scores:
    if scores[name] > 8:
        word = "great"
    elif scores[name] > 3:
        word = "fine"
    else:
        word = "again"
    print(name, word)
"""
COSTS = """
orders = [{"price": 3, "pieces": 2}, {"price": 7, "pieces": 1}]
for order in orders:
    cost = order["price"] * order["pieces"]
    if order["pieces"] > 1:
        cost = cost * 0.9
    print(cost)
"""


@pytest.mark.parametrize(
    ("text", "function", "head"),
    [
        (MEANS, "average/1/r: the mean of the marks", "average(values)"),
        (WORDS, "word_for/1/r: the word for a score", "word_for(score)"),
        (COSTS, "cost/2/r: works out the cost of an order", "cost(price, pieces)"),
        (COSTS, "cost/1/r: works out the cost of an order", "cost(order)"),
    ],
    ids=["list", "score", "fields", "whole"],
)
def test_the_function_is_given_what_it_is_about(text: str, function: str, head: str) -> None:
    after = report(text, asked("python", function)).worked_answer.files[FILE_NAMES["python"]]
    assert [line[4:-1] for line in after.split("\n") if line.startswith("def ")] == [head]
    assert printed(after) == printed(text)


BEFORE = """
rows = [[3, 1], [4]]
other = rows
{above}
for i in range(2):
    total = 0
    {within}
    for m in rows[i]:
        total += m
    {below}
    print(total, len(rows[i]))
"""
AFTER = """
rows = [[3, 1], [4]]
other = rows
def show(row):
    total = 0
    {within_new}
    for m in row:
        total += m
    {below_new}
    print(total, len(row))
{above}
for i in range(2):
    show(rows[i])
"""


def told(within: str = "seen = 0", below: str = "pass", above: str = "pass", element: str = "rows[i]") -> bool:
    """Whether the proof takes a function that is given an element, with further lines in the copy."""
    before = BEFORE.format(above=above, within=within, below=below)
    new = {"within_new": within.replace(element, "row"), "below_new": below.replace(element, "row")}
    after = AFTER.format(above=above, **new)
    return verdict(before, after, NewFunction("program.py", "show")).proved


@pytest.mark.parametrize(
    "line",
    ["pass", "print(total)", "total += 1", "limit = 4", "seen = []", "size = abs(-3)", "print(len(rows[i]))"],
)
def test_lines_that_change_no_list_are_no_harm(line: str) -> None:
    assert told(below=line)


@pytest.mark.parametrize(
    "line",
    [
        "rows[i] = [2]",
        "other[0] = [5]",
        "other[0], total = [5], 2",
        "rows.pop()",
        "rows.insert(0, [1])",
        "other.append([7])",
        "other += [[7]]",
        "i = 0",
        "rows = [[1], [2]]",
        "del rows[0]",
        "change()",
        "for other[0] in [[1]]: pass",
        "exec('rows[i] = [1]')",
    ],
)
def test_lines_that_may_put_something_else_there_are(line: str) -> None:
    change = "def change(): rows[0] = [8]" if "change" in line else "pass"
    assert not told(below=line, above=change)


@pytest.mark.parametrize("line", ["print(1)", "total = input()", "total = 1 // i", "total = rows[0]"])
def test_what_is_seen_or_may_stop_before_the_first_look_up_refuses(line: str) -> None:
    assert not told(within=line)


def test_a_class_that_says_what_looking_up_does_refuses() -> None:
    assert not told(above="class Rows:\n    def __getitem__(self, i): print(i); return [i]")


SOMETIMES = """
rows = [[3, 1], [4]]
for i in range(4):
{0}
"""
EARLY = """
rows = [[3, 1], [4]]
def show(i, row):
{1}
for i in range(4):
    show(i, rows[i])
"""


@pytest.mark.parametrize(
    ("lines", "proved"),
    [
        ("for k in range(i):\n    print(len(rows[i]))", False),
        ("for k in rows[i]:\n    print(k, len(rows[i]))", True),
        ("if i < 2 and rows[i]:\n    print(len(rows[i]))", False),
        ("if rows[i]:\n    print(len(rows[i]))", True),
        ("if i < 2:\n    if rows[i]:\n        print(len(rows[i]))", False),
        ("if i < 2:\n    for k in rows[i]:\n        print(k, len(rows[i]))", False),
        ("while len(rows[i]) < i:\n    print(rows[i])\n    i += 1", False),
        ("print(rows[i] if i < 2 else 0, rows[i])", False),
        ("print(i, rows[i], len(rows[i]))", True),
        ("print(input(), rows[i], len(rows[i]))", False),
        ("print([rows[i] for k in range(i)], [rows[i] for k in range(i)])", False),
        ("print(lambda: rows[i], rows[i])", False),
        ("print(f'{rows[i]}', rows[i])", True),
        ("print(rows[i][0], rows[i][0])", True),
        ("print(rows[i + 1], rows[i + 1])", False),
        ("size = 3\nprint(size * len(rows[i]), rows[i])", True),
    ],
)
def test_it_is_looked_up_early_where_it_is_certain_to_be_looked_up(lines: str, proved: bool) -> None:
    inside = "".join(f"    {line}\n" for line in lines.split("\n"))
    before, after = SOMETIMES.format(inside), EARLY.format("", inside.replace("rows[i]", "row"))
    assert verdict(before, after, NewFunction("program.py", "show")).proved is proved


MAYBE = """
rows = [[3, 1], [4]]
for i in range(4):
    total = 0
    if i < 2:
        total = len(rows[i])
        total += len(rows[i])
    print(total)
"""


def test_what_is_looked_up_only_sometimes_is_not_looked_up_early() -> None:
    after = """
rows = [[3, 1], [4]]
def size(row):
    total = 0
    if {0} < 2:
        total = len(row)
        total += len(row)
    return total
for i in range(4):
    total = size({1}rows[i])
    print(total)
"""
    one = after.format("i", "").replace("size(row)", "size(i, row)").replace("size(rows[i])", "size(i, rows[i])")
    assert verdict(MAYBE, one, NewFunction("program.py", "size")).proved is False
