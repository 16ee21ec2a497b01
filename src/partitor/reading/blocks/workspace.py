"""Workspaces of jigsaw blocks, as XML (`<block type>`) and as JSON (`{"blocks": {"blocks": […]}}`)."""

from __future__ import annotations

import json
import xml.etree.ElementTree as ET
from collections.abc import Mapping, Sequence
from typing import Any

import msgspec

from ...errors import UnreadableSubmission
from .model import (
    DEEPEST,
    SIGNS,
    Block,
    Sheet,
    Stack,
    call,
    literal,
    mapping,
    name_of,
    operation,
    refuse_too_many,
    sequence,
    with_inputs,
)


class Jigsaw(msgspec.Struct, frozen=True):
    """One block of a workspace, whichever format it came in."""

    type: str
    fields: dict[str, str]
    values: dict[str, Jigsaw]
    statements: dict[str, tuple[Jigsaw, ...]]
    parameters: tuple[str, ...] = ()
    called: str = ""


def read_workspace_xml(data: bytes) -> list[Sheet]:
    """The one sheet of an XML workspace. Raises UnreadableSubmission for what is none."""
    root = parsed_xml(data)
    return [_sheet([_xml_chain(b, 0) for b in root if _tag(b) == "block"])]


def parsed_xml(data: bytes) -> ET.Element:
    """The root of an XML file without a document type, which could make a small file a huge one."""
    if b"<!DOCTYPE" in data or b"<!ENTITY" in data:
        raise UnreadableSubmission("holds a document type, which block programs never have")
    try:
        root = ET.fromstring(data)
        refuse_too_many(sum(_tag(element) in ("block", "shadow", "custom-block") for element in root.iter()))
        return root
    except ET.ParseError as problem:
        line = problem.position[0]
        raise UnreadableSubmission(f"is not whole XML (line {line})") from problem
    except (ValueError, LookupError) as problem:
        raise UnreadableSubmission("is XML in an encoding that is not read") from problem


def read_workspace_json(data: bytes) -> list[Sheet]:
    """The one sheet of a JSON workspace. Raises UnreadableSubmission for what is none."""
    try:
        workspace = json.loads(data)
    except (ValueError, RecursionError) as problem:
        raise UnreadableSubmission("is not whole JSON") from problem
    blocks = mapping(mapping(workspace).get("blocks")).get("blocks")
    if not isinstance(blocks, list):
        raise UnreadableSubmission("holds no blocks")
    return [_sheet([_json_chain(b, 0) for b in blocks if isinstance(b, dict)])]


def _tag(element: ET.Element) -> str:
    return element.tag.rpartition("}")[2]


def _xml_chain(element: ET.Element | None, depth: int) -> tuple[Jigsaw, ...]:
    """A block and those below it."""
    chain = []
    while element is not None:
        chain.append(_from_xml(element, depth))
        below = next((child for child in element if _tag(child) == "next"), None)
        element = _inner_block(below) if below is not None else None
    return tuple(chain)


def _inner_block(holder: ET.Element) -> ET.Element | None:
    """The block that a value, a statement or a next holds: a real one before the one that shows through it."""
    inner = [child for child in holder if _tag(child) in ("block", "shadow")]
    return min(inner, key=lambda child: _tag(child) == "shadow", default=None)


def _from_xml(element: ET.Element, depth: int) -> Jigsaw:
    fields: dict[str, str] = {}
    values: dict[str, Jigsaw] = {}
    statements: dict[str, tuple[Jigsaw, ...]] = {}
    parameters, called = [], ""
    for child in element:
        kind, name = _tag(child), child.get("name", "")
        inner = _inner_block(child)
        if kind == "mutation":
            called = child.get("name", "")
            parameters = [a.get("name", "") for a in child if _tag(a) == "arg"]
        elif kind == "field":
            fields[name] = child.text or ""
        elif inner is not None and depth < DEEPEST:
            if kind == "value":
                values[name] = _from_xml(inner, depth + 1)
            elif kind == "statement":
                statements[name] = _xml_chain(inner, depth + 1)
    return Jigsaw(element.get("type", "block"), fields, values, statements, tuple(parameters), called)


def _json_chain(block: Mapping[str, Any], depth: int) -> tuple[Jigsaw, ...]:
    """A block and those below it."""
    chain = []
    while block:
        chain.append(_from_json(block, depth))
        block = mapping(mapping(block.get("next")).get("block"))
    return tuple(chain)


def _from_json(block: Mapping[str, Any], depth: int) -> Jigsaw:
    state = mapping(block.get("extraState"))
    parameters = [str(p.get("name", p) if isinstance(p, dict) else p) for p in sequence(state.get("params"))]
    values: dict[str, Jigsaw] = {}
    statements: dict[str, tuple[Jigsaw, ...]] = {}
    for name, given in mapping(block.get("inputs")).items() if depth < DEEPEST else ():
        inner = mapping(mapping(given).get("block") or mapping(given).get("shadow"))
        if inner and _holds_statements(name, inner):
            statements[name] = _json_chain(inner, depth + 1)
        elif inner:
            values[name] = _from_json(inner, depth + 1)
    fields = {
        k: str(v.get("name", v.get("id", "")) if isinstance(v, dict) else v)
        for k, v in mapping(block.get("fields")).items()
    }
    return Jigsaw(
        str(block.get("type", "block")), fields, values, statements, tuple(parameters), str(state.get("name", ""))
    )


def _holds_statements(name: str, inner: Mapping[str, Any]) -> bool:
    """JSON does not tell stacks from values: the input's usual names do, or a block with a next one."""
    return name.startswith(("DO", "ELSE", "STACK", "SUBSTACK", "STATEMENT", "BODY")) or "next" in inner


# -- to stacks -------------------------------------------------------------------------------------


def _sheet(stacks: Sequence[tuple[Jigsaw, ...]]) -> Sheet:
    return Sheet("workspace", tuple(_stack(stack, len(stacks)) for stack in stacks))


def _stack(blocks: tuple[Jigsaw, ...], count: int) -> Stack:
    top, *below = blocks
    if top.type.startswith("procedures_def"):
        body = _chain(top.statements.get("STACK", ()))
        if "RETURN" in top.values:
            body = (*body, Block(f"return {_expression(top.values['RETURN'])}"))
        return Stack(top.fields.get("NAME", "custom block"), top.parameters, with_inputs(body, top.parameters))
    hat = top.type.startswith(("when", "on_", "event")) or "_when" in top.type or "start" in top.type
    if hat:
        inside = next(iter(top.statements.values()), ())
        words = ["when", top.type.replace("when", ""), *top.fields.values()]
        return Stack(" ".join(words), (), (*_chain(inside), *_chain(below)))
    alone = count == 1
    return Stack("main" if alone else top.type, (), _chain(blocks), runs=alone)


def _chain(blocks: Sequence[Jigsaw]) -> tuple[Block, ...]:
    return tuple(_block(block) for block in blocks)


def _block(block: Jigsaw) -> Block:
    kind = block.type
    values = [_expression(v) for v in block.values.values()]
    if kind in ("variables_set", "math_change"):
        sign = "=" if kind == "variables_set" else "+="
        return Block(f"my.{name_of(block.fields.get('VAR', 'value'))} {sign} {values[0] if values else 0}")
    if kind.startswith("controls_if"):
        return _branches(block)
    if kind == "procedures_ifreturn":
        return Block(f"if {values[0] if values else 'False'}:", (("", (Block("return"),)),))
    if kind.startswith("procedures_call"):
        return Block(call(block.called or block.fields.get("NAME", "custom block"), values))
    if block.statements:
        fields = [literal(v) for v in block.fields.values()]
        body = tuple(("", _chain(s)) for s in block.statements.values())
        return Block(f"while {call(kind.removeprefix('controls_'), [*fields, *values])}:", body[:1])
    return Block(_call(block, values))


def _branches(block: Jigsaw) -> Block:
    """An `if` with as many branches as it has."""
    inner: list[tuple[str, tuple[Block, ...]]] = []
    count = 0
    while f"IF{count}" in block.values or f"DO{count}" in block.statements:
        test = _expression(block.values[f"IF{count}"]) if f"IF{count}" in block.values else "False"
        inner.append((f"elif {test}:" if count else test, _chain(block.statements.get(f"DO{count}", ()))))
        count += 1
    if not inner:
        inner.append(("False", ()))
    if "ELSE" in block.statements:
        inner.append(("else:", _chain(block.statements["ELSE"])))
    first, body = inner[0]
    return Block(f"if {first}:", (("", body), *inner[1:]))


def _call(block: Jigsaw, values: Sequence[str]) -> str:
    return call(block.type, [*(literal(v) for v in block.fields.values()), *values])


def _expression(block: Jigsaw) -> str:
    kind = block.type
    values = [_expression(v) for v in block.values.values()]
    if kind in ("math_number", "text", "logic_boolean"):
        value = next(iter(block.fields.values()), "")
        return {"TRUE": "True", "FALSE": "False"}.get(value, literal(value))
    if kind == "variables_get":
        return f"my.{name_of(block.fields.get('VAR', 'value'))}"
    sign = SIGNS.get(block.fields.get("OP", "").lower())
    if kind in ("math_arithmetic", "logic_compare", "logic_operation") and sign:
        return operation(sign, values)
    if kind == "logic_negate" and values:
        return f"(not {values[0]})"
    if kind.startswith("procedures_call"):
        return call(block.called or "custom block", values)
    if not values and len(block.fields) == 1 and not block.statements:
        return literal(next(iter(block.fields.values())))
    return _call(block, values)
