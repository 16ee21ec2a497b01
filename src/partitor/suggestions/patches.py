"""Unified diffs that `patch -p1` and `git apply` take, with the line ends the file came with."""

from __future__ import annotations

import difflib
import re
from collections.abc import Sequence
from typing import Literal

from ..source import Source

CONTEXT = 3
MARK = "\ufeff"
"""What some editors begin a file with; it is no part of the program and stays where it is."""
LINE = re.compile(r"[^\r\n]*(?:\r\n|\n|\r|\Z)")
WIDE = ("utf-16", "utf-32", "utf_16", "utf_32")


def can_be_patched(source: Source) -> str:
    """ "" where a patch can be made; else why not, as a clause (two-byte encodings, bare CR ends)."""
    if source.language == "blocks":
        return "blocks are put together by hand, not patched"
    if source.encoding.lower().startswith(WIDE):
        return f"the file is stored as {source.encoding.upper()}, which patches cannot change; save it as UTF-8"
    if re.search(r"\r(?!\n)", source.raw):
        return "the file's lines end in a bare carriage return, which patches cannot change"
    return ""


def raw_lines(raw: str) -> list[str]:
    """The lines of a text with their ends.

    >>> raw_lines("a\\r\\nb\\nc")
    ['a\\r\\n', 'b\\n', 'c']
    """
    return [line for line in LINE.findall(raw) if line]


Operation = Literal["replace", "delete", "insert", "equal"]


class _Lines(difflib.SequenceMatcher[str]):
    """Compares the lines of two texts; those that they begin and end with alike are not looked at any further."""

    def __init__(self, old: Sequence[str], new: Sequence[str]) -> None:
        most = min(len(old), len(new))
        self.front = next((k for k in range(most) if old[k] != new[k]), most)
        self.back = next((k for k in range(most - self.front) if old[-1 - k] != new[-1 - k]), most - self.front)
        self.sizes = len(old), len(new)
        super().__init__(
            a=old[self.front : len(old) - self.back], b=new[self.front : len(new) - self.back], autojunk=False
        )

    def get_opcodes(self) -> list[tuple[Operation, int, int, int, int]]:
        front, back = self.front, self.back
        found: list[tuple[Operation, int, int, int, int]] = [("equal", 0, front, 0, front)] if front else []
        for tag, a1, a2, b1, b2 in super().get_opcodes():
            found.append((tag, a1 + front, a2 + front, b1 + front, b2 + front))
        olds, news = self.sizes
        return found + ([("equal", olds - back, olds, news - back, news)] if back else [])


def with_line_ends(source: Source, text: str) -> str:
    """`text` (LF) as the file would hold it: unchanged lines keep their ends, new ones the usual."""
    if source.raw.startswith(MARK) and text and not text.startswith(MARK):
        text = MARK + text
    if "\r" not in source.raw and source.newline == "\n":
        return text
    old, new = raw_lines(source.raw), text.split("\n")
    ends_open = not text.endswith("\n")
    if not ends_open:
        new.pop()
    folded = [line.rstrip("\r\n") for line in old]
    result: list[str] = []
    for tag, a1, a2, b1, b2 in _Lines(folded, new).get_opcodes():
        if tag == "equal":
            result += [line if line.endswith(("\r", "\n")) else line + source.newline for line in old[a1:a2]]
        else:
            result += [line + source.newline for line in new[b1:b2]]
    if ends_open and result:
        result[-1] = result[-1].rstrip("\r\n")
    elif result and not result[-1].endswith("\n"):
        result[-1] += source.newline
    return "".join(result)


def unified_diff(source: Source | None, text: str, path: str = "") -> str:
    """The patch from the file as handed in to `text` (LF); "" where nothing changes. Where there was no such file
    (None), one that makes it at `path`."""
    path = source.path if source else path
    old, new = raw_lines(source.raw) if source else [], raw_lines(with_line_ends(source, text) if source else text)
    tail = "\t" if " " in path else ""
    out = [f"--- a/{path}{tail}\n" if source else "--- /dev/null\n", f"+++ b/{path}{tail}\n"]
    for group in _Lines(old, new).get_grouped_opcodes(CONTEXT):
        first, last = group[0], group[-1]
        out.append(f"@@ -{_range(first[1], last[2])} +{_range(first[3], last[4])} @@\n")
        for tag, a1, a2, b1, b2 in group:
            if tag == "equal":
                out += _marked(" ", old[a1:a2])
                continue
            out += _marked("-", old[a1:a2])
            out += _marked("+", new[b1:b2])
    return "".join(out) if len(out) > 2 else ""


def _range(start: int, stop: int) -> str:
    length = stop - start
    beginning = start + 1 if length else start
    return f"{beginning}" if length == 1 else f"{beginning},{length}"


def _marked(mark: str, lines: Sequence[str]) -> list[str]:
    out = []
    for line in lines:
        if line.endswith("\n"):
            out.append(mark + line)
        else:
            out.append(f"{mark}{line}\n\\ No newline at end of file\n")
    return out
