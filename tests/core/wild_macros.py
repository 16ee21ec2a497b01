"""Macros to break the proof on: procedures with copies that print, write in cells and change what they are given."""

from __future__ import annotations

import re
from random import Random

OWN = ["gate", "level", "total"]
SHARED = ["tide", "turn"]
NAMES = [*SHARED, *OWN]
WORDS = ["north", "mill", "east", "ferry", "creek"]
HELPERS = """
Private Function Twice(ByVal n As Long) As Long
    Twice = n * 2
End Function

Private Sub Grow(ByRef n As Long)
    n = n + 3
End Sub

Private Sub Bump()
    turn = turn + 1
    Debug.Print "turn " & turn
End Sub

Sub Main()
    tide = 4
    turn = 2
    Work0
    Work1
    Debug.Print tide & " " & turn
End Sub
"""


class WildMacros:
    """One random module."""

    def __init__(self, seed: int) -> None:
        self.random = Random(seed)

    def text(self) -> str:
        """The module's text."""
        r = self.random
        block = [self._statement() for _ in range(r.randint(2, 5))]
        contexts = ["plain", "plain", "if", "for", "select"]
        bodies = [self._in_context(r.choice(contexts), block) for _ in range(2)]
        return self._module(bodies, [f"{name} = {r.randint(0, 9)}" for name in OWN])

    def pair(self) -> str:
        """The text of a module with two procedures made of one body, with values and lines changed."""
        r = self.random
        body = [self._statement() for _ in range(r.randint(4, 6))]
        return self._module([self._one_of_a_pair(body) for _ in range(2)], [f"{n} = {r.randint(0, 9)}" for n in OWN])

    def _one_of_a_pair(self, body: list[str]) -> list[str]:
        r = self.random
        lines: list[str] = []
        for line in body:
            if r.random() < 0.3:
                line = re.sub(r"\b(\d+)\b", lambda m: str(r.randint(0, 30)), line, count=1)
            if r.random() < 0.9:
                lines.append(line.replace(r.choice(WORDS), r.choice(WORDS)))
            if r.random() < 0.12:
                lines.append(self._statement())
        return lines

    def _module(self, bodies: list[list[str]], values: list[str]) -> str:
        shown = [f'Debug.Print "{name} " & {name}' for name in OWN]
        declared = [f"Dim {name} As Long" for name in OWN] + ["Dim i As Long"]
        procedures = []
        for k, body in enumerate(bodies):
            inner = "\n".join(f"    {line}" for x in [*declared, *values, *body, *shown] for line in x.split("\n"))
            procedures.append(f"Private Sub Work{k}()\n{inner}\nEnd Sub")
        return "Option Explicit\nDim tide As Long\nDim turn As Long\n\n" + "\n\n".join(procedures) + "\n" + HELPERS

    def _statement(self) -> str:
        r = self.random
        a, b, c = (r.choice(NAMES) for _ in range(3))
        n, m, w = r.randint(0, 30), r.randint(1, 4), r.choice(WORDS)
        found = [
            f"{a} = {n}",
            f"{a} = {b} + {n}",
            f"{a} = {a} + {n}",
            f'Debug.Print "{w} " & {a}',
            f'Debug.Print "{w} {n}"',
            f'Debug.Print "{w}", {a} - {c}'.replace('", ', '" & '),
            f"Cells({m}, {r.randint(1, 3)}).Value = {a} + {n}",
            f'Range("B{r.randint(1, 9)}").Value = {a}',
            f'Range("A{m}").Value = "{w}"',
            f'If {a} > {n} Then\n    Debug.Print "{w}"\n    {b} = {n}\nEnd If',
            f"If {a} > {b} Then\n    {c} = {a}\nElse\n    {c} = {n}\nEnd If",
            f"For i = 1 To {m}\n    {b} = {b} + i\nNext i",
            f"{a} = Twice({b}) + {n}",
            f"Grow {a}",
            "Bump",
            f"Do While {a} < {n}\n    {a} = {a} + 7\nLoop",
            f"Select Case {a}\n    Case {n}\n        {b} = {n}\n    Case Else\n        {c} = {m}\nEnd Select",
            f'With Range("C{m}")\n    .Value = {a}\nEnd With',
        ]
        return r.choice(found)

    def _changed(self, block: list[str], copy: int) -> list[str]:
        r = self.random
        lines = list(block)
        step = r.choice([0, 0, 1, 5])
        if step:
            lines = [re.sub(r"\b(\d+)\b", lambda m: str(int(m[1]) + step * copy), x, count=1) for x in lines]
        if r.random() < 0.2:
            old, new = r.sample(NAMES, 2)
            lines = [re.sub(rf"\b{old}\b", new, line) for line in lines]
        if r.random() < 0.3:
            k = r.randrange(len(lines))
            lines[k] = lines[k].replace(r.choice(WORDS), r.choice(WORDS))
        if r.random() < 0.1:
            lines.insert(r.randrange(len(lines) + 1), self._statement())
        return lines

    def _in_context(self, context: str, block: list[str]) -> list[str]:
        r = self.random
        copies = [self._changed(block, k) for k in range(r.randint(2, 4))]
        if context == "select":
            cases = [x for k, copy in enumerate(copies) for x in [f"Case {k}", *(_deeper(copy))]]
            return ["Select Case gate Mod 4", *(f"    {x}" for x in cases), "End Select"]
        lines: list[str] = []
        for copy in copies:
            lines += [*copy, *r.choice([[], [], ['Debug.Print "--"'], [f"{r.choice(NAMES)} = {r.randint(0, 9)}"]])]
        if context == "if":
            return ["If level < 40 Then", *_deeper(lines), "End If"]
        if context == "for":
            return ["Dim k As Long", "For k = 1 To 2", *_deeper(lines), "Next k"]
        return lines


def _deeper(lines: list[str]) -> list[str]:
    return [f"    {x}" for line in lines for x in line.split("\n")]


def wild_macros(seed: int) -> str:
    """A wild module."""
    return WildMacros(seed).text()


def wild_macro_pair(seed: int) -> str:
    """A wild module with two procedures that are alike but for a line or two."""
    return WildMacros(seed).pair()
