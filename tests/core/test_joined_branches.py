"""Branches that do the very same: one of them asks for all; and what the proof of it refuses."""

import itertools
import random

import pytest
from builders import file, printed, report, run, worked
from runners import require_same_output

from partitor.feedback.wording import remark_text
from partitor.suggestions.proof import JoinedBranches, prove

HOURS = """\
for hour in range(24):
    if hour < 6:
        print("night")
        print("closed")
    elif hour > 21 and hour != 23:
        print("night")
        print("closed")
    elif hour == 12:
        print("lunch")
    else:
        print("open")
"""


def test_one_branch_asks_for_all() -> None:
    after = worked(HOURS)
    assert "    if hour < 6 or (hour > 21 and hour != 23):\n" in after
    assert after.count("closed") == 1
    assert run(after) == run(HOURS)
    (found,) = [f for f in report(HOURS).findings if f.rule == "repeated-run"]
    assert found.message.startswith("These two branches do the very same")
    assert [(p.start_line, p.end_line) for p in found.places] == [(2, 4), (5, 7)]


def test_long_tests_stand_below_each_other() -> None:
    tests = ['mine == "rock" and other == "scissors"', 'mine == "paper" and other == "rock"', 'mine == other == "odd"']
    branches = "".join(
        f'    {"if" if k == 0 else "elif"} {test}:\n        wins += 1\n        print("won")\n'
        for k, test in enumerate(tests)
    )
    text = 'wins = 0\nfor mine, other in [("rock", "scissors"), ("a", "b")]:\n' + branches + "print(wins)\n"
    after = worked(text)
    assert '\n            or (mine == "paper" and other == "rock")\n' in after
    assert printed(after) == printed(text)


@pytest.mark.parametrize("language", ["java", "c", "javascript", "csharp", "swift", "gamescript"])
@pytest.mark.parametrize("form", ["if ({}) {{\n{}}} else ", "if ({})\n{{\n{}}}\nelse "])
def test_so_it_is_with_braces(language: str, form: str, tmp_path) -> None:
    call = {"java": "System.out.println", "c": "printf", "csharp": "Console.WriteLine", "swift": "print"}
    say = call.get(language, "console.log")
    end = "\\n" if language == "c" else ""
    lines = [f'{say}("{word}{end}");\n' for word in ("night", "closed")]
    tests = ["hour < 6", "hour == 7 || hour == 8", "hour > 20 && hour < 23"]
    choice = "".join(form.format(test, "".join(lines)) for test in tests) + f'{{\n{say}("open{end}");\n}}\n'
    around = {
        "java": "class Main {{ public static void main(String[] args) {{\nfor (int hour = 0; hour < 24; hour++) {{\n{}}}\n}} }}\n",
        "c": "#include <stdio.h>\nint main(void) {{\nfor (int hour = 0; hour < 24; hour++) {{\n{}}}\nreturn 0;\n}}\n",
        "csharp": "using System;\nclass P {{ static void Main() {{\nfor (int hour = 0; hour < 24; hour++) {{\n{}}}\n}} }}\n",
        "swift": "for hour in 0..<24 {{\n{}}}\n",
    }
    text = around.get(language, "for (let hour = 0; hour < 24; hour++) {{\n{}}}\n").format(choice)
    after = worked(text, language)
    assert "hour < 6 || hour == 7 || hour == 8 || (hour > 20 && hour < 23)" in after
    require_same_output(language, text, after, tmp_path)


@pytest.mark.parametrize(
    "text",
    [
        "if x < 0:\n    print('no')\nelif x > 9:\n    print('no')\nelse:\n    print('yes')\n",
        "if x < 0:\n    print('no')\n    x = 0\nelif x > 9:\n    print('no')\n    x = 9\n",
        "if x < 0:\n    print('no')\n    x = 0\nelif x > 9:\n    print('yes')\nelif x == 5:\n    print('no')\n    x = 0\n",
        "if x < 0:\n    print('no')\n    x = 0\nif x > 9:\n    print('no')\n    x = 0\n",
    ],
)
def test_a_short_answer_or_another_one_stays(text: str) -> None:
    assert "repeated-run" not in {f.rule for f in report("x = 3\n" + text).findings}


@pytest.mark.parametrize("which", ["if hour < 6", "elif hour > 21 and hour != 23"])
def test_a_branch_that_leaves_the_loop_does_something_else(which: str) -> None:
    body = '        print("night")\n        print("closed")\n'
    text = HOURS.replace(f"    {which}:\n{body}", f"    {which}:\n{body}        break\n")
    assert text != HOURS
    assert "repeated-run" not in {f.rule for f in report(text).findings}


def test_branches_that_all_leave_the_loop_are_one() -> None:
    body = '        print("night")\n        print("closed")\n'
    text = HOURS.replace(body, f"{body}        break\n")
    after = worked(text)
    assert after.count("break") == 1
    assert run(after) == run(text)


def test_a_comment_of_one_branch_is_not_lost() -> None:
    text = HOURS.replace("    elif hour > 21", "    # late\n    elif hour > 21")
    assert worked(text) == text


def test_macros_ask_both_tests_and_are_only_told() -> None:
    text = "Sub Show()\n    If a < 6 Then\n        b = 1\n        c = 2\n    ElseIf d(a) > 21 Then\n        b = 1\n"
    text += "        c = 2\n    Else\n        b = 3\n    End If\nEnd Sub\n"
    (found,) = [s for s in report(text, language="visualbasic").suggestions if "branch" in s.title]
    assert found.status == "outline"
    assert "asks both" in found.why_not


def test_what_a_branch_keeps_for_the_next_time_is_its_own() -> None:
    text = "void step(int hour) {\n"
    for word, test in (("if", "hour < 6"), ("else if", "hour > 20")):
        text += f"  {word} ({test}) {{\n    static int seen = 0;\n    seen++;\n    show(seen);\n  }}\n"
    assert worked(text + "}\n", "c") == text + "}\n"


def test_the_proof_refuses_every_fault() -> None:
    """Tests in another order, one lost, another sign, another body, the rest changed."""
    before = file(HOURS)
    right = worked(HOURS)
    claim = JoinedBranches(before.path, 2)
    assert prove(before, file(right), claim).proved
    faults = [
        ("hour < 6 or (hour > 21 and hour != 23)", "(hour > 21 and hour != 23) or hour < 6"),
        ("hour < 6 or (hour > 21 and hour != 23)", "hour < 6 or hour > 21"),
        ("hour < 6 or (hour > 21 and hour != 23)", "hour < 6 or hour > 21 or hour != 23"),
        ("hour < 6 or (hour > 21 and hour != 23)", "hour < 6 and (hour > 21 or hour != 23)"),
        ('        print("closed")\n', ""),
        ('    elif hour == 12:\n        print("lunch")\n', ""),
        ('    else:\n        print("open")\n', ""),
        ('print("open")', 'print("shut")'),
        ("elif hour == 12", "if hour == 12"),
        ("range(24)", "range(23)"),
    ]
    for old, new in faults:
        assert old in right
        assert not prove(before, file(right.replace(old, new)), claim).proved, new


def test_any_choice_answers_as_before() -> None:
    """Random choices of up to seven branches, some with equal bodies."""
    r = random.Random(7)
    joined = 0
    for _ in range(60):
        tests = [r.choice(["n < {0}", "n == {0}", "n % {0} == 1 and n > 2", "n == {0} or n == 9"]) for _ in range(7)]
        bodies = ["say('a')\n    total += 1", "say('b')\n    total += n", "say('c')"]
        parts = [
            f"{word} {test.format(r.randint(2, 8))}:\n    {r.choice(bodies)}\n"
            for word, test in zip(itertools.chain(["if"], itertools.repeat("elif")), tests, strict=False)
        ]
        text = "def answer(n, total):\n" + _indented("".join(parts[: r.randint(2, 7)]) + "else:\n    total = 0\n")
        text = "def say(word):\n    print(word)\n\n\n" + text + "    return total\n\n\n"
        text += "for n in range(12):\n    print(answer(n, n))\n"
        after = worked(text)
        joined += after != text
        assert run(after) == run(text), after
    assert joined > 20


def _indented(text: str) -> str:
    return "".join(f"    {line}\n" for line in text.splitlines())


def test_the_page_does_not_speak_of_a_loop() -> None:
    """And with the shape only, the test is left to the student."""
    found = report(HOURS)
    (finding,) = found.findings
    (suggestion,) = found.suggestions
    text = remark_text(finding, suggestion, {"main.py": HOURS}, "shape")
    assert "loop" not in text.advice
    assert "if ____:" in text.code
    assert "hour" not in text.code
