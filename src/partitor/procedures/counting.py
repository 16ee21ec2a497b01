"""Counting loops (`for (i = 0; i < n; i++)`) that cannot run as meant."""

from __future__ import annotations

import re

import msgspec

from ..program.program import ProgramFile

TESTS = {
    "<": int.__lt__,
    "<=": int.__le__,
    ">": int.__gt__,
    ">=": int.__ge__,
}


class Head(msgspec.Struct, frozen=True):
    """A loop's head taken apart: `variable` starts at `first`, runs while `variable operator limit`, moves by
    `step`. None where that is no plain number; `bound` is the limit as it is written."""

    variable: str
    first: int | None
    operator: str
    limit: int | None
    bound: str
    step: int | None


def wrong_counting(file: ProgramFile, loop: int) -> str:
    """What is wrong with a counting loop, as a sentence; "" where nothing is."""
    head = head_of(file, loop)
    if head is None:
        return ""
    if head.first is not None and head.limit is not None and not TESTS[head.operator](head.first, head.limit):
        return f"{head.variable} is {head.first} at the start, where {_test(head)} does not hold, so it never runs."
    up = head.operator in {"<", "<="}
    if head.step is not None and (head.step > 0) != up:
        way = "up" if head.step > 0 else "down"
        return f"The loop counts {way}, and {_test(head)} asks for the other way, so it does not end as meant."
    return _past_the_end(file, loop, head)


def _test(head: Head) -> str:
    return f"{head.variable} {head.operator} {head.bound}"


def head_of(file: ProgramFile, loop: int) -> Head | None:
    """The head of a counting loop; None where it is of another form."""
    tree = file.tree
    test, update = tree.child(loop, "condition"), tree.child(loop, "update")
    if test is None or tree.kind[test] != "binary_operator":
        return None
    left, right = tree.child(test, "left"), tree.child(test, "right")
    operator = next((tree.text[c] for c in tree.children(test) if tree.field[c] == "operator"), "")
    if left is None or right is None or operator not in TESTS or tree.kind[left] != file.language.name:
        return None
    variable = tree.text[left]
    step = _step(file, update, variable) if update is not None else None
    bound = tree.source_of(right)
    return Head(variable, _first(file, loop, variable), operator, _whole(bound), bound, step)


def _whole(text: str) -> int | None:
    compact = text.replace(" ", "")
    return int(compact) if re.fullmatch(r"-?(?:0|[1-9]\d{0,8})", compact) else None


def _first(file: ProgramFile, loop: int, variable: str) -> int | None:
    tree = file.tree
    start = tree.child(loop, "initializer")
    if start is None:
        return None
    for node in range(start, tree.end[start]):
        left, right = tree.child(node, "left"), tree.child(node, "right")
        if left is not None and right is not None and tree.text[left] == variable:
            return _whole(tree.source_of(right))
    return None


def _step(file: ProgramFile, update: int, variable: str) -> int | None:
    text = re.sub(r"\s", "", file.tree.source_of(update))
    name = re.escape(variable)
    if re.fullmatch(rf"{name}\+\+|\+\+{name}", text):
        return 1
    if re.fullmatch(rf"{name}--|--{name}", text):
        return -1
    found = re.fullmatch(rf"{name}(?:([+-])=|={name}([+-]))(\d{{1,9}})", text)
    if found is None or not int(found.group(3)):
        return None
    return int((found.group(1) or found.group(2)) + found.group(3))


def _past_the_end(file: ProgramFile, loop: int, head: Head) -> str:
    """`i <= list.length`, or a number past a list whose length is in sight, with list[i] inside."""
    if head.step != 1 or head.operator not in {"<", "<="}:
        return ""
    for name in _indexed_by(file, loop, head.variable):
        bound = re.sub(r"\s", "", head.bound)
        if head.operator == "<=" and bound in {f"{name}.length", f"{name}.Length", f"{name}.size()"}:
            return f"The loop runs past the end of {name}: its last place is {bound} - 1."
        length = _length_in_sight(file, name, loop)
        last = None if head.limit is None else head.limit - (head.operator == "<")
        if length is not None and last is not None and last >= length:
            return f"{name} has {length} values, and the loop asks for number {last}, which is past its end."
    return ""


def _indexed_by(file: ProgramFile, loop: int, counter: str) -> list[str]:
    """Variables that stand as `name[counter]` in the loop's body, unguarded by an `if`."""
    tree = file.tree
    body = tree.child(loop, "body")
    found = []
    for node in range(body, tree.end[body]) if body is not None else ():
        if tree.kind[node] != "subscript":
            continue
        value, index = tree.child(node, "value"), tree.child(node, "subscript")
        guarded = any(
            tree.kind[p] in file.language.conditionals | {"try_statement", "conditional_expression"}
            for p in file.parents(node)
            if p > loop
        )
        if value is not None and index is not None and not guarded and tree.text[value] and tree.text[index] == counter:
            found.append(tree.text[value])
    return found


def _length_in_sight(file: ProgramFile, name: str, loop: int) -> int | None:
    """The number of places of the one array that `name` is at the loop."""
    tree, names = file.tree, file.names
    owner = names.owner_of(name, file.procedure_around(loop).node)
    uses = [i for i in names.nodes if tree.text[i] == name and names.owner(i) == owner]
    declared = [i for i in uses if names.declared_at(i)]
    if len(declared) != 1 or any(names.role[i].name in {"WRITE", "UPDATE"} and i != declared[0] for i in uses):
        return None
    parent = tree.parent[declared[0]]
    size = tree.child(parent, "size") if tree.kind[parent] == "array_declarator" else None
    if size is not None:
        return _whole(tree.source_of(size))
    declarator = next((p for p in file.parents(declared[0]) if tree.kind[p] == "declarator"), None)
    value = tree.child(declarator, "right") if declarator is not None else None
    if value is None or not file.language.typed:
        return None
    listed = next((n for n in range(value, tree.end[value]) if tree.kind[n] == "list"), None)
    if listed is None or tree.kind[value] not in {"list", "array_creation_expression"}:
        return None
    return sum(tree.text[c] not in {"{", "}", ","} for c in tree.children(listed))


def wrong_range(file: ProgramFile, loop: int) -> str:
    """What is wrong with the numbers a loop runs through (`For i = 10 To 1`), as a sentence; "" where nothing is."""
    tree = file.tree
    values = tree.child(loop, "right")
    if values is None or tree.kind[values] != "counting_range":
        return ""

    def whole(field: str) -> int | None:
        part = tree.child(values, field)
        return _whole(tree.source_of(part)) if part is not None else None

    first, last, limit = whole("first"), whole("last"), whole("limit")
    step = whole("step") if tree.child(values, "step") is not None else 1
    end = last if last is not None else limit
    if first is None or end is None or not step:
        return ""
    beyond = end if last is None else end + (1 if step > 0 else -1)
    if len(range(first, beyond, step)):
        return ""
    way = f" by {step}" if step != 1 else ""
    return f"The loop goes from {first} to {end}{way}, so it never runs."
