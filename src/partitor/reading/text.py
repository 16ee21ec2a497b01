"""Text that can be stored and shown: no lone surrogate, no NUL, no control character in a name, nothing invisible."""

from __future__ import annotations

import re

REPLACEMENT = "\ufffd"
NOT_STORABLE = re.compile("[\x00\ud800-\udfff]")
INVISIBLE = re.compile("[\u00ad\u061c\u180e\u200b\u200e\u200f\u202a-\u202e\u2060-\u2064\u2066-\u206f\ufeff]")
"""Signs that turn the direction of what follows (so that it reads otherwise than it runs), or have no width. Joiners,
which many scripts need, are not among them."""
NOT_PRINTABLE = re.compile("[\x00-\x1f\x7f-\x9f\u2028\u2029\ud800-\udfff]")


def storable(text: str) -> str:
    """A program's text without what no database and no UTF-8 file holds; lines and columns stay where they are.

    >>> storable("print('a\\x00b')"), storable("\\ud800")
    ("print('a\ufffdb')", '\ufffd')
    """
    return NOT_STORABLE.sub(REPLACEMENT, text)


def printable(name: str) -> str:
    """A file's or person's name on one line. Bytes that an archive's reader could not decode (they come as lone low
    surrogates, PEP 383) are read as Windows wrote them.

    >>> printable("caf\\udce9.py"), printable("a\\nb")
    ('café.py', 'a\ufffdb')
    """
    try:
        name = name.encode("utf-8", "surrogateescape").decode("cp1252", "replace") if _has_bytes(name) else name
    except UnicodeEncodeError:
        pass  # a surrogate that encodes no byte: replaced below
    return visible(NOT_PRINTABLE.sub(REPLACEMENT, name))


def visible(text: str) -> str:
    """The text with signs that cannot be seen, or that turn its direction, written as their numbers.

    >>> visible("a\u202eb")
    'a‹U+202E›b'
    """
    return INVISIBLE.sub(lambda sign: f"‹U+{ord(sign.group()):04X}›", text)


def _has_bytes(name: str) -> bool:
    return any("\udc80" <= sign <= "\udcff" for sign in name)
