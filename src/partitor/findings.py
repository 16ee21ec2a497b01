"""From what was found to remarks: one finding an opportunity, its sentence, its suggestion."""

from __future__ import annotations

from collections.abc import Callable, Iterable, Sequence
from functools import partial

import msgspec

from .deadline import Deadline
from .languages.blocks.words import in_block_words
from .outlines import (
    difference,
    further_places,
    lines_that_differ,
    listed,
    number_of_lines,
    number_word,
    of_one_order,
    told_apart,
    told_of,
    towards_a_table,
    towards_near_twins,
    towards_one_class,
    towards_what_is_shared,
    where_each_stands,
)
from .procedures import slips
from .procedures.calls import CallMap, redefined, uncalled, undefined_calls
from .procedures.required import Match
from .procedures.sizes import own_statements
from .program.program import Procedure, Program, ProgramFile
from .program.shapes import skeleton
from .records import Change, Finding, Place, Suggestion
from .repeats.blocks import RepeatedBlock, Twins
from .repeats.classes import AlikeClasses
from .repeats.find import Repeats
from .repeats.judge import inner_statements
from .repeats.limits import Limits
from .repeats.near import Likeness, NearBlock, NearTwins
from .repeats.runs import Run
from .repeats.slots import Copy, Table
from .suggestions.attempts import Proved, attempt
from .suggestions.candidate import Candidate, InFile
from .suggestions.cutting import first_proved
from .suggestions.folds import least_saving
from .suggestions.functions import function_candidate
from .suggestions.jobs import copy_of, job_candidates
from .suggestions.loops import loop_candidate
from .suggestions.makings import block_candidate, has_a_loop, in_a_function, regrouped, twins_candidate
from .suggestions.near_merges import near_merge_candidate
from .suggestions.patches import can_be_patched, unified_diff
from .suggestions.renames import rename_candidate
from .suggestions.steps import steps_of


class Remarks:
    """Collects findings and suggestions of one program; ids count up in reading order."""

    def __init__(self, program: Program, deadline: Deadline) -> None:
        self.program = program
        self.deadline = deadline
        self.findings: list[Finding] = []
        self.suggestions: list[Suggestion] = []

    def add(
        self,
        rule: str,
        message: str,
        places: Sequence[Place],
        weight: float,
        suggestion: Suggestion | None = None,
        **more: object,
    ) -> None:
        """Add a finding, with its suggestion where there is one."""
        suggestion_id = None
        if suggestion is not None:
            suggestion_id = f"s{len(self.suggestions) + 1}"
            self.suggestions.append(msgspec.structs.replace(suggestion, id=suggestion_id))
        self.findings.append(
            Finding(
                id=f"f{len(self.findings) + 1}",
                rule=rule,
                message=message,
                weight=weight,
                places=tuple(places),
                suggestion=suggestion_id,
                **more,  # type: ignore[arg-type]
            )
        )

    # -- repetition ------------------------------------------------------------------------------

    def add_repeats(self, repeats: Repeats) -> None:
        """Runs, blocks and twins, each with its loop, function or merge."""
        for run in regrouped(repeats.runs, has_a_loop):
            if not _is_told_of_a_twin(run, repeats):
                self._add_run(run)
        inside: dict[int, RepeatedBlock] = {}
        said: set[int] = set()
        """Near twins of which one can simply call the other."""
        for block in repeats.blocks:
            holder = next((n for n in repeats.near_twins if _holds(n, block.table)), None)
            if holder is None or block.known:
                self._add_block(block)
                if holder is not None and len(holder.procedures) == 2:
                    said.add(id(holder))
            else:
                inside.setdefault(id(holder), block)
        for twins in repeats.twins:
            self._add_twins(twins)
        for near in repeats.near_twins:
            if id(near) not in said:
                self._add_near_twins(near, inside.get(id(near)))
        for part in repeats.near_blocks:
            self._add_near_block(part)
        for classes in repeats.classes:
            self._add_alike_classes(classes)

    def _add_run(self, run: Run) -> None:
        table = run.table
        goal = "one branch" if run.is_one_branch else "one table" if run.in_branches else "a loop"
        suggestion = self._suggest("loop", lambda: loop_candidate(run), table, goal)
        if suggestion.status != "proved" and in_a_function(run):
            called = attempt(lambda: function_candidate(table), run)
            suggestion = _as_suggestion(called) if isinstance(called, Proved) else suggestion
        places = [_place(c) for c in (*table.copies, *([run.rest] if run.rest else []), *run.more)]
        count = len(table.copies)
        size = inner_statements(table.copies[0])
        what = "This statement stands" if size == 1 else f"These {number_word(size)} statements stand"
        again = f", and {number_word(len(run.more))} more behind an interruption" if run.more else ""
        message = f"{what} {number_word(count)} times in a row{again}; {difference(suggestion.slots, table)}."
        advice = ""
        if run.is_one_branch:
            advice = "Write them once, behind one test that asks for all."
            message = f"These {number_word(count)} branches do the very same; one that asks for all is enough."
        elif run.in_branches:
            advice = "Keep what belongs to what in one list or dictionary, and look it up."
            own = "variable" if any(c.is_target for c in table.columns) else "value"
            message = f"These {number_word(count)} branches do the same, each with a {own} of its own."
        self._add_table("repeated-run", message, places, table, suggestion, advice)

    def _add_block(self, block: RepeatedBlock) -> None:
        table = block.table
        suggestion = self._suggest("function", lambda: block_candidate(block), table, "a function")
        size = inner_statements(table.copies[0])
        if block.known:
            self._add_known(block, block.known, suggestion)
            return
        times = "in two places" if len(table.copies) == 2 else f"in {number_word(len(table.copies))} places"
        message = f"These {number_word(size)} statements stand {times}; {difference(suggestion.slots, table)}."
        message = of_one_order(message, table) + further_places(block.nearly, table.copies[0].file)
        self._add_table("repeated-block", message, [_place(c) for c in table.copies], table, suggestion)

    def _add_known(self, block: RepeatedBlock, known: Procedure, suggestion: Suggestion) -> None:
        table = block.table
        size, count = inner_statements(table.copies[0]), len(table.copies) - 1
        places = "here" if count == 1 else f"in {number_word(count)} places"
        home = table.copies[0].file
        there = f" in {home.path}" if home is not table.copies[1].file else ""
        message = f"These {number_word(size)} statements stand {places}, and {known.name} does the same already{there}."
        self._add_table("repeated-block", message, [_place(c) for c in table.copies], table, suggestion)

    def _add_twins(self, twins: Twins) -> None:
        suggestion = self._suggest("merge", lambda: twins_candidate(twins), twins.table, "one function")
        names = told_apart(twins.procedures)
        places = [Place(f.path, p.start_line, p.end_line) for f, p in twins.procedures]
        message = of_one_order(f"{names} are alike; {difference(suggestion.slots, twins.table)}.", twins.table)
        self._add_table("twin-functions", message, places, twins.table, suggestion)

    def _add_near_twins(self, near: NearTwins, part: RepeatedBlock | None) -> None:
        """Functions with a line more or less; what they share quite alike can be a function at least."""
        first = near.procedures[0][0]
        merged = attempt(lambda: near_merge_candidate(near), near)
        suggestion = _as_suggestion(merged) if isinstance(merged, Proved) else None
        if suggestion is None and part:
            shared = attempt(lambda: block_candidate(part), part.table)
            if isinstance(shared, Proved) and shared.saved_lines >= least_saving(shared.candidate):
                suggestion = _as_suggestion(shared)
        differing = lines_that_differ([f.lines[p.start_line : p.end_line] for f, p in near.procedures])
        if suggestion is None:
            reason = merged if isinstance(merged, str) else ""
            suggestion = towards_near_twins(first, [p for _, p in near.procedures], near.likeness, reason, differing)
        names = told_apart(near.procedures)
        told = f"{names} are alike but for {number_of_lines(near.unlike)}."
        if near.likeness is Likeness.SAME_LINES:
            told = f"{names} have {number_of_lines(near.alike)} in common, word for word."
        self.add(
            "twin-functions",
            told,
            [Place(f.path, p.start_line, p.end_line) for f, p in near.procedures],
            (len(near.procedures) - 1) * near.alike,
            suggestion,
            slots=suggestion.slots or differing,
            pattern=skeleton(first, list(first.statements_of(near.procedures[0][1]))),
            subject=near.procedures[0][1].name,
        )

    def _add_near_block(self, near: NearBlock) -> None:
        first = near.copies[0]
        ends = zip(near.copies, near.last_lines, strict=True)
        places = [Place(c.file.path, c.start_line, end) for c, end in ends]
        bodies = [c.file.lines[p.start_line - 1 : p.end_line] for c, p in zip(near.copies, places, strict=True)]
        self.add(
            "repeated-run" if near.names else "repeated-block",
            told_of(near),
            places,
            (len(near.copies) - 1) * near.alike,
            towards_what_is_shared(near),
            slots=where_each_stands(near) if near.names else lines_that_differ(bodies),
            pattern=skeleton(first.file, list(first.statements)),
            subject=first.file.procedure_around(first.statements[0]).name,
        )

    def _add_alike_classes(self, found: AlikeClasses) -> None:
        """Classes that are one class, written several times."""
        first = found.tables[0].copies[0].file
        places = [Place(f.path, f.tree.start_line(node), f.tree.end_line(node)) for f, node in found.classes]
        suggestion = towards_one_class(found)
        count = len(suggestion.slots)
        differing = f"in {number_word(count)} thing{'s' * (count != 1)}" if count else "in their names"
        methods = f"{number_word(len(found.tables))} methods"
        self.add(
            "twin-functions",
            f"The classes {listed(found.names)} have the same {methods}; they differ only {differing}.",
            places,
            (len(places) - 1) * sum(inner_statements(table.copies[0]) for table in found.tables),
            suggestion,
            slots=suggestion.slots,
            pattern=skeleton(first, list(found.tables[0].copies[0].statements)),
            subject=found.names[0],
        )

    def _add_table(
        self, rule: str, message: str, places: Sequence[Place], table: Table, suggestion: Suggestion, advice: str = ""
    ) -> None:
        size = inner_statements(table.copies[0])
        first = table.copies[0]
        self.add(
            rule,
            message,
            places,
            (len(table.copies) - 1) * size,
            suggestion,
            slots=suggestion.slots,
            pattern=skeleton(first.file, list(first.statements)),
            subject=first.file.procedure_around(first.statements[0]).name,
            advice=advice,
        )

    def _suggest(self, kind: str, make: Callable[[], Candidate], table: Table, goal: str) -> Suggestion:
        """The proved suggestion; or an outline that says where the way leads and why it stops."""
        self.deadline.check()
        result = attempt(make, table)
        return _as_suggestion(result) if isinstance(result, Proved) else towards_a_table(kind, table, goal, result)

    # -- size ------------------------------------------------------------------------------------

    def add_oversized(self, limits: Limits, repeats: Repeats) -> None:
        """Procedures that stay too long when their repetition is folded, or are nested too deep."""
        for file in self.program.files:
            for procedure in file.procedures:
                size = own_statements(file, procedure)
                depth = deepest_nesting(file, procedure)
                folded = size - _foldable(file, procedure, repeats)
                if folded > limits.procedure_statements or depth > limits.nesting:
                    self._add_oversized(file, procedure, limits, size, depth)

    def _add_oversized(self, file: ProgramFile, procedure: Procedure, limits: Limits, size: int, depth: int) -> None:
        too_long = size > limits.procedure_statements
        reasons = []
        if too_long:
            reasons.append(f"has {size} statements (up to {limits.procedure_statements} are fine)")
        if depth > limits.nesting:
            reasons.append(f"is nested {number_word(depth)} deep (up to {number_word(limits.nesting)} is fine)")
        subject = procedure.name or (
            f"The function on line {procedure.start_line}" if procedure.node else "The main program"
        )
        suggestion = self._step_suggestion(file, procedure, limits) if too_long else None
        self.add(
            "oversized-procedure",
            f"{subject} {' and '.join(reasons)}.",
            [_span(file, procedure)],
            max(1, size - limits.procedure_statements),
            suggestion,
            subject=procedure.name,
        )

    def _step_suggestion(self, file: ProgramFile, procedure: Procedure, limits: Limits) -> Suggestion | None:
        tables = steps_of(file, procedure, limits.procedure_statements)
        self.deadline.check()
        result = first_proved(sorted(tables, key=lambda t: -inner_statements(t.copies[0])), set())
        return _as_suggestion(result) if result else None

    # -- functions -------------------------------------------------------------------------------

    def add_required(self, matches: Iterable[Match]) -> None:
        """Missing, misspelt and not-as-asked required functions."""
        for match in matches:
            name = match.required.name
            if match.state == "near" and match.found:
                file, procedure = match.found
                result = attempt(partial(rename_candidate, self.program, file, procedure, name))
                self.add(
                    "missing-function",
                    f"{name} is asked for; it is there as {procedure.name}.",
                    [_span(file, procedure)],
                    4,
                    _as_suggestion(result) if isinstance(result, Proved) else None,
                    subject=name,
                )
            elif match.state == "wrong" and match.found:
                file, procedure = match.found
                self.add(
                    "missing-function",
                    f"{name} is not as asked: it {match.wrong}.",
                    [_span(file, procedure)],
                    3,
                    subject=name,
                )
            elif match.state == "missing":
                self._add_missing(match)

    def _add_missing(self, match: Match) -> None:
        name = match.required.name
        if not match.jobs:
            self.add(
                "missing-function",
                f"{name} is asked for and not there.",
                self._somewhere(),
                6,
                subject=name,
                whole=True,
            )
            return
        tried = (attempt(make) for make in job_candidates(match.jobs, match.required))
        proved = next((result for result in tried if isinstance(result, Proved)), None)
        places = sorted((_place(copy_of(job)) for job in match.jobs), key=lambda p: (p.file, p.start_line))
        owners = {job.file.procedure_around(job.statements[0]).name or "the main program" for job in match.jobs}
        where = f" in {owners.pop()}" if len(owners) == 1 else ""
        these = "these lines" if len(places) == 1 else f"the lines in {number_word(len(places))} places"
        self.add(
            "missing-function",
            f"{name} is asked for and not there; {these}{where} do its job.",
            places,
            6,
            _as_suggestion(proved) if proved else None,
            subject=name,
        )

    def _somewhere(self) -> list[Place]:
        """A program's first code line: where a reader starts to look."""
        for file in self.program.files:
            if file.code_lines:
                first = min(file.code_lines)
                return [Place(file.path, first, first)]
        return []

    def add_slips(self, calls: CallMap, entry: str, required: frozenset[str], documented: bool) -> None:
        """Everything about single functions and calls."""
        meant = {nearest for *_, nearest in undefined_calls(self.program, calls)}
        for file, procedure in uncalled(self.program, calls, entry):
            if procedure.name in meant:
                # The call that was meant for it is told of.
                continue
            text = f"{procedure.name} is defined, and nothing calls it."
            self._about("uncalled-function", file, procedure, text, 3)
        grouped: dict[str, list[tuple[ProgramFile, int, str]]] = {}
        for file, node, name, nearest in undefined_calls(self.program, calls):
            grouped.setdefault(name, []).append((file, node, nearest))
        for name, uses in grouped.items():
            nearest = uses[0][2]
            hint = f"; {nearest} is" if nearest else ""
            lines = [Place(f.path, f.tree.start_line(n), f.tree.start_line(n)) for f, n, _ in uses]
            self.add(
                "undefined-call",
                f"{name} is called, and nothing of that name is defined{hint}.",
                lines,
                4,
                subject=name,
            )
        for file, group in redefined(self.program):
            lines = [_span(file, p) for p in group]
            self.add(
                "redefined-function",
                f"{group[0].name} is defined {number_word(len(group))} times; only the last one counts.",
                lines,
                4,
                subject=group[0].name,
            )
        for file in self.program.files:
            self._add_file_slips(file, calls, entry, required, documented)

    def _add_file_slips(
        self, file: ProgramFile, calls: CallMap, entry: str, required: frozenset[str], documented: bool
    ) -> None:
        if entry:
            self._add_loose(file, entry)
        for procedure, unread in slips.unused_parameters(file, calls):
            one = len(unread) == 1
            text = f"{procedure.name} never reads its parameter{'' if one else 's'} {listed(unread)}."
            self._about("unused-parameter", file, procedure, text, 2, head_only=True)
        for loop, text in slips.idle_loops(file):
            line = file.tree.start_line(loop)
            self.add("idle-loop", text, [Place(file.path, line, file.tree.end_line(loop))], 5)
        for procedure, changed in slips.outer_variables(file, calls):
            stand = "stands" if len(changed) == 1 else "stand"
            text = f"{procedure.name} changes {listed(changed)}, which {stand} outside it."
            self._about("outer-variable", file, procedure, text, 2)
        for procedure, reason in slips.vague_names(file, required):
            text = f"The name {procedure.name} {reason}."
            self._about("vague-name", file, procedure, text, 1, head_only=True)
        if documented:
            for procedure in slips.undocumented(file):
                text = f"{procedure.name} has no comment that says what it does."
                self._about("undocumented-function", file, procedure, text, 1, head_only=True)

    def _add_loose(self, file: ProgramFile, entry: str) -> None:
        loose = slips.loose_statements(file, entry)
        if not loose:
            return
        places: list[Place] = []
        tree = file.tree
        top = list(file.blocks[0].statements)
        for s in loose:
            start, end = tree.start_line(s), tree.end_line(s)
            between = [t for t in top if places and places[-1].end_line < tree.start_line(t) < start]
            if places and all(tree.kind[t] == "assignment" for t in between):
                places[-1] = Place(file.path, places[-1].start_line, end)
            else:
                places.append(Place(file.path, start, end))
        count = len(loose)
        verb = "statement stands" if count == 1 else "statements stand"
        self.add(
            "loose-code",
            f"{number_word(count).capitalize()} {verb} outside any function; {entry} is asked for.",
            places,
            min(count, 6),
        )

    def _about(
        self,
        rule: str,
        file: ProgramFile,
        procedure: Procedure,
        message: str,
        weight: float,
        head_only: bool = False,
    ) -> None:
        place = _span(file, procedure)
        if head_only:
            line = file.tree.start_line(procedure.node)
            place = Place(file.path, line, line)
        self.add(rule, message, [place], weight, subject=procedure.name)


def _is_told_of_a_twin(run: Run, repeats: Repeats) -> bool:
    """True for a run in one of several functions that are alike: it is told where it stands in the first of them."""
    for twins in repeats.twins:
        first, *others = twins.table.copies
        if any(run.table.copies[0].lies_in(body) for body in others):
            inside = (other.table for other in repeats.runs if other.table.copies[0].lies_in(first))
            return any(_form(table) == _form(run.table) for table in inside)
    return False


def _form(table: Table) -> tuple[int, list[str]]:
    """How many copies there are, and what each is made of."""
    copy = table.copies[0]
    return len(table.copies), copy.file.tree.kind[slice(*copy.span)]


def _holds(near: NearTwins, table: Table) -> bool:
    """True where every copy of the table stands in one of the near twins, and not all in the same."""
    holders = set(map(near.holding, table.copies))
    return None not in holders and len(holders) > 1


def _as_suggestion(result: Proved) -> Suggestion:
    candidate, source = result.candidate, result.candidate.file.source
    sources = [old.source for old, _ in result.changed if old is not None]
    reason = next(filter(None, map(can_be_patched, sources)), "")
    if len({s.encoding for s in sources}) > 1:
        reason = reason or "the files are stored in different encodings, which one patch cannot hold"
    edited = [InFile(candidate.file, candidate.edits), *candidate.others]
    changes = [
        Change(e.start, e.end, "\n".join(e.lines), "" if part.file is candidate.file else part.file.path)
        for part in edited
        for e in sorted(part.edits, key=lambda e: e.start)
    ]
    if candidate.created is not None:
        changes.insert(0, Change(1, 0, candidate.created.text, candidate.created.path))
    touched = sum(
        line in part.file.code_lines for part in edited for e in part.edits for line in range(e.start, e.end + 1)
    )
    diffs = [unified_diff(old.source if old else None, new.source.text, new.path) for old, new in result.changed]
    return Suggestion(
        id="",
        kind=candidate.kind,
        title=candidate.title,
        status="outline" if reason else "proved",
        lines_before=touched,
        lines_after=touched - result.saved_lines,
        slots=candidate.slots,
        path=source.path,
        changes=() if reason else tuple(changes),
        diff="" if reason else "".join(diffs),
        why_not=reason,
        outline=reason and _in_words(candidate, reason),
    )


def _in_words(candidate: Candidate, reason: str) -> str:
    """What a proved suggestion comes to where no patch can be made."""
    if candidate.file.language.id != "blocks":
        return f"It can be done ({candidate.title.lower()}), but {reason}."
    new = [in_block_words(line) for e in sorted(candidate.edits, key=lambda e: e.start) for line in e.lines]
    return "\n".join([f"{candidate.title}. It does the same, put together like this:", *new])


def _place(copy: Copy) -> Place:
    return Place(copy.file.path, copy.start_line, copy.end_line)


def _span(file: ProgramFile, procedure: Procedure) -> Place:
    """A procedure's lines; for the loose code, from its first statement to its last."""
    if procedure.node:
        return Place(file.path, procedure.start_line, procedure.end_line)
    loose = [
        s
        for s in file.blocks[0].statements
        if not file.is_definition(s) and not file.is_import(s) and not file.is_bare_string(s)
    ]
    if not loose:
        return Place(file.path, 1, 1)
    return Place(file.path, file.tree.start_line(loose[0]), file.tree.end_line(loose[-1]))


def deepest_nesting(file: ProgramFile, procedure: Procedure) -> int:
    """Branches and loops around the most deeply nested statement of a procedure."""
    return max((b.depth for b in file.blocks if b.procedure == procedure.node and b.statements), default=0)


def _foldable(file: ProgramFile, procedure: Procedure, repeats: Repeats) -> int:
    """Statements of a procedure that go when its runs and blocks are folded."""
    gone: set[int] = set()
    tables = [(r.table, 1) for r in repeats.runs] + [(b.table, int(b.known is not None)) for b in repeats.blocks]
    for table, kept in tables:
        for copy in table.copies[kept:]:
            if copy.file is file and file.procedure_around(copy.statements[0]).node == procedure.node:
                gone.update(file.statements_within(*copy.span))
    calls = sum(
        len(table.copies)
        for table, kept in tables
        if not kept and any(c.file is file and c.statements[0] in gone for c in table.copies)
    )
    return len(gone) - calls


def repeated_statements(repeats: Repeats, runs_only: bool = False) -> int:
    """Statements that stand in a second or later copy."""
    tables = [run.table for run in repeats.runs if not (runs_only and run.in_branches)]
    if not runs_only:
        tables += [b.table for b in repeats.blocks] + [t.table for t in repeats.twins]
        tables += [table for classes in repeats.classes for table in classes.tables]
    counted: set[tuple[str, int]] = set()
    later = [copy for table in tables for copy in table.copies[1:]]
    for copy in [*later, *(copy for run in repeats.runs for copy in run.more)]:
        counted.update((copy.file.path, s) for s in copy.file.statements_within(*copy.span))
    return len(counted)
