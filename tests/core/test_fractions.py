"""Whole numbers beside fractions, given to variables for fractions: written as such, and proved to be the same."""

from __future__ import annotations

from pathlib import Path

import pytest

from core.builders import read, report, worked
from core.runners import can_run, outputs
from partitor.suggestions.proof import NewLoop, prove

ROOM = """    printf("room\\n");
    width = {};
    height = {};
    area = width * height;
    printf("area %.1f\\n", area);
"""
ROOMS = (("3.5", "4"), ("-2", "5.5"), ("6", "3"))


def rooms(values: tuple[tuple[str, str], ...] = ROOMS, kind: str = "double") -> str:
    body = "".join(ROOM.format(*pair) for pair in values)
    return f"#include <stdio.h>\nint main(void) {{\n    {kind} width, height, area;\n{body}    return 0;\n}}\n"


def test_a_list_holds_whole_numbers_as_fractions(tmp_path: Path) -> None:
    text = rooms()
    after = worked(text, "c")
    assert "{3.5, -2.0, 6.0}" in after
    assert "{4.0, 5.5, 3.0}" in after
    if can_run("c"):
        one, other = outputs("c", [text, after], tmp_path)
        assert one == other
    line = 1 + after.split("\n").index(next(x for x in after.split("\n") if "for (" in x))
    claim = NewLoop(read(text, "c").path, line, ("widthValues", "heightValues"))
    tables = [x.split()[1].rstrip("[]") for x in after.split("\n") if "[] = {" in x]
    claim = NewLoop(claim.path, line, tuple(tables))
    assert prove(read(text, "c"), read(after, "c"), claim).proved
    for old, new in (("-2.0", "2.0"), ("6.0", "6.5"), ("6.0", "60.0"), ("3.0", "30"), ("4.0", "4.00001")):
        assert not prove(read(text, "c"), read(after.replace(old, new), "c"), claim).proved, (old, new)


@pytest.mark.parametrize("kind", ["int", "float", "long"])
def test_other_variables_take_no_fractions(kind: str) -> None:
    assert ".0" not in worked(rooms(kind=kind), "c")


def test_what_is_divided_stays_whole() -> None:
    half = "".join(f'    half = {n} / 2;\n    printf("half %.1f\\n", half);\n' for n in ("3", "5.0", "7", "9"))
    text = f"#include <stdio.h>\nint main(void) {{\n    double half;\n{half}    return 0;\n}}\n"
    assert "7.0" not in worked(text, "c")
    assert all(s.status != "proved" for s in report(text, language="c").suggestions)


def test_whole_numbers_alone_count(tmp_path: Path) -> None:
    turn = '    width = {0};\n    printf("%.2f\\n", width / 4);\n    printf("--\\n");\n'
    body = "".join(turn.format(n) for n in (1, 2, 3))
    text = f"#include <stdio.h>\nint main(void) {{\n    double width;\n{body}    return 0;\n}}\n"
    after = worked(text, "c")
    assert "for (int" in after
    if can_run("c"):
        one, other = outputs("c", [text, after], tmp_path)
        assert one == other


@pytest.mark.parametrize("language", ["java", "csharp"])
def test_a_function_takes_fractions(language: str, tmp_path: Path) -> None:
    say = "System.out.println" if language == "java" else "System.Console.WriteLine"
    main = "public static void main(String[] given)" if language == "java" else "static void Main()"
    copy = f'        double {{0}} = {{1}};\n        double {{2}} = {{3}};\n        {say}("area " + {{0}} * {{2}});\n        {say}("around " + 2 * ({{0}} + {{2}}));\n'
    body = copy.format("a", "2.5", "b", "4") + f'        {say}("next");\n' + copy.format("c", "3", "d", "1.5")
    body += f'        {say}("last");\n' + copy.format("e", "7", "f", "7.5")
    text = f"class Main {{\n    {main} {{\n{body}    }}\n}}\n"
    after = worked(text, language)
    assert "(2.5, 4.0);" in after
    assert "(3.0, 1.5);" in after
    if can_run(language):
        one, other = outputs(language, [text, after], tmp_path)
        assert one == other


def test_a_declaration_without_a_name_is_read() -> None:
    torn = 'int total = 0;\n    for (int i = 0; i < 3; i++) {\n        total += reds[i];\n    }\n    printf("reds %d\\n", total);\n'
    text = f"#include <stdio.h>\nint main(void) {{\n    int reds[3] = {{3, 9, 4}};\n    {torn}    {torn.replace('int total =', 'int =')}    return 0;\n}}\n"
    assert report(text, language="c").findings


def test_a_fraction_in_a_text_stays_a_text_where_it_may_be_shown_otherwise() -> None:
    """`9.0` is shown as `9` in C#: the text's fraction is no number that could be given."""
    text = """
using System;

class Tickets
{
    static void Main()
    {
        double total = 0;
        double adultCost = 2 * 12.5;
        Console.WriteLine("Adults at 12.5");
        if (adultCost > 20)
        {
            Console.WriteLine("Group discount");
            adultCost = adultCost * 0.9;
        }
        total = total + adultCost;
        double seniorCost = 3 * 9.0;
        Console.WriteLine("Seniors at 9.0");
        if (seniorCost > 20)
        {
            Console.WriteLine("Group discount");
            seniorCost = seniorCost * 0.9;
        }
        total = total + seniorCost;
        Console.WriteLine("Total: " + total);
    }
}
"""
    after = worked(text, "csharp")
    assert '9.0, "Seniors at 9.0"' in after


RECKONED = {
    "java": (
        "class Main {{\n    static double net({kind} gross) {{\n{0}    }}\n    static double dry({kind} gross) {{\n{1}    }}\n"
        "    public static void main(String[] given) {{\n        System.out.println(net(8) + dry(80));\n    }}\n}}\n"
    ),
    "c": (
        "#include <stdio.h>\ndouble net({kind} gross) {{\n{0}}}\ndouble dry({kind} gross) {{\n{1}}}\n"
        'int main(void) {{\n    printf("%.2f\\n", net(8) + dry(80));\n    return 0;\n}}\n'
    ),
}


@pytest.mark.parametrize("language", sorted(RECKONED))
def test_a_whole_number_that_is_reckoned_with_a_fraction_is_as_good_as_one(language: str, tmp_path: Path) -> None:
    body = "        double w = gross - {};\n        if (w < 0) {{\n            w = -w / 3;\n        }}\n        return w * 2;\n"
    text = RECKONED[language].format(body.format("12.5"), body.format("30"), kind="double")
    (found,) = report(text, language=language).suggestions
    assert found.status == "proved"
    after = worked(text, language)
    assert "(80, 30.0)" in after
    if can_run(language):
        one, other = outputs(language, [text, after], tmp_path)
        assert one == other
    whole = RECKONED[language].format(body.format("12.5"), body.format("30 / 4"), kind="double")
    assert "30.0" not in worked(whole, language)
    assert "30.0" not in worked(text.replace("double gross", "int gross"), language)
