"""A program tree that a language builds itself, where no grammar's nodes come near the tree's.

A language's `build` turns a text into nodes of the tree's own kinds (`docs/adding-a-language.md` lists
them), laid out in the order of the text: one by one where it reads in that order, else from `Part`s, which
can still be moved about.
"""

from __future__ import annotations

from sys import intern

MAX_DEPTH = 200
"""Deeper nesting than any program a person writes; what lies below is read as one token."""


class Arrays:
    """The arrays of a tree while they are filled, node by node in the order of the text."""

    def __init__(self, source: bytes) -> None:
        self.source = source
        self.kind: list[str] = []
        self.text: list[str] = []
        self.field: list[str] = []
        self.parent: list[int] = []
        self.end: list[int] = []
        self.start: list[int] = []
        self.stop: list[int] = []
        self.texts: dict[bytes, str] = {}
        """The texts of tokens that were met before."""


class Layout(Arrays):
    """Fills the arrays with what is begun and ended."""

    def __init__(self, source: bytes) -> None:
        super().__init__(source)
        self.around: list[int] = [-1]
        """The nodes that are not closed yet; -1 for what lies too deep."""

    def open(self, kind: str, start: int, stop: int, field: str = "") -> int:
        """Begin a node, and give its index; what follows stands in it until it is closed."""
        depth = len(self.around) - 1
        if depth >= MAX_DEPTH:
            if depth == MAX_DEPTH:
                self._add(kind, start, stop, field, self.written(start, stop))
            self.around.append(-1)
            return -1
        self.around.append(len(self.kind))
        self._add(kind, start, stop, field, "", 2)
        return self.around[-1]

    def close(self) -> None:
        """End the node that was begun last."""
        index = self.around.pop()
        if index >= 0:
            self.end[index] = len(self.kind)

    def leaf(self, kind: str, start: int, stop: int, field: str = "", text: str = "") -> None:
        """Add a token; `text`: what it says, where that is spelled otherwise in the file."""
        if len(self.around) <= MAX_DEPTH + 1:
            self._add(kind, start, stop, field, text or self.written(start, stop))

    def _add(self, kind: str, start: int, stop: int, field: str, text: str, above: int = 1) -> None:
        self.kind.append(kind)
        self.text.append(text)
        self.field.append(field)
        self.parent.append(self.around[-above])
        self.end.append(len(self.kind))
        self.start.append(start)
        self.stop.append(stop)

    def written(self, start: int, stop: int) -> str:
        """What stands between two bytes."""
        written = self.source[start:stop]
        text = self.texts.get(written)
        if text is None:
            text = self.texts[written] = intern(written.decode(errors="replace"))
        return text

    def add(self, part: Part) -> None:
        """Add a part and what is below it."""
        if part.token:
            self.leaf(part.kind, part.start, part.stop, part.field, part.text)
            return
        self.open(part.kind, part.start, part.stop, part.field)
        if self.around[-1] >= 0:
            for child in part.children:
                self.add(child)
        self.close()


class Part:
    """One node: its kind, its bytes, the field it has in its parent; a `token` carries its text."""

    def __init__(
        self,
        kind: str,
        start: int,
        stop: int,
        field: str = "",
        children: list[Part] | None = None,
        token: bool = False,
        text: str = "",
    ) -> None:
        self.kind = kind
        self.start = start
        self.stop = stop
        self.field = field
        self.children: list[Part] = [] if children is None else children
        self.token = token
        self.text = text
        """What a token says, where that is spelled otherwise in the file (in languages that do not tell capitals)."""

    def add(self, child: Part, field: str | None = None) -> Part:
        """Append a child, in a field if told, and give it back."""
        if field is not None:
            child.field = field
        self.children.append(child)
        return child


class Built:
    """A whole file: its nodes, comments as (start, stop), problems as (byte, what is wrong)."""

    def __init__(self, layout: Layout) -> None:
        self.layout = layout
        self.comments: list[tuple[int, int]] = []
        self.problems: list[tuple[int, str]] = []
        self.braces: set[int] = set()
        """Bytes of brackets (and closing words) that are no nodes and still make their line a line of code."""


def incomplete(found: bytes) -> str:
    """What is said of a piece of text that the grammar cannot make sense of."""
    shown = found.decode(errors="replace").split("\n")[0].strip()
    return f"this is not complete: {shown[:60]!r}; the program is read around it"


def token(kind: str, start: int, stop: int, field: str = "") -> Part:
    """A leaf."""
    return Part(kind, start, stop, field, [], True)
