"""The flat syntax tree: one preorder array a property, so that a subtree is a slice.

`kind[i]`, `text[i]` (tokens only, "" for inner nodes), `parent[i]`, `end[i]` (one past the last
node of the subtree), `start_byte[i]`, `end_byte[i]`. Comments stand aside, in `comments`.
"""

from __future__ import annotations

from bisect import bisect_right
from collections.abc import Iterator
from functools import cache
from sys import intern
from typing import Final

import tree_sitter

from ..frozen import Frozen
from ..languages.grammars import parser_for, words_of
from ..languages.parts import MAX_DEPTH, Arrays, Built, incomplete
from ..languages.table import Language


class Comment(Frozen, frozen=True):
    """A comment: 1-based line, its text with the mark, and whether it has the line to itself."""

    line: int
    text: str
    alone: bool
    end_line: int = 0

    @property
    def last_line(self) -> int:
        """1-based line on which it ends."""
        return self.end_line or self.line

    @property
    def words(self) -> str:
        """What it says, without its marks.

        >>> Comment(1, "/* opens\n * the gate */", True).words
        'opens the gate'
        """
        lines = (line.strip().removeprefix("'").strip("#/*!;|").strip() for line in self.text.split("\n"))
        return " ".join(line for line in lines if line)


class Problem(Frozen, frozen=True):
    """A place the parser could not make sense of."""

    line: int
    message: str


CLASS = "class_literal"
"""The kind of a class that is handed on like a value (`Crab.class`)."""


MISSING = "missing"
"""The kind of what the parser put into a text that is not whole: a name, say, without any text."""


class Tree:
    """A parsed file as preorder arrays (all of the same length, the number of nodes). It never changes."""

    def __init__(
        self,
        language: Language,
        source: bytes,
        kind: list[str],
        text: list[str],
        field: list[str],
        parent: list[int],
        end: list[int],
        start_byte: list[int],
        end_byte: list[int],
        line_starts: list[int],
        comments: list[Comment],
        problems: list[Problem],
        braces: frozenset[int] = frozenset(),
    ) -> None:
        self.language: Final = language
        self.source: Final = source
        self.kind: Final = kind
        self.text: Final = text
        self.field: Final = field
        self.parent: Final = parent
        self.end: Final = end
        self.start_byte: Final = start_byte
        self.end_byte: Final = end_byte
        self.line_starts: Final = line_starts
        self.comments: Final = comments
        self.problems: Final = problems
        self.braces: Final = braces
        """1-based lines on which a bracket of a block stands; those brackets are no nodes."""

    def children(self, node: int) -> Iterator[int]:
        """The direct children of a node, in order."""
        child, stop, end = node + 1, self.end[node], self.end
        while child < stop:
            yield child
            child = end[child]

    def parts(self, node: int) -> list[int]:
        """The direct children of a node all at once: quicker than `children` where every one is needed."""
        child, stop, end = node + 1, self.end[node], self.end
        found = []
        while child < stop:
            found.append(child)
            child = end[child]
        return found

    def items(self, node: int) -> list[int]:
        """The children of a bracketed list (arguments, parameters) without its brackets and commas."""
        return [child for child in self.children(node) if self.text[child] not in {"(", ")", ","}]

    def child(self, node: int, field: str) -> int | None:
        """The child in a grammar field, or None."""
        for child in self.children(node):
            if self.field[child] == field:
                return child
        return None

    def branches_of(self, choice: int) -> list[int]:
        """A choice itself, and each further branch with a test of its own."""
        return [choice, *(child for child in self.children(choice) if self.kind[child] == "elif_clause")]

    def otherwise_of(self, choice: int) -> int | None:
        """What a choice does where none of its tests holds, or None."""
        return next((child for child in self.children(choice) if self.kind[child] == "else_clause"), None)

    def start_line(self, node: int) -> int:
        """1-based line of the node's first byte."""
        return bisect_right(self.line_starts, self.start_byte[node])

    def end_line(self, node: int) -> int:
        """1-based line of the node's last byte."""
        return bisect_right(self.line_starts, max(self.start_byte[node], self.end_byte[node] - 1))

    def source_of(self, node: int) -> str:
        """The node's text as written."""
        return self.source[self.start_byte[node] : self.end_byte[node]].decode()

    def leaf_texts(self, node: int) -> list[str]:
        """The tokens of a subtree, in order."""
        return [t for t in self.text[node : self.end[node]] if t]


def parse(source: bytes, language: Language, earlier: Tree | None = None) -> Tree:
    """Parse UTF-8 `source` (lines ending in LF). Never raises: what is broken becomes `problems`. Statements at the
    top that are the same in `earlier`, the tree of a text with a few changes, are taken over from it."""
    if language.build:
        return Flattener(source, language).taken_over(language.build(source))
    root = parser_for(language.grammar).parse(language.mask(source) if language.mask else source).root_node
    if language.reading:
        from .normalise import Normaliser

        return Normaliser(source, language, language.reading).flatten(root)
    if earlier is not None and not (root.has_error or earlier.problems or language.mask):
        return _Patched(source, language, earlier).flatten(root)
    return Flattener(source, language).flatten(root)


QUOTES = b"\"'"
COMMENT, LEFT_OUT, OPAQUE, TEXT = "comment", "left out", "opaque", "text"
"""What is special about a node: comments stand aside, some signs are left out, some nodes are kept as one token, and a
text is one where it has no gaps."""


@cache
def _odd_kinds(grammar: str, comment: frozenset[str], opaque: frozenset[str]) -> dict[int, str]:
    """What is special about some kinds of nodes, by their numbers."""
    odd = {";": LEFT_OUT, "string": TEXT} | dict.fromkeys(opaque, OPAQUE) | dict.fromkeys(comment, COMMENT)
    return {number: odd[kind] for number, kind in words_of(grammar).kinds.items() if kind in odd}


class Flattener(Arrays):
    """Walks the grammar's tree once with a cursor and fills the arrays."""

    def __init__(self, source: bytes, language: Language) -> None:
        super().__init__(source)
        self.language = language
        self.comments: list[Comment] = []
        self.problems: list[Problem] = []
        starts = [0]
        position = source.find(b"\n")
        while position >= 0:
            starts.append(position + 1)
            position = source.find(b"\n", position + 1)
        self.line_starts = starts

    def flatten(self, root: tree_sitter.Node) -> Tree:
        """Walk the grammar's tree once, in the order of the text."""
        self._walk(root)
        return self.tree()

    def _walk(self, root: tree_sitter.Node, parent: int = -1, depth: int = 0) -> None:
        """Add a node, whose parent is there already, and what is below it. One loop, as every node comes through."""
        source, interpolation = self.source, self.language.interpolation
        known_kinds, known_fields, _ = words_of(self.language.grammar)
        odd = _odd_kinds(self.language.grammar, self.language.comment, self.language.opaque)
        kinds, texts, fields, parents = self.kind, self.text, self.field, self.parent
        ends, starts, stops, known = self.end, self.start, self.stop, self.texts
        broken = root.has_error
        cursor = root.walk()
        descend, aside, ascend = cursor.goto_first_child, cursor.goto_next_sibling, cursor.goto_parent
        open_nodes: list[int] = []
        index, deepest = len(kinds), MAX_DEPTH - depth
        while True:
            node = cursor.node
            assert node is not None
            number = node.kind_id
            way = odd.get(number)
            if way is COMMENT:
                self.add_comment(node.start_byte, node.end_byte)
            elif way is not LEFT_OUT:
                kind = known_kinds[number]
                if broken and (node.is_error or node.is_missing):
                    self.add_problem(node)
                    kind = MISSING if node.is_missing and node.is_named else kind
                start, stop = node.start_byte, node.end_byte
                kinds.append(kind)
                fields.append(known_fields[cursor.field_id])
                parents.append(parent)
                ends.append(index + 1)
                starts.append(start)
                stops.append(stop)
                # A text between plain quotes has no gaps.
                leaf = way is not None and (
                    way is OPAQUE
                    or source[start : start + 1] in QUOTES
                    or not any(child.type == interpolation for child in node.children)
                )
                if not leaf and descend():
                    if len(open_nodes) < deepest:
                        texts.append("")
                        parent = index
                        open_nodes.append(index)
                        index += 1
                        continue
                    ascend()
                index += 1
                written = source[start:stop]
                text = known.get(written)
                if text is None:
                    text = known[written] = intern(written.decode(errors="replace"))
                texts.append(text)
            while not aside():
                if not ascend() or not open_nodes:
                    while open_nodes:
                        ends[open_nodes.pop()] = index
                    return
                ends[open_nodes.pop()] = index
                parent = open_nodes[-1] if open_nodes else -1

    def taken_over(self, built: Built) -> Tree:
        """The tree of a file that a language has laid out itself."""
        layout = built.layout
        self.kind, self.text, self.field, self.parent = layout.kind, layout.text, layout.field, layout.parent
        self.end, self.start, self.stop = layout.end, layout.start, layout.stop
        for start, stop in sorted(set(built.comments)):
            self.add_comment(start, stop)
        for byte, message in built.problems:
            self.problems.append(Problem(bisect_right(self.line_starts, byte), message))
        return self.tree(frozenset([bisect_right(self.line_starts, byte) for byte in built.braces]))

    def tree(self, braces: frozenset[int] = frozenset()) -> Tree:
        """The arrays as they are now, as a tree."""
        return Tree(
            braces=braces,
            language=self.language,
            source=self.source,
            kind=self.kind,
            text=self.text,
            field=self.field,
            parent=self.parent,
            end=self.end,
            start_byte=self.start,
            end_byte=self.stop,
            line_starts=self.line_starts,
            comments=self.comments,
            problems=sorted(set(self.problems), key=lambda p: (p.line, p.message))[:20],
        )

    def add_comment(self, start: int, stop: int) -> None:
        line = bisect_right(self.line_starts, start)
        before = self.source[self.line_starts[line - 1] : start]
        text = self.source[start:stop].decode(errors="replace")
        text = text.rstrip("\n")
        self.comments.append(Comment(line, text, not before.strip(), line + text.count("\n")))

    def add_problem(self, node: tree_sitter.Node) -> None:
        line = bisect_right(self.line_starts, node.start_byte)
        if node.is_missing:
            message = f"{node.type!r} is missing here; the program is read around the gap"
        else:
            message = incomplete(self.source[node.start_byte : node.end_byte])
        self.problems.append(Problem(line, message))


class _Patched(Flattener):
    """Walks only the statements at the top that changed; the others are the earlier tree's, moved."""

    def __init__(self, source: bytes, language: Language, earlier: Tree) -> None:
        super().__init__(source, language)
        self.earlier = earlier
        old = earlier.source
        most = min(len(old), len(source))
        self.front = _alike(old, source, most)
        self.back = _alike(old[::-1], source[::-1], most - self.front)
        self.moved = len(source) - len(old)
        """Bytes by which what stands behind the change is moved."""
        self.known = {earlier.start_byte[c]: c for c in earlier.children(0)} if earlier.kind else {}

    def flatten(self, root: tree_sitter.Node) -> Tree:
        earlier = self.earlier
        self.kind.append(intern(root.type))
        self.text.append("")
        self.field.append("")
        self.parent.append(-1)
        self.end.append(1)
        self.start.append(root.start_byte)
        self.stop.append(root.end_byte)
        for child in root.children:
            start, stop = child.start_byte, child.end_byte
            shift = 0 if stop < self.front else self.moved if start > len(self.source) - self.back else None
            old = self.known.get(start - shift) if shift is not None else None
            same = old is not None and shift is not None and earlier.end_byte[old] + shift == stop
            if same and old is not None and shift is not None and earlier.kind[old] == child.type:
                self._take(old, shift)
            else:
                self._walk(child, 0, 1)
        self.end[0] = len(self.kind)
        self.comments.sort(key=lambda c: c.line)
        return self.tree()

    def _take(self, old: int, shift: int) -> None:
        """A statement of the earlier tree, with its comments."""
        earlier, end = self.earlier, self.earlier.end[old]
        by = len(self.kind) - old
        self.kind += earlier.kind[old:end]
        self.text += earlier.text[old:end]
        self.field += earlier.field[old:end]
        self.parent.append(0)
        self.parent += [p + by for p in earlier.parent[old + 1 : end]]
        self.end += [e + by for e in earlier.end[old:end]]
        self.start += [b + shift for b in earlier.start_byte[old:end]]
        self.stop += [b + shift for b in earlier.end_byte[old:end]]
        first, last = earlier.start_line(old), earlier.end_line(old)
        lines = bisect_right(self.line_starts, earlier.start_byte[old] + shift) - first
        for comment in earlier.comments:
            inside = first <= comment.line <= last
            if inside and self._is_inside(comment, old):
                end_line = comment.end_line + lines if comment.end_line else 0
                self.comments.append(Comment(comment.line + lines, comment.text, comment.alone, end_line))

    def _is_inside(self, comment: Comment, old: int) -> bool:
        """True for a comment within a statement, not behind it on its last line."""
        earlier = self.earlier
        start = earlier.source.find(comment.text.encode(), earlier.line_starts[comment.line - 1])
        return earlier.start_byte[old] <= start < earlier.end_byte[old]


def _alike(one: bytes, other: bytes, most: int) -> int:
    """How many bytes two texts have in common at their beginning, `most` at most."""
    low, high = 0, most
    while low < high:
        middle = (low + high + 1) // 2
        if one[:middle] == other[:middle]:
            low = middle
        else:
            high = middle - 1
    return low
