"""How much longer than bare parsing the findings of a 100-line program take, and everything.

Both are ratios within one run, on programs of about 100 lines made of the demo class's own code, and on the
programs of `reach` that are as long as that: each on its own, most of them written to be mended. Goal: findings
within ten times bare parsing, everything with the worked answer within thirty. The other languages come after; their
goal is twelve times for the findings.
"""

from __future__ import annotations

import statistics
import time
from collections.abc import Callable
from pathlib import Path

from programs import hundred_lines, source
from reach import programs

from partitor.check import check, program_of
from partitor.exchange.assignment import Assignment
from partitor.languages.grammars import parser_for
from partitor.languages.registry import LANGUAGES, language_of
from partitor.languages.table import Language
from partitor.procedures.calls import map_calls
from partitor.procedures.required import match_required
from partitor.reading.collect import Submission
from partitor.repeats.find import Repeats, find_repeats
from partitor.source import Source

PYTHON = LANGUAGES["python"]
DEMO = Path(__file__).resolve().parent.parent / "demo"
ROUNDS = 15


def times_longer(work: Callable[[], object], bare: Callable[[], object]) -> float:
    """How many times longer the work takes than what is bare: the median of several rounds, each with the bare one
    before and behind the work, as a machine that others use is now quicker and now slower."""
    ratios = []
    for _ in range(ROUNDS):
        before, during, behind = _seconds(bare), _seconds(work), _seconds(bare)
        ratios.append(2 * during / (before + behind))
    return statistics.median(ratios)


def _seconds(work: Callable[[], object]) -> float:
    start = time.perf_counter()
    work()
    return time.perf_counter() - start


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
        tree = times_longer(lambda text=text: program_of([source(text)]).files[0].names, parsing_of(text, PYTHON))
        rows.append((text.count("\n"), tree, *ratios_of(text, PYTHON, asked)))
    print("lines  tree and names  findings  everything   (times bare parsing)")
    for lines, tree, finding, whole in rows:
        print(f"{lines:5} {tree:15.1f} {finding:9.1f} {whole:11.1f}")
    middle = [statistics.median(row[k] for row in rows) for k in (1, 2, 3)]
    print(f"median: tree and names {middle[0]:.1f}, findings {middle[1]:.1f}, everything {middle[2]:.1f}")
    long_programs(asked)
    other_languages(asked)


LONG = range(80, 121)
"""Lines of a program that is measured on its own."""


def long_programs(asked: Assignment) -> None:
    """The ratios of the Python programs of `reach` that have about a hundred lines."""
    print("programs of a hundred lines     findings  everything")
    for kind in ("clean", "to be mended"):
        found = [
            (name, *ratios_of(text, PYTHON, asked))
            for language, name, expected, text in programs()
            if language == PYTHON.id and text.count("\n") in LONG and (expected == "clean") == (kind == "clean")
        ]
        for name, finding, whole in found:
            print(f"{name:<32}{finding:8.1f} {whole:11.1f}")
        middle = [statistics.median(row[k] for row in found) for k in (1, 2)]
        print(f"median of {len(found)} {kind}: findings {middle[0]:.1f}, everything {middle[1]:.1f}")


PIECE = 100
"""Lines that programs of `reach` are joined to: in a short program what every check costs counts most."""


def other_languages(asked: Assignment) -> None:
    """The median ratios of the demo programs in each language, and of the programs of `reach`, joined to pieces."""
    ratios: dict[str, list[tuple[float, float]]] = {}
    for path in sorted(DEMO.glob("*/submissions/*")) + sorted(DEMO.glob("seed-labels/*")):
        language = language_of(path.name)
        if language is not None and language.id not in ("python", "blocks"):
            ratios.setdefault(language.id, []).append(ratios_of(path.read_text(), language, asked))
    print("language     demo programs  findings  everything   pieces of 100 lines  findings")
    for name, found in ratios.items():
        middle = [statistics.median(row[k] for row in found) for k in (0, 1)]
        pieces = pieces_in(name)
        longer = statistics.median(finding_ratio(text, LANGUAGES[name], asked) for text in pieces)
        print(f"{name:<12} {len(found):13} {middle[0]:9.1f} {middle[1]:11.1f} {len(pieces):21} {longer:9.1f}")
    pieces = pieces_in(PYTHON.id)
    ratio = statistics.median(finding_ratio(text, PYTHON, asked) for text in pieces)
    print(f"{PYTHON.id:<12} {'':13} {'':9} {'':11} {len(pieces):21} {ratio:9.1f}")


def pieces_in(language: str) -> list[str]:
    """The programs of `reach` in a language, one behind the other, in pieces of about a hundred lines."""
    pieces: list[str] = []
    piece = ""
    for name, _, _, text in programs():
        if name == language:
            piece += text + "\n"
            if piece.count("\n") >= PIECE:
                pieces.append(piece)
                piece = ""
    return pieces


def finding_ratio(text: str, language: Language, asked: Assignment) -> float:
    """How much longer than bare parsing the findings of a text take."""
    one = program_like(text, language)
    return times_longer(lambda: find_only(one, asked), parsing_of(text, language))


def parsing_of(text: str, language: Language) -> Callable[[], object]:
    """Bare parsing of a text."""
    data = text.encode()
    parse = parser_for(language.grammar).parse if language.grammar else language.build or parser_for
    return lambda: parse(data)


def program_like(text: str, language: Language) -> Submission:
    """A submission of one file."""
    return Submission("x", (Source(f"x{language.extensions[0]}", text, language.id),))


def ratios_of(text: str, language: Language, asked: Assignment) -> tuple[float, float]:
    """How much longer than bare parsing the findings of a text take, and everything."""
    one, bare = program_like(text, language), parsing_of(text, language)
    return finding_ratio(text, language, asked), times_longer(lambda: check(one, asked), bare)


if __name__ == "__main__":
    main()
