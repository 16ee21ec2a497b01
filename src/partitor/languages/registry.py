"""The one list of languages, and how a file's language is told from its name and first line."""

from __future__ import annotations

from functools import cache
from pathlib import PurePosixPath

import tree_sitter
import tree_sitter_language_pack

from .c.table import ARDUINO, CPP, C
from .csharp.table import CSHARP
from .java.table import JAVA
from .javascript.table import JAVASCRIPT, TYPESCRIPT
from .python.table import PYTHON
from .table import Language

LANGUAGES: dict[str, Language] = {
    language.id: language for language in (PYTHON, JAVASCRIPT, TYPESCRIPT, JAVA, C, CPP, ARDUINO, CSHARP)
}


def language_of(path: str, text: str = "") -> Language | None:
    """The language of a file by its extension, else by its shebang line; None where neither tells.

    >>> language_of("work/Main.PY").id
    'python'
    >>> language_of("tides", "#!/usr/bin/env python3\\n").id
    'python'
    """
    suffix = PurePosixPath(path).suffix.lower()
    for language in LANGUAGES.values():
        if suffix in language.extensions:
            return language
    first_line = text.split("\n", 1)[0]
    if not suffix and first_line.startswith("#!"):
        for language in LANGUAGES.values():
            if any(name in first_line for name in language.shebangs):
                return language
    return None


@cache
def parser_for(grammar: str) -> tree_sitter.Parser:
    """One parser a grammar and process; grammars ship inside the package, nothing is fetched."""
    return tree_sitter_language_pack.get_parser(grammar)  # type: ignore[arg-type]
