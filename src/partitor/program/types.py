"""What type a variable or a value has, as far as the text itself tells.

Only for languages that name types. None always means: not in sight, so nothing may be built on it.
"""

from __future__ import annotations

import re

import msgspec

from ..frozen import Frozen
from ..languages.table import Language
from .names import UNBOUND, WRITES
from .program import Procedure, ProgramFile
from .tree import CLASS, Tree

DECLARATIONS = frozenset({"declaration", "typed_parameter", "field", "for_statement", "except_clause"})
BEHIND = frozenset({"declarator", "typed_parameter"})
"""What can hold a type that stands behind its name."""
UNTOLD = frozenset({"auto", "var", "let"})
NOT_OF_THE_VALUE = frozenset({"const", "static", "final", "private", "public", "protected", "register", "readonly"})
BOARD_CONSTANTS = re.compile(r"HIGH|LOW|INPUT|OUTPUT|INPUT_PULLUP|LED_BUILTIN|A\d+\Z")
LENGTHS = frozenset({"length", "Length", "count"})
COMPARING = frozenset({"==", "!=", "<", ">", "<=", ">=", "&&", "||"})
CONSTANT = "const "


class Type(Frozen, frozen=True):
    """A type as the language writes it: `const char *names[4]` is Type("const char", 1, ("4",))."""

    base: str
    pointers: int = 0
    dimensions: tuple[str, ...] = ()
    reference: bool = False

    def is_number(self, language: Language) -> bool:
        """True for a plain number."""
        return not self.pointers and not self.dimensions and self.own_base in language.types.ranks

    @property
    def own_base(self) -> str:
        """The base without what is only said of this name for it."""
        return self.base.removeprefix(CONSTANT)

    def element(self) -> Type | None:
        """The type of one element of an array (or of what a pointer points at)."""
        if not (self.dimensions or self.pointers):
            return None
        pointers = self.pointers if self.dimensions else self.pointers - 1
        inner = Type(self.base, pointers, self.dimensions[1:], self.reference)
        # A plain value is copied: it is no part any more of what must not be changed.
        plain = not (inner.pointers or inner.dimensions or inner.reference)
        return msgspec.structs.replace(inner, base=self.own_base) if plain else inner


def type_of_name(file: ProgramFile, name: str, scope: int) -> Type | None:
    """The type with which `name` is declared in `scope`; None where it is declared otherwise than once."""
    key = ("type of", name, scope)
    if key in file.derived:
        # It would be what is worked out right now: `auto n = n + 1`.
        return None
    file.derived[key] = True
    try:
        return _type_of_name(file, name, scope)
    finally:
        del file.derived[key]


def _type_of_name(file: ProgramFile, name: str, scope: int) -> Type | None:
    names, tree = file.names, file.tree
    found = set()
    for i in names.nodes:
        if tree.text[i] == name and names.scope[i] == scope and names.role[i] in WRITES:
            declared = declared_type(file, i)
            if declared is not None:
                found.add(declared)
    if not found and file.language.implicit_locals and scope and name in names.bound.get(scope, ()):
        return Type(file.language.untyped)
    return found.pop() if len(found) == 1 else None


def declared_type(file: ProgramFile, node: int) -> Type | None:
    """The type that the declaration of the name at `node` gives it; None where it stands in none."""
    tree = file.tree
    pointers, dimensions, reference = 0, [], False
    child, parent = node, tree.parent[node]
    value = None
    while tree.kind[parent] in {"pointer_declarator", "array_declarator", "reference_declarator", "declarator"}:
        kind = tree.kind[parent]
        if kind == "pointer_declarator":
            pointers += 1
        elif kind == "reference_declarator":
            reference = True
        elif kind == "array_declarator":
            size = tree.child(parent, "size")
            dimensions.append(tree.source_of(size) if size is not None else "")
        else:
            if tree.field[child] != "left":
                return None
            value = tree.child(parent, "right")
            dimensions += _bracket_pairs(tree, parent)
        child, parent = parent, tree.parent[parent]
    turns = tree.parent[parent] if tree.kind[parent] == "list_pattern" else parent
    if tree.kind[turns] == "for_statement" and file.language.value_types:
        return _type_of_turns(file, turns, node)
    if tree.kind[parent] not in DECLARATIONS or (
        tree.kind[parent] == "for_statement" and file.language.implicit_locals
    ):
        return None
    told = tree.child(tree.parent[node], "type") if tree.kind[tree.parent[node]] in BEHIND else None
    silent = file.language.untyped if file.language.types_behind else ""
    base = tree.text[told].lstrip(": ") if told is not None else silent or _base(tree, parent)
    if base in UNTOLD:
        return type_of_expression(file, value) if value is not None else None
    base, brackets = _without_brackets(base)
    if base and (pointers or dimensions or reference) and _is_kept_constant(tree, parent):
        base = CONSTANT + base
    return Type(base, pointers, (*dimensions, *brackets), reference) if base else None


def _is_kept_constant(tree: Tree, declaration: int) -> bool:
    """True where what a declared name points at, refers to or holds cannot be changed through it: nor may it be through
    any other name that it is given to."""
    words = _words_of_type(tree, declaration)
    return "const" in words and "char" not in words


def _type_of_turns(file: ProgramFile, loop: int, node: int) -> Type | None:
    """The type of a variable of a loop that does not name it: of its numbers, or of the values in sight."""
    tree = file.tree
    values = tree.child(loop, "right")
    if values is None:
        return None
    if tree.kind[values] == "counting_range":
        return Type(file.language.types.whole)
    if tree.kind[values] != "list":
        whole = type_of_expression(file, values)
        return whole.element() if whole is not None and tree.kind[tree.parent[node]] == "for_statement" else None
    first = next((c for c in tree.children(values) if tree.text[c] not in {"[", "]", ","}), None)
    if first is not None and tree.kind[tree.parent[node]] == "list_pattern":
        place = tree.items(tree.parent[node]).index(node)
        parts = tree.items(first)
        first = parts[place] if place < len(parts) else None
    return type_of_expression(file, first) if first is not None else None


def _bracket_pairs(tree: Tree, declarator: int) -> list[str]:
    """`int u[]` with the brackets behind the name."""
    return [
        ""
        for child in tree.children(declarator)
        if tree.kind[child] == "dimensions"
        for part in tree.children(child)
        if tree.text[part] == "["
    ]


def _base(tree: Tree, declaration: int) -> str:
    """The words of a declaration's type, without those that do not belong to the value."""
    return _of_the_value(_words_of_type(tree, declaration))


def _words_of_type(tree: Tree, declaration: int) -> list[str]:
    """The words of a declaration before what it declares."""
    words: list[str] = []
    for child in tree.children(declaration):
        if tree.field[child] in {"left", "declarator", "name", "right", "parameters", "parameter"} or tree.kind[
            child
        ] in {
            "declarator",
            "parameters",
        }:
            break
        if tree.text[child] in {"for", "foreach", "(", "catch"}:
            continue
        words += [w for t in tree.leaf_texts(child) for w in t.split()]
    return words


def _of_the_value(words: list[str]) -> str:
    """The words of a type that belong to the value itself."""
    return " ".join(w for w in words if w not in NOT_OF_THE_VALUE or (w == "const" and "char" in words))


def _without_brackets(base: str) -> tuple[str, list[str]]:
    """`int[][]` and `[[int]]` as `int` and one empty length for each pair."""
    brackets = []
    while base.startswith("[") and base.endswith("]") and ":" not in base:
        base = base[1:-1].strip()
        brackets.append("")
    while base.endswith("[]"):
        base = base[:-2].rstrip()
        brackets.append("")
    return base, brackets


def _plain(text: str) -> Type:
    """A type by its text alone."""
    base, brackets = _without_brackets(text)
    return Type(base, 0, tuple(brackets))


def result_type(file: ProgramFile, procedure: Procedure) -> Type | None:
    """What a function gives back; None where that is not in sight."""
    tree = file.tree
    if file.language.types_behind:
        told = tree.child(procedure.node, "result") or tree.child(procedure.node, "return_type")
        silent = file.language.untyped if "Function" in file.words_before_name(procedure.node) else "void"
        return _plain(tree.text[told].lstrip(": ")) if told is not None else Type(silent)
    words: list[str] = []
    pointers = 0
    for child in tree.children(procedure.node):
        if tree.field[child] == "name":
            break
        if tree.text[child] == "*":
            pointers += 1
        else:
            words += [w for t in tree.leaf_texts(child) for w in t.split()]
    base, brackets = _without_brackets(_of_the_value(words))
    return Type(base, pointers, tuple(brackets)) if base else None


ONE_SIGN = re.compile(r"""'(?:[^\\'\n]|\\[abfnrtv0\\'"])'""")


OF_A_CLASS = Type("Class<?>")
"""What a class handed on (`Crab.class`) is."""


def type_of_expression(file: ProgramFile, node: int) -> Type | None:
    """The type of a value: of a literal, a variable, an element, plain arithmetic, a call of the program's own."""
    tree, language = file.tree, file.language
    kind, text = tree.kind[node], tree.text[node]
    if kind == "integer":
        return Type(language.types.whole) if abs(int(text)) <= language.types.widest else None
    if kind == "float":
        return _number_type(text, language)
    if kind in language.strings or kind == "string_content":
        return Type(language.types.text) if language.types.text else Type("const char", 1)
    if kind == "character":
        return Type("char") if ONE_SIGN.fullmatch(text) and text.isascii() else None
    if kind in {"true", "false"}:
        return Type(language.types.truth)
    if kind == language.name:
        return _type_of_variable(file, node)
    if kind in language.parentheses or kind == "unary_operator":
        inner = [c for c in tree.children(node) if tree.text[c] not in {"(", ")", "-", "+"}]
        return type_of_expression(file, inner[0]) if len(inner) == 1 else None
    if kind == "subscript":
        value = tree.child(node, "value")
        whole = type_of_expression(file, value) if value is not None else None
        return whole.element() if whole else None
    if kind == CLASS:
        return OF_A_CLASS
    if kind == "binary_operator":
        return _type_of_operation(file, node)
    if kind == "list" and language.value_types:
        elements = {type_of_expression(file, c) for c in tree.children(node) if tree.text[c] not in {"[", "]", ","}}
        one = elements.pop() if len(elements) == 1 else None
        return msgspec.structs.replace(one, dimensions=("", *one.dimensions)) if one else None
    if kind == language.member[0]:
        return _type_of_member(file, node)
    if kind == language.call:
        return _type_of_call(file, node)
    return None


def is_made_a_fraction(file: ProgramFile, node: int) -> bool:
    """True for a plain whole number that is given to a variable for fractions, or reckoned or compared with a fraction:
    it might as well be written as one."""
    tree, language = file.tree, file.language
    if not language.typed or language.value_types or language.by_reference:
        return False
    holder, field = tree.parent[node], tree.field[node]
    reckoned = tree.kind[holder] == "binary_operator" and field in BESIDE
    if not reckoned and (tree.kind[holder] not in {"assignment", "declarator"} or field != "right"):
        return False
    inner = node + 2 if tree.kind[node] == "unary_operator" and tree.text[node + 1] == "-" else node
    left = tree.child(holder, BESIDE[field])
    if tree.kind[inner] != "integer" or tree.end[inner] != tree.end[node] or left is None:
        return False
    kind = declared_type(file, left) if tree.kind[holder] == "declarator" else type_of_expression(file, left)
    return kind == Type(language.types.fraction) and len(tree.text[inner]) < MOST_DIGITS


BESIDE = {"left": "right", "right": "left"}
MOST_DIGITS = 10
"""Digits of whole numbers that fractions hold exactly for certain."""


def _type_of_member(file: ProgramFile, node: int) -> Type | None:
    tree, language = file.tree, file.language
    held, member = tree.child(node, "object"), tree.child(node, language.member[1])
    if held is None or member is None:
        return None
    if is_listed_constant(file, tree.text[held], tree.text[member]):
        return Type(tree.text[held])
    if language.annotates and tree.text[held] == "this":
        return _type_of_own_field(file, tree.text[member])
    if language.methods and tree.text[held] == "this":
        return type_of_name(file, tree.text[member], 0)
    whole = type_of_expression(file, held)
    if whole is None:
        return None
    if tree.text[member] in LENGTHS and whole.dimensions:
        return Type(language.types.whole)
    plain = language.struct_values and not (whole.pointers or whole.dimensions)
    return _type_of_field(file, whole.own_base.removeprefix("struct "), tree.text[member]) if plain else None


def _type_of_own_field(file: ProgramFile, field: str) -> Type | None:
    """The type that a class names for a field of its objects, where one class of the file has such a field."""
    tree = file.tree
    named = [n for n, text in enumerate(tree.text) if text == field and tree.kind[tree.parent[n]] == "field"]
    found = [tree.child(tree.parent[n], "type") for n in named if tree.field[n] == "name"]
    told = found[0] if len(found) == 1 else None
    if told is None:
        return None
    base, brackets = _without_brackets(tree.text[told].lstrip(": "))
    return Type(base, 0, tuple(brackets))


def _type_of_field(file: ProgramFile, record: str, field: str) -> Type | None:
    """The type of a plain field of a record that the program defines."""
    tree = file.tree
    found = [
        node
        for node, kind in enumerate(tree.kind)
        if kind == "field" and any(tree.text[c] == field and tree.field[c] == "left" for c in tree.children(node))
    ]
    for node in found:
        definition = tree.parent[tree.parent[node]]
        outer = tree.parent[definition]
        called = tree.child(definition, "name") or tree.child(outer, "declarator")
        if called is not None and tree.text[called] == record:
            base = _base(tree, node)
            return Type(base) if base else None
    return None


OF_THE_SYSTEM = re.compile(r"(?:UI|NS)[A-Z]\w*")
"""What classes of the system that Swift programs run on are called."""


def is_object(file: ProgramFile, kind: Type) -> bool:
    """True for a class where there are records too: who hands such a value on hands on the thing itself."""
    tree = file.tree
    own = any(
        node_kind == "class_definition"
        and tree.text[node + 1] == "class"
        and kind.base in [tree.text[c] for c in tree.children(node)]
        for node, node_kind in enumerate(tree.kind)
    )
    return not kind.dimensions and (own or OF_THE_SYSTEM.fullmatch(kind.base) is not None)


def is_listed_constant(file: ProgramFile, holder: str, member: str) -> bool:
    """True for a constant that an enumeration lists, the program's own or one of the library."""
    tree = file.tree
    if file.names.owner_of(holder, 0) == UNBOUND:
        return holder in file.language.constant_holders
    return any(
        kind == "enum_constant"
        and tree.text[node + 1] == member
        and holder in [tree.text[c] for c in tree.children(tree.parent[tree.parent[node]])]
        for node, kind in enumerate(tree.kind)
    )


def _number_type(text: str, language: Language) -> Type | None:
    if re.fullmatch(r"-?\d*\.\d*(?:[eE][-+]?\d+)?", text):
        return Type(language.types.fraction)
    if re.fullmatch(r"-?\d*\.\d*[fF]", text):
        return Type("float")
    return Type("long") if re.fullmatch(r"-?[1-9]\d*[lL]", text) else None


def _type_of_variable(file: ProgramFile, node: int) -> Type | None:
    name = file.tree.text[node]
    if node not in file.names.scope:
        return None
    owner = file.names.owner(node)
    if owner >= 0:
        return type_of_name(file, name, owner)
    if file.language.names_a_constant(name):
        return Type("Long")
    return Type("int") if is_named_number(file, name) else None


def is_named_number(file: ProgramFile, name: str) -> bool:
    """True for a name that the surroundings or one `#define` give a plain number, or whatever it stands for."""
    if file.language.names_a_constant(name):
        return True
    if file.language.id == "arduino" and BOARD_CONSTANTS.fullmatch(name):
        return True
    found = [
        re.match(rf"#\s*define\s+{re.escape(name)}\s+-?[1-9]?\d+\s*(?://.*)?\Z", text) is not None
        for text, kind in zip(file.tree.text, file.tree.kind, strict=True)
        if kind == "preprocessor" and re.match(rf"#\s*(?:define|undef)\s+{re.escape(name)}\b", text)
    ]
    return found == [True]


def _type_of_operation(file: ProgramFile, node: int) -> Type | None:
    tree = file.tree
    left, right = tree.child(node, "left"), tree.child(node, "right")
    operator = next((tree.text[c] for c in tree.children(node) if tree.field[c] == "operator"), "")
    if left is None or right is None:
        return None
    if operator in COMPARING:
        return None if file.language.id == "c" else Type(file.language.types.truth)
    one, other = type_of_expression(file, left), type_of_expression(file, right)
    text = file.language.types.text
    if operator == "+" and text and Type(text) in (one, other):
        return Type(text)
    if one is None or other is None or operator not in {"+", "-", "*", "/", "%"}:
        return None
    if one.is_number(file.language) and other.is_number(file.language):
        return Type(max(one.own_base, other.own_base, key=file.language.types.ranks.index))
    return None


def _type_of_call(file: ProgramFile, node: int) -> Type | None:
    callee = file.tree.child(node, file.language.callee_field)
    if callee is None or file.tree.kind[callee] != file.language.name:
        return None
    name = file.tree.text[callee]
    found = [p for p in file.procedures if p.node and p.name == name]
    made = name[:1].isupper() and not found
    made = made and (file.tree.leaf_texts(node)[1:] == ["(", ")"] or is_a_plain_class(file, name))
    if file.language.value_types and made:
        # What may fail to be made gives something else.
        return None if b"init?" in file.tree.source else Type(name)
    given = result_type(file, found[0]) if len(found) == 1 else None
    return given if given and given.base != "void" else None


def is_a_plain_class(file: ProgramFile, name: str) -> bool:
    """True for a class or record that the file defines, once and for no other types."""
    tree = file.tree
    found = [n for n, kind in enumerate(tree.kind) if kind in file.language.classes]
    named = [n for n in found if name in [tree.text[c] for c in tree.children(n) if tree.field[c] == "name"]]
    return len(named) == 1 and not any(tree.kind[c] == "type_parameters" for c in tree.children(named[0]))


def is_reference_like(kind: Type, language: Language) -> bool:
    """True where handing the value on hands on the thing itself, or a copy of a plain value that nothing can
    tell from it: numbers, pointers, arrays, and all objects of languages that hand on references."""
    plain = {"int", "long", "short", "byte", "char", "float", "double", "bool", "boolean", "word", "size_t", "uint8_t"}
    words = set(kind.base.split()) - {"const", "unsigned", "signed", "long"}
    return bool(kind.pointers or kind.dimensions) or words <= plain or not language.struct_values
