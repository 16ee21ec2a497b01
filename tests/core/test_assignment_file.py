"""The assignment file: what is right is read and written again, what is wrong is said with its line."""

import pytest
from builders import DEMO

from partitor.errors import AssignmentFileError
from partitor.exchange.assignment import Assignment, parse_assignment, read_assignment, write_assignment

HEAD = 'format = "partitor-assignment"\nversion = 1\n'


def said(text: str) -> str:
    with pytest.raises(AssignmentFileError) as caught:
        parse_assignment(text, "a.toml")
    return str(caught.value)


def test_the_demo_assignment_says_what_is_asked():
    asked = read_assignment(DEMO / "assignment.toml")
    assert [f.name for f in asked.functions] == ["print_heading", "gate_opening", "print_gate", "mean_level"]
    assert asked.functions[0].accepts(2)
    assert not asked.functions[3].accepts(2)
    assert len(asked.rubric()) == 6


def test_what_is_written_is_read_back_the_same():
    asked = read_assignment(DEMO / "assignment.toml")
    assert parse_assignment(write_assignment(asked)) == asked
    assert parse_assignment(write_assignment(Assignment(title='say "hi"\n\\ø'))).title == 'say "hi"\n\\ø'


@pytest.mark.parametrize(
    ("text", "parts"),
    [
        (HEAD + "titel = 3\n", ["a.toml, line 3, key titel", "is not a known key"]),
        (HEAD + "title = 3\n", ["line 3, key title", "expected `str`, got `int`"]),
        (HEAD + "[limits]\nnesting = 0\n", ["line 4, key limits.nesting", "from 1 to"]),
        (HEAD + "[limits]\nrun_copies = 1\n", ["line 4", "from 2 to"]),
        (HEAD + '[[functions]]\nname = "a"\n[[functions]]\nname = "b c"\n', ["line 6", "cannot be a function's name"]),
        (HEAD + '[[functions]]\nname = "a"\nparameters = [3, 1]\n', ["line 5", "[fewest, most]"]),
        (HEAD + 'language = "klingon"\n', ["line 3, key language", 'use "auto" or one of: arduino, blocks, c, ']),
        (HEAD + 'pattern = "{rest}"\n', ["line 3, key pattern", "{name}"]),
        (HEAD + "title = \n", ["a.toml, line 3", "not valid TOML"]),
        ('format = "other"\nversion = 1\n', ["line 1, key format"]),
        ('format = "partitor-assignment"\nversion = 2\n', ["line 2, key version", "reads version 1"]),
        (HEAD + '[rules]\noff = ["nothing"]\n', ["line 4, key rules.off", "is no rule"]),
        (
            HEAD + '[[criteria]]\nid = "a"\ntitle = "A"\nmeasure = "beauty"\npoints = 3\nlevels = [{ points = 3 }]\n',
            ["line 6, key criteria.measure", "is no measure"],
        ),
        (
            HEAD + '[[criteria]]\nid = "a"\ntitle = "A"\nmeasure = "manual"\npoints = 3\nlevels = [{ points = 4 }]\n',
            ["key criteria.levels", "0 to 3"],
        ),
    ],
)
def test_what_is_wrong_is_said_with_file_line_and_key(text, parts):
    sentence = said(text)
    assert "\n" not in sentence
    for part in parts:
        assert part in sentence


@pytest.mark.parametrize(
    ("language", "name", "fits"),
    [
        ("racket", "print-gate", True),
        ("scheme", "all-open?", True),
        ("auto", "print-gate", True),
        ("python", "print-gate", False),
        ("python", "tür_öffnen", True),
        ("javascript", "$show", True),
        ("blocks", "draw a house", True),
        ("racket", "print gate", False),
        ("racket", "(gate)", False),
        ("auto", "3gates", False),
        ("python", "gate()", False),
    ],
)
def test_a_functions_name_looks_as_its_language_has_it(language, name, fits):
    text = HEAD + f'language = "{language}"\n[[functions]]\nname = "{name}"\n'
    if fits:
        assert parse_assignment(text).functions[0].name == name
    else:
        with pytest.raises(AssignmentFileError, match="cannot be a function's name"):
            parse_assignment(text)
