"""What never changes once it is made.

Modules that are compiled take `frozen` from here: mypyc knows no keywords of classes.
"""

from __future__ import annotations

import msgspec


class Frozen(msgspec.Struct, frozen=True):
    """Equal to another where its parts are."""


class Single(msgspec.Struct, frozen=True, eq=False):
    """Equal to nothing but itself."""
