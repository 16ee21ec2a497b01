"""Which language a file is in, notebooks, and game scripts, whose words are masked for their grammar."""

import json

import pytest
from builders import read, report

from partitor.languages.gamescript.table import mask
from partitor.languages.registry import LANGUAGES, language_of
from partitor.languages.writers import WRITERS
from partitor.reading.archives import Entry
from partitor.reading.collect import Submission, Unreadable, submission_of


@pytest.mark.parametrize(
    ("path", "text", "language"),
    [
        ("pump", "void setup() {\n}\n\nvoid loop() {\n}\n", "arduino"),
        ("tide", "#include <stdio.h>\nint main(void) { return 0; }\n", "c"),
        ("tide", "#include <iostream>\nint main() { return 0; }\n", "cpp"),
        ("gate.h", "#define HIGH 3\nint open(int gate);\n", "c"),
        ("gate.h", "class Gate {\npublic:\n  int level;\n};\n", "cpp"),
        ("Main", "public class Main {\n}\n", "java"),
        ("ferry", "#!/usr/bin/env node\nconsole.log(1);\n", "javascript"),
        ("ferry", "function main() {\n}\n", "javascript"),
        ("seeds", "def main():\n    pass\n", "python"),
        ("step.gml", "x += 1;", "gamescript"),
    ],
)
def test_a_language_is_told_from_name_or_content(path, text, language):
    found = language_of(path, text)
    assert found is not None
    assert found.id == language


@pytest.mark.parametrize(
    ("path", "text"), [("notes", "Dear Ines,\nhere is my work.\n"), ("a.xyz", "def f():\n    pass\n")]
)
def test_what_tells_nothing_is_no_language(path, text):
    assert language_of(path, text) is None


def test_every_language_has_a_writer_and_an_own_extension():
    assert set(WRITERS) == set(LANGUAGES)
    extensions = [e for language in LANGUAGES.values() for e in language.extensions]
    assert len(extensions) == len(set(extensions))


def test_another_language_than_asked_is_said():
    result = submission_of("Ida Holm", [Entry("main.js", b"let a = 1;\n")], [], "arduino")
    assert isinstance(result, Unreadable)
    assert "no Board sketch program" in result.why
    assert "JavaScript, which is not the assignment's language" in result.why


# -- notebooks -------------------------------------------------------------------------------------


def cell(source: str, kind: str = "code") -> dict[str, object]:
    more = {"outputs": [], "execution_count": None} if kind == "code" else {}
    return {"cell_type": kind, "metadata": {}, "source": source, **more}


def notebook(*cells: dict[str, object], language: str = "python") -> bytes:
    kernel = {"kernelspec": {"name": "k", "display_name": "k", "language": language}}
    return json.dumps({"nbformat": 4, "nbformat_minor": 4, "metadata": kernel, "cells": list(cells)}).encode()


def test_a_notebook_is_read_as_its_code_with_cell_numbers():
    data = notebook(cell("# Seeds", "markdown"), cell("%matplotlib inline\nprint('a')"), cell("print('b')"))
    result = submission_of("Bo Reed", [Entry("seeds.ipynb", data)], [])
    assert isinstance(result, Submission)
    (source,) = result.sources
    assert source.path == "seeds.ipynb.py"
    assert source.text == "# cell 2\n# %matplotlib inline\nprint('a')\n\n\n# cell 3\nprint('b')\n"


@pytest.mark.parametrize(
    ("data", "why"),
    [
        (b"{", "not a whole notebook"),
        (notebook(), "without code"),
        (notebook(cell("1"), language="julia"), "a notebook in julia"),
    ],
)
def test_a_notebook_that_cannot_be_read_says_why(data, why):
    result = submission_of("Bo Reed", [Entry("seeds.ipynb", data)], [])
    assert isinstance(result, Unreadable)
    assert why in result.why


# -- game scripts ----------------------------------------------------------------------------------


def test_masking_keeps_every_place_and_leaves_texts_alone():
    text = b'if (a and not b) { say("and so on"); } // or not\nrepeat (3) { x += 7 mod 2; }\n#region and\n'
    masked = mask(text)
    assert len(masked) == len(text)
    assert b'say("and so on"); } // or not' in masked
    assert masked.endswith(b"//egion and\n")


def test_words_of_game_scripts_are_read():
    file = read("if (a and not b) {\n    x = 7 div 2;\n}\nrepeat (3) {\n    y += 1;\n}\n", "gamescript")
    assert not file.problems
    assert [file.tree.kind[s] for s in file.blocks[0].statements] == ["if_statement", "while_statement"]


def test_game_scripts_run_through_lists_by_place():
    lines = "".join(
        f'draw_text(10, {20 * n}, "{w}");\ndraw_sprite(spr_gate, 0, 40, {40 * n});\n'
        for n, w in enumerate(["Mill", "Quay", "Ferry", "Dyke"], 1)
    )
    answer = report(lines, language="gamescript").worked_answer
    text = answer.files["step.gml"]
    assert 'var names = ["Mill", "Quay", "Ferry", "Dyke"];' in text
    assert "for (var i = 0; i < 4; i++) {" in text
    assert "draw_text(10, 20 * i + 20, names[i]);" in text
