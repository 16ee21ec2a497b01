"""A function that an assignment asks for under another name: it gets that name, and so do its calls."""

from __future__ import annotations

from ..errors import CannotWrite
from ..program.program import Procedure, Program, ProgramFile
from .candidate import Candidate
from .edits import Edit
from .proof import RenamedFunction


def rename_candidate(program: Program, file: ProgramFile, procedure: Procedure, asked: str) -> Candidate:
    """The function under the name that is asked for. Raises CannotWrite
    where its name is not the function's alone."""
    name, old = asked, procedure.name
    if any(old in other.names.everything for other in program.files if other is not file):
        raise CannotWrite(f"{old} is used in another file")
    tree = file.tree
    changed: dict[int, list[int]] = {}
    for i in file.names.nodes:
        if tree.text[i] == old:
            changed.setdefault(tree.start_line(i), []).append(i)
    edits = []
    for line, nodes in changed.items():
        start = tree.line_starts[line - 1]
        text = file.lines[line - 1].encode()
        for i in sorted(nodes, reverse=True):
            text = text[: tree.start_byte[i] - start] + name.encode() + text[tree.end_byte[i] - start :]
        edits.append(Edit(line, line, (text.decode(),)))
    return Candidate(
        kind="rename",
        title=f"{old} under the name that is asked for, {name}",
        file=file,
        edits=tuple(edits),
        claim=RenamedFunction(file.path, name, old),
        slots=(),
        name=name,
    )
