"""The slips that refactoring invites, and habits that make functions hard to reuse."""

from __future__ import annotations

import re

from ..program.blocks import Block
from ..program.members import members_of
from ..program.names import Role
from ..program.program import Procedure, ProgramFile, is_constructor
from .calls import CallMap
from .counting import wrong_counting, wrong_range

VAGUE = re.compile(
    r"(func|function|fun|proc|procedure|method|foo|bar|baz|stuff|thing|things|do_?it|do_?stuff|do_?thing|"
    r"do_?something|my_?func(tion)?|test|temp|tmp|part|step|code|helper|program|blah|xxx?|asdf|name)_?\d*\Z",
    re.IGNORECASE,
)


def unused_parameters(file: ProgramFile, calls: CallMap) -> list[tuple[Procedure, list[str]]]:
    """Parameters that are never read, where the student chose the parameters freely."""
    found = []
    tree, names, language = file.tree, file.names, file.language
    for procedure in file.procedures[1:]:
        free = not (procedure.decorated or procedure.name in calls.as_value or not procedure.name)
        if language.methods:
            holder = tree.child(procedure.parent, "superclasses") if procedure.in_class else None
            free = free and holder is None and tree.kind[tree.parent[tree.parent[procedure.node]]] in language.classes
        elif procedure.in_class or (language.declares and not _stands_alone(file, procedure)):
            free = False
        if procedure.name in language.framework_calls or is_constructor(file, procedure):
            free = False
        if _takes_an_event(file, procedure):
            free = False
        if not free or _is_placeholder(file, procedure):
            continue
        inside = names.within(procedure.node, tree.end[procedure.node])
        read = {tree.text[i] for i in inside if names.role[i] in (Role.READ, Role.UPDATE)}
        starred = {
            tree.text[i]
            for i in inside
            if names.role[i] is Role.PARAMETER
            and tree.kind[tree.parent[i]] in {"list_splat_pattern", "dictionary_splat_pattern"}
        }
        if read & language.reflective:
            continue
        unread = [p for p in procedure.parameters if p not in read and p not in starred and not p.startswith("_")]
        if unread:
            found.append((procedure, unread))
    return found


def _takes_an_event(file: ProgramFile, procedure: Procedure) -> bool:
    """True for a handler whose parameters are those that every event hands over: `(object sender, EventArgs e)`."""
    tree = file.tree
    parameters = tree.child(procedure.node, "parameters")
    return parameters is not None and any(text.endswith("EventArgs") for text in tree.leaf_texts(parameters))


def _stands_alone(file: ProgramFile, procedure: Procedure) -> bool:
    """A definition, or the value of a constant; not a value that is handed on as it stands."""
    parent = file.tree.kind[file.tree.parent[procedure.node]]
    return parent in file.language.blocks or parent == "declarator"


def _is_placeholder(file: ProgramFile, procedure: Procedure) -> bool:
    block = file.body_of(procedure)
    if block is None:
        return True
    return all(
        file.tree.kind[s] in {"pass_statement", "raise_statement", "ellipsis"} or file.is_bare_string(s)
        for s in block.statements
    )


def outer_variables(file: ProgramFile, calls: CallMap) -> list[tuple[Procedure, list[str]]]:
    """Variables that a function declares global and gives another value. A handler, which is called by
    others, has no other way to keep something."""
    found: list[tuple[Procedure, list[str]]] = []
    if file.language.global_style:
        return found
    for procedure in file.procedures[1:]:
        if procedure.name in calls.as_value or not procedure.name:
            continue
        sent = file.names.outward.get(procedure.node, {})
        changed = {
            file.tree.text[i]
            for i in file.names.within(procedure.node, file.tree.end[procedure.node])
            if file.names.role[i] in (Role.WRITE, Role.UPDATE)
            and file.names.scope[i] == procedure.node
            and sent.get(file.tree.text[i])
        }
        if file.language.declares:
            changed = {name for name in changed - members_of(file) if _few_share(file, name)}
        if changed:
            found.append((procedure, sorted(changed)))
    return found


def _few_share(file: ProgramFile, name: str) -> bool:
    """True where a variable is no state that several functions share: one function and its caller use it."""
    names, tree = file.names, file.tree
    own = [i for i in names.nodes if tree.text[i] == name and names.owner(i) == 0]
    declared = [p for i in own if not names.scope[i] for p in file.parents(i) if tree.kind[p] == "declaration"]
    if any("static" in tree.leaf_texts(declaration)[:1] for declaration in declared):
        # The file's own state, declared as such.
        return False
    return len({names.scope[i] for i in own if names.scope[i]}) <= 2


def vague_names(file: ProgramFile, required: frozenset[str]) -> list[tuple[Procedure, str]]:
    """Functions whose name says nothing, or begins like a class; with the reason as a clause."""
    found = []
    for procedure in file.procedures[1:]:
        name = procedure.name
        methods = file.language.methods
        if name in required or not name or name.startswith("__") or (procedure.in_class and not methods):
            continue
        if is_constructor(file, procedure) or name in file.language.framework_calls:
            continue
        if VAGUE.match(name) or (len(name.strip("_")) == 1):
            found.append((procedure, "does not say what the function does"))
        elif name[0].isupper() and _names_begin_small(file, procedure):
            found.append((procedure, "begins with a capital, as only classes do"))
    return found


def _names_begin_small(file: ProgramFile, procedure: Procedure) -> bool:
    """True in languages whose functions begin with a small letter, but for those that make objects."""
    if file.language.capitals:
        return False
    kinds = file.tree.kind[procedure.node : file.tree.end[procedure.node]]
    return not (file.language.declares and not file.language.typed and "this" in kinds)


def undocumented(file: ProgramFile) -> list[Procedure]:
    """Functions without a documentation string and without a comment above or at their head."""
    alone = {c.last_line for c in file.tree.comments if c.alone}
    found = []
    for procedure in file.procedures[1:]:
        block = file.body_of(procedure)
        first = block.statements[0] if block and block.statements else None
        documented = first is not None and file.is_bare_string(first)
        head = file.tree.start_line(procedure.node)
        first_line = file.tree.start_line(first) if first is not None else head
        commented = procedure.start_line - 1 in alone or any(head <= c.line <= first_line for c in file.tree.comments)
        if not (documented or commented or procedure.name.startswith("__") or not procedure.name):
            found.append(procedure)
    return found


def loose_statements(file: ProgramFile, entry: str) -> list[int]:
    """Top-level statements that do work; imports, plain values, and the entry's call do not count."""
    tree, language = file.tree, file.language
    loose = []
    for s in file.blocks[0].statements:
        if file.is_definition(s) or file.is_import(s) or file.is_bare_string(s) or tree.kind[s] == "ERROR":
            continue
        if _is_entry_guard(file, s) or _calls_only(file, s, entry):
            continue
        if language.declares and (_declares_only(file, s) or _hands_on_a_function(file, s)):
            continue
        value = tree.child(s, "right") if tree.kind[s] == "assignment" else None
        if value is not None and language.call not in tree.kind[value : tree.end[value]]:
            continue
        loose.append(s)
    return loose


def _declares_only(file: ProgramFile, statement: int) -> bool:
    """A declaration of constants, or of variables whose first values nothing has to be called for."""
    tree = file.tree
    if tree.kind[statement] != "declaration":
        return False
    constant = any(tree.text[c] == "const" for c in tree.children(statement))
    return constant or file.language.typed or file.language.call not in tree.kind[statement : tree.end[statement]]


def _hands_on_a_function(file: ProgramFile, statement: int) -> bool:
    """`button.addEventListener("click", open)`, `button.onclick = open`: what is to happen later."""
    tree = file.tree
    own = {p.name for p in file.procedures[1:]}
    if tree.kind[statement] not in {file.language.call, "assignment"}:
        return False
    inside = range(statement, tree.end[statement])
    handed = {"argument_list", "assignment", "pair"}
    return any(
        tree.kind[n] in file.language.procedures | {"lambda"}
        or (tree.text[n] in own and tree.kind[n] == file.language.name and tree.kind[tree.parent[n]] in handed)
        for n in inside
    )


def _is_entry_guard(file: ProgramFile, statement: int) -> bool:
    condition = file.tree.child(statement, "condition")
    return condition is not None and "__name__" in file.tree.leaf_texts(condition)


def _calls_only(file: ProgramFile, statement: int, entry: str) -> bool:
    return file.tree.kind[statement] == file.language.call and file.called_name(statement) == entry


# -- loops that cannot run as meant ----------------------------------------------------------------


def idle_loops(file: ProgramFile) -> list[tuple[int, str]]:
    """(loop statement, what is wrong as a sentence)."""
    found = []
    for block in file.blocks:
        for position, s in enumerate(block.statements):
            if file.tree.kind[s] == "for_statement":
                wrong = _empty_range(file, s) or wrong_range(file, s) or _past_the_end(file, s)
            elif file.tree.kind[s] == "while_statement":
                wrong = _false_at_start(file, block, position)
            elif file.tree.kind[s] == "counting_loop":
                wrong = wrong_counting(file, s)
            else:
                continue
            if wrong:
                found.append((s, wrong))
    return found


def _range_arguments(file: ProgramFile, loop: int) -> list[int]:
    """The argument nodes of the loop's `range`, or []."""
    tree = file.tree
    values = tree.child(loop, "right")
    if values is None or tree.kind[values] != "call" or file.called_name(values) != "range":
        return []
    if file.names.owner(next(iter(file.names.within(values, tree.end[values])))) != -1:
        return []
    arguments = tree.child(values, "arguments")
    if arguments is None:
        return []
    return tree.items(arguments)


def _whole_number(file: ProgramFile, node: int) -> int | None:
    text = file.tree.source_of(node).replace(" ", "")
    return int(text) if re.fullmatch(r"-?\d{1,9}", text) else None


def _empty_range(file: ProgramFile, loop: int) -> str:
    numbers = [_whole_number(file, a) for a in _range_arguments(file, loop)]
    whole = [n for n in numbers if n is not None]
    if not whole or len(whole) != len(numbers) or (len(whole) == 3 and whole[2] == 0) or len(whole) > 3:
        return ""
    if len(range(*whole)):
        return ""
    if len(whole) == 1:
        return "The loop counts to 0, so it never runs."
    step = whole[2] if len(whole) == 3 else 1
    if step < 0 or whole[0] == whole[1]:
        return f"The loop goes from {whole[0]} to {whole[1]} by {step}, so it never runs."
    return f"The loop counts up from {whole[0]} to {whole[1]}, so it never runs."


def _past_the_end(file: ProgramFile, loop: int) -> str:
    """`for i in range(len(x) + 1)` (or a plain number past a list in sight) with x[i] inside."""
    tree = file.tree
    arguments = _range_arguments(file, loop)
    target, body = tree.child(loop, "left"), tree.child(loop, "body")
    if not arguments or target is None or body is None or not tree.text[target]:
        return ""
    if len(arguments) == 3:
        return ""
    stop = arguments[-1] if len(arguments) > 1 else arguments[0]
    counter = tree.text[target]
    for name in _lists_indexed_by(file, body, counter):
        length = _length_in_sight(file, loop, name)
        number = _whole_number(file, stop)
        if number is not None and length is not None and number > length:
            return f"{name} has {length} values, and the loop asks for number {number - 1}, which is past its end."
        text = tree.source_of(stop).replace(" ", "")
        if re.fullmatch(rf"len\({re.escape(name)}\)\+\d+", text):
            return f"The loop runs past the end of {name}: its last place is len({name}) - 1."
    return ""


def _lists_indexed_by(file: ProgramFile, body: int, counter: str) -> list[str]:
    """Variables that stand as `name[counter]` in the loop's body, unguarded by an `if`."""
    tree = file.tree
    found = []
    for node in range(body, tree.end[body]):
        if tree.kind[node] != "subscript":
            continue
        value, index = tree.child(node, "value"), tree.child(node, "subscript")
        guarded = any(
            tree.kind[p] in file.language.conditionals | {"try_statement", "conditional_expression"}
            for p in file.parents(node)
            if p > body
        )
        if value is None or index is None or guarded:
            continue
        if tree.text[value] and tree.text[index] == counter:
            found.append(tree.text[value])
    return found


def _length_in_sight(file: ProgramFile, loop: int, name: str) -> int | None:
    """The length of the list display that is the only thing ever given to `name`, never changed."""
    tree, names = file.tree, file.names
    writes = [
        i for i in names.nodes if tree.text[i] == name and names.role[i] in (Role.WRITE, Role.UPDATE, Role.PARAMETER)
    ]
    if len(writes) != 1 or tree.kind[tree.parent[writes[0]]] != "assignment":
        return None
    value = tree.child(tree.parent[writes[0]], "right")
    if value is None or tree.kind[value] not in {"list", "tuple"} or writes[0] > loop:
        return None
    for i in names.nodes:
        if tree.text[i] != name or i == writes[0]:
            continue
        parent = tree.parent[i]
        indexed = tree.kind[parent] == "subscript" and tree.field[i] == "value"
        looped = tree.kind[parent] == "for_statement" and tree.field[i] == "right"
        measured = tree.kind[parent] == "argument_list" and file.called_name(tree.parent[parent]) in {
            "len",
            "print",
            "sum",
            "max",
            "min",
        }
        if not (indexed or looped or measured):
            return None
    items = [c for c in tree.children(value) if tree.text[c] not in {"[", "]", "(", ")", ","}]
    return None if any(tree.kind[c] == "list_splat" for c in items) else len(items)


def _false_at_start(file: ProgramFile, block: Block, position: int) -> str:
    """A `while` whose test compares a number with the one its variable was just given."""
    tree = file.tree
    loop = block.statements[position]
    condition = tree.child(loop, "condition")
    if condition is not None and tree.kind[condition] in file.language.parentheses:
        condition = next((c for c in tree.children(condition) if tree.text[c] not in {"(", ")"}), None)
    if condition is None or tree.kind[condition] not in {"comparison_operator", "binary_operator"}:
        return ""
    parts = list(tree.children(condition))
    if len(parts) != 3 or not tree.text[parts[0]] or tree.kind[parts[0]] != "identifier":
        return ""
    name, limit = tree.text[parts[0]], _whole_number(file, parts[2])
    value = _value_just_given(file, block, position, name)
    if limit is None or value is None:
        return ""
    operator = tree.text[parts[1]]
    holds = {
        "<": value < limit,
        "<=": value <= limit,
        ">": value > limit,
        ">=": value >= limit,
        "==": value == limit,
        "!=": value != limit,
    }.get(operator, True)
    return "" if holds else f"{name} is {value} when the loop is reached, so it never runs."


def _value_just_given(file: ProgramFile, block: Block, position: int, name: str) -> int | None:
    tree, names = file.tree, file.names
    for s in reversed(block.statements[:position]):
        left, right = tree.child(s, "left"), tree.child(s, "right")
        if tree.kind[s] == "declaration":
            declarators = [c for c in tree.children(s) if tree.kind[c] == "declarator"]
            if len(declarators) == 1:
                left, right = tree.child(declarators[0], "left"), tree.child(declarators[0], "right")
        if tree.kind[s] in {"assignment", "declaration"} and left is not None and tree.text[left] == name:
            return _whole_number(file, right) if right is not None else None
        if any(
            tree.text[i] == name and names.role[i] in (Role.WRITE, Role.UPDATE) for i in names.within(s, tree.end[s])
        ):
            return None
        if tree.kind[s] not in {"assignment", "call", "declaration"}:
            return None
    return None
