"""Elements of lists and dictionaries that stay what they are while statements run: `marks[i]` may be looked up once,
early, and be given to a function."""

from __future__ import annotations

from collections.abc import Sequence

from ...program.flow import Flow
from ...program.names import WRITES
from ...program.program import ProgramFile
from ...program.shapes import given_value
from .folding import Term
from .plain import LITERALS, require_plain
from .quiet import GUARDED, OPEN, calls_the_library
from .rules import require_stable_name
from .terms import is_literal
from .verdict import Refused

LOOKING_UP = frozenset({"python"})
"""Languages in which looking up does nothing else, but for classes that say so, and no name can stand for an element's
place."""
ADDING = frozenset({"append"})


def is_steady_element(file: ProgramFile, flow: Flow, value: Term, segment: Sequence[int], scope: int) -> bool:
    """True for `holder[place]`, of plain names and literals, where the statements of `segment` cannot put anything else
    there. Raises Refused where the names themselves may change."""
    if value[0] != "subscript" or file.language.id not in LOOKING_UP or len(value) != 5:
        return False
    held, place = value[1], value[3]
    assert isinstance(held, tuple)
    assert isinstance(place, tuple)
    if held[0] != file.language.name or not (is_literal(place) or place[0] == file.language.name):
        return False
    if _looks_up_otherwise(file) or not all(_leaves_elements(file, s, segment, scope) for s in segment):
        return False
    names, tree = file.names, file.tree
    inside = (n for s in segment for n in names.within(s, tree.end[s]))
    written = {tree.text[n] for n in inside if names.role[n] in WRITES}
    for part in (held, place):
        if part[0] == file.language.name:
            require_stable_name(file, flow, str(part[1]), segment[0], written)
    return True


def _looks_up_otherwise(file: ProgramFile) -> bool:
    """True where a class of the program may say what operators and look-ups do."""
    files = (file, *file.beside)
    unseen = any(p.name.startswith("__") and p.name != "__init__" for f in files for p in f.procedures)
    return unseen or any({"property", "__getattr__", "setattr"} & f.names.everything for f in files)


def _leaves_elements(file: ProgramFile, statement: int, segment: Sequence[int], scope: int) -> bool:
    """True where a statement gives values to plain variables only, and calls nothing that could change a list."""
    tree, language = file.tree, file.language
    unknown = OPEN | GUARDED | language.deleting | language.suspending | {"named_expression", "global_statement"}
    for node in range(statement, tree.end[statement]):
        kind, around = tree.kind[node], tree.kind[tree.parent[node]]
        if kind in unknown:
            return False
        given = around in language.patterns or (tree.field[node] == "left" and around != "binary_operator")
        if given and kind in {"subscript", "attribute"}:
            return False
        if kind == "augmented_assignment" and not _changes_what_is_its_own(file, node, segment, scope):
            return False
        if kind == language.call and not _leaves_lists(file, node, segment):
            return False
    return True


def _changes_what_is_its_own(file: ProgramFile, node: int, segment: Sequence[int], scope: int) -> bool:
    """True for `name += ...` where the name holds what the segment has made, or numbers and texts only, or is a number:
    with a list of the program it would change what others see."""
    tree = file.tree
    left, right, sign = tree.child(node, "left"), tree.child(node, "right"), tree.child(node, "operator")
    if left is None or tree.kind[left] != file.language.name:
        return False
    if _is_made_there(file, tree.text[left], segment):
        return True
    if right is not None and sign is not None and tree.kind[right] in {"integer", "float"} and tree.text[sign] == "+=":
        return True
    try:
        require_plain(file, tree.text[left], scope)
    except Refused:
        return False
    return True


def _is_made_there(file: ProgramFile, name: str, segment: Sequence[int]) -> bool:
    """True for a variable to which the segment itself first gives a number, a text or an empty list, and then nothing
    else but what is added to that."""
    tree, names = file.tree, file.names
    writes = [n for s in segment for n in names.within(s, tree.end[s]) if tree.text[n] == name]
    writes = [n for n in writes if names.role[n] in WRITES]
    if not writes or tree.parent[writes[0]] not in segment:
        return False
    added = {n for n in writes if tree.kind[tree.parent[n]] == "augmented_assignment"}
    return writes[0] not in added and all(n in added or gives_a_first_value(file, tree.parent[n], name) for n in writes)


def _leaves_lists(file: ProgramFile, call: int, segment: Sequence[int]) -> bool:
    """True for a call of the library that changes no list but one that the segment itself has made."""
    if not calls_the_library(file, call):
        return False
    if file.called_name(call) not in ADDING:
        return True
    tree = file.tree
    callee = tree.child(call, file.language.callee_field)
    owner = tree.child(callee, "object") if callee is not None else None
    plain = owner is not None and tree.kind[owner] == file.language.name
    return plain and owner is not None and _is_made_there(file, tree.text[owner], segment)


SOMETIMES = frozenset({"and", "or", "&&", "||", "??"})
UNCONDITIONAL = frozenset(
    """
    call argument_list assignment augmented_assignment declaration declarator binary_operator comparison_operator
    unary_operator parenthesized_expression subscript tuple list return_statement if_statement while_statement
    for_statement expression_list string interpolation
    """.split()
)
"""What works out all its parts, or the part that comes first."""
PUT_TOGETHER = frozenset({"binary_operator", "interpolation", "string_content", "{", "}", "${"})
FIRST_PARTS = {"if_statement": "condition", "while_statement": "condition", "for_statement": "right"}


def is_looked_up_at_once(file: ProgramFile, parts: Sequence[int], uses: Sequence[int]) -> bool:
    """True where a function's parameter is certainly used, and before that only variables are given plain first
    values: what cannot be looked up stops the program at the same point."""
    tree = file.tree
    if not uses:
        return False
    first = min(uses)
    at = next((k for k, s in enumerate(parts) if s <= first < tree.end[s]), None)
    if at is None or not all(gives_a_first_value(file, s) for s in parts[:at]):
        return False
    return is_worked_out_first(file, parts[at], first)


def is_worked_out_first(file: ProgramFile, statement: int, node: int, joined: bool = False) -> bool:
    """True where what stands at a node of a statement (or value) is worked out once, whatever happens, and before
    anything else in it but plain values and texts, also such as are `joined`."""
    tree, language = file.tree, file.language
    if statement == node:
        return True
    around = sorted({statement, *(p for p in file.parents(node) if p > statement)})
    for outer, part in zip(around, [*around[1:], node], strict=True):
        kind = tree.kind[outer]
        if kind not in UNCONDITIONAL or (kind in FIRST_PARTS and tree.field[part] != FIRST_PARTS[kind]):
            return False
        if SOMETIMES & {tree.text[c] for c in tree.children(outer)}:
            return False
    shown = {
        tree.child(n, language.callee_field)
        for n in around
        if tree.kind[n] == language.call and file.called_name(n) in language.output_calls
    }
    called = {n for top in shown if top is not None for n in range(top, tree.end[top])}
    known = LITERALS | language.strings | language.numbers | {"string_content", "character"}
    done = [n for n in range(statement, node) if tree.end[n] <= node and not tree.text[n] and n not in around]
    return all(n in called or tree.kind[n] in known or (joined and _joins_texts(file, n)) for n in done)


def _joins_texts(file: ProgramFile, node: int) -> bool:
    """True for texts and plain values that are joined, or sent to a stream, one behind the other."""
    tree = file.tree
    plain = PUT_TOGETHER | LITERALS | file.language.strings | file.language.numbers | {file.language.name}
    signs = {tree.text[n] for n in range(node, tree.end[node]) if tree.field[n] == "operator"}
    parts = (tree.kind[n] in plain or tree.field[n] == "operator" for n in range(node, tree.end[node]))
    return signs <= {"+", "<<", "&"} and all(parts)


def gives_a_first_value(file: ProgramFile, statement: int, name: str = "") -> bool:
    """True for an assignment of a literal, or something empty, to a plain variable; to the one of that name."""
    tree = file.tree
    given = given_value(tree, statement, for_good=True)
    if given is None or name not in {"", tree.text[given[0]]}:
        return False
    empty = tree.kind[given[1]] in {"list", "dictionary"} and tree.end[given[1]] == given[1] + 3
    return empty or tree.kind[given[1]] in LITERALS
