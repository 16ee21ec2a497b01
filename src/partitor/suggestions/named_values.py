"""A value that is worked out inside a statement gets a name right above it: what a function can then give."""

from __future__ import annotations

from ..errors import CannotWrite
from ..languages.writers import writer_for
from ..languages.writing import Variable, leading_space
from ..program.program import ProgramFile
from ..program.types import type_of_expression
from ..repeats.slots import Copy
from .candidate import Candidate
from .edits import Edit, require_whole_lines
from .proof import NamedValue


def statement_around(file: ProgramFile, node: int) -> int:
    """The statement in which a node stands; the node itself where it is one."""
    statements = file.statement_set
    return node if node in statements else next(p for p in file.parents(node) if p in statements)


def named_value(file: ProgramFile, value: int, name: str) -> Candidate:
    """The program in which the value at a node is given to a new variable first. Raises CannotWrite where that cannot
    be put into code."""
    tree, statement = file.tree, statement_around(file, value)
    require_whole_lines([Copy(file, (statement,))])
    writer = writer_for(file)
    kind = type_of_expression(file, value) if file.language.typed else None
    if file.language.typed and kind is None:
        raise CannotWrite("the type of the value is not in sight")
    text, line = tree.source_of(value), tree.start_line(statement)
    if "\n" in text:
        raise CannotWrite("the value stands on several lines")
    start = tree.line_starts[line - 1]
    last = tree.end_line(statement)
    whole = tree.source[start : tree.line_starts[last] if last < len(tree.line_starts) else len(tree.source)]
    changed = whole[: tree.start_byte[value] - start] + name.encode() + whole[tree.end_byte[value] - start :]
    indent = leading_space(file, statement)
    lines = changed.decode().rstrip("\n").split("\n")
    return Candidate(
        kind="name",
        title=f"{text} under the name {name}",
        file=file,
        edits=(Edit(line, last, (f"{indent}{writer.named(Variable(name, kind), text)}", *lines)),),
        claim=NamedValue(file.path, name),
        slots=(),
        name=name,
    )
