"""Which name means what: the role of every name in a file, and the scope that owns it.

Scopes follow the language reference's rules (Python 3 reference, section 4.2.2 "Resolution of
names"): a procedure, lambda or comprehension owns what it binds; a class body is skipped when an
inner procedure looks a name up; `global` and `nonlocal` send a name outwards. In languages that
declare their variables a procedure owns what is declared in it, in whatever block (`blocks_of`
tells whether that is the whole truth), and what it writes besides is sent outwards.
"""

from __future__ import annotations

from bisect import bisect_left
from collections import defaultdict
from enum import IntEnum
from typing import Final

from ..languages.table import Language
from .tree import Tree


class Role(IntEnum):
    """What a name does where it stands."""

    READ = 0
    WRITE = 1
    UPDATE = 2
    """Read and written, as in `total += 1` or `del total`."""
    PARAMETER = 3
    DECLARATION = 4
    """Named by `global` or `nonlocal`."""
    MEMBER = 5
    KEYWORD = 6
    IGNORED = 7
    """Part of an import path."""

    __hash__ = int.__hash__
    """As quick as a number's: roles are looked up in sets all the time."""


READS = frozenset({Role.READ, Role.UPDATE})
NO_VARIABLES = frozenset({Role.MEMBER, Role.KEYWORD, Role.IGNORED})
"""Names of something else than variables."""
WRITES = frozenset({Role.WRITE, Role.UPDATE, Role.PARAMETER})
UNBOUND = -1
"""The owner of a name that nothing in the file binds: a built-in, or undefined."""


class Names:
    """All names of a file. It never changes."""

    def __init__(
        self,
        tree: Tree,
        nodes: list[int],
        role: dict[int, Role],
        scope: dict[int, int],
        parent_scope: dict[int, int],
        bound: dict[int, set[str]],
        outward: dict[int, dict[str, bool]],
        everything: frozenset[str],
    ) -> None:
        self.tree: Final = tree
        self.nodes: Final = nodes
        """The name tokens in order of the text."""
        self.role: Final = role
        self.scope: Final = scope
        self.parent_scope: Final = parent_scope
        self.bound: Final = bound
        self.outward: Final = outward
        """scope → names declared global (True) or nonlocal (False) in it."""
        self.everything: Final = everything
        self.owners: Final[dict[tuple[str, int], int]] = {}
        """What `owner_of` found."""

    def owner_of(self, name: str, scope: int) -> int:
        """The scope that owns `name` when it is used in `scope`; UNBOUND if the file binds it nowhere."""
        found = self.owners.get((name, scope))
        if found is None:
            found = self.owners[name, scope] = self._owner_of(name, scope)
        return found

    def _owner_of(self, name: str, scope: int) -> int:
        tree, first = self.tree, True
        while True:
            sent = self.outward.get(scope, {}).get(name)
            if sent is True:
                return 0
            skips = not first and tree.kind[scope] in tree.language.classes
            if sent is None and not skips and name in self.bound[scope]:
                return scope
            if scope == 0:
                return UNBOUND
            scope, first = self.parent_scope[scope], False

    def owner(self, node: int) -> int:
        """The scope that owns the name at `node`."""
        return self.owner_of(self.tree.text[node], self.scope[node])

    def declared_at(self, node: int) -> bool:
        """True where the name at `node` is declared there (in languages that declare their variables)."""
        return self.role[node] is Role.PARAMETER or (self.role[node] is Role.WRITE and _declares(self.tree, node))

    def within(self, start: int, stop: int) -> list[int]:
        """The name tokens from node `start` up to, not including, node `stop`."""
        nodes = self.nodes
        first = bisect_left(nodes, start)
        return nodes[first : bisect_left(nodes, stop, first)]


def resolve_names(tree: Tree) -> Names:
    """Give every name of a tree its role and scope."""
    language = tree.language
    name, texts = language.name, tree.text
    nodes = [i for i, kind in enumerate(tree.kind) if kind == name and texts[i]]
    scope_kinds = _scope_kinds(language)
    scopes = [0] + [i for i, kind in enumerate(tree.kind) if kind in scope_kinds]
    inner_scope = _innermost(tree, scopes, nodes + scopes)
    kinds, fields, parents = tree.kind, tree.field, tree.parent
    plain: dict[tuple[str, str], Role | None] = {}
    role: dict[int, Role] = {}
    for i in nodes:
        place = kinds[parents[i]], fields[i]
        if place not in plain:
            plain[place] = _role_by_place(language, *place)
        found = plain[place]
        role[i] = _role(tree, i) if found is None else found
    changed: set[int] = set()
    if language.struct_values:
        changed |= _given_by_reference(tree)
    if language.by_reference:
        changed |= _given_to_change(tree)
    if language.value_types or language.by_reference:
        changed.update(_changed_in_place(tree, nodes, role))
    for i in changed:
        if role.get(i) is Role.READ:
            role[i] = Role.UPDATE
    body = {s: _body_of(tree, s) for s in scopes}
    scope: dict[int, int] = {}
    for i in nodes:
        around = inner_scope[i]
        start, stop = body[around]
        scope[i] = around if start <= i < stop else _own_scope(tree, i, around)
        if role[i] is Role.WRITE and fields[i] == language.name_field and kinds[parents[i]] in scope_kinds:
            scope[i] = inner_scope[parents[i]]
    parent_scope = {s: inner_scope[s] for s in scopes if s}
    bound: dict[int, set[str]] = {s: set() for s in scopes}
    outward: dict[int, dict[str, bool]] = defaultdict(dict)
    for i, own in role.items():
        if own is Role.READ:
            continue
        if language.declares:
            if own is Role.PARAMETER or (own is Role.WRITE and _declares(tree, i)):
                bound[scope[i]].add(tree.text[i])
        elif own is Role.DECLARATION:
            outward[scope[i]][tree.text[i]] = kinds[parents[i]] == "global_statement"
        elif own in WRITES:
            bound[_binding_scope(tree, i, scope[i], parent_scope)].add(tree.text[i])
    if language.declares:
        _send_outward(tree, nodes, role, scope, parent_scope, bound, outward)
    for s, sent in outward.items():
        bound[0] |= {name for name, is_global in sent.items() if is_global}
        bound[s] -= set(sent)
    return Names(
        tree=tree,
        nodes=nodes,
        role=role,
        scope=scope,
        parent_scope=parent_scope,
        bound=bound,
        outward=dict(outward),
        everything=frozenset([texts[i] for i in nodes]),
    )


def _scope_kinds(language: Language) -> frozenset[str]:
    """Where variables are declared, the members of a class are the program's variables."""
    classes = frozenset() if language.declares else language.classes
    return language.procedures | classes | language.scopes


DECLARING = frozenset(
    {"declarator", "declaration", "field", "except_clause", "import_clause", "import_specifier", "let_names"}
)


def _declares(tree: Tree, node: int) -> bool:
    """True where the name at `node`, which is written, is declared there: in a declaration, a definition, a
    loop that names a type, a handler."""
    language = tree.language
    child, parent = node, tree.parent[node]
    while tree.kind[parent] in language.patterns:
        child, parent = parent, tree.parent[parent]
    kind = tree.kind[parent]
    if kind == "for_statement":
        return any(tree.field[c] in {"kind", "type"} for c in tree.children(parent))
    named = tree.field[child] == language.name_field and kind in language.procedures | language.classes
    return named or kind in DECLARING or kind == "namespace_import"


def _send_outward(
    tree: Tree,
    nodes: list[int],
    role: dict[int, Role],
    scope: dict[int, int],
    parent_scope: dict[int, int],
    bound: dict[int, set[str]],
    outward: dict[int, dict[str, bool]],
) -> None:
    """What a procedure writes and does not declare belongs further out: to a procedure around it (False) or
    to the program (True)."""
    implicit = tree.language.implicit_locals
    for i in nodes:
        if role[i] not in (Role.WRITE, Role.UPDATE):
            continue
        name, around = tree.text[i], scope[i]
        if implicit and around and name not in bound[0]:
            bound[around].add(name)
        while around and name not in bound[around]:
            around = parent_scope[around]
        if around != scope[i]:
            outward[scope[i]][name] = around == 0
            if around == 0:
                bound[0].add(name)


def _innermost(tree: Tree, scopes: list[int], wanted: list[int]) -> dict[int, int]:
    """For each wanted node, the innermost scope strictly around it."""
    result: dict[int, int] = {}
    stack: list[int] = []
    scope_set = set(scopes)
    ends = tree.end
    for node in sorted(set(wanted)):
        while stack and ends[stack[-1]] <= node:
            stack.pop()
        result[node] = stack[-1] if stack else 0
        if node in scope_set:
            stack.append(node)
    return result


def _body_of(tree: Tree, scope: int) -> tuple[int, int]:
    """The nodes that are in a scope without a doubt, as a range; an empty one where that is not so simple."""
    if not scope:
        return 0, len(tree.kind)
    body = tree.child(scope, tree.language.body_field)
    if body is None or tree.kind[scope] not in tree.language.procedures:
        return 0, 0
    return body, tree.end[body]


def _own_scope(tree: Tree, node: int, scope: int) -> int:
    """Move names in headers (defaults, decorators, annotations, first iterable) to the outer scope."""
    while scope:
        if not _evaluated_outside(tree, node, scope):
            return scope
        scope = _scope_above(tree, scope)
    return 0


def _scope_above(tree: Tree, scope: int) -> int:
    kinds = _scope_kinds(tree.language)
    scope = tree.parent[scope]
    while scope > 0 and tree.kind[scope] not in kinds:
        scope = tree.parent[scope]
    return max(scope, 0)


def _evaluated_outside(tree: Tree, node: int, scope: int) -> bool:
    """True where `node` stands in a part of `scope` that its surroundings evaluate."""
    language = tree.language
    kind = tree.kind[scope]
    parents = tree.parent
    top, second = node, -1
    while parents[top] != scope:
        top, second = parents[top], top
    if kind in language.procedures | language.classes:
        field = tree.field[top]
        if field == language.body_field:
            return False
        if field == language.parameters_field:
            return not _names_parameter(tree, node)
        return True
    if kind == "lambda":
        return tree.field[top] == language.parameters_field and not _names_parameter(tree, node)
    clause_kind, field = language.iterable_field
    clauses = [child for child in tree.children(scope) if tree.kind[child] == clause_kind]
    return bool(clauses) and top == clauses[0] and second >= 0 and tree.field[second] == field


def _names_parameter(tree: Tree, node: int) -> bool:
    """True where the name at `node` is itself a parameter (not its default or its type)."""
    language = tree.language
    parent = tree.parent[node]
    if tree.kind[parent] in language.parameter_lists:
        return True
    if tree.field[node] == "parameter" and tree.kind[parent] in language.procedures | language.scopes:
        return True
    if tree.kind[parent] not in language.parameter_kinds:
        return False
    if tree.field[node] == "name":
        return True
    if tree.field[node] in {"value", "type", "size"}:
        return False
    while tree.kind[parent] in language.parameter_kinds:
        parent = tree.parent[parent]
    return tree.kind[parent] in language.parameter_lists


def _binding_scope(tree: Tree, node: int, scope: int, parent_scope: dict[int, int]) -> int:
    """A walrus inside a comprehension binds outside it; everything else binds where it stands."""
    if tree.kind[tree.parent[node]] == "named_expression":
        while scope and tree.kind[scope] in tree.language.scopes and tree.kind[scope] != "lambda":
            scope = parent_scope[scope]
    return scope


def _role_by_place(language: Language, kind: str, field: str) -> Role | None:
    """The role of a name in this field of a node of this kind; None where more must be looked at."""
    if (kind, field) == language.member:
        return Role.MEMBER
    if (kind, field) == language.keyword_argument or kind == "method_signature":
        return Role.KEYWORD
    if field == language.name_field and (kind in language.procedures or kind in language.classes):
        return Role.WRITE
    if kind in language.outer_declarations:
        return Role.DECLARATION
    if kind in language.parameter_lists:
        return Role.PARAMETER
    if kind in language.parameter_kinds or field == "parameter" or kind in IN_PARTS:
        return None
    if kind in language.captures:
        return Role.WRITE
    if kind in language.patterns or language.struct_values or language.methods:
        return None
    return _role_as_target(language, kind, field) or Role.READ


IN_PARTS = frozenset({"dotted_name", "aliased_import", "keyword_pattern"})


def _role_as_target(language: Language, kind: str, field: str) -> Role | None:
    """The role of what a statement gives a value to there; None for anything else."""
    if kind in language.deleting:
        return Role.UPDATE
    for binding in language.targets:
        if kind == binding.kind and field == binding.field:
            return Role.UPDATE if binding.reads_too else Role.WRITE
    return None


def _role(tree: Tree, node: int) -> Role:
    """The role of a name whose place alone does not tell it."""
    kind = tree.kind[tree.parent[node]]
    if _names_parameter(tree, node):
        return Role.PARAMETER
    if kind == "dotted_name" or kind == "aliased_import":
        return _dotted_role(tree, node)
    if kind == "keyword_pattern":
        return Role.KEYWORD if next(tree.children(tree.parent[node])) == node else Role.READ
    return _target_role(tree, node)


def _dotted_role(tree: Tree, node: int) -> Role:
    """Names in import statements and in branch patterns."""
    language = tree.language
    outer = tree.parent[node]
    parts = list(tree.children(outer)) if tree.kind[outer] == "dotted_name" else [node]
    above = tree.parent[outer] if tree.kind[outer] == "dotted_name" else outer
    if tree.kind[above] in language.captures:
        return Role.WRITE if len(parts) == 1 else (Role.READ if node == parts[0] else Role.MEMBER)
    if tree.kind[above] == "class_pattern":
        return Role.READ if node == parts[0] else Role.MEMBER
    if tree.kind[above] == "aliased_import":
        return Role.WRITE if tree.field[node] == "alias" else Role.IGNORED
    if tree.kind[above] in language.imports and tree.field[outer] == "name":
        return Role.WRITE if node == parts[0] else Role.IGNORED
    if tree.kind[above] == "decorator":
        return Role.READ
    return Role.IGNORED


def _target_role(tree: Tree, node: int) -> Role:
    """Climb through tuples and starred names to see whether the name is assigned to."""
    language = tree.language
    child = node
    parent = tree.parent[child]
    while parent >= 0 and tree.kind[parent] in language.patterns and tree.field[child] != "size":
        if tree.kind[parent] in language.deleting:
            return Role.UPDATE
        for binding in language.targets:
            if tree.kind[parent] == binding.kind and tree.field[child] == binding.field:
                break
        child, parent = parent, tree.parent[parent]
    if parent < 0:
        return Role.READ
    given = _role_as_target(language, tree.kind[parent], tree.field[child])
    if given is not None:
        return given
    if language.struct_values and (_changes_a_record(tree, node) or _read_into(tree, node)):
        return Role.UPDATE
    if language.methods and node and tree.text[node - 1] in {"ref", "out"}:
        return Role.UPDATE
    return Role.READ


READING_CALLS = frozenset({"getline", "swap", "std::swap", "std::getline"})


def _read_into(tree: Tree, node: int) -> bool:
    """`stream >> x` and the like give the variable itself away."""
    parent = tree.parent[node]
    if tree.kind[parent] == "binary_operator" and tree.field[node] == "right":
        return any(tree.text[c] == ">>" for c in tree.children(parent))
    if tree.kind[parent] != "argument_list":
        return False
    callee = tree.child(tree.parent[parent], "function")
    return callee is not None and tree.text[callee] in READING_CALLS


def _given_by_reference(tree: Tree) -> set[int]:
    """Arguments that a function of the program takes by reference, so that it may change the variable."""
    taking: dict[str, set[int] | None] = {}
    for node, kind in enumerate(tree.kind):
        if kind == "prototype" and "&" in tree.text[node]:
            taking[tree.text[node].partition("(")[0].split()[-1].lstrip("*&")] = None
        if kind != "function_definition":
            continue
        name, parameters = tree.child(node, "name"), tree.child(node, "parameters")
        if name is None or parameters is None:
            continue
        plain = tree.items(parameters)
        places = {k for k, c in enumerate(plain) if "reference_declarator" in tree.kind[c : tree.end[c]]}
        if places:
            taking.setdefault(tree.text[name], places)
    if not taking:
        return set()
    found: set[int] = set()
    for node, kind in enumerate(tree.kind):
        callee = tree.child(node, "function") if kind == "call" else None
        arguments = tree.child(node, "arguments") if callee is not None else None
        if callee is None or arguments is None or tree.text[callee] not in taking:
            continue
        given = tree.items(arguments)
        positions = taking[tree.text[callee]]
        found |= {c for k, c in enumerate(given) if positions is None or k in positions}
    return found


READING_MEMBERS = frozenset(
    """
    uppercased lowercased contains hasPrefix hasSuffix joined sorted reversed map filter reduce split components
    firstIndex max min enumerated trimmingCharacters isMultiple rounded forEach
    """.split()
)


def _given_to_change(tree: Tree) -> set[int]:
    """Variables that are given to a procedure of the program which gives its parameter there another value, or
    hands it on to one that does; and what the language's own statements read into."""
    parameters: dict[str, dict[str, int]] = {}
    changed: set[tuple[str, str]] = set()
    handed: list[tuple[str, str, str, int]] = []
    calls: list[tuple[int, str, int]] = []
    found: set[int] = set()
    around, stop = "", -1
    for node, kind in enumerate(tree.kind):
        if node >= stop:
            around = ""
        if kind == "function_definition":
            named, listed = tree.child(node, "name"), tree.child(node, "parameters")
            around, stop = tree.text[named] if named is not None else "", tree.end[node]
            own = parameters.setdefault(around, {})
            for place, parameter in enumerate(tree.items(listed) if listed is not None else ()):
                name = tree.child(parameter, "name")
                if name is not None and "ByVal" not in tree.leaf_texts(parameter):
                    own[tree.text[name]] = place
        elif kind == "identifier" and tree.field[node] == "left":
            changed.add((around, tree.text[node]))
        elif kind == "call":
            callee, arguments = tree.child(node, "function"), tree.child(node, "arguments")
            for place, given in enumerate(tree.items(arguments) if arguments is not None else ()):
                if callee is not None and tree.kind[given] == "identifier":
                    calls.append((given, tree.text[callee], place))
                    handed.append((around, tree.text[given], tree.text[callee], place))
        elif kind in {"print_statement", "redim_statement"}:
            found |= {i for i in range(node, tree.end[node]) if tree.kind[i] == "identifier"}
    while True:
        changing = {
            (name, place) for name, own in parameters.items() for p, place in own.items() if (name, p) in changed
        }
        more = {(around, name) for around, name, callee, place in handed if (callee, place) in changing} - changed
        if not more:
            return found | {given for given, callee, place in calls if (callee, place) in changing}
        changed |= more


def _changed_in_place(tree: Tree, nodes: list[int], role: dict[int, Role]) -> list[int]:
    """Variables (declared with `var`) whose value an assignment to a part or a call of a member may change, where
    records and lists are values. What nothing gives a value is no variable but a thing of the surroundings, such as
    what a person has selected, or a field of a form."""
    any_of_them = tree.language.by_reference
    loose = {
        tree.text[i]
        for i in nodes
        if (
            role[i] in WRITES
            if any_of_them
            else tree.kind[tree.parent[i]] == "declarator"
            and tree.field[i] == "left"
            and any(tree.text[c] == "var" for c in tree.children(tree.parent[tree.parent[i]]))
        )
    }
    found = []
    for i in nodes:
        if tree.text[i] not in loose:
            continue
        child, parent = i, tree.parent[i]
        last = ""
        while tree.field[child] in {"object", "value"} and tree.kind[parent] in {"attribute", "subscript"}:
            member = tree.child(parent, "attribute")
            last = tree.text[member] if member is not None else ""
            child, parent = parent, tree.parent[parent]
        if child == i:
            continue
        assigned = tree.kind[parent] in {"assignment", "augmented_assignment"} and tree.field[child] == "left"
        called = (
            not any_of_them
            and tree.kind[parent] == "call"
            and tree.field[child] == "function"
            and last not in READING_MEMBERS
        )
        if assigned or called or tree.kind[parent] == "address_of":
            found.append(i)
    return found


def _changes_a_record(tree: Tree, node: int) -> bool:
    """`p.x = 2` changes the record `p` itself where records are values."""
    child, parent = node, tree.parent[node]
    if tree.kind[parent] != "attribute":
        return False
    while tree.field[child] in {"object", "value"} and tree.kind[parent] in {"attribute", "subscript"}:
        if tree.kind[parent] == "attribute" and any(tree.text[c] == "->" for c in tree.children(parent)):
            return False
        child, parent = parent, tree.parent[parent]
    written = {"assignment", "augmented_assignment"}
    return (tree.kind[parent] in written and tree.field[child] == "left") or tree.kind[parent] in {
        "update",
        "address_of",
    }
