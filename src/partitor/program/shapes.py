"""Two symbols for every statement: *exact* (its tokens) and *shape* (operands become slots).

Equal symbols mean equal subtrees without layout and comments. In the shape every simple operand
(a literal, a list of literals, a variable, a negative number, an element or field of a variable) is one slot; called
names, operators, keywords and field names stay. Symbols are interned to small integers that are
shared by all files of one `ShapeTable`.
"""

from __future__ import annotations

import itertools
import re
from bisect import bisect_left, bisect_right
from collections.abc import Iterable, Sequence
from typing import NamedTuple

from ..languages.table import Language
from .members import kept_fields
from .names import WRITES
from .program import ProgramFile
from .tree import CLASS, Tree

SLOT, BLOCK, TOKEN = ("slot",), ("block",), ("token",)
"""What stands in a symbol for a slot, before the kind of a block, before a token that coarser symbols leave out."""
DIGITS = re.compile(r"\d+")


class _Marks(NamedTuple):
    """What to look for in a tree."""

    places: list[int]
    """Nodes that may be slots, operators, called names or blocks, in order."""
    literals: frozenset[str]
    operands: frozenset[str]
    """Kinds of everything that can be a slot."""
    variables: frozenset[str]
    kept: frozenset[str]
    modules: frozenset[str]
    ways: dict[tuple[str, str], bool | None]
    """What is known of names by the kind of the node around them and their field there."""


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
        self._marks: dict[int, _Marks] = {}
        self._texts: dict[int, dict[bytes, int]] = {}
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
            found = known[1][node] = self._as_written_before(tree, node)
        return found

    def _as_written_before(self, tree: Tree, node: int) -> Symbols:
        """The symbols of the same text elsewhere in the file, where it was read in the same way."""
        end, same = tree.end[node], self._texts.setdefault(id(tree), {})
        text = tree.source[tree.start_byte[node] : tree.end_byte[node]]
        other = same.setdefault(text, node)
        if other != node and tree.kind[node:end] == tree.kind[other : tree.end[other]]:
            around, beside = tree.parent[node], tree.parent[other]
            if (tree.kind[around], tree.field[node]) == (tree.kind[beside], tree.field[other]):
                return self.symbols(tree, other)
        return self._look_at(tree, node)

    def _look_at(self, tree: Tree, node: int) -> Symbols:
        """One walk over a subtree down to its blocks, which are looked at statement by statement. The finer and coarser
        symbols are the plain one with other things in some of its places."""
        language, kinds, texts, ends, fields = tree.language, tree.kind, tree.text, tree.end, tree.field
        blocks, strings, numbers, name = language.blocks, language.strings, language.numbers, language.name
        marks = self._marks.get(id(tree)) or self._marks_of(tree)
        places, literals, operands, variables, kept, modules, ways = marks
        member, parents = language.member[0], tree.parent
        plain: list[object] = []
        words: dict[int, object] = {}
        slots: dict[int, object] = {}
        callees: list[int] = []
        signs: dict[int, object] = {}
        inside: list[tuple[int, list[Symbols]]] = []
        """Where a block stands, and its statements' symbols."""
        since, stop = node, ends[node]
        """What stands from `since` on up to the next place of note is taken as it is, all at once."""
        k = (bisect_left if language.values_everywhere else bisect_right)(places, node)
        most = len(places)
        while k < most:
            position = places[k]
            if position >= stop:
                break
            k += 1
            if position < since:
                continue
            kind, text = kinds[position], texts[position]
            if kind in blocks:
                if position == node:
                    continue
                plain += (*kinds[since:position], *texts[since:position], BLOCK, kind)
                inside.append((len(plain), [self.symbols(tree, child) for child in tree.children(position)]))
                since = ends[position]
                k = bisect_left(places, since, k)
                continue
            if kind == name:
                place = kinds[parents[position]], fields[position]
                if place not in ways:
                    ways[place] = _is_variable_there(language, *place)
                slot = ways[place]
                if slot is None:
                    slot = (text in variables and place[1] == "object") or _is_variable(tree, position, language)
            else:
                slot = kind in literals or (
                    kind in operands
                    and (
                        is_simple_operand(tree, position, language)
                        or (kind == member and _is_plain_field(tree, position, variables, kept))
                    )
                )
            if slot:
                if since < position:
                    plain += kinds[since:position]
                    plain += texts[since:position]
                plain.append(SLOT)
                slots[len(plain)] = "number" if kind in numbers else kind
                if kind in strings:
                    words[len(plain)] = _words_of(text)
                since = ends[position]
            elif kind == name:
                if _is_callee_name(tree, position, modules):
                    callees.append(len(plain) + 2 * (position - since) + 1)
                    plain += (*kinds[since:position], *texts[since:position], TOKEN, text)
                    since = position + 1
            elif text in OPERATORS:
                plain += (*kinds[since:position], *texts[since:position], TOKEN, text)
                signs[len(plain) - 1] = OPERATORS[text]
                since = position + 1
        plain += kinds[since:stop]
        plain += texts[since:stop]
        opened = _with(plain, dict.fromkeys(callees, SLOT)) if language.functions_are_values else plain
        blunt = _with(plain, signs)
        # What is finer than the plain symbol is the plain one and what stands in its slots.
        number = self._number
        shape = number(None, plain)
        worded = number("worded", (shape, *words.items())) if words else shape
        kinded = number("kinded", (shape, *slots.values())) if slots else shape
        open_calls = shape if opened is plain else number("open", opened)
        bluntly = shape if blunt is plain else number("blunt", blunt)
        if not inside:
            return Symbols(shape, worded, kinded, open_calls, bluntly, shape, worded)
        return Symbols(
            number("around", (shape, *((at, *[s.shape for s in found]) for at, found in inside))),
            number("around", (worded, *((at, *[s.worded for s in found]) for at, found in inside))),
            number("kinded", (kinded, *((at, *[s.kinded for s in found]) for at, found in inside))),
            number("open", (open_calls, *((at, *[s.open_calls for s in found]) for at, found in inside))),
            number("blunt", (bluntly, *((at, *[s.blunt for s in found]) for at, found in inside))),
            shape,
            worded,
        )

    def _marks_of(self, tree: Tree) -> _Marks:
        language, kinds, texts = tree.language, tree.kind, tree.text
        literals = language.strings | language.numbers | language.constants
        operands = literals | {language.name, language.member[0], "unary_operator", "list", "subscript", CLASS}
        noted = operands | language.blocks
        places = [i for i, kind in enumerate(kinds) if kind in noted or texts[i] in OPERATORS]
        variables, kept, modules = (
            known.get(id(tree), frozenset()) for known in (self._variables, self._kept, self._modules)
        )
        found = _Marks(places, literals, operands, variables, kept, modules, {})
        self._marks[id(tree)] = found
        return found

    def _number(self, sort: str | None, key: Sequence[object]) -> int:
        known = self._shape
        return known.setdefault((sort, *key), len(known))


def _is_callee_name(tree: Tree, node: int, modules: frozenset[str]) -> bool:
    """True for the plain name of a function that is called there, or one of a module of the library."""
    callee, held = tree.language.callee_field, tree.parent[node]
    if tree.field[node] == callee:
        return True
    if not modules or (tree.kind[held], tree.field[node]) != tree.language.member:
        return False
    return tree.field[held] == callee and tree.text[held + 1] in modules


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


ROWS_OF_SIGNS = re.compile(r"""(["'])([^\w"'`\\{}%$~]*[^\s\w"'`\\{}%$~][^\w"'`\\{}%$~]*)\1""")
"""A text of nothing but signs, of which a picture is drawn line by line."""


def _words_of(text: str) -> str:
    """A text without its numbers, and without how often it has its signs."""
    grown = SAME_SIGNS.fullmatch(text)
    if grown:
        return f"{grown[3]}+{grown[4]}"
    drawn = ROWS_OF_SIGNS.fullmatch(text)
    return "".join(k for k, _ in itertools.groupby(drawn[2].strip())) + "+" if drawn else DIGITS.sub("#", text)


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
    parent = tree.parent[node]
    known = _is_variable_there(language, tree.kind[parent], tree.field[node])
    return not _is_called(tree, parent, language) if known is None else known


def _is_variable_there(language: Language, around: str, field: str) -> bool | None:
    """True for a name in this field of a node of this kind that is a variable; None where more must be looked at."""
    if around == language.call and field == language.callee_field:
        return False
    if (around, field) == language.member or (around, field) == language.keyword_argument:
        return False
    if around == language.member[0]:
        return None
    return around not in language.imports and around not in {"dotted_name", "aliased_import"}


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
