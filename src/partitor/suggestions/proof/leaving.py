"""Proof of a new function for copies that leave what they stand in: it tells its caller that it is time to leave.

`value = f(…)` and `if value is None: continue` stand for a copy that either gives `value` something or goes on with the
loop; `if not f(…): return` for one that gives nothing. Where copies always return, `return f(…)` stands for one. Where
nothing would follow on them in the loop's turn, or in the procedure, to leave is to come to their end, with what the
variables hold then.
"""

from __future__ import annotations

from collections.abc import Mapping, Sequence

import msgspec

from ...program.flow import Flow, flow_of
from ...program.names import WRITES
from ...program.program import ProgramFile
from ...program.shapes import given_value
from . import rules
from .definitions import Definition, take_apart
from .folding import Term, as_term
from .functions import Call, FunctionProof
from .methods import MethodProof
from .something import is_something
from .terms import is_literal, term_of
from .verdict import Leaving, LeavingFunction, Refused
from .walk import Walk

JUMPS = frozenset({"break_statement", "continue_statement"})
NOTHING: Term = ("none", "None")


def prove_leaving(before: ProgramFile, after: ProgramFile, claim: LeavingFunction) -> None:
    """Raises Refused unless the rewritten file, with the function inlined and what it tells its callers followed, is
    the original."""
    rules.refuse_reflection(before)
    rules.require_fresh(claim.name, before)
    if before.language.id != "python" and (claim.how is not Leaving.AT_ITS_END or claim.home):
        raise Refused("the copies leave what they stand in")
    if claim.home:
        proof: _LeavingProof = _LeavingMethod(before, after, claim)
    else:
        proof = _LeavingProof(before, after, claim)
    Walk(before, after, proof.statement).run()
    proof.finish()


class _LeavingProof(FunctionProof):
    """As for a new function, but it may return early, and where it does its caller leaves."""

    in_class = False

    def __init__(self, before: ProgramFile, after: ProgramFile, claim: LeavingFunction) -> None:
        self.how = claim.how
        self.only_tells = False
        """It gives nothing but whether to go on."""
        self.jump: Term = ()
        """What the caller does in place of each early return of the copy that is being compared."""
        self.guards: set[int] = set()
        """The tests that follow calls."""
        FunctionProof.__init__(self, before, after, claim.name, claim.declared)
        if self.kept:
            raise Refused("the copies leave what they stand in, and a function inside them keeps a variable")
        self.exits = self._exits()

    def _definition(self) -> Definition:
        works_out = self.how is not Leaving.AT_ITS_END
        found = take_apart(self.after, self.name, self.own, self.in_class, works_out, self.how)
        if found.value and term_of(self.after, found.value) == ("true", "True"):
            self.only_tells = True
            written = found.written - set(found.returned)
            found = msgspec.structs.replace(found, value=0, returned=(), written=written)
        if self.how is Leaving.AT_TIMES and not (self.only_tells or found.returned):
            raise Refused("the new function does not tell whether to go on")
        if self.how is Leaving.ALWAYS and not (found.statements and always_leaves(self.after, found.statements[-1])):
            raise Refused("the new function may come to its end without a result")
        return found

    def _exits(self) -> list[int]:
        """The early returns of the function, each of which gives nothing, or says that it is time to leave."""
        after, tree = self.after, self.after.tree
        inside = (n for s in self.definition.statements for n in range(s, tree.end[s]))
        found = [n for n in inside if tree.kind[n] == after.language.returning]
        if self.how is Leaving.ALWAYS:
            return found
        if self.how is Leaving.AT_ITS_END:
            bound = flow_of(after, self.definition.node).bound_before
            returned = set(self.definition.returned)
            if not found or any(returned - bound.get(n, frozenset()) for n in found):
                raise Refused("what is returned might have no value")
        expected = (("false", "False"),) if self.only_tells else (NOTHING,) * len(self.definition.returned)
        if self.how is Leaving.AT_ITS_END:
            expected = tuple((after.language.name, name) for name in self.definition.returned)
        if not found or any(_returned(after, n) != expected for n in found):
            raise Refused("the new function does not tell when to leave")
        return found

    def statement(self, left: Sequence[int], new: int) -> int | None:
        """The walk's rule: a test behind a call belongs to it."""
        return 0 if new in self.guards else super().statement(left, new)

    def _call_at(self, statement: int) -> Call | None:
        after, tree = self.after, self.after.tree
        if self.how is Leaving.ALWAYS:
            if tree.kind[statement] != after.language.returning or tree.end[statement] - statement < 3:
                return None
            return super()._call_at(statement + 2)
        if self.only_tells:
            condition = tree.child(statement, "condition") if tree.kind[statement] == "if_statement" else None
            denied = condition is not None and tree.kind[condition] == "not_operator"
            return super()._call_at(condition + 2) if denied and condition is not None else None
        return super()._call_at(statement)

    def _inline(self, segment: Sequence[int], statement: int, call: Call, first: Mapping[str, str]) -> None:
        if self.how is Leaving.AT_TIMES:
            guard = statement if self.only_tells else self._guard_behind(statement, call)
            self.jump = self._jump_of(guard)
        elif self.how is Leaving.AT_ITS_END:
            self.jump = self._jump_at_the_end(segment)
        elif not always_leaves(self.before, segment[-1]):
            raise Refused("the copies do not always leave")
        super()._inline(segment, statement, call, first)

    def _guard_behind(self, statement: int, call: Call) -> int:
        """The test right behind a call, which asks whether one of the results is nothing; it is never nothing where the
        function comes to its end."""
        tree, definition = self.after.tree, self.definition
        guard = tree.end[statement]
        condition = tree.child(guard, "condition") if guard < len(tree.kind) else None
        beside = guard < len(tree.kind) and tree.parent[guard] == tree.parent[statement]
        if not beside or tree.kind[guard] != "if_statement" or condition is None:
            raise Refused("nothing leaves where the function says so")
        asked = [term_of(self.after, c) for c in tree.children(condition)]
        asks = (
            tree.kind[condition] == "comparison_operator" and len(asked) == 3 and asked[1:] == [("is", "is"), NOTHING]
        )
        if not asks or asked[0] not in [("identifier", target) for target in call.targets]:
            raise Refused("what leaves asks something else")
        place = call.targets.index(str(asked[0][1]))
        if not self._is_something(definition.returned[place]):
            raise Refused(f"{call.targets[place]} may be nothing although it is no time to leave")
        self.guards.add(guard)
        return guard

    def _jump_of(self, guard: int) -> Term:
        """What a guard does, and nothing else."""
        after, tree = self.after, self.after.tree
        blocks = after.blocks_of(guard)
        statements = after.block_at[blocks[0]].statements if len(blocks) == 1 else ()
        if len(statements) != 1 or any(tree.kind[c] in after.language.clauses for c in tree.children(guard)):
            raise Refused("the test behind a call does more than leave")
        jump = statements[0]
        if tree.kind[jump] in JUMPS:
            self._require_no_own_loop()
        elif tree.kind[jump] != after.language.returning or not all(map(is_literal, _returned(after, jump))):
            raise Refused("the test behind a call does more than leave")
        return term_of(after, jump)

    def _jump_at_the_end(self, segment: Sequence[int]) -> Term:
        """The jump with which the copy leaves to where it would get at its end anyway."""
        before, tree = self.before, self.before.tree
        scope = rules.scope_of_statement(before, segment[0])
        jumps = [n for n in _jumps_in(before, segment) if not self._stays_inside(n, segment[0])]
        terms = {term_of(before, n) for n in jumps}
        if len(terms) != 1:
            raise Refused("the copies leave what they stand in, each time in another way")
        returns = tree.kind[jumps[0]] == before.language.returning
        if tree.kind[jumps[0]] == "break_statement" or (returns and _returned(before, jumps[0])):
            raise Refused("the copies leave for somewhere else than where they end")
        if returns and (not scope or {"yield", "await"} & set(tree.text[scope : tree.end[scope]])):
            raise Refused("the copies leave an unusual function")
        if not returns:
            self._require_no_own_loop()
        if not _is_at_the_end(before, segment[-1], scope, returns):
            raise Refused("something follows on the copies that leave")
        return terms.pop()

    def _stays_inside(self, jump: int, first: int) -> bool:
        """True for a jump of a loop inside the copy."""
        before = self.before
        around = [p for p in before.parents(jump) if p >= first]
        return before.tree.kind[jump] in JUMPS and any(rules.is_left_by(before, p, jump) for p in around)

    def _require_no_own_loop(self) -> None:
        after, loops = self.after, self.after.language.loops
        if any(after.tree.kind[p] in loops for n in self.exits for p in after.parents(n) if p > self.definition.node):
            raise Refused("the function leaves from inside a loop of its own")

    def _is_something(self, name: str) -> bool:
        """True for a result that is not nothing where the function comes to its end."""
        after, tree, definition = self.after, self.after.tree, self.definition
        if definition.value:
            return is_something(after, definition.value, definition.node)
        names = after.names
        writes = [i for i in names.within(definition.node, tree.end[definition.node]) if tree.text[i] == name]
        writes = [i for i in writes if names.role[i] in WRITES]
        asked = [s for s in definition.statements if self._refuses_nothing(s, name)]
        if asked and all(i < asked[-1] for i in writes):
            return True
        given = dict(
            pair for n in range(definition.node, tree.end[definition.node]) if (pair := given_value(tree, n, True))
        )
        return all(i in given and is_something(after, given[i], definition.node) for i in writes)

    def _refuses_nothing(self, statement: int, name: str) -> bool:
        """True for a test that leaves where the variable is nothing."""
        after, tree = self.after, self.after.tree
        condition = tree.child(statement, "condition") if tree.kind[statement] == "if_statement" else None
        if condition is None or tree.kind[condition] != "comparison_operator":
            return False
        asked = [term_of(after, c) for c in tree.children(condition)]
        block = after.first_block(statement)
        leaves = block is not None and _ends_by_leaving(after, block)
        return asked == [("identifier", name), ("is", "is"), NOTHING] and leaves

    def _template(self, statement: int, holes: frozenset[int]) -> Term:
        term = super()._template(statement, holes)
        if self.how is Leaving.ALWAYS or not self.exits:
            return term
        return _with(term, term_of(self.after, self.exits[0], holes), self.jump)

    def _check_results(
        self,
        segment: Sequence[int],
        scope: int,
        flow: Flow,
        call: Call,
        mapping: dict[str, str],
        first: frozenset[str],
        private: frozenset[str],
    ) -> None:
        super()._check_results(segment, scope, flow, call, mapping, first, private)
        before = self.before
        written = {mapping[name] for name in self.definition.written | first if name in mapping}
        if any(before.names.owner_of(name, scope) != scope for name in written):
            raise Refused("the copies leave what they stand in, and change what belongs further out")
        if written & flow.always_live:
            raise Refused("the copies leave what they stand in, and change what other functions use")
        given = set(call.targets) if self.how is Leaving.AT_ITS_END else set()
        for jump in _jumps_in(before, segment):
            lost = (written - given) & flow.live_at_jump.get(jump, frozenset())
            if lost and not self._stays_inside(jump, segment[0]):
                raise Refused(f"{min(lost)} is needed where the copies leave to")


class _LeavingMethod(_LeavingProof, MethodProof):
    """The same for a method."""

    in_class = True

    def __init__(self, before: ProgramFile, after: ProgramFile, claim: LeavingFunction) -> None:
        self.home = claim.home
        _LeavingProof.__init__(self, before, after, claim)
        self.require_own_class()


def _jumps_in(file: ProgramFile, segment: Sequence[int]) -> list[int]:
    """Every `break`, `continue` and `return` of the statements."""
    tree, kinds = file.tree, JUMPS | {file.language.returning}
    return [n for s in segment for n in range(s, tree.end[s]) if tree.kind[n] in kinds]


def _is_at_the_end(file: ProgramFile, statement: int, scope: int, returns: bool) -> bool:
    """True where nothing follows on a statement in the turn of the loop around it, or, where it `returns`, in its
    procedure."""
    tree, language = file.tree, file.language
    while True:
        block = tree.parent[statement]
        if block not in file.block_at or file.block_at[block].statements[-1] != statement:
            return False
        around = held = tree.parent[block]
        while tree.kind[around] in language.clauses:
            around = tree.parent[around]
        # What stands behind the turns of a loop (`else`) is no part of one.
        if tree.kind[around] in language.loops and not returns:
            return around == held
        if returns and around == scope and block == tree.child(scope, language.body_field):
            return True
        # A branch may run on into the next one.
        runs_on = tree.kind[around] == "match_statement" and language.declares and not language.cases_end
        if tree.kind[around] not in language.conditionals or runs_on:
            return False
        statement = around


def _returned(file: ProgramFile, statement: int) -> tuple[Term, ...]:
    """The terms of what a `return` gives back, one by one."""
    tree = file.tree
    values = [c for c in tree.children(statement) if tree.text[c] not in {"return", ";"}]
    if len(values) == 1 and tree.kind[values[0]] == "expression_list":
        values = [c for c in tree.children(values[0]) if tree.text[c] != ","]
    return tuple(term_of(file, v) for v in values)


def _with(term: Term, old: Term, new: Term) -> Term:
    """A term with another one in place of one of its parts, wherever that stands."""
    if term == old:
        return new
    return tuple(_with(as_term(part), old, new) if isinstance(part, tuple) else part for part in term)


def always_leaves(file: ProgramFile, statement: int) -> bool:
    """True for a statement that nothing gets past: it returns, or raises, or does so in all of its branches."""
    tree, language = file.tree, file.language
    kind = tree.kind[statement]
    if kind in {language.returning, "raise_statement"}:
        return True
    if kind not in language.conditionals:
        return False
    parts = [c for c in tree.children(statement) if tree.kind[c] in language.clauses]
    blocks = file.blocks_of(statement)
    told = bool(parts) and tree.kind[parts[-1]] == "else_clause" and len(blocks) == len(parts) + 1
    return told and all(_ends_by_leaving(file, b) for b in blocks)


def _ends_by_leaving(file: ProgramFile, block: int) -> bool:
    statements = file.block_at[block].statements
    return bool(statements) and always_leaves(file, statements[-1])
