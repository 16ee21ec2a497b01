"""Rows whose copies each call a variable otherwise that nothing else has to do with; and what shows its own words."""

import pytest
from builders import printed, repeats, report, worked
from runners import require_same_output

COINS = [("twos", 200, "2.00"), ("ones", 100, "1.00"), ("fifties", 50, "0.50"), ("fives", 5, "0.05")]
PYTHON = "{0} = money // {1}\nmoney = money % {1}\nprint('{2}:', {0})\n"


def rows(form: str, before: str = "money = 387\n", after: str = "print('left', money)\n") -> str:
    return before + "".join(form.format(*coin) for coin in COINS) + after


def test_a_variable_of_its_copy_alone_gets_one_name_in_the_loop() -> None:
    text = rows(PYTHON)
    after = worked(text)
    assert after.count("money // ") == 1
    assert "for " in after
    assert "def " not in after
    assert printed(after) == printed(text)


@pytest.mark.parametrize(
    ("language", "form", "before", "after"),
    [
        (
            "java",
            '        int {0} = money / {1};\n        money = money % {1};\n        System.out.println("{2}: " + {0});\n',
            "public class Main {\n    public static void main(String[] args) {\n        int money = 387;\n",
            "    }\n}\n",
        ),
        (
            "javascript",
            "const {0} = Math.floor(money / {1});\nmoney = money % {1};\nconsole.log('{2}', {0});\n",
            "let money = 387;\n",
            "console.log(money);\n",
        ),
        (
            "c",
            '    int {0} = money / {1};\n    money = money % {1};\n    printf("{2}: %d\\n", {0});\n',
            "#include <stdio.h>\n\nint main(void) {\n    int money = 387;\n",
            "    return 0;\n}\n",
        ),
    ],
)
def test_so_it_is_where_variables_are_declared(language, form, before, after, tmp_path) -> None:
    text = rows(form, before, after)
    rewritten = worked(text, language)
    assert rewritten.count("money % ") == 1
    require_same_output(language, text, rewritten, tmp_path)


@pytest.mark.parametrize(
    ("before", "after"),
    [
        ("money = 387\n", "print(money, twos)\n"),
        ("money = 387\n", "print(money, fives)\n"),
        ("money = fifties = 387\n", "print(money)\n"),
        ("money = 387\ndef peek():\n    print(ones)\n", "peek()\n"),
        ("money = 387\n", "print(money)\ndel twos\n"),
        ("import sys\nmoney = 387\n", "print(money, sys.ones)\n"),
    ],
)
def test_what_is_used_elsewhere_keeps_its_name(before: str, after: str) -> None:
    text = rows(PYTHON, before, after)
    assert all(not r.table.columns[0].is_target for r in repeats(text).runs)
    if "sys" not in before:
        assert printed(worked(text)) == printed(text)


@pytest.mark.parametrize(
    "form",
    [
        "later.append(lambda: {0})\n{0} = money // {1}\nmoney = money % {1}\nprint('{2}:', {0})\n",
        "{0} = money // {1}\nmoney = money % {1}\nlater.append(lambda: {0})\nprint('{2}:', {0})\n",
        "{0} = money // {1}\nmoney = money % {1}\nprint(f'{{{0}=}}', {0})\n",
    ],
)
def test_what_is_kept_for_later_or_shows_its_name_stays(form: str) -> None:
    text = rows(form, "money = 387\nlater = []\n", "print(money, [f() for f in later])\n")
    assert printed(worked(text)) == printed(text)


def test_a_variable_that_a_copy_may_find_a_value_in_stays() -> None:
    form = "if money > {1}:\n    {0} = money // {1}\nmoney = money % {1}\nprint('{2}:', {0} + 1, money)\n"
    text = rows(form, "money = 987\n")
    assert not [s for s in report(text).suggestions if s.status == "proved" and s.kind == "loop"]


SHOWING = {
    "c": (
        '#include <stdio.h>\n#define SHOW(x) printf(#x " = %d\\n", x)\n#define TWICE(x) SHOW(x); SHOW(x)\n\n'
        "int main(void) {\n    int money = 387;\n",
        "    int {0} = money / {1};\n    money = money % {1};\n    TWICE({0});\n",
        "    return money;\n}\n",
    ),
    "csharp": (
        "using System;\nclass Program\n{\n    static void Main()\n    {\n        int money = 387;\n",
        "        int {0} = money / {1};\n        money = money % {1};\n"
        '        Console.WriteLine(nameof({0}) + " " + {0});\n',
        "    }\n}\n",
    ),
}


@pytest.mark.parametrize("language", sorted(SHOWING))
def test_a_name_that_is_shown_is_no_name_to_change(language: str) -> None:
    before, form, after = SHOWING[language]
    text = rows(form, before, after)
    assert worked(text, language) == text
    plain = text.replace('#x "', '"').replace("nameof(", "show(")
    assert worked(plain, language) != plain


CLASSES = """\
marks = [("a", 2), ("b", 3), ("a", 1), ("c", 4), ("b", 5)]
{copies}"""


def test_two_variables_of_a_loop_are_two_of_every_copy() -> None:
    copies = "".join(
        f'sum_{c} = 0\nn_{c} = 0\nfor m in marks:\n    if m[0] == "{c}":\n        {changed} += m[1]\n        n_{c} += 1\n'
        f'print("class {c}:", sum_{c} / n_{c})\n'
        for c, changed in [("a", "sum_a"), ("b", "n_b"), ("c", "sum_c")]
    )
    text = CLASSES.format(copies=copies)
    assert printed(worked(text)) == printed(text)
    right = text.replace("n_b += m[1]", "sum_b += m[1]")
    assert len(worked(right)) < len(right)
