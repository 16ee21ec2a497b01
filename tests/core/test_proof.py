"""The proof accepts what is right and refuses every seeded fault. It sees only texts and a claim."""

import re

import pytest
from builders import verdict

from partitor.suggestions.proof import CalledFunction, MergedFunctions, NewFunction, NewLoop

RUN = 'print("gate", 10)\nprint("gate", 20)\nprint("gate", 30)\n'
LOOP = 'for n in range(10, 31, 10):\n    print("gate", n)\n'
AT_1 = NewLoop("main.py", 1)

BLOCK = """
def main():
    x = 3
    y = x + 1
    print("y", y)
    print("--")
    x = 5
    y = x + 1
    print("y", y)
    print(x)

main()
"""
FUNCTION = """
def show(x):
    y = x + 1
    print("y", y)

def main():
    x = 3
    show(x)
    print("--")
    x = 5
    show(x)
    print(x)

main()
"""
SHOW = NewFunction("main.py", "show")


def test_right_rewritings_are_accepted():
    assert verdict(RUN, LOOP, AT_1).proved
    assert verdict(BLOCK, FUNCTION, SHOW).proved


@pytest.mark.parametrize(
    "loop",
    [
        'for n in range(10, 30, 10):\n    print("gate", n)\n',
        'for n in range(10, 41, 10):\n    print("gate", n)\n',
        'for n in range(0, 21, 10):\n    print("gate", n)\n',
        'for n in range(30, 9, -10):\n    print("gate", n)\n',
        'for n in [10, 20, 31]:\n    print("gate", n)\n',
        'for n in [10, 20, 30]:\n    print("gates", n)\n',
        'for n in [10, 20, 30]:\n    print(n, "gate")\n',
        'for n in [10, 20, 30]:\n    print("gate", "n")\n',
        'for n in [10, 20, 30]:\n    print("gate", n)\nelse:\n    pass\n',
        'for print in [10, 20, 30]:\n    print("gate", print)\n',
        'for n in [10, 20, 30]:\n    print("gate", n)\n    break\n',
        'for n in numbers:\n    print("gate", n)\n',
        'for n in [10.0, 20, 30]:\n    print("gate", n)\n',
        'for n in ["10", 20, 30]:\n    print("gate", n)\n',
        'print("gate", 10)\n' + LOOP,
        LOOP + 'print("more")\n',
    ],
)
def test_a_loop_with_a_seeded_fault_is_refused(loop):
    line = 2 if loop.startswith("print") else 1
    assert not verdict(RUN, loop, NewLoop("main.py", line)).proved


@pytest.mark.parametrize(
    ("before", "after", "why"),
    [
        ("def range(*a):\n    return [1]\n" + RUN, "def range(*a):\n    return [1]\n" + LOOP, "range"),
        ("from tools import *\n" + RUN, "from tools import *\n" + LOOP, "star import"),
        ("n = 7\n" + RUN + "print(n)\n", "n = 7\n" + LOOP + "print(n)\n", "n"),
        (RUN + "print(locals())\n", LOOP + "print(locals())\n", "locals"),
    ],
)
def test_names_that_mean_something_else_are_noticed(before, after, why):
    line = next(i for i, text in enumerate(after.split("\n"), 1) if text.startswith("for "))
    result = verdict(before, after, NewLoop("main.py", line))
    assert not result.proved
    assert why in result.reason


def test_a_name_that_is_rebound_between_the_copies_cannot_be_listed_early():
    before = "a = 1\nb = 2\nc = 3\nprint(a)\nb = 9\nprint(b)\nb = 9\nprint(c)\nb = 9\n"
    after = "a = 1\nb = 2\nc = 3\nfor v in [a, b, c]:\n    print(v)\n    b = 9\n"
    result = verdict(before, after, NewLoop("main.py", 4))
    assert (result.proved, result.reason) == (False, "b changes between the copies")


def test_a_value_worked_out_on_the_spot_is_not_taken_early():
    before = "print('x')\nshow(next(g))\nprint('x')\nshow(next(h))\nprint('x')\nshow(next(k))\n"
    after = "for v in [next(g), next(h), next(k)]:\n    print('x')\n    show(v)\n"
    assert not verdict(before, after, AT_1).proved


def test_a_function_that_keeps_the_loops_variable_for_later_is_refused():
    before = "calls = []\n" + "".join(f"calls.append(lambda: print({n}))\n" for n in (1, 2, 3))
    after = "calls = []\nfor n in range(1, 4):\n    calls.append(lambda: print(n))\n"
    assert not verdict(before, after, NewLoop("main.py", 2)).proved


def test_break_in_the_copies_would_leave_the_new_loop():
    copy = "    if read() < {0}:\n        break\n    print({0})\n"
    before = "while True:\n" + "".join(copy.format(n) for n in (1, 2, 3))
    after = "while True:\n    for n in range(1, 4):\n        if read() < n:\n            break\n        print(n)\n"
    assert "break" in verdict(before, after, NewLoop("main.py", 2)).reason


def test_a_fresh_list_in_each_turn_is_not_shared():
    before = "for_a = 0\n" + "".join(f"x = [{n}]\ny = [{n}]\nuse(x, y)\n" for n in (1, 2, 3))
    after = "for_a = 0\nfor v in [[1], [2], [3]]:\n    x = v\n    y = v\n    use(x, y)\n"
    assert not verdict(before, after, NewLoop("main.py", 2)).proved


@pytest.mark.parametrize(
    ("wrong", "right"),
    [
        ("y = x + 2", "y = x + 1"),
        ("    show(x)\n    show(x)\n    print(x)", "    show(x)\n    print(x)"),
        ("def show(x):\n    print('hi')", "def show(x):"),
        ("    show(5)", "    show(x)"),
        ("def show(x, y):", "def show(x):"),
        ("def show(*x):", "def show(x):"),
        ("def show(x=3):", "def show(x):"),
        ("async def show(x):", "def show(x):"),
        ("    return y\n\ndef main", "\ndef main"),
        ("    global y\n    y = x + 1", "    y = x + 1"),
    ],
)
def test_a_function_with_a_seeded_fault_is_refused(wrong, right):
    assert right in FUNCTION
    assert not verdict(BLOCK, FUNCTION.replace(right, wrong, 1), SHOW).proved


def test_a_value_that_is_needed_afterwards_must_be_returned():
    before = BLOCK.replace("print(x)", "print(x, y)")
    after = FUNCTION.replace("print(x)", "print(x, y)")
    result = verdict(before, after, SHOW)
    assert (result.proved, result.reason) == (False, "y is needed afterwards and not returned")
    returned = after.replace('print("y", y)\n', 'print("y", y)\n    return y\n', 1)
    returned = re.sub(r"^    show\(x\)", "    y = show(x)", returned, flags=re.MULTILINE)
    assert verdict(before, returned, SHOW).proved


def test_a_global_that_other_functions_read_may_not_become_local():
    before = "def tell():\n    print(level)\n\nlevel = 3\ntell()\nlevel = 4\ntell()\n"
    after = "def tell():\n    print(level)\n\ndef step(n):\n    level = n\n    tell()\n\nstep(3)\nstep(4)\n"
    assert "level" in verdict(before, after, NewFunction("main.py", "step")).reason


def test_half_done_work_in_a_try_block_stays_visible():
    before = "x = 0\ntry:\n    x = 5\n    risky(x)\nexcept OSError:\n    pass\nprint(x)\n"
    after = (
        "def step():\n    x = 5\n    risky(x)\n    return x\n\nx = 0\ntry:\n    x = step()\n"
        "except OSError:\n    pass\nprint(x)\n"
    )
    assert not verdict(before, after, NewFunction("main.py", "step")).proved


def test_a_variable_of_the_function_around_cannot_be_seen_from_the_new_one():
    before = "def main():\n    unit = 'cm'\n    print(3, unit)\n    print(4)\n\nmain()\n"
    after = "def show():\n    print(3, unit)\n\ndef main():\n    unit = 'cm'\n    show()\n    print(4)\n\nmain()\n"
    assert "unit" in verdict(before, after, NewFunction("main.py", "show")).reason


def test_capture_by_a_comprehension_is_noticed():
    before = "def main():\n    x = 2\n    print([x * x for x in data])\n\nmain()\n"
    after = "def show(n):\n    print([x * n for x in data])\n\ndef main():\n    x = 2\n    show(x)\n\nmain()\n"
    assert not verdict(before, after, NewFunction("main.py", "show")).proved


def test_an_argument_may_be_worked_out_early_only_if_it_comes_first_anyway():
    first = "def main():\n    x = read(1)\n    print(x)\n\nmain()\n"
    first_after = "def show(v):\n    x = v\n    print(x)\n\ndef main():\n    show(read(1))\n\nmain()\n"
    assert verdict(first, first_after, NewFunction("main.py", "show")).proved
    late = "def main():\n    print('now')\n    x = read(1)\n    print(x)\n\nmain()\n"
    late_after = "def show(v):\n    print('now')\n    x = v\n    print(x)\n\ndef main():\n    show(read(1))\n\nmain()\n"
    assert not verdict(late, late_after, NewFunction("main.py", "show")).proved


def test_the_function_must_be_defined_before_it_is_called():
    before = "print(1)\nprint(2)\nend()\n"
    after = "show()\n\ndef show():\n    print(1)\n    print(2)\n\nend()\n"
    assert not verdict(before, after, NewFunction("main.py", "show")).proved


TWINS = "def a():\n    print('a', 1)\n\ndef b():\n    print('b', 2)\n\na()\nb()\n"
MERGED = "def say(name, n):\n    print(name, n)\n\nsay('a', 1)\nsay('b', 2)\n"
SAY = MergedFunctions("main.py", "say", ("a", "b"))


def test_merged_twins_are_accepted_and_faults_in_them_refused():
    assert verdict(TWINS, MERGED, SAY).proved
    for wrong in ("say('b', 1)", "say('a', 2)", "say(2, 'b')", "say('b', two)", "say('b', 2, 2)"):
        assert not verdict(TWINS, MERGED.replace("say('b', 2)", wrong), SAY).proved
    assert not verdict(TWINS + "later = a\n", MERGED + "later = a\n", SAY).proved
    assert not verdict(TWINS.replace("def b():", "@cached\ndef b():"), MERGED, SAY).proved


def test_an_argument_that_has_no_value_in_one_place_is_refused_even_if_it_is_not_used():
    before = BLOCK
    after = FUNCTION.replace("def show(x):", "def show(x, z):").replace(
        'show(x)\n    print("--")', 'show(x, 1)\n    print("--")'
    )
    after = after.replace("    show(x)\n    print(x)", "    show(x, nowhere)\n    print(x)")
    result = verdict(before, after, SHOW)
    assert (result.proved, result.reason) == (False, "nowhere has no value there")


def test_a_students_own_variable_may_stand_for_its_value_but_not_before_it_is_set():
    before = "".join(f"print('at', {n})\nlevel = {n}\nprint(level)\n" for n in (1, 2, 3))
    after = "for level in range(1, 4):\n    print('at', level)\n    print(level)\n"
    assert verdict(before, after, AT_1).proved
    early = "level = 0\n" + "".join(f"print(level)\nlevel = {n}\nprint('--')\n" for n in (1, 2, 3))
    early_after = "level = 0\nfor level in range(1, 4):\n    print(level)\n    print('--')\n"
    assert not verdict(early, early_after, NewLoop("main.py", 2)).proved


def test_two_parameters_of_one_name_are_refused():
    before = "a = 1\nb = 2\nprint(a, b)\nprint(b)\nprint('--')\nprint(a, b)\nprint(b)\n"
    after = "a = 1\nb = 2\ndef show(a, a):\n    print(a, a)\n    print(a)\nshow(a, b)\nprint('--')\nshow(a, b)\n"
    assert not verdict(before, after, NewFunction("main.py", "show")).proved


def test_a_variable_renamed_in_one_place_and_not_in_another_is_refused():
    copy = "mean = sum(data) / len(data)\nprint('mean', mean)\nprint('so', mean * 2)\n"
    before = "data = [1, 2]\n" + copy + "print('--')\n" + copy
    define = "def show(data):\n    other = sum(data) / len(data)\n    print('mean', {0})\n    print('so', {0} * 2)\n"
    after = "data = [1, 2]\n" + define + "{1}show(data)\nprint('--')\n{1}show(data)\n"
    claim = NewFunction("main.py", "show")
    assert verdict(before, after.format("other", ""), claim).proved
    assert not verdict(before, after.format("mean", ""), claim).proved


CALLED = """
def show(name):
    print(name)
    print("seen")

show("a")
print("b")
print("seen")
"""


def test_a_call_of_a_function_that_was_there_must_do_what_the_copy_did():
    claim = CalledFunction("main.py", "show")
    right = CALLED.replace('print("b")\nprint("seen")', 'show("b")')
    assert verdict(CALLED, right, claim).proved
    for wrong in (
        right.replace('show("b")', 'show("a")'),
        right.replace('show("b")', 'show("b", 1)'),
        right.replace('print("seen")', 'print("sean")'),
        right.replace('show("a")\n', ""),
        right.replace('show("a")', 'show("b")'),
        right.replace('show("b")', 'x = show("b")'),
    ):
        assert not verdict(CALLED, wrong, claim).proved


def test_a_function_that_is_rebound_is_not_called():
    claim = CalledFunction("main.py", "show")
    for line in ("show = len", "def show(x): pass", "for show in []: pass", "from birds import *"):
        before = CALLED + line + "\n"
        after = before.replace('print("b")\nprint("seen")', 'show("b")')
        assert not verdict(before, after, claim).proved


def test_lines_change_places_only_where_nothing_can_tell():
    body = "best = max(jump)\nworst = min(jump)\nprint(best, worst)\nprint('--')\n"
    swapped = "worst = min({0})\nbest = max({0})\nprint(best, worst)\nprint('--')\n"
    define = "def show(values):\n    best = max(values)\n    worst = min(values)\n    print(best, worst)\n    print('--')\n\n"
    claim = NewFunction("main.py", "show")

    def judged(head: str) -> bool:
        before = head + body + "print(1)\n" + swapped.format("shot")
        after = head + define + "show(jump)\nprint(1)\nshow(shot)\n"
        return verdict(before, after, claim).proved

    assert judged("jump = [1, 2]\nshot = [3, 4]\n")
    assert not judged("jump = [1, 2]\nshot = iter([3, 4])\n")
    assert not judged("jump = [1, 2]\nshot = (x for x in jump)\n")
    assert not judged("import csv\njump = [1, 2]\nshot = csv.reader([])\n")
    assert not judged("class Loud:\n    pass\njump = [1, 2]\nshot = [Loud()]\n")
    assert not judged("jump = [1, 2]\nshot = [3, 4]\ndef max(x):\n    print(x)\n    return x\n")


def test_a_number_that_is_moved_on_must_be_known_and_move_as_the_loop_does():
    copies = "print(level)\nprint('--')\nlevel = level - 5\n" * 3 + "print(level)\nprint('--')\nprint(level)\n"
    loop = "for level in range(30, 14, -5):\n    print(level)\n    print('--')\nprint(level)\n"

    def judged(head: str, original: str = copies, after: str = loop) -> bool:
        return verdict(head + original, head + after, NewLoop("main.py", head.count("\n") + 1)).proved

    assert judged("level = 30\n")
    assert judged("level = 30\nprint('start')\n")
    assert not judged("level = 31\n")
    assert not judged("level = int(input())\n")
    assert not judged("level = 30\nlevel += 1\n")
    assert not judged("level = 30\nif level:\n    level = 30\n")
    assert not judged("def sink():\n    global level\n    level = 0\nlevel = 30\nsink()\n")
    assert not judged("level = 30\n", copies.replace("level - 5", "level - 4", 1))
    assert not judged("level = 30\n", copies, loop.replace("14", "9"))
    assert not judged("level = 30\n", copies, loop.replace("-5", "-4"))


@pytest.mark.parametrize(
    ("value", "call", "why"),
    [
        ("c * 2", "x = made(b)", ""),
        ("c * 3", "x = made(b)", "does not give the lines"),
        ("c * 2", "y = made(b)", "do not go back to their variables"),
        ("c * 2", "made(b)", "do not go back to their variables"),
        ("(yield c)", "x = made(b)", "leave the function"),
        ("(y := c) + 1", "x = made(b)", "y is needed afterwards"),
        # Nobody gives `c` another value later.
        ("[lambda: c, 2]", "x = made(b)", ""),
        ("[lambda: y, 2]", "x = made(b)", "cannot see"),
        ("c + len(locals())", "x = made(b)", "locals"),
    ],
)
def test_what_a_function_works_out_and_gives_back_at_once_is_part_of_it(value, call, why):
    before = "def g(b):\n    y = 5\n    c = b + 1\n    x = {}\n    print(x, y)\n\ng(1)\n"
    after = "def made(b):\n    c = b + 1\n    return {}\n\ndef g(b):\n    y = 5\n    {}\n    print(x, y)\n\ng(1)\n"
    original = value if why != "does not give the lines" else "c * 2"
    told = verdict(before.format(original), after.format(value, call), NewFunction("main.py", "made"))
    assert told.proved is not bool(why)
    assert why in told.reason
