"""What can have run by a certain place of a file's loose code, which runs once, from top to bottom.

A function can only run where something that may have run before names it: what stands further down is not there
yet, or nobody has got hold of it. What names a function lends it for good, whether it calls it or hands it on.
"""

from __future__ import annotations

from collections.abc import Iterable

from ...program.flow import losses
from ...program.names import Role
from ...program.program import ProgramFile
from ...program.shapes import given_value

FINDING_BY_NAME = frozenset("getattr modules inspect importlib __main__".split())
"""Ways to a function by a name that is worked out."""
PAGES = frozenset("window globalThis self frames Function".split())
"""What leads to them in a page's scripts; in Python `window` is any variable, and `self` a method's own object."""


def is_unseen_until(file: ProgramFile, name: str, statement: int) -> bool:
    """True where no function that uses the program's variable `name` can run before the end of a statement of the
    loose code."""
    if not file.language.runs_top_down or file.beside or finds_by_name(file):
        return False
    loops = [p for p in file.parents(statement) if file.tree.kind[p] in file.language.loops]
    stop = file.tree.end[max([statement, *loops], key=lambda node: file.tree.end[node])]
    names = file.names
    users = {
        names.scope[i]
        for i in names.nodes
        if file.tree.text[i] == name and names.role[i] <= Role.DECLARATION and names.owner(i) == 0
    }
    return not (users - {0}) & reached(file, stop)


def has_its_value(file: ProgramFile, name: str, scope: int) -> bool:
    """True where the program's variable `name` has a value whenever the function at node `scope` runs: as fields have
    from the beginning, and what a file declares outside of its functions, or because the loose code gives it one
    before the function can run."""
    tree, names = file.tree, file.names
    if not scope or names.owner_of(name, scope) != 0:
        return False
    if file.language.methods or (file.language.struct_values and file.language.changes_unseen):
        return any(tree.text[i] == name and names.declared_at(i) for i in names.nodes)
    if not file.language.runs_top_down or file.beside or finds_by_name(file):
        return False
    for statement in file.blocks[0].statements:
        if name in _given_in(file, statement):
            return scope not in reached(file, tree.end[statement]) and not _may_be_lost(file, name)
    return False


def is_bound_before(file: ProgramFile, name: str, scope: int) -> bool:
    """True where the program's `name`, a variable's or a function's, means something whenever the function at node
    `scope` runs."""
    names, tree, language = file.names, file.tree, file.language
    bound = [
        i
        for i in names.nodes
        if tree.text[i] == name and names.role[i] in (Role.WRITE, Role.UPDATE) and names.scope[i] == 0
    ]
    if not language.runs_top_down or not scope:
        return bool(bound)
    top = file.blocks[0].statements
    if language.hoists and any(
        tree.parent[i] in top and tree.kind[tree.parent[i]] in language.procedures for i in bound
    ):
        return True
    for statement in top:
        end = tree.end[statement]
        if any(statement <= i < end for i in bound) and not _is_left_to_chance(file, statement):
            return _nothing_ran_before(file, statement) or (
                not file.beside and not finds_by_name(file) and scope not in reached(file, end)
            )
    return False


def _may_be_lost(file: ProgramFile, name: str) -> bool:
    """True for a variable that has no value any more behind some place of the file."""
    return any(file.tree.text[i] == name for i in losses(file))


def _is_left_to_chance(file: ProgramFile, statement: int) -> bool:
    """True for a statement that may do nothing, but for the usual question whether a file is the main one."""
    tree, kind = file.tree, file.tree.kind[statement]
    if kind not in file.language.branches:
        return False
    return "__name__" not in tree.text[statement : tree.end[statement]]


def _nothing_ran_before(file: ProgramFile, statement: int) -> bool:
    """True where nothing above a statement of the loose code calls anything."""
    first = file.derived.get("first call")
    if not isinstance(first, int):
        kinds, ends, call = file.tree.kind, file.tree.end, file.language.call
        calling = (s for s in file.blocks[0].statements if not file.is_definition(s) and call in kinds[s : ends[s]])
        first = file.derived["first call"] = next(calling, len(kinds))
    return statement <= first


def _given_in(file: ProgramFile, statement: int) -> set[str]:
    """The variables that a statement gives a value, by `=` or where it declares them."""
    tree = file.tree
    parts = [c for c in tree.children(statement) if tree.kind[c] == "declarator"]
    if parts:
        return {tree.text[p + 1] for p in parts if tree.child(p, "left") == p + 1 and tree.child(p, "right")}
    given = given_value(tree, statement, for_good=True)
    return {tree.text[given[0]]} if given else set()


def finds_by_name(file: ProgramFile) -> bool:
    """True where the program may get at what it has by a name that it works out."""
    ways = FINDING_BY_NAME | PAGES if file.language.declares else FINDING_BY_NAME
    return bool(file.names.everything & ways)


def reached(file: ProgramFile, stop: int) -> frozenset[int]:
    """The scopes that may have run before the node `stop` (0: the loose code)."""
    key = ("reached", stop)
    known = file.derived.get(key)
    if not isinstance(known, frozenset):
        known = file.derived[key] = _reached(file, stop)
    return known


def _reached(file: ProgramFile, stop: int) -> frozenset[int]:
    names, tree, language = file.names, file.tree, file.language
    inner: dict[int, list[int]] = {}
    for scope, parent in names.parent_scope.items():
        inner.setdefault(parent, []).append(scope)
    mentions: dict[int, set[str]] = {}
    for i in names.nodes:
        if names.role[i] is not Role.WRITE and (names.scope[i] or i < stop):
            mentions.setdefault(names.scope[i], set()).add(tree.text[i])
    asked_for = {
        p.node: p.name
        for p in file.procedures
        if p.name and not p.in_class and not p.decorated and tree.parent[p.node] in file.block_at
    }
    told: set[str] = set(file.told_outside)
    found: set[int] = set()
    waiting: list[int] = []

    def add(scopes: Iterable[int]) -> None:
        for scope in scopes:
            if scope not in found:
                found.add(scope)
                told.update(mentions.get(scope, ()))
                waiting.extend(inner.get(scope, ()))

    add([0])
    grown = True
    while grown:
        # What was not named yet may be, by what was found since.
        ready = [s for s in waiting if asked_for.get(s) in told or s not in asked_for]
        ready = [s for s in ready if s < stop or names.parent_scope[s] or (language.declares and s in asked_for)]
        waiting[:] = [s for s in waiting if s not in ready]
        grown = bool(ready)
        add(ready)
    return frozenset(found)
