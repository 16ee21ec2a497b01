"""What has something in common and is no copy: how places begin, lines word for word, all but one statement."""

from __future__ import annotations

import pytest
from builders import report, rules

TIMES = """
table = {{}}
while True:
    what = input("book, free or look? ")
    if what == "book":
        day = input("Day: ")
        hour = input("Hour: ")
        if day not in "MTWF" or hour not in "123":
            print("{first}")
        elif day + hour in table:
            print("Taken.")
        else:
            table[day + hour] = input("Name: ")
    elif what == "free":
        day = input("Day: ")
        hour = input("Hour: ")
        if day not in "MTWF" or hour not in "123":
            print("No such time.")
        else:
            table.pop(day + hour)
    elif what == "look":
        d = input("Which day? ")
        h = input("Which hour? ")
        if d not in "MTWF" or h not in "123":
            print("No such time.")
        elif d + h not in table:
            print("Nobody.")
            print("It is free.")
        else:
            print(table[d + h])
    else:
        break
"""


def told(text: str, rule: str) -> list[str]:
    """The messages of a rule's findings."""
    return [f.message for f in report(text).findings if f.rule == rule]


def test_three_places_that_ask_and_refuse_alike_are_told_up_to_where_they_part():
    (finding,) = [f for f in report(TIMES.format(first="No such time.")).findings if f.rule == "repeated-block"]
    assert finding.message == "These three places begin alike, with four statements up to what each does of its own."
    assert [(p.start_line, p.end_line) for p in finding.places] == [(5, 8), (14, 17), (21, 24)]


def test_two_places_that_begin_alike_are_too_few_for_four_statements():
    assert told(TIMES.format(first="Not a time of ours!"), "repeated-block") == []


LOOKED_FOR = """
def lend():
    title = input("Which book? ")
    found = False
    for book in books:
        if book[0] == title:
            found = True
            if book[1]:
                book[1] = False
                who = input("To whom? ")
                loans.append([title, who])
            else:
                print("That book is out.")
    if not found:
        print("There is no such book.")


def give_back():
    title = input("Which book? ")
    found = False
    for book in books:
        if book[0] == title:
            found = True
            for loan in loans:
                if loan[0] == title:
                    loans.remove(loan)
            print(title, "is back")
    if not found:
        print("There is no such book.")


books = [["Tides", True]]
loans = []
lend()
give_back()
"""


def test_functions_with_many_lines_word_for_word_have_something_in_common():
    (finding,) = [f for f in report(LOOKED_FOR).findings if f.rule == "twin-functions"]
    assert finding.message == "lend and give_back have seven lines in common, word for word."
    (suggestion,) = [s for s in report(LOOKED_FOR).suggestions if s.id == finding.suggestion]
    assert (suggestion.status, suggestion.kind) == ("outline", "function")


def test_functions_with_as_many_lines_that_are_only_similar_have_not():
    assert told(LOOKED_FOR.replace("found", "there", 4), "twin-functions") == []


TRIES = """
users = {"ada": "shell"}
tries = 0
ok = False
while tries < 3 and not ok:
    name = input("User: ")
    if name in users:
        ok = True
    else:
        tries = tries + 1
        print("Unknown user,", 3 - tries, "left")
if not ok:
    print("Locked")
else:
    tries = 0
    ok = False
    while tries < 3 and not ok:
        word = input("Password: ")
        if word == users[name]:
            ok = True
        else:
            tries = tries + 1
            print("Wrong password,", 3 - tries, "left")
    if not ok:
        print("Locked")
    else:
        print("Welcome")
"""


def test_loops_with_one_head_are_near_copies_with_what_stands_around_both():
    (finding,) = [f for f in report(TRIES).findings if f.rule == "repeated-block"]
    assert [(p.start_line, p.end_line) for p in finding.places] == [(2, 10), (14, 22)]


def test_loops_with_one_head_that_do_something_else_are_none():
    other = TRIES.replace(
        "            ok = True\n        else:\n            tries = tries + 1\n", "            print(1)\n", 1
    )
    other = other.replace('print("Wrong password,", 3 - tries, "left")', "break")
    assert told(other, "repeated-block") == []


GROUPS = """
from collections import defaultdict

rows = [line.split() for line in open("tides.txt")]
{0}
by_{1} = defaultdict(list)
for row in rows:
    key = row[{2}]
    by_{1}[key].append(float(row[3]))
print("High tide by {1}")
for key in sorted(by_{1}):
    values = by_{1}[key]
    print(key, min(values), max(values), sum(values) / len(values))
{0}
by_moon = defaultdict(list)
for row in rows:
    key = row[2]
    by_moon[key].append(float(row[3]))
print("High tide by moon")
for key in sorted(by_moon):
    values = by_moon[key]
    print(key, min(values), max(values), sum(values) / len(values))
"""
MONTHS = """
by_month = defaultdict(list)
for row in rows:
    key = row[0][5:7]
    by_month[key].append(float(row[3]))
print("High tide by month")
for key in sorted(by_month):
    values = by_month[key]
    print(key, min(values), max(values), sum(values) / len(values))
"""


def test_a_third_place_that_is_a_copy_but_for_one_statement_is_told_with_the_two():
    text = GROUPS.format("", "harbour", 1).replace("\n\nby_harbour", MONTHS + "\nby_harbour")
    (message,) = told(text, "repeated-block")
    more = " Lines 4 to 11 are the same but for one statement."
    assert message.startswith("These eight statements stand in two places;")
    assert message.endswith(more)
    assert "but for" not in told(GROUPS.format("", "harbour", 1), "repeated-block")[0]


TARIFFS = """
def electricity(units):
    if units <= 100:
        cost = units * 0.20
    elif units <= 300:
        cost = 100 * 0.20 + (units - 100) * 0.25
    else:
        cost = 100 * 0.20 + 200 * 0.25 + (units - 300) * 0.31
    return round(cost * 1.19, 2)


def water(units):
    if units <= 50:
        cost = units * 1.10
    elif units <= 120:
        cost = 50 * 1.10 + (units - 50) * 1.40
    else:
        cost = 50 * 1.10 + 70 * 1.40 + (units - 120) * 2.05
    return round(cost * 1.07, 2)


print(electricity(250), water(90))
"""


def test_functions_that_differ_in_more_numbers_than_parameters_are_one_over_a_table():
    (finding,) = [f for f in report(TARIFFS).findings if f.rule == "twin-functions"]
    assert finding.message == "electricity and water are alike; they differ in seven things."
    (suggestion,) = report(TARIFFS).suggestions
    assert suggestion.outline.startswith("Keep one of the functions, and give it what differs as one list")


def test_drawings_with_other_numbers_are_not_one():
    draw = "def {0}():\n    go({1})\n    turn({2})\n    go({3})\n    turn({4})\n    go({5})\n    turn({6})\n    go({1})\n\n\n"
    text = draw.format("hull", *range(10, 16)) + draw.format("sail", *range(31, 90, 11)) + "hull()\nsail()\n"
    assert "twin-functions" not in rules(text)


@pytest.mark.parametrize(("shown", "expected"), [("round(100 * {0} / n, 1)", True), ("{1}", False)])
def test_a_row_of_labels_beside_what_is_made_of_their_values_is_a_run(shown, expected):
    names = ("letters", "digits", "spaces", "others")
    text = "".join(f"{name} = int(input())\n" for name in names) + "n = 40\n"
    for k, name in enumerate(names):
        text += f'print("{name.capitalize()}:", {name}, "=", {shown.format(name, "n" * (k + 1))}, "%")\n'
    text += "".join(f"{'n' * k} = {k}\n" for k in (2, 3, 4))
    assert ("repeated-run" in rules(text)) is expected


SAME = 'if grid[row][column] == "o":\n    points += 1\n    grid[row][column] = " "\n'


@pytest.mark.parametrize(("places", "expected"), [(4, True), (3, False)])
def test_one_short_test_is_a_block_where_it_is_the_very_same_in_four_places(places, expected):
    text = "row = column = points = 0\ngrid = [list('.o.o') for k in range(9)]\n"
    steps = ("row += 1", "print('left')\ncolumn = row * 3", "print('up', row)\nrow = abs(row)", "column = 4")
    text += "".join(f"{step}\n{SAME}" for step in steps[:places])
    assert ("repeated-block" in rules(text + "row = points // 2\n")) is expected


MENU = """
names = []
while True:
    what = input("f or d? ")
    if what == "f":
        name = input("Name: ")
        found = False
        for k in range(len(names)):
            if names[k] == name:
                print(k, names[k])
                found = True
        if not found:
            print("Nobody is called", name)
    elif what == "d":
        name = input("Name: ")
        found = False
        for k in range(len(names) - 1, -1, -1):
            if names[k] == name:
                del names[k]
                del marks[k]
                found = True
        if not found:
            print("Nobody is called", name)
"""


def test_branches_with_many_lines_word_for_word_have_something_in_common():
    assert told(MENU, "repeated-block") == ["Six statements stand in two places word for word, with others in between."]
    assert told(MENU.replace("found", "there", 3), "repeated-block") == []


INBOX = """
inbox = [("Ada", "Hi"), ("Bo", "Rent"), ("Ada", "Lunch?")]
print("All messages")
n = 0
for sender, text in inbox:
    n += 1
    print(n, sender + ": " + text)
print(n, "messages")
print("From Ada")
n = 0
for sender, text in inbox:
    if sender == "Ada":
        n += 1
        print(n, sender + ": " + text)
print(n, "messages")
"""


def test_the_same_under_one_test_more_is_nearly_the_same():
    (finding,) = [f for f in report(INBOX).findings if f.rule == "repeated-block"]
    assert finding.message == "These six statements stand in two places, alike but for one line."


LIFT = """
def go(floor, target):
    if target > floor:
        while floor < target:
            floor += 1
            print("floor", floor)
        print("doors open")
        {0}
    elif target < floor:
        while floor > target:
            floor -= 1
            print("floor", floor)
        print("doors open")
        {1}
    return floor


print(go(go(0, 3), 1))
"""


@pytest.mark.parametrize(
    ("last", "expected"),
    [(['print("doors close")', 'print("doors close")'], True), (['print("up")', "floor = target"], False)],
)
def test_branches_that_do_the_same_up_and_down_are_nearly_the_same(last, expected):
    assert ("repeated-block" in rules(LIFT.format(*last))) is expected


VOTES = """
{0} = 0
{1} = 0
{2} = 0
for vote in open("votes.txt").read().split():
    if vote == "A":
        {0} = {0} + 1
    elif vote == "B":
        {1} = {1} + 1
    elif vote == "C":
        {2} = {2} + 1
valid = {0} + {1} + {2}
print("Anna :", {0}, "votes,", {3})
print("Bela :", {1}, "votes,", {4})
print("Cora :", {2}, "votes,", {5})
"""
SHARES = ("round(anna / valid * 100)", "round(bela / valid * 100)", "round(cora / valid * 100)")


def test_variables_that_stand_in_row_after_row_are_one_list_in_pieces():
    (finding,) = [f for f in report(VOTES.format("anna", "bela", "cora", *SHARES)).findings if f.rule == "repeated-run"]
    assert finding.message == "anna, bela and cora are used alike in three rows of statements."
    assert [(p.start_line, p.end_line) for p in finding.places] == [(1, 3), (6, 10), (12, 14)]
    assert [s.name for s in finding.slots] == ["anna", "bela", "cora"]
    assert finding.slots[1].values[:2] == ("bela = 0", "bela = bela + 1")


@pytest.mark.parametrize(
    ("text", "why"),
    [
        (VOTES.format("a", "b", "c", 1, 2, 3), "letters"),
        (
            VOTES.format("anna", "bela", "cora", *SHARES[:2], "valid").replace("cora = cora", "cora = 2"),
            "two rows only",
        ),
        (
            'name = input("Name: ")\ntown = input("Town: ")\nboat = input("Boat: ")\nname = name.strip()\n'
            'town = town.strip()\nboat = boat.strip()\nprint("Name", name)\nprint("Town", town)\nprint("Boat", boat)\n',
            "nothing is reckoned",
        ),
    ],
)
def test_variables_that_only_stand_beside_each_other_are_not(text, why):
    assert not [message for message in told(text, "repeated-run") if "used alike" in message], why
