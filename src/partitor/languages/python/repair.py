"""Closes a bracket that a student forgot, so that the rest of the program is still read.

A grammar that recovers from errors swallows what follows an open bracket, often whole functions.
Python's own layout says better where the statement must have ended: a line that begins like a
definition or a block cannot stand inside brackets. Only the text that is analysed is mended, line
by line, never what was handed in; the gap itself stays reported.
"""

from __future__ import annotations

import re

PAIRS = {"(": ")", "[": "]", "{": "}"}
BEGINS = re.compile(
    r"\s*(?:(?:async\s+)?def\s+\w+\s*\(.*|class\s+\w+.*|(?:if|while|for|with|elif|else|try)\b.*:\s*(?:#.*)?|"
    r"return\b.*|import\s+\w.*|[A-Za-z_]\w*\s*=[^=].*|(?:print|main)\s*\(.*)\Z"
)
HEAD = re.compile(r"\s*(?:async\s+)?(?:def|class|if|elif|while|for|with)\b.*:\s*(?:#.*)?\Z")
TOKEN = re.compile(
    r"#[^\n]*|[rbfuRBFU]{0,2}(?:'''(?s:.*?)'''|\"\"\"(?s:.*?)\"\"\"|'(?:\\.|[^'\\\n])*'|\"(?:\\.|[^\"\\\n])*\")"
    r"|[()\[\]{}]|\n"
)


def close_brackets(text: str) -> str:
    """The text with missing closing brackets added at line ends; the lines stay as many.

    >>> close_brackets('print("a"\\ndef f():\\n    pass\\n')
    'print("a")\\ndef f():\\n    pass\\n'
    """
    lines = text.split("\n")
    open_brackets: list[tuple[str, int]] = []
    line = 0
    for match in TOKEN.finditer(text):
        token = match.group()
        if token in PAIRS:
            open_brackets.append((token, line))
        elif token in ")]}":
            if open_brackets and PAIRS[open_brackets[-1][0]] == token:
                open_brackets.pop()
        elif token == "\n":
            line += 1
            if open_brackets and line < len(lines) and _must_begin(lines, open_brackets[0][1], line):
                closing = "".join(PAIRS[b] for b, _ in reversed(open_brackets))
                last = _last_code_line(lines, line)
                lines[last] = _closed(lines[last], closing)
                open_brackets.clear()
        else:
            line += token.count("\n")
    if open_brackets:
        last = _last_code_line(lines, len(lines))
        lines[last] = _closed(lines[last], "".join(PAIRS[b] for b, _ in reversed(open_brackets)))
    return "\n".join(lines)


def _must_begin(lines: list[str], opened: int, line: int) -> bool:
    """A statement begins here: it looks like one and is not indented further than the open one, or the
    open one is the head of a block and ends as such heads do."""
    if not BEGINS.match(lines[line]):
        return False
    if HEAD.match(lines[opened]) and line == opened + 1:
        return True
    return _indent(lines[line]) <= _indent(lines[opened])


def _indent(line: str) -> int:
    return len(line.expandtabs(8)) - len(line.expandtabs(8).lstrip())


def _last_code_line(lines: list[str], before: int) -> int:
    number = before - 1
    while number > 0 and (not lines[number].strip() or lines[number].lstrip().startswith("#")):
        number -= 1
    return number


def _closed(line: str, closing: str) -> str:
    code, mark, comment = line.partition("  #")
    colon = re.match(r"\s*(?:def|class|if|elif|while|for|with)\b", code) and code.rstrip().endswith(":")
    if colon:
        return code.rstrip()[:-1] + closing + ":" + mark + comment
    return code.rstrip() + closing + mark + comment
