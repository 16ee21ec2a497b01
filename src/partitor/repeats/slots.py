"""What differs between copies: anti-unification, and the table of slots it leaves.

The least general template of aligned copies after Plotkin, "A note on inductive generalization"
(1970): walk the copies' trees together; where they agree the template agrees, where they differ
the smallest enclosing expression becomes a slot with one value a copy. Linear in the copies' size.
"""

from __future__ import annotations

import collections
import itertools
import string
from collections.abc import Sequence
from typing import Final, NamedTuple

import msgspec

from ..frozen import Single
from ..program.names import WRITES, Role
from ..program.program import ProgramFile
from ..program.shapes import COLLECTIONS, given_value, is_plain_collection
from ..program.tree import Tree
from .columns import QUOTES, Column, Derived, Spot
from .composed import with_composed_texts
from .derived import MOST_TEXTS, PLAIN_TEXT, in_other_letters, lines_below, texts_holding_texts
from .following import words_following
from .texts import PLAIN_WORDS, around_words, columns_of_text, columns_of_words, integers


class Copy:
    """Consecutive statements of one block in one file; where copies were brought to one order, the
    statements stand in that order, not in the text's. It never changes, and is equal to itself only."""

    def __init__(self, file: ProgramFile, statements: tuple[int, ...]) -> None:
        self.file: Final = file
        self.statements: Final = statements
        first = last = statements[0] if statements else -1
        for statement in statements:
            if statement < first:
                first = statement
            elif statement > last:
                last = statement
        self.first: Final = first
        """The statement that stands first in the text."""
        self.last: Final = last
        """The statement that stands last in the text."""

    @property
    def texts(self) -> tuple[str, ...]:
        """The statements as written, one by one."""
        return tuple(map(self.file.tree.source_of, self.statements))

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

    def lies_in(self, other: Copy) -> bool:
        """True where all of it is part of another one."""
        (start, stop), (first, end) = self.span, other.span
        return self.file is other.file and first <= start and stop <= end

    def overlaps(self, other: Copy) -> bool:
        """True where both hold the same place of the text."""
        (start, stop), (first, end) = self.span, other.span
        return self.file is other.file and start < end and first < stop


class Table(Single, frozen=True, eq=False):
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


class Likeness(NamedTuple):
    """What copies have in common, before anything is told of what differs."""

    walk: _Walk | None
    """None where they are no copies of one template."""
    tokens: int = 0
    """Names, values and operators that are the same in all copies."""
    renamed: int = 0
    """How often one variable stands in them again under another name."""
    told: int = 0
    """Words in texts beside such names."""


def likeness(copies: Sequence[Copy]) -> Likeness:
    """A first look at copies, much quicker than to compare them."""
    walk = _walked(copies, _Walk(copies))
    if walk is None:
        return Likeness(None)
    name = copies[0].file.language.name
    renamed = [
        tuple(t.text[n] for t, n in zip(walk.trees, nodes, strict=True))
        for nodes in walk.slots
        if all(t.kind[n] == name for t, n in zip(walk.trees, nodes, strict=True))
    ]
    told = 0
    known = set(renamed)
    for nodes in walk.slots if known else ():
        texts = [t.text[n] for t, n in zip(walk.trees, nodes, strict=True)]
        if texts[0][:1] in QUOTES:
            told += max((words_following(texts, names) or 0 for names in known), default=0)
    return Likeness(walk, walk.constant, len(renamed) - len(known), told)


def compare(
    copies: Sequence[Copy],
    open_calls: bool = False,
    open_fields: bool = False,
    walk: _Walk | None = None,
    letters: bool = True,
) -> Table | None:
    """The slot table of aligned copies; None where they are no copies of one template. With `open_calls` the plain
    functions that they call may differ too, with `open_fields` the fields of their own object. `walk`: of a first look
    at these very copies; `letters`: texts that only differ in capital and small letters are one."""
    walk = walk or _walked(copies, _Walk(copies, open_calls, open_fields))
    if walk is None:
        return None
    columns = _merge([c for nodes in _with_signs(walk) for c in _columns_of(copies, nodes)])
    able = copies[0].file.language.texts_take_texts and len(columns) <= MOST_TEXTS
    derived = texts_holding_texts(columns) if able else []
    following = {id(d.column) for d in derived}
    columns = [c for c in columns if id(c) not in following]
    if able:
        bases = {id(d.base) for d in derived}
        columns = _with_common_words(columns, bases, copies[0].file.text_quote)
        ways = copies[0].file.language.case_methods if letters and len(copies) <= MOST_TEXTS else ()
        cased = in_other_letters(columns, bases, ways)
        if ways:
            cased += lines_below(columns, bases | {id(d.base) for d in cased} | {id(d.column) for d in cased})
        following = {id(d.column) for d in cased}
        columns = [c for c in columns if id(c) not in following]
        columns, derived = with_composed_texts([c.file for c in copies], columns, derived + cased)
    return Table(tuple(copies), tuple(columns), walk.constant, tuple(derived))


def calling_one_other(copies: Sequence[Copy]) -> tuple[_Walk, tuple[str, ...]] | None:
    """A first look at copies that differ in the one plain function that they call, and what each calls; None where they
    differ in more such functions, or in none."""
    walk = _walked(copies, _Walk(copies, open_calls=True))
    if walk is None:
        return None
    called = {
        tuple([t.text[n] for t, n in zip(walk.trees, nodes, strict=True)])
        for nodes in walk.slots
        if _is_called(walk.trees[0], nodes[0], walk.modules)
    }
    return (walk, called.pop()) if len(called) == 1 else None


def differing_names(copies: Sequence[Copy]) -> tuple[_Walk, set[tuple[str, ...]]] | None:
    """A first look at copies that may call other functions: the names in which they differ."""
    walk = _walked(copies, _Walk(copies, open_calls=True))
    if walk is None:
        return None
    tree, trees = walk.trees[0], walk.trees
    names = [nodes for nodes in walk.slots if tree.kind[nodes[0]] == tree.language.name]
    return walk, {tuple([t.text[n] for t, n in zip(trees, nodes, strict=True)]) for nodes in names}


def _walked(copies: Sequence[Copy], walk: _Walk) -> _Walk | None:
    """The walk over all statements; None where they are no copies of one template."""
    rows = [copy.statements for copy in copies]
    for k in range(len(rows[0])):
        if not walk.match(tuple([row[k] for row in rows])):
            return None
    return walk


def _with_signs(walk: _Walk) -> list[tuple[int, ...]]:
    """The slots, those that are numbers behind a minus in all copies with it; not where the same numbers stand
    elsewhere, too: one value then serves both places."""
    trees, slots = walk.trees, walk.slots
    tree, numbers = trees[0], trees[0].language.numbers
    signed = [s for s in slots if tree.kind[s[0]] in numbers and tree.text[s[0] - 1] == "-"]
    signed = [s for s in signed if tree.kind[s[0] - 2] == "unary_operator" and tree.parent[s[0]] == s[0] - 2]
    if not signed:
        return slots
    values = {s: tuple(t.text[n] for t, n in zip(trees, s, strict=True)) for s in slots}
    seen = collections.Counter(values.values())
    alone = {
        s for s in signed if seen[values[s]] == 1 and all(t.kind[n] in numbers for t, n in zip(trees, s, strict=True))
    }
    return [tuple(n - 2 for n in s) if s in alone else s for s in slots]


WORTH_A_GAP = 3
"""Signs that texts have in common, from which only what differs is given."""


def _with_common_words(columns: list[Column], taken: set[int], quote: str) -> list[Column]:
    """The columns, with those made one that are whole texts in which the same words differ: `"A1"` and `"A2"` beside
    `"B1"` and `"B2"`; of texts that count up in a series only what counts. Those that are `taken` stay as they are."""
    texts = [c for c in columns if c.values[0][:1] in QUOTES and not c.is_target and id(c) not in taken]
    texts = [c for c in texts if len(c.spots) == 1 and c.spots[0].is_plain]
    if not texts:
        return columns
    parts = {id(c): [PLAIN_TEXT.fullmatch(value) for value in c.values] for c in texts}
    groups: dict[tuple[str, ...], list[tuple[Column, str, str]]] = {}
    for column in texts:
        inner = [part[2] for part in parts[id(column)] if part]
        if len(inner) == len(column.values):
            before, words, after = around_words(inner)
            groups.setdefault(words, []).append((column, before, after))
    result = list(columns)
    for words, members in groups.items():
        around = len(members[0][1] + members[0][2])
        shared = len(members) > 1 or members[0][0].is_series or (around >= WORTH_A_GAP and all(words))
        if shared and all(before or after for _, before, after in members):
            spots = tuple(Spot(c.spots[0].nodes, before=b, after=a, is_part=True) for c, b, a in members)
            first = result.index(members[0][0])
            result[first] = Column(values=tuple(f"{quote}{w}{quote}" for w in words), spots=spots)
            gone = {id(column) for column, _, _ in members[1:]}
            result = [c for c in result if id(c) not in gone]
    return result


WORDY = frozenset("\"'_" + string.ascii_letters + string.digits)


def _words_before(file: ProgramFile) -> list[int]:
    """For each node, and the end, how many names, values and texts stand before it in the file."""
    if "words before" not in file.derived:
        texts = file.tree.text
        firsts = [(text, text[:1]) for text in set(texts)]
        wordy = {text for text, first in firsts if first in WORDY or first.isalnum()}
        marks = [text in wordy for text in texts]
        if file.language.values_everywhere:
            # `*` and `<` are names of functions like any other.
            for node in file.names.nodes:
                marks[node] = True
        file.derived["words before"] = list(itertools.accumulate(marks, initial=0))
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
        """Add the slots below `nodes`; False where they cannot be one template. Counted loops, as `zip` is slow where
        this is compiled."""
        trees = self.trees
        first, tree = nodes[0], trees[0]
        kind, text = tree.kind[first], tree.text[first]
        if text:
            for k in range(1, len(nodes)):
                t, n = trees[k], nodes[k]
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
        for k in range(1, len(nodes)):
            if trees[k].kind[nodes[k]] == kind:
                continue
            if kind == tree.language.returning:
                # What a function gives back, copies of it give a variable.
                values = [given_back(t, n) for t, n in zip(trees, nodes, strict=True)]
                if all(value is not None for value in values):
                    return self.match(tuple(value for value in values if value is not None))
            return self._slot(nodes)
        if kind in COLLECTIONS and tree.language.lists_are_values and all(map(is_plain_collection, trees, nodes)):
            return self._slot(nodes)
        if kind == tree.language.call and tree.language.values_everywhere and all(map(_lists_literals, trees, nodes)):
            return self._slot(nodes)
        children = [trees[k].parts(nodes[k]) for k in range(len(nodes))]
        most = len(children[0])
        for found in children:
            if len(found) != most:
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
        for k in range(1, len(nodes)):
            t, n = trees[k], nodes[k]
            if t.end[n] - n != size or t.text[n : n + size] != texts or t.kind[n : n + size] != kinds:
                return False
        return True

    def _slot(self, nodes: tuple[int, ...]) -> bool:
        trees = self.trees
        for k in range(len(nodes)):
            t, n = trees[k], nodes[k]
            if not (_is_value(t, n) or (self.open_calls and _is_called(t, n, self.modules))):
                break
        else:
            self.slots.append(nodes)
            return True
        if self.open_fields and all(_is_field(t, n) for t, n in zip(self.trees, nodes, strict=True)):
            self.slots.append(nodes)
            return True
        if all(_are_plain_words(t, n) for t, n in zip(self.trees, nodes, strict=True)):
            self.slots.append(nodes)
            return True
        return False


def _lists_literals(tree: Tree, node: int) -> bool:
    """True for a call that makes a list of numbers and texts: `(list 3 5 8)`."""
    language = tree.language
    if tree.text[node + 1] != language.list_call:
        return False
    given = tree.child(node, "arguments")
    if given is None:
        return False
    return all(tree.kind[i] in language.numbers or tree.kind[i] in language.strings for i in tree.items(given))


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
        "set",
        "tuple",
        "dictionary",
        "concatenated_string",
        "comparison_operator",
        "boolean_operator",
        "not_operator",
        "parenthesized_expression",
        "conditional_expression",
        "class_literal",
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


def _is_field(tree: Tree, node: int) -> bool:
    """True for the name of a field of an object that a variable holds, or a method belongs to; not of one that is
    called."""
    parent, language = tree.parent[node], tree.language
    if (tree.kind[parent], tree.field[node]) != language.member:
        return False
    called = tree.kind[tree.parent[parent]] == language.call and tree.field[parent] == language.callee_field
    return not called and (tree.kind[parent + 1] == language.name or tree.text[parent + 1] in OWN_OBJECT)


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
    file = copies[0].file
    tree, language = file.tree, file.language
    told: list[str] = []
    kinds: set[str] = set()
    for k, node in enumerate(nodes):
        other = copies[k].file.tree
        told.append(other.source_of(node))
        kinds.add(other.kind[node])
    texts = tuple(told)
    if kinds <= language.strings and all(t[:1] in QUOTES for t in texts):
        inside = columns_of_text(file, texts, nodes)
        if inside:
            return inside
    first, kind = nodes[0], tree.kind[nodes[0]]
    if kind == "string_content":
        return columns_of_words(file, texts, nodes)
    numbers = integers(texts)
    if kinds <= language.numbers or kinds <= language.strings:
        return [Column(values=texts, spots=(Spot(nodes),), numbers=numbers)]
    return [
        Column(
            values=texts,
            spots=(Spot(nodes),),
            numbers=numbers,
            is_name=kinds == {language.name},
            is_called=_is_called(tree, first, file.library_modules),
            is_field=_is_field(tree, first),
            is_bare_list=not language.lists_are_values and kind == "list",
            is_target=any(_is_target(copies[k].file, node) for k, node in enumerate(nodes)),
        )
    ]


def _is_target(file: ProgramFile, node: int) -> bool:
    names = file.names
    return any(
        names.role[i] in WRITES and names.role[i] is not Role.PARAMETER for i in names.within(node, file.tree.end[node])
    ) or (file.tree.field[node] == "left" and file.tree.kind[file.tree.parent[node]] == "assignment")


def _merge(columns: list[Column]) -> list[Column]:
    """Equal columns become one with all their spots."""
    merged: dict[tuple[object, ...], Column] = {}
    for column in columns:
        key: tuple[object, ...] = (
            column.numbers or column.values,
            column.is_target or column.is_name or column.is_of_its_object,
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
