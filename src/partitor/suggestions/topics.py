"""What one step of a longer procedure is about: its heading, or what it works out."""

from __future__ import annotations

import re
from collections.abc import Collection, Iterator, Sequence

from ..program.names import Role
from ..program.program import ProgramFile
from ..repeats.judge import inner_statements
from ..repeats.slots import Copy
from .words import COMMON_VERBS, STOP_WORDS, words_of

MOST_WORDS = 3
"""Words of a text that heads something; longer texts are sentences."""


def topic_of_step(copy: Copy, returned: Sequence[str], given: Collection[str]) -> list[str]:
    """Words for what a step is about, where it tells; `returned` and `given`: names that it gives back and is given."""
    return _heading(copy) or _worked_out(copy, [name for name in returned if name not in given])


def heading_of_copies(copy: Copy, differing: Collection[str]) -> list[str]:
    """What copies show first, where that is a word or two beside what differs: `Box` of `"Box one"`."""
    words = _heading(copy, differing)
    return words if words != ["table"] else []


def ends_with_output(copy: Copy) -> bool:
    """True where the last thing done is to show something, whatever is chosen; what a loop shows on its way is not
    it."""
    return _shows_at_last(copy.file, copy.statements[-1])


def _shows_at_last(file: ProgramFile, statement: int) -> bool:
    tree, language = file.tree, file.language
    if tree.kind[statement] in language.loops:
        return False
    if tree.kind[statement] != "if_statement":
        return any(_outputs(file, statement, tree.end[statement]))
    inside = range(statement, tree.end[statement])
    blocks = [file.block_at[n] for n in inside if n in file.block_at and _is_branch_of(file, n, statement)]
    otherwise = any(tree.text[n] == "else" for n in inside)
    return otherwise and all(b.statements and _shows_at_last(file, b.statements[-1]) for b in blocks)


def _is_branch_of(file: ProgramFile, block: int, choice: int) -> bool:
    """True for a block that stands in a choice itself, not in something inside it."""
    return not any(choice < parent and parent in file.statement_set for parent in file.parents(block))


def _outputs(file: ProgramFile, start: int, stop: int) -> Iterator[int]:
    """The calls that show something, and those that send something to a stream by its name."""
    tree, language = file.tree, file.language
    for node in range(start, stop):
        shows = tree.kind[node] == language.call and file.called_name(node) in language.output_calls
        if shows or tree.text[node] == "cout":
            yield node


def _heading(copy: Copy, differing: Collection[str] = ()) -> list[str]:
    """What is shown before anything else, where that is a few words; a line of column titles heads a table."""
    file, tree = copy.file, copy.file.tree
    for statement in copy.statements[:2]:
        stop = tree.end[statement]
        if not any(_outputs(file, statement, stop)) or variables_named(file, statement):
            return []
        for node in range(statement, stop):
            if tree.kind[node] not in {"string", "string_content"}:
                continue
            text = re.sub(r"\\.", " ", tree.text[node]).strip("\"' ")
            if text.endswith("?"):
                return []
            if re.search(r"[a-z] {2,}[a-z]", text, re.IGNORECASE) or r"\t" in tree.text[node]:
                return ["table"]
            words = words_of(text)
            telling = [w for w in words if w not in STOP_WORDS and w not in COMMON_VERBS and len(w) > 2]
            telling = [w for w in telling if w not in differing]
            if telling and len(words) <= MOST_WORDS and all(w.isalpha() for w in telling):
                return telling[-2:]
    return []


def _worked_out(copy: Copy, returned: Sequence[str]) -> list[str]:
    """What is given back, else what is made here and named last."""
    file, tree = copy.file, copy.file.tree
    for name in returned:
        words = [w for w in words_of(name) if len(w) > 2]
        if words and name != "result":
            return words[:2]
    made = {
        tree.text[n]
        for s in copy.statements
        if inner_statements(Copy(file, (s,))) == 1
        for n in file.names.within(s, tree.end[s])
        if file.names.role[n] is Role.WRITE
    }
    for statement in reversed(copy.statements):
        for name in variables_named(file, statement):
            words = [w for w in words_of(name) if len(w) > 2]
            if name in made and words:
                return words[:2]
    return []


def variables_named(file: ProgramFile, statement: int) -> list[str]:
    """The variables that a statement names, in its order."""
    own = {p.name for p in file.procedures} | file.language.builtins
    found = file.names.within(statement, file.tree.end[statement])
    names = [file.tree.text[n] for n in found if file.names.role[n] <= Role.UPDATE]
    return [name for name in names if name not in own]
