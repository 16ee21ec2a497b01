"""One function for what several files of a program do alike: where it has its place, and how the others know it."""

from __future__ import annotations

import posixpath
import re
from collections.abc import Sequence

import msgspec

from ..errors import CannotWrite
from ..languages.javascript.pages import is_page, scripts_of
from ..languages.writers import writer_for
from ..languages.writing import Style, Writer, leading_space
from ..program.names import WRITES, Role
from ..program.program import Procedure, ProgramFile
from ..program.together import (
    Sharing,
    folder_of,
    is_free_module,
    is_strict,
    module_of,
    pages_with,
    runs_before,
    sharing_of,
)
from ..repeats.columns import Column, Spot
from ..repeats.slots import Copy, Table
from ..source import Source
from .candidate import Candidate, InFile
from .edits import Edit
from .insertion import above_comments, definition_edit
from .proof import MovedFunction, SharedFunction


class Shared(msgspec.Struct, frozen=True, eq=False):
    """The files' changes besides the calls, and the file that has to be made, if one has."""

    home: str
    edits: tuple[InFile, ...]
    created: Source | None = None


def refuse_apart(copies: Sequence[Copy]) -> Sharing:
    """How the files of the copies share functions. Raises CannotWrite where they cannot."""
    files = _files(copies)
    sharing = sharing_of(files)
    if sharing is None or len({f.language.id for f in files}) > 1:
        raise CannotWrite("the copies stand in different files")
    if sharing in (Sharing.IMPORT, Sharing.REQUIRE) and len({folder_of(f.path) for f in files}) > 1:
        raise CannotWrite("the copies stand in different folders")
    if sharing is Sharing.PAGE and any(is_strict(f) for f in files):
        raise CannotWrite("the copies stand in scripts of which some run strictly")
    return sharing


def with_module_variables(table: Table) -> Table:
    """The table with a column more for each variable of their own file that the copies read, as other files do not see
    it."""
    copies = table.copies
    known = {node for column in table.columns for spot in column.spots for node in spot.nodes}
    columns = list(table.columns)
    for name in _from_the_module(copies[0]):
        places = [_uses(copy, name, known) for copy in copies]
        if len({len(nodes) for nodes in places}) > 1:
            raise CannotWrite(f"the copies use {name}, which only one file has")
        spots = tuple(Spot(nodes) for nodes in zip(*places, strict=True))
        if spots:
            columns.append(Column(values=(name,) * len(copies), spots=spots, is_name=True))
    return msgspec.structs.replace(table, columns=tuple(columns))


def _uses(copy: Copy, name: str, known: set[int]) -> list[int]:
    """Where a copy mentions `name`, but for places that differ."""
    names, tree = copy.file.names, copy.file.tree
    found = [i for i in names.within(*copy.span) if tree.text[i] == name and names.role[i] <= Role.UPDATE]
    return [i for i in found if not any(p in known for p in (i, *copy.file.parents(i)))]


def _from_the_module(copy: Copy) -> list[str]:
    """Variables of its own file that a copy reads, and that no other file sees. Raises CannotWrite where it uses what
    the file defines."""
    file, names, tree = copy.file, copy.file.names, copy.file.tree
    found: dict[str, None] = {}
    for i in names.within(*copy.span):
        name = tree.text[i]
        if (
            names.role[i] is not Role.READ
            or names.owner(i) != 0
            or (names.scope[i] == 0 and not _given_outside(copy, i))
        ):
            continue
        givers = [tree.parent[j] for j in names.nodes if tree.text[j] == name and names.role[j] in WRITES]
        if any(tree.kind[g] in file.language.procedures | file.language.classes for g in givers):
            raise CannotWrite(f"the copies use {name}, which only one file has")
        if not any(file.is_import(p) for g in givers for p in (g, *file.parents(g))):
            found[name] = None
    return list(found)


def _given_outside(copy: Copy, node: int) -> bool:
    """True for a variable that something besides the copy gives a value."""
    names, tree, (start, stop) = copy.file.names, copy.file.tree, copy.span
    name = tree.text[node]
    return any(
        tree.text[i] == name and names.role[i] in WRITES and not start <= i < stop for i in names.nodes
    ) and not any(tree.text[i] == name and names.role[i] in WRITES for i in names.within(start, stop))


def home_for(copies: Sequence[Copy], sharing: Sharing, writer: Writer, name: str, lines: Sequence[str]) -> Shared:
    """Where the function `name` with these `lines` has its place. Raises CannotWrite where none is."""
    files = _files(copies)
    if sharing is Sharing.PAGE:
        return _on_the_page(files, copies, writer, lines)
    if sharing is Sharing.EVERYWHERE:
        return _known_everywhere(files, copies, writer.style, name, lines)
    return _in_a_module(files, copies, sharing, writer, name, lines)


def in_several_files(
    whole: Candidate, copies: Sequence[Copy], calls: Sequence[Edit], shared: Shared, declared: tuple[str, ...]
) -> Candidate:
    """The candidate with what changes in each file."""
    changes: dict[int, tuple[ProgramFile, list[Edit]]] = {}
    for part in shared.edits:
        changes.setdefault(id(part.file), (part.file, []))[1].extend(part.edits)
    for copy, call in zip(copies, calls, strict=True):
        changes.setdefault(id(copy.file), (copy.file, []))[1].append(call)
    _, own = changes.pop(id(whole.file))
    return msgspec.structs.replace(
        whole,
        title=f"{whole.title}, from {shared.home}",
        edits=tuple(own),
        others=tuple(InFile(file, tuple(edits)) for file, edits in changes.values()),
        created=shared.created,
        claim=SharedFunction(shared.home, whole.name, declared),
    )


def in_a_class(
    whole: Candidate,
    copies: Sequence[Copy],
    calls: Sequence[Edit],
    lines: Sequence[str],
    declared: tuple[str, ...],
    definition: Edit,
) -> Candidate:
    """The candidate with a method of the first copy's class that needs no object, called by the class's name from
    others."""
    file, tree = whole.file, whole.file.tree
    holder = class_around(copies[0])
    named = tree.child(holder, file.language.name_field)
    if named is None or tree.parent[holder] != 0:
        raise CannotWrite("the class of the copies has no plain name")
    home = tree.text[named]
    word = "public static " if file.language.id == "csharp" else "static "
    head = re.sub(r"^(\s*)(?:(?:private|public|protected|internal|static|final) )*", rf"\1{word}", lines[0])
    shown = tuple(head if line == lines[0] else line for line in definition.lines)
    own = re.compile(rf"\b{re.escape(whole.name)}\(")
    called = [
        call
        if copy.file is file and class_around(copy) == holder
        else Edit(call.start, call.end, (*call.lines[:-1], own.sub(f"{home}.{whole.name}(", call.lines[-1], count=1)))
        for copy, call in zip(copies, calls, strict=True)
    ]
    shared = Shared(file.path, (InFile(file, (Edit(definition.start, definition.end, shown),)),))
    made = in_several_files(whole, copies, called, shared, declared)
    return msgspec.structs.replace(
        made,
        title=whole.title.replace("A function", "A method") + f", of {home}",
        claim=SharedFunction(file.path, whole.name, declared, home),
    )


def class_around(copy: Copy) -> int:
    """The class that a copy stands in; 0 where it stands in none."""
    kinds = copy.file.language.classes
    return next((p for p in copy.file.parents(copy.first) if copy.file.tree.kind[p] in kinds), 0)


def _files(copies: Sequence[Copy]) -> list[ProgramFile]:
    return list({id(copy.file): copy.file for copy in copies}.values())


def _program(files: Sequence[ProgramFile]) -> tuple[ProgramFile, ...]:
    return (files[0], *files[0].beside)


def moved_candidate(table: Table) -> Candidate:
    """A function that stands in several files alike, kept once. Raises CannotWrite where it cannot be."""
    copies = table.copies
    sharing = refuse_apart(copies)
    files = _files(copies)
    functions = [copy.file.procedure_around(copy.first) for copy in copies]
    name = functions[0].name
    exported = any(
        f.tree.kind[f.tree.parent[p.node]] == "export_statement" for f, p in zip(files, functions, strict=True)
    )
    if exported or len(files) != len(copies):
        raise CannotWrite(f"{name} is known to other files already")
    writer = writer_for(files[0])
    margin = files[0].margin
    start = above_comments(files[0], functions[0].start_line)
    lines = [line.removeprefix(margin) for line in files[0].lines[start - 1 : functions[0].end_line]]
    shared = home_for(copies, sharing, writer, name, lines)
    home = next((f for f in files if f.path == shared.home), None)
    changes: dict[int, tuple[ProgramFile, list[Edit]]] = {id(f): (f, []) for f in files}
    for part in shared.edits:
        if part.file is not home:
            changes.setdefault(id(part.file), (part.file, []))[1].extend(part.edits)
    for file, procedure in zip(files, functions, strict=True):
        if file is not home:
            changes[id(file)][1].append(_taken_out(file, procedure))
    changed = [InFile(file, tuple(edits)) for file, edits in changes.values()]
    changed.sort(key=lambda part: not part.edits)
    return Candidate(
        kind="function",
        title=f"{name} once, in {shared.home}, for {len(files)} files",
        file=changed[0].file,
        edits=changed[0].edits,
        others=tuple(changed[1:]),
        created=shared.created,
        claim=MovedFunction(shared.home, name),
        slots=(),
        table=table,
        name=name,
    )


def is_one_function(table: Table) -> bool:
    """True where the copies are the whole bodies of functions that are one, written in several files."""
    functions = [(copy.file, copy.file.procedure_around(copy.first)) for copy in table.copies]
    if table.columns or len({id(f) for f, _ in functions}) != len(functions):
        return False
    heads = {tuple(_head(f, p)) for f, p in functions}
    whole = all(f.statements_of(p) == c.statements for (f, p), c in zip(functions, table.copies, strict=True))
    return whole and len(heads) == 1 and all(p.name and not p.parent and not p.decorated for _, p in functions)


def _head(file: ProgramFile, procedure: Procedure) -> list[str]:
    tree = file.tree
    body = tree.child(procedure.node, file.language.body_field) or procedure.node
    return [text for text in tree.text[procedure.node : body] if text]


def _taken_out(file: ProgramFile, procedure: Procedure) -> Edit:
    """A function's lines, with its comment and the blank lines that follow."""
    start, end = above_comments(file, procedure.start_line), procedure.end_line
    while end < len(file.lines) and not file.lines[end].strip():
        end += 1
    return Edit(start, end, ())


def _into(file: ProgramFile, copies: Sequence[Copy], lines: Sequence[str], style: Style) -> InFile:
    own = [copy for copy in copies if copy.file is file]
    return InFile(file, (definition_edit(file, own, lines, style, 0),))


def _new_name(files: Sequence[ProgramFile], base: str, ending: str) -> str:
    """The path of a new file beside the first one."""
    program = _program(files)
    number = 1
    while True:
        name = base if number == 1 else f"{base}{number}"
        if is_free_module(name, program):
            return posixpath.join(folder_of(files[0].path), f"{name}{ending}")
        number += 1


# -- files that know each other's functions anyway ---------------------------------------------------


def _known_everywhere(
    files: Sequence[ProgramFile], copies: Sequence[Copy], style: Style, name: str, lines: Sequence[str]
) -> Shared:
    language = files[0].language
    if language.id == "gamescript":
        path = _new_name(files, name, ".gml")
        return Shared(path, (), Source(path, "\n".join([*lines, ""]), language.id))
    if language.id == "visualbasic":
        modules = [f for f in files if f.path.lower().endswith((".bas", ".vba"))]
        if not modules:
            path = _new_name(files, "Shared", ".bas")
            head = f'Attribute VB_Name = "{module_of(path)}"'
            explicit = [w for w in ("Option Explicit",) if any(w in f.lines for f in files)]
            return Shared(path, (), Source(path, "\n".join([head, *explicit, "", *lines, ""]), language.id))
        return Shared(modules[0].path, (_into(modules[0], copies, lines, style),))
    return Shared(files[0].path, (_into(files[0], copies, lines, style),))


# -- scripts of a page -----------------------------------------------------------------------------------


def _on_the_page(files: Sequence[ProgramFile], copies: Sequence[Copy], writer: Writer, lines: Sequence[str]) -> Shared:
    program = _program(files)
    pages = {id(p): p for f in files for p in pages_with(program, f.path)}
    if any(not pages_with(program, f.path) for f in files):
        raise CannotWrite("the copies stand in scripts of which no page tells where they run")
    for file in sorted(files, key=lambda f: is_page(f.tree.source)):
        others = [other.path for other in files if other is not file]
        if all(runs_before(page, file.path, others) for page in pages.values()):
            return Shared(file.path, (_into(file, copies, lines, writer.style),))
    path = _new_name(files, "shared", ".js")
    margin = writer.file.margin
    text = "\n".join([*(line.removeprefix(margin) for line in lines), ""])
    loading = tuple(InFile(page, (_loading(page, path),)) for page in pages.values())
    return Shared(path, loading, Source(path, text, files[0].language.id))


def _loading(page: ProgramFile, path: str) -> Edit:
    """The line by which a page loads a new script before all others."""
    first = scripts_of(page.tree.source)[0]
    before = page.tree.source[: first.tag].decode(errors="replace")
    line = before.count("\n") + 1
    margin = before.rpartition("\n")[2]
    if margin.strip():
        raise CannotWrite("the page's first script begins in the middle of a line")
    loads = posixpath.relpath(path, folder_of(page.path) or ".")
    return Edit(line, line - 1, (f'{margin}<script src="{loads}"></script>',))


# -- modules ---------------------------------------------------------------------------------------------


def _in_a_module(
    files: Sequence[ProgramFile],
    copies: Sequence[Copy],
    sharing: Sharing,
    writer: Writer,
    name: str,
    lines: Sequence[str],
) -> Shared:
    first, language = files[0], files[0].language
    python = language.id == "python"
    if any(posixpath.basename(f.path) == "__init__.py" for f in _program(files)):
        raise CannotWrite("the copies stand in a package")
    path = _new_name(files, "shared", posixpath.splitext(first.path)[1])
    imports = _needed_imports(copies)
    gap = [""] * writer.style.blank_lines
    if python:
        text = [*imports, *(gap if imports else []), *lines]
    elif sharing is Sharing.IMPORT:
        text = [*imports, *(gap if imports else []), f"export {lines[0]}", *lines[1:]]
    else:
        text = [*imports, *(gap if imports else []), *lines, "", f"module.exports = {{ {name} }}{_stop(first)}"]
    bringing = tuple(InFile(f, (_bringing(f, sharing, name, path),)) for f in files)
    return Shared(path, bringing, Source(path, "\n".join([*text, ""]), language.id))


def _needed_imports(copies: Sequence[Copy]) -> list[str]:
    """The import lines of the first file that bring what the copies use. Raises CannotWrite where another file has
    it from elsewhere."""
    wanted: list[list[str]] = []
    for file in _files(copies):
        used = {file.tree.text[i] for c in copies if c.file is file for i in file.names.within(*c.span)}
        lines = []
        for s in file.blocks[0].statements:
            brings = {file.tree.text[i] for i in file.names.within(s, file.tree.end[s])}
            if file.is_import(s) and brings & used:
                lines.append(" ".join(file.tree.source_of(s).split()))
        wanted.append(lines)
    if any(sorted(lines) != sorted(wanted[0]) for lines in wanted):
        raise CannotWrite("the copies use what their files import in different ways")
    return wanted[0]


def _stop(file: ProgramFile) -> str:
    return ";" if any(line.rstrip().endswith(";") for line in file.lines) else ""


def _bringing(file: ProgramFile, sharing: Sharing, name: str, path: str) -> Edit:
    """The line by which a file gets to know the function, behind its imports or on its top."""
    tree = file.tree
    module, quote, stop = module_of(path), file.text_quote, _stop(file)
    if file.language.id == "python":
        line = f"from {module} import {name}"
    elif sharing is Sharing.REQUIRE:
        line = f"const {{ {name} }} = require({quote}./{module}{quote}){stop}"
    else:
        told = any(".js" in t for s in file.blocks[0].statements if file.is_import(s) for t in tree.leaf_texts(s))
        ending = posixpath.splitext(path)[1] if file.language.id == "javascript" else ".js" if told else ""
        line = f"import {{ {name} }} from {quote}./{module}{ending}{quote}{stop}"
    top = file.blocks[0].statements
    imports = [s for s in top if file.is_import(s)]
    if imports:
        below = tree.end_line(imports[-1])
        return Edit(below + 1, below, (line,))
    first = next((s for s in top if not file.is_bare_string(s)), None)
    if first is None:
        raise CannotWrite("a file has no statement to put an import above")
    above = tree.start_line(first)
    alone = {n for c in tree.comments if c.alone for n in range(c.line, c.last_line + 1)}
    while above - 1 in alone and above > 2:
        above -= 1
    if leading_space(file, first):
        raise CannotWrite("a file begins with an indented statement")
    return Edit(above, above - 1, (line, ""))
