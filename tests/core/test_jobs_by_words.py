"""What a purpose says, and what a program's words, numbers and letters say of it, tell where a function's job is done."""

from textwrap import dedent

import pytest

from core.builders import printed
from core.test_jobs import answer, asked, lines_told

PLACES = {
    "a letter for what is asked": (
        "to_fahrenheit/1/r: degrees Celsius as degrees Fahrenheit",
        """
        temps = [3, -2, 5]
        for d in range(3):
            f = temps[d] * 9 / 5 + 32
            print(d, f)
        """,
        (3, 3),
    ),
    "a short form": (
        "volume/2/r: the volume of a round tank",
        "r = 2\nh = 5\nvol = 3 * r * r * h\nrate = vol / 8\nprint(vol, rate)\n",
        (3, 3),
    ),
    "something more": (
        "deposit/2/r: the new balance after a deposit, which must be positive",
        """
        balance = 100
        amount = 20
        print("Hello")
        if amount > 0:
            balance += amount
        else:
            print("That is nothing.")
        print(balance)
        """,
        (4, 7),
    ),
    "something less": (
        "withdraw/2/r: the new balance after a withdrawal, if there is enough",
        """
        balance = 100
        amount = 20
        print("Hello")
        if amount > balance:
            print("Not so much.")
        else:
            balance -= amount
        print(balance)
        """,
        (4, 7),
    ),
    "a menu that is answered": (
        "menu/0/r: shows the choices and gives back what was chosen",
        """
        def input(text):
            print(text)
            return "2"

        total = 4
        print("1 deposit")
        print("2 withdraw")
        print("3 leave")
        choice = input("> ")
        if choice == "2":
            total = 3
        print(total)
        """,
        (6, 9),
    ),
    "what is typed made a number": (
        "ask_age/0/r: asks for an age",
        """
        def input(text):
            return "41"

        name = "Ida"
        text = input("Age: ")
        age = int(text)
        print(name, age + 1)
        """,
        (5, 6),
    ),
    "units, and the number between them": (
        "total_minutes/2/r: hours and minutes as minutes",
        "h = 7\nm = 25\nstart = h * 60 + m\nend = (start + 40) % 1440\nprint(start, end)\n",
        (3, 3),
    ),
    "a value that is shown": (
        "to_kelvin/1/r: a temperature in Kelvin",
        "cold = 0\nfor t in [3.5, -1.0]:\n    print(t + 273.15)\n    if t < 0:\n        cold = cold + 1\nprint(cold)\n",
        (3, 3),
    ),
    "a look-up": (
        "find_contact/2/r: the number of a name or an empty text",
        """
        contacts = {"Ida": "12"}
        name = "Ida"
        print("looking")
        if name in contacts:
            found = contacts[name]
        else:
            found = ""
        print(found)
        """,
        (4, 7),
    ),
    "what is drawn of signs": (
        "chart/1/: prints a bar of stars for each night",
        """
        nights = [3, 1, 2]
        total = 0
        for t in nights:
            total += t
        print("so much", total)
        for t in nights:
            n = t + 1
            print("*" * n)
        """,
        (6, 8),
    ),
    "a test that a choice depends on": (
        "is_on_board/2/r: whether row and column are on the board",
        """
        moves = []
        for r, c in [(0, 9), (3, 3)]:
            if 0 <= r < 8 and 0 <= c < 8:
                moves.append((r, c))
        print(moves)
        """,
        (3, 3),
    ),
    "all places of a list": (
        "double_all/1/: doubles all values in the list",
        "rows = [2, 4]\nprint(rows)\nfor i in range(len(rows)):\n    rows[i] = rows[i] * 2\nprint(rows)\n",
        (3, 4),
    ),
    "a list put in another order by chance": (
        "shuffle/1/: shuffles the deck",
        """
        import random
        random.seed(4)
        deck = [1, 2, 3, 4]
        for i in range(len(deck)):
            j = random.randint(0, 3)
            deck[i], deck[j] = deck[j], deck[i]
        print(deck)
        """,
        (4, 6),
    ),
    "a text that is changed": (
        "without_spaces/1/r: the text without its spaces",
        'text = "so it is"\nprint(len(text))\nprint(text.replace(" ", ""))\n',
        (3, 3),
    ),
    "so many of something": (
        "deal/1/r: deals so many cards",
        """
        deck = [4, 7, 9, 1]
        print(len(deck))
        hand = []
        for k in range(2):
            hand.append(deck.pop())
        print(hand)
        """,
        (3, 5),
    ),
    "a whole choice, not the branch of it": (
        "add_stock/3/: adds an amount of an article to the stock",
        """
        stock = {"rope": 4}
        name = "net"
        amount = 3
        print("before", stock)
        if name in stock:
            stock[name] += amount
        else:
            stock[name] = amount
        print("after", stock)
        """,
        (5, 8),
    ),
}


@pytest.mark.parametrize("about", PLACES)
def test_a_job_is_told_by(about):
    function, program, lines = PLACES[about]
    report = asked(program, function)
    name = function.split("/")[0]
    assert lines_told(report, name) == [lines]
    assert f"def {name}(" in answer(report)
    assert printed(answer(report)) == printed(dedent(program))


QUIET = {
    "a choice is no test that is asked for by chance": (
        "is_magic/1/r: whether a square is magic",
        "a = 3\nif a > 2:\n    print('big')\nprint(a)\n",
    ),
    "a list of numbers below 0 is no formula": (
        "to_knots/1/r: a speed in knots",
        "speeds = [3, -2, 5]\nprint(speeds)\n",
    ),
    "a sum in a loop is no deposit": (
        "deposit/2/r: the new sum after a deposit",
        "rows = [3, 4]\nfound = 0\nfor r in rows:\n    found += r\nprint(found)\n",
    ),
}


@pytest.mark.parametrize("about", QUIET)
def test_a_job_is_not_told_where(about):
    function, program = QUIET[about]
    assert lines_told(asked(program, function), function.split("/")[0]) == []


@pytest.mark.parametrize("name", ["площадь", "_", "面積"])
def test_a_name_without_a_latin_letter_is_looked_for_too(name):
    report = asked("a = 3\nif a > 2:\n    print(a * 4)\n", f"{name}/1/r: wie groß es ist")
    assert {f.subject for f in report.findings if f.rule == "missing-function"} == {name}


def test_what_a_format_says_of_a_value_is_told_by_its_place():
    program = """
        #include <stdio.h>
        int main(void) {
            double r, h;
            scanf("%lf %lf", &r, &h);
            double one = 3.1 * r * r * h;
            double other = one / 8;
            printf("%.2f litres, %.1f hours\\n", one, other);
            return 0;
        }
        """
    report = asked(program, "hours/1/r: the hours that it takes", language="c")
    assert lines_told(report, "hours") == [(6, 6)]
