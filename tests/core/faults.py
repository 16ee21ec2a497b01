"""Seeded faults: a right rewriting made wrong in one small way, to be refused by the proof."""

from __future__ import annotations

import re
from collections.abc import Iterator
from random import Random

WORD = re.compile(r"(?<![\w.'\"])[A-Za-z_]\w*(?![\w'\"])")
NUMBER = re.compile(r"(?<![\w.])\d+(?![\w.])")
KEEP = frozenset("def for in if else elif while return print range zip enumerate len lambda and or not global".split())
KEEP |= frozenset("function let const var int void static switch case break default of true false include".split())


def with_faults(before: str, after: str, random: Random) -> Iterator[tuple[str, str]]:
    """(what was done, text) for every kind of fault that can be seeded into what `after` adds."""
    old = before.split("\n")
    lines = after.split("\n")
    new = [n for n, line in enumerate(lines) if line.strip() and line not in old]
    if not new:
        return
    for kind in (off_by_one, other_name, dropped, swapped, other_operator, swapped_arguments):
        n = random.choice(new)
        changed = kind(lines, n, random)
        if changed is not None and changed != lines:
            yield kind.__name__, "\n".join(changed)


def off_by_one(lines: list[str], n: int, random: Random) -> list[str] | None:
    """A number one larger or smaller."""
    found = list(NUMBER.finditer(lines[n]))
    if not found:
        return None
    m = random.choice(found)
    return _with(lines, n, m.start(), m.end(), str(abs(int(m.group()) + random.choice([1, -1]))))


def other_name(lines: list[str], n: int, random: Random) -> list[str] | None:
    """A name replaced by another one of the program."""
    found = [m for m in WORD.finditer(lines[n]) if m.group() not in KEEP]
    others = sorted({m.group() for line in lines for m in WORD.finditer(line)} - KEEP)
    if not found or len(others) < 2:
        return None
    m = random.choice(found)
    return _with(lines, n, m.start(), m.end(), random.choice([o for o in others if o != m.group()]))


def dropped(lines: list[str], n: int, random: Random) -> list[str] | None:
    """A line left out."""
    return None if lines[n].rstrip().endswith((":", "{", "}")) else lines[:n] + lines[n + 1 :]


def swapped(lines: list[str], n: int, random: Random) -> list[str] | None:
    """Two neighbouring lines in the other order."""
    if n + 1 >= len(lines) or _indent(lines[n]) != _indent(lines[n + 1]) or lines[n].rstrip().endswith((":", "{", "}")):
        return None
    return [*lines[:n], lines[n + 1], lines[n], *lines[n + 2 :]]


def other_operator(lines: list[str], n: int, random: Random) -> list[str] | None:
    """A plus for a minus, or the other way round."""
    found = list(re.finditer(r" [-+] ", lines[n]))
    if not found:
        return None
    m = random.choice(found)
    return _with(lines, n, m.start(), m.end(), " - " if m.group() == " + " else " + ")


def swapped_arguments(lines: list[str], n: int, random: Random) -> list[str] | None:
    """Two values in the other order."""
    m = re.search(r"\(([^(),]+), ([^(),]+)\)", lines[n])
    return _with(lines, n, m.start(), m.end(), f"({m.group(2)}, {m.group(1)})") if m else None


def _with(lines: list[str], n: int, start: int, stop: int, text: str) -> list[str]:
    return [*lines[:n], lines[n][:start] + text + lines[n][stop:], *lines[n + 1 :]]


def _indent(line: str) -> int:
    return len(line) - len(line.lstrip())
