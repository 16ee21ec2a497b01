"""Series that everybody knows: numbers, letters, days, months. What counts up in one is a run."""

from __future__ import annotations

import itertools
import re
from collections.abc import Sequence

from ..frozen import Frozen

NUMBERED = re.compile(r"([A-Za-z_]\w*?)_?(\d{1,3})")
NUMBERED_INSIDE = re.compile(r"([A-Za-z_]*?[A-Za-z])_?(\d{1,3})(_?[A-Za-z]\w*)")
"""A number between words: `crab1X`, `boat_2_time`."""
LETTERS = "abcdefghijklmnopqrstuvwxyz"
SERIES = (
    ("days", "mon tue wed thu fri sat sun".split()),
    ("days", "monday tuesday wednesday thursday friday saturday sunday".split()),
    ("months", "jan feb mar apr may jun jul aug sep oct nov dec".split()),
    ("months", "january february march april may june july august september october november december".split()),
    ("numbers", "one two three four five six seven eight nine ten".split()),
    ("numbers", "ones twos threes fours fives sixes sevens eights nines tens".split()),
    ("numbers", "first second third fourth fifth sixth".split()),
    ("directions", "north east south west".split()),
    ("directions", "north south east west".split()),
)
"""What a series is about, and its members in order."""
MEMBER = re.compile("|".join(sorted({member for _, members in SERIES for member in members})))


FEWEST_NAMED = 3
"""Names that tell a series; two, like north and south, may just as well be a pair."""


class Family(Frozen, frozen=True):
    """Names that are told apart by their place in a series."""

    stem: str
    """What all of them are called, without what tells them apart; "" where that is all there is."""
    about: str = ""
    """What the series is about; "" for numbers."""


def series_of(values: Sequence[str]) -> str:
    """What each of several texts is, if all are days or all are months; "" for others.

    >>> series_of(['"Friday"', '"Monday"']), series_of(['"May"', '"bay"'])
    ('day', '')
    """
    words = {value.strip("\"'").lower() for value in values}
    told = all(value[:1] in "\"'" for value in values) and len(words) > 1
    kinds = {about for about, members in SERIES if about in {"days", "months"} and words <= set(members)}
    return kinds.pop()[:-1] if told and kinds else ""


def is_day_or_month(text: str) -> bool:
    """True for a text that is the name of a day or a month, whatever stands around it.

    >>> is_day_or_month('"Monday   "'), is_day_or_month("monday")
    (True, False)
    """
    word = text.strip("\"' |:").lower()
    told = (members for about, members in SERIES if about in {"days", "months"})
    return text[:1] in "\"'" and any(word in members for members in told)


def family_of(values: Sequence[str]) -> Family | None:
    """The family of names that count up by one, in their order; None for other names.

    >>> family_of(["gate1", "gate2"]).stem, family_of(["rain_mon", "rain_tue", "rain_wed"])
    ('gate', Family(stem='rain', about='days'))
    """
    parts = [NUMBERED.fullmatch(value) for value in values]
    found = [part for part in parts if part]
    if len(found) == len(values):
        numbers = [int(part[2]) for part in found]
        same = len({part[1] for part in found}) == 1
        return Family(found[0][1]) if same and _counts_up(numbers) else None
    inside = [NUMBERED_INSIDE.fullmatch(value) for value in values]
    between = [part for part in inside if part]
    if len(between) == len(values) and len({(part[1], part[3]) for part in between}) == 1:
        stem = between[0][1] + between[0][3]
        return Family(stem) if _counts_up([int(part[2]) for part in between]) else None
    if found or len(values) < FEWEST_NAMED:
        return None
    lettered = _lettered(values)
    if lettered or not MEMBER.search(values[0].lower()):
        return lettered
    before = shared_start(values)
    return _named(values, before, shared_start([value[len(before) :][::-1] for value in values])[::-1])


def is_numbered(name: str) -> bool:
    """True for a name with a number at its end, or between its words."""
    return bool(NUMBERED.fullmatch(name) or NUMBERED_INSIDE.fullmatch(name))


def _counts_up(numbers: Sequence[int]) -> bool:
    return all(b - a == 1 for a, b in itertools.pairwise(numbers))


def shared_start(values: Sequence[str]) -> str:
    """What all values begin with."""
    return "".join(one[0] for one in itertools.takewhile(lambda c: len(set(c)) == 1, zip(*values, strict=False)))


def _lettered(values: Sequence[str]) -> Family | None:
    """`a`, `b`, `c`; `gate_a`, `gate_b`; `gateA`, `gateB`."""
    stem = values[0][:-1]
    last = [value[-1:] for value in values]
    if any(value[:-1] != stem for value in values) or not (stem == "" or stem[-1] == "_" or last[0].isupper()):
        return None
    return Family(stem.rstrip("_"), "letters") if are_letters(last) else None


def _named(values: Sequence[str], before: str, after: str) -> Family | None:
    """The family by the members of a series between what all names share: whole words of them."""
    first = values[0].lower()
    for about, members in SERIES:
        if not any(member in first for member in members):
            continue
        # What all names share may be part of the members: `tuesday` and `thursday` share more than a stem.
        for shared, cut in itertools.product(range(len(before), -1, -1), range(len(after) + 1)):
            start, stop = before[:shared], after[cut:]
            middle = [v[shared : len(v) - len(stop)] for v in values]
            if _are_in_a_row([m.lower() for m in middle], members) and _are_words(start, middle[0], stop):
                return Family(f"{start}{stop}".strip("_").replace("__", "_"), about)
    return None


def _are_in_a_row(words: list[str], members: list[str]) -> bool:
    if words[0] not in members:
        return False
    first = members.index(words[0])
    return members[first : first + len(words)] == words


def _are_words(before: str, middle: str, after: str) -> bool:
    """True where the middle begins and ends as a word of its own does."""
    begins = not before or before[-1] == "_" or middle[0].isupper()
    ends = not after or after[0] == "_" or after[0].isupper()
    return begins and ends


def are_letters(values: Sequence[str]) -> bool:
    """True for letters one after the other: `"A"`, `"B"`, `"C"`."""
    if any(len(value) != 1 for value in values):
        return False
    joined = "".join(values)
    return joined.lower() in LETTERS and (joined.islower() or joined.isupper())
