"""Program texts for the benchmarks, made to a size."""

from __future__ import annotations

import re
from collections.abc import Callable, Iterable, Iterator, Sequence
from pathlib import Path
from random import Random

from partitor.source import Source

DEMO = Path(__file__).resolve().parents[1] / "demo"
WORDS = "gate level tide pump ferry seed label mill creek harbour north south bird count chain door".split()


def parts_in(folder: Path) -> Iterator[tuple[str, str]]:
    """(what stands behind `=====`, the lines below) of every part of a folder's texts."""
    for path in sorted(folder.glob("*.txt")):
        for part in re.split(r"^===== ", path.read_text(), flags=re.MULTILINE)[1:]:
            head, _, text = part.partition("\n")
            yield head, text


def with_all(told: dict[str, list[int]]) -> Iterable[tuple[str, Sequence[int]]]:
    """The rows by language, and one with the sums of their columns."""
    return [*told.items(), ("all", [sum(column) for column in zip(*told.values(), strict=True)])]


def demo_programs() -> list[str]:
    """The demo class's Python programs that are whole."""
    texts = []
    for path in sorted((DEMO / "sluice-gates" / "submissions").glob("*.py")):
        try:
            texts.append(path.read_text())
        except UnicodeDecodeError:
            continue
    return texts


def hundred_lines() -> list[str]:
    """Programs of about a hundred lines: demo programs, joined until they are that long."""
    programs: list[str] = []
    lines: list[str] = []
    for text in demo_programs():
        lines += text.split("\n")
        if len(lines) >= 100:
            programs.append("\n".join(lines) + "\n")
            lines = []
    return programs


def alike(lines: int) -> str:
    """The same statement over and over."""
    return 'print("gate", 7)\n' * lines


def different(lines: int) -> str:
    """No two statements of one shape."""
    return "".join(
        f"value_{n} = compute_{n}({', '.join(['x'] * (n % 9))}) + other_{n}.part_{n}\n" for n in range(lines)
    )


def random_lines(lines: int, seed: int = 1) -> str:
    """Statements of a few dozen shapes in random order, with blocks."""
    random = Random(seed)
    out: list[str] = []
    while len(out) < lines:
        a, b, n = random.choice(WORDS), random.choice(WORDS), random.randint(0, 400)
        out += random.choice(
            [
                [f"{a} = {n}"],
                [f"{a} = {b} + {n}"],
                [f'print("{a}", {b})'],
                [f'print("{a} is", {b}, {n})'],
                [f"{a}_list.append({n})"],
                [f"if {a} > {n}:", f'    print("{b}")', f"    {a} = {a} - 1"],
                [f"for {a} in range({n}):", f"    {b} = {b} + {a}"],
                [f"{a} = max({b}, {n})"],
            ]
        )
    return "\n".join(out[:lines]) + "\n"


def data(lines: int, seed: int = 2) -> str:
    """Rows of words and numbers, each in a call of the same form, in three parts."""
    random = Random(seed)
    rows = [f'show("{random.choice(WORDS)}{random.randint(0, 9999)}", {random.randint(0, 99)})' for _ in range(lines)]
    parts = [rows[k : k + lines // 3] for k in range(0, lines, lines // 3)]
    return "".join("\n".join(["print('part')", f"total = {k}", *part]) + "\n" for k, part in enumerate(parts))


KINDS: dict[str, Callable[[int], str]] = {
    "alike": alike,
    "different": different,
    "random": random_lines,
    "data": data,
}


def source(text: str) -> Source:
    """The text as the core reads it."""
    return Source("main.py", text, "python")
