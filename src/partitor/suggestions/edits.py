"""Line edits of a file and the text they give. A suggestion is a claim and a few edits."""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from difflib import SequenceMatcher

import msgspec

from ..errors import CannotWrite
from ..languages.writing import style_of
from ..program.program import ProgramFile
from ..repeats.slots import Copy


class Edit(msgspec.Struct, frozen=True):
    """Lines `start` to `end` (1-based, both included) become `lines`; `end = start - 1` inserts."""

    start: int
    end: int
    lines: tuple[str, ...]


__all__ = [
    "CannotWrite",
    "Edit",
    "apply_edits",
    "closers_behind",
    "edits_between",
    "require_whole_lines",
    "rewritten",
    "with_comments_above",
]


def apply_edits(file: ProgramFile, edits: Iterable[Edit]) -> str:
    """The file's text with the edits made. Raises CannotWrite where edits overlap."""
    lines = list(file.lines)
    upper = len(lines) + 2
    for edit in sorted(edits, key=lambda e: (e.start, e.end), reverse=True):
        if edit.end >= upper:
            raise CannotWrite("two changes touch the same lines")
        lines[edit.start - 1 : edit.end] = edit.lines
        upper = edit.start
    return "\n".join(lines)


def changed(text: bytes, start: int, changes: Iterable[tuple[int, int, str]]) -> str:
    """A text of a file, from byte `start` of it on, with what stands between some of the file's bytes replaced."""
    for first, stop, new in sorted(changes, reverse=True):
        text = text[: first - start] + new.encode() + text[stop - start :]
    return text.decode()


def edits_between(file: ProgramFile, text: str) -> tuple[Edit, ...]:
    """The edits that make a file's text another one, by whole lines."""
    lines = text.split("\n")
    blocks = SequenceMatcher(None, file.lines, lines, autojunk=False).get_opcodes()
    return tuple(Edit(a + 1, b, tuple(lines[c:d])) for tag, a, b, c, d in blocks if tag != "equal")


def with_comments_above(file: ProgramFile, line: int) -> int:
    """The first of the comment lines right above a line, or the line itself."""
    alone = {n for c in file.tree.comments if c.alone for n in range(c.line, c.last_line + 1)}
    while line - 1 in alone:
        line -= 1
    return line


def rewritten(file: ProgramFile, text: str) -> ProgramFile:
    """The file read afresh with another text."""
    source = msgspec.structs.replace(file.source, text=text, original=None)
    after = ProgramFile(source, file.language, file)
    after.beside = file.beside
    # What was written for the student says nothing of how the student writes.
    after.derived["style"] = style_of(file)
    return after


def require_whole_lines(copies: Sequence[Copy]) -> None:
    """A copy that shares a line with other statements cannot be cut out by lines."""
    for copy in copies:
        before = copy.file.lines[copy.start_line - 1][: _column(copy)]
        if before.strip():
            raise CannotWrite("the copy begins in the middle of a line")
        behind = _behind(copy)
        if copy.file.language.closers_trail:
            behind = behind.lstrip(")]} ")
        if behind and not behind.startswith(copy.file.language.comment_marks):
            raise CannotWrite("something else stands behind the copy on its last line")


def closers_behind(copy: Copy) -> str:
    """The brackets behind a copy that close what stands around it."""
    behind = _behind(copy) if copy.file.language.closers_trail else ""
    return behind[: len(behind) - len(behind.lstrip(")]} "))].rstrip()


def _behind(copy: Copy) -> str:
    """What stands on a copy's last line after its last statement."""
    tree = copy.file.tree
    line = copy.file.lines[copy.end_line - 1].encode()
    stop = tree.end_byte[copy.last] - tree.line_starts[copy.end_line - 1]
    return line[stop:].decode(errors="replace").strip().lstrip("" if copy.file.language.closers_trail else ";").strip()


def _column(copy: Copy) -> int:
    tree = copy.file.tree
    start = tree.start_byte[copy.first]
    line_start = tree.line_starts[copy.start_line - 1]
    return len(tree.source[line_start:start].decode())
