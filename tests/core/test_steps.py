"""Where a long procedure is cut, in which order its steps are taken out, and what they are called."""

import re

import pytest
from builders import printed, report, worked
from runners import can_run, outputs

from partitor.records import WorkedAnswer

UNDIVIDED = """def main():
    names = ["Ada", "Ben", "Cleo", "Dov"]
    catches = []
    for name in names:
        catch = len(name) * 3 % 7
        if catch == 0:
            catch = 1
        catches.append(catch)
    best = 0
    for i in range(len(catches)):
        if catches[i] > catches[best]:
            best = i
    print("best", names[best])
    tax = 0
    for c in catches:
        if c > 4:
            tax += c * 2
        else:
            tax += c
    print("tax", tax)
    print("By name")
    for i in range(len(names)):
        print(names[i], end=" ")
        print(catches[i] * "#")
    above = []
    for i in range(len(names)):
        if catches[i] * 4 > sum(catches):
            above.append(names[i])
    print("above", above)


main()
"""

LEVELS = {
    "c": (
        "#include <stdio.h>\n\nint main(void) {\n    int levels[5] = {4, 9, 2, 7, 5};\n",
        'printf("{0} %d\\n", {1});',
        "    return 0;\n}\n",
    ),
    "java": (
        "public class Main {\n    public static void main(String[] args) {\n        int[] levels = {4, 9, 2, 7, 5};\n",
        'System.out.println("{0} " + {1});',
        "    }\n}\n",
    ),
    "javascript": (
        "function main() {\n    const levels = [4, 9, 2, 7, 5];\n",
        'console.log("{0}", {1});',
        "}\nmain();\n",
    ),
}


SHORT = 'format = "partitor-assignment"\nversion = 1\n[limits]\nprocedure_statements = 12\n'


def answer(text: str, language: str = "python") -> WorkedAnswer:
    """Where twelve statements are enough for a procedure."""
    return report(text, SHORT, language).worked_answer


def steps_of(text: str, language: str = "python") -> list[str]:
    """The names of the steps in the order they are taken out."""
    titles = [step.title for step in answer(text, language).steps if step.kind == "step"]
    return [re.sub(r"\(.*", "", title.split()[2]) for title in titles]


def paragraphs(language: str, between: str) -> str:
    """Three things worked out of five levels."""
    start, show, end = LEVELS[language]
    declare = "let" if language == "javascript" else "int"
    parts = [
        f"{declare} high = levels[0];\nfor (let i = 1; i < 5; i++) {{\n    if (levels[i] > high) {{\n"
        + "        high = levels[i];\n    }\n}\n"
        + show.format("High", "high"),
        f"{declare} wet = 0;\nfor (let i = 0; i < 5; i++) {{\n    if (levels[i] > 4) {{\n        wet = wet + levels[i];\n"
        + "    }\n}\n"
        + show.format("Wet", "wet"),
        f"{declare} last = -1;\nfor (let i = 0; i < 5; i++) {{\n    if (levels[i] === 7) {{\n        last = i;\n    }}\n"
        + "    if (levels[i] === 5) {\n        last = last * 10 + i;\n    }\n}\n"
        + show.format("Last", "last"),
    ]
    body = between.join(part + "\n" for part in parts)
    if language != "javascript":
        body = body.replace("let i", "int i").replace("===", "==")
    indent = "        " if language == "java" else "    "
    return start + re.sub(r"^(?=.)", indent, body, flags=re.M) + end


def test_what_no_blank_line_divides_is_cut_where_a_new_thing_begins():
    assert steps_of(UNDIVIDED) == ["find_catches", "print_best", "print_tax", "print_above"]
    (after,) = answer(UNDIVIDED).files.values()
    assert printed(after) == printed(UNDIVIDED)
    main = after[after.index("def main") :]
    # What is small stays, once the rest is short.
    assert main.count("for ") == 1
    assert '    print("By name")\n    for i in' in main
    assert "    print_best(names, catches)\n" in main or "    print_best(catches, names)\n" in main


@pytest.mark.parametrize("between", ["", "\n"])
@pytest.mark.parametrize("language", sorted(LEVELS))
def test_each_paragraph_is_a_step_named_for_what_it_works_out(language, between, tmp_path):
    text = paragraphs(language, between)
    assert steps_of(text, language) == ["printHigh", "printWet", "printLast"]
    (after,) = answer(text, language).files.values()
    # They stand in the order in which they are called.
    assert sorted(["printHigh", "printWet", "printLast"], key=after.index) == [
        "printHigh",
        "printWet",
        "printLast",
    ] or (language == "java")
    if can_run(language):
        before, rewritten = outputs(language, [text, after], tmp_path)
        assert before == rewritten
        assert "COMPILE" not in before


def test_paragraphs_are_not_joined():
    """A sort and the table that it is for are two steps, as the student left a line between them."""
    text = (
        "def main():\n    times = [40, 12, 33, 7]\n    names = ['a', 'b', 'c', 'd']\n\n    order = list(range(4))\n"
        "    swapped = True\n    while swapped:\n        swapped = False\n        for k in range(3):\n"
        "            if times[order[k]] > times[order[k + 1]]:\n"
        "                order[k], order[k + 1] = order[k + 1], order[k]\n                swapped = True\n\n"
        "    print()\n    print('Place  Name   Time')\n    place = 1\n    for i in order:\n"
        "        print(place, names[i], times[i])\n        place += 1\n\n"
        "    print()\n    print('Gaps')\n    last = times[order[0]]\n    for i in order[1:]:\n"
        "        print(names[i], times[i] - last)\n        last = times[i]\n    print('end', last)\n\n\nmain()\n"
    )
    assert steps_of(text) == ["find_order", "print_table", "print_gaps"]
    assert printed(next(iter(answer(text).files.values()))) == printed(text)


def test_steps_do_not_call_each_other_in_a_chain():
    (after,) = answer(UNDIVIDED).files.values()
    names = steps_of(UNDIVIDED)
    bodies = after[: after.index("def main")]
    assert all(bodies.count(f"{name}(") == 1 for name in names)


def test_small_things_stay_once_the_procedure_is_short():
    lines = "".join(f"    part{n} = {n} * a + {n % 3}\n    a = part{n} % 90\n" for n in range(8))
    text = f"def main(a):\n{lines}    print('sum', a)\n\n    for i in range(3):\n        print(i)\n        a += i\n    print(a)\n"
    text += "\n\nmain(4)\n"
    (after,) = answer(text).files.values()
    assert printed(after) == printed(text)
    assert "    for i in range(3):\n        print(i)\n" in after[after.index("def main") :]


def test_the_same_lines_twice_in_what_is_too_long_are_one_function_not_two_steps() -> None:
    """Also where that saves a line only."""
    read = """
            level = input("Level? ")
            while not level.isdigit():
                print("A number please.")
                level = input("Level? ")
            level = int(level)
"""
    text = f"""
def menu(water):
    while True:
        print("1 fill  2 drain  3 leave")
        choice = input("> ")
        if choice == "1":{read}            water = water + level
            print("Now at", water)
        elif choice == "2":{read}            if level > water:
                print("Not so much")
            else:
                water = water - level
                print("Left", water)
        elif choice == "3":
            print("Bye")
            return water
        else:
            print("What?")


print(menu(int("4")))
"""
    after = worked(text)
    assert after.count("while not") == 1
    assert printed(after) == printed(text)


PARTS = """
def banner(title):
    print("*" * 20)
    print(title)
    print("*" * 20)


def main():
    animals = ["otter", "lynx", "stork"]
    weights = [8, 21, 3]
    costs = [2, 5, 1]
    days = 3
    money = 30

    # feeding
    banner("FEEDING")
    eaten = 0
    for k in range(len(weights)):
        portion = weights[k] // 2
        eaten = eaten + portion
        print(k, "eats", portion)
        if portion > 4:
            print("order early")
    print("In all", eaten)

    # money
    banner("MONEY")
    for k in range(len(costs)):
        cost = costs[k] * days
        money = money - cost
        if money < 0:
            print("Not enough for", animals[k])
            money = money + cost
    print("Left", money)

    # visitors
    banner("VISITORS")
    income = 0
    for day in range(4):
        today = 40 + day * 12
        if day > 2:
            today = today * 2
        income = income + today
        print(day, today)
    print(income, money)
    if income > 100:
        print("a pond")


main()
"""


def test_a_loop_that_would_be_a_step_alone_takes_the_lines_around_it_along() -> None:
    after = worked(PARTS)
    assert printed(after) == printed(PARTS)
    main = after[after.index("def main") :]
    assert "banner(" not in main
    assert 'print("Left"' not in main
