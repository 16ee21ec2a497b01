"""Two symbols for every statement: *exact* (its tokens) and *shape* (operands become slots).

Equal symbols mean equal subtrees without layout and comments. In the shape every simple operand
(a literal, a variable, a negative number, an element or field of a variable) is one slot; called
names, operators, keywords and field names stay. Symbols are interned to small integers that are
shared by all files of one `ShapeTable`.
"""

from __future__ import annotations

import re

from ..languages.table import Language
from .program import ProgramFile
from .tree import Tree

SLOT = ("slot",)
DIGITS = re.compile(r"\d+")


class ShapeTable:
    """Interns subtrees of any number of files into integers; equal integer ⇔ equal symbol."""

    def __init__(self) -> None:
        self._exact: dict[object, int] = {}
        self._shape: dict[object, int] = {}
        self._operands: dict[int, tuple[Tree, bytearray]] = {}

    def exact(self, tree: Tree, node: int) -> int:
        """The symbol of the subtree token for token (parentheses and layout of commas included)."""
        end = tree.end[node]
        key = (tuple(tree.kind[node:end]), tuple(tree.text[node:end]))
        return self._exact.setdefault(key, len(self._exact))

    def _operands_of(self, tree: Tree) -> bytearray:
        """What is known of each node: 0 nothing yet, 1 no simple operand, 2 one."""
        known = self._operands.get(id(tree))
        if known is None:
            known = self._operands[id(tree)] = (tree, bytearray(len(tree.kind)))
        return known[1]

    def worded(self, tree: Tree, node: int) -> int:
        """The symbol of the subtree with its operands as slots, but for texts, which keep their words."""
        key = tuple(_shape_items(tree, self._operands_of(tree), node, texts_stay=True))
        return self._shape.setdefault(key, len(self._shape))

    def alone(self, tree: Tree, node: int, texts_stay: bool = False) -> int:
        """The symbol of a statement without the blocks inside it."""
        key = ("alone", *_shape_items(tree, self._operands_of(tree), node, texts_stay, without_blocks=True))
        return self._shape.setdefault(key, len(self._shape))

    def open_calls(self, tree: Tree, node: int) -> int:
        """The symbol of the subtree with its operands, and the names of plain functions that it calls, as slots."""
        key = ("open", *_shape_items(tree, self._operands_of(tree), node, calls_open=True))
        return self._shape.setdefault(key, len(self._shape))

    def kinded(self, tree: Tree, node: int) -> int:
        """The symbol of the subtree with its operands as slots that tell a number from an element or a name."""
        key = tuple(_shape_items(tree, self._operands_of(tree), node, kinds_stay=True))
        return self._shape.setdefault(key, len(self._shape))

    def shape(self, tree: Tree, node: int) -> int:
        """The symbol of the subtree with its operands as slots."""
        key = tuple(_shape_items(tree, self._operands_of(tree), node))
        return self._shape.setdefault(key, len(self._shape))


def _shape_items(
    tree: Tree,
    operands: bytearray,
    node: int,
    texts_stay: bool = False,
    kinds_stay: bool = False,
    without_blocks: bool = False,
    calls_open: bool = False,
) -> list[object]:
    items: list[object] = []
    kinds, texts, ends = tree.kind, tree.text, tree.end
    language = tree.language
    position, stop = node, ends[node]
    while position < stop:
        kind = kinds[position]
        if without_blocks and kind in language.blocks:
            items.append(kind)
            position = ends[position]
            continue
        if not operands[position]:
            operands[position] = 1 + is_simple_operand(tree, position, language)
        if position != node and operands[position] == 2:
            kept = texts_stay and kind in language.strings
            items.append(DIGITS.sub("#", texts[position]) if kept else (*SLOT, kind) if kinds_stay else SLOT)
            position = ends[position]
            continue
        if calls_open and kind == language.name and tree.field[position] == language.callee_field:
            items.append(SLOT)
            position += 1
            continue
        items.append(kind)
        if texts[position]:
            items.append(texts[position])
        else:
            items.append(ends[position] - position == 1)
        position += 1
    return items


def is_simple_operand(tree: Tree, node: int, language: Language) -> bool:
    """True for a literal, a variable, a negative number, or an element or field of a variable."""
    kind = tree.kind[node]
    if kind == language.name:
        return _is_variable(tree, node, language)
    if kind in language.strings or kind in language.numbers or kind in language.constants:
        return True
    if kind == "unary_operator":
        return tree.end[node] - node == 3 and tree.kind[node + 2] in language.numbers
    if kind == "subscript" and tree.end[node] - node <= 8:
        return all(
            tree.kind[i] in language.numbers
            or tree.kind[i] in language.strings
            or tree.kind[i] in {language.name, "[", "]", "subscript", "unary_operator", "-"}
            for i in range(node + 1, tree.end[node])
        )
    return False


def _is_variable(tree: Tree, node: int, language: Language) -> bool:
    parent, field = tree.parent[node], tree.field[node]
    kind = tree.kind[parent]
    if kind == language.call and field == language.callee_field:
        return False
    if (kind, field) == language.member or (kind, field) == language.keyword_argument:
        return False
    if kind == language.member[0]:
        return not _is_called(tree, parent, language)
    return kind not in language.imports and kind not in {"dotted_name", "aliased_import"}


def _is_called(tree: Tree, node: int, language: Language) -> bool:
    parent = tree.parent[node]
    return (tree.kind[parent] == language.call and tree.field[node] == language.callee_field) or tree.kind[
        parent
    ] == language.member[0]


def skeleton(file: ProgramFile, statements: list[int]) -> str:
    """What the statements do, in words that stay the same from student to student: their kinds and
    the built-ins and methods they call, in order. Used to tell shared patterns in a class."""
    tree, language = file.tree, file.language
    own = {procedure.name for procedure in file.procedures}
    words: list[str] = []
    for s in statements:
        for node in range(s, tree.end[s]):
            kind = tree.kind[node]
            if kind == language.call:
                name = file.called_name(node)
                words.append("own" if name in own else name)
            elif kind in language.branches or kind in language.clauses or kind.endswith("assignment"):
                words.append(kind.partition("_")[0])
    return " ".join(words)
