"""Proof of a method that needs no object and is called by its class's name from other classes."""

from __future__ import annotations

from collections.abc import Sequence

from ...program.names import NO_VARIABLES, UNBOUND
from ...program.program import ProgramFile
from . import rules
from .functions import FunctionProof, Taken
from .verdict import Refused
from .walk import Walk


def prove_static(
    before: ProgramFile, after: ProgramFile, name: str, own: Sequence[str], home: str, at_home: bool
) -> None:
    """Raises Refused unless the rewritten file, with the method inlined, is the original. `at_home`: the method stands
    in this file as it is; else it was put into it for the proof."""
    rules.refuse_reflection(before)
    rules.require_fresh(name, before)
    proof = _StaticProof(before, after, name, own, home, at_home)
    Walk(before, after, proof.statement).run()
    proof.finish()


class _StaticProof(FunctionProof):
    def __init__(
        self, before: ProgramFile, after: ProgramFile, name: str, own: Sequence[str], home: str, at_home: bool
    ) -> None:
        super().__init__(before, after, name, own)
        self.home = home
        self.at_home = at_home
        words = after.words_before_name(self.definition.node)
        hidden = "private" in words or (after.language.id == "csharp" and not {"public", "internal"} & set(words))
        if "static" not in words or hidden:
            raise Refused("the new method cannot be called from other classes")
        if at_home:
            self._require_plain_class(after, after.tree.parent[after.tree.parent[self.definition.node]], home)

    def _require_plain_class(self, file: ProgramFile, holder: int, name: str) -> None:
        tree = file.tree
        named = tree.child(holder, "name")
        same = [p for f in (file, *file.beside) for p in _classes(f) if p == name]
        if tree.parent[holder] != 0 or named is None or tree.text[named] != name or len(same) > 1 + len(file.beside):
            raise Refused("the new method stands in no plain class")
        if tree.child(holder, "type_parameters") is not None:
            raise Refused("the class has types of its own")

    def _callee(self, callee: int) -> Taken | None:
        tree = self.after.tree
        if tree.text[callee] == self.name:
            around = next((p for p in self.after.parents(callee) if tree.kind[p] in self.after.language.classes), 0)
            named = tree.child(around, "name")
            return Taken() if self.at_home and named is not None and tree.text[named] == self.home else None
        if tree.kind[callee] != self.after.language.member[0]:
            return None
        held, member = tree.child(callee, "object"), tree.child(callee, "attribute")
        if held is None or member is None or tree.text[held] != self.home or tree.text[member] != self.name:
            return None
        if self.after.names.owner(held) not in (0, UNBOUND):
            raise Refused(f"{self.home} is a variable there")
        return Taken()

    def _check_home(self, segment: Sequence[int]) -> None:
        """Nothing that the method uses belongs to a class or an object, but for what it is given."""
        before, after = self.before, self.after
        member = rules.member_around(before, segment[0])
        holder = before.tree.parent[before.tree.parent[member]]
        if before.tree.child(holder, "type_parameters") is not None:
            raise Refused("the class of the copies has types of its own")
        tree, names = after.tree, after.names
        classes = {name for f in (before, *before.beside) for name in _classes(f)}
        for statement in self.definition.parts:
            if {"this", "super", "base"} & set(tree.kind[statement : tree.end[statement]]):
                raise Refused("the copies use the object they belong to")
            for i in names.within(statement, tree.end[statement]):
                name = tree.text[i]
                if names.role[i] in NO_VARIABLES or name in classes:
                    continue
                library = name[:1].isupper() or name in after.language.builtins
                if names.owner(i) == 0 or (names.owner(i) == UNBOUND and not library):
                    raise Refused(f"{name} belongs to the class of the copies")
        rules.require_same_errors(after, self.definition.node, member, segment, before)


def _classes(file: ProgramFile) -> list[str]:
    """The names of the classes at a file's top."""
    tree = file.tree
    tops = [s for s in file.blocks[0].statements if tree.kind[s] in file.language.classes]
    return [tree.text[named] for s in tops if (named := tree.child(s, "name")) is not None]
