"""Parts: a program tree that a language builds itself, where no grammar's nodes come near the tree's.

A language's `build` turns a text into parts of the tree's own kinds (`docs/adding-a-language.md` lists
them); the core lays them out as its flat arrays.
"""

from __future__ import annotations


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
    """A whole file: the program's part, comments as (start, stop), problems as (byte, what is wrong)."""

    def __init__(self, root: Part) -> None:
        self.root = root
        self.comments: list[tuple[int, int]] = []
        self.problems: list[tuple[int, str]] = []
        self.braces: set[int] = set()
        """Bytes of brackets (and closing words) that are no parts and still make their line a line of code."""


def incomplete(found: bytes) -> str:
    """What is said of a piece of text that the grammar cannot make sense of."""
    shown = found.decode(errors="replace").split("\n")[0].strip()
    return f"this is not complete: {shown[:60]!r}; the program is read around it"


def token(kind: str, start: int, stop: int, field: str = "") -> Part:
    """A leaf."""
    return Part(kind, start, stop, field, [], True)
