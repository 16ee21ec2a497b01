"""Branches that do the same in another direction: `if move == "n": y = y - 1 …`, `elif move == "e": x = x + 1 …`.

The variables that are moved, the signs and the comparisons that keep them within bounds all differ, so no shape is the
same; what is left when each of these is a slot is.
"""

from __future__ import annotations

from collections.abc import Iterator, Sequence

from ..program.program import ProgramFile

FEWEST_DIRECTIONS = 3
FEWEST_STATEMENTS = 3
"""Statements, those inside included, that each direction must have: a lone step is no more than its line."""
FEWEST_WORDS = 4
"""Names, numbers and words that stay the same."""
STEPS = {"+=": "+", "-=": "-", "++": "+", "--": "-"}
BOUNDS = frozenset({"<", ">", "<=", ">="})
SIGNS = frozenset("+-")
SLOT = "\0"


def directions(
    places: Sequence[tuple[ProgramFile, tuple[int, ...]]], size: int = FEWEST_DIRECTIONS
) -> Iterator[list[tuple[ProgramFile, tuple[int, ...]]]]:
    """Groups of `size` branches or more, of choices in one block, that move something this way and that."""
    alike: dict[tuple[int, int, tuple[str, ...]], list[tuple[ProgramFile, tuple[int, ...], str]]] = {}
    for file, statements in places:
        tree = file.tree
        choice = _choice_around(file, statements[0])
        inside = range(statements[0], tree.end[statements[-1]])
        texts = tree.text[inside.start : inside.stop]
        if choice is None or len(file.statements_within(inside.start, inside.stop)) < FEWEST_STATEMENTS:
            continue
        if (SIGNS | STEPS.keys()).isdisjoint(texts):
            continue
        form, ways = _form(file, inside)
        if ways and sum(any(map(str.isalnum, word)) for word in form) >= FEWEST_WORDS:
            alike.setdefault((id(file), choice, form), []).append((file, statements, ways))
    for group in alike.values():
        if len(group) >= size and {way for *_, ways in group for way in ways} == SIGNS:
            yield [(file, statements) for file, statements, _ in group]


def _choice_around(file: ProgramFile, statement: int) -> int | None:
    """The statement list in which the choice stands of which a statement's list is a branch."""
    tree, language = file.tree, file.language
    above = file.parents(tree.parent[statement])
    if not above or tree.kind[above[0]] not in language.conditionals | {"elif_clause", "else_clause", "case_clause"}:
        return None
    return next((node for node in above if node in file.block_at), 0)


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
