"""Names that stand in a program and are free all the same where something new is written."""

from __future__ import annotations

import re
from collections.abc import Iterator, Sequence

from ..deadline import look
from ..program.flow import flow_of
from ..program.names import Role
from ..program.program import ProgramFile
from ..repeats.slots import Copy


def shared_names(file: ProgramFile) -> frozenset[str]:
    """Names that are not some function's own; where capitals are not told apart, those of members too."""
    known = file.derived.get("shared names")
    if not isinstance(known, frozenset):
        names, functions = file.names, {p.node for p in file.procedures if p.node}
        members = file.language.case_blind
        by_name = members or file.language.bare_members or file.language.methods
        known = frozenset(
            file.tree.text[i]
            for i in names.nodes
            if (by_name or file.tree.kind[file.tree.parent[i]] != "field")
            and (members if names.role[i] > Role.DECLARATION else names.owner(i) not in functions)
        )
        file.derived["shared names"] = known
    return known


class _Loop:
    """A loop with variables of its own."""

    def __init__(self, file: ProgramFile, node: int) -> None:
        tree = file.tree
        left, right = (tree.child(node, field) for field in ("left", "right"))
        given = file.names.within(left, tree.end[left]) if left is not None else []
        self.names = {tree.text[i] for i in given}
        self.start = tree.end[right] if right is not None else node
        self.given = set(given)
        self.stop = tree.end[node]

    def holds(self, node: int, name: str) -> bool:
        """True for a use of one of its variables."""
        return name in self.names and (node in self.given or self.start <= node < self.stop)


def _loops(file: ProgramFile, scope: int) -> Iterator[_Loop]:
    """The loops in a scope that go through something."""
    for node in range(scope, file.tree.end[scope]):
        if file.tree.kind[node] == "for_statement" and file.procedure_around(node).node == scope:
            yield _Loop(file, node)


def names_of_loops(file: ProgramFile) -> frozenset[str]:
    """Variables of the program that only its loops give values to, and use inside: a function's parameter of the same
    name takes nothing from them."""
    if not file.language.object_is_given:
        return frozenset()
    known = file.derived.get("names of loops")
    if not isinstance(known, frozenset):
        names, tree, loops = file.names, file.tree, list(_loops(file, 0))
        candidates = {name for loop in loops for name in loop.names}
        uses = [i for i in names.nodes if tree.text[i] in candidates and names.owner(i) <= 0]
        other = {tree.text[i] for i in uses if not any(loop.holds(i, tree.text[i]) for loop in loops)}
        known = frozenset(candidates - other)
        file.derived["names of loops"] = known
    return known


COUNTERS = ("i", "j", "k", "n")


def _is_only_counting(file: ProgramFile, copies: Sequence[Copy], name: str) -> bool:
    """True for a name that the function around the copies gives to nothing but the counters of other loops."""
    tree, names = file.tree, file.names
    first, stop = copies[0].first, copies[-1].span[1]
    scope = file.procedure_around(first).node
    held: list[range] = []
    for loop in (n for n in range(scope, tree.end[scope]) if tree.kind[n] in file.language.loops):
        body = tree.child(loop, "body") or loop
        declared = [i for i in names.within(loop, body) if tree.text[i] == name and names.declared_at(i)]
        if declared and "var" not in tree.text[loop:body] and not (loop < stop and first < tree.end[loop]):
            held.append(range(loop, tree.end[loop]))
    uses = [n for n in range(scope, tree.end[scope]) if tree.text[n] == name]
    own = [n for n in uses if first <= n < stop or file.procedure_around(n).node == scope]
    elsewhere = any(re.search(rf"\b{name}\b", text) for text in tree.text if text[:1] == "#")
    return not elsewhere and all(any(n in span for span in held) for n in own)


def names_to_use_again(file: ProgramFile, copies: Sequence[Copy]) -> frozenset[str]:
    """Variables that a loop in place of the copies may have: of other loops around there, that nobody needs behind
    them, and of other functions."""
    tree, names, first = file.tree, file.names, copies[0].first
    if file.language.loops_declare:
        return frozenset(name for name in COUNTERS if _is_only_counting(file, copies, name))
    scope, stop = file.procedure_around(first).node, copies[-1].span[1]
    around = {tree.kind[p] for p in file.parents(first) if p > scope}
    if not file.language.object_is_given or around & {"try_statement", "with_statement", *file.language.classes}:
        return frozenset()
    loops = [loop for loop in _loops(file, scope) if not (first < loop.stop and loop.start < stop)]
    free: set[str] = set()
    other: set[str] = set()
    for i in names.nodes:
        name, owner = tree.text[i], names.owner(i)
        if names.role[i] in {Role.KEYWORD, Role.MEMBER}:
            free.add(name)
            continue
        look()
        own = owner == scope == names.scope[i] and any(loop.holds(i, name) for loop in loops)
        elsewhere = owner > 0 and (owner > scope or not scope <= i < tree.end[scope]) and owner != scope
        (free if own or elsewhere else other).add(name)
    flow, language = flow_of(file, scope), file.language
    needed = flow.live_after[copies[-1].last] | flow.always_live | file.told_outside
    known = language.builtins | language.keywords
    return frozenset(n for n in free - other - needed - known if not file.is_used_beside(n))
