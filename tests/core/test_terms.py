"""Terms: program text with just enough meaning to compare an expansion with what was there."""

import ast

import pytest
from builders import file, read
from hypothesis import given, settings
from hypothesis import strategies as st

from partitor.suggestions.proof.terms import (
    is_fresh_container,
    is_literal,
    matches,
    string_value,
    substitute,
    term_of,
)


def term(expression: str, *holes: str):
    """The term of an expression, the names `holes` in it to be filled."""
    parsed = file(f"_ = {expression}\n")
    statement = parsed.blocks[0].statements[0]
    right = parsed.tree.child(statement, "right")
    marked = frozenset(i for i in parsed.names.within(right, parsed.tree.end[right]) if parsed.tree.text[i] in holes)
    return term_of(parsed, right, marked)


@pytest.mark.parametrize(
    ("one", "other"),
    [
        ("a+b", "(a + b)"),
        ("f(a, b)", "f(a,b,)"),
        ("'gate'", '"gate"'),
        ("'it\\'s'", '"it\'s"'),
        ("0x10", "16"),
        ("-5", "- 5"),
        ("[1, 2]", "[1,2,]"),
        ("(a)", "a"),
        ("r'a\\d'", "'a\\\\d'"),
    ],
)
def test_texts_that_compile_alike_have_equal_terms(one, other):
    assert term(one) == term(other)
    assert ast.dump(ast.parse(one)) == ast.dump(ast.parse(other))


@pytest.mark.parametrize(
    ("one", "other"),
    [
        ("a + b * c", "(a + b) * c"),
        ("a - (b - c)", "a - b - c"),
        ("1", "1.0"),
        ("1", "True"),
        ("'1'", "1"),
        ("b'a'", "'a'"),
        ("f'{a}'", "'{a}'"),
        ("(a,)", "a"),
        ("a < b < c", "(a < b) < c"),
        ("a.b", "a['b']"),
        ("f(*a)", "f(a)"),
        ("f(x=1)", "f(1)"),
        ("not a == b", "(not a) == b"),
        ("-a ** 2", "(-a) ** 2"),
    ],
)
def test_texts_that_mean_something_else_have_other_terms(one, other):
    assert term(one) != term(other)


@pytest.mark.parametrize(
    ("template", "values", "original", "same"),
    [
        ("f(i)", {"i": "3"}, "f(3)", True),
        ("f(i)", {"i": "3"}, "f(4)", False),
        ("40 * i + 10", {"i": "3"}, "130", True),
        ("40 * i + 10", {"i": "3"}, "40 * 3 + 10", True),
        ("40 * i + 10", {"i": "3"}, "131", False),
        ("i // 2", {"i": "7"}, "3", True),
        ("i // 0", {"i": "7"}, "0", False),
        ("i % 4", {"i": "-1"}, "3", True),
        ("f'gate {i}'", {"i": "3"}, "'gate 3'", True),
        ("f'gate {i}'", {"i": "3"}, "'gate 4'", False),
        ("f'{{{i}}}'", {"i": "3"}, "'{3}'", True),
        ("f'{w}!'", {"w": "'mill'"}, "'mill!'", True),
        ("w + ' gate'", {"w": "'mill'"}, "'mill gate'", True),
        ("str(i)", {"i": "3"}, "'3'", True),
        ("i / 2", {"i": "4"}, "2.0", False),
        ("i + x", {"i": "3"}, "3 + x", True),
        ("3 * 4 + x", {}, "12 + x", False),
    ],
)
def test_an_expansion_is_compared_folded_or_as_it_stands(template, values, original, same):
    filled, _ = substitute(term(template, *values), {name: term(text) for name, text in values.items()})
    assert matches(filled, term(original), {}) is same


def test_variables_are_matched_one_to_one():
    mapping: dict[str, str] = {}
    assert matches(term("a + b * a", "a", "b"), term("x + y * x"), mapping)
    assert mapping == {"a": "x", "b": "y"}
    assert not matches(term("a + b * a", "a", "b"), term("x + y * y"), {})
    assert not matches(term("a + 1", "a"), term("2 + 1"), {})


@settings(max_examples=150, deadline=None)
@given(st.text(max_size=12))
def test_a_strings_value_is_what_python_reads(text):
    literal = repr(text)
    assert string_value(literal) == text
    assert string_value("b" + literal) is None or not literal.isascii()


@pytest.mark.parametrize("text", ["1", "-2", "'a'", "None", "True", "(1, 'a')", "1.5"])
def test_what_never_changes_is_a_literal(text):
    assert is_literal(term(text))


@pytest.mark.parametrize("text", ["[1]", "{}", "a", "f()", "(1, [2])", "f'{a}'", "1 + 2"])
def test_what_may_change_or_is_made_anew_is_none(text):
    assert not is_literal(term(text))


def test_lists_of_literals_are_made_anew_each_time():
    assert is_fresh_container(term("[1, [2, 'a']]"))
    assert is_fresh_container(term("{'a': [1]}"))
    assert not is_fresh_container(term("[a]"))
    assert not is_fresh_container(term("(1, 2)"))


@pytest.mark.parametrize(
    ("language", "one", "other"),
    [
        ("python", 'print(f"{a},{b}")', 'print(f"{a}{b}")'),
        ("javascript", "show(`${a},${b}`);", "show(`${a}${b}`);"),
        ("swift", r'print("\(a),\(b)")', r'print("\(a)\(b)")'),
    ],
)
def test_a_comma_in_a_text_is_no_comma_of_a_list(language: str, one: str, other: str) -> None:
    assert term_of(read(one, language), 0) != term_of(read(other, language), 0)
