"""The rubric: a criterion maps one measure to a level, with the evidence in words."""

from __future__ import annotations

from collections.abc import Mapping, Sequence

import msgspec

from .measures import MEASURES


class Level(msgspec.Struct, frozen=True, forbid_unknown_fields=True, omit_defaults=True):
    """One level of a criterion; it holds when the measure reaches it."""

    points: float
    text: str = ""
    at_most: float | None = None
    at_least: float | None = None

    def holds(self, value: float) -> bool:
        """True where the measure's value reaches this level."""
        tiny = 1e-9
        if self.at_most is not None:
            return value <= self.at_most + tiny
        if self.at_least is not None:
            return value >= self.at_least - tiny
        return True


class Criterion(msgspec.Struct, frozen=True, forbid_unknown_fields=True):
    """One line of the rubric; levels best first."""

    id: str
    title: str
    measure: str
    points: float
    levels: tuple[Level, ...]


class Score(msgspec.Struct, frozen=True):
    """A criterion's outcome. `level` counts from 1, best first; None where a person must judge."""

    criterion: str
    level: int | None
    points: float | None
    of: float
    because: str


def score(criteria: Sequence[Criterion], measures: Mapping[str, float]) -> tuple[Score, ...]:
    """Every criterion's level and points, with the evidence."""
    return tuple(_score(criterion, measures) for criterion in criteria)


def _score(criterion: Criterion, measures: Mapping[str, float]) -> Score:
    if criterion.measure == "manual":
        return Score(criterion.id, None, None, criterion.points, "A person judges this one.")
    value = measures[criterion.measure]
    for number, level in enumerate(criterion.levels, 1):
        if level.holds(value):
            return Score(criterion.id, number, level.points, criterion.points, evidence(criterion.measure, value))
    return Score(criterion.id, len(criterion.levels), 0, criterion.points, evidence(criterion.measure, value))


def evidence(measure: str, value: float) -> str:
    """The measure's value as a sentence.

    >>> evidence("repeated_share", 0.42)
    'Repeated share: 42 %.'
    """
    record = MEASURES[measure]
    return f"{record.title}: {formatted(measure, value)}."


def formatted(measure: str, value: float) -> str:
    """The value with its unit, as people read it."""
    unit = MEASURES[measure].unit
    if unit == "share":
        return f"{value * 100:.0f} %"
    number = f"{value:g}"
    return number if unit == "count" else f"{number} {unit}"


def totals(scores: Sequence[Score]) -> tuple[float, float]:
    """Points given so far, and points that can be had; criteria not yet judged count to neither."""
    judged = [s for s in scores if s.points is not None]
    return sum(s.points or 0 for s in judged), sum(s.of for s in judged)
