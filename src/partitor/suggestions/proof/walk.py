"""Walk the original and the rewritten file side by side and hand each new construct to its rule.

Outside of what was introduced the two must be the same token for token. A rule is given the
original's remaining statements and says how many of them its construct stands for.
"""

from __future__ import annotations

from collections.abc import Callable, Sequence
from typing import overload

from ...program.program import ProgramFile
from .verdict import Refused

StatementRule = Callable[[Sequence[int], int], int | None]
"""(original statements left, rewritten statement) → how many it stands for; None: not mine."""
ExpressionRule = Callable[[int, int], bool]
"""(original node, rewritten node) → True where the rule has dealt with the pair itself."""


class Rest(Sequence[int]):
    """What of a list is left from a place on, without copying it for every statement of a long block."""

    def __init__(self, whole: list[int], start: int) -> None:
        self.whole = whole
        self.start = start

    def __len__(self) -> int:
        return max(0, len(self.whole) - self.start)

    @overload
    def __getitem__(self, index: int) -> int: ...

    @overload
    def __getitem__(self, index: slice) -> list[int]: ...

    def __getitem__(self, index: int | slice) -> int | list[int]:
        if isinstance(index, int):
            return self.whole[self.start + index] if index >= 0 else self.whole[index]
        first, stop, step = index.indices(len(self))
        return self.whole[self.start + first : self.start + stop : step]


class Walk:
    """One comparison of two files."""

    def __init__(
        self,
        before: ProgramFile,
        after: ProgramFile,
        rule: StatementRule,
        expression_rule: ExpressionRule | None = None,
        skip_before: frozenset[int] = frozenset(),
        names: frozenset[str] = frozenset(),
    ) -> None:
        """`names`: those that the expression rule has to see wherever they stand."""
        self.before = before
        self.after = after
        self.rule = rule
        self.expression_rule = expression_rule
        self.skip_before = skip_before
        self.names = names

    def run(self) -> None:
        """Compare the whole files. Raises Refused at the first difference."""
        self._node(0, 0)

    def compare(self, old: int, new: int) -> None:
        """Compare a part of both. Raises Refused at the first difference."""
        self._node(old, new)

    def _node(self, old: int, new: int) -> None:
        a, b = self.before.tree, self.after.tree
        if self._is_untouched(old, new):
            return
        if self.expression_rule and self.expression_rule(old, new):
            return
        if a.kind[old] != b.kind[new] or a.text[old] != b.text[new]:
            raise Refused(f"line {a.start_line(old)} of the program does not come back from the suggestion")
        if a.kind[old] in self.before.language.blocks:
            self._block(old, new)
            return
        olds, news = list(a.children(old)), list(b.children(new))
        if len(olds) != len(news):
            raise Refused(f"line {a.start_line(old)} of the program changes its form")
        for o, n in zip(olds, news, strict=True):
            self._node(o, n)

    def _is_untouched(self, old: int, new: int) -> bool:
        """True for a subtree that is the same in both, token for token, and holds nothing that a rule must see."""
        a, b = self.before.tree, self.after.tree
        end, new_end = a.end[old], b.end[new]
        if end - old != new_end - new or a.text[old:end] != b.text[new:new_end]:
            return False
        return a.kind[old:end] == b.kind[new:new_end] and self.names.isdisjoint(a.text[old:end])

    def _block(self, old: int, new: int) -> None:
        olds = [c for c in self.before.tree.children(old) if c not in self.skip_before]
        position = 0
        for n in self.after.tree.children(new):
            taken = self.rule(Rest(olds, position), n)
            if taken is None:
                if position >= len(olds):
                    raise Refused("the suggestion adds a statement")
                self._node(olds[position], n)
                taken = 1
            position += taken
            if position > len(olds):
                raise Refused("the suggestion stands for more statements than there are")
        if position != len(olds):
            line = self.before.tree.start_line(olds[position])
            raise Refused(f"line {line} of the program is lost")
