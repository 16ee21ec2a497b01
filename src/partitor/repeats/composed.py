"""Texts in which a word and numbers differ that differ elsewhere, too: `"You beat the rat and find 5 gold."`."""

from __future__ import annotations

from collections.abc import Sequence

from msgspec.structs import replace

from ..program.program import ProgramFile
from .columns import QUOTES, Column, Derived, Spot
from .texts import PIECES, is_split_at_numbers, words_in_frame

FEWEST_TEXTS = 3
"""Texts that differ, from which one may be made of two others."""


def with_composed_texts(
    files: Sequence[ProgramFile], columns: list[Column], derived: list[Derived]
) -> tuple[list[Column], list[Derived]]:
    """The columns of copies in these files, without texts of which all that differs stands in other columns: these have
    spots there then."""
    numbers = {c.values: k for k, c in enumerate(columns) if c.numbers is not None and not c.is_target}
    words = {_bare(c): k for k, c in enumerate(columns) if _is_text(c)}
    if len(words) < (2 if numbers else FEWEST_TEXTS):
        return columns, derived
    bases = {id(d.base) for d in derived}
    more: dict[int, list[Spot]] = {}
    gone: set[int] = set()
    for k, column in enumerate(columns):
        whole = _is_text(column) and id(column) not in bases and all(s.is_plain or s.is_part for s in column.spots)
        spots = _spots_elsewhere(files, column, numbers, words) if whole else []
        if spots:
            gone.add(k)
            for at, spot in spots:
                more.setdefault(at, []).append(spot)
    if not gone or not gone.isdisjoint(more):
        return columns, derived
    grown = {k: replace(columns[k], spots=(*columns[k].spots, *spots)) for k, spots in more.items()}
    renewed = {id(columns[k]): column for k, column in grown.items()}
    kept = [grown.get(k, column) for k, column in enumerate(columns) if k not in gone]
    return kept, [replace(d, base=renewed.get(id(d.base), d.base)) for d in derived]


def _is_text(column: Column) -> bool:
    return column.numbers is None and not column.is_target and all(value[:1] in QUOTES for value in column.values)


def _bare(column: Column) -> tuple[str, ...]:
    return tuple([value.strip("\"'") for value in column.values])


def _of_words(
    file: ProgramFile, texts: Sequence[str], nodes: tuple[int, ...], words: dict[tuple[str, ...], int]
) -> list[tuple[int, Spot]]:
    """For each of the words in which texts differ, several of them, which column stands there (`"rock beats paper"`,
    `"paper beats rock"`); [] where another thing differs."""
    parts = is_split_at_numbers(file, texts, nodes)
    if not parts or len(parts[0]) > 1:
        return []
    pieces = [PIECES.findall(text) for text in texts]
    if len(set(map(len, pieces))) > 1:
        return []
    places = list(zip(*pieces, strict=True))
    differing = [k for k, values in enumerate(places) if len(set(values)) > 1]
    at = [words.get(tuple(places[k])) for k in differing]
    if len(differing) < 2:
        return []
    found: list[tuple[int, Spot]] = []
    edges = [-1, *differing, len(places)]
    for n, column in enumerate(at):
        if column is None:
            return []
        before = "".join(pieces[0][edges[n] + 1 : edges[n + 1]])
        after = "".join(pieces[0][edges[n + 1] + 1 :]) if n + 1 == len(at) else ""
        found.append((column, Spot(nodes, 0, before, after, place=n)))
    return found


def _spots_elsewhere(
    files: Sequence[ProgramFile], column: Column, numbers: dict[tuple[str, ...], int], words: dict[tuple[str, ...], int]
) -> list[tuple[int, Spot]]:
    """For each of a text's places, which column stands there; [] where something stands in no column."""
    found: list[tuple[int, Spot]] = []
    for whole in column.spots:
        texts = [f.tree.text[node] for f, node in zip(files, whole.nodes, strict=True)]
        made = _of_words(files[0], texts, whole.nodes, words)
        if made:
            found += made
            continue
        parts = is_split_at_numbers(files[0], texts, whole.nodes)
        places = list(zip(*parts, strict=True)) if parts else []
        differing = [k for k, values in enumerate(places) if len(set(values)) > 1]
        wordy = [k for k in differing if k % 2 == 0]
        if len(wordy) != 1 or len(differing) < 2:
            return []
        for k in differing:
            values = tuple(places[k])
            before, inner, after = words_in_frame(values) if k == wordy[0] else ("", values, "")
            at = words.get(tuple(inner)) if k == wordy[0] else numbers.get(values)
            if at is None:
                return []
            found.append((at, Spot(whole.nodes, k, before, after)))
    return found
