"""A new function's result that was only made to be returned is returned at once; and what the proof refuses."""

from __future__ import annotations

import pytest

from core.builders import read, report, run, worked
from core.runners import require_same_output
from partitor.suggestions.proof import GivenBack, prove

COSTS = """
def square_cost(side, price):
    area = side * side
    cost = area * price
    if cost > 500:
        cost = cost * 0.9
    print(f"costs {cost:.2f}")
    print("-----")
    return cost


def ring_cost(radius, price):
    print("a ring")
    area = 3 * radius * radius + 1
    area -= 2
    cost = area * price
    if cost > 500:
        cost = cost * 0.9
    print(f"costs {cost:.2f}")
    print("-----")
    return cost


print(square_cost(3, 20) + ring_cost(2, 25))
"""


def test_it_is_returned_at_once() -> None:
    after = worked(COSTS)
    assert after.count("    return print_cost(area, price)\n") == 2
    assert run(after) == run(COSTS)


IN_C = """
#include <stdio.h>
double square_cost(double side, double price) {
    double area = side * side;
    double cost = area * price;
    if (cost > 500) {
        cost = cost * 0.9;
    }
    printf("costs %.2f\\n", cost);
    return cost;
}
double ring_cost(double radius, double price) {
    double area = 3.14 * radius * radius;
    area = area - 2;
    printf("a ring\\n");
    double cost = area * price;
    if (cost > 500) {
        cost = cost * 0.9;
    }
    printf("costs %.2f\\n", cost);
    return cost;
}
int main(void) {
    printf("%.2f\\n", square_cost(3, 20) + ring_cost(2, 25));
    return 0;
}
"""


def test_it_is_returned_at_once_in_c(tmp_path) -> None:
    after = worked(IN_C, "c")
    assert after.count("return print_cost(area, price);") == 2
    require_same_output("c", IN_C, after, tmp_path)


def test_what_stands_between_keeps_the_variable() -> None:
    text = COSTS.replace("    return cost\n", "    # what it costs\n    return cost\n", 1)
    after = worked(text)
    assert "# what it costs" in after
    assert run(after) == run(text)


def checked(before: str, after: str, language: str = "python"):
    """What the proof says of a change to what `f` gives."""
    old, new = read(before, language), read(after, language)
    return prove(old, new, GivenBack(old.path, "f"))


HEAD = "def f(n):\n    return n + 1\n\n\n"
PLAIN = HEAD + "def g(n):\n    v = f(n)\n    return v\n"
SHORT = HEAD + "def g(n):\n    return f(n)\n"


def test_the_plain_case_is_accepted() -> None:
    assert checked(PLAIN, SHORT).proved


REFUSED = {
    "the variable is used before": (PLAIN.replace("    v = f", "    v = 1\n    v = f"), SHORT),
    "it is the program's": (
        PLAIN.replace("    v = f", "    global v\n    v = f"),
        SHORT.replace("    return f(n)", "    global v\n    return f(n)"),
    ),
    "a function inside keeps it": (
        PLAIN.replace("    v = f", "    h = lambda: v\n    v = f"),
        SHORT.replace("    return f(n)", "    h = lambda: v\n    return f(n)"),
    ),
    "another value is given": (PLAIN, SHORT.replace("f(n)\n", "f(n + 1)\n")),
    "another function is called": (
        PLAIN.replace("v = f(n)", "v = abs(n)"),
        SHORT.replace("return f(n)", "return abs(n)"),
    ),
    "another variable is returned": (PLAIN.replace("return v", "return n"), SHORT),
    "a statement is lost": (PLAIN.replace("    return v", "    print(v)\n    return v"), SHORT),
    "nothing changes": (PLAIN, PLAIN),
    "one more is returned": (PLAIN, SHORT + "    return f(n)\n"),
    "there was no return": (HEAD + "def g(n):\n    f(n)\n", HEAD + "def g(n):\n    f(n)\n    return f(n)\n"),
    "the one statement is the name's": (HEAD + "def g(n):\n    v = f(n)\n", SHORT),
    "names are looked up": (PLAIN + "print(locals())\n", SHORT + "print(locals())\n"),
}


@pytest.mark.parametrize("about", REFUSED)
def test_it_is_refused(about) -> None:
    assert not checked(*REFUSED[about]).proved


C_HEAD = "double f(double n) {\n    return n + 1;\n}\n"
C_PLAIN = C_HEAD + "double g(double n) {\n    double v = f(n);\n    return v;\n}\n"
C_SHORT = C_HEAD + "double g(double n) {\n    return f(n);\n}\n"


def test_where_types_are_told_they_must_be_the_same() -> None:
    assert checked(C_PLAIN, C_SHORT, "c").proved
    assert not checked(C_PLAIN.replace("double v", "int v"), C_SHORT, "c").proved
    assert not checked(C_PLAIN.replace("double v", "static double v"), C_SHORT, "c").proved
    assert not checked("#define SUM (v + 1)\n" + C_PLAIN, "#define SUM (v + 1)\n" + C_SHORT, "c").proved


def test_what_is_told_says_so() -> None:
    (found,) = [f for f in report(COSTS).findings if f.rule in ("repeated-block", "twin-functions")]
    (suggestion,) = [s for s in report(COSTS).suggestions if s.id == found.suggestion]
    assert suggestion.status == "proved"
    assert suggestion.lines_before - suggestion.lines_after >= 2
