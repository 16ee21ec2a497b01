"""The functions an assignment asks for, and the deeds that their names and purposes speak of."""

from __future__ import annotations

import itertools
import re
from collections.abc import Sequence

import msgspec

from ..program.program import ProgramFile
from .labels import labels_of
from .vocabulary import (
    FACTORS,
    KNOWN,
    NAMED,
    NUMBER_WORDS,
    OF_THE_PURPOSE,
    PREPOSITIONS,
    WHETHER,
    are_opposed,
    deeds_asked,
)


class RequiredFunction(msgspec.Struct, frozen=True, forbid_unknown_fields=True):
    """A function the assignment asks for."""

    name: str
    also: tuple[str, ...] = ()
    parameters: int | tuple[int, int] | None = None
    returns: bool | None = None
    called: bool = True
    parameter_decides: bool = False
    purpose: str = ""

    @property
    def bounds(self) -> tuple[int, int] | None:
        """The fewest and the most parameters that are right; None for any number."""
        return (self.parameters, self.parameters) if isinstance(self.parameters, int) else self.parameters

    def accepts(self, count: int) -> bool:
        """True where so many parameters are right."""
        return self.bounds is None or self.bounds[0] <= count <= self.bounds[1]


def words_of(name: str) -> list[str]:
    """The words of a name, in lower case, whatever its convention."""
    return [w.lower() for w in re.findall(r"[A-Z]?[a-z]+|[A-Z]+|\d+", name)]


AS_A_NUMBER = 0.5
"""What a number counts that is asked for in a word."""
MANY_LINES = frozenset("table list rows lines chart all each every".split())
"""Words for what takes a line for each of several things."""


# -- one missing function ---------------------------------------------------------------------------

INITIAL = 0.5
"""The same for a letter that begins the word."""
LONGEST_SHORT = 4
SHORTENED = re.compile("(?<!^)[aeiou]")
"""What is left out of words first."""
VERBS = frozenset(
    "get set is has to do make find calc calculate compute work show print draw read ask check count".split()
)
COMMON = 0.3
"""What a word counts that other functions that are asked for share, or that names a deed."""
PLAIN_TEXT_WORDS = frozenset(
    "menu title heading header banner rules welcome instructions help intro introduction logo".split()
)
"""Words for something that is always shown in the same words."""
PLAIN = frozenset(
    """
    the a an of for and or to in on at by is are that this it one each all from with than as its how many
    were was get do does did give make work out function back say tell print show line
    """.split()
)
TESTING = frozenset("is are has have can may".split())
ENDS_OF_NOUNS = frozenset("as must which that if who or after before plus minus".split())
CONDITIONS = frozenset("must if only unless enough provided allowed".split())
ARTICLES = frozenset(["the", "a", "an", "what", "which"])
VAGUE = frozenset("do it calc calculate compute func function fun my the stuff thing program work part step".split())


class Asked:
    """A missing function, and what its words say."""

    def __init__(self, function: RequiredFunction, required: Sequence[RequiredFunction]) -> None:
        self.function = function
        self.name, self.purpose = words_of(function.name), words_of(function.purpose)
        triples = zip(self.purpose, self.purpose[1:], self.purpose[2:], strict=False)
        self.again = {one for one, between, other in triples if between == "by" and one == other}
        """Things that come one after the other: `row by row`."""
        self.deeds = deeds_asked(self.name, self.purpose, function.returns is True)
        self.stems = {stem(w) for w in self.name}
        self.wanted = self._wanted([f for f in required if f is not function])
        noun = self.purpose if self.purpose and self.purpose[0] in ARTICLES else []
        subject = itertools.takewhile(lambda w: w not in PREPOSITIONS | ENDS_OF_NOUNS, noun)
        told = [w for w in subject if w not in PLAIN]
        self.nouns = [w for w in [*told, *self.name] if w not in VERBS | PREPOSITIONS | PLAIN]
        self.subject = {stem(w) for w in told} | self.stems
        """What its outcome may be called."""
        self.others = [{stem(w) for w in words_of(f.name)} for f in required if f is not function]
        self.of_all = bool(self.again or {"each", "all", "every"} & {*self.purpose})
        self.on_condition = not CONDITIONS.isdisjoint(self.purpose)
        """It is worked out only if something holds."""
        shown = [*itertools.takewhile(lambda w: w not in PREPOSITIONS, self.purpose)]
        self.of_one = "one" in shown and not self.of_all
        self.tests = not TESTING.isdisjoint(self.name[:1]) or re.match(WHETHER, " ".join(self.purpose)) is not None
        """It asks whether something holds, and nothing else."""
        self.of_rows = "rows" in self.purpose or "columns" in self.purpose
        self.of_many = self.of_all or not MANY_LINES.isdisjoint(self.name + self.purpose)
        self.literal = bool(PLAIN_TEXT_WORDS & set(self.name)) and "case" not in self.name

    def _wanted(self, others: Sequence[RequiredFunction]) -> dict[str, float]:
        """What each word counts that its job should show."""
        common = {stem(w) for f in others for w in words_of(f.name) + words_of(f.purpose)}
        plain = PLAIN - {"on"} if {"switch", "turn"} & {*self.name, *map(stem, self.purpose)} else PLAIN
        wanted: dict[str, float] = {}
        for word in self.purpose:
            if word in NUMBER_WORDS:
                wanted[NUMBER_WORDS[word]] = AS_A_NUMBER
        spoken = {*self.name, *self.purpose}
        wanted |= {number: 1.0 for units, numbers in FACTORS if units <= spoken for number in numbers}
        for word in itertools.chain(self.name, *(words_of(other) for other in self.function.also), self.purpose):
            form = stem(word)
            known = word in plain or form in plain or (word.isdigit() and len(word) == 1)
            if not known and word not in self.again:
                weight = COMMON if form in common or word in KNOWN or form in KNOWN else 1.0
                wanted[form] = max(weight, wanted.get(form, 0.0))
        return wanted

    def says(self, file: ProgramFile, variable: str, label: str = "") -> float:
        """How much a variable's name, or the text before it where it is shown, says that it holds what is asked; below
        0 where it is another function's. `label`: the text before a value without a name."""
        words = {stem(w) for w in words_of(variable) if len(w) > 2}
        if variable and self._is_short(variable):
            return NAMED * OF_THE_PURPOSE if words else INITIAL
        if not words:
            return NAMED * OF_THE_PURPOSE if {stem(w) for w in words_of(label)} & self.stems - PLAIN else 0.0
        if words <= self.subject:
            return NAMED if words <= self.stems else NAMED * OF_THE_PURPOSE
        if any(words <= other for other in self.others):
            return -1.0
        told = {stem(w) for label in labels_of(file, variable) for w in words_of(label)}
        return NAMED * OF_THE_PURPOSE if told & self.stems - PLAIN else 0.0

    def _is_short(self, variable: str) -> bool:
        """True for a letter or a few that stand for what is asked: `f` or `avg` of Fahrenheit or the average."""
        short = variable.lower()
        if not short.isalpha() or len(short) > LONGEST_SHORT:
            return False
        return any(
            word.startswith(short) or (len(short) > 2 and SHORTENED.sub("", word).startswith(SHORTENED.sub("", short)))
            for word in self.nouns
            if len(word) > len(short) + 1 and word[0] == short[0]
        )

    def speaks_of(self, variable: str) -> bool:
        """True where the purpose speaks of what a variable is called."""
        words = {stem(w) for w in words_of(variable) if len(w) > 2}
        return bool(words) and words <= {stem(w) for w in self.purpose} - self.stems

    def could_be(self, name: str) -> bool:
        """True where a function's name says no more than what is asked, or next to nothing."""
        words = words_of(re.sub(r"\d+", "", name))
        if are_opposed(words, self.name):
            return False
        meant = {deed for deed, weight in self.deeds.items() if weight >= NAMED}
        stems = self.stems | {stem(w) for w in self.purpose}
        return all(w in VAGUE or stem(w) in stems or KNOWN.get(w, {}).keys() & meant for w in words)


def stem(word: str) -> str:
    """A word without its ending, roughly: `prints` and `printed` are `print`."""
    for ending in ("ing", "ed", "es", "s", "er", "est", "e"):
        if word.endswith(ending) and len(word) - len(ending) >= 3:
            return stem(word[: -len(ending)])
    return word.removesuffix("al") if len(word) > 6 else word
