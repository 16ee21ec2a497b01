"""How much longer than bare parsing the findings of a 100-line program take, and everything.

Both are ratios within one run, on programs of about 100 lines made of the demo class's own code.
Goal: findings within ten times bare parsing, everything with the worked answer within thirty. The other
languages' demo programs, as they are, come after; their goal is twelve times for the findings.
"""

from __future__ import annotations

import statistics
import time
from collections.abc import Callable
from pathlib import Path

from programs import hundred_lines, source

from partitor.check import check, program_of
from partitor.exchange.assignment import Assignment
from partitor.languages.grammars import parser_for
from partitor.languages.registry import language_of
from partitor.procedures.calls import map_calls
from partitor.procedures.required import match_required
from partitor.reading.collect import Submission
from partitor.repeats.find import Repeats, find_repeats
from partitor.source import Source

DEMO = Path(__file__).resolve().parent.parent / "demo"
ROUNDS = 7


def quickest(work: Callable[[], object]) -> float:
    """The shortest of several rounds, in seconds."""
    times = []
    for _ in range(ROUNDS):
        start = time.perf_counter()
        work()
        times.append(time.perf_counter() - start)
    return min(times)


def find_only(submission: Submission, assignment: Assignment) -> Repeats:
    """Read and find, without suggesting: the tree, names, calls, required functions and repeats."""
    program = program_of(submission.sources)
    match_required(program, assignment.functions, map_calls(program), None)
    return find_repeats(program, assignment.limits, frozenset(), near=True)


def main() -> None:
    """Print the ratios, program by program and in the middle."""
    asked = Assignment()
    rows = []
    for text in hundred_lines():
        data = text.encode()
        submission = Submission("x", (source(text),))
        parsing = quickest(lambda data=data: parser_for("python").parse(data))
        tree = quickest(lambda text=text: program_of([source(text)]).files[0].names)
        finding = quickest(lambda submission=submission: find_only(submission, asked))
        whole = quickest(lambda submission=submission: check(submission, asked))
        rows.append((text.count("\n"), parsing, tree / parsing, finding / parsing, whole / parsing))
    print("lines  parsing ms  tree and names  findings  everything   (times bare parsing)")
    for lines, parsing, tree, finding, whole in rows:
        print(f"{lines:5} {1000 * parsing:11.2f} {tree:15.1f} {finding:9.1f} {whole:11.1f}")
    middle = [statistics.median(row[k] for row in rows) for k in (2, 3, 4)]
    print(f"median: tree and names {middle[0]:.1f}, findings {middle[1]:.1f}, everything {middle[2]:.1f}")
    other_languages(asked)


def other_languages(asked: Assignment) -> None:
    """The median ratios of the demo programs in each language."""
    ratios: dict[str, list[tuple[float, float]]] = {}
    for path in sorted(DEMO.glob("*/submissions/*")) + sorted(DEMO.glob("seed-labels/*")):
        language = language_of(path.name)
        if language is None or language.id in ("python", "blocks"):
            continue
        text = path.read_text()
        one = Submission("x", (Source(path.name, text, language.id),))
        data = text.encode()
        bare = parser_for(language.grammar).parse if language.grammar else language.build or parser_for
        parsing = quickest(lambda d=data, bare=bare: bare(d))
        finding = quickest(lambda one=one: find_only(one, asked))
        whole = quickest(lambda one=one: check(one, asked))
        ratios.setdefault(language.id, []).append((finding / parsing, whole / parsing))
    print("language     programs  findings  everything")
    for name, found in ratios.items():
        middle = [statistics.median(row[k] for row in found) for k in (0, 1)]
        print(f"{name:<12} {len(found):8} {middle[0]:9.1f} {middle[1]:11.1f}")


if __name__ == "__main__":
    main()
