"""Which name means what, after the language reference's rules."""

import pytest
from builders import file

from partitor.program.names import UNBOUND, Role


def owners(text: str, name: str) -> list[str]:
    """Who owns each use of `name`, in order: a procedure's name, "module", "class", "inner" or "none"."""
    parsed = file(text)
    names, tree = parsed.names, parsed.tree
    procedures = {p.node: p.name for p in parsed.procedures if p.node}
    result = []
    for i in names.nodes:
        if tree.text[i] == name and names.role[i] not in (Role.MEMBER, Role.KEYWORD, Role.IGNORED):
            owner = names.owner(i)
            kind = "none" if owner == UNBOUND else "module" if owner == 0 else procedures.get(owner)
            result.append(kind or ("class" if tree.kind[owner] == "class_definition" else "inner"))
    return result


def roles(text: str, name: str) -> list[str]:
    parsed = file(text)
    names, tree = parsed.names, parsed.tree
    return [names.role[i].name for i in names.nodes if tree.text[i] == name]


@pytest.mark.parametrize(
    ("text", "expected"),
    [
        ("x = 1\ndef f():\n    return x\n", ["module", "module"]),
        ("x = 1\ndef f():\n    x = 2\n    return x\n", ["module", "f", "f"]),
        ("def f():\n    global x\n    x = 2\n", ["module", "module"]),
        ("def f():\n    x = 1\n    def g():\n        nonlocal x\n        x = 2\n", ["f", "f", "f"]),
        ("def f(x):\n    return [x for x in x]\n", ["f", "inner", "inner", "f"]),
        ("class A:\n    x = 1\n    def f(self):\n        return x\n", ["class", "none"]),
        ("class A:\n    x = 1\n    y = x\n", ["class", "class"]),
        ("def f(y=x):\n    x = 1\n", ["none", "f"]),
        ("x = 1\nf = lambda x: x\n", ["module", "inner", "inner"]),
        ("print([y for y in range(3) if (x := y)], x)\n", ["module", "module"]),
        ("for x in []:\n    pass\n", ["module"]),
        ("def f():\n    import x\n    return x\n", ["f", "f"]),
        ("def f():\n    import a as x\n    return x\n", ["f", "f"]),
        ("try:\n    pass\nexcept E as x:\n    print(x)\n", ["module", "module"]),
        ("with open('a') as x:\n    print(x)\n", ["module", "module"]),
        ("match 1:\n    case x:\n        print(x)\n", ["module", "module"]),
        ("def f():\n    del x\n", ["f"]),
        ("def f(*x):\n    return x\n", ["f", "f"]),
        ("def f(a: x):\n    return a\n", ["none"]),
        ("@x\ndef f():\n    x = 1\n", ["none", "f"]),
    ],
)
def test_every_name_has_the_owner_that_python_gives_it(text, expected):
    assert owners(text, "x") == expected


@pytest.mark.parametrize(
    ("text", "expected"),
    [
        ("x = x + 1\n", ["WRITE", "READ"]),
        ("x += 1\n", ["UPDATE"]),
        ("a.x = 1\n", ["MEMBER"]),
        ("f(x=1)\n", ["KEYWORD"]),
        ("x, (y, *x) = 1, (2, 3)\n", ["WRITE", "WRITE"]),
        ("x[0] = 1\n", ["READ"]),
        ("x.y = 1\n", ["READ"]),
        ("from a import x\n", ["WRITE"]),
        ("import x.y\n", ["WRITE"]),
        ("def x(): pass\n", ["WRITE"]),
        ("def f(x=1): pass\n", ["PARAMETER"]),
        ("for x in x: pass\n", ["WRITE", "READ"]),
        ("def f():\n    global x\n", ["DECLARATION"]),
    ],
)
def test_every_name_has_a_role(text, expected):
    assert roles(text, "x") == expected
