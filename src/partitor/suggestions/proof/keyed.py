"""Proof of one branch for all keys of a dictionary: with each key in the place of what is asked for, it is the branch
that stood there for that key."""

from __future__ import annotations

from collections.abc import Sequence

from ...program.flow import flow_of
from ...program.names import UNBOUND, Role
from ...program.program import ProgramFile
from . import rules
from .entries import entries_of
from .folding import Term, as_term, meaning_of
from .plain import require_plain
from .terms import matches, substitute, term_of
from .verdict import KeyedBranches, Refused
from .walk import Walk


def prove_keyed(before: ProgramFile, after: ProgramFile, claim: KeyedBranches) -> None:
    """Raises Refused unless the branch that asks whether something is a key stands for one branch a key."""
    rules.refuse_reflection(before)
    if before.language.id != "python" or before.is_used_beside(claim.name):
        raise Refused("another file may change what is asked for")
    proof = _KeyedProof(before, after, claim.name)
    Walk(before, after, proof.statement).run()
    if not proof.found:
        raise Refused("there is no branch that asks whether something is a key")


class _KeyedProof:
    def __init__(self, before: ProgramFile, after: ProgramFile, name: str) -> None:
        self.before = before
        self.after = after
        self.name = name
        self.found = False
        names, tree = before.names, before.tree
        self.uses = [i for i in names.nodes if tree.text[i] == name]
        if not self.uses:
            raise Refused("there is no dictionary")
        self.scope = names.scope[self.uses[0]]
        self.keys = self._keys()

    def _keys(self) -> list[Term]:
        """The keys, which are always the same: the dictionary is made once, and only ever asked for one of them, or
        for all its values."""
        names, tree = self.before.names, self.before.tree
        made, *asked = self.uses
        statement = tree.parent[made]
        value = tree.child(statement, "right")
        given = tree.kind[statement] == "assignment" and tree.field[made] == "left" and names.role[made] is Role.WRITE
        if not given or value is None or statement + 1 != made:
            raise Refused("the dictionary is not made where it is first named")
        if any(names.scope[i] != self.scope or names.owner(i) != self.scope for i in self.uses):
            raise Refused("another function has to do with the dictionary")
        keys = [key for key, _ in entries_of(self.before, value)]
        for i in asked:
            around = tree.parent[i]
            key = tree.child(around, "subscript") if tree.kind[around] == "subscript" else None
            element = key is not None and tree.child(around, "value") == i and term_of(self.before, key) in keys
            whole = tree.source_of(tree.parent[around]) == f"{self.name}.values()"
            deleted = any(tree.kind[p] == "delete_statement" for p in self.before.parents(i))
            if names.role[i] is not Role.READ or not (element or whole) or deleted:
                raise Refused("the dictionary may have other keys")
        return keys

    def statement(self, left: Sequence[int], new: int) -> int | None:
        """The walk's rule: the branch stands for a choice."""
        tree = self.after.tree
        test = tree.child(new, "condition") if tree.kind[new] == "if_statement" else None
        asked = term_of(self.after, test) if test is not None else ("",)
        held = (
            asked[0] == "comparison_operator"
            and len(asked) == len(("kind", "a", "in", "b"))
            and asked[2] == ("in", "in")
        )
        if not held or asked[3] != ("identifier", self.name) or as_term(asked[1])[0] != "identifier" or not left:
            return None
        if self.found:
            raise Refused("two branches ask for a key")
        self.found = True
        variable = str(as_term(asked[1])[1])
        scope = rules.scope_of_statement(self.before, left[0])
        bound = flow_of(self.before, scope).bound_before
        if scope != self.scope or self.name not in bound.get(left[0], frozenset()) or variable == self.name:
            raise Refused("the dictionary may not be there yet")
        require_plain(self.before, variable, scope)
        self._require_same(left[0], new, variable)
        return 1

    def _require_same(self, choice: int, new: int, variable: str) -> None:
        before, tree = self.before, self.before.tree
        branches = tree.branches_of(choice)
        if tree.kind[choice] != "if_statement" or _otherwise(before, choice) != _otherwise(self.after, new):
            raise Refused("the branch is not the choice that stood there")
        if len(self.after.tree.branches_of(new)) > 1:
            raise Refused("further branches stand beside the one for all keys")
        templates = self._templates(new, variable)
        left = list(self.keys)
        for branch in branches:
            test, body = tree.child(branch, "condition"), tree.child(branch, "consequence")
            asked = term_of(before, test) if test is not None else ("",)
            key = next(
                (k for k in left if asked == ("comparison_operator", ("identifier", variable), ("==", "=="), k)), None
            )
            block = before.block_at.get(body) if body is not None else None
            if key is None or block is None or len(block.statements) != len(templates):
                raise Refused("a branch is none of a key")
            left.remove(key)
            called: dict[str, str] = {}
            for template, statement in zip(templates, block.statements, strict=True):
                expected = substitute(template, {variable: key}, meaning_of(before))[0]
                if not matches(expected, term_of(before, statement), called) or called:
                    raise Refused("a branch is not what is done for its key")
        if left:
            raise Refused("a key has no branch")

    def _templates(self, new: int, variable: str) -> list[Term]:
        """What is done for a key; the variable stands for it where the dictionary is asked for it."""
        file, tree, names = self.after, self.after.tree, self.after.names
        body = tree.child(new, "consequence")
        block = file.block_at.get(body) if body is not None else None
        if block is None or body is None:
            raise Refused("the branch has an unusual form")
        inside = range(body, tree.end[body])
        late = file.language.procedures | file.language.classes | {"lambda", "generator_expression"}
        late |= {"list_comprehension", "set_comprehension", "dictionary_comprehension", "await", "yield"}
        if any(tree.kind[n] in late for n in inside):
            raise Refused("what is done for a key is done later")
        for n in inside:
            if tree.kind[n] == "call":
                callee = tree.child(n, "function")
                plain = callee is not None and tree.text[callee] in file.language.builtins
                if not plain or self.before.names.owner_of(tree.text[callee or 0], self.scope) != UNBOUND:
                    raise Refused("what is done for a key calls something that may change it")
        holes = set()
        for i in names.within(body, tree.end[body]):
            if tree.text[i] != variable:
                continue
            if names.role[i] is not Role.READ:
                raise Refused(f"{variable} is changed")
            around = tree.parent[i]
            if (
                tree.kind[around] == "subscript"
                and tree.child(around, "subscript") == i
                and tree.text[around + 1] == self.name
            ):
                holes.add(i)
        return [term_of(file, s, frozenset(holes)) for s in block.statements]


def _otherwise(file: ProgramFile, choice: int) -> Term | None:
    """What is done where none of the tests fits."""
    clause = file.tree.otherwise_of(choice)
    return term_of(file, clause) if clause is not None else None
