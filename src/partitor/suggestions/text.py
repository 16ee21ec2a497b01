"""The text of a copy with its slots filled: what stands in a loop's or a function's body."""

from __future__ import annotations

import itertools
from collections.abc import Mapping, Sequence

from ..errors import CannotWrite
from ..languages.writing import Gap, Writer, leading_space
from ..program.program import ProgramFile
from ..repeats.columns import Column, Derived, Spot
from ..repeats.moves import move_of, moving_together
from ..repeats.slots import Copy
from .words import COMMON_VERBS, words_of


def body_lines(
    writer: Writer,
    copy: Copy,
    filled: Mapping[Column, str],
    indent: str,
    dropped: frozenset[int] = frozenset(),
    index: int = 0,
    inserted: Sequence[tuple[int, str]] = (),
    derived: Sequence[Derived] = (),
) -> list[str]:
    """The lines of `copy` at `indent`, each column replaced by its expression.

    `inserted` are texts for single bytes of the file. Statements in `dropped` are left out; `index` is
    the copy's number within the columns. Comments and blank lines inside the copy stay.
    """
    file = copy.file
    tree = file.tree
    first_line, last_line = copy.start_line, copy.end_line
    start = tree.line_starts[first_line - 1]
    end = tree.line_starts[last_line] - 1 if last_line < len(tree.line_starts) else len(tree.source)
    text = tree.source[start:end]
    if file.language.closers_trail:
        text = tree.source[start : tree.end_byte[copy.last]]
        noted = [c.text for c in tree.comments if c.line == last_line and not c.alone]
        text += "".join(f" {note}" for note in noted if text[-1:] != b"\n" and note.encode() not in text).encode()
    changes = [(tree.start_byte[n], tree.end_byte[n], new) for n, new in replacements(writer, filled, index, derived)]
    for first_byte, stop_byte, replacement in sorted(
        [*changes, *((at, at, new) for at, new in inserted)], reverse=True
    ):
        a, b = first_byte - start, stop_byte - start
        if a >= 0 and b <= len(text):
            text = text[:a] + replacement.encode() + text[b:]
    old = leading_space(file, copy.statements[0])
    inside_strings = _string_lines(file, first_line, last_line)
    gone = {n for s in dropped for n in range(tree.start_line(s), tree.end_line(s) + 1)}
    lines = []
    for number, line in enumerate(text.decode().split("\n"), first_line):
        if number in gone:
            continue
        if number in inside_strings:
            lines.append(line)
        elif not line.strip():
            lines.append("")
        elif line.startswith(old):
            lines.append(indent + line[len(old) :])
        else:
            lines.append(indent + line.lstrip())
    while lines and not lines[0].strip():
        lines.pop(0)
    return lines


def replacements(
    writer: Writer, filled: Mapping[Column, str], index: int, derived: Sequence[Derived] = ()
) -> list[tuple[int, str]]:
    """(node, what to write in its place) for every spot of the columns in copy number `index`, and of those that
    follow from them."""
    whole: list[tuple[int, str]] = []
    in_strings: dict[int, dict[int, list[tuple[Spot, str]]]] = {}
    grown: dict[int, tuple[tuple[str, ...], dict[int, str]]] = {}
    for column, expression in filled.items():
        for spot in column.spots:
            node = spot.nodes[index]
            if spot.parts:
                grown.setdefault(node, (spot.parts, {}))[1][spot.place] = writer.repeated(spot.repeated, expression)
            elif spot.repeated:
                if spot.after:
                    raise CannotWrite("the texts grow, which would need a loop of its own")
                whole.append((node, writer.value_text(node, writer.repeated(spot.repeated, expression))))
            elif writer.file.tree.kind[node] == "string_content" and spot.group < 0:
                whole.append((node, spot.around(writer.gap(expression))))
            elif spot.is_part:
                whole.append((node, writer.text_around(node, spot.before, expression, spot.after)))
            elif spot.in_format:
                told = writer.format_with(spot.before, spot.after)
                whole.append((node, told if spot.place else f"{told}, {expression}"))
                if spot.place:
                    whole.append(_behind(writer.file, node, spot.place, expression))
            elif spot.group >= 0:
                in_strings.setdefault(node, {}).setdefault(spot.group, []).append((spot, expression))
            else:
                whole.append((node, writer.value_text(node, expression)))
    for text in derived:
        for spot in text.column.spots if text.base in filled else ():
            node, expression = spot.nodes[index], filled[text.base]
            if text.case:
                expression = writer.in_letters(expression, text.case)
            if text.sign:
                whole.append((node, writer.value_text(node, writer.line_below(text.sign, expression, text.more))))
                continue
            before, after = spot.before + text.before, text.after + spot.after
            if writer.file.tree.kind[node] == "string_content":
                whole.append((node, before + writer.gap(expression) + after))
            elif before or after:
                whole.append((node, writer.text_around(node, before, expression, after)))
            else:
                whole.append((node, writer.value_text(node, expression)))
    for node, (signs, made) in grown.items():
        whole.append((node, writer.value_text(node, " + ".join(made.get(k, sign) for k, sign in enumerate(signs)))))
    tree = writer.file.tree
    for node, filled_in in in_strings.items():
        parts, gaps = _parts_of(writer, node, filled_in)
        words = tree.kind[node] == "string_content"
        whole.append((node, writer.words_with(parts, gaps) if words else writer.string_with(node, parts, gaps)))
    taken = sorted((node, tree.end[node]) for node, _ in whole)
    if any(stop > start for (_, stop), (start, _) in itertools.pairwise(taken)):
        raise CannotWrite("what differs stands in places that touch each other")
    return whole


def _parts_of(
    writer: Writer, node: int, filled: Mapping[int, Sequence[tuple[Spot, str]]]
) -> tuple[list[str], dict[int, Gap]]:
    """The text at `node` in parts, and what comes in the place of some of them."""
    parts: list[str] = []
    gaps: dict[int, Gap] = {}
    for k, part in enumerate(writer.file.language.numbers_in(writer.file.tree.source_of(node))):
        spots = sorted(filled.get(k, ()), key=lambda pair: pair[0].place)
        for spot, expression in spots if k % 2 == 0 else ():
            gaps[len(parts) + 1] = Gap(expression, is_text=True)
            parts += [spot.before, "", spot.after]
        if k % 2:
            gaps.update({len(parts): Gap(expression) for _, expression in spots})
        if k % 2 or not spots:
            parts.append(part)
    return parts, gaps


def _behind(file: ProgramFile, text: int, place: int, expression: str) -> tuple[int, str]:
    """The value that stands in this place behind a text that says how to print, with one more behind it."""
    given = file.tree.items(file.tree.parent[text])
    if place >= len(given):
        raise CannotWrite("a text prints more values than it is given")
    return given[place], f"{file.tree.source_of(given[place])}, {expression}"


def in_terms_of(
    file: ProgramFile, column: Column, parameters: Mapping[str, Column], among: Sequence[Column]
) -> tuple[str, int] | None:
    """(parameter, what is to be added to it) where a number is always so much more than another one; two copies
    alone tell that only of neighbours, or where several numbers `among` the columns move together. A text that is
    nothing but a number is a text: nobody reckons with it."""
    numbers = column.numbers
    texts = [file.tree.source_of(s.nodes[0]).strip("\"'") if s.group >= 0 else "" for s in column.spots]
    is_text = any(text.isdigit() for text in texts)
    together = move_of(column) in moving_together(among)
    for name, other in parameters.items():
        if numbers is None or other.numbers is None:
            continue
        steps = {a - b for a, b in zip(numbers, other.numbers, strict=True)}
        step = steps.pop()
        if not steps and not (is_text and step) and (together or len(numbers) > 2 or abs(step) == 1):
            return name, step
    return None


def _string_lines(file: ProgramFile, first: int, last: int) -> set[int]:
    """Lines that begin inside a string and must not be moved."""
    known = file.derived.get("string lines")
    if not isinstance(known, list):
        tree = file.tree
        nodes = [n for n, text in enumerate(tree.text) if "\n" in text and tree.kind[n] in {"string", "string_content"}]
        known = file.derived["string lines"] = [(tree.start_line(n), tree.end_line(n)) for n in nodes]
    return {line for start, end in known if first <= start <= last for line in range(start + 1, end + 1)}


def comment_above(file: ProgramFile, line: int) -> str:
    """The comment that has the line above `line` to itself, without its mark; "" if there is none. What a program
    begins with is its title, unless it tells to do something."""
    for comment in file.tree.comments:
        if comment.last_line == line - 1 and comment.alone:
            titled = comment.line == 1 and not set(words_of(comment.words)[:1]) & COMMON_VERBS
            return "" if titled else comment.words
    return ""


def heading_of(copies: Sequence[Copy]) -> tuple[str, set[str]]:
    """What the comments above copies say of all of them, and the words that only some of them say: `# draw the door`
    and `# draw the roof` draw. A comment above the first copy alone counts for all."""
    comments = [comment_above(copy.file, copy.start_line) for copy in copies]
    told = [words_of(comment) for comment in comments if comment]
    if len(told) < len(copies[:2]) or len(set(map(tuple, told))) == 1:
        return comments[0], set()
    words = [word for word in told[0] if all(word in other for other in told)]
    return " ".join(words), {word for other in told for word in other} - set(words)


def told_order(copies: Sequence[Copy]) -> str:
    """What a suggestion's title adds where the copies' lines stand in another order."""
    return ", whose lines were first brought into one order" if any(c.is_reordered for c in copies) else ""
