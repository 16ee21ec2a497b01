"""Where a student begins a paragraph: a blank line or a comment above a statement."""

from __future__ import annotations

from enum import IntEnum

from ..program.program import ProgramFile


class Break(IntEnum):
    """What stands above a statement."""

    NONE = 0
    BLANK = 1
    COMMENT = 2


def break_above(file: ProgramFile, statement: int) -> Break:
    """What divides a statement from the one above it; the beginning of the file counts as a comment would."""
    line = file.tree.start_line(statement) - 2
    if line < 0:
        return Break.COMMENT
    text = file.lines[line].strip()
    if text.startswith(file.language.comment_marks) or text.endswith("*/"):
        return Break.COMMENT
    return Break.NONE if text else Break.BLANK
