"""check(submission, assignment) → report: the whole job on one submission, in a few calls."""

from __future__ import annotations

from collections.abc import Callable, Iterator, Sequence
from functools import partial

import msgspec

from .deadline import Deadline, keeping, without_deadline
from .errors import TooCostly
from .exchange.assignment import Assignment
from .exchange.report import FileRecord, ProblemRecord, SubmissionReport
from .findings import Remarks, repeated_statements
from .languages.registry import LANGUAGES
from .procedures import slips
from .procedures.calls import CallMap, map_calls, uncalled, undefined_calls
from .procedures.required import Match, match_required, parameter_decides
from .procedures.sizes import own_statements
from .program.program import Procedure, Program, ProgramFile
from .reading.collect import Submission
from .reading.starter import handed_out_lines
from .records import Finding, Place, Routine, Step, Suggestion, WorkedAnswer
from .repeats.find import Repeats, find_repeats
from .scoring.rubric import score, totals
from .source import Source
from .suggestions.candidate import Candidate
from .suggestions.jobs import job_candidates
from .suggestions.patches import can_be_patched, unified_diff
from .suggestions.renames import rename_candidate
from .suggestions.worked import Worked, work_through

NEEDS_THE_WHOLE = frozenset(
    {"missing-function", "uncalled-function", "undefined-call", "loose-code", "unused-parameter"}
)
"""Rules that would speak of what may stand in the part that could not be read."""
SECONDS = 20.0
"""Time for one submission; what is not done by then is said so."""


def check(
    submission: Submission,
    assignment: Assignment,
    starter: Sequence[Source] = (),
    reference: Sequence[Source] = (),
    seconds: float = SECONDS,
) -> SubmissionReport:
    """Read, find, suggest, prove and score, as far as it goes in so many `seconds`. Raises TooCostly where a program
    cannot even be read in that time, and nothing else for anything a student may have written."""
    deadline = Deadline(seconds)
    with keeping(deadline):
        return _Check(submission, assignment, starter, reference, deadline).run()


def program_of(sources: Sequence[Source]) -> Program:
    """The program tree of texts whose language is known."""
    return Program([ProgramFile(s, LANGUAGES[s.language]) for s in sources if s.language in LANGUAGES])


class _Check:
    def __init__(
        self,
        submission: Submission,
        assignment: Assignment,
        starter: Sequence[Source],
        reference: Sequence[Source],
        deadline: Deadline,
    ) -> None:
        self.submission = submission
        self.assignment = assignment
        self.deadline = deadline
        self.program = program_of(submission.sources)
        self.handed_out = handed_out_lines(submission.sources, starter)
        self.reference = program_of(reference) if reference else None
        self.calls: CallMap = map_calls(self.program)
        self.repeats = Repeats((), (), ())
        self.matches: list[Match] = []
        self.unfinished = ""

    def run(self) -> SubmissionReport:
        remarks = Remarks(self.program, self.deadline)
        try:
            self._find(remarks)
        except TooCostly:
            self.unfinished = "Too costly to check fully: checked so far."
        findings, suggestions = self._kept(remarks)
        worked = self._work()
        with without_deadline():
            return self._report(findings, suggestions, worked)

    def _report(
        self, findings: tuple[Finding, ...], suggestions: tuple[Suggestion, ...], worked: Worked
    ) -> SubmissionReport:
        """The report of what was found in time."""
        measures = self._measures(findings, worked)
        scores = score(self.assignment.rubric(), measures)
        total, out_of = totals(scores)
        return SubmissionReport(
            name=self.submission.name,
            files=tuple(self._file_record(f) for f in self.program.files),
            measures=measures,
            findings=findings,
            suggestions=suggestions,
            worked_answer=self._worked_answer(worked),
            scores=scores,
            total=total,
            of=out_of,
            ignored=tuple(self.submission.ignored),
            junk=self.submission.junk,
            procedures=self._routines(),
            unfinished=self.unfinished,
        )

    def _find(self, remarks: Remarks) -> None:
        assignment = self.assignment
        self.matches = match_required(self.program, assignment.functions, self.calls, self.reference)
        self.repeats = find_repeats(self.program, assignment.limits, self.handed_out, near=True)
        if not self.repeats.complete:
            self.unfinished = "Too costly to check fully: not all repeats were compared."
        remarks.add_repeats(self.repeats)
        remarks.add_required(self.matches)
        required = frozenset(n for f in assignment.functions for n in (f.name, *f.also))
        remarks.add_slips(self.calls, assignment.entry, required, assignment.rules.documented)
        remarks.add_oversized(assignment.limits, self.repeats)

    def _kept(self, remarks: Remarks) -> tuple[tuple[Finding, ...], tuple[Suggestion, ...]]:
        """Findings of rules that are on and of the student's own lines, numbered in reading order."""
        kept = [
            f
            for f in remarks.findings
            if f.rule not in self.assignment.rules.off
            and (f.rule == "missing-function" or not self._all_handed_out(f.places))
        ]
        near = {f.subject for f in kept if f.rule == "missing-function"}
        found_near = {m.found[1].name for m in self.matches if m.state == "near" and m.found}
        found_near |= {m.found[1].name for m in self.matches if m.found and not m.required.called}
        kept = [f for f in kept if not (f.rule == "uncalled-function" and f.subject in found_near)]
        kept = [f for f in kept if not (f.rule == "undefined-call" and f.subject in near)]
        if not all(file.is_whole for file in self.program.files):
            kept = [f for f in kept if f.rule not in NEEDS_THE_WHOLE]
        kept.sort(key=lambda f: (f.places[0].file, f.places[0].start_line) if f.places else ("", 0))
        wanted = [f.suggestion for f in kept if f.suggestion]
        numbers = {old: f"s{n}" for n, old in enumerate(wanted, 1)}
        suggestions = {s.id: s for s in remarks.suggestions}
        return (
            tuple(
                msgspec.structs.replace(f, id=f"f{n}", suggestion=numbers.get(f.suggestion or ""))
                for n, f in enumerate(kept, 1)
            ),
            tuple(msgspec.structs.replace(suggestions[old], id=new) for old, new in numbers.items()),
        )

    def _all_handed_out(self, places: Sequence[Place]) -> bool:
        if not self.handed_out or not places:
            return False
        return all(
            (place.file, line) in self.handed_out
            for place in places
            for line in range(place.start_line, place.end_line + 1)
            if line in self.program.by_path[place.file].code_lines
        )

    def _work(self) -> Worked:
        off = {"repeated-run", "repeated-block"} & set(self.assignment.rules.off)
        if off:
            return Worked(self.program, (), True)
        worked = work_through(
            self.program,
            self.assignment.limits,
            self.handed_out,
            self.deadline,
            self.repeats,
            self._asked if self._required_is_on() else None,
        )
        if not worked.complete and not self.unfinished:
            self.unfinished = "Too costly to check fully: the worked answer stops early."
        return worked

    def _required_is_on(self) -> bool:
        return bool(self.assignment.functions) and "missing-function" not in self.assignment.rules.off

    def _asked(self, program: Program) -> Iterator[Callable[[], Candidate]]:
        """What would give the program the functions that are asked for: a better name, or the lines that do
        their job taken out."""
        matches = self.matches
        if program is not self.program:
            matches = match_required(program, self.assignment.functions, map_calls(program), self.reference)
        for match in matches:
            name = match.required.name
            if match.state == "near" and match.found:
                yield partial(rename_candidate, program, *match.found, name)
            elif match.state == "missing" and match.jobs:
                yield from job_candidates(match.jobs, match.required)

    def _worked_answer(self, worked: Worked) -> WorkedAnswer:
        before = sum(len(f.code_lines) for f in self.program.files)
        after = sum(len(f.code_lines) for f in worked.program.files)
        known = self.program.by_path
        changed = {
            new.path: new
            for new in worked.program.files
            if new.path not in known or known[new.path].source.text != new.source.text
        }
        olds = {path: known[path].source if path in known else None for path in changed}
        blocked = any(old is not None and can_be_patched(old) for old in olds.values())
        parts = [unified_diff(old, changed[path].source.text, path) for path, old in olds.items()]
        diff = "" if blocked else "".join(parts)
        steps: tuple[Step, ...] = worked.steps
        return WorkedAnswer(
            lines_before=before,
            lines_after=after,
            status="proved" if not blocked else "outline",
            patch=None,
            steps=steps,
            files={} if blocked else {path: new.source.text for path, new in changed.items()},
            diff=diff,
        )

    def _measures(self, findings: Sequence[Finding], worked: Worked) -> dict[str, float]:
        program, limits = self.program, self.assignment.limits
        statements = program.statement_count
        routines = [(f, p) for f in program.files for p in f.procedures]
        functions = [(f, p) for f, p in routines if p.node]
        sizes = [own_statements(f, p) for f, p in routines]
        lines = sum(len(f.code_lines) for f in program.files)
        after = sum(len(f.code_lines) for f in worked.program.files)
        rules = [f.rule for f in findings]

        def share(part: float, whole: float, empty: float) -> float:
            return round(part / whole, 4) if whole else empty

        parameters = sum(len(p.parameters) for _, p in functions)
        unread = sum(len(names) for f in program.files for _, names in slips.unused_parameters(f, self.calls))
        not_alone = {f.subject for f in findings if f.rule in {"outer-variable", "unused-parameter"}}
        not_alone |= {p.name for t in self.repeats.twins for _, p in t.procedures[1:]}
        required = list(self.matches)
        present = [m for m in required if m.state == "there" and self._is_called(m)]
        return {
            "statements": statements,
            "code_lines": lines,
            "procedures": len(functions),
            "repeated_share": share(repeated_statements(self.repeats), statements, 0.0),
            "repeated_runs": rules.count("repeated-run"),
            "repeated_blocks": rules.count("repeated-block"),
            "twin_groups": rules.count("twin-functions"),
            "run_share": share(repeated_statements(self.repeats, runs_only=True), statements, 0.0),
            "longest_procedure": max(sizes, default=0),
            "oversized_share": share(sum(s for s in sizes if s > limits.procedure_statements), statements, 0.0),
            "deepest_nesting": max((b.depth for f in program.files for b in f.blocks if b.statements), default=0),
            "required_present": share(len(present), len(required), 1.0),
            "uncalled": len(uncalled(program, self.calls, self.assignment.entry)),
            "undefined": len({n for _, _, n, _ in undefined_calls(program, self.calls)}),
            "loose_statements": sum(
                len(slips.loose_statements(f, self.assignment.entry or "main")) for f in program.files
            ),
            "entry_call_share": self._entry_call_share(),
            "parameters_used": share(parameters - unread, parameters, 1.0),
            "self_contained": share(len([p for _, p in functions if p.name not in not_alone]), len(functions), 0.0),
            "deciding_functions": sum(parameter_decides(f, p) for f, p in functions),
            "documented_share": share(
                len(functions) - sum(len(slips.undocumented(f)) for f in program.files), len(functions), 1.0
            ),
            "well_named_share": share(
                len(functions) - sum(len(slips.vague_names(f, frozenset())) for f in program.files),
                len(functions),
                1.0,
            ),
            "possible_saving": share(max(0, lines - after), lines, 0.0),
        }

    def _is_called(self, match: Match) -> bool:
        if match.found is None or not match.required.called:
            return match.found is not None
        return match.found[1].name in self.calls.mentioned

    def _entry_call_share(self) -> float:
        """Of the main routine's simple statements that do work, the share that call the program's functions."""
        file, procedure = self._main_routine()
        if file is None or procedure is None:
            return 0.0
        good = total = 0
        tree, language = file.tree, file.language
        for block in file.blocks:
            if block.procedure != procedure.node:
                continue
            for s in block.statements:
                compound = any(tree.kind[n] in language.blocks for n in tree.children(s))
                if compound or file.is_definition(s) or file.is_import(s) or file.is_bare_string(s):
                    continue
                called = {file.called_name(n) for n in range(s, tree.end[s]) if tree.kind[n] == language.call}
                takes_in = not called - {"input", "int", "float", "str"} and not called & set(self.calls.defined)
                if takes_in and tree.kind[s] in {"assignment", "return_statement"}:
                    continue
                total += 1
                good += bool(called & set(self.calls.defined))
        return round(good / total, 4) if total and self.calls.defined else 0.0

    def _main_routine(self) -> tuple[ProgramFile | None, Procedure | None]:
        names = [n for n in (self.assignment.entry, "main") if n]
        names += [n for n in ("loop", "draw") if any(n in f.language.framework_calls for f in self.program.files)]
        for name in names:
            for file, procedure in self.calls.defined.get(name, []):
                return file, procedure
        best = max(self.program.files, key=lambda f: own_statements(f, f.procedures[0]), default=None)
        if best is None or own_statements(best, best.procedures[0]) or not best.language.started_by_hand:
            return (best, best.procedures[0]) if best else (None, None)
        # Nothing runs by itself: the procedure that uses most of the others is where a user starts.
        routines = [(f, p) for f in self.program.files for p in f.procedures[1:]]
        return max(
            routines,
            key=lambda pair: len(self.calls.calls.get(pair[1].name, ())),
            default=(best, best.procedures[0]),
        )

    def _file_record(self, file: ProgramFile) -> FileRecord:
        return FileRecord(
            path=file.path,
            language=file.language.id,
            lines=len(file.code_lines),
            problems=tuple(ProblemRecord(p.line, p.message) for p in file.problems),
        )

    def _routines(self) -> tuple[Routine, ...]:
        return tuple(
            Routine(
                f.path,
                p.name,
                p.start_line,
                p.end_line,
                own_statements(f, p),
                tuple(sorted(self.calls.calls.get(p.name, ()))),
            )
            for f in self.program.files
            for p in f.procedures
        )
