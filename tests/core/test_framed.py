"""Branches that begin and end alike, and work something else out in between."""

from __future__ import annotations

from textwrap import dedent

import pytest

from core.builders import report

CONVERTER = """
kind = input("km, kg or c? ")
if kind == "km":
    value = float(input("Value: "))
    result = value * 0.621
    print(value, "km are", round(result, 2), "miles")
elif kind == "kg":
    value = float(input("Value: "))
    print("on Earth")
    result = value * 2.205 + 0
    print(value, "kg are", round(result, 2), "pounds")
elif kind == "c":
    value = float(input("Value: "))
    result = value * 1.8 + 32
    print(value, "c are", round(result, 2), "fahrenheit")
else:
    print("no such thing")
"""


def test_what_all_begin_and_end_with_is_told_once():
    (found,) = report(CONVERTER).findings
    assert found.rule == "repeated-block"
    assert found.message == "These three branches begin and end alike; only what stands in between differs."
    assert [(p.start_line, p.end_line) for p in found.places] == [(3, 5), (7, 10), (12, 14)]
    (suggestion,) = report(CONVERTER).suggestions
    assert (suggestion.status, suggestion.patch) == ("outline", None)


def test_branches_of_a_switch():
    text = "".join(
        f'    case "{k}":\n      value = Number(prompt("Value: "));\n      result = {w};\n'
        f'      show(value, "{k} are", result.toFixed(2), "{k}{k}");\n      break;\n'
        for k, w in [("a", "value * 3"), ("b", "value / 7 + 1"), ("c", "(value - 4) * 5")]
    )
    whole = "let value = 0, result = 0;\nfunction turn(kind) {\n  switch (kind) {\n" + text + "  }\n}\n"
    assert "repeated-block" in {f.rule for f in report(whole, language="javascript").findings}


QUIET = {
    "two branches": CONVERTER[: CONVERTER.index('elif kind == "c"')] + "else:\n    pass\n",
    "the same question, and then something else": """
        book = {}
        what = input("add, find or remove? ")
        if what == "add":
            name = input("Name: ")
            number = input("Number: ")
            book[name] = number
        elif what == "find":
            name = input("Name: ")
            if name in book:
                print(book[name])
            print("that is all")
        elif what == "remove":
            name = input("Name: ")
            sure = input("Sure? ")
            del book[name]
        """,
    "another question each": CONVERTER.replace('"Value: "', '"Kilometres: "', 1).replace('"Value: "', '"Weight: "', 1),
    "ends that have little in common": """
        def go(kind, n):
            if kind == "a":
                n = n + 1
                k = n * 3
                print("a", k)
            elif kind == "b":
                n = n + 1
                k = n / 7 + 1
                print("b", k)
            elif kind == "c":
                n = n + 1
                k = (n - 4) * 5
                print("c", k)


        go("a", 3)
        """,
}


@pytest.mark.parametrize("about", QUIET)
def test_it_is_not_told(about):
    messages = [f.message for f in report(dedent(QUIET[about])).findings]
    assert not any("begin and end alike" in message for message in messages)
