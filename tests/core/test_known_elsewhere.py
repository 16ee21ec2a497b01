"""Copies of what a function of another file does, in a file that knows it; and what functions elsewhere may change."""

from __future__ import annotations

import pytest

from core.builders import named
from core.running_files import modules_say, require_modules_same, require_pages_same
from core.sweeps import proved_of
from core.wild_files import WildFiles
from partitor.check import program_of
from partitor.source import Source
from partitor.suggestions.proof import CalledFunction

SHOW = """def show_level(name, level):
    print("Gauge", name)
    print("Level", level, "cm")
    if level > 100:
        print("High!")
    print()
"""
MAIN = """from util import show_level
other = 130
show_level("mill", 80)
print("Gauge", "pier")
print("Level", other, "cm")
if other > 100:
    print("High!")
print()
"""


def diffs(files: dict[str, str], language: str = "python") -> str:
    return "".join(s.diff for s in named(files, language).suggestions)


def test_the_function_of_another_module_is_called() -> None:
    files = {"util.py": SHOW, "main.py": MAIN}
    found = named(files, "python")
    assert [f.message for f in found.findings] == [
        "These five statements stand here, and show_level does the same already in util.py."
    ]
    after = {**files, **found.worked_answer.files}
    assert (
        after["main.py"]
        == 'from util import show_level\nother = 130\nshow_level("mill", 80)\nshow_level("pier", other)\n'
    )
    assert modules_say(after) == modules_say(files)


@pytest.mark.parametrize(
    ("path", "old", "new"),
    [
        ("main.py", "from util import show_level\n", "from util import show_level as show_level\n"),
        ("main.py", "from util import show_level\n", "from other import show_level\n"),
        ("main.py", "other = 130\n", "other = 130\nshow_level = print\n"),
        ("main.py", "other = 130\n", "other = 130\nimport util\nutil.show_level = print\n"),
        ("main.py", "other = 130\n", "other = 130\nprint = max\n"),
        ("util.py", "cm", "km"),
        ("util.py", "level > 100", "level > LIMIT"),
        ("util.py", "print()\n", "print()\n\nshow_level = print\n"),
        ("util.py", "(name, level)", "(name, level=3)"),
        ("util.py", "def show", "@print\ndef show"),
        ("util.py", "def show", "from builtins import *\ndef show"),
        ("main.py", "other = 130\n", "other = 130\ndef f():\n    global show_level\n    show_level = max\n"),
    ],
)
def test_another_function_is_not_called(path: str, old: str, new: str) -> None:
    files = {"util.py": SHOW, "main.py": MAIN}
    assert old in files[path]
    assert '+show_level("pier", other)' in diffs(files)
    files[path] = files[path].replace(old, new)
    assert '+show_level("pier", other)' not in diffs(files)


JS = """function showLevel(name, level) {
  console.log("Gauge", name);
  console.log("Level", level);
  if (level > 100) {
    console.log("High!");
  }
}
"""
CALLS = """const pier = 130;
showLevel("mill", 3);
console.log("Gauge", "pier");
console.log("Level", pier);
if (pier > 100) {
  console.log("High!");
}
"""
PAGE = '<html><body>\n<script src="a.js"></script>\n<script src="b.js"></script>\n</body></html>\n'


def test_scripts_of_a_page_call_what_runs_before_them() -> None:
    files = {"a.js": JS, "b.js": CALLS, "page.html": PAGE}
    called = '+showLevel("pier", pier);'
    assert called in diffs(files, "javascript")
    late = PAGE.replace("a.js", "x.js").replace("b.js", "a.js").replace("x.js", "b.js")
    assert called not in diffs({**files, "page.html": late}, "javascript")
    assert called not in diffs({**files, "page.html": PAGE.replace('src="a.js"', 'src="a.js" defer')}, "javascript")
    again = {**files, "c.js": "function showLevel() {}\n"}
    assert called not in diffs(again, "javascript")
    exported = {"a.mjs": f"export {JS}", "b.mjs": f'import {{ showLevel }} from "./a.mjs";\n{CALLS}'}
    assert called in diffs(exported, "javascript")


def test_files_that_see_each_other_anyway() -> None:
    told = 'func showLevel(name: String, level: Int) {\n    print("Gauge", name)\n    print("Level", level)\n    print("--")\n}\n'
    text = 'let pier = 130\nprint("Gauge", "pier")\nprint("Level", pier)\nprint("--")\n'
    assert '+showLevel(name: "pier", level: pier)' in diffs({"a.swift": told, "main.swift": text}, "swift")
    assert "+showLevel" not in diffs({"a.swift": f"private {told}", "main.swift": text}, "swift")
    said = '    Debug.Print "Gauge " & {0}\n    Debug.Print "Level " & {1}\n    Debug.Print "--"\nEnd Sub\n'
    shown = "Sub ShowLevel(ByVal who As String, ByVal level As Integer)\n" + said.format("who", "level")
    going = "Sub Go()\n    Dim pier As Integer\n    pier = 130\n" + said.format('"pier"', "pier")
    assert '+    ShowLevel "pier", pier' in diffs({"A.bas": shown, "B.bas": going}, "visualbasic")
    assert "+    ShowLevel" not in diffs({"A.bas": f"Private {shown}", "B.bas": going}, "visualbasic")


def known_of(seed: int, pages: bool) -> tuple[dict[str, str], list[dict[str, str]], int]:
    """A wild program, what became of it, and how often a function of another file is called now."""
    files = WildFiles(seed, pages, known=True).files()
    proved, programs = proved_of(
        program_of([Source(path, text, "javascript" if pages else "python") for path, text in files.items()])
    )
    claims = [r.candidate.claim for r in proved]
    calls = sum(isinstance(claim, CalledFunction) and bool(claim.home) for claim in claims)
    return files, [{f.path: f.source.text for f in program.files} for program in programs], calls


def test_wild_pages_that_know_a_function_do_the_same() -> None:
    groups = [known_of(seed, True) for seed in range(80)]
    require_pages_same([(before, afters) for before, afters, _ in groups])
    assert sum(calls for *_, calls in groups) > 3


def test_wild_modules_that_know_a_function_do_the_same() -> None:
    groups = [known_of(seed, False) for seed in range(25)]
    require_modules_same([(before, afters) for before, afters, _ in groups])
    assert sum(calls for *_, calls in groups) > 3


COPIES = """        Console.WriteLine("{0}");
        Helper.Bump();
        Console.WriteLine("value " + {1});
        Console.WriteLine("twice " + 2 * {1});
        Console.WriteLine("end");
"""


def test_a_field_that_another_class_changes_is_not_given_early() -> None:
    fields = "class Gauge {{\n    public static int total = 3;\n    public static int count = 5;\n    static void Main() {{\n{}    }}\n}}\n"
    shared = "using System;\n" + fields.format(COPIES.format("mill", "total") + COPIES.format("pier", "count"))
    helper = "class Helper {{\n    public static void Bump() {{\n        {}\n    }}\n}}\n"
    harmless = shared + helper.format("Console.WriteLine(Gauge.total);")
    assert "(total)" in diffs({"Gauge.cs": harmless}, "csharp")
    for change in ("Gauge.total++;", "Gauge.total = 4;", "Gauge.count -= 2;"):
        changed = shared + helper.format(change)
        assert "(total)" not in diffs({"Gauge.cs": changed}, "csharp"), change
    apart = {"Gauge.cs": shared, "Helper.cs": "class Helper { public static void Bump() { Gauge.total++; } }\n"}
    assert "(total)" not in diffs(apart, "csharp")


def test_a_variable_that_another_script_changes_is_not_given_early() -> None:
    copy = 'console.log("{0}");\nbump();\nconsole.log("value", {1});\nconsole.log("twice", 2 * {1});\nconsole.log("end");\n'
    text = "var total = 3;\nvar count = 5;\n" + copy.format("mill", "total") + copy.format("pier", "count")
    files = {"b.js": text, "page.html": PAGE, "a.js": 'function bump() {\n  console.log("bump");\n}\n'}
    assert ", total)" in diffs(files, "javascript")
    for change in ("total = 4;", "total += 1;", "window.total = 5;", "this.count = 5;"):
        changed = {**files, "a.js": f"function bump() {{\n  {change}\n}}\n"}
        assert ", total)" not in diffs(changed, "javascript"), change


def in_two_files(language: str, change: str) -> dict[str, str]:
    """A program that prints two of its variables in the same way, and calls a function of another file before."""
    say = {
        "c": 'printf("%d\\n", {});',
        "arduino": "Serial.println({});",
        "swift": 'print("so", {})',
        "visualbasic": "Debug.Print {}",
    }[language]
    call = "Bump" if language == "visualbasic" else "bump()" if language == "swift" else "bump();"
    told = "\n".join(
        line
        for name in ("total", "count")
        for line in (call, *(say.format(x) for x in (name, f"2 * {name}", f"3 * {name}")))
    )
    programs = {
        "c": (
            f"#include <stdio.h>\nvoid bump(void);\nint total = 3;\nint count = 5;\nint main(void) {{\n{told}\nreturn 0;\n}}\n",
            "a.c",
        ),
        "arduino": (f"int total = 3;\nint count = 5;\nvoid setup() {{\n}}\nvoid loop() {{\n{told}\n}}\n", "a.ino"),
        "swift": (f"var total = 3\nvar count = 5\n{told}\n", "main.swift"),
        "visualbasic": (f"Public total As Integer\nPublic count As Integer\nSub Go()\n{told}\nEnd Sub\n", "A.bas"),
    }
    others = {
        "c": (f"#include <stdio.h>\nextern int total;\nvoid bump(void) {{\n    {change};\n}}\n", "b.c"),
        "arduino": (f"void bump() {{\n  {change};\n}}\n", "b.ino"),
        "swift": (f"func bump() {{\n    {change}\n}}\n", "b.swift"),
        "visualbasic": (f"Sub Bump()\n    {change}\nEnd Sub\n", "B.bas"),
    }
    return {path: text for text, path in (programs[language], others[language])}


@pytest.mark.parametrize("language", ["c", "arduino", "swift", "visualbasic"])
def test_what_a_function_of_another_file_changes_is_not_given_early(language: str) -> None:
    called = "print" if language != "visualbasic" else "Print"
    reads = {"c": 'printf("%d", total)', "arduino": "Serial.println(total)", "swift": "print(total)"}
    harmless = diffs(in_two_files(language, reads.get(language, "Debug.Print total")), language)
    assert called in harmless
    assert "value" in harmless
    assert "value" not in diffs(in_two_files(language, "total = 4"), language)
