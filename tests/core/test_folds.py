"""What is remembered from one fold of a chain to the next saves proofs, and changes nothing else."""

from __future__ import annotations

import pytest

from core.builders import read
from core.hidden import hidden
from partitor.deadline import Deadline
from partitor.program.program import Program
from partitor.repeats.find import find_repeats
from partitor.repeats.limits import Limits
from partitor.suggestions import cutting, folds
from partitor.suggestions.folds import Folds
from partitor.suggestions.steps import NO_COPIES
from partitor.suggestions.worked import replaced

LIGHTS = """\
print("lamp 1")
print("wait 1")
print("lamp 2")
print("wait 2")
print("lamp 3")
print("wait 3")
print("lamp 4")
print("wait 4")
"""
GATES = LIGHTS.replace("lamp", "gate").replace("wait", "close") + 'print("closed")\n'


def chain(text: str, remembering: bool) -> str:
    """The text after fold upon fold, each chosen by one `Folds` or by one of its own."""
    program, chooser = Program([read(text, "python")]), Folds(Deadline(100))
    while True:
        found = find_repeats(program, Limits(), frozenset(), near=True)
        fold = (chooser if remembering else Folds(Deadline(100))).best(found)
        if fold is None:
            return program.files[0].source.text
        program = replaced(program, fold.changed)


@pytest.mark.parametrize("first", range(0, 60, 12))
def test_the_folds_are_those_that_would_be_chosen_afresh(monkeypatch, first):
    tried = {True: 0, False: 0}
    attempt = folds.attempt

    def counted(*making):
        tried[remembering] += 1
        return attempt(*making)

    monkeypatch.setattr(folds, "attempt", counted)
    for seed in range(first, first + 12, 3):
        text = "".join(hidden(seed + k)[1] for k in range(3))
        results = []
        for remembering in (True, False):
            results.append(chain(text, remembering))
        assert results[0] == results[1] != text
    assert tried[True] < tried[False]


def test_what_could_not_be_proved_is_tried_again_when_nothing_else_is_left(monkeypatch):
    attempt, asked = folds.attempt, []

    def refused_at_first(make, about):
        asked.append(about.copies[0].file.tree.source_of(about.copies[0].first))
        return "not yet" if asked.count('print("gate 1")') == 1 and "gate" in asked[-1] else attempt(make, about)

    monkeypatch.setattr(folds, "attempt", refused_at_first)
    folded = chain(LIGHTS + 'print("lit")\n' + GATES, remembering=True)
    assert folded.count("for ") == 2
    assert asked.count('print("gate 1")') > 1


def test_what_was_cut_once_is_not_cut_again_for_each_of_its_steps(monkeypatch):
    part = """\
    # part {k}
    a{k} = int(input())
    while a{k} < {k}:
        a{k} = int(input())
        print({k}, "at least")
    print(a{k} * {k} - {k})

"""
    text = "def main():\n" + "".join(part.format(k=k) for k in range(3, 9)) + "\nmain()\n"
    cut, steps_of = [], cutting.steps_of

    def counted(*asked):
        cut.append(asked)
        return steps_of(*asked)

    monkeypatch.setattr(cutting, "steps_of", counted)
    program = Program([read(text, "python")])
    singly = cutting.Cutting(set(), set(), NO_COPIES, {}, {program.files[0].path})
    links = 0
    while (link := cutting.next_cut(program, Limits(), Deadline(100), singly)) is not None:
        program, links = replaced(program, [(link.file, link.after)]), links + 1
    assert links > 3
    assert len(cut) < links
    main = program.files[0].source.text.split("def main")[1]
    assert main.count("()") > links
