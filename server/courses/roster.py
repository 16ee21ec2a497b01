"""The class list: read from CSV, and matched with the names a course system wrote."""

from __future__ import annotations

import csv
import io
import itertools
import re
import unicodedata

import msgspec
from rapidfuzz import fuzz, process

from partitor.errors import PartitorError
from partitor.reading.text import printable, storable

NAME_HEADS = ("name", "full name", "student", "student name")
FIRST_HEADS = ("first name", "firstname", "given name", "forename")
LAST_HEADS = ("last name", "lastname", "surname", "family name")
NUMBER_HEADS = ("number", "id", "student number", "student id", "no")
ALSO_HEADS = ("login", "user", "username", "email", "e-mail", "also")


MOST_ROWS = 20_000


class Row(msgspec.Struct, frozen=True):
    """A line of the class list."""

    name: str
    number: str = ""
    also: tuple[str, ...] = ()


def read_roster(data: bytes) -> list[Row]:
    """The rows of a class list. Raises PartitorError naming the line and what was expected."""
    try:
        text = data.decode("utf-8-sig")
    except UnicodeDecodeError:
        text = data.decode("cp1252", errors="replace")
    text = storable(text).replace("\r\n", "\n").replace("\r", "\n")
    lines = text.split("\n")
    if not lines or not lines[0].strip():
        raise PartitorError("The class list is empty.")
    mark = max(",;\t", key=lines[0].count)
    reader = csv.reader(io.StringIO(text, newline=""), delimiter=mark, strict=True)
    try:
        table = list(itertools.islice(reader, MOST_ROWS + 1))
    except csv.Error as problem:
        raise PartitorError(
            f"The class list, line {reader.line_num}: cannot be read as CSV. "
            "Look for a quotation mark that is never closed."
        ) from problem
    if len(table) > MOST_ROWS:
        raise PartitorError(f"The class list has more than {MOST_ROWS} lines.")
    heads = [h.strip().lower() for h in table[0]]
    name, first, last = (_column(heads, h) for h in (NAME_HEADS, FIRST_HEADS, LAST_HEADS))
    if name is None and (first is None or last is None):
        raise PartitorError(
            'The class list, line 1: no column is called "name" (or "first name" and "last name"); '
            f"the columns are: {', '.join(table[0]) or 'none'}."
        )
    number = _column(heads, NUMBER_HEADS)
    also = [i for i, head in enumerate(heads) if head in ALSO_HEADS]
    rows: dict[tuple[str, str], Row] = {}
    for line, cells in enumerate(table[1:], 2):
        if not any(c.strip() for c in cells):
            continue
        full = _cell(cells, name) if name is not None else f"{_cell(cells, first)} {_cell(cells, last)}"
        full = printable(" ".join(full.split()))
        if not full:
            raise PartitorError(f"The class list, line {line}: there is no name.")
        row = Row(full[:200], _cell(cells, number)[:60], tuple(_cell(cells, i) for i in also if _cell(cells, i)))
        if (row.name, row.number) in rows:
            raise PartitorError(f"The class list, line {line}: {row.name} is there twice.")
        rows[row.name, row.number] = row
    if not rows:
        raise PartitorError("The class list has a heading and no students.")
    return list(rows.values())


def _column(heads: list[str], names: tuple[str, ...]) -> int | None:
    return next((i for i, head in enumerate(heads) if head in names), None)


def _cell(cells: list[str], index: int | None) -> str:
    return cells[index].strip() if index is not None and index < len(cells) else ""


def plain(text: str) -> str:
    """A name without accents, signs and case, its words sorted: "Ødegård, Ida" → "ida odegard"."""
    text = text.replace("Ø", "O").replace("ø", "o").replace("ß", "ss").replace("æ", "ae").replace("ł", "l")
    decomposed = unicodedata.normalize("NFKD", text)
    letters = "".join(c for c in decomposed if not unicodedata.combining(c)).lower()
    return " ".join(sorted(re.findall(r"[a-z]+", letters)))


LIKELY = 88.0


def match_name(received: str, roster: list[Row]) -> int | None:
    """The index of the one row a received name belongs to; None where none or several fit."""
    numbers = set(re.findall(r"\w*\d[\w.-]*", received))
    by_number = [i for i, r in enumerate(roster) if r.number and r.number in numbers]
    if len(by_number) == 1:
        return by_number[0]
    logins = {a.split("@")[0].lower(): i for i, r in enumerate(roster) for a in r.also}
    for word in re.split(r"[\s_]+", received.lower()):
        if word in logins:
            return logins[word]
    noise = {"late", "assignsubmission", "file", "submission", "attempt", "final", "main", "py", "work"}
    words = [w for w in re.split(r"[^\w'-]+|_", received) if w and w.lower() not in noise]
    wanted = plain(" ".join(words))
    names = [plain(r.name) for r in roster]
    exact = [i for i, n in enumerate(names) if n and set(n.split()) <= set(wanted.split())]
    if len(exact) == 1:
        return exact[0]
    joined = wanted.replace(" ", "")
    tight = [i for i, n in enumerate(names) if sorted(n.replace(" ", "")) == sorted(joined)]
    if len(tight) == 1:
        return tight[0]
    best = process.extract(wanted, names, scorer=fuzz.token_sort_ratio, limit=2)
    if best and best[0][1] >= LIKELY and (len(best) == 1 or best[1][1] < best[0][1] - 4):
        return int(best[0][2])
    return None
