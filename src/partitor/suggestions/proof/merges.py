"""Proof of merged twins: the general function, given each twin's values, is that twin again."""

from __future__ import annotations

import re
from collections.abc import Mapping, Sequence

from ...program.names import UNBOUND, WRITES, Role
from ...program.program import Procedure, ProgramFile
from ...program.types import Type, is_named_number, type_of_expression
from . import declared, places, rules
from .definitions import plain_parameters, statement_of
from .folding import Term, as_term, integer_value, meaning_of
from .quiet import unknown_star_import
from .reach import has_its_value
from .terms import is_fresh_container, is_literal, match_in_order, substitute, term_of
from .values import is_only_looked_at, keeps_field, lists_literals, lists_never_change
from .verdict import MergedFunctions, Refused
from .walk import Walk


def prove_merge(before: ProgramFile, after: ProgramFile, claim: MergedFunctions) -> None:
    """Raises Refused unless every rewritten call does what the call of its twin did."""
    check(before, after, claim, MergeProof)


def check(before: ProgramFile, after: ProgramFile, claim: MergedFunctions, sort: type[MergeProof]) -> None:
    """The proof by one sort of it. Raises Refused."""
    rules.refuse_reflection(before)
    if claim.name not in claim.removed:
        rules.require_fresh(claim.name, before)
    for name in claim.removed:
        rules.require_untold(name, before)
    proof = sort(before, after, claim)
    Walk(
        before,
        after,
        proof.statement,
        proof.expression,
        frozenset(whole_statement(before, p) for p in proof.twins.values()),
        frozenset({claim.name, *claim.removed}),
    ).run()
    proof.finish()


RECORD = re.compile(r"[(\[](?:define-)?struct\s+\(?([^\s()\[\]]+)[^()\[\]]*[)]?\s*[(\[](.*)[)\]]", re.DOTALL)
"""A record in Racket: its name, and its fields with all that is said of them."""


FIELD = 4
"""Parts of a field of a variable: its kind, the variable, the dot, the field."""


class MergeProof:
    """For functions, and for methods where these know their object."""

    by_object = False
    """Calls go through an object."""

    def __init__(self, before: ProgramFile, after: ProgramFile, claim: MergedFunctions) -> None:
        self.before = before
        self.after = after
        self.claim = claim
        self.twins = {name: self._twin(before, name) for name in claim.removed}
        self.general = self._twin(after, claim.name)
        if min(map(before.part_of, (t.node for t in self.twins.values()))) < after.part_of(self.general.node):
            raise Refused("the general function stands in a later script than one that it replaces")
        self.meaning = meaning_of(before)
        if before.language.declares:
            self._check_declared()
        self.used = 0
        self.proved: set[tuple[str, tuple[tuple[int, Term], ...]]] = set()
        names = before.names
        for name, twin in self.twins.items():
            uses = [i for i in names.nodes if before.tree.text[i] == name and names.role[i] is not Role.MEMBER]
            for i in uses:
                called = before.tree.field[i] == "function" and before.tree.kind[before.tree.parent[i]] == "call"
                defined = before.tree.parent[i] == twin.node or i == defining_name(before, twin)
                if not (called or defined):
                    raise Refused(f"{name} is used in another way than being called")
                if called and names.owner(i) != 0:
                    raise Refused(f"{name} means something else in one place")
            others = [t for t in self.twins.values() if t is not twin]
            if any(t.node < i < before.tree.end[t.node] for i in uses for t in others):
                raise Refused(f"{name} is called by a function that it is like")

    def _twin(self, file: ProgramFile, name: str) -> Procedure:
        found = [p for p in file.procedures if p.name == name]
        names, tree = file.names, file.tree
        writes = [
            i
            for i in names.nodes
            if tree.text[i] == name and names.role[i] in (Role.WRITE, Role.UPDATE, Role.PARAMETER)
        ]
        if len(found) != 1 or len(writes) != 1 or not self._is_plain(file, found[0]):
            raise Refused(f"{name} is not one plain function of the program")
        plain_parameters(file, found[0].node)
        return found[0]

    def _is_plain(self, file: ProgramFile, procedure: Procedure) -> bool:
        return statement_of(file, procedure) is not None

    def _check_declared(self) -> None:
        """Where variables are declared: equal heads, one meaning a name, no constant where none may vary."""
        before, after, general = self.before, self.after, self.general
        declared.require_simple_scopes(after, general.node)
        for twin in self.twins.values():
            declared.require_simple_scopes(before, twin.node)
            declared.refuse_aliases(before, [twin.node])
            if head_of(before, twin) != head_of(after, general):
                raise Refused(f"{twin.name} begins otherwise than the general function")
        names, tree = before.names, before.tree
        for i in names.nodes:
            if names.role[i] is Role.MEMBER and tree.text[i] in self.twins:
                self._require_own_object(i, self.twins[tree.text[i]])
        if before.language.methods:
            homes = {rules.class_of(before, twin.node) for twin in self.twins.values()}
            if homes != {rules.class_of(after, general.node)}:
                raise Refused("the functions stand in different classes")

    def _require_own_object(self, member: int, twin: Procedure) -> None:
        """`gate.open()` calls the twin for certain only where the object is declared as one of its class."""
        before, tree = self.before, self.before.tree
        attribute = tree.parent[member]
        holder = tree.child(attribute, "object")
        called = tree.kind[tree.parent[attribute]] == "call" and tree.field[attribute] == "function"
        if not before.language.methods or holder is None or not called:
            raise Refused(f"{twin.name} is called through an object")
        kind = type_of_expression(before, holder)
        own = rules.class_of(before, twin.node)
        if tree.kind[holder] != "this" and (kind is None or kind != Type(own)):
            raise Refused(f"{twin.name} is called through an object whose class is not in sight")

    def _through_an_object(self, old: int, new: int) -> Procedure | None:
        """The twin that a call through an object calls, where the rewritten one calls the general function
        through the same object."""
        a, b = self.before.tree, self.after.tree
        if a.kind[old] != "attribute" or b.kind[new] != "attribute":
            return None
        was, now = a.child(old, "attribute"), b.child(new, "attribute")
        if was is None or now is None or b.text[now] != self.claim.name or a.text[was] not in self.twins:
            return None
        holder, new_holder = a.child(old, "object"), b.child(new, "object")
        if holder is None or new_holder is None or a.leaf_texts(holder) != b.leaf_texts(new_holder):
            raise Refused("a call goes to another object than before")
        return self.twins[a.text[was]]

    def statement(self, left: Sequence[int], new: int) -> int | None:
        """The walk's rule: the general function stands for none of the statements that stay."""
        if new == whole_statement(self.after, self.general):
            first = min(twin.node for twin in self.twins.values())
            position = self.before.tree.start_byte[first]
            if left and self.before.tree.start_byte[left[0]] < position:
                raise Refused("the general function is defined later than the first of the special ones")
            return 0
        return None

    def expression(self, old: int, new: int) -> bool:
        """The walk's rule for calls: a call of the general function for a call of a twin."""
        a, b = self.before.tree, self.after.tree
        if b.kind[new] != "call" or a.kind[old] != "call":
            return False
        callee, old_callee = b.child(new, "function"), a.child(old, "function")
        held = self._through_an_object(old_callee, callee) if callee is not None and old_callee is not None else None
        if held is not None:
            self.used += 1
            self._call(held, old, new)
            return True
        if callee is None or old_callee is None or b.text[callee] != self.claim.name:
            return False
        twin = self.twins.get(a.text[old_callee])
        if twin is None or self.by_object:
            raise Refused("a call goes to another function than before")
        self.used += 1
        self._call(twin, old, new)
        return True

    def _call(self, twin: Procedure, old: int, new: int) -> None:
        old_arguments = self._arguments(self.before, old, twin)
        new_arguments = self._arguments(self.after, new, self.general)
        if len(old_arguments) != len(twin.parameters) or len(new_arguments) != len(self.general.parameters):
            raise Refused("a call gives another number of values than its function takes")
        kept, values = self._pairs(twin, old_arguments, new_arguments)
        if self.before.language.typed:
            for k in values:
                parameter = self.general.parameters[k]
                declared.require_argument_type(self.after, new_arguments[k], parameter, self.general.node)
            for k, j in kept.items():
                own, original = self.general.parameters[k], twin.parameters[j]
                declared.require_same_type(self.before, self.after, (original, twin.node), (own, self.general.node))
        key = (twin.name, tuple(sorted(values.items())))
        if key not in self.proved:
            self._same_body(twin, kept, values)
            if self.before.language.declares:
                variables = {self.general.parameters[k] for k, value in values.items() if value[0] == "identifier"}
                self._require_values_fit({self.general.parameters[k] for k in values}, frozenset(variables))
            self.proved.add(key)

    def _require_values_fit(self, parameters: set[str], variables: frozenset[str]) -> None:
        """The places of what differs must take a variable."""
        names, tree = self.after.names, self.after.tree
        inside = names.within(self.general.node, tree.end[self.general.node])
        used = [i for i in inside if tree.text[i] in parameters and names.role[i] is not Role.PARAMETER]
        places.require_values_fit(self.after, used, variables)

    def _arguments(self, file: ProgramFile, call: int, called: Procedure) -> list[int]:
        arguments = file.tree.child(call, "arguments")
        if arguments is None or file.tree.kind[arguments] != "argument_list":
            raise Refused("a call has an unusual form")
        given = declared.without_labels(file, called.node, file.tree.items(arguments))
        if any(file.tree.kind[c] in {"keyword_argument", "list_splat", "dictionary_splat"} for c in given):
            raise Refused("a call names its values, or spreads a list")
        return given

    def _pairs(self, twin: Procedure, old: list[int], new: list[int]) -> tuple[dict[int, int], dict[int, Term]]:
        """General parameter index → twin's parameter index, and → the fixed value."""
        extra = len(new) - len(old)
        for offset in (0, extra):
            fixed = range(len(old), len(new)) if offset == 0 else range(extra)
            kept = {k + offset: k for k in range(len(old))}
            values = {k: term_of(self.after, new[k]) for k in fixed}
            same = all(self._same_argument(old[kept[k]], new[k]) for k in kept)
            if same and all(self._is_fixed(v, twin) or is_fresh_container(v) for v in values.values()):
                return kept, values
        raise Refused("a call's values are not the ones it gave before")

    def _is_fixed(self, value: Term, twin: Procedure) -> bool:
        """True for a value that is the same inside the twin as where it is called."""
        return (
            is_literal(value)
            or self._is_function(value, twin)
            or self._is_constant(value, twin)
            or self._is_kept_field(value, twin)
            or self._is_a_list(value, twin)
        )

    def _is_a_list(self, value: Term, twin: Procedure) -> bool:
        """True for a list of numbers and texts that nobody can tell from another with the same in it."""
        scopes = {twin.node, *self._calling(twin)}
        return lists_never_change(self.before) and all(lists_literals(self.before, value, scope) for scope in scopes)

    def _is_kept_field(self, value: Term, twin: Procedure) -> bool:
        """True for a field of an object in sight that nobody gives another value, of the program's own constant."""
        if value[0] != "attribute" or len(value) != FIELD or value[2] != (".", "."):
            return False
        held, member = as_term(value[1]), as_term(value[3])
        kept = held[0] == "identifier" and keeps_field(self.before, str(held[1]), str(member[1]))
        return kept and self._is_constant(held, twin)

    def _is_constant(self, value: Term, twin: Procedure) -> bool:
        """True for the program's own name for a value, given once before anything runs and never changed."""
        before, names, tree = self.before, self.before.names, self.before.tree
        name = str(value[1]) if value[0] == "identifier" and len(value) == 2 else ""
        if not name or name in rules.names_of_inner_scopes(before, self._statements(before, twin.node)):
            return False
        owners = {names.owner_of(name, twin.node), *(names.owner_of(name, scope) for scope in self._calling(twin))}
        if owners == {UNBOUND}:
            return is_named_number(before, name)
        writes = [i for i in names.nodes if tree.text[i] == name and names.role[i] in (Role.WRITE, Role.UPDATE)]
        if owners != {0} or len(writes) != 1 or rules.declared_global_somewhere(before, name):
            return False
        statement = next((s for s in [writes[0], *before.parents(writes[0])] if tree.parent[s] in before.block_at), 0)
        words = set(tree.leaf_texts(statement))
        if before.language.methods:
            given_once = {"static", "final"} <= words or "const" in words
            return given_once or ("static" in words and self._stays_in_class(name))
        if before.language.declares and "const" not in words and not self._stays(name, words):
            return False
        top = before.blocks[0].statements
        return statement in top and (
            before.language.typed
            or all(_runs_nothing(before, s) for s in top if s <= statement)
            or has_its_value(before, name, twin.node)
        )

    def _stays_in_class(self, name: str) -> bool:
        """True where nobody could give a class's own variable another value than it is declared with: it is given
        none by its bare name."""
        before, tree = self.before, self.before.tree
        if before.is_used_beside(name):
            return False
        for node in range(len(tree.kind)):
            if tree.text[node] != name:
                continue
            held = (tree.kind[tree.parent[node]], tree.field[node]) == before.language.member
            place = tree.parent[node] if held else node
            if tree.text[place - 1] in {"ref", "out", "in"}:
                return False
            around = tree.kind[tree.parent[place]]
            if held and (around == "update" or (tree.field[place] == "left" and "assignment" in around)):
                return False
        return True

    def _stays(self, name: str, words: set[str]) -> bool:
        """True where nobody could give the program's variable another value than it is declared with."""
        before, tree = self.before, self.before.tree
        if {"volatile", "extern"} & words or before.is_used_beside(name) or rules.is_named_by_a_macro(before, name):
            return False
        addressed = any(
            tree.kind[node] in {"address_of", "reference_declarator"}
            and name in {tree.text[i] for i in before.names.within(tree.parent[node], tree.end[tree.parent[node]])}
            for node in range(len(tree.kind))
        )
        by_reference = any(kind == "reference_declarator" for kind in tree.kind) and before.language.typed
        return not addressed and not by_reference

    def _is_function(self, value: Term, twin: Procedure) -> bool:
        """True for the name of a function that is known before anything runs, and is that function everywhere."""
        before, names = self.before, self.before.names
        if value[0] == "attribute":
            return self._is_of_a_module(value, twin)
        name = str(value[1]) if value[0] == "identifier" and len(value) == 2 else ""
        if not name or not before.language.functions_are_values or name in self.twins:
            return False
        if name in rules.names_of_inner_scopes(before, self._statements(before, twin.node)):
            return False
        owners = {names.owner_of(name, twin.node), *(names.owner_of(name, scope) for scope in self._calling(twin))}
        if owners == {UNBOUND} and name not in before.language.builtins:
            return self._belongs_to_a_record(name)
        if owners == {UNBOUND}:
            return not unknown_star_import(before)
        found = [p for p in before.procedures if p.name == name]
        writes = [i for i in names.nodes if before.tree.text[i] == name and names.role[i] in (Role.WRITE, Role.UPDATE)]
        if owners != {0} or len(found) != 1 or len(writes) != 1 or rules.declared_global_somewhere(before, name):
            return False
        statement = statement_of(before, found[0])
        return statement is not None and (
            (before.language.hoists and len(before.code_spans) == 1)
            or all(_runs_nothing(before, s) for s in before.blocks[0].statements if s < statement)
        )

    def _belongs_to_a_record(self, name: str) -> bool:
        """True for what a definition of a record gives besides (`boat-length` of `(struct boat (length))`), before
        anything runs."""
        before, tree = self.before, self.before.tree
        top = before.blocks[0].statements
        for statement in top:
            told = RECORD.match(tree.text[statement]) if tree.kind[statement] == "type_definition" else None
            fields = re.findall(r"[^\s()\[\]]+", told[2]) if told else []
            if told and name in {f"{told[1]}?", *(f"{told[1]}-{field}" for field in fields)}:
                written = any(tree.text[i] == name and before.names.role[i] in WRITES for i in before.names.nodes)
                return not written and all(_runs_nothing(before, s) for s in top if s < statement)
        return False

    def _is_of_a_module(self, value: Term, twin: Procedure) -> bool:
        """True for a function of a module of the library, imported once before anything runs, and never replaced."""
        before, names, tree = self.before, self.before.names, self.before.tree
        plain = len(value) == 4 and as_term(value[1])[0] == "identifier" and as_term(value[3])[0] == "identifier"
        module = str(as_term(value[1])[1]) if plain else ""
        if module not in before.library_modules or unknown_star_import(before):
            return False
        if module in rules.names_of_inner_scopes(before, self._statements(before, twin.node)):
            return False
        owners = {names.owner_of(module, twin.node), *(names.owner_of(module, s) for s in self._calling(twin))}
        writes = [i for i in names.nodes if tree.text[i] == module and names.role[i] in (Role.WRITE, Role.UPDATE)]
        if owners != {0} or len(writes) != 1 or rules.declared_global_somewhere(before, module):
            return False
        for node, kind in enumerate(tree.kind):
            inside = kind == before.language.member[0] and tree.text[node + 1] == module
            if inside and tree.field[node] == "left" and "assignment" in tree.kind[tree.parent[node]]:
                return False
        statement = before.parents(writes[0])[-2]
        top = before.blocks[0].statements
        used = "setattr" in names.everything or any(module in f.names.everything for f in before.beside)
        return not used and all(_runs_nothing(before, s) for s in top if s < statement)

    def _calling(self, twin: Procedure) -> set[int]:
        """The scopes in which a twin is called."""
        names, tree = self.before.names, self.before.tree
        return {names.scope[i] for i in names.nodes if tree.text[i] == twin.name and tree.field[i] == "function"}

    def _same_argument(self, old: int, new: int) -> bool:
        """The same expression; calls of twins inside it are rewritten too."""
        try:
            Walk(self.before, self.after, lambda left, s: None, self.expression)._node(old, new)
        except Refused:
            return False
        return True

    def _same_body(self, twin: Procedure, kept: dict[int, int], values: dict[int, Term]) -> None:
        general, after = self.general, self.after
        body, twin_body = self._statements(after, general.node), self._statements(self.before, twin.node)
        mapping = self._own_object() | {general.parameters[k]: twin.parameters[j] for k, j in kept.items()}
        fixed = {general.parameters[k]: value for k, value in values.items()}
        twin_body = self._without_first_values(twin_body, len(body), fixed, mapping)
        for name, value in fixed.items():
            uses = (i for s in body for i in after.names.within(s, after.tree.end[s]) if after.tree.text[i] == name)
            if is_fresh_container(value) and not is_only_looked_at(after, value, uses):
                raise Refused("a list that is made anew in each call would be shared")
        if rules.names_written(after, body, general.node) & set(fixed):
            raise Refused("the general function changes one of the values it is given")
        if rules.names_of_inner_scopes(after, body) & set(fixed):
            raise Refused("a name means something else inside the function")
        holes = frozenset(
            i
            for s in body
            for i in after.names.within(s, after.tree.end[s])
            if after.names.owner(i) == general.node and after.names.role[i] <= Role.UPDATE
        )
        flags = {name: truth for name, value in fixed.items() if (truth := self._truth(value)) is not None}
        terms = [self._as_itself(term_of(after, s, holes), self.claim.name, frozenset(values)) for s in body]
        chosen = [part for term in terms for part in branches_chosen(term, flags)]
        if chosen != terms:
            self._refuse_what_marks_the_whole(frozenset(flags))
            self._require_first_values()
        if len(chosen) != len(twin_body):
            raise Refused(f"the general function is not {twin.name} with its values put in")
        templates = [substitute(given, fixed, self.meaning)[0] for given in chosen]
        originals = [self._as_itself(term_of(self.before, t), twin.name, frozenset()) for t in twin_body]
        found = match_in_order(templates, originals, mapping)
        if found is None:
            raise Refused(f"the general function is not {twin.name} with its values put in")
        order, mapping = found
        rules.require_order(self.before, twin_body, order)
        if len(set(mapping.values())) != len(mapping):
            raise Refused("two variables of the general function stand for one of the special ones")
        for name in mapping.values():
            if self.before.names.owner_of(name, twin.node) != twin.node:
                raise Refused(f"{name} is not a variable of {twin.name}")
        self._same_globals(twin, body)

    def _truth(self, value: Term) -> bool | None:
        """Whether a constant counts as true where a condition is asked for; None where that is not in sight."""
        if value[0] in {"true", "false"}:
            return str(value[1]).casefold() == "true"
        number = integer_value(value)
        return None if number is None or not self.before.language.struct_values else number != 0

    def _own_object(self) -> dict[str, str]:
        """What the general function calls its object, and what the twins do."""
        return {}

    def _without_first_values(
        self, twin_body: list[int], size: int, fixed: dict[str, Term], mapping: dict[str, str]
    ) -> list[int]:
        """A twin's statements without the literals, and lists of them, that it first gives to variables, where the
        general function is given them: such a parameter is that variable, under its name or another."""
        left = list(twin_body)
        general, tree = self.general, self.after.tree
        again = self.claim.name in tree.text[tree.child(general.node, "body") or 0 : tree.end[general.node]]
        while len(left) > size and not again and not self.before.language.declares:
            term = term_of(self.before, left[0])
            target, value = (term[1], term[3]) if term[0] == "assignment" and len(term) == 4 else ((), ())
            assert isinstance(target, tuple)
            name = str(target[1]) if target[:1] == ("identifier",) and term[2] == ("=", "=") else ""
            assert isinstance(value, tuple)
            plain = bool(value) and (is_literal(value) or is_fresh_container(value))
            given = [p for p in fixed if plain and fixed[p] == value]
            parameter = name if name in given else given[0] if given and name not in fixed else ""
            if not name or name in mapping.values() or not parameter:
                break
            del fixed[parameter]
            mapping[parameter] = name
            left.pop(0)
        return left

    def _refuse_what_marks_the_whole(self, flags: frozenset[str]) -> None:
        """What would mean the whole function although it stands under an `if` that asks a flag: a `yield`, a
        `global`."""
        tree, language = self.after.tree, self.after.language
        marks = language.suspending | language.outer_declarations
        for node in range(self.general.node, tree.end[self.general.node]):
            around = (
                [p for p in self.after.parents(node) if tree.kind[p] == "if_statement"]
                if tree.kind[node] in marks
                else []
            )
            asked = [tree.child(p, "condition") for p in around]
            if any(flags & set(tree.text[c : tree.end[c]]) for c in asked if c is not None):
                raise Refused("the general function holds what would mean its whole body")

    def _require_first_values(self) -> None:
        """Where a compiler wants to see that a variable has a value before it is read, every one is given its first
        where it is declared: what a flag decides a compiler does not follow."""
        tree, language = self.after.tree, self.after.language
        if not (language.typed and (language.methods or language.value_types)):
            return
        for node in range(self.general.node, tree.end[self.general.node]):
            if tree.kind[node] == "declaration" and "=" not in tree.text[node : tree.end[node]]:
                raise Refused("a variable of the general function may have no value yet")

    def _as_itself(self, term: Term, name: str, fixed: frozenset[int]) -> Term:
        """A function's term with each call that it makes of itself as ("itself", value, …), without the values at
        the places `fixed`, which must be the general function's own, handed on unchanged."""
        parts: list[object] = [
            self._as_itself(child, name, fixed) if isinstance(child, tuple) else child for child in term
        ]
        if term[0] != "call" or len(term) != 3 or term[1] != ("identifier", name):
            return tuple(parts)
        arguments = parts[2]
        assert isinstance(arguments, tuple)
        given = [a for a in arguments[1:] if a not in BRACKETS]
        for k in sorted(fixed, reverse=True):
            if k >= len(given) or given[k] != ("hole", self.general.parameters[k]):
                raise Refused(f"{name} calls itself with other values than it was given")
            del given[k]
        return ("itself", *given)

    def _same_globals(self, twin: Procedure, body: Sequence[int]) -> None:
        names, tree = self.after.names, self.after.tree
        for s in body:
            for i in names.within(s, tree.end[s]):
                if names.role[i] <= Role.DECLARATION and names.owner(i) in (0, UNBOUND):
                    owner = self.before.names.owner_of(tree.text[i], twin.node)
                    if owner not in (0, UNBOUND):
                        raise Refused(f"{tree.text[i]} means something else in {twin.name}")

    @staticmethod
    def _statements(file: ProgramFile, procedure: int) -> list[int]:
        body = file.tree.child(procedure, "body")
        statements = list(file.block_at[body].statements) if body is not None else []
        return statements[1:] if statements and file.is_bare_string(statements[0]) else statements

    def finish(self) -> None:
        """After the walk: no use of the general function that was not followed."""
        names, tree = self.after.names, self.after.tree
        uses = [
            i
            for i in names.nodes
            if tree.text[i] == self.claim.name
            and (names.role[i] is not Role.MEMBER or self.after.language.methods or self.by_object)
        ]
        if self.used == 0 or len(uses) < 2:
            raise Refused("nothing calls the special functions")
        for name in self.claim.removed:
            if name != self.claim.name and name in names.everything:
                raise Refused(f"{name} is still used")


def branches_chosen(term: Term, flags: Mapping[str, bool]) -> list[Term]:
    """A statement's term as the statements that it comes to when the function's own `flags` (holes) have these
    values: `if flag:` is its lines or nothing, inside other statements too."""
    asked = _parts(term) if term[0] == "if_statement" and as_term(term[1])[1] in IFS else []
    if len(asked) in {2, 3} and asked[1][0] == "block":
        condition, negated = asked[0], False
        if condition[0] in {"not_operator", "unary_operator"} and len(condition) == 3 and condition[1] in NEGATIONS:
            condition, negated = as_term(condition[2]), True
        name = str(condition[1]) if condition[0] == "hole" else ""
        if name in flags:
            block = asked[1] if flags[name] != negated else _else_block(asked[2:])
            return [part for s in block[1:] if isinstance(s, tuple) for part in branches_chosen(s, flags)]
    parts: list[object] = [term[0]]
    for child in term[1:]:
        parts += branches_chosen(child, flags) if isinstance(child, tuple) else [child]
    return [tuple(parts)]


IFS = frozenset({"if", "If"})
NEGATIONS = frozenset({("not", "not"), ("!", "!"), ("Not", "Not")})


def _parts(term: Term) -> list[Term]:
    """The parts of a statement that are no single words or marks."""
    parts = [as_term(part) for part in term[1:]]
    return [p for p in parts if len(p) != 2 or isinstance(p[1], tuple) or p[0] in {"hole", "block"}]


def _else_block(clauses: Sequence[Term]) -> Term:
    """The statements of a plain `else`; none where there is none. Any other clause is refused."""
    if not clauses:
        return ("block",)
    inner = _parts(clauses[0]) if clauses[0][0] == "else_clause" else []
    if len(inner) == 1 and inner[0][0] == "block":
        return inner[0]
    raise Refused("a branch of the general function has an unusual form")


BRACKETS = frozenset({("(", "("), (")", ")")})


def _runs_nothing(file: ProgramFile, statement: int) -> bool:
    """True for a statement at the top that only defines: a function, an import, a name for a literal."""
    if file.is_definition(statement) or file.is_import(statement) or file.is_bare_string(statement):
        return True
    tree = file.tree
    if tree.kind[statement] == "type_definition":
        return True
    parts = [c for c in tree.children(statement) if tree.kind[c] == "declarator"] or [statement]
    rights = [tree.child(part, "right") for part in parts]
    return all(right is not None and is_literal(term_of(file, right)) for right in rights)


def whole_statement(file: ProgramFile, procedure: Procedure) -> int:
    """The statement that the function is, or that holds it."""
    statement = statement_of(file, procedure)
    return procedure.node if statement is None else statement


def defining_name(file: ProgramFile, procedure: Procedure) -> int | None:
    """The name at which a function is defined, also where that is a constant's."""
    named = file.tree.child(procedure.node, "name")
    return named if named is not None else file.tree.child(file.tree.parent[procedure.node], "left")


def head_of(file: ProgramFile, procedure: Procedure) -> list[str]:
    """The words before and after a function's name and parameters: its modifiers, result, declared errors."""
    tree = file.tree
    named = defining_name(file, procedure)
    words: list[str] = []
    for child in tree.children(procedure.node):
        if child != named and tree.field[child] not in {"parameters", "body"}:
            words += tree.leaf_texts(child)
    return words
