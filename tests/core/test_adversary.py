"""Folding and proving under attack, a few hundred programs of each kind; `./run bench folding` tries thousands."""

from folding import hidden_originals, seeded_faults, wild_programs


def test_worked_answers_get_as_short_as_the_hidden_original_and_print_the_same():
    wrong, shares, longer = hidden_originals(60)
    assert wrong == 0
    assert sorted(shares)[len(shares) // 2] >= 0.95
    assert min(shares) >= 0.6
    assert len(longer) <= len(shares) // 4


def test_no_rewriting_of_a_wild_program_prints_something_else():
    tried, wrong = wild_programs(150, first=100_000)
    assert tried > 60
    assert wrong == 0


def test_seeded_faults_are_refused():
    seeded, harmless, wrong = seeded_faults(120, first=200_000)
    assert seeded > 400
    assert wrong == 0
    assert harmless < seeded // 20
