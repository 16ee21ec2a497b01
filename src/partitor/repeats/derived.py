"""Texts that follow from others: they hold them, are the same in other letters, or are a line as long as they."""

from __future__ import annotations

import re
from collections.abc import Callable, Sequence

from ..program.shapes import SAME_SIGNS
from .columns import QUOTES, Column, Derived

IN_LETTERS: dict[str, Callable[[str], str]] = {
    "upper": str.upper,
    "lower": str.lower,
    "capitalize": str.capitalize,
    "title": str.title,
}
"""What the methods give that put a text into other letters."""
PLAIN_TEXT = re.compile(r"""(["'])([^"'`\\{}%$~]*)\1""")


def _plain_texts(column: Column) -> list[str]:
    """What stands between the quotes of a column's texts; [] where they are no plain texts, or only parts of some that
    count."""
    if column.values[0][:1] not in QUOTES or column.is_target:
        return []
    parts = [PLAIN_TEXT.fullmatch(value) for value in column.values]
    found = [part[2] for part in parts if part]
    plain = len(found) == len(parts) and all(spot.group < 0 for spot in column.spots)
    return found if plain else []


def texts_holding_texts(columns: Sequence[Column]) -> list[Derived]:
    """Text columns whose values hold another text column's, with the same words around them in all copies."""
    texts = [(column, inner) for column in columns if (inner := _plain_texts(column))]
    texts.sort(key=lambda t: len(t[1][0]))
    bases: list[tuple[Column, list[str]]] = []
    derived: list[Derived] = []
    for column, values in texts:
        for base, inner in bases:
            around = _around(inner, values)
            if around is not None:
                derived.append(Derived(column, base, *around))
                break
        else:
            bases.append((column, values))
    return derived


def in_other_letters(columns: Sequence[Column], bases: set[int], ways: Sequence[str]) -> list[Derived]:
    """Text columns whose values hold another text column's in capital or small letters, by one of the methods `ways`.
    What others are made of already stays."""
    if not ways:
        return []
    texts = [(column, inner) for column in columns if (inner := _plain_texts(column)) and "".join(inner).isascii()]
    if len(texts) < 2:
        return []
    texts.sort(key=lambda t: (len(t[1][0]), id(t[0]) not in bases, any(v != v.lower() for v in t[1])))
    derived: list[Derived] = []
    known: list[tuple[Column, list[str]]] = []
    for column, values in texts:
        found_here = None
        if id(column) not in bases and all(spot.is_plain or spot.is_part for spot in column.spots):
            found_here = _of_other_letters(column, values, known, ways)
        if found_here is not None:
            derived.append(found_here)
        else:
            known.append((column, values))
    return derived


def _of_other_letters(
    column: Column, values: list[str], bases: Sequence[tuple[Column, list[str]]], ways: Sequence[str]
) -> Derived | None:
    """How a column's values follow from those of one of the `bases`; None where they do not."""
    for base, inner in bases:
        for way in ways:
            other = [IN_LETTERS[way](value) for value in inner]
            if other == inner or not any(map(str.isalpha, "".join(inner))):
                continue
            around = ("", "") if other == values else _around(other, values)
            if around is not None:
                return Derived(column, base, *around, way)
    return None


MOST_TEXTS = 60
"""Texts that differ in copies, and copies, that are compared with each other: where there are more, they are data."""
LONGEST_FRAME = 40
"""Signs by which a line may be longer than the text that differs: what stands around that."""
SHORTEST_LINE = 3
"""Signs of a line below something; fewer may be anything."""


def lines_below(columns: Sequence[Column], taken: set[int]) -> list[Derived]:
    """Text columns that are lines of one sign, as long as another column's text or always so much longer: below the
    heading `"By bird"` stands `"-------"`, below `"By place"` `"--------"`."""
    lines = []
    for column in columns:
        found = [SAME_SIGNS.fullmatch(value) for value in column.values] if column.values[0][:1] in QUOTES else []
        told = [m for m in found if m is not None and not m[4] and len(m[2]) >= SHORTEST_LINE]
        free = id(column) not in taken and not column.is_target and all(spot.is_plain for spot in column.spots)
        if free and len(told) == len(column.values) and len({m[3] for m in told}) == 1:
            lines.append((column, f"{told[0][1]}{told[0][3]}{told[0][1]}", [len(m[2]) for m in told]))
    derived: list[Derived] = []
    gone = {id(column) for column, _, _ in lines}
    for column, sign, lengths in lines if len(columns) > len(lines) else ():
        for base in columns:
            inner = _plain_texts(base) if id(base) not in gone else []
            if not inner:
                continue
            more = {length - len(own) for length, own in zip(lengths, inner, strict=True)}
            if len(more) == 1 and len(set(lengths)) > 1 and 0 <= min(more) <= LONGEST_FRAME:
                derived.append(Derived(column, base, "", "", "", sign, more.pop()))
                break
    return derived


def _around(inner: Sequence[str], values: Sequence[str]) -> tuple[str, str] | None:
    """What stands before and behind the `inner` texts in each of the `values`, the same in all; None where they do not
    hold them so. A single letter has to be a word of its own."""
    first, whole = inner[0], values[0]
    at = whole.find(first) if first else -1
    while at >= 0:
        before, after = whole[:at], whole[at + len(first) :]
        inside = len(first) == 1 and (before[-1:].isalnum() or after[:1].isalnum())
        if not inside and (before + after).strip() and [f"{before}{v}{after}" for v in inner] == list(values):
            return before, after
        at = whole.find(first, at + 1)
    return None
