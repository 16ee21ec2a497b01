"""A value that is worked out inside a statement gets a name right above it: what a function can then give."""

from __future__ import annotations

from ..errors import CannotWrite
from ..languages.writers import writer_for
from ..languages.writing import Variable, leading_space
from ..program.program import ProgramFile
from ..program.types import Type, type_of_expression
from ..repeats.slots import Copy
from .candidate import Candidate
from .edits import Edit, require_whole_lines
from .proof import NamedValue


def statement_around(file: ProgramFile, node: int) -> int:
    """The statement in which a node stands; the node itself where it is one."""
    statements = file.statement_set
    return node if node in statements else next(p for p in file.parents(node) if p in statements)


def type_of_value(file: ProgramFile, value: int) -> Type | None:
    """The type of a value, where types are told. Raises CannotWrite where it is not in sight."""
    kind = type_of_expression(file, value) if file.language.typed else None
    if file.language.typed and kind is None:
        raise CannotWrite("the type of the value is not in sight")
    return kind


def with_value(file: ProgramFile, statement: int, value: int, text: str) -> Edit:
    """What writes a text in the place of a value inside a statement. Raises CannotWrite for one of several lines."""
    tree = file.tree
    if "\n" in tree.source_of(value):
        raise CannotWrite("the value stands on several lines")
    first, last = tree.start_line(statement), tree.end_line(statement)
    start = tree.line_starts[first - 1]
    whole = tree.source[start : tree.line_starts[last] if last < len(tree.line_starts) else len(tree.source)]
    changed = whole[: tree.start_byte[value] - start] + text.encode() + whole[tree.end_byte[value] - start :]
    return Edit(first, last, tuple(changed.decode().rstrip("\n").split("\n")))


def named_value(file: ProgramFile, value: int, name: str) -> Candidate:
    """The program in which the value at a node is given to a new variable first. Raises CannotWrite where that cannot
    be put into code."""
    tree, statement = file.tree, statement_around(file, value)
    require_whole_lines([Copy(file, (statement,))])
    variable, text = Variable(name, type_of_value(file, value)), tree.source_of(value)
    naming = leading_space(file, statement) + writer_for(file).named(variable, text)
    rest = with_value(file, statement, value, name)
    return Candidate(
        kind="name",
        title=f"{text} under the name {name}",
        file=file,
        edits=(Edit(rest.start, rest.end, (naming, *rest.lines)),),
        claim=NamedValue(file.path, name),
        slots=(),
        name=name,
    )
