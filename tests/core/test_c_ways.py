"""What C students write: formats with words that differ, prototypes above `main`; and a game script's `repeat`."""

from __future__ import annotations

from pathlib import Path

import pytest

from core.builders import read, report, worked
from core.runners import can_run, outputs, require_same_output
from partitor.suggestions.proof import NewFunction, NewLoop, prove

HEAD = "#include <stdio.h>\n\n"
SHOWS = HEAD + "".join(
    f'void show_{w}(int level) {{\n    printf("{w}: %d cm\\n", level);\n    if (level > 300) {{\n'
    f'        printf("{w} is high\\n");\n    }}\n    printf("--\\n");\n}}\n\n'
    for w in ("mill", "quay")
)
SHOWS += "int main(void) {\n    show_mill(310);\n    show_quay(20);\n    return 0;\n}\n"
GATES = HEAD + "int main(void) {\n    int level = 3;\n"
GATES += "".join(f'    printf("Gate {n}: %d of %d\\n", level, 9);\n    level += 4;\n' for n in range(1, 6))
GATES += "    return 0;\n}\n"


@pytest.mark.parametrize(
    ("text", "line"),
    [
        (SHOWS, '    printf("%s: %d cm\\n", name, level);'),
        (GATES, '        printf("Gate %d: %d of %d\\n", gate, level, 9);'),
    ],
)
def test_what_differs_in_a_format_is_printed_first(text: str, line: str, tmp_path: Path) -> None:
    after = worked(text, "c")
    assert line in after
    require_same_output("c", text, after, tmp_path)


@pytest.mark.parametrize(
    ("old", "new"),
    [
        ('"mill: %d cm\\n"', '"mill: %5d cm\\n"'),
        ('"mill: %d cm\\n"', '"%d mill cm\\n"'),
        ('"mill: %d cm\\n"', '"mi%%ll: %d cm\\n"'),
        ('"mill: %d cm\\n"', '"mi\\tll: %d cm\\n"'),
    ],
)
def test_formats_that_differ_in_more_than_words_stay(old: str, new: str) -> None:
    text = SHOWS.replace(old, new)
    assert text != SHOWS
    assert all(s.status == "outline" or "%s: %" not in s.diff for s in report(text, language="c").suggestions)


LOOP = HEAD + "int main(void) {\n    int n = 3;\n{0}    return 0;\n}}\n".replace("}}", "}")
WRITTEN = 'printf("{0} %d\\n", n);\n    n++;\n    '


@pytest.mark.parametrize(
    ("given", "right"),
    [
        ('printf("gate %d %d\\n", i, n);', True),
        ('printf("gate %d %d\\n", n, i);', False),
        ('printf("gate %d %d %d\\n", i, n);', False),
        ('printf("gate %2d %d\\n", i, n);', False),
        ('printf("gate %d%% %d\\n", i, n);', False),
        ('printf("gate %c %d\\n", i, n);', False),
    ],
)
def test_the_proof_puts_constants_into_formats(given: str, right: bool) -> None:
    copies = "".join(f'    printf("gate {i} %d\\n", n);\n    n++;\n' for i in range(1, 4))
    loop = f"    for (int i = 1; i < 4; i++) {{\n        {given}\n        n++;\n    }}\n"
    before, after = (read(LOOP.replace("{0}", part), "c") for part in (copies, loop))
    assert prove(before, after, NewLoop("main.c", 5)).proved is right


def test_only_printf_makes_its_values_part_of_a_text() -> None:
    head = "#include <stdio.h>\n\nvoid tell(const char *text, ...) {\n    puts(text);\n}\n\nint main(void) {\n"
    copies = "".join(f'    tell("gate {i}");\n    puts("--");\n' for i in range(1, 4))
    loop = '    for (int i = 1; i < 4; i++) {\n        tell("gate %d", i);\n        puts("--");\n    }\n'
    for name, right in (("tell", False), ("printf", True)):
        before, after = (
            read(f"{head}{part}    return 0;\n}}\n".replace("    tell(", f"    {name}("), "c")
            for part in (copies, loop)
        )
        assert prove(before, after, NewLoop("main.c", 8)).proved is right


TOLD = """\
#include <stdio.h>

int read_number(void);

int main(void) {
    int a, b;
    a = read_number();
    if (a < 0) {
        a = 0;
    }
    printf("level %d\\n", a);
    printf("----\\n");
    b = read_number();
    if (b < 0) {
        b = 0;
    }
    printf("level %d\\n", b);
    printf("----\\n");
    printf("%d\\n", a + b);
    return 0;
}

int read_number(void) {
    int n = 4;
    return n;
}
"""


def test_who_tells_functions_first_gets_the_new_one_told_first(tmp_path: Path) -> None:
    (found,) = report(TOLD, language="c").suggestions
    assert found.status == "proved"
    assert "+int print_number(void);\n" in found.diff
    assert "+\n+int print_number(void) {\n" in found.diff


def test_a_wrong_prototype_is_refused() -> None:
    function = "\nint put(void) {\n    int a = read_number();\n    if (a < 0) {\n        a = 0;\n    }\n"
    function += '    printf("level %d\\n", a);\n    printf("----\\n");\n    return a;\n}\n'
    body = '{0} = read_number();\n    if ({0} < 0) {{\n        {0} = 0;\n    }}\n    printf("level %d\\n", {0});\n    printf("----\\n");\n'
    after = TOLD
    for name in "ab":
        assert body.format(name) in after
        after = after.replace(body.format(name), f"{name} = put();\n")
    for head, right in (("int put(void);\n", True), ("int put();\n", False), ("", False), ("int put(int);\n", False)):
        text = after.replace("int read_number(void);\n", f"int read_number(void);\n{head}", 1) + function
        assert prove(read(TOLD, "c"), read(text, "c"), NewFunction("main.c", "put", ("a",))).proved is right


WAVES = 'instance_create_layer(random(9), 0, "Enemies", obj_gull);\nwave += 1;\n' * 4 + "show_debug_message(wave);\n"


def test_a_game_script_repeats_what_is_the_same_each_time() -> None:
    after = worked(WAVES, "gamescript")
    assert after.startswith("repeat (4) {\n")
    for times, right in ((4, True), (3, False), (5, False)):
        text = after.replace("repeat (4)", f"repeat ({times})")
        assert prove(read(WAVES, "gamescript"), read(text, "gamescript"), NewLoop("step.gml", 1)).proved is right
    endless = after.replace("repeat (4)", "while (4)")
    assert not prove(read(WAVES, "gamescript"), read(endless, "gamescript"), NewLoop("step.gml", 1)).proved


HITS = """
if (instance_exists(obj_gull)) {
    var d = point_distance(x, y, obj_gull.x, obj_gull.y);
    if (d < 40) {
        hp -= 5;
        flash = 10;
        audio_play_sound(snd_hit, 1, false);
    }
}
if (instance_exists(obj_crab)) {
    var d = point_distance(x, y, obj_crab.x, obj_crab.y);
    if (d < 25) {
        hp -= 2;
        flash = 10;
        audio_play_sound(snd_hit, 1, false);
    }
}
"""


def test_the_names_of_a_games_things_are_values() -> None:
    after = worked(HITS, "gamescript")
    assert "(obj_gull, 40, 5);" in after
    other = HITS.replace("obj_gull", "gull").replace("obj_crab", "crab")
    assert [s.status for s in report(other, language="gamescript").suggestions] == ["outline"]


def test_a_sign_in_a_format_is_a_word_too(tmp_path: Path) -> None:
    draw = 'void draw_{0}(int width) {{\n    for (int i = 0; i < width; i++) {{\n        printf("{1}");\n    }}\n    printf("\\n");\n}}\n\n'
    text = HEAD + draw.format("line", "-") + draw.format("wave", "~")
    text += "int main(void) {\n    draw_line(10);\n    draw_wave(20);\n    return 0;\n}\n"
    after = worked(text, "c")
    assert '        printf("%s", sign);' in after
    require_same_output("c", text, after, tmp_path)


READING = """#include <stdio.h>

int main(void)
{{
    {declared}
    {before}
    printf("Width: ");
    scanf("%d", &width);
    while (width <= 0) {{
        printf("More than 0, please: ");
        scanf("%d", &width);
    }}
    printf("Thanks\\n");
    scanf("%d", &height);
    while (height <= 0) {{
        printf("More than 0, please: ");
        scanf("%d", &height);
    }}
    {after}
    printf("%d\\n", width * height);
    return 0;
}}
"""
READER = """int readWidth(void) {
    int width;
    scanf("%d", &width);
    while (width <= 0) {
        printf("More than 0, please: ");
        scanf("%d", &width);
    }
    return width;
}
"""


def reading(declared: str = "int width, height;", before: str = "", after: str = "") -> str:
    """A program that reads two numbers in the same way."""
    return READING.format(declared=declared, before=before, after=after)


def read_by_a_function(text: str) -> str:
    """The program with a function that has a variable of its own."""
    for name in ("width", "height"):
        start = text.index(f'scanf("%d", &{name})')
        stop = text.index("}", start) + 1
        text = text[:start] + f"{name} = readWidth();" + text[stop:]
    return text.replace("int main", READER + "int main")


def test_a_variable_without_a_value_yet_is_read_by_a_function() -> None:
    before = read(reading(), "c")
    claim = NewFunction(before.path, "readWidth", ("width",))
    assert prove(before, read(read_by_a_function(reading()), "c"), claim).proved
    (found,) = report(reading(), language="c").suggestions
    assert found.status == "proved"
    assert "readValue(void)" in found.title or "readValue()" in found.title


@pytest.mark.parametrize(
    "text",
    [
        reading("int width = 5, height = 6;"),
        reading(before="width = 2; height = 3;"),
        reading("int width, height;\n    for (int k = 0; k < 2; k++) {", after="}"),
        reading("static int width, height;"),
        reading(before="again:", after="if (width > 9) { goto again; }"),
        reading("int width, height;\n    int *kept = &width;"),
    ],
    ids=["declared with a value", "given a value", "in a loop", "static", "jumped to", "a second name"],
)
def test_a_value_from_before_is_not_lost(text: str) -> None:
    before = read(text, "c")
    after = read(read_by_a_function(text), "c")
    assert not prove(before, after, NewFunction(before.path, "readWidth", ("width",))).proved


LETTERS = """#include <stdio.h>

int vowels(const char *text)
{
    int count = 0;
    for (int i = 0; text[i] != '\\0'; i++) {
        if (text[i] == 'a' || text[i] == 'e') {
            count++;
        }
    }
    printf("found %d\\n", count);
    return count;
}

int marks(const char *text)
{
    int count = 0;
    for (int i = 0; text[i] != '\\0'; i++) {
        if (text[i] == '.' || text[i] == '\\'') {
            count++;
        }
    }
    printf("found %d\\n", count);
    return count;
}

int main(void)
{
    printf("%d\\n", vowels("a tide, 'ebb'.") + marks("a tide, 'ebb'."));
    return 0;
}
"""


def test_letters_are_values_with_their_marks(tmp_path: Path) -> None:
    after = worked(LETTERS, "c")
    assert "(const char *text, char letter, char sign)" in after
    assert "'.', '\\'')" in after
    if can_run("c"):
        before, now = outputs("c", [LETTERS, after], tmp_path)
        assert before == now
    assert "char letter" not in worked(LETTERS.replace("'e'", "'ab'"), "c")


MACRO = (
    HEAD
    + """#define LIMIT {limit}
#define WIDE (LIMIT + 1)
{function}
int main(void) {{
    int width = 4;
    int length = 5;
    {line}
    printf("%d\\n", area);
    return width;
}}
"""
)


@pytest.mark.parametrize(("limit", "right"), [("3", True), ("width", False), ("(length + 1)", False)])
def test_a_macro_may_stand_for_a_variable_that_a_new_function_does_not_see(limit: str, right: bool) -> None:
    function = "int fresh(int n) {\n    int area = n * WIDE;\n    return area;\n}"
    before = MACRO.format(limit=limit, function="", line="int area = length * WIDE;")
    after = MACRO.format(limit=limit, function=function, line="int area = fresh(length);")
    assert prove(read(before, "c"), read(after, "c"), NewFunction("main.c", "fresh")).proved is right


CONSTANTS = """#include <iostream>
#include <vector>
using namespace std;

void rain(const vector<int>& values) {
    cout << "RAIN" << endl;
    int sum = 0;
    for (int v : values) {
        sum += v;
    }
    cout << "sum " << sum << " mm" << endl;
}

void wind(const vector<int>& values) {
    cout << "WIND" << endl;
    int sum = 0;
    for (int v : values) {
        sum += v;
    }
    cout << "sum " << sum << " km" << endl;
    cout << values.size() << " hours" << endl;
}

int main() {
    const int inner[] = {2, 3, 4};
    const int outer[] = {5, 6, 7};
    for (int i = 0; i < 3; i++) {
        cout << inner[i] << endl;
        if (inner[i] > 2) cout << "big" << endl;
        cout << "--" << endl;
    }
    rain({7, 4});
    for (int i = 0; i < 3; i++) {
        cout << outer[i] << endl;
        if (outer[i] > 2) cout << "big" << endl;
        cout << "--" << endl;
    }
    wind({30, 45, 2});
    return 0;
}
"""


def test_what_must_not_be_changed_is_handed_on_so(tmp_path: Path) -> None:
    after = worked(CONSTANTS, "cpp")
    assert "(const int values[])" in after
    assert "const vector<int> &values" in after
    require_same_output("cpp", CONSTANTS, after, tmp_path)
