"""Elements that statements look at: what a function of theirs is better given than the list and the place in it."""

from __future__ import annotations

from collections.abc import Sequence

from .names import WRITES, Role
from .program import ProgramFile


def elements_used(file: ProgramFile, statements: Sequence[int]) -> dict[str, list[int]]:
    """The elements (`marks[i]`, `item["price"]`) that consecutive statements only look at, each with the nodes where
    they do; {} where they have to do with the lists, or the numbers of the places, in any other way, or change them."""
    tree, names = file.tree, file.names
    start, stop = statements[0], tree.end[statements[-1]]
    if "subscript" not in tree.kind[start:stop]:
        return {}
    found: dict[str, list[int]] = {}
    inside: set[int] = set()
    for node in range(start, stop):
        if tree.kind[node] != "subscript" or node in inside:
            continue
        held, place = tree.child(node, "value"), tree.child(node, "subscript")
        if held is None or place is None or tree.kind[held] != file.language.name or tree.end[place] > place + 1:
            return {}
        if tree.field[node] == "left" and tree.kind[tree.parent[node]] != "binary_operator":
            return {}
        found.setdefault(tree.source_of(node), []).append(node)
        inside.update(range(node, tree.end[node]))
    named = [n for n in names.within(start, stop) if n in inside and names.role[n] is Role.READ]
    used = {tree.text[n] for n in named}
    apart = {tree.text[n] for n in names.within(start, stop) if n not in inside or names.role[n] in WRITES}
    return found if used and not used & apart else {}
