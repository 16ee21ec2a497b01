"""How much longer than bare parsing the findings of a 100-line program take, and everything.

Both are ratios within one run, on programs of about 100 lines made of the demo class's own code.
Goal: findings within ten times bare parsing, everything with the worked answer within thirty.
"""

from __future__ import annotations

import statistics
import time
from collections.abc import Callable

from programs import hundred_lines, source

from partitor.check import check, program_of
from partitor.exchange.assignment import Assignment
from partitor.languages.registry import parser_for
from partitor.procedures.calls import map_calls
from partitor.procedures.required import match_required
from partitor.reading.collect import Submission
from partitor.repeats.find import Repeats, find_repeats

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
    return find_repeats(program, assignment.limits, frozenset())


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


if __name__ == "__main__":
    main()
