"""Programs that people wrote, changed at random: does what became of them do what they did? `./run bench changed [n]`.

Generators make what their writers think of. The programs of `reach` were written by hand, in every form that beginners
use; with other words, numbers and lines in some places they hold traps that nobody thought of. All proved suggestions
and the worked answer of each are run before and after, in Python and in JavaScript. Goal: none does something else.
"""

from __future__ import annotations

import sys
import tempfile
from collections.abc import Iterator
from pathlib import Path
from random import Random

from reach import programs

from core.changed import changed_programs, shown, without_words
from core.runners import outputs
from core.sweeps import Group

SEED = "changed"
LANGUAGES = ("python", "javascript")


def told(groups: list[Group], language: str, folder: Path) -> Iterator[str | None]:
    """What each text shows, originals and what became of them one after the other; None for what tells nothing."""
    texts = [text for original, after in groups for text in (original, *after)]
    if language == "python":
        yield from (shown(text, folder / "run") for text in texts)
        return
    for found in without_words(outputs(language, texts, folder)):
        yield None if found.startswith("ERROR SyntaxError") else found


def main(count: int) -> None:
    """Print a line a language, and each program of which something else became."""
    print("language     programs  texts run  something else")
    for language in LANGUAGES:
        texts = [text for name, _, _, text in programs() if name == language]
        groups = changed_programs(Random(SEED), texts, language, count)
        wrong, run = [], 0
        with tempfile.TemporaryDirectory() as folder:
            answers = told(groups, language, Path(folder))
            for text, after in groups:
                before = next(answers)
                for rewritten in after:
                    now = next(answers)
                    run += before is not None
                    if before is not None and now != before:
                        wrong.append(f"{text}\n----- became\n{rewritten}\n=====")
        print(f"{language:<12} {len(groups):8} {run:10} {len(wrong):15}")
        for one in wrong:
            print(one)


if __name__ == "__main__":
    main(int(sys.argv[1]) if len(sys.argv) > 1 else 200)
