"""What is needed after a statement, and what is certain to have a value before it."""

import pytest
from builders import file

from partitor.program.flow import flow_of, needed_by, summaries_of


def analysed(text: str):
    """(flow of the one function, {first line of each statement: node})."""
    parsed = file(text)
    flow = flow_of(parsed, parsed.procedures[1].node)
    lines = {parsed.tree.start_line(s): s for s in flow.live_after}
    return parsed, flow, lines


def live_after(text: str, line: int) -> set[str]:
    _, flow, lines = analysed(text)
    return set(flow.live_after[lines[line]])


def bound_before(text: str, line: int) -> set[str]:
    _, flow, lines = analysed(text)
    return set(flow.bound_before[lines[line]])


@pytest.mark.parametrize(
    ("text", "line", "expected"),
    [
        ("def f():\n    x = 1\n    return x\n", 2, {"x"}),
        ("def f():\n    x = 1\n    x = 2\n    return x\n", 2, set()),
        ("def f(a):\n    x = 1\n    if a:\n        x = 2\n    return x\n", 2, {"a", "x"}),
        ("def f(a):\n    x = 1\n    if a:\n        x = 2\n    else:\n        x = 3\n    return x\n", 2, {"a"}),
        ("def f():\n    x = 1\n    while x:\n        x = x - 1\n", 4, {"x"}),
        ("def f(a):\n    for i in a:\n        x = i\n        break\n    return x\n", 3, {"x"}),
        ("def f():\n    x = 1\n    try:\n        x = g()\n    except E:\n        pass\n    return x\n", 2, {"x"}),
        ("def f():\n    x = 1\n    def g():\n        return x\n    x = 2\n    return g\n", 5, {"g", "x"}),
        ("def f():\n    x = 1\n    return 0\n    print(x)\n", 2, set()),
        (
            "def f(a):\n    x = 1\n    for i in a:\n        if i:\n            continue\n        print(x)\n",
            2,
            {"a", "x"},
        ),
    ],
)
def test_a_variable_is_live_where_a_later_read_may_see_it(text, line, expected):
    assert live_after(text, line) == expected


@pytest.mark.parametrize(
    ("text", "line", "expected"),
    [
        ("def f(a):\n    x = 1\n    return x\n", 3, {"a", "x"}),
        ("def f(a):\n    if a:\n        x = 1\n    return x\n", 4, {"a"}),
        ("def f(a):\n    if a:\n        x = 1\n    else:\n        x = 2\n    return x\n", 6, {"a", "x"}),
        ("def f(a):\n    for i in a:\n        x = 1\n    return x\n", 4, {"a"}),
        ("def f(a):\n    try:\n        x = a\n    except E:\n        x = 0\n    return x\n", 6, {"a", "x"}),
        ("def f(a):\n    try:\n        x = a\n    except E:\n        print(0)\n    return x\n", 6, {"a"}),
        ("def f(a):\n    try:\n        x = a\n    finally:\n        y = 0\n    return x\n", 6, {"a", "x", "y"}),
        ("def f(a):\n    x = 1\n    del x\n    return a\n", 4, {"a"}),
        # What is deleted has no value one turn later, nor what an error was called behind its handler.
        ("def f(a):\n    x = 1\n    for i in a:\n        print(x)\n        del (x)\n", 4, {"a", "i"}),
        ("def f(a):\n    x = 1\n    for i in a:\n        del x, a[i]\n    print(x)\n", 5, {"a"}),
        ("def f():\n    x = 1\n    try:\n        del [x]\n        g()\n    except E:\n        print(x)\n", 7, set()),
        ("def f():\n    x = 1\n    with g() as h:\n        del x\n    print(x)\n", 5, set()),
        ("def f():\n    x = 1\n    try:\n        g()\n    except E as x:\n        print(x)\n    print(1)\n", 6, {"x"}),
        ("def f():\n    x = 1\n    try:\n        g()\n    except E as x:\n        print(x)\n    print(1)\n", 7, set()),
    ],
)
def test_a_variable_is_bound_where_every_way_gives_it_a_value(text, line, expected):
    assert bound_before(text, line) == expected


@pytest.mark.parametrize(
    "body",
    [
        "x = a\ny = x\nprint(y, b)",
        "if a:\n        x = 1\n    y = x + b",
        "for i in a:\n        b = b + i\n    print(b)",
        "x = [i for i in a]\n    print(x, b)",
        "while a:\n        a = a - 1\n        b += a\n    print(b)",
    ],
)
def test_summaries_put_together_are_never_less_than_the_whole(body):
    parsed = file("def f(a, b, x, y):\n    " + body.replace("\nprint", "\n    print").replace("\ny", "\n    y") + "\n")
    procedure = parsed.procedures[1]
    body_node = parsed.tree.child(procedure.node, "body")
    statements = parsed.block_at[body_node].statements
    whole = needed_by(parsed, procedure.node, statements)
    taken, certain = frozenset(), frozenset()
    for summary in summaries_of(parsed, procedure.node, statements):
        taken |= summary.needed - certain
        certain |= summary.certain
    assert taken >= whole
