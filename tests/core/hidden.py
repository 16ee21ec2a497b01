"""Structured programs and what a beginner would have written in their place.

Each task gives two texts that do the same: the hidden original, with its loop or function, and the
copies, unrolled or inlined, with the noise of a real hand: comments, blank lines, renamed variables,
independent lines in another order, an extra line.
"""

from __future__ import annotations

from random import Random

import msgspec

WORDS = ["north", "mill", "east", "ferry", "harbour", "creek", "dyke", "quay"]
TOPICS = ["gate", "pump", "tide", "seed", "bird", "label"]


class Pair(msgspec.Struct):
    """Definitions and main lines of the original and of the copied program."""

    definitions: list[str]
    lines: list[str]
    copied_definitions: list[str]
    copied: list[str]


class Hidden:
    """One random program in both forms."""

    def __init__(self, seed: int) -> None:
        self.random = Random(seed)
        self.number = 0

    def texts(self) -> tuple[str, str]:
        """(the hidden original, the copied program)."""
        r = self.random
        tasks = [self.even, self.words, self.pairs, self.nested, self.adding, self.separate, self.returning, self.twins]
        tasks += [self.branches, self.moving]
        pairs = [task() for task in r.sample(tasks, r.randint(1, 4))]
        in_main = r.random() < 0.5

        def whole(definitions: list[str], lines: list[str]) -> str:
            if in_main:
                lines = ["def main():", *(f"    {x}" if x else "" for x in lines), "", "", "main()"]
            head = [x for d in definitions for x in [*d.split("\n"), "", ""]]
            return "\n".join([*head, *lines]) + "\n"

        original = whole([d for p in pairs for d in p.definitions], [x for p in pairs for x in self._flat(p.lines)])
        copied = whole(
            [d for p in pairs for d in p.copied_definitions], [x for p in pairs for x in self._flat(p.copied)]
        )
        return original, copied

    @staticmethod
    def _flat(lines: list[str]) -> list[str]:
        return [x for line in lines for x in line.split("\n")]

    def _noise(self) -> list[str]:
        return self.random.choice([[], [], [""], [f"# {self.random.choice(WORDS)}"]])

    def _body(self) -> list[str]:
        """Two to four lines with {n} (a number) and {t} (a topic)."""
        r = self.random
        self.number += 1
        lines = r.sample(
            [
                "print('{t} number', {n})",
                "print('   level', {n}, 'cm')",
                "print('=' * 10)",
                "if {n} > 20:\n    print('   high water')",
                "print('please check', {n} + 1)",
                "for k in range(2):\n    print(k, {n})",
            ],
            r.randint(2, 4),
        )
        return [line.replace("{t}", r.choice(TOPICS)) for line in lines]

    def _unrolled(self, body: list[str], values: list[str]) -> list[str]:
        out: list[str] = []
        for value in values:
            out += self._noise() + [line.replace("{n}", value) for line in body]
        return out

    # -- loops -----------------------------------------------------------------------------------

    def even(self) -> Pair:
        """A counting loop."""
        r = self.random
        count, step, first = r.randint(3, 7), r.choice([1, 1, 2, -3, 10]), r.randint(20, 60)
        body = self._body()
        values = [str(first + step * k) for k in range(count)]
        stop = first + step * count
        loop = [f"for i in range({first}, {stop}, {step}):"]
        loop += [f"    {x}" for line in body for x in line.replace("{n}", "i").split("\n")]
        return Pair([], loop, [], self._unrolled(body, values))

    def words(self) -> Pair:
        """A loop over words."""
        r = self.random
        chosen = r.sample(WORDS, r.randint(3, 6))
        body = ["print('Now the', {n})", "print('   opens at', len({n}))", "print('---')"]
        loop = [f"for word in {chosen}:", *(f"    {line.replace('{n}', 'word')}" for line in body)]
        return Pair([], loop, [], self._unrolled(body, [f"'{w}'" for w in chosen]))

    def pairs(self) -> Pair:
        """Two lists in step."""
        r = self.random
        chosen = [(w, r.randint(100, 400)) for w in r.sample(WORDS, r.randint(3, 6))]
        loop = [
            f"for name, level in {chosen}:",
            "    print(name)",
            "    print('   at', level)",
            "    if level > 250:",
            "        print('   open it')",
        ]
        copied: list[str] = []
        for name, level in chosen:
            copied += [*self._noise(), f"print('{name}')", f"print('   at', {level})"]
            copied += [f"if {level} > 250:", "    print('   open it')"]
        return Pair([], loop, [], copied)

    def nested(self) -> Pair:
        """A loop in a loop."""
        r = self.random
        outer, inner = r.randint(3, 4), r.randint(3, 4)
        loop = [
            f"for row in range(1, {outer + 1}):",
            "    print('row', row)",
            f"    for hour in range(6, {6 + 4 * inner}, 4):",
        ]
        loop += ["        print('   hour', hour)", "        print('      ', row * hour)"]
        copied: list[str] = []
        for row in range(1, outer + 1):
            copied += [*self._noise(), f"row = {row}", "print('row', row)"]
            for hour in range(6, 6 + 4 * inner, 4):
                copied += [f"print('   hour', {hour})", f"print('      ', row * {hour})"]
        return Pair([], loop, [], copied)

    def adding(self) -> Pair:
        """An accumulator that stays."""
        r = self.random
        values = [r.randint(1, 90) for _ in range(r.randint(4, 6))]
        total = f"total{r.randint(1, 99)}"
        loop = [
            f"{total} = 0",
            f"for value in {values}:",
            "    print('adding', value)",
            f"    {total} = {total} + value",
        ]
        copied = [f"{total} = 0"]
        for value in values:
            copied += [*self._noise(), f"print('adding', {value})", f"{total} = {total} + {value}"]
        return Pair([], [*loop, f"print({total})"], [], [*copied, f"print({total})"])

    def moving(self) -> Pair:
        """A number moved on between the copies."""
        r = self.random
        first, step, count = r.randint(200, 400), r.choice([-35, -10, 5]), r.randint(4, 6)
        level = f"level{r.randint(1, 99)}"
        last = first + step * (count - 1)
        body = [f"print('level', {level})", f"if {level} < 300:", "    print('   low')", "print('   next')"]
        loop = [
            f"{level} = {first}",
            f"for {level} in range({first}, {last + step}, {step}):",
            *(f"    {x}" for x in body),
        ]
        copied = [f"{level} = {first}"]
        for k in range(count):
            copied += body + ([f"{level} = {level} {'-' if step < 0 else '+'} {abs(step)}"] if k < count - 1 else [])
        return Pair([], [*loop, f"print({level})"], [], [*copied, f"print({level})"])

    # -- functions ---------------------------------------------------------------------------------

    def _separate(self, k: int) -> list[str]:
        r = self.random
        return [
            f"print('{r.choice(WORDS)} {k} {r.randint(0, 999)}', {r.randint(0, 9)} - {k})",
            f"extra{k} = {r.randint(0, 9)} * 3",
        ]

    def separate(self) -> Pair:
        """A block in separate places."""
        r = self.random
        name = f"show_{r.choice(TOPICS)}_{r.randint(1, 99)}"
        definition = f"def {name}(title, limit):\n    print('*' * 20)\n    print(title)\n    print('up to', limit, 'cm')\n    print('*' * 20)"
        lines, copied = [], []
        for k in range(r.randint(2, 4)):
            title, limit = f"'{r.choice(WORDS)}'", r.randint(10, 99)
            lines += [f"{name}({title}, {limit})", *(apart := self._separate(k))]
            copied += [
                *self._noise(),
                "print('*' * 20)",
                f"print({title})",
                f"print('up to', {limit}, 'cm')",
                "print('*' * 20)",
                *apart,
            ]
        return Pair([definition], lines, [], copied)

    def returning(self) -> Pair:
        """A block that works something out, in separate places; names and order differ."""
        r = self.random
        name = f"mean_{r.randint(1, 99)}"
        definition = (
            f"def {name}(values):\n    best = max(values)\n    worst = min(values)\n    mean = sum(values) / len(values)\n"
            "    print('best', best, 'worst', worst)\n    print('mean', mean)\n    return mean"
        )
        lines, copied = [], []
        renamed = r.random() < 0.4
        for k in range(r.randint(2, 3)):
            things = [r.randint(1, 50) for _ in range(4)]
            mean = f"mean{k}" if renamed else "mean"
            data = f"data{k} = {things}"
            lines += [data, f"{mean} = {name}(data{k})", f"print('so', {mean} * 2)", *(apart := self._separate(k))]
            head = [f"best = max(data{k})", f"worst = min(data{k})", f"{mean} = sum(data{k}) / len(data{k})"]
            if r.random() < 0.3:
                r.shuffle(head)
            copied += [
                data,
                *head,
                "print('best', best, 'worst', worst)",
                f"print('mean', {mean})",
                f"print('so', {mean} * 2)",
                *apart,
            ]
        return Pair([definition], lines, [], copied)

    def branches(self) -> Pair:
        """A block in branches."""
        r = self.random
        name = f"tell_{r.randint(1, 99)}"
        choice = f"choice{r.randint(1, 99)}"
        definition = f"def {name}(place, hours):\n    print('go to', place)\n    print('it takes', hours, 'hours')\n    print('take a coat')\n    print('and a lamp')"
        places = [(f"'{w}'", r.randint(1, 9)) for w in r.sample(WORDS, 3)]
        lines, copied = [f"{choice} = {r.randint(1, 3)}"], [f"{choice} = {r.randint(1, 3)}"]
        copied = list(lines)
        for k, (place, hours) in enumerate(places, 1):
            head = f"{'if' if k == 1 else 'elif'} {choice} == {k}:"
            lines += [head, f"    {name}({place}, {hours})"]
            copied += [
                head,
                f"    print('go to', {place})",
                f"    print('it takes', {hours}, 'hours')",
                "    print('take a coat')",
                "    print('and a lamp')",
            ]
        return Pair([definition], lines, [], copied)

    def twins(self) -> Pair:
        """Functions that differ by a value."""
        r = self.random
        base = f"{r.choice(TOPICS)}{r.randint(1, 99)}"
        general = f"def {base}_price(count, price):\n    total = count * price\n    if count > 10:\n        total = total - 5\n    print('costs', total)\n    return total"
        definitions, lines, copied = [], [], []
        for w in r.sample(WORDS, r.randint(2, 4)):
            price, count = r.randint(2, 40), r.randint(1, 20)
            definitions.append(
                f"def {w}_{base}(count):\n    total = count * {price}\n    if count > 10:\n        total = total - 5\n    print('costs', total)\n    return total"
            )
            lines.append(f"print({base}_price({count}, {price}))")
            copied.append(f"print({w}_{base}({count}))")
        return Pair([general], lines, definitions, copied)


def hidden(seed: int) -> tuple[str, str]:
    """(the hidden original, the copied program)."""
    return Hidden(seed).texts()
