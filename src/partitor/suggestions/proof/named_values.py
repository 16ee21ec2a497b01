"""Proof of a value that gets a name right above the statement in which it is worked out."""

from __future__ import annotations

import msgspec

from ...program.names import Role
from ...program.program import ProgramFile
from ...program.shapes import given_value
from ...program.types import type_of_expression, type_of_name
from . import rules
from .elements import is_worked_out_first
from .quiet import calls_the_library
from .verdict import NamedValue, Refused

SIMPLE = frozenset({"call", "assignment", "augmented_assignment", "declaration", "return_statement"})
SHOWN_AS_TEXT = frozenset("__str__ __repr__ __add__ __radd__ __format__ toString ToString valueOf operator<<".split())
"""Functions that are called where something is joined to a text."""
CHANGING = frozenset({"update", "assignment", "augmented_assignment", "named_expression", "await", "yield", "lambda"})


def prove_named_value(before: ProgramFile, after: ProgramFile, claim: NamedValue) -> None:
    """Raises Refused unless the new variable stands for the value alone, once, and the value was the first thing that
    the statement worked out."""
    rules.refuse_reflection(before)
    rules.require_fresh(claim.name, before)
    tree = after.tree
    uses = [n for n in after.names.nodes if tree.text[n] == claim.name]
    if len(uses) != 2 or [after.names.role[n] for n in uses] != [Role.WRITE, Role.READ]:
        raise Refused(f"{claim.name} stands for more than one value")
    naming = next((p for p in after.parents(uses[0]) if p in after.statement_set), -1)
    given = given_value(tree, naming, for_good=True) if naming >= 0 else None
    block = after.block_at.get(tree.parent[naming]) if naming >= 0 else None
    if given is None or block is None or given[0] != uses[0]:
        raise Refused(f"{claim.name} is not given a value on its own")
    following = block.statements[block.statements.index(naming) + 1 :][:1]
    if not following or not following[0] <= uses[1] < tree.end[following[0]]:
        raise Refused(f"{claim.name} is used somewhere else")
    rules.scope_of_statement(after, naming)
    _require_the_rest_is_the_same(before, after, naming, given[1], uses[1])
    require_same_type(after, claim.name, given[1], uses[0])
    _require_first(after, following[0], given[1], uses[1])


def _require_the_rest_is_the_same(before: ProgramFile, after: ProgramFile, naming: int, value: int, use: int) -> None:
    """With the value back in its place the program is the original."""
    tree = after.tree
    first, last = tree.start_line(naming), tree.end_line(naming)
    start, stop = tree.line_starts[first - 1], tree.line_starts[last]
    source = tree.source
    if source[start : tree.start_byte[naming]].strip() or source[tree.end_byte[naming] : stop].strip(b" \t\r\n;"):
        raise Refused("the new line does more than to name a value")
    written = source[tree.start_byte[value] : tree.end_byte[value]]
    text = source[:start] + source[stop : tree.start_byte[use]] + written + source[tree.end_byte[use] :]
    again = ProgramFile(msgspec.structs.replace(before.source, text=text.decode(), original=None), before.language)
    if again.tree.kind != before.tree.kind or again.tree.text != before.tree.text:
        raise Refused("more than the name of a value changes")


def require_same_type(file: ProgramFile, name: str, value: int, use: int) -> None:
    """Where types are told, a variable is of the very type of its value."""
    if not file.language.typed:
        return
    kind = type_of_expression(file, value)
    if kind is None or kind.dimensions or type_of_name(file, name, file.names.owner(use)) != kind:
        raise Refused(f"{name} might not hold what the value is")


def _require_first(file: ProgramFile, statement: int, value: int, use: int) -> None:
    """The value was worked out once, for certain, and before anything else that the statement does."""
    tree, language = file.tree, file.language
    own = [n for n in range(value, tree.end[value]) if tree.kind[n] == language.call and not calls_the_library(file, n)]
    joined = not own and not {p.name for p in file.procedures} & SHOWN_AS_TEXT
    streamed = tree.kind[statement] == "binary_operator" and "cout" in tree.text[statement : tree.end[statement]]
    simple = tree.kind[statement] in SIMPLE | {language.returning} or (streamed and not own)
    if not simple or not is_worked_out_first(file, statement, use, joined):
        raise Refused("the value is not worked out first, or not for certain")
    others = [n for n in range(statement + 1, tree.end[statement]) if tree.kind[n] == language.call]
    others = [n for n in others if file.called_name(n) not in language.output_calls]
    if own and (others or tree.kind[statement] == "augmented_assignment"):
        raise Refused("what is called for the value might change what else the statement works with")
    if not all(calls_the_library(file, n) for n in others):
        raise Refused("what else is called might be called before")
    inside = {*tree.kind[value : tree.end[value]], *tree.kind[statement + 1 : tree.end[statement]]}
    if (CHANGING | language.suspending) & inside:
        raise Refused("the statement changes something on its way")
