"""A macro's text as logical lines, and each line's grammar tree."""

from __future__ import annotations

import re
from collections.abc import Iterator
from functools import cache
from pathlib import Path

import lark
import msgspec

Node = lark.Tree[lark.Token]
PIECE = re.compile(r'"(?:[^"\n]|"")*"?|\'|(?:^|(?<=:))[ \t]*Rem\b|[^"\'\nR:]+|.', re.IGNORECASE)
CONTINUED = re.compile(r"(?:^|[ \t])_[ \t]*$")
MOST_REMEMBERED = 20_000


class Line(msgspec.Struct, frozen=True):
    """One logical line: where it begins (characters), its text without the comment, the comment's extent."""

    start: int
    text: str
    comment: tuple[int, int] | None = None


def logical_lines(text: str) -> Iterator[Line]:
    """The lines of a text, those that go on after ` _` put together."""
    position = 0
    begin: int | None = None
    for physical in text.split("\n"):
        if begin is None:
            begin = position
        mark = _comment_mark(physical)
        end = position + (len(physical) if mark is None else mark)
        if mark is None and CONTINUED.search(physical) and position + len(physical) < len(text):
            position += len(physical) + 1
            continue
        comment = None if mark is None else (end, position + len(physical))
        yield Line(begin, text[begin:end], comment)
        position += len(physical) + 1
        begin = None


def _comment_mark(line: str) -> int | None:
    """Where a comment begins in a line."""
    for piece in PIECE.finditer(line):
        found = piece.group()
        if found == "'":
            return piece.start()
        if found[:1] != '"' and found.strip().lower() == "rem" and not line[piece.end() :][:1].isalnum():
            return piece.end() - 3
    return None


@cache
def _parser() -> lark.Lark:
    grammar = Path(__file__).with_name("grammar.lark").read_text()
    return lark.Lark(grammar, parser="lalr", propagate_positions=True, maybe_placeholders=False)


class Reader:
    """Reads logical lines; equal lines of a file are read once."""

    def __init__(self) -> None:
        self.known: dict[str, Node | None] = {}

    def read(self, text: str) -> Node | None:
        """The tree of one logical line, positions from its beginning; None where it cannot be read."""
        if text not in self.known:
            if len(self.known) > MOST_REMEMBERED:
                self.known.clear()
            try:
                self.known[text] = _parser().parse(text)
            except lark.exceptions.LarkError:
                self.known[text] = None
        return self.known[text]
