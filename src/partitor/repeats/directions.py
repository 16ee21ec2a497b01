"""Branches that do the same in another direction: `if move == "n": y = y - 1 …`, `elif move == "e": x = x + 1 …`.

The variables that are moved, the signs and the comparisons that keep them within bounds all differ, so no shape is the
same; what is left when each of these is a slot is.
"""

from __future__ import annotations

from collections.abc import Iterator

from ..program.program import ProgramFile
from .choices import FEWEST_BRANCHES, Branch, Choice

FEWEST_WORDS = 4
"""Names, numbers and words that stay the same."""
STEPS = {"+=": "+", "-=": "-", "++": "+", "--": "-"}
BOUNDS = frozenset({"<", ">", "<=", ">="})
SIGNS = frozenset("+-")
MOVING = SIGNS.union(STEPS)
"""Signs without which nothing moves."""
SLOT = "\0"


def directions(choice: Choice) -> Iterator[list[Branch]]:
    """The branches of a choice, three or more, that move something this way and that."""
    alike: dict[tuple[str, ...], list[tuple[Branch, str]]] = {}
    for file, statements in choice:
        inside = range(statements[0], file.tree.end[statements[-1]])
        if MOVING.isdisjoint(file.tree.text[inside.start : inside.stop]):
            continue
        form, ways = _form(file, inside)
        if ways and sum(any(map(str.isalnum, word)) for word in form) >= FEWEST_WORDS:
            alike.setdefault(form, []).append(((file, statements), ways))
    for group in alike.values():
        if len(group) >= FEWEST_BRANCHES and {way for _, ways in group for way in ways} == SIGNS:
            yield [branch for branch, _ in group]


def _form(file: ProgramFile, inside: range) -> tuple[tuple[str, ...], str]:
    """The tokens of some statements, with what moves, how far and against which bound as slots; and which way it
    moves: `+`, `-`, both or neither."""
    tree, language = file.tree, file.language
    form: list[str] = []
    ways: set[str] = set()
    node = inside.start
    while node < inside.stop:
        kind, text = tree.kind[node], tree.text[node]
        step = _step(file, node)
        if step:
            form.append(SLOT)
            ways.add(step)
            node = tree.end[node]
            continue
        if kind in language.numbers or (kind == language.name and not _is_called(file, node)):
            form.append(SLOT)
        elif text in STEPS:
            form.append("+=")
            ways.add(STEPS[text])
        elif text in BOUNDS:
            form.append("<")
        else:
            form.append(text or kind)
        node += 1
    return tuple(form), "".join(sorted(ways))


def _step(file: ProgramFile, node: int) -> str:
    """The sign with which a number is added to something or taken from it; "" for anything else."""
    tree = file.tree
    if tree.kind[node] != "binary_operator":
        return ""
    parts = tree.parts(node)
    plain = len(parts) == 3 and tree.kind[parts[2]] in file.language.numbers
    return tree.text[parts[1]] if plain and tree.text[parts[1]] in SIGNS else ""


def _is_called(file: ProgramFile, node: int) -> bool:
    """True for the name of what is called."""
    tree, callee = file.tree, file.language.callee_field
    held = tree.parent[node]
    return tree.field[node] == callee or (
        (tree.kind[held], tree.field[node]) == file.language.member and tree.field[held] == callee
    )
