"""Pairs of functions that are alike but for a line or two, and runs over numbered variables, to break the proof on."""

from __future__ import annotations

import re
from random import Random

WORDS = ["mill", "quay", "pier", "dock"]
HELPERS = """shared = []
count = 0


def twice(v):
    return v * 2


def thrice(v):
    return v * 3


def say(w):
    print("say", w)


def call(w):
    print("call", w)


def log(v, k):
    print("log", v, k)


"""


def near_pair(seed: int) -> str:
    """Two functions, `do_mill` and `do_quay`, made of one body with values, calls and lines changed; sometimes
    each calls itself."""
    r = Random(seed)
    body = [_line(r) for _ in range(r.randint(4, 7))]
    functions = [_function(r, name, _changed(r, body)) for name in ("do_mill", "do_quay")]
    return HELPERS + "\n\n\n".join(functions) + "\n\n\nprint(do_mill(3))\nprint(do_quay(2))\nprint(shared, count)\n"


def _line(r: Random) -> str:
    a, b, k, w = r.choice("abtn"), r.choice("abtn"), r.randint(1, 9), r.choice(WORDS)
    found = [
        f"{a} = {b} + {k}",
        f"t += {k}",
        f'print("{w}", {a})',
        f'print("{w} {k}")',
        f'say("{w}")',
        f'print(f"{w}: {{{a}}} of {k}")',
        f"{a} = twice({b})",
        f'if {a} > {k}:\n    print("{w}", {b})\n    t = t - {k}',
        f"for i in range({k} % 3):\n    print(i, {a})\n    t += i",
        f"shared.append({a})",
        f"count = count + {k}",
        f"log({a}, {k})",
        f"if t > 50:\n    return {b}",
    ]
    return r.choice(found)


def _changed(r: Random, lines: list[str]) -> list[str]:
    out: list[str] = []
    for line in lines:
        if r.random() < 0.35:
            line = re.sub(r"\b\d\b", lambda m: str(r.randint(1, 9)), line)
        if r.random() < 0.3:
            line = re.sub("|".join(WORDS), lambda m: r.choice(WORDS), line)
        if r.random() < 0.08:
            line = line.replace("twice", "thrice").replace("say(", "call(")
        if r.random() < 0.94:
            out.append(line)
        if r.random() < 0.08:
            out.append(_line(r))
    if r.random() < 0.1:
        out[r.randrange(len(out))] = "if 0 < n < 4:\n    t = t + ITSELF(n - 1)"
    return out


def _function(r: Random, name: str, body: list[str]) -> str:
    shared = ["global count"] if any("count" in line for line in body) and r.random() < 0.8 else []
    lines = [
        *shared,
        f"b = {r.randint(2, 4)}",
        "a = n",
        "t = 0",
        *(line.replace("ITSELF", name) for line in body),
        "return t",
    ]
    return f"def {name}(n):\n" + "\n".join(f"    {x}" for line in lines for x in line.split("\n"))


FIELDS = [
    "self.level = self.level + {k}",
    "self.log.append({v})",
    "t = self.level + {v}",
    'print("{w}", self.level, t)',
    "if self.level > {k}:\n    self.level = self.level - 2\n    print({v})",
    "t = self.twice(t)",
    "for i in range({v} % 3):\n    self.log.append(i)\n    t += i",
    "self.other = t",
    "v = t + {k}",
    "print(self.log[-1:], {v})",
    "Tank.made += 1",
    "self = self.same()",
    "t = [self.level + i for i in range({k})][0]",
]


def alike_methods(seed: int) -> str:
    """A class of which two or three methods share most of their statements, some with slips."""
    r = Random(seed)
    picked = [r.choice(FIELDS[: None if r.random() < 0.3 else 10]) for _ in range(r.randint(3, 6))]
    methods = []
    for name in ("fill", "drain", "rest")[: r.randint(2, 3)]:
        body = ["t = v"]
        for line in picked:
            if r.random() < 0.05:
                continue
            body += line.format(k=r.randint(1, 3), v=r.choice("tv"), w=r.choice(WORDS)).split("\n")
        body += r.choice([["return t"], ["print(t)"], ["return v"], []])
        methods.append(f"    def {name}(self, v):\n" + "\n".join(f"        {line}" for line in body))
    base = r.choice(["", "", "(Base)", "(object)", "(dict)"])
    head = (
        "class Base:\n    def same(self):\n        return self\n\n    def twice(self, n):\n        return n * 2\n\n\n"
    )
    own = "    made = 0\n\n    def __init__(self):\n        self.level = 3\n        self.log = []\n        self.other = 0\n"
    if base != "(Base)":
        own += "\n    def same(self):\n        return self\n\n    def twice(self, n):\n        return n * 2\n"
    calls = "\n".join(f"print(tank.{r.choice(['fill', 'drain'])}({k}))" for k in range(4))
    made = r.choice(["Tank()", "Tank()", "Big()"])
    big = "class Big(Tank):\n    def twice(self, n):\n        return n * 3\n\n\n"
    return (
        f"{head}class Tank{base}:\n{own}\n" + "\n\n".join(methods) + f"\n\n\n{big}tank = {made}\n{calls}\n"
        "print(tank.level, tank.log, tank.other, Tank.made)\n"
    )


STEPS = [
    "{v} = {k} * 3",
    "{v} = step({k})",
    "{v} += {n}",
    'print("gate {k}", {v})',
    "{v} = {v} + other",
    "if {v} > 4:\n    {v} = {v} - 2\n    print({v})",
    "other = other + {v}",
    'print(f"{{{v}}} of {k}")',
    "for i in range({v} % 3):\n    print(i, {v})",
    "print([x * {v} for x in [1, 2]])",
    "show({v})",
]


def numbered_runs(seed: int) -> str:
    """Runs of statements over `g1`, `g2`, `g3`, in a function or loose, with a slip here and there."""
    r = Random(seed)
    body = ["other = 1"]
    if r.random() < 0.4:
        body += [f"g{k} = {r.randint(0, 9)}" for k in (1, 2, 3)]
    for _ in range(r.randint(2, 4)):
        steps, number = [r.choice(STEPS) for _ in range(r.randint(1, 3))], r.randint(1, 5)
        for k in (1, 2, 3):
            for step in steps:
                line = step.format(v=f"g{k}", k=k, n=number)
                body += (line if r.random() < 0.95 else line.replace(f"g{k}", f"g{r.choice([1, 2, 3])}")).split("\n")
        body += ["print(other)"] if r.random() < 0.3 else []
        body += ["g1 = g2"] if r.random() < 0.1 else []
    body += ["print((lambda: g1)())"] if r.random() < 0.15 else []
    body += ["del g2"] if r.random() < 0.1 else []
    head = 'def step(n):\n    print("step", n)\n    return n * 7 % 5\n\n\ndef show(v):\n    print("v", v)\n\n\n'
    if r.random() < 0.5:
        return head + "\n".join(body) + "\nprint(other)\n"
    return head + "def main():\n" + "\n".join(f"    {b}" for b in body) + "\n    print(other)\n\n\nmain()\n"
