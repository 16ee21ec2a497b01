"""What is too long is cut into several steps at once, which are proved together; and what that proof refuses."""

from __future__ import annotations

from random import Random

import pytest

from core.builders import file, printed, read, verdict, worked
from core.faults import with_faults
from partitor.deadline import Deadline
from partitor.program.program import Program
from partitor.repeats.limits import Limits
from partitor.suggestions import cutting, edits
from partitor.suggestions.cutting import Cut, Cutting, next_cut
from partitor.suggestions.proof import NewFunction, NewFunctions, prove
from partitor.suggestions.steps import NO_COPIES

TIDES = """
def main():
    tides = [31, 12, 44, 8, 27, 19]
    names = ["Mo", "Tu", "We", "Th", "Fr", "Sa"]

    # the highest tide
    highest = tides[0]
    day = names[0]
    for i in range(len(tides)):
        if tides[i] > highest:
            highest = tides[i]
            day = names[i]
    print("Highest on", day, "with", highest)

    # how many were low
    low = 0
    for tide in tides:
        if tide < 20:
            low = low + 1
            print(tide, "is low")
    if low > 2:
        print("mostly low")

    # the mean
    total = 0
    for tide in tides:
        total = total + tide
    mean = total / len(tides)
    if mean > 25:
        print("over the marsh")
    print("Mean", round(mean, 1))

    # a bar for each
    for i in range(len(tides)):
        bar = ""
        for k in range(tides[i] // 4):
            bar = bar + "#"
        print(names[i], bar)
    print("Ebb", highest - mean)


main()
"""

SHEDS = """
for shed in ["A", "B", "C"]:
    print("shed", shed)
    if shed == "B":
        print("  with a boat")
    if shed == "C":
        print("  locked")
boats = 3
paid = 0
for boat in range(boats):
    fee = 40
    if boat == 1:
        fee = fee + 15
    paid = paid + fee
    print("boat", boat, "pays", fee)
rest = 200
for visit in range(4):
    spent = visit * 12
    if spent > 20:
        spent = 20
    rest = rest - spent
    print("visit", visit, "spends", spent)
rows = 3
for row in range(rows):
    line = ""
    for place in range(row + 1):
        line = line + str(place)
        if place == 2:
            line = line + "!"
    print(line)
print(paid + rest)
"""


def cut(text: str, most: int = 12) -> Cut:
    """The first steps that are taken out of a program, all at once or one."""
    found = next_cut(Program([file(text)]), Limits(procedure_statements=most), Deadline(100), cutting_anew())
    assert found is not None
    return found


def cutting_anew(singly: str = "") -> Cutting:
    """Nothing tried yet."""
    return Cutting(set(), set(), NO_COPIES, {}, {singly})


@pytest.mark.parametrize("text", [TIDES, SHEDS])
def test_they_are_taken_at_once_and_the_program_does_the_same(text: str) -> None:
    found = cut(text)
    assert len(found.steps) > 2
    assert printed(found.after.source.text) == printed(text)
    longer = len(found.after.code_lines) - len(found.file.code_lines)
    assert sum(lines for _, lines in found.steps) == longer


@pytest.mark.parametrize("text", [TIDES, SHEDS])
def test_they_are_those_that_would_be_taken_one_by_one(text: str) -> None:
    together = cut(text)
    program, one_by_one = Program([file(text)]), cutting_anew(together.file.path)
    limits, titles = Limits(procedure_statements=12), []
    for _ in together.steps:
        step = next_cut(program, limits, Deadline(100), one_by_one)
        assert step is not None
        assert len(step.steps) == 1
        titles.append(step.steps[0][0].title)
        program = Program([step.after])
    assert titles == [step.title for step, _ in together.steps]
    assert program.files[0].source.text == together.after.source.text


def test_the_file_is_read_once_for_all_of_them(monkeypatch) -> None:
    read_again = []

    def counted(*asked):
        read_again.append(asked)
        return edits.rewritten(*asked)

    monkeypatch.setattr(cutting, "rewritten", counted)
    assert len(cut(TIDES).steps) > 2
    assert len(read_again) == 1


def test_steps_that_cannot_be_proved_together_are_taken_one_by_one(monkeypatch) -> None:
    monkeypatch.setattr(cutting, "_in_place", lambda changes: [edit for edit in changes if edit.end >= edit.start])
    alone, asked = cutting_anew(), Program([file(TIDES)])
    found = next_cut(asked, Limits(procedure_statements=12), Deadline(100), alone)
    assert found is not None
    assert len(found.steps) == 1
    assert alone.singly == {"", asked.files[0].path}


def test_where_variables_are_declared_they_are_taken_one_by_one() -> None:
    with_words = "function steps() {\n  let a = 1;\n  let b = 2;\n  print(a);\n  print(b);\n}\n"
    two = NewFunctions("x.js", (NewFunction("x.js", "one"), NewFunction("x.js", "two")))
    one = read(with_words, "javascript")
    assert not prove(one, one, two).proved


def claims(*names: str) -> NewFunctions:
    """Functions of these names in one file."""
    return NewFunctions("x.py", tuple(NewFunction("x.py", name) for name in names))


ASKING = """
def main():
    x = int(input())
    print(x)
    x = 3
    print(x + 1)
    x = 5
    print(x)


main()
"""
ASKED = "    x = int(input())\n    print(x)\n"
FIRST = f"def first():\n{ASKED}"
GIVEN_NOTHING = f"""
{FIRST}

def second(x):
    x = 3
    print(x + 1)


def main():
    first()
    second(x)
    x = 5
    print(x)


main()
"""


def test_no_call_reads_what_another_one_keeps_to_itself() -> None:
    found = verdict(ASKING, GIVEN_NOTHING, claims("first", "second"))
    assert not found.proved
    assert "without a value" in found.reason
    assert verdict(ASKING, GIVEN_NOTHING.replace(FIRST, "").replace("    first()\n", ASKED), claims("second")).proved
    right = GIVEN_NOTHING.replace("second(x)", "second()")
    assert verdict(ASKING, right, claims("first", "second")).proved


COUNTING = """
def main():
    eels = 2
    print("eels", eels)
    crabs = eels * 3
    print("crabs", crabs)
    if crabs > 4:
        print("many")


main()
"""
RIGHT = """
def count_eels():
    eels = 2
    print("eels", eels)
    return eels


def count_crabs(eels):
    crabs = eels * 3
    print("crabs", crabs)
    if crabs > 4:
        print("many")


def main():
    eels = count_eels()
    count_crabs(eels)


main()
"""
WRONG = {
    "the other way round": (
        "    eels = count_eels()\n    count_crabs(eels)\n",
        "    count_crabs(2)\n    count_eels()\n",
    ),
    "one is lost": ("    count_crabs(eels)\n", ""),
    "one is called twice": ("    count_crabs(eels)\n", "    count_crabs(eels)\n    count_crabs(eels)\n"),
    "nothing is given back": ("    eels = count_eels()\n", "    count_eels()\n"),
    "one calls the other": ("    return eels\n", "    count_crabs(eels)\n    return eels\n"),
    "one is the other's variable": ("crabs = eels * 3", "crabs = eels * 3 + 0 * len(str(count_eels))"),
    "a number is another one": ("crabs > 4", "crabs > 5"),
    "another statement": ("    count_crabs(eels)\n", "    count_crabs(eels)\n    print()\n"),
    "the other function": ("    eels = count_eels()\n", "    eels = count_crabs(2)\n"),
}


@pytest.mark.parametrize(("old", "new"), WRONG.values(), ids=WRONG)
def test_what_is_not_the_same_is_refused(old: str, new: str) -> None:
    names = claims("count_eels", "count_crabs")
    assert verdict(COUNTING, RIGHT, names).proved
    assert old in RIGHT
    assert not verdict(COUNTING, RIGHT.replace(old, new), names).proved


def test_both_are_known_when_they_are_called() -> None:
    start = RIGHT.index("def count_crabs")
    crabs = RIGHT[start : RIGHT.index("def main")]
    assert not verdict(COUNTING, RIGHT.replace(crabs, "") + f"\n\n{crabs}", claims("count_eels", "count_crabs")).proved


def test_two_cannot_have_one_name() -> None:
    assert not verdict(COUNTING, RIGHT, claims("count_eels", "count_eels")).proved


def test_seeded_faults_are_refused() -> None:
    random, seeded = Random(7), 0
    for text in (TIDES, SHEDS):
        found = cut(text)
        names = NewFunctions(found.file.path, tuple(NewFunction(found.file.path, c.name) for c, _ in found.steps))
        for _ in range(40):
            for kind, faulty in with_faults(text, found.after.source.text, random):
                seeded += 1
                if prove(found.file, file(faulty), names).proved:
                    assert printed(faulty) == printed(text), kind
    assert seeded > 150


def test_the_worked_answer_has_them_all() -> None:
    after = worked("\n".join([TIDES.replace("main", "tell_tides"), SHEDS]))
    assert printed(after) == printed("\n".join([TIDES.replace("main", "tell_tides"), SHEDS]))
    assert after.count("def ") > 5


LOST = """
def tell():
    count = 1
    for turn in range(2):
        try:
            count = count + turn
            print(count)
        except NameError:
            print("lost")
        del count


tell()
"""
HANDED_ON = """
def add(count, turn):
    try:
        count = count + turn
        print(count)
    except NameError:
        print("lost")
    return count


def tell():
    count = 1
    for turn in range(2):
        count = add(count, turn)
        del count


tell()
"""


def test_what_is_deleted_one_turn_before_is_not_handed_on() -> None:
    add = NewFunction("x.py", "add")
    assert not verdict(LOST, HANDED_ON, add).proved
    kept = [text.replace("        del count\n", "        print(2)\n") for text in (LOST, HANDED_ON)]
    assert verdict(*kept, add).proved
