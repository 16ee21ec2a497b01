"""Laws that hold for any input: reading never raises, order never matters, output never changes."""

from random import Random

from builders import report, run, source
from hypothesis import given, settings
from hypothesis import strategies as st
from msgspec import structs

from partitor.check import check
from partitor.exchange.assignment import Assignment
from partitor.reading.archives import Entry
from partitor.reading.collect import Submission, submission_of
from partitor.reading.encoding import decode
from partitor.source import Source
from partitor.suggestions.patches import raw_lines, with_line_ends

PIECES = st.sampled_from(
    [
        "def f(a):",
        "    return a",
        "if x:",
        "else:",
        "for i in range(3):",
        "print(1)",
        "print('a', x)",
        "x = x + 1",
        "    y = [",
        "]",
        "class A:",
        "'''",
        '"',
        "#",
        "\t",
        "f(",
        ")",
        "while True:",
        "    break",
        "global x",
        "del x",
        "lambda: x",
        "@dec",
        "try:",
        "except E as e:",
        "match x:",
        "    case 1:",
        "\\",
        ";",
        "\x0c",
        "é",
        "🐟",
        ":",
        "async",
    ]
)


@settings(max_examples=150, deadline=None)
@given(st.lists(PIECES, max_size=40).map("\n".join) | st.text(max_size=200))
def test_any_text_is_read_without_raising(text):
    found = check(Submission("x", (Source("main.py", text, "python"),)), Assignment())
    assert found.measures["statements"] >= 0
    for finding in found.findings:
        assert all(1 <= p.start_line <= p.end_line for p in finding.places)


@settings(max_examples=80, deadline=None)
@given(st.binary(max_size=300))
def test_any_bytes_are_a_submission_or_a_sentence(data):
    decode(data)
    assert submission_of("x", [Entry("main.py", data)], []).name == "x"


@settings(max_examples=100, deadline=None)
@given(st.lists(st.sampled_from(["a\n", "b\r\n", "c\n", "\r\n", "d"]), max_size=8))
def test_line_ends_of_untouched_lines_stay(lines):
    raw = "".join(lines)
    text = raw.replace("\r\n", "\n")
    original = None if raw == text else raw
    assert "".join(raw_lines(raw)) == raw
    assert with_line_ends(Source("m.py", text, "python", original=original), text) == raw


def generated_program(seed: int) -> str:
    """A structured program, unrolled and inlined into what a beginner would have copied, with noise."""
    random = Random(seed)
    lines = ["total = 7", "log = []"]
    for _ in range(random.randint(1, 3)):
        count, step, start = random.randint(3, 6), random.choice([1, 2, -3, 10]), random.randint(0, 50)
        words = random.sample(["north", "mill", "east", "ferry", "harbour", "creek"], count)
        body = random.sample(
            [
                "print('gate', {n})",
                "print('at', '{w}', {n})",
                "total = total + {n}",
                "log.append('{w}')",
                "if total > {n}:\n    print('over', {n})\nelse:\n    print('under')",
                "level = {n}\nprint(level * 2)",
                "print('--')",
                "for k in range(2):\n    print(k, {n})",
            ],
            random.randint(2, 4),
        )
        for i in range(count):
            if random.random() < 0.3:
                lines.append(f"# copy {i}")
            for part in body:
                lines += part.format(n=start + step * i, w=words[i]).split("\n")
            if random.random() < 0.3:
                lines.append("")
        lines.append(f"print('done', total, len(log), {random.randint(0, 99)})")
    if random.random() < 0.5:
        lines = ["def main():", *(f"    {line}" if line else "" for line in lines), "", "main()"]
    return "\n".join(lines) + "\n"


def test_the_worked_answer_of_generated_programs_prints_the_same_and_is_shorter():
    shorter = 0
    for seed in range(60):
        text = generated_program(seed)
        answer = report(text).worked_answer
        if answer.steps:
            shorter += answer.lines_after < answer.lines_before
            assert run(answer.files["main.py"]) == run(text), text
    assert shorter >= 50


def test_layout_comments_and_file_order_do_not_matter():
    text = generated_program(3)
    spaced = "\n".join(line + "   " if line and "'" not in line else line for line in text.split("\n"))
    plain = "\n".join(line for line in text.split("\n") if not line.strip().startswith("#"))
    kinds = [(f.rule, f.weight) for f in report(text).findings]
    assert [(f.rule, f.weight) for f in report(spaced).findings] == kinds
    assert [(f.rule, f.weight) for f in report(plain).findings] == kinds
    one = structs.replace(source(text), path="a.py")
    two = structs.replace(source("def helper():\n    print(1)\n\nhelper()\n"), path="b.py")
    first = check(Submission("x", (one, two)), Assignment())
    assert check(Submission("x", (two, one)), Assignment()) == first


def test_a_costly_program_is_cut_short_with_a_sentence_not_a_hang():
    text = "".join(f"print({n % 7}, 'x', {n})\nshow({n})\n" for n in range(4000))
    found = report(text, seconds=0.05)
    assert found.unfinished.startswith("Too costly to check fully")
    assert found.measures["statements"] == 8000
