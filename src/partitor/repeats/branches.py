"""Branches that do the same, each with a variable or a literal of its own: `if letter == "a": a += 1`, `elif letter ==
"e": e += 1`; `if month == 1: name = "January"`. In one list or dictionary they need no branches. And branches, one
behind the other, that do the very same: one is enough, with their tests joined."""

from __future__ import annotations

import itertools
from collections import Counter
from collections.abc import Iterator, Sequence

from ..program.names import Role
from ..program.program import ProgramFile
from .columns import Column
from .judge import code_lines
from .slots import Copy, Table, compare

FEWEST_BRANCHES = 4
FEWEST_OF_A_NAME = 3
"""Branches that ask for a text and count the variable of that name."""
MOST_STATEMENTS = 2
"""Statements of a branch; what has more may be a block."""
MOST_BRANCHES = 60
MOST_OF_ONE = 60
"""Statements of a branch that is compared with the next one."""
LEAST_OF_ONE = 3
"""Lines that one branch in place of several has to save: two that say one thing each are no matter."""
WIDEST = 80
"""Signs of a line with a test; a longer one is broken, and saves less."""
FEWEST_CHOICES = 5
"""Branches that give a literal for a literal; fewer are a choice."""
MOST_SET = 5
"""Statements of a branch that sets something, says so, and goes on as the others do."""


def alike_branches(file: ProgramFile) -> Iterator[Table]:
    """The longest rows of such branches, one of each chain: its tests and what is done."""
    tree = file.tree
    # Most choices have two branches, and are not looked into.
    counts = Counter(tree.parent[n] for n, kind in enumerate(tree.kind) if kind in {"elif_clause", "case_clause"})
    chains = [_branches(file, n, MOST_SET) for n, count in counts.items() if count >= FEWEST_OF_A_NAME - 1]
    tests = (b.statements for b in file.blocks if len(b.statements) >= FEWEST_CHOICES)
    returning = [s for s in tests if [tree.kind[n] for n in s].count("if_statement") >= FEWEST_CHOICES]
    for branches in (*chains, *(_leaving(file, statements) for statements in returning)):
        found = list(itertools.islice(branches, MOST_BRANCHES))
        table = _longest(found) if len(found) >= FEWEST_OF_A_NAME else None
        if table is not None:
            yield table


def equal_branches(file: ProgramFile) -> Iterator[Table]:
    """Branches one behind the other, in each choice, that do the very same, where one of them is enough."""
    tree = file.tree
    choices = {tree.parent[n] for n, kind in enumerate(tree.kind) if kind == "elif_clause"}
    for choice in sorted(choices):
        branches = itertools.islice(_branches(file, choice, MOST_OF_ONE), MOST_BRANCHES)
        for _, group in itertools.groupby(branches, key=_what_is_done):
            copies = tuple(group)
            if len(copies) > 1 and _saved_by_one(copies) >= LEAST_OF_ONE:
                yield Table(copies, (), sum(bool(tree.text[n]) for n in range(*copies[0].span)))


def _what_is_done(branch: Copy) -> tuple[list[str], list[str]]:
    """All that stands in a branch, the jump out of it too, token for token."""
    tree = branch.file.tree
    block = tree.parent[branch.last]
    inside = slice(block, tree.end[block])
    return tree.text[inside], tree.kind[inside]


def _saved_by_one(copies: Sequence[Copy]) -> int:
    """Lines that one of the branches saves, if it asks for all."""
    tree = copies[0].file.tree
    joined = sum(len(tree.source_of(copy.statements[0])) + len(" and ") for copy in copies)
    lines = len(copies) if joined > WIDEST else 1
    return sum(map(code_lines, copies)) - code_lines(copies[0]) - (lines - 1)


def _leaving(file: ProgramFile, statements: tuple[int, ...]) -> Iterator[Copy]:
    """Tests one behind the other, each of which gives its answer for good: from the first on, what each asks and
    does."""
    tree = file.tree
    tests = itertools.dropwhile(lambda s: tree.kind[s] != "if_statement", statements)
    for statement in itertools.takewhile(lambda s: tree.kind[s] == "if_statement", tests):
        branches = list(itertools.islice(_branches(file, statement), 2))
        leaves = len(branches) == 1 and tree.kind[branches[0].last] == file.language.returning
        if not leaves or any(tree.kind[c] == "else_clause" for c in tree.children(statement)):
            return
        yield branches[0]


def _branches(file: ProgramFile, node: int, most_statements: int = MOST_STATEMENTS) -> Iterator[Copy]:
    """What each branch asks and does, up to one of more statements."""
    tree = file.tree
    if tree.kind[node] == "if_statement":
        inside = tree.branches_of(node)
        field = "condition"
    else:
        inside = [c for c in tree.children(node) if tree.kind[c] == "case_clause"]
        field = "value"
    for branch in inside:
        asked = [c for c in tree.children(branch) if tree.field[c] == field and tree.text[c] not in {"case", "default"}]
        block = file.first_block(branch)
        statements = file.block_at[block].statements if block is not None else ()
        statements = tuple(s for s in statements if tree.kind[s] != "break_statement")
        if len(asked) == 1 and 1 <= len(statements) <= most_statements:
            yield Copy(file, (asked[0], *statements))
        else:
            return


def _longest(branches: list[Copy]) -> Table | None:
    """The branches from the first on that are alike but for a literal that is asked for, and the variable that is
    counted up or the literal that is chosen."""
    for count in range(len(branches), FEWEST_OF_A_NAME - 1, -1):
        copies = branches[:count]
        if len({len(c.statements) for c in copies}) == 1:
            table = compare(copies, letters=False)
            if table is None:
                continue
            if count >= FEWEST_BRANCHES and _choose_several(table):
                return table
            if len(copies[0].statements) > MOST_STATEMENTS + 1:
                if count >= FEWEST_BRANCHES and _set_alike(table):
                    return table
                continue
            few = len(copies[0].statements) == 2 and count < FEWEST_BRANCHES
            if _count_up(table) and (not few or _asks_for_its_name(table)):
                return table
            # One line each is as good as a table.
            if count >= FEWEST_CHOICES and _choose(table) and any(code_lines(c) > 1 for c in copies):
                return table
    return None


def _count_up(table: Table) -> bool:
    """True where each branch asks for a literal and goes on from what a variable of its own was, with no more to it
    than texts that say so."""
    copy = table.copies[0]
    targets = [c for c in table.columns if c.is_target and c.is_name and len(set(c.values)) == len(c.values)]
    asked = [c for c in table.columns if c not in targets and _is_asked(c, copy)]
    # Beside counting, a branch may say what it does.
    said = [c for c in table.columns if c not in targets and c not in asked]
    texts = copy.file.language.strings | {"string_content"}
    told = all(copy.file.tree.kind[n] in texts for c in said for s in c.spots for n in s.nodes)
    if len(targets) != 1 or len(asked) != 1 or not (_is_literal(asked[0], copy) and told):
        return False
    # What is set is a choice; what goes on from what it was is counted.
    return len(targets[0].spots) > 1 or copy.file.names.role[targets[0].spots[0].nodes[0]] is Role.UPDATE


def _asks_for_its_name(table: Table) -> bool:
    """True where what each branch asks for is what its variable is called: `if vote == "pier": pier += 1`, or
    `piers += 1`."""
    (variables,) = (c.values for c in table.columns if c.is_target)
    (asked,) = (c.values for c in table.columns if not c.is_target and _is_asked(c, table.copies[0]))
    texts = [text.strip("'\"").lower() for text in asked]
    told = all(name.lower() in {text, f"{text}s"} for name, text in zip(variables, texts, strict=True))
    return told and min(map(len, texts)) > 1


def _choose(table: Table) -> bool:
    """True where each branch asks for a literal, and gives one for it: a table in the form of branches."""
    copy = table.copies[0]
    tree, columns = copy.file.tree, table.columns
    giving = {"assignment", "augmented_assignment", copy.file.language.returning}
    if len(columns) != 2 or len(copy.statements) != 2:
        return False
    if tree.kind[copy.statements[1]] not in giving and not _shows_a_literal(copy):
        return False
    asked = [c for c in columns if _is_asked(c, copy)]
    chained = tree.kind[tree.parent[table.copies[1].statements[0]]] == "elif_clause"
    if chained and any(2 * len(set(c.values)) <= len(c.values) for c in columns):
        # Most give what others give: these are one branch.
        return False
    if not all(_is_literal(c, copy) for c in columns) or any(len(set(c.values)) < len(c.values) for c in asked):
        return False
    equal = {tree.text[n] for n in range(copy.statements[0], tree.end[copy.statements[0]])} & {"==", "==="}
    return len(asked) == 1 and (bool(equal) or _is_case(copy))


def _choose_several(table: Table) -> bool:
    """True where each branch asks for a literal, and gives several for it: a table of so many columns."""
    copy, columns = table.copies[0], table.columns
    tree, (test, *done) = copy.file.tree, copy.statements
    asked = [c for c in columns if _is_asked(c, copy)]
    equal = not {"==", "==="}.isdisjoint(tree.text[test : tree.end[test]])
    literal = all(_is_literal(c, copy) and c.spots[0].is_plain for c in columns)
    if len(done) < len("ab") or len(asked) != 1 or not (literal and (equal or _is_case(copy))):
        return False
    if len(set(asked[0].values)) < len(asked[0].values):
        return False
    given = {node for c in columns if c not in asked for s in c.spots for node in s.nodes[:1]}
    told = [[n for n in given if s <= n < tree.end[s]] for s in done]
    # Where most give what others give, these are one branch.
    various = [c for c in columns if c not in asked and 2 * len(set(c.values)) > len(c.values)]
    gives = all(len(own) == 1 and _gives(copy.file, s, own[0]) for s, own in zip(done, told, strict=True))
    return gives and bool(various)


def _is_case(copy: Copy) -> bool:
    tree = copy.file.tree
    return tree.kind[tree.parent[copy.statements[0]]] == "case_clause"


def _gives(file: ProgramFile, statement: int, literal: int) -> bool:
    """True where a variable is given the literal, or it is shown beside something that is the same in all branches."""
    tree = file.tree
    if tree.kind[statement] == "assignment":
        return tree.child(statement, "right") == literal and tree.text[statement + 1] != ""
    shows = tree.kind[statement] == file.language.call and file.called_name(statement) in file.language.output_calls
    arguments = tree.child(statement, file.language.arguments_field) if shows else None
    given = tree.items(arguments) if arguments is not None else []
    return literal in given and len(given) > 1


def _set_alike(table: Table) -> bool:
    """True where each branch asks for a literal, gives variables literals of its own, and does something besides that
    is the same in all."""
    copy, columns = table.copies[0], table.columns
    tree, (test, *done) = copy.file.tree, copy.statements
    asked = [c for c in columns if _is_asked(c, copy)]
    own = {s.nodes[0] for c in columns for s in c.spots}
    same = [s for s in done if not any(s <= node < tree.end[s] for node in own)]
    given = [s for s in done if s not in same and tree.kind[s] == "assignment"]
    literal = all(_is_literal(c, copy) for c in columns)
    equal = not {"==", "==="}.isdisjoint(tree.text[test : tree.end[test]])
    return literal and equal and len(asked) == 1 and bool(same) and bool(given)


def _shows_a_literal(copy: Copy) -> bool:
    """True for a branch that shows one literal, and nothing else."""
    file, language, statement = copy.file, copy.file.language, copy.statements[1]
    shown = file.only_argument(statement)
    if shown is None or file.called_name(statement) not in language.output_calls:
        return False
    return file.tree.kind[shown] in language.strings | language.numbers


def _is_literal(column: Column, copy: Copy) -> bool:
    """True where literals stand in the column."""
    language, kinds = copy.file.language, copy.file.tree.kind
    literals = language.numbers | language.strings | {"character", "string", "switch_pattern"}
    return all(kinds[node] in literals for spot in column.spots for node in spot.nodes)


def _is_asked(column: Column, copy: Copy) -> bool:
    """True for what only stands in what is asked."""
    return all(spot.nodes[0] < copy.statements[1] for spot in column.spots)
