"""Texts and names that follow the name of a copy's variable: `"How many teas? "` beside `tea`."""

from __future__ import annotations

import re
from collections.abc import Sequence

WORD = re.compile(r"[^\W\d_]{3,}")
PART = re.compile(r"[A-Z]?[a-z]+|[A-Z]+(?![a-z])|\d+")


def own_words(names: Sequence[str]) -> tuple[str, ...]:
    """The one word of each name that is not in all of them; () where there is none, or there are more.

    >>> own_words(["addTea", "addCake"])
    ('tea', 'cake')
    >>> own_words(["addTea", "removeAll"])
    ()
    """
    split = [[part.lower() for part in PART.findall(name)] for name in names]
    shared = set(split[0]).intersection(*split[1:])
    left = [[part for part in parts if part not in shared] for parts in split]
    words = tuple(parts[0] for parts in left if len(parts) == 1)
    return words if len(words) == len(names) == len(set(words)) else ()


def words_following(values: Sequence[str], names: Sequence[str]) -> int | None:
    """How many words each copy's text or name holds beside the copy's `names`, capitals aside, where what is beside
    them is the same in all copies; None where it is not.

    >>> words_following(['"How many teas? "', '"How many soups? "'], ["tea", "soup"])
    2
    >>> words_following(['"Leaves"', '"Bread"'], ["tea", "soup"])
    """
    if any(len(name) == 1 for name in names):
        return None
    frames = {v.lower().replace(n.lower(), "\0", 1) for v, n in zip(values, names, strict=True)}
    frame = frames.pop()
    return len(WORD.findall(frame)) if not frames and "\0" in frame else None
