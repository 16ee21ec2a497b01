"""Elements that statements look at: what a function of theirs is better given than the list and the place in it."""

from __future__ import annotations

from ..program.names import WRITES, Role
from ..repeats.columns import Column, Spot
from ..repeats.slots import Copy


def elements_used(copy: Copy) -> tuple[Column, ...]:
    """The elements (`marks[i]`, `item["price"]`) that a copy only looks at, each with the places where it does; ()
    where it has to do with their lists, or the numbers of their places, in any other way, or changes them."""
    file, (start, stop) = copy.file, copy.span
    tree, names = file.tree, file.names
    found: dict[str, list[int]] = {}
    inside: set[int] = set()
    for node in range(start, stop):
        held, place = tree.child(node, "value"), tree.child(node, "subscript")
        if tree.kind[node] != "subscript" or held is None or place is None or node in inside:
            continue
        given = tree.field[node] == "left" and tree.kind[tree.parent[node]] != "binary_operator"
        if tree.kind[held] != file.language.name or tree.end[place] > place + 1 or given:
            return ()
        found.setdefault(tree.source_of(node), []).append(node)
        inside.update(range(node, tree.end[node]))
    used = {tree.text[n] for n in names.within(start, stop) if n in inside and names.role[n] is Role.READ}
    apart = {tree.text[n] for n in names.within(start, stop) if n not in inside or names.role[n] in WRITES}
    if not used or used & apart:
        return ()
    return tuple(Column(values=(text,), spots=tuple(Spot((node,)) for node in nodes)) for text, nodes in found.items())
