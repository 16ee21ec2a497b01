"""The functions an assignment asks for, and the deeds that their names and purposes speak of."""

from __future__ import annotations

import re

import msgspec

from .deeds import Deed


class RequiredFunction(msgspec.Struct, frozen=True, forbid_unknown_fields=True):
    """A function the assignment asks for."""

    name: str
    also: tuple[str, ...] = ()
    parameters: int | tuple[int, int] | None = None
    returns: bool | None = None
    called: bool = True
    parameter_decides: bool = False
    purpose: str = ""

    def accepts(self, count: int) -> bool:
        """True where so many parameters are right."""
        if self.parameters is None:
            return True
        if isinstance(self.parameters, int):
            return count == self.parameters
        return self.parameters[0] <= count <= self.parameters[1]


def words_of(name: str) -> list[str]:
    """The words of a name, in lower case, whatever its convention."""
    return [w.lower() for w in re.findall(r"[A-Z]?[a-z]+|[A-Z]+|\d+", name)]


FOR_CERTAIN: dict[Deed, str] = {
    Deed.COUNT: "count tally occurrences",
    Deed.SUM: "sum total add altogether",
    Deed.MEAN: "mean average avg",
    Deed.PRODUCT: "product multiply factorial power",
    Deed.LARGEST: "max maximum largest highest biggest greatest longest best tallest oldest warmest hottest heaviest",
    Deed.SMALLEST: "min minimum smallest lowest shortest least cheapest coldest youngest lightest fewest nearest",
    Deed.SEARCH: "find search locate lookup index position",
    Deed.TEST: "is has valid validate whether check can contains",
    Deed.TEXT: "reverse backwards encrypt decrypt encode decode cipher",
    Deed.LIST: "filter collect select",
    Deed.SORT: "sort arrange",
    Deed.FORMULA: "convert celsius fahrenheit area volume perimeter calculate compute tax percent percentage",
    Deed.DECIDE: "grade category verdict rating fare",
    Deed.CHANCE: "roll dice random shuffle toss",
    Deed.ASK: "ask input prompt",
    Deed.SHOW: "print show display draw menu title heading header banner",
}
"""Words that name one deed."""
PERHAPS: dict[Deed, str] = {
    Deed.COUNT: "number many amount frequency",
    Deed.SUM: "income up together",
    Deed.LARGEST: "most top winner peak record",
    Deed.SMALLEST: "worst",
    Deed.SEARCH: "where first place",
    Deed.TEST: "prime palindrome leap even odd allowed correct tell if win won",
    Deed.TEXT: "hide mask join hidden binary word text letter bar capital",
    Deed.LIST: "all above below without remove only evens odds squares list those",
    Deed.SORT: "order ranking ascending descending",
    Deed.FORMULA: "to price cost discount interest speed distance fee postage net gross bmi work change double",
    Deed.DECIDE: "letter level kind price fee discount bonus rank message class cost postage describe say colour color",
    Deed.CHANCE: "die pick coin chance throw",
    Deed.ASK: "read get enter until typed choose",
    Deed.ACT: "switch set turn open close blink move start stop reset clear prepare light beep play off on draw paint",
    Deed.SHOW: "write output report list table receipt bill box border triangle rules welcome instructions help result",
}
"""Words that may speak of a deed."""
CERTAIN, MAYBE = 1.0, 0.7
OF_THE_PURPOSE = 0.8
"""How much a word of the purpose says, beside one of the name."""
OF_ITS_OBJECT = 0.4
"""The same behind a preposition: what the deed is done to."""
SUPERLATIVE = re.compile(r"\w{2,}(?:est)")
NO_SUPERLATIVES = frozenset(
    "test request interest guest forest nest rest west harvest invest quest priest chest".split()
)
PREPOSITIONS = frozenset("of for from with in at by on between than when where".split())

KNOWN: dict[str, dict[Deed, float]] = {}
for _words, _weight in ((PERHAPS, MAYBE), (FOR_CERTAIN, CERTAIN)):
    for _deed, _listed in _words.items():
        for _word in _listed.split():
            KNOWN.setdefault(_word, {})[_deed] = _weight


def deeds_asked(name: list[str], purpose: list[str]) -> dict[Deed, float]:
    """How much the words of a function's name and of its purpose speak of each deed, from 0 to 1."""
    asked: dict[Deed, float] = {}

    def note(word: str, share: float) -> None:
        for deed, weight in _deeds_named(word).items():
            asked[deed] = max(asked.get(deed, 0.0), share * weight)

    for word in name:
        note(word, 1.0)
    share = OF_THE_PURPOSE
    for word in purpose:
        if word in PREPOSITIONS:
            share = OF_ITS_OBJECT
        note(word, share)
    return asked


def _deeds_named(word: str) -> dict[Deed, float]:
    for form in (
        word,
        word.removesuffix("s"),
        word.removesuffix("es"),
        word.removesuffix("ing"),
        word.removesuffix("ed"),
    ):
        if form in KNOWN:
            return KNOWN[form]
    if SUPERLATIVE.fullmatch(word) and word not in NO_SUPERLATIVES:
        return {Deed.LARGEST: 0.9, Deed.SMALLEST: 0.9}
    return {}
