"""Methods that stand alike in classes that build on nothing: a class of its own has them, on which these build."""

from __future__ import annotations

import itertools
from collections.abc import Sequence

from ..errors import CannotWrite
from ..languages.writers import writer_for
from ..languages.writing import leading_space
from ..program.members import class_name
from ..program.program import Procedure, ProgramFile
from ..repeats.slots import Table
from .candidate import Candidate
from .edits import Edit, require_whole_lines
from .insertion import above_comments
from .merges import removal
from .naming import Namer
from .proof import NewBase
from .pulled_up import class_around_method, lines_of_method, methods_of
from .text import told_order
from .words import words_of

PLAIN_DUNDERS = frozenset({"__init__", "__str__", "__repr__"})
"""Methods with a meaning for the language that may stand in one class as well as in another."""


def new_base_candidate(table: Table) -> Candidate:
    """The class with all methods that the copies' classes have in common, token for token. Raises CannotWrite where
    there can be none."""
    file, tree = table.copies[0].file, table.copies[0].file.tree
    require_whole_lines(table.copies)
    classes = sorted(class_around_method(file, m) for m in methods_of(table))
    if any(_builds_on_something(file, c) or tree.parent[c] for c in classes):
        raise CannotWrite("it would have to be a method of several classes")
    shared = _shared_methods(file, classes)
    if not any(m.name == methods_of(table)[0].name for m, *_ in shared):
        raise CannotWrite("it would have to be a method of several classes")
    bodies = [file.block_at[tree.child(c, "body") or 0].statements for c in classes]
    if min(map(len, bodies)) <= len(shared):
        raise CannotWrite("a class would have nothing in it")
    names = [class_name(file, c) for c in classes]
    name = _name_for(file, names)
    heads = [_headed(file, node, name) for node in classes]
    edits = [*heads, *_removals(file, heads, [method for same in shared for method in same])]
    first = above_comments(file, tree.start_line(classes[0]))
    indent = leading_space(file, classes[0])
    lines = [f"{indent}class {name}:"]
    for k, same in enumerate(shared):
        lines += [*([""] if k else []), *lines_of_method(file, same[0])]
    edits.append(Edit(first, first - 1, (*lines, "", "")))
    told = " and ".join(dict.fromkeys(same[0].name for same in shared[:2])) + (" …" if len(shared) > 2 else "")
    return Candidate(
        kind="merge",
        title=f"One class {name} with {told}, on which {' and '.join(names)} build{told_order(table.copies)}",
        file=file,
        edits=tuple(edits),
        claim=NewBase(file.path, name, tuple(same[0].name for same in shared), tuple(names)),
        slots=(),
        table=table,
        name=name,
    )


def _builds_on_something(file: ProgramFile, definition: int) -> bool:
    bases = file.tree.child(definition, "superclasses")
    return bases is not None and bool(file.tree.items(bases))


def _shared_methods(file: ProgramFile, classes: Sequence[int]) -> list[list[Procedure]]:
    """The plain methods that all classes have, token for token, in the first one's order: each in class after class."""
    own = [{p.name: p for p in file.procedures if class_around_method(file, p) == c} for c in classes]
    tokens = file.tree.text
    found = []
    for name in own[0]:
        same = [members[name] for members in own if name in members]
        texts = [tokens[m.node : file.tree.end[m.node]] for m in same]
        plain = not name.startswith("__") or name in PLAIN_DUNDERS
        if plain and len(same) == len(classes) and all(t == texts[0] for t in texts):
            found.append(same)
    return found


def _name_for(file: ProgramFile, names: Sequence[str]) -> str:
    """The words at the end that all the classes' names share, else both names, else that it is what they build on."""
    words = [[w.capitalize() for w in words_of(name)] for name in names]
    ends = itertools.takewhile(lambda column: len(set(column)) == 1, zip(*(w[::-1] for w in words), strict=False))
    shared = "".join(column[0] for column in reversed(list(ends)))
    both = "Or".join(names) if len(names) == len("ab") and all(len(w) == 1 for w in words) else ""
    taken = Namer(file, writer_for(file).style).taken
    free = [name for name in (shared, both, "Base", f"{shared}Base") if name and name not in taken]
    if not free:
        raise CannotWrite("every name for a class that both could build on is in use")
    return free[0]


def _headed(file: ProgramFile, node: int, base: str) -> Edit:
    """The head of a class that builds on another one now."""
    tree = file.tree
    named, bases = tree.child(node, file.language.name_field), tree.child(node, "superclasses")
    assert named is not None
    line = tree.start_line(named)
    start = tree.line_starts[line - 1]
    stop = tree.end_byte[bases] if bases is not None else tree.end_byte[named]
    before = tree.source[start : tree.end_byte[named]].decode()
    end = tree.line_starts[line] - 1 if line < len(tree.line_starts) else len(tree.source)
    if stop > end:
        raise CannotWrite("the head of a class stands on several lines")
    return Edit(line, line, (f"{before}({base}){tree.source[stop:end].decode()}",))


def _removals(file: ProgramFile, heads: Sequence[Edit], methods: Sequence[Procedure]) -> list[Edit]:
    """Take the methods out; where the first things in a class go, so do the blank lines behind them."""
    gone = {n for edit in (removal(file, m) for m in methods) for n in range(edit.start, edit.end + 1)}
    for head in heads:
        line = head.end + 1
        while head.end + 1 in gone and (line in gone or (line <= len(file.lines) and not file.lines[line - 1].strip())):
            gone.add(line)
            line += 1
    starts = [n for n in sorted(gone) if n - 1 not in gone]
    stops = [n for n in sorted(gone) if n + 1 not in gone]
    return [Edit(start, stop, ()) for start, stop in zip(starts, stops, strict=True)]
