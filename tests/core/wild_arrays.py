"""Numbered variables in the languages where variables are declared, to break the proof of arrays on."""

from __future__ import annotations

from collections.abc import Callable
from random import Random

WHOLE = {"javascript": "let", "typescript": "let", "gamescript": "var"}
SAY = {
    "javascript": 'console.log("{0}", {1});',
    "typescript": 'console.log("{0}", {1});',
    "gamescript": 'show_debug_message("{0}", {1});',
    "java": 'System.out.println("{0} " + ({1}));',
    "csharp": 'Console.WriteLine("{0} " + ({1}));',
    "c": 'printf("{0} %d\\n", {1});',
    "cpp": 'printf("{0} %d\\n", {1});',
}
STEPS = [
    "{v} = {k} * 3;",
    "{v} = step({k});",
    "{v} += {n};",
    "{v}++;",
    "SAY gate {k}|{v}",
    "{v} = {v} + other;",
    "if ({v} > 4) {{ {v} = {v} - 2; }}",
    "other = other + {v};",
    "show({v});",
    "for ({whole} i = 0; i < 2; i++) {{ {v} = {v} + i; }}",
]


def wild_arrays(seed: int, language: str) -> str:
    """A program in which g1, g2 and g3 are declared in one of several ways and used in copies."""
    r = Random(seed)
    whole = WHOLE.get(language, "int")

    def said(line: str) -> str:
        if not line.startswith("SAY "):
            return line
        word, _, value = line[4:].partition("|")
        return SAY[language].format(word, value)

    scripted = language in WHOLE
    loose = scripted and r.random() < 0.5
    how = r.choice(["row", "row", "worked out", "apart", "together", "mixed"])
    word = r.choice(
        [whole, whole, "const" if scripted and language != "gamescript" else whole, "var" if scripted else whole]
    )
    body = [f"{whole} other = 1;"]
    if how == "row":
        body += [f"{word} g{k} = {r.randint(0, 9)};" for k in (1, 2, 3)]
    elif how == "together":
        body.append(f"{whole} g1, g2, g3;" if r.random() < 0.7 else f"{whole} g1 = 1, g2 = 2, g3 = 3;")
        body += [f"g{k} = {r.randint(0, 9)};" for k in (1, 2, 3)]
    else:
        for k in (1, 2, 3):
            value = f"step({k})" if how == "worked out" or r.random() < 0.5 else str(k)
            body += [said(f"SAY ask {k}|other")] if r.random() < 0.5 else []
            body.append(f"{word if how != 'mixed' or k < 3 else whole} g{k} = {value};")
            body += ["other = other + g1;"] if how == "apart" and r.random() < 0.3 else []
    for _ in range(r.randint(1, 3)):
        steps, number = [r.choice(STEPS) for _ in range(r.randint(1, 3))], r.randint(1, 5)
        for k in (1, 2, 3):
            for step in steps:
                line = said(step.format(v=f"g{k}", k=k, n=number, whole=whole))
                body.append(line if r.random() < 0.95 else line.replace(f"g{k}", f"g{r.choice([1, 2, 3])}"))
        body += [said("SAY other|other")] if r.random() < 0.3 else []
        body += ["g1 = g2;"] if r.random() < 0.1 else []
        body += ["if (other > 3) { " + f"{whole} g2 = 5; " + said("SAY inner|g2") + " }"] if r.random() < 0.1 else []
    if scripted and language != "gamescript":
        body += [said("SAY later|(() => g1 + g3)()")] if r.random() < 0.3 else []
        body += [said("SAY object|({ g2 }).g2")] if r.random() < 0.1 else []
    body += _asked(r, word if word != "const" else whole, said) if r.random() < 0.6 else []
    body.append(said("SAY end|g1 + g2 + g3 + other"))
    return _whole(language, body, loose, said)


def _asked(r: Random, word: str, said: Callable[[str], str]) -> list[str]:
    """Copies of which the first declares what the others give another value."""
    steps = [r.choice(["SAY answer|answer", "other = other + answer;", "if (answer > 3) {{ other = other + {k}; }}",
                       "answer = answer + {n};", "show(answer * {k});"]) for _ in range(r.randint(1, 3))]  # fmt: skip
    value, ahead = r.choice(["step({k})", "{k}", "step(other) + {k}", "other + 1"]), r.random() < 0.3
    lines: list[str] = []
    for k in range(r.randint(3, 4)):
        lines += [said(f"SAY ask {k}|other")] if ahead else []
        lines.append(f"{word + ' ' if k == 0 else ''}answer = {value.format(k=k)};")
        number = r.randint(1, 2)
        lines += [said(step.format(k=k, n=number)) for step in steps]
        lines += [said("SAY before|answer")] if r.random() < 0.05 else []
    lines += [said("SAY last|answer")] if r.random() < 0.25 else []
    return lines


def _whole(language: str, body: list[str], loose: bool, said: object) -> str:
    assert callable(said)
    kind = {"typescript": ": number"}.get(language, "")
    inside = [f"    {line}" for line in body]
    say_step, say_show = said("SAY step|n"), said("SAY v|n")
    if language in WHOLE:
        head = [
            f"function step(n{kind}) {{ {say_step} return n * 7 % 5; }}",
            f"function show(n{kind}) {{ {say_show} }}",
        ]
        lines = [*head, *body] if loose else [*head, "function main() {", *inside, "}", "main();"]
        return "\n".join(lines) + "\n"
    if language in {"java", "csharp"}:
        head = [
            f"    static int step(int n) {{ {say_step} return n * 7 % 5; }}",
            f"    static void show(int n) {{ {say_show} }}",
        ]
        main = "public static void main(String[] args)" if language == "java" else "static void Main()"
        start = "public class Main {" if language == "java" else "using System;\n\nclass Program {"
        return "\n".join([start, *head, f"    {main} {{", *(f"    {x}" for x in inside), "    }", "}"]) + "\n"
    head = [
        "#include <stdio.h>",
        f"int step(int n) {{ {say_step} return n * 7 % 5; }}",
        f"void show(int n) {{ {say_show} }}",
    ]
    return "\n".join([*head, "int main(void) {", *inside, "    return 0;", "}"]) + "\n"
