"""From a program text to the refactored text, in the student's own style."""

from textwrap import dedent

import pytest
from builders import file, printed, report, rules, run, worked

from partitor.suggestions.proof import MergedFunctions, prove


def same(text: str, expected: str) -> None:
    result = worked(text)
    assert result == dedent(expected).lstrip("\n")
    assert run(result) == run(dedent(text))


def test_even_steps_become_a_range():
    same(
        """
        print("Gate 1")
        print("  at", 310)
        print("Gate 2")
        print("  at", 270)
        print("Gate 3")
        print("  at", 230)
        print("Gate 4")
        print("  at", 190)
        """,
        """
        for gate in range(1, 5):
            print(f"Gate {gate}")
            print("  at", 350 - 40 * gate)
        """,
    )


def test_a_counter_that_goes_down_ends_where_the_copies_end():
    same(
        """
        level = 30
        print("level", level)
        level = 20
        print("level", level)
        level = 10
        print("level", level)
        level = 0
        print("level", level)
        print("at last", level)
        """,
        """
        for level in range(30, -1, -10):
            print("level", level)
        print("at last", level)
        """,
    )


def test_words_become_a_list_and_pairs_a_list_of_pairs():
    same(
        """
        print("-----")
        name = "north"
        level = 310
        print(name, level)
        print("-----")
        name = "mill"
        level = 145
        print(name, level)
        print("-----")
        name = "east"
        level = 260
        print(name, level)
        """,
        """
        for name, level in [("north", 310), ("mill", 145), ("east", 260)]:
            print("-----")
            print(name, level)
        """,
    )


def test_a_loop_in_a_loop_comes_out_and_the_headings_are_kept_as_one_comment():
    same(
        """
        # morning
        shift = "morning"
        print("Shift", shift)
        gate = 1
        print("  gate", gate)
        gate = 2
        print("  gate", gate)
        gate = 3
        print("  gate", gate)

        # evening
        shift = "evening"
        print("Shift", shift)
        gate = 1
        print("  gate", gate)
        gate = 2
        print("  gate", gate)
        gate = 3
        print("  gate", gate)

        # night
        shift = "night"
        print("Shift", shift)
        gate = 1
        print("  gate", gate)
        gate = 2
        print("  gate", gate)
        gate = 3
        print("  gate", gate)
        """,
        """
        # morning, evening, night
        for shift in ["morning", "evening", "night"]:
            print("Shift", shift)
            for gate in range(1, 4):
                print("  gate", gate)
        """,
    )


def test_an_accumulator_stays_in_the_body():
    text = "water = 340\n" + 'print("turn")\nwater = water - 20\nprint("now", water)\n' * 5
    same(
        text,
        """
        water = 340
        for i in range(5):
            print("turn")
            water = water - 20
            print("now", water)
        """,
    )


def test_a_block_becomes_a_function_with_what_differs_and_returns_what_is_needed():
    same(
        """
        spring = [310, 305, 322]
        neap = [251, 240]


        def main():
            print("Spring")
            low = min(spring)
            high = max(spring)
            print("  from", low, "to", high)
            print("  mean", sum(spring) / len(spring))
            print("  of", len(spring), "readings")
            print("  ------")
            if high > 315:
                print("  flood")
            print("Neap")
            low = min(neap)
            high = max(neap)
            print("  from", low, "to", high)
            print("  mean", sum(neap) / len(neap))
            print("  of", len(neap), "readings")
            print("  ------")
            print("  at most", high)


        main()
        """,
        """
        spring = [310, 305, 322]
        neap = [251, 240]


        def print_high(values):
            low = min(values)
            high = max(values)
            print("  from", low, "to", high)
            print("  mean", sum(values) / len(values))
            print("  of", len(values), "readings")
            print("  ------")
            return high


        def main():
            print("Spring")
            high = print_high(spring)
            if high > 315:
                print("  flood")
            print("Neap")
            high = print_high(neap)
            print("  at most", high)


        main()
        """,
    )


def test_twins_become_one_function_and_their_calls_say_what_differs():
    same(
        """
        def north_gate(storm):
            level = 311
            if storm:
                level = level + 40
            print("North gate", level)
            return level


        def mill_gate(storm):
            level = 254
            if storm:
                level = level + 40
            print("Mill gate", level)
            return level


        total = north_gate(True) + mill_gate(False)
        print(total)
        """,
        """
        def print_gate(storm, level, name):
            if storm:
                level = level + 40
            print(f"{name} gate", level)
            return level


        total = print_gate(True, 311, "North") + print_gate(False, 254, "Mill")
        print(total)
        """,
    )


def test_the_students_indent_quotes_and_convention_are_kept():
    text = (
        "def showAll():\n"
        + "".join(f"\tgateNumber = {n}\n\tprint('Gate', gateNumber)\n\tprint('  open')\n" for n in (1, 2, 3))
        + "showAll()\n"
    )
    assert worked(text) == (
        "def showAll():\n\tfor gateNumber in range(1, 4):\n\t\tprint('Gate', gateNumber)\n\t\tprint('  open')\nshowAll()\n"
    )


def test_strings_that_run_over_lines_are_not_indented_with_the_code():
    copy = 'print("""first\n  second""")\nprint("end")\nprint("---")\n'
    assert worked(copy * 3) == (
        'for i in range(3):\n    print("""first\n  second""")\n    print("end")\n    print("---")\n'
    )


def test_a_long_main_is_cut_at_its_comments_into_named_steps():
    text = """
        def main():
            levels = [304, 276, 231]
            # find the highest level
            highest = levels[0]
            where = 0
            for i in range(len(levels)):
                if levels[i] > highest:
                    highest = levels[i]
                    where = i
            print(highest, where)
            # count the open gates
            count = 0
            for level in levels:
                if level > 250:
                    count = count + 1
            print("open", count)
            # print the table
            print("gate level")
            for i in range(len(levels)):
                row = str(i).rjust(4)
                row = row + str(levels[i]).rjust(6)
                print(row)
            # warn the crew
            if highest > 300:
                print("flood at", where)
                print("call the crew")

        main()
        """
    result = worked(text)
    assert run(result) == run(dedent(text))
    assert "def find_highest_level(levels):" in result
    assert "    highest, where = find_highest_level(levels)" in result


def test_a_suggestion_that_saves_less_than_two_lines_is_not_taken():
    assert report('print("-", 1)\nprint("-", 2)\nprint("-", 3)\n').worked_answer.steps == ()


def test_what_cannot_be_proved_is_an_outline_without_a_patch():
    found = report(
        """
        def show(values):
            print(values)
            locals()

        show([1])
        gate = 1
        print("gate", gate, "is open")
        print("--")
        gate = 2
        print("gate", gate, "is open")
        print("--")
        gate = 3
        print("gate", gate, "is open")
        print("--")
        """
    )
    (suggestion,) = found.suggestions
    assert (suggestion.status, suggestion.diff, suggestion.changes) == ("outline", "", ())
    assert "uses locals," in suggestion.why_not
    assert found.worked_answer.diff == ""


def test_copies_in_another_order_are_first_brought_into_one():
    text = """
    jump = [3.1, 2.8, 3.4]
    shot = [6.4, 5.9]
    high = [1.1, 1.3]
    best = max(jump)
    worst = min(jump)
    mean = sum(jump) / len(jump)
    print("best", best, "last", worst)
    print("mean", mean)
    print("and now the shot")
    mean = sum(shot) / len(shot)
    worst = min(shot)
    best = max(shot)
    print("best", best, "last", worst)
    print("mean", mean)
    if best > 6:
        print("a record")
    best = max(high)
    mean = sum(high) / len(high)
    worst = min(high)
    print("best", best, "last", worst)
    print("mean", mean)
    print("over", best)
    """
    found = report(text)
    assert [f.message for f in found.findings] == [
        "These five statements stand in three places; they differ only in values, once their lines are brought "
        "into one order."
    ]
    result = worked(text)
    assert result.count("best = print_best(") == 3
    assert "    best = max(values)\n    worst = min(values)\n    mean = sum(values) / len(values)\n" in result
    assert run(result) == run(dedent(text))


def test_an_order_that_matters_is_left_alone():
    for line in ("jump = iter([3.1, 2.8])", "jump = (x for x in [3, 1])", "jump = open('levels')"):
        text = f"""
        {line}
        shot = [6.4, 5.9]
        best = sum(jump)
        worst = len(list(jump))
        mean = sum([1, best])
        print("best", best, "last", worst)
        print("mean", mean)
        print("and now the shot")
        worst = len(list(shot))
        best = sum(shot)
        mean = sum([1, best])
        print("best", best, "last", worst)
        print("mean", mean)
        """
        assert [s.status for s in report(text).suggestions if s.lines_after < s.lines_before - 2] == []


def test_what_a_function_does_already_is_called():
    text = """
    def show_bird(name, number):
        total = number + 1
        print("Bird:", name)
        print("  seen:", number)
        return total


    def main():
        a = show_bird("heron", 3)
        b = 11 + 1
        print("Bird:", "curlew")
        print("  seen:", 11)
        print(a, b)
        total = 6 + 1
        print("Bird:", "avocet")
        print("  seen:", 6)
        print(total)


    main()
    """
    found = report(text)
    assert [f.message for f in found.findings] == [
        "These three statements stand in two places, and show_bird does the same already."
    ]
    result = worked(text)
    assert '    b = show_bird("curlew", 11)\n' in result
    assert '    total = show_bird("avocet", 6)\n' in result
    assert run(result) == run(dedent(text))


def test_a_function_that_does_almost_the_same_is_not_called():
    text = """
    def show_bird(name, number):
        print("Bird:", name)
        print("  seen:", number)
        print("  twice:", number + number)


    show_bird("heron", 3)
    print("Bird:", "curlew")
    print("  seen:", 11)
    print("  twice:", 11 + 12)
    """
    assert report(text).findings == ()


def test_questions_that_ask_again_become_a_function_that_returns():
    text = """
    def main():
        try:
            depth = int(input("depth: "))
        except ValueError:
            print("that is no number")
            depth = 0
        try:
            width = int(input("width: "))
        except ValueError:
            print("that is no number")
            width = 0
        try:
            height = int(input("height: "))
        except ValueError:
            print("that is no number")
            height = 0
        print(depth * width * height)


    main()
    """
    result = worked(text)
    assert '    depth = read_depth("depth: ")\n' in result or '    depth = read_number("depth: ")\n' in result
    assert result.count("int(input(") == 1
    for answers in ("2\n3\n4\n", "2\nx\n4\n"):
        assert run(result, answers) == run(dedent(text), answers)


def test_a_value_that_only_the_try_gives_is_not_returned():
    text = """
    def main():
        width = 1
        try:
            depth = int(input("depth: "))
            print("thank you for the depth")
        except ValueError:
            print("that is no number")
        print("and now the width")
        try:
            width = int(input("width: "))
            print("thank you for the depth")
        except ValueError:
            print("that is no number")
        print(width)


    main()
    """
    assert worked(text) == dedent(text).lstrip("\n")


def test_a_heading_that_is_the_same_but_for_a_word_is_part_of_its_copy() -> None:
    part = 'print("Type the heights for {0}")\n{1} = []\nfor i in range(3):\n    {1}.append(i + len({1}))\n'
    days = [("Monday", "monday"), ("Tuesday", "tuesday"), ("Friday", "last")]
    text = "".join(part.format(*day) for day in days) + "print(monday, tuesday, last)\n"
    after = worked(text)
    assert after.count("print(") == 2
    assert printed(after) == printed(text)
    other = text.replace("Type the heights for Tuesday", "Now come those of Tuesday")
    assert worked(other).count("print(") == 4


def test_what_is_read_into_a_list_is_several() -> None:
    part = "{0} = []\nfor i in range(3):\n    {0}.append(float(input('height: ')))\nprint('{0}', len({0}))\n"
    after = worked("".join(map(part.format, ["monday", "tuesday", "friday"])) + "print(monday + tuesday + friday)\n")
    assert "def read_numbers(" in after


VISITS = """
def cave():
    print("")
    print("You enter the cave.")
    answer = input("> ")
    if answer == "left":
        print("You find a rope.")
        return 5
    print("Nothing happens.")
    return 0


def forest():
    print("")
    print("You enter the forest.")
    answer = input("> ")
    if answer == "left":
        print("You find berries.")
        return 4
    print("Nothing happens.")
    return 0


score = 0
score = score + cave()
print("Your score is", score)
if score < 3:
    print("You are tired.")
score = score + forest()
print("Your score is", score)
if score < 3:
    print("You are tired.")
"""


def test_twins_are_merged_before_a_function_is_given_them_by_name() -> None:
    after = worked(VISITS)
    assert after.count("def ") == 1
    assert after.count("Nothing happens") == 1
    assert run(after, "left\nright\n") == run(VISITS, "left\nright\n")


RECEIPT = """
# Cafe receipt
tea = int(input("How many teas? "))
tea_cost = tea * 1.5
print("Tea:", tea, "x 1.5 =", tea_cost)
scone = int(input("How many scones? "))
scone_cost = scone * 2.25
print("Scone:", scone, "x 2.25 =", scone_cost)
soup = int(input("How many soups? "))
soup_cost = soup * 4.0
print("Soup:", soup, "x 4.0 =", soup_cost)
juice = int(input("How many juices? "))
juice_cost = juice * 1.8
print("Juice:", juice, "x 1.8 =", juice_cost)
print("Total:", tea_cost + scone_cost + soup_cost + juice_cost)
"""


def test_texts_that_follow_a_copys_variable_tell_that_the_copies_are_alike() -> None:
    after = worked(RECEIPT)
    # Named for what is asked for and read, not for the program's title or its first copy.
    assert "def read_cost(name, factor, label):" in after
    assert 'number = int(input(f"How many {name}? "))' in after
    assert run(after, "1\n2\n3\n4\n") == run(RECEIPT, "1\n2\n3\n4\n")


def test_a_parameter_for_objects_of_one_class_is_called_after_it() -> None:
    text = """
class Boat:
    def __init__(self, name, length):
        self.name = name
        self.length = length


b1 = Boat("Tern", 4)
b2 = Boat("Gull", 9)
size1 = b1.length * 3
if size1 > 20:
    print(b1.name, "is long")
else:
    print(b1.name, "is short")
print("It is", b1.length, "long")
print("checked")
size2 = b2.length * 3
if size2 > 20:
    print(b2.name, "is long")
else:
    print(b2.name, "is short")
print("It is", b2.length, "long")
print(size1 + size2)
"""
    after = worked(text)
    assert "(boat):" in after
    assert printed(after) == printed(text)


SORTS = """
def sort_names():
    names = ["Nell", "Anna", "Odo", "Cora"]
    for i in range(len(names)):
        for j in range(len(names) - i - 1):
            if names[j] > names[j + 1]:
                names[j], names[j + 1] = names[j + 1], names[j]
    print("Sorted names:", names)


def sort_marks():
    marks = [55, 81, 42, 67]
    for i in range(len(marks)):
        for j in range(len(marks) - i - 1):
            if marks[j] > marks[j + 1]:
                marks[j], marks[j + 1] = marks[j + 1], marks[j]
    print("Sorted marks:", marks)


sort_names()
sort_marks()
sort_names()
"""


def test_a_list_that_each_twin_begins_with_is_given_to_the_one_function() -> None:
    after = worked(SORTS)
    assert "(values, name):\n    for i" in after
    assert '(["Nell", "Anna", "Odo", "Cora"], "names")' in after
    assert printed(after) == printed(SORTS)


GENERAL = """
def sort_values(values, label):
{first}    values.append(3)
    print(label, values, {shown})


sort_values([1, 2], "one")
sort_values([1, 2], "two")
"""
TWO = """
def sort_names():
    names = [1, 2]
{between}    names.append(3)
    print("one", names, {shown})


def sort_marks():
    marks = [1, 2]
{between}    marks.append(3)
    print("two", marks, {other})


sort_names()
sort_marks()
"""


@pytest.mark.parametrize(
    ("between", "first", "shown", "names", "marks", "right"),
    [
        ("", "", "values", "names", "marks", True),
        ("", "", "[1, 2]", "[1, 2]", "[1, 2]", True),
        # Made once and used in two places it is one list; made in each place it is two.
        ("", "", "values", "[1, 2]", "[1, 2]", False),
        ("    print('first')\n", "", "values", "names", "marks", False),
        ("    print('first')\n", "    print('first')\n", "values", "names", "marks", True),
    ],
)
def test_such_a_list_is_the_functions_own_variable(
    between: str, first: str, shown: str, names: str, marks: str, right: bool
) -> None:
    before = TWO.format(between=between, shown=names, other=marks)
    after = GENERAL.format(first=first, shown=shown)
    claim = MergedFunctions("main.py", "sort_values", ("sort_names", "sort_marks"))
    assert prove(file(before), file(after), claim).proved is right


def test_what_is_called_after_what_the_function_is_called_after_tells_that_they_are_alike() -> None:
    text = """
let teaCount = 0;
let cakeCount = 0;
function addTea() {
  teaCount++;
  teaShown.textContent = "Tea: " + teaCount;
  console.log("added tea, total is now " + (teaCount * 2));
}
function addCake() {
  cakeCount++;
  cakeShown.textContent = "Cake: " + cakeCount;
  console.log("added cake, total is now " + (cakeCount * 3));
}
addTea();
addCake();
"""
    assert "twin-functions" in rules(text, language="javascript")
