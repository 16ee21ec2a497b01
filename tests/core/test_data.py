"""Rows of data in the form of calls: how often their statements are looked at grows as their number does."""

from __future__ import annotations

from random import Random

from builders import repeats

from partitor.repeats import find, runs


def rows(count: int) -> str:
    """So many calls of one form, with few words and numbers in no order."""
    random = Random(4)
    return "".join(
        f'show("{random.choice("abcde")}{random.randint(0, 99)}", {random.randint(0, 9)})\n' for _ in range(count)
    )


def looked_at(monkeypatch, count: int) -> int:
    """How many statements are compared for rows of data."""
    seen = 0

    def counted(module):
        compare = module.compare

        def counting(copies, *more, **named):
            nonlocal seen
            seen += sum(len(copy.statements) for copy in copies)
            return compare(copies, *more, **named)

        return counting

    with monkeypatch.context() as patched:
        for module in (find, runs):
            patched.setattr(module, "compare", counted(module))
        found = repeats(rows(count))
    assert not found.runs
    return seen


def test_twice_as_many_rows_are_about_twice_the_work(monkeypatch) -> None:
    few, many = looked_at(monkeypatch, 400), looked_at(monkeypatch, 800)
    assert 0 < few < 60 * 400
    assert many < 3 * few


def test_a_long_copy_of_a_row_may_still_begin_with_a_paragraph() -> None:
    copy = "".join(f'show("{word}", {{0}})\n' for word in "abcdefghijklmnopqrstuvw")
    text = 'show("zz", 9)\n' * 3 + "\n".join(copy.format(k) for k in range(4))
    (run,) = repeats(text).runs
    assert [c.start_line for c in run.table.copies] == [4, 28, 52, 76]
