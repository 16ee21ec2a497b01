"""What a function is given may change in the copy once it was used; steps begin where copies do; and of copies that
take too much, a part that takes less."""

import random

import pytest
from builders import file, printed, run, worked
from runners import can_run, outputs

from partitor.suggestions.proof import NewFunction, prove

COPY = "minutes = {0} + {2}\nhours = {1} + minutes // 60\nminutes = minutes % 60\nprint(hours, minutes, {2})\n"


def times(*copies: tuple[str, str, str]) -> str:
    return "start = 50\nbegin = 9\nminutes = 1\nhours = 2\n" + "".join(COPY.format(*copy) for copy in copies)


def test_a_variable_may_be_given_that_the_copy_changes_later() -> None:
    text = times(("start", "begin", "75"), ("minutes", "hours", "45"), ("minutes", "hours", "100"))
    after = worked(text)
    assert after.count("// 60") == 1
    assert after.count("minutes, hours = ") == 3
    assert printed(after) == printed(text)


FUNCTION = """
def pass_time(minutes_now, hours_now, more):
    minutes = minutes_now + more
{0}    hours = hours_now + minutes // 60
    minutes = minutes % 60
    print(hours, minutes, {1})
    return minutes, hours


start = 50
begin = 9
minutes = 1
hours = 2
minutes, hours = pass_time(start, begin, 75)
minutes, hours = pass_time(minutes, hours, 45)
"""


@pytest.mark.parametrize(
    ("line", "shown", "right"),
    [
        ("", "more", True),
        # By then the variable that was given has another value.
        ("", "minutes_now", False),
        ("", "hours_now", False),
        ("if minutes > 5:\n    minutes = minutes_now\n", "more", False),
        ("hours = (minutes := 3) + minutes_now\n", "more", False),
    ],
)
def test_it_may_not_be_used_after_that(line: str, shown: str, right: bool) -> None:
    copies = []
    for start, begin, more in (("start", "begin", "75"), ("minutes", "hours", "45")):
        copy = COPY.format(start, begin, more).replace(f"minutes, {more})", f"minutes, {shown})")
        first, rest = copy.split("\n", 1)
        copy = f"{first}\n{line}{rest}"
        for name, value in {"minutes_now": start, "hours_now": begin, "more": more}.items():
            copy = copy.replace(name, value)
        copies.append(copy)
    before = times() + "".join(copies)
    after = FUNCTION.format("".join(f"    {one}\n" for one in line.splitlines()), shown)
    assert prove(file(before), file(after), NewFunction("main.py", "pass_time")).proved is right


@pytest.mark.parametrize("language", ["python", "javascript", "c"])
def test_any_copies_print_the_same(language: str, tmp_path) -> None:
    """Statements over few variables, copied with other variables in their places, some of them twice."""
    r = random.Random(11)
    forms = {
        "python": ["{{{0}}} = {{{1}}} + {{{2}}}", "print({{{0}}}, {{{1}}})", "if {{{0}}} > {{{1}}}: {{{2}}} = {{{0}}}"],
        "javascript": ["{{{0}}} = {{{1}}} + {{{2}}};", "console.log({{{0}}}, {{{1}}});"],
        "c": ["{{{0}}} = {{{1}}} + {{{2}}};", 'printf("%d %d\\n", {{{0}}}, {{{1}}});'],
    }[language]
    texts = []
    for _ in range(150 if language == "python" else 40):
        template = [r.choice(forms).format(*(r.randrange(4) for _ in range(3))) for _ in range(r.randint(5, 8))]
        names = [r.sample("abcd", 4) if r.random() < 0.4 else [r.choice("abcd") for _ in range(4)] for _ in range(2)]
        first, second = ([line.format(*own) for line in template] for own in names)
        say = forms[1].format(0, 1).format("a", "b")
        texts.append(_program([*first, say, say, *second, say], language))
    afters = [worked(text, language) for text in texts]
    assert sum(after != text for text, after in zip(texts, afters, strict=True)) > len(texts) // 30
    if language == "python":
        assert [run(text) for text in texts] == [run(after) for after in afters]
    elif can_run(language):
        both = outputs(language, [*texts, *afters], tmp_path)
        assert both[: len(texts)] == both[len(texts) :]


def _program(lines: list[str], language: str) -> str:
    """The lines with four variables before them."""
    declared = {"python": "{0} = {1}", "javascript": "let {0} = {1};", "c": "int {0} = {1};"}[language]
    whole = [*(declared.format(name, value) for name, value in zip("abcd", (3, 5, 2, 8), strict=True)), *lines]
    if language != "c":
        return "\n".join(whole) + "\n"
    return "#include <stdio.h>\nint main(void) {\n" + "".join(f"    {line}\n" for line in whole) + "    return 0;\n}\n"


def test_a_part_becomes_a_function_where_the_whole_takes_too_much() -> None:
    form = """
def {0}(a, b, c, d):
    top = a * d {1} c * b
    bottom = b * d
    x, y = top, bottom
    while y:
        x, y = y, x % y
    top = top // x
    bottom = bottom // x
    print(a, b, "{0}", c, d, "is", top, bottom, x)
"""
    text = form.format("add", "+") + form.format("subtract", "-") + form.format("swap", "* 2 -")
    text += "\nadd(1, 2, 1, 3)\nsubtract(1, 2, 1, 3)\nswap(3, 4, 1, 3)\n"
    after = worked(text)
    assert after.count("while y") == 1
    assert printed(after) == printed(text)


def test_no_step_is_one_of_several_copies() -> None:
    """Copies that are only told do not become functions that are alike."""
    part = "    for ch in word:\n        if ch.{0}():\n            n += 1\n            print(ch)\n    print('{0}', n)\n"
    part += "    {1}\n"
    kinds = zip(
        ["isdigit", "isupper", "islower", "isalpha", "isspace"],
        ["n = n // 2", "print('half')", "word = word + 'x'", "n += len(word)", "print(n)"],
        strict=True,
    )
    text = "def main(word):\n    n = 0\n" + "".join(part.format(*kind) for kind in kinds) + "\n\nmain('aB3')\n"
    assert worked(text).count("def ") == 1
