"""What an assignment calls too much."""

from __future__ import annotations

import msgspec


class Limits(msgspec.Struct, frozen=True, forbid_unknown_fields=True):
    """What counts as too much; the assignment may set each."""

    procedure_statements: int = 20
    nesting: int = 3
    repeat_statements: int = 3
    run_copies: int = 3
