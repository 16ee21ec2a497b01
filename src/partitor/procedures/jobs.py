"""Where the job of a missing function is done: the statements that do what it is asked for.

Stretches of statements (`stretches.py`) are weighed by what they do against what the function's name and purpose
speak of (`wanted.py`), by the words they share with these (`sayings.py`), by how their inputs and outcome fit the
parameters and the result that are asked, and by their likeness to the reference solution's body.
"""

from __future__ import annotations

from collections import Counter
from collections.abc import Iterator, Sequence

import msgspec

from ..program.names import WRITES, Role
from ..program.program import Program, ProgramFile
from ..program.shapes import given_value
from .deeds import Deed
from .sayings import Sayings
from .stretches import FROM_NOTHING, WIDEST, Outcome, Show, Stretch, stretches_of
from .vocabulary import CERTAIN, TOLD_AT_ONCE
from .wanted import Asked, RequiredFunction, stem

MOST_STATEMENTS = 2000
"""Statements of a program in which jobs are looked for; nobody writes one by hand."""
DEED, WORDS, MISFIT = 0.6, 0.75, 0.12
"""What a deed counts, what shared words count, and what each input or outcome too many takes off."""
SHORT, LENGTH = 6, 0.01
"""What each statement more takes off, so that of places that say the same a short one counts."""
LENGTH_OF_QUESTIONS = 0.03
"""The same of what asks for something: a question is no half of a program."""
ENOUGH, NEARLY_ENOUGH = 0.5, 0.35
CLOSE = 0.08
"""Two places of which neither shares a word with what is asked have to be further apart than this."""
TOLD = 0.2
"""Share of words from which a place tells by its words that it is the one."""
TOLD_LITTLE = 0.1
"""The same for what acts on something."""
TOLD_WELL, TOLD_FULLY, BY_WORDS = 0.36, 0.42, 0.4
"""Shares of words from which they alone tell, of what acts on something and of anything else; how much that counts
beside a deed."""
TOO_FEW, TOO_FEW_FOR_A_FORMULA = 0.3, 0.6
"""How many inputs too many one too few is worth: its value may be written out here."""
EXACTLY = 0.4
"""What each of several inputs is worth where there are just as many as are asked for."""
SETTLED_GIVEN = 0.25
"""What an input too many counts that has one plain value all through the program."""
UNASKED = 0.15
"""The same for each where it is not told how many there should be."""
WRITTEN_OUT = 0.3
"""What it takes off where a value that the purpose speaks of is written out first: it is to be given."""
MORE_GIVEN = 2.0
"""How many inputs too many one more outcome is worth."""
ACTS_TO_SHOW = 0.8
"""How much of showing it is to act on something: lamps show a level."""
SHOWN, REFUSED, AGAIN = 0.25, 0.05, 0.1
"""What it takes off that a value is worked out and something shown as well, or shown instead; what it counts that a
thing is done in the same form elsewhere, or asked again."""
CONDITIONAL = frozenset({Deed.MORE, Deed.LESS, Deed.FORMULA})
BY_CONDITION = 0.1
"""What it counts that something is only worked out on a condition where the purpose speaks of one, and takes off that
it is worked out without any."""
NOT_ASKED = 0.1
"""What it takes off that something is asked on the way, and nobody spoke of it."""
ONLY_ASKED = 0.5
"""How much of its name is left of what somebody only types in, where nobody spoke of asking."""
MENU_LINE = 0.05
"""What each line of a menu counts that is shown before what is chosen is asked for."""
MOST_AGAIN, MOST_DIFFERING = 3, 4
"""Places in the same form that count; values that differ between them where it is not told how many there may be."""
MOST_COMPARED, MOST_PLACES = 24, 40
"""Places of one form that each is compared with, and that are told: more are data."""
EACH_AGAIN, EACH_DIFFERING = 0.02, 0.03
"""What each further place in the same form counts, and each value that differs in it takes off."""
INSIDE = 0.08
"""What it takes off that the value is worked out inside a statement, and has no name."""
AS_CONDITION = 0.07
"""The same where a choice depends on it."""
SHARED = 0.2
"""What it takes off that statements are a part of another function's job."""
PARAGRAPH = 0.05
"""What each end counts at which the student begins a paragraph."""
OF_ALL = 0.3
"""What it takes off that a turn of a loop shows one thing, where all are asked for."""
PART_OF_A_ROW = 0.05
"""What it takes off for each end at which a row of statements of one form goes on."""
OF_ONE = 0.15
"""What it counts that a turn of a loop shows one thing, where one is asked for, and takes off that all are shown."""
BOTH = 0.15
"""What it counts that both what is done and what it is called say that it is what is asked."""
BEGUN = 0.15
"""What it takes off that they go on from what the statement above has begun."""
ONE_STEP, ONE_STEP_OF_ANOTHER = 0.7, 0.5
"""How much of a formula is left in a turn of a loop that works it out again and again; where nothing says that its
variable is what is asked."""
IN_A_BRANCH = 0.3
"""What it takes off that a heading or menu is only shown sometimes."""
GOOD_PARAGRAPH = 3
"""Statements that show something, from which they are likely a part of their own."""
MODEL_ALIKE = 0.8
PREPARING = frozenset("setup init prepare start begin attach ready reset set".split())
"""Words for what is done once, before anything else."""
NO_NAMES = frozenset({"", "main", "setup", "loop", "draw"})
"""Names of procedures that do not say what these do."""


class Job(msgspec.Struct, frozen=True, eq=False):
    """A stretch that does a job, as likely as `weight` tells."""

    stretch: Stretch
    kinds: tuple[str, ...]
    """The kinds of its nodes: its form."""
    weight: float
    told: float
    """How much of what is asked its words tell."""
    again: bool = False
    """It is done elsewhere too, with no more values in its place than are asked for."""

    @property
    def file(self) -> ProgramFile:
        """The file it stands in."""
        return self.stretch.file

    @property
    def statements(self) -> tuple[int, ...]:
        """Its statements."""
        return self.stretch.statements

    def overlaps(self, other: Job) -> bool:
        """True where the two share a statement."""
        a, b = self.stretch.span, other.stretch.span
        return self.file is other.file and a[0] < b[1] and b[0] < a[1]

    def cuts(self, other: Job) -> bool:
        """True where the two share a statement, and neither is a part of the other."""
        return self.overlaps(other) and not (self.is_part_of(other) or other.is_part_of(self))

    def is_part_of(self, other: Job) -> bool:
        """True where all its statements, but not only these, are the other's or stand inside them."""
        a, b = self.stretch.span, other.stretch.span
        return self.file is other.file and a != b and b[0] <= a[0] and a[1] <= b[1]

    def shares_statements(self, other: Job) -> bool:
        """True where some statement is one of both."""
        return self.file is other.file and not {*self.statements}.isdisjoint(other.statements)

    def is_instead_of(self, other: Job) -> bool:
        """True where the two stand in branches of one choice."""
        return self.stretch.choice is not None and (self.file, self.stretch.choice) == (
            other.file,
            other.stretch.choice,
        )


def find_jobs(
    program: Program,
    missing: Sequence[RequiredFunction],
    required: Sequence[RequiredFunction],
    owners: set[int],
    reference: Program | None,
) -> dict[str, list[Job]]:
    """For each missing function, by name, the places at which its job is likely done: alike ones together, the first
    being the likeliest; none for a function whose job is nowhere to be seen. A job may stand inside one statement of
    another. `owners`: the nodes of the functions that are asked for and there."""
    if program.statement_count > MOST_STATEMENTS:
        return {}
    stretches = [stretch for file in program.files for stretch in stretches_of(file)]
    ranked = {function.name: _ranked(stretches, Asked(function, required), owners, reference) for function in missing}
    chosen: dict[str, list[Job]] = {}
    for name in sorted(ranked, key=lambda name: -max((job.weight for job in ranked[name]), default=0.0)):
        taken = [job for jobs in chosen.values() for job in jobs]
        free = [job for job in ranked[name] if not any(job.cuts(other) for other in taken)]
        best = _likeliest([_beside(job, taken) for job in free])
        if best is not None:
            chosen[name] = [best, *_copies_of(best, free)]
    return chosen


def _beside(job: Job, taken: Sequence[Job]) -> Job:
    """A job that has statements in common with one that is taken is less likely one of its own."""
    shared = any(job.shares_statements(other) for other in taken)
    return msgspec.structs.replace(job, weight=job.weight - SHARED) if shared else job


def _likeliest(jobs: Sequence[Job]) -> Job | None:
    """The best of the jobs; None where another could as well be it."""
    if not jobs:
        return None
    best = max(jobs, key=lambda job: (job.weight, -job.statements[0]))
    if best.told < TOLD:
        same = [best, *_copies_of(best, jobs)]
        rivals = (j for j in jobs if j.weight > best.weight - CLOSE and j.kinds != best.kinds)
        if any(not any(rival.overlaps(one) for one in same) for rival in rivals):
            return None
    return best


def _copies_of(best: Job, jobs: Sequence[Job]) -> list[Job]:
    """Other places that do the same in the same form, as many as a person would look at."""
    found: list[Job] = []
    for job in jobs if best.again else ():
        alike = job.again and job.kinds == best.kinds
        if alike and not any(job.overlaps(other) for other in (best, *found)):
            found.append(job)
            if len(found) == MOST_PLACES:
                break
    return found


def _ranked(stretches: Sequence[Stretch], asked: Asked, owners: set[int], reference: Program | None) -> list[Job]:
    model = _reference_body(asked.function, reference)
    sayings = Sayings(asked.wanted)
    jobs = [job for stretch in stretches for job in _as_job(stretch, asked, owners, sayings, model)]
    alike: dict[tuple[str, ...], list[Job]] = {}
    for job in jobs:
        alike.setdefault(job.kinds, []).append(job)
    weighed = (_weighed_again(job, alike[job.kinds], asked) for job in jobs) if not asked.literal else jobs
    return [job for job in weighed if job.weight >= ENOUGH]


def _as_job(
    stretch: Stretch, asked: Asked, owners: set[int], sayings: Sayings, model: Counter[int] | None
) -> Iterator[Job]:
    """The stretch as a job, where it is likely enough."""
    owned = stretch.procedure.node in owners
    if stretch.is_all and (owned or _has_another_name(stretch, asked)):
        return
    told = sayings.told(stretch)
    weights = [_as_value(stretch, asked, told), _as_shown(stretch, asked, told), _as_act(stretch, asked, told)]
    weight = max(weights)
    if weight < ENOUGH and model and not owned:
        weight = max(weight, _model_weight(stretch, model))
    if weight > 0:
        weight += WORDS * told - LENGTH * max(0, stretch.size - SHORT)
        weight -= INSIDE * (stretch.statements[-1] not in stretch.file.statement_set)
        weight -= AS_CONDITION * stretch.is_condition
        weight -= WRITTEN_OUT * any(asked.speaks_of(name) for name in _written_out(stretch))
    if weight >= NEARLY_ENOUGH:
        yield Job(stretch, tuple(stretch.file.tree.kind[slice(*stretch.span)]), weight, told)


def _written_out(stretch: Stretch) -> Iterator[str]:
    """Variables that the statements begin with giving a plain value, which they keep."""
    tree, names = stretch.file.tree, stretch.file.names
    writes = [tree.text[n] for n in names.within(*stretch.span) if names.role[n] in WRITES]
    for statement in stretch.statements:
        given = given_value(tree, statement)
        if given is None or tree.kind[given[1]] not in stretch.file.language.numbers | stretch.file.language.strings:
            return
        if writes.count(tree.text[given[0]]) == 1:
            yield tree.text[given[0]]


def _has_another_name(stretch: Stretch, asked: Asked) -> bool:
    """True where the statements are what a function does that is named for something else."""
    return stretch.procedure.name not in NO_NAMES and not asked.could_be(stretch.procedure.name)


def _as_value(stretch: Stretch, asked: Asked, told: float) -> float:
    """How likely the statements work out what is asked; 0 where they do not."""
    best = 0.0
    if asked.function.returns is not True and asked.deeds.get(Deed.SHOW, 0.0) >= CERTAIN:
        return best
    for outcome in stretch.outcomes:
        if outcome.filled != (asked.function.returns is False):
            continue
        main = max(outcome.deeds, key=lambda deed: asked.deeds.get(deed, 0.0) * outcome.deeds[deed])
        said = asked.says(stretch.file, outcome.variable, outcome.label)
        if outcome.filled:
            # The list is given, and may be what another function is about as well.
            said = max(said, 0.0)
        if asked.deeds.get(Deed.TEST, 0.0) >= TOLD_AT_ONCE and not {Deed.TEST, Deed.DECIDE} & outcome.deeds.keys():
            said = min(said, 0.0)
            if asked.tests:
                continue
        if stretch.is_condition and not asked.tests:
            continue
        if said < 0 or (outcome.goes_on and main in FROM_NOTHING) or (outcome.menu and not asked.literal):
            continue
        by_words = told >= TOLD_WELL and asked.function.parameters == len(stretch.taken)
        if main is Deed.ASK and not asked.deeds.get(Deed.ASK):
            said *= ONLY_ASKED
        step = 1.0
        if main is Deed.FORMULA and outcome.goes_on and stretch.in_loop:
            step = ONE_STEP if said else ONE_STEP_OF_ANOTHER
        done = asked.deeds.get(main, 0.0) * outcome.deeds[main]
        strength = max(done * step, said * step, BY_WORDS if by_words else 0.0)
        if min(said, done) >= NEARLY_ENOUGH:
            strength += BOTH
        if strength:
            best = max(best, _value_weight(stretch, asked, outcome, main, strength))
    return best


def _value_weight(stretch: Stretch, asked: Asked, outcome: Outcome, main: Deed, strength: float) -> float:
    too_few = TOO_FEW_FOR_A_FORMULA if main is Deed.FORMULA else TOO_FEW
    misfit = _parameters_amiss(stretch, asked, too_few) + MORE_GIVEN * len(stretch.given - {outcome.variable})
    weight = DEED * (strength + PARAGRAPH * stretch.paragraph) - MISFIT * misfit
    if main in CONDITIONAL and asked.on_condition:
        weight += BY_CONDITION if stretch.chooses else -BY_CONDITION
    if stretch.asks and Deed.ASK not in asked.deeds:
        weight -= NOT_ASKED
    if main is Deed.ASK and asked.literal:
        weight += DEED * MENU_LINE * min(len(stretch.statements) - 1, 5)
    if main is Deed.ASK:
        return weight + AGAIN * stretch.looped - LENGTH_OF_QUESTIONS * max(0, stretch.size - SHORT)
    # What a branch shows instead of working the value out tells why there is none.
    return weight - (REFUSED if stretch.shows_instead else SHOWN) * stretch.shows


def _as_shown(stretch: Stretch, asked: Asked, told: float) -> float:
    """How likely the statements show what is asked; 0 where they do not."""
    strength, show = asked.deeds.get(Deed.SHOW, 0.0), stretch.show
    if asked.function.returns is True or not strength or show is None:
        return 0.0
    strength += PARAGRAPH * stretch.paragraph + _form_of_show(show, len(stretch.statements), asked.literal)
    strength -= BEGUN * stretch.begun + PART_OF_A_ROW * stretch.cuts_a_row
    if asked.of_one and show.looped != stretch.is_turn:
        strength += OF_ONE if stretch.is_turn else -OF_ONE
    if (asked.of_all or asked.of_rows) and stretch.in_loop:
        strength -= OF_ALL
    alone = stretch.shows_all and not asked.of_many
    if asked.literal and stretch.choice is not None:
        strength -= IN_A_BRANCH
    if not (show.looped or stretch.is_turn or asked.literal or told >= TOLD or alone):
        fits = asked.function.parameters == len(stretch.taken) and len(stretch.taken) > 1
        strength -= 0.3 if fits or show.statements >= GOOD_PARAGRAPH else 0.5
    return DEED * strength - MISFIT * _parameters_amiss(stretch, asked)


def _form_of_show(show: Show, statements: int, literal: bool) -> float:
    """How well the way in which something is shown fits: always in the same words, as a menu is, or a line for each
    of many."""
    fits = 0.02 * min(show.statements, 5) - 0.05 * (statements - show.statements)
    if literal:
        fits += 0.2 if show.literal else -0.6
    elif show.looped:
        fits += 0.1
    elif show.literal:
        fits -= 0.2
    if statements == 1 and not show.looped:
        fits -= 0.3
    # What is done several times over is not one job.
    return fits - 0.15 * show.aside - 0.15 * show.repeated


def _as_act(stretch: Stretch, asked: Asked, told: float) -> float:
    """The same for what is done for its own sake: it acts on something, or its words alone tell that it is meant."""
    filled = {outcome.variable for outcome in stretch.outcomes if outcome.filled}
    if asked.function.returns is True or stretch.given - filled or told < TOLD_LITTLE:
        return 0.0
    prepares = stretch.procedure.name == "setup"
    if prepares and not PREPARING & {*asked.name, *map(stem, asked.purpose)}:
        return 0.0
    strength = asked.deeds.get(Deed.ACT, 0.0)
    if stretch.show is None:
        strength = max(strength, ACTS_TO_SHOW * asked.deeds.get(Deed.SHOW, 0.0))
    if not strength or not stretch.acts:
        enough = TOLD_WELL if stretch.acts or stretch.changes else TOLD_FULLY
        strength = BY_WORDS if told >= enough and 1 < stretch.size <= WIDEST else 0.0
    if not strength:
        return 0.0
    strength += PARAGRAPH * stretch.paragraph - 0.2 * stretch.around_acts - PART_OF_A_ROW * stretch.cuts_a_row
    return DEED * strength - MISFIT * _parameters_amiss(stretch, asked)


def _parameters_amiss(stretch: Stretch, asked: Asked, too_few: float = TOO_FEW) -> float:
    """How many inputs there are too many; of those too few, which may be plain values here, a part."""
    bounds, count = asked.function.bounds, len(stretch.taken)
    if bounds is None:
        return UNASKED * count
    least, most = bounds
    if least <= stretch.elements <= most:
        count = stretch.elements
    elif stretch.outcomes and most < count <= most + len(stretch.settled):
        # What has one plain value all through the program need not be given.
        return SETTLED_GIVEN * (count - most) - EXACTLY * (min(most, 3) if least == most > 1 else 0)
    fitting = EXACTLY * min(count, 3) if least == count == most and count > 1 else 0.0
    return max(0, count - most) + too_few * max(0, least - count) - fitting


def _weighed_again(job: Job, alike: Sequence[Job], asked: Asked) -> Job:
    """A job that is done in the same form elsewhere: what differs from there are inputs too. (What is always shown in
    the same words is shown once, or by a loop.)"""
    others = [o for o in alike[:MOST_COMPARED] if not o.overlaps(job) and not o.is_instead_of(job)]
    differing = _differing(job, others)
    _, most = asked.function.bounds or (0, MOST_DIFFERING)
    if not differing or min(differing) > most:
        return job
    matched = TOO_FEW * min(min(differing), max(0, most - len(job.stretch.taken)))
    often = AGAIN * min(len(differing), MOST_AGAIN) + EACH_AGAIN * len(differing) - EACH_DIFFERING * min(differing)
    return msgspec.structs.replace(job, weight=job.weight + often + MISFIT * matched, again=True)


def _differing(job: Job, others: Sequence[Job]) -> list[int]:
    """In how many values a job differs from each of others in its form, those that they work out aside."""
    tree, names = job.file.tree, job.file.names
    start, stop = job.stretch.span
    own = {tree.text[n] for n in names.within(start, stop) if names.role[n] is Role.WRITE}
    texts = tree.text[start:stop]
    pairs = (zip(texts, other.file.tree.text[slice(*other.stretch.span)], strict=True) for other in others)
    return [len({(a, b) for a, b in pair if a != b and a not in own}) for pair in pairs]


# -- the reference solution ------------------------------------------------------------------------


def _reference_body(function: RequiredFunction, reference: Program | None) -> Counter[int] | None:
    for file in reference.files if reference is not None else ():
        for procedure in file.procedures[1:]:
            block = file.body_of(procedure) if procedure.name == function.name else None
            if block and len(block.statements) > 1:
                return _constructs(file, block.statements)
    return None


def _constructs(file: ProgramFile, statements: Sequence[int]) -> Counter[int]:
    tree = file.tree
    return Counter(
        hash((tree.kind[n], tree.kind[tree.parent[n]]))
        for s in statements
        if tree.kind[s] != file.language.returning
        for n in range(s, tree.end[s])
        if not tree.text[n] or tree.text[n] in {"+", "-", "*", "/", "<", ">", "+=", "=="}
    )


def _model_weight(stretch: Stretch, model: Counter[int]) -> float:
    """Multiset likeness of the stretch's constructs with the reference body's; 0 to 1."""
    found = _constructs(stretch.file, stretch.statements)
    weight = 2 * (found & model).total() / (found.total() + model.total())
    return weight if weight > MODEL_ALIKE else 0.0
