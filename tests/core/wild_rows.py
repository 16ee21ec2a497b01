"""Rows of alike statements to break the finding and the proof of loops on: numbers and words in one text, letters,
rows in rows, up and down again, with something in between, variables of a series, counters. Some copies are spoilt.
"""

from __future__ import annotations

from random import Random

WORDS = ["mill", "creek", "pier", "school", "market", "dyke", "old barn", "quay"]
SERIES = [
    ["mon", "tue", "wed", "thu", "fri", "sat", "sun"],
    ["jan", "feb", "mar", "apr", "may", "jun"],
    ["a", "b", "c", "d", "e", "f"],
    ["rain_a", "rain_b", "rain_c", "rain_d", "rain_e"],
    ["first", "second", "third", "fourth", "fifth"],
]
HEADS = {
    "python": "def mark(text, number):\n    print(text, number)\n    return number + 1\n\n\n",
    "javascript": "function mark(text, number) {\n  console.log(text, number);\n  return number + 1;\n}\n",
    "java": "class Main {\n    static int mark(String text, int number) {\n"
    '        System.out.println(text + " " + number);\n        return number + 1;\n    }\n',
    "c": "#include <stdio.h>\nint mark(const char *text, int number) {\n"
    '    printf("%s %d\\n", text, number);\n    return number + 1;\n}\n',
    "csharp": "using System;\nclass Program {\n    static int mark(string text, int number) {\n"
    '        Console.WriteLine(text + " " + number);\n        return number + 1;\n    }\n',
}


class WildRows:
    """One random program in one of the languages of `HEADS`."""

    def __init__(self, seed: int, language: str) -> None:
        self.random = Random(seed)
        self.language = language
        self.declared: set[str] = set()

    def text(self) -> str:
        """The program's text."""
        lines = [self.given("tide", self.random.randint(0, 9), "")]
        for _ in range(self.random.randint(1, 2)):
            row = self.random.choice(
                [self.stops, self.letters, self.grid, self.there_and_back, self.variables, self.tests, self.pyramids]
            )
            lines += row()
        lines.append(self.mark('"end"', "tide"))
        inner = [f"{'        ' if self.methods else '    ' if self.language == 'c' else ''}{x}" for x in lines]
        opening = {
            "java": "    static void start() {",
            "csharp": "    static void start() {",
            "c": "void start(void) {",
        }
        closing = {"java": "    public static void main(String[] given) {\n        start();\n    }\n}"}
        closing |= {
            "csharp": "    static void Main() {\n        start();\n    }\n}",
            "c": "int main(void) {\n    start();\n    return 0;\n}",
        }
        own = self.language in opening
        end = ["    }" if self.methods else "}", closing[self.language]] if own else []
        return HEADS[self.language] + "\n".join([*([opening[self.language]] if own else []), *inner, *end]) + "\n"

    # -- what the languages write differently ------------------------------------------------------

    @property
    def methods(self) -> bool:
        return self.language in {"java", "csharp"}

    @property
    def stop(self) -> str:
        return "" if self.language == "python" else ";"

    def given(self, name: str, value: object, inset: str) -> str:
        """A variable with its first value, or another."""
        new = name not in self.declared
        self.declared.add(name)
        kind = {"python": "", "javascript": "let "}.get(self.language, "int ") if new else ""
        return f"{inset}{kind}{name} = {value}{self.stop}"

    def say(self, text: str) -> str:
        """A statement that prints a text."""
        told = {"python": 'print("{}")', "javascript": 'console.log("{}");', "c": 'printf("{}\\n");'}
        told |= {"java": 'System.out.println("{}");', "csharp": 'Console.WriteLine("{}");'}
        return told[self.language].format(text)

    def mark(self, text: str, number: object) -> str:
        """A call that prints, whose result nobody needs."""
        return f"mark({text}, {number}){self.stop}"

    def test(self, condition: str, inner: str) -> list[str]:
        if self.language == "python":
            return [f"if {condition}:", f"    {inner}"]
        return [f"if ({condition}) {{", f"    {inner}", "}"]

    # -- rows --------------------------------------------------------------------------------------

    def noisy(self, copies: list[list[str]]) -> list[str]:
        """The lines of copies, some of them spoilt, some with something in between."""
        r = self.random
        lines: list[str] = []
        between = r.randint(1, len(copies)) if r.random() < 0.35 else 0
        for k, copy in enumerate(copies):
            if k and k == between:
                lines.append(
                    r.choice([self.say("half way"), self.given("tide", r.randint(0, 9), ""), self.mark('"so"', "tide")])
                )
            told = list(copy)
            if r.random() < 0.04:
                told = [line.replace("1", "8") for line in told]
            if r.random() < 0.03 and not told[0].startswith("if"):
                told.reverse()
            if r.random() < 0.97:
                lines += told
        return lines

    def stops(self) -> list[str]:
        r = self.random
        first, step = r.randint(0, 3), r.choice([1, 1, 1, 2, 5])
        form = r.choice(["Stop {}: {}", "{1} is number {0}", "{0}. {1} ({0} m)", "{1}", "level {0} at the {1} gate"])
        rest = r.choice([[], [self.say("  wait 5 minutes")], [self.mark('"wait"', "tide")]])
        words = r.sample(WORDS, r.randint(3, 6))
        return self.noisy([[self.say(form.format(first + step * k, w)), *rest] for k, w in enumerate(words)])

    def letters(self) -> list[str]:
        r = self.random
        first, count = r.choice("ABCkx"), r.randint(3, 6)
        form = r.choice(["{}", "buoy {}", "{} side", "rain on {}"])
        days = ["monday", "tuesday", "wednesday", "thursday", "friday", "saturday"]
        told = days[:count] if form.startswith("rain") else [chr(ord(first) + k) for k in range(min(count, 3))]
        return self.noisy([[self.mark(f'"{form.format(x)}"', r.choice(["tide", 4]))] for x in told])

    def grid(self) -> list[str]:
        r = self.random
        rows, columns, form = r.randint(2, 4), r.randint(2, 4), r.choice(["{}{}", "seat {}-{}"])
        if r.random() < 0.4:
            across = [[self.mark(f'"at {10 * y}"', 5 * x)] for y in range(rows) for x in range(columns)]
            return self.noisy(across)
        return self.noisy(
            [[self.mark(f'"{form.format("ABCD"[y], x + 1)}"', "tide")] for y in range(rows) for x in range(columns)]
        )

    def there_and_back(self) -> list[str]:
        r = self.random
        top = r.randint(3, 6)
        numbers = [*range(1, top), *range(top, 0, -1)]
        if r.random() < 0.5:
            return self.noisy([[self.say("*" * n)] for n in numbers])
        return self.noisy([[self.mark('"level"', n * r.choice([1, 1, 10]))] for n in numbers])

    def pyramids(self) -> list[str]:
        r = self.random
        count, first, step = r.randint(3, 6), r.randint(0, 2), r.choice([0, 1, 1, 2])
        sign, end = r.choice("*#.-"), r.choice(["", "", "|", "||"])
        spaces = [(count - 1 - k) * r.choice([1, 1, 1, 2]) for k in range(count)] if r.random() < 0.2 else None
        told = [" " * (spaces[k] if spaces else count - 1 - k) + sign * (first + step * k) + end for k in range(count)]
        return self.noisy([[self.say(text)] for text in told])

    def variables(self) -> list[str]:
        r = self.random
        names = r.choice(SERIES)[: r.randint(3, 6)]
        lines = []
        if r.random() < 0.5:
            lines = [self.given(n, r.choice([0, 0, 0, k]), "") for k, n in enumerate(names)]
        rows = [
            [self.given(n, f'mark("value of {r.choice([n, n, "it"])}", {r.choice([k, 3])})', "")]
            for k, n in enumerate(names)
        ]
        lines += self.noisy(rows) if lines else [line for row in rows for line in row]
        if r.random() < 0.5:
            lines.append(self.given(r.choice(names), r.choice([*names, "tide"]), ""))
        return [
            *lines,
            self.mark('"sum"', " + ".join(names)),
            *([self.mark('"one"', r.choice(names))] if r.random() < 0.5 else []),
        ]

    def tests(self) -> list[str]:
        r = self.random
        names = r.sample(["low", "calm", "wet", "dry", "odd"], r.randint(3, 4))
        lines = [self.given(n, r.choice([0, 0, 0, 0, 0, 1]), "") for n in names]
        changed = r.choice(["{0} = {0} + 1", "{0} += 2", "{0} = {0} + tide", '{0} = mark("x", {0})'])
        rows = [
            self.test(f"tide {r.choice(['>', '>', '<'])} {k}", changed.format(n) + self.stop)
            for k, n in enumerate(names)
        ]
        lines += self.noisy(rows)
        return [*lines, *(self.mark(f'"{n}"', n) for n in names)]
