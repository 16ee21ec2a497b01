"""The functions an assignment asks for: there, nearly there, or done inline somewhere."""

from __future__ import annotations

import re
from collections import Counter
from collections.abc import Sequence

import msgspec
from rapidfuzz import fuzz

from ..program.flow import flow_of, needed_by
from ..program.names import Role
from ..program.program import Procedure, Program, ProgramFile
from .calls import CallMap


class RequiredFunction(msgspec.Struct, frozen=True, forbid_unknown_fields=True):
    """A function the assignment asks for."""

    name: str
    also: tuple[str, ...] = ()
    parameters: int | tuple[int, int] | None = None
    returns: bool | None = None
    called: bool = True
    parameter_decides: bool = False
    purpose: str = ""

    def accepts(self, count: int) -> bool:
        """True where so many parameters are right."""
        if self.parameters is None:
            return True
        if isinstance(self.parameters, int):
            return count == self.parameters
        return self.parameters[0] <= count <= self.parameters[1]


class Match(msgspec.Struct, frozen=True, eq=False):
    """How a required function was met; `found` is the function itself or the near-miss."""

    required: RequiredFunction
    state: str
    """"there", "near", "missing" or "wrong" (there, but not as asked: see `wrong`)."""
    found: tuple[ProgramFile, Procedure] | None = None
    wrong: str = ""
    job: tuple[ProgramFile, tuple[int, ...]] | None = None
    """Where a missing function's job is done inline: the statements."""


NEAR = 78.0
"""Similarity (0 to 100) from which another name counts as a misspelling."""


def words_of(name: str) -> list[str]:
    """The words of a name, in lower case, whatever its convention."""
    return [w.lower() for w in re.findall(r"[A-Z]?[a-z]+|[A-Z]+|\d+", name)]


def match_required(
    program: Program, required: Sequence[RequiredFunction], calls: CallMap, reference: Program | None
) -> list[Match]:
    """Match each required function: by name in any naming style, else by near-miss, else by its job."""
    found: dict[int, tuple[ProgramFile, Procedure]] = {}
    taken: set[int] = set()
    everything = [(f, p) for f in program.files for p in f.procedures[1:]]
    for k, function in enumerate(required):
        accepted = {tuple(words_of(n)) for n in (function.name, *function.also)}
        for f, p in everything:
            if tuple(words_of(p.name)) in accepted:
                found[k] = (f, p)
                taken.add(p.node)
                break
    matches = []
    for k, function in enumerate(required):
        if k in found:
            file, procedure = found[k]
            wrong = _what_is_wrong(function, file, procedure)
            matches.append(Match(function, "wrong" if wrong else "there", (file, procedure), wrong))
            continue
        near = _near_miss(function, [(f, p) for f, p in everything if p.node not in taken])
        if near is not None:
            taken.add(near[1].node)
            matches.append(Match(function, "near", near))
            continue
        owners = {p.node for _, p in found.values()}
        job = find_job(program, function, owners, reference, _common_words(required, function))
        whole = _whole_function(job) if job is not None else None
        if whole is not None and whole.node not in taken and function.accepts(len(whole.parameters)):
            taken.add(whole.node)
            matches.append(Match(function, "near", (job[0], whole) if job else None))
            continue
        matches.append(Match(function, "missing", job=job))
    return matches


def _whole_function(job: tuple[ProgramFile, tuple[int, ...]]) -> Procedure | None:
    """The function of which the statements are most of the body, so that it does the job under another name."""
    file, statements = job
    procedure = file.procedure_around(statements[0])
    if not procedure.node or not procedure.name or procedure.name in {"main", "setup", "loop"}:
        return None
    inside = file.statements_of(procedure)
    return procedure if set(statements) <= set(inside) and len(inside) - len(statements) <= 1 else None


def _common_words(required: Sequence[RequiredFunction], function: RequiredFunction) -> set[str]:
    """Words that other required functions share: they tell this one's job from theirs only weakly."""
    return {
        _stem(w) for other in required if other is not function for w in words_of(other.name) + words_of(other.purpose)
    }


def _near_miss(
    function: RequiredFunction, candidates: Sequence[tuple[ProgramFile, Procedure]]
) -> tuple[ProgramFile, Procedure] | None:
    best, best_score = None, NEAR
    for file, procedure in candidates:
        for name in (function.name, *function.also):
            likeness = fuzz.ratio("".join(words_of(name)), "".join(words_of(procedure.name)))
            if likeness >= best_score and function.accepts(len(procedure.parameters)):
                best, best_score = (file, procedure), likeness
    return best


def _what_is_wrong(function: RequiredFunction, file: ProgramFile, procedure: Procedure) -> str:
    """What is not as asked of a function that is there, as a clause; "" where all is well."""
    count = len([p for p in procedure.parameters if p not in {"self", "cls"}])
    if not function.accepts(count):
        asked = function.parameters
        wanted = f"{asked}" if isinstance(asked, int) else f"{asked[0]} to {asked[1]}" if asked else "other"
        return f"takes {count} parameter{'s' * (count != 1)}, where {wanted} {'is' if wanted == '1' else 'are'} asked"
    if function.returns is True and not returns_value(file, procedure):
        return "returns nothing, where a result is asked"
    if function.returns is False and returns_value(file, procedure):
        return "returns a result, where none is asked"
    if function.parameter_decides and not parameter_decides(file, procedure):
        return "has no parameter that decides what it does"
    return ""


def returns_value(file: ProgramFile, procedure: Procedure) -> bool:
    """True where some return of the function itself gives a value (or it yields)."""
    tree = file.tree
    for node in range(procedure.node + 1, tree.end[procedure.node]):
        own = file.names.parent_scope and _procedure_of(file, node) == procedure.node
        if own and tree.kind[node] == file.language.returning and tree.end[node] - node > 2:
            return True
        if own and tree.kind[node] == "yield":
            return True
    return False


def _procedure_of(file: ProgramFile, node: int) -> int:
    node = file.tree.parent[node]
    while node > 0 and file.tree.kind[node] not in file.language.procedures:
        node = file.tree.parent[node]
    return node


def parameter_decides(file: ProgramFile, procedure: Procedure) -> bool:
    """True where a parameter stands in a test that decides which statements run."""
    tree, language = file.tree, file.language
    deciding = language.conditionals | {"while_statement", "elif_clause", "conditional_expression"}
    for i in file.names.within(procedure.node, tree.end[procedure.node]):
        if tree.text[i] not in procedure.parameters or file.names.role[i] is not Role.READ:
            continue
        node = i
        while node != procedure.node:
            if tree.kind[tree.parent[node]] in deciding and tree.field[node] in {"condition", "subject"}:
                return True
            node = tree.parent[node]
    return False


# -- where the job of a missing function is done ---------------------------------------------------

PLAIN = frozenset(
    """
    the a an of for and or to in on at by is are that this it one each all from with than as its how many
    were was get do does gives give makes make works work out function
    """.split()
)
SIGNS = {
    "count": ("+", "len"),
    "mean": ("/", "sum"),
    "average": ("/", "sum"),
    "sum": ("+", "sum"),
    "total": ("+", "sum"),
    "largest": (">", "max"),
    "highest": (">", "max"),
    "smallest": ("<", "min"),
    "lowest": ("<", "min"),
    "longest": (">", "max"),
    "print": ("print", "print"),
    "show": ("print", "print"),
    "read": ("input", "open"),
    "ask": ("input", "input"),
    "sort": ("sort", "sorted"),
}
GENERIC = frozenset(
    [
        "print",
        "prints",
        "show",
        "shows",
        "read",
        "reads",
        "ask",
        "asks",
        "get",
        "gets",
        "line",
        "lines",
        "one",
    ]
)
WIDEST_JOB = 8


def find_job(
    program: Program,
    function: RequiredFunction,
    owners: set[int],
    reference: Program | None,
    common: set[str] | frozenset[str] = frozenset(),
) -> tuple[ProgramFile, tuple[int, ...]] | None:
    """The statements that most likely do the function's job inline; None where none is likely.

    Windows of consecutive statements are weighed by the words they share with the function's name
    and purpose, and by their likeness to the reference solution's body where there is one.
    """
    words = [w for w in words_of(function.name) + words_of(function.purpose) if w not in PLAIN]
    wanted = {_stem(w): 0.3 if _stem(w) in common or w in GENERIC else 1.0 for w in words}
    model = _reference_body(function, reference)
    best: tuple[float, ProgramFile, tuple[int, ...]] | None = None
    for file in program.files:
        for block in file.blocks:
            if block.procedure in owners:
                continue
            for window in _windows(file, block.statements):
                weight = max(
                    _word_weight(file, window, wanted, words_of(function.name)),
                    _model_weight(file, window, model),
                )
                if weight > 0.55:
                    weight -= 0.12 * _misfit(file, block.procedure, window, function)
                if weight > 0.5 and (best is None or weight > best[0] + 1e-9):
                    best = (weight, file, window)
    return (best[1], best[2]) if best else None


def _misfit(file: ProgramFile, scope: int, window: tuple[int, ...], function: RequiredFunction) -> float:
    """How far the window's inputs and results are from the parameters and result that are asked."""
    names, tree = file.names, file.tree
    taken = {n for n in needed_by(file, scope, window) if not n.isupper()}
    written = {
        tree.text[i]
        for i in names.within(window[0], tree.end[window[-1]])
        if names.role[i] in (Role.WRITE, Role.UPDATE) and names.owner(i) == scope
    }
    given = written & flow_of(file, scope).live_after.get(window[-1], frozenset())
    misfit = 0.0
    if isinstance(function.parameters, int):
        misfit += max(0, len(taken) - function.parameters)
    else:
        misfit += 0.5 * len(taken)
    if function.returns is not None:
        misfit += abs(len(given) - (1 if function.returns else 0))
    return misfit


def _windows(file: ProgramFile, statements: tuple[int, ...]) -> list[tuple[int, ...]]:
    usable = [not (file.is_definition(s) or file.is_import(s) or file.is_bare_string(s)) for s in statements]
    windows = []
    for start in range(len(statements)):
        for stop in range(start + 1, min(start + WIDEST_JOB, len(statements)) + 1):
            if not usable[stop - 1]:
                break
            windows.append(statements[start:stop])
    return [w for w in windows if any(file.tree.end[s] - s > 12 for s in w)]


def _stem(word: str) -> str:
    for ending in ("ing", "ed", "es", "s", "er", "est"):
        if word.endswith(ending) and len(word) - len(ending) >= 3:
            return word[: -len(ending)]
    return word


def _word_weight(file: ProgramFile, window: tuple[int, ...], wanted: dict[str, float], name_words: list[str]) -> float:
    """Share of the wanted words that the window, its comment and its variables show; 0 to 1."""
    tree = file.tree
    start, stop = window[0], tree.end[window[-1]]
    first, last = tree.start_line(start), tree.end_line(window[-1])
    words: Counter[str] = Counter()
    for i in file.names.within(start, stop):
        words.update(_stem(w) for w in words_of(tree.text[i]))
    for comment in file.tree.comments:
        if first - 1 <= comment.line <= last:
            words.update({_stem(w): 2 for w in words_of(comment.text)})
    tokens = set(tree.leaf_texts(start)) if len(window) == 1 else {t for s in window for t in tree.leaf_texts(s)}
    signs = [SIGNS[w] for w in name_words if w in SIGNS]
    signed = any(any(sign in token for token in tokens) for pair in signs for sign in pair)
    if signs and not signed:
        return 0.0
    shared = sum(weight for w, weight in wanted.items() if words[w])
    if not any(words[w] and weight == 1.0 for w, weight in wanted.items()):
        return 0.0
    has_loop = any(tree.kind[s] in file.language.loops for s in window)
    loopy = any(w in name_words for w in ("count", "mean", "average", "sum", "total", "longest", "largest"))
    weight = shared / sum(wanted.values()) + 0.15 * signed + 0.15 * (has_loop and loopy)
    return weight - 0.03 * max(0, len(window) - 2) - (0.4 if loopy and not has_loop and not signed else 0)


def _reference_body(function: RequiredFunction, reference: Program | None) -> list[int] | None:
    if reference is None:
        return None
    for file in reference.files:
        for procedure in file.procedures[1:]:
            if procedure.name == function.name:
                block = file.body_of(procedure)
                if block and len(block.statements) > 1:
                    return _shape_tokens(file, block.statements)
    return None


def _shape_tokens(file: ProgramFile, statements: Sequence[int]) -> list[int]:
    tree = file.tree
    return sorted(
        hash((tree.kind[n], tree.kind[tree.parent[n]]))
        for s in statements
        if tree.kind[s] != file.language.returning
        for n in range(s, tree.end[s])
        if not tree.text[n] or tree.text[n] in {"+", "-", "*", "/", "<", ">", "+=", "=="}
    )


def _model_weight(file: ProgramFile, window: tuple[int, ...], model: list[int] | None) -> float:
    """Multiset likeness of the window's constructs with the reference body's; 0 to 1."""
    if not model:
        return 0.0
    tokens = Counter(_shape_tokens(file, window))
    other = Counter(model)
    shared = sum((tokens & other).values())
    weight = 2 * shared / (sum(tokens.values()) + sum(other.values()))
    return weight if weight > 0.8 else 0.0
