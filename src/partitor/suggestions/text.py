"""The text of a copy with its slots filled: what stands in a loop's or a function's body."""

from __future__ import annotations

from collections.abc import Mapping

from ..languages.python import writer
from ..program.program import ProgramFile
from ..repeats.slots import Column, Copy, Spot


def body_lines(
    copy: Copy,
    filled: Mapping[Column, str],
    renamed: Mapping[int, str],
    indent: str,
    skip: int = 0,
    index: int = 0,
) -> list[str]:
    """The lines of `copy` at `indent`, each column replaced by its expression.

    `renamed` gives new texts for single nodes; `skip` leaves out the first statements; `index` is
    the copy's number within the columns. Comments and blank lines inside the copy stay.
    """
    file = copy.file
    tree = file.tree
    statements = copy.statements[skip:]
    first_line, last_line = tree.start_line(statements[0]), copy.end_line
    changes = [*_replacements(file, filled, index), *((n, t) for n, t in renamed.items())]
    start = tree.line_starts[first_line - 1]
    end = tree.line_starts[last_line] - 1 if last_line < len(tree.line_starts) else len(tree.source)
    text = tree.source[start:end]
    for node, replacement in sorted(changes, key=lambda c: tree.start_byte[c[0]], reverse=True):
        a, b = tree.start_byte[node] - start, tree.end_byte[node] - start
        if 0 <= a and b <= len(text):
            text = text[:a] + replacement.encode() + text[b:]
    old = writer.leading_space(file, statements[0])
    inside_strings = _string_lines(file, first_line, last_line)
    lines = []
    for number, line in enumerate(text.decode().split("\n"), first_line):
        if number in inside_strings:
            lines.append(line)
        elif not line.strip():
            lines.append("")
        elif line.startswith(old):
            lines.append(indent + line[len(old) :])
        else:
            lines.append(indent + line.lstrip())
    return lines


def _replacements(
    file: ProgramFile, filled: Mapping[Column, str], index: int
) -> list[tuple[int, str]]:
    whole: list[tuple[int, str]] = []
    in_strings: dict[int, dict[int, str]] = {}
    for column, expression in filled.items():
        for spot in column.spots:
            node = spot.nodes[index]
            if spot.group >= 0:
                in_strings.setdefault(node, {})[spot.group] = expression
            else:
                whole.append((node, writer.value_text(file, node, expression)))
    for node, groups in in_strings.items():
        whole.append((node, writer.formatted_string(file.tree.source_of(node), groups)))
    return whole


def _string_lines(file: ProgramFile, first: int, last: int) -> set[int]:
    """Lines that begin inside a string and must not be moved."""
    tree = file.tree
    lines: set[int] = set()
    for node, text in enumerate(tree.text):
        if "\n" in text and tree.kind[node] in {"string", "string_content"}:
            start = tree.start_line(node)
            if first <= start <= last:
                lines.update(range(start + 1, tree.end_line(node) + 1))
    return lines


def spot_nodes(column: Column, index: int) -> list[int]:
    """The nodes of one copy at which a column stands."""
    return [spot.nodes[index] for spot in column.spots]


def only_spot(column: Column) -> Spot | None:
    """The column's spot where it has just one."""
    return column.spots[0] if len(column.spots) == 1 else None


def comments_within(file: ProgramFile, first: int, last: int) -> list[str]:
    """The comments on lines first to last, without their mark."""
    return [
        c.text.lstrip("#").strip() for c in file.tree.comments if first <= c.line <= last
    ]


def comment_above(file: ProgramFile, line: int) -> str:
    """The comment that has the line above `line` to itself, without its mark; "" if there is none."""
    for comment in file.tree.comments:
        if comment.line == line - 1 and comment.alone:
            return comment.text.lstrip("#").strip()
    return ""
