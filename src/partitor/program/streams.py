"""What is sent to a stream by `<<`, value by value."""

from __future__ import annotations

from .names import UNBOUND
from .program import ProgramFile

STREAMS = frozenset({"cout", "cerr", "std::cout", "std::cerr"})
OTHER_FORMS = frozenset(
    "setw setfill hex oct showpos showbase width fill setf flags setbase iomanip imbue boolalpha".split()
)
"""What makes a stream show whole numbers, or the next value, in another way."""


def shows_plainly(file: ProgramFile) -> bool:
    """True where texts and whole numbers that are sent to a stream are shown as they stand, one behind the other."""
    if "shows plainly" not in file.derived:
        others = any(text.rpartition("::")[2] in OTHER_FORMS for text in file.tree.text)
        own = any(file.names.owner_of(name, 0) != UNBOUND for name in STREAMS)
        file.derived["shows plainly"] = file.language.id == "cpp" and not others and not own
    return bool(file.derived["shows plainly"])


def is_streamed(file: ProgramFile, node: int) -> bool:
    """True for a value that is sent to a stream that shows it as it stands, one of several or alone."""
    tree = file.tree
    if tree.field[node] != "right" or not shows_plainly(file):
        return False
    part = tree.parent[node]
    while tree.kind[part] == "binary_operator" and tree.text[tree.child(part, "operator") or part] == "<<":
        part = tree.child(part, "left") or part
    return tree.text[part] in STREAMS
