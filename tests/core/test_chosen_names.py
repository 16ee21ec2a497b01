"""Names for what is done in a branch: what somebody types for it, or what a menu says beside its number."""

from __future__ import annotations

import pytest
from builders import printed, read, report, run, worked

from partitor.repeats.slots import Copy
from partitor.suggestions.menus import asked_for, chosen_words

BRANCHES = """
what = input("buy, sell or list? ")
if what == "buy":
    stock = stock + 1
    print("bought")
elif what == "north" or what == "n":
    row = row - 1
    print(row)
elif what == "4":
    print("gone")
    stock = 0
elif what != "sell":
    print("what?")
    stock = 1
else:
    print("sold")
    stock = 2
"""


def words(text: str, first: str, language: str = "python") -> list[str]:
    """The words for the branch of which the first statement is `first`."""
    program = read(text, language)
    block = next(b for b in program.blocks if b.statements and program.tree.source_of(b.statements[0]) == first)
    return chosen_words(Copy(program, tuple(block.statements)))


@pytest.mark.parametrize(
    ("first", "expected"),
    [
        ("stock = stock + 1", ["buy"]),
        ("row = row - 1", ["go", "north"]),
        ('print("gone")', []),
        ('print("what?")', []),
        ('print("sold")', []),
    ],
)
def test_a_branch_is_called_by_the_word_that_chooses_it(first, expected):
    assert words(BRANCHES, first) == expected


@pytest.mark.parametrize(
    "menu",
    [
        'print("1. Add a boat")\nprint("4. Remove boats")\n',
        'print("1) Add boat\\n4) Remove boats")\n',
        'what = input("1 add boat, 4 remove boats: ")\n',
        'print("[1] Adding a boat", "[4] removes boats")\n',
    ],
)
def test_a_number_is_called_by_what_the_menu_says_beside_it(menu):
    assert words(menu + BRANCHES, 'print("gone")') == ["remove", "boats"]


def test_a_number_that_stands_beside_several_things_tells_nothing():
    menus = 'print("1 add")\nprint("4 remove boats")\nprint("4 lend boats")\n'
    assert words(menus + BRANCHES, 'print("gone")') == []


def test_small_words_of_a_menu_stay_and_what_says_nothing_is_no_entry():
    menu = 'print("1 - Check in")\nprint("4 - Check out the guest")\nprint("Rooms 1 to 4 only.")\n'
    assert words(menu + BRANCHES, 'print("gone")') == ["check", "out", "guest"]


def test_a_single_number_in_a_text_is_no_menu():
    assert words('print("4 boats")\n' + BRANCHES, 'print("gone")') == []


def test_a_small_part_of_a_branch_is_not_called_by_it():
    program = read('if what == "sell":\n    a = 1\n    b = 2\n    print(a)\n    print(b)\n', "python")
    block = next(b for b in program.blocks if len(b.statements) == 4)
    assert chosen_words(Copy(program, tuple(block.statements[:2]))) == []
    assert chosen_words(Copy(program, tuple(block.statements[:3]))) == ["sell"]


def test_cases_of_a_switch_are_called_by_theirs():
    text = 'switch (what) { case "lend": boats = boats - 1; console.log(boats); break; default: boats = 0; }'
    assert words(text, "boats = boats - 1", "javascript") == ["lend"]


DAYS = """
def main():
    shells = 20
    seeds = 0
    grown = 0
    day = 1
    while day <= 7:
        print("Day", day)
        what = input("buy, sow or sell? ")
        if what == "buy":
            count = int(input("How many? "))
            if count <= shells:
                shells -= count
                seeds += count
                print("bought", count)
            else:
                print("Too dear")
        elif what == "sow":
            count = int(input("How many? "))
            while count > seeds:
                print("Not so many")
                count = int(input("How many? "))
            seeds -= count
            grown += 2 * count
        elif what == "sell":
            print("Sold", grown)
            shells += 2 * grown
            grown = 0
            print("You have", shells)
            print("Well done")
        day += 1
    print("In the end", shells)


main()
"""


def test_steps_of_branches_are_called_by_them_and_what_is_left_stays():
    titles = [step.title for step in report(DAYS).worked_answer.steps]
    names = [title.removeprefix("A function ").partition("(")[0] for title in titles]
    assert names == ["buy", "sow"]


def test_what_only_changes_variables_is_an_update_and_of_places_a_move():
    changes = (
        "{0}.{1} += {0}.speed\nif {0}.{1} > 100:\n    {0}.{1} = 0\n    {0}.speed = -{0}.speed\n    {0}.turns += 1\n"
    )
    for field, name in (("x", "move_one"), ("level", "update_one")):
        text = "from flock import tern, gull\n\n"
        text += changes.format("tern", field) + 'print("next")\n' + changes.format("gull", field)
        (suggestion,) = report(text).suggestions
        assert suggestion.title.startswith(f"A function {name}("), suggestion.title


def test_a_result_that_the_program_calls_so_elsewhere_is_this_one():
    site = 'site{0} = input("Name of site {0}: ")\n'
    site += 'gulls{0} = int(input("Gulls at " + site{0} + ": "))\nterns{0} = int(input("Terns at " + site{0} + ": "))\n'
    site += 'print("Thank you,", site{0})\nprint(gulls{0} + terns{0}, "birds")\n'
    text = "".join(site.format(k) for k in (1, 2, 3))
    text += "gulls = gulls1 + gulls2 + gulls3\nterns = terns1 + terns2 + terns3\nprint(gulls, terns)\n"
    assert "    return this_gulls, this_terns\n" in worked(text)


ASKED = """
for turn in range(30):
    print(row, column)
    key = input("w, s or q: ")
    if key == "w":
        if row > 0 and grid[row - 1][column] != "#":
            row -= 1
        else:
            print("Bump")
    elif key == "s":
        if row < 8 and grid[row + 1][column] != "#":
            row += 1
        else:
            print("Bump")
    {branch}:
        print("Stay")
"""


@pytest.mark.parametrize(
    ("branch", "expected"),
    [('elif key == "x"', "key"), ("elif row == 1", ""), ("elif key not in row", ""), ("else", "key")],
)
def test_what_is_asked_for_and_chosen_by_is_handled(branch, expected):
    program = read(ASKED.format(branch=branch), "python")
    block = next(b for b in program.blocks if len(b.statements) == 3)
    assert asked_for(Copy(program, tuple(block.statements[1:]))) == expected
    assert asked_for(Copy(program, tuple(block.statements[:2]))) == ""


FOUND = 'if grid[row][column] == "o":\n    points += 1\n    grid[row][column] = " "\n'


def test_a_function_that_gives_back_what_it_was_given_updates_it():
    text = "row = 2\ncolumn = 3\npoints = 0\ngrid = [list('.o.o') for k in range(9)]\n"
    text += "".join(f"{move}\n{FOUND}" for move in ("row += 1", "column -= 1", "row -= 1", "column += 1"))
    (suggestion,) = report(text + "print(points)\n").suggestions
    assert suggestion.title == "A function update_points(row, column, points), called in 4 places"


def test_a_counter_counts_from_where_the_rest_is_simplest() -> None:
    rows = "".join(
        f'print("-" * {4 * k})\nfor line in range({k + 1}):\n    print(" " * {4 * k})\nprint("=" * {4 * k})\n'
        for k in (1, 2, 3)
    )
    after = worked(rows)
    assert "in range(1, 4):\n" in after
    assert '    print("-" * (4 * i))\n    for line in range(i + 1):\n' in after
    assert run(after) == run(rows)


BALLS = """import random
x1, y1, dx1, dy1 = 50, 60, 3, 2
x2, y2, dx2, dy2 = 90, 20, -2, 4
x3, y3, dx3, dy3 = 10, 30, 5, -1
for turn in range(60):
{0}print(x1, y1, x2, y2, x3, y3)
"""


def test_what_moves_is_called_by_its_place() -> None:
    ball = (
        "    x{0} += dx{0}\n    y{0} += dy{0}\n    if x{0} < 0 or x{0} > 99:\n        dx{0} = -dx{0}\n"
        '    if y{0} < 0 or y{0} > 99:\n        dy{0} = -dy{0}\n    print("{1}", x{0}, y{0})\n'
    )
    text = BALLS.format("".join(ball.format(k, color) for k, color in ((1, "red"), (2, "green"), (3, "blue"))))
    after = worked(text)
    assert "def move_one(x, dx, y, dy, color):\n" in after
    assert "    return x, dx, y, dy\n" in after
    assert run(after) == run(text)


def test_a_field_is_no_name_that_is_taken() -> None:
    made = "".join(
        f'    strcpy({v}.name, "{name}");\n    {v}.length = {length};\n    {v}.crew = {crew};\n'
        f'    printf("%s: %d metres, %d crew\\n", {v}.name, {v}.length, {v}.crew);\n'
        for v, name, length, crew in (("a", "Tern", 8, 3), ("b", "Gull", 12, 5), ("c", "Heron", 6, 2))
    )
    head = "#include <stdio.h>\n#include <string.h>\n\nstruct Boat {\n    char name[20];\n    int length;\n    int crew;\n};\n\n"
    after = worked(
        f"{head}int main(void) {{\n    struct Boat a, b, c;\n{made}    return a.crew + b.crew + c.crew;\n}}\n", "c"
    )
    assert "int length, int crew) {\n" in after


def test_a_counter_is_not_called_after_what_is_taken() -> None:
    text = "".join(
        f'var e{k} = instance_create_layer({64 * k}, 32, "Enemies", obj_crab);\ne{k}.speed = {k + 1};\ne{k}.direction = 90;\n'
        for k in (1, 2, 3, 4)
    )
    assert "for (var i = " in worked(text, "gamescript")


@pytest.mark.parametrize(
    ("texts", "name"),
    [
        (("6:10", "12:30", "18:40"), "time"),
        (("o", "x", "o"), "name"),
        (("~", "-", "x"), "sign"),
        (("Ebb", "x", "y"), "name"),
    ],
)
def test_times_and_signs_are_called_what_they_are(texts: tuple[str, ...], name: str) -> None:
    text = "".join(f'print("{value}".rjust(6))\nprint("=" * 6)\nprint()\n' for value in texts)
    assert f"for {name} in [" in worked(text)


GRADES = """
def list_good(marks):
    found = []
    for name in marks:
        good = 0
        for mark in marks[name]:
            if mark in ("A", "B"):
                good += 1
        if good >= 2:
            found.append(name)
    print("Good:", found)


def list_weak(marks):
    found = []
    for name in marks:
        weak = 0
        for mark in marks[name]:
            if mark in ("D", "E", "F"):
                weak += 1
        if weak >= 2:
            found.append(name)
    print("Weak:", found)


list_good({"Ada": ["A", "B", "F"]})
list_weak({"Ada": ["A", "B", "F"]})
"""


def test_what_counts_in_twins_is_a_count_and_what_is_asked_for_is_wanted() -> None:
    after = worked(GRADES)
    assert printed(after) == printed(GRADES)
    assert "        count = 0\n" in after
    assert "(marks, wanted, label):" in after


def test_what_adds_up_under_a_built_in_s_name_is_a_total() -> None:
    block = "sum_{0} = 0\nfor value in {0}:\n    sum_{0} += value * 2\n    print(value)\nprint('sum', sum_{0})\n"
    text = "hours = [1, 2]\nparts = [4, 5]\ntrips = [6]\n"
    text += "".join(f"print({k})\n{block.format(name)}" for k, name in enumerate(("hours", "parts", "trips")))
    text += "print(sum_hours + sum_parts + sum_trips)\n"
    after = worked(text)
    assert "    total = 0\n" in after
    assert printed(after) == printed(text)
