"""The tree-sitter parsers, one a grammar and process; grammars ship inside the package, nothing is fetched."""

from __future__ import annotations

from functools import cache

import tree_sitter
import tree_sitter_language_pack


@cache
def parser_for(grammar: str) -> tree_sitter.Parser:
    """The parser of a grammar."""
    return tree_sitter_language_pack.get_parser(grammar)  # type: ignore[arg-type]
