"""Names where the first one is in use, and for what the surroundings tell more of."""

from __future__ import annotations

import pytest
from builders import printed, report, run, worked

from partitor.suggestions.words import tells_what_to_do

PLAY = """
def show(board):
    print(board)


board = ["x", "o"]
for turn in range(2):
    if turn == 0:
        place = len(input("X, your move: "))
        while place > 1:
            print("That is not possible.")
            place = len(input("X, your move: "))
        board[place] = "X"
        print("X moves to", place)
    else:
        place = len(input("O, your move: "))
        while place > 1:
            print("That is not possible.")
            place = len(input("O, your move: "))
        board[place] = "O"
        print("O moves to", place)
    show(board)
"""


def test_a_letter_in_a_text_is_the_one_beside_it() -> None:
    after = worked(PLAY)
    assert after.count('"X"') == after.count('"O"') == 1
    assert 'f"{name}, your move: "' in after
    assert run(after, "a\n\n") == run(PLAY, "a\n\n")


def test_a_letter_inside_a_word_is_none() -> None:
    text = PLAY.replace("X moves to", "Xylo to").replace("O moves to", "Oylo to")
    after = worked(text)
    assert "ylo to" not in after.replace("Xylo to", "").replace("Oylo to", "")
    assert run(after, "a\n\n") == run(text, "a\n\n")


ASK = """
score = 0
print("Question {0}")
answer = input("{1} ").lower()
if answer == "{2}":
    print("Correct!")
    score += 1
else:
    print("Wrong, it is {2}")
"""
QUIZ = "".join(
    ASK.format(k, question, answer).replace("score = 0\n", "" if k > 1 else "score = 0\n")
    + f"print({k} * '-', score)\n\n"
    for k, question, answer in [(1, "What swims?", "b"), (2, "What flies?", "a"), (4, "What digs?", "worm")]
)


def test_what_an_answer_has_to_be_is_the_right_answer() -> None:
    after = worked(QUIZ)
    assert "if answer == right_answer:" in after
    assert "Wrong, it is {right_answer}" in after
    assert run(after, "b\nb\nworm\n") == run(QUIZ, "b\nb\nworm\n")


PAUSES = """
def low(level):
    print("The tide is low.")
    print("The boats lie dry.")
    level = level - 1
    print("It stands at", level)
    input("Press enter")
    return level


level = 4
if input() == "a":
    print("Rain is coming.")
    print("The boats are wet.")
    level = level - 2
    print("It stands at", level)
    input("Press enter")
else:
    print("Frost is coming.")
    print("The boats are white.")
    level = level - 3
    print("It stands at", level)
    input("Press enter")
print(level)
"""


def test_to_wait_for_a_key_is_not_to_read() -> None:
    after = worked(PAUSES)
    assert "read_" not in after
    assert run(after, "a\n\n") == run(PAUSES, "a\n\n")


TIGHT = """
format = "partitor-assignment"
version = 1
title = "T"
language = "python"
[limits]
procedure_statements = 8
"""
STORE = """
def print_money(name):
    print(name)
    print("You have no money")


def main():
    money = len("abc")
    if money > 1:
        print("rich")
        print_money("Ada")

    print("=============")
    print("The race is over")
    print("The money is counted")
    print("You go home with", money, "coins, and money is money")

    for crab in range(3):
        print("crab", crab)
        if crab == 1:
            print("one")
        elif crab == 2:
            print("two")
        print("so", crab)
        if crab == 3:
            print("three")
        elif crab == 4:
            print("four")
        print("crabs done")


main()
"""


def test_a_second_name_is_another_word_and_no_number() -> None:
    (answer,) = report(STORE, TIGHT).worked_answer.files.values()
    assert "def print_race(money):" in answer
    assert "print_money2" not in answer
    assert printed(answer) == printed(STORE)


@pytest.mark.parametrize(
    ("names", "told"),
    [
        (["level1", "level2", "level3", "level4"], "level"),
        (["may", "june", "july", "august"], "month"),
        (["ebb_mon", "ebb_tue", "ebb_wed", "ebb_thu"], "ebb"),
    ],
)
def test_one_of_several_variables_is_called_what_they_are(names, told) -> None:
    text = "".join(f"{name} = {k}\n" for k, name in enumerate(names))
    text += "most = 0\n" + "".join(f"if {name} > most:\n    most = {name}\n" for name in names) + "print(most)\n"
    after = worked(text)
    assert f"for {told} in [{names[0]}, " in after
    assert printed(after) == printed(text)


def test_a_day_that_is_named_is_not_what_belongs_to_it() -> None:
    days = ["monday", "tuesday", "wednesday", "thursday"]
    text = "".join(f"{day} = {k * k}\n" for k, day in enumerate(days))
    text += "".join(f'print("{day.title()}", {day}, "cm")\nif {day} > 2:\n    print("mind the gate")\n' for day in days)
    after = worked(text)
    assert "for day, value in [\n" in after
    assert printed(after) == printed(text)


def test_a_parameter_in_one_copy_gives_its_name_to_the_others() -> None:
    draw = "t.penup()\nt.goto({0}, {1})\nt.pendown()\nt.color({2})\nt.{3}(9)\n"
    text = "import turtle\nt = turtle.Turtle()\n\n\n"
    first = draw.format("x", "y", "shade", "forward")
    text += "def line(x, y, shade):\n" + "".join(f"    {row}\n" for row in first.splitlines()) + "    t.left(4)\n\n\n"
    text += 'line(1, 2, "red")\n' + draw.format(5, 6, '"blue"', "circle") + draw.format(8, 7, '"gray"', "dot")
    titles = [s.title for s in report(text).suggestions]
    assert any("(x, y, shade), called in 3 places" in title for title in titles), titles


STEPS = """
    def main():
        # {0}
        course = []
        for k in range(20):
            if k % 3 == 0:
                course.append("rock")
            elif k % 5 == 0:
                course.append("puddle")
            else:
                course.append("mud")
        # {1}
        speed = 5
        bumps = 0
        while speed > 0:
            if course[speed] == "rock":
                speed -= 2
                bumps += 1
                print("Bump!")
            else:
                speed -= 1
        # {2}
        score = 100 - bumps * 5
        if score > 80:
            verdict = "superb"
        elif score > 40:
            verdict = "good"
        else:
            verdict = "muddy"
        print("You are", verdict)
        print("You have", score)


    main()
"""


def test_a_comment_that_tells_what_to_do_names_a_step() -> None:
    after = worked(STEPS.format("dig the course", "slide down it", "how good was it"))
    assert "def dig_course():" in after
    assert "def slide(" in after
    assert "print_good" not in after


@pytest.mark.parametrize("comment", ["second the course", "red the flags", "clouds the first", "digging the course"])
def test_not_every_word_before_an_article_is_a_verb(comment) -> None:
    assert not tells_what_to_do(comment)


def test_what_is_only_shown_in_one_case_is_no_printing() -> None:
    body = "{0} = {1}\nif {0} > 5:\n    {0} = {0} - 1\n    print('one less')\nif {0} > 100:\n    print('many', {0})\n"
    text = "a = 3\nb = 80\nc = 200\n" + "".join(body.format(f"{n}_price", f"{n} * 2 + 4") for n in "abc")
    text += "print(a_price + b_price + c_price)\n"
    assert "def find_price(" in worked(text) or "def update_price(" in worked(text)


def test_bounds_below_nothing_are_bounds_too() -> None:
    body = """
    {0} = float(input("{1}"))
    if {0} < {2} or {0} > {3}:
        print("That cannot be right.")
        {0} = 0
    print("Noted", {0})
    """
    parts = [("water", "Water? ", -2, 35), ("air", "Air? ", -30, 45), ("wind", "Wind? ", 0, 60)]
    text = "".join(body.format(*part) for part in parts) + "    print(water + air + wind)\n"
    assert "(prompt, lowest, highest)" in worked(text)


def test_what_is_asked_for_in_all_copies_is_what_is_read() -> None:
    body = """
    {0} = int(input("{1} mark: "))
    while {0} < 0 or {0} > 100:
        print("From 0 to 100, please")
        {0} = int(input("{1} mark: "))
    """
    text = "".join(body.format(*part) for part in [("a", "Maths"), ("b", "Art"), ("c", "History")])
    assert "def read_mark(" in worked(text + "print(a, b, c)\n")
    assert "def read_number(" in worked(text.replace(" mark", "") + "print(a, b, c)\n")


def test_what_draws_lots_picks() -> None:
    body = """
    roll = random.randint(1, 3)
    if roll == 1:
        {0} = "cherry"
    elif roll == 2:
        {0} = "bell"
    else:
        {0} = "star"
    """
    text = "    import random\n" + "".join(body.format(name) for name in ("first", "second", "third"))
    assert "def pick_value():" in worked(text + "print(first, second, third)\n")
