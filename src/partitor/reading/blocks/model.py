"""What all block languages share, and its text.

The text has the form that the core's own grammar for indented programs reads: a stack is a function
named after the block on top, a custom block is one with inputs, a variable is a field of `my`, which
every stack sees. It is made to be read by people too.
"""

from __future__ import annotations

import keyword
import re
from collections.abc import Mapping, Sequence
from typing import Any

import msgspec

from ...errors import UnreadableSubmission

DEEPEST = 150
"""Blocks inside blocks; what lies deeper is left out."""
MOST_BLOCKS = 20_000
"""Blocks of one program: a large one has some hundreds."""
LONGEST_NAME = 200
"""Characters of a name or text that are shown."""
INDENT = "    "
SIGNS = {
    "add": "+",
    "subtract": "-",
    "minus": "-",
    "multiply": "*",
    "divide": "/",
    "gt": ">",
    "lt": "<",
    "equals": "==",
    "eq": "==",
    "neq": "!=",
    "gte": ">=",
    "lte": "<=",
    "and": "and",
    "or": "or",
    "mod": "%",
}


class Block(msgspec.Struct, frozen=True):
    """A block in a stack: its line, and the stacks inside it, each under its own line."""

    line: str
    inner: tuple[tuple[str, tuple[Block, ...]], ...] = ()
    """(the line of the branch; "" for the block's own, what stands in it)."""


class Stack(msgspec.Struct, frozen=True):
    """Blocks that hang together. `title` is the line of the function that stands for it."""

    name: str
    parameters: tuple[str, ...]
    blocks: tuple[Block, ...]
    runs: bool = True
    """Something starts it, or may call it."""


class Sheet(msgspec.Struct, frozen=True):
    """A sprite, the stage, or a whole workspace."""

    name: str
    stacks: tuple[Stack, ...]


def mapping(given: object) -> Mapping[str, Any]:
    """The value where it is a JSON object, else an empty one: the fields of a damaged file may hold anything."""
    return given if isinstance(given, Mapping) else {}


def sequence(given: object) -> Sequence[Any]:
    """The value where it is a JSON list, else an empty one."""
    return given if isinstance(given, list) else ()


def refuse_too_many(count: int) -> None:
    """Raises UnreadableSubmission where a program has more blocks than are read."""
    if count > MOST_BLOCKS:
        raise UnreadableSubmission(f"holds {count} blocks; up to {MOST_BLOCKS} are read")


def name_of(text: str) -> str:
    """A word that can stand as a name, made of any text.

    >>> name_of("jump to %s!"), name_of("2 high"), name_of("for")
    ('jump_to_s', 'b_2_high', 'for_')
    """
    plain = re.sub(r"\W+", "_", text.strip()[:LONGEST_NAME], flags=re.ASCII).strip("_") or "block"
    plain = f"b_{plain}" if plain[0].isdigit() else plain
    return f"{plain}_" if keyword.iskeyword(plain) else plain


def literal(value: object) -> str:
    """A number as it is, anything else as a text."""
    text = str(value)
    if re.fullmatch(r"-?\d{1,12}(?:\.\d{1,12})?", text):
        return text
    return '"' + text.replace("\\", "/").replace('"', "'").replace("\n", " ")[:LONGEST_NAME] + '"'


def call(name: str, arguments: Sequence[str]) -> str:
    """A block that does something, or gives something back."""
    return f"{name_of(name)}({', '.join(arguments)})"


def operation(sign: str, values: Sequence[str]) -> str:
    """Two values and what stands between them, in brackets."""
    return f"({values[0]} {sign} {values[1]})" if len(values) == 2 else call(sign, values)


def with_inputs(blocks: Sequence[Block], parameters: Sequence[str]) -> tuple[Block, ...]:
    """The blocks of a custom block, whose inputs look like variables in some formats."""
    names = [name_of(p) for p in parameters]

    def mended(line: str) -> str:
        for name in names:
            line = re.sub(rf"\bmy\.{re.escape(name)}\b", name, line)
        return line

    return tuple(
        Block(mended(b.line), tuple((mended(head), with_inputs(inner, parameters)) for head, inner in b.inner))
        for b in blocks
    )


def rendered(sheet: Sheet) -> str:
    """The text of a sheet: one function a stack; what nothing starts is told by its name."""
    parts = []
    taken: dict[str, int] = {}
    for stack in sheet.stacks:
        name = name_of(stack.name) if stack.runs else f"unused_stack_{name_of(stack.name)}"
        taken[name] = taken.get(name, 0) + 1
        if taken[name] > 1:
            name = f"{name}_{taken[name]}"
        lines = [f"def {name}({', '.join(name_of(p) for p in stack.parameters)}):"]
        lines += _lines(stack.blocks, 1) or [f"{INDENT}pass"]
        parts.append("\n".join(lines) + "\n")
    return "\n\n".join(parts)


def _lines(blocks: Sequence[Block], depth: int) -> list[str]:
    out: list[str] = []
    for block in blocks:
        out.append(INDENT * depth + block.line)
        for k, (head, inner) in enumerate(block.inner):
            if head or k:
                out.append(INDENT * depth + (head or "else:"))
            out += _lines(inner, depth + 1) or [INDENT * (depth + 1) + "pass"]
    return out
