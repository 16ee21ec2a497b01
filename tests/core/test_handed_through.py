"""What stays beside a call: what a variable is given that has nothing to do with the copies, and what was chosen."""

from __future__ import annotations

import pytest

from core.builders import printed, repeats, run, worked

GAME = """\
place1 = 0
place2 = 0
snakes = {{17: 4, 4: 1}}
ladders = {{3: 5, 7: 9}}
turn = 1
for roll in [3, 4, 1, 5, 6, 17]:
    if turn == 1:
        print("Player 1 rolls", roll)
        place1 += roll
        if place1 in snakes:
            place1 = snakes[place1]
        if place1 in ladders:
            place1 = ladders[place1]
        print("Player 1 is on", place1)
        turn = {0}
    else:
        print("Player 2 rolls", roll)
        place2 += roll
        if place2 in snakes:
            place2 = snakes[place2]
        if place2 in ladders:
            place2 = ladders[place2]
        print("Player 2 is on", place2)
        turn = {1}
print(place1, place2, turn)
"""


def test_what_has_nothing_to_do_with_the_copies_is_not_handed_through() -> None:
    text = GAME.format(2, 1)
    after = worked(text)
    assert "place1 = update_place(1, roll, place1)\n        turn = 2\n" in after
    assert printed(after) == printed(text)


@pytest.mark.parametrize(
    ("first", "second"), [("len(snakes)", "roll - 4"), ("turn + 1", "turn + 2"), ("place1", "place2"), ("1", "1")]
)
def test_what_is_worked_out_may_be_part_of_them(first: str, second: str) -> None:
    text = GAME.format(first, second)
    assert printed(worked(text)) == printed(text)
    (block,) = repeats(text).blocks
    assert len(block.table.copies[0].statements) == (5 if first == "len(snakes)" else 6)


CHOSEN = """\
def main():
    choice = ""
    while choice != "q":
        choice = input("> ")
        {0}
            value = float(input("How many km? "))
            if value < 0:
                print("Only positive amounts.")
            else:
                print(value, "km are", round(value * 0.621, 2), "miles")
        {1}
            value = float(input("How many kg? "))
            if value < 0:
                print("Only positive amounts.")
            else:
                print(value, "kg are", round(value * 2.205, 2), "pounds")


main()
"""
TYPED = "a\n3\nb\n-2\nb\n4\nq\n"


def test_what_was_chosen_is_read_where_the_function_is_called() -> None:
    text = CHOSEN.format('if choice == "a":', 'if choice == "b":')
    after = worked(text)
    assert '        if choice == "a":\n            print_value("km", 0.621, "miles")\n' in after
    assert run(after, TYPED) == run(text, TYPED)


@pytest.mark.parametrize(
    ("first", "second"),
    [
        ('if choice == "a" and value > 0:', 'if choice == "b" and value > 0:'),
        ("if len(choice) > 1:", "if len(choice) > 2:"),
        ('if choice in "ac":', 'if choice in "bd":'),
    ],
)
def test_another_test_is_part_of_the_copies(first: str, second: str) -> None:
    text = CHOSEN.format(first, second).replace("    while", "    value = 1.0\n    while")
    (block,) = repeats(text).blocks
    assert len(block.table.copies[0].statements) == 1
    assert run(worked(text), TYPED) == run(text, TYPED)


BAY = """\
    print("You come to {0} Bay.")
    if input("fish? ") == "yes":
        caught = len(input("Letters: "))
        if caught > {1}:
            caught = {1}
        fish = fish + caught
        fuel = fuel - {2}
        print("You catch", caught)
    else:
        print("You go on.")
    fuel = fuel - {3}
"""
BAYS = [("Heron", 3, 2, 4), ("Mussel", 5, 3, 5), ("Wreck", 9, 5, 6)]


def trip(form: str, bays=BAYS) -> str:
    return f"def trip():\n    fuel = 20\n    fish = 0\n{''.join(form.format(*b) for b in bays)}    print(fish, fuel)\n\n\ntrip()\n"


def test_long_copies_of_which_no_function_could_take_what_differs_may_list_four_things() -> None:
    text, typed = trip(BAY), "yes\nabcdef\nno\nyes\nabcd\n"
    after = worked(text)
    assert '("Heron", 3, 2, 4), ("Mussel", 5, 3, 5), ("Wreck", 9, 5, 6),' in after
    assert run(after, typed) == run(text, typed)


def test_what_a_function_can_take_it_does() -> None:
    form = "    print('come to', {0})\n    for k in range({1}):\n        for n in range({2}):\n            print(k, n)\n        print('row')\n    print('end', {3})\n    print('of it')\n    print('-')\n"
    text = trip(form, [("'Heron'", 3, 2, 4), ("'Mussel'", 5, 3, 9), ("'Wreck'", 2, 5, 6)])
    after = worked(text)
    assert after.count("def ") == 2
    assert printed(after) == printed(text)


def test_what_cannot_be_folded_is_not_cut_into_steps_that_are_alike() -> None:
    odd = [(f"{name}", limit, f"{fuel} * fish", f"{more} + fuel") for name, limit, fuel, more in BAYS]
    text = trip(BAY.replace("if input(", "if fuel > {2} and input("), odd)
    after = worked(text)
    assert after.count("caught = len(input(") in (1, 3)
    assert after.count("def ") <= 2
