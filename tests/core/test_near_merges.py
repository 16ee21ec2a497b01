"""Two functions alike but for a line or two: one that is told what to do, and what the proof refuses."""

from __future__ import annotations

from pathlib import Path

import pytest

from core.builders import printed, read, report, rules, run, verdict, worked
from core.runners import can_run, outputs
from core.sweeps import Group, require_same
from core.wild_braces import wild_pair
from partitor.program.program import Program
from partitor.repeats.find import find_repeats
from partitor.repeats.limits import Limits
from partitor.suggestions.attempts import Proved, attempt
from partitor.suggestions.near_merges import near_merge_candidate
from partitor.suggestions.proof import MergedFunctions, prove

REPORTS = """
def report_mill(levels):
    print("Station mill")
    print("-----")
    total = 0
    for level in levels:
        print("level", level)
        total = total + level
    print("total", total)
    print("-----")


def report_ferry(levels):
    print("Station ferry")
    print("-----")
    total = 0
    for level in levels:
        # a gauge that hangs
        if level < 0:
            print("broken gauge")
        print("level", level)
        total = total + level
    print("total", total)
    print("mean", total / len(levels))
    print("-----")


report_mill([3, 4, 5])
report_ferry([6, -7, 8])
"""


def test_what_only_one_does_goes_under_a_condition() -> None:
    after = worked(REPORTS)
    assert run(after) == run(REPORTS)
    assert after.count("\ndef ") == 1 or after.startswith("def ")
    assert "# a gauge that hangs" in after
    name = after.split("def ")[1].split("(")[0]
    assert after.endswith(f'\n{name}([3, 4, 5], "mill", False)\n{name}([6, -7, 8], "ferry", True)\n')


def test_what_each_does_otherwise_goes_to_either_side() -> None:
    text = REPORTS.replace('print("total", total)', 'print("sum", total, "cm")', 1).replace(
        '        # a gauge that hangs\n        if level < 0:\n            print("broken gauge")\n', ""
    )
    text = text.replace('    print("mean", total / len(levels))\n', "")
    after = worked(text)
    assert run(after) == run(text)
    assert "    else:\n" in after


def test_it_is_told_as_a_merge() -> None:
    found = report(REPORTS)
    assert [(f.rule, f.message) for f in found.findings] == [
        ("twin-functions", "report_mill and report_ferry are alike but for three lines.")
    ]
    assert [(s.kind, s.status) for s in found.suggestions] == [("merge", "proved")]


MINE = "def a(n):\n    print('a')\n    print(n)\n\n\n"
YOURS = "def b(n):\n    print('a')\n    print(n)\n    print('b')\n\n\n"
USED = "a(1)\nb(2)\n"
CLAIM = MergedFunctions("main.py", "one", ("a", "b"))


def merged(body: str, calls: str = "one(1, False)\none(2, True)\n", before: str = MINE + YOURS + USED) -> bool:
    return verdict(before, f"def one(n, more):\n{body}\n\n{calls}", CLAIM).proved


def test_a_flag_chooses_its_branch() -> None:
    head = "    print('a')\n    print(n)\n"
    assert merged(head + "    if more:\n        print('b')\n")
    assert merged(head + "    if not more:\n        print('b')\n", "one(1, True)\none(2, False)\n")
    assert merged(head + "    if more:\n        print('b')\n", "one(1, False)\none(2, False)\n") is False


@pytest.mark.parametrize(
    "tail",
    [
        "    if not more:\n        print('b')\n",
        "    if more:\n        print('c')\n",
        "    if more:\n        print('b')\n        print('b')\n",
        "    if more:\n        print('b')\n    else:\n        print('c')\n",
        "    if more == True:\n        print('b')\n",
        "    if n:\n        print('b')\n",
        "    while more:\n        print('b')\n",
        "    more = True\n    if more:\n        print('b')\n",
        "    if more:\n        print('b')\n    elif n:\n        print('c')\n",
    ],
)
def test_any_other_branch_is_refused(tail: str) -> None:
    assert not merged("    print('a')\n    print(n)\n" + tail)


def test_what_would_mark_the_whole_function_is_refused() -> None:
    yours = YOURS.replace("print('b')", "yield 3")
    assert not merged("    print('a')\n    print(n)\n    if more:\n        yield 3\n", before=MINE + yours + USED)
    yours = "m = 1\n\n\n" + MINE.replace("print(n)", "m = n") + YOURS.replace("print(n)", "global m\n    m = n")
    body = "    print('a')\n    if more:\n        global m\n    m = n\n    if more:\n        print('b')\n"
    assert not verdict(
        yours + USED, f"m = 1\n\n\ndef one(n, more):\n{body}\n\none(1, False)\none(2, True)\n", CLAIM
    ).proved


def test_a_name_that_only_one_gives_a_value_is_its_own() -> None:
    """`m` belongs to the program in one function and to the other function alone."""
    before = (
        "m = 1\n\n\n" + MINE.replace("print(n)", "print(m)") + YOURS.replace("print(n)", "m = n\n    print(m)") + USED
    )
    body = "    print('a')\n    if more:\n        m = n\n    print(m)\n    if more:\n        print('b')\n"
    assert not verdict(before, f"m = 1\n\n\ndef one(n, more):\n{body}\n\none(1, False)\none(2, True)\n", CLAIM).proved


PARCELS = """public class Main {{
    static double air(double kilos) {{
        {declared}
        {one}
        System.out.println("a parcel by air: " + price);
        System.out.println("it weighs " + kilos);
        System.out.println("and is insured");
        return price;
    }}

    static double sea(double kilos) {{
        {declared}
        System.out.println("a parcel by air: " + price);
        System.out.println("it weighs " + kilos);
        {two}
        System.out.println("and is insured");
        return price;
    }}

    public static void main(String[] args) {{
        System.out.println(air(2.5) + sea(1.5));
    }}
}}
"""
TAKING = PARCELS.format(declared="double price = 4.0;", one="price = price + 1;", two="price = Math.ceil(price);")


def in_place_of_two(text: str, language: str) -> str:
    """The text with one function in place of its two near twins."""
    found = find_repeats(Program([read(text, language)]), Limits(), frozenset(), near=True)
    result = attempt(lambda: near_merge_candidate(found.near_twins[0]))
    assert isinstance(result, Proved), result
    return result.after.source.text


def test_a_flag_has_its_type_and_its_place_in_the_braces() -> None:
    after = in_place_of_two(TAKING, "java")
    assert "(double kilos, boolean asAir)" in after
    assert "if (asAir)" in after
    assert "if (!asAir)" in after
    assert after.count("static double") == 1
    assert after.count("return price;") == 1


def test_a_variable_without_a_first_value_is_no_way_to_go() -> None:
    text = PARCELS.format(declared="double price;\n        price = 4.0;", one="price = kilos;", two="price = 2.0;")
    found = [s.status for s in report(text, language="java").suggestions if s.kind == "merge"]
    assert found in ([], ["outline"])


def test_swapped_flags_are_refused() -> None:
    before = read(TAKING, "java")
    text = in_place_of_two(TAKING, "java")
    name = text.split("static double ")[1].split("(")[0]
    claim = MergedFunctions(before.path, name, ("air", "sea"))
    assert prove(before, read(text, "java"), claim).proved
    swapped = text.replace("(2.5, true)", "(2.5, false)").replace("(1.5, false)", "(1.5, true)")
    assert swapped != text
    assert not prove(before, read(swapped, "java"), claim).proved
    same = text.replace("if (!asAir", "if (asAir")
    assert same != text
    assert not prove(before, read(same, "java"), claim).proved


C_PAIR = """#include <stdio.h>

int up(void) {
    int total = 1;
    for (int i = 0; i < 4; i++) {
        total = total * 2;
        printf("now %d\\n", total);
    }
    printf("in all %d\\n", total);
    return total;
}

int down(void) {
    int sum = 1;
    for (int i = 0; i < 4; i++) {
        sum = sum * 2;
        printf("now %d\\n", sum);
        if (sum > 4) {
            printf("much: %d\\n", sum);
        }
    }
    printf("in all %d\\n", sum);
    return sum;
}

int main(void) {
    printf("%d\\n", up() + down());
    return 0;
}
"""


def test_variables_that_the_second_calls_otherwise_are_called_as_in_the_first() -> None:
    after = worked(C_PAIR, "c")
    assert "(int with" in after
    assert '("much: %d\\n", total)' in after
    assert "sum" not in after
    assert "(1)" in after
    assert "(0)" in after


@pytest.mark.parametrize("language", [x for x in ("javascript", "java", "c", "csharp", "cpp") if can_run(x)])
def test_wild_pairs_print_the_same(language: str, tmp_path: Path) -> None:
    groups: list[Group] = []
    for seed in range(140):
        text = wild_pair(seed, language)
        found = find_repeats(Program([read(text, language)]), Limits(), frozenset(), near=True)
        results = [attempt(lambda n=n: near_merge_candidate(n)) for n in found.near_twins]  # type: ignore[misc]
        proved = [r.after.source.text for r in results if isinstance(r, Proved)]
        groups += [(text, proved)] if proved else []
    assert len(groups) > 5
    require_same(groups, lambda texts: outputs(language, texts, tmp_path), "DOES NOT COMPILE")


def test_an_empty_block_is_no_place_to_look_into() -> None:
    loop = "    foreach (int v in values)\n    {\n        total += v;\n    }\n"
    text = "class P\n{\n" + "".join(
        f'    static int {name}(int[] values)\n    {{\n    int total = 0;\n{inner}    Console.WriteLine("a");\n'
        f'    Console.WriteLine("b");\n    Console.WriteLine("c");\n    return total;\n    }}\n'
        for name, inner in (("One", loop), ("Two", loop.replace("        total += v;\n", "")))
    )
    found = report(text + "    static void Main() { One(null); Two(null); }\n}\n", language="csharp")
    assert [f.rule for f in found.findings] == ["twin-functions"]


CODES = """ALPHA = "abcdefghijklmnopqrstuvwxyz"


def encode(text, key):
    out = ""
    for ch in text:
        if ch in ALPHA:
            pos = (ALPHA.index(ch) + key) % 26
            out += ALPHA[pos]
        elif ch == " ":
            # spaces stay
            out += ch
        else:
            out += ch + "!"
        key += 1
    return out


def decode(text, key):
    out = ""
    for ch in text:
        if ch in ALPHA:
            pos = (ALPHA.index(ch) - key) % 26
            out += ALPHA[pos]
        elif ch == " ":
            out += ch
        else:
            out += ch + "!"
        key += 1
    return out


print(encode("meet at the lock.", 4))
print(decode(encode("meet at the lock.", 4), 4))
"""


def test_what_differs_inside_a_branch_is_decided_there() -> None:
    after = worked(CODES)
    assert printed(after) == printed(CODES)
    assert "def encode_or_decode(text, key, as_encode):" in after
    assert after.count("elif ch == ") == 1
    assert "            if as_encode:\n                pos = (ALPHA.index(ch) + key) % 26\n" in after
    assert '        elif ch == " ":\n            # spaces stay\n            out += ch\n' in after


def test_not_where_what_is_done_otherwise_differs_too() -> None:
    text = CODES[::-1].replace('"!" + hc', '"?" + hc', 1)[::-1]
    assert '"?"' in text
    after = worked(text)
    assert printed(after) == printed(text)


def test_changed_lines_one_after_the_other_are_one_choice() -> None:
    one = (
        "def {0}(book, member):\n    count = books[book]\n    print('Book', book, count)\n    line = '-' * count\n"
        "    print(line)\n    books[book] {1}= 1\n    members[member] {2}= 1\n    left = members[member]\n"
        "    print(member, 'has', left, 'books', line)\n    print('done')\n    return left + count\n\n\n"
    )
    text = "books = {'Tides': 3}\nmembers = {'Ada': 0}\n\n\n" + one.format("borrow", "-", "+")
    text += one.format("give_back", "+", "-") + "borrow('Tides', 'Ada')\ngive_back('Tides', 'Ada')\nprint(books)\n"
    after = worked(text)
    assert printed(after) == printed(text)
    assert after.count("if as_borrow:") == 1
    assert after.count("else:") == 1


METHODS = """
class Report:
    def __init__(self, rows):
        self.rows = rows
        self.seen = 0

    def short(self, title):
        print("=" * 20)
        print(title)
        for row in self.rows:
            self.seen += row
        print("total", self.seen)
        return self.seen

    def full(self, title):
        print("=" * 20)
        print(title)
        for row in self.rows:
            print("row", row)
            self.seen += row
        print("total", self.seen)
        return self.seen


made = Report([3, 4])
made.short("first")
print(made.full("second"))
"""


def test_methods_of_which_one_does_more_become_one_that_is_told() -> None:
    after = worked(METHODS)
    assert after.count("def ") == 2
    assert "True)" in after
    assert printed(after) == printed(METHODS)


@pytest.mark.parametrize(
    ("old", "new"),
    [
        # Who calls it, and through what, must be in sight.
        ("made = Report([3, 4])", "def use(report):\n    report.short('x')\nmade = Report([3, 4])\nuse(made)"),
        ("made = Report([3, 4])", "made = Report([3, 4])\nprint(getattr(made, 'short')('x'))"),
        ("made = Report([3, 4])", "made = Report([3, 4])\nshow = made.short\nshow('x')"),
        # What each does otherwise is easier to call apart.
        ('            print("row", row)\n            self.seen += row', "            self.seen -= row"),
    ],
)
def test_other_methods_stay_apart(old: str, new: str) -> None:
    assert old in METHODS
    after = worked(METHODS.replace(old, new))
    assert "def short" in after
    assert "def full" in after


def test_functions_alike_but_for_their_operators_are_near_twins() -> None:
    text = """
def encode(text):
    result = ""
    for ch in text:
        if ch.isalpha():
            code = ord(ch) + 3
            if code > ord("z"):
                code = code - 26
            result = result + chr(code)
        else:
            result = result + ch
    return result


def decode(text):
    result = ""
    for ch in text:
        if ch.isalpha():
            code = ord(ch) - 3
            if code < ord("a"):
                code = code + 26
            result = result + chr(code)
        else:
            result = result + ch
    return result


print(encode("harbour xyz"))
print(decode("kduerxu abc"))
"""
    assert "twin-functions" in rules(text)
    # Most of each would stand under a test that asks which of the two is meant.
    assert "as_encode" not in worked(text)


def test_branches_alike_but_for_their_operators_are_near_copies() -> None:
    text = """
if (state == 0) {
    sprite_index = spr_walk;
    image_speed = 0.5;
    x += 2;
    if (x > right_end) {
        state = 1;
        image_xscale = -1;
    }
} else if (state == 1) {
    sprite_index = spr_walk;
    image_speed = 0.5;
    x -= 2;
    if (x < left_end) {
        state = 0;
        image_xscale = 1;
    }
}
"""
    (finding,) = [f for f in report(text, language="gamescript").findings if f.rule == "repeated-block"]
    assert [(p.start_line, p.end_line) for p in finding.places] == [(2, 8), (10, 16)]


LETTERS = """
def encode(text):
    result = ""
    for ch in text:
        if "a" <= ch <= "z":
            code = ord(ch) - ord("a")
            # around the end
            code = (code + 3) % 26
            result += chr(code + 97)
        elif "0" <= ch <= "9":  # a digit
            result += "#"
        # all the rest
        else:
            result += ch
            result = result + "."
    print(len(result))
    return result


def decode(text):
    result = ""
    for ch in text:
        if "a" <= ch <= "z":
            code = ord(ch) - ord("a")
            code = (code - 3) % 26
            result += chr(code + 97)
        elif "0" <= ch <= "9":
            result += "#"
        else:
            result += ch
            result = result + "."
    print(len(result))
    return result


print(decode(encode("high 5 tide")))
"""


def test_what_differs_in_one_branch_of_several_stays_in_it() -> None:
    after = worked(LETTERS)
    assert run(after) == run(LETTERS)
    assert after.count('elif "0" <= ch <= "9":') == 1
    assert after.count("ord(ch)") == 1


QUIZ = """
import random


def easy():
    points = 0
    for i in range(5):
        a = random.randint(1, 10)
        b = random.randint(1, 10)
        answer = input(str(a) + " + " + str(b) + " = ")
        if int(answer) == a + b:
            print("correct")
            points += 1
        else:
            print("wrong")
    print("You got", points, "points")
    return points


def hard():
    points = 0
    for i in range(10):
        a = random.randint(1, 10)
        b = random.randint(1, 10)
        c = random.randint(1, 9)
        answer = input(str(a) + " + " + str(b) + " - " + str(c) + " = ")
        if int(answer) == a + b - c:
            print("correct")
            points += 1
        else:
            print("wrong")
    print("You got", points, "points")
    return points


easy()
hard()
"""


def test_two_whole_loops_under_a_test_are_no_one_function() -> None:
    (found,) = [f for f in report(QUIZ).findings if f.rule == "twin-functions"]
    (suggestion,) = [s for s in report(QUIZ).suggestions if s.id == found.suggestion]
    assert suggestion.status == "outline"
    assert worked(QUIZ) == QUIZ.lstrip("\n")


NOTES = """
notes = []


def save():
    out = open("notes.txt", "w")
    for n in notes:
        out.write(n + "\\n")
    out.close()


def add():
    notes.append(input("note: "))
    out = open("notes.txt", "w")
    for n in notes:
        out.write(n + "\\n")
    out.close()


def clear():
    notes.clear()
    out = open("notes.txt", "w")
    for n in notes:
        out.write(n + "\\n")
    out.close()


save()
add()
clear()
"""


def test_what_only_one_has_is_told_as_what_differs() -> None:
    (found,) = [f for f in report(QUIZ).findings if f.rule == "twin-functions"]
    assert [s.values for s in found.slots] == [("for i in range(5):", "for i in range(10):")]


def test_what_stands_in_other_places_too_makes_no_two_functions_near_twins() -> None:
    assert [f.rule for f in report(NOTES).findings] == ["repeated-block"]


def test_a_block_inside_one_of_two_near_twins_is_told_by_itself() -> None:
    block = '    a = input("name: ")\n    print("Hello", a)\n    print("-----")\n    print()\n'
    extra = block + "    levels.append(1)\n" + block
    text = REPORTS.replace("    total = 0\n", extra + "    total = 0\n", 1)
    rules = [f.rule for f in report(text).findings]
    assert "repeated-block" in rules


LEDGER = """
class Ledger:
    def __init__(self):
        self.rows = []
        self.total = 0

    def add_income(self, text, amount):
        if amount <= 0:
            print("amount must be positive")
            return False
        self.rows.append((text, amount))
        self.total += amount
        return True

    def add_expense(self, text, amount):
        if amount <= 0:
            print("amount must be positive")
            return False
        self.rows.append((text, -amount))
        self.total -= amount
        return True


book = Ledger()
book.add_income("fees", 120)
book.add_expense("paper", 14)
"""


def test_functions_that_do_the_same_to_the_same_are_told() -> None:
    (found,) = [f for f in report(LEDGER).findings if f.rule == "twin-functions"]
    assert [p.start_line for p in found.places] == [6, 14]


def test_functions_that_do_it_to_something_else_are_not() -> None:
    text = LEDGER.replace("self.total -= amount", "self.spent = amount").replace("(text, -amount)", "text")
    assert "twin-functions" not in {f.rule for f in report(text).findings}


TABLE = """
def {name}(start, stop):
    print("{head}")
    value = start
    while value <= stop:
        other = {other}
        print(f"{{value:<7.1f}}{{other:.1f}}")
        value += 5
    print("end of table")


{name}(0, 10)
"""
WAYS = [("warm", "C  F", "value * 9 / 5 + 32"), ("cold", "F  C", "(value - 32) * 5 / 9"), ("far", "km", "value * 0.62")]


def test_twins_that_work_one_thing_out_otherwise_are_led_to_a_function_for_it() -> None:
    text = "".join(TABLE.format(name=name, head=head, other=other) for name, head, other in WAYS)
    (suggestion,) = report(text).suggestions
    assert suggestion.status == "outline"
    assert "works out for other is its own" in suggestion.outline
    assert "hand the one that is meant over" in suggestion.outline
    asked = text.replace("value * 0.62", "round(value)").replace("value += 5", "value += 5 if stop else 6", 1)
    assert not any("is its own" in s.outline for s in report(asked).suggestions)


def test_three_that_each_do_something_else_at_last_are_led_to_a_function_for_the_rest() -> None:
    body = """
    def {0}_task():
        for number, task in enumerate(tasks):
            print(number, task)
        number = int(input("Which? "))
        if number < 0 or number >= len(tasks):
            print("There is no such task.")
            return
        {1}
        print("{2}")
    """
    ways = [
        ("drop", "tasks.pop(number)", "Dropped."),
        ("end", "done.append(tasks[number])\n        tasks.pop(number)", "Done."),
    ]
    ways.append(("name", 'tasks[number] = input("New name: ")', "Renamed."))
    text = "    tasks = ['a', 'b']\n    done = []\n" + "".join(body.format(*way) for way in ways)
    (suggestion,) = report(text + "drop_task()\n").suggestions
    assert suggestion.title == "Towards a function for what they share"
    assert "Leave all of them their names" in suggestion.outline
