"""A part of `./run fuzz` each time: mutated archives and programs never raise, and never pass a limit."""

import fuzz
import pytest

from partitor.errors import UnreadableSubmission


def test_mutated_archives_are_read_or_refused():
    assert fuzz.run("archive", 6000) == []


def test_mutated_programs_are_checked():
    assert fuzz.run("program", 160) == []


@pytest.mark.parametrize(("kind", "number"), fuzz.kept() or [("archive", 0)])
def test_what_once_failed_does_not_fail_again(kind, number):
    assert fuzz.tried(kind, number) == ""


def test_the_cases_are_the_same_each_time_and_reach_both_ends():
    assert fuzz.archive_case(7) == fuzz.archive_case(7)
    assert fuzz.program_case(7) == fuzz.program_case(7)
    outcomes = set()
    for number in range(300):
        try:
            batch = fuzz.batch_of(fuzz.unpacked_files([fuzz.archive_case(number)]))
            outcomes.add((bool(batch.submissions), bool(batch.unreadable)))
        except UnreadableSubmission:
            outcomes.add("refused")
    assert outcomes >= {(True, False), (True, True), (False, True), "refused"}


def test_an_error_is_seen(monkeypatch):
    def fails(number):
        raise KeyError(number)

    monkeypatch.setitem(fuzz.CASES, "archive", fails)
    assert fuzz.tried("archive", 3).startswith("raises KeyError in test_fuzz.py")
    assert [number for number, _ in fuzz.chunk(("archive", 3, 5))] == [3, 4]
