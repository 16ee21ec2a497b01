"""One thing that differs between copies, and where it stands in them."""

from __future__ import annotations

import itertools
import re

from ..frozen import Frozen, Single
from .series import FEWEST_NAMED, family_of

QUOTES = frozenset("\"'")
NO_WORD = re.compile(r"\W+")


class Spot(Frozen, frozen=True):
    """Where a column's value stands in each copy: node by copy, and which number inside a string."""

    nodes: tuple[int, ...]
    group: int = -1
    """-1: the whole node; else the index into the parts of the text split at its numbers: odd for a number, even for
    words, of which `before` and `after` are the same in all copies."""
    before: str = ""
    """What stands before the value in the words of a text with gaps, the same in all copies; `after`: behind it."""
    after: str = ""
    repeated: str = ""
    """A text literal that the value tells how often to write, one behind the other."""
    parts: tuple[str, ...] = ()
    """The text in parts, where it is several such behind each other: literals that stay, and "" where one grows; this
    one's is the part at `place`."""
    is_part: bool = False
    """The value is a part of a plain text, between `before` and `after`."""
    in_format: bool = False
    """The text says how other values are printed; a value can be put into it in their way."""
    place: int = 0
    """How many values a format prints before this one; which of the parts this is; which of several words of one text,
    of which `before` then stands behind the word before it."""

    @property
    def is_plain(self) -> bool:
        """True where the value is all that stands at the node."""
        return self.group < 0 and not (self.before or self.after or self.repeated or self.in_format or self.is_part)

    @property
    def is_words(self) -> bool:
        """True for words of a text that holds numbers too."""
        return self.group >= 0 and self.group % 2 == 0

    def around(self, value: str) -> str:
        """The words of a text with gaps that stand in all copies, with `value` between them."""
        return self.before + value + self.after


class Column(Frozen, frozen=True, kw_only=True):
    """One thing that differs: its values by copy and all spots where it stands."""

    values: tuple[str, ...]
    spots: tuple[Spot, ...]
    numbers: tuple[int, ...] | None = None
    """The values as integers where they all are."""
    is_target: bool = False
    """The column is a variable's name that the copies assign to."""
    is_name: bool = False

    is_called: bool = False
    """The values are names of functions that the copies call there."""
    is_field: bool = False
    """The values are names of fields of the object to which a method belongs."""
    is_fraction: bool = False
    """Numbers of which some are whole, all given to variables for fractions: written as such."""
    is_bare_list: bool = False
    """A list that the language only takes where a variable is declared, not as a value."""

    def step(self) -> int | None:
        """The common difference where the numbers step evenly, else None."""
        numbers = self.numbers
        if numbers is None or len(numbers) < 2:
            return None
        step = numbers[1] - numbers[0]
        even = all(b - a == step for a, b in itertools.pairwise(numbers))
        return step if even and step else None

    @property
    def is_of_its_object(self) -> bool:
        """True for fields of the object that a method belongs to, by their whole names."""
        return all(value.startswith("self.") for value in self.values)

    @property
    def is_series(self) -> bool:
        """True for a series other than one of numbers."""
        return bool(self.series)

    @property
    def series(self) -> str:
        """What texts are about that count up in a series: `"A"`, `"B"`, `"C"` are letters, `"on monday"` and `"on
        tuesday"` days; "" for other values."""
        if len(self.values) < FEWEST_NAMED or self.numbers is not None or self.values[0][:1] not in QUOTES:
            return ""
        quoted = [value for value in self.values if value[:1] == value[-1:] and value[:1] in QUOTES]
        inner = [NO_WORD.sub("_", value).strip("_") for value in quoted]
        family = family_of(inner) if len(inner) == len(self.values) else None
        return family.about if family else ""

    @property
    def is_family(self) -> bool:
        """Variables that are told apart by counting up: `gate1`, `gate2`, `gate3`; `mon`, `tue`, `wed`."""
        return self.is_name and family_of(self.values) is not None


class Derived(Single, frozen=True, eq=False):
    """A text that differs only by holding what differs elsewhere: `"you bought rope"` beside `"rope"`."""

    column: Column
    base: Column
    before: str
    after: str
    case: str = ""
    """The method that puts it into other letters, capital or small: `"ROPE"` beside `"rope"`."""
    sign: str = ""
    """It is a line of one sign as long as the other text, or always so much longer: this literal, over and over."""
    more: int = 0
    """By how many signs it is longer."""
