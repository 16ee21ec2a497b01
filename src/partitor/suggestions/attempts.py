"""A candidate that is written and proved: what comes of it, and what it saves."""

from __future__ import annotations

from collections.abc import Callable

import msgspec

from ..deadline import look
from ..program.program import ProgramFile
from ..repeats.near import NearTwins
from ..repeats.runs import Run
from ..repeats.slots import Table
from .candidate import Candidate
from .edits import CannotWrite, apply_edits, edits_between, rewritten
from .proof import MovedFunction, SharedFunction, prove, prove_together

LEAST_SAVING = 2
"""Code lines that a suggestion has to save."""


class Proved(msgspec.Struct, frozen=True, eq=False):
    """A candidate that the proof accepted, and the file it gives."""

    candidate: Candidate
    after: ProgramFile
    others: tuple[tuple[ProgramFile | None, ProgramFile], ...] = ()
    """Further files that change, as they were (None: the file has to be made) and as they are."""

    @property
    def changed(self) -> tuple[tuple[ProgramFile | None, ProgramFile], ...]:
        """Every file that changes, as it was and as it is."""
        return ((self.candidate.file, self.after), *self.others)

    @property
    def saved_lines(self) -> int:
        """Code lines fewer than before (negative: more)."""
        return sum((len(old.code_lines) if old else 0) - len(new.code_lines) for old, new in self.changed)


def attempt(make: Callable[[], Candidate], about: Table | NearTwins | Run | None = None) -> Proved | str:
    """Write a candidate and prove it: the proved suggestion, or the reason why there is none. What is attempted
    `about` the same finding once more is remembered with its file."""
    if about is None:
        return _attempt(make)
    file, key = _file_of(about), ("attempt", id(about))
    if key not in file.derived:
        # The finding is kept too, so that its identity stays its own.
        file.derived[key] = (about, _attempt(make))
    known = file.derived[key]
    assert isinstance(known, tuple)
    result: Proved | str = known[1]
    return result


def was_attempted(about: Table | NearTwins | Run) -> bool:
    """True for a finding of which it is known already what comes of it."""
    return ("attempt", id(about)) in _file_of(about).derived


def _file_of(about: Table | NearTwins | Run) -> ProgramFile:
    table = about.table if isinstance(about, Run) else about
    return table.copies[0].file if isinstance(table, Table) else table.procedures[0][0]


MOST_PROVED = 150_000
"""Lines that are read and proved again for the suggestions of one file, all together: hundreds of suggestions for a
program that a person wrote, a handful for one of tens of thousands of lines."""


def _attempt(make: Callable[[], Candidate]) -> Proved | str:
    look()
    try:
        candidate = make()
        tried = candidate.file.derived.get(("tried", id(candidate)))
        if isinstance(tried, tuple):
            known: Proved | str = tried[1]
            return known
        spend(candidate.file)
        text = apply_edits(candidate.file, candidate.edits)
    except CannotWrite as problem:
        return str(problem)
    after = rewritten(candidate.file, text)
    if isinstance(candidate.claim, SharedFunction | MovedFunction):
        return _proved_together(candidate, after, candidate.claim)
    verdict = prove(candidate.file, after, candidate.claim)
    earlier = candidate.via
    link = candidate
    while verdict.proved and earlier is not None:
        verdict = prove(earlier.file, link.file, earlier.claim)
        link, earlier = earlier, earlier.via
    if not verdict.proved:
        plainer = candidate.plainer
        return _attempt(lambda: plainer) if plainer is not None else verdict.reason
    if candidate.via is not None:
        edits = edits_between(link.file, text)
        candidate = msgspec.structs.replace(candidate, file=link.file, edits=edits, via=None)
    return Proved(candidate, after)


def spend(file: ProgramFile) -> None:
    """Count one more reading of a file. Raises CannotWrite where it was read too often."""
    spent = file.derived.get("proved lines", 0)
    assert isinstance(spent, int)
    if spent > MOST_PROVED:
        raise CannotWrite("the program is too long to work out every suggestion in it")
    file.derived["proved lines"] = spent + len(file.lines)


def tried(make: Callable[[], Candidate]) -> Proved | str:
    """What comes of one of several candidates; the one that is chosen is not proved once more."""
    try:
        candidate = make()
    except CannotWrite as problem:
        return str(problem)
    result = _attempt(lambda: candidate)
    # The candidate is kept too, so that its identity stays its own.
    candidate.file.derived["tried", id(candidate)] = (candidate, result)
    if isinstance(result, Proved):
        # What came of several links is one candidate by now.
        result.candidate.file.derived["tried", id(result.candidate)] = (result.candidate, result)
    return result


def _proved_together(candidate: Candidate, after: ProgramFile, claim: SharedFunction | MovedFunction) -> Proved | str:
    """What touches several files, proved in all of them."""
    others: list[tuple[ProgramFile | None, ProgramFile]] = []
    try:
        for part in candidate.others:
            others.append((part.file, rewritten(part.file, apply_edits(part.file, part.edits))))
    except CannotWrite as problem:
        return str(problem)
    if candidate.created is not None:
        others.append((None, ProgramFile(candidate.created, candidate.file.language)))
    proved = Proved(candidate, after, tuple(others))
    if proved.saved_lines < 0:
        return "the files would be no shorter for it, as each has to get to know the function"
    verdict = prove_together(proved.changed, claim)
    return proved if verdict.proved else verdict.reason
