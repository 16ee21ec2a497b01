"""Prints loops, functions and calls in Racket and Scheme."""

from __future__ import annotations

import re
from collections.abc import Mapping, Sequence

from ...errors import CannotWrite
from ..writing import WIDTH, Counting, Gap, LoopText, Turns, Variable, Writer, around, inner_parts, pieces

FORMATTING = frozenset({"printf", "format"})
MOST_COUNTED = 12
"""More numbers than this are not listed one by one where there is no range to run through."""


def _closed(lines: Sequence[str], brackets: str) -> list[str]:
    """The lines with brackets behind the last one, or below it where a comment ends that."""
    last = lines[-1]
    if ";" in re.sub(r'"(?:\\.|[^"\\])*"', "", last):
        return [*lines, f"{last[: len(last) - len(last.lstrip())]}{brackets}"]
    return [*lines[:-1], last + brackets]


class SchemeWriter(Writer):
    """Scheme: `for-each` over lists."""

    comment_mark = ";"

    def linear(self, variable: str, factor: int, offset: int) -> str:
        if factor < 0:
            product = variable if factor == -1 else f"(* {-factor} {variable})"
            return f"(- {offset} {product})"
        product = variable if factor == 1 else f"(* {factor} {variable})"
        if offset == 0:
            return product
        return f"(+ {product} {offset})" if offset > 0 else f"(- {product} {-offset})"

    def named(self, variable: Variable, value: str) -> str:
        raise CannotWrite("a value inside an expression has no line of its own")

    def value_text(self, node: int, expression: str) -> str:
        return expression

    def string_with(self, node: int, parts: Sequence[str], gaps: Mapping[int, Gap]) -> str:
        literal = self.file.tree.source_of(node)
        if "~" in literal or "\\" in literal:
            raise CannotWrite("a number inside a text differs")
        return self._with_gaps(node, inner_parts(parts), gaps)

    def _with_gaps(self, node: int, parts: Sequence[str], gaps: Mapping[int, Gap]) -> str:
        told = {k: gap if gap.is_text else Gap(f"number->string {gap.expression}") for k, gap in gaps.items()}
        joined = pieces(parts, '"', told)
        return f"(string-append {' '.join(joined)})"

    def text_around(self, node: int, before: str, expression: str, after: str) -> str:
        joined = around('"', before, expression, after)
        return f"(string-append {' '.join(joined)})"

    def loop(
        self,
        variables: Sequence[Variable],
        turns: Turns,
        body: Sequence[str],
        indent: str,
        tables: Sequence[tuple[Variable, tuple[str, ...]]] = (),
    ) -> LoopText:
        return LoopText(tuple(self._loop([v.name for v in variables], turns, body, indent)))

    def _loop(self, names: Sequence[str], turns: Turns, body: Sequence[str], indent: str) -> list[str]:
        if isinstance(turns, Counting):
            if turns.count > MOST_COUNTED:
                raise CannotWrite("there is no range to run through")
            columns = [[str(turns.first + k * turns.step) for k in range(turns.count)]]
        else:
            columns = _columns(turns)
        lists = [f"(list {' '.join(column)})" for column in columns]
        first = f"{indent}(for-each (lambda ({' '.join(names)})"
        shift = " " * (len("(for-each ") + 2 - len(self.style.indent))
        deeper = [f"{shift}{line}" if line.strip() else line for line in body]
        return _closed([first, *_closed(deeper, ")"), *(f"{indent}          {one}" for one in lists)], ")")

    def function(
        self,
        name: str,
        parameters: Sequence[Variable],
        body: Sequence[str],
        returned: Sequence[Variable],
        beside: int,
    ) -> list[str]:
        if returned:
            raise CannotWrite("the copies define what is needed after them")
        head = " ".join([name, *(p.name for p in parameters)])
        return _closed([f"(define ({head})", *body], ")")

    def call(
        self,
        name: str,
        arguments: Sequence[str],
        targets: Sequence[str],
        indent: str,
        declares: str = "",
    ) -> str:
        if targets or declares:
            raise CannotWrite("the copies define what is needed after them")
        return f"{indent}({' '.join([name, *arguments])})"

    def with_parameters(self, parameters: int, added: Sequence[str]) -> tuple[int, int, str]:
        stop = self.file.tree.end_byte[parameters] - 1
        return stop, stop, "".join(f" {text}" for text in added)

    def with_arguments(self, arguments: int, added: Sequence[str]) -> tuple[int, str]:
        return self.file.tree.end_byte[arguments], "".join(f" {text}" for text in added)


def _columns(turns: Turns) -> list[list[str]]:
    assert not isinstance(turns, Counting)
    columns = [list(column) for column in zip(*turns.rows, strict=True)]
    if turns.start is not None:
        columns = [[str(turns.start + k) for k in range(len(turns.rows))], *columns]
    return columns


class RacketWriter(SchemeWriter):
    """Racket: `for` over ranges and lists, `format` for texts with numbers in them."""

    def _with_gaps(self, node: int, parts: Sequence[str], gaps: Mapping[int, Gap]) -> str:
        tree = self.file.tree
        text = "".join("~a" if k in gaps else part for k, part in enumerate(parts))
        values = " ".join(gaps[k].expression for k in sorted(gaps))
        arguments = tree.parent[node]
        alone = tree.kind[arguments] == "argument_list" and tree.items(arguments) == [node]
        if alone and self.file.called_name(tree.parent[arguments]) in FORMATTING:
            return f'"{text}" {values}'
        return f'(format "{text}" {values})'

    def string_with(self, node: int, parts: Sequence[str], gaps: Mapping[int, Gap]) -> str:
        literal = self.file.tree.source_of(node)
        if "~" in literal:
            raise CannotWrite("a number inside a text differs")
        return self._with_gaps(node, inner_parts(parts), gaps)

    def _loop(self, names: Sequence[str], turns: Turns, body: Sequence[str], indent: str) -> list[str]:
        if isinstance(turns, Counting):
            limit = turns.first + turns.step * turns.count
            step = "" if turns.step == 1 else f" {turns.step}"
            first = "" if turns.first == 0 and not step else f"{turns.first} "
            clauses = [f"[{names[0]} (in-range {first}{limit}{step})]"]
        else:
            clauses = [f"[{n} (list {' '.join(c)})]" for n, c in zip(names, _columns(turns), strict=True)]
        lines = [f"{indent}(for ({clauses[0]}", *(f"{indent}      {clause}" for clause in clauses[1:])]
        lines[-1] += ")"
        if max(map(len, lines)) > 2 * WIDTH:
            raise CannotWrite("the list is too long for one line")
        return _closed([*lines, *body], ")")
