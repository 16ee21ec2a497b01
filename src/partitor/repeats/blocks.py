"""Copies in separate places, and functions that are alike."""

from __future__ import annotations

from ..frozen import Single
from ..program.program import Procedure, ProgramFile
from .slots import Copy, Table


class RepeatedBlock(Single, frozen=True, eq=False):
    """Copies in separate places. `known`: the first copy is the body of this function, which the others
    could call."""

    table: Table
    known: Procedure | None = None
    holds_rows: bool = False
    """There are runs inside the copies."""
    holds_unlike_rows: bool = False
    """These would become loops that are not alike."""
    nearly: tuple[Copy, ...] = ()
    """Further places that are the same but for one statement."""


class Twins(Single, frozen=True, eq=False):
    """Procedures whose bodies are one template."""

    procedures: tuple[tuple[ProgramFile, Procedure], ...]
    table: Table
    elsewhere: frozenset[str] = frozenset()
    """Names that other files of the program use."""
