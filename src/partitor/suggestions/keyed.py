"""Branches that each count up a variable of their own: the variables become one dictionary, and what is asked for says
which of its places is meant.

`if vote == "Ama": ama += 1`, `elif vote == "Ben": ben += 1` becomes `counts = {"Ama": 0, "Ben": 0}` and `if vote in
counts: counts[vote] += 1`. The two links are proved one after the other.
"""

from __future__ import annotations

from collections.abc import Sequence

import msgspec

from ..errors import CannotWrite
from ..languages.writers import writer_for
from ..languages.writing import WIDTH, leading_space
from ..program.program import ProgramFile
from ..records import SlotColumn
from ..repeats.columns import Column
from ..repeats.slots import Table
from .arrays import kept_in
from .candidate import Candidate
from .edits import Edit, apply_edits, changed, rewritten
from .families import USED, body_of_scope, first_values_in_a_row, require_plain_uses, whole_uses
from .naming import Namer
from .proof import KeyedBranches


def keyed_candidate(table: Table, asked: Column, variable: str) -> Candidate:
    """The dictionary with what the branches' variables hold, and the one branch that is left. Raises CannotWrite."""
    first = table.copies[0]
    file, tree = first.file, first.file.tree
    counted = next((c for c in table.columns if c.is_target), None)
    choice = tree.parent[first.statements[0]]
    branches = tree.branches_of(choice)
    whole = [tree.parent[c.statements[0]] for c in table.copies] == branches
    if counted is None or len(table.columns) != len(("asked", "counted")) or table.derived or not (variable and whole):
        raise CannotWrite("what differs in the branches would have to be one list first")
    clause = tree.otherwise_of(choice)
    if clause is not None and "augmented_assignment" in tree.kind[clause : tree.end[clause]]:
        raise CannotWrite("what is counted for anything else has no place in one list")
    keys = dict(zip(counted.values, asked.values, strict=True))
    kept = _in_a_dictionary(file, keys, variable, "1" in tree.text[slice(*first.span)])
    after = rewritten(file, apply_edits(kept.file, kept.edits))
    return msgspec.structs.replace(
        _one_branch(after, kept.name, variable, asked.values),
        via=kept,
        is_listing=True,
        slots=(SlotColumn(variable, asked.values), SlotColumn(kept.name, counted.values)),
        table=table,
    )


def _in_a_dictionary(file: ProgramFile, keys: dict[str, str], variable: str, by_one: bool) -> Candidate:
    """The variables as elements of one dictionary, everywhere."""
    names, tree = file.names, file.tree
    uses = [i for i in names.nodes if tree.text[i] in keys and names.role[i] in USED]
    scopes = {names.scope[i] for i in uses}
    variables = tuple(dict.fromkeys(tree.text[i] for i in uses))
    if len(scopes) != 1 or any(file.is_used_beside(v) for v in variables):
        raise CannotWrite(f"{variables[0]} to {variables[-1]} are used by several functions")
    require_plain_uses(file, variables)
    statements = body_of_scope(file, scopes.pop())
    first = next((s for s in statements if s <= uses[0] < tree.end[s]), None)
    row = first_values_in_a_row(file, statements, first, variables) if first is not None else []
    if first is None or not row:
        raise CannotWrite(f"{variables[0]} to {variables[-1]} do not get their first values one after the other")
    name = Namer(file, writer_for(file).style).table("count" if by_one else "total", variable)
    whole = whole_uses(file, variables, uses, name, ".values()")
    inside = {i for node, _ in whole for i in names.within(node, tree.end[node])}
    last = row[-1]
    changes = [(i, f"{name}[{_key_at(file, i, keys[tree.text[i]])}]") for i in uses if i not in inside] + whole
    changes = [(i, new) for i, new in changes if not first <= i < tree.end[last]]
    given = [tree.source_of(tree.child(s, "right") or s) for s in row]
    pairs = (f"{keys[v]}: {value}" for v, value in zip(variables, given, strict=True))
    head = f"{name} = {{{', '.join(pairs)}}}"
    if len(leading_space(file, first) + head) > WIDTH:
        raise CannotWrite("the dictionary is too long for one line")
    edits = [(tree.start_byte[i], tree.end_byte[i], new) for i, new in changes]
    text = changed(tree.source, 0, [*edits, (tree.start_byte[first], tree.end_byte[last], head)])
    return kept_in(f"one dictionary, {name}", file, text, name, variables, None)


def _key_at(file: ProgramFile, use: int, key: str) -> str:
    """A key as it is written where it is used: inside a text with gaps it has other marks than that."""
    tree = file.tree
    around = next((p for p in file.parents(use) if tree.kind[p] == "string"), None)
    if around is None or key[:1] not in {"'", '"'}:
        return key
    other = "'" if '"' in tree.source_of(around)[:3] else '"'
    if "'" in key[1:-1] or '"' in key[1:-1]:
        raise CannotWrite("a key cannot stand inside a text")
    return f"{other}{key[1:-1]}{other}"


def _one_branch(file: ProgramFile, name: str, variable: str, keys: Sequence[str]) -> Candidate:
    """One branch for everything that the dictionary has, in place of one for each of its keys."""
    tree = file.tree
    choice = next(
        (n for n, kind in enumerate(tree.kind) if kind == "if_statement" and _asks(file, n, variable, keys)), 0
    )
    branches = tree.branches_of(choice)
    block = file.block_at.get(tree.child(choice, "consequence") or 0)
    if not choice or block is None:
        raise CannotWrite("the branches are not found again")
    first_line, last_line = tree.start_line(choice), tree.end_line(branches[-1])
    if any(first_line <= c.line <= last_line for c in tree.comments):
        raise CannotWrite("a comment belongs to one of the branches")
    start, stop = tree.start_line(block.statements[0]), tree.end_line(block.statements[-1])
    if start == first_line or file.shared_lines.intersection(range(start, stop + 1)):
        raise CannotWrite("a branch shares its line with its test")
    at, end = tree.line_starts[start - 1], tree.end_byte[block.statements[-1]]
    places = [
        n
        for n in range(block.statements[0], tree.end[block.statements[-1]])
        if tree.kind[n] == "subscript" and tree.text[n + 1] == name
    ]
    inner = [tree.child(n, "subscript") for n in places]
    body = changed(tree.source[at:end], at, [(tree.start_byte[n], tree.end_byte[n], variable) for n in inner if n])
    head = f"{leading_space(file, choice)}if {variable} in {name}:"
    return Candidate(
        kind="table",
        title=f"A dictionary {name} in place of {len(keys)} branches",
        file=file,
        edits=(Edit(first_line, last_line, (head, *body.split("\n"))),),
        claim=KeyedBranches(file.path, name),
        slots=(),
        name=name,
    )


def _asks(file: ProgramFile, choice: int, variable: str, keys: Sequence[str]) -> bool:
    """True for a choice whose branches ask for these keys, one after the other."""
    tree = file.tree
    branches = tree.branches_of(choice)
    tests = [tree.child(b, "condition") for b in branches]
    return [tree.source_of(t) for t in tests if t is not None] == [f"{variable} == {key}" for key in keys]
