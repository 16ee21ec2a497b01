"""What the proof accepts and refuses where variables are declared: extents, types, members, jumps."""

import pytest
from builders import read

from core.sweeps import proved_in
from partitor.program.types import type_of_name
from partitor.suggestions.proof import MergedFunctions, NewFunction, NewLoop, Verdict, prove

C = """\
#include <stdio.h>
int tide = 3;
void show(int n) {{
    printf("%d\\n", n);
}}
{0}int main(void) {{
    int gate = 2;
    int level = 5;
{1}    show(level + gate);
    return 0;
}}
"""
COPY = "    gate = gate + 1;\n    show(gate);\n    level = gate * {0};\n"


def verdict(language: str, before: str, after: str, claim: object) -> Verdict:
    return prove(read(before, language), read(after, language), claim)


def in_c(definition: str, calls: str, copies: str = COPY.format(2) + COPY.format(7), **more: object) -> Verdict:
    claim = NewFunction("main.c", "raise_gate", **more)
    return verdict("c", C.format("", copies), C.format(definition, calls), claim)


RIGHT = "int raise_gate(int gate, int by) {\n    gate = gate + 1;\n    show(gate);\n    return gate;\n}\n"
CALLS = "    gate = raise_gate(gate, {0});\n    level = gate * {0};\n"


def test_one_result_goes_back_to_its_variable():
    short = "    gate = gate + 1;\n    show(gate);\n"
    definition = "int raise_gate(int gate) {\n    gate = gate + 1;\n    show(gate);\n    return gate;\n}\n"
    call = "    gate = raise_gate(gate);\n"
    assert in_c(definition, call * 2, short * 2).proved


@pytest.mark.parametrize(
    ("definition", "calls"),
    [
        # what is needed afterwards is not returned
        ("void raise_gate(int gate) {\n    gate = gate + 1;\n    show(gate);\n}\n", "    raise_gate(gate);\n" * 2),
        # another type
        (
            "int raise_gate(long gate) {\n    gate = gate + 1;\n    show(gate);\n    return gate;\n}\n",
            "    gate = raise_gate(gate);\n" * 2,
        ),
        (
            "long raise_gate(int gate) {\n    gate = gate + 1;\n    show(gate);\n    return gate;\n}\n",
            "    gate = raise_gate(gate);\n" * 2,
        ),
        # declared anew, so that the old one stays as it was
        (
            "int raise_gate(int gate) {\n    gate = gate + 1;\n    show(gate);\n    return gate;\n}\n",
            "    int gate2 = raise_gate(gate);\n" * 2,
        ),
        # the wrong thing is given
        (
            "int raise_gate(int gate) {\n    gate = gate + 1;\n    show(gate);\n    return gate;\n}\n",
            "    gate = raise_gate(level);\n" * 2,
        ),
        # kept from call to call
        (
            "int raise_gate(int gate) {\n    static int n = 0;\n    gate = gate + 1;\n    show(gate);\n    return gate;\n}\n",
            "    gate = raise_gate(gate);\n" * 2,
        ),
        # the global instead of the local
        (
            "int raise_gate(int gate) {\n    gate = tide + 1;\n    show(gate);\n    return gate;\n}\n",
            "    gate = raise_gate(gate);\n" * 2,
        ),
        # a default argument
        (
            "int raise_gate(int gate) {\n    gate = gate + 2;\n    show(gate);\n    return gate;\n}\n",
            "    gate = raise_gate(gate);\n" * 2,
        ),
    ],
)
def test_a_function_that_does_not_do_the_same_is_refused(definition, calls):
    short = "    gate = gate + 1;\n    show(gate);\n"
    assert not in_c(definition, calls, short * 2).proved


def test_a_function_of_the_programs_name_is_refused():
    short = "    gate = gate + 1;\n    show(gate);\n"
    text = C.format("", short * 2).replace("tide", "raise_gate")
    after = C.format(
        "int raise_gate(int gate) {\n    gate = gate + 1;\n    show(gate);\n    return gate;\n}\n",
        "    gate = raise_gate(gate);\n" * 2,
    )
    assert not verdict("c", text, after.replace("tide", "raise_gate"), NewFunction("main.c", "raise_gate")).proved


# -- loops -----------------------------------------------------------------------------------------

LOOPED = "    show(3);\n    show(7);\n    show(11);\n"


def loop(head: str, body: str = "show(k)", before: str = "", tables: tuple[str, ...] = ()) -> Verdict:
    text = f"{before}    {head} {{\n        {body};\n    }}\n"
    line = C.format("", text).split("\n").index(f"    {head} {{") + 1
    return verdict("c", C.format("", LOOPED), C.format("", text), NewLoop("main.c", line, tables))


@pytest.mark.parametrize(
    "head",
    ["for (int k = 3; k <= 11; k += 4)", "for (int k = 3; k < 12; k += 4)", "for (int k = 3; k < 15; k += 4)"],
)
def test_loops_that_count_the_copies_are_proved(head):
    assert loop(head).proved


@pytest.mark.parametrize(
    ("head", "body"),
    [
        ("for (int k = 3; k < 11; k += 4)", "show(k)"),
        ("for (int k = 3; k <= 15; k += 4)", "show(k)"),
        ("for (int k = 11; k >= 3; k -= 4)", "show(k)"),
        ("for (int gate = 3; gate <= 11; gate += 4)", "show(gate)"),
        ("for (byte k = 3; k <= 11; k += 4)", "show(k)"),
        ("for (int k = 3; k != 15; k += 4)", "show(k)"),
        ("for (int k = 3; k <= 11; k += 4)", "show(k++)"),
        ("for (int k = 3; k <= level; k += 4)", "show(k)"),
        ("for (int k = 3; k > 0; k += 4)", "show(k)"),
        ("while (gate < 3)", "show(gate)"),
    ],
)
def test_loops_that_do_not_are_refused(head, body):
    assert not loop(head, body).proved


def test_a_list_before_the_loop_is_looked_into():
    head, before = "for (int i = 0; i < 3; i++)", "    int ns[] = {3, 7, 11};\n"
    assert loop(head, "show(ns[i])", before, ("ns",)).proved


@pytest.mark.parametrize(
    ("before", "body"),
    [
        ("    int ns[] = {3, 7, 12};\n", "show(ns[i])"),
        ("    int ns[] = {3, 7};\n", "show(ns[i])"),
        ("    double ns[] = {3, 7, 11};\n", "show(ns[i])"),
        ("    int ns[] = {3, 7, 11};\n", "show(ns[i + 1])"),
        ("    int ns[] = {3, 7, 11};\n", "show(ns[2 - i])"),
        ("    int ns[] = {3, show(7), 11};\n", "show(ns[i])"),
        ("    int gate[] = {3, 7, 11};\n", "show(gate[i])"),
        ("", "show(ns[i])"),
    ],
)
def test_a_list_that_holds_other_values_is_refused(before, body):
    name = "gate" if "gate[" in before else "ns"
    assert not loop("for (int i = 0; i < 3; i++)", body, before, (name,)).proved


def test_numbers_beyond_a_boards_int_are_not_reckoned_with():
    lines = "".join(f"  wait({n});\n" for n in (30000, 31000, 32000, 33000))
    before = "void loop() {\n" + lines + "}\n"
    after = "void loop() {\n  for (int i = 0; i < 4; i++) {\n    wait(1000 * i + 30000);\n  }\n}\n"
    assert not verdict("arduino", before, after, NewLoop("main.ino", 2)).proved
    assert verdict(
        "javascript",
        before.replace("void", "function"),
        after.replace("void", "function").replace("int", "let"),
        NewLoop("main.js", 2),
    ).proved


def test_a_variable_used_after_the_copies_may_not_vanish_into_the_loop():
    before = "function f() {\n  var a = 1;\n  show(a);\n  var a = 1;\n  show(a);\n  return a;\n}\n"
    after = "function f() {\n  for (let i = 0; i < 2; i++) {\n    var a = 1;\n    show(a);\n  }\n  return a;\n}\n"
    assert not verdict("javascript", before, after, NewLoop("main.js", 2)).proved


def test_a_break_of_a_switch_is_none_of_the_loop():
    body = "  switch (n) {\n    case 1:\n      show(1);\n      break;\n    default:\n      show(2);\n  }\n"
    inner = "".join(f"  {x}\n" for x in body.rstrip("\n").split("\n"))
    before = "function f(n) {\n" + body * 3 + "}\n"
    after = "function f(n) {\n  for (let i = 0; i < 3; i++) {\n" + inner + "  }\n}\n"
    assert verdict("javascript", before, after, NewLoop("main.js", 2)).proved


# -- members ---------------------------------------------------------------------------------------

JAVA = "public class Main {{\n    static int tide = 1;\n    int own = 2;\n{0}    public static void main(String[] args) {{\n{1}    }}\n}}\n"


@pytest.mark.parametrize(
    ("words", "good"), [("private static void", True), ("private void", False), ("static int", False)]
)
def test_a_method_must_be_at_home_where_the_copies_are(words, good):
    copy = "        tide = tide + 1;\n        System.out.println(tide);\n"
    body = copy if "int" not in words else copy + "        return 1;\n"
    method = f"    {words} rise() {{\n{body}    }}\n"
    after = JAVA.format(method, "        rise();\n        rise();\n")
    assert verdict("java", JAVA.format("", copy * 2), after, NewFunction("Main.java", "rise")).proved is good


def test_errors_that_copies_may_raise_are_handed_on():
    copy = "        Thread.sleep(100);\n        System.out.println(tide);\n"
    before = JAVA.format("", copy * 2).replace("args) {", "args) throws InterruptedException {")
    bare = before.replace(copy * 2, "        rest();\n        rest();\n")
    method = "    private static void rest(){0} {{\n" + copy + "    }}\n"
    without = bare.replace("    int own = 2;\n", "    int own = 2;\n" + method.format(""))
    along = bare.replace("    int own = 2;\n", "    int own = 2;\n" + method.format(" throws InterruptedException"))
    assert not verdict("java", before, without, NewFunction("Main.java", "rest")).proved
    assert verdict("java", before, along, NewFunction("Main.java", "rest")).proved


TWIN = "function {0}(n) {{\n  let sum = n + {1};\n  show(sum);\n  return sum;\n}}\n"


@pytest.mark.parametrize(
    ("general", "call", "good"),
    [
        (
            "function both(n, by) {\n  let sum = n + by;\n  show(sum);\n  return sum;\n}\n",
            "both(1, 4) + both(2, 9)",
            True,
        ),
        (
            "function both(n, by) {\n  let sum = n + by;\n  show(sum);\n  return sum;\n}\n",
            "both(1, 9) + both(2, 4)",
            False,
        ),
        (
            "function both(n, by) {\n  let sum = n - by;\n  show(sum);\n  return sum;\n}\n",
            "both(1, 4) + both(2, 9)",
            False,
        ),
        ("function both(n, by) {\n  by = n + by;\n  show(by);\n  return by;\n}\n", "both(1, 4) + both(2, 9)", False),
        (
            "function* both(n, by) {\n  let sum = n + by;\n  show(sum);\n  return sum;\n}\n",
            "both(1, 4) + both(2, 9)",
            False,
        ),
        (
            "function both(n, by = 4) {\n  let sum = n + by;\n  show(sum);\n  return sum;\n}\n",
            "both(1) + both(2, 9)",
            False,
        ),
    ],
)
def test_merged_twins_do_what_each_did(general, call, good):
    before = TWIN.format("one", 4) + TWIN.format("two", 9) + "show(one(1) + two(2));\n"
    after = f"{general}show({call});\n"
    assert verdict("javascript", before, after, MergedFunctions("main.js", "both", ("one", "two"))).proved is good


def test_a_shorthand_key_is_no_variable_to_be_renamed():
    block = "  const {0} = read();\n  log({{ {0} }});\n  send({0});\n"
    before = "function f() {\n" + block.format("a") + block.format("b") + "}\n"
    after = "function g() {\n  const a = read();\n  log({ a });\n  send(a);\n}\nfunction f() {\n  g();\n  g();\n}\n"
    assert not verdict("javascript", before, after, NewFunction("main.js", "g")).proved


EARLY = """console.log("feb");
{0}total = 0;
for (const n of [4, 6]) {{
  total += n;
}}
console.log(total);
console.log("jan");
{1}total = 0;
for (const n of [3, 5]) {{
  total += n;
}}
console.log(total);
"""


@pytest.mark.parametrize(("first", "second", "told"), [("let ", "", True), ("", "let ", False)])
def test_a_script_that_ends_where_it_uses_a_variable_too_early_stays(first: str, second: str, told: bool) -> None:
    assert bool(proved_in(EARLY.format(first, second), "javascript")[0]) is told


@pytest.mark.parametrize(
    ("language", "text"),
    [
        ("typescript", "let n = n + 1;\nlet m = m + 1;\n"),
        ("cpp", "auto a = b + 1;\nauto b = a + 1;\nauto c = b + 2;\n"),
    ],
)
def test_a_variable_that_is_made_of_itself_has_no_type(language: str, text: str) -> None:
    file = read(text, language)
    assert all(type_of_name(file, name, 0) is None for name in "nmab")


CONSTANT = """function tell() {
  const ages = [34, 9];
  print(ages);
  print("young");
  ages = [];
  print(ages);
}
"""
OF_ITS_OWN = """function show() {
  print("young");
  let ages = [];
  print(ages);
}
function tell() {
  const ages = [34, 9];
  print(ages);
  show();
}
"""


@pytest.mark.parametrize("language", ["javascript", "typescript"])
def test_what_may_not_be_changed_becomes_no_variable_of_a_function_s_own(language: str) -> None:
    claim = NewFunction("x", "show", ("ages",))
    assert not prove(read(CONSTANT, language), read(OF_ITS_OWN, language), claim).proved
    free = [text.replace("const", "let") for text in (CONSTANT, OF_ITS_OWN)]
    assert prove(read(free[0], language), read(free[1], language), claim).proved
