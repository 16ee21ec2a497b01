"""Proof of a new function: with every call inlined the program is the original again.

Inlining is capture-free: the function's own variables are matched one to one with the variables of
each copy, arguments must be values that can be taken early, and what the copy leaves behind for
later must be what the function returns.
"""

from __future__ import annotations

from collections.abc import Mapping, Sequence

import msgspec

from ...program.flow import Flow, flow_of, has_no_value_yet, needed_by
from ...program.names import NO_VARIABLES, UNBOUND, Role
from ...program.program import ProgramFile
from ...program.shapes import given_value
from . import declared, places, rules
from .definitions import RESULT, Definition, take_apart
from .elements import is_looked_up_at_once, is_steady_element
from .folding import Term, meaning_of
from .reach import has_its_value, is_unseen_until
from .terms import is_fresh_container, is_literal, match_in_order, substitute, term_of
from .values import is_only_looked_at, is_steady_field, lists_literals, lists_never_change, require_plain_value
from .verdict import NewFunction, Refused
from .walk import Walk


def prove_function(before: ProgramFile, after: ProgramFile, claim: NewFunction) -> None:
    """Raises Refused unless the rewritten file with the function inlined is the original."""
    rules.refuse_reflection(before)
    rules.require_fresh(claim.name, before)
    proof = FunctionProof(before, after, claim.name, claim.declared)
    Walk(before, after, proof.statement).run()
    proof.finish()


class Call(msgspec.Struct, frozen=True, eq=False):
    arguments: tuple[int, ...]
    targets: tuple[str, ...]
    declares: tuple[str, ...] = ()
    """The words with which the call's result is declared, where it is."""


class Taken(msgspec.Struct, frozen=True):
    """What a call gives the function before the values in its brackets."""

    before: tuple[int, ...] = ()


class FunctionProof:
    """The proof of one new function; `methods` has the one for a method."""

    def __init__(self, before: ProgramFile, after: ProgramFile, name: str, own: Sequence[str] = ()) -> None:
        self.before = before
        self.after = after
        self.name = name
        self.meaning = meaning_of(before)
        self.own = frozenset(own)
        """Variables that the function declares although the copies did not."""
        self.definition = self._definition()
        self.inlined = 0
        self.told = self.reordered = False
        """A line above tells what the function takes."""
        late = rules.names_used_by_inner_functions(after, self.definition.parts)
        self.kept = late & self.definition.variables
        """Variables that a function inside the new one goes on using."""
        self.changed_scopes: set[tuple[int, int]] = set()
        """(original scope, rewritten scope) of each call."""

    def _definition(self) -> Definition:
        return take_apart(self.after, self.name, self.own, may_work_out=True)

    def statement(self, left: Sequence[int], new: int) -> int | None:
        """The walk's rule: skip the definition, inline each call, leave the rest alone."""
        if self._is_of_the_definition(new):
            return 0
        call = self._call_at(new)
        if call is None:
            return None
        self._require_known(new)
        named = self._first_values(left, call, False)
        renamed = self._first_values(left, call, True)
        try:
            return self._inlined(left, new, call, named)
        except Refused as reason:
            try:
                return self._inlined(left, new, call, renamed if renamed != named else {})
            except Refused:
                raise reason from None

    def _is_of_the_definition(self, statement: int) -> bool:
        """True for the definition, and for the line that tells of it."""
        if self._is_prototype(statement):
            self.told = True
            return True
        return statement == self.definition.statement

    def _require_known(self, call: int) -> None:
        """The function is known where it is called; the call counts."""
        self.inlined += 1
        rules.require_in_reach(self.after, self.definition.node, call)
        if self.after.tree.end[self.definition.node] > call and not self._known_everywhere():
            raise Refused("the function is called before it is defined")

    def _inlined(self, left: Sequence[int], new: int, call: Call, first: dict[str, str]) -> int:
        """How many of the statements that are left the call stands for."""
        size = len(self.definition.statements) + len(first) + bool(self.definition.value)
        if len(left) < size:
            raise Refused("a call stands for more statements than there are")
        self._inline(left[len(first) : size], new, call, first)
        return size

    def _first_values(self, left: Sequence[int], call: Call, renamed: bool) -> dict[str, str]:
        """Parameters that are given what the copy first gives a variable, with that variable, which has the
        parameter's name, or where asked for another: such a parameter is that variable."""
        found: dict[str, str] = {}
        definition = self.definition
        if self.before.language.declares or len(call.arguments) != len(definition.parameters):
            return found
        given = dict(zip(definition.parameters, call.arguments, strict=True))
        for statement in left[: len(given)]:
            term = term_of(self.before, statement)
            if term[0] != "assignment" or len(term) != 4 or term[2] != ("=", "=") or not isinstance(term[1], tuple):
                break
            name = str(term[1][1]) if term[1][0] == "identifier" else ""
            value = term[3]
            assert isinstance(value, tuple)
            plain = is_literal(value) or (is_fresh_container(value) and value[0] == "list")
            fitting = [p for p in given if p not in found and term_of(self.after, given[p]) == value]
            if name in fitting:
                fitting = [name]
            elif not renamed or name in given:
                fitting = []
            if not plain or not fitting or not name or name in found.values():
                break
            found[fitting[0]] = name
        return found

    def _is_prototype(self, statement: int) -> bool:
        """True for a line that tells the new function's head, once."""
        tree = self.after.tree
        if tree.kind[statement] != "prototype" or self.told:
            return False
        body = tree.child(self.definition.node, "body") or 0
        head = tree.source[tree.start_byte[self.definition.node] : tree.start_byte[body]].decode()
        return tree.text[statement].rstrip(";").split() == head.split()

    def finish(self) -> None:
        """After the walk: no other use of the new name, and no name that changed its owner."""
        self.require_followed()
        for old, new in self.changed_scopes:
            rules.require_same_owners(self.before, self.after, old, new, {self.name})

    def require_followed(self) -> None:
        """The new name is used in the definition and the calls that were inlined, and nowhere else."""
        uses = [i for i in self.after.names.nodes if self.after.tree.text[i] == self.name]
        if self.inlined == 0 or len(uses) != self.inlined + 1:
            raise Refused("the new function is used in a way that cannot be followed")

    def _known_everywhere(self) -> bool:
        """Methods, and functions that are hoisted, may be called before they are defined."""
        language = self.after.language
        hoisted = language.hoists and self.definition.statement == self.definition.node
        return language.methods or hoisted or self.told

    def _call_at(self, statement: int) -> Call | None:
        """The introduced call that this statement is, or None."""
        tree = self.after.tree
        targets: tuple[str, ...] = ()
        words: tuple[str, ...] = ()
        call = statement
        if tree.kind[statement] == "declaration":
            name = declared.only_name(self.after, statement)
            declarator = next((c for c in tree.children(statement) if tree.kind[c] == "declarator"), None)
            right = tree.child(declarator, "right") if declarator is not None else None
            if not name or right is None or declarator is None:
                return None
            targets, call = (name,), right
        if tree.kind[statement] == "assignment":
            right, left = tree.child(statement, "right"), tree.child(statement, "left")
            if right is None or left is None:
                return None
            call = right
            parts = [left] if tree.text[left] else [c for c in tree.children(left) if tree.text[c] != ","]
            targets = tuple(tree.text[c] for c in parts)
        if tree.kind[call] != "call":
            return None
        callee, arguments = tree.child(call, "function"), tree.child(call, "arguments")
        taken = self._callee(callee) if callee is not None and arguments is not None else None
        if taken is None or arguments is None:
            return None
        if tree.kind[statement] == "declaration":
            words = declaring_words(self.after, statement)
        if any(not t or t in "()" for t in targets) or len(set(targets)) != len(targets):
            raise Refused("the call's results go to unusual places")
        given = tuple(declared.without_labels(self.after, self.definition.node, tree.items(arguments)))
        if any(tree.kind[c] == "list_splat" for c in given):
            raise Refused("a call spreads a list")
        return Call((*taken.before, *given), targets, words)

    def _callee(self, callee: int) -> Taken | None:
        """What is given besides where the introduced function is called; None where another one is."""
        return Taken() if self.after.tree.text[callee] == self.name else None

    def _inline(self, segment: Sequence[int], statement: int, call: Call, first: Mapping[str, str]) -> None:
        before, definition = self.before, self.definition
        scope = rules.scope_of_statement(before, segment[0])
        flow = flow_of(before, scope)
        around = {before.tree.kind[p] for p in before.parents(segment[0])}
        if before.language.declares and "with_statement" in around:
            raise Refused("the copies stand where names are those of another object")
        if definition.leaves and not self._ends_a_procedure(segment, scope):
            raise Refused("the copies leave the function they stand in")
        self.changed_scopes.add((scope, rules.scope_of_statement(self.after, statement)))
        if len(call.arguments) != len(definition.parameters):
            raise Refused("a call gives another number of values than the function takes")
        arguments = {p: term_of(self.after, a) for p, a in zip(definition.parameters, call.arguments, strict=True)}
        if any(rules.names_in(value) & set(first.values()) for p, value in arguments.items() if p not in first):
            raise Refused("a value is worked out from a variable before it has its own")
        mapping = self._match(segment, arguments, first)
        if before.language.declares:
            self._check_declarations(segment, scope, call, mapping, rules.scope_of_statement(self.after, statement))
        self._check_first_values(segment, scope, mapping)
        self._check_names(segment, scope, mapping)
        private = self._private(segment, scope, mapping, arguments)
        self._check_results(segment, scope, flow, call, mapping, frozenset(first), private)
        self._check_arguments(segment, scope, flow, {p: a for p, a in arguments.items() if p not in first}, mapping)

    def _ends_a_procedure(self, segment: Sequence[int], scope: int) -> bool:
        """True where nothing follows the copy in its procedure, so that to return is to reach its end."""
        before = self.before
        body = before.tree.child(scope, before.language.body_field) if scope else None
        block = before.block_at.get(body) if body is not None else None
        plain = scope and not {"yield", "await"} & set(before.tree.text[scope : before.tree.end[scope]])
        return bool(plain) and block is not None and block.statements[-1] == segment[-1]

    def _match(self, segment: Sequence[int], arguments: Mapping[str, Term], first: Mapping[str, str]) -> dict[str, str]:
        """Match the body with the copy; returns the function's variable → the copy's variable."""
        after, definition = self.after, self.definition
        passed = {p: v for p, v in arguments.items() if p not in definition.written | set(first)}
        holes = frozenset(
            i
            for s in definition.parts
            for i in after.names.within(s, after.tree.end[s])
            if after.names.owner(i) == definition.node and after.names.role[i] <= Role.UPDATE
        )
        mapping: dict[str, str] = dict(first)
        for parameter in definition.parameters:
            if parameter in definition.written and parameter not in first:
                value = arguments[parameter]
                if value[0] != "identifier":
                    raise Refused(f"the function changes {parameter}, which is given as a value")
                if declared.is_constant(self.before, str(value[1]), rules.scope_of_statement(self.before, segment[0])):
                    raise Refused(f"the function changes {parameter}, where {value[1]} may not be changed")
                mapping[parameter] = str(value[1])
        templates = [substitute(self._template(s, holes), passed, self.meaning)[0] for s in definition.statements]
        originals = [term_of(self.before, statement) for statement in segment]
        for k, (statement, original) in enumerate(zip(definition.statements, segment, strict=False)):
            # What one copy declares another may only give another value; each finds the function's own variable.
            if after.tree.kind[statement] == "declaration" and self.before.tree.kind[original] == "assignment":
                templates[k] = substitute(self._given(statement, holes), passed, self.meaning)[0]
        if definition.value:
            given = substitute(term_of(after, definition.value, holes), passed, self.meaning)[0]
            templates.append(("assignment", ("hole", RESULT), ("=", "="), given))
            originals[-1] = self._as_assignment(segment[-1])
        found = match_in_order(templates, originals, mapping)
        if found is None:
            line = self.before.tree.start_line(segment[0])
            raise Refused(f"the function does not give the lines from line {line} of the program back")
        order, mapping = found
        self.reordered = list(order) != sorted(order)
        rules.require_order(self.before, segment, order)
        if len(set(mapping.values())) != len(mapping):
            raise Refused("two variables of the function stand for one of the program")
        return mapping

    def _as_assignment(self, statement: int) -> Term:
        """The term of a statement that gives one variable a value, declared there or not."""
        given = given_value(self.before.tree, statement, for_good=True)
        if given is None:
            raise Refused("a copy does something else with what the function gives back")
        target, value = (term_of(self.before, part) for part in given)
        return ("assignment", target, ("=", "="), value)

    def _template(self, statement: int, holes: frozenset[int]) -> Term:
        """A statement's term; the declaration of a variable that is the function's own reads as an assignment."""
        tree = self.after.tree
        term = term_of(self.after, statement, holes)
        if tree.kind[statement] == "declaration" and declared.only_name(self.after, statement) in self.own:
            return self._given(statement, holes)
        return term

    def _given(self, statement: int, holes: frozenset[int]) -> Term:
        """A declaration as an assignment of the same value, where it declares one plain variable."""
        tree = self.after.tree
        declarator = next((c for c in tree.children(statement) if tree.kind[c] == "declarator"), None)
        left = tree.child(declarator, "left") if declarator is not None else None
        if declarator is None or left is None or not tree.text[left] or not declared.only_name(self.after, statement):
            return term_of(self.after, statement, holes)
        return ("assignment", *term_of(self.after, declarator, holes)[1:])

    def _check_declarations(
        self, segment: Sequence[int], scope: int, call: Call, mapping: dict[str, str], outer: int
    ) -> None:
        """Where variables are declared: one meaning a name, equal types, results declared as they were."""
        before, after, definition = self.before, self.after, self.definition
        declared.refuse_aliases(before, segment)
        if before.language.values_everywhere:
            declared.require_no_value_lost(before, segment, False)
        self._refuse_members(segment)
        if before.language.implicit_locals:
            declared.refuse_jumps(before, scope)
            declared.require_declarations_left(before, segment, scope)
        changed = definition.written & set(definition.parameters)
        if before.language.fixed_parameters and changed:
            raise Refused("the function changes a value that it is given")
        if before.language.by_reference:
            declared.require_copies(after, definition.node, changed)
        declared.require_simple_scopes(before, scope)
        declared.require_simple_scopes(after, definition.node)
        declared.require_simple_scopes(after, outer)
        if before.language.methods:
            self._check_home(segment)
        if before.language.typed:
            for own, original in mapping.items():
                if own == RESULT:
                    declared.require_given_type(before, original, scope, after, definition.node)
                else:
                    owner = max(before.names.owner_of(original, scope), 0)
                    declared.require_same_type(before, after, (original, owner), (own, definition.node))
            for parameter, argument in zip(definition.parameters, call.arguments, strict=True):
                declared.require_argument_type(after, argument, parameter, definition.node)
            if not definition.value:
                declared.require_result(after, definition.node, definition.returned)
        names, tree = before.names, before.tree
        were = {
            tree.text[i]
            for i in names.within(segment[0], tree.end[segment[-1]])
            if names.scope[i] == scope and names.declared_at(i)
        }
        for name in sorted({mapping.get(own, own) for own in definition.written | self.own} - were):
            if declared.is_constant(before, name, scope):
                raise Refused(f"the copies give {name} another value, which may not be changed")
        if bool(call.declares) != bool(set(call.targets) & were):
            raise Refused("the result of a call is declared otherwise than before")
        if call.declares:
            words = {
                declaring_words(before, s)
                for s in segment
                if tree.kind[s] == "declaration"
                and {tree.text[i] for i in names.within(s, tree.end[s]) if names.declared_at(i)} & set(call.targets)
            }
            if words != {call.declares}:
                raise Refused("the result of a call is declared with other words than before")
        holes = [
            i
            for s in definition.parts
            for i in after.names.within(s, after.tree.end[s])
            if after.tree.text[i] in definition.parameters
        ]
        given = zip(definition.parameters, call.arguments, strict=True)
        variables = frozenset(p for p, a in given if after.tree.kind[a] == after.language.name)
        places.require_values_fit(after, holes, variables)

    def _check_home(self, segment: Sequence[int]) -> None:
        """Where functions are methods: the new one is at home where the copies are."""
        rules.require_same_class(self.after, self.definition.node, segment, self.before)

    def _check_first_values(self, segment: Sequence[int], scope: int, mapping: dict[str, str]) -> None:
        """Where the function's own variables may be read before it gives them a value, the copy's have none either."""
        before, definition = self.before, self.definition
        needed = needed_by(self.after, definition.node, definition.statements)
        for name in sorted(needed & (definition.variables - set(definition.parameters))):
            original = mapping.get(name, name)
            if not has_no_value_yet(before, scope, original, segment[0], before.tree.end[segment[-1]]):
                raise Refused(f"{original} may have a value before the copies, which the function would not know")

    def _refuse_members(self, segment: Sequence[int]) -> None:
        """A function outside the class does not see what belongs to the object."""
        declared.refuse_members(self.before, segment)

    def _check_names(self, segment: Sequence[int], scope: int, mapping: dict[str, str]) -> None:
        """What the function does not own must be the module's or built in, there and here."""
        before, after, definition = self.before, self.after, self.definition
        own = set(mapping.values())
        for s in definition.parts:
            for i in after.names.within(s, after.tree.end[s]):
                if after.names.role[i] in NO_VARIABLES:
                    continue
                name, owner = after.tree.text[i], after.names.owner(i)
                if owner in (0, UNBOUND) and before.names.owner_of(name, scope) not in (0, UNBOUND):
                    raise Refused(f"{name} is a variable that the new function cannot see")
                if owner in (0, UNBOUND) and name in own:
                    raise Refused(
                        f"the new function has {name} under another name, and still reads {name} from outside"
                    )
        for name in sorted(rules.names_behind_macros(before, segment)):
            if before.names.owner_of(name, scope) not in (0, UNBOUND):
                raise Refused(f"a macro stands for {name}, which the new function cannot see")
        private = [t for s in segment for t in before.tree.leaf_texts(s) if t.startswith("__") and not t.endswith("__")]
        if private or any(t in {"super", "__class__"} for s in segment for t in before.tree.leaf_texts(s)):
            raise Refused("the copies use names that only mean something inside their class")
        inner = rules.names_of_inner_scopes(before, segment) | rules.names_of_inner_scopes(after, definition.parts)
        if inner & (definition.variables | set(mapping.values())):
            raise Refused("a name means one thing in the copies and another in a function inside them")
        if self.kept and not after.language.functions_keep_variables:
            raise Refused("a function inside the copies keeps a variable for later")

    def _private(
        self, segment: Sequence[int], scope: int, mapping: dict[str, str], arguments: Mapping[str, Term]
    ) -> frozenset[str]:
        """The copy's variables that a function inside it keeps and nobody else has to do with. Raises Refused where
        such a function would keep another variable than before, or one with another value."""
        found: set[str] = set()
        before, after, definition = self.before, self.after, self.definition
        for name in sorted(self.kept):
            if name in definition.parameters:
                value = arguments[name]
                stays = is_literal(value) or (
                    value[0] == "identifier" and rules.never_changes(before, str(value[1]), scope)
                )
                if name in definition.written or _is_written(after, name, definition.node) or not stays:
                    raise Refused(f"a function inside the copies keeps {name}, which may change")
                continue
            original = mapping.get(name, name)
            uses = [i for i in before.names.nodes if before.tree.text[i] == original and before.names.owner(i) == scope]
            stop = before.tree.end[segment[-1]]
            alone = all(segment[0] <= i < stop for i in uses)
            if not (
                (alone and has_no_value_yet(before, scope, original, segment[0], stop))
                or rules.never_changes(before, original, scope)
            ):
                raise Refused(f"a function inside the copies keeps {original}, which may change")
            found.add(original)
        return frozenset(found)

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
        before, definition = self.before, self.definition
        if segment[-1] not in flow.live_after:
            raise Refused("what is needed after the copies cannot be told there")
        written = {mapping[name] for name in definition.written | first if name in mapping}
        results = tuple(mapping.get(name, "") for name in definition.returned)
        if results != call.targets and not (call.targets == () and not results):
            raise Refused("the results of a call do not go back to their variables")
        # What a reference names changes at once, as it did in the copy.
        named = {mapping[name] for name in definition.references & definition.written}
        written -= named
        if self.own - written - set(definition.written):
            raise Refused("the function declares a variable that it does not use")
        for name in sorted(written):
            if before.names.owner_of(name, scope) != scope:
                if name not in results:
                    raise Refused(f"the copies change {name}, which belongs further out")
                rules.require_unseen_until(before, name, segment)
                continue
            kept = name in flow.always_live or rules.declared_global_somewhere(before, name)
            if kept and name not in private and not (scope == 0 and is_unseen_until(before, name, segment[-1])):
                raise Refused(f"other functions use {name} while the copies change it")
        if written - set(results):
            lost = (written - set(results) - private) & flow.live_after[segment[-1]]
            if lost:
                raise Refused(f"{min(lost)} is needed afterwards and not returned")
        if set(results) - written:
            raise Refused("the function returns something that it does not work out")
        if written and self._may_be_interrupted(segment[0], scope):
            raise Refused("the copies stand in a try block, where half of their work could be seen")

    def _may_be_interrupted(self, statement: int, scope: int) -> bool:
        """True inside a `try`, or a `with` that is not simply an opened file."""
        tree = self.before.tree
        for parent in self.before.parents(statement):
            if parent == scope:
                return False
            if tree.kind[parent] == "try_statement":
                return True
            if tree.kind[parent] == "with_statement":
                clause = next((c for c in tree.children(parent) if tree.kind[c] == "with_clause"), None)
                if clause is None:
                    return True
                calls = [n for n in range(clause, tree.end[clause]) if tree.kind[n] == "call"]
                if [self.before.called_name(c) for c in calls] != ["open"] * len(calls) or not calls:
                    return True
        return False

    def _check_arguments(
        self,
        segment: Sequence[int],
        scope: int,
        flow: Flow,
        arguments: Mapping[str, Term],
        mapping: dict[str, str],
    ) -> None:
        self._refuse_given(segment, arguments)
        written = rules.names_written(self.before, segment, scope)
        if self.before.language.declares or self.definition.outer:
            written |= rules.names_written(self.before, segment, 0)
        inner = rules.names_of_inner_scopes(self.before, segment)
        evaluated = 0
        for parameter, value in arguments.items():
            if rules.names_in(value) & inner:
                raise Refused("a value's name means something else inside the copies")
            if parameter in self.definition.written & self.definition.references:
                continue
            if parameter in self.definition.written:
                known = mapping[parameter] in flow.bound_before.get(segment[0], frozenset())
                if not known and not has_its_value(self.before, mapping[parameter], scope):
                    raise Refused(f"{mapping[parameter]} may have no value yet before the copies")
            elif is_fresh_container(value):
                if not is_only_looked_at(self.after, value, self._uses(parameter)):
                    self._require_used_once(parameter)
            elif lists_literals(self.before, value, scope):
                if not lists_never_change(self.before):
                    self._require_used_once(parameter)
            elif is_literal(value) or value[0] == "identifier":
                early = self._written_by_then(parameter, segment, scope) if rules.names_in(value) & written else written
                require_plain_value(self.before, flow, value, segment[0], early)
            elif is_steady_element(self.before, flow, value, segment, scope) and self._is_looked_up_at_once(parameter):
                continue
            elif not is_steady_field(self.before, flow, value, segment[0], written):
                evaluated += 1
                self._require_evaluated_first(parameter, value, flow, scope)
        if evaluated > 1:
            raise Refused("several values are worked out on the spot, in an order that would change")

    def _is_looked_up_at_once(self, parameter: str) -> bool:
        return is_looked_up_at_once(self.after, self.definition.parts, self._uses(parameter))

    def _written_by_then(self, parameter: str, segment: Sequence[int], scope: int) -> set[str]:
        """What the copy may have given another value by the time it uses a parameter for the last time."""
        tree, statements = self.after.tree, self.definition.statements
        uses = self._uses(parameter)
        used = [k for k, s in enumerate(statements) if any(s <= i < tree.end[s] for i in uses)]
        inner = self.after.language.scopes | self.after.language.procedures
        late = any(tree.kind[p] in inner for i in uses for p in self.after.parents(i) if p > self.definition.node)
        by_then = segment
        if used and not (late or self.reordered) and len(statements) == len(segment):
            last = used[-1]
            # What is assigned is worked out before, and changes nothing on the way.
            given = given_value(tree, statements[last])
            inside = given is not None and all(i >= given[1] for i in uses if i >= statements[last])
            if given is not None and rules.names_written(self.after, [given[1]], self.definition.node):
                inside = False
            by_then = segment[: last if inside else last + 1]
        return rules.names_written(self.before, by_then, scope) | rules.names_written(self.before, by_then, 0)

    def _refuse_given(self, segment: Sequence[int], arguments: Mapping[str, Term]) -> None:
        """Any value that is as good early as late may be given."""

    def _uses(self, parameter: str) -> list[int]:
        definition, after = self.definition, self.after
        return [
            i
            for s in definition.parts
            for i in after.names.within(s, after.tree.end[s])
            if after.tree.text[i] == parameter and after.names.owner(i) == definition.node
        ]

    def _require_used_once(self, parameter: str) -> None:
        uses = self._uses(parameter)
        after = self.after
        repeated = after.language.loops | after.language.scopes
        inside = any(
            after.tree.kind[p] in repeated and not self._is_run_through(p, i)
            for i in uses
            for p in after.parents(i)
            if p > self.definition.node
        )
        if len(uses) != 1 or inside:
            raise Refused("a list that is made anew in each copy would be shared")

    def _is_run_through(self, loop: int, node: int) -> bool:
        """True where the loop runs through the value at `node`, which it takes once, before its first turn."""
        tree = self.after.tree
        return tree.kind[loop] == "for_statement" and tree.child(loop, "right") == node

    def _require_evaluated_first(self, parameter: str, value: Term, flow: Flow, scope: int) -> None:
        """An expression may be taken early only if it is the very first thing the copy works out."""
        uses, tree = self._uses(parameter), self.after.tree
        first = self.definition.parts[0]
        if len(uses) != 1 or not first <= uses[0] < tree.end[first]:
            raise Refused("what differs is worked out in the middle of the copy, and is no value that could be given")
        simple = tree.kind[first] in {"call", "assignment", "augmented_assignment", "declaration"}
        if not simple and first != self.definition.value:
            raise Refused("what differs is worked out in the middle of the copy, and is no value that could be given")
        start = first
        if tree.kind[first] == "declaration":
            inside = [p for p in self.after.parents(uses[0]) if p > first and tree.kind[p] == "declarator"]
            right = tree.child(inside[-1], "right") if inside else None
            if right is None or not right <= uses[0] or not declared.only_name(self.after, first):
                raise Refused(
                    "what differs is worked out in the middle of the copy, and is no value that could be given"
                )
            start = right
        if tree.kind[first] in {"assignment", "augmented_assignment"}:
            left, right = tree.child(first, "left"), tree.child(first, "right")
            if right is None or left is None or not right <= uses[0]:
                raise Refused(
                    "what differs is worked out in the middle of the copy, and is no value that could be given"
                )
            if tree.kind[first] == "augmented_assignment":
                raise Refused(
                    "what differs is worked out in the middle of the copy, and is no value that could be given"
                )
            start = right
        around = {p for p in self.after.parents(uses[0]) if p >= start}
        harmless = {
            "identifier",
            "integer",
            "float",
            "string",
            "true",
            "false",
            "none",
            "argument_list",
            "call",
            "binary_operator",
            "keyword_argument",
            "tuple",
            "list",
            "unary_operator",
            "parenthesized_expression",
            "comparison_operator",
        }
        sometimes = {"&&", "||", "??", "and", "or"}
        if any(tree.kind[p] not in harmless or sometimes & {tree.text[c] for c in tree.children(p)} for p in around):
            raise Refused("a value is worked out only sometimes")
        for node in range(start, uses[0]):
            done = node not in around and tree.end[node] <= uses[0]
            if done and not tree.text[node]:
                raise Refused(
                    "what differs is worked out in the middle of the copy, and is no value that could be given"
                )
        if "named_expression" in str(value) or "await" in str(value) or "yield" in str(value):
            raise Refused("a value is worked out in an unusual way")


def _is_written(file: ProgramFile, name: str, scope: int) -> bool:
    """True where a function, or one inside it, gives a variable of `scope` a value."""
    names, tree = file.names, file.tree
    inside = names.within(scope, tree.end[scope])
    return any(
        tree.text[i] == name and names.owner(i) == scope and names.role[i] in (Role.WRITE, Role.UPDATE) for i in inside
    )


def declaring_words(file: ProgramFile, declaration: int) -> tuple[str, ...]:
    """The words of a declaration before its first variable: `let`, `int`, `const char`."""
    tree = file.tree
    words: list[str] = []
    for child in tree.children(declaration):
        if tree.kind[child] in {"declarator", "identifier", "array_declarator", "pointer_declarator"}:
            if tree.kind[child] == "declarator" and tree.kind[child + 1] not in {"identifier"}:
                raise Refused("the result of a call is declared in an unusual way")
            break
        words += tree.leaf_texts(child)
    return tuple(words)
