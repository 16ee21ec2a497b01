"""Where a new function has its place in a file: where this student would put it."""

from __future__ import annotations

import re
from collections.abc import Sequence

from ..languages.writing import Style
from ..program.program import ProgramFile
from ..repeats.slots import Copy
from .edits import Edit, with_comments_above


def definition_edit(file: ProgramFile, copies: Sequence[Copy], lines: Sequence[str], style: Style, beside: int) -> Edit:
    """Insert the definition where this student would: after earlier functions, else before use; a method
    after the one it stands beside."""
    tree = file.tree
    if beside:
        line = tree.end_line(beside)
        above = style.blank_lines if file.language.methods else _blank_lines_above(file, tree.start_line(beside))
        return Edit(line + 1, line, (*[""] * max(1, above), *lines))
    top = file.blocks[0].statements
    user = next(s for s in top if s <= copies[0].statements[0] < tree.end[s])
    index = top.index(user)
    functions = [s for s in top[:index] if file.is_definition(s)]
    gap = [""] * style.blank_lines
    if file.is_definition(user) or not functions:
        target = user if file.is_definition(user) else _first_work(file, top[: index + 1])
        line = above_comments(file, tree.start_line(target))
        begins = line - 1 in {tree.source.count(b"\n", 0, start) + 1 for start, _ in file.code_spans if start}
        before = gap if line > 1 and not begins and any(x.strip() for x in file.lines[: line - 1]) else []
        missing = max(0, len(before) - _blank_lines_above(file, line))
        return Edit(line, line - 1, (*[""] * missing, *lines, *gap))
    line = tree.end_line(functions[-1])
    missing = max(1, style.blank_lines)
    return Edit(line + 1, line, (*[""] * missing, *lines))


def last_prototype(file: ProgramFile) -> int:
    """Where a student tells functions before defining them, behind the main routine: the last such line; else 0."""
    tree = file.tree
    main = next((p for p in file.procedures[1:] if p.name == "main"), None)
    told = [s for s in file.blocks[0].statements if tree.kind[s] == "prototype"]
    later = [p for p in file.procedures[1:] if main is not None and p.node > main.node]
    both = [s for s in told if any(re.search(rf"\b{re.escape(p.name)}\s*\(", tree.text[s]) for p in later if p.name)]
    return both[-1] if main is not None and both and both[-1] < main.node else 0


def at_the_end(file: ProgramFile, lines: Sequence[str], style: Style) -> Edit:
    """The definition behind the file's last statement."""
    line = file.tree.end_line(file.blocks[0].statements[-1])
    return Edit(line + 1, line, (*[""] * max(1, style.blank_lines), *lines))


def _first_work(file: ProgramFile, statements: Sequence[int]) -> int:
    """The first top-level statement that is no import, documentation or constant."""
    for s in statements:
        if file.is_import(s) or file.is_bare_string(s):
            continue
        left = file.tree.child(s, "left") if file.tree.kind[s] == "assignment" else None
        if left is not None and file.tree.text[left].isupper():
            continue
        if file.tree.kind[s] == "declaration" and s != statements[-1]:
            continue
        return s
    return statements[-1]


def above_comments(file: ProgramFile, line: int) -> int:
    """The first line of the comments that stand directly above `line`; a file's heading stays on top."""
    start = with_comments_above(file, line)
    return line if start == 1 else start


def _blank_lines_above(file: ProgramFile, line: int) -> int:
    count = 0
    while line - 2 - count >= 0 and not file.lines[line - 2 - count].strip():
        count += 1
    return count
