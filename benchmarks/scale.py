"""How time and memory grow with the length of one file, from 1,000 to 64,000 lines.

Four kinds of file: all statements alike, all different, random, rows of data; three functions are asked for that are
not there. For each doubling the ratio to the size before stands beside it; n log n gives about 2.1 to 2.2.
The time limit is lifted here.
Goal: 20,000 lines under 5 s and 500 MB each.
"""

from __future__ import annotations

import math
import multiprocessing
import resource
import sys
import time

from programs import KINDS, source

SIZES = (1000, 2000, 4000, 8000, 16000, 20000, 32000, 64000)


def measure(kind: str, lines: int, answer: multiprocessing.Queue[tuple[float, float]]) -> None:
    """Check one file in a process of its own; put (seconds, MB at the most)."""
    from partitor.check import check
    from partitor.exchange.assignment import Assignment
    from partitor.procedures.wanted import RequiredFunction
    from partitor.reading.collect import Submission

    asked = (
        RequiredFunction(name="print_values", parameters=1, purpose="prints the values"),
        RequiredFunction(name="count_gates", parameters=1, returns=True, purpose="counts the gates"),
        RequiredFunction(name="set_pump", parameters=2, purpose="switches a pump on"),
    )
    submission = Submission("x", (source(KINDS[kind](lines)),))
    start = time.perf_counter()
    check(submission, Assignment(functions=asked), seconds=600)
    seconds = time.perf_counter() - start
    answer.put((seconds, resource.getrusage(resource.RUSAGE_SELF).ru_maxrss / 1024))


def main(sizes: tuple[int, ...]) -> None:
    """Print a row a size and kind."""
    context = multiprocessing.get_context("spawn")
    print("kind        lines  seconds   ratio per doubling      MB")
    for kind in KINDS:
        before: tuple[int, float] | None = None
        for lines in sizes:
            answer: multiprocessing.Queue[tuple[float, float]] = context.Queue()
            process = context.Process(target=measure, args=(kind, lines, answer))
            process.start()
            seconds, megabytes = answer.get()
            process.join()
            ratio = ""
            if before:
                doublings = math.log2(lines / before[0])
                ratio = f"{(seconds / before[1]) ** (1 / doublings):.2f}"
            print(f"{kind:10} {lines:6} {seconds:8.2f} {ratio:>20} {megabytes:7.0f}")
            before = (lines, seconds)


if __name__ == "__main__":
    main(tuple(map(int, sys.argv[1:])) or SIZES)
