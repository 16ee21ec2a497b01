"""Two functions that are alike but for a line or two: one function that is told whether to do what only one does.

The statements are aligned by their shapes (the longest matching blocks; Ratcliff and Metzener 1988, as in the
standard library's difflib), inside loops and branches too. What stands in one function only goes under `if`.
"""

from __future__ import annotations

from collections.abc import Sequence
from difflib import SequenceMatcher

import msgspec

from ..errors import CannotWrite
from ..languages.writers import writer_for
from ..languages.writing import Variable, Writer
from ..program.program import ProgramFile
from ..program.shapes import ShapeTable
from ..records import SlotColumn
from ..repeats.find import Twins
from ..repeats.judge import MOST_PARAMETERS
from ..repeats.near import NearTwins
from ..repeats.slots import Column, Copy, Derived, compare
from .candidate import Candidate
from .edits import Edit
from .merges import is_plain, removal, rewritten_calls, values_of
from .naming import Namer
from .proof import MergedFunctions
from .text import body_lines


class Aligned(msgspec.Struct, frozen=True, eq=False):
    """A stretch of two statement lists: the same in both (`same`), in one only, or one statement each that differ
    inside (`inside`)."""

    one: tuple[int, ...]
    other: tuple[int, ...]
    same: bool = False
    inside: tuple[Aligned, ...] = ()


def near_merge_candidate(near: NearTwins) -> Candidate:
    """One function for two that are nearly alike. Raises CannotWrite where it cannot be put into code."""
    (file, one), *rest = near.procedures
    if len(rest) != 1 or rest[0][0] is not file or file.language.declares or not file.language.functions_are_values:
        raise CannotWrite("the functions are alike only but for a line or two")
    other = rest[0][1]
    if not (is_plain(file, one) and is_plain(file, other)) or one.parameters != other.parameters:
        raise CannotWrite("the functions are methods, decorated, or take other values")
    shapes = ShapeTable([file])
    parts = _align(file, shapes, file.statements_of(one), file.statements_of(other))
    pairs = [pair for part in parts for pair in _pairs(part)]
    copies = [Copy(file, tuple(p[k] for p in pairs)) for k in (0, 1)]
    table = compare(copies) if pairs else None
    if table is None:
        raise CannotWrite("the functions are alike only but for a line or two")
    twins = Twins(((file, one), (file, other)), table)
    writer = writer_for(file)
    namer = Namer(file, writer.style)
    columns = [c for c in table.columns if not c.is_target]
    if len(columns) != len(table.columns):
        raise CannotWrite("the functions call their variables otherwise")
    bodies = [Copy(file, file.statements_of(p)) for p in (one, other)]
    inside = namer.inside(bodies, table.columns, one.parameters)
    values, filled = values_of(twins, columns, inside)
    only = [[s for part in parts for s in _only(part, k)] for k in (0, 1)]
    told = 0 if len(only[0]) >= len(only[1]) else 1
    flag = inside.flag(Copy(file, tuple(only[told])), copies[0])
    parameters = [*one.parameters, *values, flag]
    if len(parameters) > MOST_PARAMETERS + 1:
        raise CannotWrite(f"the function would need {len(parameters)} parameters")
    text = _Text(file, writer, filled, table.derived, flag, told)
    body = text.lines(parts, writer.style.indent)
    name = namer.merged([one.name, other.name], copies[0])
    definition = writer.function(name, [Variable(p) for p in parameters], body, (), one.node)
    given = [[*(c.values[k] for c in values.values()), "True" if k == told else "False"] for k in (0, 1)]
    calls = {p.name: given[k] for k, p in enumerate((one, other))}
    edits = [Edit(one.start_line, one.end_line, tuple(definition)), removal(file, other)]
    edits += rewritten_calls(file, [one, other], name, writer, calls)
    return Candidate(
        kind="merge",
        title=f"One function {name}({', '.join(parameters)}) in place of 2",
        file=file,
        edits=tuple(edits),
        claim=MergedFunctions(file.path, name, (one.name, other.name)),
        slots=tuple(SlotColumn(v, c.values) for v, c in values.items()),
        table=table,
        name=name,
    )


def _align(file: ProgramFile, shapes: ShapeTable, one: Sequence[int], other: Sequence[int]) -> list[Aligned]:
    """Two statement lists side by side."""
    symbols, others = ([shapes.shape(file.tree, s) for s in statements] for statements in (one, other))
    parts: list[Aligned] = []
    for tag, a, b, c, d in SequenceMatcher(None, symbols, others, autojunk=False).get_opcodes():
        left, right = tuple(one[a:b]), tuple(other[c:d])
        inner = _inside(file, shapes, left[0], right[0]) if len(left) == len(right) == 1 and tag != "equal" else ()
        parts.append(Aligned(left, right, tag == "equal", inner))
    return parts


def _inside(file: ProgramFile, shapes: ShapeTable, one: int, other: int) -> tuple[Aligned, ...]:
    """The blocks of two statements with the same head, aligned; () where they have none, or several."""
    tree = file.tree
    blocks = [[c for c in tree.children(s) if c in file.block_at] for s in (one, other)]
    if tree.kind[one] != tree.kind[other] or [len(b) for b in blocks] != [1, 1]:
        return ()
    heads = [[t for t in tree.text[s : b[0]] if t] for s, b in zip((one, other), blocks, strict=True)]
    ends = [tree.end[b[0]] == tree.end[s] for s, b in zip((one, other), blocks, strict=True)]
    if heads[0] != heads[1] or not all(ends):
        return ()
    statements = [file.block_at[b[0]].statements for b in blocks]
    if any(tree.start_line(inner[0]) == tree.start_line(s) for inner, s in zip(statements, (one, other), strict=True)):
        return ()
    return tuple(_align(file, shapes, *statements))


def _pairs(part: Aligned) -> list[tuple[int, int]]:
    """The statements that are the same in both."""
    if part.same:
        return list(zip(part.one, part.other, strict=True))
    return [pair for inner in part.inside for pair in _pairs(inner)]


def _only(part: Aligned, side: int) -> list[int]:
    """The statements that only one of the two has."""
    if part.same:
        return []
    if part.inside:
        return [s for inner in part.inside for s in _only(inner, side)]
    return list(part.other if side else part.one)


class _Text:
    """Writes the one function's body."""

    def __init__(
        self,
        file: ProgramFile,
        writer: Writer,
        filled: dict[Column, str],
        derived: Sequence[Derived],
        flag: str,
        told: int,
    ) -> None:
        self.file = file
        self.writer = writer
        self.filled = filled
        self.derived = derived
        self.flag = flag
        self.told = told

    def lines(self, parts: Sequence[Aligned], indent: str) -> list[str]:
        """The lines of aligned statements at an indent."""
        lines: list[str] = []
        deeper = indent + self.writer.style.indent
        for part in parts:
            if part.same:
                lines += self._own(part.one, indent, self.filled)
            elif part.inside:
                lines += self._comments(part.one[0], indent)
                lines += [indent + line.strip() for line in self._head(part.one[0])]
                lines += self.lines(part.inside, deeper)
            else:
                sides: list[tuple[int, ...]] = [part.one, part.other]
                yes, no = (self._own(sides[k], deeper, {}) for k in (self.told, 1 - self.told))
                lines += [f"{indent}if {self.flag}:" if yes else f"{indent}if not {self.flag}:", *(yes or no)]
                lines += [f"{indent}else:", *no] if yes and no else []
        return lines

    def _own(self, statements: Sequence[int], indent: str, filled: dict[Column, str]) -> list[str]:
        if not statements:
            return []
        tree = self.file.tree
        if any(tree.start_line(s) in self.file.shared_lines for s in statements):
            raise CannotWrite("several statements share a line there")
        copy = Copy(self.file, tuple(statements))
        return [
            *self._comments(statements[0], indent),
            *body_lines(self.writer, copy, filled, indent, derived=self.derived),
        ]

    def _head(self, statement: int) -> list[str]:
        """The lines of a statement above its block."""
        tree = self.file.tree
        block = next(c for c in tree.children(statement) if c in self.file.block_at)
        first = self.file.block_at[block].statements[0]
        lines = self.file.lines[tree.start_line(statement) - 1 : tree.start_line(first) - 1]
        while len(lines) > 1 and lines[-1].strip()[:1] in {"", "#"}:
            lines.pop()
        if len(lines) != 1:
            raise CannotWrite("a head runs over several lines")
        return lines

    def _comments(self, statement: int, indent: str) -> list[str]:
        """The comments right above a statement."""
        line = self.file.tree.start_line(statement)
        alone = {c.line: c.text for c in self.file.tree.comments if c.alone and c.line == c.last_line}
        found: list[str] = []
        while line - 1 in alone:
            line -= 1
            found.insert(0, indent + alone[line])
        return found
