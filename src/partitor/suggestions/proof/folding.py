"""What constant expressions come to, language by language: the little arithmetic that expanding needs.

Only expressions into which a suggestion's values were put are folded. What a language might work out
otherwise (an overflow, a division, a text it cannot join) stays as it is, and so matches nothing.
"""

from __future__ import annotations

import ast
import re
from collections.abc import Sequence

import msgspec

from ...program.names import UNBOUND
from ...program.program import ProgramFile
from ...program.streams import STREAMS, shows_plainly
from .quiet import unknown_star_import

Term = tuple[object, ...]
ESCAPES = {"n": "\n", "t": "\t", "\\": "\\", '"': '"', "'": "'", "r": "\r"}


class Meaning(msgspec.Struct, frozen=True):
    """How a language reckons with what is in sight."""

    language: str = "python"
    widest: int | None = None
    """The largest whole number that its plain arithmetic holds; None: no bound."""
    joins_texts: bool = True
    joins_numbers: bool = False
    """A text plus a number is a text."""
    joining: str = "+"
    """The sign that joins texts."""
    lisp: bool = False
    """Sums and texts are worked out by calls."""
    repeat: str = ""
    """How a text is written several times: by a sign, a method, a call, something new."""
    streams: bool = False
    """What is sent to a stream by `<<` is shown as if it had been sent as one text."""
    measures_texts: bool = False
    """`len` of a text is how many signs it has."""
    printf: bool = False
    """`printf` with a constant for `%d` or `%s` prints it as if it stood in the text."""


PYTHON = Meaning(repeat="*", measures_texts=True)
MEANINGS = {
    "python": PYTHON,
    "blocks": PYTHON,
    "javascript": Meaning("javascript", 2**53 - 1, True, True, repeat=".repeat"),
    "typescript": Meaning("typescript", 2**53 - 1, True, True, repeat=".repeat"),
    "gamescript": Meaning("gamescript", 2**31 - 1, repeat="string_repeat"),
    "java": Meaning("java", 2**31 - 1, True, True, repeat=".repeat"),
    "csharp": Meaning("csharp", 2**31 - 1, True, True, repeat="new string"),
    "swift": Meaning("swift", 2**63 - 1, repeat="String"),
    "visualbasic": Meaning("visualbasic", 2**15 - 1, True, True, "&"),
    "racket": Meaning("racket", lisp=True),
    "scheme": Meaning("scheme", lisp=True),
    "c": Meaning("c", 2**31 - 1, False, printf=True),
    "cpp": Meaning("cpp", 2**31 - 1, False, printf=True, streams=True),
    "arduino": Meaning("arduino", 2**15 - 1, False),
}


LISP_CALLS = frozenset({"+", "-", "*", "number->string", "string-append", "format", "printf"})


def meaning_of(file: ProgramFile) -> Meaning:
    """The meaning of a file's language, as far as the file leaves the language's names alone."""
    meaning = MEANINGS[file.language.id]
    if meaning.lisp and any(file.names.owner_of(name, 0) != UNBOUND for name in LISP_CALLS):
        return msgspec.structs.replace(meaning, lisp=False)
    if meaning.repeat != "*" and {"prototype", meaning.repeat} & file.names.everything:
        return msgspec.structs.replace(meaning, repeat="")
    if meaning.repeat == "String" and (file.names.owner_of("String", 0) != UNBOUND or "extension" in file.tree.text):
        return msgspec.structs.replace(meaning, repeat="")
    if meaning.measures_texts and (unknown_star_import(file) or _gives_a_meaning(file, "len")):
        return msgspec.structs.replace(meaning, measures_texts=False)
    if meaning.streams and not shows_plainly(file):
        return msgspec.structs.replace(meaning, streams=False)
    if meaning.printf and file.names.owner_of("printf", 0) != UNBOUND:
        return msgspec.structs.replace(meaning, printf=False)
    return meaning


def _gives_a_meaning(file: ProgramFile, name: str) -> bool:
    """True where a file uses a name for something of its own."""
    names, text = file.names, file.tree.text
    return name in names.everything and any(names.owner(i) != UNBOUND for i in names.nodes if text[i] == name)


QUOTES = "'\""
UNUSUAL = ("\\", "\n", "\r", "\0")
"""Signs in a text that may mean something else, or may not stand there."""


def string_value(text: str, language: str = "python") -> str | None:
    """The value of a plain string literal; None for bytes, broken or formatted ones.

    >>> string_value("'a'", "javascript"), string_value('"a\\\\x41"', "c")
    ('a', None)
    """
    if language == "visualbasic":
        return text[1:-1].replace('""', '"') if len(text) > 1 and text[0] == text[-1] == '"' else None
    if language != "python":
        return _plain_text(text)
    if text[:1] not in "'\"rRuU":
        return None
    inside = text[1:-1]
    if len(text) > 1 and text[-1] == text[0] in QUOTES and not any(sign in inside for sign in (text[0], *UNUSUAL)):
        return inside
    try:
        value = ast.literal_eval(text)
    except (ValueError, SyntaxError, MemoryError, RecursionError):
        return None
    return value if isinstance(value, str) else None


def _plain_text(text: str) -> str | None:
    """A text between equal quotes with none but the common escapes."""
    if (
        len(text) < 2
        or text[0] != text[-1]
        or text[0] not in "'\"`"
        or text[0] in text[1:-1].replace("\\" + text[0], "")
    ):
        return None
    return _unescaped(text[1:-1])


def _unescaped(inner: str) -> str | None:
    if any(c not in ESCAPES for c in re.findall(r"\\(.)", inner, re.DOTALL)):
        return None
    return re.sub(r"\\(.)", lambda m: ESCAPES[m.group(1)], inner)


def integer_value(term: Term) -> int | None:
    """The number of an integer term."""
    if term[0] == "integer" and isinstance(term[1], int):
        return term[1]
    return None


def fold(term: Term, meaning: Meaning) -> Term:
    """The constant that a term comes to, or the term."""
    if term[0] == "binary_operator" and len(term) == 4:
        return _operation(term, meaning)
    if term[0] == "unary_operator" and len(term) == 3 and term[1] == ("-", "-"):
        # The zero of some languages keeps its sign.
        number = integer_value(as_term(term[2]))
        return ("integer", -number) if number else term
    if term[0] == "string":
        return _with_gaps(term, meaning.language)
    if meaning.lisp and term[0] == "call" and len(term) == 3:
        return _called(term)
    if meaning.language == "python" and term[0] == "call" and len(term) == 3 and term[1] == ("identifier", "str"):
        arguments = as_term(term[2])
        if len(arguments) == 4 and arguments[0] == "argument_list":
            number = integer_value(as_term(arguments[2]))
            if number is not None:
                return ("str", str(number))
    if meaning.language == "python" and term[0] == "call" and len(term) == 3:
        return _length(term) if term[1] == ("identifier", "len") and meaning.measures_texts else _in_other_letters(term)
    if meaning.repeat and meaning.repeat != "*" and term[0] in {"call", "new_expression"} and len(term) >= 3:
        return _repeated(term, meaning.repeat)
    if meaning.printf and term[0] == "call" and len(term) == 3 and term[1] == ("identifier", "printf"):
        given = as_term(term[2])
        printed = _printed(given) if given[0] == "argument_list" and len(given) > 4 else given
        return term if printed is given else ("call", term[1], printed)
    return term


def _operation(term: Term, meaning: Meaning) -> Term:
    left, operator, right = as_term(term[1]), as_term(term[2]), as_term(term[3])
    a, b = integer_value(left), integer_value(right)
    symbol = operator[0]
    if symbol == "<<" and meaning.streams and right[0] in {"str", "integer"} and left[0] == "binary_operator":
        inner = as_term(left[3])
        if left[2] == operator and inner[0] in {"str", "integer"} and _is_stream(left[1]):
            return ("binary_operator", left[1], operator, ("str", f"{inner[1]}{right[1]}"))
        return term
    if symbol == meaning.repeat == "*" and left[0] == "str" and b is not None:
        return _so_often(term, left, b)
    if a is not None and b is not None and not (symbol == "&" == meaning.joining):
        return _arithmetic(term, a, symbol, b, meaning)
    if symbol != meaning.joining or not meaning.joins_texts:
        return term
    if left[0] == right[0] == "str":
        return ("str", str(left[1]) + str(right[1]))
    if meaning.joins_numbers and {left[0], right[0]} == {"str", "integer"}:
        return ("str", str(left[1]) + str(right[1]))
    if meaning.joins_numbers and right[0] == "str" and left[0] == "binary_operator" and left[2] == operator:
        # What is joined to a text is a text: `a + "x" + "y"` is `a + "xy"`.
        inner = as_term(left[3])
        return ("binary_operator", left[1], operator, ("str", f"{inner[1]}{right[1]}")) if inner[0] == "str" else term
    return term


def _is_stream(term: object) -> bool:
    """True for a stream, with what was sent to it before."""
    part = as_term(term)
    while part[0] == "binary_operator" and len(part) == 4 and part[2] == ("<<", "<<"):
        part = as_term(part[1])
    return len(part) == 2 and part[1] in STREAMS


OTHER_LETTERS = {"upper": str.upper, "lower": str.lower, "title": str.title, "capitalize": str.capitalize}


def _length(term: Term) -> Term:
    """`len("tide")` of a plain text."""
    arguments = as_term(term[2])
    given = as_term(arguments[2]) if len(arguments) == 4 and arguments[0] == "argument_list" else ()
    plain = len(given) == 2 and given[0] == "str" and str(given[1]).isascii()
    return ("integer", len(str(given[1]))) if plain else term


def _in_other_letters(term: Term) -> Term:
    """`"tide".upper()` of a plain text."""
    callee, nothing = as_term(term[1]), ("argument_list", ("(", "("), (")", ")"))
    if callee[0] != "attribute" or len(callee) != 4 or callee[2] != (".", ".") or term[2] != nothing:
        return term
    text, method = as_term(callee[1]), as_term(callee[3])
    way = OTHER_LETTERS.get(str(method[1])) if method[0] == "identifier" else None
    if way is None or text[0] != "str" or not str(text[1]).isascii():
        return term
    return ("str", way(str(text[1])))


LONGEST = 200
"""Signs of the longest text that is worked out."""


def _so_often(term: Term, text: Term, times: int) -> Term:
    value = str(text[1])
    return ("str", value * times) if times >= 0 and times * len(value) <= LONGEST else term


def _repeated(term: Term, way: str) -> Term:
    """A text several times, by the method, call or new object `way`."""
    callee, arguments = as_term(term[-2]), as_term(term[-1])
    given = [as_term(a) for a in arguments[1:] if a not in {("(", "("), (")", ")")}]
    if (term[0] == "new_expression") != (way == "new string"):
        return term
    if way == "new string":
        of_text = callee == ("predefined_type", "string") and len(given) == 2
        sign = string_value(str(given[0][1]), "csharp") if of_text and given[0][0] == "character" else None
        callee, given = ("identifier", way), [("str", sign), given[1]] if sign is not None else []
    elif way == "String":
        labels = [as_term(a[1]) for a in given if a[0] == "labelled_argument"]
        labelled = labels == [("identifier", "repeating"), ("identifier", "count")] and len(given) == 2
        given = [as_term(a[2]) for a in given] if labelled else []
    if way == ".repeat" and callee[0] == "attribute" and callee[-1] == ("identifier", "repeat"):
        given = [as_term(callee[1]), *given]
    elif callee != ("identifier", way):
        return term
    if len(given) != 2 or given[0][0] != "str":
        return term
    often = as_term(given[1][2]) if given[1][0] == "either" else given[1]
    times = integer_value(often)
    return term if times is None else _so_often(term, given[0], times)


def _arithmetic(term: Term, a: int, symbol: object, b: int, meaning: Meaning) -> Term:
    if symbol in {"//", "%"}:
        if meaning.language != "python" or b == 0:
            return term
        return ("integer", a // b if symbol == "//" else a % b)
    if symbol not in {"+", "-", "*"}:
        return term
    result = a + b if symbol == "+" else a - b if symbol == "-" else a * b
    if meaning.widest is not None and max(abs(a), abs(b), abs(result)) > meaning.widest:
        return term
    return ("integer", result)


OPENINGS = {"python": r"[fF](\"|'|\"{3}|'{3})", "javascript": "`", "typescript": "`", "swift": '"', "csharp": r"\$\""}
"""How a text with gaps begins of which the words and gaps mean what they say."""


def with_words(parts: list[Term], language: str) -> list[Term]:
    """The parts of a text with gaps, its words by value: `("words", value)`."""
    opening = _opening(parts)
    if re.fullmatch(OPENINGS.get(language, "(?!)"), opening) is None:
        return parts
    told: list[Term] = []
    for part in parts:
        value = _words(str(part[1]), opening, language) if part[0] == "string_content" else None
        told.append(part if value is None else ("words", value))
    return told


def _opening(parts: Sequence[Term]) -> str:
    """The signs before the first words or gap."""
    opening = ""
    for part in parts:
        if part[0] in {"string_content", "words", "interpolation"}:
            break
        opening += str(part[1])
    return opening


def _words(text: str, opening: str, language: str) -> str | None:
    if language == "python":
        quotes = opening[1:]
        return string_value(quotes + text.replace("{{", "{").replace("}}", "}") + quotes)
    if language == "csharp":
        text = text.replace("{{", "{").replace("}}", "}")
    return _unescaped(text)


def _with_gaps(term: Term, language: str) -> Term:
    """A text with gaps whose constant gaps are put into its words; a plain text where all are constant."""
    parts = [as_term(part) for part in term[1:]]
    if re.fullmatch(OPENINGS.get(language, "(?!)"), _opening(parts)) is None:
        return term
    first = next((k for k, part in enumerate(parts) if part[0] in {"words", "string_content", "interpolation"}), 0)
    told: list[Term] = []
    for part in parts[first:]:
        value = str(part[1]) if part[0] == "words" else _constant_gap(part, language)
        if value is None:
            told.append(part)
        elif told and told[-1][0] == "words":
            told[-1] = ("words", str(told[-1][1]) + value)
        elif value:
            told.append(("words", value))
    gaps = [part for part in told if part[0] in {"string_content", "interpolation"}]
    if not gaps:
        return ("str", "".join(str(part[1]) for part in told if part[0] == "words"))
    return ("string", *parts[:first], *told)


def _constant_gap(part: Term, language: str) -> str | None:
    if part[0] != "interpolation" or len(part) != 4:
        return None
    inner = as_term(part[2])
    if inner[0] == "either":
        inner = as_term(inner[2])
    number = integer_value(inner)
    if number is not None:
        return str(number)
    if language == "python" and inner[0] == "float" and re.fullmatch(r"\d{1,9}\.\d{1,9}", str(inner[1])):
        shown = str(float(str(inner[1])))
        return shown if shown == inner[1] else None
    return str(inner[1]) if inner[0] == "str" else None


def _called(term: Term) -> Term:
    """A sum, a product, a text with gaps, of constants in sight."""
    callee, arguments = as_term(term[1]), as_term(term[2])
    given = [as_term(a[2]) if isinstance(a, tuple) and a[0] == "either" else as_term(a) for a in arguments[1:]]
    name = str(callee[1]) if callee[0] == "identifier" else ""
    numbers = [integer_value(a) for a in given]
    whole = [n for n in numbers if n is not None]
    if name in {"+", "-", "*"} and len(whole) == len(given) == 2:
        a, b = whole
        return ("integer", a + b if name == "+" else a - b if name == "-" else a * b)
    if name == "number->string" and len(whole) == len(given) == 1:
        return ("str", str(whole[0]))
    if name == "string-append" and given and all(a[0] == "str" for a in given):
        return ("str", "".join(str(a[1]) for a in given))
    if name in {"format", "printf"} and len(given) > 1 and given[0][0] == "str":
        parts, values = str(given[0][1]).split("~a"), given[1:]
        known = all(integer_value(a) is not None or a[0] == "str" for a in values)
        if known and len(parts) == len(values) + 1 and not any("~" in part for part in parts):
            text = ("str", parts[0] + "".join(f"{a[1]}{part}" for a, part in zip(values, parts[1:], strict=True)))
            return text if name == "format" else ("call", callee, ("argument_list", text))
    return term


DIRECTIVE = re.compile(r"%[-+ #0]*\d*(?:\.\d+)?[hlLqjzt]*[a-zA-Z%]")


def _printed(term: Term) -> Term:
    """`("gate %d", 3)` as `("gate 3")`: constants that `%d` and `%s` print as they are stand in the text itself, the
    first of them or more: ("either", one reading, another)."""
    text, values = as_term(term[2]), [as_term(part) for part in term[3:-1]]
    if text[0] != "str" or "*" in str(text[1]) or "%" in DIRECTIVE.sub("", str(text[1])):
        return term
    form = str(text[1])
    directives = [d for d in DIRECTIVE.finditer(form) if d.group() != "%%"]
    told: Term | None = None
    printed = [_as_printed(d.group(), value) for d, value in zip(directives, values, strict=False)]
    known = [k for k, constant in enumerate(printed) if constant is not None]
    for count in range(len(known), 0, -1):
        inside = form
        for k in reversed(known[:count]):
            inside = inside[: directives[k].start()] + str(printed[k]) + inside[directives[k].end() :]
        left = [value for k, value in enumerate(values) if k not in known[:count]]
        reading = ("argument_list", term[1], ("str", inside), *left, term[-1])
        told = reading if told is None else ("either", reading, told)
    return term if told is None else told


def _as_printed(directive: str, value: Term) -> str | None:
    """What a directive makes of a constant, where that is the constant's own text."""
    if value[0] == "either":
        value = as_term(value[2])
    number = integer_value(value)
    if directive == "%d" and number is not None:
        return str(number)
    return str(value[1]) if directive == "%s" and value[0] == "str" and "%" not in str(value[1]) else None


def as_term(term: object) -> Term:
    """A part of a term that is a term itself."""
    assert isinstance(term, tuple)
    return term
