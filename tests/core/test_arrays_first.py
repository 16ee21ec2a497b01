"""Variables that several loops would run through: one array first; and counters that loops declare for themselves."""

from __future__ import annotations

import pytest
from builders import read, report, worked
from runners import require_same_output

from partitor.suggestions.proof import NewLoop, prove

DAYS = ("mon", "tue", "wed", "thu", "fri")
HEADS = {
    "c": ("#include <stdio.h>\n\nint main(void) {\n", "    return 0;\n}\n", 'printf("%d\\n", {});'),
    "cpp": ("#include <iostream>\n\nint main() {\n", "    return 0;\n}\n", "std::cout << {} << std::endl;"),
}


def week(language: str) -> str:
    before, after, show = HEADS[language]
    text = "".join(f"    int {day} = {(k * 7) % 5};\n" for k, day in enumerate(DAYS))
    text += "    int most = mon;\n" + "".join(
        f"    if ({d} > most) {{\n        most = {d};\n    }}\n" for d in DAYS[1:]
    )
    text += "    int least = mon;\n" + "".join(
        f"    if ({d} < least) {{\n        least = {d};\n    }}\n" for d in DAYS[1:]
    )
    text += "    int dry = 0;\n" + "".join(f"    if ({d} == 0) {{\n        dry++;\n    }}\n" for d in DAYS)
    return before + text + "".join(f"    {show.format(name)}\n" for name in ("most", "least", "dry")) + after


@pytest.mark.parametrize("language", HEADS)
def test_days_that_three_loops_run_through_are_one_array(language: str, tmp_path) -> None:
    text = week(language)
    after = worked(text, language)
    assert after.count("{0, 2, 4, 1, 3}") == 1
    assert after.count("for (int i = ") == 3
    assert after.count("[]") == 1
    require_same_output(language, text, after, tmp_path)


def test_one_loop_alone_has_its_own_array() -> None:
    text = week("c")
    start, stop = text.index("    int least"), text.index('    printf("%d\\n", most)')
    steps = report(text[:start] + "    int least = 0, dry = 0;\n" + text[stop:], language="c").worked_answer.steps
    assert [step.title.startswith("A loop") for step in steps] == [True]


BEFORE = '#include <stdio.h>\n{0}\nint main(void) {{\n{1}    printf("4\\n");\n    printf("7\\n");\n    printf("10\\n");\n{2}    return 0;\n}}\n'
AFTER = '#include <stdio.h>\n{0}\nint main(void) {{\n{1}    for (int i = 4; i < 11; i += 3) {{\n        printf("%d\\n", i);\n    }}\n{2}    return 0;\n}}\n'
OWN = '    for (int i = 0; i < 2; i++) {\n        puts("x");\n    }\n'


def proved(outside: str, above: str, below: str) -> bool:
    """Whether a loop that declares `i` may stand there."""
    old, new = (read(form.format(outside, above, below), "c") for form in (BEFORE, AFTER))
    line = 4 + outside.count("\n") + above.count("\n")
    return prove(old, new, NewLoop("main.c", line)).proved


@pytest.mark.parametrize(
    ("outside", "above", "below"),
    [
        ("", "", ""),
        ("", OWN, ""),
        ("", "", OWN),
        ("", OWN, OWN + OWN),
        ("int twice(int i) {\n    return 2 * i;\n}\n", "", OWN),
        ("", "    while (getchar() > 0) {\n    " + OWN + "    }\n", ""),
    ],
)
def test_a_counter_that_only_other_loops_declare_is_free(outside: str, above: str, below: str) -> None:
    assert proved(outside, above, below)


@pytest.mark.parametrize(
    ("outside", "above", "below"),
    [
        ("", "    int i = 2;\n", '    printf("%d", i);\n'),
        ("", '    int i;\n    for (i = 0; i < 2; i++) {\n        puts("x");\n    }\n', ""),
        ("", "", "    int i = 3;\n    putchar(i);\n"),
        ("#define i 5\n", OWN, ""),
        ("#define SHOW(x) putchar(x + i)\n", OWN, ""),
        ("int i = 4;\n", OWN, "    putchar(i);\n"),
        ("", "    for (int i = 0; i < 2; i++) {\n", "    }\n"),
    ],
)
def test_any_other_use_of_its_name_is_left_alone(outside: str, above: str, below: str) -> None:
    assert not proved(outside, above, below)


@pytest.mark.parametrize(
    ("head", "free"),
    [("let i = 0", True), ("var i = 0", False), ("i = 0", False)],
)
def test_in_scripts_only_what_let_declares_is_the_loops_own(head: str, free: bool) -> None:
    other = f"for ({head}; i < 2; i++) {{\n  console.log('x');\n}}\n"
    rows = "".join(f"console.log({n});\n" for n in (4, 7, 10))
    looped = "for (let i = 4; i < 11; i += 3) {\n  console.log(i);\n}\n"
    old, new = read(other + rows, "javascript"), read(other + looped, "javascript")
    assert prove(old, new, NewLoop("main.js", 4)).proved is free
