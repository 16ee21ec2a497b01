"""Where a variable may stand for a value: not where the language wants the constant, or another type."""

from __future__ import annotations

from collections.abc import Iterable

from ...program.names import UNBOUND, Role
from ...program.program import ProgramFile
from ...program.types import (
    OF_A_CLASS,
    OF_THE_SYSTEM,
    Type,
    declared_type,
    is_object,
    result_type,
    type_of_expression,
    type_of_name,
)
from .verdict import Refused

NARROW = frozenset({"byte", "short", "char", "sbyte", "ushort", "uint", "ulong"})


def require_values_fit(file: ProgramFile, holes: Iterable[int], variables: frozenset[str] = frozenset()) -> None:
    """A variable may not stand where the language wants the constant itself. Those of `variables` stand for
    variables of the very type, not for values that take on a type."""
    tree = file.tree
    for hole in holes:
        if file.language.by_reference:
            _require_fits_reference(file, hole)
        if file.language.struct_values:
            _require_no_whole_array(file, hole)
        if type_of_expression(file, hole) == OF_A_CLASS:
            _require_no_result(file, hole)
        if file.language.copied_types:
            _require_no_record_changed(file, hole)
        if file.language.value_types:
            _require_object_where_changed(file, hole)
        taking_on = file.language.value_types and tree.text[hole] not in variables
        if taking_on and file.names.role[hole] in (Role.READ, Role.UPDATE):
            _require_plain_place(file, hole)
        below = hole
        for parent in file.parents(hole):
            kind = tree.kind[parent]
            if kind == "array_declarator" or (kind == "case_clause" and tree.field[below] == "value"):
                raise Refused("a constant is wanted where a variable would stand")
            if kind == "special_form":
                raise Refused("a value stands in a form whose parts may be no values")
            if kind == "sizeof_expression" or (kind == file.language.call and _is_macro(file, parent)):
                raise Refused("a macro would be given a variable")
            if kind == "declarator":
                _require_wide_enough(file, parent)
            if kind == "assignment" and file.language.methods:
                left = tree.child(parent, "left")
                given = type_of_expression(file, left) if left is not None else None
                if given is not None and given.own_base in NARROW:
                    raise Refused("a variable is too wide for what it is given to")
            below = parent


def _require_no_result(file: ProgramFile, hole: int) -> None:
    """What comes of a call that is given a class may be of this class, and is not where any class is given."""
    tree = file.tree
    call = tree.parent[tree.parent[hole]]
    if tree.kind[call] != file.language.call:
        raise Refused("a class is used otherwise than for a call")
    around = tree.parent[call]
    asked = tree.kind[around] in file.language.parentheses and tree.field[around] == "condition"
    if not asked and around not in file.block_at and tree.field[call] != "condition":
        raise Refused("what comes of a call may be of the class that it is given")


def _require_no_whole_array(file: ProgramFile, hole: int) -> None:
    """An array that a function is given has lost its length: what asks for that, as a loop over its values does, would
    not even compile."""
    tree, around = file.tree, file.tree.parent[hole]
    kind = type_of_expression(file, hole)
    if kind is None or not kind.dimensions:
        return
    taken = tree.kind[around] == "argument_list" and tree.kind[tree.parent[around]] == file.language.call
    own = taken and any(p.name == file.called_name(tree.parent[around]) for p in file.procedures if p.node)
    picked = tree.kind[around] == "subscript" and tree.field[hole] == "value"
    if not (picked or own or (taken and file.language.id == "c")):
        raise Refused("the length of an array is asked for, which is not handed on with it")


LOOKING = frozenset(
    """
    uppercased lowercased capitalized contains hasPrefix hasSuffix split joined sorted reversed map filter reduce min
    max first last enumerated trimmingCharacters components prefix suffix rounded description distance
    """.split()
)
"""What is asked of a value without changing it."""


def _require_no_record_changed(file: ProgramFile, hole: int) -> None:
    """What is changed through a variable must be no record, which would be the variable's own."""
    if not _is_changed(file, hole):
        return
    kind = type_of_expression(file, hole)
    if kind is None or (kind.base in file.language.copied_types | _records(file) and not kind.dimensions):
        raise Refused("a record would be changed that is the loop's or the function's own")


def _records(file: ProgramFile) -> set[str]:
    """The program's own types that are copied where they are handed on."""
    return {
        one.tree.text[c]
        for one in (file, *file.beside)
        for node, kind in enumerate(one.tree.kind)
        if kind == "struct" and one.tree.kind[one.tree.parent[node]] == "class_definition"
        for c in one.tree.children(one.tree.parent[node])
    }


def _require_object_where_changed(file: ProgramFile, hole: int) -> None:
    """What is changed through a variable must be a thing that others see change, no record of the variable's own."""
    if not _is_changed(file, hole):
        return
    kind = type_of_expression(file, hole)
    if kind is None or not is_object(file, kind):
        raise Refused("a record would be changed that is the loop's or the function's own")


def _is_changed(file: ProgramFile, hole: int) -> bool:
    """True where a field or element of what stands there is given a value, or a method is called that may do so."""
    tree, language = file.tree, file.language
    below = hole
    for parent in file.parents(hole):
        if tree.field[below] not in {"object", "value"} or tree.kind[parent] not in {language.member[0], "subscript"}:
            break
        below = parent
    around = tree.kind[tree.parent[below]]
    given = tree.field[below] == "left" and around in {"assignment", "augmented_assignment"}
    called = tree.field[below] == language.callee_field and around == language.call
    member = tree.child(below, language.member[1])
    looks = called and member is not None and tree.text[member] in LOOKING
    return below != hole and not looks and (given or called)


def _require_wide_enough(file: ProgramFile, declarator: int) -> None:
    tree = file.tree
    left = tree.child(declarator, "left")
    if left is None:
        return
    if tree.kind[left] == "array_declarator":
        right = tree.child(declarator, "right")
        if right is not None and tree.kind[right] != "list":
            raise Refused("an array would be given a variable")
        return
    kind = declared_type(file, left) if tree.text[left] else None
    if kind is not None and file.language.methods and kind.own_base in NARROW and not kind.dimensions:
        raise Refused("a variable is too wide for what it is given to")


def _is_macro(file: ProgramFile, call: int) -> bool:
    name = file.called_name(call)
    return file.language.struct_values and (name == "F" or (len(name) > 2 and name.isupper()))


def _require_fits_reference(file: ProgramFile, hole: int) -> None:
    """A variable that is given by reference must be of the parameter's own type; a literal need not."""
    tree = file.tree
    arguments = tree.parent[hole]
    if tree.kind[arguments] != "argument_list":
        return
    name = file.called_name(tree.parent[arguments])
    for procedure in file.procedures[1:]:
        parameters = tree.child(procedure.node, "parameters")
        if procedure.name != name or parameters is None:
            continue
        place = tree.items(arguments).index(hole)
        taking = tree.items(parameters)
        if place >= len(taking) or "ByVal" in tree.leaf_texts(taking[place]):
            continue
        wanted = type_of_name(file, procedure.parameters[place], procedure.node)
        if wanted is None or (wanted.base != file.language.untyped and wanted != type_of_expression(file, hole)):
            raise Refused(f"{name} wants a variable of another type there")


def _require_plain_place(file: ProgramFile, hole: int) -> None:
    """Where a literal takes on the type that its place wants, a variable may stand for it only in a place that
    wants exactly the variable's type, as far as that is in sight."""
    tree = file.tree
    kind = type_of_expression(file, hole)
    if kind is None:
        raise Refused("the type of a value that differs is not in sight")
    below = hole
    for parent in file.parents(hole):
        here, field = tree.kind[parent], tree.field[below]
        if here == "interpolation":
            return
        if here in {"parenthesized_expression", "unary_operator"}:
            below = parent
            continue
        if here == "binary_operator" and field in {"left", "right"}:
            other = tree.child(parent, "left" if field == "right" else "right")
            operator = tree.text[tree.child(parent, "operator") or parent]
            if other is None or type_of_expression(file, other) != kind:
                break
            if operator in COMPARISONS:
                return
            below = parent
            continue
        if here == "argument_list":
            if _takes(file, parent, below, kind):
                return
        elif here == "labelled_argument":
            if _takes(file, tree.parent[parent], parent, kind):
                return
        elif here == "declarator" and field == "right":
            told = tree.child(parent, "type")
            if told is None or tree.text[told] == kind.base:
                return
        elif here in {"assignment", "augmented_assignment"} and field == "right":
            left = tree.child(parent, "left")
            if left is not None and (type_of_expression(file, left) == kind or _is_shown_text(file, left, kind)):
                return
        elif here == "subscript" and field == "subscript":
            value = tree.child(parent, "value")
            holder = type_of_expression(file, value) if value is not None else None
            if holder is not None and holder.dimensions:
                return
        elif field == "condition" and here in {"if_statement", "while_statement"}:
            if kind.base == file.language.types.truth:
                return
        elif here == "for_statement" and field == "right":
            if kind.dimensions and tree.child(parent, "type") is None:
                return
        elif here == file.language.returning:
            around = file.procedure_around(parent)
            if around.node and result_type(file, around) == kind:
                return
        break
    raise Refused("a place might want another type than the variable's")


SHOWN = frozenset({"text", "placeholder", "title"})


def _is_shown_text(file: ProgramFile, target: int, kind: Type) -> bool:
    """True for what one of the system's controls shows, which takes a text."""
    tree, language = file.tree, file.language
    held, member = tree.child(target, "object"), tree.child(target, language.member[1])
    holder = type_of_expression(file, held) if held is not None else None
    known = holder is not None and OF_THE_SYSTEM.fullmatch(holder.base) is not None and not holder.dimensions
    return known and member is not None and tree.text[member] in SHOWN and kind == Type(language.types.text)


COMPARISONS = frozenset({"==", "!=", "<", ">", "<=", ">="})


def _takes(file: ProgramFile, arguments: int, argument: int, kind: Type) -> bool:
    """True where a call takes a value of exactly this type at this place: one that prints, or the program's own."""
    tree, language = file.tree, file.language
    call = tree.parent[arguments]
    callee = tree.child(call, language.callee_field)
    if callee is None or tree.kind[callee] != language.name:
        return False
    if tree.text[callee] in language.output_calls:
        return file.names.owner(callee) == UNBOUND
    if tree.text[callee] == "String" and file.names.owner(callee) == UNBOUND:
        # `String(repeating: "*", count: 3)`
        told = [tree.text[c + 1] for c in tree.items(arguments) if tree.kind[c] == "labelled_argument"]
        counts = told == ["repeating", "count"] and argument == tree.items(arguments)[1]
        return counts and kind == Type(language.types.whole) and "extension" not in tree.text
    found = [p for p in file.procedures if p.node and p.name == tree.text[callee]]
    place = tree.items(arguments).index(argument)
    if len(found) != 1 or place >= len(found[0].parameters):
        return False
    return type_of_name(file, found[0].parameters[place], found[0].node) == kind
