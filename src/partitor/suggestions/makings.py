"""What may come of each finding: a loop, a function, a merge."""

from __future__ import annotations

from collections.abc import Callable, Iterator, Sequence
from functools import partial

from ..repeats.blocks import RepeatedBlock, Twins
from ..repeats.find import Repeats
from ..repeats.judge import FEWEST, worth_a_function
from ..repeats.near import NearTwins
from ..repeats.runs import Run
from ..repeats.slots import Copy, Table, compare
from ..repeats.windows import parts_of
from .attempts import LEAST_SAVING, Proved, attempt, tried
from .candidate import Candidate
from .edits import CannotWrite
from .functions import call_candidate, function_candidate
from .leaving import exit_of
from .loops import loop_candidate
from .merges import class_of_methods, is_handed_on, is_plain, merge_candidate, shared_name
from .near_merges import near_merge_candidate
from .new_bases import new_base_candidate
from .proof import Leaving
from .pulled_up import is_one_method, pulled_up_candidate
from .sharing import is_one_function, moved_candidate

Making = tuple[Callable[[], Candidate], Table | NearTwins | Run]
"""How a candidate is made, and what it is about: a run's table is about its loop, the run about a function for it."""


def makings(repeats: Repeats) -> Iterator[Making]:
    """Every loop, function and merge that may come of what was found."""
    yield from loops(repeats)
    yield from functions(repeats, has_a_loop)
    yield from merges(repeats)


def loops(repeats: Repeats) -> Iterator[Making]:
    """A loop for each run."""
    for run in repeats.runs:
        yield partial(loop_candidate, run), run.table


def has_a_loop(run: Run) -> bool:
    """True for a run that can become a loop."""
    return isinstance(attempt(partial(loop_candidate, run), run.table), Proved)


def functions(repeats: Repeats, looped: Callable[[Run], bool]) -> Iterator[Making]:
    """A function for each block, and for each run that is not `looped`."""
    for block in repeats.blocks:
        yield partial(block_candidate, block), block.table
    for run in regrouped(repeats.runs, looped):
        if in_a_function(run) and not looped(run):
            yield partial(function_candidate, run.table), run


def regrouped(runs: Sequence[Run], looped: Callable[[Run], bool]) -> list[Run]:
    """The runs; those that follow each other, are alike and cannot become loops are one, which may be worth a
    function."""
    found: list[Run] = []
    for whole in runs:
        run = whole if looped(whole) else _in_pieces(whole)
        joined = _joined(found[-1], run) if found else None
        if joined is None or looped(run) or looped(found[-1]):
            found.append(run)
        else:
            found[-1] = joined
    return found


def _in_pieces(run: Run) -> Run:
    """A run of which each copy is made of shorter ones as a run of these, where they are worth a function."""
    size = len(run.table.copies[0].statements)
    for piece in range(2, size // 2 + 1):
        if size % piece or run.in_branches or run.rest or run.more:
            continue
        starts = range(0, size, piece)
        table = compare([Copy(c.file, c.statements[k : k + piece]) for c in run.table.copies for k in starts])
        if table is not None and in_a_function(Run(table)):
            return Run(table)
    return run


def _joined(run: Run, following: Run) -> Run | None:
    """Two runs of which the second begins where the first ends, as one; None where they are not alike."""
    copies, others = run.table.copies, following.table.copies
    beside = copies[0].file is others[0].file and copies[-1].span[1] == others[0].first
    if not beside or run.in_branches or following.in_branches or run.rest or run.more or following.more:
        return None
    tree, kinds = copies[0].file.tree, copies[0].file.tree.kind
    same = kinds[slice(*copies[0].span)] == kinds[slice(*others[0].span)]
    table = compare([*copies, *others]) if same else None
    calls = table is not None and any(
        tree.kind[s.nodes[0]] == tree.language.call for c in table.columns for s in c.spots
    )
    return Run(table, following.rest) if table is not None and not calls else None


MANY_SHORT = 5
"""Copies of two statements that are worth a function."""


def in_a_function(run: Run) -> bool:
    """True for a run that could be calls of a function one after the other, where it can be no loop."""
    whole = not (run.rest or run.more or run.in_branches)
    short = len(run.table.copies) >= MANY_SHORT and worth_a_function(run.table, FEWEST - 1)
    return whole and (short or worth_a_function(run.table, FEWEST))


def merges(repeats: Repeats) -> Iterator[Making]:
    """One function for all twins, and for those that are nearly such."""
    for twins in repeats.twins:
        yield partial(twins_candidate, twins), twins.table
    for near in repeats.near_twins:
        yield partial(near_merge_candidate, near), near


def block_candidate(block: RepeatedBlock) -> Candidate:
    """A function for a block, or calls of the one that is there already; one that stands in several files is kept
    once."""
    if is_one_function(block.table):
        return moved_candidate(block.table)
    pulled_up = _pulled_up(block.table)
    if pulled_up is not None:
        return pulled_up
    if block.known:
        return call_candidate(block.table, block.known)
    whole = tried(partial(function_candidate, block.table))
    if isinstance(whole, Proved):
        return whole.candidate
    leaving = _leaving(block.table)
    if isinstance(leaving, Proved):
        return leaving.candidate
    # What a part of the statements takes and gives back may be little enough, and nothing may leave in it.
    for part in parts_of(block.table):
        for result in (tried(partial(function_candidate, part)), _leaving(part)):
            if isinstance(result, Proved):
                return result.candidate
    if leaving is not None:
        raise CannotWrite(leaving)
    return function_candidate(block.table)


def _pulled_up(table: Table) -> Candidate | None:
    """The method in the class on which those of the copies build, or could build, where it is one and is proved."""
    for make in (pulled_up_candidate, new_base_candidate) if is_one_method(table) else ():
        result = tried(partial(make, table))
        if isinstance(result, Proved) and result.saved_lines >= LEAST_SAVING:
            return result.candidate
    return None


NO_SHORTER = "a function that tells each place when to leave would save no line"


def _leaving(table: Table) -> Proved | str | None:
    """A function for copies that leave what they stand in, which tells its callers when to; None where they do not, or
    it is not proved, and the reason where the program would be no shorter for it."""
    try:
        leaving = exit_of(table)
    except CannotWrite:
        return None
    result = tried(partial(function_candidate, table, leaving=leaving)) if leaving is not None else None
    if not isinstance(result, Proved):
        return None
    return result if result.saved_lines > 0 else NO_SHORTER


def twins_candidate(twins: Twins) -> Candidate:
    """One function for twins; where others call them by name, and so they must stay, or no call could give it what it
    needs, a function for what they do."""
    pulled_up = _pulled_up(twins.table)
    if pulled_up is not None:
        return pulled_up
    apart = len({id(f) for f, _ in twins.procedures}) > 1
    methods = not apart and class_of_methods(twins.procedures[0][0], [p for _, p in twins.procedures])
    stay = apart or any(not is_plain(f, p) or is_handed_on(f, p) for f, p in twins.procedures)
    stay = stay or _change_the_programs(twins)
    if stay and not methods and not any(c.is_field for c in twins.table.columns):
        return _shared_by_twins(twins)
    try:
        merge = merge_candidate(twins)
    except CannotWrite:
        shared = _worth_sharing(twins)
        if shared is None:
            raise
        return shared
    return merge if isinstance(tried(lambda: merge), Proved) else _worth_sharing(twins) or merge


def _worth_sharing(twins: Twins) -> Candidate | None:
    """A function for what twins do that keep their own names, where it is proved and saves enough."""
    shared = tried(partial(_shared_by_twins, twins))
    return shared.candidate if isinstance(shared, Proved) and shared.saved_lines >= LEAST_SAVING else None


def _shared_by_twins(twins: Twins) -> Candidate:
    """A function for what twins do that keep their own names."""
    table = _without_outer_names(twins.table)
    if any(column.is_field for column in table.columns):
        # A function is given the field's value, not its name.
        table = compare(table.copies) or table
    leaving = exit_of(table)
    always = leaving if leaving is not None and leaving.how is Leaving.ALWAYS else None
    return function_candidate(table, name=shared_name(twins), leaving=always)


def _change_the_programs(twins: Twins) -> bool:
    """True where each function changes another variable of the program: no call could give it that."""
    file, first = twins.procedures[0]
    targets = (c.values[0] for c in twins.table.columns if c.is_target and c.is_name)
    return any(file.names.owner_of(name, first.node) == 0 for name in targets)


def _without_outer_names(table: Table) -> Table:
    """The copies without the line with which each says which variables of the program it changes."""
    outer = table.copies[0].file.language.outer_declarations
    if not all(c.file.tree.kind[c.first] in outer and len(c.statements) > 1 for c in table.copies):
        return table
    return compare([Copy(c.file, c.statements[1:]) for c in table.copies]) or table
