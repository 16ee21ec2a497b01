"""Two functions that are alike but for a line or two: one function that is told whether to do what only one does.

The statements are aligned by their shapes (the longest matching blocks; Ratcliff and Metzener 1988, as in the
standard library's difflib), inside loops and branches too. What stands in one function only goes under `if`.
"""

from __future__ import annotations

import itertools
from collections.abc import Sequence
from difflib import SequenceMatcher

import msgspec

from ..errors import CannotWrite
from ..languages.writers import writer_for
from ..languages.writing import Variable, Writer, leading_space
from ..outlines import LITTLE_MORE
from ..program.names import Role
from ..program.program import Procedure, ProgramFile
from ..program.shapes import ShapeTable
from ..records import SlotColumn
from ..repeats.blocks import Twins
from ..repeats.columns import Column, Derived, Spot
from ..repeats.judge import MOST_PARAMETERS
from ..repeats.near import Likeness, NearTwins
from ..repeats.slots import Copy, compare
from .candidate import Candidate
from .edits import Edit, changed
from .merges import class_of_methods, headed, is_handed_on, is_plain, local_in_all, removal, rewritten_calls, values_of
from .naming import Namer
from .proof import MergedFunctions
from .text import body_lines
from .typed import column_type
from .words import words_of


class Aligned(msgspec.Struct, frozen=True, eq=False):
    """A stretch of two statement lists: the same in both (`same`), in one only, or one statement each that differ
    inside (`inside`: its blocks, from the first to the last)."""

    one: tuple[int, ...]
    other: tuple[int, ...]
    same: bool = False
    inside: tuple[tuple[Aligned, ...], ...] = ()


def near_merge_candidate(near: NearTwins) -> Candidate:
    """One function for two that are nearly alike. Raises CannotWrite where it cannot be put into code."""
    (file, one), *rest = near.procedures
    if near.likeness is Likeness.SAME_LINES:
        raise CannotWrite("only some of their lines are the same")
    if len(rest) != 1 or rest[0][0] is not file:
        raise CannotWrite("the functions are alike only but for a line or two")
    other = rest[0][1]
    home = class_of_methods(file, [one, other])
    plain = home or (is_plain(file, one) and is_plain(file, other))
    if not plain or one.parameters != other.parameters:
        raise CannotWrite("the functions are methods, decorated, or take other values")
    if is_handed_on(file, one) or is_handed_on(file, other):
        raise CannotWrite("the functions are called by what stands around the program")
    shapes = ShapeTable([file])
    parts = _align(file, shapes, file.statements_of(one), file.statements_of(other))
    parts, twins, called = _consistent(file, parts, (one, other))
    table = twins.table
    copies = table.copies
    writer = writer_for(file)
    namer = Namer(file, writer.style)
    columns = [c for c in table.columns if not c.is_name or c.values[1] not in called]
    if any(c.is_target for c in columns):
        raise CannotWrite("the functions call their variables otherwise")
    bodies = [Copy(file, file.statements_of(p)) for p in (one, other)]
    inside = namer.inside(bodies, table.columns, one.parameters)
    values, filled = values_of(twins, columns, inside)
    only = [[s for part in parts for s in _only(part, k)] for k in (0, 1)]
    shared = [pair[0] for part in parts for pair in _pairs(part)]
    apart, together = sum(_size(file, s) for side in only for s in side), sum(_size(file, s) for s in shared)
    unlike = all(only) and len(only[0]) != len(only[1])
    if apart * (2 if all(only) else 1) > together or unlike:
        raise CannotWrite(LITTLE_MORE)
    if home and all(only):
        raise CannotWrite("methods that each do something of their own are easier to call apart")
    told = 0 if len(only[0]) >= len(only[1]) else 1
    owners = (one.name, other.name) if told == 0 else (other.name, one.name)
    flag = inside.flag(Copy(file, tuple(only[told])), copies[0], *owners)
    parameters = [*one.parameters, *values, flag]
    if len(parameters) - bool(home) > MOST_PARAMETERS:
        raise CannotWrite(f"the function would need {len(parameters)} parameters")
    text = _Text(file, writer, filled, table.derived, flag, told, called)
    body = text.lines(parts, leading_space(file, bodies[0].first))
    name = namer.merged([one.name, other.name], copies[0], either=words_of(flag)[0] == "as")
    added = [Variable(n, column_type(c, copies)) for n, c in values.items()]
    head, end = _around(file, one, name, [*added, Variable(flag, writer.flag_type())], writer)
    given = [[*(c.values[k] for c in values.values()), writer.truth(k == told)] for k in (0, 1)]
    names = (*values, flag)
    calls = {
        p.name: [writer.argument(n, v) for n, v in zip(names, given[k], strict=True)]
        for k, p in enumerate((one, other))
    }
    edits = [Edit(one.start_line, one.end_line, (*head, *body, *end)), removal(file, other)]
    edits += rewritten_calls(file, [one, other], name, writer, calls, bool(home))
    return Candidate(
        kind="merge",
        title=f"One {'method' if home else 'function'} {name}({', '.join(parameters[bool(home) :])}) in place of 2",
        file=file,
        edits=tuple(edits),
        claim=MergedFunctions(file.path, name, (one.name, other.name), home),
        slots=tuple(SlotColumn(v, c.values) for v, c in values.items()),
        table=table,
        name=name,
    )


def _size(file: ProgramFile, statement: int) -> int:
    return file.count_within(statement, file.tree.end[statement])


def _consistent(
    file: ProgramFile, parts: list[Aligned], procedures: tuple[Procedure, Procedure]
) -> tuple[list[Aligned], Twins, dict[str, str]]:
    """The parts, what differs in their like statements, and what the second function's own variables are called in
    the first; statements that would call one otherwise than the rest does are unlike."""
    while True:
        pairs = [pair for part in parts for pair in _pairs(part)]
        table = compare([Copy(file, tuple(p[k] for p in pairs)) for k in (0, 1)]) if pairs else None
        if table is None:
            raise CannotWrite("the functions are alike only but for a line or two")
        twins = Twins(tuple((file, p) for p in procedures), table)
        called, odd = _called_otherwise(file, twins)
        if not odd:
            return _joined(parts), twins, called
        parts = [piece for part in parts for piece in _with_unlike(file, part, odd)]


def _joined(parts: Sequence[Aligned]) -> list[Aligned]:
    """The parts, those that are unlike and stand one behind the other as one."""
    found: list[Aligned] = []
    for part in parts:
        inside = tuple(tuple(_joined(block)) for block in part.inside)
        if found and not (part.same or inside or found[-1].same or found[-1].inside):
            found[-1] = Aligned((*found[-1].one, *part.one), (*found[-1].other, *part.other))
        else:
            found.append(Aligned(part.one, part.other, part.same, inside))
    return found


def _called_otherwise(file: ProgramFile, twins: Twins) -> tuple[dict[str, str], set[int]]:
    """The second function's variable → the first's, where they differ; and the nodes of the first function that
    would have it otherwise."""
    names, tree = file.names, file.tree
    copies, columns = twins.table.copies, twins.table.columns
    renamed = [c for c in columns if c.is_name and local_in_all(twins, c)]
    inside = {n for c in columns for spot in c.spots for n in range(spot.nodes[1], tree.end[spot.nodes[1]])}
    same = {tree.text[i] for s in copies[1].statements for i in names.within(s, tree.end[s]) if i not in inside}
    called: dict[str, str] = {}
    odd: set[int] = set()
    for column in renamed:
        first, second = column.values
        taken = second in same or first in same or first in called.values()
        if called.get(second, first) != first or (taken and second not in called):
            odd |= {spot.nodes[0] for spot in column.spots}
        else:
            called[second] = first
    return called, odd


def _with_unlike(file: ProgramFile, part: Aligned, odd: set[int]) -> list[Aligned]:
    """A part, its like statements divided where one holds a node of `odd`."""
    if part.inside:
        inner = tuple(tuple(piece for one in block for piece in _with_unlike(file, one, odd)) for block in part.inside)
        return [Aligned(part.one, part.other, part.same, inner)]
    if not part.same:
        return [part]
    pieces: list[Aligned] = []
    for a, b in zip(part.one, part.other, strict=True):
        same = not any(a <= node < file.tree.end[a] for node in odd)
        if same and pieces and pieces[-1].same:
            pieces[-1] = Aligned((*pieces[-1].one, a), (*pieces[-1].other, b), True)
        else:
            pieces.append(Aligned((a,), (b,), same))
    return pieces


def _around(
    file: ProgramFile, procedure: Procedure, name: str, added: Sequence[Variable], writer: Writer
) -> tuple[list[str], list[str]]:
    """The lines of a function before its first statement, with another name and more parameters, and those behind
    its last."""
    tree = file.tree
    first, *_, last = statements if len(statements := file.statements_of(procedure)) > 1 else statements * 2
    start, stop = tree.start_line(first), tree.end_line(last)
    if start == procedure.start_line or (stop == procedure.end_line and tree.end[last] != tree.end[procedure.node]):
        raise CannotWrite("several statements share a line there")
    lines = without_comments(file, file.lines[procedure.start_line - 1 : start - 1])
    begin = tree.line_starts[procedure.start_line - 1]
    changes = headed(file, procedure, name, [writer.typed(v) for v in added], writer)
    return changed("\n".join(lines).encode(), begin, changes).split("\n"), list(file.lines[stop : procedure.end_line])


def without_comments(file: ProgramFile, lines: Sequence[str]) -> list[str]:
    """Lines of a head without the comments and blank lines at their end, which belong to what comes after."""
    marks = file.language.comment_marks
    kept = list(lines)
    while len(kept) > 1 and (not kept[-1].strip() or kept[-1].strip().startswith(marks)):
        kept.pop()
    return kept


def _align(file: ProgramFile, shapes: ShapeTable, one: Sequence[int], other: Sequence[int]) -> list[Aligned]:
    """Two statement lists side by side."""
    symbols, others = ([shapes.shape(file.tree, s) for s in statements] for statements in (one, other))
    parts: list[Aligned] = []
    for tag, a, b, c, d in SequenceMatcher(None, symbols, others, autojunk=False).get_opcodes():
        left, right = tuple(one[a:b]), tuple(other[c:d])
        inner = _inside(file, shapes, left[0], right[0]) if len(left) == len(right) == 1 and tag != "equal" else ()
        parts.append(Aligned(left, right, tag == "equal", inner))
    return parts


def _inside(file: ProgramFile, shapes: ShapeTable, one: int, other: int) -> tuple[tuple[Aligned, ...], ...]:
    """The blocks of two statements with the same heads, aligned; () where they have none, or differ in them."""
    tree = file.tree
    blocks = [file.blocks_of(s) for s in (one, other)]
    if tree.kind[one] != tree.kind[other] or not blocks[0] or len(blocks[0]) != len(blocks[1]):
        return ()
    if _without(file, one, blocks[0]) != _without(file, other, blocks[1]):
        return ()
    statements = [[file.block_at[b].statements for b in found] for found in blocks]
    if not all(map(all, statements)):
        return ()
    for s, found in zip((one, other), statements, strict=True):
        lines = [tree.start_line(s), *(tree.start_line(inner[0]) for inner in found)]
        if len(set(lines)) < len(lines):
            return ()
    return tuple(tuple(_align(file, shapes, *pair)) for pair in zip(*statements, strict=True))


def _without(file: ProgramFile, statement: int, blocks: Sequence[int]) -> list[tuple[str, str]]:
    """The tokens of a statement that stand in none of some blocks."""
    tree = file.tree
    edges = [statement, *(edge for block in blocks for edge in (block, tree.end[block])), tree.end[statement]]
    outside = [n for start, stop in zip(edges[::2], edges[1::2], strict=True) for n in range(start, stop)]
    return [(tree.kind[n], tree.text[n]) for n in outside]


def _pairs(part: Aligned) -> list[tuple[int, int]]:
    """The statements that are the same in both."""
    if part.same:
        return list(zip(part.one, part.other, strict=True))
    return [pair for block in part.inside for inner in block for pair in _pairs(inner)]


def _only(part: Aligned, side: int) -> list[int]:
    """The statements that only one of the two has."""
    if part.same:
        return []
    if part.inside:
        return [s for block in part.inside for inner in block for s in _only(inner, side)]
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
        called: dict[str, str],
    ) -> None:
        self.file = file
        self.writer = writer
        self.filled = filled
        self.derived = derived
        self.flag = flag
        self.told = told
        self.called = called
        """The second function's variable → the first's."""

    def lines(self, parts: Sequence[Aligned], indent: str) -> list[str]:
        """The lines of aligned statements at an indent."""
        lines: list[str] = []
        deeper = indent + self.writer.style.indent
        for part in parts:
            if part.same:
                lines += self._own(part.one, indent, self.filled)
            elif part.inside:
                lines += self._comments(part.one[0], indent)
                blocks = self.file.blocks_of(part.one[0])
                lines += [indent + line.strip() for line in self._head(part.one[0], blocks[0])]
                lines += self.lines(part.inside[0], deeper)
                for (before, block), inner in zip(itertools.pairwise(blocks), part.inside[1:], strict=True):
                    lines += self._between(before, block, part.one[0], indent)
                    lines += self.lines(inner, deeper)
                lines += self._end(part.one[0], blocks[-1], indent, deeper)
            else:
                sides: list[tuple[int, ...]] = [part.one, part.other]
                others = self._renamed(part.other)
                yes, no = (self._own(sides[k], deeper, others if k else {}) for k in (self.told, 1 - self.told))
                lines += self.writer.choice(self.flag, yes, no, indent)
        return lines

    def _renamed(self, statements: Sequence[int]) -> dict[Column, str]:
        """What the second function's variables in some of its statements are called in the first."""
        tree, names = self.file.tree, self.file.names
        found: dict[str, list[Spot]] = {}
        for s in statements:
            for i in names.within(s, tree.end[s]):
                if tree.text[i] in self.called and names.role[i] <= Role.DECLARATION:
                    found.setdefault(tree.text[i], []).append(Spot((i,)))
        return {Column(values=(n,), spots=tuple(spots), is_name=True): self.called[n] for n, spots in found.items()}

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

    def _head(self, statement: int, block: int) -> list[str]:
        """The lines of a statement above its first block."""
        tree = self.file.tree
        first = self.file.block_at[block].statements[0]
        lines = without_comments(
            self.file, self.file.lines[tree.start_line(statement) - 1 : tree.start_line(first) - 1]
        )
        if len(lines) != 1 and [line.strip() for line in lines[1:]] != ["{"]:
            raise CannotWrite("a head runs over several lines")
        return lines

    def _between(self, before: int, block: int, statement: int, indent: str) -> list[str]:
        """The lines between two blocks of a statement: what is asked for the second, or that it is for all else."""
        tree = self.file.tree
        last, first = self.file.block_at[before].statements[-1], self.file.block_at[block].statements[0]
        lines = self.file.lines[tree.end_line(last) : tree.start_line(first) - 1]
        lines = without_comments(self.file, lines)
        own = leading_space(self.file, statement)
        if not lines or any(line.strip() and not line.startswith(own) for line in lines):
            raise CannotWrite("what is done otherwise is indented in an unusual way")
        return [indent + line[len(own) :] if line.strip() else "" for line in lines]

    def _end(self, statement: int, block: int, indent: str, deeper: str) -> list[str]:
        """The lines of a statement behind the last one in its last block: a bracket, or comments."""
        tree = self.file.tree
        last = self.file.block_at[block].statements[-1]
        lines = self.file.lines[tree.end_line(last) : tree.end_line(statement)]
        if tree.end[block] == tree.end[statement]:
            marks = self.file.language.comment_marks
            return [(deeper if line.strip().startswith(marks) else indent) + line.strip() for line in lines]
        own = leading_space(self.file, statement)
        if any(line.strip() and not line.startswith(own) for line in lines):
            raise CannotWrite("what is done otherwise is indented in an unusual way")
        return [indent + line[len(own) :] if line.strip() else "" for line in lines]

    def _comments(self, statement: int, indent: str) -> list[str]:
        """The comments right above a statement."""
        line = self.file.tree.start_line(statement)
        alone = {c.line: c.text for c in self.file.tree.comments if c.alone and c.line == c.last_line}
        found: list[str] = []
        while line - 1 in alone:
            line -= 1
            found.insert(0, indent + alone[line])
        return found
