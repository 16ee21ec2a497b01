"""What a branch is chosen by: the word that somebody types for it, or what a menu says beside its number."""

from __future__ import annotations

import re

from ..program.program import ProgramFile
from ..program.shapes import given_value
from ..repeats.judge import inner_statements
from ..repeats.slots import Copy
from .words import ORDINALS, STOP_WORDS, VERBS, base_form, words_of

UNSAID = frozenset({"!=", "!==", "<>", "not", "and", "&&", "And", "<", ">", "<=", ">=", "!"})
"""What makes a test say something else than that one thing was chosen."""
CHOSEN = re.compile(r"""["'](\w[\w ]*)["']|(\d+)""")
ENTRY = re.compile(r"(?<![\w.])(\d{1,2})(?: ?[-.):=\]]+ ?| )([A-Za-z]{3,}(?: [A-Za-z]{2,}){0,3})")
"""An entry of a menu: `1. Add a boat`, `2) Remove`, `3 = list`, `4 quit`."""
ARTICLES = frozenset({"a", "an", "the", "your", "my", "some"})
EQUALS = frozenset({"==", "===", "=", "equals", "case", "Case"})
SHORTEST = 3
LONGEST_CHOICE = 2
"""Words that somebody may be asked to type for one thing."""


def chosen_words(copy: Copy) -> list[str]:
    """The words for what is chosen where the copy is most of what is done then; [] where nothing tells."""
    file, tree = copy.file, copy.file.tree
    block = file.block_at.get(tree.parent[copy.first])
    if block is None or 2 * inner_statements(copy) <= inner_statements(Copy(file, tuple(block.statements))):
        return []
    clause = tree.parent[block.node]
    if clause < 0 or tree.kind[clause] not in file.language.conditionals | CLAUSES:
        return []
    head = range(clause, block.node)
    if UNSAID & {tree.text[n] for n in head}:
        return []
    literals = file.language.strings | file.language.numbers | {"character"}
    for text in (tree.source_of(n) for n in head if tree.kind[n] in literals):
        told = CHOSEN.fullmatch(text)
        words = words_of(told[1] or "") if told else []
        if told and (told[2] or told[1].isdigit()):
            return _menu(file).get(told[2] or told[1], [])
        if words and len(words) <= LONGEST_CHOICE and len(words[0]) >= SHORTEST and not STOP_WORDS & set(words):
            return ["go", *words] if words[0] in ORDINALS else words
        if len(words) == 1 and len(words[0]) > 1:
            # `in` and `out` are no names of functions by themselves.
            return ["handle", *words]
    return []


def asked_for(copy: Copy) -> str:
    """The variable that somebody is asked for in the last statement but one, and that the last one's branches all ask
    for: `key`; "" where it is not so."""
    file, tree = copy.file, copy.file.tree
    if len(copy.statements) < FEWEST_STATEMENTS:
        return ""
    before, last = copy.statements[-2:]
    given = given_value(tree, before)
    if given is None or tree.kind[last] not in file.language.conditionals:
        return ""
    called = {file.called_name(n) for n in range(given[1], tree.end[given[1]]) if tree.kind[n] == file.language.call}
    name, branches = tree.text[given[0]], file.blocks_of(last)
    heads = [
        range(start, stop) for start, stop in zip([last, *map(tree.end.__getitem__, branches)], branches, strict=False)
    ]
    asking = [head for head in heads if any(tree.kind[n] == file.language.name for n in head)]
    texts = [tree.text[head.start : head.stop] for head in asking]
    asks = len(texts) > 1 and all(name in words and not EQUALS.isdisjoint(words) for words in texts)
    return name if asks and any(VERBS.get(word) == "read" for word in called) and len(name) >= SHORTEST else ""


FEWEST_STATEMENTS = 2
CLAUSES = frozenset({"elif_clause", "case_clause"})


def _menu(file: ProgramFile) -> dict[str, list[str]]:
    """By number, the words that the program's texts say beside it; none for a number with several meanings."""
    known = file.derived.get("menu")
    if isinstance(known, dict):
        return known
    tree, language = file.tree, file.language
    said: dict[str, set[tuple[str, ...]]] = {}
    for node, kind in enumerate(tree.kind):
        if kind in language.strings or kind == "string_content":
            for number, entry in ENTRY.findall(tree.source_of(node).replace("\\n", " ").replace("\\t", " ")):
                words = [word for word in words_of(entry) if word not in ARTICLES]
                words[:1] = map(base_form, words[:1])
                if words and not STOP_WORDS.issuperset(words) and len(words[0]) >= SHORTEST:
                    said.setdefault(number, set()).add(tuple(words))
    menu = {number: list(next(iter(entries))) for number, entries in said.items() if len(entries) == 1}
    file.derived["menu"] = menu if len(menu) > 1 else {}
    return menu if len(menu) > 1 else {}
