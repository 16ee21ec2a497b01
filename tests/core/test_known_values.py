"""Copies of a function that gives back what it works out: the call that could stand there, and what is refused."""

from __future__ import annotations

import pytest

from core.builders import file, report, run, verdict, worked
from partitor.suggestions.proof import CalledFunction

PRICE = """def price(count, each):
    total = count * each
    if count > 10:
        total = total * 0.9
    return round(total, 2)


def main():
    print(price(3, 5))
    total = 12 * 3
    if 12 > 10:
        total = total * 0.9
    tickets = round(total, 2)
    print(tickets)


main()
"""
CALLED = PRICE.replace(
    "    total = 12 * 3\n    if 12 > 10:\n        total = total * 0.9\n    tickets = round(total, 2)\n",
    "    tickets = price(12, 3)\n",
)


def proved(before: str, after: str) -> bool:
    """What the proof says of further calls of `price`."""
    return verdict(before, after, CalledFunction(file(before).path, "price")).proved


def test_the_function_that_is_there_is_called() -> None:
    assert worked(PRICE) == CALLED
    assert run(CALLED) == run(PRICE)
    assert report(PRICE).findings[0].places[0].end_line == 5


@pytest.mark.parametrize(
    ("old", "new"),
    [
        ("    print(tickets)\n", "    print(tickets, total)\n"),
        ("tickets = round(total, 2)", "tickets = round(total, 3)"),
        ("tickets = round(total, 2)", "tickets = round(each, 2)"),
        ("tickets = round(total, 2)", "tickets, rest = round(total, 2), 0"),
        ("tickets = round(total, 2)", "tickets += round(total, 2)"),
        ("def main():\n", "def main():\n    global total\n"),
        ("def main():\n", "def main():\n    round = int\n"),
    ],
    ids=["its own variable is needed", "another value", "another name", "two", "added", "shared", "another round"],
)
def test_where_it_would_do_something_else_it_is_not(old: str, new: str) -> None:
    before = PRICE.replace(old, new)
    after = CALLED.replace(old, new) if old in CALLED else CALLED
    assert before != PRICE
    assert not proved(before, after)


@pytest.mark.parametrize(
    ("old", "new"),
    [
        ("price(12, 3)", "price(3, 12)"),
        ("tickets = price(12, 3)", "price(12, 3)"),
        ("tickets = price", "total = price"),
    ],
)
def test_a_faulty_call_is_refused(old: str, new: str) -> None:
    assert proved(PRICE, CALLED)
    assert CALLED.replace(old, new) != CALLED
    assert not proved(PRICE, CALLED.replace(old, new))


def test_a_script_declares_what_it_is_given() -> None:
    text = """function meanOf(values) {
  let total = 0;
  for (const value of values) {
    total += value;
  }
  return total / values.length;
}

function run(wind) {
  let sum = 0;
  for (const value of wind) {
    sum += value;
  }
  const windMean = sum / wind.length;
  console.log("wind", windMean, meanOf([1]));
}
run([12, 30, 22]);
"""
    assert "function run(wind) {\n  const windMean = meanOf(wind);\n" in worked(text, "javascript")
    other = text.replace("const windMean = sum / wind.length;", "const windMean = sum / 2;")
    assert "meanOf(wind)" not in worked(other, "javascript")
