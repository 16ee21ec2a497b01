"""Which language a file is in, notebooks, and game scripts, whose words are masked for their grammar."""

import json
from random import Random

import pytest
from builders import DEMO, read, report

from partitor.check import check
from partitor.exchange.assignment import Assignment, read_assignment
from partitor.languages.gamescript.table import mask
from partitor.languages.registry import LANGUAGES, language_of
from partitor.languages.writers import WRITERS
from partitor.reading.archives import Entry
from partitor.reading.collect import Submission, Unreadable, read_batch, submission_of


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


# -- the demo class ----------------------------------------------------------------------------------

SEEDS = sorted(p for p in (DEMO.parent / "seed-labels").iterdir() if p.suffix != ".md")


@pytest.mark.parametrize("path", SEEDS, ids=lambda p: p.name)
def test_the_copies_in_each_seed_label_program_are_found_and_folded(path):
    submission = submission_of("seeds", [Entry(path.name, path.read_bytes())], [])
    assert isinstance(submission, Submission)
    result = check(submission, Assignment())
    assert all(not f.problems for f in result.files)
    assert {f.rule for f in result.findings} & {"repeated-run", "repeated-block", "twin-functions"}
    wanted = "outline" if result.files[0].language == "blocks" else "proved"
    assert [s.status for s in result.suggestions] == [wanted] * len(result.suggestions)


def test_the_seed_labels_hold_every_language_that_has_no_assignment_of_its_own():
    found = {LANGUAGES[s].id for p in SEEDS for s in [_language(p)]}
    assert found == set(LANGUAGES) - {"javascript", "arduino"}


def _language(path):
    submission = submission_of("seeds", [Entry(path.name, path.read_bytes())], [])
    return submission.sources[0].language


@pytest.mark.parametrize(("name", "count"), [("ferry-tickets", 14), ("pump-panel", 10)])
def test_the_demo_assignments_show_what_they_are_for(name, count):
    folder = DEMO.parent / name
    asked = read_assignment(folder / "assignment.toml")
    batch = read_batch(folder / "submissions", asked.pattern, asked.language)
    assert (len(batch.submissions), batch.unreadable) == (count, ())
    reports = {s.name: check(s, asked) for s in batch.submissions}
    assert reports["Ida Holm"].findings == ()
    rules = {f.rule for r in reports.values() for f in r.findings}
    assert {"repeated-block", "twin-functions", "missing-function", "idle-loop", "oversized-procedure"} <= rules
    assert sum(r.worked_answer.lines_after < r.worked_answer.lines_before for r in reports.values()) >= 4


@pytest.mark.parametrize("path", SEEDS, ids=lambda p: p.name)
def test_a_program_that_is_torn_apart_is_still_checked(path):
    random = Random(path.name)
    for _ in range(12):
        data = path.read_bytes()
        for _ in range(random.randint(1, 5)):
            a = random.randrange(len(data))
            b = min(len(data), a + random.choice([1, 2, 9, 60]))
            piece = random.choice([b"", b"(", b"}", b'"', b"\n", data[a:b] * 3, "é".encode()])
            data = data[:a] + piece + data[b:]
        result = submission_of("seeds", [Entry(path.name, data)], [])
        if isinstance(result, Submission):
            assert check(result, Assignment()).name == "seeds"
