"""What stands in a dictionary that is written out: keys that are all different, and what belongs to each."""

from __future__ import annotations

from ...program.program import ProgramFile
from .folding import Term
from .terms import term_of
from .verdict import Refused


def entries_of(file: ProgramFile, dictionary: int) -> list[tuple[Term, int]]:
    """The key and the node of the value of each entry, in order. Raises Refused unless the keys are whole numbers, or
    texts, no two of them the same."""
    tree = file.tree
    pairs = [c for c in tree.children(dictionary) if tree.text[c] not in {"{", "}", ","}]
    if tree.kind[dictionary] != "dictionary" or any(tree.kind[pair] != "pair" for pair in pairs):
        raise Refused("the dictionary is made in an unusual way")
    found = [(term_of(file, tree.child(p, "key") or p), tree.child(p, "value") or p) for p in pairs]
    keys = [key for key, _ in found]
    if len({key[0] for key in keys}) != 1 or keys[0][0] not in {"integer", "str"} or len(set(keys)) != len(keys):
        raise Refused("the dictionary is asked for things of several kinds, or for one thing twice")
    return found
