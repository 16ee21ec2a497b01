"""The student's own style, read off the program and kept in what is written."""

import pytest
from builders import file, worked

from partitor.languages import writing as writer
from partitor.languages.python.writer import counting_range
from partitor.suggestions.naming import Namer
from partitor.suggestions.words import in_convention, words_of


@pytest.mark.parametrize(
    ("text", "indent", "quote", "snake"),
    [
        ("if x:\n  print('a')\n", "  ", "'", True),
        ('if x:\n\tprint("a")\n', "\t", '"', True),
        ("gateLevel = 1\ntideLevel = 2\nprint('a', 'b', \"c\")\n", "    ", "'", False),
        ("gate_level = 1\n", "    ", '"', True),
    ],
)
def test_indent_quotes_and_names_are_read_off(text, indent, quote, snake):
    style = writer.style_of(file(text))
    assert (style.indent, style.quote, style.snake_case) == (indent, quote, snake)


def test_blank_lines_between_functions_are_the_students():
    one = "def a():\n    pass\n\ndef b():\n    pass\n\ndef c():\n    pass\n"
    assert writer.style_of(file(one)).blank_lines == 1
    assert writer.style_of(file(one.replace("\n\n", "\n\n\n"))).blank_lines == 2


def test_a_loop_is_written_with_tabs_where_the_student_uses_tabs():
    text = (
        "def main():\n"
        + "".join(f"\tprint('gate', {n})\n\tprint('at', {n * 10}, 'cm')\n" for n in range(1, 5))
        + "main()\n"
    )
    assert "\tfor gate in range(1, 5):\n\t\tprint('gate', gate)\n" in worked(text)


def test_new_names_follow_the_camel_case_of_the_program():
    block = "print('*' * 20)\nprint('the gate is open')\nprint('please take care')\nprint('*' * 20)\n"
    text = "gateLevel = 3\ntideLevel = 4\n" + block + "print(gateLevel)\n" + block + "print(tideLevel)\n" + block
    result = worked(text)
    name = result.split("def ")[1].split("(")[0]
    assert "_" not in name
    assert name[0].islower()


def test_a_long_list_is_wrapped_and_still_the_same_list():
    words = [f"'number {n} {'x' * (n % 7)}'" for n in (3, 1, 4, 15, 9, 26, 5, 35)]
    text = "".join(f"print('now', {w})\nprint('please wait for it', len({w}))\n" for w in words)
    result = worked(text)
    assert max(len(line) for line in result.split("\n")) <= writer.WIDTH
    assert result.count("number") >= len(words)


@pytest.mark.parametrize(
    ("numbers", "text"),
    [
        ((0, 1, 3), "range(3)"),
        ((1, 1, 3), "range(1, 4)"),
        ((3, -1, 4), "range(3, -1, -1)"),
        ((10, 5, 2), "range(10, 16, 5)"),
        ((-4, 2, 3), "range(-4, 1, 2)"),
    ],
)
def test_a_range_ends_at_the_first_number_that_is_not_reached(numbers, text):
    first, step, count = numbers
    assert counting_range(first, step, count) == text
    assert list(eval(text)) == [first + step * k for k in range(count)]


def test_names_are_made_of_words_in_the_convention_and_never_taken():
    parsed = file("gate = 1\nprint(gate)\n")
    style = writer.style_of(parsed)
    namer = Namer(parsed, style)
    assert words_of("HTTPGate2level") == ["http", "gate", "level"]
    assert in_convention(["open", "gate"], style) == "open_gate"
    assert namer.fresh(["gate"]) == "gate2"
    assert namer.fresh(["print"], ["show"]) == "show"
    assert namer.fresh(["for"]) == "for2"
    assert namer.fresh(["open?"]) == "value2", "what is no name in the language is none"
    assert namer.counter() == "i"
    assert namer.counter() == "j"
