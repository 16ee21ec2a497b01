"""What students read: hostile text stays text, hint levels leave something to do, praise comes first."""

import pytest
from builders import report, source

from partitor.exchange.assignment import Assignment
from partitor.exchange.scores import csv_text
from partitor.feedback.render import page_html, page_markdown
from partitor.feedback.wording import feedback_page

TEXT = "".join(f'print("gate {n}")\nprint("  level", {300 - 40 * n})\n' for n in range(1, 5))
HOSTILE = "".join(
    f'print("</pre><script>alert({n})</script>", "```", {n})\nprint("[x](javascript:alert(1))", {n})\n'
    for n in range(1, 5)
)


def page(text: str, hint: str = "shape"):
    return feedback_page(report(text), Assignment(title="<b>Gates</b>"), {"main.py": source(text).text}, hint)


def test_hint_levels_show_more_and_more():
    where, shape, answer = (page(TEXT, hint).remarks[0].code for hint in ("where", "shape", "answer"))
    assert where == ""
    assert "for ____ in ____:" in shape
    assert "range" not in shape
    assert "for gate in range(1, 5):" in answer


def test_a_functions_shape_hides_its_name_and_parameters():
    text = (
        "".join(
            f"def step{n}():\n    level = {n}00\n    wet = level > 150\n    print('gate', {n}, level, wet)\n    return wet\n\n"
            for n in (1, 2)
        )
        + "print(step1(), step2())\n"
    )
    code = page(text, "shape").remarks[0].code
    assert "def ____(____):" in code
    assert "step(" not in code


def test_hostile_text_stays_text():
    html = page_html(page(HOSTILE, "answer"))
    assert "<script" not in html
    assert "&lt;script&gt;" in html
    assert "<b>Gates</b>" not in html
    markdown = page_markdown(page(HOSTILE, "answer"))
    assert "````" in markdown
    assert "# &lt;b&gt;Gates" in markdown


@pytest.mark.parametrize("text", [TEXT, "print(1)\n", "def main():\n    print(1)\n\nmain()\n"])
def test_there_is_always_something_good_first(text):
    made = page(text)
    assert 1 <= len(made.praise) <= 3
    html = page_html(made)
    assert html.index("What is good") < html.index("What to look at")


def test_cells_that_a_spreadsheet_would_run_are_made_harmless():
    assert csv_text([["=1+1", "+2", "-3", "@x", "Ada, B", "\tz"]]) == "'=1+1,'+2,'-3,'@x,\"Ada, B\",'\tz\r\n"
