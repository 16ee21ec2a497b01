"""Live variables and definitely bound variables, statement by statement.

Backward and forward data-flow on the block tree (Aho, Lam, Sethi, Ullman: *Compilers*, 2nd ed.,
sections 9.2.4 and 9.2.5), with structured control flow instead of a graph: loops run to a fixed
point, what leaves early carries the liveness of where it goes. Both err on the safe side: a name
may be called live that is not, never the other way round.
"""

from __future__ import annotations

import itertools
import re
from collections.abc import Sequence

import msgspec

from ..frozen import Frozen, Single
from .names import READS, Role
from .program import ProgramFile

Set = frozenset[str]
EMPTY: Set = frozenset()


class _Exits(Frozen, frozen=True):
    """What is live where a statement may jump to."""

    on_break: Set = EMPTY
    on_continue: Set = EMPTY
    on_return: Set = EMPTY
    on_error: Set = EMPTY


class Flow(Single, frozen=True, eq=False):
    """Results for the variables of one scope: `live_after[s]`, `bound_before[s]` by statement node."""

    scope: int
    live_after: dict[int, Set]
    bound_before: dict[int, Set]
    always_live: Set
    """Names that other scopes use, so that every value of theirs may be seen."""
    live_at_jump: dict[int, Set]
    """What is live where a `break`, `continue` or `return` goes, by its node."""


def flow_of(file: ProgramFile, scope: int) -> Flow:
    """Analyse the procedure at node `scope` (0: the file's loose code). Linear but for loop nesting; done
    once for each file and scope."""
    known = file.derived.get(("flow", scope))
    if not isinstance(known, Flow):
        known = _Analysis(file, scope).run()
        file.derived["flow", scope] = known
    return known


def losses(file: ProgramFile) -> list[int]:
    """The names in a file where a variable loses its value: in `del`, and behind the `as` of a handler, whose end takes
    it. Worked out once."""
    known = file.derived.get("losses")
    if not isinstance(known, list):
        tree, names = file.tree, file.names
        takes = file.language.deleting | {"except_clause"}
        found: list[int] = []
        for node in [n for n, kind in enumerate(tree.kind) if kind in takes]:
            handles = tree.kind[node] == "except_clause"
            stop = next((c for c in tree.children(node) if tree.kind[c] in file.language.blocks), tree.end[node])
            role = Role.WRITE if handles else Role.UPDATE
            found += [i for i in names.within(node, stop) if names.role[i] is role]
        known = file.derived["losses"] = found
    return known


class _Analysis:
    def __init__(self, file: ProgramFile, scope: int) -> None:
        self.file = file
        self.tree = file.tree
        self.language = file.language
        self.names = file.names
        self.scope = scope
        self.live: dict[int, Set] = {}
        self.bound: dict[int, Set] = {}
        self.at_jump: dict[int, Set] = {}
        self.always = EMPTY
        self.cache: dict[tuple[int, int], tuple[Set, Set]] = {}
        self.parts: dict[int, tuple[list[tuple[int, int]], list[int], list[int]]] = {}
        self.losses = [i for i in losses(file) if self.names.scope[i] == scope]

    def run(self) -> Flow:
        self.always = self._names_used_elsewhere()
        if {"labeled_statement", "goto_statement"} & set(self.tree.kind[self.scope : self.tree.end[self.scope]]):
            # Jumps to labels are not followed: every value may be needed anywhere.
            self.always |= frozenset(self.names.bound[self.scope])
        body = self.scope and self.tree.child(self.scope, self.language.body_field)
        if body is None:
            return Flow(self.scope, {}, {}, self.always, {})
        statements = self._statements(body)
        left = self.always
        if self.language.declares:
            left |= self._callers_variables() | self._kept_from_call_to_call()
        self._backward(statements, left, _Exits(on_return=left, on_error=left))
        start = frozenset(
            self.tree.text[i]
            for i in self.names.nodes
            if self.names.role[i] is Role.PARAMETER and self.names.scope[i] == self.scope
        )
        if self.language.implicit_locals:
            # A variable that was given nothing yet holds what stands for nothing in its type.
            start |= frozenset(self.names.bound[self.scope])
        self._forward(statements, start)
        return Flow(self.scope, self.live, self.bound, self.always, self.at_jump)

    def _callers_variables(self) -> Set:
        """Parameters that are variables of whoever calls the procedure: what they hold at its end is needed there."""
        names, tree, by_reference = self.names, self.tree, self.language.by_reference
        found = set()
        for i in names.nodes:
            if names.role[i] is not Role.PARAMETER or names.scope[i] != self.scope:
                continue
            told = itertools.takewhile(
                lambda p: tree.field[p] != "parameters" and p != self.scope, self.file.parents(i)
            )
            words = {word for p in told for word in tree.leaf_texts(p)}
            if words & {"&", "ref", "out", "inout"} or (by_reference and "byval" not in {w.lower() for w in words}):
                found.add(tree.text[i])
        return frozenset(found)

    def _kept_from_call_to_call(self) -> Set:
        """Variables of the procedure that keep what they hold: it is needed when the procedure is called again."""
        names, tree, found = self.names, self.tree, set()
        for n in range(self.scope, tree.end[self.scope]) if self.scope else ():
            if tree.text[n].lower() == "static":
                held = next((p for p in self.file.parents(n) if tree.kind[p] == "declaration" and p > self.scope), None)
                inside = names.within(held, tree.end[held]) if held is not None else []
                found |= {tree.text[i] for i in inside if names.role[i] is Role.WRITE}
        return frozenset(found)

    def _names_used_elsewhere(self) -> Set:
        names = self.names
        outward = names.outward.get(self.scope, {})
        used = {
            self.tree.text[i]
            for i in names.nodes
            if names.role[i] <= Role.DECLARATION
            and names.scope[i] != self.scope
            and not self._inside_expression_of(i)
            and names.owner(i) == self.scope
        }
        if self.scope == 0:
            for sent in names.outward.values():
                used |= {name for name, is_global in sent.items() if is_global}
            used |= {name for name in names.bound[0] if self.file.is_seen_outside(name)}
        return frozenset(used | set(outward))

    def _inside_expression_of(self, node: int) -> bool:
        """True where a comprehension or lambda in this very scope uses the name on the spot."""
        scope = self.names.scope[node]
        while self.tree.kind[scope] in self.language.scopes and self.tree.kind[scope] != "lambda":
            scope = self.names.parent_scope[scope]
        return scope == self.scope

    def _statements(self, block: int) -> Sequence[int]:
        known = self.file.block_at.get(block)
        return known.statements if known else ()

    # -- what a stretch of tokens reads and writes ------------------------------------------------

    def _uses(self, start: int, stop: int) -> tuple[Set, Set]:
        """(names read before they may be written, names written for certain) in evaluation terms.

        Within one header all reads are taken to come first, which is the safe side for liveness
        except after a walrus, whose name therefore counts as written but never as killed.
        """
        key = (start, stop)
        if key not in self.cache:
            reads, writes = set(), set()
            names = self.names
            for i in names.within(start, stop):
                role = names.role[i]
                if role > Role.UPDATE or names.owner(i) != self.scope:
                    continue
                if role in READS:
                    reads.add(self.tree.text[i])
                if role is not Role.READ and self.tree.kind[self.tree.parent[i]] != "named_expression":
                    writes.add(self.tree.text[i])
            self.cache[key] = (frozenset(reads), frozenset(writes))
        return self.cache[key]

    def _parts(self, node: int) -> tuple[list[tuple[int, int]], list[int], list[int]]:
        """A compound statement's header token ranges, its own blocks, and its clauses."""
        if node not in self.parts:
            self.parts[node] = self._taken_apart(node)
        return self.parts[node]

    def _taken_apart(self, node: int) -> tuple[list[tuple[int, int]], list[int], list[int]]:
        tree, language = self.tree, self.language
        ranges: list[tuple[int, int]] = []
        blocks: list[int] = []
        clauses: list[int] = []
        for child in tree.children(node):
            if tree.kind[child] in language.blocks:
                inner = [c for c in tree.children(child) if tree.kind[c] in language.clauses]
                clauses.extend(inner)
                if not inner or self._statements(child):
                    blocks.append(child)
            elif tree.kind[child] in language.clauses:
                clauses.append(child)
            else:
                ranges.append((child, tree.end[child]))
        return ranges, blocks, clauses

    def _header(self, ranges: list[tuple[int, int]]) -> tuple[Set, Set]:
        reads: Set = EMPTY
        writes: Set = EMPTY
        for start, stop in ranges:
            r, w = self._uses(start, stop)
            reads |= r
            writes |= w
        return reads, writes

    # -- backward: live variables -------------------------------------------------------------

    def _backward(self, statements: Sequence[int], after: Set, exits: _Exits) -> Set:
        for statement in reversed(statements):
            after = after | self.always
            self.live[statement] = after
            after = self._before(statement, after, exits)
        return after

    def _before(self, node: int, after: Set, exits: _Exits) -> Set:
        tree, language = self.tree, self.language
        kind = tree.kind[node]
        if self.file.is_definition(node):
            return after | self._uses(node, tree.end[node])[0] | exits.on_error
        if kind in language.blocks:
            return self._backward(self._statements(node), after, exits)
        if kind == "labeled_statement":
            last = list(tree.children(node))[-1]
            self.live[last] = after
            return self._before(last, after, exits) | after
        if kind in language.loops:
            return self._before_loop(node, after, exits)
        if kind == "try_statement":
            return self._before_try(node, after, exits)
        ranges, blocks, clauses = self._parts(node)
        if not blocks and not clauses:
            return self._before_simple(node, after, exits)
        reads, writes = self._header(ranges)
        if kind == "with_statement":
            inner = msgspec.structs.replace(exits, on_error=exits.on_error | after)
            return (self._backward(self._statements(blocks[0]), after, inner) - writes) | reads | after
        if kind == "match_statement" and language.declares:
            return self._before_switch(clauses, after, exits) | reads | exits.on_error
        result = self._branches(blocks, clauses, after, exits)
        if not any(tree.kind[c] in {"else_clause"} for c in clauses):
            result |= after
        return result | reads | exits.on_error

    def _branches(self, blocks: list[int], clauses: list[int], after: Set, exits: _Exits) -> Set:
        result: Set = EMPTY
        for block in blocks:
            result |= self._backward(self._statements(block), after, exits)
        for clause in clauses:
            ranges, inner, _ = self._parts(clause)
            reads, _ = self._header(ranges)
            result |= reads
            for block in inner:
                result |= self._backward(self._statements(block), after, exits)
        return result

    def _before_switch(self, clauses: list[int], after: Set, exits: _Exits) -> Set:
        """Branches that run on into the next where nothing ends them; `break` leaves them all."""
        result = falls = after
        within = msgspec.structs.replace(exits, on_break=after)
        for clause in reversed(clauses):
            ranges, blocks, _ = self._parts(clause)
            runs_on = "fallthrough_statement" in self.tree.kind[clause : self.tree.end[clause]]
            ends = (
                (self.language.cases_end and not runs_on)
                or any(self.tree.text[start] in {"->", "=>"} for start, _ in ranges)
                or any(self.tree.kind[start] == "break_statement" for start, _ in ranges)
            )
            falls = after if ends else falls
            for block in blocks:
                falls = self._backward(self._statements(block), falls, within)
            result |= falls | self._header(ranges)[0]
        return result

    def _before_simple(self, node: int, after: Set, exits: _Exits) -> Set:
        kind = self.tree.kind[node]
        reads, writes = self._uses(node, self.tree.end[node])
        if kind == "break_statement":
            self.at_jump[node] = exits.on_break
            return exits.on_break
        if kind == "continue_statement":
            self.at_jump[node] = exits.on_continue
            return exits.on_continue
        if kind == self.language.returning:
            self.at_jump[node] = exits.on_return
            return exits.on_return | reads | exits.on_error
        if kind == "raise_statement":
            return exits.on_error | reads
        if self._holds_a_block(node):
            writes = EMPTY
        return (after - writes) | reads | exits.on_error

    def _holds_a_block(self, node: int) -> bool:
        """True for a statement with blocks in places that are not followed: what they write is not certain."""
        return not self.language.blocks.isdisjoint(self.tree.kind[node : self.tree.end[node]])

    def _before_loop(self, node: int, after: Set, exits: _Exits) -> Set:
        ranges, blocks, clauses = self._parts(node)
        first = [r for r in ranges if self.tree.field[r[0]] == "initializer"]
        if first:
            later = [r for r in ranges if r not in first]
            top = self._before_turns(later, blocks, clauses, after, exits)
            reads, writes = self._header(first)
            return (top - writes) | reads | exits.on_error
        return self._before_turns(ranges, blocks, clauses, after, exits, self._is_endless(node))

    def _is_endless(self, loop: int) -> bool:
        """True for a loop that only a jump leaves: `while True:`, `while (1)`."""
        tree = self.tree
        word = tree.text[loop + 1].lower()
        if tree.kind[loop] not in {"while_statement", "do_statement"} or word not in {"while", "do", "repeat"}:
            return False
        condition = tree.child(loop, "condition")
        while condition is not None and tree.kind[condition] in self.language.parentheses:
            inner = [c for c in tree.children(condition) if tree.text[c] not in {"(", ")"}]
            condition = inner[0] if len(inner) == 1 else None
        return condition is not None and (tree.kind[condition] == "true" or tree.text[condition] == "1")

    def _before_turns(
        self,
        ranges: list[tuple[int, int]],
        blocks: list[int],
        clauses: list[int],
        after: Set,
        exits: _Exits,
        endless: bool = False,
    ) -> Set:
        reads, writes = self._header(ranges)
        done = self._branches([], clauses, after, exits) if clauses else after
        done |= after
        top = reads if endless else done | reads
        while True:
            inner = _Exits(after, top, exits.on_return, exits.on_error)
            body = self._backward(self._statements(blocks[0]), top, inner) if blocks else top
            new_top = top | (body - writes) | reads
            if new_top == top:
                return top | exits.on_error
            top = new_top

    def _before_try(self, node: int, after: Set, exits: _Exits) -> Set:
        _, blocks, clauses = self._parts(node)
        finals = [c for c in clauses if self.tree.kind[c] == "finally_clause"]
        others = [c for c in clauses if c not in finals]
        if finals:
            leaving = after | exits.on_return | exits.on_error | exits.on_break | exits.on_continue
            after = self._branches([], finals, leaving, exits)
            exits = _Exits(
                exits.on_break | after,
                exits.on_continue | after,
                exits.on_return | after,
                exits.on_error | after,
            )
        elses = [c for c in others if self.tree.kind[c] == "else_clause"]
        handlers = [c for c in others if c not in elses]
        caught = self._branches([], handlers, after, exits) | exits.on_error
        through = self._branches([], elses, after, exits) if elses else after
        inner = msgspec.structs.replace(exits, on_error=caught)
        result: Set = caught
        for block in blocks:
            result |= self._backward(self._statements(block), through, inner)
        return result

    # -- forward: definitely bound variables -----------------------------------------------------

    def _forward(self, statements: Sequence[int], bound: Set) -> Set:
        for statement in statements:
            self.bound[statement] = bound
            bound = self._after(statement, bound)
        return bound

    def _after(self, node: int, bound: Set) -> Set:
        tree, language = self.tree, self.language
        kind = tree.kind[node]
        if kind in language.deleting:
            return bound - self._uses(node, tree.end[node])[1]
        if self.file.is_definition(node) or kind in language.imports:
            return bound | self._direct_writes(node)
        if kind in language.blocks:
            return self._forward(self._statements(node), bound)
        if kind == "labeled_statement":
            inner = list(tree.children(node))[-1]
            self.bound[inner] = bound
            self._after(inner, bound)
            return bound
        ranges, blocks, clauses = self._parts(node)
        if self.losses and (kind in language.loops or kind in {"with_statement", "try_statement"}):
            # It may be lost one turn before, or before an error.
            bound -= self._lost_within([(node, tree.end[node])])
        if not blocks and not clauses:
            if kind in language.leaving and kind != "goto_statement":
                # Nothing gets past it.
                return bound | frozenset(self.names.bound.get(self.scope, ()))
            if self._holds_a_block(node):
                return bound
            return bound | (self._uses(node, tree.end[node])[1] - self._without_a_value(node))
        _, writes = self._header(ranges)
        if kind in language.loops:
            for block in blocks:
                self._forward(self._statements(block), bound | writes)
            self._clauses_after(clauses, bound)
            return bound | self._bound_at_breaks(node) if self._is_endless(node) else bound
        if kind == "with_statement":
            self._forward(self._statements(blocks[0]), bound | writes)
            return bound
        if kind == "try_statement":
            return self._after_try(blocks, clauses, bound)
        ends = [self._forward(self._statements(block), bound) for block in blocks]
        ends += self._clauses_after(clauses, bound)
        exhaustive = any(tree.kind[c] == "else_clause" for c in clauses) and kind != "match_statement"
        if not exhaustive:
            ends.append(bound)
        return frozenset.intersection(*ends)

    def _bound_at_breaks(self, loop: int) -> Set:
        """What is bound wherever an endless loop is left; nothing where that is not in sight."""
        tree, language = self.tree, self.language
        inside = range(loop + 1, tree.end[loop])
        if any(tree.kind[n] in language.deleting for n in inside):
            return EMPTY
        around = language.loops | {"match_statement", "switch_statement"}
        breaks = [
            n
            for n in inside
            if tree.kind[n] == "break_statement"
            and next(p for p in self.file.parents(n) if tree.kind[p] in around) == loop
        ]
        if not breaks or any(b not in self.bound for b in breaks):
            return EMPTY
        return frozenset.intersection(*(self.bound[b] for b in breaks))

    def _after_try(self, blocks: list[int], clauses: list[int], bound: Set) -> Set:
        """What is bound when the try ran through and when any handler did. A handler begins with what was
        bound before the try: nothing is known of how far it got."""
        through = bound
        for block in blocks:
            through = self._forward(self._statements(block), bound)
        ends = self._clauses_after(clauses, bound)
        kinds = [self.tree.kind[c] for c in clauses]
        handled = [end for end, kind in zip(ends, kinds, strict=True) if kind.startswith("except")]
        certain = frozenset.intersection(through, *handled)
        return certain | (ends[-1] if "finally_clause" in kinds else EMPTY)

    def _clauses_after(self, clauses: list[int], bound: Set) -> list[Set]:
        ends = []
        for clause in clauses:
            ranges, blocks, _ = self._parts(clause)
            end = bound | self._header(ranges)[1]
            for block in blocks:
                end = self._forward(self._statements(block), end)
            # The name of an error is gone where its handler ends.
            ends.append(end - self._lost_within(ranges) if self.losses else end)
        return ends

    def _lost_within(self, ranges: Sequence[tuple[int, int]]) -> Set:
        """The variables that may lose their value in some stretches of nodes."""
        return frozenset(self.tree.text[i] for i in self.losses for start, stop in ranges if start <= i < stop)

    def _without_a_value(self, statement: int) -> Set:
        """Plain variables that a statement declares and gives no value, where that leaves them without one."""
        tree, names = self.tree, self.names
        if tree.kind[statement] != "declaration" or self.language.implicit_locals:
            return EMPTY
        kind = tree.child(statement, "type")
        if kind is not None and self.language.ready_types and re.fullmatch(self.language.ready_types, tree.text[kind]):
            return EMPTY
        return frozenset(
            tree.text[i]
            for i in names.within(statement, tree.end[statement])
            if tree.kind[tree.parent[i]] == "declaration"
            or (tree.kind[tree.parent[i]] == "declarator" and tree.child(tree.parent[i], "right") is None)
        )

    def _direct_writes(self, node: int) -> Set:
        names = self.names
        return frozenset(
            self.tree.text[i]
            for i in names.within(node, self.tree.end[node])
            if names.role[i] is Role.WRITE and names.scope[i] == self.scope
        )


def needed_by(file: ProgramFile, scope: int, statements: Sequence[int]) -> Set:
    """Variables of `scope` whose earlier values the statements may read."""
    return _Analysis(file, scope)._backward(statements, EMPTY, _Exits())


class Summary(Frozen, frozen=True):
    """One statement by itself: names whose earlier value it may read, names it may write, and names it
    writes whatever happens."""

    needed: Set
    written: Set
    certain: Set


def summaries_of(file: ProgramFile, scope: int, statements: Sequence[int]) -> list[Summary]:
    """A summary of each statement, to be put together for any stretch of them."""
    analysis = _Analysis(file, scope)
    found = []
    for s in statements:
        needed = analysis._backward([s], EMPTY, _Exits())
        written = analysis._uses(s, file.tree.end[s])[1]
        found.append(Summary(needed, written, analysis._after(s, EMPTY)))
    return found


def has_no_value_yet(file: ProgramFile, scope: int, name: str, start: int, stop: int) -> bool:
    """True where a variable of `scope` can have no value before the statements in the node range [start, stop): they
    declare it, or it was declared without a value and nothing that runs before gives it one. To read it there would
    mean nothing."""
    tree, names, language = file.tree, file.names, file.language
    if language.implicit_locals or names.owner_of(name, scope) != scope:
        return False
    if {"goto_statement", "labeled_statement"} & set(tree.kind[scope : tree.end[scope]]):
        return False
    uses = [i for i in names.nodes if i < stop and tree.text[i] == name and names.owner(i) == scope]
    loops = [p for p in file.parents(start) if p > scope and tree.kind[p] in language.loops]
    if uses and uses[0] >= start:
        return names.declared_at(uses[0]) and (not loops or _is_anew(file, uses[0], start))
    before = [i for i in uses if i < start]
    if len(before) != 1 or not language.typed or not scope:
        return False
    # An array's name stands in a declarator of its own, inside the one that holds the values.
    around = list(itertools.takewhile(lambda p: p > scope and p not in file.block_at, file.parents(before[0])))
    held = any(tree.kind[p] == "declarator" and tree.child(p, "right") is not None for p in around)
    words = [word for p in around for word in tree.leaf_texts(p)]
    alone = names.declared_at(before[0]) and names.role[before[0]] is not Role.PARAMETER
    return alone and not held and "static" not in words and not any(before[0] < loop for loop in loops)


def _is_anew(file: ProgramFile, name: int, start: int) -> bool:
    """True for a variable that each turn of a loop has anew: it is declared beside the statement `start`."""
    tree = file.tree
    declaration = next((p for p in file.parents(name) if tree.kind[p] == "declaration"), 0)
    return tree.parent[declaration] == tree.parent[start] and "var" not in tree.text[declaration : declaration + 2]
