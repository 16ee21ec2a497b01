"""A required function under another name: renamed where that changes nothing else."""

import pytest
from builders import read, report, rules

from partitor.suggestions.proof import RenamedFunction, prove

ASKED = 'format = "partitor-assignment"\nversion = 1\n[[functions]]\nname = "gate_level"\n'
TEXT = "def gate_levle(n):\n    return n + 1\n\n\nprint(gate_levle(2))\nprint(gate_levle(3))\n"


def test_a_near_miss_gets_the_name_that_is_asked_for():
    found = report(TEXT, ASKED)
    (finding,) = [f for f in found.findings if f.rule == "missing-function"]
    suggestion = next(s for s in found.suggestions if s.id == finding.suggestion)
    assert (suggestion.kind, suggestion.status) == ("rename", "proved")
    assert found.worked_answer.files["main.py"] == TEXT.replace("gate_levle", "gate_level")


@pytest.mark.parametrize(
    "more",
    [
        "print(gate_level(4))\n",
        "print(globals()['gate_levle'](4))\n",
        "name = 'gate_levle'\n",
        "class A:\n    def gate_levle(self):\n        return 1\n",
    ],
)
def test_where_the_name_means_more_it_stays(more):
    found = report(TEXT + more, ASKED)
    assert all(s.kind != "rename" for s in found.suggestions)


def test_a_missing_function_is_taken_out_first_in_the_worked_answer():
    text = (
        "def main():\n    levels = [3, 1, 2]\n    # the mean level\n    total = 0\n    for level in levels:\n"
        "        total = total + level\n    mean = total / len(levels)\n    print('mean', mean)\n\n\nmain()\n"
    )
    asked = 'format = "partitor-assignment"\nversion = 1\n[[functions]]\nname = "mean_level"\nparameters = 1\nreturns = true\npurpose = "works out the mean of the levels"\n'
    assert "missing-function" in rules(text, asked)
    answer = report(text, asked).worked_answer.files["main.py"]
    assert "def mean_level(levels):\n" in answer
    assert "    mean = mean_level(levels)\n" in answer


@pytest.mark.parametrize(
    "after",
    [
        TEXT.replace("gate_levle", "gate_level", 2),
        TEXT.replace("gate_levle", "gate_level").replace("n + 1", "n + 2"),
        TEXT.replace("gate_levle", "print"),
    ],
)
def test_the_proof_refuses_what_changes_more_than_the_name(after):
    name = "print" if "def print" in after else "gate_level"
    claim = RenamedFunction("main.py", name, "gate_levle")
    assert not prove(read(TEXT, "python"), read(after, "python"), claim).proved


def test_calls_in_a_sketch_are_renamed_too():
    text = "int readLevle(int pin) {\n  return analogRead(pin);\n}\nvoid setup() {\n}\nvoid loop() {\n  delay(readLevle(A0));\n}\n"
    asked = 'format = "partitor-assignment"\nversion = 1\nentry = ""\n[[functions]]\nname = "readLevel"\n'
    answer = report(text, asked, "arduino").worked_answer.files["main.ino"]
    assert answer == text.replace("readLevle", "readLevel")
