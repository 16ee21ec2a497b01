"""Where the job of a missing function is done: the statements that do what it is asked for.

Stretches of consecutive statements are weighed by what they do (`deeds.py`) against what the function's name
and purpose speak of (`wanted.py`), by the words they share with these, by how their inputs and outcome fit
the parameters and the result that are asked, and by their likeness to the reference solution's body.
"""

from __future__ import annotations

import itertools
import re
from collections import Counter
from collections.abc import Iterator, Mapping, Sequence

import msgspec

from ..program.flow import EMPTY, Set, Summary, flow_of, summaries_of
from ..program.names import Role
from ..program.program import Block, Procedure, Program, ProgramFile
from .deeds import GIVEN_BACK, Deed, Done, deeds_of, labels_of, shown_texts_only, shows_in_every_loop, starts_as_text
from .wanted import KNOWN, OF_THE_PURPOSE, PREPOSITIONS, RequiredFunction, are_opposed, deeds_asked, words_of

WIDEST = 10
"""Statements that a job has at most."""
MOST_STATEMENTS = 400
"""Statements of one list that are looked at."""
DEED, WORDS, MISFIT = 0.6, 0.75, 0.12
"""What a deed counts, what shared words count, and what each input or outcome too many takes off."""
FEW_WORDS = 1.5
"""Shared words count as their number divided by itself and this."""
SHORT, LENGTH = 6, 0.01
"""What each statement more takes off, so that of places that say the same a short one counts."""
ENOUGH, NEARLY_ENOUGH = 0.5, 0.4
CLOSE = 0.08
"""Two places of which neither shares a word with what is asked have to be further apart than this."""
TOLD = 0.2
"""Share of words from which a place tells by its words that it is the one."""
TOO_FEW, TOO_FEW_FOR_A_FORMULA = 0.3, 0.6
"""How many inputs too many one too few is worth: its value may be written out here."""
EXACTLY = 0.4
"""What each of several inputs is worth where there are just as many as are asked for."""
MORE_GIVEN = 2.0
"""How many inputs too many one more outcome is worth."""
SHOWN, AGAIN = 0.25, 0.1
"""What it takes off that a value is worked out and something shown as well; what it counts that is asked again."""
SHORTEST, ABBREVIATED = 4, 0.7
"""Letters of an abbreviated word, and what one counts."""
TOLD_LITTLE = 0.1
"""The same for what acts on something."""
TOLD_WELL, BY_WORDS = 0.36, 0.4
"""Share of words from which they alone tell, and how much that counts beside a deed."""
AS_TEXT, BESIDE = 0.6, 0.4
"""What a word counts in a shown text, and in the statement that follows, beside one in a name."""
NAMED = 0.9
"""How much it says that the outcome's variable has the function's name."""
MODEL_ALIKE = 0.8
FROM_NOTHING = frozenset(
    {
        Deed.COUNT,
        Deed.SUM,
        Deed.MEAN,
        Deed.PRODUCT,
        Deed.LARGEST,
        Deed.SMALLEST,
        Deed.SEARCH,
        Deed.TEST,
        Deed.LIST,
        Deed.TEXT,
        Deed.DECIDE,
        Deed.ASK,
    }
)
"""Deeds whose outcome had no value before they began."""
BUILT_UP = frozenset({Deed.COUNT, Deed.SUM, Deed.PRODUCT, Deed.LARGEST, Deed.SMALLEST})
"""Deeds that go on from what a variable had before: it is theirs, too, to give it its first value."""
GOOD_PARAGRAPH = 3
"""Statements that show something, from which they are likely a part of their own."""
PLAIN_TEXT_WORDS = frozenset("menu title heading header banner rules welcome instructions help intro logo".split())
"""Words for something that is always shown in the same words."""
PLAIN = frozenset(
    """
    the a an of for and or to in on at by is are that this it one each all from with than as its how many
    were was get do does did give make work out function back say tell print show line
    """.split()
)
ARTICLES = (["the"], ["a"], ["an"], ["what"], ["which"])
SAID_AS = {"low": "off", "high": "on"}
"""Words of programs for what people call otherwise."""
VAGUE = frozenset("do it calc calculate compute func function fun my the stuff thing program work part step".split())


class Job(msgspec.Struct, frozen=True, eq=False):
    """Statements that do a job, as likely as `weight` tells."""

    file: ProgramFile
    statements: tuple[int, ...]
    weight: float
    told: float
    """How much of what is asked its words tell."""
    taken: int
    """Variables whose values it needs."""
    again: bool = False
    """It is done elsewhere too, with no more values in its place than are asked for."""

    @property
    def span(self) -> tuple[int, int]:
        """The node range of the statements."""
        return self.statements[0], self.file.tree.end[self.statements[-1]]

    def overlaps(self, other: Job) -> bool:
        """True where the two share a statement."""
        a, b = self.span, other.span
        return self.file is other.file and a[0] < b[1] and b[0] < a[1]

    def cuts(self, other: Job) -> bool:
        """True where the two share a statement, and neither stands inside one statement of the other."""
        inside = any(
            one.statements[0] > s and one.span[1] <= one.file.tree.end[s]
            for one, around in ((self, other), (other, self))
            for s in around.statements
        )
        return self.overlaps(other) and not inside

    @property
    def kinds(self) -> tuple[str, ...]:
        """The kinds of its nodes."""
        return tuple(self.file.tree.kind[slice(*self.span)])


def find_jobs(
    program: Program,
    missing: Sequence[RequiredFunction],
    required: Sequence[RequiredFunction],
    owners: set[int],
    reference: Program | None,
) -> dict[str, list[Job]]:
    """For each missing function, by name, the places at which its job is likely done: alike ones together, the first
    being the likeliest; none for a function whose job is nowhere to be seen. A job may stand inside one statement of
    another."""
    ranked = {function.name: _ranked(program, _Asked(function, required, reference), owners) for function in missing}
    chosen: dict[str, list[Job]] = {}
    order = sorted(ranked, key=lambda name: -max((job.weight for job in ranked[name]), default=0.0))
    for name in order:
        taken = [job for jobs in chosen.values() for job in jobs]
        free = [job for job in ranked[name] if not any(job.cuts(other) for other in taken)]
        best = _likeliest(free)
        if best is not None:
            chosen[name] = [best, *_copies_of(best, free)]
    return chosen


def _likeliest(jobs: Sequence[Job]) -> Job | None:
    """The best of the jobs; None where another could as well be it."""
    if not jobs:
        return None
    best = max(jobs, key=lambda job: (job.weight, -job.span[0]))
    if best.told < TOLD:
        rivals = (j for j in jobs if not j.overlaps(best) and j.kinds != best.kinds)
        if any(rival.weight > best.weight - CLOSE for rival in rivals):
            return None
    return best


def _copies_of(best: Job, jobs: Sequence[Job]) -> list[Job]:
    """Other places that do the same in the same form, in the order of the text."""
    found: list[Job] = []
    for job in jobs:
        alike = best.again and job.again and job.kinds == best.kinds
        if alike and not any(job.overlaps(other) for other in (best, *found)):
            found.append(job)
    return found


class _Asked:
    """A missing function, and what its words say."""

    def __init__(
        self, function: RequiredFunction, required: Sequence[RequiredFunction], reference: Program | None
    ) -> None:
        self.function = function
        name, purpose = words_of(function.name), words_of(function.purpose)
        self.name = name
        self.deeds = deeds_asked(name, purpose)
        common = {_stem(w) for f in required if f is not function for w in words_of(f.name) + words_of(f.purpose)}
        self.wanted: dict[str, float] = {}
        plain = PLAIN - {"on"} if {"switch", "turn"} & {*name, *map(_stem, purpose)} else PLAIN
        for word in itertools.chain(name, *(words_of(other) for other in function.also), purpose):
            stem = _stem(word)
            if word not in plain and stem not in plain:
                weight = 0.3 if stem in common or word in KNOWN or stem in KNOWN else 1.0
                self.wanted[stem] = max(weight, self.wanted.get(stem, 0.0))
        self.stems = {_stem(w) for w in name}
        noun = itertools.takewhile(lambda w: w not in PREPOSITIONS, purpose if purpose[:1] in ARTICLES else ())
        self.object = {_stem(w) for w in noun if w not in PLAIN} | self.stems
        self.others = [{_stem(w) for w in words_of(f.name)} for f in required if f is not function]
        self.model = _reference_body(function, reference)
        self.literal = bool(PLAIN_TEXT_WORDS & set(name))

    def says(self, file: ProgramFile, variable: str) -> float:
        """How much a variable's name, or the text before it where it is shown, says that it holds what is asked; below
        0 where it is another function's."""
        words = {_stem(w) for w in words_of(variable) if len(w) > 2}
        if not words:
            return 0.0
        if words <= self.object:
            return NAMED if words <= self.stems else NAMED * OF_THE_PURPOSE
        if any(words <= other for other in self.others):
            return -1.0
        told = {_stem(w) for label in labels_of(file, variable) for w in words_of(label)}
        return NAMED * OF_THE_PURPOSE if told & self.stems - PLAIN else 0.0


def _ranked(program: Program, asked: _Asked, owners: set[int]) -> list[Job]:
    jobs: list[Job] = []
    for file in program.files:
        for block in file.blocks:
            if len(block.statements) <= MOST_STATEMENTS:
                jobs.extend(_Weigher(file, block, asked, block.procedure in owners).jobs())
    alike: dict[tuple[str, ...], list[Job]] = {}
    for job in jobs:
        alike.setdefault(job.kinds, []).append(job)
    weighed = (_weighed_again(job, alike[job.kinds], asked.function) for job in jobs)
    return [job for job in weighed if job.weight >= ENOUGH]


def _weighed_again(job: Job, alike: Sequence[Job], function: RequiredFunction) -> Job:
    """A job that is done in the same form elsewhere: what differs from there are inputs too."""
    differing = [_differing(job, other) for other in alike if not other.overlaps(job)]
    most = function.parameters if isinstance(function.parameters, int) else max(function.parameters or (4,))
    if not differing or min(differing) > most:
        return job
    matched = 0.3 * min(min(differing), max(0, most - job.taken))
    return msgspec.structs.replace(job, weight=job.weight + AGAIN + MISFIT * matched, again=True)


def _differing(one: Job, other: Job) -> int:
    """In how many values two jobs of one form differ, those that they work out aside."""
    (a, b), (c, d) = one.span, other.span
    texts = zip(one.file.tree.text[a:b], other.file.tree.text[c:d], strict=True)
    own = {one.file.tree.text[n] for n in one.file.names.within(a, b) if one.file.names.role[n] is Role.WRITE}
    return len({pair for pair in texts if pair[0] != pair[1] and pair[0] not in own})


class _Weigher:
    """Weighs the stretches of one statement list."""

    def __init__(self, file: ProgramFile, block: Block, asked: _Asked, owned: bool) -> None:
        self.file, self.block, self.asked = file, block, asked
        self.owned = owned
        procedure = file.procedure_around(block.statements[0]) if block.statements else None
        named = procedure is not None and procedure.node and procedure.name not in {"", "main", "setup", "loop", "draw"}
        self.has_a_job = owned or (named and procedure is not None and not is_named_for(procedure, asked.function))
        """It is a function that is there for something else."""
        self.statements = block.statements
        self.scope = block.procedure

    def jobs(self) -> Iterator[Job]:
        """Those that are likely enough."""
        file, asked = self.file, self.asked
        usable = [not (file.is_definition(s) or file.is_import(s) or file.is_bare_string(s)) for s in self.statements]
        deeds = [deeds_of(file, s) if usable[k] else frozenset() for k, s in enumerate(self.statements)]
        if not asked.model and not any(
            d.deed in asked.deeds or asked.says(file, d.variable) > 0 for done in deeds for d in done
        ):
            return
        steered = file.language.conditionals | file.language.loops | file.language.procedures
        steering = next((p for p in file.parents(self.block.node) if file.tree.kind[p] in steered), -1)
        whole = steering >= 0 and file.tree.kind[steering] not in file.language.procedures
        around = deeds_of(file, steering) if whole else frozenset()
        summaries = summaries_of(file, self.scope, self.statements)
        live = flow_of(file, self.scope).live_after
        sizes = [len(file.statements_within(s, file.tree.end[s])) for s in self.statements]
        for start in range(len(self.statements)):
            for stop in range(start + 1, min(start + WIDEST, len(self.statements)) + 1):
                if not usable[stop - 1]:
                    break
                window = self.statements[start:stop]
                if self.has_a_job and self._is_own_job(start, stop):
                    continue
                following = self.statements[stop] if stop < len(self.statements) else None
                told = _told(file, window, following, asked.wanted)
                stretch = _Stretch(
                    file,
                    window,
                    summaries[start:stop],
                    deeds[start:stop],
                    live.get(window[-1], EMPTY),
                    asked,
                    told,
                    summaries[start - 1] if start else None,
                    around,
                )
                weight = stretch.weight() or 0.0
                if following is not None and self._is_cut_off(window, following):
                    continue
                if weight < ENOUGH and asked.model and not self.owned:
                    weight = max(weight, _model_weight(file, window, asked.model))
                if weight:
                    weight += WORDS * told - LENGTH * max(0, sum(sizes[start:stop]) - SHORT)
                if weight >= NEARLY_ENOUGH:
                    yield Job(file, window, weight, told, len(stretch.taken))

    def _is_cut_off(self, window: tuple[int, ...], following: int) -> bool:
        """True where it is asked for something, and asked again right afterwards until it fits."""
        asked = {d for s in window for d in deeds_of(self.file, s) if d.deed is Deed.ASK}
        return self.file.tree.kind[following] in self.file.language.loops and bool(
            asked & deeds_of(self.file, following)
        )

    def _is_own_job(self, start: int, stop: int) -> bool:
        """True where a function that is asked for itself does with the statements what it is there for: they are
        all of it, but for a `return` of a plain variable."""
        left = [s for k, s in enumerate(self.statements) if not start <= k < stop]
        tree, language = self.file.tree, self.file.language
        plain = language.name
        values = [c for s in left for c in tree.children(s) if tree.text[c] not in {"return", ";"}]
        returns = all(tree.kind[s] == language.returning for s in left)
        return not left or (len(left) == 1 and (not returns or all(tree.kind[v] == plain for v in values)))


class _Stretch:
    """Consecutive statements, what they do, and what they need and give."""

    def __init__(
        self,
        file: ProgramFile,
        window: tuple[int, ...],
        summaries: Sequence[Summary],
        deeds: Sequence[frozenset[Done]],
        live: Set,
        asked: _Asked,
        told: float,
        above: Summary | None,
        around: frozenset[Done],
    ) -> None:
        self.above = above
        self.around = around
        """What the choice or loop does inside which the statements stand."""
        self.told = told
        self.file, self.window, self.asked = file, window, asked
        self.summaries, self.each = summaries, deeds
        self.done = frozenset().union(*deeds)
        self.written = EMPTY.union(*(s.written for s in summaries))
        self.given = self.written & live
        taken: Set = EMPTY
        certain: Set = EMPTY
        for summary in summaries:
            taken |= summary.needed - certain
            certain |= summary.certain
        # What it may leave as it was is needed, too.
        declared = {
            file.tree.text[n]
            for n in file.names.within(window[0], file.tree.end[window[-1]])
            if file.language.declares and file.names.declared_at(n)
        }
        taken |= self.given - certain - declared
        self.taken = frozenset(n for n in taken if not n.isupper()) - _no_variables(file)

        parents = file.tree.parent[window[0]]
        procedure = file.procedure_around(window[0])
        body = file.body_of(procedure) if procedure.node else None
        if body is not None and body.node == parents and body.statements == window:
            self.given |= {GIVEN_BACK}

    def weight(self) -> float | None:
        """How likely the statements do what is asked by what they do; None where they do not."""
        weights = [w for w in (self._as_value(), self._as_shown(), self._as_act()) if w is not None]
        return max(weights, default=None)

    # -- a value worked out ------------------------------------------------------------------------

    def _as_value(self) -> float | None:
        asked, file = self.asked, self.file
        if asked.function.returns is False:
            return None
        best: float | None = None
        for variable, deeds in self._outcomes().items():
            strength = max(asked.deeds.get(deed, 0.0) * share for deed, share in deeds.items())
            said = asked.says(file, variable)
            strength = max(strength, said) if said >= 0 else 0.0
            main = max(deeds, key=lambda deed: asked.deeds.get(deed, 0.0) * deeds[deed])
            goes_on = variable in self.taken and main in FROM_NOTHING and not (main is Deed.ASK and self._asks_first())
            if strength <= 0 or goes_on or not self._serves(variable, main):
                continue
            if any(d.deed in BUILT_UP and d.variable in self.taken for d in self.done):
                continue
            if Done(Deed.DECIDE, variable) in self.around:
                continue
            if self.above is not None and variable in self.above.written:
                continue
            shows = any(Done(Deed.SHOW, "") in done for done in self.each)
            too_few = TOO_FEW_FOR_A_FORMULA if main is Deed.FORMULA else TOO_FEW
            misfit = self._parameters_amiss(too_few) + MORE_GIVEN * len(self.given - {variable})
            weight = DEED * (strength + _paragraph_bonus(file, self.window)) - MISFIT * misfit
            if main is Deed.ASK:
                weight += AGAIN * any(file.tree.kind[s] in file.language.loops for s in self.window)
            elif shows:
                weight -= SHOWN
            best = weight if best is None else max(best, weight)
        return best

    def _outcomes(self) -> Mapping[str, dict[Deed, float]]:
        """The variables that hold what comes of the statements, each with what was done for it."""
        found: dict[str, dict[Deed, float]] = {}
        loops = any(self.file.tree.kind[s] in self.file.language.loops for s in self.window)
        for done in self.done:
            if done.variable not in self.given:
                continue
            share = self._share(done, loops)
            if share:
                found.setdefault(done.variable, {})[done.deed] = share
        return found

    def _share(self, done: Done, loops: bool) -> float:
        """How much of the deed is really done here."""
        deed, variable = done.deed, done.variable
        if deed is Deed.FORMULA:
            return 0.0 if loops else 1.0
        if deed is Deed.MEAN:
            added = any(d.deed in {Deed.SUM, Deed.MEAN} and d != done for d in self.done)
            called = "sum" in {t for s in self.window for t in self.file.tree.leaf_texts(s)}
            return 1.0 if added or called else 0.5
        if deed in {Deed.SUM, Deed.TEXT} and {Done(Deed.SUM, variable), Done(Deed.TEXT, variable)} <= self.done:
            text = starts_as_text(self.file, self.window, variable)
            return 0.8 if text is None else float(text == (deed is Deed.TEXT))
        return 1.0

    def _serves(self, variable: str, deed: Deed) -> bool:
        """True where every statement has a part in the variable's value, be it only to get a sensor ready or to show
        what is to be typed where the question itself does not."""
        wanted = {variable}
        asking = any(d.deed is Deed.ASK for d in self.done)
        prompts = False
        for statement, summary, done in zip(
            reversed(self.window), reversed(self.summaries), reversed(self.each), strict=True
        ):
            wrote = summary.written | {d.variable for d in done if d.variable}
            if not wrote & wanted and not (Done(Deed.ACT, "") in done and asking) and not prompts:
                return False
            prompts = any(d.deed is Deed.ASK for d in done) and not self._has_text(statement)
            wanted |= summary.needed
        return True

    def _asks_first(self) -> bool:
        """True where the first thing that is asked is asked once, not again and again."""
        asking = (s for s, done in zip(self.window, self.each, strict=True) if any(d.deed is Deed.ASK for d in done))
        return self.file.tree.kind[next(asking)] not in self.file.language.loops

    def _has_text(self, statement: int) -> bool:
        kinds = self.file.tree.kind[statement : self.file.tree.end[statement]]
        return bool({"string", "string_content"} & set(kinds))

    # -- something shown -----------------------------------------------------------------------------

    def _as_shown(self) -> float | None:
        asked, file = self.asked, self.file
        strength = asked.deeds.get(Deed.SHOW, 0.0)
        if asked.function.returns is True or not strength or self.given:
            return None
        if not self._is_shown():
            return None
        loops = file.language.loops
        looped = any(file.tree.kind[s] in loops for s in self.window)
        literal = all(shown_texts_only(file, s) for s in self.window)
        shown = sum(Done(Deed.SHOW, "") in done for done in self.each)
        strength += _paragraph_bonus(file, self.window) + 0.02 * min(shown, 5) - 0.05 * (len(self.window) - shown)
        if asked.literal:
            strength += 0.2 if literal else -0.4
        else:
            strength += 0.1 if looped else -0.2 if literal else 0.0
        if len(self.window) == 1 and not looped:
            strength -= 0.3
        if not (looped or asked.literal or self.told >= TOLD):
            strength -= 0.5 if shown < GOOD_PARAGRAPH else 0.3
        if not all(shows_in_every_loop(file, s) for s in self.window):
            strength -= 0.15
        shapes = Counter(tuple(file.tree.kind[s : file.tree.end[s]]) for s in self.window if file.tree.kind[s] in loops)
        # What is done several times over is not one job.
        strength -= 0.15 * sum(count - 1 for count in shapes.values())
        return DEED * strength - MISFIT * self._parameters_amiss()

    def _is_shown(self) -> bool:
        """True where all statements show something, or work out what is shown behind them."""
        show = Done(Deed.SHOW, "")
        if show not in self.each[-1]:
            return False
        needed: set[str] = set()
        for statement, summary, done in zip(
            reversed(self.window), reversed(self.summaries), reversed(self.each), strict=True
        ):
            if show not in done and not (summary.written & needed and self._is_simple(statement, done)):
                return False
            needed |= summary.needed
        return True

    def _is_simple(self, statement: int, done: frozenset[Done]) -> bool:
        """True for a plain statement that asks for nothing."""
        steering = self.file.language.loops | self.file.language.conditionals
        return self.file.tree.kind[statement] not in steering and not any(d.deed is Deed.ASK for d in done)

    def _as_act(self) -> float | None:
        """What is done for its own sake: it acts on something, or its words alone tell that it is meant."""
        asked = self.asked
        if asked.function.returns is True or self.given or self.told < TOLD_LITTLE:
            return None
        strength = asked.deeds.get(Deed.ACT, 0.0)
        if not strength or not all(Done(Deed.ACT, "") in done for done in self.each):
            size = sum(len(self.file.statements_within(s, self.file.tree.end[s])) for s in self.window)
            strength = BY_WORDS if self.told >= TOLD_WELL and 1 < size <= WIDEST else 0.0
        if not strength:
            return None
        if Done(Deed.ACT, "") in self.around:
            strength -= 0.2
        return DEED * (strength + _paragraph_bonus(self.file, self.window)) - MISFIT * self._parameters_amiss()

    def _parameters_amiss(self, too_few: float = TOO_FEW) -> float:
        """How many inputs there are too many; of those too few, which may be plain values here, a part."""
        asked, count = self.asked.function.parameters, len(self.taken)
        if asked is None:
            return 0.15 * count
        least, most = (asked, asked) if isinstance(asked, int) else asked
        fitting = EXACTLY * min(count, 3) if least == count == most and count > 1 else 0.0
        return max(0, count - most) + too_few * max(0, least - count) - fitting


def _no_variables(file: ProgramFile) -> Set:
    """Names of functions, classes and modules."""
    known = file.derived.get("no variables")
    if not isinstance(known, frozenset):
        tree, language = file.tree, file.language
        defining = language.procedures | language.classes
        names = {
            tree.text[i]
            for i in file.names.nodes
            if (file.names.role[i] is Role.WRITE and tree.kind[tree.parent[i]] in defining)
            or any(tree.kind[p] in language.imports for p in file.parents(i))
        }
        known = frozenset(names)
        file.derived["no variables"] = known
    return known


def _paragraph_bonus(file: ProgramFile, window: tuple[int, ...]) -> float:
    """What it counts that the statements are a paragraph of the student's."""
    tree = file.tree
    first, last = tree.start_line(window[0]), tree.end_line(window[-1])
    above = file.lines[first - 2].strip() if first > 1 else ""
    below = file.lines[last].strip() if last < len(file.lines) else ""
    marks = (*file.language.comment_marks, "}", "{")
    return 0.05 * (not above or above.startswith(marks)) + 0.05 * (not below or below.startswith(marks))


# -- words -----------------------------------------------------------------------------------------


def _told(file: ProgramFile, window: tuple[int, ...], following: int | None, wanted: Mapping[str, float]) -> float:
    """How much the words of the statements, of their comments and of what follows are those that are asked; 0 to 1."""
    tree = file.tree
    start, stop = window[0], tree.end[window[-1]]
    first, last = tree.start_line(start), tree.end_line(window[-1])
    weight: dict[str, float] = {}

    def note(text: str, share: float) -> None:
        for word in words_of(text):
            stem = _stem(SAID_AS.get(word, word))
            weight[stem] = max(share, weight.get(stem, 0.0))

    for i in file.names.within(start, stop):
        note(tree.text[i], 1.0)
        if file.names.role[i] is Role.WRITE:
            for label in labels_of(file, tree.text[i]):
                note(label, AS_TEXT)
    for comment in tree.comments:
        if first - 1 <= comment.line <= last:
            note(comment.text, 1.0)
    for i in range(start, stop):
        if tree.kind[i] in file.language.strings or tree.kind[i] == "string_content":
            note(tree.text[i], AS_TEXT)
    if following is not None:
        for text in tree.text[following : min(tree.end[following], following + 40)]:
            note(text, BESIDE)
    short = [word for word in weight if len(word) >= SHORTEST]
    for word in wanted:
        if word not in weight and any(word.startswith(abbreviated) for abbreviated in short):
            weight[word] = ABBREVIATED
    shared = sum(value * weight[word] for word, value in wanted.items() if word in weight)
    return shared / (shared + FEW_WORDS)


def _stem(word: str) -> str:
    for ending in ("ing", "ed", "es", "s", "er", "est"):
        if word.endswith(ending) and len(word) - len(ending) >= 3:
            return word[: -len(ending)]
    return word


def is_named_for(procedure: Procedure, function: RequiredFunction) -> bool:
    """True where a function's name says no more than what is asked, or next to nothing."""
    words = words_of(re.sub(r"\d+", "", procedure.name))
    asked = deeds_asked(words_of(function.name), words_of(function.purpose))
    wanted = {_stem(w) for w in words_of(function.name) + words_of(function.purpose)}
    if are_opposed(words, words_of(function.name)):
        return False
    meant = {deed for deed, weight in asked.items() if weight >= NAMED}
    return all(w in VAGUE or _stem(w) in wanted or KNOWN.get(w, {}).keys() & meant for w in words)


# -- the reference solution ------------------------------------------------------------------------


def _reference_body(function: RequiredFunction, reference: Program | None) -> list[int] | None:
    if reference is None:
        return None
    for file in reference.files:
        for procedure in file.procedures[1:]:
            if procedure.name == function.name:
                block = file.body_of(procedure)
                if block and len(block.statements) > 1:
                    return _shape_tokens(file, block.statements)
    return None


def _shape_tokens(file: ProgramFile, statements: Sequence[int]) -> list[int]:
    tree = file.tree
    return sorted(
        hash((tree.kind[n], tree.kind[tree.parent[n]]))
        for s in statements
        if tree.kind[s] != file.language.returning
        for n in range(s, tree.end[s])
        if not tree.text[n] or tree.text[n] in {"+", "-", "*", "/", "<", ">", "+=", "=="}
    )


def _model_weight(file: ProgramFile, window: tuple[int, ...], model: list[int]) -> float:
    """Multiset likeness of the window's constructs with the reference body's; 0 to 1."""
    tokens = Counter(_shape_tokens(file, window))
    other = Counter(model)
    shared = sum((tokens & other).values())
    weight = 2 * shared / (sum(tokens.values()) + sum(other.values()))
    return weight if weight > MODEL_ALIKE else 0.0
