"""A file's text, as every part of the core passes it on."""

from __future__ import annotations

import msgspec


class Source(msgspec.Struct, frozen=True):
    """A file of a submission as text: in `text` lines end in LF, `raw` is as handed in.

    `newline` is the commoner line end of the file, `encoding` the one it is stored in.
    """

    path: str
    text: str
    language: str | None
    encoding: str = "utf-8"
    newline: str = "\n"
    original: str | None = None
    """The text with the line ends (and byte order mark) it came with, where they differ from `text`."""

    @property
    def raw(self) -> str:
        """The text exactly as handed in."""
        return self.text if self.original is None else self.original
