"""Where to cut an oversized procedure into steps.

The statement list is cut into consecutive segments by dynamic programming over all cut positions
(the classic optimal line-breaking recurrence; O(n · w) for n statements and segments of at most w).
A segment costs what must cross its borders and its distance from a good size; a comment or a blank
line above a statement attracts a cut. What is not worth a function of its own stays where it is.
"""

from __future__ import annotations

from collections.abc import Sequence

from ..program.flow import Flow, flow_of, needed_by
from ..program.names import Role
from ..program.program import Block, Procedure, ProgramFile
from ..repeats.judge import MOST_PARAMETERS, inner_statements
from ..repeats.slots import Copy, Table
from .functions import MOST_RESULTS

GOOD_SIZE = range(3, 15)
WIDEST = 24
BLANK_BREAK, COMMENT_BREAK = 3.2, 6.0


def steps_of(file: ProgramFile, procedure: Procedure, limit: int) -> list[Table]:
    """The segments worth a function each, in order; [] where the procedure is better left whole."""
    block = _body(file, procedure)
    if block is None or len(block.statements) < 2:
        return []
    return _Cutter(file, procedure, block, limit).cut()


def _body(file: ProgramFile, procedure: Procedure) -> Block | None:
    if procedure.node == 0:
        return file.blocks[0]
    body = file.tree.child(procedure.node, file.language.body_field)
    return file.block_at.get(body) if body is not None else None


class _Cutter:
    def __init__(self, file: ProgramFile, procedure: Procedure, block: Block, limit: int) -> None:
        self.file = file
        self.scope = procedure.node
        self.statements = block.statements
        self.flow: Flow = flow_of(file, procedure.node)
        self.limit = limit
        self.sizes = [inner_statements(Copy(file, (s,))) for s in self.statements]
        self.paragraphs = [_paragraph_break(file, s) for s in self.statements]
        self.movable = [self._is_movable(s) for s in self.statements]

    def cut(self) -> list[Table]:
        n = len(self.statements)
        best: list[float] = [0.0] * (n + 1)
        choice: list[int] = [0] * (n + 1)
        for i in range(n - 1, -1, -1):
            best[i], choice[i] = best[i + 1] + self.sizes[i] * 0.9 + 0.5, 1
            for width in range(1, min(WIDEST, n - i) + 1):
                if not self.movable[i + width - 1]:
                    break
                cost = self._cost(i, width)
                if cost is not None and cost + best[i + width] < best[i]:
                    best[i], choice[i] = cost + best[i + width], width
        tables, i = [], 0
        while i < n:
            width = choice[i]
            if width > 1 or (self.sizes[i] >= GOOD_SIZE.start and self._cost(i, 1) is not None):
                segment = self.statements[i : i + width]
                if sum(self.sizes[i : i + width]) >= GOOD_SIZE.start:
                    tables.append(Table((Copy(self.file, segment),), (), 1))
            i += width
        return tables

    def _cost(self, start: int, width: int) -> float | None:
        """What a function for these statements costs to read; None where it cannot be one."""
        segment = self.statements[start : start + width]
        size = sum(self.sizes[start : start + width])
        if size < GOOD_SIZE.start or size > max(self.limit, GOOD_SIZE.stop):
            return None
        taken = needed_by(self.file, self.scope, segment)
        if self.scope == 0:
            taken = frozenset()
        written = self._written(segment)
        given = written & self.flow.live_after[segment[-1]]
        if len(taken) > MOST_PARAMETERS or len(given) > MOST_RESULTS or written & self.flow.always_live:
            return None
        if self.scope == 0 and written - given and self.flow.always_live & written:
            return None
        cost = 2.5 + 0.6 * len(taken) + 1.2 * len(given)
        cost += 0.0 if size in GOOD_SIZE else 0.5 * (size - GOOD_SIZE.stop)
        inside = sum(self.paragraphs[start + 1 : start + width])
        cost += inside + (0.0 if self.paragraphs[start] else 2.0)
        end = start + width
        if end < len(self.statements) and not self.paragraphs[end]:
            cost += 2.0
        return cost

    def _written(self, segment: Sequence[int]) -> frozenset[str]:
        names, tree = self.file.names, self.file.tree
        return frozenset(
            tree.text[i]
            for s in segment
            for i in names.within(s, tree.end[s])
            if names.role[i] in (Role.WRITE, Role.UPDATE) and names.owner(i) == self.scope
        )

    def _is_movable(self, statement: int) -> bool:
        """No definition, import, jump out of the procedure, or constant in capitals."""
        file, tree, language = self.file, self.file.tree, self.file.language
        if file.is_definition(statement) or file.is_import(statement) or file.is_bare_string(statement):
            return False
        kinds = tree.kind[statement : tree.end[statement]]
        stops = {language.returning, "ERROR"} | language.suspending | language.outer_declarations
        if any(kind in stops or kind in language.deleting for kind in kinds):
            return False
        if tree.kind[statement] in {"break_statement", "continue_statement"}:
            return False
        left = tree.child(statement, "left") if tree.kind[statement] == "assignment" else None
        return left is None or not tree.text[left].isupper()


def _paragraph_break(file: ProgramFile, statement: int) -> float:
    """What it costs to read on over the break above a statement; 0 where there is none."""
    line = file.tree.start_line(statement) - 2
    if line < 0:
        return COMMENT_BREAK
    text = file.lines[line].strip()
    if text.startswith("#"):
        return COMMENT_BREAK
    return 0.0 if text else BLANK_BREAK
