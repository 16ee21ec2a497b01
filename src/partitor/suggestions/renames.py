"""Other names: for a function that an assignment asks for, with its calls; for variables that have such a name."""

from __future__ import annotations

from collections.abc import Iterable

from ..errors import CannotWrite
from ..languages.writers import writer_for
from ..program.names import Role
from ..program.program import Procedure, Program, ProgramFile
from .candidate import Candidate
from .edits import Edit
from .naming import Namer
from .proof import RenamedFunction, RenamedVariables
from .words import in_convention, words_of


def rename_candidate(program: Program, file: ProgramFile, procedure: Procedure, asked: str) -> Candidate:
    """The function under the name that is asked for. Raises CannotWrite
    where its name is not the function's alone."""
    name, old = asked, procedure.name
    if any(old in other.names.everything for other in program.files if other is not file):
        raise CannotWrite(f"{old} is used in another file")
    return Candidate(
        kind="rename",
        title=f"{old} under the name that is asked for, {name}",
        file=file,
        edits=_renaming(file, [i for i in file.names.nodes if file.tree.text[i] == old], name),
        claim=RenamedFunction(file.path, name, old),
        slots=(),
        name=name,
    )


def renamed_variables(file: ProgramFile, old: str) -> Candidate:
    """The program in which the variables that have the name of a function that is asked for have another one."""
    tree, names = file.tree, file.names
    name = name_of_its_value(file, old)
    uses = [i for i in names.nodes if tree.text[i] == old and names.role[i] <= Role.DECLARATION]
    return Candidate(
        kind="rename",
        title=f"{old}, which is to be a function's name, becomes {name}",
        file=file,
        edits=_renaming(file, uses, name),
        claim=RenamedVariables(file.path, name, old),
        slots=(),
        name=name,
    )


def name_of_its_value(file: ProgramFile, function: str) -> str:
    """A fresh name for a variable that holds what a function gives: `the_mean` of `mean`, `valid` of `is_valid`."""
    style, words = writer_for(file).style, words_of(function) or [function]
    own = words[1:] if words[0] in ASKING and len(words) > 1 else ["the", *words]
    return Namer(file, style).fresh(own, [in_convention(["the", *words], style)])


ASKING = frozenset({"is", "has"})


def _renaming(file: ProgramFile, nodes: Iterable[int], name: str) -> tuple[Edit, ...]:
    """What writes another name at the nodes."""
    tree = file.tree
    changed: dict[int, list[int]] = {}
    for i in nodes:
        changed.setdefault(tree.start_line(i), []).append(i)
    edits = []
    for line, nodes in changed.items():
        start = tree.line_starts[line - 1]
        text = file.lines[line - 1].encode()
        for i in sorted(nodes, reverse=True):
            text = text[: tree.start_byte[i] - start] + name.encode() + text[tree.end_byte[i] - start :]
        edits.append(Edit(line, line, (text.decode(),)))
    return tuple(edits)
