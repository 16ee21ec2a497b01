"""Prints loops, functions and calls in Python, in the student's own style."""

from __future__ import annotations

import re
from collections import Counter
from collections.abc import Mapping, Sequence

import msgspec

from ...program.program import ProgramFile

SAFE_PARENTS = frozenset(
    {"argument_list", "assignment", "list", "tuple", "keyword_argument", "subscript", "interpolation"}
)
WIDTH = 88


class Style(msgspec.Struct, frozen=True):
    """How this student writes: one indent step, the usual quote, names like_this or likeThis."""

    indent: str = "    "
    quote: str = '"'
    snake_case: bool = True
    blank_lines: int = 2
    docstrings: bool = False


def style_of(file: ProgramFile) -> Style:
    """Read the style off the file; where it is mixed, the commoner habit wins."""
    indents = Counter(_indent_steps(file))
    quotes = Counter(
        text[0]
        for kind, text in zip(file.tree.kind, file.tree.text, strict=True)
        if kind == "string" and text[:1] in ("'", '"')
    )
    names = [p.name for p in file.procedures[1:]] + [
        file.tree.text[i] for i in file.names.nodes if file.names.role[i].name == "WRITE"
    ]
    snake = sum("_" in n.strip("_") for n in names)
    camel = sum(bool(re.search(r"[a-z][A-Z]", n)) for n in names)
    gaps = Counter(_gaps_above_functions(file))
    return Style(
        indent=indents.most_common(1)[0][0] if indents else "    ",
        quote=quotes.most_common(1)[0][0] if quotes else '"',
        snake_case=snake >= camel,
        blank_lines=gaps.most_common(1)[0][0] if gaps else 2,
    )


def _indent_steps(file: ProgramFile) -> list[str]:
    steps = []
    for block in file.blocks:
        if block.node and block.statements:
            inner = leading_space(file, block.statements[0])
            outer = leading_space(file, file.tree.parent[block.node])
            if inner.startswith(outer) and len(inner) > len(outer):
                steps.append(inner[len(outer) :])
    return steps


def _gaps_above_functions(file: ProgramFile) -> list[int]:
    gaps = []
    for procedure in file.procedures[1:]:
        line = procedure.start_line - 2
        while line >= 0 and file.lines[line].lstrip().startswith("#"):
            line -= 1
        count = 0
        while line >= 0 and not file.lines[line].strip():
            count += 1
            line -= 1
        if line >= 0 and not procedure.in_class:
            gaps.append(min(count, 2))
    return gaps


def leading_space(file: ProgramFile, node: int) -> str:
    """The white space at the start of the node's first line."""
    line = file.lines[file.tree.start_line(node) - 1]
    return line[: len(line) - len(line.lstrip())]


def formatted_string(literal: str, replacements: Mapping[int, str]) -> str:
    """A plain string literal with some of its digit groups replaced by expressions.

    >>> formatted_string('"gate 3 of {9}"', {1: "i"})
    'f"gate {i} of {{9}}"'
    """
    parts = re.split(r"(\d+)", literal)
    out = []
    for k, part in enumerate(parts):
        if k in replacements:
            out.append("{" + replacements[k] + "}")
        else:
            out.append(part.replace("{", "{{").replace("}", "}}"))
    return "f" + "".join(out)


def value_text(file: ProgramFile, node: int, expression: str) -> str:
    """An expression as it must be written in the place of `node`: in parentheses where needed."""
    simple = re.fullmatch(r"\w+", expression) is not None
    parent = file.tree.parent[node]
    if simple or file.tree.kind[parent] in SAFE_PARENTS:
        return expression
    return f"({expression})"


def linear(variable: str, factor: int, offset: int) -> str:
    """The text of `factor * variable + offset`.

    >>> linear("i", 40, 10), linear("i", -40, 310), linear("i", 1, 0), linear("i", 1, -2)
    ('40 * i + 10', '310 - 40 * i', 'i', 'i - 2')
    """
    if factor < 0:
        product = variable if factor == -1 else f"{-factor} * {variable}"
        return f"{offset} - {product}"
    product = variable if factor == 1 else f"{factor} * {variable}"
    if offset == 0:
        return product
    return f"{product} + {offset}" if offset > 0 else f"{product} - {-offset}"


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


def loop_lines(
    variables: Sequence[str],
    iterable: str,
    rows: Sequence[str],
    body: Sequence[str],
    indent: str,
    style: Style,
) -> list[str]:
    """A for loop; `iterable` has the rows between its brackets (`[{}]`) or none."""
    target = ", ".join(variables)
    inline = (
        f"{indent}for {target} in {iterable.format(', '.join(rows))}:"
        if rows
        else (f"{indent}for {target} in {iterable}:")
    )
    if len(inline) <= WIDTH or not rows:
        return [inline, *body]
    before, after = iterable.split("{}")
    step = indent + style.indent
    listed = _packed(rows, step)
    return [f"{indent}for {target} in {before}", *listed, f"{indent}{after}:", *body]


def _packed(rows: Sequence[str], indent: str) -> list[str]:
    lines: list[str] = []
    for row in rows:
        if lines and len(lines[-1]) + len(row) + 2 <= WIDTH:
            lines[-1] += f" {row},"
        else:
            lines.append(f"{indent}{row},")
    return lines


def function_lines(
    name: str,
    parameters: Sequence[str],
    body: Sequence[str],
    returned: Sequence[str],
    style: Style,
) -> list[str]:
    """A function definition at the left margin."""
    lines = [f"def {name}({', '.join(parameters)}):", *body]
    if returned:
        lines.append(f"{style.indent}return {', '.join(returned)}")
    return lines


def call_line(name: str, arguments: Sequence[str], targets: Sequence[str], indent: str) -> str:
    """A call, its results assigned where there are any."""
    call = f"{name}({', '.join(arguments)})"
    return f"{indent}{', '.join(targets)} = {call}" if targets else f"{indent}{call}"
