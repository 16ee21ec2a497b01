"""Values that are the same whenever they are read: literals, names that stay, fields of what stays."""

from __future__ import annotations

from collections.abc import Iterable

from ...program.flow import Flow
from ...program.names import WRITES, Role
from ...program.program import ProgramFile
from ...program.types import is_listed_constant
from .folding import Term
from .rules import require_stable_name
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


def is_steady_field(file: ProgramFile, flow: Flow, value: Term, first: int, written: Iterable[str]) -> bool:
    """True where `holder.field`, read before statement `first`, is what it is wherever the copy there reads it.
    Raises Refused where the holder itself may change, or may not be there yet."""
    if value[0] != "attribute" or len(value) != 4 or value[2] != (".", "."):
        return False
    held, member = value[1], value[3]
    assert isinstance(held, tuple)
    assert isinstance(member, tuple)
    if held[0] != file.language.name:
        return False
    holder, field = str(held[1]), str(member[1])
    if is_listed_constant(file, holder, field):
        return True
    if not (file.language.struct_values or keeps_field(file, holder, field)):
        return False
    require_stable_name(file, flow, holder, first, written)
    return True


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
