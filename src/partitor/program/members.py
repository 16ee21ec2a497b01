"""What belongs to the objects of a class and goes by its bare name in the class's methods."""

from __future__ import annotations

from collections.abc import Sequence

from .names import Role
from .program import ProgramFile


def members_named(file: ProgramFile, statements: Sequence[int]) -> list[str]:
    """The members of classes that statements mention by their bare names, in order."""
    known, tree, names = members_of(file), file.tree, file.names
    return [
        tree.text[i]
        for s in statements
        for i in names.within(s, tree.end[s])
        if tree.text[i] in known and names.role[i] <= Role.UPDATE and names.owner(i) <= 0
    ]


def members_of(file: ProgramFile) -> frozenset[str]:
    """The names of what belongs to objects of the file's classes."""
    if "members" not in file.derived:
        file.derived["members"] = frozenset(
            file.tree.text[i] for i in file.names.nodes if file.names.declared_at(i) and _is_member(file, i)
        )
    known = file.derived["members"]
    assert isinstance(known, frozenset)
    return known


CONSTRUCTORS = frozenset({"__init__"})


def kept_fields(file: ProgramFile) -> frozenset[str]:
    """Fields that objects are given by their constructor, and nothing gives another value, where a method is given its
    object."""
    if not file.language.object_is_given:
        return frozenset()
    if "kept fields" not in file.derived:
        tree, language = file.tree, file.language
        made, changed = set[str](), set[str]()
        member = language.member[0]
        for node in [n for n, kind in enumerate(tree.kind) if kind == member]:
            parent = tree.parent[node]
            written = tree.field[node] == "left" or "pattern" in tree.kind[parent]
            if not written and tree.kind[parent] != "delete_statement":
                continue
            field, inside = tree.text[tree.end[node] - 1], file.procedure_around(node)
            plain = tree.kind[parent] == "assignment" and tree.text[node + 1] == language.own_object
            (made if plain and inside.in_class and inside.name in CONSTRUCTORS else changed).add(field)
        changed.update(p.name for p in file.procedures)
        file.derived["kept fields"] = frozenset(made - changed)
    known = file.derived["kept fields"]
    assert isinstance(known, frozenset)
    return known


def _is_member(file: ProgramFile, node: int) -> bool:
    tree, language = file.tree, file.language
    around = file.parents(node)
    holders = language.classes | language.procedures
    own = tree.kind[around[0]] in holders and tree.field[node] == "name"
    holder = next((p for p in (around[1:] if own else around) if tree.kind[p] in holders), 0)
    return tree.kind[holder] in language.classes


def class_name(file: ProgramFile, node: int) -> str:
    """What a class is called."""
    named = file.tree.child(node, file.language.name_field)
    return file.tree.text[named] if named is not None else ""
