"""Copies in a function that change a variable of the program: the new function says so, as the student does."""

from pathlib import Path

import pytest
from builders import file, printed, report, run, worked
from runners import can_run, outputs

from partitor.suggestions.proof import NewFunction, prove

QUIZ = """
score = 0


def play():
    global score
    guess = input("Sea bird? ")
    if guess == "tern":
        print("Right")
        score += 1
    else:
        print("Wrong, it was", "tern")
    guess = input("Fish? ")
    if guess == "eel":
        print("Right")
        score += 1
    else:
        print("Wrong, it was", "eel")
    print("middle")
    guess = input("Tree? ")
    if guess == "alder":
        print("Right")
        score += 1
    else:
        print("Wrong, it was", "alder")


play()
print(score)
"""


def test_a_function_says_which_variable_of_the_program_it_changes() -> None:
    after = worked(QUIZ)
    assert after.count("    global score\n") == 2
    assert after.count("score += 1") == 1
    given = "tern\ncod\nalder\n"
    assert run(after, given) == run(QUIZ, given)


def test_where_each_copy_changes_another_one_it_is_given_and_comes_back() -> None:
    text = """
left = 0
right = 0


def play(marks):
    global left, right
    for mark in marks:
        left = left + mark
        print("left", left)
    left = left - 1
    print("then", left)
    print("and on")
    print("pause")
    for mark in marks:
        right = right + mark
        print("left", right)
    right = right - 1
    print("then", right)
    print("and on")


play([1, 2, 3])
print(left, right)
"""
    after = worked(text)
    assert "left = " in after
    assert "global left, right" in after
    assert after.count("for mark in") == 1
    assert printed(after) == printed(text)


FUNCTION = """
score = 5
lives = 2


def show(value{more}):
    {outer}
    print(value)
    score = score + 1
    print({shown}, score)
    print("end")


def play():
    global score
    {own}show({first})
    print("between")
    show({second})


play()
"""
COPY = "    print({value})\n    score = score + 1\n    print({shown}, score)\n    print('end')\n"


def before(own: str, first: tuple[str, str], second: tuple[str, str]) -> str:
    copies = [COPY.format(value=value, shown=shown) for value, shown in (first, second)]
    inside = f"    {own}" if own else ""
    return (
        "score = 5\nlives = 2\n\n\ndef play():\n    global score\n"
        + inside
        + copies[0]
        + "    print('between')\n"
        + copies[1]
        + "\n\nplay()\n"
    )


@pytest.mark.parametrize(
    ("outer", "shown", "first", "second", "right"),
    [
        ("global score", "value", "1", "2", True),
        ("global score", "value", "lives", "2", True),
        # The copy uses the variable once more when it has changed.
        ("global score", "value", "score", "lives", False),
        ("global lives", "value", "1", "2", False),
        ("global score, value", "value", "1", "2", False),
    ],
)
def test_what_it_is_given_has_its_value_before_the_change(
    outer: str, shown: str, first: str, second: str, right: bool
) -> None:
    copies = [(value, value if shown == "value" else shown) for value in (first, second)]
    after = FUNCTION.format(outer=outer, shown=shown, first=first, second=second, more="", own="")
    claim = NewFunction("main.py", "show")
    assert prove(file(before("", *copies)), file(after.replace('"', "'")), claim).proved is right


def test_a_variable_of_the_function_itself_is_not_the_programs() -> None:
    text = before("", ("1", "1"), ("2", "2")).replace("    global score\n", "    score = 3\n")
    after = FUNCTION.format(outer="global score", shown="value", first="1", second="2", more="", own="")
    after = after.replace("def play():\n    global score\n", "def play():\n    score = 3\n").replace('"', "'")
    assert not prove(file(text), file(after), NewFunction("main.py", "show")).proved


def test_the_part_of_copies_before_they_leave_their_function_is_shared() -> None:
    text = """
pin = "3"


def menu():
    entered = input("PIN: ")
    tries = 1
    while entered != pin and tries < 3:
        print("Wrong PIN")
        entered = input("PIN: ")
        tries += 1
    if entered != pin:
        print("Card blocked")
        return
    print("Take your card")
    entered = input("PIN: ")
    tries = 1
    while entered != pin and tries < 3:
        print("Wrong PIN")
        entered = input("PIN: ")
        tries += 1
    if entered != pin:
        print("Card blocked")
        return
    print("Done")


menu()
"""
    after = worked(text)
    assert after.count("while entered") == 1
    assert [s.status for s in report(text).suggestions] == ["proved"]
    for given in ("3\n3\n", "1\n2\n3\n", "1\n3\n3\n2\n2\n2\n"):
        assert run(after, given + "3\n" * 6) == run(text, given + "3\n" * 6)


HANDLERS = """
left = 0
right = 0


def add_left(n):
    global left
    {first}
    print("left has", left)
    if left > 5:
        print("left wins")
        print("well done")
    print("-----")


def add_right(n):
    global right
    {second}
    print("right has", right)
    if right > 5:
        print("right wins")
        print("well done")
    print("-----")


for one in [add_left, add_right, add_left]:
    one(4)
print(left, right)
"""


@pytest.mark.parametrize("change", ["{0} += n", "{0} = {0} + n", "{0} = n", "{0} = n\n    {0} = {0} * 2"])
def test_handlers_that_each_change_a_variable_of_the_program_keep_their_names(change: str) -> None:
    text = HANDLERS.format(first=change.format("left"), second=change.format("right"))
    after = worked(text)
    assert after.count("well done") == 1
    assert "    global left\n    left = " in after
    assert printed(after) == printed(text)


GAUGES = """
#include <stdio.h>
{kind}int north = 3;
{kind}int south = 1;
int inputs[2] = {{4, 1}};
int turns = 2;
{above}
void turn(void) {{
    int n = inputs[0];
    if (n != north) {{
        printf("north now %d\\n", n);
        {within}
        north = n;
        printf("it was %d turns\\n", turns);
        turns = 0;
    }}
    int s = inputs[1];
    if (s != south) {{
        printf("south now %d\\n", s);
        {within}
        south = s;
        printf("it was %d turns\\n", turns);
        turns = 0;
    }}
}}

int main(void) {{
    turn();
    inputs[1] = 6;
    turn();
    printf("%d %d\\n", north, south);
    return 0;
}}
"""


def gauges(kind: str = "", above: str = "", within: str = "turns++;") -> str:
    """A C program in which two copies each read and change another variable of the program."""
    return GAUGES.format(kind=kind, above=above, within=within)


def test_in_c_too_it_is_given_the_variable_and_gives_it_back(tmp_path: Path) -> None:
    after = worked(gauges(), "c")
    assert "north = " in after
    assert after.count("printf(") < gauges().count("printf(")
    if can_run("c"):
        first, second = outputs("c", [gauges(), after], tmp_path)
        assert first == second


@pytest.mark.parametrize(
    "text",
    [
        gauges(kind="volatile "),
        gauges(kind="extern "),
        gauges(above="int *seen = &north;"),
        gauges(above='void look(void) { printf("%d", north); }', within="look();"),
        gauges(above="#define NORTH north"),
        gauges(above="int *seen;", within="*seen = 2;"),
    ],
    ids=["volatile", "extern", "address", "called", "macro", "pointer"],
)
def test_in_c_what_may_be_seen_elsewhere_stays_where_it_is(text: str) -> None:
    after = worked(text, "c")
    assert after.count("it was") == 2
    assert "north = n;" in after
