"""Numbered variables that copies give values to: first kept in one list, then a loop over its places.

`gate1 = float(input("Gate 1: "))`, `gate2 = …` becomes `gates = [0] * 8` and `gates[0] = …`, `gates[1] = …`,
which is a run like any other. The two links are proved one after the other.
"""

from __future__ import annotations

from collections.abc import Sequence

import msgspec

from ..errors import CannotWrite
from ..languages.writers import writer_for
from ..languages.writing import WIDTH, leading_space
from ..program.names import Role
from ..program.program import Program, ProgramFile
from ..repeats.find import find_runs
from ..repeats.judge import MOST_LISTED
from ..repeats.limits import Limits
from ..repeats.moves import following
from ..repeats.runs import Run
from ..repeats.slots import Copy, Table, compare
from .arrays import array_candidate, kept_in
from .candidate import Candidate
from .edits import apply_edits, changed, rewritten
from .naming import Namer

NUMBERS = frozenset({"int", "float", "round", "len", "sum", "abs", "min", "max"})
USED = frozenset({Role.READ, Role.WRITE, Role.UPDATE})


def listed_run(run: Run) -> tuple[Candidate, Run]:
    """The candidate that keeps a run's numbered variables in lists, and the run as it stands afterwards. Raises
    CannotWrite where there is none."""
    table = run.table
    file = table.copies[0].file
    families = [c.values for c in table.columns if c.is_target]
    if not file.language.variables_as_lists:
        raise CannotWrite(f"{families[0][0]} to {families[0][-1]} would have to be one list first")
    irregular = [c for c in table.columns if c.step() is None and not c.is_target]
    # In the list they stand beside their place.
    if not file.language.declares and len(irregular) - len(following(irregular)) + 1 > MOST_LISTED:
        raise CannotWrite("too many things differ for a readable list")
    shared = [v for variables in families for v in variables if file.names.owner_of(v, 0) == 0]
    if any(file.is_used_beside(v) for v in shared):
        raise CannotWrite(f"{families[0][0]} to {families[0][-1]} are used in another file too")
    candidate: Candidate | None = None
    for variables in families if not file.language.declares else ():
        require_plain_uses(file, variables)
    for variables in families:
        if file.language.declares:
            candidate = array_candidate(file, variables, _first_of(file, table, candidate), candidate)
        else:
            candidate = _listing(file, variables, candidate)
        file = rewritten(file, apply_edits(candidate.file, candidate.edits))
    assert candidate is not None
    found = find_runs(Program([file]), Limits(run_copies=len(table.copies)))
    name = candidate.name
    for again in (_regrouped(one, table) for one in found):
        first = again.table.copies[0]
        same = len(again.table.copies) == len(table.copies) and len(first.statements) == len(table.copies[0].statements)
        mentions = any(file.tree.text[i] == name for i in file.names.within(*first.span))
        if same and mentions and not any(c.is_target for c in again.table.columns):
            return candidate, again
    raise CannotWrite(f"{families[0][0]} to {families[0][-1]} are used in ways that do not make one loop")


def _regrouped(run: Run, like: Table) -> Run:
    """The run in copies of as many statements as `like` has, where it is made of shorter ones."""
    size = len(like.copies[0].statements)
    statements = [s for copy in run.table.copies for s in copy.statements]
    if len(run.table.copies[0].statements) == size or len(statements) != size * len(like.copies) or run.rest:
        return run
    file = run.table.copies[0].file
    table = compare([Copy(file, tuple(statements[k : k + size])) for k in range(0, len(statements), size)])
    return run if table is None else Run(table, None)


def _first_of(file: ProgramFile, table: Table, via: Candidate | None) -> int:
    """The run's first statement; where the file was rewritten already, none."""
    return table.copies[0].first if via is None else 0


def require_plain_uses(file: ProgramFile, variables: Sequence[str]) -> None:
    """Raises CannotWrite where a variable gets a value together with others, or in a loop's head."""
    names, tree = file.names, file.tree
    for i in names.nodes:
        if tree.text[i] in variables and names.role[i] in {Role.WRITE, Role.UPDATE}:
            plain = tree.kind[tree.parent[i]] in {"assignment", "augmented_assignment"} and tree.field[i] == "left"
            if not plain:
                raise CannotWrite(f"{tree.text[i]} gets a value in an unusual way")


def _listing(file: ProgramFile, variables: Sequence[str], via: Candidate | None) -> Candidate:
    """The variables as elements of one list, everywhere."""
    names, tree = file.names, file.tree
    uses = [i for i in names.nodes if tree.text[i] in variables and names.role[i] in USED]
    scopes = {names.scope[i] for i in uses}
    if len(scopes) != 1:
        raise CannotWrite(f"{variables[0]} to {variables[-1]} are used by several functions")
    name = Namer(file, writer_for(file).style).family(variables)
    statements = body_of_scope(file, scopes.pop())
    first = next((s for s in statements if s <= uses[0] < tree.end[s]), None)
    if first is None:
        raise CannotWrite(f"{variables[0]} is used in an unusual place")
    indent = leading_space(file, first)
    row = first_values_in_a_row(file, statements, first, variables)
    whole = whole_uses(file, tuple(variables), uses, name)
    inside = {i for node, _ in whole for i in names.within(node, tree.end[node])}
    changes = [(i, f"{name}[{variables.index(tree.text[i])}]") for i in uses if i not in inside] + whole
    if row:
        last = row[-1]
        changes = [(i, new) for i, new in changes if not first <= i < tree.end[last]]
        given = ", ".join(tree.source_of(tree.child(s, "right") or s) for s in row)
        head = f"{name} = [{given}]"
        if len(indent + head) > WIDTH:
            raise CannotWrite("the list is too long for one line")
    else:
        head = f"{name} = [{_placeholder(file, uses)}] * {len(variables)}\n{indent}"
    start, stop = tree.start_byte[first], tree.end_byte[row[-1]] if row else tree.start_byte[first]
    places = [(tree.start_byte[i], tree.end_byte[i], new) for i, new in changes]
    text = changed(tree.source, 0, [*places, (start, stop, head)])
    return kept_in(f"one list, {name}", file, text, name, variables, via)


def whole_uses(
    file: ProgramFile, variables: tuple[str, ...], uses: Sequence[int], name: str, asked: str = ""
) -> list[tuple[int, str]]:
    """(node, what to write there) where all of the variables are asked for their largest or smallest, or added up;
    `asked`: how what they are kept in is asked for its values."""
    tree, names = file.tree, file.names
    if file.language.id != "python" or "wildcard_import" in tree.kind:
        return []
    own = {"max", "min", "sum", "int"}
    own -= {tree.text[i] for i in names.nodes if tree.text[i] in own and names.role[i] is not Role.READ}
    adding = own >= {"sum", "int"} and all(_is_whole_number(file, i) for i in uses)
    found: list[tuple[int, str]] = []
    for i in uses:
        if tree.text[i] != variables[-1] or names.role[i] is not Role.READ:
            continue
        around = tree.parent[i]
        given = [tree.text[n] for n in tree.items(around)] if tree.kind[around] == "argument_list" else []
        if tuple(given) == variables and file.called_name(tree.parent[around]) in own - {"sum", "int"}:
            found.append((around, f"({name}{asked})"))
        elif adding and _added_up(file, around) == variables:
            outer = tree.parent[around]
            found.append((outer if tree.kind[outer] == "parenthesized_expression" else around, f"sum({name}{asked})"))
    return found


def _added_up(file: ProgramFile, node: int) -> tuple[str, ...]:
    """The variables of which a node is the sum; () for anything else."""
    tree = file.tree
    if tree.kind[node] == file.language.name:
        return (tree.text[node],)
    parts = tree.parts(node) if tree.kind[node] == "binary_operator" else []
    if len(parts) != len("a+b") or tree.text[parts[1]] != "+" or tree.kind[parts[2]] != file.language.name:
        return ()
    before = _added_up(file, parts[0])
    return (*before, tree.text[parts[2]]) if before else ()


def _is_whole_number(file: ProgramFile, use: int) -> bool:
    """True for a use that gives a variable nothing but a whole number, if anything."""
    tree, statement = file.tree, file.tree.parent[use]
    value = tree.child(statement, "right")
    if file.names.role[use] is Role.READ or value is None:
        return file.names.role[use] is Role.READ
    plain = tree.kind[statement] == "assignment" or tree.text[value - 1] in {"+=", "-=", "*="}
    return plain and _is_made_of_whole_numbers(file, value, tree.text[use])


def _is_made_of_whole_numbers(file: ProgramFile, node: int, own: str) -> bool:
    """True for numbers without a fraction, for what is made one, and for what is reckoned of these and a variable's
    own value."""
    tree = file.tree
    if tree.kind[node] == "binary_operator":
        left, sign, right = tree.parts(node)
        whole = tree.text[sign] in {"+", "-", "*"}
        return whole and all(_is_made_of_whole_numbers(file, n, own) for n in (left, right))
    made = tree.kind[node] == file.language.call and file.called_name(node) == "int"
    return made or tree.text[node] == own or tree.source_of(node).removeprefix("-").isdigit()


def body_of_scope(file: ProgramFile, scope: int) -> tuple[int, ...]:
    """The statements of a function, or of the program. Raises CannotWrite for a class."""
    body = file.tree.child(scope, file.language.body_field) if scope else 0
    block = file.block_at.get(body) if body is not None else None
    if block is None or file.tree.kind[scope] in file.language.classes:
        raise CannotWrite("the variables stand in an unusual place")
    return block.statements


def first_values_in_a_row(
    file: ProgramFile, statements: Sequence[int], first: int, variables: Sequence[str]
) -> list[int]:
    """The assignments of literals in a row with which the variables begin; [] where they begin otherwise."""
    tree = file.tree
    at = statements.index(first)
    row = list(statements[at : at + len(variables)])
    for statement, name in zip(row, variables, strict=False):
        left, right = tree.child(statement, "left"), tree.child(statement, "right")
        if tree.kind[statement] != "assignment" or left is None or right is None or tree.text[left] != name:
            return []
        literal = tree.kind[right] in file.language.numbers | file.language.constants | file.language.strings
        if not (literal and tree.text[right]) or tree.start_line(statement) in file.shared_lines:
            return []
    lines = range(tree.start_line(row[0]), tree.end_line(row[-1]) + 1)
    noted = any(c.line in lines for c in file.tree.comments)
    return row if len(row) == len(variables) and len(lines) == len(row) and not noted else []


def _placeholder(file: ProgramFile, uses: Sequence[int]) -> str:
    """What stands in the list's places until they are filled: 0 where numbers come, else nothing."""
    tree = file.tree
    for i in uses:
        right = tree.child(tree.parent[i], "right")
        if file.names.role[i] is not Role.WRITE or right is None:
            continue
        kind = tree.kind[right]
        number = kind in file.language.numbers or kind == "binary_operator"
        if not number and not (kind == file.language.call and file.called_name(right) in NUMBERS):
            return "None"
    return "0"


def over_lists(loop: Candidate, listing: Candidate) -> Candidate:
    """The loop of a run whose variables are kept in lists, as one suggestion."""
    return msgspec.structs.replace(
        loop, via=listing, is_listing=True, title=f"{listing.title}, and {loop.title[0].lower()}{loop.title[1:]}"
    )
