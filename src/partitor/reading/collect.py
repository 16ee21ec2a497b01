"""A folder, an archive or single files to submissions: whose work is whose, and what is unread."""

from __future__ import annotations

import logging
import re
import unicodedata
from collections.abc import Iterable, Sequence
from pathlib import Path, PurePosixPath

import msgspec

from ..errors import UnreadableSubmission, where
from ..languages.registry import LANGUAGES, language_of
from ..source import Source
from .archives import Entry, Unpacked, Unpacker, UnpackLimits, archive_stem, is_archive, too_large
from .blocks import block_sheets, is_block_file, rendered
from .encoding import decode
from .junk import is_compiled, is_junk
from .notebooks import program_text
from .text import printable, storable

log = logging.getLogger(__name__)


class Ignored(msgspec.Struct, frozen=True):
    """A file that is not checked, and why (a clause that can follow its path)."""

    path: str
    why: str


class Submission(msgspec.Struct, frozen=True):
    """One student's work as texts."""

    name: str
    sources: tuple[Source, ...]
    ignored: tuple[Ignored, ...] = ()
    junk: int = 0


class Unreadable(msgspec.Struct, frozen=True):
    """A submission that cannot be checked, and why, as one sentence."""

    name: str
    why: str


class Batch(msgspec.Struct, frozen=True):
    """A class's work."""

    submissions: tuple[Submission, ...]
    unreadable: tuple[Unreadable, ...]


def read_batch(path: Path, pattern: str = "", language: str = "auto", limits: UnpackLimits | None = None) -> Batch:
    """Read a folder or archive of a whole class. Raises UnreadableSubmission where it is neither."""
    if path.is_dir():
        unpacked = _read_folder(path, limits or UnpackLimits())
    elif path.is_file():
        unpacked = unpacked_files([(path.name, path.read_bytes())], limits)
    else:
        raise UnreadableSubmission(f"{path}: there is no such folder or file")
    return batch_of(unpacked, pattern, language, limits)


def unpacked_files(files: Iterable[tuple[str, bytes]], limits: UnpackLimits | None = None) -> Unpacked:
    """What a person chose to hand in, (name, bytes) each: one archive of a whole class, or files by themselves.
    Raises UnreadableSubmission where the one archive must be refused."""
    first, *more = files
    if not more and is_class_archive(*first):
        return Unpacker(limits).unpack(*first)
    unpacked = Unpacked([])
    for name, data in (first, *more):
        unpacked.add_file(name, data, limits or UnpackLimits())
    return unpacked


def read_uploads(
    uploads: Sequence[tuple[str, Path]], pattern: str = "", language: str = "auto", limits: UnpackLimits | None = None
) -> tuple[Batch, int]:
    """The submissions in files that were uploaded, (name, where it is kept) each, and how many files in them are
    nobody's work. Raises UnreadableSubmission where the one archive must be refused."""
    unpacked = unpacked_files(((name, path.read_bytes()) for name, path in uploads), limits)
    return batch_of(unpacked, pattern, language, limits), unpacked.junk


def is_class_archive(name: str, data: bytes) -> bool:
    """True for an archive by its name or first bytes, but for a program that is kept as one (a block project)."""
    return is_archive(name) or (data[:4] == b"PK\x03\x04" and not is_block_file(name, data))


def batch_of(
    unpacked: Unpacked, pattern: str = "", language: str = "auto", limits: UnpackLimits | None = None
) -> Batch:
    """Divide files into submissions: one for each entry directly below the root."""
    submissions: list[Submission] = []
    unreadable: list[Unreadable] = []
    for name, group in _groups(unpacked, pattern, limits).items():
        if group.problem:
            unreadable.append(Unreadable(name, group.problem))
            continue
        result = _submission_or_why(name, group, language)
        (submissions if isinstance(result, Submission) else unreadable).append(result)  # type: ignore[arg-type]
    unreadable += [Unreadable(name, f"The archive {why}.") for name, why in unpacked.broken_off]
    return Batch(tuple(sorted(submissions, key=lambda s: s.name)), tuple(sorted(unreadable, key=lambda u: u.name)))


def _submission_or_why(name: str, group: _Group, language: str) -> Submission | Unreadable:
    """One submission. An error of ours costs no other submission its reading: it is logged, and said."""
    try:
        return submission_of(name, group.entries, group.refused, language, group.junk)
    except Exception as problem:
        log.error("A submission could not be read: %s", "; ".join(where(problem)))
        return Unreadable(name, "Partitor itself failed to read it. Please report this, with the file.")


def submission_of(
    name: str, entries: list[Entry], refused: list[tuple[str, str]], language: str = "auto", junk: int = 0
) -> Submission | Unreadable:
    """Decode the files of one submission, beside which so much `junk` was left out; Unreadable where no program is
    among them."""
    sources: list[Source] = []
    ignored = [Ignored(path, why) for path, why in refused]
    for entry in entries:
        if is_junk(entry.path):
            junk += 1
            continue
        for source in _sources_of(entry, language):
            if isinstance(source, Source):
                sources.append(source)
            else:
                ignored.append(source)
    if not sources:
        return Unreadable(name, _why_nothing(ignored, junk, language))
    return Submission(name, tuple(sorted(map(_storable, sources), key=lambda s: s.path)), tuple(ignored), junk)


def _storable(source: Source) -> Source:
    """The source as it can be kept: some formats can hold characters that no text file holds."""
    original = None if source.original is None else storable(source.original)
    return msgspec.structs.replace(source, path=printable(source.path), text=storable(source.text), original=original)


def _sources_of(entry: Entry, language: str) -> list[Source | Ignored]:
    """The texts of one file: one, but for block programs, which have one a sheet."""
    if not is_block_file(entry.path, entry.data):
        return [_source_of(entry, language)]
    if language not in ("auto", "blocks"):
        return [Ignored(entry.path, "is a block program, which is not the assignment's language")]
    try:
        sheets = block_sheets(entry.path, entry.data)
    except UnreadableSubmission as problem:
        return [Ignored(entry.path, str(problem))]
    texts = [(sheet, rendered(sheet)) for sheet in sheets]
    found: list[Source | Ignored] = [
        Source(path=f"{entry.path}/{file_name(sheet.name)}", text=text, language="blocks")
        for sheet, text in texts
        if text.strip()
    ]
    return found or [Ignored(entry.path, "holds no blocks")]


def _source_of(entry: Entry, language: str) -> Source | Ignored:
    decoded = decode(entry.data)
    if decoded is None:
        return Ignored(entry.path, "is not a text file")
    if not decoded.text.strip():
        return Ignored(entry.path, "is empty")
    if entry.path.lower().endswith(".ipynb"):
        return _notebook(entry, decoded.text, language)
    known = language_of(entry.path, decoded.text)
    if known is None:
        return Ignored(entry.path, "is in no language that is read here")
    if language not in ("auto", known.id):
        return Ignored(entry.path, f"is {known.title}, which is not the assignment's language")
    return Source(
        path=entry.path,
        text=decoded.text,
        language=known.id,
        encoding=decoded.encoding,
        newline=decoded.newline,
        original=decoded.original if decoded.original != decoded.text else None,
    )


def _notebook(entry: Entry, text: str, language: str) -> Source | Ignored:
    """The Python text of a notebook, under the notebook's name with `.py` behind it."""
    if language not in ("auto", "python"):
        return Ignored(entry.path, "is a Python notebook, which is not the assignment's language")
    try:
        program = program_text(text)
    except UnreadableSubmission as problem:
        return Ignored(entry.path, str(problem))
    if not program.strip():
        return Ignored(entry.path, "is a notebook without code")
    return Source(path=f"{entry.path}.py", text=program, language="python")


def _why_nothing(ignored: list[Ignored], junk: int, language: str) -> str:
    what = "program" if language == "auto" else f"{LANGUAGES[language].title} program"
    if not ignored:
        return f"There is no {what} in it{', only system or compiled files' if junk else '; it is empty'}."
    named = "; ".join(f"{i.path} {i.why}" for i in ignored[:4])
    more = f"; and {len(ignored) - 4} more files" if len(ignored) > 4 else ""
    return f"There is no {what} in it: {named}{more}."


# -- from entries to groups ------------------------------------------------------------------------


class _Group(msgspec.Struct):
    """The files of one submission, their paths below it."""

    entries: list[Entry]
    refused: list[tuple[str, str]]
    junk: int = 0
    problem: str = ""
    """Why it cannot be read."""


def _groups(unpacked: Unpacked, pattern: str, limits: UnpackLimits | None) -> dict[str, _Group]:
    """The submissions by their names; also of who handed in nothing, or nothing but what is left out."""
    folders = [path for path in unpacked.folders if not _is_left_out(path)]
    handed_in = [*(e.path for e in unpacked.entries), *(p for p, _ in unpacked.refused), *folders]
    handed_in += [path for path in unpacked.left_out if "/" in path and not _is_left_out(path)]
    strip = _common_folder(handed_in)
    by_top: dict[str, _Group] = {}

    def group_of(top: str) -> _Group:
        return by_top.setdefault(top, _Group([], []))

    for entry in unpacked.entries:
        top, _, below = entry.path[strip:].partition("/")
        group_of(top).entries.append(Entry(below or top, entry.data))
    for path, why in unpacked.refused:
        top, _, below = path[strip:].partition("/")
        group_of(top).refused.append((below or top, why))
    outer = handed_in[0][:strip] if strip else ""
    for path, files in (*((path, 0) for path in folders), *((path, 1) for path in unpacked.left_out)):
        top, slash, _ = path[strip:].partition("/")
        if not path.startswith(outer) or not top or (slash and _is_left_out(path[strip:])):
            continue
        alone = is_compiled(top) and PurePosixPath(top).stem not in {PurePosixPath(t).stem for t in by_top}
        if slash or alone:
            group_of(top).junk += files
    whole: dict[str, _Group] = {}
    for top, group in sorted(by_top.items()):
        try:
            group.entries, nested_refused = _open_nested(top, group.entries, limits)
            group.refused += nested_refused
        except UnreadableSubmission as error:
            group.problem = f"{error}."
        name = owner_of(top, pattern)
        if name in whole and _can_join(whole[name].entries, group.entries) and pattern:
            whole[name].entries.extend(group.entries)
            whole[name].refused.extend(group.refused)
            whole[name].junk += group.junk
            continue
        whole[_unused(name, whole)] = group
    return whole


def _is_left_out(path: str) -> bool:
    """True for what lies in a folder of the system's, which is nobody's work."""
    top = path.partition("/")[0]
    return is_junk(top) or top.startswith(".")


def _open_nested(
    top: str, entries: list[Entry], limits: UnpackLimits | None
) -> tuple[list[Entry], list[tuple[str, str]]]:
    """Replace archives among the entries by what is in them."""
    result: list[Entry] = []
    refused: list[tuple[str, str]] = []
    unpacker = Unpacker(limits)
    waiting = [(entry, 1) for entry in entries]
    while waiting:
        entry, depth = waiting.pop(0)
        if not is_archive(entry.path):
            result.append(entry)
            continue
        try:
            inner = unpacker.unpack(entry.path, entry.data, depth)
        except UnreadableSubmission as problem:
            if len(entries) == 1 and entry.path == top:
                raise
            refused.append((entry.path, str(problem).removeprefix(f"{entry.path}: ")))
            continue
        refused += [*inner.refused, *inner.broken_off]
        strip = _common_folder([e.path for e in inner.entries])
        folder = entry.path.rpartition("/")[0]
        alone = len(entries) == 1 and entry.path == top
        base = "" if alone or not folder else folder + "/"
        waiting += [(Entry(base + e.path[strip:], e.data), depth + 1) for e in inner.entries]
    return result, refused


def _common_folder(paths: list[str]) -> int:
    """Length of the one outer folder that holds everything, with its slash; else 0."""
    tops = {path.partition("/")[0] for path in paths}
    if len(tops) == 1 and all("/" in path for path in paths):
        return len(next(iter(tops))) + 1
    return 0


def _can_join(known: list[Entry], more: list[Entry]) -> bool:
    return not {e.path for e in known} & {e.path for e in more}


def owner_of(entry_name: str, pattern: str) -> str:
    """Whose work an entry is, by the assignment's pattern, else by the entry's own name.

    >>> owner_of("ada_4711_main.py", "{name}_{rest}"), owner_of("ada.tar.gz", "")
    ('ada', 'ada')
    """
    stem = archive_stem(entry_name)
    if stem == entry_name and (
        language_of(entry_name) is not None
        or entry_name.lower().endswith((".ipynb", ".xml", ".json"))
        or is_compiled(entry_name)
    ):
        stem = PurePosixPath(entry_name).stem
    if pattern:
        expression = re.escape(pattern)
        expression = re.sub(r"\\\{name\\\}", "(?P<name>.+?)", expression, count=1)
        expression = re.sub(r"\\\{\w+\\\}", ".*", expression)
        match = re.fullmatch(expression, stem) or re.fullmatch(expression, entry_name)
        if match:
            return match.group("name").strip() or stem
    return stem


def _unused(name: str, taken: dict[str, _Group]) -> str:
    candidate, number = name, 2
    while candidate in taken:
        candidate, number = f"{name} ({number})", number + 1
    return candidate


def file_name(name: str) -> str:
    """A submission's name as a safe file name.

    >>> file_name("Ødegård, Ida / late"), file_name("..")
    ('Ødegård, Ida _ late', '__')
    """
    clean = unicodedata.normalize("NFC", name)
    clean = re.sub(r"[/\\:*?\"<>|\x00-\x1f]", "_", clean).strip()
    clean = re.sub(r"^\.+", lambda m: "_" * len(m.group()), clean)
    return clean[:120] or "_"


def _read_folder(path: Path, limits: UnpackLimits) -> Unpacked:
    """All files below a folder; links are not followed."""
    result = Unpacked([])
    for file in sorted(path.rglob("*")):
        relative = file.relative_to(path).as_posix()
        if file.is_symlink():
            result.refused.append((relative, "is a symbolic link"))
        elif file.is_file():
            if is_junk(relative):
                result.left_out.append(relative)
            elif not is_archive(relative) and file.stat().st_size > limits.file_size:
                result.refused.append((relative, too_large(file.stat().st_size, limits.file_size)))
            else:
                result.entries.append(Entry(relative, file.read_bytes()))
        elif file.is_dir() and not any(file.iterdir()):
            result.folders.append(relative + "/")
    return result
