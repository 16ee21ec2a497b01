"""Programs of several files to break the sharing of functions on: modules of Python, scripts of a page.

Blocks are pasted from file to file with values and names changed. What they use is now the copy's own, now the
file's, now another file's; helpers stand in one file, in all alike, or in all a little different.
"""

from __future__ import annotations

import re
from random import Random

WORDS = ["north", "mill", "east", "ferry", "creek"]
OWN = ["gate", "level", "total", "count"]


class WildFiles:
    """One random program of two or three files."""

    def __init__(self, seed: int, pages: bool, known: bool = False) -> None:
        self.random = Random(seed)
        self.pages = pages
        self.known = known
        """The first file has the helper, which the others know, and whose lines they write out all the same."""

    def files(self) -> dict[str, str]:
        """Path → text."""
        r = self.random
        names = ["gates", "mills", "tides"][: r.randint(2, 3)]
        blocks = [[self._statement() for _ in range(r.randint(3, 6))] for _ in range(r.randint(1, 2))]
        helper = [self._statement() for _ in range(r.randint(2, 4))] if r.random() < 0.6 else []
        if self.known:
            told = [s for s in (self._statement() for _ in range(12)) if "=" not in s or r.random() < 0.2]
            own = {"total": "level", "gate": "count", "LIMIT": r.choice(["level", "7"])} if r.random() < 0.85 else {}
            helper = [re.sub(r"total|gate|LIMIT", lambda m: own.get(m[0], m[0]), s) for s in told[: r.randint(3, 5)]]
        ending = "js" if self.pages else "py"
        made = {f"{n}.{ending}": self._file(k, names, blocks, helper) for k, n in enumerate(names)}
        return {**made, **self._pages(list(made), blocks)} if self.pages else made

    def _file(self, number: int, names: list[str], blocks: list[list[str]], helper: list[str]) -> str:
        r = self.random
        page = self.pages
        top: list[str] = []
        if not page:
            top += r.choice([[], ["import math"], ["import math", "import string"], ["from math import floor"]])
            if number and r.random() < 0.2:
                top.append(r.choice([f"import {names[0]}", f"from {names[0]} import LIMIT"]))
        given = r.choice(["LIMIT", "LIMIT", f"LIMIT{number}"])
        if page:
            word = "var" if given == "LIMIT" else r.choice(["const", "let", "var"])
            top.append(f"{word} {given} = {r.randint(2, 9)};")
            top += [f"var {n} = {r.randint(0, 9)};" for n in OWN]
        else:
            top.append(f"{given} = {r.randint(2, 9)}")
            if given != "LIMIT" or r.random() < 0.2:
                top.append(f"LIMIT = {r.randint(2, 9)}")
            top += [f"{n} = {r.randint(0, 9)}" for n in OWN]
        if self.known and number:
            if not page:
                top.insert(0, r.choice([f"from {names[0]} import helper"] * 5 + [f"import {names[0]}"]))
        elif helper and (self.known or r.random() < 0.8):
            body = [self._changed(s, 0.1 if r.random() < 0.4 else 0) for s in helper]
            top += self._function("helper", ["level", "count"], body)
        lines: list[str] = []
        for _ in range(r.randint(1, 2)):
            block = [self._changed(s, 0.3) for s in r.choice(blocks)]
            if r.random() < 0.15:
                block.insert(r.randrange(len(block)), self._statement())
            last = self._say("end", r.choice(OWN), r.choice(OWN))
            if r.random() < 0.6:
                name = f"work{number}{len(lines)}"
                start = [f"{'var ' if page else ''}{n} = {r.randint(0, 9)}{';' if page else ''}" for n in OWN]
                lines += self._function(name, [], [*start, *block, last])
                lines += [f"{name}(){';' if page else ''}"]
            else:
                lines += [*block, last]
        if self.known and number:
            lines += [self._changed(s, 0.05) for s in helper]
            lines.append(self._say("after", *OWN))
        if helper and r.random() < 0.7:
            lines += self._guarded(f"helper({r.randint(0, 9)}, {r.randint(0, 9)})")
        return "\n".join([*top, *lines, ""])

    def _guarded(self, call: str) -> list[str]:
        if self.pages:
            return [f"if (typeof helper === 'function') {{\n    {call};\n}}"]
        return [f"try:\n    {call}\nexcept NameError:\n    print('no helper')"]

    def _function(self, name: str, parameters: list[str], body: list[str]) -> list[str]:
        inner = "\n".join(f"    {line}" for part in body for line in part.split("\n"))
        if self.pages:
            return [f"function {name}({', '.join(parameters)}) {{\n{inner}\n}}"]
        return [f"\n\ndef {name}({', '.join(parameters)}):\n{inner}\n\n"]

    def _say(self, word: str, *values: str) -> str:
        given = ", ".join([f'"{word}"', *values])
        return f"console.log({given});" if self.pages else f"print({given})"

    def _statement(self) -> str:
        r, page = self.random, self.pages
        stop = ";" if page else ""
        a, b, n = r.choice(OWN), r.choice([*OWN, "LIMIT"]), r.randint(0, 9)
        kind = r.randrange(7)
        if kind == 0:
            return f"{a} = {b} + {n}{stop}"
        if kind == 1:
            return f"{a} += {n}{stop}"
        if kind == 2 and not page:
            return f"{a} = {r.choice(['math.floor', 'abs', 'max', 'len'])}({b})".replace("max(", "max(3, ").replace(
                f"len({b})", f'len("{r.choice(WORDS)}")'
            )
        if kind == 2:
            return f"{a} = Math.{r.choice(['abs', 'floor'])}({b} - {n});"
        if kind == 3:
            inner = self._say(r.choice(WORDS), a)
            body = inner if r.random() < 0.5 else f"{a} = {a} + {n}{stop}\n    {inner}"
            return f"if ({b} > {n}) {{\n    {body}\n}}" if page else f"if {b} > {n}:\n    {body}"
        if kind == 4:
            body = self._say(r.choice(WORDS), "turn", b)
            times = r.randint(1, 3)
            if page:
                return f"for (let turn = 0; turn < {times}; turn++) {{\n    {body}\n}}"
            return f"for turn in range({times}):\n    {body}"
        return self._say(r.choice(WORDS), b, str(n))

    def _changed(self, statement: str, often: float) -> str:
        r = self.random
        if r.random() < often:
            statement = statement.replace(r.choice(WORDS), r.choice(WORDS))
        if r.random() < often:
            digits = [k for k, c in enumerate(statement) if c.isdigit()]
            if digits:
                k = r.choice(digits)
                statement = f"{statement[:k]}{r.randint(1, 9)}{statement[k + 1 :]}"
        return statement

    def _pages(self, paths: list[str], blocks: list[list[str]]) -> dict[str, str]:
        r = self.random
        made = {}
        for number in range(r.randint(1, 2)):
            loaded = [p for p in paths if r.random() < 0.9]
            r.shuffle(loaded)
            lines = [f'  <script src="{p}"{r.choice(["", "", "", " defer"])}></script>' for p in loaded]
            if r.random() < 0.4:
                code = [self._changed(s, 0.3) for s in r.choice(blocks)]
                given = [f"var {n} = {r.randint(0, 9)};" for n in [*OWN, "LIMIT"]]
                inner = "\n".join(f"    {line}" for part in [*given, *code] for line in part.split("\n"))
                lines.insert(r.randint(0, len(lines)), f"  <script>\n{inner}\n  </script>")
            body = "\n".join(lines)
            button = f'  <button onclick="work{r.randint(0, 1)}0()">again</button>\n' if r.random() < 0.4 else ""
            made[f"page{number}.html"] = f"<!DOCTYPE html>\n<html>\n<body>\n{button}{body}\n</body>\n</html>\n"
        return made
