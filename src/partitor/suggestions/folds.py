"""Which fold comes next in a chain: the one that saves most, of the first sort that has any.

Finding is done anew for each link, as a fold brings others to light; proving is not. Most findings are the same texts
as one link before, and are worth what they were worth then: the best of them is proved once more on the program as it
is now, and only it. What could not be proved is tried again when nothing else is left.
"""

from __future__ import annotations

from collections.abc import Iterable
from functools import partial
from typing import NamedTuple

from ..deadline import Deadline
from ..program.program import ProgramFile
from ..repeats.blocks import RepeatedBlock
from ..repeats.find import Repeats
from ..repeats.near import NearTwins
from ..repeats.runs import Run
from ..repeats.slots import Copy, Table
from .arrays import array_candidate
from .attempts import LEAST_SAVING, Proved, attempt, was_attempted
from .candidate import Candidate
from .loops import loop_candidate, needs_arrays
from .makings import Making, block_candidate, functions, has_a_loop, loops, merges, twins_candidate

Texts = tuple[object, ...]
"""What a finding is about, by which it is known again in the program after a fold."""


FEWEST_LOOPS = 2
"""Loops over the same variables that are worth an array first."""


class _Worth(NamedTuple):
    """What a fold is chosen by."""

    is_listing: bool
    saved: int


class Folds:
    """Chooses fold after fold of one chain."""

    def __init__(self, deadline: Deadline) -> None:
        self.deadline = deadline
        self.link = 0
        self.worth: dict[Texts, _Worth | None] = {}
        """Of what was tried; None: it could not be proved, or saves too little."""
        self.looped: dict[Texts, bool] = {}
        self.first: dict[Texts, bool] = {}
        """Blocks that come before the loops in them, and that do not."""
        self.tried: dict[Texts, int] = {}
        """The link at which it was tried last."""
        self.small: set[Texts] = set()
        """What is proved and saves too little: so it will be whatever else is folded."""
        self.relied = False
        """True where something was left out for what is remembered of it."""

    def _forget(self) -> None:
        """Keep only what was found out of the program as it is now, and what does not change."""
        known = self.worth.items()
        self.worth = {t: worth for t, worth in known if self.tried[t] == self.link or t in self.small}
        self.looped, self.first = {}, {}
        self.relied = False

    def best(self, repeats: Repeats) -> Proved | None:
        """The next fold; None where none is left."""
        self.link += 1
        if self.link == 1:
            self._remember(repeats)
        self.relied = False
        found = self._best(repeats)
        if found is None and self.relied:
            self._forget()
            found = self._best(repeats)
        return found

    def _remember(self, repeats: Repeats) -> None:
        """What came of findings that were suggested on their own before."""
        blocks: list[Making] = [(partial(block_candidate, block), block.table) for block in repeats.blocks]
        makings: list[Making] = [*loops(repeats), *blocks, *merges(repeats)]
        for making in makings:
            if was_attempted(making[1]):
                texts, result = _texts_of(making), attempt(*making)
                self.looped[texts] = isinstance(result, Proved)
                self._keep(texts, result)

    def _array_first(self, repeats: Repeats) -> Proved | None:
        """One array for variables over which several loops would run that would each need an array of their own."""
        told: dict[tuple[int, tuple[str, ...]], tuple[ProgramFile, int, int]] = {}
        for run in repeats.runs:
            file = run.table.copies[0].file
            families = [c for c in run.table.columns if c.is_family and not c.is_target]
            if not families or not needs_arrays(file) or run.in_branches or not self._has_a_loop(run):
                continue
            for column in families:
                known = told.get((id(file), column.values), (file, 0, run.table.copies[0].first))
                told[id(file), column.values] = (file, known[1] + 1, known[2])
        for (home, variables), (file, _, first) in sorted(told.items(), key=lambda entry: -len(entry[0][1])):
            own = set(variables)
            often = sum(n for (other, some), (_, n, _) in told.items() if other == home and own.issuperset(some))
            key = ("array", (file.path, *variables))
            if often < FEWEST_LOOPS or key in self.worth:
                continue
            self.deadline.check()
            result = attempt(partial(array_candidate, file, variables, first, None))
            self.worth[key], self.tried[key] = None, self.link
            self.small.add(key)
            if isinstance(result, Proved):
                return result
        return None

    def _best(self, repeats: Repeats) -> Proved | None:
        array = self._array_first(repeats)
        if array is not None:
            return array
        earlier = [(partial(block_candidate, b), b.table) for b in repeats.blocks if self._comes_first(b, repeats)]
        for group in (earlier, loops(repeats), functions(repeats, self._has_a_loop), merges(repeats)):
            best = self._best_of(group)
            if best is not None:
                return _merge_of_what_it_is_given(best, repeats) or best
        return None

    def _best_of(self, group: Iterable[Making]) -> Proved | None:
        """The fold that saves most; of equal ones the first."""
        waiting: list[tuple[_Worth, int, Making, Proved | None]] = []
        for k, making in enumerate(group):
            texts = _texts_of(making)
            if texts not in self.worth:
                found = self._proved(making, texts)
                waiting += [(_worth_of(found), -k, making, found)] if found is not None else []
                continue
            known = self.worth[texts]
            forgettable = known is None and self.tried[texts] < self.link and texts not in self.small
            self.relied = self.relied or forgettable
            waiting += [(known, -k, making, None)] if known is not None else []
        while waiting:
            best = max(waiting, key=lambda entry: entry[:2])
            waiting.remove(best)
            _, place, making, proved = best
            if proved is not None:
                return proved
            found = self._proved(making, _texts_of(making))
            waiting += [(_worth_of(found), place, making, found)] if found is not None else []
        return None

    def _proved(self, making: Making, texts: Texts) -> Proved | None:
        """A fold that is proved and saves enough."""
        self.deadline.check()
        return self._keep(texts, attempt(*making))

    def _keep(self, texts: Texts, result: Proved | str) -> Proved | None:
        """Remember what a fold is worth, and give it back where that is enough."""
        enough = isinstance(result, Proved) and result.saved_lines >= least_saving(result.candidate)
        self.worth[texts] = _worth_of(result) if isinstance(result, Proved) and enough else None
        self.tried[texts] = self.link
        if isinstance(result, Proved) and not enough:
            self.small.add(texts)
        return result if isinstance(result, Proved) and enough else None

    def _has_a_loop(self, run: Run) -> bool:
        texts = _texts_of((partial(loop_candidate, run), run.table))
        if texts not in self.looped:
            self.looped[texts] = has_a_loop(run)
        return self.looped[texts]

    def _comes_first(self, block: RepeatedBlock, repeats: Repeats) -> bool:
        """True for a block with runs in it that would be lost if these became loops first, or is worth more than
        they."""
        if not block.holds_rows or block.holds_unlike_rows:
            return block.holds_unlike_rows
        texts = _texts_of((partial(block_candidate, block), block.table))
        if texts not in self.first:
            self.first[texts] = _is_worth_more_than_its_loops(block, repeats)
        return self.first[texts]


def _texts_of(making: Making) -> Texts:
    make, about = making
    sort = make.func.__name__ if isinstance(make, partial) else ""
    if isinstance(about, NearTwins):
        return (sort, *((f.path, f.tree.source_of(p.node)) for f, p in about.procedures))
    copies = about.table.copies if isinstance(about, Run) else about.copies
    return (sort, *((copy.file.path, *copy.texts) for copy in copies))


def _worth_of(proved: Proved) -> _Worth:
    return _Worth(proved.candidate.is_listing, proved.saved_lines)


def _merge_of_what_it_is_given(fold: Proved, repeats: Repeats) -> Proved | None:
    """The merge of twins that a loop or a function would be given by name, and so could not be merged any more,
    where that is worth more."""
    if fold.candidate.kind not in ("loop", "function"):
        return None
    values = {value for slot in fold.candidate.slots for value in slot.values}
    for twins in repeats.twins:
        if all(p.name in values for _, p in twins.procedures):
            merge = attempt(partial(twins_candidate, twins), twins.table)
            if isinstance(merge, Proved) and merge.saved_lines > fold.saved_lines:
                return merge
    return None


def _is_worth_more_than_its_loops(block: RepeatedBlock, repeats: Repeats) -> bool:
    proved = attempt(partial(block_candidate, block), block.table)
    if not isinstance(proved, Proved):
        return False
    inside = [r for r in repeats.runs if any(_is_within(r.table, copy) for copy in block.table.copies)]
    inner = [attempt(partial(loop_candidate, run), run.table) for run in inside]
    return proved.saved_lines > sum(max(loop.saved_lines, 0) for loop in inner if isinstance(loop, Proved))


def _is_within(table: Table, copy: Copy) -> bool:
    return all(one.lies_in(copy) for one in table.copies)


def least_saving(candidate: Candidate) -> int:
    """What has a brace to close costs a line more, and is worth it all the same; a list in place of numbered variables
    makes other runs over them simpler."""
    return LEAST_SAVING - 1 if candidate.file.language.declares or candidate.is_listing else LEAST_SAVING
