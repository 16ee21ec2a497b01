"""The command line: `partitor check`, `languages`, `measures`, `rubric`."""

from __future__ import annotations

import logging
import os
import sys
from collections.abc import Iterator
from pathlib import Path
from typing import Annotated

import msgspec
import typer
from rich.console import Console
from rich.progress import track

from .check import check as check_submission
from .errors import PartitorError, TooCostly
from .exchange.assignment import Assignment, read_assignment, write_assignment
from .exchange.output import Output
from .exchange.report import AssignmentRecord, Report, SubmissionReport
from .exchange.scores import scores_csv
from .feedback.render import index_html, page_html, page_markdown
from .feedback.wording import feedback_page
from .isolation import CallLimits, Failed, Stopped, in_children
from .languages.registry import LANGUAGES
from .reading.archives import Entry, Unpacked
from .reading.collect import Batch, Submission, Unreadable, batch_of, read_batch
from .scoring.measures import MEASURES
from .source import Source

app = typer.Typer(
    add_completion=False,
    no_args_is_help=True,
    pretty_exceptions_enable=False,
    help="Reads a class's programs, finds what is written twice, and gives back proved refactorings and a "
    "score.\n\nExample: partitor check work.zip --out results --assignment sluice-gates.toml",
)

log = logging.getLogger(__name__)
WRONG_CALL, SOME_UNREADABLE = 2, 3


class _Job(msgspec.Struct, frozen=True):
    submission: Submission
    assignment: Assignment
    starter: tuple[Source, ...]
    reference: tuple[Source, ...]


@app.command(
    epilog="Example: partitor check work.zip --out results --assignment sluice-gates.toml "
    "--starter starter/ --reference solution/ --jobs 4"
)
def check(
    submissions: Annotated[
        Path, typer.Argument(help="A folder, a ZIP or a tar(.gz) of a whole class.", show_default=False)
    ],
    out: Annotated[Path, typer.Option(help="Folder for the results; made if missing.", show_default=False)],
    assignment: Annotated[Path | None, typer.Option(help="The assignment file (TOML).")] = None,
    starter: Annotated[
        Path | None, typer.Option(help="Code that was handed out: a file or folder, never reported.")
    ] = None,
    reference: Annotated[
        Path | None,
        typer.Option(help="A reference solution, to find where a missing function's job is done."),
    ] = None,
    jobs: Annotated[int, typer.Option(help="Submissions at a time; 0 takes one for each core.")] = 0,
    quiet: Annotated[bool, typer.Option("--quiet", help="Say nothing but errors.")] = False,
) -> None:
    """Check a class: findings, proved suggestions, scores and feedback pages.

    Exit status: 0 all submissions read, 3 some could not be read, 2 the call is wrong.
    """
    asked = read_assignment(assignment) if assignment else Assignment()
    _refuse_bad_call(submissions, out, jobs)
    given = _sources(starter, "--starter")
    model = _sources(reference, "--reference")
    batch = read_batch(submissions, asked.pattern, asked.language)
    output = Output(out)
    try:
        unreadable = _check_all(batch, asked, given, model, jobs, quiet, output)
    except BaseException:
        output.discard()
        raise
    for one in unreadable:
        print(f"{one.name}: {one.why}", file=sys.stderr)
    raise typer.Exit(SOME_UNREADABLE if unreadable else 0)


def _check_all(
    batch: Batch,
    asked: Assignment,
    starter: tuple[Source, ...],
    reference: tuple[Source, ...],
    jobs: int,
    quiet: bool,
    output: Output,
) -> list[Unreadable]:
    """Check every submission, write everything, and give back what could not be read."""
    work = [_Job(s, asked, starter, reference) for s in batch.submissions]
    reports: list[SubmissionReport] = []
    unreadable = list(batch.unreadable)
    for job, result in _progress(work, jobs, quiet):
        if isinstance(result, str):
            unreadable.append(Unreadable(job.submission.name, result))
            continue
        report = output.write_patches(result, job.submission.sources)
        texts = {s.path: s.text for s in job.submission.sources}
        page = feedback_page(report, asked, texts)
        name = output.name_for(report.name)
        output.write(f"feedback/{name}.html", page_html(page))
        output.write(f"feedback/{name}.md", page_markdown(page))
        reports.append(report)
    whole = Report(
        assignment=AssignmentRecord(asked.title, asked.language),
        submissions=tuple(reports),
        unreadable=tuple(unreadable),
    )
    output.write_report(whole)
    output.write("scores.csv", scores_csv(whole, asked.rubric()))
    output.write("index.html", index_html(whole, output.names))
    output.finish()
    return unreadable


def _progress(work: list[_Job], jobs: int, quiet: bool) -> Iterator[tuple[_Job, SubmissionReport | str]]:
    """Results in order, with a bar on a terminal, plain lines elsewhere, nothing when quiet."""
    console = Console(stderr=False)
    results = _results(work, jobs)
    if quiet:
        yield from results
    elif console.is_terminal:
        yield from track(results, total=len(work), description="Checking", console=console)
    else:
        for number, (job, result) in enumerate(results, 1):
            said = (
                "not read"
                if isinstance(result, str)
                else f"{len(result.findings)} remark{'' if len(result.findings) == 1 else 's'}"
            )
            print(f"{number} of {len(work)}: {job.submission.name}: {said}")
            yield job, result


def _results(work: list[_Job], jobs: int) -> Iterator[tuple[_Job, SubmissionReport | str]]:
    """Each check in a child process with limits: none hangs or ends the others, and an error of ours is said as one."""
    answers = in_children(_run, work, CallLimits(), jobs or os.cpu_count() or 1)
    for job, answer in zip(work, answers, strict=True):
        if isinstance(answer, Stopped):
            yield job, f"It is too costly to check: it {answer}."
        elif isinstance(answer, Failed):
            log.error("%s", answer)
            yield job, "Partitor itself failed on it. Please report this, with the program."
        else:
            yield job, answer


def _run(job: _Job) -> SubmissionReport | str:
    try:
        return check_submission(job.submission, job.assignment, job.starter, job.reference)
    except TooCostly:
        return "It is too costly to check: it could not even be read in time."


def _refuse_bad_call(submissions: Path, out: Path, jobs: int) -> None:
    if jobs < 0:
        raise PartitorError("--jobs: must be 0 or more")
    if not submissions.exists():
        raise PartitorError(f"{submissions}: there is no such folder or archive")
    if out.exists() and not out.is_dir():
        raise PartitorError(f"--out {out}: is a file; a folder is wanted")
    if submissions.is_dir() and out.resolve().is_relative_to(submissions.resolve()):
        raise PartitorError(f"--out {out}: stands inside the submissions, and would be checked next time")


def _sources(path: Path | None, option: str) -> tuple[Source, ...]:
    if path is None:
        return ()
    if not path.exists():
        raise PartitorError(f"{option} {path}: there is no such file or folder")
    batch = batch_of(Unpacked([Entry(path.name, path.read_bytes())])) if path.is_file() else read_batch(path)
    return tuple(source for one in batch.submissions for source in one.sources)


@app.command()
def languages() -> None:
    """List the languages that are read, and what is given for each."""
    print(f"{'language':<12} {'title':<15} {'files':<32} suggestions")
    for language in LANGUAGES.values():
        files = " ".join([*language.extensions, *([".ipynb"] if language.id == "python" else [])])
        print(f"{language.id:<12} {language.title:<15} {files:<32} {language.suggestions}")


@app.command()
def measures() -> None:
    """List the measures that a rubric can use."""
    for key, measure in MEASURES.items():
        print(f"{key:<20} {measure.unit:<12} {measure.definition}")


@app.command()
def rubric(
    assignment: Annotated[Path | None, typer.Option(help="An assignment file to show instead.")] = None,
) -> None:
    """Print an assignment file with its whole rubric; the default one to begin with."""
    asked = read_assignment(assignment) if assignment else Assignment()
    print(write_assignment(msgspec.structs.replace(asked, criteria=asked.rubric())), end="")


def main() -> None:
    """Run the command line; every error is one sentence on stderr."""
    try:
        app()
    except PartitorError as problem:
        print(f"partitor: {problem}", file=sys.stderr)
        sys.exit(WRONG_CALL)
    except KeyboardInterrupt:
        print("partitor: stopped; nothing was written", file=sys.stderr)
        sys.exit(130)
    except OSError as problem:
        print(f"partitor: {problem.filename or ''}: {problem.strerror}", file=sys.stderr)
        sys.exit(WRONG_CALL)


if __name__ == "__main__":
    main()
