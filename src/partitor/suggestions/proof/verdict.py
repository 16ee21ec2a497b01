"""What is claimed, and what the proof says of it."""

from __future__ import annotations

from enum import Enum

import msgspec


class NewLoop(msgspec.Struct, frozen=True):
    """The loop that begins on `line` (1-based, of the rewritten file) was introduced."""

    path: str
    line: int
    tables: tuple[str, ...] = ()
    """Lists that were introduced right before it."""
    declared: tuple[str, ...] = ()
    """Variables that were declared, without a value, right before it."""
    private: tuple[str, ...] = ()
    """Variables inside it that each copy calls by a name of its own."""


class NewFunction(msgspec.Struct, frozen=True):
    """The function `name` was introduced and is called in place of its copies."""

    path: str
    name: str
    declared: tuple[str, ...] = ()
    """Variables that it declares for itself although the copies did not."""
    home: str = ""
    """The class whose method it is, where it is given its object by name."""


class NewFunctions(msgspec.Struct, frozen=True):
    """Several functions were introduced, each called in one place."""

    path: str
    functions: tuple[NewFunction, ...]


class Leaving(Enum):
    """How copies leave what they stand in, and what becomes of it."""

    AT_TIMES = "at times"
    """A test behind the call leaves."""
    ALWAYS = "always"
    """What the call gives is returned."""
    AT_ITS_END = "at its end"
    """Nothing would follow on the copy anyway."""


class LeavingFunction(msgspec.Struct, frozen=True):
    """The function `name` was introduced for copies that leave what they stand in."""

    path: str
    name: str
    how: Leaving
    declared: tuple[str, ...] = ()
    """Variables that it declares for itself although the copies did not."""
    home: str = ""
    """The class whose method it is, where it is given its object by name."""


class CalledFunction(msgspec.Struct, frozen=True):
    """The function `name`, which was there already, is called in place of copies of its body."""

    path: str
    name: str
    home: str = ""
    """The other file in which it stands, where it does."""


class SharedFunction(msgspec.Struct, frozen=True):
    """The function `name` was introduced in the file at `path`, and is called in several files in place of its
    copies."""

    path: str
    name: str
    declared: tuple[str, ...] = ()
    """Variables that it declares for itself although the copies did not."""
    home: str = ""
    """The class by whose name it is called, where functions are methods."""


class MovedFunction(msgspec.Struct, frozen=True):
    """The function `name`, which stood in several files alike, stands in the one at `path` only."""

    path: str
    name: str


class MergedFunctions(msgspec.Struct, frozen=True):
    """The function `name` replaces the functions `removed`, whose calls were rewritten."""

    path: str
    name: str
    removed: tuple[str, ...]
    home: str = ""
    """The class whose methods they are, where these are given their object by name."""


class PulledUp(msgspec.Struct, frozen=True):
    """The method `name` stands in the class `home`, on which the `classes` build that each had it."""

    path: str
    name: str
    home: str
    classes: tuple[str, ...]


class NewBase(msgspec.Struct, frozen=True):
    """The class `name` was introduced, with the `methods` that each of the `classes` had, which build on it now."""

    path: str
    name: str
    methods: tuple[str, ...]
    classes: tuple[str, ...]


class RenamedFunction(msgspec.Struct, frozen=True):
    """The function `old` is called `name` everywhere."""

    path: str
    name: str
    old: str


class RenamedVariables(msgspec.Struct, frozen=True):
    """All variables called `old` are called `name`."""

    path: str
    name: str
    old: str


class ValueFunction(msgspec.Struct, frozen=True):
    """The function `name` was introduced, and is called in the place of values."""

    path: str
    name: str


class GivenBack(msgspec.Struct, frozen=True):
    """What the function `name` gives is returned at once where it was first given to a variable."""

    path: str
    name: str


class NamedValue(msgspec.Struct, frozen=True):
    """A value inside a statement was given to the variable `name` right above it."""

    path: str
    name: str


class KeyedBranches(msgspec.Struct, frozen=True):
    """One branch for all keys of the dictionary `name` stands for one branch a key."""

    path: str
    name: str


class ListedVariables(msgspec.Struct, frozen=True):
    """The list, or the dictionary, `name` holds what the variables held, in their order."""

    path: str
    name: str
    variables: tuple[str, ...]


class JoinedBranches(msgspec.Struct, frozen=True):
    """The branch that begins on `line` (1-based, of the rewritten file) stands for several that did the same."""

    path: str
    line: int


class LookedUp(msgspec.Struct, frozen=True):
    """The table `name` was introduced, and is looked into in place of branches that each gave a literal for one."""

    path: str
    name: str


Claim = (
    NewLoop
    | LookedUp
    | JoinedBranches
    | NewFunction
    | NewFunctions
    | LeavingFunction
    | SharedFunction
    | MovedFunction
    | CalledFunction
    | MergedFunctions
    | PulledUp
    | NewBase
    | KeyedBranches
    | RenamedFunction
    | RenamedVariables
    | GivenBack
    | NamedValue
    | ValueFunction
    | ListedVariables
)


class Verdict(msgspec.Struct, frozen=True):
    """`proved`, or the reason for the refusal as a clause that can follow "because"."""

    proved: bool
    reason: str = ""


class Refused(Exception):
    """Raised anywhere inside the proof; the message is the verdict's reason."""
