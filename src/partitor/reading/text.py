"""Text that can be stored and shown: no lone surrogate, no NUL, no control character in a name."""

from __future__ import annotations

import re

REPLACEMENT = "\ufffd"
NOT_STORABLE = re.compile("[\x00\ud800-\udfff]")
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
        pass  # a surrogate that stands for no byte: replaced below
    return NOT_PRINTABLE.sub(REPLACEMENT, name)


def _has_bytes(name: str) -> bool:
    return any("\udc80" <= sign <= "\udcff" for sign in name)
