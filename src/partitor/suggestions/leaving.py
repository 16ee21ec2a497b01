"""Copies that leave what they stand in: a function for them tells its caller when to, or gives what they return."""

from __future__ import annotations

import re
from collections.abc import Sequence

import msgspec

from ..errors import CannotWrite
from ..languages.writing import Writer
from ..program.program import ProgramFile
from ..repeats.judge import jumps_out
from ..repeats.slots import Table
from .proof import Leaving

MADE = r"=\s*(?:int|float|input)\("
"""What a variable is given that is never nothing."""


class Exit(msgspec.Struct, frozen=True):
    """How the copies leave."""

    how: Leaving
    jump: str = ""
    """The statement with which they do, as written, where it is always the same."""

    def body(self, lines: Sequence[str], writer: Writer, returned: Sequence[str]) -> list[str]:
        """The function's lines, which give up where the copies leave."""
        if self.how is Leaving.ALWAYS:
            return list(lines)
        up = self._returning(returned) if self.how is Leaving.AT_ITS_END else writer.given_up(len(returned))
        body = [line[: len(line) - len(self.jump)] + up if line.strip() == self.jump else line for line in lines]
        if returned or self.how is Leaving.AT_ITS_END:
            return body
        return [*body, f"{_indent(lines[0])}return {writer.truth(True)}"]

    def _returning(self, returned: Sequence[str]) -> str:
        """What gives back what the variables hold, in the form of the jump."""
        return f"return{' ' if returned else ''}{', '.join(returned)}{';' if self.jump.endswith(';') else ''}"

    def call(
        self, call: str, targets: Sequence[str], returned: Sequence[str], body: Sequence[str], writer: Writer
    ) -> list[str]:
        """The lines of a call, of which the results, the variables `returned` of the body, go to `targets`."""
        indent = _indent(call)
        if self.how is Leaving.AT_ITS_END:
            return [call]
        if self.how is Leaving.ALWAYS:
            return [f"{indent}return {call.strip()}"]
        if not targets:
            return writer.leaving(call, "", self.jump, indent)
        made = [any(re.match(rf"\s*{re.escape(name)}\s*{MADE}", line) for line in body) for name in returned]
        return writer.leaving(call, targets[made.index(True) if any(made) else 0], self.jump, indent)


def exit_of(table: Table) -> Exit | None:
    """How the copies leave what they stand in; None where they do not. Raises CannotWrite where no function could tell
    its caller to."""
    first = table.copies[0]
    file, tree = first.file, first.file.tree
    jumps = [n for n in jumps_out(first) if tree.kind[n] != "raise_statement"]
    if not jumps:
        return None
    if all(tree.kind[n] == file.language.returning for n in jumps) and _returns_always(file, first.last):
        return Exit(Leaving.ALWAYS)
    texts = {tree.source_of(n) for n in jumps}
    inside = any(n <= spot.nodes[0] < tree.end[n] for c in table.columns for spot in c.spots for n in jumps)
    lines = [tree.start_line(n) for n in jumps]
    alone = all(tree.source_of(n) == file.lines[line - 1].strip() for n, line in zip(jumps, lines, strict=True))
    if len(texts) > 1 or inside or not alone:
        raise CannotWrite("the copies leave what they stand in, each time in another way")
    jump = texts.pop()
    at_the_end = {tree.kind[n] for n in jumps} == {"continue_statement"} or jump.rstrip(";") == "return"
    if at_the_end and all(ending(c.file, c.last) == tree.kind[jumps[0]] for c in table.copies):
        return Exit(Leaving.AT_ITS_END, jump)
    return Exit(Leaving.AT_TIMES, jump)


def ending(file: ProgramFile, statement: int) -> str:
    """The kind of the jump that leads where the statement's end leads, too: nothing follows on it in the turn of the
    loop around it, or in its procedure. "" where something follows."""
    tree, language = file.tree, file.language
    while (block := file.block_at.get(tree.parent[statement])) and block.statements[-1] == statement:
        around = held = tree.parent[tree.parent[statement]]
        while tree.kind[around] in language.clauses:
            around = tree.parent[around]
        if tree.kind[around] in language.loops:
            return "continue_statement" if around == held else ""
        if tree.kind[around] in language.procedures:
            return language.returning
        runs_on = tree.kind[around] == "match_statement" and language.declares and not language.cases_end
        if tree.kind[around] not in language.conditionals or runs_on:
            return ""
        statement = around
    return ""


def _returns_always(file: ProgramFile, statement: int) -> bool:
    """True for a statement that nothing gets past, by what it says at the end of each branch."""
    tree, language = file.tree, file.language
    if tree.kind[statement] == language.returning:
        return True
    blocks = file.blocks_of(statement) if tree.kind[statement] in language.conditionals else []
    otherwise = any(tree.kind[c] == "else_clause" for c in tree.children(statement))
    last = [file.block_at[b].statements[-1:] for b in blocks]
    return otherwise and all(s and _returns_always(file, s[0]) for s in last)


def _indent(line: str) -> str:
    return line[: len(line) - len(line.lstrip())]
