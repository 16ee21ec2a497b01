"""Programs to break the proof on: blocks pasted about with changes that often make folding wrong.

Every statement prints or leaves a trace, so that a rewriting that changes anything prints something
else. Everything here terminates and raises only what it catches itself.
"""

from __future__ import annotations

from random import Random

NAMES = ["gate", "level", "total", "count", "best", "turn"]
LISTS = ["log", "marks"]
WORDS = ["north", "mill", "east", "ferry", "harbour", "creek"]
CONTEXTS = ["module", "function", "if", "for", "while", "try", "method", "with_global"]


class Wild:
    """One random program."""

    def __init__(self, seed: int) -> None:
        self.random = Random(seed)

    def text(self) -> str:
        """The program's text."""
        r = self.random
        block = self._block(r.randint(2, 4))
        if r.random() < 0.3:
            block.insert(0, f"{r.choice(NAMES)} = {r.randint(0, 30)}")
        parts = ["log = []", "marks = [3, 1, 2]", self._stream(), *(f"{n} = {r.randint(0, 9)}" for n in NAMES)]
        parts += self._helpers()
        for _ in range(r.randint(1, 3)):
            copies = r.randint(2, 4)
            context = r.choice(CONTEXTS)
            lines: list[str] = []
            moved, by = r.choice(NAMES), r.choice(["= {} + 2", "= {} - 3", "+= 4", "-= 1"])
            moving = r.random() < 0.2
            if moving:
                lines.append(f"{moved} = {r.randint(0, 30)}")
                if r.random() < 0.3:
                    lines += self._between()
            for k in range(copies):
                if moving:
                    lines += block
                    if k < copies - 1 or r.random() < 0.2:
                        lines.append(f"{moved} {by.format(moved)}")
                    continue
                lines += self._shuffled(block) if r.random() < 0.25 else self._changed(block, k)
                if r.random() < 0.35:
                    lines += self._between()
                if r.random() < 0.3:
                    lines += self._told()
            parts += self._in_context(context, lines)
            parts.append(f"print({', '.join(r.sample(NAMES, 3))}, log, marks)")
        parts.append(f"print({', '.join(NAMES)}, log, marks)")
        return "\n".join(parts) + "\n"

    # -- pieces ----------------------------------------------------------------------------------

    def _block(self, size: int) -> list[str]:
        return [self._statement() for _ in range(size)]

    def _stream(self) -> str:
        return self.random.choice(["stream = iter([4, 5])", "stream = [4, 5]", "stream = [4, 5]", "stream = (4, 5)"])

    def _statement(self) -> str:
        r = self.random
        a, b, c = (r.choice(NAMES) for _ in range(3))
        things = r.choice(LISTS)
        return r.choice(
            [
                "{a} = {n}",
                "{a} = {b} + {n}",
                "{a} = {a} + {n}",
                "{a} += {b}",
                "print('{w}', {a}, {n})",
                "print({a}, {b} - {c})",
                "print(f'{w}: {{{a}}} of {n}')",
                "print(f'{{{{{w}}}}} {{{b} - {c}}}')",
                "{things}.append({a})",
                "{things}.append({n})",
                "{a} = len({things}) + {n}",
                "if {a} > {n}:\n    print('{w}')\n    {b} = {n}",
                "if {a} > {b}:\n    {c} = {a}\nelse:\n    {c} = {n}",
                "for {a} in range({m}):\n    {b} = {b} + {a}",
                "{a} = shift({b}, {n})",
                "{a} = noisy({n}) + {b}",
                "bump()",
                "{a} = sum([{b} for {b} in range({m})])",
                "{a}, {b} = {b}, {n}",
                "{a} = [{n}, {c}][{m} % 2]",
                "show({a}, [{n}])",
                "{a} = (lambda: {b} + {n})()",
                "try:\n    {a} = {n} // ({b} - {m})\nexcept ZeroDivisionError:\n    {a} = {n}",
                "try:\n    {a} = {n} // ({b} - {m})\n    {c} = {n}\nexcept ZeroDivisionError:\n    print('{w}')",
                "{a} = max({things})",
                "{a} = min(marks) + {n}",
                "{a} = {b} * 2",
                "{a} = sum(stream)",
                "{a} = abs({b} - {n})",
            ]
        ).format(a=a, b=b, c=c, n=r.randint(0, 30), m=r.randint(1, 4), w=r.choice(WORDS), things=things)

    def _helpers(self) -> list[str]:
        return [
            "def shift(value, by):\n    log.append(by)\n    return value * 2 - by",
            "def noisy(value):\n    print('noisy', value, len(log))\n    return value",
            "def bump():\n    global turn\n    turn = turn + 1\n    print('turn', turn)",
            "def tell(one, two):\n    print('tell', one)\n    log.append(two)\n    three = one + two\n    print('told', three)\n    return three",
            "def show(value, extra):\n    extra.append(value)\n    print(extra)\n    return extra",
        ]

    def _told(self) -> list[str]:
        """What `tell` does, written out, now and then with a slip."""
        r = self.random
        one, two, three = r.choice(NAMES), r.choice([*NAMES, "7", "12"]), r.choice(["three", "three", *NAMES])
        after = r.choice([[], [f"print({three})"], [f"{one} = {three}"]])
        if r.random() < 0.3:
            return [f"{three} = tell({one}, {two})", *after]
        added = two if r.random() < 0.9 else r.choice(NAMES)
        return [
            f"print('tell', {one})",
            f"log.append({two})",
            f"{three} = {one} + {added}",
            f"print('told', {three})",
            *after,
        ]

    def _shuffled(self, block: list[str]) -> list[str]:
        return self.random.sample(block, len(block))

    def _changed(self, block: list[str], copy: int) -> list[str]:
        """The block with some numbers, words, names or the order changed."""
        r = self.random
        lines = list(block)
        step = r.choice([0, 0, 1, 5])
        if step:
            lines = [self._shifted(line, step * copy) for line in lines]
        if r.random() < 0.25:
            old, new = r.sample(NAMES, 2)
            lines = [self._renamed(line, old, new) for line in lines]
        if r.random() < 0.2:
            k = r.randrange(len(lines))
            lines[k] = lines[k].replace(r.choice(WORDS), r.choice(WORDS))
        if r.random() < 0.15 and len(lines) > 1:
            k = r.randrange(len(lines) - 1)
            lines[k], lines[k + 1] = lines[k + 1], lines[k]
        if r.random() < 0.1:
            lines.insert(r.randrange(len(lines) + 1), self._statement())
        return lines

    @staticmethod
    def _shifted(line: str, by: int) -> str:
        import re

        return re.sub(r"(?<![\w'])(\d+)(?=[^\w]|$)", lambda m: str(int(m.group()) + by), line, count=1)

    @staticmethod
    def _renamed(line: str, old: str, new: str) -> str:
        import re

        return re.sub(rf"\b{old}\b", new, line)

    def _between(self) -> list[str]:
        r = self.random
        return [r.choice([f"print('--', {r.choice(NAMES)})", f"{r.choice(NAMES)} = {r.randint(0, 9)}", "# a note"])]

    def _in_context(self, context: str, lines: list[str]) -> list[str]:
        inner = [f"    {x}" for line in lines for x in line.split("\n")]
        given = [f"    {n} = {self.random.randint(0, 9)}" for n in NAMES]
        name = f"work_{self.random.randint(0, 999)}"
        if context == "function":
            result = self.random.choice(NAMES)
            return [f"def {name}():", *given, *inner, f"    return {result}", f"print({name}())"]
        if context == "method":
            deeper = [f"    {x}" for x in (*given, *inner)]
            return [
                f"class Station_{name}:",
                "    def run(self):",
                *deeper,
                "        return total",
                f"print(Station_{name}().run())",
            ]
        if context == "with_global":
            some = ", ".join(self.random.sample(NAMES, 2))
            rest = [g for g in given if g.split()[0] not in some]
            return [f"def {name}():", f"    global {some}", *rest, *inner, f"{name}()"]
        if context == "if":
            return ["if len(log) >= 0:", *inner]
        if context == "for":
            return ["for again in range(2):", *inner]
        if context == "while":
            return ["again = 0", "while again < 2:", "    again += 1", *inner]
        if context == "try":
            return ["try:", *inner, "except ValueError:", "    print('no')"]
        return [x for line in lines for x in line.split("\n")]


def wild(seed: int) -> str:
    """A wild program."""
    return Wild(seed).text()
