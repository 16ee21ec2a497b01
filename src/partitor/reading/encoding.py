"""Bytes to text: byte order mark, UTF-8, UTF-16, else the likeliest legacy encoding."""

from __future__ import annotations

import re
from collections import Counter

import msgspec
from charset_normalizer import from_bytes


class Decoded(msgspec.Struct, frozen=True):
    """`text` has LF line ends and no mark; `original` is the whole text as it came."""

    text: str
    original: str
    encoding: str
    newline: str


MARKS = (
    (b"\xff\xfe\x00\x00", "utf-32-le"),
    (b"\x00\x00\xfe\xff", "utf-32-be"),
    (b"\xef\xbb\xbf", "utf-8"),
    (b"\xff\xfe", "utf-16-le"),
    (b"\xfe\xff", "utf-16-be"),
)


def decode(data: bytes) -> Decoded | None:
    """The text of a file; None for one that is no text (pictures, compiled files, documents)."""
    for mark, encoding in MARKS:
        if data.startswith(mark):
            return _decoded(data, encoding)
    guessed = _utf16_without_mark(data)
    if guessed:
        return _decoded(data, guessed)
    if b"\x00" in data:
        return None
    try:
        return _folded(data.decode("utf-8"), "utf-8")
    except UnicodeDecodeError:
        pass
    if _looks_binary(data):
        return None
    best = from_bytes(data, cp_isolation=["cp1252", "latin_1", "cp1250", "iso8859_15", "mac_roman"]).best()
    return _decoded(data, best.encoding if best else "cp1252")


def _decoded(data: bytes, encoding: str) -> Decoded | None:
    try:
        return _folded(data.decode(encoding), encoding)
    except UnicodeDecodeError:
        return None if encoding.startswith("utf") else _folded(data.decode("latin-1"), "latin-1")


def _folded(original: str, encoding: str) -> Decoded:
    text = original.removeprefix("\ufeff")
    ends = Counter(re.findall(r"\r\n|\n|\r", text))
    newline = ends.most_common(1)[0][0] if ends else "\n"
    text = text.replace("\r\n", "\n").replace("\r", "\n").replace("\x0c", " ")
    return Decoded(text, original, encoding, newline)


def _utf16_without_mark(data: bytes) -> str:
    """UTF-16 text of mostly western letters has a zero in every other byte."""
    if len(data) < 4 or len(data) % 2:
        return ""
    sample = data[:2000]
    even, odd = sample[::2].count(0), sample[1::2].count(0)
    half = len(sample) // 2
    if odd > 0.7 * half and even < 0.1 * half:
        return "utf-16-le"
    if even > 0.7 * half and odd < 0.1 * half:
        return "utf-16-be"
    return ""


def _looks_binary(data: bytes) -> bool:
    sample = data[:4000]
    control = sum(1 for byte in sample if byte < 9 or 13 < byte < 32)
    return control > len(sample) * 0.02
