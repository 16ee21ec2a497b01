"""Branches that count, stretches that differ in an operator, small runs over the same variables: told, and proved or
outlined; and what looks like them in well-made programs is left alone."""

import pytest
from builders import printed, report, rules, worked

COUNTED = {
    "python": (
        "text = 'an otter eats ice'\na = 0\ne = 0\ni = 0\no = 0\nfor letter in text:\n    if letter == 'a':\n        a += 1\n"
        "    elif letter == 'e':\n        e += 1\n    elif letter == 'i':\n        i += 1\n    elif letter == 'o':\n"
        "        o += 1\nprint(a + e, i, o)\n"
    ),
    "javascript": (
        "function count(text) {\n  let a = 0, e = 0, i = 0, o = 0;\n  for (const c of text) {\n    if (c === 'a') a++;\n"
        "    else if (c === 'e') e++;\n    else if (c === 'i') i++;\n    else if (c === 'o') o++;\n  }\n"
        "  return [a, e, i, o];\n}\nconsole.log(count('an otter'));\n"
    ),
    "java": (
        "public class Main {\n    public static void main(String[] args) {\n        int a = 0, b = 0, c = 0, d = 0;\n"
        "        for (char m : new char[] {'A', 'B', 'D'}) {\n            switch (m) {\n"
        + "".join(
            f"                case '{m.upper()}':\n                    {m}++;\n                    break;\n"
            for m in "abcd"
        )
        + "            }\n        }\n        System.out.println(a + b + c + d);\n    }\n}\n"
    ),
}


@pytest.mark.parametrize("language", sorted(COUNTED))
def test_branches_that_count_are_one_finding(language: str) -> None:
    (finding,) = [f for f in report(COUNTED[language], language=language).findings if f.rule == "repeated-run"]
    assert len(finding.places) == 4
    assert "each with a variable of its own" in finding.message
    (suggestion,) = [s for s in report(COUNTED[language], language=language).suggestions if s.id == finding.suggestion]
    if language == "python":
        assert suggestion.title == "A dictionary count_by_letter in place of 4 branches"
        assert printed(worked(COUNTED[language])) == printed(COUNTED[language])
    else:
        assert suggestion.status == "outline"
        assert "dictionary or list" in suggestion.outline


@pytest.mark.parametrize(
    "text",
    [
        # what is chosen, not counted
        "def settle(kind):\n    a = b = c = d = 1\n    if kind == 'w':\n        a = 9\n    elif kind == 'x':\n        b = 9\n"
        "    elif kind == 'y':\n        c = 9\n    elif kind == 'z':\n        d = 9\n    return a, b, c, d\n\n\n"
        "print(settle('w'))\n",
        # steps of a walk
        "x = y = 0\nfor key in 'wasd':\n    if key == 'w':\n        y -= 5\n    elif key == 's':\n        y += 5\n"
        "    elif key == 'a':\n        x -= 5\n    elif key == 'd':\n        x += 5\nprint(x, y)\n",
        # three are a choice yet
        "a = b = c = 0\nfor m in 'abc':\n    if m == 'a':\n        a += 1\n    elif m == 'b':\n        b += 1\n"
        "    elif m == 'c':\n        c += 1\nprint(a, b, c)\n",
        # each does its own
        "a = b = c = d = 0\nfor m in 'abcd':\n    if m == 'a':\n        a += 1\n    elif m == 'b':\n        b += a\n"
        "    elif m == 'c':\n        c *= 3\n    elif m == 'd':\n        d -= b\nprint(a, b, c, d)\n",
    ],
)
def test_other_choices_are_left_alone(text: str) -> None:
    assert "repeated-run" not in rules(text)


BEST = (
    "def main():\n    catches = [4, 9, 2, 7]\n    names = ['Ada', 'Ben', 'Cleo', 'Dov']\n    best = catches[0]\n"
    "    best_name = names[0]\n    for i in range(len(catches)):\n        if catches[i] > best:\n"
    "            best = catches[i]\n            best_name = names[i]\n    print('best', best_name, best)\n"
    "    worst = catches[0]\n    worst_name = names[0]\n    for i in range(len(catches)):\n"
    "        if catches[i] < worst:\n            worst = catches[i]\n            worst_name = names[i]\n"
    "    print('worst', worst_name, worst)\n\n\nmain()\n"
)


def test_the_best_and_the_worst_are_looked_for_alike() -> None:
    (finding,) = [f for f in report(BEST).findings if f.rule == "repeated-block"]
    assert [(p.start_line, p.end_line) for p in finding.places] == [(4, 10), (11, 17)]
    assert "alike but for one line" in finding.message


def test_what_differs_in_most_lines_is_not_alike() -> None:
    text = BEST.replace("worst = catches[i]", "worst -= catches[i]").replace("worst_name = names[i]", "worst_name *= 2")
    assert "repeated-block" not in rules(text)


NUMBERED = (
    "b1 = input('boat 1: ')\nb2 = input('boat 2: ')\nb3 = input('boat 3: ')\n{again}"
    "if b1 < b2 and b1 < b3:\n    print('one')\nelif b2 < b3:\n    print('two')\nelse:\n    print('three')\n"
)


def test_small_runs_over_the_same_variables_count_together() -> None:
    again = "b1 = float(b1)\nb2 = float(b2)\nb3 = float(b3)\n"
    assert rules(NUMBERED.format(again=again)).count("repeated-run") == 2
    assert "repeated-run" not in rules(NUMBERED.format(again=""))


def test_the_sides_of_a_triangle_are_no_list() -> None:
    text = "a = float(input('a: '))\nb = float(input('b: '))\nc = float(input('c: '))\na = abs(a)\nb = abs(b)\nc = abs(c)\n"
    assert "repeated-run" not in rules(text + "s = (a + b + c) / 2\nprint((s * (s - a) * (s - b) * (s - c)) ** 0.5)\n")


def test_days_and_their_variables_are_one_row() -> None:
    days = ["mon", "tue", "wed", "thu", "fri"]
    text = "".join(f"{d} = [{k}, {k * 3 % 7}, 5]\n" for k, d in enumerate(days))
    text += "".join(f"print('{d.title()}:', sum({d}), 'mean', sum({d}) / len({d}))\n" for d in days)
    assert rules(text).count("repeated-run") == 1


CHOICES = "def leet(letter):\n    sign = letter\n    if letter == 'a':\n        sign = '4'\n{more}    return sign\n\n\nprint(leet('e'))\n"


def choices(*pairs: str) -> str:
    return CHOICES.format(more="".join(f"    elif letter == '{a}':\n        sign = '{b}'\n" for a, b in pairs))


def test_a_table_in_the_form_of_branches_is_told() -> None:
    text = choices("e3", "i1", "o0", "s5")
    (finding,) = [f for f in report(text).findings if f.rule == "repeated-run"]
    assert "five branches do the same, each with a value of its own" in finding.message
    assert "repeated-run" not in rules(choices("e3", "i1", "o0"))
    assert "repeated-run" not in rules(text.replace("== ", ">= "))
    assert "repeated-run" not in rules(text.replace("sign = '0'", "sign = letter.upper()"))


CALLING = """def add(a, b):
    return a + b


def times(a, b):
    return a * b


{more}def main():
    x = 3
    y = 4
{before}    result = add(x, y)
    print("result", result)
    print("-" * 10)
    print("Now the other")
    x = 3
    y = 4
{before}    result = times(x, y)
    print("result", result)
    print("-" * 10)


main()
"""


def test_blocks_that_call_different_functions_become_one_that_is_given_it() -> None:
    text = CALLING.format(more="", before="")
    after = worked(text)
    assert after.count("result = ") == 1
    assert "(add)" in after
    assert "(times)" in after
    assert printed(after) == printed(text)


def test_not_where_a_function_may_be_exchanged_in_between() -> None:
    swap = "def swap():\n    global add, times\n    add, times = times, add\n\n\n"
    text = CALLING.format(more=swap, before="    swap()\n")
    assert "repeated-block" in rules(text)
    assert printed(worked(text)) == printed(text) == "result 12\n----------\nNow the other\nresult 12\n----------\n"


ANIMAL = """class {0}:
    def __init__(self, name):
        self.name = name
        self.energy = 10

    def speak(self):
        self.energy -= 1
        print(self.name, "says {1}")
        print("energy", self.energy)


"""


def test_classes_of_which_all_methods_are_alike_are_told_once() -> None:
    text = ANIMAL.format("Dog", "woof") + ANIMAL.format("Cat", "miaow") + "Dog('Rex').speak()\nCat('Tom').speak()\n"
    (finding,) = [f for f in report(text).findings if f.rule == "twin-functions"]
    assert [p.start_line for p in finding.places] == [1, 12]
    assert finding.message == "The classes Dog and Cat have the same two methods; they differ only in one thing."


@pytest.mark.parametrize(
    "other",
    [
        # one method does something else
        ANIMAL.format("Cat", "miaow").replace("self.energy -= 1", "self.energy = self.energy // 2"),
        # it has no place for the energy
        ANIMAL.format("Cat", "miaow").replace("        self.energy = 10\n", ""),
    ],
)
def test_classes_that_differ_in_what_they_do_are_apart(other: str) -> None:
    assert "twin-functions" not in rules(
        ANIMAL.format("Dog", "woof") + other + "Dog('Rex').speak()\nCat('T').speak()\n"
    )


def test_small_classes_of_one_kind_are_apart() -> None:
    shape = "class {0}(Shape):\n    def __init__(self, size):\n        self.size = size\n\n    def sides(self):\n        return {1}\n\n\n"
    text = "class Shape:\n    pass\n\n\n" + shape.format("Square", 4) + shape.format("Hut", 5)
    assert "twin-functions" not in rules(text + "print(Square(2).sides(), Hut(3).sides())\n")


DAYS = "def days_in(month):\n{tests}    return 31\n\n\nprint(days_in(4))\n"


def test_tests_that_each_return_a_value_are_told_once() -> None:
    tests = [
        f"    if month == {m}:\n        return {d}\n" for m, d in ((1, 31), (2, 28), (3, 31), (4, 30), (5, 31), (6, 30))
    ]
    found = report(DAYS.format(tests="".join(tests))).findings
    assert [f.rule for f in found] == ["repeated-run"]
    assert len(found[0].places) == 6
    assert not rules(DAYS.format(tests="".join(tests[:4])))
    guards = "    if month < 1:\n        return 0\n    if month > 12:\n        return -1\n    if month == 2:\n        return 28\n"
    assert not rules(DAYS.format(tests=guards))


def test_three_short_copies_with_variables_of_their_own_are_a_function() -> None:
    days = ("mon", "tue", "wed")
    text = "".join(f"hours_{d} = {k}\n" for d, k in zip(days, (8, 9, 7), strict=True))
    text += "".join(
        f"pay_{d} = hours_{d} * 14\nif hours_{d} > 8:\n    pay_{d} = pay_{d} + (hours_{d} - 8) * 7\n" for d in days
    )
    text += "print(pay_mon + pay_tue + pay_wed)\n"
    (suggestion,) = report(text).suggestions
    assert suggestion.title.startswith("A function find_pay(hours)")


def test_what_branches_and_classes_repeat_is_measured() -> None:
    counted = report(COUNTED["python"]).measures
    assert counted["repeated_share"] > 0.1
    assert counted["run_share"] == 0
    classes = report(
        ANIMAL.format("Dog", "woof") + ANIMAL.format("Cat", "miaow") + "Dog('R').speak()\nCat('T').speak()\n"
    )
    assert classes.measures["repeated_share"] > 0.3


WATCH = "def watch(hours):\n    if hours < 4:\n{0}    elif hours < 8:\n{1}    elif hours < 12:\n{2}    else:\n{3}"


def test_short_branches_are_a_function_where_there_are_four() -> None:
    form = "        print(hours, '{0} watch')\n        lookout = '{1}'\n        print('lookout:', lookout)\n"
    names = ("first", "Ada"), ("second", "Ben"), ("third", "Cleo"), ("day", "all")
    text = (
        WATCH.format(*(form.format(*pair) for pair in names)) + "\n\nfor hours in range(0, 24, 3):\n    watch(hours)\n"
    )
    assert rules(text).count("repeated-block") == 1
    after = worked(text)
    assert after.count("lookout:") == 1
    assert printed(after) == printed(text)
    three = text.replace("    elif hours < 12:\n" + form.format("third", "Cleo"), "")
    assert "repeated-block" not in rules(three)


def test_three_variables_of_the_names_that_are_asked_for_are_one_dictionary() -> None:
    tests = "".join(f'    {"if" if k == 0 else "elif"} v == "{n}":\n        {n} += 1\n' for k, n in enumerate(NAMES))
    text = "".join(f"{name} = 0\n" for name in NAMES) + "for v in votes():\n" + tests + "print(pier, dune, mill)\n"
    assert "repeated-run" in rules(text)


NAMES = ("pier", "dune", "mill")


def test_classes_alike_as_a_whole_are_told_once_though_a_method_is_quite_the_same() -> None:
    pet = """
class {0}:
    def __init__(self, name):
        self.name = name
        self.energy = 5

    def play(self):
        if self.energy > 0:
            self.energy -= 1
            print(self.name, "plays")
        else:
            print(self.name, "is tired")

    def speak(self):
        print(self.name, "says {1}")

"""
    text = pet.format("Dog", "woof") + pet.format("Cat", "miaow") + 'Dog("Rex").play()\nCat("Tom").speak()\n'
    assert [f.rule for f in report(text).findings if f.rule.startswith(("twin", "repeated"))] == ["twin-functions"]


LADDERS = """
place = 1
while place < 50:
    place = place + int(input("Rolled: "))
    if place == 7:
        print("A ladder!")
        place = 19
        {same}
    elif place == 15:
        print("A snake!")
        place = 4
        {same}
    elif place == 22:
        print("A ladder!")
        place = 37
        {same}
    elif place == 44:
        print("A snake!")
        place = 30
        {last}
"""


@pytest.mark.parametrize(
    ("same", "last", "expected"),
    [
        ('print("Now on", place)', 'print("Now on", place)', True),
        ('print("Now on", place)', "place = place + 1", False),
        ("pass", "turns = 3", False),
    ],
)
def test_branches_that_set_something_and_go_on_alike_are_a_table(same, last, expected):
    assert ("repeated-run" in rules(LADDERS.format(same=same, last=last))) is expected
