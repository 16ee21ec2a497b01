"""Numbered variables in one array, in languages where variables are declared (`families` does it for the others).

`let x1 = 20; let x2 = 60;` becomes `const xs = [20, 60];`; where the first values are worked out, the array gets
places first, and each declaration becomes an assignment to its place.
"""

from __future__ import annotations

from collections.abc import Sequence

import msgspec

from ..errors import CannotWrite
from ..languages.writers import writer_for
from ..languages.writing import Variable, leading_space
from ..program.names import Role
from ..program.program import ProgramFile
from ..program.types import Type
from .candidate import Candidate
from .edits import changed, edits_between
from .naming import Namer
from .proof import ListedVariables
from .typed import variable_type


def array_candidate(file: ProgramFile, variables: Sequence[str], before: int, via: Candidate | None) -> Candidate:
    """The variables as places of one array, which stands above the statement `before` or where they are declared.
    Raises CannotWrite where that cannot be put into code."""
    names, tree = file.names, file.tree
    what = f"{variables[0]} to {variables[-1]}"
    uses = [i for i in names.nodes if tree.text[i] in variables and names.role[i] < Role.MEMBER]
    declared = [i for i in uses if names.declared_at(i)]
    if [tree.text[i] for i in declared] != list(variables):
        raise CannotWrite(f"{what} are not declared once each, in their order")
    scope = names.scope[declared[0]]
    if any(names.owner(i) != scope for i in uses):
        raise CannotWrite(f"{what} are declared in several functions")
    statements = list(dict.fromkeys(_declaration(file, i) for i in declared))
    block = tree.parent[statements[0]]
    if any(tree.parent[s] != block or tree.start_line(s) in file.shared_lines for s in statements):
        raise CannotWrite(f"{what} are declared in unusual places")
    writer = writer_for(file)
    name = Namer(file, writer.style).family(variables)
    kind = _common_type(file, variables, scope)
    rights = [_value(file, i) for i in declared]
    changes = {i: (tree.start_byte[i], tree.end_byte[i], f"{name}[{variables.index(tree.text[i])}]") for i in uses}
    given = _in_a_row(file, statements, rights) if len(statements) == len(declared) else ()
    first = statements[0]
    together = len(statements) == 1 and not any(rights)
    rest = _rest_of(file, first, variables) if together else ""
    if not together and any(_rest_of(file, s, variables) for s in statements):
        raise CannotWrite(f"{what} are declared together with others")
    gathered = () if given or len(statements) < len(declared) else _literals(file, statements, rights)
    if together or given:
        span = (tree.start_byte[first], tree.end_byte[statements[-1]])
        for i in declared:
            del changes[i]
    elif gathered:
        given, span = gathered, (tree.start_byte[first], tree.end_byte[first])
        for i, statement in zip(declared, statements, strict=True):
            changes[i] = _whole_line(file, statement)
        del changes[declared[0]]
    elif all(rights) and len(statements) == len(declared):
        if tree.parent[before] == block and before < first:
            first = before
        span = (tree.start_byte[first], tree.start_byte[first])
        for i, right in zip(declared, rights, strict=True):
            start = tree.start_byte[_declaration(file, i)]
            changes[i] = (start, tree.start_byte[right or i], f"{changes[i][2]} = ")
    else:
        raise CannotWrite(f"{what} are declared with and without values")
    indent = leading_space(file, first)
    array = Variable(name, msgspec.structs.replace(kind, dimensions=("",)) if kind else None)
    head = "\n".join(writer.array(array, given, len(variables), indent)).lstrip()
    head += f"\n{indent}{rest}" if rest or span[0] == span[1] else ""
    text = changed(tree.source, 0, [*changes.values(), (*span, head)])
    return kept_in(f"one array, {name}", file, text, name, variables, via)


def kept_in(
    home: str, file: ProgramFile, text: str, name: str, variables: Sequence[str], via: Candidate | None
) -> Candidate:
    """The candidate that keeps variables in a list or array, `home`: the file becomes `text`."""
    return Candidate(
        kind="loop",
        title=f"{variables[0]} to {variables[-1]} kept in {home}",
        file=file,
        edits=edits_between(file, text),
        claim=ListedVariables(file.path, name, tuple(variables)),
        slots=(),
        name=name,
        via=via,
    )


def _declaration(file: ProgramFile, name: int) -> int:
    """The declaration in which a name stands."""
    tree = file.tree
    around = [p for p in file.parents(name) if tree.kind[p] == "declaration"]
    if not around or tree.parent[around[0]] not in file.block_at:
        raise CannotWrite(f"{tree.text[name]} is declared in an unusual place")
    return around[0]


def _rest_of(file: ProgramFile, declaration: int, variables: Sequence[str]) -> str:
    """A declaration without some of the variables that it declares; "" where it declares no others."""
    tree, names = file.tree, file.names
    told: list[int] = []
    own: list[int] = []
    for child in tree.children(declaration):
        declared = [i for i in names.within(child, tree.end[child]) if names.declared_at(i)]
        if declared:
            (own if tree.text[declared[0]] in variables else told).append(child)
    if not told:
        return ""
    first, last = min(*told, *own), max(*told, *own)
    lines = range(tree.start_line(declaration), tree.end_line(declaration) + 1)
    if len(lines) > 1 and any(c.line in lines for c in tree.comments):
        raise CannotWrite("a comment stands among the variables that are declared")
    before = tree.source[tree.start_byte[declaration] : tree.start_byte[first]].decode()
    behind = tree.source[tree.end_byte[last] : tree.end_byte[declaration]].decode()
    return f"{before}{', '.join(map(tree.source_of, told))}{behind}"


def _value(file: ProgramFile, name: int) -> int | None:
    """The value that a declaration gives a name; None where it gives none."""
    tree = file.tree
    parent = tree.parent[name]
    return tree.child(parent, "right") if tree.kind[parent] == "declarator" else None


def _common_type(file: ProgramFile, variables: Sequence[str], scope: int) -> Type | None:
    kinds = {variable_type(file, name, scope) for name in variables}
    kind = kinds.pop() if len(kinds) == 1 else None
    if kind is None and file.language.typed:
        raise CannotWrite(f"{variables[0]} to {variables[-1]} are of different types")
    if kind is not None and (kind.pointers or kind.dimensions or kind.reference):
        raise CannotWrite(f"{variables[0]} to {variables[-1]} are lists or pointers themselves")
    return kind


def _in_a_row(file: ProgramFile, statements: Sequence[int], rights: Sequence[int | None]) -> tuple[str, ...]:
    """The literals with which the variables are declared, one after the other and line after line; () where they
    are declared otherwise."""
    tree = file.tree
    block = file.block_at[tree.parent[statements[0]]].statements
    at = block.index(statements[0])
    lines = range(tree.start_line(statements[0]), tree.end_line(statements[-1]) + 1)
    plain = block[at : at + len(statements)] == tuple(statements) and len(lines) == len(statements)
    return _literals(file, statements, rights) if plain else ()


def _literals(file: ProgramFile, statements: Sequence[int], rights: Sequence[int | None]) -> tuple[str, ...]:
    """The literals with which the variables are declared, each on a line of its own; () where it is otherwise."""
    tree, language = file.tree, file.language
    lines = {line for s in statements for line in range(tree.start_line(s), tree.end_line(s) + 1)}
    if len(lines) != len(statements) or any(c.line in lines for c in tree.comments):
        return ()
    literals = language.numbers | language.constants | language.strings
    values = tuple(tree.text[r] for r in rights if r is not None and tree.kind[r] in literals)
    return values if len(values) == len(statements) and all(values) else ()


def _whole_line(file: ProgramFile, statement: int) -> tuple[int, int, str]:
    """The change that takes the statement's line away."""
    source, start = file.tree.source, file.tree.start_byte[statement]
    first = source.rfind(b"\n", 0, start) + 1
    stop = source.find(b"\n", start)
    return first, stop + 1 if stop >= 0 else len(source), ""
