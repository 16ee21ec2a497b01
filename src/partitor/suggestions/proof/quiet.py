"""Where nothing of a program can run but the statements in sight, and none of them can stop half way unnoticed."""

from __future__ import annotations

import re
from collections.abc import Sequence

from ...program.names import UNBOUND, Role
from ...program.program import ProgramFile
from .verdict import Refused

QUIET_LIBRARY = {
    "python": frozenset({"random", "math", "string", "datetime", "time"}),
    "java": frozenset({"java.util"}),
}
"""Parts of the library that call nothing of the program by themselves."""
QUIET_STAR_IMPORTS = frozenset({"turtle", "math", "random", "tkinter", "time", "datetime", "string"})
"""Modules of the standard library whose star import is known to hide none of the names used here."""
CALLED_UNSEEN = frozenset(
    """
    toString equals hashCode compareTo compare run iterator next hasNext close finalize accept apply test get
    write flush readline
    """.split()
)
"""Methods that the language or its library calls where nothing names them."""
RUNNING_BESIDE = frozenset(
    """
    Thread Runnable Callable Timer TimerTask Executors ExecutorService CompletableFuture parallelStream parallel Runtime
    Cleaner Observable SwingUtilities
    """.split()
)
"""What lets something run at the same time, or later by itself."""
GUARDED = frozenset({"try_statement", "try_with_resources_statement", "with_statement"})
OPEN = frozenset({"lambda", "method_reference", "class_definition", "function_definition"})
"""What holds statements that may run at another time."""
PLAIN_METHODS = frozenset(
    """
    append strip lstrip rstrip lower upper split join format replace startswith endswith ljust rjust center count index
    title capitalize isdigit isalpha keys values items
    nextInt nextDouble nextLine nextBoolean println print printf length charAt substring toUpperCase toLowerCase trim
    """.split()
)
"""Methods of texts, lists and readers, which call nothing else."""


def unknown_star_import(file: ProgramFile) -> bool:
    """True where a star import brings names that cannot be known here."""
    tree = file.tree
    for node, kind in enumerate(tree.kind):
        if kind == "wildcard_import":
            module = tree.child(tree.parent[node], "module_name")
            if module is None or tree.source_of(module) not in QUIET_STAR_IMPORTS:
                return True
    return False


def require_quiet(file: ProgramFile, name: str, segment: Sequence[int]) -> None:
    """Raises Refused unless the program's variable `name` may be given its value at the end of the segment: nothing of
    the program runs inside it, and what stops it half way stops the program."""
    tree, language, names = file.tree, file.language, file.names
    if file.beside or any(kind in GUARDED for kind in tree.kind):
        raise Refused(f"what stops half way could be seen by what asks for {name}")
    told = [tree.source_of(n) for n, kind in enumerate(tree.kind) if kind in language.imports]
    if not all(_is_quiet(text, QUIET_LIBRARY.get(language.id, frozenset())) for text in told):
        raise Refused(f"a library could look at {name}")
    unseen = {p.name for p in file.procedures if p.name.startswith("__") and p.name != "__init__"}
    unseen |= {p.name for p in file.procedures} & CALLED_UNSEEN | RUNNING_BESIDE & {*names.everything, *tree.text}
    if unseen:
        raise Refused(f"{min(unseen)} could look at {name}")
    declared = [p for n in names.nodes if tree.text[n] == name and names.declared_at(n) for p in file.parents(n)[:2]]
    if any("volatile" in tree.leaf_texts(p) for p in declared):
        raise Refused(f"{name} may be seen by what runs elsewhere")
    own = {p.name for p in file.procedures if p.name} | {tree.text[n] for n in names.nodes if _is_a_class(file, n)}
    for node in (n for s in segment for n in range(s, tree.end[s])):
        if tree.kind[node] in OPEN or tree.kind[node] in language.suspending:
            raise Refused(f"the copies hold what may look at {name} at another time")
        if tree.text[node] in own:
            raise Refused(f"{tree.text[node]} could look at {name}")
        if tree.kind[node] == language.call and not calls_the_library(file, node):
            raise Refused(f"{file.called_name(node) or 'what is called'} could look at {name}")


def _is_quiet(told: str, known: frozenset[str]) -> bool:
    """True for an import of nothing but parts of the library that are known."""
    found = re.match(r"(?:from|import)\s+(?:static\s+)?(.*)", told, re.DOTALL)
    if found is None:
        return False
    parts = found[1].split(" import ")[0].rstrip("; ").split(",")
    modules = [re.sub(r"\s+as\s+\w+", "", part).strip() for part in parts]
    return all(any(m == k or m.startswith(f"{k}.") for k in known) for m in modules)


def _is_a_class(file: ProgramFile, node: int) -> bool:
    tree = file.tree
    return tree.kind[tree.parent[node]] in file.language.classes and tree.field[node] == file.language.name_field


def calls_the_library(file: ProgramFile, call: int) -> bool:
    """True for a call of a built-in, of a module of the library, or of a plain method."""
    tree, language, names = file.tree, file.language, file.names
    callee = tree.child(call, language.callee_field)
    if callee is None:
        return False
    if tree.kind[callee] == language.name:
        return tree.text[callee] in language.builtins and names.owner(callee) == UNBOUND
    called = file.called_name(call)
    given = [n for n in names.nodes if tree.text[n] == called and names.role[n] in (Role.WRITE, Role.UPDATE)]
    of_a_module = tree.kind[callee] == language.member[0] and tree.text[callee + 1] in file.library_modules
    return not given and (of_a_module or called in PLAIN_METHODS)
