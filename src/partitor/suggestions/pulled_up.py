"""Methods that stand alike in classes that build on one class: they stand there once."""

from __future__ import annotations

import itertools
from collections.abc import Sequence

from ..errors import CannotWrite
from ..program.members import class_name
from ..program.program import Procedure, ProgramFile
from ..repeats.slots import Table
from .candidate import Candidate
from .edits import Edit, require_whole_lines
from .merges import removal
from .proof import PulledUp
from .text import told_order


def is_one_method(table: Table) -> bool:
    """True where the copies are all that methods of one name do, each in a class of its own that builds on the same
    one."""
    first = table.copies[0]
    if first.file.language.id != "python" or table.columns or any(c.file is not first.file for c in table.copies):
        return False
    methods = methods_of(table)
    classes = {class_around_method(first.file, m) for m in methods}
    alone = len(classes) == len(table.copies) and len({(m.name, m.parameters) for m in methods}) == 1
    whole = all(first.file.statements_of(m) == c.statements for m, c in zip(methods, table.copies, strict=True))
    return alone and whole and len({_base_of(first.file, c) for c in classes}) == 1 and 0 not in classes


def pulled_up_candidate(table: Table) -> Candidate:
    """The method in the class on which the others build. Raises CannotWrite where it cannot stand there."""
    file, methods = table.copies[0].file, methods_of(table)
    require_whole_lines(table.copies)
    classes = [class_around_method(file, m) for m in methods]
    home = _base_of(file, classes[0])
    tree = file.tree
    base = next((n for n, k in enumerate(tree.kind) if k in file.language.classes and class_name(file, n) == home), 0)
    if not base:
        raise CannotWrite(f"{home or 'what the classes build on'} is not in this file")
    members = [len(file.block_at[tree.child(c, "body") or 0].statements) for c in classes]
    if min(members) < 2:
        raise CannotWrite("a class would have nothing in it")
    own = file.block_at[tree.child(base, "body") or 0].statements
    last = tree.end_line(own[-1])
    edits = [Edit(last + 1, last, ("", *lines_of_method(file, methods[0]))), *(removal(file, m) for m in methods)]
    names = tuple(class_name(file, c) for c in classes)
    return Candidate(
        kind="merge",
        title=f"One method {methods[0].name} in {home} in place of {len(methods)}{told_order(table.copies)}",
        file=file,
        edits=tuple(edits),
        claim=PulledUp(file.path, methods[0].name, home, names),
        slots=(),
        table=table,
        name=methods[0].name,
        parameters=tuple(methods[0].parameters),
    )


def lines_of_method(file: ProgramFile, method: Procedure) -> list[str]:
    """A method as it stands there, with the comment above it."""
    gone = removal(file, method)
    return list(itertools.dropwhile(lambda line: not line.strip(), file.lines[gone.start - 1 : gone.end]))


def methods_of(table: Table) -> list[Procedure]:
    """The methods in which the copies stand."""
    return [copy.file.procedure_around(copy.first) for copy in table.copies]


def class_around_method(file: ProgramFile, method: Procedure) -> int:
    """The class in whose body a plain method stands; 0 for any other function."""
    tree = file.tree
    around = tree.parent[tree.parent[method.node]] if method.node else 0
    plain = method.in_class and not method.decorated and around > 0
    return around if plain and tree.kind[around] in file.language.classes else 0


def _base_of(file: ProgramFile, definition: int) -> str:
    """The one class that another builds on; "" where there are none or several."""
    bases = file.tree.child(definition, "superclasses") if definition else None
    named: Sequence[int] = file.tree.items(bases) if bases is not None else []
    return file.tree.text[named[0]] if len(named) == 1 else ""
