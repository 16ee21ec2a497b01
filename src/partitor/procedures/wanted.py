"""The functions an assignment asks for, and the deeds that their names and purposes speak of."""

from __future__ import annotations

import itertools
import re
from collections.abc import Sequence

import msgspec

from ..program.program import ProgramFile
from .deeds import Deed, labels_of


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
AS_A_NUMBER = 0.5
"""What a number counts that is asked for in a word."""
MANY_LINES = frozenset("table list rows lines chart all each every".split())
"""Words for what takes a line for each of several things."""

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
PHRASES = (
    (rf"{GIVES}(?:whether|true (?:if|when|for|from))\b", Deed.TEST, TOLD_AT_ONCE),
    (rf"{GIVES}(?:whether|true (?:if|when|for|from))\b.*\bor\b", Deed.DECIDE, TOLD_AT_ONCE),
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
        rf"{GIVES}the (?!{UNITS}|points|pieces|news|address)\w+s (?:of|between|that|above|below|without)\b",
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


# -- one missing function ---------------------------------------------------------------------------

NAMED = 0.9
"""How much it says that the outcome's variable has the function's name."""
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
        self.tests = self.name[0] in TESTING or re.match(PHRASES[0][0], " ".join(self.purpose)) is not None
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
