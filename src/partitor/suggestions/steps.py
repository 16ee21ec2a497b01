"""Where to cut an oversized procedure into steps.

The statement list is cut into consecutive segments by dynamic programming over all cut positions
(the classic optimal line-breaking recurrence; O(n · w) for n statements and segments of at most w).
A segment costs what must cross its borders and its distance from a good size; a comment or a blank
line above a statement attracts a cut. What is not worth a function of its own stays where it is.
"""

from __future__ import annotations

import itertools
from collections import Counter
from collections.abc import Iterable, Iterator, Sequence

from ..frozen import Frozen
from ..program.blocks import Block
from ..program.flow import EMPTY, Flow, Set, flow_of, summaries_of
from ..program.program import Procedure, ProgramFile
from ..repeats.judge import MOST_PARAMETERS, inner_statements, jumps_out
from ..repeats.paragraphs import Break, break_above
from ..repeats.slots import Copy, Table
from .leaving import ending
from .topics import variables_named

GOOD_SIZE = range(3, 15)
MOST_GIVEN = 3
"""Values that a step may give back."""
LEAST_INNER = 5
"""Statements of a step inside a branch or loop: what is shorter is no step of its own there."""
LEAST_LEFT = 3
"""Statements that a step must leave where they are: otherwise it is the procedure itself by another name."""
WIDEST = 24
MOST_STATEMENTS = 600
"""Top-level statements of a procedure beyond which cutting it into steps is no help to anyone."""
BLANK_BREAK, COMMENT_BREAK = 3.2, 6.0
"""What it costs to read on over a break between paragraphs of three statements; over one between longer
paragraphs more, as there the student used fewer."""
NEW_TOPIC = 4.0
"""The same where no blank line or comment, but only what the statements are about, tells that a step begins; what
names the same things is not as new."""
SAME_THINGS = 0.6
EMPTY_LIST = 3
"""Nodes of a list with nothing in it."""
SET_ABOVE = 2.5
"""What it costs to begin right below where a variable of the step gets its first value."""
CALLED_STEP = 3.0
"""What it costs to put the call of a function that is a step already into another step."""


Words = tuple[str, ...]
"""The words of a statement, by which it is known again after other lines have changed."""


class Unfolded(Frozen, frozen=True):
    """Copies that could not be folded: what is cut into steps should not make functions that are alike of them."""

    heads: frozenset[Words]
    """The first statements of copies that stand in one list, and those that follow on one: a step begins there if
    anywhere."""
    rows: tuple[tuple[tuple[Words, ...], ...], ...]
    """The statements of each copy, table by table."""


NO_COPIES = Unfolded(frozenset(), ())


def unfolded(tables: Iterable[Table]) -> Unfolded:
    """The copies of tables for which there is no function, nor a loop."""
    heads, rows = [], []
    for table in tables:
        rows.append(tuple(tuple(words_of_statement(c.file, s) for s in c.statements) for c in table.copies))
        homes = Counter((id(c.file), c.file.tree.parent[c.first]) for c in table.copies)
        for copy in table.copies:
            tree, following = copy.file.tree, copy.file.tree.end[copy.last]
            if homes[id(copy.file), tree.parent[copy.first]] < 2:
                continue
            heads.append(words_of_statement(copy.file, copy.first))
            if following < len(tree.kind) and tree.parent[following] == tree.parent[copy.last]:
                heads.append(words_of_statement(copy.file, following))
    return Unfolded(frozenset(heads), tuple(rows)) if rows else NO_COPIES


def words_of_statement(file: ProgramFile, statement: int) -> Words:
    """Its words, one after the other."""
    return tuple(file.tree.leaf_texts(statement))


def steps_of(file: ProgramFile, procedure: Procedure, limit: int, copies: Unfolded = NO_COPIES) -> list[Table]:
    """The segments worth a function each, in order; [] where the procedure is better left whole. `copies`: those that
    are told and could not be folded. Worked out once."""
    key = ("steps", procedure.node, limit, id(copies))
    if key not in file.derived:
        # The copies are kept too, so that their identity stays their own.
        file.derived[key] = (copies, _steps_of(file, procedure, limit, copies))
    known = file.derived[key]
    assert isinstance(known, tuple)
    tables: list[Table] = known[1]
    return tables


def _steps_of(file: ProgramFile, procedure: Procedure, limit: int, copies: Unfolded) -> list[Table]:
    body = file.body_of(procedure)
    if body is None or len(body.statements) > MOST_STATEMENTS:
        return []
    tables: list[Table] = []
    taken: list[tuple[int, int]] = []
    alike: list[tuple[int, int]] = []
    inner = [b for b in file.blocks if b.procedure == procedure.node and b.node > body.node]
    for block in (body, *inner):
        inside = any(start <= block.node < stop for start, stop in taken)
        followed = flow_of(file, procedure.node).live_after
        if (
            inside
            or any(s not in followed for s in block.statements)
            or not 2 <= len(block.statements) <= MOST_STATEMENTS
        ):
            continue
        if any(start <= block.node < stop for start, stop in alike):
            # Steps of copies would be as alike as these are.
            continue
        least = GOOD_SIZE.start if block is body else LEAST_INNER
        cutter = _Cutter(file, procedure, block, limit, copies)
        alike += [(block.statements[p.start], file.tree.end[block.statements[p.stop - 1]]) for p in cutter.copies_here]
        for table in cutter.cut():
            if inner_statements(table.copies[0]) >= least:
                tables.append(table)
                taken.append(table.copies[0].span)
    return tables


class _Cutter:
    def __init__(self, file: ProgramFile, procedure: Procedure, block: Block, limit: int, copies: Unfolded) -> None:
        self.file = file
        self.heads = copies.heads
        self.scope = procedure.node
        self.statements = block.statements
        self.flow: Flow = flow_of(file, procedure.node)
        self.limit = limit
        body = file.body_of(procedure)
        whole = sum(inner_statements(Copy(file, (s,))) for s in (body.statements if body else ()))
        self.most = min(max(limit, GOOD_SIZE.start), max(GOOD_SIZE.stop, whole // 2), whole - LEAST_LEFT)
        self.sizes = [inner_statements(Copy(file, (s,))) for s in self.statements]
        self.summaries = summaries_of(file, procedure.node, self.statements)
        self.paragraphs = self._breaks()
        self.rows = list(self._rows_here(copies.rows))
        self.copies_here = [place for _, places in self.rows for place in places]
        self.breaks_before = [0.0, *itertools.accumulate(self.paragraphs)]
        self.ending = ending(file, self.statements[-1])
        """The jump that leads where the last statement leads."""
        self.leaving = [bool(jumps_out(Copy(file, (s,)))) for s in self.statements]
        self.movable = [self._is_movable(s) for s in self.statements]
        self.calls_step = [0.0, *itertools.accumulate(CALLED_STEP * self._calls_a_step(s) for s in self.statements)]

    def _rows_here(self, rows: Sequence[Sequence[Sequence[Words]]]) -> Iterator[tuple[int, list[range]]]:
        """How many copies each table has of which several stand in this list, and where. What stands in branches is
        chosen by different words: each is a job of its own."""
        words = [words_of_statement(self.file, s) for s in self.statements] if rows else []
        for copies in rows:
            places = []
            for copy in copies:
                size = len(copy)
                starts = (i for i in range(len(words) - size + 1) if words[i : i + size] == list(copy))
                places += [range(i, i + size) for i in starts]
            if len(places) > 1:
                yield len(copies), places

    def _parts_copies(self, start: int, stop: int) -> bool:
        """True for a step that would be like another one: most of it stands in copies, and not in all of them."""
        size = sum(self.sizes[start:stop])
        for count, places in self.rows:
            held = [p for p in places if p.start < stop and start < p.stop]
            whole = sum(start <= p.start and p.stop <= stop for p in held)
            inside = {i for p in held for i in p if start <= i < stop}
            if inside and whole < count and 2 * sum(self.sizes[i] for i in inside) >= size:
                return True
        return False

    def _breaks(self) -> list[float]:
        """What it costs to read on over the break above each statement; 0 where there is none."""
        told = [
            COMMENT_BREAK
            if self.heads and words_of_statement(self.file, s) in self.heads
            else _paragraph_break(self.file, s)
            for s in self.statements
        ]
        told[0] = max(told[0], BLANK_BREAK)
        divided = sum(b > 0 for b in told[1:])
        paragraph = sum(self.sizes) / (divided + 1)
        if divided and paragraph < GOOD_SIZE.stop:
            scale = min(max(1.0, paragraph / GOOD_SIZE.start), 2.0)
            return [b * scale or (NEW_TOPIC if self._lists(i - 1) else 0.0) for i, b in enumerate(told)]
        return [b or self._new_topic(i) for i, b in enumerate(told)]

    def _new_topic(self, i: int) -> float:
        """What it costs to read on where a statement has nothing to do with the one above it."""
        if self._lists(i - 1):
            return NEW_TOPIC
        above, names = (frozenset(variables_named(self.file, s)) for s in self.statements[i - 1 : i + 1])
        given, own = self.summaries[i - 1].written, self.summaries[i].written
        above_is_short, is_short = self.sizes[i - 1] == 1, self.sizes[i] == 1
        if given & names or (above_is_short and (given or not above)):
            # It goes on with what was worked out above, or what stands above only sets out, or is a heading.
            return 0.0
        if is_short and not own and names and (above_is_short or above & names):
            return 0.0
        return NEW_TOPIC * SAME_THINGS if above & names and not (is_short and own) else NEW_TOPIC

    def _lists(self, i: int) -> bool:
        """True for a statement that only lists what the others work with."""
        statement, tree = self.statements[i], self.file.tree
        kinds = tree.kind[statement : tree.end[statement]]
        plain = self.sizes[i] == 1 and self.file.language.call not in kinds
        listed = next((n for n in range(statement, tree.end[statement]) if tree.kind[n] == "list"), None)
        return plain and listed is not None and tree.end[listed] - listed > EMPTY_LIST

    def _calls_a_step(self, statement: int) -> bool:
        """True where the statement does no more than call a function of the program."""
        file, tree = self.file, self.file.tree
        calls = [n for n in range(statement, tree.end[statement]) if tree.kind[n] == file.language.call]
        own = {p.name for p in file.procedures}
        return len(calls) == 1 and tree.end[calls[0]] == tree.end[statement] and file.called_name(calls[0]) in own

    def cut(self) -> list[Table]:
        n = len(self.statements)
        best: list[float] = [0.0] * (n + 1)
        choice: list[int] = [0] * (n + 1)
        for i in range(n - 1, -1, -1):
            best[i], choice[i] = best[i + 1] + self.sizes[i] * 0.9 + 0.5, 1
            for width, cost in self._costs(i):
                if width == 1 and cost is not None:
                    best[i] = best[i + 1] + cost
                if cost is not None and cost + best[i + width] < best[i]:
                    best[i], choice[i] = cost + best[i + width], width
        tables, i = [], 0
        while i < n:
            width = choice[i]
            alone = self.sizes[i] >= GOOD_SIZE.start and next((c for _, c in self._costs(i)), None) is not None
            if width > 1 or alone:
                segment = self.statements[i : i + width]
                if sum(self.sizes[i : i + width]) >= GOOD_SIZE.start:
                    tables.append(Table((Copy(self.file, segment),), (), 1))
            i += width
        return tables

    def _costs(self, start: int) -> Iterator[tuple[int, float | None]]:
        """(width, what a function for so many statements costs to read; None where it cannot be one)."""
        taken: Set = EMPTY
        written: Set = EMPTY
        certain: Set = EMPTY
        size, leaves = 0, False
        for width in range(1, min(WIDEST, len(self.statements) - start) + 1):
            last = start + width - 1
            if not self.movable[last]:
                return
            summary = self.summaries[last]
            taken |= summary.needed - certain
            written |= summary.written
            certain |= summary.certain
            size += self.sizes[last]
            leaves |= self.leaving[last]
            # What leaves can only be a step where nothing follows on it.
            usable = not leaves or last == len(self.statements) - 1
            needed = EMPTY if self.scope == 0 else taken
            if size > self.most or len(needed) > MOST_PARAMETERS:
                # So it is with all that are wider.
                return
            cost = self._cost(start, width, size, needed, written, leaves) if usable else None
            begun = SET_ABOVE if start and self._sets(start - 1) & taken else 0.0
            yield width, None if cost is None else cost + begun

    def _cost(self, start: int, width: int, size: int, taken: Set, written: Set, leaves: bool) -> float | None:
        if size < GOOD_SIZE.start or self._parts_copies(start, start + width):
            return None
        given = written & self.flow.live_after[self.statements[start + width - 1]]
        if len(given) > MOST_GIVEN or written & self.flow.always_live:
            return None
        if width > 1 and self._sets(start + width - 1) & given:
            # What others begin with is no part of what was done before.
            return None
        cost = 2.5 + 0.6 * len(taken) + 1.2 * len(given)
        cost += 0.0 if size in GOOD_SIZE else 0.5 * (size - GOOD_SIZE.stop)
        # What follows on a test that leaves belongs to it: nothing else could be a step.
        cost += 0.0 if leaves else self.breaks_before[start + width] - self.breaks_before[start + 1]
        cost += self.calls_step[start + width] - self.calls_step[start]
        cost += 0.0 if self.paragraphs[start] else 2.0
        end = start + width
        if end < len(self.statements) and not self.paragraphs[end]:
            cost += 2.0
        return cost

    def _sets(self, i: int) -> Set:
        """The variables that a statement only gives something to begin with."""
        found, statement = self.summaries[i], self.statements[i]
        worked_out = self.file.language.call in self.file.tree.kind[statement : self.file.tree.end[statement]]
        plain = self.sizes[i] == 1 and not found.needed and not worked_out and not self._lists(i)
        return found.certain if plain else EMPTY

    def _leads_to_the_end(self, jump: int) -> bool:
        """True for an error that is raised, and for a jump that leads where the last statement leads."""
        tree = self.file.tree
        if tree.kind[jump] == "raise_statement":
            return True
        bare = all(tree.text[n] in {"return", "continue", ";"} for n in range(jump, tree.end[jump]) if tree.text[n])
        return bare and tree.kind[jump] == self.ending

    def _is_movable(self, statement: int) -> bool:
        """No definition, import, jump out of the procedure, or constant in capitals."""
        file, tree, language = self.file, self.file.tree, self.file.language
        if file.is_definition(statement) or file.is_import(statement) or file.is_bare_string(statement):
            return False
        kinds = tree.kind[statement : tree.end[statement]]
        stops = {"ERROR"} | language.suspending | language.outer_declarations
        if any(kind in stops or kind in language.deleting for kind in kinds):
            return False
        if any(not self._leads_to_the_end(n) for n in jumps_out(Copy(file, (statement,)))):
            return False
        left = tree.child(statement, "left") if tree.kind[statement] == "assignment" else None
        return left is None or not tree.text[left].isupper()


def _paragraph_break(file: ProgramFile, statement: int) -> float:
    """What it costs to read on over the break above a statement; 0 where there is none."""
    return {Break.NONE: 0.0, Break.BLANK: BLANK_BREAK, Break.COMMENT: COMMENT_BREAK}[break_above(file, statement)]
