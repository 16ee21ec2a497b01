"""The one list of languages, and how a file's language is told from its name and first line."""

from __future__ import annotations

import re
from pathlib import PurePosixPath

from .blocks.table import BLOCKS
from .c.table import ARDUINO, CPP, C
from .csharp.table import CSHARP
from .gamescript.table import GAMESCRIPT
from .java.table import JAVA
from .javascript.table import JAVASCRIPT, TYPESCRIPT
from .python.table import PYTHON
from .racket.table import RACKET, SCHEME
from .swift.table import SWIFT
from .table import Language
from .visualbasic.table import VISUAL_BASIC

LANGUAGES: dict[str, Language] = {
    language.id: language
    for language in (
        PYTHON,
        JAVASCRIPT,
        TYPESCRIPT,
        JAVA,
        C,
        CPP,
        ARDUINO,
        CSHARP,
        GAMESCRIPT,
        SWIFT,
        VISUAL_BASIC,
        RACKET,
        SCHEME,
        BLOCKS,
    )
}


def language_of(path: str, text: str = "") -> Language | None:
    """The language of a file by its extension, else by its shebang line, else by what stands in it; None
    where nothing tells.

    >>> language_of("work/Main.PY").id
    'python'
    >>> language_of("tides", "#!/usr/bin/env python3\\n").id
    'python'
    """
    suffix = PurePosixPath(path).suffix.lower()
    if suffix in PAGES and text and "<script" not in text.lower():
        return None
    if suffix in HEADERS and CPP_HEADER.search(text):
        return CPP
    for language in LANGUAGES.values():
        if suffix in language.extensions and suffix not in TOLD_BY_CONTENT:
            return language
    if suffix:
        return None
    first_line = text.split("\n", 1)[0]
    if first_line.startswith("#!"):
        for language in LANGUAGES.values():
            if any(name in first_line for name in language.shebangs):
                return language
        return None
    return next((LANGUAGES[key] for key, sign in SIGNS if sign.search(text)), None)


TOLD_BY_CONTENT = frozenset({".xml", ".json"})
"""Extensions of block programs that other files have too: `reading.blocks` looks inside."""
PAGES = frozenset({".html", ".htm"})
"""Read for the scripts in them, where there are any."""
HEADERS = frozenset({".h"})
CPP_HEADER = re.compile(r"^\s*(?:class|namespace|template)\b|\bstd::|\bpublic:", re.MULTILINE)
SIGNS = tuple(
    (key, re.compile(sign, re.MULTILINE))
    for key, sign in (
        ("arduino", r"^\s*void\s+setup\s*\(\s*\)[^;]*\{[\s\S]*^\s*void\s+loop\s*\("),
        ("cpp", r"^\s*#\s*include\s*<(?:iostream|string|vector)>"),
        ("c", r"^\s*#\s*include\s*[<\"]"),
        ("java", r"^\s*public\s+(?:final\s+)?class\s+\w+"),
        ("racket", r"^#lang\s+\S+"),
        ("scheme", r"^\((?:define|display)\s"),
        ("swift", r"^import\s+(?:Foundation|SwiftUI|UIKit)\s*$|^\s*func\s+\w+\s*\("),
        ("csharp", r"^\s*using\s+System\b"),
        ("python", r"^(?:def|class)\s+\w+.*:\s*$|^import\s+\w+\s*$|^from\s+\w+\s+import\s"),
        ("javascript", r"^\s*(?:function\s+\w+\s*\(|(?:const|let)\s+\w+\s*=)"),
    )
)
"""What tells the language of a file without an extension, surest first."""
