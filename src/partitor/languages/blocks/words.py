"""How suggestions for block programs are told: with blocks that there are."""

from __future__ import annotations

import re

WITH_GAPS = re.compile(r"""f(["'])((?:\{[^{}]*\}|(?!\1)[^{}\\])*)\1""")
PART = re.compile(r"\{([^{}]*)\}|([^{}]+)")


def in_block_words(line: str) -> str:
    """A line in which texts are joined as blocks join them.

    >>> in_block_words('    say(f"bag {bag} of {most + 1}", 2)')
    '    say(join("bag ", bag, " of ", most + 1), 2)'
    """
    return WITH_GAPS.sub(_joined, line)


def _joined(text: re.Match[str]) -> str:
    parts = [gap or f"{text[1]}{words}{text[1]}" for gap, words in PART.findall(text[2])]
    return f"join({', '.join(parts)})"
