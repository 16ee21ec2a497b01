"""Proof of a function that several files share: in each of them, with the function where it gets to be known, the
program is the original again; and what the function names means the same in the file where it stands.
"""

from __future__ import annotations

import re
from collections.abc import Sequence

import msgspec

from ...languages.javascript.pages import is_page
from ...program.names import NO_VARIABLES, UNBOUND, WRITES, Role
from ...program.program import Procedure, ProgramFile
from ...program.together import (
    Sharing,
    folder_of,
    is_free_module,
    is_strict,
    line_that_brings,
    loads_of,
    module_of,
    pages_with,
    sharing_of,
)
from ...program.tree import Tree
from . import rules
from .calls import prove_call
from .definitions import plain_parameters
from .functions import prove_function
from .quiet import unknown_star_import
from .statics import prove_static
from .verdict import CalledFunction, MovedFunction, NewFunction, Refused, SharedFunction
from .walk import Walk

Both = Sequence[tuple[ProgramFile | None, ProgramFile]]
"""Every file that changes, as it was (None: it was not there) and as it is."""


def prove_shared(changed: Both, claim: SharedFunction | MovedFunction) -> None:
    """Raises Refused unless every file does what it did."""
    _SharingProof(changed, claim).run()


def prove_known(before: ProgramFile, after: ProgramFile, claim: CalledFunction) -> None:
    """Raises Refused unless the rewritten file, with the function of another file that it now calls more often in
    place of what brings it, does what the file did."""
    _KnownProof(before, after, claim).run()


class _SharingProof:
    def __init__(self, changed: Both, claim: SharedFunction | MovedFunction) -> None:
        self.claim = claim
        self.moved = isinstance(claim, MovedFunction)
        self.befores = [before for before, _ in changed if before is not None]
        self.changed = changed
        homes = [(before, after) for before, after in changed if after.path == claim.path]
        if len(homes) != 1 or not self.befores:
            raise Refused("the function has not one place")
        self.home_before, self.home = homes[0]
        known = [p for p in self.home.procedures if p.name == claim.name]
        if len(known) != 1:
            raise Refused("the function is defined more than once")
        self.function = known[0]
        self.using = [(b, a) for b, a in changed if b is not None and self._uses(b, a)]
        sharing = sharing_of([b for b, _ in self.using]) if self.using else None
        if sharing is None:
            raise Refused("the files do not see each other's functions")
        self.sharing = sharing
        self.statement = self.function.node if sharing is Sharing.CLASS else _statement_of(self.home, self.function)

    def _uses(self, before: ProgramFile, after: ProgramFile) -> bool:
        """True for a file that has the function, its copies or its calls, and not only loads it."""
        return self.claim.name in before.names.everything | after.names.everything

    def run(self) -> None:
        """Everything that has to hold."""
        if len({b.language.id for b in self.befores} | {self.home.language.id}) > 1:
            raise Refused("the files are in different languages")
        self._check_home()
        self._check_meanings()
        for before, after in self.changed:
            if before is None:
                continue
            if (before, after) in self.using:
                self._check_file(before, after)
            elif not self._only_loads(before, after):
                raise Refused(f"{before.path} changes")
        if self.sharing is Sharing.PAGE:
            self._check_order()

    # -- the file where the function stands ----------------------------------------------------------

    def _check_home(self) -> None:
        home, tree = self.home, self.home.tree
        if tree.problems:
            raise Refused("the new file would not parse")
        plain_parameters(home, self.function.node)
        words = {w.lower() for w in home.words_before_name(self.function.node)}
        if words & {"private", "fileprivate", "static"} and self.sharing is not Sharing.CLASS:
            raise Refused("the function is known in its own file only")
        if self.home_before is not None:
            if self.sharing in (Sharing.IMPORT, Sharing.REQUIRE):
                raise Refused("the function would stand in a file that does things of its own")
            return
        program = (self.befores[0], *self.befores[0].beside)
        if any(file.path == self.claim.path for file in program) or not is_free_module(module_of(home.path), program):
            raise Refused("the new file hides another one")
        for s in home.blocks[0].statements:
            if s != self.statement and not self._is_harmless(s):
                raise Refused("the new file does more than define the function")

    def _is_harmless(self, statement: int) -> bool:
        """An import that all files have, or the word to other files that the function is there."""
        home = self.home
        text = " ".join(home.tree.source_of(statement).split())
        if home.language.id == "visualbasic":
            return text == "Option Explicit" or re.fullmatch(r'Attribute VB_Name = "\w+"', text) is not None
        if home.is_import(statement):
            own = {f.path: module_of(f.path) for f in (*self.befores, *self.befores[0].beside)}
            named = set(re.findall(r"\w+", text))
            return not named & set(own.values()) and all(text in _imports(b) for b, _ in self.using)
        exported = rf"module\.exports = \{{ {re.escape(self.claim.name)} \}};?"
        return self.sharing is Sharing.REQUIRE and re.fullmatch(exported, text) is not None

    # -- what its names mean --------------------------------------------------------------------------

    def _check_meanings(self) -> None:
        """Whatever the function names and does not have itself is the same thing in all files."""
        if self.sharing is Sharing.CLASS:
            self._require_one_package()
            return
        home, tree, names = self.home, self.home.tree, self.home.names
        start, stop = self.function.node, tree.end[self.function.node]
        for i in names.within(start, stop):
            name = tree.text[i]
            if names.role[i] in NO_VARIABLES or name == self.claim.name:
                continue
            owner = names.owner(i)
            if owner not in (0, UNBOUND):
                continue
            if self.sharing in (Sharing.IMPORT, Sharing.REQUIRE):
                self._require_same_in_modules(name)
            else:
                self._require_one_for_all(name)
        for file in (home, *(b for b, _ in self.using)):
            rules.refuse_reflection(file)
            if unknown_star_import(file):
                raise Refused("a star import might give a name another meaning")
            if self.sharing is Sharing.PAGE and is_strict(file):
                raise Refused("a script says that it runs strictly")
        if self.home.language.id == "visualbasic":
            self._require_modules()
        self._require_known_types()

    def _require_one_package(self) -> None:
        """Classes of one package, which know the same other classes."""
        files = [self.home, *(b for b, _ in self.using)]
        if len({folder_of(f.path) for f in files}) > 1:
            raise Refused("the files stand in different folders")
        words = set(self.home.tree.leaf_texts(self.function.node))
        words |= {w for text in words for w in re.findall(r"\w+", text)}
        told = []
        for file in files:
            lines = [
                " ".join(file.tree.source_of(s).split())
                for s in file.blocks[0].statements
                if file.is_import(s) or "package" in file.tree.kind[s] or "namespace" in file.tree.kind[s]
            ]
            told.append({x for x in lines if not re.search(r"\.(\w+);$", x) or set(re.findall(r"\w+", x)) & words})
        if any(lines != told[0] for lines in told):
            raise Refused("the files know different classes")

    def _require_same_in_modules(self, name: str) -> None:
        """A built-in in every file, or imported by the same line in all of them."""
        for file in (self.home, *(b for b, _ in self.using)):
            givers = _givers(file, name)
            if not givers and name in file.language.builtins:
                continue
            lines = {" ".join(file.tree.source_of(g).split()) for g in givers}
            if len(lines) != 1 or not all(file.is_import(g) for g in givers):
                raise Refused(f"{name} belongs to one of the files")
            if not all(lines <= set(_imports(b)) for b, _ in self.using):
                raise Refused(f"{name} is not the same in all files")

    def _require_one_for_all(self, name: str) -> None:
        """A name that no file gives a meaning of its own at its top, or one that all files share. The scripts of a
        page share all their names."""
        if self.sharing is Sharing.PAGE:
            return
        language = self.home.language.id
        program = (self.befores[0], *self.befores[0].beside)
        held = [file for file in program if _givers(file, name)]
        if language == "gamescript":
            # What nothing declares belongs to the object whose event runs, wherever the function stands.
            held = [f for f in held if any(f.tree.kind[g] in DECLARED for g in _givers(f, name))]
        if len(held) > 1:
            raise Refused(f"{name} means something in more than one file")
        for file in held:
            words = {w.lower() for g in _givers(file, name) for t in file.tree.leaf_texts(g)[:6] for w in t.split()}
            if words & KEPT_TO_ITSELF or (language == "arduino" and file.path != self.claim.path):
                raise Refused(f"{name} may be known in its own file only")

    def _require_known_types(self) -> None:
        """Types are no names: one that a file defines may not be known in another."""
        tree, function = self.home.tree, self.function.node
        told = (t for n, t in enumerate(tree.text[function : tree.end[function]], function) if "type" in tree.kind[n])
        words = {word for text in told for word in re.findall(r"[A-Za-z_]\w*", text)}
        if self.home.language.id == "typescript" and words - PLAIN_TYPES:
            raise Refused("the function tells a type that may be known in one file only")
        defining = self.home.language.classes | {"type_definition"}
        defined = any(f.tree.kind[s] in defining for f in self.befores for s in f.blocks[0].statements)
        if self.home.language.id == "arduino" and defined:
            raise Refused("one of the files defines a type")

    def _require_modules(self) -> None:
        """What stands in a form or a class may mean its own members."""
        known = self.home.language.builtins - OF_A_SHEET
        blind = {name.casefold() for name in known}
        forms = [b for b, _ in self.using if not b.path.lower().endswith((".bas", ".vba"))]
        if not self.home.path.lower().endswith((".bas", ".vba")):
            raise Refused("the function would stand in a form or a class")
        names, tree = self.home.names, self.home.tree
        for i in names.within(self.function.node, tree.end[self.function.node]) if forms else ():
            own = names.owner(i) not in (0, UNBOUND) or names.role[i] in (Role.MEMBER, Role.KEYWORD)
            if not own and tree.text[i] != self.claim.name and tree.text[i].casefold() not in blind:
                raise Refused(f"{tree.text[i]} may belong to the form that it stands in")

    # -- each file ---------------------------------------------------------------------------------------

    def _check_file(self, before: ProgramFile, after: ProgramFile) -> None:
        """The file with the function in it does what it did."""
        inside = after if after.path == self.claim.path else self._with_function(before, after)
        if len(inside.tree.problems) > len(before.tree.problems):
            raise Refused("the rewritten program would not parse")
        if isinstance(self.claim, SharedFunction) and self.sharing is Sharing.CLASS:
            at_home = after.path == self.claim.path
            prove_static(before, inside, self.claim.name, self.claim.declared, self.claim.home, at_home)
        elif isinstance(self.claim, SharedFunction):
            prove_function(before, inside, NewFunction(before.path, self.claim.name, self.claim.declared))
        else:
            self._check_moved(before, after)
        if not self._only_loads(before, after, True):
            raise Refused("what stands around the program's code would change")

    def _with_function(self, before: ProgramFile, after: ProgramFile) -> ProgramFile:
        """The rewritten file with the function's text where the file gets to know it."""
        tree = self.home.tree
        text = tree.source_of(self.function.node)
        source = after.tree.source
        if self.sharing in (Sharing.IMPORT, Sharing.REQUIRE):
            line = self._bringing_line(before, after)
            start, stop = after.tree.start_byte[line], after.tree.end_byte[line]
        else:
            start = stop = self._place(after)
            text = f"\n{text}\n"
        whole = source[:start].decode() + text + source[stop:].decode()
        made = ProgramFile(msgspec.structs.replace(after.source, text=whole, original=None), after.language)
        made.beside = before.beside
        return made

    def _place(self, after: ProgramFile) -> int:
        """Where a function can stand that is known everywhere: on the top, or in some class."""
        if self.sharing is not Sharing.CLASS:
            return after.code_spans[0][0] if after.code_spans else 0
        tree, language = after.tree, after.language
        for s in after.blocks[0].statements:
            body = tree.child(s, language.body_field) if tree.kind[s] in language.classes else None
            if body is not None and after.block_at[body].statements:
                return tree.start_byte[after.block_at[body].statements[0]]
        raise Refused("a file has no plain class")

    def _bringing_line(self, before: ProgramFile, after: ProgramFile) -> int:
        """The one statement at the top by which the file gets to know the function."""
        if folder_of(after.path) != folder_of(self.claim.path):
            raise Refused("the files stand in different folders")
        wanted = line_that_brings(after, self.sharing, self.claim.name, self.claim.path)
        found = [s for s in after.blocks[0].statements if wanted.fullmatch(after.tree.source_of(s))]
        if len(found) != 1:
            raise Refused("a file does not get to know the function in one line")
        if self.claim.name in before.names.everything and not self.moved:
            raise Refused(f"the name {self.claim.name} already means something")
        return found[0]

    def _only_loads(self, before: ProgramFile, after: ProgramFile, may_change: bool = False) -> bool:
        """True where nothing around a file's code changes, but for one element of a page that loads the function."""
        if not may_change and before.tree.text != after.tree.text:
            return False
        if before.outside == after.outside:
            return True
        new = loads_of(after, self.claim.path) if is_page(after.tree.source) else []
        if self.home_before is not None or len(new) != 1:
            return False
        source = after.tree.source
        line_start = source.rfind(b"\n", 0, new[0].tag) + 1
        line_end = source.find(b"\n", new[0].stop) + 1
        line = source[line_start:line_end].strip()
        if re.fullmatch(rb'<script src="[\w./-]+"></script>', line) is None:
            return False
        bare = msgspec.structs.replace(
            after.source, text=(source[:line_start] + source[line_end:]).decode(), original=None
        )
        return before.outside == ProgramFile(bare, after.language).outside

    # -- scripts of a page --------------------------------------------------------------------------------

    def _check_order(self) -> None:
        """Every page runs the function's script before those that call it."""
        afters = {after.path: after for _, after in self.changed}
        program = [afters.get(f.path, f) for f in (self.befores[0], *self.befores[0].beside)]
        for _, after in self.using:
            pages = pages_with(program, after.path)
            if not pages:
                raise Refused("no page tells when a script runs")
            for page in pages:
                own = loads_of(page, self.claim.path)
                if not own or not own[0].plain:
                    raise Refused("a page does not load the function before its calls")
                if not all(s.shares for s in (*own, *loads_of(page, after.path))):
                    raise Refused("a module keeps its names to itself")
                late = [s for s in loads_of(page, after.path) if s.tag < own[0].tag]
                if late and after.path != self.claim.path:
                    raise Refused("a page does not load the function before its calls")

    # -- a function that stood in several files ------------------------------------------------------------

    def _check_moved(self, before: ProgramFile, after: ProgramFile) -> None:
        """The file without the function is the file as it was without it, and the function was the same."""
        using = {b.path for b, _ in self.using}
        rest = [file for file in (before, *before.beside) if file.path not in using]
        if self.home_before is None and any(self.claim.name in file.names.everything for file in rest):
            # On a page it would be known to them earlier than it was.
            raise Refused(f"{self.claim.name} is used by other files too")
        known = [p for p in before.procedures if p.name == self.claim.name]
        if len(known) != 1 or len(_givers(before, self.claim.name)) != 1:
            raise Refused(f"{self.claim.name} is not one plain function of each file")
        old = _statement_of(before, known[0])
        ours = (self.home.tree, self.function.node)
        theirs = (before.tree, known[0].node)
        if _tokens(*ours) != _tokens(*theirs) or rules.declared_global_somewhere(before, self.claim.name):
            raise Refused(f"{self.claim.name} is not the same in all files")
        if {"default_parameter", "decorator"} & set(_tokens(*theirs)[0]):
            raise Refused(f"{self.claim.name} works something out where it is defined")
        names, tree = before.names, before.tree
        for i in names.nodes:
            if tree.text[i] == self.claim.name and tree.kind[tree.parent[i]] == before.language.member[0]:
                raise Refused(f"{self.claim.name} is used as an object, of which each file has its own")
        skipped = self.statement if after.path == self.claim.path else None
        if skipped is None and self.sharing in (Sharing.IMPORT, Sharing.REQUIRE):
            skipped = self._bringing_line(before, after)

        def rule(_left: Sequence[int], new: int) -> int | None:
            return 0 if new == skipped else None

        Walk(before, after, rule, skip_before=frozenset({old})).run()


class _KnownProof(_SharingProof):
    """A file calls a function of another one that it knows already."""

    def __init__(self, before: ProgramFile, after: ProgramFile, claim: CalledFunction) -> None:
        homes = [file for file in before.beside if file.path == claim.home]
        if len(homes) != 1:
            raise Refused("the function's file is not in sight")
        home = homes[0]
        super().__init__([(before, after), (home, home)], SharedFunction(claim.home, claim.name))
        if self.sharing is Sharing.CLASS:
            raise Refused("the files do not see each other's functions")
        self.moved = True
        self.using = [(before, after)]

    def run(self) -> None:
        """Everything that has to hold."""
        before, after = self.using[0]
        name, home = self.claim.name, self.home
        plain_parameters(home, self.function.node)
        told = _tokens(home.tree, self.function.node)
        if {"default_parameter", "decorator"} & set(told[0]):
            raise Refused(f"{name} works something out where it is defined")
        if {w.lower() for w in home.words_before_name(self.function.node)} & {"private", "fileprivate", "static"}:
            raise Refused("the function is known in its own file only")
        if len(_givers(home, name)) != 1 or rules.declared_global_somewhere(home, name):
            raise Refused(f"{name} means more than one thing")
        program = (before, *before.beside)
        if any(f.names.role[i] is Role.MEMBER and f.tree.text[i] == name for f in program for i in f.names.nodes):
            raise Refused(f"{name} may be changed through its module")
        brought = self.sharing in (Sharing.IMPORT, Sharing.REQUIRE)
        wanted = [self._bringing_line(before, before)] if brought else []
        if _givers(before, name) != wanted:
            raise Refused(f"{name} means something else in {before.path}")
        if not brought and any(_givers(f, name) for f in program if f is not home):
            raise Refused(f"{name} means more than one thing")
        self._check_meanings()
        if self.sharing is Sharing.PAGE:
            self._check_order()
        inside = self._with_function(before, before), self._with_function(before, after)
        prove_call(*inside, CalledFunction(before.path, name))


DECLARED = frozenset({"declaration", "function_definition", "function_variable"})
KEPT_TO_ITSELF = frozenset({"private", "fileprivate", "static", "dim", "const", "var"})
"""Words with which a file keeps a name to itself, in one language or another."""
PLAIN_TYPES = frozenset("number string boolean void any unknown null undefined never object".split())
OF_A_SHEET = frozenset(
    "Range Cells Columns Rows Me Application ActiveCell ActiveSheet Selection Worksheets Sheets Name".split()
)
"""Names that mean something else inside the module of a sheet or a form."""


def _statement_of(file: ProgramFile, procedure: Procedure) -> int:
    """The statement at the top that is the function, exported or not."""
    tree, node = file.tree, procedure.node
    parent = tree.parent[node]
    exported = tree.kind[parent] == "export_statement" and tree.parent[parent] == 0
    if parent != 0 and not exported:
        raise Refused("the function does not stand at the top of its file")
    if exported and [t for t in tree.text[parent + 1 : node] if t] != ["export"]:
        raise Refused("the function is exported in an unusual way")
    return parent if exported else node


def _givers(file: ProgramFile, name: str) -> list[int]:
    """The statements at the file's top that give a name its meaning there."""
    names, tree = file.names, file.tree
    blind = file.language.case_blind
    key = name.casefold() if blind else name
    found = []
    for i in names.nodes:
        own = tree.text[i].casefold() if blind else tree.text[i]
        if own == key and names.role[i] in (*WRITES, Role.DECLARATION) and names.owner(i) == 0:
            around = [i, *file.parents(i)]
            found.append(around[-2])
    return found


def _imports(file: ProgramFile) -> list[str]:
    return [" ".join(file.tree.source_of(s).split()) for s in file.blocks[0].statements if file.is_import(s)]


def _tokens(tree: Tree, node: int) -> tuple[list[str], list[str]]:
    return tree.kind[node : tree.end[node]], tree.text[node : tree.end[node]]
