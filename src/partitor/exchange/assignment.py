"""The assignment file: TOML in, a validated record out, and back.

Whatever is unknown, of the wrong type or impossible is refused with the file, the line and what
was expected.
"""

from __future__ import annotations

import re
import tomllib
from collections.abc import Sequence
from pathlib import Path
from typing import Any

import msgspec

from ..errors import AssignmentFileError
from ..languages.registry import LANGUAGES
from ..procedures.wanted import RequiredFunction
from ..repeats.limits import Limits
from ..rules import RULES
from ..scoring.default import default_criteria
from ..scoring.measures import MEASURES
from ..scoring.rubric import Criterion, Level

NAME = re.compile(r"(?:[^\W\d]|\$)[\w$]*\Z")
HYPHENATED = re.compile(r"[^\s\d()\[\]{}\"'`,;#|\\][^\s()\[\]{}\"'`,;#|\\]*\Z")
"""A name where hyphens join words: `print-gate`, `even?`."""
OF_BLOCKS = re.compile(r"[^\W\d][^\n\"]*\Z")
"""What a custom block says: `draw a house`."""


LARGEST = 1_000_000
"""Points and bounds beyond this, and what is no number at all, are slips."""


class RuleChoice(msgspec.Struct, frozen=True, forbid_unknown_fields=True):
    """Which rules are off, and whether functions must be documented."""

    off: tuple[str, ...] = ()
    documented: bool = False


class Assignment(msgspec.Struct, frozen=True, forbid_unknown_fields=True):
    """Everything an instructor says about what is asked."""

    format: str = "partitor-assignment"
    version: int = 1
    title: str = "Untitled assignment"
    language: str = "auto"
    entry: str = ""
    pattern: str = ""
    limits: Limits = Limits()
    rules: RuleChoice = RuleChoice()
    functions: tuple[RequiredFunction, ...] = ()
    criteria: tuple[Criterion, ...] = ()

    def rubric(self) -> tuple[Criterion, ...]:
        """The assignment's own rubric, or the default one."""
        return self.criteria or default_criteria()


def read_assignment(path: Path) -> Assignment:
    """Read and check an assignment file. Raises AssignmentFileError with one sentence."""
    try:
        text = path.read_bytes().decode("utf-8-sig")
    except OSError as problem:
        raise AssignmentFileError(f"{path}: cannot be read ({problem.strerror})") from problem
    except UnicodeDecodeError as problem:
        raise AssignmentFileError(f"{path}: is not UTF-8 text (byte {problem.start})") from problem
    return parse_assignment(text, str(path))


def parse_assignment(text: str, name: str = "assignment") -> Assignment:
    """Check assignment text. Raises AssignmentFileError naming `name`, the line and the key."""
    try:
        data = tomllib.loads(text)
    except tomllib.TOMLDecodeError as problem:
        where = re.search(r"\(at (?:line (\d+), column \d+|end of document)\)", str(problem))
        line = where.group(1) if where and where.group(1) else str(text.count("\n") + 1)
        reason = str(problem).split(" (at ")[0]
        raise AssignmentFileError(f"{name}, line {line}: not valid TOML: {reason}") from problem
    except RecursionError as problem:
        raise AssignmentFileError(f"{name}: lists are nested too deep") from problem
    try:
        assignment = msgspec.convert(data, Assignment)
    except msgspec.ValidationError as problem:
        raise AssignmentFileError(_sentence(name, text, str(problem))) from problem
    _check(assignment, name, text)
    return assignment


def _sentence(name: str, text: str, problem: str) -> str:
    """msgspec's message with the line of the key it is about."""
    message, _, path = problem.partition(" - at `")
    keys = re.findall(r"\.(\w+)|\[(\d+)\]", path.rstrip("`"))
    unknown = re.search(r"unknown field `(\w+)`", message)
    names = [k for k, _ in keys if k] + ([unknown.group(1)] if unknown else [])
    indexes = [int(i) for _, i in keys if i]
    line = _line_of(text, names, indexes[0] if indexes else 0)
    key = ".".join(names) or "the file"
    what = "is not a known key" if unknown else message[:1].lower() + message[1:]
    return f"{name}, line {line}, key {key}: {what}"


def _line_of(text: str, names: list[str], index: int) -> int:
    """The line on which the last of `names` stands, in the `index`-th table of the first's name."""
    lines = text.split("\n")
    start = 0
    if len(names) > 1:
        heads = [n for n, line in enumerate(lines) if re.match(rf"\s*\[\[?\s*{names[0]}\s*\]", line)]
        if heads:
            start = heads[min(index, len(heads) - 1)]
    if names:
        for n in range(start, len(lines)):
            if re.search(rf"(^|[\s{{,])\"?{names[-1]}\"?\s*=", lines[n]):
                return n + 1
            if re.match(rf"\s*\[\[?\s*{names[-1]}\s*\]", lines[n]):
                return n + 1
    return start + 1


def _check(assignment: Assignment, name: str, text: str) -> None:
    """The rules that types alone do not say."""

    def refuse(keys: list[str], what: str, index: int = 0) -> None:
        line = _line_of(text, keys, index)
        raise AssignmentFileError(f"{name}, line {line}, key {'.'.join(keys)}: {what}")

    if assignment.format != "partitor-assignment":
        refuse(["format"], 'must be "partitor-assignment"')
    if assignment.version != 1:
        refuse(["version"], f"is {assignment.version}; this Partitor reads version 1")
    if assignment.language != "auto" and assignment.language not in LANGUAGES:
        known = ", ".join(sorted(LANGUAGES))
        refuse(["language"], f'"{assignment.language}" is not known; use "auto" or one of: {known}')
    if assignment.pattern and "{name}" not in assignment.pattern:
        refuse(["pattern"], "must have {name} in it, so that it tells whose work a file is")
    limits = msgspec.to_builtins(assignment.limits)
    for key, value in limits.items():
        least = 2 if key == "run_copies" else 1
        if not least <= value <= 10_000:
            refuse(["limits", key], f"must be a whole number from {least} to 10000")
    for rule in assignment.rules.off:
        if rule not in RULES:
            refuse(["rules", "off"], f'"{rule}" is no rule; the rules are: {", ".join(sorted(RULES))}')
    for k, function in enumerate(assignment.functions):
        _check_function(function, k, refuse, _names_of(assignment.language))
    for k, criterion in enumerate(assignment.criteria):
        _check_criterion(criterion, k, refuse)
    ids = [c.id for c in assignment.criteria]
    if len(set(ids)) != len(ids):
        refuse(["criteria", "id"], "two criteria have the same id", len(ids) - 1)


def _names_of(language: str) -> tuple[re.Pattern[str], ...]:
    """What a function's name looks like in a language; where it is not told which, as in any of them."""
    if language == "blocks":
        return (OF_BLOCKS,)
    if language == "auto" or LANGUAGES[language].word_joint == "-":
        return (NAME, HYPHENATED)
    return (NAME,)


def _check_function(function: RequiredFunction, index: int, refuse: Any, names: Sequence[re.Pattern[str]]) -> None:
    for candidate in (function.name, *function.also):
        if not any(name.match(candidate) for name in names):
            refuse(["functions", "name"], f'"{candidate}" cannot be a function\'s name', index)
    bounds = function.parameters
    if isinstance(bounds, int) and bounds < 0:
        refuse(["functions", "parameters"], "cannot be negative", index)
    if isinstance(bounds, tuple) and not 0 <= bounds[0] <= bounds[1]:
        refuse(["functions", "parameters"], "must be [fewest, most]", index)


def _check_criterion(criterion: Criterion, index: int, refuse: Any) -> None:
    if criterion.measure != "manual" and criterion.measure not in MEASURES:
        refuse(
            ["criteria", "measure"],
            f'"{criterion.measure}" is no measure; use "manual" or one of: {", ".join(sorted(MEASURES))}',
            index,
        )
    if not criterion.levels:
        refuse(["criteria", "levels"], "needs at least one level", index)
    numbers = [criterion.points, *(level.points for level in criterion.levels)]
    numbers += [bound for level in criterion.levels for bound in (level.at_most, level.at_least) if bound is not None]
    if not all(abs(number) <= LARGEST for number in numbers):
        refuse(["criteria", "points"], f"points and bounds must be numbers up to {LARGEST}", index)
    if criterion.points < 0:
        refuse(["criteria", "points"], "cannot be negative", index)
    if any(level.points > criterion.points or level.points < 0 for level in criterion.levels):
        refuse(["criteria", "levels"], f"a level must give 0 to {criterion.points} points", index)
    if any(level.at_most is not None and level.at_least is not None for level in criterion.levels):
        refuse(["criteria", "levels"], "a level has at_most or at_least, not both", index)


def write_assignment(assignment: Assignment) -> str:
    """The assignment as TOML text that `parse_assignment` reads back to an equal record."""
    parts = [
        'format = "partitor-assignment"',
        "version = 1",
        f"title = {_toml(assignment.title)}",
        f"language = {_toml(assignment.language)}",
        f"entry = {_toml(assignment.entry)}",
    ]
    if assignment.pattern:
        parts.append(f"pattern = {_toml(assignment.pattern)}")
    parts += ["", "[limits]"]
    parts += [f"{k} = {v}" for k, v in msgspec.to_builtins(assignment.limits).items()]
    if assignment.rules != RuleChoice():
        parts += [
            "",
            "[rules]",
            f"off = {_toml(list(assignment.rules.off))}",
            f"documented = {_toml(assignment.rules.documented)}",
        ]
    for function in assignment.functions:
        parts += ["", "[[functions]]"]
        parts += [f"{k} = {_toml(v)}" for k, v in msgspec.to_builtins(function).items() if v is not None and v != []]
    for criterion in assignment.criteria:
        parts += ["", "[[criteria]]"]
        for key in ("id", "title", "measure", "points"):
            parts.append(f"{key} = {_toml(getattr(criterion, key))}")
        parts.append("levels = [")
        parts += [f"  {_level(level)}," for level in criterion.levels]
        parts.append("]")
    return "\n".join(parts) + "\n"


def _level(level: Level) -> str:
    pairs = [f"{k} = {_toml(v)}" for k, v in msgspec.to_builtins(level).items() if v is not None]
    return "{ " + ", ".join(pairs) + " }"


def _toml(value: Any) -> str:
    if isinstance(value, bool):
        return "true" if value else "false"
    if isinstance(value, str):
        return msgspec.json.encode(value).decode().replace("\x7f", "\\u007f")
    if isinstance(value, (list, tuple)):
        return "[" + ", ".join(_toml(v) for v in value) + "]"
    return repr(value)
