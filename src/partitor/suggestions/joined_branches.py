"""Branches one behind the other that do the very same: one of them, which asks for all."""

from __future__ import annotations

from ..errors import CannotWrite
from ..languages.writers import writer_for
from ..languages.writing import WIDTH, leading_space
from ..program.program import ProgramFile
from ..repeats.slots import Copy, Table
from .candidate import Candidate
from .edits import Edit, changed
from .proof import JoinedBranches


def joined_candidate(table: Table) -> Candidate:
    """The first of the branches, with the tests of the others behind its own. Raises CannotWrite."""
    first, last = table.copies[0], table.copies[-1]
    file, tree = first.file, first.file.tree
    if not file.language.either_sign:
        raise CannotWrite("the language asks both of two tests, even where the first one holds")
    start, body_end = tree.start_line(first.statements[0]), tree.end_line(first.last)
    end = tree.end_line(last.last)
    said = {c.text for c in tree.comments if start <= c.line <= body_end}
    if any(c.text not in said for c in tree.comments if body_end < c.line <= end):
        raise CannotWrite("a comment belongs to one of the branches")
    at = tree.line_starts[start - 1]
    stop = tree.end_byte[tree.end[last.last] - 1]
    test = first.statements[0]
    changes = [
        (tree.start_byte[test], tree.end_byte[tree.end[test] - 1], _joined(table)),
        (tree.end_byte[tree.end[first.last] - 1], stop, ""),
    ]
    text = changed(tree.source[at:stop], at, changes)
    behind = tree.source[stop:].split(b"\n", 1)[0].decode()
    return Candidate(
        kind="branch",
        title=f"One branch in place of {len(table.copies)}, which asks for all",
        file=file,
        edits=(Edit(start, end, tuple((text + behind).split("\n"))),),
        claim=JoinedBranches(file.path, start),
        slots=(),
        table=table,
    )


def _joined(table: Table) -> str:
    """The tests as one, in brackets where the first one's are or where it takes several lines."""
    first = table.copies[0]
    file, tree = first.file, first.file.tree
    tests = [_one_of_several(copy) for copy in table.copies]
    if any("\n" in test for test in tests):
        raise CannotWrite("a test takes several lines")
    sign = file.language.either_sign
    whole = f" {sign} ".join(tests)
    bracketed = tree.kind[first.statements[0]] in file.language.parentheses
    indent = leading_space(file, first.statements[0])
    if len(indent) + len(whole) > WIDTH:
        deeper = indent + 2 * writer_for(file).style.indent
        whole, bracketed = f"\n{deeper}{sign} ".join(tests), True
    return f"({whole})" if bracketed else whole


def _one_of_several(copy: Copy) -> str:
    """A test as it stands beside others, in brackets where it is more than a comparison."""
    file, test = copy.file, copy.statements[0]
    tree = file.tree
    while tree.kind[test] in file.language.parentheses:
        test = next(c for c in tree.children(test) if tree.text[c] not in {"(", ")"})
    text = tree.source_of(test)
    plain = not _joins(file, test) or file.language.either_sign in [tree.kind[c] for c in tree.children(test)]
    return text if plain else f"({text})"


def _joins(file: ProgramFile, test: int) -> bool:
    """True for a test that is made of others, or that binds looser than the sign between tests."""
    tree = file.tree
    signs = {tree.kind[c] for c in tree.children(test)}
    loose = {"conditional_expression", "lambda", "assignment", "augmented_assignment", "named_expression"}
    return bool(signs & {"and", "&&", "??", "xor", "^^", "|", "&", "^"}) or tree.kind[test] in loose
