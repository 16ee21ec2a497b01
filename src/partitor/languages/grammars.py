"""The tree-sitter parsers, one a grammar and process; grammars ship inside the package, nothing is fetched."""

from __future__ import annotations

from functools import cache
from sys import intern
from typing import NamedTuple

import tree_sitter
import tree_sitter_language_pack


@cache
def parser_for(grammar: str) -> tree_sitter.Parser:
    """The parser of a grammar."""
    return tree_sitter_language_pack.get_parser(grammar)  # type: ignore[arg-type]


class Words(NamedTuple):
    """What a grammar calls its nodes, by the numbers that its parser gives them: strings that exist once."""

    kinds: dict[int, str]
    fields: dict[int | None, str]
    """The names of fields; None is no field."""
    signs: dict[int, str]
    """The kinds of which a node is nothing but the sign or word that names the kind, as `while` or `==` is."""


@cache
def words_of(grammar: str) -> Words:
    """The words of a grammar."""
    language = parser_for(grammar).language
    assert language is not None
    kinds: dict[int, str] = {ERROR_ID: "ERROR"}
    signs: dict[int, str] = {}
    for number in range(language.node_kind_count):
        kind = language.node_kind_for_id(number)
        if kind is not None:
            kinds[number] = intern(kind)
            if not language.node_kind_is_named(number) and " " not in kind:
                signs[number] = kinds[number]
    fields: dict[int | None, str] = {None: ""}
    for number in range(1, language.field_count + 1):
        fields[number] = intern(language.field_name_for_id(number) or "")
    return Words(kinds, fields, signs)


ERROR_ID = 65535
"""The number of what a parser could not read."""
