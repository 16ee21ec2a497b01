"""Which lines of a submission were handed out: they are never reported."""

from __future__ import annotations

import difflib
from collections.abc import Sequence
from pathlib import PurePosixPath

from ..source import Source


def handed_out_lines(sources: Sequence[Source], starter: Sequence[Source]) -> frozenset[tuple[str, int]]:
    """(path, 1-based line) of every line that stands in the starter code, in its order."""
    lines: set[tuple[str, int]] = set()
    for source in sources:
        own = [line.strip() for line in source.text.split("\n")]
        for given in _counterparts(source, starter):
            other = [line.strip() for line in given.text.split("\n")]
            matcher = difflib.SequenceMatcher(a=other, b=own, autojunk=False)
            for _, b, size in matcher.get_matching_blocks():
                block = own[b : b + size]
                if sum(len(line) > 2 for line in block) >= 2:
                    lines.update((source.path, b + k + 1) for k, line in enumerate(block) if line)
    return frozenset(lines)


def _counterparts(source: Source, starter: Sequence[Source]) -> list[Source]:
    name = PurePosixPath(source.path).name.lower()
    same = [s for s in starter if PurePosixPath(s.path).name.lower() == name]
    return same or list(starter)
