"""The records that pass between the parts of the core, and out of it."""

from __future__ import annotations

import msgspec


class Place(msgspec.Struct, frozen=True):
    """Lines of a file, 1-based, both ends included."""

    file: str
    start_line: int
    end_line: int


class SlotColumn(msgspec.Struct, frozen=True):
    """What differs: one value a copy, as written in the program."""

    name: str
    values: tuple[str, ...]


class Finding(msgspec.Struct, frozen=True, kw_only=True):
    """One opportunity: `rule` is a name of the contract, `weight` orders remarks (statements)."""

    id: str
    rule: str
    message: str
    weight: float
    places: tuple[Place, ...]
    suggestion: str | None = None
    slots: tuple[SlotColumn, ...] = ()
    pattern: str = ""
    """The same text for the same template in any submission."""
    subject: str = ""
    """The procedure or name the finding is about."""
    advice: str = ""
    """What to do, where that is another thing than the rule advises."""
    whole: bool = False
    """The finding is about the program as a whole; its place is only where a reader starts."""


class Change(msgspec.Struct, frozen=True):
    """Lines of the original, 1-based, both ends included (`end_line < start_line` inserts), and what
    they become; `file` where that is another one than the suggestion's."""

    start_line: int
    end_line: int
    text: str
    file: str = ""


class Suggestion(msgspec.Struct, frozen=True, kw_only=True):
    """A refactoring: proved, with its patch; or an outline, without code."""

    id: str
    kind: str
    title: str
    status: str
    lines_before: int
    lines_after: int
    patch: str | None = None
    slots: tuple[SlotColumn, ...] = ()
    path: str = ""
    changes: tuple[Change, ...] = ()
    outline: str = ""
    why_not: str = ""
    """For an outline: the reason there is no proved code."""
    diff: str = ""


class Step(msgspec.Struct, frozen=True):
    """One link of the worked answer: what was done, and the program's code lines after it."""

    kind: str
    title: str
    lines: int


class WorkedAnswer(msgspec.Struct, frozen=True, kw_only=True):
    """All compatible suggestions together."""

    lines_before: int
    lines_after: int
    status: str
    patch: str | None
    steps: tuple[Step, ...] = ()
    files: dict[str, str] = {}
    """Path → the whole text after the last step, for files that changed."""
    diff: str = ""


class Routine(msgspec.Struct, frozen=True):
    """A procedure as the report shows it; name "" is the loose code."""

    file: str
    name: str
    start_line: int
    end_line: int
    statements: int
    calls: tuple[str, ...] = ()
