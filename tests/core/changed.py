"""Programs that people wrote, changed at random: other words, numbers and operators, lines doubled, gone, swapped or put
in. What is written by hand has forms that no generator thinks of; changed, it has the traps in them, too."""

from __future__ import annotations

import re
import shutil
import subprocess
import sys
from collections.abc import Sequence
from pathlib import Path
from random import Random

from core.sweeps import Group, proved_in

WORD = re.compile(r"\d+(?:\.\d+)?|[A-Za-z_]\w*|\"[^\"\n]*\"|[-+*/<>=!]+")
NUMBERS = ["0.5", "0", "1", "7", "-1", "2.50"]
TEXTS = ['""', '"a"', '"0.5"', '"{x}"', '"1"']
OPERATORS = ["+", "-", "*", "/", "==", "<", ">", "=", "+=", "!=", "%"]
PYTHON_LINES = """
{0} = 1|print({0})|del {0}|global {0}|{0} += 1|if {0}: pass|def {0}(): return 3|import math|raise ValueError(1)
{0} = lambda: {0}|{0} = [{0}]|{0}, q = 1, 2|print(q := 3)|return|break|continue
"""
SCRIPT_LINES = """
{0} = 1;|console.log({0});|delete {0};|let {0};|{0} += 1;|var {0} = 2;|if ({0}) {{}}|function {0}() {{ return 3; }}
throw new Error(1);|{0} = () => {0};|{0} = [{0}];|const {0} = 3;|return;|break;|continue;
"""
GIVEN = "3\n5\nmill\n12\n0\ny\n7\n2\nquit\n4\n" * 6
"""What somebody types."""
SECONDS = 5
UNSTEADY = re.compile(r"random|time|date|Date|id\(|hash\(|document|window")
"""Programs that do something else each time, or need a page around them."""


def changed(random: Random, text: str, language: str) -> str:
    """The text with a few changes."""
    words = list(WORD.finditer(text))
    names = [word.group() for word in words if word.group()[0].isalpha()]
    for word in sorted(random.sample(words, min(len(words), random.randint(1, 5))), key=lambda w: -w.start()):
        text = text[: word.start()] + _another(random, word.group(), names) + text[word.end() :]
    lines = text.split("\n")
    told = [
        line
        for row in (PYTHON_LINES if language == "python" else SCRIPT_LINES).strip().split("\n")
        for line in row.split("|")
    ]
    for _ in range(random.randint(0, 2)):
        place, way = random.randrange(len(lines)), random.random()
        if way < 0.3:
            lines.insert(place, lines[place])
        elif way < 0.5 and len(lines) > 1:
            del lines[place]
        elif way < 0.7 and place + 1 < len(lines):
            lines[place], lines[place + 1] = lines[place + 1], lines[place]
        elif names:
            indent = re.match(r"\s*", lines[place])
            lines.insert(place, (indent.group() if indent else "") + random.choice(told).format(random.choice(names)))
    return "\n".join(lines)


def _another(random: Random, word: str, names: Sequence[str]) -> str:
    if word[0].isdigit():
        return random.choice([*NUMBERS, word])
    if word[0] == '"':
        return random.choice(TEXTS)
    return random.choice(names) if word[0].isalpha() or word[0] == "_" else random.choice(OPERATORS)


def is_python(text: str) -> bool:
    """True for a text that Python takes."""
    try:
        compile(text, "changed", "exec")
    except (SyntaxError, ValueError):
        return False
    return True


def shown(text: str, folder: Path) -> str | None:
    """What a Python program prints, and the sort of error with which it ends; None where that takes too long, or is no
    matter of what the program says. It runs in a folder of its own, emptied before."""
    shutil.rmtree(folder, ignore_errors=True)
    folder.mkdir()
    command = [sys.executable, "-W", "ignore", "-I", "-c", text]
    try:
        done = subprocess.run(
            command, input=GIVEN, capture_output=True, text=True, timeout=SECONDS, cwd=folder, check=False
        )
    except subprocess.TimeoutExpired:
        return None
    ending = done.stderr.strip().rpartition("\n")[2].split(":")[0]
    if ending in {"RecursionError", "MemoryError"}:
        return None
    return re.sub(r"0x[0-9a-f]{6,}", "somewhere", done.stdout) + ending


def without_words(outputs: Sequence[str]) -> list[str]:
    """What scripts show, of an error only its sort: the words name what stands there."""
    return [re.sub(r"ERROR (\w+).*", r"ERROR \1", found, flags=re.DOTALL) for found in outputs]


def changed_programs(random: Random, texts: Sequence[str], language: str, count: int) -> list[Group]:
    """So many changed programs of which something became, by a proved suggestion or the worked answer."""
    found: list[Group] = []
    while len(found) < count:
        text = random.choice(texts)
        if random.random() < 0.25:
            text += "\n" + random.choice(texts)
        text = changed(random, text, language)
        if UNSTEADY.search(text) or (language == "python" and not is_python(text)):
            continue
        after = proved_in(text, language)[1]
        if after:
            found.append((text, after))
    return found
