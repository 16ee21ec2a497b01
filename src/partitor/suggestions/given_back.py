"""What a new function works out is given back at once where a copy's result was only made to be returned:
`return cost_of(area, price)` in place of `cost = cost_of(area, price)` and `return cost`."""

from __future__ import annotations

import itertools
from collections.abc import Sequence

import msgspec

from ..program.program import ProgramFile
from ..program.shapes import given_value
from ..repeats.slots import Copy
from .candidate import Candidate
from .edits import Edit, apply_edits, rewritten
from .named_values import with_value
from .proof import GivenBack

WIDEST_RETURN = 90
"""Characters of a line beyond which a value is better given a name before it is given back."""


def given_back(whole: Candidate, copies: Sequence[Copy]) -> Candidate:
    """The candidate with its results given back at once, where those of some copies are; itself for any other."""
    if not any(map(_is_returned_next, copies)):
        return whole
    file = rewritten(whole.file, apply_edits(whole.file, whole.edits))
    edits = tuple(edit for block in file.blocks for edit in _in_block(file, block.statements, whole.name))
    if not edits:
        return whole
    return msgspec.structs.replace(
        whole, file=file, edits=edits, claim=GivenBack(whole.file.path, whole.name), via=whole, plainer=whole
    )


def _is_returned_next(copy: Copy) -> bool:
    """True where the statement behind a copy gives something back."""
    file, tree = copy.file, copy.file.tree
    block = file.block_at.get(tree.parent[copy.last])
    behind = [s for s in block.statements if s > copy.last][:1] if block is not None else []
    return bool(behind) and bool(file.language.returning) and tree.kind[behind[0]] == file.language.returning


def _in_block(file: ProgramFile, statements: Sequence[int], name: str) -> list[Edit]:
    """What changes in one statement list."""
    tree, edits = file.tree, []
    for naming, returning in itertools.pairwise(statements):
        given = given_value(tree, naming, for_good=True)
        if given is None or tree.kind[returning] != file.language.returning or file.called_name(given[1]) != name:
            continue
        returned = [c for c in tree.children(returning) if tree.text[c] not in {"return", ";"}]
        together = tree.start_line(returning) == tree.end_line(naming) + 1
        alone = not {tree.start_line(naming), tree.start_line(returning)} & file.shared_lines
        if len(returned) != 1 or tree.text[returned[0]] != tree.text[given[0]] or not (together and alone):
            continue
        edit = with_value(file, returning, returned[0], tree.source_of(given[1]))
        if max(map(len, edit.lines)) <= WIDEST_RETURN:
            edits.append(Edit(tree.start_line(naming), edit.end, edit.lines))
    return edits
