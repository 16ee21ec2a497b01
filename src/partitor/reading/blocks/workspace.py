"""Workspaces of jigsaw blocks, as XML (`<block type>`) and as JSON (`{"blocks": {"blocks": […]}}`)."""

from __future__ import annotations

import json
import xml.etree.ElementTree as ET
from collections.abc import Mapping, Sequence
from typing import Any

import msgspec

from ...errors import UnreadableSubmission
from .model import SIGNS, Block, Sheet, Stack, call, literal, name_of, operation, with_inputs

DEEPEST = 150


class Jigsaw(msgspec.Struct, frozen=True):
    """One block of a workspace, whichever format it came in."""

    type: str
    fields: dict[str, str]
    values: dict[str, Jigsaw]
    statements: dict[str, Jigsaw]
    next: Jigsaw | None
    parameters: tuple[str, ...] = ()
    called: str = ""


def read_workspace_xml(data: bytes) -> list[Sheet]:
    """The one sheet of an XML workspace. Raises UnreadableSubmission for what is none."""
    root = parsed_xml(data)
    return [_sheet([_from_xml(b, 0) for b in root if _tag(b) == "block"])]


def parsed_xml(data: bytes) -> ET.Element:
    """The root of an XML file without a document type, which could make a small file a huge one."""
    if b"<!DOCTYPE" in data or b"<!ENTITY" in data:
        raise UnreadableSubmission("holds a document type, which block programs never have")
    try:
        return ET.fromstring(data)
    except ET.ParseError as problem:
        line = problem.position[0]
        raise UnreadableSubmission(f"is not whole XML (line {line})") from problem


def read_workspace_json(data: bytes) -> list[Sheet]:
    """The one sheet of a JSON workspace. Raises UnreadableSubmission for what is none."""
    try:
        workspace = json.loads(data)
    except ValueError as problem:
        raise UnreadableSubmission("is not whole JSON") from problem
    held = workspace.get("blocks", {}) if isinstance(workspace, dict) else {}
    blocks = held.get("blocks") if isinstance(held, dict) else None
    if not isinstance(blocks, list):
        raise UnreadableSubmission("holds no blocks")
    return [_sheet([_from_json(b, 0) for b in blocks if isinstance(b, dict)])]


def _tag(element: ET.Element) -> str:
    return element.tag.rpartition("}")[2]


def _from_xml(element: ET.Element, depth: int) -> Jigsaw:
    fields: dict[str, str] = {}
    values: dict[str, Jigsaw] = {}
    statements: dict[str, Jigsaw] = {}
    below, parameters, called = None, [], ""
    for child in element:
        kind, name = _tag(child), child.get("name", "")
        inner = next((c for c in child if _tag(c) == "block"), None)
        inner = inner if inner is not None else next((c for c in child if _tag(c) == "shadow"), None)
        if kind == "mutation":
            called = child.get("name", "")
            parameters = [a.get("name", "") for a in child if _tag(a) == "arg"]
        elif kind == "field":
            fields[name] = child.text or ""
        elif inner is not None and depth < DEEPEST:
            found = _from_xml(inner, depth + 1)
            if kind == "value":
                values[name] = found
            elif kind == "statement":
                statements[name] = found
            elif kind == "next":
                below = found
    return Jigsaw(element.get("type", "block"), fields, values, statements, below, tuple(parameters), called)


def _from_json(block: Mapping[str, Any], depth: int) -> Jigsaw:
    state = block.get("extraState")
    state = state if isinstance(state, dict) else {}
    parameters = [str(p.get("name", p) if isinstance(p, dict) else p) for p in state.get("params", [])]
    values: dict[str, Jigsaw] = {}
    statements: dict[str, Jigsaw] = {}
    for name, given in block.get("inputs", {}).items() if depth < DEEPEST else ():
        inner = given.get("block") or given.get("shadow") if isinstance(given, dict) else None
        if isinstance(inner, dict):
            holder = statements if _holds_statements(name, inner) else values
            holder[name] = _from_json(inner, depth + 1)
    fields = {
        k: str(v.get("name", v.get("id", "")) if isinstance(v, dict) else v) for k, v in block.get("fields", {}).items()
    }
    below = block.get("next", {}).get("block") if isinstance(block.get("next"), dict) else None
    return Jigsaw(
        str(block.get("type", "block")),
        fields,
        values,
        statements,
        _from_json(below, depth + 1) if isinstance(below, dict) and depth < DEEPEST else None,
        tuple(parameters),
        str(state.get("name", "")),
    )


def _holds_statements(name: str, inner: Mapping[str, Any]) -> bool:
    """JSON does not tell stacks from values: the input's usual names do, or a block with a next one."""
    return name.startswith(("DO", "ELSE", "STACK", "SUBSTACK", "STATEMENT", "BODY")) or "next" in inner


# -- to stacks -------------------------------------------------------------------------------------


def _sheet(tops: Sequence[Jigsaw]) -> Sheet:
    return Sheet("workspace", tuple(_stack(top, len(tops)) for top in tops))


def _stack(top: Jigsaw, count: int) -> Stack:
    if top.type.startswith("procedures_def"):
        body = _chain(top.statements.get("STACK"))
        if "RETURN" in top.values:
            body = (*body, Block(f"return {_expression(top.values['RETURN'])}"))
        return Stack(top.fields.get("NAME", "custom block"), top.parameters, with_inputs(body, top.parameters))
    hat = top.type.startswith(("when", "on_", "event")) or "_when" in top.type or "start" in top.type
    if hat:
        inside = next(iter(top.statements.values()), None)
        words = ["when", top.type.replace("when", ""), *top.fields.values()]
        return Stack(" ".join(words), (), (*_chain(inside), *_chain(top.next)))
    alone = count == 1
    return Stack("main" if alone else top.type, (), _chain(top), runs=alone)


def _chain(block: Jigsaw | None) -> tuple[Block, ...]:
    chain = []
    while block is not None:
        chain.append(_block(block))
        block = block.next
    return tuple(chain)


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
        inner.append((f"elif {test}:" if count else test, _chain(block.statements.get(f"DO{count}"))))
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
