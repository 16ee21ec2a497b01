"""Prints loops, functions and calls in Swift."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from functools import cached_property

from ...errors import CannotWrite
from ...program.types import Type
from ..braces.writer import BraceWriter
from ..writing import WIDTH, Counting, Gap, Listed, Variable


class SwiftWriter(BraceWriter):
    """Swift, with labels where this student has them."""

    lists_by_index = False
    counts_turns = False

    @property
    def stop(self) -> str:
        return ""

    @cached_property
    def _labels(self) -> bool:
        """True where this student's calls name their values."""
        tree = self.file.tree
        told = [tree.child(n, "label") for n, kind in enumerate(tree.kind) if kind == "typed_parameter"]
        bare = sum(label is not None and tree.text[label] == "_" for label in told)
        return bare * 2 < len(told)

    def typed(self, variable: Variable) -> str:
        return f"{'' if self._labels else '_ '}{variable.name}: {self._type(variable)}"

    def _asked(self, condition: str) -> str:
        return condition

    def declaration(self, variable: Variable) -> str:
        return f"var {variable.name}: {self._type(variable)}"

    def named(self, variable: Variable, value: str) -> str:
        return f"let {variable.name} = {value}"

    def argument(self, parameter: str, value: str) -> str:
        return f"{parameter}: {value}" if self._labels else value

    def argument_of(self, function: int, place: int, value: str) -> str:
        tree = self.file.tree
        parameters = tree.child(function, "parameters")
        given = [c for c in tree.items(parameters or function) if tree.kind[c] == "typed_parameter"]
        told = tree.child(given[place], "label")
        label = tree.text[told if told is not None else tree.child(given[place], "name") or 0]
        return value if label == "_" else f"{label}: {value}"

    def string_with(self, node: int, parts: Sequence[str], gaps: Mapping[int, Gap]) -> str:
        literal = self.file.tree.source_of(node)
        if "\\" in literal or not literal.startswith('"') or literal.startswith('"""'):
            raise CannotWrite("a number inside a text differs")
        return self.words_with(parts, gaps)

    def repeated(self, literal: str, expression: str) -> str:
        return f"String(repeating: {literal}, count: {expression})"

    def gap(self, expression: str) -> str:
        return f"\\({expression})"

    def text_around(self, node: int, before: str, expression: str, after: str) -> str:
        return f'"{before}\\({expression}){after}"'

    def _counting_head(self, variable: str, turns: Counting) -> str:
        last = turns.first + turns.step * (turns.count - 1)
        if turns.step == 1:
            return f"for {variable} in {turns.first}...{last}"
        return f"for {variable} in stride(from: {turns.first}, through: {last}, by: {turns.step})"

    def _listing_head(self, variables: Sequence[Variable], turns: Listed) -> str:
        names = [v.name for v in variables]
        target = names[0] if len(names) == 1 else f"({', '.join(names)})"
        rows = [row[0] if len(row) == 1 else f"({', '.join(row)})" for row in turns.rows]
        head = f"for {target} in [{', '.join(rows)}]"
        if len(head) > 2 * WIDTH:
            raise CannotWrite("the list is too long for one line")
        return head

    def _function_head(self, name: str, parameters: str, returned: Sequence[Variable], beside: int) -> str:
        result = f" -> {self._type(returned[0])}" if returned else ""
        words = self.file.words_before_name(beside) if beside else []
        tied = "".join(f"{word} " for word in words if word in {"static", "class", "mutating"})
        return f"{'private ' if beside else ''}{tied}func {name}({parameters}){result}"

    def _type(self, variable: Variable) -> str:
        kind: Type | None = variable.type
        if kind is None:
            raise CannotWrite(f"the type of {variable.name} is not in sight")
        return "[" * len(kind.dimensions) + kind.base + "]" * len(kind.dimensions)
