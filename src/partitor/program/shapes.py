"""Two symbols for every statement: *exact* (its tokens) and *shape* (operands become slots).

Equal symbols mean equal subtrees without layout and comments. In the shape every simple operand
(a literal, a list of literals, a variable, a negative number, an element or field of a variable) is one slot; called
names, operators, keywords and field names stay. Symbols are interned to small integers that are
shared by all files of one `ShapeTable`.
"""

from __future__ import annotations

import re
from collections.abc import Iterable
from typing import NamedTuple

from ..languages.table import Language
from .members import kept_fields
from .names import WRITES
from .program import ProgramFile
from .tree import CLASS, Tree

SLOT = ("slot",)
DIGITS = re.compile(r"\d+")


class Symbols(NamedTuple):
    """A subtree's symbols, finer or coarser; `alone` and `alone_worded` without the blocks inside it."""

    shape: int
    worded: int
    """Texts keep their words."""
    kinded: int
    """Slots tell a number from an element or a name."""
    open_calls: int
    """The names of plain functions that it calls are slots too."""
    blunt: int
    """Operators of one sort are the same."""
    alone: int
    alone_worded: int


OPERATORS = {
    **dict.fromkeys(["<", ">", "<=", ">=", "==", "!=", "===", "!=="], "compared"),
    **dict.fromkeys(["+", "-", "*", "/"], "reckoned"),
    **dict.fromkeys(["+=", "-=", "*=", "/="], "changed"),
    **dict.fromkeys(["++", "--"], "counted"),
}
"""What sort of operator each is."""


class ShapeTable:
    """Interns subtrees of any number of files into integers; equal integer ⇔ equal symbol. Every subtree is
    looked at once: what stands around a block holds the symbols of the block's statements."""

    def __init__(self, files: Iterable[ProgramFile] = ()) -> None:
        files = list(files)
        self._variables = {id(file.tree): variables_of(file) for file in files}
        self._kept = {id(file.tree): kept_fields(file) for file in files}
        self._modules = {id(file.tree): file.library_modules for file in files}
        self._exact: dict[object, int] = {}
        self._shape: dict[object, int] = {}
        self._known: dict[int, tuple[Tree, dict[int, Symbols]]] = {}

    def exact(self, tree: Tree, node: int) -> int:
        """The symbol of the subtree token for token (parentheses and layout of commas included)."""
        end = tree.end[node]
        key = (tuple(tree.kind[node:end]), tuple(tree.text[node:end]))
        return self._exact.setdefault(key, len(self._exact))

    def worded(self, tree: Tree, node: int) -> int:
        """The symbol of the subtree with its operands as slots, but for texts, which keep their words."""
        return self.symbols(tree, node).worded

    def alone(self, tree: Tree, node: int, texts_stay: bool = False) -> int:
        """The symbol of a statement without the blocks inside it."""
        found = self.symbols(tree, node)
        return found.alone_worded if texts_stay else found.alone

    def open_calls(self, tree: Tree, node: int) -> int:
        """The symbol of the subtree with its operands, and the names of plain functions that it calls, as slots."""
        return self.symbols(tree, node).open_calls

    def kinded(self, tree: Tree, node: int) -> int:
        """The symbol of the subtree with its operands as slots that tell a number from an element or a name."""
        return self.symbols(tree, node).kinded

    def shape(self, tree: Tree, node: int) -> int:
        """The symbol of the subtree with its operands as slots."""
        return self.symbols(tree, node).shape

    def symbols(self, tree: Tree, node: int) -> Symbols:
        """All symbols of a subtree."""
        known = self._known.get(id(tree))
        if known is None:
            known = self._known[id(tree)] = (tree, {})
        found = known[1].get(node)
        if found is None:
            found = known[1][node] = self._look_at(tree, node)
        return found

    def _look_at(self, tree: Tree, node: int) -> Symbols:
        """One walk over a subtree down to its blocks, which are looked at statement by statement. The finer and coarser
        symbols are the plain one with other things in some of its places."""
        plain: list[object] = []
        words: dict[int, object] = {}
        slots: dict[int, object] = {}
        callees: list[int] = []
        signs: dict[int, object] = {}
        kinds, texts, ends, fields = tree.kind, tree.text, tree.end, tree.field
        language = tree.language
        blocks, strings, name, callee = language.blocks, language.strings, language.name, language.callee_field
        numbers = language.numbers
        literals = strings | numbers | language.constants
        operands = literals | {name, language.member[0], "unary_operator", "list", "subscript", CLASS}
        first = -1 if language.values_everywhere else node
        variables = self._variables.get(id(tree), frozenset())
        kept = self._kept.get(id(tree), frozenset())
        modules = self._modules.get(id(tree), frozenset())
        inside: list[tuple[int, list[Symbols]]] = []
        """Where a block stands, and its statements' symbols."""
        position, stop = node, ends[node]
        while position < stop:
            kind, text = kinds[position], texts[position]
            if kind in blocks and position != node:
                inside.append((len(plain), [self.symbols(tree, child) for child in tree.children(position)]))
                plain.append(kind)
                position = ends[position]
            elif (kind in operands and position != first) and (
                kind in literals
                or is_simple_operand(tree, position, language)
                or (kind == name and text in variables and fields[position] == "object")
                or (kind == language.member[0] and _is_plain_field(tree, position, variables, kept))
            ):
                slots[len(plain)] = "number" if kind in numbers else kind
                if kind in strings:
                    words[len(plain)] = _words_of(text)
                plain.append(SLOT)
                position = ends[position]
            elif text:
                if kind == name and fields[position] == callee:
                    callees.append(len(plain) + 1)
                elif modules and (kinds[tree.parent[position]], fields[position]) == language.member:
                    held = tree.parent[position]
                    if fields[held] == callee and texts[held + 1] in modules:
                        callees.append(len(plain) + 1)
                elif text in OPERATORS:
                    signs[len(plain)] = signs[len(plain) + 1] = OPERATORS[text]
                plain += (kind, text)
                position += 1
            else:
                plain += (kind, ends[position] - position == 1)
                position += 1
        worded, kinded = _with(plain, words), _with(plain, slots)
        opened = _with(plain, dict.fromkeys(callees, SLOT)) if language.functions_are_values else plain
        blunt = _with(plain, signs)
        shape, worded_shape = self._number(plain, None), self._number(worded, None if worded is plain else "worded")
        if not inside:
            return Symbols(
                shape,
                worded_shape,
                self._number(kinded, "kinded"),
                shape if opened is plain else self._number(opened, "open"),
                shape if blunt is plain else self._number(blunt, "blunt"),
                shape,
                worded_shape,
            )
        return Symbols(
            self._number([*plain, *((at, *(s.shape for s in found)) for at, found in inside)], "around"),
            self._number([*worded, *((at, *(s.worded for s in found)) for at, found in inside)], "around"),
            self._number([*kinded, *((at, *(s.kinded for s in found)) for at, found in inside)], "kinded"),
            self._number([*opened, *((at, *(s.open_calls for s in found)) for at, found in inside)], "open"),
            self._number([*blunt, *((at, *(s.blunt for s in found)) for at, found in inside)], "blunt"),
            shape,
            worded_shape,
        )

    def _number(self, key: list[object], sort: str | None) -> int:
        return self._shape.setdefault((sort, *key), len(self._shape))


def _with(plain: list[object], others: dict[int, object]) -> list[object]:
    """A symbol with other things in some places; itself where there are none."""
    if not others:
        return plain
    changed = plain.copy()
    for place, other in others.items():
        changed[place] = other
    return changed


SAME_SIGNS = re.compile(r"""(["'])(([^"'`\\{}%$~])\3*)((?:\\n)?)\1""")
"""A text of one sign, once or more, and perhaps the end of a line."""


def _words_of(text: str) -> str:
    """A text without its numbers, and without how often it has its one sign."""
    grown = SAME_SIGNS.fullmatch(text)
    return f"{grown[3]}+{grown[4]}" if grown else DIGITS.sub("#", text)


def given_value(tree: Tree, statement: int, for_good: bool = False) -> tuple[int, int] | None:
    """(variable, value) of a statement that gives one plain variable a value, by `=` or where it is declared; also
    one that it keeps `for_good` where asked for."""
    kind = tree.kind[statement]
    part = statement
    if kind == "declaration":
        declarators = [c for c in tree.children(statement) if tree.kind[c] == "declarator"]
        kept = KEPT - {"const"} if for_good else KEPT
        if len(declarators) != 1 or kept & set(tree.text[statement : declarators[0]]):
            return None
        part = declarators[0]
    elif kind != "assignment":
        return None
    left, right = tree.child(part, "left"), tree.child(part, "right")
    if left is None or right is None or tree.kind[left] != tree.language.name:
        return None
    return (left, right) if tree.text[right - 1] == "=" else None


KEPT = frozenset({"static", "const", "final", "readonly", "volatile", "register", "extern"})
"""Words of variables that are given a value once, or that last longer than the statements around them."""


def variables_of(file: ProgramFile) -> frozenset[str]:
    """Names that the file's own statements and parameters give values to, and nothing else."""
    tree, names, language = file.tree, file.names, file.language
    defining = language.procedures | language.classes | language.imports | {"dotted_name", "aliased_import"}
    written = [i for i in names.nodes if names.role[i] in WRITES]
    others = {tree.text[i] for i in written if tree.kind[tree.parent[i]] in defining}
    return frozenset(tree.text[i] for i in written) - others


def is_simple_operand(tree: Tree, node: int, language: Language) -> bool:
    """True for a literal, a list of literals, a variable, a negative number, or an element of a variable."""
    kind = tree.kind[node]
    if kind == language.name:
        return _is_variable(tree, node, language)
    if kind in language.strings or kind in language.numbers or kind in language.constants or kind == CLASS:
        return True
    if kind == "unary_operator":
        return tree.end[node] - node == 3 and tree.kind[node + 2] in language.numbers
    if kind == "list":
        return is_plain_list(tree, node)
    if kind == "subscript" and tree.end[node] - node <= 8:
        return all(
            tree.kind[i] in language.numbers
            or tree.kind[i] in language.strings
            or tree.kind[i] in {language.name, "[", "]", "subscript", "unary_operator", "-"}
            for i in range(node + 1, tree.end[node])
        )
    return False


def is_plain_list(tree: Tree, node: int) -> bool:
    """True for a list of numbers and texts, of any length."""
    literal = tree.language.numbers | tree.language.strings
    marks = {"[", "]", "{", "}", ",", "-"}
    inside = range(node + 1, tree.end[node])
    return tree.kind[node] == "list" and all(
        tree.kind[i] in literal or tree.text[i] in marks or tree.kind[i] == "unary_operator" for i in inside
    )


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


OWN_OBJECT = frozenset({"self", "this", "super", "base"})
"""What a method calls the object that it belongs to: its fields are no values that someone else could give it."""


def _is_plain_field(tree: Tree, node: int, variables: frozenset[str], kept: frozenset[str]) -> bool:
    """True for a field of a plain name that is read there, not given a value and not called; of a method's own object
    for one that it has kept since it was made, also where it is made."""
    held, language = node + 1, tree.language
    given = tree.field[node] == "left" and tree.kind[tree.parent[node]] in {"assignment", "augmented_assignment"}
    if kept and tree.text[held] == language.own_object and tree.text[tree.end[node] - 1] in kept:
        value = tree.child(tree.parent[node], "right") if given else None
        return not _is_callee(tree, node, language) and (
            not given or (value is not None and tree.kind[value] == language.call)
        )
    if given or tree.kind[held] != language.name or tree.text[held] in OWN_OBJECT:
        return False
    return tree.text[held] in variables or not _is_called(tree, node, language)


def _is_called(tree: Tree, node: int, language: Language) -> bool:
    return _is_callee(tree, node, language) or tree.kind[tree.parent[node]] == language.member[0]


def _is_callee(tree: Tree, node: int, language: Language) -> bool:
    return tree.kind[tree.parent[node]] == language.call and tree.field[node] == language.callee_field


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
