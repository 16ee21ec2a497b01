"""Pages: where the scripts of an HTML text stand, which it loads, and what its handlers name.

After the HTML standard (WHATWG, "Living Standard"), sections 4.12.1 (the script element), 8.1.8.1 (event handler
attributes) and 13.2 (parsing), as far as scripts are concerned.
"""

from __future__ import annotations

import re
from functools import lru_cache

import msgspec

PAGE = re.compile(rb"\s*<(?:!doctype\b|!--|\?xml\b|[a-z][a-z0-9]*[\s>])", re.IGNORECASE)
PIECE = re.compile(
    rb"<!--.*?(?:-->|\Z)|<script\b(?P<given>(?:[^>\"']|\"[^\"]*\"|'[^']*')*)>(?P<code>.*?)(?P<end></script\s*>|\Z)",
    re.IGNORECASE | re.DOTALL,
)
ATTRIBUTE = re.compile(rb"([a-z-]+)(?:\s*=\s*(?:\"([^\"]*)\"|'([^']*)'|([^\s\"'>]+)))?", re.IGNORECASE)
HANDLER = re.compile(rb"\s(?:on[a-z]+|href|action)\s*=\s*(?:\"([^\"]*)\"|'([^']*)')", re.IGNORECASE)
WORD = re.compile(r"[A-Za-z_$][\w$]*")
CODE_TYPES = frozenset({"", "module", "text/javascript", "application/javascript", "text/ecmascript"})
LATE = frozenset({"async", "defer"})


class Script(msgspec.Struct, frozen=True):
    """One script element: `start` and `stop` are the bytes of its code, `tag` where the element begins."""

    tag: int
    start: int
    stop: int
    loads: str = ""
    """The path that it loads, as written; "" for a script that stands in the page."""
    plain: bool = True
    """It runs when the page's parser reaches it."""
    shares: bool = True
    """Its names are those of the page; a module keeps its own."""


def is_page(text: bytes) -> bool:
    """True for a text that begins as HTML does; no script does."""
    return PAGE.match(text) is not None


@lru_cache(maxsize=64)
def scripts_of(text: bytes) -> tuple[Script, ...]:
    """The page's scripts in the order in which they run.

    >>> [s.loads for s in scripts_of(b'<p></p><script src="gates.js"></script>')]
    ['gates.js']
    """
    found = []
    for piece in PIECE.finditer(text):
        if piece.group("given") is None:
            continue
        given = {
            m[1].decode().lower(): (m[2] or m[3] or m[4] or b"").decode(errors="replace").strip()
            for m in ATTRIBUTE.finditer(piece.group("given"))
        }
        kind = given.get("type", "").lower()
        if kind in CODE_TYPES:
            plain = kind != "module" and not LATE & set(given)
            found.append(Script(piece.start(), *piece.span("code"), given.get("src", ""), plain, kind != "module"))
    return tuple(found)


def code_spans(text: bytes) -> list[tuple[int, int]]:
    """The bytes of a text that are code: all of a script, of a page what stands in its script elements; a module, whose
    names are its own, only where it is alone.

    >>> code_spans(b"let a = 1"), code_spans(b"<p>1</p><script>let a</script>")
    ([(0, 9)], [(16, 21)])
    """
    if not is_page(text):
        return [(0, len(text))]
    here = [s for s in scripts_of(text) if not s.loads]
    return [(s.start, s.stop) for s in here if s.shares or len(here) == 1]


def masked(text: bytes) -> bytes:
    """A page as nothing but its code, each byte where it was; a script as it is."""
    if not is_page(text):
        return text
    blank = bytearray(re.sub(rb"[^\n]", b" ", text))
    for start, stop in code_spans(text):
        blank[start:stop] = text[start:stop]
    return bytes(blank)


def told_outside(text: bytes) -> frozenset[str]:
    """Names that a page's handlers mention (`onclick="openGate(3)"`)."""
    if not is_page(text):
        return frozenset()
    handlers = b" ".join(m[1] or m[2] or b"" for m in HANDLER.finditer(text))
    return frozenset(WORD.findall(handlers.decode(errors="replace")))
