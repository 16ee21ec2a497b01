"""Conditions that several proofs share: fresh names, stable values, what a scope sees."""

from __future__ import annotations

import itertools
import re
from collections.abc import Iterable, Sequence
from collections.abc import Set as AbstractSet
from pathlib import PurePosixPath

from ...program.flow import Flow, flow_of
from ...program.members import class_name
from ...program.names import UNBOUND, WRITES, Role
from ...program.program import ProgramFile
from .folding import Term
from .quiet import GUARDED, require_quiet, unknown_star_import
from .reach import is_bound_before
from .verdict import Refused


def is_left_by(file: ProgramFile, construct: int, jump: int) -> bool:
    """True where the `break` or `continue` at node `jump` stays inside `construct`, a node around it."""
    kind = file.tree.kind[construct]
    breaks = file.tree.kind[jump] == "break_statement"
    return kind in file.language.loops or (file.language.declares and breaks and kind == "match_statement")


def refuse_reflection(file: ProgramFile) -> None:
    """A program that looks its own names up by text cannot have names moved, nor one that asks where it is lines."""
    tree, used = file.tree, file.names.everything
    if "preprocessor" in tree.kind:
        used |= {word for text in _macros(file) for word in re.findall(r"\w+", text)}
    if "#" in tree.text:
        used |= {f"#{after}" for text, after in itertools.pairwise(tree.text) if text == "#"}
    for name in sorted(used & file.language.reflective):
        raise Refused(f"the program uses {name}, which can see every name or line")


def require_untold(name: str, file: ProgramFile) -> None:
    """`name` may go: no other file mentions it, nor does anything outside of the code."""
    if file.is_used_beside(name) or name in file.told_outside:
        raise Refused(f"{name} is used outside of this program text")


def require_in_reach(file: ProgramFile, function: int, use: int) -> None:
    """Where a file's code stands in pieces that run one after the other, a function is known from its own on."""
    if file.part_of(function) > file.part_of(use):
        raise Refused("the function stands in a later script than a call of it")


def require_fresh(name: str, file: ProgramFile) -> None:
    """`name` must mean nothing in the original: no name of it, no built-in, no keyword."""
    language = file.language
    if language.case_blind:
        blind = name.casefold()
        known = {*file.names.everything, *language.builtins, *language.keywords}
        if any(blind == other.casefold() for other in known):
            raise Refused(f"the name {name} already means something")
    if name in file.names.everything | file.told_outside or name in language.builtins | language.keywords:
        raise Refused(f"the name {name} already means something")
    if file.is_used_beside(name):
        raise Refused(f"the name {name} already means something")


def names_no_variable(file: ProgramFile, node: int) -> bool:
    """True for the name of an argument, or of a member that is none of the program's own variables."""
    role = file.names.role[node]
    return role is Role.KEYWORD or (role is Role.MEMBER and not _imports_itself(file))


def _imports_itself(file: ProgramFile) -> bool:
    """True where the file's own variables may be members of something: of the module that it is."""
    known = file.derived.get("imports itself")
    if known is None:
        itself = {"__main__", PurePosixPath(file.path).stem}
        imports = (n for n, kind in enumerate(file.tree.kind) if kind.startswith("import"))
        by_name = not file.names.everything.isdisjoint({"modules", "import_module"})
        known = by_name or any(not itself.isdisjoint(file.tree.leaf_texts(n)) for n in imports)
        file.derived["imports itself"] = known
    return bool(known)


def require_free(name: str, file: ProgramFile, scope: int, segment: Sequence[int], declared: bool) -> None:
    """`name` must mean nothing in the original, or be a variable of `scope` that nobody needs behind `segment`, of
    which the segment does not speak: a loop there may give it any value. What other functions call theirs is free.
    `declared`: the loop declares it for itself; then only other such loops may speak of it in `scope`."""
    names, tree, language = file.names, file.tree, file.language
    if name in names.everything and declared and language.loops_declare:
        _require_loops_own(name, file, scope, segment)
        return
    if name not in names.everything or not language.object_is_given:
        require_fresh(name, file)
        return
    known = name in language.builtins | language.keywords or name in file.told_outside or file.is_used_beside(name)
    if known or (scope and tree.kind[scope] not in language.procedures):
        raise Refused(f"the name {name} already means something")
    if any(tree.kind[p] in GUARDED for p in file.parents(segment[0]) if p > scope):
        raise Refused(f"{name} may be needed where an error is dealt with")
    flow, start, stop = flow_of(file, scope), segment[0], tree.end[segment[-1]]
    for i in names.nodes:
        if tree.text[i] != name or not scope <= i < tree.end[scope] or names_no_variable(file, i):
            continue
        owner = names.owner(i)
        own = owner == scope == names.scope[i] and names.role[i] in {Role.READ, Role.WRITE}
        if start <= i < stop or not (own or scope < owner):
            raise Refused(f"the name {name} already means something")
    if name in flow.live_after[segment[-1]] | flow.always_live:
        raise Refused(f"the value of {name} is needed later")


def _require_loops_own(name: str, file: ProgramFile, scope: int, segment: Sequence[int]) -> None:
    """In `scope`, `name` stands in nothing but loops that declare it in their heads, none of them around the segment or
    in it."""
    tree, language = file.tree, file.language
    known = name in language.builtins | language.keywords or name in file.told_outside
    if known or any(is_named_by_a_macro(f, name) for f in (file, *file.beside)):
        raise Refused(f"the name {name} already means something")
    start, stop = segment[0], tree.end[segment[-1]]
    for node in range(scope, tree.end[scope]):
        if tree.text[node] != name:
            continue
        if start <= node < stop:
            raise Refused(f"the copies speak of {name} themselves")
        if file.procedure_around(node).node != scope:
            continue
        loops = [p for p in file.parents(node) if p > scope and tree.kind[p] in language.loops]
        apart = [p for p in loops if not p <= start < tree.end[p]]
        if not any(declares_in_its_head(file, loop, name) for loop in apart):
            raise Refused(f"the name {name} already means something")


def declares_in_its_head(file: ProgramFile, loop: int, name: str) -> bool:
    """True for a loop whose head declares a variable that nothing behind the loop knows."""
    tree, names = file.tree, file.names
    body = tree.child(loop, "body")
    if body is None:
        return False
    head = range(loop + 1, body)
    if "var" in tree.text[loop + 1 : body] and file.language.id in {"javascript", "typescript"}:
        return False
    return any(tree.text[i] == name and i in head and names.declared_at(i) for i in names.within(loop, body))


def require_builtin(name: str, file: ProgramFile, scope: int) -> None:
    """`name` used by the suggestion must be the built-in in `scope`."""
    if file.names.owner_of(name, scope) != UNBOUND:
        raise Refused(f"the program gives {name} a meaning of its own")
    if unknown_star_import(file):
        raise Refused(f"a star import might give {name} another meaning")


def scope_of_statement(file: ProgramFile, statement: int) -> int:
    """The procedure (or 0) whose statement this is; a class body or an odd place is refused."""
    language = file.language
    for parent in file.parents(statement):
        kind = file.tree.kind[parent]
        if kind in language.procedures:
            return parent
        if kind in language.classes:
            raise Refused("the copies stand in a class body, where every name is an attribute")
    return 0


HARMLESS_CALLS = frozenset(
    """
    println print printf format parseInt parseDouble nextInt nextLine nextDouble next equals equalsIgnoreCase length
    charAt substring add get set size put contains indexOf toUpperCase toLowerCase trim split abs max min pow sqrt
    round random floor ceil WriteLine Write ReadLine Parse ToString
    """.split()
)
"""Calls of the libraries that need no handler, as a compiler sees it."""


def require_same_class(after: ProgramFile, function: int, segment: Sequence[int], before: ProgramFile) -> None:
    """The new method stands in the class of the copies, is at home where they are (with or without an object),
    and no call that it takes over might need a handler that it does not have."""
    member = member_around(before, segment[0])
    if class_of(after, function) != class_of(before, member):
        raise Refused("the new method stands in another class")
    static = "static" in after.words_before_name(function)
    if "static" in before.words_before_name(member) and not static:
        raise Refused("the new method needs an object where there is none")
    if static and any(before.tree.kind[n] == "this" for n in range(segment[0], before.tree.end[segment[-1]])):
        raise Refused("the copies use the object they belong to")
    require_same_errors(after, function, member, segment, before)


def require_same_errors(
    after: ProgramFile, function: int, member: int, segment: Sequence[int], before: ProgramFile
) -> None:
    """The new method hands on what the copies may raise, and takes over no call that might need a handler."""
    if before.tree.child(member, "type_parameters") is not None:
        raise Refused("the copies stand in a method with types of its own")
    tree = before.tree
    guarded = any(tree.kind[p] == "try_statement" for p in before.parents(segment[0]))
    throws = [tree.text[c] for c in tree.children(member) if tree.kind[c] == "throws"]
    own = {p.name for p in before.procedures}
    calls = {
        before.called_name(n)
        for n in range(segment[0], tree.end[segment[-1]])
        if tree.kind[n] in {before.language.call, "new_expression"}
    }
    if before.language.id == "java" and guarded and calls - HARMLESS_CALLS - own - {""}:
        raise Refused("the copies call what may need the handler around them")
    given = [after.tree.text[c] for c in after.tree.children(function) if after.tree.kind[c] == "throws"]
    if throws != given:
        raise Refused("the new method does not hand on the errors that the copies may raise")


def member_around(file: ProgramFile, statement: int) -> int:
    """The method of a class that a statement stands in."""
    tree, language = file.tree, file.language
    around = [p for p in file.parents(statement) if tree.kind[p] in language.procedures]
    if len(around) != 1 or tree.kind[tree.parent[tree.parent[around[0]]]] not in language.classes:
        raise Refused("the copies stand in no plain method of a class")
    return around[0]


def class_of(file: ProgramFile, member: int) -> str:
    """The name of the class that a method stands in."""
    return class_name(file, file.tree.parent[file.tree.parent[member]])


def require_unseen_until(file: ProgramFile, name: str, segment: Sequence[int]) -> None:
    """The program's variable `name` may be given its value at the end of the segment: nothing that runs before could
    see it, as no function of the program is called there, and none runs by itself."""
    language, tree = file.language, file.tree
    if not language.changes_unseen or file.names.everything & {"attachInterrupt", "signal", "setjmp", "longjmp", "ISR"}:
        raise Refused(f"the copies change {name}, which belongs further out")
    if not language.struct_values:
        require_quiet(file, name, segment)
        return
    own = {p.name for f in (file, *file.beside) for p in f.procedures}
    kinds = {"address_of", "dereference", "asm_statement", "gnu_asm_expression"}
    for node in (n for s in segment for n in range(s, tree.end[s])):
        called = file.called_name(node) if tree.kind[node] == language.call else None
        if called is not None and (called in own or called not in language.builtins | LIBRARY_MEMBERS):
            raise Refused(f"{called} could see that {name} changes")
        if tree.kind[node] in kinds:
            raise Refused(f"the copies use an address, by which {name} could be seen")
    pointed = any(kind == "address_of" and name in tree.leaf_texts(n) for n, kind in enumerate(tree.kind))
    declaring = [n for n in file.names.nodes if tree.text[n] == name and file.names.declared_at(n)]
    words = {t for n in declaring for p in file.parents(n)[:2] for t in tree.leaf_texts(p)}
    if pointed or not declaring or {"volatile", "extern", "*", "&"} & words or is_named_by_a_macro(file, name):
        raise Refused(f"{name} may be seen by what runs elsewhere")


LIBRARY_MEMBERS = frozenset("print println begin available read write flush printf".split())
"""Calls of a board's library through its objects."""


def declared_global_somewhere(file: ProgramFile, name: str) -> bool:
    """True where some function may rebind the module's `name`, or an inner one its surroundings'."""
    return any(name in sent for sent in file.names.outward.values())


def may_be_changed_elsewhere(file: ProgramFile, name: str) -> bool:
    """True where a function of another file, or of another class, may give the program's `name` another value."""
    keeps_to_itself = file.language.id == "python" or file.is_module
    for other in () if keeps_to_itself else file.beside:
        if declared_global_somewhere(other, name):
            return True
        if file.language.implicit_locals and _gives(other, name):
            return True
    return any(_gives_a_member(other, name, PurePosixPath(file.path).stem) for other in (file, *file.beside))


def _gives(file: ProgramFile, name: str) -> bool:
    """True where the file gives a variable of this name a value that it may not have declared itself."""
    names, blind = file.names, name.casefold()
    return any(names.role[i] in WRITES and file.tree.text[i].casefold() == blind for i in names.nodes)


def _gives_a_member(file: ProgramFile, name: str, module: str) -> bool:
    """True where a value is given to something's member `name` that may be the program's variable of that name: of
    whatever object or class; of the module itself in Python, of the page's window in JavaScript."""
    tree, names, language = file.tree, file.names, file.language
    language = file.language
    bases = {"python": {module}, "javascript": TOPS, "typescript": TOPS}.get(language.id)
    for i in names.nodes:
        if tree.text[i] != name or names.role[i] is not Role.MEMBER:
            continue
        attribute = tree.parent[i]
        around = tree.kind[tree.parent[attribute]]
        given = around in GIVING and (tree.field[attribute] == "left" or around in {"update", "unary_operator"})
        base, around_it = tree.text[attribute + 1], file.procedure_around(i)
        # A constructor's own object is a new one; in a script's class `this` is no window.
        making = language.methods and around_it.name == class_of(file, around_it.node)
        own = base == "this" and (making or (bases is TOPS and around_it.in_class))
        if given and not own and (bases is None or base in bases):
            return True
    return False


TOPS = {"window", "globalThis", "self", "this"}
"""What the top of a page's scripts is called, where functions are no methods."""
GIVING = {"assignment", "augmented_assignment", "named_expression", "update", "unary_operator"}


def require_stable_name(file: ProgramFile, flow: Flow, name: str, first: int, written: Iterable[str]) -> None:
    """Reading `name` before statement `first` must give what reading it later in the copies gives."""
    if name in set(written):
        raise Refused(f"{name} changes between the copies")
    owner = file.names.owner_of(name, flow.scope)
    if owner == UNBOUND:
        known = name in file.language.builtins or file.language.names_a_constant(name)
        if not known and not _stays_with_its_object(file, first):
            raise Refused(f"{name} has no value there")
        return
    if owner not in (flow.scope, 0):
        raise Refused(f"{name} belongs to a function further out")
    if declared_global_somewhere(file, name) or (owner == 0 and may_be_changed_elsewhere(file, name)):
        raise Refused(f"another function may change {name}")
    if owner == flow.scope:
        if name not in flow.bound_before.get(first, frozenset()):
            raise Refused(f"{name} may have no value yet before the copies")
    elif not is_bound_before(file, name, flow.scope):
        raise Refused(f"{name} may have no value yet")


def _stays_with_its_object(file: ProgramFile, first: int) -> bool:
    """True where what the surroundings keep for an object is read, and the statements from `first` on only call what
    leaves such variables alone."""
    tree, language = file.tree, file.language
    if not language.quiet_calls or "with_statement" in tree.kind:
        return False
    own = {p.name for f in (file, *file.beside) for p in f.procedures}
    called = {file.called_name(n) for n in range(first, tree.end[tree.parent[first]]) if tree.kind[n] == language.call}
    return all(re.fullmatch(language.quiet_calls, name) and name not in own for name in called)


def require_order(file: ProgramFile, statements: Sequence[int], order: Sequence[int]) -> None:
    """These statements may run in another order: `order` tells their places."""
    for i, b in enumerate(order):
        for a in order[i + 1 :]:
            if a < b:
                require_independent(file, statements[a], statements[b])


def require_independent(file: ProgramFile, first: int, second: int) -> None:
    """Two statements may change places only as assignments of values without effects, neither of which
    reads or writes what the other writes, in a program without classes whose operators could do more."""
    tree, language = file.tree, file.language
    own_operators = language.id not in {"java", "c"}
    has_classes = any(p.in_class for p in file.procedures) or any(kind in language.classes for kind in tree.kind)
    if own_operators and has_classes:
        raise Refused("the order of its lines matters in a program with classes of its own")
    uses = []
    for statement in (first, second):
        left, right = tree.child(statement, "left"), tree.child(statement, "right")
        if tree.kind[statement] == "declaration" and file.language.declares:
            declarators = [c for c in tree.children(statement) if tree.kind[c] == "declarator"]
            if len(declarators) == 1 and tree.child(declarators[0], "right") is not None:
                left, right = tree.child(declarators[0], "left"), tree.child(declarators[0], "right")
        elif tree.kind[statement] != "assignment":
            raise Refused(f"line {tree.start_line(statement)} cannot change places with another")
        if left is None or right is None or tree.kind[left] != "identifier":
            raise Refused(f"line {tree.start_line(statement)} cannot change places with another")
        for node in range(right, tree.end[right]):
            if tree.kind[node] == "call":
                callee = tree.child(node, "function")
                known = callee is not None and tree.text[callee] in language.pure_calls
                if not known or callee is None or file.names.owner(callee) != UNBOUND or unknown_star_import(file):
                    raise Refused(f"line {tree.start_line(statement)} calls what may have effects")
            elif tree.kind[node] == language.keyword_argument[0] and tree.text[node + 1] == "key":
                # `sorted(boats, key=show)` calls what it is given.
                raise Refused(f"line {tree.start_line(statement)} calls what may have effects")
            elif tree.kind[node] in language.suspending | NEVER_PASSED:
                raise Refused(f"line {tree.start_line(statement)} cannot change places with another")
        everything = {tree.text[i] for i in file.names.within(statement, tree.end[statement])}
        uses.append((everything, tree.text[left]))
    if uses[0][1] in uses[1][0] or uses[1][1] in uses[0][0]:
        raise Refused("two lines that change places have to do with each other")
    shared = (uses[0][0] & uses[1][0]) - language.builtins
    if shared and _may_hold_iterators(file):
        raise Refused(f"{min(shared)} might be used up by the line that comes first")
    for parent in file.parents(first):
        if tree.kind[parent] in {"try_statement", "with_statement"}:
            raise Refused("lines change places inside a try block")


NEVER_PASSED = frozenset(
    {"named_expression", "lambda", "update", "augmented_assignment", "new_expression", "address_of"}
)
"""Parts of a value that do something, or make something of their own."""
ITERATOR_CALLS = frozenset({"iter", "map", "filter", "zip", "reversed", "enumerate", "open", "next"})
PLAIN_MODULES = frozenset({"math", "random", "time", "datetime", "string", "statistics", "turtle", "sys"})


def _may_hold_iterators(file: ProgramFile) -> bool:
    """True where some variable could hold what is used up by reading it: a generator, an open file."""
    tree, language = file.tree, file.language
    for node, kind in enumerate(tree.kind):
        if kind in language.suspending or (kind == "generator_expression" and not _is_only_argument(file, node)):
            return True
        if kind == "call" and file.called_name(node) in ITERATOR_CALLS:
            header = tree.kind[tree.parent[node]] == "for_statement" and tree.field[node] == "right"
            if not header:
                return True
        if kind in language.imports:
            modules = {tree.text[i] for i in file.names.within(node, tree.end[node])}
            if not modules & PLAIN_MODULES:
                return True
    return False


def _is_only_argument(file: ProgramFile, node: int) -> bool:
    """True for the generator in `sum(x for x in …)`, which nothing else can see."""
    return file.tree.kind[file.tree.parent[node]] == "call"


def names_behind_macros(file: ProgramFile, statements: Iterable[int]) -> set[str]:
    """The names for which macros stand that the statements use, be it through other macros."""
    tree = file.tree
    macros: dict[str, set[str]] = {}
    for text in _macros(file):
        parts = re.match(r"#\s*define\s+(\w+)(?:\(([^)]*)\))?(.*)", text, re.DOTALL)
        if parts is not None:
            macros[parts[1]] = set(re.findall(r"\w+", parts[3])) - set(re.findall(r"\w+", parts[2] or ""))
    if not macros:
        return set()
    waiting = {t for s in statements for t in tree.text[s : tree.end[s]] if t in macros}
    found: set[str] = set()
    while waiting:
        words = macros[waiting.pop()] - found
        found |= words
        waiting |= words & macros.keys()
    return found


def is_named_by_a_macro(file: ProgramFile, name: str) -> bool:
    """True where a macro may mention a name that is not seen in the place where it is used."""
    return any(re.search(rf"\b{re.escape(name)}\b", text) for text in _macros(file))


def _macros(file: ProgramFile) -> list[str]:
    """The lines for the preprocessor."""
    return [text for kind, text in zip(file.tree.kind, file.tree.text, strict=True) if kind == "preprocessor"]


def never_changes(file: ProgramFile, name: str, scope: int) -> bool:
    """True for a name that `scope` sees with one value for good: it is given one once, or as a parameter."""
    names, tree, owner = file.names, file.tree, file.names.owner_of(name, scope)
    given = [i for i in names.nodes if tree.text[i] == name and names.owner(i) == owner and names.role[i] in WRITES]
    if len(given) != 1 or declared_global_somewhere(file, name) or file.is_used_beside(name):
        return False
    around = file.parents(given[0])
    looped = any(p > max(owner, 0) and tree.kind[p] in file.language.loops for p in around)
    anew = any({"let", "const"} & {tree.text[c] for c in tree.children(p)} for p in around[:2])
    return not looped or (anew and names.declared_at(given[0]))


def names_written(file: ProgramFile, statements: Iterable[int], scope: int) -> set[str]:
    """Names of `scope` that the statements bind."""
    names, tree = file.names, file.tree
    return {
        tree.text[i]
        for s in statements
        for i in names.within(s, tree.end[s])
        if names.role[i] in (Role.WRITE, Role.UPDATE) and names.owner(i) == scope
    }


def require_same_owners(
    before: ProgramFile, after: ProgramFile, old: int, new: int, introduced: AbstractSet[str]
) -> None:
    """No name left in a changed scope, which was `old` and is `new`, may now mean a variable further out."""
    names = after.names
    left = {after.tree.text[i] for i in names.nodes if names.scope[i] == new and names.role[i] <= Role.DECLARATION}
    for name in sorted(left - introduced):
        was, now = before.names.owner_of(name, old), names.owner_of(name, new)
        if (was == old) != (now == new) or (was == UNBOUND) != (now == UNBOUND):
            raise Refused(f"{name} would mean another variable afterwards")


def names_of_inner_scopes(file: ProgramFile, statements: Iterable[int]) -> set[str]:
    """Names that comprehensions, lambdas or definitions inside the statements bind for themselves."""
    tree, language = file.tree, file.language
    inner = language.scopes | language.procedures | language.classes
    result: set[str] = set()
    for s in statements:
        for node in range(s, tree.end[s]):
            if tree.kind[node] in inner:
                result |= file.names.bound.get(node, set())
    return result


def names_used_by_inner_functions(file: ProgramFile, statements: Iterable[int]) -> set[str]:
    """Names used where they are read later than they stand: in lambdas, definitions, generators."""
    tree, language = file.tree, file.language
    late = language.procedures | language.classes | {"lambda", "generator_expression"}
    return {
        tree.text[i]
        for s in statements
        for node in range(s, tree.end[s])
        if tree.kind[node] in late
        for i in file.names.within(node, tree.end[node])
    }


def names_in(term: Term) -> set[str]:
    """All identifiers of a term."""
    if term[0] == "identifier":
        return {str(term[1])}
    return {name for part in term[1:] if isinstance(part, tuple) for name in names_in(part)}
