"""What the words of a function's name and of its purpose speak of."""

from __future__ import annotations

import re

from .deeds import Deed

FOR_CERTAIN: dict[Deed, str] = {
    Deed.COUNT: "count tally occurrences",
    Deed.SUM: "sum total add altogether",
    Deed.MEAN: "mean average avg",
    Deed.PRODUCT: "product multiply factorial power",
    Deed.LARGEST: """max maximum largest larger highest biggest bigger greatest longest best tallest oldest warmest
        hottest heaviest""",
    Deed.SMALLEST: """min minimum smallest smaller lowest shortest least cheapest coldest youngest lightest fewest
        nearest""",
    Deed.SEARCH: "find search locate lookup index position",
    Deed.TEST: "is has valid validate whether check can contains",
    Deed.TEXT: """reverse backwards encrypt decrypt encode decode cipher capitalize capitalise uppercase lowercase
        case""",
    Deed.LIST: "filter collect select transpose flatten",
    Deed.SORT: "sort arrange",
    Deed.FORMULA: """convert celsius fahrenheit area volume perimeter calculate compute tax percent percentage
        difference fine penalty toll""",
    Deed.DECIDE: "grade category verdict rating fare fine penalty toll",
    Deed.MORE: "deposit increase raise refill earn gain",
    Deed.LESS: "withdraw decrease reduce spend drain lose",
    Deed.CHANCE: "roll dice random shuffle toss",
    Deed.ASK: "ask input prompt",
    Deed.SHOW: "print show display draw menu title heading header banner intro introduction logo welcome",
}
"""Words that name one deed."""
PERHAPS: dict[Deed, str] = {
    Deed.COUNT: "number many amount frequency",
    Deed.SUM: "income up together",
    Deed.LARGEST: "most top winner peak record",
    Deed.SMALLEST: "worst",
    Deed.SEARCH: "where first place",
    Deed.TEST: "prime palindrome leap even odd allowed correct tell if win won",
    Deed.TEXT: "remove hide mask join hidden binary word text letter bar capital upper lower code",
    Deed.LIST: "remove all above below without remove only evens odds squares list those",
    Deed.SORT: "order ranking ascending descending",
    Deed.FORMULA: """to price cost discount interest speed distance fee postage net gross bmi work change double divide
        divided times share ratio square half fine penalty charge toll wage salary pay
        points""",
    Deed.DECIDE: """letter level kind price fee discount bonus rank message class cost postage describe say colour color
        advice advise suggest state status size group fine penalty charge toll""",
    Deed.CHANCE: "die pick coin chance throw draw",
    Deed.ASK: "read get enter until typed choose measure load",
    Deed.ACT: "switch set turn open close blink move start stop reset clear prepare light beep play off on draw paint",
    Deed.SHOW: """write output report list table receipt bill box border triangle rules welcome instructions help result
        hint say tell""",
}
"""Words that may speak of a deed."""
OPPOSITES = (
    "encrypt decrypt, encode decode, celsius fahrenheit, upper lower, even odd, above below, open close, on off, "
    "start stop, first last, min max, minimum maximum, highest lowest, largest smallest, longest shortest, add remove, "
    "increase decrease, up down, left right, warmest coldest, hottest coldest, oldest youngest, win lose, buy sell, "
    "deposit withdraw, push pop, hide show, input output, read write, big small, north south, east west, day night"
)
"""Pairs of words that functions are named for which do the opposite of each other."""
CERTAIN, MAYBE = 1.0, 0.7
BESIDE_ANOTHER = 0.5
"""How much is left of what a word may speak of, where another names a deed."""
OF_THE_PURPOSE = 0.8
"""How much a word of the purpose says, beside one of the name."""
TOLD_AT_ONCE = 0.95
"""How much it says that a purpose begins with "whether", or with what is made of each."""
HOW_MANY = 0.9
"""How much it says that a purpose asks how many there are."""
OF_ITS_OBJECT = 0.4
"""The same behind a preposition: what the deed is done to."""
SUPERLATIVE = re.compile(r"\w{2,}(?:est)")
NO_SUPERLATIVES = frozenset(
    "test request interest guest forest nest rest west harvest invest quest priest chest".split()
)
PREPOSITIONS = frozenset("of for from with in at by on between than when where".split())
NUMBER_WORDS = dict(
    zip("three four five six seven eight nine ten twelve".split(), "3 4 5 6 7 8 9 10 12".split(), strict=True)
)
OPPOSED = {pair for text in OPPOSITES.split(", ") for a, b in [text.split()] for pair in ((a, b), (b, a))}
KNOWN: dict[str, dict[Deed, float]] = {}
for _words, _weight in ((PERHAPS, MAYBE), (FOR_CERTAIN, CERTAIN)):
    for _deed, _listed in _words.items():
        for _word in _listed.split():
            KNOWN.setdefault(_word, {})[_deed] = _weight
GIVES = r"^(?:give |make |build |tell |say )?(?:back )?"
UNITS = (
    r"(?:(?:degrees )?(?:celsius|fahrenheit|kelvin)|seconds|minutes|hours|days|weeks|months|years|litres|liters|metres"
    r"|meters|kilometres|kilometers|miles|kilos|kilograms|grams|degrees|points|euros|cents|percent|knots|inches|feet)"
)
FACTORS = tuple(
    (frozenset(units.split()), numbers.split())
    for units, numbers in {
        "hours minutes": "60",
        "minutes seconds": "60",
        "hours seconds": "3600",
        "days hours": "24",
        "weeks days": "7",
        "years days": "365 365.25",
        "euros cents": "100",
        "kelvin": "273.15 273",
        "fahrenheit": "32 1.8",
        "miles": "1.609 1.6 1.60934 0.621",
        "knots": "1.852 0.54",
        "inches": "2.54",
        "feet": "0.3048 30.48",
        "percent": "100",
    }.items()
)
"""Numbers that tell that what is asked is worked out."""
WHETHER = rf"{GIVES}(?:whether|true (?:if|when|for|from))\b"
PHRASES = (
    (WHETHER, Deed.TEST, TOLD_AT_ONCE),
    (rf"{WHETHER}.*\bor\b", Deed.DECIDE, TOLD_AT_ONCE),
    (r"^(?:read|ask|get|collect|take)s?\b.* until\b", Deed.ASK, TOLD_AT_ONCE),
    (rf"{GIVES}(?:who|which)\b", Deed.DECIDE, MAYBE),
    (
        rf"{GIVES}(?:the|an?) (?:(?:word|letter|name|label|message|grade|category|colou?r) (?:for|of|that fits)"
        r"|words for)\b",
        Deed.DECIDE,
        OF_THE_PURPOSE,
    ),
    (r"\b(?:chosen|chose|picked|typed|entered)\b", Deed.ASK, OF_THE_PURPOSE),
    (rf"\b(?:how (?:many|much)|as|in|into) {UNITS}\b(?! and)", Deed.FORMULA, OF_THE_PURPOSE),
    (r"\b(?:of|for) so (?:many|much)\b", Deed.FORMULA, OF_THE_PURPOSE),
    (
        rf"{GIVES}the (?!{UNITS}|pieces|news|address)\w+s (?:of|between|that|above|below|without)\b",
        Deed.LIST,
        MAYBE,
    ),
    (r"^(?!whether|true|asks?|reads?|prints?|shows?|draws?)[a-z ]+ or\b", Deed.DECIDE, MAYBE),
    (
        r"^(?:switch|turn|chang|doubl|halv|rais|lower|invert|toggl|reset|mov)\w* (?:all|each|every)\b",
        Deed.EACH,
        TOLD_AT_ONCE,
    ),
    (r"^adds?\b.* to\b", Deed.MORE, TOLD_AT_ONCE),
    (r"^(?:takes?|removes?|subtracts?)\b.* (?:from|off|out of)\b", Deed.LESS, TOLD_AT_ONCE),
    (r"\bas (?:a )?text\b", Deed.TEXT, OF_THE_PURPOSE),
    (rf"{GIVES}the text without\b", Deed.TEXT, TOLD_AT_ONCE),
    (
        r"(?<!many )(?<!often )(?<!several )\b(?:times|multiplied by|divided by|plus|minus)\b",
        Deed.FORMULA,
        OF_THE_PURPOSE,
    ),
    (rf"{GIVES}(?:a|the) (?:new )?text\b", Deed.TEXT, TOLD_AT_ONCE),
    (r"^(?:draw|deal|pick|choose|roll|throw)s? (?:so many|some|several)\b", Deed.LIST, TOLD_AT_ONCE),
    (rf"{GIVES}for each\b", Deed.LIST, OF_THE_PURPOSE),
    (rf"{GIVES}a (?:new )?list (?:of|with)\b.* (?:each|every)\b", Deed.LIST, TOLD_AT_ONCE),
    (r"\bhow (?:many|often)\b|(?:^|the |back )number of (?!the\b|an?\b)", Deed.COUNT, HOW_MANY),
)
"""What a purpose may say as a whole, the deed that it speaks of, and how much that says."""
CHOSEN = frozenset("word letter name grade category color colour text message label".split())
"""What is chosen for something: `word_for`."""
NAMED = 0.9
"""How much it says that the outcome's variable has the function's name."""


def deeds_asked(name: list[str], purpose: list[str], returns: bool = False) -> dict[Deed, float]:
    """How much the words of a function's name and of its purpose speak of each deed, from 0 to 1; one that `returns`
    something is not named for showing it."""
    asked: dict[Deed, float] = {}
    named = [_deeds_named(word) for word in name]
    told = any(
        weight == CERTAIN for deeds in named for deed, weight in deeds.items() if not (returns and deed is Deed.SHOW)
    )

    def note(word: str, share: float) -> None:
        for deed, weight in _deeds_named(word).items():
            if told and weight == MAYBE:
                weight *= BESIDE_ANOTHER
            least(deed, share * weight)

    def least(deed: Deed, weight: float) -> None:
        asked[deed] = max(asked.get(deed, 0.0), weight)

    for word in name:
        note(word, 1.0)
    if name[:1] == ["to"] and len(name) > 1:
        least(Deed.FORMULA, NAMED)
    said = re.sub(rf"\b(?:{'|'.join(NUMBER_WORDS)}|\d+) times\b", "", " ".join(purpose))
    for pattern, deed, weight in PHRASES:
        if re.search(pattern, said):
            least(deed, weight)
    if len(name) > 1 and name[-1] == "for" and name[0] in CHOSEN:
        least(Deed.DECIDE, CERTAIN)
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


def are_opposed(one: list[str], other: list[str]) -> bool:
    """True where one name has a word whose opposite stands in the other: `encrypt` is no misspelt `decrypt`."""
    return any((a, b) in OPPOSED for a in one for b in other)
