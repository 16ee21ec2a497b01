"""Values that are the same whenever they are read: literals, names that stay, fields of what stays."""

from __future__ import annotations

from collections.abc import Iterable

from ...program.flow import Flow
from ...program.members import CONSTRUCTORS, class_name, kept_fields, members_of
from ...program.names import UNBOUND, WRITES, Role
from ...program.program import Procedure, ProgramFile
from ...program.types import is_listed_constant
from .folding import Term, as_term
from .own_fields import is_kept_by_this, is_set_through_an_object
from .rules import names_written, require_stable_name
from .terms import is_literal
from .verdict import Refused


def require_plain_value(file: ProgramFile, flow: Flow, value: Term, first: int, written: Iterable[str]) -> None:
    """A value taken early must be a literal, a stable name, or a field that stays."""
    if is_literal(value):
        return
    if value[0] == "identifier" and isinstance(value[1], str):
        require_stable_name(file, flow, value[1], first, written)
    elif not is_steady_field(file, flow, value, first, written):
        raise Refused("a value that differs is worked out on the spot, and might come out otherwise earlier")


CALL = 3
"""Parts of a call: what it is, what is called, what it is given."""
TELLS_LISTS_APART = frozenset({"eq?", "eqv?", "memq", "memv", "remq", "remv", "assq", "assv"})
"""What asks whether two lists are one and the same."""
CHANGES_NO_LIST = frozenset({"set!", "vector-set!", "vector-fill!", "string-set!", "hash-set!", "hash-remove!"})
"""What changes something, and no list."""


def lists_literals(before: ProgramFile, value: Term, scope: int) -> bool:
    """True for a call of the language's own function that makes a list of numbers and texts: `(list 3 5 8)`."""
    language = before.language
    if not language.values_everywhere or value[0] != "call" or len(value) != CALL:
        return False
    called, given = value[1:]
    plain = isinstance(given, tuple) and all(is_literal(as_term(term)) for term in given[1:])
    known = called == ("identifier", language.list_call)
    return plain and known and before.names.owner_of(language.list_call, scope) == UNBOUND


def is_only_looked_at(file: ProgramFile, value: Term, uses: Iterable[int]) -> bool:
    """True where a list of literals, used in these places, is only asked what is in it, counted or run through: it
    stays as it is, and nobody keeps it, so that one is as good as one that is made anew each time."""
    signs = {"[", "]", "{", "}", ","}
    held = [as_term(t) for t in value[1:] if not (isinstance(t, tuple) and t[0] in signs)]
    plain = value[0] in {"list", "set"} and all(map(is_literal, held))
    return plain and all(_is_looked_at(file, i) for i in uses)


def _is_looked_at(file: ProgramFile, node: int) -> bool:
    tree, parent = file.tree, file.tree.parent[node]
    if tree.text[node - 1] == "in":
        run_through = tree.kind[parent] in {"for_statement", "for_in_clause"} and tree.field[node] == "right"
        return run_through or (tree.kind[parent] == "comparison_operator" and tree.end[parent] == tree.end[node])
    call = tree.parent[parent]
    if file.language.id != "python" or file.only_argument(call) != node:
        return False
    callee = tree.child(call, "function")
    return callee is not None and tree.text[callee] in LOOK and file.names.owner(callee) == UNBOUND


LOOK = frozenset({"len", "sum", "min", "max", "sorted"})
"""Python's own functions that leave a list of numbers and texts as it is, and do not keep it."""


def lists_never_change(before: ProgramFile) -> bool:
    """True where one list is as good as another with the same in it: nobody changes one, or asks which it is."""
    texts = {text for file in (before, *before.beside) for text in file.tree.text}
    return TELLS_LISTS_APART.isdisjoint(texts) and not any(t.endswith("!") for t in texts - CHANGES_NO_LIST)


def is_steady_field(file: ProgramFile, flow: Flow, value: Term, first: int, written: Iterable[str]) -> bool:
    """True where `holder.field`, read before statement `first`, is what it is wherever the copy there reads it.
    Raises Refused where the holder itself may change, or may not be there yet."""
    if value[0] != "attribute" or len(value) != 4 or value[2] != (".", "."):
        return False
    held, member = value[1], value[3]
    assert isinstance(held, tuple)
    assert isinstance(member, tuple)
    if held == ("this", "this"):
        if file.language.methods:
            return _is_kept_by_its_name(file, flow, str(member[1]), first, written)
        return is_kept_by_this(file, str(member[1]), first)
    if held[0] != file.language.name:
        return False
    holder, field = str(held[1]), str(member[1])
    if is_listed_constant(file, holder, field) or is_kept_since_made(file, holder, field, first):
        return True
    if not (file.language.struct_values or keeps_field(file, holder, field)):
        return False
    require_stable_name(file, flow, holder, first, written)
    return True


def _is_kept_by_its_name(file: ProgramFile, flow: Flow, field: str, first: int, written: Iterable[str]) -> bool:
    """True for a field that the bare name stands for, too (Java, C#), and that nobody gives a value through an object.
    Raises Refused where it may be given one by its name."""
    plain = field in members_of(file) and file.names.owner_of(field, flow.scope) == 0
    if not plain or any(is_set_through_an_object(one, field) for one in (file, *file.beside)):
        return False
    require_stable_name(file, flow, field, first, written)
    return True


ATTRIBUTES_BY_NAME = frozenset(
    "setattr delattr getattr __dict__ __class__ __new__ __getattr__ __getattribute__ __setattr__ __slots__".split()
)
"""What gives or takes a field without naming it, or objects that no constructor made."""


def is_kept_since_made(file: ProgramFile, holder: str, field: str, first: int) -> bool:
    """True for a field of the object that the method around statement `first` belongs to, where the constructor of its
    class gives it before anything else can see the object, and nothing gives it another value."""
    tree, names, language = file.tree, file.names, file.language
    method = file.procedure_around(first)
    if holder != language.own_object or field not in kept_fields(file) or method.parameters[:1] != (holder,):
        return False
    owner = next((p for p in file.parents(method.node) if tree.kind[p] in language.classes), 0)
    makers = [p for p in file.procedures if p.name in CONSTRUCTORS and p.parent == owner and p.in_class]
    if not owner or len(makers) != 1 or makers[0] is method or method.parent != owner or method.decorated:
        return False
    if ATTRIBUTES_BY_NAME & names.everything or any(field in f.names.everything for f in file.beside):
        return False
    if _has_bases(file, owner) or field in names.bound.get(owner, ()) or _is_a_base(file, class_name(file, owner)):
        return False
    if names_written(file, file.statements_of(method), method.node) & {holder}:
        return False
    if _is_asked_for_members(file, class_name(file, owner)):
        return False
    return _is_given_at_once(file, makers[0], field)


def _has_bases(file: ProgramFile, node: int) -> bool:
    """True for a class that is made of anything but `object`."""
    bases = file.tree.child(node, "superclasses")
    return bases is not None and file.tree.source_of(bases).strip("() ") not in {"", "object"}


def _is_a_base(file: ProgramFile, name: str) -> bool:
    """True where the name stands in the head of some class."""
    tree = file.tree
    heads = (tree.child(n, "superclasses") for n, kind in enumerate(tree.kind) if kind in file.language.classes)
    return any(head is not None and name in tree.leaf_texts(head) for head in heads)


def _is_asked_for_members(file: ProgramFile, name: str) -> bool:
    """True where a member is looked up in a class by its name: its methods may be given any object."""
    tree, member = file.tree, file.language.member[0]
    named = (n for n, text in enumerate(tree.text) if text == name and tree.field[n] == "object")
    return any(tree.kind[tree.parent[n]] == member for n in named)


def _is_given_at_once(file: ProgramFile, maker: Procedure, field: str) -> bool:
    """True where a constructor gives its object the field, before anyone else is given the object."""
    tree, own = file.tree, file.language.own_object
    for statement in file.statements_of(maker):
        uses = [n for n in range(statement, tree.end[statement]) if tree.text[n] == own]
        target = tree.child(statement, "left") if tree.kind[statement] == "assignment" else None
        leaves = file.language.returning in tree.kind[statement : tree.end[statement]]
        if leaves or any(_is_handed_out(file, n) for n in uses):
            return False
        if target is not None and tree.source_of(target) == f"{own}.{field}":
            return True
    return False


def _is_handed_out(file: ProgramFile, node: int) -> bool:
    """True where an object is more than asked for a field, or given one: called, or a method of it handed on."""
    tree, language = file.tree, file.language
    parent = tree.parent[node]
    called = tree.kind[tree.parent[parent]] == language.call and tree.field[parent] == language.callee_field
    plain = tree.kind[parent] == language.member[0] and tree.field[node] == "object" and not called
    return not plain or tree.text[tree.end[parent] - 1] in {p.name for p in file.procedures}


def keeps_field(file: ProgramFile, name: str, field: str) -> bool:
    """True for a variable that is given an object in sight, once, whose fields are plain values that nobody
    gives another one."""
    tree, names = file.tree, file.names
    uses = [i for i in names.nodes if tree.text[i] == name and names.role[i] <= Role.DECLARATION]
    written = [i for i in uses if names.role[i] in WRITES]
    if not file.language.declares or file.language.methods or len(written) != 1 or file.is_used_beside(name):
        return False
    declarator = tree.parent[written[0]]
    given = tree.child(declarator, "right") if tree.kind[declarator] == "declarator" else None
    if given is None or tree.kind[given] != "dictionary":
        return False
    parts = [c for c in tree.children(given) if tree.text[c] not in {"{", "}", ","}]
    plain = all(tree.kind[c] in {"pair", file.language.name} for c in parts)
    listed = any(field == (tree.text[c] or tree.text[c + 1]) for c in parts)
    return plain and listed and all(_only_reads_a_field(file, i) for i in uses if i != written[0])


def _only_reads_a_field(file: ProgramFile, node: int) -> bool:
    tree = file.tree
    attribute = tree.parent[node]
    around = tree.kind[tree.parent[attribute]]
    if tree.kind[attribute] != "attribute" or tree.field[node] != "object":
        return False
    changed = tree.field[attribute] == "left" and around in {"assignment", "augmented_assignment"}
    called = tree.field[attribute] == file.language.callee_field and around == file.language.call
    dropped = around in {"update", "unary_operator", "delete_statement"} or around in file.language.patterns
    return not (changed or called or dropped)
