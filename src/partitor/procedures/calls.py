"""The call map: who calls what, what nothing calls, what is called and not defined."""

from __future__ import annotations

import re
from collections import defaultdict
from collections.abc import Iterable

import msgspec
from rapidfuzz import fuzz, process
from rapidfuzz.distance import OSA

from ..program.names import UNBOUND, Role
from ..program.program import Procedure, Program, ProgramFile, is_constructor


class CallMap(msgspec.Struct, frozen=True, eq=False):
    """Callers and callees by function name, among the functions that the program defines; "" is the loose code."""

    calls: dict[str, set[str]]
    """Caller → called."""
    defined: dict[str, list[tuple[ProgramFile, Procedure]]]
    as_value: set[str]
    """Functions whose name is passed on or stored: callbacks, handlers, tables."""
    mentioned: set[str]
    """Functions whose name stands outside their own definition."""


def map_calls(program: Program) -> CallMap:
    """Read all calls of a program once. Linear in its names."""
    calls: dict[str, set[str]] = {}
    defined: dict[str, list[tuple[ProgramFile, Procedure]]] = {}
    as_value: set[str] = set()
    mentioned: set[str] = set()
    for file in program.files:
        for procedure in file.procedures[1:]:
            defined.setdefault(procedure.name, []).append((file, procedure))
    for file in program.files:
        outside = file.told_outside & set(defined)
        as_value |= outside
        mentioned |= outside
        tree, language = file.tree, file.language
        kinds, texts, fields, parents = tree.kind, tree.text, tree.field, tree.parent
        qualified = (
            [n for n, kind in enumerate(kinds) if kind == "qualified_identifier"] if language.struct_values else ()
        )
        for node in qualified:
            # `Pump::start` outside a class mentions its function, where it is not the head of its definition.
            own = texts[node].rpartition("::")[2]
            named = fields[node] == language.name_field and kinds[parents[node]] in language.procedures
            if own in defined and not named:
                mentioned.add(own)
                if fields[node] == language.callee_field:
                    calls.setdefault(file.procedure_around(node).name, set()).add(own)
        for i in [i for i in file.names.nodes if texts[i] in defined]:
            name, parent, field = texts[i], parents[i], fields[i]
            if kinds[parent] in language.procedures and field == language.name_field:
                continue
            around = file.procedure_around(i)
            called = kinds[parent] == language.call and field == language.callee_field
            member_call = (
                (kinds[parent], field) == language.member
                and kinds[parents[parent]] == language.call
                and fields[parent] == language.callee_field
            )
            if called or member_call:
                calls.setdefault(around.name, set()).add(name)
            elif file.names.role[i] is not Role.KEYWORD:
                as_value.add(name)
            if around.name != name:
                mentioned.add(name)
    return CallMap(calls, defined, as_value, mentioned)


OF_AN_OBJECT = frozenset(
    """
    constructor init deinit toString valueOf toJSON equals hashCode compareTo
    ToString Equals GetHashCode CompareTo Dispose
    """.split()
)
"""What is called once there is an object: nothing runs because of it."""


def uncalled(program: Program, calls: CallMap, entry: str) -> list[tuple[ProgramFile, Procedure]]:
    """Functions that nothing mentions, where something runs at all."""
    texts = _texts(program) if _looks_names_up(program) else ""
    runs = any(_runs_something(file) for file in program.files) or any(
        name not in OF_AN_OBJECT and _is_started(file, name)
        for name, places in calls.defined.items()
        for file, _ in places
    )
    found = []
    for name, places in calls.defined.items():
        if not name or name in calls.mentioned or name in texts or _called_by_convention(name):
            continue
        if any(_is_started(file, name) for file, _ in places):
            continue
        if not runs and name not in {entry, "main"}:
            continue
        for file, procedure in places:
            if is_constructor(file, procedure) or (file.language.declares and _seen_from_outside(file, procedure)):
                continue
            if not procedure.decorated and not (procedure.in_class and _has_bases(file, procedure)):
                found.append((file, procedure))
    return found


def _is_started(file: ProgramFile, name: str) -> bool:
    """True for a function that the surroundings call by its name."""
    language = file.language
    begins = bool(language.started_prefix) and name.startswith(language.started_prefix)
    return begins or name in language.framework_calls


def _seen_from_outside(file: ProgramFile, procedure: Procedure) -> bool:
    """A page's script may be called from the page, an operator from any expression, a nested function value
    from wherever it is handed to; what reads or sets a field belongs to what a class offers."""
    if file.language.started_by_hand:
        return "Private" not in file.words_before_name(procedure.node) or "_" in procedure.name
    page = bool(file.names.everything & {"document", "window"}) and not file.language.typed
    value = file.tree.kind[file.tree.parent[procedure.node]] in {"argument_list", "pair", "assignment", "dictionary"}
    words = file.words_before_name(procedure.node)
    offered = file.language.methods and "public" in words and re.match(r"(?i:get|set|is)[A-Z]", procedure.name)
    return page or value or bool(offered) or procedure.name.startswith("operator")


def undefined_calls(program: Program, calls: CallMap) -> list[tuple[ProgramFile, int, str, str]]:
    """(file, call node, name, nearest defined name or "") for calls that nothing defines."""
    if program.undefined_calls is None:
        program.undefined_calls = _undefined_calls(program, calls)
    return program.undefined_calls


def _undefined_calls(program: Program, calls: CallMap) -> list[tuple[ProgramFile, int, str, str]]:
    found = []
    for file in program.files:
        tree, language = file.tree, file.language
        known = Spelled([*calls.defined, *language.builtins])
        if "wildcard_import" in tree.kind or (language.methods and "superclasses" in tree.field):
            continue
        for i in file.names.nodes:
            name = tree.text[i]
            called = tree.kind[tree.parent[i]] == language.call and tree.field[i] == language.callee_field
            if not called or name in language.builtins or file.names.role[i] is not Role.READ:
                continue
            if file.names.owner(i) != UNBOUND:
                continue
            if not language.open_library:
                found.append((file, i, name, known.nearest(name)))
            elif name not in calls.defined:
                # Libraries hold more than any list of ours: only what looks like a slip is one.
                meant = known.nearest(name, SLIP_OF_THE_HAND) or _with_letters_swapped(name, calls.defined)
                longer = name.startswith(meant) or meant.startswith(name)
                other = (name[:1].isupper() or longer) and meant not in calls.defined
                if meant and not other:
                    found.append((file, i, name, meant))
    return found


LEAST_LETTERS = 4


def _with_letters_swapped(name: str, defined: Iterable[str]) -> str:
    """The function of the program's whose name has two letters next to each other in another order; "" for none."""
    if len(name) < LEAST_LETTERS:
        return ""
    alike = (other for other in defined if len(other) == len(name) and sorted(other) == sorted(name))
    return next((other for other in alike if OSA.distance(name, other) == 1), "")


SLIP_OF_THE_HAND = 84
"""Likeness (0 to 100) of an unknown name to a known one from which it is taken for a slip."""


class Spelled:
    """Known names as they are compared: without capitals and underscores."""

    def __init__(self, known: Iterable[str]) -> None:
        self.names = [name for name in known if name]
        self.plain = [_plain(name) for name in self.names]

    def nearest(self, name: str, least: float = 70) -> str:
        """The known name most like `name`, or "" where none is like it."""
        best = process.extractOne(_plain(name), self.plain, scorer=fuzz.ratio, score_cutoff=least)
        return self.names[best[2]] if best else ""


def _plain(name: str) -> str:
    return name.replace("_", "").lower()


def redefined(program: Program) -> list[tuple[ProgramFile, list[Procedure]]]:
    """Functions that share a name in one statement list, so that only the last is kept."""
    found = []
    for file in program.files:
        groups: dict[tuple[int, str, str], list[Procedure]] = defaultdict(list)
        for procedure in file.procedures[1:]:
            if not procedure.decorated and procedure.name:
                holder = file.tree.parent[procedure.node]
                if file.tree.kind[holder] in {"declarator", "assignment", "pair"}:
                    continue
                groups[holder, procedure.name, _signature(file, procedure)].append(procedure)
        found += [(file, group) for group in groups.values() if len(group) > 1]
    return found


def _signature(file: ProgramFile, procedure: Procedure) -> str:
    """What tells functions of one name apart where that is possible."""
    named = file.tree.child(procedure.node, "name")
    parameters = file.tree.child(procedure.node, "parameters")
    whole = file.tree.text[named] if named is not None else ""
    if file.language.typed and parameters is not None and file.language.id != "c":
        return whole + " ".join(file.tree.leaf_texts(parameters))
    return whole


def _texts(program: Program) -> str:
    return " ".join(
        text
        for file in program.files
        for kind, text in zip(file.tree.kind, file.tree.text, strict=True)
        if kind in {"string", "string_content"}
    )


def _looks_names_up(program: Program) -> bool:
    reflective = {"getattr", "globals", "locals", "eval", "exec", "vars"}
    return any(file.names.everything & reflective for file in program.files)


def _runs_something(file: ProgramFile) -> bool:
    return any(
        not file.is_definition(s)
        and not file.is_import(s)
        and not file.is_bare_string(s)
        and file.tree.kind[s] not in {"assignment", "export_statement"}
        for s in file.blocks[0].statements
    )


def _called_by_convention(name: str) -> bool:
    return name.startswith(("test_", "__")) or name in {"setUp", "tearDown", "setup", "draw"}


def _has_bases(file: ProgramFile, procedure: Procedure) -> bool:
    return file.tree.child(procedure.parent, "superclasses") is not None
