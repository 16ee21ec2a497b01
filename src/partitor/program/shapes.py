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
from collections import defaultdict
from collections.abc import Hashable, Iterable, Sequence
from typing import Final, TypeVar

from ..languages.table import Language
from .members import kept_fields
from .names import WRITES
from .program import ProgramFile
from .tree import CLASS, Tree

DIGITS = re.compile(r"\d+")
SLOT = 0
"""The number that stands in a symbol for a slot."""


BLOCK, NAME, LITERAL, OPERAND, OPERATOR = range(5)
"""What a token or a node may be in a symbol."""


Key = TypeVar("Key", bound=Hashable)


def _numbers() -> defaultdict[Key, int]:
    """Numbers things as they come, from one on."""
    return defaultdict(itertools.count(1).__next__)


class _Coded:
    """A tree's nodes as numbers: equal numbers for equal kinds and texts, and one for all slots. What is inside a slot
    has none."""

    def __init__(
        self,
        exact: list[int],
        at: list[int],
        plain: list[int],
        open_calls: list[int],
        blunt: list[int],
        blocks: list[int],
        slots: list[int],
        kinds: list[str],
        words: list[str | None],
    ) -> None:
        self.exact: Final = exact
        """A number for each node, slot or not."""
        self.at: Final = at
        """Where each node, and the end, stands in the lists that follow; empty where it stands at its own place."""
        self.plain: Final = plain
        self.open_calls: Final = open_calls
        """With slots for the names of functions that are called, where functions are values like others."""
        self.blunt: Final = blunt
        """With one number for operators of one sort."""
        self.blocks: Final = blocks
        """The nodes that are blocks."""
        self.slots: Final = slots
        """The nodes that are slots, in order; of each the kind, numbers as one, and the words where it is a text."""
        self.kinds: Final = kinds
        self.words: Final = words
        self.held: Final = frozenset(slots)
        """The slots, to look one up."""


class _Part:
    """What stands in a subtree outside of its blocks: plain, with open calls, bluntly; the slots' kinds and words."""

    def __init__(self, coded: _Coded, start: int, stop: int) -> None:
        """What stands from one node up to another."""
        first, last = (coded.at[start], coded.at[stop]) if coded.at else (start, stop)
        low = bisect_left(coded.slots, start)
        high = bisect_left(coded.slots, stop, low)
        self.plain = coded.plain[first:last]
        self.open_calls = self.plain if coded.open_calls is coded.plain else coded.open_calls[first:last]
        self.blunt = coded.blunt[first:last]
        self.kinds = coded.kinds[low:high]
        self.words = coded.words[low:high]

    def add(self, other: _Part) -> None:
        """Add what stands further on."""
        same = self.open_calls is self.plain
        self.plain += other.plain
        if not same:
            self.open_calls += other.open_calls
        self.blunt += other.blunt
        self.kinds += other.kinds
        self.words += other.words


class Symbols:
    """A subtree's symbols, finer or coarser; `alone` and `alone_worded` without the blocks inside it."""

    def __init__(
        self, shape: int, worded: int, kinded: int, open_calls: int, blunt: int, alone: int, alone_worded: int
    ) -> None:
        self.shape: Final = shape
        self.worded: Final = worded
        """Texts keep their words."""
        self.kinded: Final = kinded
        """Slots tell a number from an element or a name."""
        self.open_calls: Final = open_calls
        """The names of plain functions that it calls are slots too."""
        self.blunt: Final = blunt
        """Operators of one sort are the same."""
        self.alone: Final = alone
        self.alone_worded: Final = alone_worded


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
        self._tokens: defaultdict[tuple[str, str], int] = _numbers()
        self._numbers: defaultdict[tuple[object, ...], int] = _numbers()
        self._parts: dict[str, dict[int, int]] = {}
        self._seen: dict[str, int] = {}
        self._known: dict[int, tuple[Tree, _Coded, dict[int, Symbols]]] = {}

    def exact(self, tree: Tree, node: int) -> int:
        """The symbol of the subtree token for token (parentheses and layout of commas included)."""
        coded = self._of(tree)[1]
        return self._numbers["exact", *coded.exact[node : tree.end[node]]]

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
        of_tree = self._known.get(id(tree)) or self._of(tree)
        found = of_tree[2].get(node)
        if found is None:
            found = of_tree[2][node] = self._look_at(tree, of_tree[1], node)
        return found

    def _of(self, tree: Tree) -> tuple[Tree, _Coded, dict[int, Symbols]]:
        known = self._known.get(id(tree))
        if known is None:
            known = self._known[id(tree)] = (tree, self._code(tree), {})
        return known

    def _look_at(self, tree: Tree, coded: _Coded, node: int) -> Symbols:
        """A subtree down to its blocks, which are looked at statement by statement. The finer and coarser symbols are
        the plain one with other things in some of its places."""
        number, ends, blocks = self._numbers, tree.end, coded.blocks
        stop = ends[node]
        if node in coded.held and not tree.language.values_everywhere:
            # A value by itself is what it is, one that is made of others of its kind and size.
            itself = number["value", coded.exact[node], stop - node]
            return Symbols(itself, itself, itself, itself, itself, itself, itself)
        k = bisect_right(blocks, node)
        if k == len(blocks) or blocks[k] >= stop:
            return self._by_itself(_Part(coded, node, stop))
        shapes: list[tuple[int, ...]] = []
        wordeds: list[tuple[int, ...]] = []
        kindeds: list[tuple[int, ...]] = []
        opens: list[tuple[int, ...]] = []
        blunts: list[tuple[int, ...]] = []
        block = blocks[k]
        around = _Part(coded, node, block + 1)
        while True:
            inside = [self.symbols(tree, child) for child in tree.parts(block)]
            shapes.append(tuple([found.shape for found in inside]))
            wordeds.append(tuple([found.worded for found in inside]))
            kindeds.append(tuple([found.kinded for found in inside]))
            opens.append(tuple([found.open_calls for found in inside]))
            blunts.append(tuple([found.blunt for found in inside]))
            since = ends[block]
            k = bisect_left(blocks, since, k)
            if k == len(blocks) or blocks[k] >= stop:
                break
            block = blocks[k]
            around.add(_Part(coded, since, block + 1))
        if since < stop:
            around.add(_Part(coded, since, stop))
        own = self._by_itself(around)
        shape = number["around", own.shape, tuple(shapes)]
        plain = (own.shape, shapes, shape)
        worded = self._around("around", own.worded, wordeds, *plain)
        kinded = self._around("kinded", own.kinded, kindeds, *plain)
        opened = self._around("open", own.open_calls, opens, *plain)
        blunt = self._around("blunt", own.blunt, blunts, *plain)
        return Symbols(shape, worded, kinded, opened, blunt, own.shape, own.worded)

    def _around(
        self,
        sort: str,
        outside: int,
        inside: list[tuple[int, ...]],
        plain_outside: int,
        plain_inside: list[tuple[int, ...]],
        plain: int,
    ) -> int:
        """The symbol of one sort for what stands around blocks, and in them: the plain one where nothing differs."""
        if outside == plain_outside and inside == plain_inside:
            return plain
        return self._numbers[sort, outside, tuple(inside)]

    def _by_itself(self, part: _Part) -> Symbols:
        """The symbols of what has no block inside. What is finer than the plain symbol is the plain one and what stands
        in its slots."""
        number = self._numbers
        shape = number[tuple(part.plain)]
        worded = kinded = open_calls = blunt = shape
        if part.kinds:
            kinded = number["kinded", shape, *part.kinds]
            if any(part.words):
                worded = number["worded", shape, *part.words]
        if part.open_calls is not part.plain and part.open_calls != part.plain:
            open_calls = number["open", *part.open_calls]
        if part.blunt != part.plain:
            blunt = number["blunt", *part.blunt]
        return Symbols(shape, worded, kinded, open_calls, blunt, shape, worded)

    def _code(self, tree: Tree) -> _Coded:
        """One walk over what may be a slot, an operator, a called name or a block."""
        language, kinds, texts, ends = tree.language, tree.kind, tree.text, tree.end
        fields, parents, strings, numbers = tree.field, tree.parent, language.strings, language.numbers
        variables, kept, modules = (
            known.get(id(tree), frozenset()) for known in (self._variables, self._kept, self._modules)
        )
        exact = list(map(self._tokens.__getitem__, zip(kinds, texts, strict=True)))
        plain, blunt = exact.copy(), exact.copy()
        opened = exact.copy() if language.functions_are_values else plain
        ways: dict[tuple[str, str], bool | None] = {}
        """What is known of names by the kind of the node around them and their field there."""
        blocks: list[int] = []
        slots: list[int] = []
        slot_kinds: list[str] = []
        words: list[str | None] = []
        larger: list[int] = []
        since, parts = 0, self._parts_of_speech(language)
        for node in [i for i, number in enumerate(exact) if number in parts]:
            if node < since:
                continue
            part = parts[exact[node]]
            if part == NAME:
                place = kinds[parents[node]], fields[node]
                if place not in ways:
                    ways[place] = _is_variable_there(language, *place)
                slot = ways[place]
                if slot is None:
                    slot = (texts[node] in variables and place[1] == "object") or _is_variable(tree, node, language)
                if not slot:
                    if opened is not plain and _is_callee_name(tree, node, modules):
                        opened[node] = SLOT
                    continue
            elif part == BLOCK:
                blocks.append(node)
                continue
            elif part == OPERATOR:
                blunt[node] = self._tokens["", OPERATORS[texts[node]]]
                continue
            elif part == OPERAND and not (
                is_simple_operand(tree, node, language)
                or (kinds[node] == language.member[0] and _is_plain_field(tree, node, variables, kept))
            ):
                continue
            mark = SLOT if kinds[node] not in ASKED else self._tokens["", "collection"]
            plain[node] = blunt[node] = opened[node] = mark
            kind = kinds[node]
            slots.append(node)
            slot_kinds.append("number" if kind in numbers else kind)
            words.append(_words_of(texts[node]) if kind in strings else None)
            since = ends[node]
            if since > node + 1:
                larger.append(node)
        at: list[int] = []
        if larger:
            at = _places_without(larger, ends, len(kinds))
            same = opened is plain
            plain, blunt = _without(larger, ends, plain), _without(larger, ends, blunt)
            opened = plain if same else _without(larger, ends, opened)
        return _Coded(exact, at, plain, opened, blunt, blocks, slots, slot_kinds, words)

    def _parts_of_speech(self, language: Language) -> dict[int, int]:
        """What each token known so far is in this language, by its number; the others are only themselves."""
        parts = self._parts.setdefault(language.id, {})
        literals = language.strings | language.numbers | language.constants
        operands = {language.member[0], "unary_operator", *COLLECTIONS, "subscript", CLASS}
        seen = self._seen.get(language.id, 0)
        for token, number in itertools.islice(self._tokens.items(), seen, None):
            kind, text = token
            if kind in language.blocks:
                parts[number] = BLOCK
            elif kind == language.name:
                parts[number] = NAME
            elif kind in literals:
                parts[number] = LITERAL
            elif kind in operands:
                parts[number] = OPERAND
            elif text in OPERATORS:
                parts[number] = OPERATOR
        self._seen[language.id] = len(self._tokens)
        return parts


def _places_without(larger: Sequence[int], ends: Sequence[int], count: int) -> list[int]:
    """For each of `count` nodes, and the end, where it stands once what is inside the `larger` ones is left out."""
    places: list[int] = []
    left_out = 0
    for node in larger:
        places += range(len(places) - left_out, node + 1 - left_out)
        inside = ends[node] - node - 1
        left_out += inside
        places += [node + 1 - (left_out - inside)] * inside
    return [*places, *range(len(places) - left_out, count + 1 - left_out)]


def _without(larger: Sequence[int], ends: Sequence[int], codes: Sequence[int]) -> list[int]:
    """The numbers of the nodes but for those inside the `larger` ones."""
    kept: list[int] = []
    since = 0
    for node in larger:
        kept += codes[since : node + 1]
        since = ends[node]
    return [*kept, *codes[since:]]


def _is_callee_name(tree: Tree, node: int, modules: frozenset[str]) -> bool:
    """True for the plain name of a function that is called there, or one of a module of the library."""
    callee, held = tree.language.callee_field, tree.parent[node]
    if tree.field[node] == callee:
        return True
    if not modules or (tree.kind[held], tree.field[node]) != tree.language.member:
        return False
    return tree.field[held] == callee and tree.text[held + 1] in modules


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
    if kind in COLLECTIONS:
        return is_plain_collection(tree, node)
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
    return tree.kind[node] == "list" and _holds_literals(tree, node)


COLLECTIONS = frozenset({"list", "tuple", "set"})
ASKED = COLLECTIONS - {"list"}
"""What stands for nothing but others like it."""


def is_plain_collection(tree: Tree, node: int) -> bool:
    """True for a list of numbers and texts, and for what is written otherwise and is asked like one what is in it, or
    run through: `in ("p", "b")`."""
    asked = tree.kind[node] == "list" or tree.text[node - 1] == "in"
    return asked and _holds_literals(tree, node)


def _holds_literals(tree: Tree, node: int) -> bool:
    literal = tree.language.numbers | tree.language.strings
    marks = {"[", "]", "{", "}", "(", ")", ",", "-"}
    inside = range(node + 1, tree.end[node])
    return all(tree.kind[i] in literal or tree.text[i] in marks or tree.kind[i] == "unary_operator" for i in inside)


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
    if tree.text[node]:
        return False
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
