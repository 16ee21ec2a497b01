"""Programs in the languages with braces to break the proof on, as `wild` does for Python.

Every statement prints or leaves a trace. All variables are whole numbers or texts; some belong to the
program, some to the function, some are declared in the copies.
"""

from __future__ import annotations

import re
from random import Random

SHARED = ["tide", "turn"]
OWN = ["gate", "level", "total", "count"]
NAMES = [*SHARED, *OWN]
WORDS = ["north", "mill", "east", "ferry", "harbour", "creek"]
CONTEXTS = ["plain", "plain", "if", "for", "while", "switch", "two", "block"]


class WildBraces:
    """One random program in `language`: javascript, typescript, gamescript, c, cpp, arduino, java or csharp."""

    def __init__(self, seed: int, language: str) -> None:
        self.random = Random(seed)
        self.language = language
        self.number = 0

    def text(self) -> str:
        """The program's text."""
        r = self.random
        functions = []
        for k in range(r.randint(1, 2)):
            block = [self._statement() for _ in range(r.randint(2, 4))]
            lines: list[str] = []
            for _ in range(r.randint(1, 2)):
                lines += self._in_context(r.choice(CONTEXTS), block)
            functions.append(self._function(f"work{k}", lines))
        return self._program(functions)

    def pair(self) -> str:
        """The text of a program with two functions made of one body, with values and lines changed."""
        r = self.random
        body = [self._statement() for _ in range(r.randint(4, 7))]
        if r.random() < 0.5:
            k, own = r.randrange(len(body)), f"again{self.number}"
            inner = "\n".join(f"    {x}" for line in body[k : k + 2] for x in line.split("\n"))
            head = f"for ({self.whole} {own} = 0; {own} < {r.randint(1, 3)}; {own}++)"
            body[k : k + 2] = [f"{head} {{\n{inner}\n}}"]
        if r.random() < 0.3:
            body.insert(r.randrange(len(body)), f"if (level > {r.randint(0, 9)}) {{\n    return {r.choice(OWN)};\n}}")
        given = [f"{n} = {r.randint(0, 9)}" for n in OWN]
        return self._program([self._function(f"work{k}", self._one_of_a_pair(body), given) for k in range(2)])

    def _one_of_a_pair(self, body: list[str]) -> list[str]:
        r = self.random
        lines: list[str] = []
        for line in body:
            if r.random() < 0.3:
                line = re.sub(r"(?<![\w'\[])(\d+)(?=[^\w\]]|$)", lambda m: str(r.randint(0, 30)), line, count=1)
            if r.random() < 0.15:
                line = line.replace(r.choice(WORDS), r.choice(WORDS))
            if r.random() < 0.9 or "own" in line:
                lines.append(line)
            if r.random() < 0.12:
                lines.append(self._statement())
            if lines and r.random() < 0.1 and "\n}" in lines[-1] and not lines[-1].startswith(("{", "switch", "try")):
                extra = self.say(r.choice(WORDS), r.choice(OWN))
                lines[-1] = re.sub(r"\n\}\Z", "", lines[-1]) + f"\n    {extra}\n}}"
        return lines

    def again(self) -> str:
        """The text of a program whose copies give variables a value anew: the first declares them, or each has one of
        the program's, which other functions may look at."""
        r = self.random
        functions = []
        for k in range(r.randint(1, 2)):
            given = r.sample(["sum", "most"], r.randint(1, 2))
            block = [f"{self.whole} {name} = {r.choice([str(r.randint(0, 9)), r.choice(OWN)])};" for name in given]
            if r.random() < 0.4:
                block.append(f"lent0 = {r.choice(OWN)} + {r.randint(0, 9)};")
                given.append("lent0")
            for _ in range(r.randint(2, 4)):
                line = self._statement() if r.random() < 0.9 else "look();"
                old, new = r.choice(OWN), r.choice(given)
                block.append(re.sub(rf"\b{old}\b", new, line))
            block.append(self.say(r.choice(WORDS), *given))
            lines: list[str] = []
            for copy in range(r.randint(2, 3)):
                for line in self._changed(block, copy):
                    if copy and r.random() < 0.95:
                        line = re.sub(rf"^{self.whole} (sum|most) =", r"\1 =", line)
                    lines.append(line.replace("lent0", f"lent{copy}"))
                extra = [self.say("so", given[0]), f"{r.choice(OWN)} = {given[0]};", "look();"]
                lines += r.choice([[], [], [], [r.choice(extra)]])
            if r.random() < 0.3:
                lines += [f"{given[0]} = {r.randint(0, 9)};", self.say("end", given[0])]
            functions.append(self._function(f"work{k}", lines))
        text = self._program(functions)
        lent = [f"lent{n} = {r.randint(0, 9)};" for n in range(3)]
        seen = self.say("lent", "lent0", "lent1", "lent2")
        if self.language in {"java", "csharp"}:
            extra = [*(f"    static int {x}" for x in lent), f"    static void look() {{\n        {seen}\n    }}"]
            return text.replace("    static int noisy", "\n".join([*extra, "    static int noisy"]), 1)
        kind = "function look()" if self.scripted else "void look()"
        extra = [*(f"{self.whole} {x}" for x in lent), f"{kind} {{\n  {seen}\n}}"]
        first = "function noisy" if self.scripted else "int noisy"
        return text.replace(first, "\n".join([*extra, first]), 1)

    # -- what the languages write differently ----------------------------------------------------

    def say(self, word: str, *values: str) -> str:
        """A statement that prints."""
        gaps = " ".join(f"${{{v}}}" for v in values)
        if self.language in {"javascript", "typescript"} and self.random.random() < 0.4:
            return f"console.log(`{word}: {gaps} {self.random.randint(1, 9)}`);"
        if self.language == "csharp" and self.random.random() < 0.4:
            return f'Console.WriteLine($"{word}: {gaps.replace("$", "")} m");'
        if self.language in {"javascript", "typescript"}:
            return f"console.log({', '.join([repr(word), *values])});"
        if self.language == "gamescript":
            return f"show_debug_message({', '.join([repr(word), *values])});"
        if self.language in {"java", "csharp"}:
            printer = "System.out.println" if self.language == "java" else "Console.WriteLine"
            return f'{printer}("{word}"{"".join(f""" + " " + ({v})""" for v in values)});'
        if self.language == "arduino":
            return f'report("{word}", {", ".join(values)});'
        return f'printf("{word}{" %d" * len(values)}\\n", {", ".join(values)});'

    @property
    def whole(self) -> str:
        """The word that declares a whole number."""
        return {"javascript": "let", "typescript": "let", "gamescript": "var"}.get(self.language, "int")

    @property
    def scripted(self) -> bool:
        """True for JavaScript and what is like it."""
        return self.language in {"javascript", "typescript", "gamescript"}

    def _program(self, functions: list[str]) -> str:
        shared = [f"{n} = {self.random.randint(0, 9)}" for n in SHARED]
        marks = [3, 1, 2, 7, 5]
        if self.scripted:
            log = "show_debug_message" if self.language == "gamescript" else "console.log"
            kind = ": number" if self.language == "typescript" else ""
            helpers = [
                *(f"{self.whole} {s};" for s in shared),
                f"{'var' if self.language == 'gamescript' else 'const'} marks = {marks};",
                f'function noisy(value{kind}) {{\n  {log}("noisy", value);\n  return value;\n}}',
                f'function bump() {{\n  turn = turn + 1;\n  {log}("turn", turn);\n}}',
                f"function shift(value{kind}, by{kind}) {{\n  marks[1] = by;\n  return value * 2 - by;\n}}",
            ]
            ends = [f"{log}(work{k}());" for k in range(len(functions))]
            if self.language != "gamescript":
                helpers.append(f"const later{': (() => void)[]' if kind else ''} = [];")
                ends.append("later.forEach((run) => run());")
            return "\n".join([*helpers, *functions, *ends, f"{log}(tide, turn, marks[0], marks[1]);"]) + "\n"
        listed = "{" + ", ".join(map(str, marks)) + "}"
        if self.language in {"java", "csharp"}:
            java = self.language == "java"
            printer = "System.out.println" if java else "Console.WriteLine"
            helpers = [
                *(f"    static int {s};" for s in shared),
                f"    static int[] marks = {listed};",
                f'    static int noisy(int value) {{\n        {printer}("noisy " + value);\n        return value;\n    }}',
                f'    static void bump() {{\n        turn = turn + 1;\n        {printer}("turn " + turn);\n    }}',
                "    static int shift(int value, int by) {\n        marks[1] = by;\n        return value * 2 - by;\n    }",
            ]
            calls = [f"        {printer}(work{k}());" for k in range(len(functions))]
            end = f'        {printer}(tide + " " + turn + " " + marks[0] + marks[1]);'
            main = "public static void main(String[] args)" if java else "static void Main()"
            body = [*helpers, *functions, f"    {main} {{", *calls, end, "    }"]
            head = "public class Main {\n" if java else "using System;\n\nclass Program {\n"
            return head + "\n".join(body) + "\n}\n"
        if self.language == "arduino":
            helpers = [
                *(f"int {s};" for s in shared),
                f"int marks[] = {listed};",
                "void report(const char *label, int a, int b = 0, int c = 0, int d = 0) {\n    Serial.print(label);\n    Serial.print(a);\n"
                "    Serial.print(b);\n    Serial.print(c);\n    Serial.println(d);\n}",
                'int noisy(int value) {\n    report("noisy", value);\n    return value;\n}',
                'void bump() {\n    turn = turn + 1;\n    report("turn", turn);\n}',
                "int shift(int value, int by) {\n    marks[1] = by;\n    return value * 2 - by;\n}",
            ]
            calls = [f"    Serial.println(work{k}());" for k in range(len(functions))]
            end = "void setup() {\n    Serial.begin(9600);\n}"
            return "\n".join([*helpers, *functions, end, "void loop() {", *calls, "    bump();", "}"]) + "\n"
        helpers = [
            "#include <stdio.h>",
            "#include <stdlib.h>",
            *(f"int {s};" for s in shared),
            f"int marks[] = {listed};",
            'int noisy(int value) {\n    printf("noisy %d\\n", value);\n    return value;\n}',
            'void bump(void) {\n    turn = turn + 1;\n    printf("turn %d\\n", turn);\n}',
            "int shift(int value, int by) {\n    marks[1] = by;\n    return value * 2 - by;\n}",
        ]
        if self.language == "cpp":
            helpers.append("void grow(int &value) {\n    value = value + 2;\n}")
        calls = [f'    printf("%d\\n", work{k}());' for k in range(len(functions))]
        end = '    printf("%d %d %d %d\\n", tide, turn, marks[0], marks[1]);'
        return "\n".join([*helpers, *functions, "int main(void) {", *calls, end, "    return 0;", "}"]) + "\n"

    def _function(self, name: str, lines: list[str], values: list[str] | None = None) -> str:
        r = self.random
        kind = ": number" if self.language == "typescript" else ""
        told = values or [f"{n} = {r.randint(0, 9)}" for n in OWN]
        given = [f"{self.whole} {value.replace(' =', f'{kind} =')};" for value in told]
        inner = [x for line in [*given, *lines, f"return {r.choice(OWN)};"] for x in line.split("\n")]
        if self.scripted:
            return f"function {name}(){kind} {{\n" + "\n".join(f"  {x}" for x in inner) + "\n}"
        if self.language in {"java", "csharp"}:
            return f"    static int {name}() {{\n" + "\n".join(f"        {x}" for x in inner) + "\n    }"
        return f"int {name}(void) {{\n" + "\n".join(f"    {x}" for x in inner) + "\n}"

    # -- statements ------------------------------------------------------------------------------

    def _statement(self) -> str:
        r = self.random
        a, b, c = (r.choice(NAMES) for _ in range(3))
        n, m, w = r.randint(0, 30), r.randint(1, 4), r.choice(WORDS)
        whole = self.whole
        self.number += 1
        own = f"own{self.number}"
        found = [
            f"{a} = {n};",
            f"{a} = {b} + {n};",
            f"{a} = {a} + {n};",
            f"{a} += {b};",
            f"{a}++;",
            self.say(w, a, str(n)),
            self.say(f"{w} {n}", a),
            self.say(w, f"{b} - {c}"),
            f"marks[{m}] = {a} + {n};",
            f"{a} = marks[{m}] + {n};",
            f"if ({a} > {n}) {{\n    {self.say(w, a)}\n    {b} = {n};\n}}",
            f"if ({a} > {b}) {c} = {a};\nelse {c} = {n};",
            f"for ({whole} i = 0; i < {m}; i++) {{\n    {b} = {b} + i;\n}}",
            f"{a} = shift({b}, {n});",
            f"{a} = noisy({n}) + {b};",
            "bump();",
            f"{whole} {own} = {b} + {n};\n{self.say(w, own)}",
            f"{a} = {b} > {n} ? {c} : {n};",
            f"while ({a} < {n} && {a} > -50) {{\n    {a} = {a} + 7;\n}}",
            f"switch ({a}) {{\n    case {n}:\n        {b} = {n};\n        break;\n    case 99:\n        {b} = 1;\n    default:\n        {c} = {m};\n}}",
            f"{{\n    {whole} {own} = {n};\n    {a} = {own} + {b};\n}}",
        ]
        if self.language == "arduino":
            found += [f"digitalWrite({n}, HIGH);", f"analogWrite({n}, {a});", f"{a} = analogRead({m}) % 50;"]
        if self.language == "cpp":
            found += [f"grow({a});", f"int &{own} = {a};\n{own} = {own} + {n};"]
        if self.language in {"javascript", "typescript"}:
            found += [
                f"{a} = [1, 2, 3].map((x) => x + {b}).length + {n};",
                f"console.log(`{w} ${{{a}}} {n}`);",
                f"var {own} = {n};\n{a} = {own};",
                f'later.push(() => console.log("later", {a}, {n}));',
                f'later.push(() => {{\n    {a} = {a} + {n};\n    console.log("{w}", {a});\n}});',
            ]
        if self.language == "java":
            found += [f"try {{\n    {a} = {n} / ({b} - {m});\n}} catch (ArithmeticException e) {{\n    {a} = {n};\n}}"]
        chosen = r.choice(found)
        if self.language == "csharp":
            ends = chosen.replace("= 1;\n    default", "= 1;\n        break;\n    default")
            chosen = re.sub(r"(default:\n.*\n)\}", r"\1        break;\n}", ends)
        return chosen

    def _changed(self, block: list[str], copy: int) -> list[str]:
        r = self.random
        lines = list(block)
        step = r.choice([0, 0, 1, 5])
        if step:
            lines = [
                re.sub(r"(?<![\w'\[])(\d+)(?=[^\w\]]|$)", lambda m: str(int(m[1]) + step * copy), x, count=1)
                for x in lines
            ]
        if r.random() < 0.25:
            old, new = r.sample(NAMES, 2)
            lines = [re.sub(rf"\b{old}\b", new, line) for line in lines]
        if r.random() < 0.25:
            k = r.randrange(len(lines))
            lines[k] = lines[k].replace(r.choice(WORDS), r.choice(WORDS))
        if r.random() < 0.15 and len(lines) > 1:
            k = r.randrange(len(lines) - 1)
            lines[k], lines[k + 1] = lines[k + 1], lines[k]
        if r.random() < 0.1:
            lines.insert(r.randrange(len(lines) + 1), self._statement())
        self.number += 1
        return [re.sub(r"\bown(\d+)\b", lambda m: f"own{m[1]}x{self.number}", line) for line in lines]

    def _copies(self, block: list[str]) -> list[list[str]]:
        return [self._changed(block, k) for k in range(self.random.randint(2, 4))]

    def _between(self) -> list[str]:
        r = self.random
        return r.choice(
            [[], [], [self.say("--", r.choice(NAMES))], [f"{r.choice(NAMES)} = {r.randint(0, 9)};"], ["// a note"]]
        )

    def _in_context(self, context: str, block: list[str]) -> list[str]:
        r = self.random
        copies = self._copies(block)
        if context == "switch":
            cases = []
            for k, copy in enumerate(copies):
                lines = [x for line in copy for x in line.split("\n")]
                own = [f"    {x}" for x in lines]
                declares = any(re.match(r"(int|let|var) ", x) for x in lines)
                stop = ["    break;"] if r.random() < 0.8 or self.language == "csharp" else []
                opened = [f"case {k}: {{"] if declares else [f"case {k}:"]
                closed = ["}"] if declares else []
                cases += [*opened, *own, *([] if declares else stop), *([*stop] if declares else []), *closed]
            return [f"switch ({r.choice(OWN)} % 4) {{", *(f"    {x}" for x in cases), "}"]
        if context == "block":
            return [x for copy in copies for x in ["{", *(f"    {y}" for line in copy for y in line.split("\n")), "}"]]
        lines = []
        for copy in copies:
            lines += [*(x for line in copy for x in line.split("\n")), *self._between()]
        inner = [f"    {x}" for x in lines]
        if context == "if":
            return [f"if ({r.choice(OWN)} < 40) {{", *inner, "}"]
        if context == "for":
            self.number += 1
            return [f"for ({self.whole} k{self.number} = 0; k{self.number} < 2; k{self.number}++) {{", *inner, "}"]
        if context == "while":
            self.number += 1
            name = f"again{self.number}"
            return [f"{self.whole} {name} = 0;", f"while ({name} < 2) {{", f"    {name}++;", *inner, "}"]
        if context == "two":
            return [*lines, self.say("middle", *OWN), *lines_renamed(lines, self)]
        return lines


def lines_renamed(lines: list[str], wild: WildBraces) -> list[str]:
    """The lines again, with their own declarations under new names."""
    wild.number += 1
    return [re.sub(r"\b(own\w+)\b", rf"\1y{wild.number}", line) for line in lines]


def wild_braces(seed: int, language: str) -> str:
    """A wild program."""
    return WildBraces(seed, language).text()


def wild_pair(seed: int, language: str) -> str:
    """A wild program with two functions that are alike but for a line or two."""
    return WildBraces(seed, language).pair()


def wild_again(seed: int, language: str) -> str:
    """A wild program whose copies give variables a value anew."""
    return WildBraces(seed, language).again()


def wild_classes(seed: int, language: str) -> dict[str, str]:
    """A wild program in Java or C# whose copies stand in two classes, each with fields and methods of its own, in one
    file or in two: path → text."""
    wild = WildBraces(seed, language)
    r = wild.random
    block = [wild._statement() for _ in range(r.randint(3, 5))]
    made = {}
    for k, name in enumerate(("One", "Two")):
        lines = wild._in_context(r.choice(["plain", "if", "for", "block"]), block)
        text = wild._program([wild._function(f"work{k}", lines)])
        body = text.split("{\n", 1)[1].rsplit("\n}\n", 1)[0]
        body = re.sub(r"    (?:public )?static void Main?\w*\(.*", "", body, flags=re.DOTALL | re.IGNORECASE)
        if r.random() < 0.5:
            body = body.replace(f"static int work{k}", f"int work{k}")
        head = f"class {name}{r.choice(['', '', ' extends Base' if language == 'java' else ' : Base'])} {{\n"
        made[name] = head + body.replace("static int work", "public static int work").rstrip() + "\n}\n"
        if language == "csharp":
            made[name] = re.sub(rf"^    int work{k}", f"    public int work{k}", made[name], flags=re.MULTILINE)
    java = language == "java"
    printer = "System.out.println" if java else "Console.WriteLine"
    calls = [
        f"        {printer}({name if f'static int work{k}' in made[name] else f'new {name}()'}.work{k}());"
        for k, name in enumerate(made)
    ]
    head = "public static void main(String[] args)" if java else "static void Main()"
    main = "\n".join([f"    {head} {{", *calls, "    }"])
    start = "" if java else "using System;\n\n"
    base = "class Base {\n}\n"
    if r.random() < 0.5:
        rest = "public class Main {\n" if java else "class Program {\n"
        whole = "\n".join([start + base, *made.values(), rest + main + "\n}\n"])
        return {"Main.java" if java else "Program.cs": whole}
    ending = "java" if java else "cs"
    files = {f"{name}.{ending}": start + text for name, text in made.items()}
    rest = "public class Main {\n" if java else "class Program {\n"
    return {**files, f"{'Main' if java else 'Program'}.{ending}": start + base + "\n" + rest + main + "\n}\n"}


def wild_class(seed: int, language: str) -> str:
    """A wild program in JavaScript, TypeScript or C++ whose copies stand in methods and work on their object's
    fields."""
    wild = WildBraces(seed, language)
    r = wild.random
    fields = r.sample(OWN, 2)
    block = [wild._statement() for _ in range(r.randint(3, 5))]
    methods = [wild._function(f"work{k}", wild._in_context(r.choice(["plain", "if", "for"]), block)) for k in range(2)]
    if r.random() < 0.3:
        methods.append(wild._function("other", wild._changed(block, 2)))
    names = "|".join(fields)
    told = []
    for method in methods:
        method = re.sub(rf" +(?:let|int) ({names})(?:: number)? = \d+;\n", "", method)
        if wild.scripted:
            method = re.sub(rf"\b({names})\b", r"this.\1", method).replace("function ", "", 1)
        told.append("\n".join(f"  {line}" for line in method.split("\n")))
    kind = {"typescript": "{}: number", "cpp": "int {}"}.get(language, "{}")
    listed = [f"  {kind.format(name)} = {r.randint(0, 9)};" for name in fields]
    made = "const station = new Station();" if wild.scripted else "Station station;"
    head, end = ("class Station {", "}") if wild.scripted else ("class Station {\npublic:", "};")
    text = wild._program(["@@", "@@"]).replace("@@\n@@", "\n".join([head, *listed, *told, end, made]))
    return re.sub(r"\b(work\d)\(\)(?=\))", r"station.\1()", text)
