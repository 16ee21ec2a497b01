"""Numbered variables in one array, in languages that declare: what comes of it, and what is refused."""

from __future__ import annotations

import re
from collections import Counter
from collections.abc import Callable
from pathlib import Path

import pytest

from core.builders import read, report, worked
from core.runners import can_run, outputs, require_same_output, type_errors
from core.wild_arrays import wild_arrays
from core.wild_braces import wild_braces
from partitor.deadline import Deadline
from partitor.program.program import Program
from partitor.repeats.limits import Limits
from partitor.suggestions.proof import ListedVariables, prove
from partitor.suggestions.worked import proved_suggestions, work_through

DOTS = """\
let x1 = 20;
let x2 = 60;
let x3 = 100;
function draw() {
  background(220);
  circle(x1, 100, 20);
  x1 = x1 + 1;
  if (x1 > 400) {
    x1 = 0;
  }
  circle(x2, 100, 20);
  x2 = x2 + 1;
  if (x2 > 400) {
    x2 = 0;
  }
  circle(x3, 100, 20);
  x3 = x3 + 1;
  if (x3 > 400) {
    x3 = 0;
  }
}
"""


def test_what_functions_share_becomes_an_array_and_a_loop() -> None:
    after = worked(DOTS, "javascript")
    assert after.startswith("const xs = [20, 60, 100];\nfunction draw() {\n")
    assert "  for (let i = 0; i < 3; i++) {\n    circle(xs[i], 100, 20);\n" in after
    assert "x1" not in after


GATES = """\
import java.util.Scanner;

public class Main {
    public static void main(String[] args) {
        Scanner in = new Scanner("4 5 6 7");
        System.out.print("Gate 1: ");
        int gate1 = in.nextInt();
        System.out.print("Gate 2: ");
        int gate2 = in.nextInt();
        System.out.print("Gate 3: ");
        int gate3 = in.nextInt();
        System.out.print("Gate 4: ");
        int gate4 = in.nextInt();
        System.out.println("Sum " + (gate1 + gate2 + gate3 + gate4));
    }
}
"""


def test_declarations_become_assignments_to_places(tmp_path: Path) -> None:
    after = worked(GATES, "java")
    assert "        int[] gates = new int[4];\n        for (int gate = 1; gate < 5; gate++) {\n" in after
    assert "gates[gate - 1] = in.nextInt();" in after
    require_same_output("java", GATES, after, tmp_path)


@pytest.mark.parametrize(
    ("language", "text", "line"),
    [
        (
            "c",
            "#include <stdio.h>\nint main(void) {\n    int g1, g2, g3, g4;\n"
            + "".join(f'    printf("Gate {k}: ");\n    scanf("%d", &g{k});\n' for k in range(1, 5))
            + '    printf("%d\\n", g1 + g2 + g3 + g4);\n    return 0;\n}\n',
            '        scanf("%d", &gs[gate - 1]);',
        ),
        (
            "csharp",
            "using System;\nclass P {\n    static void Main() {\n"
            + "".join(f"        double level{k} = double.Parse(Console.ReadLine());\n" for k in range(1, 8))
            + "        Console.WriteLine(level1 + level7);\n    }\n}\n",
            "        double[] levels = new double[7];",
        ),
    ],
)
def test_each_language_has_its_own_array(language: str, text: str, line: str) -> None:
    assert line in worked(text, language)


BEFORE = "let g1 = 3;\nlet g2 = 4;\ng1 = g1 + 1;\ng2 = g2 + 1;\nconsole.log(g1, g2);\n"
AFTER = "const gs = [3, 4];\ngs[0] = gs[0] + 1;\ngs[1] = gs[1] + 1;\nconsole.log(gs[0], gs[1]);\n"
CLAIM = ListedVariables("main.js", "gs", ("g1", "g2"))


def test_the_proof_takes_each_place_for_its_variable() -> None:
    assert prove(read(BEFORE, "javascript"), read(AFTER, "javascript"), CLAIM).proved


@pytest.mark.parametrize(
    ("old", "new"),
    [
        ("[3, 4]", "[4, 3]"),
        ("[3, 4]", "[3, 4, 5]"),
        ("gs[1] + 1", "gs[0] + 1"),
        ("gs[1] = ", "gs[2] = "),
        ("log(gs[0], gs[1])", "log(gs[0], gs)"),
        ("log(gs[0], gs[1])", "log(gs[0], gs[1], gs.length)"),
        ("const gs = [3, 4];\n", ""),
        ("const gs = [3, 4];\n", "const gs = [3, f()];\n"),
    ],
)
def test_a_slip_is_refused(old: str, new: str) -> None:
    assert old in AFTER
    assert not prove(read(BEFORE, "javascript"), read(AFTER.replace(old, new), "javascript"), CLAIM).proved


@pytest.mark.parametrize(
    ("old", "new"),
    [
        ("let g1 = 3;", "const g1 = 3;"),
        ("console.log(g1, g2);", "console.log({ g1 }, g2);"),
        ("let g1 = 3;", "f();\nlet g1 = 3;\nfunction f() { return g1; }"),
        ("g1 = g1 + 1;", "[g1] = [g1 + 1];"),
        ("let g1 = 3;", "{ let g1 = 9; }\nlet g1 = 3;"),
        ("let g1 = 3;", "export let g1 = 3;"),
        ("let g1 = 3;\nlet g2 = 4;", "var g1 = 3;\nvar g2 = 4;\nwindow.g1 = 5;"),
    ],
)
def test_variables_that_are_more_than_values_stay(old: str, new: str) -> None:
    text = BEFORE.replace(old, new)
    row = re.compile(r"((?:export )?)(?:let|const|var) g1 = 3;(.*?)\n(?:let|var) g2 = 4;", re.DOTALL)
    assert row.search(text)
    after = row.sub(r"\1const gs = [3, 4];\2", text)
    for k in (1, 2):
        after = re.sub(rf"(?<!window\.)\bg{k}\b", f"gs[{k - 1}]", after)
    after = after.replace("{ gs[0] }", "{ g1: gs[0] }").replace("let gs[0] = 9", "let g1 = 9")
    found = prove(read(text, "javascript"), read(after, "javascript"), CLAIM)
    assert not found.proved
    assert "parse" not in found.reason


def test_what_a_macro_names_stays() -> None:
    text = "#define SHOW printf({0})\nint main(void) {{\n    int g1 = 3;\n    int g2 = 4;\n    g1 = g1 + g2;\n    SHOW;\n}}\n"
    after = "#define SHOW printf({0})\nint main(void) {{\n    int gs[] = {{3, 4}};\n    gs[0] = gs[0] + gs[1];\n    SHOW;\n}}\n"
    claim = ListedVariables("main.c", "gs", ("g1", "g2"))
    for said, right in (('"hello"', True), ('"%d", g1', False)):
        assert prove(read(text.format(said), "c"), read(after.format(said), "c"), claim).proved is right


def test_places_that_a_function_could_see_empty_are_refused() -> None:
    before = "f();\nlet g1 = f();\nlet g2 = f();\nfunction f() {\n  return 2;\n}\nconsole.log(g1 + g2);\n"
    after = "const gs = [];\nf();\ngs[0] = f();\ngs[1] = f();\nfunction f() {\n  return 2;\n}\nconsole.log(gs[0] + gs[1]);\n"
    assert prove(read(before, "javascript"), read(after, "javascript"), CLAIM).proved
    texts = [t.replace("return 2", f"return {v}") for t, v in ((before, "g1"), (after, "gs[0]"))]
    assert not prove(*(read(t, "javascript") for t in texts), CLAIM).proved


def test_what_another_file_of_the_page_uses_stays() -> None:
    from partitor.check import check
    from partitor.exchange.assignment import Assignment
    from partitor.reading.collect import Submission
    from partitor.source import Source

    files = (Source("dots.js", DOTS, "javascript"), Source("more.js", "console.log(x2);\n", "javascript"))
    found = check(Submission("student", files), Assignment())
    assert [s.why_not for s in found.suggestions] == ["x1 to x3 are used in another file too"]
    assert report(DOTS, language="javascript").suggestions[0].status == "proved"


@pytest.mark.parametrize("language", ["javascript", "typescript", "gamescript", "c", "cpp", "java", "csharp"])
def test_wild_arrays_print_the_same(language: str, tmp_path: Path) -> None:
    texts: list[tuple[str, list[str]]] = []
    for seed in range(3 if language == "csharp" else 10):
        text = wild_arrays(seed, language)
        file = read(text, language)
        found = proved_suggestions(file, Limits())
        answer = work_through(Program([file]), Limits(), frozenset(), Deadline(60))
        texts.append((text, [*(p.after.source.text for p in found), answer.program.files[0].source.text]))
    assert any(len(rewritten) > 1 for _, rewritten in texts)
    if not can_run(language):
        return
    for k, (text, rewritten) in enumerate(texts):
        folder = tmp_path / str(k)
        folder.mkdir()
        before, *after = outputs(language, [text, *rewritten], folder)
        assert "ERROR" in before or set(after) == {before}


@pytest.mark.parametrize("make", [wild_arrays, wild_braces])
def test_rewritten_types_fit(make: Callable[[int, str], str]) -> None:
    if not can_run("typescript"):
        return
    groups = []
    for seed in range(14):
        text = make(seed, "typescript")
        found = proved_suggestions(read(text, "typescript"), Limits())
        groups.append([text, *(p.after.source.text for p in found)])
    said = iter(type_errors([text for group in groups for text in group]))
    for group in groups:
        before, *after = (Counter(next(said)) for _ in group)
        assert all(errors <= before for errors in after)
    assert sum(map(len, groups)) > len(groups)


def test_what_two_scripts_do_alike_belongs_into_one_of_its_own() -> None:
    from partitor.check import check
    from partitor.exchange.assignment import Assignment
    from partitor.reading.collect import Submission
    from partitor.source import Source

    shown = (
        "function show{0}(level) {{\n  const box = document.getElementById('{0}');\n  box.textContent = level + ' cm';\n"
        "  box.className = level > 300 ? 'high' : 'low';\n  console.log(level);\n}}\nshow{0}(3);\n"
    )
    files = tuple(Source(f"{n}.js", shown.format(n), "javascript") for n in "AB")
    (found,) = check(Submission("student", files), Assignment()).suggestions
    assert "a script of its own that each page loads before the others" in found.outline


BITS = """\
#include <stdio.h>
int main(void) {{
    int n = 37;
    {declared}
    b0 = n % 2;
    n = n / 2;
    b1 = n % 2;
    n = n / 2;
    b2 = n % 2;
    n = n / 2;
    b3 = n % 2;
    n = n / 2;
    {last}
    printf("%d%d%d%d %d\\n", b3, b2, b1, b0, {shown});
    return 0;
}}
"""


@pytest.mark.parametrize(
    ("declared", "last", "shown", "expected"),
    [
        ("int sum, b0, b1, b2, b3, left = 4;  // bits", "sum = b0 + left;", "sum", "int sum, left = 4;  // bits"),
        ("int b0, b1, b2, b3, b4, b5 = 1;", "b4 = n + b5;", "b4", "int b4, b5 = 1;"),
        ("int b0, b1, b2, b3, n2 = n;", "n2 = n2 + b1;", "n2", "int n2 = n;"),
        ("int b0, b1, b2, b3;", "n = n + 1;", "n", "int bs[4];"),
    ],
)
def test_what_is_declared_beside_the_variables_stays(
    declared: str, last: str, shown: str, expected: str, tmp_path: Path
) -> None:
    text = BITS.format(declared=declared, last=last, shown=shown)
    after = worked(text, "c")
    assert f"    {expected}\n" in after
    assert "int bs[4];" in after
    require_same_output("c", text, after, tmp_path)


def test_an_array_does_not_swallow_its_neighbours() -> None:
    text = BITS.format(declared="int b0, b1, b2, b3, left = 4;", last="n = n + left;", shown="n")
    right = worked(text, "c")
    claim = ListedVariables("main.c", "bs", ("b0", "b1", "b2", "b3"))
    alone = text.replace("int b0, b1, b2, b3, left = 4;", "int bs[4];\n    int left = 4;")
    for k in range(4):
        alone = alone.replace(f"b{k} =", f"bs[{k}] =").replace(f" b{k},", f" bs[{k}],")
    assert "int left = 4;" in right
    before = read(text, "c")
    assert prove(before, read(alone, "c"), claim).proved
    for old, new in [
        ("    int left = 4;\n", ""),
        ("left = 4;", "left = 5;"),
        ("int left = 4;", "int left = 4, b0;"),
        ("int left = 4;", "double left = 4;"),
        ("int left = 4;", "int left = 4;\n    int left = 4;"),
    ]:
        assert not prove(before, read(alone.replace(old, new), "c"), claim).proved
