"""Words for what stands in a column: from the parameter its values are given to, the variable they are assigned to, the
words before them in a text, what they are compared with, else from the values themselves."""

from __future__ import annotations

import re
from collections.abc import Collection, Sequence

from ..program.program import ProgramFile
from ..program.shapes import COLLECTIONS, given_value
from ..program.tree import CLASS, Tree
from ..program.types import type_of_expression
from ..repeats.columns import Column, Spot
from ..repeats.series import family_of, is_day_or_month, series_of
from ..repeats.slots import Copy
from ..repeats.texts import integers
from .words import (
    COLORS,
    COMMON_VERBS,
    HEADING_NAMES,
    LETTER_NAMES,
    MAKING_NUMBERS,
    MESSAGE_NAMES,
    NUMBER_NAMES,
    SIGN_NAMES,
    STOP_WORDS,
    TEXT_NAMES,
    TIME_NAMES,
    VALUE_NAMES,
    is_a_thing,
    plural_of,
    shared_words,
    singular,
    words_of,
)

EQUALITY = frozenset({"==", "!=", "===", "!=="})
EQUAL = frozenset({"==", "==="})
ORDERINGS = frozenset({"<", "<=", ">", ">="})
BOUNDS = {"<", ">"}
TIME_OF_DAY = re.compile(r"\d{1,2}[:.]\d\d(?: ?[ap]\.?m\.?)?")
ELEMENT = re.compile(r"""(\w+)\[(?:["'](\w+)["']|\w+)\]""")
"""An element of a list or dictionary: what holds it, and its key where that is a word."""
ASK_COLLECTIONS = frozenset("len sum max min sorted first car rest cdr empty? null? length".split())
CHANGES_OF_COLLECTIONS = frozenset("append extend insert remove pop sort reverse push unshift splice".split())
LONGEST_OF_TWO = 2
"""Words of a name that may stand beside another in one."""


def column_words(column: Column, copies: Sequence[Copy], taken: Collection[str]) -> list[str]:
    """The words for what stands in a column; `taken`: names in use."""
    if column.is_called:
        if (MAKING_NUMBERS | {"str", "String"}).issuperset(column.values):
            return ["convert"]
        if _answers_a_question(column, copies[0]):
            return ["wanted" if copies[0].file.language.values_everywhere else "test"]
        return ["action" if column.values[0][0].isalpha() else "operation"]
    told = told_words(column, copies)
    if told:
        return told
    if copies[0].file.tree.kind[column.spots[0].nodes[0]] == CLASS:
        return ["kind"]
    colors = {value.strip("\"'").lower() for value in column.values}
    if colors <= COLORS and column.values[0][:1] in "\"'":
        return ["shade" if {"color", "colour"} & set(taken) else "color"]
    if _picks_an_element(column, copies[0]):
        return ["index"]
    kind: Sequence[str] = NUMBER_NAMES if column.numbers is not None else VALUE_NAMES
    if column.numbers is None and column.values[0][:1] in "\"'":
        kind = _names_for_texts(column.values)
    if copies[0].file.tree.kind[column.spots[0].nodes[0]] == "character":
        kind = LETTER_NAMES
    if _is_a_factor(column, copies[0]):
        return ["factor"]
    if column.numbers is not None and _limits_a_loop(column, copies[0]):
        return ["count"]
    if column.values[0][:1] in "[{" or column.values[0].startswith("(list "):
        return ["words" if any(mark in column.values[0] for mark in "\"'") else "numbers"]
    return [next((n for n in kind if n not in taken), kind[0])]


def _answers_a_question(column: Column, copy: Copy) -> bool:
    """True for functions that are called for a yes or a no."""
    tree = copy.file.tree
    asked = [tree.field[tree.parent[spot.nodes[0]]] == "condition" for spot in column.spots]
    return any(asked) or all(value.endswith("?") for value in column.values)


def _names_for_texts(values: Sequence[str]) -> Sequence[str]:
    """Names for what such texts are: of several words they say something, before a colon they are a label; times of day
    and single signs are just that."""
    texts = [value.strip("\"'").strip() for value in values]
    if all(map(TIME_OF_DAY.fullmatch, texts)):
        return TIME_NAMES
    if all(len(text) == 1 for text in texts) and not all(map(str.isalpha, texts)):
        return SIGN_NAMES
    if all(text.endswith(":") for text in texts):
        return HEADING_NAMES
    return MESSAGE_NAMES if any(len(text.split()) > LONGEST_OF_TWO for text in texts) else TEXT_NAMES


def _limits_a_loop(column: Column, copy: Copy) -> bool:
    """True for the number up to which a loop counts."""
    file, tree = copy.file, copy.file.tree
    for spot in column.spots:
        parent = tree.parent[spot.nodes[0]]
        counting = tree.kind[tree.parent[parent]] in file.language.loops and tree.field[parent] == "condition"
        ranged = tree.kind[parent] == "argument_list" and file.called_name(tree.parent[parent]) == "range"
        if counting or (ranged and tree.items(parent)[-1] == spot.nodes[0]):
            return True
    return False


def _picks_an_element(column: Column, copy: Copy) -> bool:
    """True for a number that stands for a place in a list."""
    tree = copy.file.tree
    node = column.spots[0].nodes[0]
    inside = tree.kind[tree.parent[node]] == "subscript" and tree.field[node] == "subscript"
    return inside and tree.kind[node] in copy.file.language.numbers


def is_returned(column: Column, copy: Copy) -> bool:
    """True where the function gives back what stands in the column, and nothing else."""
    tree = copy.file.tree
    nodes = {spot.nodes[0] for spot in column.spots}
    last = copy.statements[-1]
    return tree.kind[last] == copy.file.language.returning and bool(nodes & set(tree.children(last)))


def turns_a_loop(column: Column, copy: Copy) -> bool:
    """True for the variable of a loop over values."""
    tree = copy.file.tree
    node = column.spots[0].nodes[0]
    return tree.kind[tree.parent[node]] in copy.file.language.loops and tree.field[node] == "left"


def _is_a_factor(column: Column, copy: Copy) -> bool:
    """True for a number that something is multiplied by."""
    tree = copy.file.tree
    node = column.spots[0].nodes[0]
    return (
        column.spots[0].group < 0 and tree.kind[node] in copy.file.language.numbers and "*" in _signs_beside(tree, node)
    )


def _signs_beside(tree: Tree, node: int) -> list[str]:
    """The operators with which a value is worked with, between values or before them."""
    parent = tree.parent[node]
    signs = [tree.text[c] for c in tree.children(parent)]
    if tree.language.values_everywhere and tree.kind[parent] == "argument_list":
        signs.append(tree.text[parent - 1])
    return signs


def _values_beside(tree: Tree, sign: int) -> list[int]:
    """The values that an operator stands between, or before."""
    behind = sign + 1
    if tree.language.values_everywhere and behind < tree.end[tree.parent[sign]]:
        return tree.items(behind) if tree.kind[behind] == "argument_list" else []
    return [c for c in tree.children(tree.parent[sign]) if c != sign]


def is_reckoned_with(column: Column, copy: Copy) -> bool:
    """True where what stands in the column is part of a sum or product."""
    tree = copy.file.tree
    return any({"+", "-", "*", "/"} & set(_signs_beside(tree, spot.nodes[0])) for spot in column.spots)


def beside_words(column: Column, copies: Sequence[Copy], among: Sequence[Column]) -> list[str]:
    """What a value is given to a call together with (`digitalWrite(GREEN, HIGH)`), where other columns would be called
    the same; [] where nothing tells."""
    words = told_words(column, copies)
    same = [c for c in among if c is not column and not c.is_target and words and told_words(c, copies) == words]
    if not same:
        return []
    tree = copies[0].file.tree
    node = column.spots[0].nodes[0]
    given = tree.items(tree.parent[node]) if tree.kind[tree.parent[node]] == "argument_list" else []
    others = [n for n in given if n != node]
    beside = tree.source_of(others[0]) if len(others) == 1 and len(column.spots) == 1 else ""
    return words_of(beside)[-2:] if re.fullmatch(r"[A-Za-z_]\w*", beside) else []


SHORT_WORDS = frozenset({"x", "y", "bg", "fg"})
"""Short words that tell something all the same."""


def told_words(column: Column, copies: Sequence[Copy]) -> list[str]:
    """The words of what stands in a column, from its surroundings; [] where they tell nothing."""
    finders = (
        _from_place,
        _from_text_before,
        _from_parameter,
        _from_values,
        _from_sum,
        _from_comparison,
    )
    if column.series not in {"", "letters"}:
        return [singular(column.series)]
    bound = _bound(column, copies[0])
    if bound:
        return [bound]
    parameter = _own_parameter(column, copies) or _right_answer(column, copies[0])
    if parameter:
        return words_of(parameter)
    of_a_series = series_of(column.values) or _one_of_a_family(column, copies[0])
    if of_a_series:
        return words_of(of_a_series)
    for finder in finders:
        for spot in column.spots:
            if spot.is_part and finder == _from_parameter:
                continue
            words = [w for w in finder(column, copies, spot.nodes[0]) if len(w) > 2 or w in SHORT_WORDS]
            if words:
                return words
    return []


def _one_of_a_family(column: Column, copy: Copy) -> str:
    """What one of several variables is that are told apart by their place in a series; "" for others."""
    family = family_of(column.values) if column.is_name and not column.is_target else None
    if family is None or family.stem.lower() in copy.file.language.keywords:
        return ""
    if family.stem:
        return family.stem if len(family.stem) > LONGEST_OF_TWO else ""
    # Of a day that is named, it is what belongs to it.
    named = any(map(is_day_or_month, copy.file.tree.text[slice(*copy.span)]))
    told = family.about in {"days", "months"} and not named and not used_as_collection(copy, column)
    return family.about[:-1] if told else ""


def _own_parameter(column: Column, copies: Sequence[Copy]) -> str:
    """The parameter of the function around one of the copies that stands in a column where others have values of
    their own: somebody has given it a name already."""
    if column.is_name or column.is_target:
        return ""
    for copy, value in zip(copies, column.values, strict=False):
        if len(value) > 2 or value in {"x", "y"}:
            procedure = copy.file.procedure_around(copy.first)
            if procedure.node and value in procedure.parameters:
                return value
    return ""


ANSWERS = frozenset("answer guess reply response solution".split())


def _right_answer(column: Column, copy: Copy) -> str:
    """What an answer has to be to be right."""
    tree = copy.file.tree
    for spot in column.spots if not column.is_name else ():
        other = _compared_with(tree, spot.nodes[0], EQUAL)
        if other is not None and tree.text[other].lower() in ANSWERS:
            return f"right_{tree.text[other].lower()}"
    return ""


def _bound(column: Column, copy: Copy) -> str:
    """What a number is called that something is compared with: the lower or the upper one, where there are two."""
    tree = copy.file.tree
    if column.numbers is None or _limits_a_loop(column, copy):
        return ""
    compared: dict[str, set[int]] = {}
    own = ""
    for node in range(*copy.span):
        if tree.text[node] not in ORDERINGS:
            continue
        beside = _values_beside(tree, node)
        numbers = [c for c in beside if integers((tree.source_of(c),)) is not None]
        for number in numbers if len(beside) == len(numbers) + 1 else ():
            other = next(tree.source_of(c) for c in beside if c not in numbers)
            compared.setdefault(other, set()).update(integers((tree.source_of(number),)) or ())
            own = other if any(number == spot.nodes[0] for spot in column.spots) else own
    values = compared.get(own, set())
    if len(values) < len(BOUNDS):
        return "limit" if values else ""
    return {min(values): "lowest", max(values): "highest"}.get(column.numbers[0], "limit")


def _from_place(column: Column, copies: Sequence[Copy], node: int) -> list[str]:
    file = copies[0].file
    tree, language = file.tree, file.language
    parent = tree.parent[node]
    if tree.kind[parent] == language.keyword_argument[0]:
        return words_of(tree.text[next(iter(tree.children(parent)))])
    spot = next(s for s in column.spots if s.nodes[0] == node)
    labels = {_label_before(c.file, n) for c, n in zip(copies, spot.nodes, strict=False)}
    label = labels.pop() if len(labels) == 1 else ""
    if label and is_a_thing(label):
        return [label]
    asked = tree.text[node - 1] == "in" and tree.kind[parent] == "comparison_operator"
    if asked and tree.kind[node] in language.strings:
        return ["characters"]
    if tree.kind[node] in COLLECTIONS and (tree.kind[parent] == "for_statement" or asked):
        left = tree.child(parent, "left") if tree.kind[parent] != "comparison_operator" else parent + 1
        words = words_of(_last_name(file, left)) if left is not None else []
        if asked and words and plural_of(words[-1]) in file.names.everything:
            # `if bed in (…)` among all beds.
            return ["wanted"]
        return [*words[:-1], plural_of(words[-1])] if words and len(words[-1]) > 2 else []
    if tree.kind[parent] in {"assignment", "augmented_assignment"} and tree.field[node] == "right":
        left = tree.child(parent, "left")
        words = words_of(_last_name(file, left)) if left is not None else []
        return words if tree.kind[parent] == "assignment" else []
    if tree.kind[parent] == "subscript" and tree.field[node] == "subscript" and column.values[0][:1] in "\"'":
        # `packets["beet"]` is what a packet is called by.
        held = tree.child(parent, "value")
        words = words_of(tree.text[held])[-1:] if held is not None else []
        return [singular(w) for w in words if w.endswith("s") and len(w) > 3]
    return []


def _label_before(file: ProgramFile, node: int) -> str:
    """What is said of a value that is shown right behind it, in a word: `print("In French:", "un")`."""
    tree, parent = file.tree, file.tree.parent[node]
    shown = tree.kind[parent] == "argument_list" and file.called_name(tree.parent[parent]) in file.language.output_calls
    given = tree.items(parent) if shown else []
    at = given.index(node) if node in given else 0
    label = tree.source_of(given[at - 1]).strip("\"' ") if at and tree.kind[given[at - 1]] == "string" else ""
    return words_of(label)[-1] if label.endswith((":", "=")) and words_of(label) else ""


SHOWN = frozenset({"text", "value", "innertext", "textcontent", "innerhtml", "caption", "content"})
"""Fields of what is shown: they say nothing of what it is."""


def _last_name(file: ProgramFile, node: int) -> str:
    """A variable's name, or a field's: what is last in `boats[0].length`, or the key in `boats["tern"]["length"]`."""
    key = file.tree.child(node, "subscript") if file.tree.kind[node] == "subscript" else None
    if key is not None and file.tree.kind[key] in file.language.strings:
        return file.tree.source_of(key).strip("\"'")
    if file.tree.kind[node] != file.language.member[0]:
        return file.tree.text[node]
    last = file.tree.text[file.tree.end[node] - 1]
    return "" if last.lower() in SHOWN else last


def _from_sum(column: Column, copies: Sequence[Copy], node: int) -> list[str]:
    """What something is changed by."""
    tree = copies[0].file.tree
    changed = tree.kind[tree.parent[node]] == "augmented_assignment" and tree.field[node] == "right"
    return ["amount"] if changed and column.values[0][:1] not in "\"'" else []


def _compared_with(tree: Tree, node: int, signs: Collection[str]) -> int | None:
    """What one of the signs compares a value with; None where it is not compared so."""
    beside = [c for c in tree.children(tree.parent[node]) if c != node]
    others = [c for c in beside if tree.text[c] not in signs]
    return others[0] if len(beside) == 2 and len(others) == 1 else None


def _from_comparison(column: Column, copies: Sequence[Copy], node: int) -> list[str]:
    """The field or entry that something is compared with: `boat.number == …`, `seal["kind"] == …`."""
    file = copies[0].file
    tree, language = file.tree, file.language
    other = _compared_with(tree, node, EQUALITY)
    if other is None:
        return []
    last = tree.end[other] - 1
    if tree.kind[other] == language.member[0]:
        return words_of(tree.text[last])
    key = tree.child(other, "subscript") if tree.kind[other] == "subscript" else None
    return words_of(tree.text[key]) if key is not None and tree.kind[key] in language.strings else []


def _from_parameter(column: Column, copies: Sequence[Copy], node: int) -> list[str]:
    """The parameter that the value is given to, or the list it is added to."""
    file = copies[0].file
    tree = file.tree
    arguments = tree.parent[node]
    if tree.kind[arguments] != "argument_list":
        return []
    call = tree.parent[arguments]
    given = tree.items(arguments)
    position = given.index(node)
    called = file.called_name(call)
    for procedure in file.procedures:
        given_object = procedure.in_class and file.language.object_is_given
        taken = procedure.parameters[1:] if given_object else procedure.parameters
        if procedure.name == called and position < len(taken):
            return words_of(taken[position])
    known = file.language.argument_names.get(called, ())
    if position < len(known) and (known[position] != "text" or column.values[0][:1] == '"'):
        return [known[position]]
    callee = tree.child(call, file.language.callee_field)
    if callee is None or tree.kind[callee] != file.language.member[0]:
        return []
    if called in {"append", "push", "add"}:
        owner = words_of(tree.source_of(callee).rpartition(".")[0])[-1:]
        return [singular(word) for word in owner if word.endswith("s")]
    # What a thing is told by a call of its own: `pen.color("red")`, `label.setText("open")`.
    words = words_of(called)
    told = words[1:] if words[:1] == ["set"] else words if column.values[0][:1] in "\"'" else []
    alone = len(given) == 1 and tree.parent[call] in file.block_at and called not in file.language.output_calls
    return told if alone and told and told[0] not in COMMON_VERBS else []


def _from_text_before(column: Column, copies: Sequence[Copy], node: int) -> list[str]:
    """The word before a number inside a text, or the label printed just before the value."""
    file = copies[0].file
    tree = file.tree
    source = tree.source_of(node)
    spot = next(s for s in column.spots if s.nodes[0] == node)
    named = all(value.strip("\"'")[:1].isupper() for value in column.values)
    if spot.is_part and named and spot.before.endswith(" "):
        # "your boat Tern is due": a boat is what it is.
        above = re.search(r"(?<![A-Za-z])([a-z]+) $", spot.before)
        return [above[1]] if above and len(above[1]) > 2 and is_a_thing(above[1]) else []
    if spot.group >= 0:
        parts = file.language.numbers_in(source)
        if (
            not spot.is_words
            and parts[::2] != file.language.numbers_in(copies[1].file.tree.source_of(spot.nodes[1]))[::2]
        ):
            # `"Stop 1: mill"`: the words are the stop, this is its number.
            return ["number"]
        of = re.match(r" ([A-Za-z]{3,}s)\b", "".join(parts[spot.group + 1 :]))
        before = "".join(parts[: spot.group])
        beside = (re.findall(r"[A-Za-z]+", before) or ["of"])[-1].lower()
        if of and beside in STOP_WORDS and of[1].lower() not in STOP_WORDS:
            # "every 30 seconds", "3 boats", but "gate 3 opens"
            return [of[1].lower()]
        words = [w for w in words_of(before) if w not in STOP_WORDS and len(w) > 2]
        return words[-1:]
    if tree.kind[tree.parent[node]] == "argument_list" and column.numbers is not None:
        given = tree.items(tree.parent[node])
        position = given.index(node)
        told = position and tree.kind[given[position - 1]] == "string"
        if told and _is_the_same_label(column, copies, spot):
            words = [w for w in words_of(tree.text[given[position - 1]]) if w not in STOP_WORDS]
            return [w for w in words if len(w) > 2][-1:]
    return []


def _is_the_same_label(column: Column, copies: Sequence[Copy], spot: Spot) -> bool:
    """True where the text before the value is the same in all copies, and so tells what the value is."""
    labels = set()
    for copy, node in zip(copies, spot.nodes, strict=True):
        tree = copy.file.tree
        given = tree.items(tree.parent[node])
        labels.add(tree.text[given[given.index(node) - 1]])
    return len(labels) == 1


def _from_values(column: Column, copies: Sequence[Copy], node: int) -> list[str]:
    """What the names that stand in the slot share."""
    if not column.is_name:
        if used_as_collection(copies[0], column):
            return ["values"]
        if column.is_of_its_object:
            shared = shared_words([value.partition(".")[2] for value in column.values], 1)
            return shared or words_of(class_of_fields(column, copies[0]))[-1:]
        element = ELEMENT.fullmatch(column.values[0])
        if element and len(column.values) == 1:
            return words_of(element[2]) if element[2] else [w for w in [singular(element[1])] if "_" not in w]
        holders = {value.rpartition(".")[0] for value in column.values}
        # `Color.RED` and `Color.BLUE` are colours, `prices.tea` and `prices.cake` prices.
        words = words_of(holders.pop())[-1:] if len(holders) == 1 else []
        told = [singular(w) if w.endswith("s") else w for w in words if len(w) > 3]
        return told or words_of(class_of_fields(column, copies[0]))[-1:]
    shared = [w for w in shared_words(column.values, 1) if len(w) > 1]
    kind = "" if shared else class_of_fields(column, copies[0])
    if kind:
        return words_of(kind)[-1:]
    collection = ["values"] if used_as_collection(copies[0], column) else []
    return shared or collection or _from_types(column, copies)


def _from_types(column: Column, copies: Sequence[Copy]) -> list[str]:
    """What things of one class are: a `JButton` is a button."""
    file = copies[0].file
    if not file.language.typed:
        made = {class_made(c.file, name) for c, name in zip(copies, column.values, strict=True)}
        return words_of(made.pop())[-1:] if len(made) == 1 else []
    kinds = {type_of_expression(c.file, node) for c, node in zip(copies, column.spots[0].nodes, strict=True)}
    kind = kinds.pop() if len(kinds) == 1 else None
    types = file.language.types
    told = {types.text, types.truth, *types.ranks}
    plain = kind is None or kind.dimensions or kind.own_base in told or not kind.own_base[:1].isupper()
    if kind is None or plain:
        return []
    return ["values"] if "<" in kind.own_base else words_of(kind.own_base)[-1:]


def used_as_collection(copy: Copy, column: Column) -> bool:
    file = copy.file
    tree = file.tree
    for spot in column.spots:
        parent = tree.parent[spot.nodes[0]]
        if tree.kind[parent] == "for_statement" and tree.field[spot.nodes[0]] == "right":
            return True
        if tree.text[spot.nodes[0] - 1] == "in" and tree.kind[spot.nodes[0]] in COLLECTIONS:
            return True
        if tree.kind[parent] == "subscript" and tree.field[spot.nodes[0]] == "value":
            return True
        held = tree.kind[parent] == file.language.member[0] and spot.nodes[0] == parent + 1
        if held and tree.text[tree.end[parent] - 1] in CHANGES_OF_COLLECTIONS:
            return True
        if tree.kind[parent] == "argument_list" and file.called_name(tree.parent[parent]) in ASK_COLLECTIONS:
            return True
    return False


def stands_for_a_thing(column: Column, copy: Copy) -> bool:
    """True for variables that are asked for their members."""
    tree, node = copy.file.tree, column.spots[0].nodes[0]
    parent = tree.parent[node]
    return column.is_name and tree.kind[parent] == copy.file.language.member[0] and node == parent + 1


def class_of_fields(column: Column, copy: Copy) -> str:
    """The one class of a Python program that gives its objects all fields and methods that are asked of what stands in
    a column: `Player` of `first.hand` and `second.hand`; "" where there is none, or several."""
    file, tree, language = copy.file, copy.file.tree, copy.file.language
    asked = set()
    for spot in column.spots:
        parent = tree.parent[spot.nodes[0]]
        if tree.kind[parent] == language.member[0] and spot.nodes[0] == parent + 1:
            asked.add(tree.text[tree.end[parent] - 1])
    if not asked or not language.object_is_given:
        return ""
    holding = []
    for node in (n for n, kind in enumerate(tree.kind) if kind in language.classes):
        inside = range(node, tree.end[node])
        own = {p.name for p in file.procedures if p.node in inside}
        own |= {tree.text[tree.end[n] - 1] for n in inside if tree.field[n] == "left" and tree.text[n + 1] == "self"}
        holding += [node] if asked <= own else []
    named = tree.child(holding[0], language.name_field) if len(holding) == 1 else None
    return tree.text[named] if named is not None else ""


def class_made(file: ProgramFile, name: str) -> str:
    """The class of which a variable is made wherever it gets a value: `Boat` by `tern = Boat("Tern")`; "" where that
    is not told."""
    known = file.derived.get("classes made")
    if not isinstance(known, dict):
        known = file.derived["classes made"] = _classes_made(file)
    made: set[str] = known.get(name, set())
    return next(iter(made)) if len(made) == 1 and not file.language.capitals else ""


def _classes_made(file: ProgramFile) -> dict[str, set[str]]:
    """By variable, the classes of what it is given; "" for anything else."""
    tree, known = file.tree, dict[str, set[str]]()
    for block in file.blocks:
        for statement in block.statements:
            given = given_value(tree, statement)
            if given is not None:
                called = file.called_name(given[1]) if tree.kind[given[1]] == file.language.call else ""
                known.setdefault(tree.text[given[0]], set()).add(called if called[:1].isupper() else "")
    return known
