"""Proof of a result that is given back at once: `return f(…)` for a variable that was only made to be returned."""

from __future__ import annotations

from collections.abc import Sequence

from ...program.program import ProgramFile
from ...program.shapes import given_value
from . import rules
from .named_values import require_same_type
from .verdict import GivenBack, Refused
from .walk import Walk


def prove_given_back(before: ProgramFile, after: ProgramFile, claim: GivenBack) -> None:
    """Raises Refused unless each such `return` stands for a value that a variable of the function got right before the
    variable was returned, and nothing else has to do with that variable."""
    rules.refuse_reflection(before)
    found: list[int] = []

    def statement(left: Sequence[int], new: int) -> int | None:
        returning = before.language.returning
        if after.tree.kind[new] != returning or (left and before.tree.kind[left[0]] == returning):
            return None
        if len(left) < 2:
            raise Refused("what is given back is not worked out right before")
        value = _only_value(after, new)
        _require_only_for_that(before, left[0], left[1])
        given = given_value(before.tree, left[0], for_good=True)
        if given is None or not _is_the_same(before, given[1], after, value):
            raise Refused("something else is given back")
        if after.tree.kind[value] != "call" or after.called_name(value) != claim.name:
            raise Refused(f"what is given back is not what {claim.name} gives")
        found.append(new)
        return 2

    Walk(before, after, statement).run()
    if not found:
        raise Refused("nothing is given back at once")


def _only_value(file: ProgramFile, statement: int) -> int:
    """The one value that a `return` gives back."""
    tree = file.tree
    values = [c for c in tree.children(statement) if tree.text[c] not in {"return", ";"}]
    if len(values) != 1:
        raise Refused("more than one value is given back, or none")
    return values[0]


def _require_only_for_that(file: ProgramFile, naming: int, returning: int) -> None:
    """The variable is the function's own, and stands nowhere but where it is made and where it is returned."""
    tree, names = file.tree, file.names
    given = given_value(tree, naming, for_good=True)
    if given is None or tree.kind[returning] != file.language.returning:
        raise Refused("what is given back is not worked out right before")
    returned, name = _only_value(file, returning), tree.text[given[0]]
    scope = rules.scope_of_statement(file, naming)
    uses = [i for i in names.nodes if tree.text[i] == name and names.owner(i) == scope]
    if scope == 0 or sorted(uses) != [given[0], returned]:
        raise Refused(f"{name} is used somewhere else, too")
    if rules.is_named_by_a_macro(file, name):
        raise Refused(f"a macro may stand for {name}")
    require_same_type(file, name, given[1], given[0])


def _is_the_same(before: ProgramFile, old: int, after: ProgramFile, new: int) -> bool:
    a, b = before.tree, after.tree
    old_part, new_part = slice(old, a.end[old]), slice(new, b.end[new])
    return a.text[old_part] == b.text[new_part] and a.kind[old_part] == b.kind[new_part]
