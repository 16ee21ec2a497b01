"""Words: how names and phrases are taken apart and put together, which words are verbs, and which say nothing."""

from __future__ import annotations

import re
from collections.abc import Sequence

from ..languages.writing import Style

VERBS = {
    "print": "print",
    "println": "print",
    "printf": "print",
    "puts": "print",
    "log": "print",
    "WriteLine": "print",
    "scanf": "read",
    "nextInt": "read",
    "nextLine": "read",
    "ReadLine": "read",
    "digitalWrite": "set",
    "analogWrite": "set",
    "digitalRead": "read",
    "analogRead": "read",
    "show": "show",
    "MsgBox": "show",
    "alert": "show",
    "input": "read",
    "InputBox": "read",
    "prompt": "read",
    "append": "add",
    "push": "add",
    "write": "write",
    "draw": "draw",
    "forward": "draw",
    "fd": "draw",
    "begin_fill": "draw",
    "lineTo": "draw",
    "fillRect": "draw",
    "rect": "draw",
    "ellipse": "draw",
    "circle": "draw",
    "text": "show",
    "read": "read",
    "add": "add",
    "open": "read",
    "sort": "sort",
    "insert": "add",
    "audio_play_sound": "play",
    "tone": "play",
    "play": "play",
    "dot": "draw",
    "line": "draw",
    "triangle": "draw",
    "stroke": "draw",
    "goto": "move",
    "setpos": "move",
    "setposition": "move",
    "moveTo": "move",
}
ASKING = frozenset("input prompt InputBox".split())
"""Calls that give back what somebody types."""
SHOWING = frozenset("print show draw write".split())
CHARTS = frozenset("plot bar barh hist scatter pie boxplot stem errorbar".split())
"""Calls that draw charts, of the library that courses draw them with."""
TOPICS_OF_VERBS = {"draw": "shape", "move": "to", "find": "value"}
"""What follows a verb where nothing tells what it is done to."""
COMMON_VERBS = frozenset(
    """
    add announce ask build calculate change check choose clear close collect compare compute convert copy
    count create decide draw fill find format get give greet handle list load look make measure move open
    order pick play prepare print put read remove report reset round run save search send set show sort
    split start stop store sum summarise take tell test turn update wait warn water work write
    """.split()
)
CHOSEN_VERBS = frozenset(
    """
    attack attend bet block book borrow bake buy cancel cast cook cross decode decrypt delete deposit defend dig divide
    donate drink drive drop eat edit encode encrypt enter examine exercise explore feed fight find finish fish flee fly
    go guess harvest heal help hide hire hit hunt invest join jump leave lend login logout mark mine multiply park pay
    pet plant pull push quit refill rename rent repair reserve rest restart return roll rotate sail sell serve shoot
    shout sing sit sleep solve sow spend spin stand steal subtract swap swim talk throw trade train transfer translate
    travel undo unlock upgrade use view visit vote walk wash weigh win withdraw
    """.split()
)
"""What people are asked to type for something to be done."""
MAKING_NUMBERS = frozenset(
    """
    int float Number parseInt parseFloat parseDouble nextInt nextDouble atoi atof stoi stod Parse TryParse ToInt32
    ToDouble CInt CDbl CLng Val Int Double
    """.split()
)
"""Calls that make a number of what somebody typed."""
NUMBER_NAMES = ("number", "value", "amount", "size")
LETTER_NAMES = ("letter", "sign", "mark", "other")
SIGN_NAMES = ("sign", "mark", "letter", "other")
TIME_NAMES = ("time", "hour", "when", "moment")
TEXT_NAMES = ("name", "text", "label", "word")
MESSAGE_NAMES = ("message", "text", "reply", "note")
HEADING_NAMES = ("label", "heading", "text", "name")
VALUE_NAMES = ("value", "item", "thing", "other")
STOP_WORDS = frozenset(
    """
    the a an of for and or to in on at by is are was were be been it its this that these those with from all
    each every one two three four five how many much what which who when where why we our you your they them
    their i my me first second third last next then now here there again same only really not no yes so as
    if than into out up down off over under let us do does did has have had will can part step snd spr obj
    between about within until well self cls lst
    """.split()
)
COLORS = frozenset(
    """
    red orange yellow green blue indigo violet purple black white gray grey brown pink gold silver cyan magenta navy
    teal turquoise maroon olive beige crimson darkgreen lightgreen darkblue lightblue skyblue tan
    """.split()
)
ORDINALS = frozenset(["north", "south", "east", "west", "left", "right", "upper", "lower", "middle"])


NO_THINGS = frozenset(
    """
    dear hello welcome goodbye please thanks about also always just never often soon still today tomorrow very without
    bring buy catch eat feed find have hold keep know learn leave like love need see sell want
    """.split()
)
"""Words before a name in a sentence that do not say what it is the name of."""


def is_a_thing(word: str) -> bool:
    """True for a word of a sentence that may be what the name behind it is the name of.

    >>> is_a_thing("boat"), is_a_thing("takes"), is_a_thing("hello")
    (True, False, False)
    """
    return _says_something(word) and not word.endswith("s")


def may_be_a_topic(word: str) -> bool:
    """True for a word of a text that may say what the text is about.

    >>> may_be_a_topic("coins"), may_be_a_topic("please"), may_be_a_topic("black")
    (True, False, False)
    """
    return _says_something(word) and word not in COLORS


def _says_something(word: str) -> bool:
    return not (word in STOP_WORDS | COMMON_VERBS | NO_THINGS or word.endswith(("ed", "ing", "ly")))


QUANTITIES = frozenset(
    """
    total sum count mean average best highest lowest result score area price cost largest smallest biggest longest
    shortest maximum minimum most least
    """.split()
)
"""What a function may be called by that works it out, whatever the copies call it."""


def shared_words(names: Sequence[str], shortest: int = 3) -> list[str]:
    """The words of the first name, of so many letters at least, that all others have too.

    >>> shared_words(["northGate", "gate_south"])
    ['gate']
    """
    lists = [words_of(name) for name in names]
    return [w for w in lists[0] if len(w) >= shortest and all(w in other for other in lists[1:])]


def words_of(name: str) -> list[str]:
    """The words of a name or a phrase, in lower case.

    >>> words_of("gateLevel"), words_of("print_label2")
    (['gate', 'level'], ['print', 'label'])
    >>> words_of("JTextField")
    ['j', 'text', 'field']
    """
    spaced = re.sub(r"([a-z])([A-Z])|([A-Z])([A-Z][a-z])", r"\1\3 \2\4", name)
    return [w.lower() for w in re.findall(r"[A-Za-z]+", spaced)]


def in_convention(words: Sequence[str], style: Style) -> str:
    """The words as one name in the student's convention."""
    if style.snake_case:
        return style.joint.join(words)
    return words[0] + "".join(w.capitalize() for w in words[1:])


BEHIND_A_VERB = frozenset(
    """
    the a an all each every some another its it them this that these those one two three four five down up out away back
    """.split()
)
"""Words that show that the one before them, at the beginning of a comment, says what is done."""
NO_VERBS = frozenset("and or not if then now next first second third last here there is are was were for with".split())


def tells_what_to_do(comment: str) -> bool:
    """True for a comment that begins with a verb, known or not.

    >>> tells_what_to_do("dig the course"), tells_what_to_do("slide down it"), tells_what_to_do("the first house")
    (True, True, False)
    """
    first, second = _beginning(comment)
    behind = second in BEHIND_A_VERB and not first.endswith(("s", "ing", "ed"))
    return first in COMMON_VERBS or (behind and first not in STOP_WORDS | NO_VERBS | COLORS)


def _beginning(comment: str) -> tuple[str, str]:
    """The first two words of a comment; "" for those that it does not have."""
    words = words_of(comment)
    return "".join(words[:1]), "".join(words[1:2])


def _asks_how(comment: str) -> bool:
    """True for a comment like `how good was it`: its words are no name for anything."""
    first, second = _beginning(comment)
    return first == "how" and second not in {"many", "much", "often", "far", "long"}


def comment_words(comment: str) -> list[str]:
    if _asks_how(comment):
        return []
    words = [w for w in words_of(comment.split(",")[0].split(":")[0]) if w not in STOP_WORDS]
    if words:
        words[0] = base_form(words[0])
    return words[:4]


def base_form(verb: str) -> str:
    """`prints` and `printing` → `print`, where that is a verb we know."""
    for ending, repair in (("ing", ""), ("ing", "e"), ("es", ""), ("s", ""), ("ies", "y")):
        stem = verb.removesuffix(ending) + repair
        if verb.endswith(ending) and stem in COMMON_VERBS:
            return stem
        if verb.endswith(ending) and stem[:-1] in COMMON_VERBS and stem[-1:] == stem[-2:-1]:
            return stem[:-1]
    return verb


def singular(word: str) -> str:
    """One of what a word says many of.

    >>> singular("prices"), singular("boxes"), singular("entries"), singular("menus"), singular("status")
    ('price', 'box', 'entry', 'menu', 'one_status')
    """
    if word.endswith("ies"):
        return word[:-3] + "y"
    if word.endswith(("xes", "ches", "shes", "sses")):
        return word[:-2]
    many = word.endswith("s") and not word.endswith(("ss", "us", "is")) and len(word) > len("gas")
    return word[:-1] if many or word == "menus" else f"one_{word}"


def plural_of(word: str) -> str:
    """Many of what a word says.

    >>> plural_of("score"), plural_of("entry"), plural_of("prices")
    ('scores', 'entries', 'prices')
    """
    if word.endswith("s"):
        return word
    return word[:-1] + "ies" if word.endswith("y") and word[-2:-1] not in "aeiou" else word + "s"
