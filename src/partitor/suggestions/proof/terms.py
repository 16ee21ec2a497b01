"""Terms: program text as nested tuples, with just enough meaning to compare expansions.

A leaf is `(kind, text)`, an inner node `(kind, child, …)`. Parentheses and commas are dropped (the
nesting says the same), plain strings carry their value, whole numbers theirs. Two texts with equal
terms compile to the same program.
"""

from __future__ import annotations

import ast
from collections.abc import Mapping

from ...program.program import ProgramFile

Term = tuple[object, ...]
ARITHMETIC = {"+", "-", "*", "//", "%"}


def term_of(file: ProgramFile, node: int, holes: frozenset[int] = frozenset()) -> Term:
    """The term of a subtree; the names at the nodes `holes` stand as `("hole", name)`."""
    tree, language = file.tree, file.language
    kind, text = tree.kind[node], tree.text[node]
    if node in holes:
        return ("hole", text)
    if text:
        return leaf(kind, text)
    if kind in language.parentheses:
        inner = [c for c in tree.children(node) if tree.text[c] not in ("(", ")")]
        if len(inner) == 1:
            return term_of(file, inner[0], holes)
    children = [term_of(file, c, holes) for c in tree.children(node) if tree.text[c] != ","]
    if kind == "unary_operator" and len(children) == 2 and children[0] == ("-", "-"):
        number = integer_value(children[1])
        if number is not None:
            return ("integer", -number)
    return (kind, *children)


def leaf(kind: str, text: str) -> Term:
    """A token's term; whole numbers and plain strings by value."""
    if kind == "integer":
        try:
            return ("integer", int(text, 0))
        except ValueError:
            return (kind, text)
    if kind == "string":
        value = string_value(text)
        if value is not None:
            return ("str", value)
    return (kind, text)


def string_value(text: str) -> str | None:
    """The value of a plain string literal; None for bytes, broken or formatted ones."""
    if text[:1] not in "'\"rRuU":
        return None
    try:
        value = ast.literal_eval(text)
    except (ValueError, SyntaxError, MemoryError, RecursionError):
        return None
    return value if isinstance(value, str) else None


def integer_value(term: Term) -> int | None:
    """The number of an integer term."""
    if term[0] == "integer" and isinstance(term[1], int):
        return term[1]
    return None


def is_literal(term: Term) -> bool:
    """True for a number, a plain string, a constant, or a tuple of such: values that never change."""
    if term[0] in {"integer", "float", "str", "true", "false", "none", "string"}:
        return len(term) == 2
    if term[0] == "unary_operator":
        return len(term) == 3 and term[1] in {("-", "-"), ("+", "+")} and is_literal(_inner(term[2]))
    if term[0] in {"tuple", "expression_list"}:
        return all(is_literal(_inner(t)) for t in term[1:] if t not in {("(", "("), (")", ")")})
    return False


def is_fresh_container(term: Term) -> bool:
    """True for a list, set or dictionary display of literals: a new object each time it is evaluated."""
    if term[0] in {"list", "set", "dictionary", "pair"}:
        parts = [_inner(t) for t in term[1:] if isinstance(t, tuple) and len(t) > 1 and t[0] != t[1]]
        return all(is_literal(t) or is_fresh_container(t) for t in parts)
    return False


def _inner(term: object) -> Term:
    assert isinstance(term, tuple)
    return term


def substitute(term: Term, values: Mapping[str, Term]) -> tuple[Term, bool]:
    """Replace marked names by their values and fold what this makes constant.

    Names to be replaced stand as `("hole", name)`. Only expressions that hold a hole are folded,
    so nothing the student wrote is ever computed.
    """
    if term[0] == "hole":
        name = term[1]
        assert isinstance(name, str)
        if name in values:
            return values[name], True
        return term, False
    if len(term) == 2 and not isinstance(term[1], tuple):
        return term, False
    touched = False
    parts: list[object] = [term[0]]
    for child in term[1:]:
        if isinstance(child, tuple):
            child, changed = substitute(child, values)
            touched = touched or changed
        parts.append(child)
    if not touched:
        return term, False
    result = tuple(parts)
    folded = _fold(tuple(_folded(part) for part in parts))
    constant = len(folded) == 2 and not isinstance(folded[1], tuple)
    return (("either", result, folded) if constant else result), True


def _folded(part: object) -> object:
    """Of a part that may be read folded or as it stands, the folded reading."""
    return part[2] if isinstance(part, tuple) and part[0] == "either" else part


def matches(template: Term, original: Term, mapping: dict[str, str]) -> bool:
    """Equal but for holes, which are matched one to one with the original's variables (`mapping`).

    What was folded may stand in the original worked out (`30`) or as it was (`3 * 10`).
    """
    if template[0] == "hole":
        if original[0] != "identifier":
            return False
        name = str(template[1])
        return mapping.setdefault(name, str(original[1])) == original[1]
    if template[0] == "either":
        trial = dict(mapping)
        if matches(_inner(template[1]), original, trial):
            mapping.update(trial)
            return True
        return matches(_inner(template[2]), original, mapping)
    if len(template) != len(original) or template[0] != original[0]:
        return False
    for a, b in zip(template[1:], original[1:], strict=True):
        if isinstance(a, tuple) and isinstance(b, tuple):
            if not matches(a, b, mapping):
                return False
        elif a != b or type(a) is not type(b):
            return False
    return True


def _fold(term: Term) -> Term:
    if term[0] == "binary_operator" and len(term) == 4:
        return _fold_operation(term)
    if term[0] == "string":
        return _fold_formatted(term)
    if term[0] == "call" and len(term) == 3 and term[1] == ("identifier", "str"):
        arguments = _inner(term[2])
        if len(arguments) == 4 and arguments[0] == "argument_list":
            number = integer_value(_inner(arguments[2]))
            if number is not None:
                return ("str", str(number))
    return term


def _fold_operation(term: Term) -> Term:
    left, operator, right = _inner(term[1]), _inner(term[2]), _inner(term[3])
    a, b = integer_value(left), integer_value(right)
    symbol = operator[0]
    if a is not None and b is not None and symbol in ARITHMETIC:
        if symbol in {"//", "%"}:
            if b == 0:
                return term
            return ("integer", a // b if symbol == "//" else a % b)
        return ("integer", a + b if symbol == "+" else a - b if symbol == "-" else a * b)
    if symbol == "+" and left[0] == right[0] == "str":
        return ("str", str(left[1]) + str(right[1]))
    return term


def _fold_formatted(term: Term) -> Term:
    """A formatted string whose every gap is a plain constant is a plain string."""
    start = _inner(term[1])
    if str(start[1]).lower().rstrip("'\"") != "f":
        return term
    value = ""
    for part in term[2:-1]:
        part = _inner(part)
        if part[0] == "string_content":
            decoded = _formatted_text(str(part[1]), str(start[1]))
            if decoded is None:
                return term
            value += decoded
        elif part[0] == "interpolation" and len(part) == 4:
            inner = _inner(part[2])
            number = integer_value(inner)
            if number is not None:
                value += str(number)
            elif inner[0] == "str":
                value += str(inner[1])
            else:
                return term
        else:
            return term
    return ("str", value)


def _formatted_text(text: str, start: str) -> str | None:
    quotes = start[1:]
    return string_value(quotes + text.replace("{{", "{").replace("}}", "}") + quotes)
