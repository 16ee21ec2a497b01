"""The program tree that the rest of the core knows: files, procedures, blocks, statements."""

from __future__ import annotations

import itertools
import re
import sys
from bisect import bisect_left
from collections.abc import Sequence
from pathlib import PurePosixPath

from ..frozen import Frozen
from ..languages.table import Language
from ..source import Source
from .blocks import Block, code_line_numbers, find_blocks
from .names import Names, Role, resolve_names
from .tree import Problem, Tree, parse

REQUIRING = re.compile(r"(?:const|let|var) (?:\w+|\{[\w\s,]+\}) = require\((['\"])[^'\"]+\1\);?")


class Procedure(Frozen, frozen=True):
    """A function or method, or (node 0, name "") the loose code of the file."""

    node: int
    name: str
    parameters: tuple[str, ...]
    start_line: int
    end_line: int
    parent: int
    """Node of the class or procedure around it, or 0."""
    in_class: bool
    decorated: bool


class ProgramFile:
    """One parsed file. Immutable; what is derived from it is computed once, when first asked.

    `problems` are the places that could not be parsed as handed in.
    """

    def __init__(self, source: Source, language: Language, earlier: ProgramFile | None = None) -> None:
        # What is derived once, when first asked.
        self._names: Names | None = None
        self._blocks: tuple[Block, ...] | None = None
        self._block_at: dict[int, Block] | None = None
        self._statement_nodes: list[int] | None = None
        self._statement_set: frozenset[int] | None = None
        self._known_in_order: list[int] | None = None
        self._statements_before: list[int] | None = None
        self._depths: list[int] | None = None
        self._procedures: tuple[Procedure, ...] | None = None
        self._lines: list[str] | None = None
        self._code_lines: frozenset[int] | None = None
        self._code_lines_before: list[int] | None = None
        self._shared_lines: frozenset[int] | None = None
        self._text_quote: str | None = None
        self._told_outside: frozenset[str] | None = None
        self._is_module: bool | None = None
        self._library_modules: frozenset[str] | None = None
        self._outward_names: frozenset[str] | None = None
        self._margin: str | None = None
        self._code_spans: Sequence[tuple[int, int]] | None = None
        self._known_requiring: frozenset[int] | None = None
        self._known_procedure_nodes: list[int] | None = None
        self._known_procedure_above: dict[int, Procedure] | None = None
        self.source = source
        self.language = language
        self.path = source.path
        self.derived: dict[object, object] = {}
        """What other modules derive from the file and need again, by their own keys."""
        self._bodies: dict[int, tuple[int, ...]] = {}
        self.beside: tuple[ProgramFile, ...] = ()
        """The other files of the program that it was last made part of."""
        self.tree: Tree = parse(source.text.encode(), language, earlier.tree if earlier else None)
        self.problems: list[Problem] = self.tree.problems
        if self.problems and language.repair:
            mended = parse(language.repair(source.text).encode(), language)
            if len(mended.problems) < len(self.problems):
                self.tree = mended

    @property
    def names(self) -> Names:
        """Roles and scopes of all names."""
        if self._names is None:
            self._names = resolve_names(self.tree)
        return self._names

    @property
    def blocks(self) -> tuple[Block, ...]:
        """All statement lists, outer before inner."""
        if self._blocks is None:
            self._blocks = find_blocks(self.tree)
        return self._blocks

    @property
    def block_at(self) -> dict[int, Block]:
        """Block by its node."""
        if self._block_at is None:
            self._block_at = {block.node: block for block in self.blocks}
        return self._block_at

    @property
    def statement_nodes(self) -> list[int]:
        """All statements but definitions and documentation strings, in order."""
        if self._statement_nodes is None:
            self._statement_nodes = [
                s
                for block in self.blocks
                for s in block.statements
                if not self.is_definition(s) and not self.is_bare_string(s)
            ]
        return self._statement_nodes

    @property
    def statement_set(self) -> frozenset[int]:
        """`statement_nodes`, to be looked up in."""
        if self._statement_set is None:
            self._statement_set = frozenset(self.statement_nodes)
        return self._statement_set

    @property
    def _in_order(self) -> list[int]:
        """`statement_nodes` in the order of the text."""
        if self._known_in_order is None:
            self._known_in_order = sorted(self.statement_nodes)
        return self._known_in_order

    def statements_within(self, start: int, stop: int) -> list[int]:
        """The statements from node `start` up to, not including, node `stop`, inner ones included."""
        ordered = self._in_order
        return ordered[bisect_left(ordered, start) : bisect_left(ordered, stop)]

    def count_within(self, start: int, stop: int) -> int:
        """How many statements there are from node `start` up to, not including, node `stop`, inner ones included."""
        before = self._statements_before
        if before is None:
            known = self.statement_set
            marks = [node in known for node in range(len(self.tree.kind))]
            before = self._statements_before = list(itertools.accumulate(marks, initial=0))
        return before[stop] - before[start]

    @property
    def depths(self) -> list[int]:
        """How many nodes are around each node."""
        if self._depths is None:
            self._depths = self._find_depths()
        return self._depths

    def _find_depths(self) -> list[int]:
        depths: list[int] = []
        for parent in self.tree.parent:
            depths.append(depths[parent] + 1 if parent >= 0 else 0)
        return depths

    @property
    def procedures(self) -> tuple[Procedure, ...]:
        """The file's loose code first, then every function and method in order."""
        if self._procedures is None:
            self._procedures = _find_procedures(self)
        return self._procedures

    @property
    def lines(self) -> list[str]:
        """The text's lines, without line ends."""
        if self._lines is None:
            self._lines = self.source.text.split("\n")
        return self._lines

    @property
    def code_lines(self) -> frozenset[int]:
        """1-based numbers of the lines that hold code: no blank and no comment-only lines."""
        if self._code_lines is None:
            self._code_lines = code_line_numbers(self.tree)
        return self._code_lines

    @property
    def code_lines_before(self) -> list[int]:
        """For each line number how many lines up to it, itself included, hold code."""
        if self._code_lines_before is None:
            self._code_lines_before = self._find_code_lines_before()
        return self._code_lines_before

    def code_lines_within(self, first: int, last: int) -> int:
        """How many of the lines from `first` to `last`, both included, hold code."""
        before = self.code_lines_before
        return before[last] - before[first - 1]

    def _find_code_lines_before(self) -> list[int]:
        known = self.code_lines
        return list(
            itertools.accumulate(line in known for line in range(max(len(self.tree.line_starts), *known, 1) + 1))
        )

    @property
    def shared_lines(self) -> frozenset[int]:
        """Lines on which more than one statement stands (`a = 1; b = 2`)."""
        if self._shared_lines is None:
            self._shared_lines = self._find_shared_lines()
        return self._shared_lines

    def _find_shared_lines(self) -> frozenset[int]:
        shared: set[int] = set()
        for block in self.blocks:
            last = 0
            for s in block.statements:
                first = self.tree.start_line(s)
                if first == last:
                    shared.add(first)
                last = self.tree.end_line(s)
            if block.statements and block.node:
                header = self.tree.start_line(self.tree.parent[block.node])
                if self.tree.start_line(block.statements[0]) == header:
                    shared.add(header)
        return frozenset(shared)

    @property
    def text_quote(self) -> str:
        """The mark between which this file has its first plain text."""
        if self._text_quote is None:
            self._text_quote = self._find_text_quote()
        return self._text_quote

    def _find_text_quote(self) -> str:
        texts = (t[:1] for t, kind in zip(self.tree.text, self.tree.kind, strict=True) if kind == "string")
        return next((mark for mark in texts if mark in {"'", '"'}), '"')

    def is_used_beside(self, name: str) -> bool:
        """True where another file of the program mentions `name`."""
        return any(name in file.names.everything or name in file.told_outside for file in self.beside)

    @property
    def told_outside(self) -> frozenset[str]:
        """Names that the file mentions outside of its code: a page's handlers."""
        if self._told_outside is None:
            self._told_outside = self._find_told_outside()
        return self._told_outside

    def _find_told_outside(self) -> frozenset[str]:
        tell = self.language.told_outside
        return tell(self.tree.source) if tell else frozenset()

    def is_seen_outside(self, name: str) -> bool:
        """True where a variable of the file's top may be used by another file, or by what stands around its code."""
        if name in self.told_outside:
            return True
        if self.language.shares_top and not self.is_module:
            return any(name in file.outward_names or name in file.told_outside for file in self.beside)
        if not self.beside:
            return False
        stem = PurePosixPath(self.path).stem
        return any(stem in f.names.everything and name in f.names.everything for f in self.beside)

    @property
    def is_module(self) -> bool:
        """True for a script that imports, exports or requires something: its top is not that of other files."""
        if self._is_module is None:
            self._is_module = self._find_is_module()
        return self._is_module

    def _find_is_module(self) -> bool:
        tree = self.tree
        told = {tree.kind[s] for s in self.blocks[0].statements} & {"import_statement", "export_statement"}
        return bool(told) or bool(self.names.everything & {"require", "module", "exports"})

    @property
    def library_modules(self) -> frozenset[str]:
        """Names under which the file has whole modules of Python's library, imported at its top."""
        if self._library_modules is None:
            self._library_modules = self._find_library_modules()
        return self._library_modules

    def _find_library_modules(self) -> frozenset[str]:
        if self.language.id != "python":
            return frozenset()
        found = set()
        for s in self.blocks[0].statements:
            words = self.tree.leaf_texts(s) if self.tree.kind[s] == "import_statement" else []
            if len(words) == 2 and words[1] in sys.stdlib_module_names:
                found.add(words[1])
        return frozenset(found)

    @property
    def outward_names(self) -> frozenset[str]:
        """Names that the file uses and that may be another one's: what it declares at its top, or nowhere, and members
        of what may stand for the top of all."""
        if self._outward_names is None:
            self._outward_names = self._find_outward_names()
        return self._outward_names

    def _find_outward_names(self) -> frozenset[str]:
        names, tree = self.names, self.tree
        found = {tree.text[i] for i in names.nodes if names.role[i] <= Role.DECLARATION and names.owner(i) <= 0}
        if names.everything & {"window", "globalThis", "global", "self"} or "this" in tree.kind:
            found |= {tree.text[i] for i in names.nodes if names.role[i] is Role.MEMBER}
        return frozenset(found)

    @property
    def margin(self) -> str:
        """What the statements at the top are indented by: nothing, but for code that stands among other things."""
        if self._margin is None:
            self._margin = self._find_margin()
        return self._margin

    def _find_margin(self) -> str:
        top = self.blocks[0].statements
        line = self.lines[self.tree.start_line(top[0]) - 1] if top and self.code_spans[0][0] else ""
        return line[: len(line) - len(line.lstrip())]

    @property
    def outside(self) -> bytes:
        """What stands around the code."""
        edges = [0, *(byte for span in self.code_spans for byte in span), len(self.tree.source)]
        return b"\0".join(self.tree.source[a:b] for a, b in zip(edges[::2], edges[1::2], strict=True))

    @property
    def code_spans(self) -> Sequence[tuple[int, int]]:
        """The bytes of the file that are code."""
        if self._code_spans is None:
            self._code_spans = self._find_code_spans()
        return self._code_spans

    def _find_code_spans(self) -> Sequence[tuple[int, int]]:
        spans = self.language.code_spans
        return spans(self.tree.source) if spans else [(0, len(self.tree.source))]

    def part_of(self, node: int) -> int:
        """Which of the file's pieces of code a node stands in, from 0; they run one after the other."""
        return sum(start <= self.tree.start_byte[node] for start, _ in self.code_spans) - 1

    @property
    def is_whole(self) -> bool:
        """True where all of it was read, if need be after closing a bracket."""
        return not self.tree.problems

    def body_of(self, procedure: Procedure) -> Block | None:
        """The block of a procedure's statements; None where what stands there could not be read."""
        if procedure.node == 0:
            return self.blocks[0]
        body = self.tree.child(procedure.node, self.language.body_field)
        return self.block_at.get(body) if body is not None else None

    def statements_of(self, procedure: Procedure) -> tuple[int, ...]:
        """The statements of a procedure's body, without its documentation."""
        known = self._bodies.get(procedure.node)
        if known is None:
            block = self.body_of(procedure)
            known = tuple(s for s in (block.statements if block else ()) if not self.is_bare_string(s))
            self._bodies[procedure.node] = known
        return known

    def words_before_name(self, procedure: int) -> list[str]:
        """The words of a definition before its name: modifiers, marks, the type of its result."""
        name = self.tree.child(procedure, self.language.name_field)
        return [w for t in self.tree.text[procedure : name or procedure] for w in t.split()]

    def words_behind_parameters(self, procedure: int) -> list[str]:
        """The words of a definition between its parameters and its body, such as `const`."""
        tree = self.tree
        parameters, body = (
            tree.child(procedure, f) for f in (self.language.parameters_field, self.language.body_field)
        )
        if parameters is None or body is None:
            return []
        return [w for t in tree.text[tree.end[parameters] : body] for w in t.split()]

    def is_definition(self, statement: int) -> bool:
        """True for a function or class definition, decorated or not."""
        kind, language = self.tree.kind[statement], self.language
        return (
            kind in language.procedures
            or kind in language.classes
            or kind in language.wrappers
            or kind in language.fields
        )

    def is_bare_string(self, statement: int) -> bool:
        """True for a string that stands alone: a documentation string."""
        return self.tree.kind[statement] in self.language.strings and not self.language.values_everywhere

    def is_import(self, statement: int) -> bool:
        """True for an import, or a line that takes names out of what is required."""
        return self.tree.kind[statement] in self.language.imports or statement in self._requiring

    @property
    def _requiring(self) -> frozenset[int]:
        if self._known_requiring is None:
            self._known_requiring = self._find_requiring()
        return self._known_requiring

    def _find_requiring(self) -> frozenset[int]:
        if not self.language.shares_top or "require" not in self.names.everything:
            return frozenset()
        top = self.blocks[0].statements
        return frozenset(s for s in top if REQUIRING.fullmatch(self.tree.source_of(s)))

    def parents(self, node: int) -> list[int]:
        """The nodes around `node`, innermost first."""
        result = []
        node = self.tree.parent[node]
        while node >= 0:
            result.append(node)
            node = self.tree.parent[node]
        return result

    def first_block(self, statement: int) -> int | None:
        """The first block right below a statement or a clause; None for one without."""
        return next((child for child in self.tree.children(statement) if child in self.block_at), None)

    def blocks_of(self, statement: int) -> list[int]:
        """The blocks of a statement, those of its other branches too, but none inside another one."""
        found: list[int] = []
        for node in range(statement + 1, self.tree.end[statement]):
            if node in self.block_at and not (found and node < self.tree.end[found[-1]]):
                found.append(node)
        return found

    def procedure_around(self, node: int) -> Procedure:
        """The innermost procedure that holds `node`; the loose code where none does."""
        found = self.procedures[max(bisect_left(self._procedure_nodes, node) - 1, 0)]
        while found.node and node >= self.tree.end[found.node]:
            found = self._procedure_above[found.node]
        return found

    @property
    def _procedure_nodes(self) -> list[int]:
        if self._known_procedure_nodes is None:
            self._known_procedure_nodes = [p.node for p in self.procedures]
        return self._known_procedure_nodes

    @property
    def _procedure_above(self) -> dict[int, Procedure]:
        """For each procedure's node, the procedure around it."""
        if self._known_procedure_above is None:
            self._known_procedure_above = self._find_procedure_above()
        return self._known_procedure_above

    def _find_procedure_above(self) -> dict[int, Procedure]:
        above: dict[int, Procedure] = {}
        stack = [self.procedures[0]]
        for procedure in self.procedures[1:]:
            while len(stack) > 1 and procedure.node >= self.tree.end[stack[-1].node]:
                stack.pop()
            above[procedure.node] = stack[-1]
            stack.append(procedure)
        return above

    def called_name(self, call: int) -> str:
        """The last part of what a call node calls: `print`, or `append` for `log.append(…)`."""
        callee = self.tree.child(call, self.language.callee_field)
        if callee is None:
            return ""
        if self.tree.kind[callee] == self.language.member[0]:
            callee = self.tree.child(callee, self.language.member[1])
        return self.tree.text[callee] if callee is not None else ""

    def only_argument(self, call: int) -> int | None:
        """The one value that a call is given; None for a node that is no call, or is given none or more."""
        is_call = self.tree.kind[call] == self.language.call
        arguments = self.tree.child(call, self.language.arguments_field) if is_call else None
        given = self.tree.items(arguments) if arguments is not None else []
        return given[0] if len(given) == 1 else None


class Program:
    """A submission's readable files in one language family, in path order."""

    def __init__(self, files: list[ProgramFile]) -> None:
        # What is derived once, when first asked.
        self._by_path: dict[str, ProgramFile] | None = None
        self._statement_count: int | None = None
        self.files = tuple(sorted(files, key=lambda f: f.path))
        for file in self.files:
            file.beside = tuple(f for f in self.files if f is not file)
        self.undefined_calls: list[tuple[ProgramFile, int, str, str]] | None = None
        """What `procedures.calls` found once, as measures and remarks both need it."""

    @property
    def by_path(self) -> dict[str, ProgramFile]:
        """File by its path."""
        if self._by_path is None:
            self._by_path = {file.path: file for file in self.files}
        return self._by_path

    @property
    def statement_count(self) -> int:
        """All statements but definitions and documentation strings."""
        if self._statement_count is None:
            self._statement_count = sum(len(file.statement_nodes) for file in self.files)
        return self._statement_count


def _find_procedures(file: ProgramFile) -> tuple[Procedure, ...]:
    tree, language = file.tree, file.language
    last_line = max(len(file.lines), 1)
    found = [Procedure(0, "", (), 1, last_line, 0, False, False)]
    procedures = language.procedures
    holders = procedures | language.classes
    for node in [n for n, kind in enumerate(tree.kind) if kind in procedures]:
        name = tree.child(node, language.name_field)
        parent = tree.parent[node]
        outer = node
        decorated = tree.kind[parent] in language.wrappers
        if decorated:
            outer = parent
        decorated = decorated or _is_annotated(tree, node)
        around = next((p for p in file.parents(node) if tree.kind[p] in holders), 0)
        found.append(
            Procedure(
                node,
                tree.text[name].rpartition("::")[2] if name is not None else _name_by_use(tree, node),
                _parameter_names(file, node),
                tree.start_line(outer),
                tree.end_line(node),
                around,
                tree.kind[around] in language.classes,
                decorated,
            )
        )
    return tuple(found)


def _is_annotated(tree: Tree, function: int) -> bool:
    """True where a mark such as `@Override` or `export` tells that others know the function."""
    first = next(iter(tree.children(function)), None)
    if first is None or tree.kind[first] not in {"modifiers", "attribute_list", "modifier"}:
        return False
    return any(t.startswith(("@", "[")) or t == "override" for t in tree.leaf_texts(first))


def is_constructor(file: ProgramFile, procedure: Procedure) -> bool:
    """True for a function that makes or unmakes objects of the class whose name it has."""
    tree = file.tree
    named = tree.child(procedure.node, file.language.name_field)
    parts = tree.text[named].split("::") if named is not None else []
    holder = tree.child(procedure.parent, "name") if procedure.in_class else None
    own = procedure.name.lstrip("~")
    return bool(own) and (own == (tree.text[holder] if holder is not None else "") or parts[-2:-1] == [own])


def _name_by_use(tree: Tree, function: int) -> str:
    """The variable or member that a function without a name of its own is given to; "" for one that is
    passed on as it stands."""
    parent = tree.parent[function]
    target = tree.child(parent, "left") if tree.kind[parent] in {"declarator", "assignment"} else None
    if tree.kind[parent] in {"pair", "field"}:
        target = tree.child(parent, "key") or tree.child(parent, "name")
    if target is not None and tree.kind[target] == "attribute":
        target = tree.child(target, "attribute")
    return tree.text[target] if target is not None else ""


def _parameter_names(file: ProgramFile, procedure: int) -> tuple[str, ...]:
    from .names import Role

    parameters = file.tree.child(procedure, file.language.parameters_field)
    if parameters is None:
        return ()
    names = file.names
    return tuple(
        file.tree.text[i]
        for i in names.within(parameters, file.tree.end[parameters])
        if names.role[i] is Role.PARAMETER and names.scope[i] == procedure
    )
