"""What the proof must know where variables are declared: their extents, their types, counting loops, arrays.

Names are looked up by procedure, not by block. That is the whole truth only where no name is declared
so that one use could mean either of two variables, which `require_simple_scopes` makes sure of.
"""

from __future__ import annotations

from collections.abc import Iterable, Sequence

from ...program.members import members_named
from ...program.names import UNBOUND, Role
from ...program.program import ProgramFile
from ...program.types import Type, declared_type, result_type, type_of_expression, type_of_name
from .folding import Term, integer_value
from .terms import is_literal, term_of
from .verdict import Refused

NEW_ARRAYS = frozenset({"array_creation_expression", "implicit_array_creation_expression"})
MOST_TURNS = 5000


def require_simple_scopes(file: ProgramFile, scope: int) -> None:
    """Every use of a variable of `scope` lies in the extent of exactly one of its declarations."""
    if ("simple", scope) not in file.derived:
        file.derived["simple", scope] = _not_simple(file, scope)
    wrong = file.derived["simple", scope]
    if wrong:
        raise Refused(f"{wrong} means different variables in different places")


def _not_simple(file: ProgramFile, scope: int) -> str:
    names, tree = file.names, file.tree
    extents: dict[str, list[tuple[int, int]]] = {}
    uses: dict[str, list[int]] = {}
    for i in names.nodes:
        if names.role[i] > Role.PARAMETER or names.owner(i) != scope:
            continue
        name = tree.text[i]
        uses.setdefault(name, []).append(i)
        if names.scope[i] == scope and names.declared_at(i):
            extents.setdefault(name, []).append(_extent(file, i, scope))
    for name, found in uses.items():
        known = list(dict.fromkeys(extents.get(name, [])))
        if scope == 0 and _is_used_too_early(file, name, found):
            return name
        if not known and (scope == 0 or file.language.implicit_locals):
            continue
        if any(sum(a <= use < b for a, b in known) != 1 for use in found):
            return name
    return ""


def _is_used_too_early(file: ProgramFile, name: str, uses: Sequence[int]) -> bool:
    """True for a variable that the loose code declares with `let` or `const` only after using it: what such a script
    does ends there."""
    names, tree = file.names, file.tree
    declared = [i for i in uses if names.scope[i] == 0 and names.declared_at(i)]
    around = [next((p for p in file.parents(i) if tree.kind[p] == "declaration"), 0) for i in declared]
    late = [p for p in around if p and tree.parent[p] == 0 and tree.text[p + 1] in {"let", "const"}]
    return bool(late) and any(i < late[0] and names.scope[i] == 0 for i in uses)


def _extent(file: ProgramFile, node: int, scope: int) -> tuple[int, int]:
    """From a declaration to the end of the block, loop or handler around it; the whole procedure for parameters,
    definitions and for what `var` declares."""
    tree, language = file.tree, file.language
    whole = (scope, tree.end[scope])
    if file.names.role[node] is Role.PARAMETER or language.implicit_locals:
        return whole
    start = node
    for parent in file.parents(node):
        kind = tree.kind[parent]
        if kind in language.procedures | language.classes | language.fields:
            return whole
        if kind == "declaration" and not language.typed and any(tree.text[c] == "var" for c in tree.children(parent)):
            return whole
        if kind in language.blocks and scope == 0 and parent == 0:
            return whole
        if kind in language.blocks or kind in {"counting_loop", "for_statement", "except_clause"}:
            return (start, tree.end[parent])
        start = parent if kind in {"declaration", "declarator"} else start
    return whole


def refuse_aliases(file: ProgramFile, segment: Sequence[int]) -> None:
    """A variable that has a second name, through a reference or a pointer, may change without being named."""
    if "aliases" not in file.derived:
        file.derived["aliases"] = _aliased(file) if file.language.struct_values else frozenset()
    aliased = file.derived["aliases"]
    assert isinstance(aliased, frozenset)
    for s in segment:
        for i in file.names.within(s, file.tree.end[s]) if aliased else ():
            if file.tree.text[i] in aliased:
                raise Refused(f"{file.tree.text[i]} has a second name")


def _aliased(file: ProgramFile) -> frozenset[str]:
    """Variables with a reference to them, or whose address is kept; and those references."""
    tree, names = file.tree, file.names
    found: set[str] = set()
    for node, kind in enumerate(tree.kind):
        if kind == "reference_declarator":
            declarator = tree.parent[node]
            if tree.kind[declarator] == "declarator":
                found |= {tree.text[i] for i in names.within(declarator, tree.end[declarator])}
            elif tree.kind[declarator] == "for_statement":
                found |= {tree.text[i] for i in names.within(node, tree.end[node])}
        if kind == "address_of" and tree.kind[tree.parent[node]] != "argument_list":
            found |= {tree.text[i] for i in names.within(node, tree.end[node])}
    return frozenset(found)


def require_free_standing(file: ProgramFile, segment: Sequence[int], scope: int) -> None:
    """Nothing declared in the copies is used outside them, where a loop's block would hide it."""
    refuse_aliases(file, segment)
    require_simple_scopes(file, scope)
    if not segment:
        return
    names, tree = file.names, file.tree
    start, stop = segment[0], tree.end[segment[-1]]
    mine = {tree.text[i] for i in names.within(start, stop) if names.scope[i] == scope and names.declared_at(i)}
    for i in names.nodes:
        if tree.text[i] in mine and not start <= i < stop and names.owner(i) == scope and i > stop:
            raise Refused(f"{tree.text[i]} is declared in the copies and used after them")
    for node in range(start, stop):
        if tree.kind[node] in {"goto_statement", "labeled_statement", "preprocessor"} or tree.text[node] == "static":
            raise Refused("the copies hold a label, a jump, or something that is kept from call to call")


def counted(file: ProgramFile, loop: int) -> tuple[str, list[int]]:
    """The variable of a counting loop and the numbers it runs through. Raises Refused for any other loop."""
    tree = file.tree
    initializer, test, update = (tree.child(loop, f) for f in ("initializer", "condition", "update"))
    if initializer is None or test is None or update is None or tree.kind[initializer] != "declaration":
        raise Refused("the loop has an unusual form")
    name, value = _only_declarator(file, initializer)
    if value is None:
        raise Refused("the loop has an unusual form")
    first = integer_value(term_of(file, value))
    condition = term_of(file, test)
    step = _step(term_of(file, update), name)
    variable = ("identifier", name)
    if condition[0] != "binary_operator" or len(condition) != 4 or condition[1] != variable or first is None:
        raise Refused("the loop has an unusual form")
    operator, bound = condition[2], condition[3]
    limit = integer_value(bound) if isinstance(bound, tuple) else None
    if limit is None or step is None or not isinstance(operator, tuple):
        raise Refused("the loop does not count between plain numbers")
    numbers = _numbers(first, str(operator[1]), limit, step)
    kind = _type_at(file, initializer, name)
    if kind is not None:
        fits = {"int": 2**15 - 1 if file.language.id == "arduino" else 2**31 - 1, "byte": 255}.get(kind.base)
        last = numbers[-1] + step
        if fits is None or kind.pointers or kind.dimensions or max(map(abs, (*numbers, last, limit))) > fits:
            raise Refused("the loop's numbers do not fit its variable")
        if kind.base == "byte" and (file.language.id != "arduino" or min(*numbers, last, limit) < 0):
            raise Refused("the loop's numbers do not fit its variable")
    return name, numbers


def binds_anew(file: ProgramFile, loop: int) -> bool:
    """True for a loop that has another variable in each turn, so that what a function inside it keeps never changes."""
    tree, language = file.tree, file.language
    if language.id in {"javascript", "typescript"}:
        head = tree.child(loop, "initializer") if tree.kind[loop] == "counting_loop" else loop
        return head is not None and any(tree.text[c] in {"let", "const"} for c in tree.children(head))
    return language.id in {"swift", "csharp"} and tree.kind[loop] == "for_statement"


def repeats(file: ProgramFile, loop: int) -> int | None:
    """How often a game script's `repeat (4) { … }` runs; None for any other loop, or where that is not in sight."""
    tree = file.tree
    written = tree.source[tree.start_byte[loop] : tree.start_byte[loop] + 6]
    if file.language.id != "gamescript" or tree.kind[loop] != "while_statement" or written != b"repeat":
        return None
    condition = tree.child(loop, "condition")
    times = integer_value(term_of(file, condition)) if condition is not None else None
    return times if times is not None and 0 < times <= 5000 else None


def _numbers(first: int, operator: str, limit: int, step: int) -> list[int]:
    tests = {"<": int.__lt__, "<=": int.__le__, ">": int.__gt__, ">=": int.__ge__}
    if operator not in tests or step == 0:
        raise Refused("the loop has an unusual form")
    numbers = []
    while tests[operator](first, limit):
        numbers.append(first)
        first += step
        if len(numbers) > MOST_TURNS:
            raise Refused("the loop runs too often")
    if not numbers:
        raise Refused("the loop never runs")
    return numbers


def _step(term: Term, name: str) -> int | None:
    variable = ("identifier", name)
    if term[0] == "update" and len(term) == 3 and variable in term:
        return 1 if ("++", "++") in term else -1
    if term[0] == "augmented_assignment" and len(term) == 4 and term[1] == variable:
        number = integer_value(term[3]) if isinstance(term[3], tuple) else None
        sign = {("+=", "+="): 1, ("-=", "-="): -1}.get(term[2])  # type: ignore[call-overload]
        return None if number is None or sign is None else int(sign) * number
    return None


def require_own_variable(file: ProgramFile, loop: int) -> None:
    """A loop over values declares its variable, of the values' own type."""
    tree = file.tree
    if file.language.implicit_locals:
        return
    if not any(tree.field[c] in {"kind", "type"} for c in tree.children(loop)):
        raise Refused("the loop's variable is not its own")
    if any(tree.kind[c] == "where_clause" for c in tree.children(loop)):
        raise Refused("the loop leaves some of its values out")
    if any(tree.text[c] == "in" for c in tree.children(loop)) and not file.language.typed:
        raise Refused("the loop runs through positions, not values")
    if file.language.value_types:
        _require_columns_of_one_type(file, loop)
    elif file.language.typed:
        target, values = tree.child(loop, "left"), tree.child(loop, "right")
        kind = declared_type(file, target) if target is not None else None
        listed = next((c for c in range(values or loop, tree.end[loop]) if tree.kind[c] == "list"), None)
        if kind is None or listed is None or values is None or tree.kind[values] not in NEW_ARRAYS:
            raise Refused("the loop's values are not in sight")
        _require_all_of(file, listed, kind)


def declares_only(file: ProgramFile, statement: int, names: set[str]) -> bool:
    """True where a statement declares, without a value, one variable of `names` (which is taken out of them) or
    several."""
    tree = file.tree
    if tree.kind[statement] != "declaration":
        return False
    found = {tree.text[i] for i in file.names.within(statement, tree.end[statement]) if file.names.declared_at(i)}
    if not found or found - names or "right" in tree.field[statement : tree.end[statement]]:
        return False
    if any(tree.text[n] in {"New", "Static", "Const"} for n in range(statement, tree.end[statement])):
        return False
    names -= found
    return True


def asks_for_declarations(file: ProgramFile) -> bool:
    """True where every variable of the file must be declared."""
    texts = zip(file.tree.kind, file.tree.text, strict=True)
    return any(kind == "preprocessor" and "explicit" in text.lower() for kind, text in texts)


def require_variable(file: ProgramFile, name: str, scope: int, counts: bool) -> None:
    """Where loops use variables of their procedure: it is declared if the file asks for it, and of a type that
    holds a whole number as such (`counts`), or anything as it is."""
    names = file.names
    told = any(file.tree.text[i] == name and names.scope[i] == scope and names.declared_at(i) for i in names.nodes)
    if not told and (asks_for_declarations(file) or scope == 0):
        raise Refused(f"{name} would have to be declared")
    kind = type_of_name(file, name, scope)
    fits = {*file.language.types.ranks[1:3], file.language.untyped} if counts else {file.language.untyped}
    if kind is None or kind.dimensions or kind.base not in fits:
        raise Refused(f"{name} is of a type that might change its values")


def is_list_call(before: ProgramFile, file: ProgramFile, node: int, scope: int) -> bool:
    """True for the language's own call that makes a list, which counts from 0 unless the file says otherwise."""
    tree, name = file.tree, file.language.list_call
    callee = tree.child(node, "function")
    if not name or callee is None or tree.text[callee] != name or tree.kind[callee] != "identifier":
        return False
    if before.names.owner_of(name, scope) != UNBOUND:
        raise Refused(f"the program gives {name} a meaning of its own")
    if any(k == "preprocessor" and "base" in t.lower() for k, t in zip(tree.kind, tree.text, strict=True)):
        raise Refused("lists of the program might not count from 0")
    return True


def _require_columns_of_one_type(file: ProgramFile, loop: int) -> None:
    """A list of plain literals gives each of them one type: their own, if it is the same for all."""
    tree = file.tree
    values = tree.child(loop, "right")
    if values is None or tree.kind[values] != "list":
        return
    rows = [c for c in tree.children(values) if tree.text[c] not in {"[", "]", ","}]
    parts = [tree.items(row) if tree.kind[row] == "tuple" else [row] for row in rows]
    for column in zip(*parts, strict=False):
        found = {type_of_expression(file, c) for c in column}
        if len(found) != 1 or None in found:
            raise Refused("the loop's values are of different types, or of one that is not in sight")


def ranged(before: ProgramFile, file: ProgramFile, node: int, scope: int) -> list[int]:
    """The numbers of a `counting_range`: from the first by a step (1 where none is told) up to the last, or up
    to but not including the limit. A function that it calls by name must be the language's own in `before`."""
    tree = file.tree
    parts = {tree.field[c]: integer_value(term_of(file, c)) for c in tree.children(node) if tree.field[c]}
    for c in tree.children(node):
        name = tree.text[c]
        if tree.kind[c] == "identifier" and not tree.field[c] and before.names.owner_of(name, scope) != UNBOUND:
            raise Refused(f"the program gives {name} a meaning of its own")
    first, step = parts.get("first"), parts.get("step", 1)
    end = parts["last"] if "last" in parts else parts.get("limit")
    if first is None or step is None or end is None or not step:
        raise Refused("the loop does not count between plain numbers")
    downwards = {True: (">", ">="), False: ("<", "<=")}[step < 0]
    numbers = _numbers(first, downwards["last" in parts], end, step)
    if max(map(abs, (*numbers, end, numbers[-1] + step))) > file.language.types.widest:
        raise Refused("the loop's numbers do not fit its variable")
    return numbers


def without_labels(file: ProgramFile, function: int, given: Sequence[int]) -> list[int]:
    """The values of a call whose labels, where the language has them, are those of the function's parameters."""
    tree = file.tree
    if not file.language.value_types:
        return list(given)
    parameters = tree.child(function, "parameters")
    wanted = [c for c in tree.items(parameters) if tree.kind[c] == "typed_parameter"] if parameters is not None else []
    if len(wanted) != len(given):
        raise Refused("a call gives another number of values than its function takes")
    values = []
    for parameter, value in zip(wanted, given, strict=True):
        told, own = tree.child(parameter, "label"), tree.child(parameter, "name")
        label = tree.text[told if told is not None else own or 0]
        found = tree.child(value, "name") if tree.kind[value] == "labelled_argument" else None
        if (tree.text[found] if found is not None else "_") != label:
            raise Refused("a call labels a value otherwise than its function does")
        inner = tree.child(value, "value") if found is not None else value
        if inner is None:
            raise Refused("a call has an unusual form")
        values.append(inner)
    return values


def refuse_members(file: ProgramFile, segment: Sequence[int]) -> None:
    """What a class's methods name without an object is out of sight for a function outside the class."""
    tree, language = file.tree, file.language
    if language.methods or not any(tree.kind[p] in language.classes for p in file.parents(segment[0])):
        return
    for name in members_named(file, segment)[:1]:
        raise Refused(f"{name} belongs to the object that the copies work for")


def only_name(file: ProgramFile, statement: int) -> str:
    """The one variable that a declaration declares; "" for anything else."""
    if file.tree.kind[statement] != "declaration":
        return ""
    try:
        return _only_declarator(file, statement)[0]
    except Refused:
        return ""


PLAIN_TYPES = frozenset(
    """
    let var int long short byte char float double bool boolean String string number decimal unsigned signed size_t
    std::string word
    """.split()
)


def is_plainly_declared(file: ProgramFile, statement: int) -> bool:
    """True where a variable of a plain type is declared, so that to declare it anew is to give it another value; a
    type that is only told by the value might be another one each time."""
    tree, language = file.tree, file.language
    words: list[str] = []
    for child in tree.children(statement):
        if tree.kind[child] == "declarator":
            break
        words += [w for text in tree.leaf_texts(child) for w in text.split()]
    if language.typed and {"var", "auto", "let"} & set(words):
        return False
    # Where objects are handed about by reference, no variable is more than a name for a value.
    named = language.methods and not language.struct_values and not KEPT & set(words)
    return bool(words) and (named or set(words) <= PLAIN_TYPES)


def is_constant(file: ProgramFile, name: str, scope: int) -> bool:
    """True for a variable that is declared never to change: scripts find out only when they give it another value."""
    names, tree = file.names, file.tree
    owner = names.owner_of(name, scope)
    declared = [i for i in names.nodes if tree.text[i] == name and names.owner(i) == owner and names.declared_at(i)]
    around = [p for i in declared for p in file.parents(i)[:2] if "declar" in tree.kind[p] or tree.kind[p] == "field"]
    return any(tree.text[c] == "const" for p in around for c in tree.children(p))


KEPT = frozenset({"static", "const", "final", "readonly", "volatile"})


def _only_declarator(file: ProgramFile, declaration: int) -> tuple[str, int | None]:
    """(name, value node) of a declaration of one variable."""
    tree = file.tree
    found = [i for i in file.names.within(declaration, tree.end[declaration]) if file.names.declared_at(i)]
    if len(found) != 1:
        raise Refused("several variables are declared at once")
    declarator = next((p for p in file.parents(found[0]) if tree.kind[p] == "declarator" and p > declaration), None)
    return tree.text[found[0]], tree.child(declarator, "right") if declarator is not None else None


def _type_at(file: ProgramFile, declaration: int, name: str) -> Type | None:
    if not file.language.typed:
        return None
    names = file.names
    node = next(i for i in names.within(declaration, file.tree.end[declaration]) if file.tree.text[i] == name)
    return declared_type(file, node)


def table_name(file: ProgramFile, statement: int) -> str:
    """The variable that a statement before a loop gives a list: in a declaration, or where lists are made by a
    call, in an assignment; "" for anything else."""
    tree = file.tree
    if not file.language.list_call:
        return only_name(file, statement)
    left = tree.child(statement, "left") if tree.kind[statement] == "assignment" else None
    return tree.text[left] if left is not None and tree.kind[left] == file.language.name else ""


def table_of(before: ProgramFile, after: ProgramFile, declaration: int, follows: int | None) -> Term:
    """The values of a list that a variable is given before a loop, as ("table", value, …)."""
    tree = after.tree
    if after.language.list_call:
        right = tree.child(declaration, "right")
        if right is None or follows is None or not is_list_call(before, after, right, 0):
            raise Refused("a list that the loop needs is not in sight")
        terms = tuple(term_of(after, c) for c in tree.items(tree.child(right, "arguments") or right))
        if not all(is_literal(term) or term[0] == "identifier" for term in terms):
            raise Refused("a value in a list is worked out on the spot")
        return ("table", *terms)
    name, value = _only_declarator(after, declaration)
    if value is None or follows is None:
        raise Refused("a list that the loop needs has no values")
    listed = value
    if tree.kind[value] in NEW_ARRAYS:
        listed = next((c for c in tree.children(value) if tree.kind[c] == "list"), value)
    if tree.kind[listed] != "list":
        raise Refused("a list that the loop needs is not in sight")
    if after.language.typed:
        kind = _type_at(after, declaration, name)
        element = kind.element() if kind and kind.dimensions in {("",)} else None
        if element is None:
            raise Refused("a list that the loop needs has no plain type")
        _require_all_of(after, listed, element)
    terms = tuple(term_of(after, c) for c in tree.children(listed) if tree.text[c] not in {"[", "]", "{", "}", ","})
    for term in terms:
        if not is_literal(term) and term[0] not in {"identifier", "attribute"}:
            raise Refused("a value in a list is worked out on the spot")
    return ("table", *terms)


def _require_all_of(file: ProgramFile, listed: int, kind: Type) -> None:
    """Every value of a list is of the type exactly, so that taking it from the list changes nothing."""
    tree = file.tree
    for child in tree.children(listed):
        if tree.text[child] in {"{", "}", "[", "]", ","}:
            continue
        if type_of_expression(file, child) != kind:
            raise Refused("a value in a list is of another type than the list")


def require_no_value_lost(file: ProgramFile, segment: Sequence[int], in_loop: bool) -> None:
    """Where the last statement of a body is its value, and one at the top is shown: nobody misses the values of
    the copies. A call of a function has the value of its last statement, a loop has none."""
    at_top = file.tree.parent[segment[0]] == 0
    last_of_all = file.block_at[file.tree.parent[segment[0]]].statements[-1] == segment[-1]
    shown = segment if in_loop else segment[:-1]
    if at_top and file.language.shows_values and not all(_has_no_value(file, s) for s in shown):
        raise Refused("the values of the copies are shown")
    if in_loop and last_of_all and not at_top and not _has_no_value(file, segment[-1]):
        raise Refused("the value of the last copy is used")


def _has_no_value(file: ProgramFile, statement: int, seen: frozenset[str] = frozenset()) -> bool:
    """True for a statement that never has a value anyone could see; `seen` are the functions looked into."""
    tree, language = file.tree, file.language
    kind = tree.kind[statement]
    if kind in {"declaration", "assignment", "for_statement"} or file.is_definition(statement):
        return True
    if kind == "if_statement":
        blocks = [n for n in range(statement, tree.end[statement]) if tree.kind[n] == "block"]
        return all(_has_no_value(file, file.block_at[b].statements[-1], seen) for b in blocks)
    callee = tree.child(statement, "function") if kind == "call" else None
    if callee is None or tree.kind[callee] != language.name:
        return False
    name, owner = tree.text[callee], file.names.owner(callee)
    if owner == UNBOUND:
        return name in language.void_calls
    found = [p for p in file.procedures if p.name == name]
    statements = file.statements_of(found[0]) if len(found) == 1 and owner == 0 else ()
    return bool(statements) and name not in seen and _has_no_value(file, statements[-1], seen | {name})


def require_copies(file: ProgramFile, function: int, changed: Iterable[str]) -> None:
    """The parameters that a function changes are its own copies, and none is a list or a record."""
    tree = file.tree
    parameters = tree.child(function, "parameters")
    records = {tree.text[c] for n, kind in enumerate(tree.kind) if kind == "type_definition" for c in tree.children(n)}
    for parameter in tree.items(parameters) if parameters is not None else ():
        name, told = tree.child(parameter, "name"), tree.child(parameter, "type")
        if told is not None and tree.text[told] in records:
            raise Refused("a record cannot be handed on as a copy")
        if name is not None and tree.text[name] in changed and "ByVal" not in tree.leaf_texts(parameter):
            raise Refused("the function changes a variable that it is given")


def require_declarations_left(file: ProgramFile, segment: Sequence[int], scope: int) -> None:
    """What the copies declare is used nowhere else: where a variable need not be declared, it would go on as one of
    another type, or of none."""
    names, tree = file.names, file.tree
    start, stop = segment[0], tree.end[segment[-1]]
    here = {tree.text[i] for i in names.within(start, stop) if names.scope[i] == scope and names.declared_at(i)}
    for i in names.nodes:
        if tree.text[i] in here and names.owner(i) == scope and not start <= i < stop:
            raise Refused(f"{tree.text[i]} is used elsewhere too, and declared in the copies")


def refuse_jumps(file: ProgramFile, scope: int) -> None:
    """A procedure that handles errors by jumps goes on with its own lines, not with those of one it calls."""
    tree = file.tree
    for node in range(scope, tree.end[scope]):
        if tree.kind[node] in {"goto_statement", "labeled_statement"}:
            raise Refused("the function around the copies jumps to labels, or goes on after errors")


def require_same_type(before: ProgramFile, after: ProgramFile, original: tuple[str, int], own: tuple[str, int]) -> None:
    """The function's variable is of the type of the variable that it stands for: (name, scope) each."""
    one, other = type_of_name(before, *original), type_of_name(after, *own)
    if one is None or other is None or _handed(one) != _handed(other):
        raise Refused(f"{own[0]} is of another type than {original[0]}")


def require_argument_type(file: ProgramFile, argument: int, parameter: str, scope: int) -> None:
    """What a call gives is exactly of the parameter's type."""
    given, wanted = type_of_expression(file, argument), type_of_name(file, parameter, scope)
    if given is None or wanted is None or _handed(given) != _handed(wanted):
        raise Refused(f"what is given for {parameter} is of another type, or its type is not in sight")


def require_given_type(before: ProgramFile, name: str, scope: int, after: ProgramFile, function: int) -> None:
    """What a function gives back is of the type of the variable that is given it, which tells its type itself."""
    procedure = next(p for p in after.procedures if p.node == function)
    given, wanted = result_type(after, procedure), type_of_name(before, name, scope)
    if given is None or given != wanted or given.base in {"auto", "var"}:
        raise Refused(f"{name} is of another type than what the function gives back")


def require_result(file: ProgramFile, function: int, returned: Sequence[str]) -> None:
    """The function's result type is that of what it returns."""
    procedure = next(p for p in file.procedures if p.node == function)
    given = result_type(file, procedure)
    wanted = type_of_name(file, returned[0], function) if returned else Type("void")
    if len(returned) > 1 or given is None or wanted is None or (given != wanted and _handed(given) != wanted):
        raise Refused("the function gives back another type than it says")


def _handed(kind: Type) -> Type:
    """A type as it arrives in a function: an array without its length, a record by reference or not."""
    dimensions = ("", *kind.dimensions[1:]) if kind.dimensions else ()
    return Type(kind.base, kind.pointers, dimensions)
