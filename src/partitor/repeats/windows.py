"""Which part of a repeat is worth a function: without headings at its ends, and without what only looks alike."""

from __future__ import annotations

import itertools
from bisect import bisect_right
from collections.abc import Iterator

from ..program.shapes import given_value
from .columns import Column, Spot
from .judge import FEWEST, MOST_PARAMETERS, worth_a_function
from .paragraphs import Break, break_above
from .slots import Copy, Table, compare, given_back


def windows(table: Table) -> Iterator[Table]:
    """The copies, without headings at their ends; then the part of them that is most worth a function,
    where what stands around it only looks alike."""
    headed = _from_a_heading(table)
    if headed is not None:
        yield from windows(headed)
        return
    chosen = _below_a_choice(table)
    if chosen is not None:
        yield from windows(chosen)
    whole = _trimmed(table)
    if whole is not None:
        yield whole
    for window in (_best_window(table), _widest_window(table)):
        if window is None:
            continue
        inside = compare([Copy(c.file, c.statements[window[0] : window[1]]) for c in table.copies])
        inside = inside and _trimmed(inside)
        if inside is not None:
            yield inside
    if whole is not table and not _leaves_at_the_end(table):
        yield table
    beside = _beside_lists(table)
    if beside is not None:
        yield beside
    if whole is not table and _gives_back_at_the_end(table):
        yield table


def _from_a_heading(table: Table) -> Table | None:
    """The copies from the first comment on that stands in each of them; None where none does, or they begin a paragraph
    themselves: what stands above such a comment is the end of something else."""
    copies = table.copies
    if not all(c.file.tree.comments for c in copies) or any(c.is_reordered for c in copies):
        return None
    if all(break_above(c.file, c.statements[0]) is not Break.NONE for c in copies):
        return None
    for k in range(1, len(copies[0].statements)):
        if all(break_above(c.file, c.statements[k]) is Break.COMMENT for c in copies):
            return compare([Copy(c.file, c.statements[k:]) for c in copies])
    return None


def _below_a_choice(table: Table) -> Table | None:
    """What copies do that are one test each of what was chosen (`if choice == "a":`), where nothing else differs in the
    test: what is chosen stays where it is, to be read there. None for other copies."""
    first = table.copies[0]
    file, tree = first.file, first.file.tree
    if len(first.statements) > 1 or tree.kind[first.first] != "if_statement":
        return None
    condition, body = tree.child(first.first, "condition"), tree.child(first.first, "consequence")
    if condition is None or body is None or tree.child(first.first, "alternative") is not None:
        return None
    told = [c for c in table.columns if any(s.nodes[0] < body for s in c.spots)]
    signs = {"==", "==="} & set(tree.text[condition : tree.end[condition]])
    literal = all(tree.kind[c.spots[0].nodes[0]] in file.language.strings | file.language.numbers for c in told)
    if len(told) != 1 or len(told[0].spots) > 1 or not literal or not signs:
        return None
    places = [c.file.tree.child(c.first, "consequence") for c in table.copies]
    blocks = [c.file.block_at.get(n) if n is not None else None for c, n in zip(table.copies, places, strict=True)]
    if tree.kind[condition] != "comparison_operator" or None in blocks:
        return None
    inside = [Copy(c.file, b.statements) for c, b in zip(table.copies, blocks, strict=True) if b is not None]
    return compare(inside) if len({len(c.statements) for c in inside}) == 1 else None


MOST_DROPPED = 4


def parts_of(table: Table) -> Iterator[Table]:
    """The copies without some statements at their ends that are still worth a function, the longest first."""
    count = len(table.copies[0].statements)
    for length in range(count - 1, max(0, count - 1 - MOST_DROPPED), -1):
        for start in range(count - length + 1):
            part = compare([Copy(c.file, c.statements[start : start + length]) for c in table.copies])
            if part is not None and worth_a_function(part, FEWEST):
                yield part


def _beside_lists(table: Table) -> Table | None:
    """The most statements in a row in which no list differs that must stand where its variable is declared."""
    first = table.copies[0]
    lists = {bisect_right(first.statements, s.nodes[0]) - 1 for c in table.columns if c.is_bare_list for s in c.spots}
    if not lists:
        return None
    edges = [-1, *sorted(lists), len(first.statements)]
    start, stop = max(((a + 1, b) for a, b in itertools.pairwise(edges)), key=lambda edge: edge[1] - edge[0])
    return compare([Copy(c.file, c.statements[start:stop]) for c in table.copies]) if start < stop else None


def _leaves_at_the_end(table: Table) -> bool:
    first = table.copies[0]
    return first.file.tree.kind[first.statements[-1]] in first.file.language.leaving


def _gives_back_at_the_end(table: Table) -> bool:
    """True where the copies end with giving something back, which a function that holds them can do for them."""
    first = table.copies[0]
    return given_back(first.file.tree, first.statements[-1]) is not None and _leaves_at_the_end(table)


WIDEST_WINDOW = 40


def _best_window(table: Table) -> tuple[int, int] | None:
    """The statements [start, stop) of the copies whose extraction saves most; None where it is all or none.

    A column costs what a parameter costs to read, a variable that is called otherwise in each copy a
    little less; what a window saves is what its later copies hold.
    """
    first = table.copies[0]
    count = len(first.statements)
    if count > WIDEST_WINDOW:
        return None
    sizes = [first.file.count_within(s, first.file.tree.end[s]) for s in first.statements]
    prices = [1000.0 if c.is_bare_list else 1.0 if c.is_target else 1.5 for c in table.columns]
    columns = _columns_at(table, list(range(len(table.columns))))
    times = len(table.copies)
    dear = 0.5 + 0.25 * times
    best, chosen = 0.0, None
    for start in range(count):
        size, price = 0, 0.0
        inside: set[int] = set()
        for stop in range(start + 1, count + 1):
            size += sizes[stop - 1]
            for column in columns[stop - 1]:
                if column not in inside:
                    inside.add(column)
                    price += prices[column]
            saved = (times - 1) * size - times - price * dear
            if saved > best:
                best, chosen = saved, (start, stop)
    return None if chosen == (0, count) else chosen


def _widest_window(table: Table) -> tuple[int, int] | None:
    """As many statements [start, stop) as possible in which no more differs than a function can be given; None where
    that is all."""
    own = [k for k, column in enumerate(table.columns) if not column.is_target]
    count = len(table.copies[0].statements)
    if len(own) <= MOST_PARAMETERS or count > WIDEST_WINDOW:
        return None
    columns = _columns_at(table, own)
    widest: tuple[int, int] | None = None
    for start in range(count):
        inside: set[int] = set()
        stop = start
        while stop < count and len(inside.union(columns[stop])) <= MOST_PARAMETERS:
            inside.update(columns[stop])
            stop += 1
        if stop > start and (widest is None or stop - start > widest[1] - widest[0]):
            widest = (start, stop)
    return widest


def _columns_at(table: Table, wanted: list[int]) -> list[list[int]]:
    """For each statement of the first copy, which of the `wanted` columns differ in it."""
    statements = table.copies[0].statements
    found: list[list[int]] = [[] for _ in statements]
    for k in wanted:
        for at in {bisect_right(statements, spot.nodes[0]) - 1 for spot in table.columns[k].spots}:
            found[at].append(k)
    return found


def _trimmed(table: Table) -> Table | None:
    """Without headings at either end: an output of nothing but a text that differs is no part of it."""
    copies = table.copies
    start, stop = 0, len(copies[0].statements)
    while start < stop and _is_unlike_heading(table, copies[0].statements[start]):
        start += 1
    while start < stop and _stays_behind(table, copies[0].statements[stop - 1]):
        stop -= 1
    if (start, stop) == (0, len(copies[0].statements)):
        return table
    return compare([Copy(c.file, c.statements[start:stop]) for c in copies]) if start < stop else None


def _stays_behind(table: Table, statement: int) -> bool:
    """A heading, or the jump out of the place where the copy stands, which stays there, or what a variable is given
    that the copy has nothing else to do with (`turn = 2`): a function would only hand it through."""
    file = table.copies[0].file
    leaves = file.tree.kind[statement] in file.language.leaving
    return leaves or _is_unlike_heading(table, statement) or _is_handed_through(table, statement)


def _is_handed_through(table: Table, statement: int) -> bool:
    """True where a variable that stands nowhere else in the copy is given a literal of its own in each copy."""
    first = table.copies[0]
    file, tree = first.file, first.file.tree
    given = given_value(tree, statement, for_good=True)
    if given is None or statement != first.statements[-1] or tree.kind[statement] != "assignment":
        return False
    literal = tree.kind[given[1]] in file.language.numbers | file.language.strings | file.language.constants
    alone = any(c.spots[0].nodes[0] == given[1] and len(c.spots) == 1 for c in table.columns if c.spots[0].is_plain)
    name = tree.text[given[0]]
    uses = sum(tree.text[i] == name for i in file.names.within(*first.span))
    differs = any(name == c.values[0] for c in table.columns)
    return literal and alone and uses == 1 and not differs


def _says_the_same(column: Column, spot: Spot) -> bool:
    """True for a text that is the same in all copies but for a word: "Type the heights of Monday"."""
    words = [f"{spot.before}{value.strip(QUOTES)}{spot.after}".split() for value in column.values]
    if len({len(w) for w in words}) > 1:
        return False
    alike = sum(len(set(same)) == 1 for same in zip(*words, strict=True))
    return alike > 1 and alike == len(words[0]) - 1


QUOTES = "\"'"


def _is_unlike_heading(table: Table, statement: int) -> bool:
    file = table.copies[0].file
    tree, language = file.tree, file.language
    if tree.kind[statement] != language.call or file.called_name(statement) not in language.output_calls:
        return False
    arguments = tree.child(statement, language.arguments_field)
    given = tree.items(arguments) if arguments else []
    spots = [spot for c in table.columns if len(c.spots) == 1 for spot in c.spots if spot.group < 0]
    slots = {spot.nodes[0] for spot in spots if not spot.in_format or len(given) == 1}
    if not given or given[0] not in slots or tree.kind[given[0]] not in language.strings:
        return False
    if any(spot.nodes[0] == given[0] and _says_the_same(c, spot) for c in table.columns for spot in c.spots):
        return False
    if any(d.sign and spot.nodes[0] == given[0] for d in table.derived for spot in d.base.spots):
        # A line as long as it stands below.
        return False
    # How something is printed is no value that a function could be given.
    is_a_format = not language.texts_take_texts and "%" in tree.text[given[0]] and language.declares
    return len(given) == 1 or is_a_format
