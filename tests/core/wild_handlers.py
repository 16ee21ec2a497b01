"""Scripts whose copies hand functions on that run later, to break the proof of what such functions keep."""

from __future__ import annotations

from random import Random

WORDS = ["let", "var", "const", "let"]
LOOPS = ["let x = 0; x < 2; x++", "var x = 0; x < 2; x++", "const x of [4, 5]", "var x of [4, 5]"]


def wild_handlers(seed: int) -> str:
    """A wild script: copies with a variable, a handler that keeps something, and what happens behind it."""
    r = Random(seed)
    outer = r.choice(["plain", "for", "while", "if"])
    state = r.getstate()
    first, second = _copy(r, 1), _copy(r, 2)
    if r.random() < 0.6:
        r.setstate(state)
        _copy(r, 1)
        second = [line.replace("a1", "a2").replace("b1", "b2") for line in first]
        if r.random() < 0.5:
            second = [line.replace("red", "green") for line in second]
    copies = [*first, "console.log('--');", *second]
    if r.random() < 0.3:
        copies += ["console.log('==');", *(line.replace("a1", "a3").replace("b1", "b3") for line in first)]
    if r.random() < 0.4:
        copies.append("console.log(typeof a1, base);")
    inner = "\n".join(copies)
    if outer == "for":
        inner = f"for ({r.choice(LOOPS)}) {{\n{inner}\n}}"
    elif outer == "while":
        inner = f"{r.choice(['let', 'var'])} x = 0;\nwhile (x < 2) {{\n{inner}\nx = x + 1;\n}}"
    else:
        inner = f"const x = 8;\n{inner}" if outer == "plain" else f"let x = 3;\nif (base < 50) {{\n{inner}\n}}"
    place = r.random()
    if place < 0.5:
        inner = f"function go(list, seed) {{\n{r.choice(['let', 'var'])} base = 1;\n{inner}\n}}\ngo([1, 2], 3);\ngo([5], 1);"
    elif place < 0.75:
        inner = f"let base = 2;\nfunction go(list, seed) {{\n{inner}\n}}\ngo([1, 2], 3);\ngo([5], 1);"
    else:
        inner = f"let base = 2, seed = 4, list = [1];\n{inner}"
    return f"const later = [];\n{inner}\nlater.forEach((f) => f());\nlater.forEach((f) => f());\n"


def _copy(r: Random, number: int) -> list[str]:
    name = f"{r.choice('ab')}{number}" if r.random() < 0.7 else "a"
    word = r.choice(WORDS)
    bodies = [
        f"console.log('got', {name});",
        f"console.log('got', {name} + base);",
        f"console.log({name});" if word == "const" else f"{name} = {name} + 1;\n  console.log({name});",
        f"base = base + {name};\n  console.log(base);",
        f"console.log(x, {name});",
    ]
    lines = [
        f"{word} {name} = {r.choice([str(r.randint(0, 9)), 'base', 'seed', 'x', 'list.length'])};",
        f"later.push(() => {{\n  {r.choice(bodies)}\n  console.log('{r.choice(['red', 'blue'])}');\n}});",
        f"console.log('made', {r.choice([name, 'base', 'x', str(number)])});",
    ]
    if r.random() < 0.3:
        lines.append(f"base = base + {r.randint(1, 3)};")
    if r.random() < 0.3 and word != "const":
        lines.append(f"{name} = {name} * 2;")
    return lines
