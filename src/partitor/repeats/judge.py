"""What is worth a remark, and what is clearer written out.

A false alarm costs more trust than a missed trifle, so each rule here is a reason to keep quiet:
tables of literals, series of unlike prints, guard clauses, declarations, set-up of unlike options.
"""

from __future__ import annotations

import itertools
import re
from bisect import bisect_right
from collections.abc import Sequence

from ..program.names import Role
from ..program.program import Procedure, ProgramFile
from ..program.shapes import ROWS_OF_SIGNS, given_value
from ..program.tree import Tree
from .columns import Column, Spot
from .counters import are_listable
from .crossed import is_crossed
from .following import WORD, own_words, words_following
from .moves import following
from .private import private_columns
from .series import is_numbered
from .slots import Copy, Table

MOST_PARAMETERS = 5
FEWEST = 3
"""Statements from which copies that give values to numbered variables are better off as a function."""
MANY = 3
MANY_CALLS = 5
"""Copies of one statement from which a little less has to be alike."""
MANY_NUMBERS = 7
"""Copies of one statement that differ in numbers only, from which these are better off in a list."""
MOST_LISTED = 3
"""More irregular columns than this make a loop's list harder to read than the copies."""
LONG_COPY = 8
"""Statements of a copy of which one thing more may differ, where that is too much for a function."""


MOVED = 0.5
"""What a number counts against likeness that moves with another one."""
CHECKING = ("assert", "check-", "test-")


def code_lines(copy: Copy) -> int:
    """Lines with code on which the copy stands."""
    return copy.file.code_lines_within(copy.start_line, copy.end_line)


LEAST_SAVED = 2
MOST_LISTED_BESIDE = 2
"""Things that differ in copies that call variables of their own otherwise, too: where more do, a function for the part
that is quite alike is better."""


def worth_a_loop(table: Table, fewest_copies: int, least: int = LEAST_SAVED) -> bool:
    """True where the copies, in a row, would read better as a loop; `least`: lines that it has to save."""
    copies = table.copies
    if len(copies) < fewest_copies or table.constant_tokens == 0:
        return False
    if any(_only_asserts(copy) for copy in copies):
        return False
    if any(leaves(copy) for copy in copies) and not _tests_in_step(table):
        return False
    private = private_columns(table)
    targets = [column for column in table.columns if column.is_target and column not in private]
    if targets and not all(are_listable(table, c) for c in targets):
        return False
    if targets and worth_a_function(table, FEWEST) and not any(_is_shared(c, copies[0]) for c in targets):
        return False
    irregular = [
        c for c in table.columns if c.step() is None and c not in targets and c not in private and not c.is_family
    ]
    if len(irregular) > 1:
        moved = following(irregular)
        irregular = [c for c in irregular if c not in moved]
    if len(irregular) > MOST_LISTED_BESIDE and not all(c.is_family for c in private):
        return False
    # A list that variables of a series are kept in has a line of its own, and is further from what the student wrote.
    lists = sum(not is_numbered(c.values[0]) for c in targets)
    if copies[0].file.language.lists_below:
        lists += max(len(irregular), 1)
    saved = sum(code_lines(c) for c in copies) - code_lines(copies[0]) - 1 - lists
    if saved < least or len(irregular) > most_listed(irregular, copies):
        return False
    if irregular and _unlike_prints(table):
        return False
    short = len(copies[0].statements) == 1 and not _is_compound(copies[0])
    unlike = [c for c in irregular if not c.is_series] if short else []
    if unlike:
        alike = table.constant_tokens + len(table.derived) + sum(len(c.spots) - 1 for c in unlike)
        # In many copies a number that steps evenly, such as a place on the screen, tells as much as what is the same.
        alike += sum(map(_steps_by_itself, table.columns)) if len(copies) >= MANY_CALLS else 0
        alike += sum((spot.group >= 0) + _words_around(spot, copies[0]) for c in unlike for spot in c.spots)
        # What says the name of the value beside it differs no more than that value: a label at its place, or a value
        # between two tags. One label alone is prose.
        told = [c for c in unlike if any(_tells_the_name(c, base) for base in unlike if base is not c)]
        if len(told) > 1 or any(map(_steps_by_itself, table.columns)):
            unlike = [c for c in unlike if c not in told]
            alike += len(told)
        # Two things that differ are a table already, unless one of them stands there more than once, or something is
        # made of one of them, or each copy goes on with what the one before it made.
        reused = any(len(c.spots) > 1 for c in unlike)
        made = _goes_on(copies[0]) or any(_is_worked_on(c, copies[0]) for c in unlike)
        made = made and alike + _operators(copies[0]) >= 3
        # So many numbers, one under the other, are the list already.
        numbers = are_many_numbers(table)
        # So are things put into a list one after the other.
        numbers = numbers or (len(copies) >= MANY_CALLS and len(unlike) == 1 and _fills_a_list(copies[0]))
        few = len(unlike) == 1 or (len(unlike) == 2 and (reused or made or numbers))
        enough = 3 + len(unlike) - (len(copies) >= MANY_CALLS)
        return few and len(copies) >= 4 and (made or numbers or alike >= enough)
    return True


def most_listed(listed: Sequence[Column], copies: Sequence[Copy]) -> int:
    """How many things a loop over these copies may list: one more where each tells of one thing, by its name in every
    statement, and where copies are so long that the list is the shorter part of it and no function could take as
    much."""
    size = len(copies[0].statements)
    if copies[0].file.language.declares or len(copies) < MANY:
        return MOST_LISTED
    named = size > MOST_LISTED and any(
        len({_statement_of(copies[0], s.nodes[0]) for s in c.spots}) == size for c in listed
    )
    long = inner_statements(copies[0]) >= LONG_COPY and len(listed) + _carried(copies[0]) > MOST_PARAMETERS
    return MOST_LISTED + (named or long)


def _carried(copy: Copy) -> int:
    """How many variables a copy gives another value that it reads before: a function would have to be given them."""
    tree, names = copy.file.tree, copy.file.names
    read: set[str] = set()
    seen: set[str] = set()
    changed: set[str] = set()
    for i in names.within(*copy.span):
        name, statement = tree.text[i], tree.parent[i]
        if names.role[i] in (Role.WRITE, Role.UPDATE):
            changed.add(name)
            right = tree.child(statement, "right")
            of_itself = right is not None and name in tree.text[right : tree.end[right]]
            if name not in seen and (names.role[i] is Role.UPDATE or of_itself):
                read.add(name)
        elif names.role[i] is Role.READ and name not in seen:
            read.add(name)
        seen.add(name)
    return len(read & changed)


def _statement_of(copy: Copy, node: int) -> int:
    """Which of a copy's statements a node stands in."""
    return sum(s <= node for s in copy.statements)


def worth_a_function(table: Table, fewest_statements: int) -> bool:
    """True where the copies, in separate places, would read better as calls of one function."""
    copies = table.copies
    size = len(copies[0].statements)
    inner = inner_statements(copies[0])
    columns = table.columns
    renamed = [column for column in columns if column.is_target and column.is_name]
    # One statement has to hold more; but a variable kept within bounds is known by its two tests.
    one = len(copies) >= MANY and len(renamed) == 1 and len(renamed[0].spots) > MANY
    tested = one and len(columns) - 1 <= MOST_LISTED
    length = code_lines(copies[0])
    saved = sum(code_lines(c) for c in copies) - (length + 1) - len(copies)
    chosen = saved >= LEAST_SAVED and len(columns) == 1 and columns[0].is_name and len(columns[0].spots) >= MANY
    # Loops through the same thing once more, and again, are many lines for what they do.
    first = copies[0]
    again = len(copies) >= MANY and size == 1 and first.file.tree.kind[first.first] in first.file.language.loops
    # So are choices that give one variable its value either way.
    given = len(copies) >= MANY and size == 1 and len(renamed) == 1 and saved > LEAST_SAVED and _is_either_or(first)
    swapped = len(copies) >= MANY and size == 1 and exchanges(first)
    # What is done in so many places, and is the very same each time, is one thing to do.
    same = len(copies) > MANY and size == 1 and not columns and saved > LEAST_SAVED
    known = tested or chosen or again or given or swapped or same
    if inner < fewest_statements or (size == 1 and inner < fewest_statements + (not known)):
        return False
    if any(column.is_bare_list for column in columns) or (renamed and _is_small_and_crossed(table)):
        return False
    moved = following(columns) if len(columns) > 1 else {}
    if len(columns) - len(renamed) - len(moved) > MOST_PARAMETERS or any(_only_asserts(copy) for copy in copies):
        return False
    if any(leaves(copy) for copy in copies) and size == 1 and inner < 2 * fewest_statements:
        return False
    if saved < 1 and len(copies) * length < 2 * length + 2:
        return False
    if table.columns and size == inner > 1 and _is_one_row(copies):
        return False
    if _unlike_prints(table) or _declarations(copies[0]):
        return False
    spots = sum(
        1 if column in renamed else MOVED if column in moved else _unlike(column) for column in table.all_columns
    )
    spots -= _numbered_alike(renamed) / 2
    few = len(copies) < 3 or (len(copies) == 3 and inner <= fewest_statements and columns)
    enough = (3 if few and not again else 2) * fewest_statements - (1 if chosen else 0)
    # A variable that is called otherwise throughout is as good as one that is called the same; in several short copies
    # it may be chance.
    throughout = sum(len(column.spots) - 1 for column in renamed)
    others = sum(len(column.spots) - 1 for column in columns if column.is_name and column not in renamed)
    alike = table.constant_tokens + (throughout + others if few else throughout if tested else throughout // 2)
    if alike < enough or alike < 1.5 * spots:
        named = [words for words in (_words_following(c, renamed) for c in table.all_columns) if words is not None]
        alike += sum(named)
        spots -= len(named) / 2
    return swapped or (alike >= enough and alike >= 1.5 * spots)


def _is_small_and_crossed(table: Table) -> bool:
    """True for few statements that go along a row in one copy and down a column in another."""
    return inner_statements(table.copies[0]) < 2 * MANY and is_crossed(table)


def _fills_a_list(copy: Copy) -> bool:
    """True for a call that puts one literal into a list."""
    file, language = copy.file, copy.file.language
    given = file.only_argument(copy.first)
    if given is None or file.called_name(copy.first) not in ADDING:
        return False
    return file.tree.kind[given] in language.numbers | language.strings


ADDING = frozenset("append add push push_back Add".split())


def are_many_numbers(table: Table) -> bool:
    """True for so many copies of one statement, of which only numbers differ without any order."""
    copies = table.copies
    unlike = [c for c in table.columns if c.step() is None]
    single = len(copies[0].statements) == 1 and len(copies) >= MANY_NUMBERS
    return single and bool(unlike) and all(_only_numbers(c) for c in unlike)


def _only_numbers(column: Column) -> bool:
    return all(NUMBER.fullmatch(value) for value in column.values)


NUMBER = re.compile(r"-?\d+(\.\d+)?")


def _is_one_row(copies: Sequence[Copy]) -> bool:
    """True for the same statement over and over, one copy right behind the other: a loop, or nothing."""
    first = copies[0].file
    tree = first.tree
    beside = all(a.file is b.file and a.span[1] == b.first for a, b in itertools.pairwise(copies))
    kinds = {tuple(tree.kind[s : tree.end[s]]) for copy in copies for s in copy.statements} if beside else ()
    return len(kinds) == 1


def exchanges(copy: Copy) -> bool:
    """True for a choice in which two variables get each other's values by way of a third one."""
    file, tree = copy.file, copy.file.tree
    inside = file.statements_within(copy.first + 1, tree.end[copy.first])
    given = [pair for s in inside if (pair := given_value(tree, s)) is not None]
    if tree.kind[copy.first] not in file.language.conditionals or len(inside) != 3 or len(given) != 3:
        return False
    (kept, one), (first, other), (second, back) = ((tree.text[a], tree.text[b]) for a, b in given)
    return bool(one and other) and first == one and second == other and back == kept


def _is_either_or(copy: Copy) -> bool:
    """True for a choice between two."""
    tree = copy.file.tree
    chooses = tree.kind[copy.first] in copy.file.language.conditionals
    return chooses and "else_clause" in {tree.kind[c] for c in tree.children(copy.first)}


def _numbered_alike(renamed: Sequence[Column]) -> int:
    """How many variables carry the same numbers as others before them: `x1`, `x2`, `x3` beside `y1`, `y2`, `y3`."""
    numbers = [tuple(NO_DIGIT.sub("", value) for value in column.values) for column in renamed]
    numbered = [found for found in numbers if all(found)]
    return len(numbered) - len(set(numbered))


def _words_following(column: Column, renamed: Sequence[Column]) -> int | None:
    """How many words a text or name holds beside the name of one of the copy's variables, which it follows; None where
    it follows none."""
    if column.numbers is not None:
        return None
    for base in renamed:
        words = words_following(column.values, base.values) if base is not column else None
        if words is not None:
            return words + sum(len(WORD.findall(f"{spot.before} {spot.after}")) for spot in column.spots)
    return None


def worth_merging(table: Table, procedures: Sequence[Procedure]) -> bool:
    """True where functions with these bodies are one function written several times."""
    inner = inner_statements(table.copies[0])
    fewest = 1 if table.copies[0].file.language.values_everywhere else 2
    parameters = set(zip(*(p.parameters for p in procedures), strict=False))
    renamed = [c for c in table.columns if c.is_name and (c.is_target or c.values in parameters)]
    moved = following(table.columns)
    if inner < fewest or _is_small_and_crossed(table):
        return False
    if len(table.columns) - len(renamed) - len(moved) > MOST_PARAMETERS:
        return _asks_with_other_numbers(table)
    if inner < MANY and fewest > 1 and len(table.columns) > 1 and any(c.is_called for c in table.columns):
        # Two lines that ask another function, with other values, are two things to do.
        return False
    unlike = [column for column in table.all_columns if column not in renamed]
    spots = sum(MOVED if column in moved else _unlike(column) for column in unlike)
    if _unlike_prints(table) and table.columns:
        return False
    enough = 4 if inner >= 3 else 6
    alike = sum(len(column.spots) for column in renamed)
    constant = table.constant_tokens
    if (constant < enough or constant + alike < 2 * spots) and inner >= MANY:
        # What is called after what the function is called after tells that the functions are alike.
        word = own_words([p.name for p in procedures])
        told = [words_following(c.values, word) for c in unlike if c.numbers is None] if word else []
        constant += sum(words for words in told if words is not None)
        spots -= sum(words is not None for words in told) / 2
    return constant >= enough and constant + alike >= 2 * spots


MOST_NUMBERS = 12
FEWEST_OF_NUMBERS = 5
"""Statements of functions that are one although more numbers differ than a function may have parameters."""


def _asks_with_other_numbers(table: Table) -> bool:
    """True for what asks and works out the same throughout, only with other numbers: two tariffs."""
    copy = table.copies[0]
    kinds = copy.file.tree.kind[slice(*copy.span)]
    of_numbers = copy.file.language.numbers
    numbers = all(copy.file.tree.kind[spot.nodes[0]] in of_numbers for c in table.columns for spot in c.spots)
    asks = not copy.file.language.conditionals.isdisjoint(kinds)
    size = len(table.columns)
    enough = inner_statements(copy) >= FEWEST_OF_NUMBERS and table.constant_tokens >= max(size + 3, MANY)
    return numbers and asks and enough and size <= MOST_NUMBERS


def _operators(copy: Copy) -> int:
    """How many times something is worked out in a copy of two values."""
    return sum(copy.file.tree.kind[node] == "binary_operator" for node in range(*copy.span))


def _goes_on(copy: Copy) -> bool:
    """True for a statement that gives a variable a new value made of its old one: `text = text.replace("a", "4")`."""
    given = given_value(copy.file.tree, copy.statements[0])
    if given is None:
        return False
    tree, names = copy.file.tree, copy.file.names
    return any(tree.text[i] == tree.text[given[0]] for i in names.within(given[1], tree.end[given[1]]))


def _is_worked_on(column: Column, copy: Copy) -> bool:
    """True where something is made of what stands in a column, always in the same way: `"mill".ljust(10)`, `3 * 12`,
    `f"{80:>5}"`. What is only joined to a text, or sent to a stream, is not."""
    tree, language = copy.file.tree, copy.file.language
    for spot in column.spots:
        node = spot.nodes[0]
        parent = tree.parent[node]
        if any(tree.kind[c] == "format_specifier" for c in tree.children(parent)):
            return True
        if tree.kind[parent] == "binary_operator":
            beside = [c for c in tree.children(parent) if c != node]
            signs = {tree.text[c] for c in beside}
            literal = any(tree.kind[c] in language.numbers | language.strings for c in beside)
            joined = tree.kind[node] in language.strings and signs & JOINING
            return literal and not joined and not signs & SENDING
        above = tree.parent[parent]
        owner = tree.kind[parent] == language.member[0] and node == parent + 1
        if owner and tree.kind[above] == language.call and tree.field[parent] == language.callee_field:
            return tree.kind[node] in language.strings
    return False


JOINING = frozenset({"+", "&", "."})
SENDING = frozenset({"<<", ">>"})


def _tests_in_step(table: Table) -> bool:
    """True for tests that return where they hold, if all that differs in them is numbers in even steps."""
    first = table.copies[0]
    tree, language = first.file.tree, first.file.language
    jumps = {tree.kind[n] for n in range(*first.span)} & language.leaving
    even = bool(table.columns) and all(column.step() is not None for column in table.columns)
    return even and jumps == {language.returning} and _is_compound(first)


def _is_shared(column: Column, copy: Copy) -> bool:
    """True for variables that do not belong to the function in which the copies stand: it could not give them back
    without more ado."""
    node = column.spots[0].nodes[0]
    names = copy.file.names
    return node in names.scope and names.owner(node) != names.scope[node]


def _unlike(column: Column) -> float:
    """How much a column counts against likeness: what differs in the same way again counts half."""
    return (1 + len(column.spots)) / 2


def inner_statements(copy: Copy) -> int:
    """Statements of a copy, those in its branches and loops included."""
    return copy.file.count_within(*copy.span)


def _is_compound(copy: Copy) -> bool:
    return inner_statements(copy) > len(copy.statements)


def leaves(copy: Copy) -> bool:
    """True where a statement of the copy returns or raises, or breaks out of what stands around the copy."""
    return bool(jumps_out(copy))


def jumps_out(copy: Copy) -> list[int]:
    """The nodes of a copy that return or raise, or break out of what stands around the copy."""
    start, stop = copy.span
    file, tree = copy.file, copy.file.tree
    if file.language.leaving.isdisjoint(tree.kind[start:stop]):
        return []
    loops = file.language.loops
    left_by = {"continue_statement": loops, "break_statement": loops}
    if file.language.declares:
        left_by["break_statement"] = loops | {"match_statement"}

    def stays(node: int) -> bool:
        own = left_by.get(tree.kind[node], frozenset())
        return any(tree.kind[p] in own for p in file.parents(node) if p >= start)

    return [n for n in range(start, stop) if tree.kind[n] in file.language.leaving and not stays(n)]


def _only_asserts(copy: Copy) -> bool:
    tree = copy.file.tree
    return all(
        tree.kind[s] == "assert_statement"
        or (tree.kind[s] == copy.file.language.call and copy.file.called_name(s).lower().startswith(CHECKING))
        for s in copy.statements
    )


def _unlike_prints(table: Table) -> bool:
    """A series of prints in which whole texts differ is prose, not repetition."""
    copy, columns = table.copies[0], table.all_columns
    file, language = copy.file, copy.file.language
    tree = file.tree
    if not all(tree.kind[s] == language.call and file.called_name(s) in language.output_calls for s in copy.statements):
        return False
    if not columns:
        return False
    own = {procedure.name for procedure in file.procedures[1:]}
    asked = [d for d in table.derived if any(_is_asked_with(file, spot.nodes[0]) for spot in d.base.spots)]
    told = {id(column) for d in asked for column in (d.base, d.column)}
    texts = sum(
        1
        for column in columns
        if column.numbers is None
        and id(column) not in told
        and any(v[:1] in "\"'frbFRB" and v[-1:] in "\"'" for v in column.values)
        and not (column.is_series and (len(column.spots) > 1 or any(c.is_family for c in columns)))
        and not all(_is_given_to(file, spot.nodes[0], own) for spot in column.spots)
        and not _is_worked_on(column, copy)
        and not any(_words_around(spot, copy) and _are_short(column) for spot in column.spots)
        and not any(len(base.spots) > 1 and _tells_the_name(column, base) for base in columns)
        and not (len(column.spots) > 1 and any(_is_a_key(tree, spot.nodes[0]) for spot in column.spots))
    )
    if len(table.copies) > MANY and any(map(_steps_by_itself, columns)):
        return False
    if texts >= len(copy.statements):
        return True
    differing = {bisect_right(copy.statements, spot.nodes[0]) for column in columns for spot in column.spots}
    if len(table.copies) >= MANY and len(columns) == 1 and _are_short(columns[0]) and _has_a_ruler(copy):
        return False
    mostly = 2 * len(differing) >= len(copy.statements)
    return mostly and texts == len(columns) and _constant_texts(copy, columns) <= texts


def _is_a_key(tree: Tree, node: int) -> bool:
    """True for what something is found by in a list or dictionary."""
    return tree.kind[tree.parent[node]] == "subscript" and tree.field[node] == "subscript"


def _has_a_ruler(copy: Copy) -> bool:
    """True where a line of nothing but signs is printed, as under headings and between rows."""
    tree = copy.file.tree
    return any(ROWS_OF_SIGNS.fullmatch(text) for text in tree.text[copy.first : copy.span[1]])


def _steps_by_itself(column: Column) -> bool:
    """True for numbers in even steps that stand in no text."""
    return column.step() is not None and all(spot.group < 0 for spot in column.spots)


def _tells_the_name(column: Column, base: Column) -> bool:
    """True for texts that hold the names of a column's values, the same around them: `"Coins: "` beside `coins`."""
    if column.numbers is not None or base.numbers is not None or any(v[-1:] in "\"'" for v in base.values):
        return False
    return words_following(column.values, [v.rpartition(".")[2] for v in base.values]) is not None


LONGEST_NAME = 2
"""Words of a text that may be the name of something; more say something."""


def _are_short(column: Column) -> bool:
    return all(len(value.split()) <= LONGEST_NAME for value in column.values)


def _words_around(spot: Spot, copy: Copy) -> int:
    """How many words stand in all copies around words that differ in a text that counts too: "level" and "gate" in
    `"level 3 at the mill gate"`."""
    if not spot.is_words:
        return len(WORD.findall(f"{spot.before} {spot.after}")) if spot.is_part else 0
    tree = copy.file.tree
    parts = copy.file.language.numbers_in(tree.source_of(spot.nodes[0]))
    frame = [spot.before, spot.after, *(part for k, part in enumerate(parts) if k % 2 == 0 and k != spot.group)]
    return len(WORD.findall(" ".join(frame)))


NO_DIGIT = re.compile(r"\D")


def _is_asked_with(file: ProgramFile, node: int) -> bool:
    """True for a value with which something is worked out before it is printed: `text.count("the")`."""
    tree, language = file.tree, file.language
    around = [p for p in file.parents(node) if tree.kind[p] == language.call]
    return len(around) > 1 and file.called_name(around[0]) not in {*language.output_calls, "str", "String"}


def _is_given_to(file: ProgramFile, node: int, functions: set[str]) -> bool:
    """True for a value that one of these functions takes: what is printed is what it makes of it."""
    tree, language = file.tree, file.language
    around = (p for p in file.parents(node) if tree.kind[p] == language.call)
    return any(file.called_name(call) in functions for call in around)


def _constant_texts(copy: Copy, columns: tuple[Column, ...]) -> int:
    """Texts with words that are the same in all copies: what the copies say alike."""
    tree = copy.file.tree
    differing = {spot.nodes[0] for column in columns for spot in column.spots}
    return sum(
        tree.kind[node] in copy.file.language.strings
        and node not in differing
        and sum(c.isalpha() for c in tree.text[node]) >= 3
        for node in range(*copy.span)
    )


def _declarations(copy: Copy) -> bool:
    """Nothing but values given to names."""
    tree, language = copy.file.tree, copy.file.language

    def is_declaration(statement: int) -> bool:
        if tree.kind[statement] != "assignment":
            return False
        value = tree.child(statement, "right")
        return value is not None and all(
            tree.kind[i] not in {language.call, language.name, "binary_operator", "subscript"}
            for i in range(value, tree.end[value])
        )

    return all(is_declaration(s) for s in copy.statements)
