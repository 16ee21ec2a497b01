"""How the files of one program come to know each other's functions."""

from __future__ import annotations

import posixpath
import re
import sys
from collections.abc import Sequence
from enum import Enum
from pathlib import PurePosixPath

from ..languages.javascript.pages import Script, is_page, scripts_of
from .program import ProgramFile


class Sharing(Enum):
    """By what a file gets to know a function of another one."""

    IMPORT = "import"
    """It imports the name from a module (Python, modules of JavaScript and TypeScript)."""
    REQUIRE = "require"
    """It takes the name out of what `require` gives it."""
    PAGE = "page"
    """A page loads both, one after the other, and all share their names."""
    CLASS = "class"
    """It calls the method of a class by the class's name."""
    EVERYWHERE = "everywhere"
    """A function at the top of one file is known in all."""


EVERYWHERE = frozenset({"gamescript", "arduino", "swift", "visualbasic"})


def sharing_of(files: Sequence[ProgramFile]) -> Sharing | None:
    """How files of one language share functions; None where they cannot, or do it in more than one way."""
    ways = {_sharing_of(file) for file in files}
    return ways.pop() if len(ways) == 1 else None


def _sharing_of(file: ProgramFile) -> Sharing | None:
    language = file.language.id
    if language == "python":
        return None if file.path.endswith(".ipynb.py") else Sharing.IMPORT
    if language in EVERYWHERE:
        return Sharing.EVERYWHERE
    if file.language.methods:
        return Sharing.CLASS
    if language not in ("javascript", "typescript"):
        return None
    tree = file.tree
    if is_page(tree.source):
        return Sharing.PAGE
    if {"import_statement", "export_statement"} & {tree.kind[s] for s in file.blocks[0].statements}:
        return Sharing.IMPORT
    if file.names.everything & {"require", "module", "exports"}:
        return Sharing.REQUIRE
    return Sharing.PAGE if language == "javascript" else None


def line_that_brings(file: ProgramFile, sharing: Sharing, name: str, home: str) -> re.Pattern[str]:
    """What the statement looks like by which `file` gets to know the function `name` of the file at `home`."""
    module, own = re.escape(module_of(home)), re.escape(name)
    if file.language.id == "python":
        return re.compile(rf"from {module} import {own}")
    if sharing is Sharing.REQUIRE:
        return re.compile(rf"const \{{ {own} \}} = require\((['\"])\./{module}\1\);?")
    return re.compile(rf"import \{{ {own} \}} from (['\"])\./{module}(?:\.m?js)?\1;?")


def knows(file: ProgramFile, name: str, home: ProgramFile) -> bool:
    """True where `file` can call the function `name` that stands at the top of another file, as it is."""
    sharing = sharing_of([file, home])
    if sharing in (Sharing.IMPORT, Sharing.REQUIRE):
        wanted = line_that_brings(file, sharing, name, home.path)
        top = file.blocks[0].statements
        same_folder = folder_of(file.path) == folder_of(home.path)
        return same_folder and any(wanted.fullmatch(file.tree.source_of(s)) for s in top)
    if sharing is Sharing.PAGE:
        pages = pages_with((file, *file.beside), file.path)
        return bool(pages) and all(runs_before(page, home.path, [file.path]) for page in pages)
    return sharing is Sharing.EVERYWHERE


def runs_before(page: ProgramFile, first: str, later: Sequence[str]) -> bool:
    """True where a page runs the script at `first`, which is no late one, before those at `later`."""
    own = loads_of(page, first)
    return bool(own) and own[0].plain and all(own[0].tag < s.tag for path in later for s in loads_of(page, path))


def module_of(path: str) -> str:
    """A file's name without its ending: what others import.

    >>> module_of("work/shared.py")
    'shared'
    """
    return PurePosixPath(path).stem


def folder_of(path: str) -> str:
    """The folder that a file stands in; "" for the outermost."""
    return posixpath.dirname(path)


def is_free_module(name: str, files: Sequence[ProgramFile]) -> bool:
    """True for a name under which no file or folder of the program, nor a module of Python's library, is known."""
    parts = {part.split(".")[0] for file in files for part in PurePosixPath(file.path).parts}
    imported = {
        word
        for file in files
        for s in file.blocks[0].statements
        if file.is_import(s)
        for word in re.findall(r"\w+", file.tree.source_of(s))
    }
    return name not in parts | imported | sys.stdlib_module_names


def loads_of(page: ProgramFile, path: str) -> list[Script]:
    """The script elements of a page that load the file at `path`, or that are it, where it is the page."""
    scripts = scripts_of(page.tree.source)
    if page.path == path:
        return [s for s in scripts if not s.loads]
    here = folder_of(page.path)
    return [s for s in scripts if s.loads and posixpath.normpath(posixpath.join(here, s.loads)) == path]


def pages_with(files: Sequence[ProgramFile], path: str) -> list[ProgramFile]:
    """The pages among `files` that load the script at `path`, or are it."""
    return [page for page in files if is_page(page.tree.source) and loads_of(page, path)]


def is_strict(file: ProgramFile) -> bool:
    """True where a script says that it is to be run strictly, by which `this` and new names mean something else."""
    return any(file.tree.text[s].strip("'\"") == "use strict" for s in file.blocks[0].statements)
