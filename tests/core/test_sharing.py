"""Functions that several files share: found, written where the language has a place for them, proved, and run."""

from __future__ import annotations

import re
import subprocess
from pathlib import Path
from textwrap import dedent

import pytest

from core.builders import named
from core.runners import can_run, outputs
from core.running_files import modules_say, require_modules_same, require_pages_same
from core.sweeps import proved_of, require_same
from core.wild_braces import wild_classes
from core.wild_files import WildFiles
from partitor.exchange.report import SubmissionReport
from partitor.languages.registry import LANGUAGES
from partitor.program.program import Program, ProgramFile
from partitor.source import Source
from partitor.suggestions.proof import MovedFunction, SharedFunction, prove_together

SHOW = """\
function show(title, value) {
  const p = document.createElement("p");
  p.textContent = title + ": " + value;
  p.className = value > LIMIT ? "high" : "low";
  document.body.append(p);
}
"""
PAGE = '<html>\n<body>\n  <p></p>\n  <script src="a.js"></script>\n  <script src="b.js"></script>\n</body>\n</html>\n'


def plain(files: dict[str, str]) -> dict[str, str]:
    return {path: dedent(text).lstrip("\n") for path, text in files.items()}


def answer(files: dict[str, str], report: SubmissionReport) -> dict[str, str]:
    return {**files, **report.worked_answer.files}


def test_modules_import_the_function_with_what_it_needs():
    module = """
        import math

        FARE = {1}


        def main(riders):
            print("{0}")
            print("-" * 20)
            total = math.ceil(riders * FARE)
            for rider in range(riders):
                print("rider", rider, FARE)
            print("total", total)


        main({1})
        """
    files = plain({f"{name}.py": module.format(name, k) for k, name in enumerate(("ferry", "mill", "creek"), 3)})
    files["mill.py"] += 'print("closed")\n'
    report = named(files, "python")
    suggestion = next(s for s in report.suggestions if s.status == "proved")
    assert "shared.py" in suggestion.title
    assert suggestion.lines_after < suggestion.lines_before
    assert "+import math\n+\n+\n+def print_" in suggestion.diff
    assert "(riders, fare):\n" in suggestion.diff
    after = answer(files, report)
    assert after["ferry.py"].count("\n") < 16
    assert "from shared import print_" in after["mill.py"]
    assert modules_say(files) == modules_say(after)


def test_a_patch_of_several_files_applies(tmp_path):
    files = {"a.js": SHOW.replace("LIMIT", "4"), "b.js": 'show("x", 1);\n' + SHOW.replace("LIMIT", "4")}
    files |= {
        "one.html": PAGE.replace('  <script src="b.js"></script>\n', ""),
        "two.html": PAGE.replace("a.js", "c.js"),
    }
    report = named(files, "javascript")
    for path, text in files.items():
        (tmp_path / path).write_text(text)
    done = subprocess.run(
        ["patch", "-p1"], input=report.worked_answer.diff, cwd=tmp_path, capture_output=True, text=True
    )
    assert done.returncode == 0, done.stdout
    assert set(report.worked_answer.files) == {"a.js", "b.js", "one.html", "two.html", "shared.js"}
    for path, text in report.worked_answer.files.items():
        assert (tmp_path / path).read_text() == text
    assert '  <script src="shared.js"></script>\n  <script src="a.js">' in report.worked_answer.files["one.html"]


def test_the_script_that_every_page_runs_first_keeps_the_function():
    files = {"index.html": PAGE, "a.js": "const LIMIT = 3;\n" + SHOW, "b.js": SHOW + 'show("north", 4);\n'}
    report = named(files, "javascript")
    assert [s.title for s in report.suggestions] == ["show once, in a.js, for 2 files"]
    assert report.worked_answer.files == {"b.js": 'show("north", 4);\n'}


def test_scripts_of_which_no_page_tells_where_they_run_are_left():
    report = named({"a.js": SHOW, "b.js": SHOW + 'show("north", 4);\n'}, "javascript")
    (suggestion,) = report.suggestions
    assert suggestion.status == "outline"
    assert "no page tells" in suggestion.why_not


def test_modules_of_javascript_and_typescript():
    body = """
        let total = 0;
        for (const level of {levels}) {{
          total += level;
        }}
        console.log("{name} mean", total / {levels}.length);
        console.log("{name} sum", total);
        console.log("-----");
        """
    north = dedent(body).format(levels="north", name="north")
    south = dedent(body).format(levels="south", name="south")
    start = 'import {{ readFileSync }} from "fs";\nconst {0} = [{1}];\nconsole.log("{0} begins", readFileSync("{0}").length);'
    files = {"a.js": start.format("north", "1, 2") + north, "b.js": start.format("south", "3") + south}
    report = named(files, "javascript")
    made = report.worked_answer.files
    assert made["shared.js"].startswith('import { readFileSync } from "fs";\n\n')
    assert "\nexport function printTotal(" in made["shared.js"]
    assert '\nimport { printTotal } from "./shared.js";\n' in made["a.js"]
    required = {
        p: t.replace('import { readFileSync } from "fs"', 'const { readFileSync } = require("fs")')
        for p, t in files.items()
    }
    (made,) = (s for s in named(required, "javascript").suggestions if s.status == "proved")
    assert made.diff.endswith("+}\n+\n+module.exports = { printTotal };\n")
    assert '\n+const { printTotal } = require("./shared");\n' in made.diff


def test_events_of_several_objects_call_one_script():
    event = """
        if (open) {
            y -= SPEED;
            image_index += 1;
            if (y < TOP) {
                y = TOP;
                open = false;
            }
            audio_play_sound(SOUND, 1, false);
        }
        """
    one, other = event, event
    for name, (a, b) in {"SPEED": ("2", "3"), "TOP": ("40", "60"), "SOUND": ("snd_gate", "snd_door")}.items():
        one, other = one.replace(name, a), other.replace(name, b)
    files = plain({"obj_gate_Step_0.gml": one, "obj_door_Step_0.gml": "wait -= 1;\n" + dedent(other)})
    report = named(files, "gamescript")
    made = report.worked_answer.files
    script = next(path for path in made if path not in files)
    name = script.removesuffix(".gml")
    assert made[script].startswith(f"function {name}(")
    assert made["obj_gate_Step_0.gml"].startswith(f"{name}(2, 40, snd")
    # a variable of the event alone is none that a script sees
    own = {p: "var open = true;\n" + t for p, t in files.items()}
    assert all("open" in s.title or s.status == "outline" for s in named(own, "gamescript").suggestions)


def test_modules_of_macros_call_a_public_procedure():
    macro = """
        Attribute VB_Name = "{0}"
        Option Explicit

        Sub Print{0}()
            MsgBox "{0}"
            Range("A1").Value = "{1}"
            Range("A1").Font.Bold = True
            Range("A1").Interior.Color = vbRed
            Range("B1").Value = {2}
        End Sub
        """
    files = plain(
        {"North.bas": macro.format("North", "far north", 12), "South.bas": macro.format("South", "far south", 14)}
    )
    report = named(files, "visualbasic")
    (suggestion,) = (s for s in report.suggestions if s.status == "proved")
    assert "from North.bas" in suggestion.title
    assert "+Sub " in suggestion.diff
    assert "+Private Sub" not in suggestion.diff
    # the module of a sheet or a form has a Range of its own
    sheets = {p.replace(".bas", ".cls"): t for p, t in files.items()}
    assert not any(s.status == "proved" for s in named(sheets, "visualbasic").suggestions)
    form = """
        Private Sub Go{0}_Click()
            MsgBox "{0}"
            Beep
            MsgBox "{1}"
            MsgBox Len("{1}") + {2}
            MsgBox Date
            Beep
        End Sub
        """
    forms = plain({f"{n}.frm": form.format(n, f"far {n}", k) for k, n in enumerate(("North", "South"))})
    (made,) = (s for s in named(forms, "visualbasic").suggestions if s.status == "proved")
    assert '+Attribute VB_Name = "Shared"' in made.diff


def test_files_of_a_sketch_and_of_swift_see_each_other():
    sketch = """
        void {0}() {{
          pinMode({1}, OUTPUT);
          digitalWrite({1}, HIGH);
          delay(200);
          digitalWrite({1}, LOW);
          Serial.println("{0}");
        }}
        """
    files = plain(
        {
            "panel.ino": sketch.format("setup", 3) + "\nvoid loop() {\n  pump();\n}\n",
            "pump.ino": sketch.format("pump", 5),
        }
    )
    assert any(s.status == "proved" and "panel.ino" in s.title for s in named(files, "arduino").suggestions)
    swift = """
        func {0}(levels: [Int]) {{
            print("{0}")
            var total = 0
            for level in levels {{
                total += level
            }}
            print("sum", total)
            print("mean", total / levels.count)
        }}
        """
    files = plain(
        {
            "main.swift": swift.format("north") + "\nnorth(levels: [1])\nsouth(levels: [2])\n",
            "south.swift": swift.format("south"),
        }
    )
    (made,) = named(files, "swift").suggestions
    assert made.status == "proved"
    assert "from main.swift" in made.title


# -- what the proof refuses -----------------------------------------------------------------------------

ONE = 'import math\n\n\ndef north(n):\n    print("north")\n    print(math.floor(n / 2))\n    print("-" * n)\n\n\nnorth(3)\n'
TWO = 'import math\n\nprint("mill")\nprint(math.floor(7 / 2))\nprint("-" * 7)\n'
SHARED = 'import math\n\n\ndef show(name, n):\n    print(name)\n    print(math.floor(n / 2))\n    print("-" * n)\n'
ONE_AFTER = 'import math\nfrom shared import show\n\n\ndef north(n):\n    show("north", n)\n\n\nnorth(3)\n'
TWO_AFTER = 'import math\nfrom shared import show\n\nshow("mill", 7)\n'
GOOD = ({"one.py": ONE, "two.py": TWO}, {"one.py": ONE_AFTER, "two.py": TWO_AFTER, "shared.py": SHARED})


def verdict(before: dict[str, str], after: dict[str, str], claim: SharedFunction | MovedFunction, language: str):
    program = Program([ProgramFile(Source(p, t, language), LANGUAGES[language]) for p, t in before.items()])
    changed = []
    for path, text in after.items():
        made = ProgramFile(Source(path, text, language), LANGUAGES[language])
        old = program.by_path.get(path)
        made.beside = old.beside if old else ()
        changed.append((old, made))
    return prove_together(changed, claim)


def test_the_right_rewriting_is_proved():
    assert verdict(*GOOD, SharedFunction("shared.py", "show"), "python").proved


@pytest.mark.parametrize(
    ("path", "old", "new", "other"),
    [
        ("shared.py", "n / 2", "n / 3", {}),
        ("shared.py", "import math", "import math\nprint(1)", {}),
        ("shared.py", "import math\n", "from cmath import pi as math\n", {}),
        ("shared.py", "import math\n", "import one as math\n", {}),
        ("shared.py", "import math\n", "math = 3\n", {}),
        ("shared.py", "def show(name, n):", "def show(name, n=print(3)):", {}),
        ("shared.py", "print(name)", "print(LIMIT)", {}),
        ("one.py", "from shared import show", "from shared import *", {}),
        ("one.py", "from shared import show", "from shared import show, other", {}),
        ("one.py", "from shared import show\n", "", {}),
        ("one.py", "from shared import show\n", "def show(a, b): pass\n", {}),
        ("two.py", 'show("mill", 7)', 'show("mill", 8)', {}),
        ("two.py", 'show("mill", 7)', 'show("mill", 7)\nprint(3)', {}),
        ("two.py", 'from shared import show\n\nshow("mill", 7)', 'show("mill", 7)\nfrom shared import show', {}),
        ("one.py", "", "", {"shared.py": "x = 1\n"}),
        ("one.py", "", "", {"shared/__init__.py": "x = 1\n"}),
        ("one.py", "", "", {"three.py": "show = 3\n"}),
    ],
)
def test_what_is_wrong_somewhere_is_refused(path, old, new, other):
    before, after = GOOD
    changed = {**after, path: after[path].replace(old, new, 1)}
    assert changed != after or other
    assert not verdict({**before, **other}, changed, SharedFunction("shared.py", "show"), "python").proved


def test_a_name_that_one_file_gives_another_meaning_is_refused():
    for line in ("print = list", "from other import *", "def print(x): return x", "eval('1')"):
        before = {p: t.replace("import math\n", f"import math\n{line}\n", 1) for p, t in GOOD[0].items()}
        after = {
            p: t.replace("import math\n", f"import math\n{line}\n", 1) if p != "shared.py" else t
            for p, t in GOOD[1].items()
        }
        assert not verdict(before, after, SharedFunction("shared.py", "show"), "python").proved, line


PAGES = {"index.html": PAGE, "a.js": SHOW, "b.js": SHOW + 'show("north", 4);\n'}
MOVED = {"a.js": SHOW, "b.js": 'show("north", 4);\n'}


def test_a_script_keeps_the_function_only_where_it_runs_first_on_every_page():
    claim = MovedFunction("a.js", "show")
    assert verdict(PAGES, MOVED, claim, "javascript").proved
    swapped = PAGE.replace("a.js", "x").replace("b.js", "a.js").replace("x", "b.js")
    late = PAGE.replace('src="a.js"', 'src="a.js" defer')
    alone = PAGE.replace('  <script src="a.js"></script>\n', "")
    commented = PAGE.replace('<script src="a.js"></script>', '<!-- <script src="a.js"></script> -->')
    for page in (swapped, late, alone, commented, PAGE.replace('src="a.js"', 'src="a.js" type="module"')):
        assert not verdict({**PAGES, "index.html": page}, MOVED, claim, "javascript").proved, page
    module = PAGE.replace('src="b.js"', 'src="b.js" type="module"')
    assert not verdict({**PAGES, "index.html": module}, MOVED, claim, "javascript").proved
    assert not verdict({**PAGES, "more.html": alone}, MOVED, claim, "javascript").proved
    strict = {**PAGES, "b.js": '"use strict";\n' + PAGES["b.js"]}
    assert not verdict(strict, {**MOVED, "b.js": '"use strict";\n' + MOVED["b.js"]}, claim, "javascript").proved
    object_too = {**PAGES, "b.js": PAGES["b.js"] + "show.count = 1;\n"}
    assert not verdict(object_too, {**MOVED, "b.js": MOVED["b.js"] + "show.count = 1;\n"}, claim, "javascript").proved


def test_nothing_else_of_a_page_may_change():
    before = {
        "one.html": PAGE.replace("b.js", "c.js"),
        "two.html": PAGE.replace("a.js", "c.js"),
        "a.js": SHOW,
        "b.js": SHOW,
    }
    load = '  <script src="shared.js"></script>\n  <script src="{}"></script>'
    after = {
        "one.html": before["one.html"].replace('  <script src="a.js"></script>', load.format("a.js")),
        "two.html": before["two.html"].replace('  <script src="c.js"></script>', load.format("c.js")),
        "a.js": "",
        "b.js": "",
        "shared.js": SHOW,
    }
    claim = MovedFunction("shared.js", "show")
    assert verdict(before, after, claim, "javascript").proved
    for old, new in (
        ("<p></p>", "<p>x</p>"),
        ('src="shared.js"', 'src="shared.js" async'),
        ('src="shared.js"', 'src="other.js"'),
        ('  <script src="shared.js"></script>\n', ""),
        ("</body>", '<script src="shared.js"></script></body>'),
    ):
        wrong = {**after, "two.html": after["two.html"].replace(old, new)}
        assert not verdict(before, wrong, claim, "javascript").proved, old
    used = {**before, "d.js": "if (typeof show === 'function') alert(1);\n"}
    assert not verdict(used, after, claim, "javascript").proved


# -- wild programs of several files -----------------------------------------------------------------------


def became_of(files: dict[str, str], language: str) -> tuple[dict[str, str], list[dict[str, str]], int]:
    """A program, everything that proved rewritings made of it, and how many of them touch several files."""
    program = Program([ProgramFile(Source(p, t, language), LANGUAGES[language]) for p, t in files.items()])
    proved, results = proved_of(program)
    return files, [{f.path: f.source.text for f in p.files} for p in results], sum(bool(r.others) for r in proved)


def became(seed: int, pages: bool) -> tuple[dict[str, str], list[dict[str, str]], int]:
    """What became of a wild program of modules or pages."""
    return became_of(WildFiles(seed, pages).files(), "javascript" if pages else "python")


def test_wild_pages_do_the_same():
    groups = [became(seed, True) for seed in range(150)]
    require_pages_same([(before, afters) for before, afters, _ in groups])
    assert sum(shared for *_, shared in groups) > 20


def test_wild_modules_do_the_same():
    groups = [became(seed, False) for seed in range(40)]
    require_modules_same([(before, afters) for before, afters, _ in groups])
    assert sum(shared for *_, shared in groups) > 3


# -- classes ------------------------------------------------------------------------------------------------

BOAT = """class Boat {
    private int length = 12;

    void show(int times) {
        System.out.println("=======");
        for (int i = 0; i < times; i++) {
            System.out.println("| boat |");
        }
        System.out.println("=======");
        System.out.println(length);
    }
}
"""
SHED = BOAT.replace("Boat", "Shed").replace("boat", "shed").replace("length", "places")
BOAT_AFTER = """class Boat {
    private int length = 12;

    void show(int times) {
        printLines(times, "| boat |");
        System.out.println(length);
    }

    static void printLines(int times, String text) {
        System.out.println("=======");
        for (int i = 0; i < times; i++) {
            System.out.println(text);
        }
        System.out.println("=======");
    }
}
"""
SHED_AFTER = """class Shed {
    private int places = 12;

    void show(int times) {
        Boat.printLines(times, "| shed |");
        System.out.println(places);
    }
}
"""


@pytest.mark.parametrize("apart", [False, True])
def test_classes_call_one_method_by_the_name_of_its_class(apart: bool) -> None:
    files = {"Boat.java": BOAT, "Shed.java": SHED} if apart else {"Boat.java": f"{BOAT}\n{SHED}"}
    report = named(files, "java")
    made = next(s for s in report.suggestions if "of Boat" in s.title)
    assert made.status == "proved"
    assert "+    static void " in made.diff
    assert "+        Boat." in made.diff


def test_a_method_that_belongs_to_a_class_is_not_given_to_others() -> None:
    before, after = {"Boat.java": BOAT, "Shed.java": SHED}, {"Boat.java": BOAT_AFTER, "Shed.java": SHED_AFTER}
    claim = SharedFunction("Boat.java", "printLines", (), "Boat")
    assert verdict(before, after, claim, "java").proved
    for path, old, new in (
        ("Boat.java", "static void printLines", "void printLines"),
        ("Boat.java", "static void printLines", "private static void printLines"),
        ("Shed.java", "Boat.printLines", "printLines"),
        ("Shed.java", "Boat.printLines", "Shed.printLines"),
        ("Shed.java", "Boat.printLines(times", "Boat.printLines(places"),
        ("Boat.java", "i < times", "i <= times"),
        ("Boat.java", "class Boat {", "class Boat<T> {"),
        ("Shed.java", "int times) {\n", "int times) {\n        String Boat = null;\n"),
    ):
        wrong = {**after, path: after[path].replace(old, new, 1)}
        assert wrong != after, new
        assert not verdict(before, wrong, claim, "java").proved, new
    own = '    static String edge = "=";\n\n    static void rule() {\n        System.out.println(edge);\n    }\n\n    void show'
    for old, new in (
        ('System.out.println("=======");', "System.out.println(edge);"),
        ('System.out.println("=======");', "rule();"),
        ('System.out.println("=======");', "this.show(1);"),
        ("class Shed {", "package sheds;\nclass Shed {"),
    ):
        rest = {p: t.replace(old, new).replace("    void show", own) for p, t in before.items()}
        kept = {p: t.replace(old, new).replace("    void show", own) for p, t in after.items()}
        assert not verdict(rest, kept, claim, "java").proved, new


RUN_CLASSES = [language for language in ("java", "csharp") if can_run(language)]


@pytest.mark.parametrize("language", RUN_CLASSES)
def test_wild_classes_do_the_same(language: str, tmp_path: Path) -> None:
    groups = []
    number = 0
    for seed in range(40 if language == "java" else 12):
        files = wild_classes(seed, language)
        _, afters, _ = became_of(files, language)
        texts = []
        for one in (files, *afters):
            number += 1
            joined = "\n".join(one.values()).replace("using System;\n", "")
            joined = re.sub(r"\b(One|Two|Base)\b", lambda m, n=number: f"{m[1]}{n}", joined)
            texts.append(joined if language == "java" else f"using System;\n{joined}")
        groups.append((texts[0], texts[1:]))
    require_same(groups, lambda texts: outputs(language, texts, tmp_path), unless="DOES NOT COMPILE|timed out")
