"""What differs between copies: anti-unification, and the table of slots it leaves.

The least general template of aligned copies after Plotkin, "A note on inductive generalization"
(1970): walk the copies' trees together; where they agree the template agrees, where they differ
the smallest enclosing expression becomes a slot with one value a copy. Linear in the copies' size.
"""

from __future__ import annotations

import itertools
import re
from collections.abc import Sequence

import msgspec

from ..program.names import WRITES, Role
from ..program.program import ProgramFile
from ..program.shapes import SAME_SIGNS, given_value, is_plain_list
from ..program.streams import is_streamed
from ..program.tree import Tree

NUMBERED = re.compile(r"([A-Za-z_]\w*?)_?(\d{1,3})")
CODED = re.compile(r"\\[0-9xuUN]")
"""Characters written by their number, whose digits are no numbers."""


class Copy(msgspec.Struct, frozen=True, eq=False):
    """Consecutive statements of one block in one file; where copies were brought to one order, the
    statements stand in that order, not in the text's."""

    file: ProgramFile
    statements: tuple[int, ...]

    @property
    def first(self) -> int:
        """The statement that stands first in the text."""
        return min(self.statements)

    @property
    def last(self) -> int:
        """The statement that stands last in the text."""
        return max(self.statements)

    @property
    def is_reordered(self) -> bool:
        """True where the statements do not stand in the text's order."""
        return any(a > b for a, b in itertools.pairwise(self.statements))

    @property
    def start_line(self) -> int:
        """1-based."""
        return self.file.tree.start_line(self.first)

    @property
    def end_line(self) -> int:
        """1-based, included."""
        return self.file.tree.end_line(self.last)

    @property
    def span(self) -> tuple[int, int]:
        """Node range, end not included."""
        return self.first, self.file.tree.end[self.last]


class Spot(msgspec.Struct, frozen=True):
    """Where a column's value stands in each copy: node by copy, and which number inside a string."""

    nodes: tuple[int, ...]
    group: int = -1
    """-1: the whole node; else the index into the parts of the string split at its digits."""
    before: str = ""
    """What stands before the value in the words of a text with gaps, the same in all copies; `after`: behind it."""
    after: str = ""
    repeated: str = ""
    """A text literal that the value tells how often to write, one behind the other."""
    in_format: bool = False
    """The text says how other values are printed; a value can be put into it in their way."""
    place: int = 0
    """How many values such a text prints before this one."""

    def around(self, value: str) -> str:
        """The words of a text with gaps that stand in all copies, with `value` between them."""
        return self.before + value + self.after


class Column(msgspec.Struct, frozen=True, kw_only=True):
    """One thing that differs: its values by copy and all spots where it stands."""

    values: tuple[str, ...]
    spots: tuple[Spot, ...]
    numbers: tuple[int, ...] | None = None
    """The values as integers where they all are."""
    is_target: bool = False
    """The column is a variable's name that the copies assign to."""
    is_name: bool = False

    is_called: bool = False
    """The values are names of functions that the copies call there."""
    is_field: bool = False
    """The values are names of fields of the object to which a method belongs."""
    is_bare_list: bool = False
    """A list that the language only takes where a variable is declared, not as a value."""

    def step(self) -> int | None:
        """The common difference where the numbers step evenly, else None."""
        numbers = self.numbers
        if numbers is None or len(numbers) < 2:
            return None
        step = numbers[1] - numbers[0]
        even = all(b - a == step for a, b in itertools.pairwise(numbers))
        return step if even and step else None

    @property
    def is_family(self) -> bool:
        """Variables that are told apart by a number that counts up: `gate1`, `gate2`, `gate3`."""
        parts = [NUMBERED.fullmatch(value) for value in self.values]
        found = [part for part in parts if part]
        if not self.is_name or len(found) != len(self.values) or len({part[1] for part in found}) != 1:
            return False
        numbers = [int(part[2]) for part in found]
        return all(b - a == 1 for a, b in itertools.pairwise(numbers))


class Derived(msgspec.Struct, frozen=True, eq=False):
    """A text that differs only by holding what differs elsewhere: `"you bought rope"` beside `"rope"`."""

    column: Column
    base: Column
    before: str
    after: str


class Table(msgspec.Struct, frozen=True, eq=False):
    """The copies and the columns in which they differ, in the order of the first copy's text."""

    copies: tuple[Copy, ...]
    columns: tuple[Column, ...]
    constant_tokens: int
    """Names, values and operators that are the same in all copies."""
    derived: tuple[Derived, ...] = ()
    """Further columns, that follow from these."""

    @property
    def all_columns(self) -> tuple[Column, ...]:
        """Everything that differs."""
        return (*self.columns, *(d.column for d in self.derived))


def common_tokens(copies: Sequence[Copy], renamed_too: bool) -> int:
    """Names, values and operators that are the same in all copies, or where asked for may be the same variable under
    other names; 0 where they are no copies of one template."""
    walk = _Walk(copies)
    alike = all(walk.match(nodes) for nodes in zip(*(copy.statements for copy in copies), strict=True))
    if not alike or not renamed_too:
        return walk.constant if alike else 0
    name = copies[0].file.language.name
    renamed = [
        tuple(t.text[n] for t, n in zip(walk.trees, nodes, strict=True))
        for nodes in walk.slots
        if all(t.kind[n] == name for t, n in zip(walk.trees, nodes, strict=True))
    ]
    return walk.constant + len(renamed) - len(set(renamed))


def compare(copies: Sequence[Copy], open_calls: bool = False, open_fields: bool = False) -> Table | None:
    """The slot table of aligned copies; None where they are no copies of one template. With `open_calls` the plain
    functions that they call may differ too, with `open_fields` the fields of their own object."""
    walk = _Walk(copies, open_calls, open_fields)
    for statements in zip(*(copy.statements for copy in copies), strict=True):
        if not walk.match(statements):
            return None
    columns = _merge([c for nodes in walk.slots for c in _columns_of(copies, nodes)])
    derived = _derived(columns) if copies[0].file.language.texts_take_texts else []
    following = {id(d.column) for d in derived}
    return Table(tuple(copies), tuple(c for c in columns if id(c) not in following), walk.constant, tuple(derived))


PLAIN_TEXT = re.compile(r"""(["'])([^"'`\\{}%$~]*)\1""")


def _derived(columns: Sequence[Column]) -> list[Derived]:
    """Text columns whose values hold another text column's, with the same words around them in all copies."""
    texts: list[tuple[Column, list[str]]] = []
    for column in columns:
        parts = [PLAIN_TEXT.fullmatch(value) for value in column.values]
        found = [part[2] for part in parts if part]
        if len(found) == len(parts) and all(spot.group < 0 for spot in column.spots) and not column.is_target:
            texts.append((column, found))
    texts.sort(key=lambda t: len(t[1][0]))
    bases: list[tuple[Column, list[str]]] = []
    derived: list[Derived] = []
    for column, values in texts:
        for base, inner in bases:
            at = values[0].find(inner[0])
            before, after = values[0][: max(at, 0)], values[0][at + len(inner[0]) :]
            held = [f"{before}{v}{after}" for v in inner]
            if at >= 0 and len(inner[0]) > 1 and (before + after).strip() and held == values:
                derived.append(Derived(column, base, before, after))
                break
        else:
            bases.append((column, values))
    return derived


def _words_before(file: ProgramFile) -> list[int]:
    """For each node, and the end, how many names, values and texts stand before it in the file."""
    if "words before" not in file.derived:
        found = (bool(text) and (text[0].isalnum() or text[0] in "\"'_") for text in file.tree.text)
        file.derived["words before"] = [0, *itertools.accumulate(found)]
    known = file.derived["words before"]
    assert isinstance(known, list)
    return known


def given_back(tree: Tree, statement: int) -> int | None:
    """The one value that a statement returns, or gives a plain variable; None for any other statement."""
    if tree.kind[statement] == tree.language.returning:
        values = [c for c in tree.children(statement) if tree.text[c] not in {"return", ";"}]
        return values[0] if len(values) == 1 else None
    given = given_value(tree, statement, for_good=True)
    return given[1] if given else None


class _Walk:
    def __init__(self, copies: Sequence[Copy], open_calls: bool = False, open_fields: bool = False) -> None:
        self.open_calls = open_calls
        self.open_fields = open_fields
        self.trees = [copy.file.tree for copy in copies]
        self.words = _words_before(copies[0].file)
        self.modules = copies[0].file.library_modules
        self.slots: list[tuple[int, ...]] = []
        self.constant = 0

    def match(self, nodes: tuple[int, ...]) -> bool:
        """Add the slots below `nodes`; False where they cannot be one template."""
        trees = self.trees
        first, tree = nodes[0], trees[0]
        kind, text = tree.kind[first], tree.text[first]
        if text:
            for t, n in zip(trees, nodes, strict=True):
                if t.text[n] != text or t.kind[n] != kind:
                    return self._slot(nodes)
            self.constant += self.words[first + 1] - self.words[first]
            return True
        stop = tree.end[first]
        if self._are_equal(nodes, stop - first):
            self.constant += self.words[stop] - self.words[first]
            return True
        if kind == "declaration":
            given = [given_value(t, n) for t, n in zip(trees, nodes, strict=True)]
            if all(t.kind[n] == "assignment" for t, n in zip(trees[1:], nodes[1:], strict=True)):
                # What the first copy declares the others give another value.
                parts = [pair for pair in given if pair is not None]
                return len(parts) == len(nodes) and all(map(self.match, zip(*parts, strict=True)))
        for t, n in zip(trees, nodes, strict=True):
            if t.kind[n] == kind:
                continue
            if kind == tree.language.returning:
                # What a function gives back, copies of it give a variable.
                values = [given_back(t, n) for t, n in zip(trees, nodes, strict=True)]
                if all(value is not None for value in values):
                    return self.match(tuple(value for value in values if value is not None))
            return self._slot(nodes)
        if kind == "list" and tree.language.lists_are_values and all(map(is_plain_list, trees, nodes)):
            return self._slot(nodes)
        children = [list(t.children(n)) for t, n in zip(trees, nodes, strict=True)]
        if len(set(map(len, children))) > 1:
            return self._slot(nodes)
        slots, constant = len(self.slots), self.constant
        for below in zip(*children, strict=True):
            if not self.match(below):
                del self.slots[slots:]
                self.constant = constant
                return self._slot(nodes)
        return True

    def _are_equal(self, nodes: tuple[int, ...], size: int) -> bool:
        """True where the subtrees are the same token for token."""
        trees, first = self.trees, nodes[0]
        texts, kinds = trees[0].text[first : first + size], trees[0].kind[first : first + size]
        for t, n in zip(trees, nodes, strict=True):
            if t.end[n] - n != size or t.text[n : n + size] != texts or t.kind[n : n + size] != kinds:
                return False
        return True

    def _slot(self, nodes: tuple[int, ...]) -> bool:
        if all(
            _is_value(t, n) or (self.open_calls and _is_called(t, n, self.modules))
            for t, n in zip(self.trees, nodes, strict=True)
        ):
            self.slots.append(nodes)
            return True
        if self.open_fields and all(_is_own_field(t, n) for t, n in zip(self.trees, nodes, strict=True)):
            self.slots.append(nodes)
            return True
        if all(_are_plain_words(t, n) for t, n in zip(self.trees, nodes, strict=True)):
            self.slots.append(nodes)
            return True
        return False


PLAIN_WORDS = re.compile(r"""[^"'`\\{}%$~\n]+""")


def _are_plain_words(tree: Tree, node: int) -> bool:
    """True for words in a text with gaps, without any sign that means something there."""
    return tree.kind[node] == "string_content" and PLAIN_WORDS.fullmatch(tree.text[node]) is not None


VALUE_KINDS = frozenset(
    {
        "identifier",
        "integer",
        "float",
        "string",
        "character",
        "true",
        "false",
        "none",
        "unary_operator",
        "subscript",
        "attribute",
        "binary_operator",
        "call",
        "list",
        "tuple",
        "dictionary",
        "concatenated_string",
        "comparison_operator",
        "boolean_operator",
        "not_operator",
        "parenthesized_expression",
        "conditional_expression",
    }
)


def _is_called(tree: Tree, node: int, modules: frozenset[str]) -> bool:
    """True for the plain name of a function that is called there, or one of a module of the library (`math.sqrt`)."""
    language = tree.language
    if (tree.kind[tree.parent[node]], tree.field[node]) != (language.call, language.callee_field):
        return False
    of_a_module = tree.kind[node] == language.member[0] and tree.text[node + 1] in modules
    return tree.kind[node] == language.name or of_a_module


OWN_OBJECT = frozenset({"self", "this"})


def _is_own_field(tree: Tree, node: int) -> bool:
    """True for the name of a field of the object that a method belongs to, where it is not called."""
    parent, language = tree.parent[node], tree.language
    if (tree.kind[parent], tree.field[node]) != language.member:
        return False
    called = tree.kind[tree.parent[parent]] == language.call and tree.field[parent] == language.callee_field
    return not called and tree.text[parent + 1] in OWN_OBJECT


def _is_value(tree: Tree, node: int) -> bool:
    """True where the node is an expression that can be passed or listed as a value."""
    if tree.kind[node] not in VALUE_KINDS or not tree.kind[node]:
        return False
    parent, language = tree.parent[node], tree.language
    if tree.kind[node] == language.name:
        called = (tree.kind[parent], tree.field[node]) == (language.call, language.callee_field)
        member = (tree.kind[parent], tree.field[node]) == language.member
        keyword = (tree.kind[parent], tree.field[node]) == language.keyword_argument
        named = tree.field[node] == language.name_field and tree.kind[parent] in language.procedures
        return not (called or member or keyword or named)
    if tree.kind[node] == language.member[0]:
        return (tree.kind[parent], tree.field[node]) != (language.call, language.callee_field)
    return True


def _columns_of(copies: Sequence[Copy], nodes: tuple[int, ...]) -> list[Column]:
    """The column of a slot; several where only numbers inside a string differ."""
    files = [copy.file for copy in copies]
    texts = tuple(f.tree.source_of(n) for f, n in zip(files, nodes, strict=True))
    tree = files[0].tree
    if all(
        f.tree.kind[n] in tree.language.strings and t[:1] in {"'", '"'}
        for f, n, t in zip(files, nodes, texts, strict=True)
    ):
        grown = _grown(texts, nodes)
        if grown:
            return [grown]
        inside = _numbers_in_strings(files[0], texts, nodes) if _takes_numbers(files[0], nodes[0]) else []
        if inside:
            return inside
        words = _words_of_format(texts, nodes) if _is_format(files[0], nodes[0]) else None
        if words:
            return [words]
    if tree.kind[nodes[0]] == "string_content":
        return _numbers_in_strings(files[0], texts, nodes) or [_words(files[0], texts, nodes)]
    numbers = _integers(texts)
    is_name = all(f.tree.kind[n] == f.language.name for f, n in zip(files, nodes, strict=True))
    return [
        Column(
            values=texts,
            spots=(Spot(nodes),),
            numbers=numbers,
            is_name=is_name,
            is_called=_is_called(tree, nodes[0], files[0].library_modules),
            is_field=_is_own_field(tree, nodes[0]),
            is_bare_list=not files[0].language.lists_are_values and tree.kind[nodes[0]] == "list",
            is_target=any(_is_target(f, n) for f, n in zip(files, nodes, strict=True)),
        )
    ]


def _words(file: ProgramFile, texts: tuple[str, ...], nodes: tuple[int, ...]) -> Column:
    """The column of words that differ between the gaps of a text: as texts of their own, without what they begin
    and end with alike."""
    before = _alike_at_start(texts)
    after = _alike_at_start([t[len(before) :][::-1] for t in texts])[::-1]
    quote = file.text_quote
    values = tuple(f"{quote}{t[len(before) : len(t) - len(after)]}{quote}" for t in texts)
    return Column(values=values, spots=(Spot(nodes, before=before, after=after),))


WORD_END = re.compile(r"^\W*|\b\W+")


def _alike_at_start(texts: Sequence[str]) -> str:
    """The longest whole words, with what joins them to the next, that all texts begin with and none ends with."""
    alike = itertools.takewhile(lambda letters: len(set(letters)) == 1, zip(*texts, strict=False))
    shared = texts[0][: sum(1 for _ in alike)]
    ends = [m.end() for m in WORD_END.finditer(shared) if all(m.end() < len(t) for t in texts)]
    return shared[: max(ends, default=0)]


FEWEST_GROWN = 3


def _grown(texts: tuple[str, ...], nodes: tuple[int, ...]) -> Column | None:
    """The column of texts of one sign each, evenly more from copy to copy: how many there are."""
    found = [m for m in map(SAME_SIGNS.fullmatch, texts) if m]
    if len(found) != len(texts) or len(found) < FEWEST_GROWN or len({(m[1], m[3], m[4]) for m in found}) != 1:
        return None
    numbers = tuple(len(m[2]) for m in found)
    sign = f"{found[0][1]}{found[0][3]}{found[0][1]}"
    column = Column(
        values=tuple(map(str, numbers)), spots=(Spot(nodes, repeated=sign, after=found[0][4]),), numbers=numbers
    )
    return column if column.step() is not None and not sign[1].isdigit() else None


def _takes_numbers(file: ProgramFile, text: int) -> bool:
    """True where the language can put a number into the text at the node `text`."""
    able = file.language.texts_take_numbers
    if able is None:
        return True
    tree = file.tree
    arguments = tree.parent[text]
    if is_streamed(file, text):
        return True
    if tree.kind[arguments] != "argument_list" or file.called_name(tree.parent[arguments]) not in able:
        return False
    return tree.items(arguments)[0] == text


def _is_format(file: ProgramFile, text: int) -> bool:
    """True for a text that says how a call prints its other values."""
    formats = file.language.texts_take_numbers is not None and _takes_numbers(file, text)
    return formats and not is_streamed(file, text)


FORMAT_WORDS = re.compile(r"[^\"\\%\n]+")
FORMAT_PARTS = re.compile(r"%[-+ #0]*\d*(?:\.\d+)?[hlLqjzt]*[a-zA-Z%]|\\.|.", re.DOTALL)


def _words_of_format(texts: tuple[str, ...], nodes: tuple[int, ...]) -> Column | None:
    """The column of plain words in which texts differ that say how to print; None where they differ otherwise."""
    inner = [t[1:-1] for t in texts]
    before = _alike_at_start(inner)
    after = _alike_at_start([t[len(before) :][::-1] for t in inner])[::-1]
    for text in inner:
        middle = text[len(before) : len(text) - len(after)]
        joints = {0, *itertools.accumulate(map(len, FORMAT_PARTS.findall(text)))}
        at_joints = len(before) in joints and len(text) - len(after) in joints
        if not at_joints or FORMAT_WORDS.fullmatch(middle) is None:
            return None
    printed = [part for part in FORMAT_PARTS.findall(before) if len(part) > 1 and part[0] == "%" and part != "%%"]
    values = tuple(f'"{t[len(before) : len(t) - len(after)]}"' for t in inner)
    spot = Spot(nodes, before=before, after=after, in_format=True, place=len(printed))
    return Column(values=values, spots=(spot,))


def _is_target(file: ProgramFile, node: int) -> bool:
    names = file.names
    return any(
        names.role[i] in WRITES and names.role[i] is not Role.PARAMETER for i in names.within(node, file.tree.end[node])
    ) or (file.tree.field[node] == "left" and file.tree.kind[file.tree.parent[node]] == "assignment")


def _integers(texts: tuple[str, ...]) -> tuple[int, ...] | None:
    numbers = []
    for text in texts:
        compact = text.replace(" ", "")
        digits = compact.removeprefix("-")
        if not digits.isascii() or not digits.isdigit() or (digits[0] == "0" and len(digits) > 1):
            return None
        if len(digits) > 15:
            return None
        numbers.append(int(compact))
    return tuple(numbers)


def _numbers_in_strings(file: ProgramFile, texts: tuple[str, ...], nodes: tuple[int, ...]) -> list[Column]:
    """Columns for the numbers in which otherwise equal plain strings differ; [] where more differs."""
    if any(CODED.search(t) for t in texts):
        return []
    parts = [file.language.numbers_in(t) for t in texts]
    if any(len(p) != len(parts[0]) or p[::2] != parts[0][::2] for p in parts):
        return []
    columns = []
    for group in range(1, len(parts[0]), 2):
        values = tuple(p[group] for p in parts)
        if len(set(values)) == 1:
            continue
        numbers = _integers(values)
        if numbers is None and not all(_is_shown_so(value) for value in values):
            return []
        columns.append(Column(values=values, spots=(Spot(nodes, group),), numbers=numbers))
    return columns


def _is_shown_so(value: str) -> bool:
    """True for a number with a fraction that is shown as it is written here."""
    return "." in value and len(value) < 15 and str(float(value)) == value


def _merge(columns: list[Column]) -> list[Column]:
    """Equal columns become one with all their spots."""
    merged: dict[tuple[object, ...], Column] = {}
    for column in columns:
        key: tuple[object, ...] = (
            column.numbers or column.values,
            column.is_target or column.is_name,
            column.is_called,
        )
        known = merged.get(key)
        if known is None:
            merged[key] = column
        else:
            merged[key] = msgspec.structs.replace(
                known,
                spots=known.spots + column.spots,
                is_target=known.is_target or column.is_target,
            )
    return list(merged.values())
