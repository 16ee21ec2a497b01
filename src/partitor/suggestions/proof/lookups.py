"""Proof of a table that is looked into: each of its entries is one of the original's branches, in their order."""

from __future__ import annotations

from collections.abc import Sequence

from ...program.names import Role
from ...program.program import ProgramFile
from . import rules
from .folding import Term, as_term, meaning_of
from .plain import require_plain
from .terms import is_literal, matches, substitute, term_of
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
        rows = self._in_rows(new) if left else None
        looked_up = None if rows is not None else self._looked_up(new)
        if (looked_up is None and rows is None) or not left:
            return None
        if self.after.tree.parent[self.table] not in inside or self._around(new) != self._around(self.table):
            raise Refused("the table may not be there where it is looked into")
        self.found = True
        if rows is not None:
            rows.require_same(self.before, left[0])
            require_plain(self.before, rows.variable, rules.scope_of_statement(self.before, left[0]))
            return 1
        assert looked_up is not None
        variable, choice = looked_up
        size = self._require_same(left, choice)
        require_plain(self.before, variable, rules.scope_of_statement(self.before, left[0]))
        return size

    def _in_rows(self, statement: int) -> _Rows | None:
        """`if variable in table:` with all that the table has for it under names of their own at first."""
        tree = self.after.tree
        body = tree.child(statement, "consequence") if tree.kind[statement] == "if_statement" else None
        clause = tree.otherwise_of(statement)
        block = self.after.block_at.get(body) if body is not None else None
        test = tree.child(statement, "condition")
        if block is None or test is None or len(tree.branches_of(statement)) > 1:
            return None
        asked, first = term_of(self.after, test), term_of(self.after, block.statements[0])
        held = asked[0] == "comparison_operator" and len(asked) == COMPARISON and asked[2] == ("in", "in")
        variable = as_term(asked[1]) if held else ("",)
        row = ("subscript", ("identifier", self.name), ("[", "["), variable, ("]", "]"))
        if not held or asked[3] != ("identifier", self.name) or variable[0] != "identifier" or first[-1] != row:
            return None
        target = as_term(first[1]) if first[0] == "assignment" and len(first) == COMPARISON else ("",)
        if target[0] != "pattern_list" or first[2] != ("=", "="):
            return None
        names = [str(as_term(t)[1]) for t in target[1:] if as_term(t)[0] == "identifier"]
        if len(names) < len(target) - 1:
            raise Refused("what the table has is kept in an unusual way")
        if len(set(names)) < len(names) or any(not is_row(value, len(names)) for _, value in self.entries):
            raise Refused("what the table has does not fit the names that it is given")
        otherwise = term_of(self.after, clause) if clause is not None else None
        rest = block.statements[1:]
        for name in names if rest else ():
            rules.require_fresh(name, self.before)
        if set(names) & rules.names_used_by_inner_functions(self.after, rest):
            raise Refused("a function would see what the table has change")
        holes = frozenset(i for s in rest for i in self.after.names.within(s, tree.end[s]) if tree.text[i] in names)
        if any(self.after.names.role[i] is not Role.READ for i in holes):
            raise Refused("what the table has is changed")
        templates = [term_of(self.after, s, holes) for s in rest]
        return _Rows(self.before, str(variable[1]), names, self.entries, templates, otherwise)

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


def is_row(value: Term, width: int) -> bool:
    """True for so many literals between parentheses."""
    return value[0] == "tuple" and len(_parts(value)) == width


def _parts(row: Term) -> list[Term]:
    return [as_term(t) for t in row[1:] if as_term(t) not in BRACKETS]


class _Rows:
    """A choice each branch of which is what is done with one row of a table."""

    def __init__(
        self,
        file: ProgramFile,
        variable: str,
        names: Sequence[str],
        entries: Sequence[tuple[Term, Term]],
        templates: Sequence[Term],
        otherwise: Term | None,
    ) -> None:
        self.meaning = meaning_of(file)
        self.variable = variable
        self.names = names
        self.entries = entries
        self.templates = templates
        """What is done with a row once it has its names; nothing where these are all it is for."""
        self.otherwise = otherwise

    def require_same(self, file: ProgramFile, choice: int) -> None:
        """Raises Refused unless the branches of the original's statement are what is done with the rows, in order."""
        tree = file.tree
        branches = tree.branches_of(choice)
        clause = tree.otherwise_of(choice)
        otherwise = term_of(file, clause) if clause is not None else None
        if tree.kind[choice] != "if_statement" or len(branches) != len(self.entries) or otherwise != self.otherwise:
            raise Refused("the table is not the choice that stood there")
        for branch, (key, row) in zip(branches, self.entries, strict=True):
            test, body = tree.child(branch, "condition"), tree.child(branch, "consequence")
            block = file.block_at.get(body) if body is not None else None
            done = [term_of(file, s) for s in block.statements] if block is not None else []
            asked = term_of(file, test) if test is not None else ("",)
            if asked != _test(("identifier", self.variable), key) or not self._is_done(done, row):
                raise Refused("a branch is not what is done with its row")

    def _is_done(self, done: Sequence[Term], row: Term) -> bool:
        values = dict(zip(self.names, _parts(row), strict=True))
        if not self.templates:
            given = [("assignment", ("identifier", name), ("=", "="), value) for name, value in values.items()]
            return list(done) == given
        expected = [substitute(template, values, self.meaning)[0] for template in self.templates]
        called: dict[str, str] = {}
        same = len(expected) == len(done) and all(matches(e, d, called) for e, d in zip(expected, done, strict=True))
        return same and not called


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
