"""A suggestion before it is proved: the edits, the claim, and what to tell about it."""

from __future__ import annotations

import msgspec

from ..program.program import ProgramFile
from ..records import SlotColumn
from ..repeats.slots import Table
from ..source import Source
from .edits import Edit
from .proof import Claim


class InFile(msgspec.Struct, frozen=True, eq=False):
    """What changes in one file."""

    file: ProgramFile
    edits: tuple[Edit, ...]


class Candidate(msgspec.Struct, frozen=True, kw_only=True, eq=False):
    """`subject` is the table (or the procedure's node) the candidate was made for."""

    kind: str
    title: str
    file: ProgramFile
    edits: tuple[Edit, ...]
    claim: Claim
    slots: tuple[SlotColumn, ...]
    table: Table | None = None
    name: str = ""
    parameters: tuple[str, ...] = ()
    """What a new function is given."""
    is_listing: bool = False
    """It keeps numbered variables in a list."""
    via: Candidate | None = None
    """A candidate that comes first: `file` is what it gives."""
    others: tuple[InFile, ...] = ()
    """What changes in further files of the program."""
    created: Source | None = None
    """A file that has to be made."""
    plainer: Candidate | None = None
    """The same in more lines, for where this one cannot be proved."""
