"""Projects as one XML file: sprites with scripts of `<block s="…">`, and definitions of custom blocks."""

from __future__ import annotations

import re
import xml.etree.ElementTree as ET
from collections.abc import Iterator

from .model import DEEPEST, Block, Sheet, Stack, call, literal, name_of, with_inputs
from .workspace import parsed_xml

STARTS = re.compile(r"receive|when", re.IGNORECASE)


def read_project(data: bytes) -> list[Sheet]:
    """The sprites, the stage, and the custom blocks of a project. Raises UnreadableSubmission for what is none."""
    root = parsed_xml(data)
    sheets = []
    shared = tuple(_definition(d) for d in root.iter("block-definition"))
    if shared:
        sheets.append(Sheet("custom blocks", shared))
    for owner in root.iter():
        if owner.tag not in ("sprite", "stage"):
            continue
        scripts = owner.find("scripts")
        stacks = [_stack(s) for s in (scripts if scripts is not None else ()) if s.tag == "script" and len(s)]
        if stacks:
            sheets.append(Sheet(owner.get("name", owner.tag), tuple(stacks)))
    return sheets


def _definition(element: ET.Element) -> Stack:
    words = element.get("s", "custom block")
    names = re.findall(r"%'([^']*)'", words)
    script = element.find("script")
    return Stack(re.sub(r"%'[^']*'", " ", words), tuple(names), with_inputs(tuple(_chain(script, 0)), names))


def _stack(script: ET.Element) -> Stack:
    first = script[0]
    words = first.get("s", first.tag)
    if STARTS.match(words):
        said = [part.text or "" for part in first.iter("l") if part.text]
        return Stack(" ".join(["when", words.removeprefix("receive"), *said]), (), tuple(_chain(script, 0, skip=1)))
    return Stack(words, (), tuple(_chain(script, 0)), runs=False)


def _chain(script: ET.Element | None, depth: int, skip: int = 0) -> Iterator[Block]:
    for block in list(script if script is not None else ())[skip:]:
        if block.tag in ("block", "custom-block") and depth < DEEPEST:
            yield _block(block, depth)


def _block(block: ET.Element, depth: int) -> Block:
    words = _words(block)
    scripts = [child for child in block if child.tag == "script"]
    values = [_value(child, depth) for child in block if child.tag != "script" and child.tag != "comment"]
    if words in ("doSetVar", "doChangeVar") and len(values) == 2:
        sign = "=" if words == "doSetVar" else "+="
        return Block(f"my.{name_of(values[0].strip(chr(34)))} {sign} {values[1]}")
    if words in ("doIf", "doIfElse"):
        bodies = [tuple(_chain(s, depth + 1)) for s in scripts] or [()]
        heads = ["", "else:"][: len(bodies)]
        return Block(f"if {values[0] if values else 'False'}:", tuple(zip(heads, bodies, strict=False)))
    if scripts:
        return Block(f"while {call(words, values)}:", (("", tuple(_chain(scripts[0], depth + 1))),))
    return Block(call(words, values))


def _words(block: ET.Element) -> str:
    return re.sub(r"%\w+", " ", block.get("s", block.get("var", "block")))


def _value(element: ET.Element, depth: int) -> str:
    if element.tag in ("block", "custom-block") and depth < DEEPEST:
        if element.get("var") is not None:
            return f"my.{name_of(element.get('var', ''))}"
        return call(_words(element), [_value(child, depth + 1) for child in element if child.tag != "comment"])
    inner = next(iter(element), None)
    if inner is not None and depth < DEEPEST:
        return _value(inner, depth + 1)
    return literal(element.text or "")
