"""Projects as an archive (.sb3): a ZIP with `project.json`, whose blocks are a table by their ids."""

from __future__ import annotations

import io
import json
import re
import zipfile
from collections.abc import Mapping
from typing import Any

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
)

MOST_BYTES = 20_000_000
BRANCHES = ("SUBSTACK", "SUBSTACK2")
Table = Mapping[str, Any]


def read_archive(data: bytes) -> list[Sheet]:
    """The sprites and the stage. Raises UnreadableSubmission for what is no such project."""
    try:
        with zipfile.ZipFile(io.BytesIO(data)) as archive, archive.open("project.json") as stream:
            text = stream.read(MOST_BYTES + 1)
        if len(text) > MOST_BYTES:
            raise UnreadableSubmission("holds a project.json that is too large to read")
        project = json.loads(text)
    except UnreadableSubmission:
        raise
    except Exception as problem:  # decoders of damaged data raise errors of every kind; each means the same here
        raise UnreadableSubmission("is not a whole project: no project.json can be read in it") from problem
    targets = mapping(project).get("targets")
    if not isinstance(targets, list):
        raise UnreadableSubmission("is not a project with sprites")
    sprites = [_Sprite(t) for t in targets if isinstance(t, dict) and isinstance(t.get("blocks"), dict)]
    refuse_too_many(sum(len(sprite.blocks) for sprite in sprites))
    return [sprite.sheet() for sprite in sprites]


class _Sprite:
    def __init__(self, target: Table) -> None:
        self.name = str(target.get("name", "sprite"))
        self.blocks: Table = {k: b for k, b in target["blocks"].items() if isinstance(b, dict)}
        self.placed: set[str] = set()
        """Ids of the blocks that have their place. A block has one parent; where a damaged file names two, it is left
        out of the second, or a small file could hold a program without end."""

    def sheet(self) -> Sheet:
        tops = [(k, b) for k, b in self.blocks.items() if b.get("topLevel") and not b.get("shadow")]
        return Sheet(self.name, tuple(self._stack(k, b) for k, b in tops))

    def _stack(self, key: str, top: Table) -> Stack:
        opcode = str(top.get("opcode", ""))
        if opcode == "procedures_definition":
            prototype = self._input_block(top, "custom_block")
            mutation = mapping(mapping(prototype).get("mutation"))
            names = _json_list(mutation.get("argumentnames"))
            return Stack(_spoken(str(mutation.get("proccode", "custom block"))), tuple(names), self._chain(top, 0))
        hat = "_when" in opcode or opcode.startswith("when") or opcode == "control_start_as_clone"
        if hat:
            fields = [literal(_field(v)).strip('"') for v in mapping(top.get("fields")).values()]
            return Stack(" ".join(["when", _plain(opcode).removeprefix("when"), *fields]), (), self._chain(top, 0))
        return Stack(_plain(opcode), (), self._chain_from(key, 0), runs=False)

    # -- blocks ------------------------------------------------------------------------------------

    def _chain(self, top: Table, depth: int) -> tuple[Block, ...]:
        """The blocks below `top`."""
        return self._chain_from(top.get("next"), depth)

    def _chain_from(self, key: object, depth: int) -> tuple[Block, ...]:
        chain: list[Block] = []
        while isinstance(key, str) and key in self.blocks and key not in self.placed and depth < DEEPEST:
            self.placed.add(key)
            block = self.blocks[key]
            chain.append(self._block(block, depth))
            key = block.get("next")
        return tuple(chain)

    def _block(self, block: Table, depth: int) -> Block:
        opcode = str(block.get("opcode", ""))
        inputs = mapping(block.get("inputs"))
        values = [self._value(v, depth) for k, v in inputs.items() if k not in BRANCHES]
        inner = [self._chain_from(_target(inputs[k]), depth + 1) for k in BRANCHES if k in inputs]
        if opcode in ("data_setvariableto", "data_changevariableby"):
            sign = "=" if opcode == "data_setvariableto" else "+="
            return Block(f"my.{name_of(_first_field(block))} {sign} {values[0] if values else 0}")
        if opcode in ("control_if", "control_if_else"):
            heads = ["", "else:"][: 2 if opcode == "control_if_else" else 1]
            bodies = [*inner, *[()] * len(heads)][: len(heads)]
            return Block(f"if {values[0] if values else 'False'}:", tuple(zip(heads, bodies, strict=True)))
        if inner or opcode.startswith(("control_repeat", "control_forever", "control_while")):
            return Block(f"while {call(_plain(opcode), values)}:", (("", inner[0] if inner else ()),))
        return Block(self._spoken_call(block, values))

    def _spoken_call(self, block: Table, values: list[str]) -> str:
        opcode = str(block.get("opcode", ""))
        if opcode == "procedures_call":
            return call(_spoken(str(mapping(block.get("mutation")).get("proccode", "custom block"))), values)
        fields = [literal(_field(v)) for v in mapping(block.get("fields")).values()]
        return call(_plain(opcode), [*fields, *values])

    # -- values ------------------------------------------------------------------------------------

    def _value(self, given: object, depth: int) -> str:
        """An input: a literal, a variable, or a block that gives a value."""
        shown = given[1] if isinstance(given, list) and len(given) > 1 else None
        if isinstance(shown, str):
            block = self.blocks.get(shown)
            if block is None or shown in self.placed or depth >= DEEPEST:
                return '""'
            self.placed.add(shown)
            return self._expression(block, depth + 1)
        if isinstance(shown, list) and len(shown) > 1:
            return f"my.{name_of(str(shown[1]))}" if shown[0] in (12, 13) else literal(shown[1])
        return '""'

    def _expression(self, block: Table, depth: int) -> str:
        opcode = str(block.get("opcode", ""))
        values = [self._value(v, depth) for v in mapping(block.get("inputs")).values()]
        if opcode.startswith("argument_reporter"):
            return name_of(_first_field(block))
        sign = SIGNS.get(opcode.removeprefix("operator_"))
        if opcode.startswith("operator_") and sign:
            return operation(sign, values)
        if opcode == "operator_not" and values:
            return f"(not {values[0]})"
        if block.get("shadow") and not values and block.get("fields"):
            return literal(_first_field(block))
        return self._spoken_call(block, values)

    def _input_block(self, block: Table, name: str) -> Table | None:
        found = _target(mapping(block.get("inputs")).get(name))
        return self.blocks.get(found) if isinstance(found, str) else None


def _target(given: object) -> object:
    return given[1] if isinstance(given, list) and len(given) > 1 else None


def _field(given: object) -> object:
    return given[0] if isinstance(given, list) and given else given


def _first_field(block: Table) -> str:
    return str(next((_field(v) for v in mapping(block.get("fields")).values()), "value"))


def _plain(opcode: str) -> str:
    """An opcode without its group: `motion_movesteps` → `movesteps`."""
    return opcode.partition("_")[2] or opcode or "block"


def _spoken(proccode: str) -> str:
    """A custom block's words without the places of its inputs."""
    return re.sub(r"%[snb]", " ", proccode)


def _json_list(text: object) -> list[str]:
    try:
        found = json.loads(text) if isinstance(text, str) else []
    except (ValueError, RecursionError):
        return []
    return [str(x) for x in found] if isinstance(found, list) else []
