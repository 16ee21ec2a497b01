"""Proof of a new loop: unrolled with its values it is the original's statements again."""

from __future__ import annotations

from collections.abc import Sequence

from ...program.flow import flow_of
from ...program.names import Role
from ...program.private import SIMPLE, is_private
from ...program.program import ProgramFile
from . import declared, places, rules
from .folding import Term, integer_value, meaning_of
from .terms import is_fresh_container, is_literal, matches, substitute, term_of
from .values import is_only_looked_at, require_plain_value
from .verdict import NewLoop, Refused
from .walk import Walk

MOST_TURNS = 5000


def prove_loop(before: ProgramFile, after: ProgramFile, claim: NewLoop) -> None:
    """Raises Refused unless the rewritten file with the loop unrolled is the original."""
    rules.refuse_reflection(before)
    proof = _LoopProof(before, after, claim)
    Walk(before, after, proof.statement).run()
    if proof.seen != 1:
        raise Refused("the loop is not where it should be")


class _LoopProof:
    def __init__(self, before: ProgramFile, after: ProgramFile, claim: NewLoop) -> None:
        self.before = before
        self.after = after
        self.line = claim.line
        self.tables = dict.fromkeys(claim.tables)
        self.to_declare = set(claim.declared)
        self.private = frozenset(claim.private)
        self.values: dict[str, Term] = {}
        """Lists that stand before the loop, by their names."""
        self.seen = 0
        self.meaning = meaning_of(before)
        self.called: dict[str, set[str]] = {}
        """What the copies call a variable that the loop calls by one name."""
        self.known: dict[str, int | None] = {}
        """The number that a carried variable held in the turn before."""

    def statement(self, left: Sequence[int], new: int) -> int | None:
        """The walk's rule: deal with the new loop, leave everything else alone."""
        tree = self.after.tree
        line = tree.start_line(new)
        if (
            line < self.line
            and self.to_declare
            and not self.seen
            and declared.declares_only(self.after, new, self.to_declare)
        ):
            return 0
        if line < self.line and self.tables and not self.seen:
            name = declared.table_name(self.after, new)
            if name in self.tables and name not in self.values:
                rules.require_fresh(name, self.before)
                self.values[name] = declared.table_of(self.before, self.after, new, left[0] if left else None)
                return 0
        is_loop = tree.kind[new] in {"for_statement", "counting_loop"} or declared.repeats(self.after, new) is not None
        if line != self.line or not is_loop:
            return None
        self.seen += 1
        if self.to_declare:
            raise Refused("a variable that the loop needs is not declared")
        if len(self.values) != len(self.tables):
            raise Refused("a list that the loop needs is not there")
        return self._prove(left, new)

    def _prove(self, left: Sequence[int], loop: int) -> int:
        tree = self.after.tree
        body = tree.child(loop, "body")
        if body is None or tree.child(loop, "alternative") is not None:
            raise Refused("the loop has an unusual form")
        if not left:
            raise Refused("the loop stands for nothing")
        scope = rules.scope_of_statement(self.before, left[0])
        variables, turns = self._turns(loop, scope)
        statements = self.after.block_at[body].statements
        if not statements:
            raise Refused("the loop does nothing")
        own = self._given_in_copies(variables, left[: len(variables) + len(statements)])
        fresh = [v for v in variables if v not in own]
        self._check_variables(fresh, own, statements, scope, loop)
        self._refuse_jumps(statements)
        size = len(own) + len(statements)
        carried = self._carried(left, own, turns)
        segment = left[: size * len(turns) - carried]
        if len(segment) != size * len(turns) - carried:
            raise Refused("the loop has more turns than there are copies")
        for name in fresh:
            own_head = rules.declares_in_its_head(self.after, loop, name)
            rules.require_free(name, self.before, scope, segment, own_head)
        self._check_values(turns, variables, own, statements, segment, scope)
        holes = frozenset(
            i
            for s in statements
            for i in self.after.names.within(s, tree.end[s])
            if (tree.text[i] in variables or tree.text[i] in self.values) and self.after.names.role[i] is Role.READ
        )
        if self.private and carried:
            raise Refused("a variable is called otherwise in each copy")
        private = self._private_uses(statements)
        if self.after.language.values_everywhere:
            declared.require_no_value_lost(self.before, segment, True)
        if self.after.language.declares:
            declared.require_free_standing(self.before, segment, scope)
            declared.require_simple_scopes(self.after, rules.scope_of_statement(self.after, loop))
            named = [v for k, v in enumerate(variables) if all(turn[k][0] == "identifier" for turn in turns)]
            places.require_values_fit(self.after, holes, frozenset(named))
        templates = [term_of(self.after, s, holes | private) for s in statements]
        for k, turn in enumerate(turns):
            copy = segment[max(0, k * size - carried) : (k + 1) * size - carried]
            given = templates if k == 0 else self._assigning(templates, statements, segment)
            self._compare_turn(given, dict(zip(variables, turn, strict=True)), own, copy, carried == 1)
        for name in self.private:
            if name not in self.called.get(name, ()):
                rules.require_fresh(name, self.before)
        return len(segment)

    def _given_in_copies(self, variables: Sequence[str], first: Sequence[int]) -> list[str]:
        """The variables of which the copies speak themselves, by what stands first."""
        before = self.before
        if not before.names.everything.isdisjoint(variables):
            inside = before.names.within(first[0], before.tree.end[first[-1]])
            spoken = {before.tree.text[i] for i in inside if not rules.names_no_variable(before, i)}
            return [v for v in variables if v in spoken]
        return []

    def _private_uses(self, statements: Sequence[int]) -> frozenset[int]:
        """Where the variables stand that each copy calls by a name of its own: nowhere but in the loop."""
        after, tree = self.after, self.after.tree
        start, stop = statements[0], tree.end[statements[-1]]
        uses = [i for i in after.names.nodes if tree.text[i] in self.private]
        late = rules.names_used_by_inner_functions(after, statements) if self.private else set()
        scope = rules.scope_of_statement(after, statements[0])
        for i in uses:
            plain = after.names.role[i] in SIMPLE and after.names.scope[i] == scope
            if not plain or not start <= i < stop or tree.text[i] in late:
                raise Refused(f"{tree.text[i]} is not the loop's alone")
        if any(name in after.names.outward.get(scope, {}) for name in self.private):
            raise Refused("a variable of the loop belongs further out")
        return frozenset(uses)

    def _check_private(self, called: dict[str, str], copy: Sequence[int]) -> None:
        """What a copy calls by a name of its own is the copy's alone, and the loop's name is new or such a name."""
        before = self.before
        late = rules.names_used_by_inner_functions(before, copy) if called else set()
        for name, original in called.items():
            alone = is_private(before, copy, original) and original not in late
            if not alone or rules.is_named_by_a_macro(before, original):
                raise Refused(f"{original} is not the copy's alone")
            self.called.setdefault(name, set()).add(original)
        if set(called) != self.private:
            raise Refused("a variable of the loop stands for none of a copy's")
        if len(set(called.values())) != len(called):
            raise Refused("two variables of the loop stand for one of a copy's")

    def _assigning(self, templates: list[Term], statements: Sequence[int], segment: Sequence[int]) -> list[Term]:
        """The templates as every turn but the first was written, where the first copy declares a variable to which
        the others assign: in the loop it is declared in each turn."""
        before, after = self.before, self.after
        if not after.language.declares:
            return templates
        result = list(templates)
        late: set[str] | None = None
        for k, statement in enumerate(statements):
            name = declared.only_name(after, statement)
            again = segment[len(statements) + k] if len(segment) > len(statements) + k else segment[0]
            if not name or before.tree.kind[again] != "assignment":
                continue
            late = rules.names_used_by_inner_functions(before, segment) if late is None else late
            if name in late or not declared.is_plainly_declared(after, statement):
                raise Refused(f"{name} would be another variable in each turn")
            tree = after.tree
            declarator = next(c for c in tree.children(statement) if tree.kind[c] == "declarator")
            parts = templates[k][-1]
            assert isinstance(parts, tuple)
            if tree.child(declarator, "right") is None or parts[0] != "declarator":
                raise Refused(f"{name} would be declared without its value")
            result[k] = ("assignment", *parts[1:])
        return result

    def _turns(self, loop: int, scope: int) -> tuple[list[str], list[tuple[Term, ...]]]:
        """The loop's variables, and their values turn by turn."""
        tree = self.after.tree
        times = declared.repeats(self.after, loop)
        if times is not None:
            return [], [()] * times
        if tree.kind[loop] == "counting_loop":
            name, numbers = declared.counted(self.after, loop)
            return [name], [(("integer", n),) for n in numbers]
        target, values = tree.child(loop, "left"), tree.child(loop, "right")
        if target is None or values is None:
            raise Refused("the loop has an unusual form")
        if self.after.language.declares:
            declared.require_own_variable(self.after, loop)
        variables = _target_names(self.after, target)
        return variables, _Values(self.before, self.after, scope).of(values, len(variables))

    def _carried(self, left: Sequence[int], own: list[str], turns: list[tuple[Term, ...]]) -> int:
        """1 where the loop's one variable has its first value already when the copies begin, so that the
        first copy does not give it one; else 0. The value must be in sight, in the same block."""
        if len(own) != 1 or len(turns[0]) != 1 or self.before.language.declares:
            return 0
        before, name = self.before, own[0]
        if rules.declared_global_somewhere(before, name):
            return 0
        block = before.block_at.get(before.tree.parent[left[0]])
        for s in reversed([s for s in (block.statements if block else ()) if s < left[0]]):
            writes = [
                i
                for i in before.names.within(s, before.tree.end[s])
                if before.tree.text[i] == name and before.names.role[i] is not Role.READ
            ]
            if writes:
                given = ("assignment", ("identifier", name), ("=", "="), turns[0][0])
                starts_itself = term_of(before, left[0]) == given
                return int(term_of(before, s) == given and integer_value(turns[0][0]) is not None and not starts_itself)
        return 0

    def _compare_turn(
        self,
        templates: list[Term],
        values: dict[str, Term],
        own: list[str],
        copy: Sequence[int],
        carried: bool = False,
    ) -> None:
        """One turn must be one copy; an assignment that the loop's own variable replaces may stand
        anywhere in the copy before which the variable is not mentioned."""
        waiting = {name: ("assignment", ("identifier", name), ("=", "="), values[name]) for name in own}
        readings = {**values, **self.values, **{name: ("either", ("identifier", name), values[name]) for name in own}}
        if carried:
            # The value was known before, and is known now: an update by a number is that assignment.
            copy = copy if len(copy) == len(templates) else self._without_update(own[0], values[own[0]], copy)
            waiting = {}
            self.known[own[0]] = integer_value(values[own[0]])
        expected = [substitute(template, readings, self.meaning)[0] for template in templates]
        called: dict[str, str] = {}
        for position, statement in enumerate(copy):
            term = term_of(self.before, statement)
            given = next((name for name, wanted in waiting.items() if term == wanted), None)
            if given is not None:
                self._require_unmentioned(given, copy[:position])
                del waiting[given]
            elif not expected or not matches(expected.pop(0), term, called):
                line = self.before.tree.start_line(statement)
                raise Refused(f"the loop does not give line {line} of the program back")
        self._check_private(called, copy)

    def _without_update(self, name: str, value: Term, copy: Sequence[int]) -> Sequence[int]:
        """The copy without its first statement, which must move `name` on to `value`."""
        term = term_of(self.before, copy[0])
        number = integer_value(value)
        known = self.known.get(name)
        step = _step_of(term, name)
        if number is None or known is None or step is None or known + step != number:
            line = self.before.tree.start_line(copy[0])
            raise Refused(f"line {line} does not move {name} on as the loop does")
        return copy[1:]

    def _require_unmentioned(self, name: str, statements: Sequence[int]) -> None:
        """`name` may be set earlier than it was only if nothing in between could tell."""
        if not statements:
            return
        before = self.before
        mentioned = any(
            before.tree.text[i] == name for s in statements for i in before.names.within(s, before.tree.end[s])
        )
        scope = rules.scope_of_statement(before, statements[0])
        seen_elsewhere = name in flow_of(before, scope).always_live
        guarded = any(before.tree.kind[p] in {"try_statement", "with_statement"} for p in before.parents(statements[0]))
        if mentioned or seen_elsewhere or guarded:
            raise Refused(f"{name} would get its value too early")

    def _check_variables(
        self, fresh: list[str], own: list[str], statements: Sequence[int], scope: int, loop: int
    ) -> None:
        after, tree = self.after, self.after.tree
        if after.language.implicit_locals:
            counts = after.tree.kind[after.tree.child(loop, "right") or loop] == "counting_range"
            inner_scope = rules.scope_of_statement(after, loop)
            for name in fresh:
                declared.require_variable(after, name, inner_scope, counts)
            for name in self.values:
                declared.require_variable(after, name, inner_scope, False)
        inner = rules.names_of_inner_scopes(after, statements)
        anew = declared.binds_anew(after, loop)
        late = set() if anew else rules.names_used_by_inner_functions(after, statements)
        if own and self.before.language.declares:
            raise Refused(f"{own[0]} means something already")
        for name in (*fresh, *self.values):
            if name in inner or name in late:
                raise Refused(f"a function inside the loop would see {name} change")
        of_the_loop = {*fresh, *own, *self.values}
        for s in statements:
            for i in after.names.within(s, tree.end[s]):
                if tree.text[i] in of_the_loop and after.names.role[i] not in (
                    Role.READ,
                    Role.MEMBER,
                    Role.KEYWORD,
                ):
                    raise Refused(f"the loop's own {tree.text[i]} is changed inside it")
        for name in own:
            if self.before.names.owner_of(name, scope) != scope:
                raise Refused(f"{name} belongs to another function")

    def _refuse_jumps(self, statements: Sequence[int]) -> None:
        tree = self.after.tree
        for s in statements:
            for node in range(s, tree.end[s]):
                if tree.kind[node] in {"break_statement", "continue_statement"}:
                    loops = [p for p in self.after.parents(node) if p >= s and rules.is_left_by(self.after, p, node)]
                    if not loops:
                        raise Refused("a break or continue would then leave the new loop")
                if tree.kind[node] in self.after.language.outer_declarations:
                    raise Refused("a global or nonlocal line stands in the copies")

    def _check_values(
        self,
        turns: list[tuple[Term, ...]],
        variables: list[str],
        own: list[str],
        statements: Sequence[int],
        segment: Sequence[int],
        scope: int,
    ) -> None:
        listed = [(value,) for table in self.values.values() for value in table[1:] if isinstance(value, tuple)]
        if all(is_literal(value) for turn in (*turns, *listed) for value in turn):
            return
        flow = flow_of(self.before, scope)
        written = rules.names_written(self.before, segment, scope) - set(own)
        inner = rules.names_of_inner_scopes(self.before, segment)
        for (value,) in listed:
            if not is_literal(value):
                require_plain_value(self.before, flow, value, segment[0], written | set(own))
        for k, name in enumerate(variables):
            for turn in turns:
                value = turn[k]
                if is_fresh_container(value):
                    self._require_single_use(name, statements, value)
                    continue
                require_plain_value(self.before, flow, value, segment[0], written | set(own))
                if rules.names_in(value) & inner:
                    raise Refused("a value's name means something else inside the copies")

    def _require_single_use(self, name: str, statements: Sequence[int], value: Term) -> None:
        after = self.after
        uses = [i for s in statements for i in after.names.within(s, after.tree.end[s]) if after.tree.text[i] == name]
        if is_only_looked_at(after, value, uses):
            return
        in_loop = any(
            after.tree.kind[p] in after.language.loops | after.language.scopes
            for i in uses
            for p in after.parents(i)
            if p >= statements[0]
        )
        if len(uses) != 1 or in_loop:
            raise Refused("a list that is made anew in each copy would be shared")


def _step_of(term: Term, name: str) -> int | None:
    """The number by which `name = name + 3` or `name -= 3` moves `name`; None for anything else."""
    variable = ("identifier", name)
    if term[:2] == ("assignment", variable) and len(term) == 4 and isinstance(term[3], tuple):
        value = term[3]
        if value[0] != "binary_operator" or len(value) != 4 or value[1] != variable:
            return None
        sign, step = value[2], value[3]
    elif term[:2] == ("augmented_assignment", variable) and len(term) == 4:
        sign, step = term[2], term[3]
    else:
        return None
    number = integer_value(step) if isinstance(step, tuple) else None
    signs = {("+", "+"): 1, ("-", "-"): -1, ("+=", "+="): 1, ("-=", "-="): -1}
    return None if number is None or sign not in signs else signs[sign] * number


def _target_names(file: ProgramFile, target: int) -> list[str]:
    tree = file.tree
    if tree.kind[target] == "identifier":
        return [tree.text[target]]
    if tree.kind[target] in {"pattern_list", "tuple_pattern", "list_pattern"}:
        parts = [c for c in tree.children(target) if tree.text[c] not in {",", "(", ")", "[", "]"}]
        names, kinds = [tree.text[c] for c in parts], [tree.kind[c] for c in parts]
        if names and all(kind == "identifier" for kind in kinds) and len(set(names)) == len(names):
            return names
    raise Refused("the loop's variables have an unusual form")


BRACKETS = frozenset({("(", "("), (")", ")"), ("[", "["), ("]", "]"), ("{", "{"), ("}", "}")})


class _Values:
    """The values a loop runs through, as one tuple a turn."""

    def __init__(self, before: ProgramFile, after: ProgramFile, scope: int) -> None:
        self.before = before
        self.after = after
        self.scope = scope

    def of(self, node: int, width: int) -> list[tuple[Term, ...]]:
        """The turns of the iterable at `node` for `width` loop variables."""
        turns = self._iterate(node)
        if not turns or len(turns) > MOST_TURNS:
            raise Refused("the loop runs too often or not at all")
        if width == 1:
            return [(turn,) for turn in turns]
        rows = []
        for turn in turns:
            parts = tuple(p for p in turn[1:] if p not in BRACKETS)
            row = turn[0] in {"tuple", "row"} or (turn[0] == "list" and self.after.language.declares)
            if not row or len(parts) != width:
                raise Refused("the loop's values and variables do not match")
            rows.append(parts)
        return rows  # type: ignore[return-value]

    def _iterate(self, node: int) -> list[Term]:
        tree = self.after.tree
        kind = tree.kind[node]
        if kind in declared.NEW_ARRAYS:
            node = next((c for c in tree.children(node) if tree.kind[c] == "list"), node)
            kind = tree.kind[node]
        if kind in {"list", "tuple"}:
            return [
                term_of(self.after, c)
                for c in tree.children(node)
                if tree.text[c] not in {"[", "]", "(", ")", "{", "}", ","}
            ]
        if kind == "zipped":
            columns = [self._iterate(c) for c in tree.children(node)]
            if any(len(c) != len(columns[0]) for c in columns):
                raise Refused("the lists are not equally long")
            return [("row", *parts) for parts in zip(*columns, strict=True)]
        if kind == "counting_range":
            return [("integer", n) for n in declared.ranged(self.before, self.after, node, self.scope)]
        if kind == "call" and declared.is_list_call(self.before, self.after, node, self.scope):
            arguments = tree.child(node, "arguments")
            return [term_of(self.after, c) for c in tree.items(arguments or node)]
        if kind != "call" or self.after.language.declares:
            raise Refused("the loop's values are not in sight")
        callee, arguments = tree.child(node, "function"), tree.child(node, "arguments")
        if callee is None or arguments is None or tree.kind[callee] != "identifier":
            raise Refused("the loop's values are not in sight")
        name = tree.text[callee]
        given = tree.items(arguments)
        if name not in {"range", "zip", "enumerate"}:
            raise Refused("the loop's values are not in sight")
        rules.require_builtin(name, self.before, self.scope)
        if name == "range":
            return [("integer", n) for n in self._range(given)]
        if name == "zip":
            columns = [self._iterate(c) for c in given]
            if not columns or any(len(c) != len(columns[0]) for c in columns):
                raise Refused("the lists are not equally long")
            return [("row", *parts) for parts in zip(*columns, strict=True)]
        return self._enumerate(given)

    def _range(self, given: list[int]) -> range:
        numbers = [integer_value(term_of(self.after, c)) for c in given]
        if not numbers or len(numbers) > 3 or any(n is None for n in numbers):
            raise Refused("the range is not made of plain numbers")
        whole = [n for n in numbers if n is not None]
        if len(whole) == 3 and whole[2] == 0:
            raise Refused("a range cannot step by nothing")
        result = range(*whole)
        if len(result) > MOST_TURNS:
            raise Refused("the loop runs too often")
        return result

    def _enumerate(self, given: list[int]) -> list[Term]:
        start = 0
        if len(given) == 2:
            term = term_of(self.after, given[1])
            if term[0] == "keyword_argument" and term[1] == ("identifier", "start"):
                assert isinstance(term[-1], tuple)
                term = term[-1]
            number = integer_value(term)
            if number is None:
                raise Refused("the counting does not start at a plain number")
            start = number
        elif len(given) != 1:
            raise Refused("the loop has an unusual form")
        return [("row", ("integer", n), value) for n, value in enumerate(self._iterate(given[0]), start)]
