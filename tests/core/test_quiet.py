"""Variables of the program that copies change under other names: a function is given the value and gives it back, where
nothing of the program can look in between."""

import pytest
from builders import printed, report, worked
from runners import can_run, outputs

SHOP = """{first}soups = 10
stews = 8
takings = 0

{before}def serve(choice, n):
    global soups, stews, takings
    if choice == "soup":
        print("How many?", n)
        if n > soups:
            print("Only", soups, "left")
        else:
            soups = soups - n
            price = n * 3
            takings = takings + price
{inside}            print("That is", price)
    else:
        print("How many?", n)
        if n > stews:
            print("Only", stews, "left")
        else:
            stews = stews - n
            price = n * 6
            takings = takings + price
{inside}            print("That is", price)
    print(soups, stews, takings)


{calls}
"""
CALLS = 'serve("soup", 4)\nserve("stew", 9)\nserve("stew", 2)\nserve("soup", 7)'


def shop(first: str = "", before: str = "", inside: str = "", calls: str = CALLS) -> str:
    inside = "".join(f"            {line}\n" for line in inside.split("\n") if line)
    return SHOP.format(first=first, before=before, inside=inside, calls=calls)


def test_a_function_is_given_what_the_program_keeps_and_gives_it_back() -> None:
    text = shop(first="import random\n")
    after = worked(text)
    assert after.count("takings = takings + price") == 1
    assert "soups, takings = " in after
    assert "stews, takings = " in after
    assert printed(after) == printed(text)


LOOK = "def look():\n    print('now', soups, stews)\n\n\n"


@pytest.mark.parametrize(
    ("first", "before", "inside", "calls"),
    [
        # something of the program runs inside the copies
        ("", LOOK, "look()", CALLS),
        ("", LOOK + "act = look\n\n\n", "act()", CALLS),
        (
            "",
            "class Sign:\n    def __str__(self):\n        return str(soups)\n\n\nsign = Sign()\n\n\n",
            "print(sign)",
            CALLS,
        ),
        ("", "def rank(n):\n    print(soups)\n    return n\n\n\n", "print(sorted([2, n], key=rank))", CALLS),
        ("", "", "print((lambda: soups)())", CALLS),
        (
            "class Log:\n    def write(self, text):\n        return text + str(soups)\n\n\nlog = Log()\n",
            "",
            "print(n, file=log)",
            CALLS,
        ),
        # what stops it half way could be seen
        (
            "",
            "",
            "print(10 // (n - 2))",
            "try:\n    serve('stew', 2)\nexcept ZeroDivisionError:\n    print(soups, stews)",
        ),
        # a library that may call back
        ("import tkinter\n", "", "", CALLS),
        ("from threading import Thread\n", "", "", CALLS),
        # it may have no value yet when it is given
        ("", "", "", "del takings\ntakings = 1\n" + CALLS),
    ],
)
def test_not_where_something_may_look_in_between(first: str, before: str, inside: str, calls: str) -> None:
    text = shop(first, before, inside, calls)
    assert "return soups" not in worked(text)


def test_not_before_the_program_gave_it_a_value() -> None:
    text = shop(calls=CALLS).replace("soups = 10\n", "", 1) + "soups = 10\n"
    assert "return soups" not in worked(text)


def test_two_names_for_one_variable_are_no_two_values() -> None:
    text = shop().replace("stews", "takings").replace("soups, takings, takings", "soups, takings")
    assert printed(worked(text)) == printed(text)


FIELDS = """public class Main {{
    static int red = 3;
    static int blue = 0;
    static int lost = 1;

{more}    static void day(int n) {{
        System.out.println("red " + red);
        red = red + n;
        if (red > 4) {{
            lost = lost + red;
        }}
{inside}        System.out.println("sold " + red + " " + lost);
        System.out.println("and then");
        System.out.println("red " + blue);
        blue = blue + n;
        if (blue > 4) {{
            lost = lost + blue;
        }}
{inside}        System.out.println("sold " + blue + " " + lost);
    }}

    public static void main(String[] args) {{
{call}        System.out.println(red + " " + blue + " " + lost);
    }}
}}
"""
GO = "        day(3);\n        day(2);\n"


def test_fields_of_a_class_are_given_and_given_back(tmp_path) -> None:
    text = FIELDS.format(more="", inside="", call=GO)
    after = worked(text, "java")
    assert after.count("lost = lost + ") == 1
    assert "red = " in after
    assert "blue = " in after
    if can_run("java"):
        before, rewritten = outputs("java", [text, after], tmp_path)
        assert before == rewritten
        assert "COMPILE" not in before


@pytest.mark.parametrize(
    ("more", "inside", "call"),
    [
        ("    static void look() {\n        System.out.println(red);\n    }\n", "        look();\n", GO),
        ('    public String toString() {\n        return "" + red;\n    }\n', "", GO),
        (
            "",
            "",
            "        try {\n            day(3);\n        } catch (RuntimeException e) {\n            lost = 0;\n        }\n",
        ),
        ("", "        Runnable later = () -> System.out.println(red);\n", GO),
        ("", "", "        new Thread(() -> System.out.println(red)).start();\n" + GO),
        (
            "    static class Look {\n        Look() {\n            lost = red;\n        }\n    }\n",
            "        new Look();\n",
            GO,
        ),
    ],
)
def test_not_where_other_code_may_see_a_field(more: str, inside: str, call: str) -> None:
    text = FIELDS.format(more=more, inside=inside, call=call)
    found = [s.title for s in report(text, language="java").suggestions if s.status == "proved"]
    assert not [t for t in found if "red" in t]
    assert "return red;" not in worked(text, "java")


def test_a_run_over_program_variables_becomes_calls_of_a_function() -> None:
    leg = (
        "    {0} = 0\n    for leg in range(4):\n        if leg % {1} == 0:\n            {0} = {0} + 12\n        else:\n"
    )
    leg += "            {0} = {0} + 8\n"
    text = "time1 = 0\ntime2 = 0\ntime3 = 0\n\n\ndef race():\n    global time1, time2, time3\n"
    text += "".join(leg.format(f"time{k}", 2) for k in (1, 2, 3))
    text += "\n\ndef table():\n    print(time1, time2, time3)\n\n\nrace()\ntable()\n"
    after = worked(text)
    assert after.count("for leg in range(4)") == 1
    assert "    time2 = " in after
    assert printed(after) == printed(text)
