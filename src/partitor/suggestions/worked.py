"""Which suggestions a program gets, each proved on its own, and all of them in one chain.

The order is a practitioner's: runs become loops, blocks functions, twins one function, and what is
still too long is cut into steps. Each link of the chain is read afresh and proved against the one
before it.
"""

from __future__ import annotations

import time
from collections.abc import Callable, Iterable, Iterator
from functools import partial

import msgspec

from ..errors import TooCostly
from ..program.program import Procedure, Program, ProgramFile
from ..records import Step
from ..repeats.find import RepeatedBlock, Repeats, Twins, find_repeats
from ..repeats.judge import FEWEST, inner_statements, worth_a_function
from ..repeats.limits import Limits
from ..repeats.near import NearTwins
from ..repeats.paragraphs import Break, break_above
from ..repeats.runs import Run
from ..repeats.slots import Copy, Table, compare
from ..repeats.windows import parts_of
from .candidate import Candidate
from .edits import CannotWrite, apply_edits, edits_between, rewritten
from .functions import call_candidate, function_candidate
from .loops import loop_candidate
from .merges import class_of_methods, is_handed_on, is_plain, merge_candidate, shared_name
from .near_merges import near_merge_candidate
from .proof import MovedFunction, SharedFunction, prove, prove_together
from .sharing import is_one_function, moved_candidate
from .steps import LEAST_INNER, Words, heads_of, steps_of

LEAST_SAVING = 2
LONGEST_CHAIN = 40
LONGEST_READ = 600
"""Lines of a program in which a single line less is worth looking through all of it once more."""


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


class Deadline:
    """A time budget for one submission; `check()` raises TooCostly when it is spent."""

    def __init__(self, seconds: float) -> None:
        self.end = time.monotonic() + seconds

    def check(self) -> None:
        """Raise TooCostly where the budget is spent."""
        if time.monotonic() > self.end:
            raise TooCostly("the time for this submission is used up")


def attempt(make: Callable[[], Candidate], about: Table | NearTwins | Run | None = None) -> Proved | str:
    """Write a candidate and prove it: the proved suggestion, or the reason why there is none. What is attempted
    `about` the same finding once more is remembered with its file."""
    if about is None:
        return _attempt(make)
    table = about.table if isinstance(about, Run) else about
    file = table.copies[0].file if isinstance(table, Table) else table.procedures[0][0]
    key = ("attempt", id(about))
    if key not in file.derived:
        # The finding is kept too, so that its identity stays its own.
        file.derived[key] = (about, _attempt(make))
    known = file.derived[key]
    assert isinstance(known, tuple)
    result: Proved | str = known[1]
    return result


MOST_PROVED = 150_000
"""Lines that are read and proved again for the suggestions of one file, all together: hundreds of suggestions for a
program that a person wrote, a handful for one of tens of thousands of lines."""


def _attempt(make: Callable[[], Candidate]) -> Proved | str:
    try:
        candidate = make()
        tried = candidate.file.derived.get(("tried", id(candidate)))
        if isinstance(tried, tuple):
            known: Proved | str = tried[1]
            return known
        spent = candidate.file.derived.get("proved lines", 0)
        assert isinstance(spent, int)
        if spent > MOST_PROVED:
            return "the program is too long to work out every suggestion in it"
        candidate.file.derived["proved lines"] = spent + len(candidate.file.lines)
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


def proved_suggestions(file: ProgramFile, limits: Limits) -> list[Proved]:
    """Every loop, function and merge for a program of one file that the proof accepts, each on its own."""
    repeats = find_repeats(Program([file]), limits, frozenset())
    results = [attempt(*making) for making in makings(repeats)]
    return [r for r in results if isinstance(r, Proved)]


def oversized(file: ProgramFile, limits: Limits) -> list[tuple[Procedure, int]]:
    """Procedures with more statements of their own than allowed, with that number."""
    found = []
    for procedure in file.procedures:
        size = own_statements(file, procedure)
        if size > limits.procedure_statements:
            found.append((procedure, size))
    return found


def own_statements(file: ProgramFile, procedure: Procedure) -> int:
    """Statements of a procedure; those of functions defined inside it are theirs."""
    return sum(
        1
        for block in file.blocks
        if block.procedure == procedure.node
        for s in block.statements
        if not file.is_definition(s) and not file.is_bare_string(s)
    )


class Worked(msgspec.Struct, frozen=True, eq=False):
    """The chain: the program after its last link, and what each link was."""

    program: Program
    steps: tuple[Step, ...]
    complete: bool


def work_through(
    program: Program,
    limits: Limits,
    handed_out: frozenset[tuple[str, int]],
    deadline: Deadline,
    repeats: Repeats | None = None,
    asked: Callable[[Program], Iterator[Callable[[], Candidate]]] | None = None,
) -> Worked:
    """Apply the best suggestion, read afresh, choose again, until nothing is worth it. `repeats` are
    those of the program as it is, where they are known already; `asked` gives the candidates for functions that an
    assignment requires: they take the place of other functions of the same copies, and come before the steps."""
    steps: list[Step] = []
    complete = True
    folding = True
    cutting = Cutting(set(), set(), frozenset())
    near = repeats is not None and bool(repeats.near_twins)
    try:
        for _ in range(LONGEST_CHAIN):
            deadline.check()
            link = None
            if folding:
                found = repeats or find_repeats(program, limits, handed_out, near)
                link = _best_fold(found, deadline) or _small_fold(found, program, limits)
                repeats = None
            if link is not None and asked is not None:
                link = _asked_for(link, asked(program)) or link
            elif asked is not None:
                link = next((p for p in map(attempt, asked(program)) if isinstance(p, Proved)), None)
                folding = folding or link is not None
                asked = asked if link is not None else None
            if link is None and folding:
                tried = [(table, attempt(make, table)) for make, table in makings(found) if isinstance(table, Table)]
                told = (table for table, result in tried if not isinstance(result, Proved))
                cutting = Cutting(set(), set(), heads_of(told))
            if link is None:
                folding = False
                link = _next_step(program, limits, deadline, cutting)
            if link is None:
                break
            program = replaced(program, link.changed)
            lines = sum(len(f.code_lines) for f in program.files)
            steps.append(Step(link.candidate.kind, link.candidate.title, lines))
            handed_out = frozenset()
    except TooCostly:
        complete = False
    return Worked(program, tuple(steps), complete)


def replaced(program: Program, changed: Iterable[tuple[ProgramFile | None, ProgramFile]]) -> Program:
    """The program with some files changed, or made."""
    new = {id(old): after for old, after in changed if old is not None}
    made = [after for old, after in changed if old is None]
    return Program([*(new.get(id(f), f) for f in program.files), *made])


def _best_fold(repeats: Repeats, deadline: Deadline) -> Proved | None:
    earlier = [(partial(block_candidate, b), b.table) for b in repeats.blocks if _comes_before_its_loops(b, repeats)]
    for group in (earlier, _loops(repeats), _functions(repeats), _merges(repeats)):
        proved: list[Proved] = []
        for making in group:
            deadline.check()
            result = attempt(*making)
            if isinstance(result, Proved) and result.saved_lines >= _least_saving(result.candidate):
                proved.append(result)
        if proved:
            best = max(proved, key=lambda p: (p.candidate.is_listing, p.saved_lines))
            return _merge_of_what_it_is_given(best, repeats) or best
    return None


def _asked_for(fold: Proved, asked: Iterator[Callable[[], Candidate]]) -> Proved | None:
    """The function that an assignment asks for, made of the copies that a fold would make another one of."""
    if fold.candidate.kind != "function" or fold.candidate.table is None:
        return None
    copies = fold.candidate.table.copies
    for result in map(attempt, asked):
        table = result.candidate.table if isinstance(result, Proved) else None
        if isinstance(result, Proved) and table is not None and len(table.copies) >= len(copies):
            same = all(any(_lies_in(one, other) for other in copies) for one in table.copies)
            if same and result.saved_lines + LEAST_SAVING >= fold.saved_lines:
                return result
    return None


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


def _small_fold(repeats: Repeats, program: Program, limits: Limits) -> Proved | None:
    """A function for a block that saves a line only, where it is a step of what is too long, too."""
    if sum(len(f.code_lines) for f in program.files) > LONGEST_READ:
        return None
    too_long = {(id(f), p.node) for f in program.files for p, _ in oversized(f, limits)}
    for block in repeats.blocks:
        inside = {(id(c.file), c.file.procedure_around(c.first).node) for c in block.table.copies}
        if inside & too_long:
            result = attempt(partial(block_candidate, block), block.table)
            if isinstance(result, Proved) and result.saved_lines > 0:
                return result
    return None


def _comes_before_its_loops(block: RepeatedBlock, repeats: Repeats) -> bool:
    """True for a block with runs in it that would be lost if these became loops first, or is worth more than they."""
    if not block.holds_rows or block.holds_unlike_rows:
        return block.holds_unlike_rows
    proved = attempt(partial(block_candidate, block), block.table)
    if not isinstance(proved, Proved):
        return False
    inside = [r for r in repeats.runs if any(_is_within(r.table, copy) for copy in block.table.copies)]
    loops = [attempt(partial(loop_candidate, run), run.table) for run in inside]
    return proved.saved_lines > sum(max(loop.saved_lines, 0) for loop in loops if isinstance(loop, Proved))


def _is_within(table: Table, copy: Copy) -> bool:
    return all(_lies_in(one, copy) for one in table.copies)


def _lies_in(one: Copy, other: Copy) -> bool:
    (start, stop), (first, last) = one.span, other.span
    return one.file is other.file and first <= start and stop <= last


def _least_saving(candidate: Candidate) -> int:
    """What has a brace to close costs a line more, and is worth it all the same; a list in place of numbered variables
    makes other runs over them simpler."""
    return LEAST_SAVING - 1 if candidate.file.language.declares or candidate.is_listing else LEAST_SAVING


class Cutting(msgspec.Struct, frozen=True, eq=False):
    """What is remembered while procedures are cut into steps."""

    refused: set[str]
    """The texts that were tried and could not be proved."""
    begun: set[tuple[str, str]]
    """(path, name) of the procedures that are being cut: all their larger steps become functions, not only as many
    as the limit asks for."""
    heads: frozenset[Words]
    """Where copies begin and end that could not be folded."""


def _next_step(program: Program, limits: Limits, deadline: Deadline, cutting: Cutting) -> Proved | None:
    """A step of the first oversized procedure that has one. Steps make no new repetition, so that once
    they are reached nothing else needs to be looked for."""
    for file in program.files:
        too_long = {p.node for p, _ in oversized(file, limits)}
        for procedure in file.procedures:
            name = (file.path, procedure.name)
            if procedure.node not in too_long and name not in cutting.begun:
                continue
            deadline.check()
            step = next_step(file, procedure, limits, cutting, procedure.node in too_long)
            if step is not None:
                cutting.begun.add(name)
                return step
    return None


Making = tuple[Callable[[], Candidate], Table | NearTwins | Run]
"""How a candidate is made, and what it is about: a run's table is about its loop, the run about a function for it."""


def makings(repeats: Repeats) -> Iterator[Making]:
    """Every loop, function and merge that may come of what was found."""
    for group in (_loops, _functions, _merges):
        yield from group(repeats)


def _loops(repeats: Repeats) -> Iterator[Making]:
    for run in repeats.runs:
        yield partial(loop_candidate, run), run.table


def _functions(repeats: Repeats) -> Iterator[Making]:
    for block in repeats.blocks:
        yield partial(block_candidate, block), block.table
    for run in repeats.runs:
        if in_a_function(run) and not isinstance(attempt(partial(loop_candidate, run), run.table), Proved):
            yield partial(function_candidate, run.table), run


def in_a_function(run: Run) -> bool:
    """True for a run that could be calls of a function one after the other, where it can be no loop."""
    whole = not (run.rest or run.more or run.in_branches)
    return whole and worth_a_function(run.table, FEWEST)


def block_candidate(block: RepeatedBlock) -> Candidate:
    """A function for a block, or calls of the one that is there already; one that stands in several files is kept
    once."""
    if is_one_function(block.table):
        return moved_candidate(block.table)
    if block.known:
        return call_candidate(block.table, block.known)
    whole = _tried(partial(function_candidate, block.table))
    if isinstance(whole, Proved):
        return whole.candidate
    # What a part of the statements takes and gives back may be little enough, and nothing may leave in it.
    for part in parts_of(block.table):
        result = _tried(partial(function_candidate, part))
        if isinstance(result, Proved):
            return result.candidate
    return function_candidate(block.table)


def twins_candidate(twins: Twins) -> Candidate:
    """One function for twins; where others call them by name, and so they must stay, or no call could give it what it
    needs, a function for what they do."""
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
    return merge if isinstance(_tried(lambda: merge), Proved) else _worth_sharing(twins) or merge


def _worth_sharing(twins: Twins) -> Candidate | None:
    """A function for what twins do that keep their own names, where it is proved and saves enough."""
    shared = _tried(partial(_shared_by_twins, twins))
    return shared.candidate if isinstance(shared, Proved) and shared.saved_lines >= LEAST_SAVING else None


def _tried(make: Callable[[], Candidate]) -> Proved | str:
    """What comes of one of several candidates; the one that is chosen is not proved once more."""
    try:
        candidate = make()
    except CannotWrite as problem:
        return str(problem)
    result = _attempt(lambda: candidate)
    # The candidate is kept too, so that its identity stays its own.
    candidate.file.derived["tried", id(candidate)] = (candidate, result)
    return result


def _shared_by_twins(twins: Twins) -> Candidate:
    """A function for what twins do that keep their own names."""
    return function_candidate(_without_outer_names(twins.table), name=shared_name(twins))


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


def _merges(repeats: Repeats) -> Iterator[Making]:
    for twins in repeats.twins:
        yield partial(twins_candidate, twins), twins.table
    for near in repeats.near_twins:
        yield partial(near_merge_candidate, near), near


def next_step(
    file: ProgramFile, procedure: Procedure, limits: Limits, cutting: Cutting, too_long: bool
) -> Proved | None:
    """The first provable step as people read, small ones last. Once the procedure is no longer too long, only those of
    several statements are worth it, or under a comment of their own. What is refused is remembered."""
    refused = cutting.refused
    tables = steps_of(file, procedure, limits.procedure_statements, cutting.heads)
    large = [t for t in tables if inner_statements(t.copies[0]) >= LEAST_INNER]
    if too_long:
        return first_proved([*large, *(t for t in tables if t not in large)], refused)
    return first_proved([t for t in large if len(t.copies[0].statements) > 1 or _is_headed(t)], refused)


def _is_headed(table: Table) -> bool:
    """True where a comment says what the step does."""
    return break_above(table.copies[0].file, table.copies[0].first) is Break.COMMENT


def first_proved(tables: Iterable[Table], refused: set[str]) -> Proved | None:
    """The first of the steps that can be proved; the texts of those that cannot are added to `refused`."""
    for table in tables:
        (copy,) = table.copies
        tree, (first, stop) = copy.file.tree, copy.span
        text = tree.source[tree.start_byte[first] : tree.end_byte[stop - 1]].decode()
        if text in refused:
            continue
        result = attempt(partial(step_candidate, table))
        if isinstance(result, Proved):
            return result
        refused.add(text)
    return None


def step_candidate(table: Table) -> Candidate:
    """The function for one step."""
    copy: Copy = table.copies[0]
    return function_candidate(Table((copy,), (), 1), kind="step")
