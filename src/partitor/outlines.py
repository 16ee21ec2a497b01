"""What is said of repetition in words: how much differs, and which way leads out of it where no patch does."""

from __future__ import annotations

import re
from collections.abc import Sequence
from typing import NamedTuple

from .program.program import Procedure, ProgramFile
from .records import SlotColumn, Suggestion
from .repeats.classes import AlikeClasses
from .repeats.counters import are_listable
from .repeats.judge import MOST_PARAMETERS, code_lines
from .repeats.near import Likeness, NearBlock
from .repeats.slots import Copy, Table

COUNTS = ("no", "one", "two", "three", "four", "five", "six", "seven", "eight", "nine", "ten")


def number_word(count: int) -> str:
    """Small numbers in words, as people write them."""
    return COUNTS[count] if count < len(COUNTS) else str(count)


def number_of_lines(count: int) -> str:
    """`one line`, `two lines`."""
    return "one line" if count == 1 else f"{number_word(count)} lines"


def outlined(
    kind: str, title: str, path: str, lines: int, outline: str, why_not: str, slots: Sequence[SlotColumn] = ()
) -> Suggestion:
    """A suggestion in words."""
    return Suggestion(
        id="",
        kind=kind,
        title=title,
        status="outline",
        lines_before=lines,
        lines_after=lines,
        slots=tuple(slots),
        path=path,
        outline=outline,
        why_not=why_not,
    )


def towards_a_table(kind: str, table: Table, goal: str, why_not: str) -> Suggestion:
    """Where the way leads for copies that no candidate could be proved for."""
    slots = [SlotColumn(f"slot {k}", column.values) for k, column in enumerate(table.columns, 1)]
    title = f"Towards {goal} for the {len(table.copies)} copies"
    lines = sum(map(code_lines, table.copies))
    outline = BY_REASON.get(why_not) or outline_of(kind, table)
    return outlined(kind, title, table.copies[0].file.path, lines, outline, why_not, slots)


BY_REASON = {
    "it would have to be a method of several classes": (
        "Give the classes one class to build on, and let that one have the method; what only one of them does stays in "
        "its own class."
    ),
    "the copies leave the function they stand in": (
        "Let a function make the tests and give back whether to go on, or what was worked out, and nothing where it is "
        "not to be; each place calls it, and leaves where it is told to."
    ),
}
"""What to do where the reason why there is no code tells it."""


def towards_near_twins(
    file: ProgramFile,
    procedures: Sequence[Procedure],
    likeness: Likeness,
    reason: str,
    differing: Sequence[SlotColumn],
) -> Suggestion:
    """Where the way leads for near twins; `differing`: their lines that differ."""
    lines = sum(file.code_lines_within(p.start_line, p.end_line) for p in procedures)
    if likeness is Likeness.SAME_LINES:
        way = WAYS[likeness]
        return outlined("function", way.title, file.path, lines, way.how, reason or way.why_not)
    if likeness is Likeness.ONE_LINE:
        return outlined(
            "merge", f"Towards one function in place of {len(procedures)}", file.path, lines, *GIVEN_A_LAMBDA
        )
    otherwise = worked_out_otherwise(differing)
    several = len(procedures) > len(("one", "another"))
    if reason == LITTLE_MORE or (several and not otherwise):
        shared = SHARED_BY_ALL if several else SHARED
        reason = reason or "the functions are alike only but for a line or two"
        return outlined("function", "Towards a function for what they share", file.path, lines, shared, reason)
    handed = (
        "write a small function for each way, and hand the one that is meant over as a parameter."
        if file.language.functions_are_values
        else "give it a parameter that says which way is meant."
    )
    return outlined(
        "merge",
        f"Towards one function in place of {len(procedures)}",
        file.path,
        lines,
        "Keep one of the functions and call it instead of the others. "
        + (
            f"What each works out for {otherwise} is its own: {handed}"
            if otherwise
            else "Give it a parameter for each value that differs, and one that says whether the lines that only one "
            "of them has are to run."
        ),
        reason or "the functions are alike only but for a line or two",
    )


def worked_out_otherwise(differing: Sequence[SlotColumn]) -> str:
    """The one variable to which near copies give something that each works out in its own way; "" where there is none,
    or they differ in more than plain values besides.

    >>> worked_out_otherwise([SlotColumn("line 4", ("f = c * 9 / 5 + 32", "f = c * 0.62"))])
    'f'
    >>> worked_out_otherwise([SlotColumn("line 4", ("f = 3", "f = 5"))])
    ''
    """
    ways: list[str] = []
    for column in differing:
        given = [GIVEN.fullmatch(line) for line in column.values]
        names = {match["name"] for match in given if match}
        if all(given) and len(names) == 1 and all(match and OPERATION.search(match["value"]) for match in given):
            ways += names
        elif len({DIGITS_AND_TEXTS.sub("", line) for line in column.values}) > 1:
            return ""
    return ways[0] if len(ways) == 1 else ""


GIVEN = re.compile(r"(?:(?:let|const|var) )?(?P<name>\w+) = (?P<value>.+)")
OPERATION = re.compile(r"[-+*/%(]")
DIGITS_AND_TEXTS = re.compile(r"\d+(?:\.\d+)?|\"[^\"]*\"|'[^']*'")


GIVEN_A_LAMBDA = (
    "Write one function that is also given what to do with each part, as a function, and call it from both: each hands "
    "over a lambda of its own.",
    "what differs is worked out of each part, and no function does it yet",
)
LITTLE_MORE = "one function would be little more than the two under a test"
"""Why there is no one function for near twins that each do a job of their own."""
SHARED = (
    "Leave both their names. Move the lines that both have into a function of its own and call it in both; what "
    "only one of them does stays there."
)


SHARED_BY_ALL = (
    "Leave all of them their names. Move the lines that they have in common into a function of its own and call it in "
    "each; what only one of them does stays there."
)


def lines_that_differ(bodies: Sequence[Sequence[str]]) -> tuple[SlotColumn, ...]:
    """What differs in near copies, line by line; where one has more lines than another, the first line that only it
    has, or the others have not: "" for none.

    >>> [c.values for c in lines_that_differ([["if a:", "  go()"], ["if b:", "  go()"]])]
    [('if a:', 'if b:')]
    >>> [c.values for c in lines_that_differ([["go()"], ["stop()", "go()"]])]
    [('', 'stop()')]
    """
    texts = [[line.strip() for line in body if line.strip()] for body in bodies]
    if len({len(lines) for lines in texts}) == 1:
        rows = [(k, row) for k, row in enumerate(zip(*texts, strict=True), 1) if len(set(row)) > 1]
        return tuple(SlotColumn(f"line {k}", row) for k, row in rows[:MOST_SHOWN])
    others = [texts[0] if k else texts[1] for k in range(len(texts))]
    own = (next((x for x in lines if x not in other), "") for lines, other in zip(texts, others, strict=True))
    return (SlotColumn("only here", tuple(own)),)


def where_each_stands(near: NearBlock) -> tuple[SlotColumn, ...]:
    """For each of the variables that near copies are about, its first line in each row."""
    rows = [[text.partition("\n")[0] for text in row.texts] for row in near.copies]
    found = []
    for k, name in enumerate(near.names[:MOST_SHOWN]):
        found.append(SlotColumn(name, tuple(row[k * len(row) // len(near.names)] for row in rows)))
    return tuple(found)


MOST_SHOWN = 4
"""Lines of near copies that are shown side by side."""


class Way(NamedTuple):
    """What is told of near copies, and which way leads out."""

    told: str
    """With places for their `count`, how many statements are `alike`, and how many `lines` are not."""
    title: str
    how: str
    why_not: str


WAYS = {
    Likeness.MOST_LINES: Way(
        "These {alike} statements stand in {count} places, alike but for {lines}.",
        "Towards a function for what the places share",
        "First make the places quite alike: move what only one of them does before or after the "
        "rest, or let a parameter say whether it is done. Then move the statements into a function and "
        "call it in each place.",
        "the places are alike only but for a line or two",
    ),
    Likeness.DIRECTIONS: Way(
        "These {count} branches do the same, each in another direction.",
        "Towards one table of the directions",
        "Keep in one list or dictionary how far each direction moves in each of the variables (0, 1 or -1). Look the "
        "two numbers up first; then the statements, written once, can add them, whatever the direction is.",
        "the places add and subtract in different variables",
    ),
    Likeness.ALL_BUT_TESTS: Way(
        "These statements stand in {count} places, alike but for what they ask.",
        "Towards a function for what the places share",
        "Give one function what the tests compare with: a bound, two bounds, or the texts that count; or let each "
        "place first pick out what it is about, and give the function that. Then call it in each place.",
        "the places ask in different forms",
    ),
    Likeness.FRAME: Way(
        "These {count} branches begin and end alike; only what stands in between differs.",
        "Towards doing once what all branches begin and end with",
        "Move what all branches begin with before the choice, and what they end with behind it, with a variable for "
        "what differs there; each branch only works out what is its own. If there is a branch for all else, it then "
        "has to say first that there is nothing to do.",
        "what the branches work out in between differs, and what is asked first would be asked in every case",
    ),
    Likeness.SAME_LINES: Way(
        "{alike} statements stand in {count} places word for word, with others in between.",
        "Towards a function for what the places share",
        "Find the part that all of them do in the same words, such as looking for what was asked for and saying "
        "that it is not there. Make it a function of its own that gives back what was found, and call it in each.",
        "only some of their lines are the same",
    ),
    Likeness.PARALLEL: Way(
        "{names} are used alike in {count} rows of statements.",
        "Towards one list in place of the variables",
        "Keep what belongs to each of them in one list or dictionary, and go through it in a loop in place of each "
        "row; for one more, only the list has to grow.",
        "each row alone would save hardly a line",
    ),
    Likeness.BEGINNING: Way(
        "These {count} places begin alike, with {alike} statements up to what each does of its own.",
        "Towards a function for what the places begin with",
        "Move what is asked for and checked first into a function of its own, which gives back what was asked for, or "
        "nothing where it was refused. Call it in each place, and go on only with what it gave back.",
        "where they part, one place goes on otherwise than another",
    ),
}
"""By what near copies have in common."""


def told_of(near: NearBlock) -> str:
    """What is said of near copies."""
    count, alike = number_word(len(near.copies)), number_word(near.alike)
    names = listed(near.names) if near.names else ""
    told = WAYS[near.likeness].told.format(count=count, alike=alike, lines=number_of_lines(near.unlike), names=names)
    return told if names else told[0].upper() + told[1:]


def towards_what_is_shared(near: NearBlock) -> Suggestion:
    """Where the way leads for near copies."""
    way = WAYS[near.likeness]
    lines = sum(map(code_lines, near.copies))
    return outlined("function", way.title, near.copies[0].file.path, lines, way.how, way.why_not)


def towards_one_class(found: AlikeClasses) -> Suggestion:
    """Where the way leads for classes that are alike."""
    values = dict.fromkeys(column.values for table in found.tables for column in table.columns)
    return outlined(
        "merge",
        f"Towards one class for {listed(found.names)}",
        found.tables[0].copies[0].file.path,
        sum(code_lines(copy) for table in found.tables for copy in table.copies),
        "Keep the methods in one class, which is given what differs when something is made of it; or "
        "in a class that the others build on, with only what differs left in them.",
        "how a class is to be divided is for people to say",
        [SlotColumn(f"slot {k}", v) for k, v in enumerate(values, 1)],
    )


SHARED_HOMES = {
    "python": "a module of its own that the files import",
    "javascript": "a script of its own that each page loads before the others",
    "typescript": "a module of its own that the files import",
    "java": "a class of its own, as a static method",
    "csharp": "a class of its own, as a static method",
    "c": "a file of its own with a header that the others include",
    "cpp": "a file of its own with a header that the others include",
    "visualbasic": "a module of its own, as a public procedure",
    "gamescript": "a script of its own",
}
"""Where what several files do alike has its place."""


def outline_of(kind: str, table: Table) -> str:
    """What to do with the copies, in words."""
    count = len(table.copies)
    family = next((c for c in table.columns if c.is_target and are_listable(table, c)), None)
    target = next((c for c in table.columns if c.is_target), None)
    if kind == "loop" and table.copies[0].statements[0] not in _statements(table):
        if not table.columns:
            return (
                f"Keep one of the {count} branches, and let its test ask for all: join the tests with "
                '"or". The order in which they are asked stays the same.'
            )
        if target is None:
            return (
                "Keep what belongs to what in one dictionary or list, and look it up in one statement in place of the "
                "branches; what is to be done for anything else stays a branch."
            )
        return (
            f"Keep {target.values[0]} to {target.values[-1]} in one dictionary or list, found by what the branches ask "
            "for; one statement then changes the place that belongs to it."
        )
    if kind == "loop" and family is not None:
        return (
            f"Keep {family.values[0]} to {family.values[-1]} in one list, and write the statements once, inside "
            f"a loop over its {count} places."
        )
    if kind == "loop":
        return f"Write the statements once, inside a loop with {count} turns; put what differs into its list."
    if any(c.is_field for c in table.columns):
        return (
            "Keep the fields that differ in one list or dictionary of the object, and give one method the place in it; "
            "or make what belongs to one of them a class of its own, with this method."
        )
    if len({c.file.path for c in table.copies}) > 1:
        home = SHARED_HOMES.get(table.copies[0].file.language.id, "one file that the others can use")
        each = "with a parameter for each thing that differs"
        return f"Keep one function for this in {home}, {each}, and call it from both."
    if kind == "merge" and len(table.columns) > MOST_PARAMETERS:
        return (
            "Keep one of the functions, and give it what differs as one list or dictionary: the steps, with the number "
            "that belongs to each."
        )
    if kind == "merge":
        return "Keep one of the functions, give it a parameter for each thing that differs, and call it."
    return (
        f"Move the statements into a function of their own and call it in the {count} places; each thing "
        "that differs is a parameter, and what is needed afterwards is returned."
    )


def _statements(table: Table) -> list[int]:
    """The first copy's statements, without what a branch asks."""
    first = table.copies[0]
    return [s for s in first.statements if first.file.tree.parent[s] in first.file.block_at]


def of_one_order(message: str, table: Table) -> str:
    """What is said of copies, with what has to be done first where their lines stand in another order."""
    reordered = any(copy.is_reordered for copy in table.copies)
    return f"{message[:-1]}, once their lines are brought into one order." if reordered else message


def further_places(nearly: Sequence[Copy], home: ProgramFile) -> str:
    """What is said, behind the message of a block in `home`, of places that are nearly copies of it."""
    if not nearly:
        return ""
    there = ("" if c.file is home else f" in {c.file.path}" for c in nearly)
    places = [f"lines {c.start_line} to {c.end_line}{where}" for c, where in zip(nearly, there, strict=True)]
    told = listed(places)
    return f" {told[0].upper()}{told[1:]} {'are' if len(nearly) == 1 else 'are each'} the same but for one statement."


WORKED_OUT = re.compile(r"(\w+) [-+] \d+")


def difference(slots: Sequence[SlotColumn], table: Table) -> str:
    """How much differs, and what it is called where that is little."""
    if not table.columns:
        return "they are the same each time"
    if not slots:
        return "they differ in a few values"
    # `x + 25` is no other thing than `x`.
    names = {s.name for s in slots}
    slots = [s for s in slots if not ((of := WORKED_OUT.fullmatch(s.name)) and of[1] in names)]
    named = [s for s in slots if not s.name.startswith("slot ")]
    if len(named) < len(slots) or len(slots) > 3:
        return f"they differ in {number_word(len(slots))} thing{'s' * (len(slots) != 1)}"
    # `numbers[i]` is told as what is listed.
    bare = [re.sub(r"\[\w+\]$", "", s.name) for s in named]
    plain = [name for name in bare if name.isidentifier()] or bare
    return f"they differ only in {listed(list(dict.fromkeys(plain)))}"


def told_apart(functions: Sequence[tuple[ProgramFile, Procedure]]) -> str:
    """The functions' names, with their files where two are called alike."""
    names = [p.name for _, p in functions]
    alike = len(set(names)) < len(names)
    return listed([f"{p.name} in {f.path}" if alike else p.name for f, p in functions])


def listed(names: Sequence[str]) -> str:
    """`a, b and c`."""
    return names[0] if len(names) == 1 else f"{', '.join(names[:-1])} and {names[-1]}"
