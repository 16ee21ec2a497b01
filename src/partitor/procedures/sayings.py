"""How much of the words that are asked for a stretch of statements says.

A word counts in full where it is part of a name or stands in a comment, less in a text that is shown and in the
statement that follows. What each statement says is looked up once for all stretches that hold it.
"""

from __future__ import annotations

import itertools
from bisect import bisect_left
from collections.abc import Iterator, Mapping

from ..program.names import Role
from ..program.program import ProgramFile
from .labels import labels_of
from .stretches import Stretch
from .wanted import stem, words_of

FEW_WORDS = 1.5
"""Shared words count as their number divided by itself and this."""
AS_TEXT, BESIDE = 0.6, 0.4
"""What a word counts in a shown text, and in the statement that follows, beside one in a name."""
SHORTEST, ABBREVIATED = 4, 0.7
"""Letters of an abbreviated word, and what one counts."""
FOLLOWING = 40
"""Nodes of the statement that follows in which words are looked for."""
MOST_COMMENTS = 40
"""Comments of one statement that are read."""
SAID_AS = {"LOW": "off", "HIGH": "on", "tone": "beep", "digitalWrite": "light", "delay": "wait", "sleep": "wait"}
"""Names in programs for what people call otherwise."""

MARKS = {"*": "star", "#": "bar", "-": "lin", "=": "lin", "_": "lin", "█": "bar"}
"""What signs are called of which something is drawn, as stems."""

Said = Mapping[str, float]


class Sayings:
    """What the statements of a program say of the words that are `wanted`, each of which counts so much."""

    def __init__(self, wanted: Mapping[str, float]) -> None:
        self.wanted = wanted
        self.known: dict[tuple[int, int], Said] = {}
        self.beside: dict[tuple[int, int], Said] = {}

    def told(self, stretch: Stretch) -> float:
        """How much of what is wanted the statements say; 0 to 1."""
        said: dict[str, float] = {}
        for statement in stretch.statements:
            _merge(said, self._said(stretch.file, statement))
        if stretch.following is not None:
            _merge(said, self._beside(stretch.file, stretch.following))
        shared = sum(self.wanted[word] * share for word, share in said.items())
        return shared / (shared + FEW_WORDS)

    def _said(self, file: ProgramFile, statement: int) -> Said:
        key = (id(file), statement)
        if key not in self.known:
            self.known[key] = self._of_interest(_words_of(file, statement))
        return self.known[key]

    def _beside(self, file: ProgramFile, statement: int) -> Said:
        key = (id(file), statement)
        if key not in self.beside:
            tree = file.tree
            texts = tree.text[statement : min(tree.end[statement], statement + FOLLOWING)]
            self.beside[key] = self._of_interest(dict.fromkeys(_stems(*texts), BESIDE))
        return self.beside[key]

    def _of_interest(self, said: Said) -> Said:
        """What is said of the words that are wanted, be it in short."""
        found = {word: said[word] for word in self.wanted if word in said}
        if len(found) < len(self.wanted):
            short = tuple(word for word in said if len(word) >= SHORTEST and said[word] == 1.0)
            for word in self.wanted:
                if word not in found and any(word.startswith(abbreviated) for abbreviated in short):
                    found[word] = ABBREVIATED
        return found


def _merge(said: dict[str, float], more: Said) -> None:
    for word, share in more.items():
        if share > said.get(word, 0.0):
            said[word] = share


def _words_of(file: ProgramFile, statement: int) -> Said:
    """All words of a statement, and of the comments that belong to it; worked out once for each."""
    known = file.derived.get(("words", statement))
    if isinstance(known, dict):
        return known
    tree, names = file.tree, file.names
    stop = tree.end[statement]
    first, last = tree.start_line(statement), tree.end_line(statement)
    said: dict[str, float] = {}
    for i in range(statement, stop):
        if tree.kind[i] in file.language.strings or tree.kind[i] == "string_content":
            _merge(said, dict.fromkeys(_stems(tree.text[i]), AS_TEXT))
            mark = {*tree.text[i].strip("\"'`fb")}
            if len(mark) == 1 and (shown := MARKS.get(*mark)):
                said[shown] = 1.0
        elif tree.kind[i] in file.language.numbers:
            said[tree.text[i]] = 1.0
    for i in names.within(statement, stop):
        if names.role[i] is Role.WRITE:
            _merge(said, dict.fromkeys(_stems(*labels_of(file, tree.text[i])), AS_TEXT))
        _merge(said, dict.fromkeys(_stems(SAID_AS.get(tree.text[i], tree.text[i])), 1.0))
    at = bisect_left(tree.comments, first - 1, key=lambda comment: comment.line)
    for comment in itertools.takewhile(lambda comment: comment.line <= last, tree.comments[at : at + MOST_COMMENTS]):
        _merge(said, dict.fromkeys(_stems(comment.text), 1.0))
    file.derived["words", statement] = said
    return said


def _stems(*texts: str) -> Iterator[str]:
    for text in texts:
        for word in words_of(text):
            yield stem(word)
