"""Rows of alike statements: numbers and words in one text, letters, series, rows in rows, rows that something
interrupts, counters."""

from __future__ import annotations

from pathlib import Path

import pytest

from core.builders import printed, repeats, report, rules, run, worked
from core.runners import can_run, outputs
from core.sweeps import proved_in, require_same
from core.wild_rows import HEADS, WildRows
from partitor.repeats.series import Family, family_of


def rows(form: str, *values: object) -> str:
    return "".join(form.format(*(v if isinstance(v, tuple) else (v,))) + "\n" for v in values)


def test_a_number_and_a_word_in_one_text_are_two_values() -> None:
    stops = rows('print("Stop {}: {}")\nprint("  wait")', (1, "mill"), (2, "creek"), (3, "old pier"))
    after = worked(stops)
    assert 'for number, stop in enumerate(["mill", "creek", "old pier"], start=1):' in after
    assert 'print(f"Stop {number}: {stop}")' in after
    assert run(after) == run(stops)


@pytest.mark.parametrize("language", ["c", "cpp", "java", "csharp", "javascript", "racket"])
def test_every_language_puts_both_into_the_text(language: str, tmp_path: Path) -> None:
    told = {"c": 'printf("{}\\n");', "cpp": 'std::cout << "{}" << std::endl;', "javascript": 'console.log("{}");'}
    told |= {"java": 'System.out.println("{}");', "csharp": 'System.Console.WriteLine("{}");'}
    told |= {"racket": '(displayln "{}")'}
    lines = "\n".join(
        told[language].format(text)
        for stop in ("1: mill", "2: creek", "3: pier", "4: quay")
        for text in (f"Stop {stop}", "  wait")
    )
    around = {"c": "#include <stdio.h>\nint main(void) {\n%s\nreturn 0;\n}\n"}
    around |= {"cpp": "#include <iostream>\nint main() {\n%s\nreturn 0;\n}\n", "racket": "#lang racket\n%s\n"}
    around |= {"java": "class Main {\n    public static void main(String[] a) {\n%s\n    }\n}\n"}
    around |= {"csharp": "class Program {\n    static void Main() {\n%s\n    }\n}\n"}
    text = around.get(language, "%s\n") % lines
    (found,) = [s for s in proved_in(text, language)[0] if s.candidate.kind == "loop"]
    assert "pier" in found.after.source.text
    assert "3: pier" not in found.after.source.text
    if can_run(language):
        one, other = outputs(language, [text, found.after.source.text], tmp_path)
        assert one == other


def test_numbered_prose_and_menus_are_no_rows() -> None:
    menu = rows('print("{}. {}")', (1, "Tea"), (2, "Oil"), (3, "Rye"), (4, "Quit"))
    advice = rows(
        'print("Step {}: {} first")', (1, "read the levels"), (2, "look for gaps"), (3, "sum them up"), (4, "x")
    )
    assert rules(menu) == []
    assert rules(advice) == []
    framed = rows('print("level {} at the {} gate")', (0, "mill"), (1, "pier"), (2, "quay"), (3, "dyke"))
    assert rules(framed) == ["repeated-run"]


def test_letters_and_days_count_up() -> None:
    head = "def buoy(code):\n    print(code)\n\n\n"
    assert 'for code in ["A", "B", "C", "D"]:' in worked(head + rows('buoy("{}")', *"ABCD")).replace(
        "code_value", "code"
    )
    days = head + rows('buoy("rain on {} night")', "monday", "tuesday", "wednesday", "thursday", "friday")
    after = worked(days)
    assert 'for day in ["monday", "tuesday", "wednesday", "thursday", "friday"]:' in after
    assert 'buoy(f"rain on {day} night")' in after
    assert run(after) == run(days)
    # Names in no order are a table.
    assert rules(head + rows('buoy("{}")', "A", "C", "B", "D")) == []


@pytest.mark.parametrize(
    ("names", "family"),
    [
        (("gate1", "gate2", "gate3"), Family("gate")),
        (("mon", "tue", "wed"), Family("", "days")),
        (("tuesday", "wednesday", "thursday"), Family("", "days")),
        (("rain_jan", "rain_feb", "rain_mar"), Family("rain", "months")),
        (("rainMon", "rainTue", "rainWed"), Family("rain", "days")),
        (("a", "b", "c"), Family("", "letters")),
        (("north_gate", "east_gate", "south_gate"), Family("gate", "directions")),
        (("mon", "wed", "fri"), None),
        (("moon", "tune", "weds"), None),
        (("north", "south"), None),
        (("ship", "shop", "shot"), None),
        (("width", "height", "depth"), None),
        (("gate1", "gate3", "gate5"), None),
        (("crab1X", "crab2X", "crab3X"), Family("crabX")),
        (("boat_1_time", "boat_2_time"), Family("boat_time")),
        (("crab1X", "crab1Y", "crab2X"), None),
        (("crab1X", "crab2Y"), None),
        (("crab2X", "crab1X"), None),
    ],
)
def test_what_counts_up(names: tuple[str, ...], family: Family | None) -> None:
    assert family_of(names) == family


def test_variables_of_a_series_become_one_list() -> None:
    text = (
        rows('{0} = float(input("rain on {0}: "))', "mon", "tue", "wed", "thu", "fri")
        + "print(mon + tue + wed + thu + fri)\n"
    )
    after = worked(text)
    assert "days = [0] * 5" in after
    assert after.count("input(") == 1
    unlike = rows('{0} = float(input("{0}: "))', "length", "width", "height", "weight", "price")
    assert rules(unlike + "print(length * width * height * weight * price)\n") == []
    three = rows('{0} = float(input("{0}: "))', "a", "b", "c") + "print(b * b - 4 * a * c)\n"
    assert rules(three) == []


def test_rows_in_rows_by_letter_and_number() -> None:
    text = (
        "seats = {}\n" + rows('seats["{}{}"] = "free"', *((y, x) for y in "ABC" for x in (1, 2, 3))) + "print(seats)\n"
    )
    after = worked(text)
    assert 'in ["A", "B", "C"]:' in after
    assert '}1"] = "free"' in after
    assert run(after) == run(text)


def test_up_and_down_again_are_two_rows() -> None:
    text = rows('print("{}")', *("*" * n for n in (1, 2, 3, 4, 5, 4, 3, 2, 1)))
    assert rules(text) == ["repeated-run", "repeated-run"]
    assert run(worked(text)) == run(text)
    assert len(worked(text).split("\n")) == 5


def test_an_interrupted_row_is_folded_in_parts() -> None:
    head = "def light(n):\n    print(n)\n\n\n"
    text = head + rows("light({})", 1, 2, 3) + 'print("half")\n' + rows("light({})", 4, 5, 6)
    found = report(text)
    assert [f.rule for f in found.findings] == ["repeated-run"]
    assert "behind an interruption" in found.findings[0].message
    after = worked(text)
    assert after.count("for ") == 2
    assert run(after) == run(text)
    # Two and two save nothing.
    assert rules(head + rows("light({})", 1, 2) + 'print("half")\n' + rows("light({})", 3, 4)) == []


def test_counters_that_begin_alike_become_one_list() -> None:
    tests = 'if letter == "{0}":\n        {0} += 1\n   '
    loop = "for letter in input():\n    " + " ".join(tests.format(v) for v in "aeo").rstrip()
    text = f"a = 0\ne = 0\no = 0\n{loop}\nprint(a, e, o)\n"
    after = worked(text)
    assert "counts = [0, 0, 0]" in after
    assert "counts[index] += 1" in after
    # What the tests ask differs, and so does what is counted.
    unlike = text.replace('letter == "e"', "letter in seen").replace('letter == "o"', "letter < limit")
    assert "repeated-run" not in rules(unlike)


def test_a_word_in_a_column_of_words_is_one_parameter() -> None:
    text = "".join(
        f'points = int(input("{name}: w/d/l "))\nif points > 2:\n    points = 2\nprint("{name} now has", points)\n'
        for name in ("Ana", "Ben", "Cy")
    )
    after = worked(text)
    assert 'input(f"{name}: w/d/l ")' in after
    assert 'print(f"{name} now has", points)' in after
    assert run(after, "1\n3\n2\n") == run(text, "1\n3\n2\n")


def test_twins_whose_lines_stand_in_another_order() -> None:
    rain = "def rain(values):\n    total = sum(values)\n    most = max(values)\n"
    wind = "def wind(values):\n    most = max(values)\n    total = sum(values)\n"
    said = '    print("{}")\n    print("total", total)\n    print("most", most)\n\n\n'
    text = rain + said.format("rain") + wind + said.format("wind") + "rain([1, 2])\nwind([3, 4])\n"
    found = report(text)
    assert [f.rule for f in found.findings] == ["twin-functions"]
    assert "once their lines are brought into one order" in found.findings[0].message
    after = worked(text)
    assert after.count("def ") == 1
    assert run(after) == run(text)
    # A line that uses up what the other one reads may not change places with it.
    used_up = text.replace("rain([1, 2])", "rain(iter([1, 2]))")
    assert worked(used_up).count("def ") == 2 or run(worked(used_up)) == run(used_up)
    # What is called for every value may show something.
    noisy = "def told(value):\n    print(value)\n    return value\n\n\n"
    calling = noisy + text.replace("max(values)", "max(values, key=told)").replace(
        "sum(values)", "min(values, key=told)"
    )
    assert run(worked(calling)) == run(calling)


@pytest.mark.parametrize("language", [x for x in sorted(HEADS) if x == "python" or can_run(x)])
def test_wild_rows_print_the_same(language: str, tmp_path: Path) -> None:
    groups = [(text, proved_in(text, language)[1]) for text in (WildRows(seed, language).text() for seed in range(30))]
    found = [group for group in groups if group[1]]
    assert len(found) > 6
    if language == "python":
        require_same(found, lambda texts: [printed(text) for text in texts])
    else:
        require_same(found, lambda texts: outputs(language, texts, tmp_path))


def test_what_goes_on_with_its_own_result_is_a_row() -> None:
    text = (
        'text = "samphire"\n'
        + rows('text = text.replace("{}", "{}")', *zip("aeis", "4315", strict=True))
        + "print(text)\n"
    )
    after = worked(text)
    assert 'for old, new in [("a", "4"), ("e", "3"), ("i", "1"), ("s", "5")]:' in after
    assert run(after) == run(text)


JOINED = {
    "javascript": ('console.log("{}: " + {});', 'console.log("{}" + "!");'),
    "java": ('System.out.println("{}: " + {});', 'System.out.println("{}" + "!");'),
    "csharp": ('System.Console.WriteLine("{}: " + {});', 'System.Console.WriteLine("{}" + "!");'),
    "cpp": ('std::cout << "{}: " << {} << std::endl;', 'std::cout << "{}" << std::endl;'),
    "python": ('print("{}: " + {})', 'print("{}" + "!")'),
    "swift": ('print("{}: " + {})', 'print("{}" + "!")'),
}


@pytest.mark.parametrize("language", sorted(JOINED))
def test_what_is_only_joined_to_a_text_is_prose(language: str) -> None:
    labelled, told = JOINED[language]
    lines = [labelled.format(x, x) for x in ("name", "town", "job", "mail", "boat")]
    lines += [told.format(x) for x in ("The mill stood", "Nobody came", "Then it was dark", "At six", "A bell rang")]
    body = "\n".join(lines)
    around = {
        "java": "class Main {\n    static void show(String name, String town, String job, String mail, String boat) {\n%s\n    }\n}\n",
        "csharp": "class P {\n    static void Main(string name, string town, string job, string mail, string boat) {\n%s\n    }\n}\n",
        "cpp": "#include <iostream>\nint main() {\nint name = 1, town = 2, job = 3, mail = 4, boat = 5;\n%s\nreturn 0;\n}\n",
    }
    found = report(around.get(language, "%s\n") % body, language=language).findings
    assert "repeated-run" not in [f.rule for f in found]


def test_a_sum_in_every_line_is_no_row() -> None:
    assert rules("print(3 + 4)\nprint(7 - 2)\nprint(6 * 3)\nprint(9 / 3)\nprint(7 + 12)\nprint(8 + 11)\n") == []
    # The same reckoning with another number each time is one.
    assert rules("".join(f"print({n} * 3.281)\n" for n in (2, 9, 4, 30, 11))) == ["repeated-run"]


CRABS = """{declare}crab1X = 20;
{declare}crab1Y = 40;
{declare}crab2X = 120;
{declare}crab2Y = 80;
{declare}crab3X = 220;
{declare}crab3Y = 120;

function draw() {{
{body}}}

for (let turn = 0; turn < 90; turn++) {{
  draw();
}}
"""
CRAB = """  console.log("crab", crab{0}X, crab{0}Y);
  crab{0}Y = crab{0}Y + {1};
  if (crab{0}Y > 200) {{
    crab{0}Y = 0;
    crab{0}X = (crab{0}X * 7) % 400;
  }}
"""


def test_a_number_between_words_makes_a_family_too(tmp_path: Path) -> None:
    text = CRABS.format(declare="let ", body="".join(CRAB.format(k, k + 1) for k in (1, 2, 3)))
    after = worked(text, "javascript")
    assert "const crabXs = [20, 120, 220];\nconst crabYs = [40, 80, 120];\n\nfunction draw" in after
    assert after.count("console.log") == 1
    if can_run("javascript"):
        before, rewritten = outputs("javascript", [text, after], tmp_path)
        assert before == rewritten
        assert before.count("crab") == 270


def test_so_it_is_in_python() -> None:
    form = "boat_{0}_time = 0\nfor leg in range(3):\n    boat_{0}_time += leg * {0} + 2\n    print('leg', leg, boat_{0}_time)\n"
    text = "".join(form.format(k) for k in (1, 2, 3)) + "print(boat_1_time + boat_2_time + boat_3_time)\n"
    after = worked(text)
    assert after.count("print('leg'") == 1
    assert printed(after) == printed(text)


LAMPS = """
const int RED = 4;
const int AMBER = 5;
const int GREEN = 6;

void loop() {
  digitalWrite(RED, HIGH);
  delay(3000);
  digitalWrite(RED, LOW);
  delay(200);
  digitalWrite(AMBER, HIGH);
  delay(800);
  digitalWrite(AMBER, LOW);
  delay(200);
  digitalWrite(GREEN, HIGH);
  delay(2500);
  digitalWrite(GREEN, LOW);
  delay(200);
}
"""


def test_what_goes_on_and_off_for_one_after_the_other_is_one_copy_each():
    (found,) = report(LAMPS, language="arduino").suggestions
    assert found.status == "proved"
    assert found.title == "A loop over pins, pauses in place of 3 copies"
    body = [line[1:].strip() for line in found.diff.splitlines() if line.startswith("+    ")]
    assert body == ["digitalWrite(pins[i], HIGH);", "delay(pauses[i]);", "digitalWrite(pins[i], LOW);", "delay(200);"]


def test_what_goes_on_and_off_without_anything_that_stays_is_as_many_copies():
    text = LAMPS.replace("AMBER, LOW", "7, LOW").replace("GREEN, LOW", "8, LOW")
    (found,) = report(text, language="arduino").suggestions
    assert found.title == "A loop over pins, states, pauses in place of 6 copies"


def test_rows_by_a_letter_and_names_over_a_ruler_are_runs_of_prints():
    rows = "".join(f'print("{a}1")\nprint("{a}2")\nprint("{a}3")\nprint("--")\n' for a in "ABC")
    after = worked(rows)
    assert after.startswith('for name in ["A", "B", "C"]:\n')
    assert run(after) == run(rows)
    names = "".join(f'print("{a}")\nprint("=====")\n' for a in ("north", "south", "east")) + 'print("west")\n'
    after = worked(names)
    assert (
        after
        == 'for direction in ["north", "south", "east"]:\n    print(direction)\n    print("=====")\nprint("west")\n'
    )
    prose = names.replace("north", "Count the crabs on the shore").replace("=====", "and then the shells")
    assert rules(prose) == []


PAGE = "".join(
    f"lines.append('<h2>{day}</h2>')\nlines.append('<p>High water at {time}.</p>')\nlines.append('<hr>')\n"
    for day, time in [("Monday", "06:10"), ("Tuesday", "06:55"), ("Wednesday", "07:40"), ("Thursday", "08:25")]
)


def test_texts_in_frames_of_their_own_are_rows_of_as_many() -> None:
    text = f"lines = []\n{PAGE}print(lines)\n"
    (run,) = repeats(text).runs
    assert len(run.table.copies[0].statements) == 3
    after = worked(text)
    assert "for day, time in [" in after
    assert printed(after) == printed(text)


@pytest.mark.parametrize(
    "odd",
    [
        PAGE.replace("'<hr>'", "'-'").replace("<h2>", "").replace("</h2>", ""),
        PAGE.rpartition("lines.append('<hr>')")[0],
    ],
)
def test_texts_that_do_not_come_round_are_single_rows(odd: str) -> None:
    text = f"lines = []\n{odd}print(lines)\n"
    assert all(len(run.table.copies[0].statements) == 1 for run in repeats(text).runs)
    assert printed(worked(text)) == printed(text)


PUPILS = [("Ama", 12, "Tern", [4, 5]), ("Ben", 11, "Eel", [3, 3]), ("Cleo", 13, "Tern", [5, 5])]


def records(form: str, pupils=PUPILS) -> str:
    return "pupils = {}\n" + "".join(form.format(*pupil) for pupil in pupils) + "print(pupils)\n"


RECORD = (
    "pupils['{0}'] = {{}}\npupils['{0}']['age'] = {1}\npupils['{0}']['boat'] = '{2}'\npupils['{0}']['marks'] = {3}\n"
)


def test_records_that_are_told_by_their_name_are_rows_of_a_table() -> None:
    text = records(RECORD)
    after = worked(text)
    assert "for pupil, age, boat, marks in [" in after
    assert printed(after) == printed(text)


def test_records_without_a_name_in_each_statement_differ_in_too_much() -> None:
    text = records(RECORD.replace("pupils['{0}']['age'] = {1}", "print('age', {1})"))
    assert not [run for run in repeats(text).runs if len(run.table.copies[0].statements) == 4]
    assert not repeats(records(RECORD, PUPILS[:2])).runs


def test_rows_of_which_the_last_is_another_thing_are_rows_without_it() -> None:
    shown = "".join(f"print('{k}:', n[{k}], 'of', round(n[{k}] / 7, 1))\n" for k in range(1, 6))
    text = f"n = [9, 1, 2, 3, 4, 5]\nrest = 6\n{shown}print('6:', rest, 'of', round(rest / 7, 1))\n"
    (run,) = repeats(text).runs
    assert len(run.table.copies) == 5
    assert printed(worked(text)) == printed(text)
    assert worked(text).count("print(") == 2


@pytest.mark.parametrize(("shown", "told"), [("n['{0}']", True), ("n['{0}'] + 1", True), ("{1}", False)])
def test_what_is_found_by_the_name_that_is_shown_is_no_prose(shown: str, told: bool) -> None:
    rows = zip("tea milk cake scone jam".split(), (3, 8, 2, 9, 4), strict=True)
    lines = "".join(f"print('{name}', {shown.format(name, number)})\n" for name, number in rows)
    text = f"n = {{'tea': 3, 'milk': 8, 'cake': 2, 'scone': 9, 'jam': 4}}\n{lines}"
    assert bool(repeats(text).runs) is told
    assert printed(worked(text)) == printed(text)
