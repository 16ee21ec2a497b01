"""What differs inside texts: numbers, words, how often a sign stands there."""

from __future__ import annotations

import itertools
import re
from collections.abc import Sequence

from ..program.program import ProgramFile
from ..program.shapes import SAME_SIGNS
from ..program.streams import is_streamed
from .columns import Column, Spot
from .series import shared_start

CODED = re.compile(r"\\[0-9xuUN]")
"""Characters written by their number, whose digits are no numbers."""
DIGIT = re.compile(r"\d")
PLAIN_WORDS = re.compile(r"""[^"'`\\{}%$~\n]+""")


def columns_of_text(file: ProgramFile, texts: tuple[str, ...], nodes: tuple[int, ...]) -> list[Column]:
    """The columns of plain texts that differ only inside; [] where they are better taken whole."""
    grown = _grown(texts, nodes)
    if grown:
        return [grown]
    together = _grown_together(texts, nodes)
    if together:
        return together
    if any(map(DIGIT.search, texts)) and _takes_numbers(file, nodes[0]):
        inside = _numbers_in_strings(file, texts, nodes) or _numbers_and_words(file, texts, nodes)
        if inside:
            return inside
    words = _words_of_format(texts, nodes) if _is_format(file, nodes[0]) else None
    return [words] if words else []


def columns_of_words(file: ProgramFile, texts: tuple[str, ...], nodes: tuple[int, ...]) -> list[Column]:
    """The columns of the words between the gaps of a text."""
    return _numbers_in_strings(file, texts, nodes) or [_words(file, texts, nodes)]


def _words(file: ProgramFile, texts: tuple[str, ...], nodes: tuple[int, ...]) -> Column:
    """The column of words that differ between the gaps of a text: as texts of their own, without what they begin
    and end with alike."""
    before, inner, after = _in_frame(texts)
    quote = file.text_quote
    values = tuple(f"{quote}{t}{quote}" for t in inner)
    return Column(values=values, spots=(Spot(nodes, before=before, after=after),))


WORD_END = re.compile(r"^\W*|\b\W+")


def _in_frame(texts: Sequence[str]) -> tuple[str, list[str], str]:
    """The whole words that all texts begin with, what differs, and those that they end with."""
    before = _alike_at_start(texts)
    after = _alike_at_start([t[len(before) :][::-1] for t in texts])[::-1]
    return before, [t[len(before) : len(t) - len(after)] for t in texts], after


def _alike_at_start(texts: Sequence[str]) -> str:
    """The longest whole words, with what joins them to the next, that all texts begin with and none ends with."""
    shared = shared_start(texts)
    ends = [m.end() for m in WORD_END.finditer(shared) if all(m.end() < len(t) for t in texts)]
    return shared[: max(ends, default=0)]


PIECES = re.compile(r"[^\W\d_]+|\d+|\W|_")


def around_words(texts: Sequence[str]) -> tuple[str, tuple[str, ...], str]:
    """What texts begin with alike, the words in which they differ, and what they end with alike."""
    pieces = [PIECES.findall(text) for text in texts]
    shortest = min(map(len, pieces))
    first = next((k for k in range(shortest) if len({p[k] for p in pieces}) > 1), shortest)
    last = next((k for k in range(shortest - first) if len({p[-1 - k] for p in pieces}) > 1), shortest - first)
    before, after = "".join(pieces[0][:first]), "".join(pieces[0][len(pieces[0]) - last :])
    return before, tuple("".join(p[first : len(p) - last]) for p in pieces), after


FEWEST_GROWN = 3


def _grown(texts: tuple[str, ...], nodes: tuple[int, ...]) -> Column | None:
    """The column of texts of one sign each, evenly more from copy to copy: how many there are."""
    if len(texts) < FEWEST_GROWN:
        return None
    found = [m for m in itertools.takewhile(bool, map(SAME_SIGNS.fullmatch, texts)) if m]
    if len(found) != len(texts) or len({(m[1], m[3], m[4]) for m in found}) != 1:
        return None
    numbers = tuple(len(m[2]) for m in found)
    sign = f"{found[0][1]}{found[0][3]}{found[0][1]}"
    column = Column(
        values=tuple(map(str, numbers)), spots=(Spot(nodes, repeated=sign, after=found[0][4]),), numbers=numbers
    )
    return column if column.step() is not None and not sign[1].isdigit() else None


SIGNS = re.compile(r"""([^\w"'`\\{}%$~])\1*""")
MOST_GROWN = 3
"""Rows of signs in one text."""


def _grown_together(texts: tuple[str, ...], nodes: tuple[int, ...]) -> list[Column]:
    """The columns of texts made of two or three rows of one sign each, of which some get evenly more or less from
    copy to copy: `"   *"`, `"  ***"`, `" *****"`; [] for other texts."""
    if len(texts) < FEWEST_GROWN:
        return []
    rows: list[list[tuple[str, int]]] = []
    for text in texts:
        row = [(m[1], len(m[0])) for m in SIGNS.finditer(text, 1, len(text) - 1)]
        if sum([count for _, count in row]) != len(text) - 2:
            return []
        rows.append(row)
    longest = max(([sign for sign, _ in row] for row in rows), key=len)
    if not 2 <= len(longest) <= MOST_GROWN:
        return []
    counts = [_counts_of(row, longest) for row in rows]
    if len({text[0] for text in texts}) > 1 or any(found is None for found in counts):
        return []
    quote = texts[0][0]
    places = list(zip(*(found for found in counts if found is not None), strict=True))
    parts = tuple(
        f"{quote}{sign * numbers[0]}{quote}" if len(set(numbers)) == 1 else ""
        for sign, numbers in zip(longest, places, strict=True)
    )
    columns = [
        Column(
            values=tuple(map(str, numbers)),
            spots=(Spot(nodes, repeated=f"{quote}{sign}{quote}", parts=parts, place=k),),
            numbers=numbers,
        )
        for k, (sign, numbers) in enumerate(zip(longest, places, strict=True))
        if not parts[k]
    ]
    return columns if all(column.step() is not None for column in columns) else []


def _counts_of(row: Sequence[tuple[str, int]], signs: Sequence[str]) -> list[int] | None:
    """How often each sign stands there, where the first or the last may stand there not at all; None for others."""
    found, counts = [sign for sign, _ in row], [count for _, count in row]
    if found == list(signs):
        return counts
    if found == list(signs[1:]):
        return [0, *counts]
    return [*counts, 0] if found == list(signs[:-1]) else None


def _takes_numbers(file: ProgramFile, text: int) -> bool:
    """True where the language can put a number into the text at the node `text`."""
    able = file.language.texts_take_numbers
    if able is None:
        return True
    tree = file.tree
    arguments = tree.parent[text]
    if is_streamed(file, text):
        return True
    if tree.kind[arguments] != "argument_list" or file.called_name(tree.parent[arguments]) not in able:
        return False
    return tree.items(arguments)[0] == text


def _is_format(file: ProgramFile, text: int) -> bool:
    """True for a text that says how a call prints its other values."""
    formats = file.language.texts_take_numbers is not None and _takes_numbers(file, text)
    return formats and not is_streamed(file, text)


FORMAT_WORDS = re.compile(r"[^\"\\%\n]+")
FORMAT_PARTS = re.compile(r"%[-+ #0]*\d*(?:\.\d+)?[hlLqjzt]*[a-zA-Z%]|\\.|.", re.DOTALL)


def _words_of_format(texts: tuple[str, ...], nodes: tuple[int, ...]) -> Column | None:
    """The column of plain words in which texts differ that say how to print; None where they differ otherwise."""
    inner = [t[1:-1] for t in texts]
    before, middles, after = _in_frame(inner)
    for text, middle in zip(inner, middles, strict=True):
        joints = {0, *itertools.accumulate(map(len, FORMAT_PARTS.findall(text)))}
        at_joints = len(before) in joints and len(text) - len(after) in joints
        if not at_joints or FORMAT_WORDS.fullmatch(middle) is None:
            return None
    printed = [part for part in FORMAT_PARTS.findall(before) if len(part) > 1 and part[0] == "%" and part != "%%"]
    values = tuple(f'"{middle}"' for middle in middles)
    spot = Spot(nodes, before=before, after=after, in_format=True, place=len(printed))
    return Column(values=values, spots=(spot,))


def integers(texts: tuple[str, ...]) -> tuple[int, ...] | None:
    numbers = []
    for text in texts:
        compact = text.replace(" ", "")
        digits = compact.removeprefix("-")
        if not digits.isascii() or not digits.isdigit() or (digits[0] == "0" and len(digits) > 1):
            return None
        if len(digits) > 15:
            return None
        numbers.append(int(compact))
    return tuple(numbers)


def _numbers_in_strings(file: ProgramFile, texts: tuple[str, ...], nodes: tuple[int, ...]) -> list[Column]:
    """Columns for the numbers in which otherwise equal plain strings differ; [] where more differs."""
    if any(CODED.search(t) for t in texts) or _differ_in_fractions(file, texts):
        return []
    parts = [file.language.numbers_in(t) for t in texts]
    if any(len(p) != len(parts[0]) or p[::2] != parts[0][::2] for p in parts):
        return []
    columns = []
    for group in range(1, len(parts[0]), 2):
        values = tuple(p[group] for p in parts)
        if len(set(values)) == 1:
            continue
        numbers = integers(values)
        if numbers is None and not all(_is_shown_so(value) for value in values):
            return []
        columns.append(Column(values=values, spots=(Spot(nodes, group),), numbers=numbers))
    # A text that is a number and nothing else, in no even steps, is a text like any other.
    only_numbers = all(len(part) < 2 for part in parts[0][::2])
    return [] if only_numbers and any(column.step() is None for column in columns) else columns


FRACTION = re.compile(r"(\d+)\.\d")


def _differ_in_fractions(file: ProgramFile, texts: Sequence[str]) -> bool:
    """True for texts that hold other fractions each, where it is not certain that a number is shown as it is written:
    what stands before its point is no number of its own."""
    return not file.language.shows_decimals and len({tuple(FRACTION.findall(t)) for t in texts}) > 1


FEWEST_NUMBERED = 3
"""Copies that tell that a number counts, where words in the same text differ too."""


def _numbers_and_words(file: ProgramFile, texts: tuple[str, ...], nodes: tuple[int, ...]) -> list[Column]:
    """Columns for the evenly counting numbers and the words at one place in which plain texts differ
    (`"Stop 1: mill"`, `"Stop 2: creek"`); [] where they differ otherwise."""
    if len(texts) < FEWEST_NUMBERED or any(CODED.search(t) for t in texts) or _differ_in_fractions(file, texts):
        return []
    parts = [file.language.numbers_in(t) for t in texts]
    if len({len(p) for p in parts}) > 1:
        return []
    places = list(zip(*parts, strict=True))
    differing = [k for k, values in enumerate(places) if len(set(values)) > 1]
    wordy = [k for k in differing if k % 2 == 0]
    if len(wordy) != 1 or len(differing) < 2:
        return []
    columns = []
    for k in differing:
        values = places[k]
        if k == wordy[0]:
            before, inner, after = _in_frame(values)
            if not all(map(PLAIN_WORDS.fullmatch, inner)):
                return []
            quoted = tuple(f"{file.text_quote}{v}{file.text_quote}" for v in inner)
            columns.append(Column(values=quoted, spots=(Spot(nodes, k, before, after),)))
        else:
            numbers = Column(values=values, spots=(Spot(nodes, k),), numbers=integers(values))
            if numbers.step() is None:
                return []
            columns.append(numbers)
    return columns


def is_split_at_numbers(file: ProgramFile, texts: Sequence[str], nodes: Sequence[int]) -> list[list[str]]:
    """Texts, each split at its numbers, where a number can be put into them and they have equally many parts; []
    elsewhere."""
    plain = not any(CODED.search(t) for t in texts) and not _differ_in_fractions(file, texts)
    if not plain or len({t[:1] for t in texts}) > 1 or not _takes_numbers(file, nodes[0]):
        return []
    parts = [file.language.numbers_in(t) for t in texts]
    return parts if len({len(p) for p in parts}) == 1 else []


def words_in_frame(texts: Sequence[str]) -> tuple[str, tuple[str, ...], str]:
    """What texts begin with alike, the plain words in which they differ, and what they end with alike; no words where
    they differ in more."""
    before, inner, after = _in_frame(texts)
    return before, tuple(inner) if all(map(PLAIN_WORDS.fullmatch, inner)) else (), after


def _is_shown_so(value: str) -> bool:
    """True for a number with a fraction that is shown as it is written here."""
    return "." in value and len(value) < 15 and str(float(value)) == value
