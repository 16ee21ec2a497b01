"""Measures and rubric: the number behind each level, and the class's shared patterns."""

import pytest
from builders import report
from hypothesis import given
from hypothesis import strategies as st

from partitor.classwide.patterns import shared_patterns
from partitor.exchange.scores import csv_text, harmless
from partitor.scoring.default import default_criteria
from partitor.scoring.measures import MEASURES
from partitor.scoring.rubric import Criterion, Level, score, totals

RUN = "".join(f"print('gate', {n})\nprint('at', {n * 40}, 'cm')\n" for n in range(1, 5))
DIVIDED = """
def read_levels():
    return [3, 1, 2]


def print_levels(levels):
    for level in levels:
        print(level)


def main():
    levels = read_levels()
    print_levels(levels)


main()
"""


def measured(text: str, name: str) -> float:
    return report(text).measures[name]


@pytest.mark.parametrize(
    ("text", "name", "value"),
    [
        (RUN, "repeated_share", 0.75),
        (RUN, "run_share", 0.75),
        (RUN, "repeated_runs", 1),
        (RUN, "statements", 8),
        (RUN, "procedures", 0),
        (RUN, "possible_saving", 0.625),
        (DIVIDED, "repeated_share", 0),
        (DIVIDED, "procedures", 3),
        (DIVIDED, "entry_call_share", 1),
        (DIVIDED, "self_contained", 1),
        (DIVIDED, "deepest_nesting", 1),
        (DIVIDED, "uncalled", 0),
        (DIVIDED, "parameters_used", 1),
        (DIVIDED, "documented_share", 0),
        (DIVIDED, "longest_procedure", 2),
        ("", "repeated_share", 0),
        ("def f(a, b):\n    return a\nprint(f(1, 2))\n", "parameters_used", 0.5),
        ("def f():\n    g()\nf()\n", "undefined", 1),
    ],
)
def test_a_measure_is_the_number_its_definition_says(text, name, value):
    assert measured(text, name) == pytest.approx(value)


def test_every_measure_is_always_there_with_title_unit_and_definition():
    for text in ("", RUN, DIVIDED):
        assert set(report(text).measures) == set(MEASURES)
    for measure in MEASURES.values():
        assert measure.title
        assert measure.definition.endswith(".")
        assert measure.better in {"low", "high", "neither"}


@given(st.floats(0, 1))
def test_the_first_level_that_the_measure_reaches_holds(value):
    levels = (Level(8, "a", at_most=0.05), Level(5, "b", at_most=0.2), Level(0, "c"))
    found = score([Criterion("r", "R", "repeated_share", 8, levels)], {"repeated_share": value})[0]
    assert found.level == (1 if value <= 0.05 + 1e-9 else 2 if value <= 0.2 + 1e-9 else 3)
    assert found.points == levels[found.level - 1].points


def test_a_criterion_for_a_person_counts_only_once_it_is_judged():
    criteria = (*default_criteria(), Criterion("style", "Style", "manual", 10, (Level(10, "good"), Level(0, "bad"))))
    scores = score(criteria, report(DIVIDED).measures)
    assert scores[-1].points is None
    assert totals(scores) == (30, 30)


@pytest.mark.parametrize("cell", ["=1+1", "+7", "-2", "@x", "\tx", "\rx"])
def test_a_cell_that_a_spreadsheet_would_run_is_made_harmless(cell):
    assert harmless(cell) == "'" + cell
    assert csv_text([["Ada", 'say "so"', "a,b"]]) == 'Ada,"say ""so""","a,b"\r\n'


def test_what_several_submissions_share_is_one_pattern():
    other = RUN.replace("gate", "pump").replace("40", "7")
    reports = {1: report(RUN), 2: report(other), 3: report(DIVIDED), 4: report("print(1)\n")}
    patterns = shared_patterns(reports)
    assert [(p.finding.rule, p.submissions) for p in patterns] == [("repeated-run", (1, 2))]
    assert shared_patterns({1: report(RUN)}) == ()
