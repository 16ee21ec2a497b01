"""Terms: program text as nested tuples, to compare expansions; `folding` gives them their meaning.

A leaf is `(kind, text)`, an inner node `(kind, child, …)`. Parentheses and commas are dropped (the
nesting says the same), plain strings carry their value, whole numbers theirs. Two texts with equal
terms compile to the same program.
"""

from __future__ import annotations

import re
from collections.abc import Mapping, Sequence

from ...program.program import ProgramFile
from ...program.tree import CLASS
from ...program.types import is_made_a_fraction
from .folding import MEANINGS, PYTHON, Meaning, Term, as_term, fold, integer_value, string_value, with_words


def term_of(file: ProgramFile, node: int, holes: frozenset[int] = frozenset()) -> Term:
    """The term of a subtree; the names at the nodes `holes` stand as `("hole", name)`."""
    tree, language = file.tree, file.language
    kind, text = tree.kind[node], tree.text[node]
    if node in holes:
        if tree.kind[tree.parent[node]] == "dictionary" and language.declares:
            return ("shorthand", ("key", text), ("hole", text))
        return ("hole", text)
    if text:
        if kind == language.name and tree.parent[node] >= 0 and tree.kind[tree.parent[node]] == "dictionary":
            return ("shorthand", ("key", text), (kind, text))
        return leaf(kind, text, MEANINGS[language.id].language)
    if kind in language.parentheses:
        inner = [c for c in tree.children(node) if tree.text[c] not in ("(", ")")]
        if len(inner) == 1:
            return term_of(file, inner[0], holes)
    # In a text a comma is a sign like others.
    children = [_part_of(file, c, holes) for c in tree.children(node) if tree.text[c] != "," or kind == "string"]
    if _shows_its_words(file, node):
        children.append(("written", tree.source_of(node)))
    if kind == "string":
        # The words before a text with gaps may make anything of its parts.
        tagged = tree.kind[tree.parent[node]] == language.call
        return ("tagged_string", *children) if tagged else (kind, *with_words(children, MEANINGS[language.id].language))
    if kind == "unary_operator" and len(children) == 2 and children[0] == ("-", "-"):
        # The zero of some languages keeps its sign.
        number = integer_value(children[1])
        if number:
            return ("integer", -number)
    return (kind, *children)


MAKES_TEXT = re.compile(r"define\s+\w+\(.*?\).*?(?<!#)#\s*[A-Za-z_]", re.DOTALL)
"""A macro that makes a text of what it is given (`#x`)."""


def _shows_its_words(file: ProgramFile, node: int) -> bool:
    """True for what shows how it is written, too: `{level=}` in a text, `nameof(level)`, a macro that makes a text of
    what it is given."""
    tree, kind = file.tree, file.tree.kind[node]
    if kind == "interpolation":
        return any(tree.text[c] == "=" for c in tree.children(node))
    return kind == file.language.call and file.called_name(node) in _calls_that_show_words(file)


def _calls_that_show_words(file: ProgramFile) -> frozenset[str]:
    key = ("calls that show words", *map(id, file.beside))
    known = file.derived.get(key)
    if not isinstance(known, frozenset):
        trees = [one.tree for one in (file, *file.beside)]
        macros = [t for tree in trees for t, k in zip(tree.text, tree.kind, strict=True) if k == "preprocessor"]
        given = {found[1] for t in macros if (found := re.search(r"define\s+(\w+)\(", t))}
        # One macro may hand what it is given on to another.
        known = frozenset({"nameof"} | (given if any(map(MAKES_TEXT.search, macros)) else set()))
        file.derived[key] = known
    return known


def _part_of(file: ProgramFile, node: int, holes: frozenset[int]) -> Term:
    """The term of a part of something; a whole number that becomes a fraction there is told apart."""
    term = term_of(file, node, holes)
    number = integer_value(term) if file.language.typed and file.tree.field[node] in {"left", "right"} else None
    return term if number is None or not is_made_a_fraction(file, node) else ("fraction", number)


def leaf(kind: str, text: str, language: str = "python") -> Term:
    """A token's term; whole numbers and plain strings by value."""
    if kind == "integer":
        try:
            return ("integer", int(text, 0))
        except ValueError:
            return (kind, text)
    if kind == "string":
        value = string_value(text, language)
        if value is not None:
            return ("str", value)
    return (kind, text)


def is_literal(term: Term) -> bool:
    """True for a number, a plain string, a constant, or a tuple of such: values that never change."""
    if term[0] in {"integer", "float", "fraction", "str", "true", "false", "none", "string", "character"}:
        return len(term) == 2
    if term[0] == CLASS:
        return True
    if term[0] == "unary_operator":
        return len(term) == 3 and term[1] in {("-", "-"), ("+", "+")} and is_literal(as_term(term[2]))
    if term[0] in {"tuple", "expression_list", "row"}:
        return all(is_literal(as_term(t)) for t in term[1:] if t not in {("(", "("), (")", ")")})
    return False


def is_fresh_container(term: Term) -> bool:
    """True for a list, set or dictionary display of literals: a new object each time it is evaluated."""
    if term[0] in {"list", "set", "dictionary", "pair"}:
        parts = [as_term(t) for t in term[1:] if isinstance(t, tuple) and len(t) > 1 and t[0] != t[1]]
        return all(is_literal(t) or is_fresh_container(t) for t in parts)
    return False


def substitute(term: Term, values: Mapping[str, Term], meaning: Meaning = PYTHON) -> tuple[Term, bool]:
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
            child, changed = substitute(child, values, meaning)
            touched = touched or changed
        parts.append(child)
    if not touched:
        return term, False
    result = tuple(parts)
    element = _element(result)
    if element is not None:
        return element, True
    plain = tuple(_folded(part) for part in parts)
    folded = fold(plain, meaning)
    constant = len(folded) == 2 and not isinstance(folded[1], tuple)
    return (("either", result, folded) if constant or folded is not plain else result), True


def _element(term: Term) -> Term | None:
    """The element of a list in sight at a number in sight."""
    if term[0] != "subscript" or len(term) < 4 or as_term(term[1])[0] != "table":
        return None
    index = integer_value(as_term(_folded(term[3])))
    values = as_term(term[1])[1:]
    return as_term(values[index]) if index is not None and 0 <= index < len(values) else None


def _folded(part: object) -> object:
    """Of a part that may be read folded or as it stands, the folded reading."""
    return part[2] if isinstance(part, tuple) and part[0] == "either" else part


def _written(fraction: Term) -> tuple[Term, ...]:
    """The ways to write a whole number that a variable for fractions is given."""
    number = fraction[1]
    assert isinstance(number, int)
    return (
        ("integer", number),
        ("float", f"{number}.0"),
        ("unary_operator", ("-", "-"), ("float", f"{-number}.0")),
    )


def matches(template: Term, original: Term, mapping: dict[str, str]) -> bool:
    """Equal but for holes, which are matched one to one with the original's variables (`mapping`).

    What was folded may stand in the original worked out (`30`) or as it was (`3 * 10`).
    """
    if template[0] == "hole":
        if original[0] != "identifier" or len(original) != 2:
            return False
        name = str(template[1])
        return mapping.setdefault(name, str(original[1])) == original[1]
    if template[0] == "either":
        trial = dict(mapping)
        if matches(as_term(template[1]), original, trial):
            mapping.update(trial)
            return True
        return matches(as_term(template[2]), original, mapping)
    if original[0] == "fraction" and template[0] != "fraction":
        return template in _written(original)
    if len(template) != len(original) or template[0] != original[0]:
        return False
    for a, b in zip(template[1:], original[1:], strict=True):
        if isinstance(a, tuple) and isinstance(b, tuple):
            if not matches(a, b, mapping):
                return False
        elif a != b or type(a) is not type(b):
            return False
    return True


def match_in_order(
    templates: Sequence[Term], originals: Sequence[Term], mapping: dict[str, str]
) -> tuple[list[int], dict[str, str]] | None:
    """Which original each template gives back, and the variables' mapping that this needs; in the
    originals' own order where that is possible, else in another; None where there is no such order."""
    straight = dict(mapping)
    if all(matches(t, o, straight) for t, o in zip(templates, originals, strict=True)):
        return list(range(len(originals))), straight
    left = list(range(len(originals)))
    order = []
    for template in templates:
        for position in left:
            trial = dict(mapping)
            if matches(template, originals[position], trial):
                mapping = trial
                order.append(position)
                left.remove(position)
                break
        else:
            return None
    return order, mapping
