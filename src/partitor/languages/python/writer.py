"""Prints loops, functions and calls in Python, in the student's own style."""

from __future__ import annotations

import re
from collections.abc import Mapping, Sequence

from ...program.program import ProgramFile
from ..writing import WIDTH, Counting, Gap, LoopText, Turns, Variable, Writer, leading_space

SAFE_PARENTS = frozenset(
    {"argument_list", "assignment", "list", "tuple", "keyword_argument", "subscript", "interpolation"}
)


class PythonWriter(Writer):
    """Python, with its unpacking, ranges and formatted strings."""

    def string_with(self, node: int, parts: Sequence[str], gaps: Mapping[int, Gap]) -> str:
        return formatted_string(parts, gaps)

    def text_around(self, node: int, before: str, expression: str, after: str) -> str:
        quote = self.file.tree.source_of(node)[0]
        return f"f{quote}{before}{{{expression}}}{after}{quote}"

    def repeated(self, literal: str, expression: str) -> str:
        return f"{literal} * {value_in_product(expression)}"

    def in_letters(self, expression: str, way: str) -> str:
        if not re.fullmatch(r"\w+(\[\w+\])?", expression):
            return super().in_letters(expression, way)
        return f"{expression}.{way}()"

    def line_below(self, literal: str, expression: str, more: int) -> str:
        return f"{literal} * (len({expression}) + {more})" if more else f"{literal} * len({expression})"

    def gap(self, expression: str) -> str:
        return f"{{{expression}}}"

    def value_text(self, node: int, expression: str) -> str:
        return value_text(self.file, node, expression)

    def loop(
        self,
        variables: Sequence[Variable],
        turns: Turns,
        body: Sequence[str],
        indent: str,
        tables: Sequence[tuple[Variable, tuple[str, ...]]] = (),
    ) -> LoopText:
        target = ", ".join(v.name for v in variables)
        if isinstance(turns, Counting):
            over = counting_range(turns.first, turns.step, turns.count)
            return LoopText((f"{indent}for {target} in {over}:", *body))
        rows = [row[0] if len(row) == 1 else f"({', '.join(row)})" for row in turns.rows]
        before, after = "[", "]"
        if turns.start is not None:
            before, after = "enumerate([", "])" if turns.start == 0 else f"], start={turns.start})"
        inline = f"{indent}for {target} in {before}{', '.join(rows)}{after}:"
        if len(inline) <= WIDTH:
            return LoopText((inline, *body))
        listed = _packed(rows, indent + self.style.indent)
        return LoopText((f"{indent}for {target} in {before}", *listed, f"{indent}{after}:", *body))

    def function(
        self,
        name: str,
        parameters: Sequence[Variable],
        body: Sequence[str],
        returned: Sequence[Variable],
        beside: int,
    ) -> list[str]:
        indent = self.function_indent(beside)
        lines = [f"{indent}def {name}({', '.join(p.name for p in parameters)}):", *body]
        if returned:
            lines.append(f"{indent}{self.style.indent}return {', '.join(r.name for r in returned)}")
        return lines

    def choice(self, flag: str, yes: Sequence[str], no: Sequence[str], indent: str) -> list[str]:
        if not yes:
            return [f"{indent}if not {flag}:", *no]
        return [f"{indent}if {flag}:", *yes, *([f"{indent}else:", *no] if no else [])]

    def leaving(self, call: str, asked: str, jump: str, indent: str) -> list[str]:
        inner = f"{indent}{self.style.indent}{jump}"
        return [call, f"{indent}if {asked} is None:", inner] if asked else [f"{indent}if not {call.strip()}:", inner]

    def given_up(self, count: int) -> str:
        return f"return {', '.join(['None'] * count) or 'False'}"

    def truth(self, value: bool) -> str:
        return str(value)

    def outer_declaration(self, names: Sequence[str]) -> str:
        return f"global {', '.join(names)}"

    def table(self, name: str, entries: Sequence[str], indent: str) -> list[str]:
        whole = f"{indent}{name} = {{{', '.join(entries)}}}"
        if len(whole) <= WIDTH:
            return [whole]
        return [f"{indent}{name} = {{", *_packed(entries, indent + self.style.indent), f"{indent}}}"]

    def looked_up(self, name: str, variable: str, before: str, otherwise: str, indent: str) -> list[str]:
        if otherwise:
            return [f"{indent}{before}{name}.get({variable}, {otherwise})"]
        return [f"{indent}if {variable} in {name}:", f"{indent}{self.style.indent}{before}{name}[{variable}]"]

    def function_indent(self, beside: int) -> str:
        return leading_space(self.file, beside) if beside else ""

    def call(
        self,
        name: str,
        arguments: Sequence[str],
        targets: Sequence[str],
        indent: str,
        declares: str = "",
    ) -> str:
        call = f"{name}({', '.join(arguments)})"
        return f"{indent}{', '.join(targets)} = {call}" if targets else f"{indent}{call}"


def formatted_string(parts: Sequence[str], gaps: Mapping[int, Gap]) -> str:
    """A plain string literal of these parts with expressions in the place of some.

    >>> formatted_string(['"gate ', "3", ' of {9}"'], {1: Gap("i")})
    'f"gate {i} of {{9}}"'
    """
    out = []
    for k, part in enumerate(parts):
        out.append(f"{{{gaps[k].expression}}}" if k in gaps else part.replace("{", "{{").replace("}", "}}"))
    return "f" + "".join(out)


def value_in_product(expression: str) -> str:
    """An expression as it is written beside `*`."""
    return expression if re.fullmatch(r"\w+", expression) else f"({expression})"


def value_text(file: ProgramFile, node: int, expression: str) -> str:
    """An expression as it must be written in the place of `node`: in parentheses where needed."""
    simple = re.fullmatch(r"\w+", expression) is not None
    parent = file.tree.parent[node]
    reckoned = (
        re.fullmatch(r"\w+( [-+*] \w+)+", expression) is not None and file.tree.kind[parent] == "comparison_operator"
    )
    if simple or reckoned or file.tree.kind[parent] in SAFE_PARENTS:
        return expression
    return f"({expression})"


def counting_range(first: int, step: int, count: int) -> str:
    """A range of `count` numbers from `first` by `step`; its end is the first number not reached.

    >>> counting_range(0, 1, 5), counting_range(6, 4, 4), counting_range(310, -40, 3)
    ('range(5)', 'range(6, 19, 4)', 'range(310, 229, -40)')
    """
    last = first + step * (count - 1)
    stop = last + (1 if step > 0 else -1)
    if step == 1:
        return f"range({stop})" if first == 0 else f"range({first}, {stop})"
    return f"range({first}, {stop}, {step})"


def _packed(rows: Sequence[str], indent: str) -> list[str]:
    lines: list[str] = []
    for row in rows:
        if lines and len(lines[-1]) + len(row) + 2 <= WIDTH:
            lines[-1] += f" {row},"
        else:
            lines.append(f"{indent}{row},")
    return lines
