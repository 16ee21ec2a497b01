"""The texts beside which values are shown: what a program itself says of them."""

from __future__ import annotations

import re

from ..program.program import ProgramFile
from .deeds import shows


def label_before(file: ProgramFile, statement: int, node: int) -> str:
    """The text that stands before a value in a statement."""
    tree, strings = file.tree, file.language.strings | {"string_content"}
    return next((tree.text[n] for n in range(node - 1, statement, -1) if tree.kind[n] in strings and tree.text[n]), "")


def labels_of(file: ProgramFile, variable: str) -> frozenset[str]:
    """The texts behind which a variable is shown: `Tip:` of `print("Tip:", extra)`."""
    known = file.derived.get("labels")
    if not isinstance(known, dict):
        known = _labels(file)
        file.derived["labels"] = known
    return frozenset(known.get(variable, ()))


def _labels(file: ProgramFile) -> dict[str, set[str]]:
    tree, language = file.tree, file.language
    labels: dict[str, set[str]] = {}
    for statement in file.statement_nodes:
        holds_others = tree.kind[statement] in language.loops | language.conditionals or file.is_definition(statement)
        if holds_others or not shows(file, statement):
            continue
        text = ""
        for n in range(statement, tree.end[statement]):
            if tree.text[n] and (tree.kind[n] in language.strings or tree.kind[n] == "string_content"):
                text = tree.text[n]
                gaps = CONVERSION.split(text)
                for k, value in enumerate(_values_behind(file, n) if len(gaps) > 1 else ()):
                    if tree.kind[value] == language.name and k + 1 < len(gaps):
                        labels.setdefault(tree.text[value], set()).update((gaps[k], gaps[k + 1]))
            elif tree.kind[n] == language.name and text and not CONVERSION.search(text):
                labels.setdefault(tree.text[n], set()).add(text)
                text = ""
    return labels


CONVERSION = re.compile(r"%[-+0 #]*\d*(?:\.\d+)?(?:hh|h|ll|l)?[diufgeEGsxXc]")
"""Where a value is put into a text that is shown with `printf`."""


def _values_behind(file: ProgramFile, text: int) -> list[int]:
    """The values that are put into a text, in order: what stands behind it in a call, or behind `%`."""
    tree, around = file.tree, file.tree.parent[text]
    if tree.kind[around] != "binary_operator":
        return [c for c in tree.items(around) if c > text]
    right = tree.child(around, "right")
    if right is None:
        return []
    return tree.items(right) if tree.kind[right] in {"tuple", "parenthesized_expression"} else [right]
