"""Proof of a table that is looked into: each of its entries is one of the original's branches, in their order."""

from __future__ import annotations

from collections.abc import Sequence

from ...program.names import Role
from ...program.program import ProgramFile
from . import rules
from .folding import Term, as_term
from .plain import require_plain
from .terms import is_literal, term_of
from .verdict import LookedUp, Refused
from .walk import Walk

Choice = tuple[list[tuple[Term, Term]], Term | None]
"""(test, what is done) of each branch, and the block of what is done otherwise."""
COMPARISON = 4
"""Parts of a comparison of two: its kind, a side, the sign, the other side."""


def prove_lookup(before: ProgramFile, after: ProgramFile, claim: LookedUp) -> None:
    """Raises Refused unless the table with the statement that looks into it is a choice of the original."""
    rules.refuse_reflection(before)
    rules.require_fresh(claim.name, before)
    proof = _LookupProof(before, after, claim.name)
    Walk(before, after, proof.statement).run()
    proof.finish()


class _LookupProof:
    def __init__(self, before: ProgramFile, after: ProgramFile, name: str) -> None:
        self.before = before
        self.after = after
        self.name = name
        self.table = -1
        self.entries: list[tuple[Term, Term]] = []
        self.found = False

    def statement(self, left: Sequence[int], new: int) -> int | None:
        """The walk's rule: the table stands for nothing, the statement that looks into it for a choice."""
        tree = self.after.tree
        if self.table < 0 and tree.kind[new] == "assignment" and tree.text[new + 1] == self.name:
            self._read_table(new)
            return 0
        if self.name not in tree.text[new : tree.end[new]] or self.table < 0 or self.found:
            return None
        inside = [p for p in self.after.parents(new) if p in self.after.block_at]
        looked_up = self._looked_up(new)
        if looked_up is None or not left:
            return None
        if self.after.tree.parent[self.table] not in inside or self._around(new) != self._around(self.table):
            raise Refused("the table may not be there where it is looked into")
        self.found = True
        variable, choice = looked_up
        size = self._require_same(left, choice)
        require_plain(self.before, variable, rules.scope_of_statement(self.before, left[0]))
        return size

    def _around(self, statement: int) -> int:
        return self.after.procedure_around(statement).node

    def _read_table(self, statement: int) -> None:
        term = term_of(self.after, statement)
        entries = as_term(term[3]) if len(term) == COMPARISON and term[2] == ("=", "=") else ("",)
        if term[1] != ("identifier", self.name) or entries[0] != "dictionary":
            raise Refused("the table is not written out")
        for pair in (as_term(t) for t in entries[1:] if as_term(t)[0] == "pair"):
            key, value = as_term(pair[1]), as_term(pair[3])
            if not (is_literal(key) and is_literal(value)):
                raise Refused("the table holds more than literals")
            self.entries.append((key, value))
        keys = [key for key, _ in self.entries]
        if len({key[0] for key in keys}) != 1 or keys[0][0] not in {"integer", "str"} or len(set(keys)) != len(keys):
            raise Refused("the table is asked for things of several kinds, or for one thing twice")
        self.table = statement

    def _looked_up(self, statement: int) -> tuple[str, Choice] | None:
        """The variable that the table is asked for, and the choice that the statement is; None where it is none."""
        term = term_of(self.after, statement)
        if term[0] == "if_statement":
            return self._where_it_is_there(term)
        if term[0] not in {"assignment", "augmented_assignment", "return_statement"}:
            return None
        asked = as_term(term[-1])
        get = ("attribute", ("identifier", self.name), (".", "."), ("identifier", "get"))
        if asked[0] != "call" or asked[1] != get:
            return None
        given = [as_term(t) for t in as_term(asked[2])[1:] if as_term(t) not in BRACKETS]
        if len(given) != len(("variable", "otherwise")) or given[0][0] != "identifier":
            return None
        variable, otherwise = given
        if not is_literal(otherwise) and otherwise != variable:
            raise Refused("what is given otherwise is worked out in any case")
        branches = [(_test(variable, key), (*term[:-1], value)) for key, value in self.entries]
        return str(variable[1]), (branches, ("block", (*term[:-1], otherwise)))

    def _where_it_is_there(self, term: Term) -> tuple[str, Choice] | None:
        """`if variable in table: … table[variable]`, and what is done otherwise."""
        taken_apart = _branches_of(term)
        if taken_apart is None or len(taken_apart[0]) != 1:
            return None
        ((test, done),), otherwise = taken_apart
        held = test[0] == "comparison_operator" and len(test) == COMPARISON and test[2] == ("in", "in")
        variable = as_term(test[1]) if held else ("",)
        if not held or test[3] != ("identifier", self.name) or variable[0] != "identifier":
            return None
        if done[0] not in {"assignment", "augmented_assignment", "return_statement"}:
            return None
        if done[-1] != ("subscript", ("identifier", self.name), ("[", "["), variable, ("]", "]")):
            return None
        branches = [(_test(variable, key), (*done[:-1], value)) for key, value in self.entries]
        return str(variable[1]), (branches, otherwise)

    def _require_same(self, left: Sequence[int], choice: Choice) -> int:
        """How many of the statements that are left the choice stands for. Raises Refused where it is another one."""
        branches, otherwise = choice
        whole = _branches_of(term_of(self.before, left[0]))
        if whole is not None and whole == (branches, otherwise):
            return 1
        # Tests one behind the other, each of which returns; what follows is what is done otherwise.
        leaves = branches[0][1][0] == "return_statement"
        tests = [_branches_of(term_of(self.before, s)) for s in left[: len(branches)]]
        row = [found[0][0] for found in tests if found is not None and len(found[0]) == 1 and found[1] is None]
        if leaves and row == branches:
            if otherwise is None:
                return len(branches)
            if len(left) > len(branches) and ("block", term_of(self.before, left[len(branches)])) == otherwise:
                return len(branches) + 1
        follows = leaves and len(left) > 1 and whole == (branches, None)
        if follows and ("block", term_of(self.before, left[1])) == otherwise:
            return 2
        raise Refused("the table is not the choice that stood there")

    def finish(self) -> None:
        """After the walk: the table is looked into in the one place only."""
        names, tree = self.after.names, self.after.tree
        uses = [i for i in names.nodes if tree.text[i] == self.name]
        writes = [i for i in uses if names.role[i] in (Role.WRITE, Role.UPDATE)]
        if not self.found or len(writes) != 1 or len(uses) > len(("made", "asked", "looked into")):
            raise Refused("there is no table that is looked into where one is claimed")


BRACKETS = {("(", "("), (")", ")"), (",", ",")}


def _test(variable: Term, key: Term) -> Term:
    return ("comparison_operator", variable, ("==", "=="), key)


def _branches_of(term: Term) -> Choice | None:
    """A choice taken apart, each branch of one statement; None for anything else."""
    if term[0] != "if_statement":
        return None
    branches: list[tuple[Term, Term]] = []
    otherwise: Term | None = None
    for part in ((term[0], *(t for t in term[1:] if as_term(t)[0] not in CLAUSES)), *_clauses(term)):
        inner = [as_term(t) for t in part[1:] if as_term(t)[0] not in WORDS]
        block = inner[-1] if inner and inner[-1][0] == "block" else ()
        if part[0] == "else_clause" and block and len(inner) == 1:
            otherwise = block
        elif len(inner) == len(("test", "block")) and len(block) == len(("block", "one")):
            branches.append((inner[0], as_term(block[1])))
        else:
            return None
    return branches, otherwise


CLAUSES = {"elif_clause", "else_clause"}
WORDS = {"if", "elif", "else", ":"}


def _clauses(term: Term) -> list[Term]:
    return [as_term(t) for t in term[1:] if as_term(t)[0] in CLAUSES]
