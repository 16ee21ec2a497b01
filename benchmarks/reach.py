"""How many opportunities are found in small programs that were written to be measured once, by language.

Each program in `reach/*.txt` begins with a line `===== language name expected`: for each opportunity, with `,` between
them, the rules that would do, with `|` between them; or `clean`. They were fresh when they were first measured; what
they say today is that nothing was lost. Write new ones to learn more.
"""

from __future__ import annotations

from collections.abc import Iterator
from pathlib import Path

from programs import parts_in, with_all

from partitor.check import check
from partitor.exchange.assignment import Assignment
from partitor.languages.registry import LANGUAGES
from partitor.reading.collect import Submission
from partitor.source import Source

HERE = Path(__file__).resolve().parent / "reach"
ADVICE = {"undocumented-function", "vague-name", "loose-code"}
"""Rules that only an assignment asks for."""


def programs() -> Iterator[tuple[str, str, str, str]]:
    """(language, name, what is expected, text) of every program."""
    for head, text in parts_in(HERE):
        language, name, expected = head.split()
        yield language, name, expected, text


def main() -> None:
    """Print a line a language, and what was missed or wrongly told."""
    told: dict[str, list[int]] = {}
    surprises = []
    for language, name, expected, text in programs():
        source = Source(f"{name}{LANGUAGES[language].extensions[0]}", text, language)
        report = check(Submission(name, (source,)), Assignment())
        rules = {f.rule for f in report.findings} - ADVICE
        row = told.setdefault(language, [0] * 5)
        if expected == "clean":
            row[3] += 1
            row[4] += bool(rules)
            if rules:
                surprises.append(f"{language} {name}: {', '.join(sorted(rules))} in a clean program")
            continue
        missed = [wanted for wanted in expected.split(",") if not rules & set(wanted.split("|"))]
        row[0] += expected.count(",") + 1
        row[1] += expected.count(",") + 1 - len(missed)
        row[2] += any(s.status == "proved" for s in report.suggestions)
        surprises += [f"{language} {name}: {wanted} was not found" for wanted in missed]
    print("language     expected  found  programs with proved code  clean  flagged")
    for language, row in with_all(told):
        print(f"{language:<12} {row[0]:8} {row[1]:6} {row[2]:26} {row[3]:6} {row[4]:8}")
    for line in surprises:
        print(line)


if __name__ == "__main__":
    main()
