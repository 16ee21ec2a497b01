"""Copies that the student has put under comments of their own, and where copies begin and end."""

from builders import printed, repeats, report, rules, worked

HOUSE = """\
# {name} house
t.penup()
t.goto({x}, -200)
t.pendown()
t.color("{wall}")
t.begin_fill()
for i in range(4):
    t.forward({size})
    t.left(90)
t.end_fill()
t.penup()
t.goto({x}, {roof})
t.pendown()
t.color("{tiles}")
t.begin_fill()
for i in range(3):
    t.forward({size})
    t.left(120)
t.end_fill()

"""
HOUSES = [
    {"name": "first", "x": -300, "wall": "brown", "size": 120, "roof": -80, "tiles": "red"},
    {"name": "second", "x": -100, "wall": "orange", "size": 90, "roof": -110, "tiles": "darkred"},
    {"name": "third", "x": 80, "wall": "gray", "size": 150, "roof": -50, "tiles": "black"},
]
GROUND = """\
import turtle

t = turtle.Turtle()

# ground
t.penup()
t.goto(-400, -200)
t.pendown()
t.color("green")
t.begin_fill()
t.forward(800)
t.end_fill()

"""
SUN = """\
# sun
t.penup()
t.goto(250, 200)
t.pendown()
t.color("yellow")
t.begin_fill()
t.circle(40)
t.end_fill()
"""
VILLAGE = GROUND + "".join(HOUSE.format(**house) for house in HOUSES) + SUN


def test_what_stands_under_comments_is_one_thing_to_do() -> None:
    first, *_ = (b.table for b in repeats(VILLAGE).blocks)
    assert [(c.start_line, c.end_line) for c in first.copies] == [(15, 32), (35, 52), (55, 72)]


def test_the_function_is_a_house_and_another_begins_shapes() -> None:
    after = worked(VILLAGE)
    assert 'draw_house(-300, "brown", 120, "red")\n' in after
    assert "def draw_house(x, color, distance, shade):\n    draw_shape(x, -200, color)\n" in after
    assert "def draw_shape(x, y, color):\n    t.penup()\n    t.goto(x, y)\n" in after


def test_a_copy_does_not_begin_with_the_end_of_what_stands_above_it() -> None:
    shapes = "".join(
        f"t.begin_fill()\nt.penup()\nt.goto({x}, {y})\nt.pendown()\n{how}t.end_fill()\n"
        for x, y, how in [(1, 5, "t.circle(3)\n"), (7, 2, "t.dot()\nt.left(3)\n"), (3, 9, ""), (4, 4, "t.write('a')\n")]
    )
    (block,) = repeats(f"import turtle\nt = turtle.Turtle()\n{shapes}").blocks
    assert {c.texts[0] for c in block.table.copies} == {"t.begin_fill()"}


def test_what_only_sounds_like_an_end_stays_in_the_copy() -> None:
    drive = "robot.stop()\nrobot.turn({0})\nrobot.drive({1}, 'fast')\n"
    text = "".join(f"{drive.format(*how)}print('{k}', {k} * 2)\n" for k, how in enumerate([(90, 3), (45, 8), (10, 2)]))
    (block,) = repeats(f"robot = input()\n{text.replace('2)', '2, sep=1)', 1)}").blocks
    assert block.table.copies[0].texts[0] == "robot.stop()"


STEP = """\
def main():
    print("Shall we begin?")
    print("The tide is coming in.")
    print("Mind the eels.")
    money = 20

    # pay
    while money > 0:
        money -= int(input())
        print(money)
        if money > 100:
            print("rich")

    # nets
    for net in ["a", "b"]:
        print("net", net)
        print("dry it")
        print("mend it")

    # boats
    for boat in ["c", "d"]:
        print("boat", boat)
        print("paint it")
        print("float it")

    # eels
    for eel in range(3):
        print("eel", eel)
        print("smoke it")
        print("eat it")
        print(money)


main()
"""


def test_what_something_begins_with_is_no_end_of_a_step() -> None:
    text = STEP
    assert "oversized-procedure" in rules(text)
    after = worked(text)
    assert "return 20" not in after
    assert "    money = 20\n" in after.partition("def main")[2]
    assert printed(after) == printed(text)


def test_a_run_in_functions_that_are_alike_is_told_once() -> None:
    body = "".join(
        f'    if board[{k}] == "{{0}}" and board[{k + 3}] == "{{0}}":\n        return True\n' for k in range(5)
    )
    twins = "".join(
        f"def {name}_wins(board):\n{body.format(mark)}    return False\n\n\n" for name, mark in ["xo"[0:1] * 2, "oo"]
    )
    told = report(f"{twins}print(x_wins('x' * 9), o_wins('x' * 9))\n").findings
    assert sorted(f.rule for f in told if f.rule != "undocumented-function") == ["repeated-run", "twin-functions"]


PARAGRAPHS = """\
numbers = [4, 9, 2]

# mean
mean = sum(numbers) / 3
print("mean", mean)

# smallest
smallest = numbers[0]
for number in numbers:
    if number < smallest:
        smallest = number
print("smallest", smallest)

# middle
middle = sorted(numbers)[1]
print("middle", middle)

# range
smallest = numbers[0]
for number in numbers:
    if number < smallest:
        smallest = number
print("range", max(numbers) - smallest)
"""


def test_the_end_of_the_paragraph_above_is_no_part_of_a_copy() -> None:
    (block,) = repeats(PARAGRAPHS).blocks
    assert [(c.start_line, c.end_line) for c in block.table.copies] == [(8, 11), (19, 22)]
    (suggestion,) = report(PARAGRAPHS).suggestions
    assert suggestion.title == "A function find_smallest(), called in 2 places"
    assert suggestion.status == "proved"


def test_tests_that_leave_one_after_the_other_are_not_told_in_pairs() -> None:
    tests = "".join(
        f'    if {n} == "":\n        print("Please fill in the {n}")\n        return\n'
        for n in ("name", "town", "street", "phone")
    )
    text = f"def show(name, town, street, phone):\n{tests}    print(name, town, street, phone)\n\n\nshow('a', 'b', '', 'd')\n"
    assert "repeated-block" not in rules(text)


def test_what_is_made_is_what_a_step_is_called_after() -> None:
    places = [(3, 4), (6, 1), (4, 3)]
    makes = "".join(
        f'    b{k} = Button(window, text="{k * k}", command=print)\n    b{k}.grid(row={row}, column={k % 2})\n'
        for k, row in places
    )
    after = worked(
        "from tkinter import Button, Tk\n\nwindow = Tk()\n\n\n" + STEP.replace("    # nets\n", f"{makes}\n    # nets\n")
    )
    assert "def make_buttons():" in after
