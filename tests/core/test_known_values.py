"""Copies of a function that gives back what it works out: the call that could stand there, and what is refused."""

from __future__ import annotations

import pytest

from core.builders import file, report, run, verdict, worked
from partitor.check import check
from partitor.exchange.assignment import Assignment
from partitor.reading.collect import Submission
from partitor.source import Source
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


JAVA = """public class Main {
    static double price(int count, double each) {
        double total = count * each;
        if (count > 10) {
            total = total * 0.9;
        }
        return Math.round(total * 100) / 100.0;
    }

    public static void main(String[] args) {
        System.out.println(price(3, 2.5));
        double cost = 12 * 4.2;
        if (12 > 10) {
            cost = cost * 0.9;
        }
        double tickets = Math.round(cost * 100) / 100.0;
        System.out.println(tickets);
    }
}
"""


def test_a_method_that_is_there_is_called() -> None:
    assert "double tickets = price(12, 4.2);\n" in worked(JAVA, "java")


@pytest.mark.parametrize(
    ("old", "new"),
    [
        ("double tickets", "float tickets"),
        ("double tickets", "var tickets"),
        ("12 * 4.2", "12 * 4"),
        ("    public static void main", "}\n\nclass Other {\n    public static void main"),
        ("    static double price", "    double price"),
    ],
    ids=["another type", "no type", "another value's type", "another class", "an object is wanted"],
)
def test_a_method_that_would_give_something_else_is_not(old: str, new: str) -> None:
    text = JAVA.replace(old, new)
    assert text != JAVA
    assert "price(12" not in worked(text, "java")


def test_a_method_that_another_file_overrides_is_not_called() -> None:
    text = JAVA.replace("static ", "", 1).replace("public static void main(String[] args)", "void run()")
    over = "public class Sub extends Main {\n    double price(int count, double each) {\n        return 3;\n    }\n}\n"
    alone = check(Submission("x", (Source("Main.java", text, "java"),)), Assignment())
    both = check(Submission("x", (Source("Main.java", text, "java"), Source("Sub.java", over, "java"))), Assignment())
    assert "price(12, 4.2)" in alone.worked_answer.files.get("Main.java", "")
    assert "price(12, 4.2)" not in both.worked_answer.files.get("Main.java", "")
