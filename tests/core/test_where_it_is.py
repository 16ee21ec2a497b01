"""A program that asks in which function, or on which line, it is cannot have lines moved."""

from __future__ import annotations

import pytest

from core.builders import worked

PARTS = {
    "python": ("level = 2\n\n\ndef turn():\n    global level\n", "", "\n\nturn()\nprint(level)\n", "    "),
    "c": (
        "#include <stdio.h>\nint level = 2;\nvoid turn(void) {\n",
        "}\n",
        "int main(void) { turn(); return 0; }\n",
        ";",
    ),
    "swift": ("var level = 2\nfunc turn() {\n", "}\n", "turn()\n", ""),
    "csharp": ("class P {\n    static int level = 2;\n    static void Main() {\n", "    }\n}\n", "", ";"),
}
SHOWS = {
    "python": '    print({0}, level)\n    level += {1}\n    print("level", level)\n    print("again", level * 2)\n',
    "c": '    printf("%d %d\\n", {0}, level);\n    level += {1};\n    printf("level %d\\n", level);\n    puts("again");\n',
    "swift": '    print({0}, level)\n    level += {1}\n    print("level", level)\n    print("again", level * 2)\n',
    "csharp": "        Console.WriteLine({0});\n        level += {1};\n        Console.WriteLine(level);\n"
    "        Console.WriteLine(level * 2);\n",
}


def text(language: str, shown: str) -> str:
    head, end, last, _ = PARTS[language]
    copies = [SHOWS[language].format(shown, k) for k in (3, 4, 9)]
    between = {"python": '    print("-")\n', "swift": '    print("-")\n', "c": '    puts("-");\n'}
    return head + between.get(language, "        Console.Beep();\n").join(copies) + end + last


@pytest.mark.parametrize(
    ("language", "word"),
    [
        ("python", "sys._getframe().f_lineno"),
        ("c", "__LINE__"),
        ("swift", "#line"),
        ("csharp", "new StackFrame().GetMethod().Name"),
    ],
)
def test_what_tells_where_it_is_stays_there(language: str, word: str) -> None:
    plain, asking = text(language, "7"), text(language, word)
    assert worked(plain, language) != plain
    assert worked(asking, language) == asking


def test_a_macro_may_ask_too() -> None:
    asking = text("c", "7").replace("int level", "#define HERE __LINE__\nint level")
    assert worked(asking, "c") == asking
