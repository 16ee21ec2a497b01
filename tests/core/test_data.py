"""Rows of data in the form of calls: how often their statements are looked at grows as their number does."""

from __future__ import annotations

from random import Random

from builders import repeats

from partitor.languages.table import Language


def rows(count: int) -> str:
    """So many calls of one form, with few words and numbers in no order."""
    random = Random(4)
    return "".join(
        f'show("{random.choice("abcde")}{random.randint(0, 99)}", {random.randint(0, 9)})\n' for _ in range(count)
    )


def looked_at(monkeypatch, count: int) -> int:
    """How many texts are taken apart for rows of data: one a statement whenever it is compared."""
    seen = 0
    plain = Language.numbers_in

    def counting(language: Language, text: str) -> list[str]:
        nonlocal seen
        seen += 1
        return plain(language, text)

    with monkeypatch.context() as patched:
        patched.setattr(Language, "numbers_in", counting)
        repeats(rows(count))
    return seen


def test_four_times_as_many_rows_are_about_four_times_the_work(monkeypatch) -> None:
    few, many = looked_at(monkeypatch, 400), looked_at(monkeypatch, 1600)
    assert few > 400
    assert many < 6 * few


def test_a_long_copy_of_a_row_may_still_begin_with_a_paragraph() -> None:
    copy = "".join(f'show("{word}", {{0}})\n' for word in "abcdefghijklmnopqrstuvw")
    text = 'show("zz", 9)\n' * 3 + "\n".join(copy.format(k) for k in range(4))
    (run,) = repeats(text).runs
    assert [c.start_line for c in run.table.copies] == [4, 28, 52, 76]
