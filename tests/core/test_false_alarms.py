"""Well-made programs get no remark on repetition. Each text here is clearer as it stands."""

import pytest
from builders import DEMO, report, rules

CLEAN = {
    "a table of literals": """
        prices = {}
        prices["bean"] = 3
        prices["leek"] = 2
        prices["chard"] = 4
        prices["tomato"] = 6
        prices["chili"] = 5
        print(prices)
        """,
    "a series of unlike prints": """
        print("Dear crew,")
        print("the ferry leaves at noon.")
        print("Please bring the ropes.")
        print("Lunch is on board.")
        print("Kind regards, the station")
        """,
    "guard clauses": """
        def check(level, gate, wind):
            if level < 0:
                return "no reading"
            if gate == "":
                return "no gate"
            if wind > 90:
                return "storm"
            return "fine"

        print(check(1, "a", 2))
        """,
    "declarations": """
        low = 120
        high = 310
        storm = 400
        count = 4
        print(low, high, storm, count)
        """,
    "imports": """
        import math
        import random
        import time
        print(math.pi, random.random() < 2, time.time() > 0)
        """,
    "unlike options": """
        window.title("tide")
        window.size(300, 200)
        window.colour("white")
        window.font("serif", 12)
        window.show()
        """,
    "questions to a person": """
        name = input("Name? ")
        level = int(input("Level? "))
        wind = int(input("Wind? "))
        print(name, level + wind)
        """,
    "assertions": """
        def double(n):
            return 2 * n

        assert double(1) == 2
        assert double(2) == 4
        assert double(0) == 0
        assert double(-3) == -6
        """,
    "calls of one's own function": """
        def print_row(name, level, wind):
            print(name.ljust(10), level, wind)

        print_row("north", 310, 4)
        print_row("mill", 270, 12)
        print_row("east", 150, 7)
        """,
    "two small methods": """
        class Gate:
            def __init__(self, level):
                self.level = level

            def raise_by(self, n):
                self.level = self.level + n

            def lower_by(self, n):
                self.level = self.level - n

        gate = Gate(3)
        gate.raise_by(2)
        gate.lower_by(1)
        print(gate.level)
        """,
    "a dispatch table": """
        def open_it(gate, words):
            print("open", gate)

        def shut_it(gate, words):
            print("shut", gate, words)

        COMMANDS = {"open": open_it, "shut": shut_it}
        for line in ["open a", "shut b now"]:
            words = line.split()
            COMMANDS[words[0]](words[1], words[2:])
        """,
}


@pytest.mark.parametrize("text", CLEAN.values(), ids=CLEAN.keys())
def test_no_remark_on(text):
    assert rules(text) == []


@pytest.mark.parametrize("name", ["Ida Holm_SF101", "Tomas Reed_SF102", "Femke Tarn_SF115"])
def test_the_demo_classs_well_made_programs_get_praise_and_no_remark(name):
    found = report((DEMO / "submissions" / f"{name}_gates.py").read_text(), (DEMO / "assignment.toml").read_text())
    assert found.findings == ()
    assert found.total == found.of


def test_a_tide_table_with_a_menu_is_left_alone():
    assert (
        rules(
            """
            LOW, HIGH = 120, 310
            NAMES = {"n": "north gate", "m": "mill gate", "q": "quay"}


            def read_number(question, least, most):
                while True:
                    answer = input(question)
                    if answer.isdigit() and least <= int(answer) <= most:
                        return int(answer)
                    print("a number from", least, "to", most)


            def describe(level):
                if level < LOW:
                    return "low water"
                if level > HIGH:
                    return "flood"
                return "as usual"


            def print_row(name, level):
                print(name.ljust(12), str(level).rjust(4), describe(level))


            def show_all(levels):
                print("gate         level")
                for letter in sorted(levels):
                    print_row(NAMES[letter], levels[letter])


            def change_one(levels):
                letter = input("which gate? ")
                if letter not in NAMES:
                    print("there is no such gate")
                    return
                levels[letter] = read_number("level: ", 0, 500)


            def main():
                levels = {"n": 200, "m": 140, "q": 305}
                choice = ""
                while choice != "end":
                    choice = input("show, change or end? ")
                    if choice == "show":
                        show_all(levels)
                    elif choice == "change":
                        change_one(levels)
                    elif choice != "end":
                        print("I know show, change and end")


            if __name__ == "__main__":
                main()
            """
        )
        == []
    )


def test_small_methods_that_are_clearer_apart_are_left_alone():
    assert (
        rules(
            """
            class Pump:
                def __init__(self, name, power):
                    self.name = name
                    self.power = power
                    self.running = False

                def start(self):
                    self.running = True
                    print(self.name, "starts")

                def stop(self):
                    self.running = False
                    print(self.name, "stops")

                def litres(self, hours):
                    if not self.running:
                        return 0
                    return self.power * hours


            pumps = [Pump("north", 30), Pump("mill", 45)]
            for pump in pumps:
                pump.start()
            print(sum(pump.litres(2) for pump in pumps))
            pumps[0].stop()
            print(sum(pump.litres(1) for pump in pumps))
            """
        )
        == []
    )


DAYS = """#include <string>
using namespace std;

string name_of(int day) {
    switch (day) {
ROWS        default: return "weekend";
    }
}

int main() {
    return name_of(3) == "Wednesday" ? 0 : 1;
}
"""
NAMED = list(enumerate(["Monday", "Tuesday", "Wednesday", "Thursday", "Friday"], 1))


@pytest.mark.parametrize(("row", "told"), [(" ", []), ("\n            ", ["repeated-run"])])
def test_branches_of_one_line_each_are_a_table_already(row, told):
    rows = "".join(f'        case {k}:{row}return "{day}";\n' for k, day in NAMED)
    assert rules(DAYS.replace("ROWS", rows), language="cpp") == told


@pytest.mark.parametrize(("copies", "told"), [(3, []), (4, ["repeated-run"])])
def test_a_loop_that_saves_no_two_lines_is_no_matter(copies, told):
    """Scheme's loops name what they run through below their statements, a list a line."""
    asked = [("'withdraw", 30), ("'deposit", 15), ("'withdraw", 500), ("'borrow", 7)]
    shown = "".join(f"(display (account {what} {much}))\n(newline)\n" for what, much in asked[:copies])
    text = f"(define (account what much)\n  (list what much))\n{shown}"
    assert rules(text, language="scheme") == told


SUMS = """#include <stdio.h>
#define ROWS 3
#define COLUMNS 4

int row_sum(int grid[ROWS][COLUMNS], int r) {
    int sum = 0;
    for (int c = 0; c < COLUMNS; c++)
        sum += grid[r][c];
    return sum;
}

int column_sum(int grid[ROWS][COLUMNS], int c) {
    int sum = 0;
    for (int r = 0; r < ROWS; r++)
        sum += FIELD;
    return sum;
}

int main(void) {
    int grid[ROWS][COLUMNS] = {{1, 2, 3, 4}, {5, 6, 7, 8}, {9, 1, 2, 3}};
    printf("%d %d\\n", row_sum(grid, 1), column_sum(grid, 2));
    return 0;
}
"""


@pytest.mark.parametrize(("field", "told"), [("grid[r][c]", []), ("grid[c][r]", ["twin-functions"])])
def test_along_a_row_and_down_a_column_are_two_things(field, told):
    assert rules(SUMS.replace("FIELD", field), language="c") == told
