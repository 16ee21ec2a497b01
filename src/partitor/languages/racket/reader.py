"""Racket's and Scheme's nested lists as parts of the program tree.

Where a body stands, a definition, a choice or a loop is a statement with blocks, and any other form an
expression that is a statement. A form whose parts may bind names or be no expressions at all (`match`, macros of
the program's own) is a `special_form`, in which nothing is put in another's place.
"""

from __future__ import annotations

import re
from collections.abc import Callable

import tree_sitter

from ..grammars import parser_for
from ..parts import Built, Part, incomplete, token

Node = tree_sitter.Node
COMMENTS = frozenset({"comment", "block_comment", "sexp_comment"})
BRACKETS = frozenset("()[]{}")
TO_NOTE = COMMENTS | BRACKETS
WHOLE = re.compile(rb"-?(?:0|[1-9][0-9]*)\Z")
LEAVES = {
    "string": "string",
    "character": "character",
    "byte_string": "character",
    "regex": "character",
    "quote": "character",
    "vector": "character",
    "byte_regex": "character",
    "keyword": "keyword",
    "extension": "import_statement",
    "lang_name": "import_statement",
    "box": "character",
    "hash": "character",
    "here_string": "string",
}
SPECIAL = frozenset(
    """
    match match* match-lambda match-let match-define case-lambda define-syntax define-syntax-rule define-macro
    syntax-rules syntax-case let-syntax quasiquote unquote delay parameterize for/list for/sum for/fold for/and for/or
    for/vector for/hash for/first for/last for* for*/list for*/sum let-values let*-values define-record-type class
    new send with-handlers while guard dynamic-wind call/cc call-with-current-continuation do define-values shared
    local case
    """.split()
)
DEFINED_FORMS = frozenset({"struct", "define-struct"})
IMPORTED_FORMS = frozenset({"require", "provide", "import", "export", "library", "load", "define-library"})


def build_racket(source: bytes) -> Built:
    """The parts of a Racket file; never raises."""
    return _Builder(source).run(parser_for("racket").parse(source).root_node)


def build_scheme(source: bytes) -> Built:
    """The parts of a Scheme file; never raises."""
    return _Builder(source).run(parser_for("scheme").parse(source).root_node)


def _text(node: Node) -> str:
    return (node.text or b"").decode(errors="replace")


class _Builder:
    def __init__(self, source: bytes) -> None:
        self.source = source
        self.built = Built(Part("program", 0, len(source)))
        macros = re.findall(rb"\(define-(?:syntax(?:-rule)?|macro)\s+\(?\s*([^\s()\[\]]+)", source)
        self.special = SPECIAL | {m.decode(errors="replace") for m in macros}
        self.depth = 0
        self.broken = False
        self.forms: dict[str, Callable[[Node, list[Node]], Part]] = {
            "define": self._define,
            "set!": self._set,
            "if": self._if,
            "cond": self._cond,
            "when": self._when,
            "unless": self._when,
            "begin": self._begin,
            "for": self._for,
            "for-each": self._for_each,
        }

    def run(self, root: Node) -> Built:
        self.broken = root.has_error
        for child in root.children:
            self._statement(child, self.built.root)
        return self.built

    # -- reading lists -----------------------------------------------------------------------------

    def _note(self, node: Node) -> bool:
        """Put comments, brackets and what is broken where it belongs; True where nothing is left to do."""
        kind = node.type
        if kind not in TO_NOTE and not self.broken:
            return False
        if kind in COMMENTS:
            self.built.comments.append((node.start_byte, node.end_byte))
            return True
        if node.is_missing:
            self.built.problems.append((node.start_byte, f"{kind!r} is missing here; the program is read around it"))
            return True
        if node.is_error:
            self.built.problems.append((node.start_byte, incomplete(self.source[node.start_byte : node.end_byte])))
        if kind in BRACKETS and not node.is_error:
            self.built.braces.add(node.start_byte)
            return True
        return False

    def _items(self, node: Node) -> list[Node]:
        """What stands in a list, without brackets and comments."""
        return [child for child in node.children if not self._note(child)]

    @staticmethod
    def _is_list(node: Node) -> bool:
        return node.type == "list"

    @staticmethod
    def _part(kind: str, node: Node, field: str = "") -> Part:
        return Part(kind, node.start_byte, node.end_byte, field)

    @staticmethod
    def _word(node: Node, field: str = "") -> Part:
        return token("word", node.start_byte, node.end_byte, field)

    @staticmethod
    def _name(node: Node, field: str = "") -> Part:
        return token("identifier", node.start_byte, node.end_byte, field)

    # -- statements --------------------------------------------------------------------------------

    def _statement(self, node: Node, into: Part) -> None:
        if self._note(node):
            return
        part = self._form(node, as_statement=True)
        into.add(part)
        into.stop = max(into.stop, part.stop)

    def _block(self, nodes: list[Node], field: str = "body") -> Part:
        block = Part("block", nodes[0].start_byte, nodes[-1].end_byte, field)
        for node in nodes:
            self._statement(node, block)
        return block

    def _form(self, node: Node, as_statement: bool = False) -> Part:
        """A datum as an expression, or a form in a place where one may be a statement."""
        if self.depth > 150:
            return token("character", node.start_byte, node.end_byte)
        self.depth += 1
        try:
            return self._list(node, as_statement) if self._is_list(node) else self._atom(node)
        finally:
            self.depth -= 1

    def _atom(self, node: Node) -> Part:
        kind, start, stop = node.type, node.start_byte, node.end_byte
        if kind == "symbol":
            return token("identifier", start, stop)
        text = self.source[start:stop]
        if kind == "number":
            return token("integer" if WHOLE.match(text) else "float", start, stop)
        if kind == "boolean":
            return token("true" if text[:2] == b"#t" else "false", start, stop)
        if kind in LEAVES:
            return token(LEAVES[kind], start, stop - (len(text) - len(text.rstrip())))
        if node.child_count == 0 or kind == "ERROR":
            return token(kind, start, stop)
        part = self._part("special_form", node)
        for child in self._items(node):
            part.add(self._form(child))
        return part

    def _list(self, node: Node, as_statement: bool) -> Part:
        items = self._items(node)
        head = _text(items[0]) if items and items[0].type == "symbol" else ""
        if not items:
            return token("list", node.start_byte, node.end_byte)
        if head in DEFINED_FORMS:
            return token("type_definition", node.start_byte, node.end_byte)
        if head in IMPORTED_FORMS:
            return token("import_statement", node.start_byte, node.end_byte)
        if head in {"lambda", "λ"} and len(items) > 2:
            return self._lambda(node, items)
        if head in {"let", "let*", "letrec", "let-rec"} and len(items) > 2:
            return self._let(node, items)
        if as_statement and head in self.forms:
            part = self.forms[head](node, items)
            if part.children:
                return part
        if head in self.special or head in {"define", "set!"}:
            return self._special(node, items)
        call = self._part("call", node)
        call.add(self._form(items[0]), "function")
        last = items[-1].end_byte
        arguments = call.add(Part("argument_list", items[0].end_byte, max(last, items[0].end_byte)), "arguments")
        for item in items[1:]:
            arguments.add(self._form(item))
        return call

    def _special(self, node: Node, items: list[Node]) -> Part:
        part = self._part("special_form", node)
        part.add(self._word(items[0]))
        for item in items[1:]:
            part.add(self._form(item))
        return part

    def _define(self, node: Node, items: list[Node]) -> Part:
        if len(items) < 3:
            return self._part("declaration", node)
        target = items[1]
        if self._is_list(target):
            inner = self._items(target)
            if not inner or self._is_list(inner[0]):
                return self._part("declaration", node)
            part = self._part("function_definition", node)
            part.children = [self._word(items[0]), self._name(inner[0], "name")]
            part.add(self._parameters(inner[1:], inner[0].end_byte, target.end_byte), "parameters")
            part.add(self._block(items[2:]))
            return part
        value = self._form(items[2])
        part = self._part("function_variable" if value.kind == "function_definition" else "declaration", node)
        part.add(self._word(items[0]))
        declarator = part.add(Part("declarator", target.start_byte, items[-1].end_byte))
        declarator.add(self._name(target), "left")
        declarator.add(value, "right")
        return part

    def _parameters(self, nodes: list[Node], start: int, stop: int) -> Part:
        """Parameters, from behind the function's name up to and including the bracket that closes them."""
        part = Part("parameters", start, stop)
        for node in nodes:
            inner = self._items(node) if self._is_list(node) else []
            if inner and inner[0].type == "symbol":
                default = part.add(self._part("default_parameter", node))
                default.add(self._name(inner[0]), "name")
                for value in inner[1:]:
                    default.add(self._form(value), "value")
            elif node.type == "symbol" and _text(node) != ".":
                part.add(self._name(node))
            else:
                part.add(token("*", node.start_byte, node.end_byte))
        return part

    def _lambda(self, node: Node, items: list[Node]) -> Part:
        """A function without a name: a procedure where it has several lines, else an expression with a scope."""
        single = len(items) == 3 and not (self._is_list(items[2]) and self._head(items[2]) in self.forms)
        part = self._part("lambda" if single else "function_definition", node)
        part.add(self._word(items[0]))
        given = self._items(items[1]) if self._is_list(items[1]) else [items[1]]
        part.add(self._parameters(given, items[1].start_byte, items[1].end_byte), "parameters")
        part.add(self._form(items[2]) if single else self._block(items[2:]), "body")
        return part

    def _head(self, node: Node) -> str:
        first = next((c for c in node.children if c.is_named), None)
        return _text(first) if first is not None and first.type == "symbol" else ""

    def _set(self, node: Node, items: list[Node]) -> Part:
        part = self._part("assignment", node)
        if len(items) == 3 and items[1].type == "symbol":
            part.add(self._word(items[0]))
            part.add(self._name(items[1]), "left")
            part.add(self._form(items[2]), "right")
        return part

    def _begin(self, node: Node, items: list[Node]) -> Part:
        block = self._part("block", node)
        for item in items[1:]:
            self._statement(item, block)
        return block

    # -- choices ---------------------------------------------------------------------------------------

    def _if(self, node: Node, items: list[Node]) -> Part:
        part = self._part("if_statement", node)
        if len(items) < 3:
            return part
        part.add(self._word(items[0]))
        part.add(self._form(items[1]), "condition")
        part.add(self._block([items[2]]))
        for other in items[3:4]:
            clause = part.add(self._part("else_clause", other), "alternative")
            clause.add(self._block([other]))
        return part

    def _when(self, node: Node, items: list[Node]) -> Part:
        part = self._part("if_statement", node)
        if len(items) > 2:
            part.add(self._word(items[0]))
            part.add(self._form(items[1]), "condition")
            part.add(self._block(items[2:]))
        return part

    def _cond(self, node: Node, items: list[Node]) -> Part:
        part = self._part("if_statement", node)
        branches = [(item, self._items(item) if self._is_list(item) else []) for item in items[1:]]
        arrows = any(_text(i) == "=>" for _, inner in branches for i in inner)
        if not branches or arrows or any(len(inner) < 2 for _, inner in branches):
            return part
        part.add(self._word(items[0]))
        for k, (item, inner) in enumerate(branches):
            last = _text(inner[0]) == "else"
            holder = part
            if last or k:
                holder = part.add(self._part("else_clause" if last else "elif_clause", item), "alternative")
            holder.add(self._word(inner[0]) if last else self._form(inner[0]), "" if last else "condition")
            holder.add(self._block(inner[1:]))
        return part

    # -- loops and scopes --------------------------------------------------------------------------------

    def _for(self, node: Node, items: list[Node]) -> Part:
        part = self._part("for_statement", node)
        clauses = [self._items(c) for c in self._items(items[1])] if len(items) > 2 and self._is_list(items[1]) else []
        if not clauses or any(len(c) != 2 or c[0].type != "symbol" for c in clauses):
            return part
        part.add(self._word(items[0]), "kind")
        self._turns(part, [c[0] for c in clauses], [c[1] for c in clauses])
        part.add(self._block(items[2:]))
        return part

    def _for_each(self, node: Node, items: list[Node]) -> Part:
        """`(for-each (lambda (x) …) values)` is a loop over the values."""
        part = self._part("for_statement", node)
        function = self._items(items[1]) if len(items) > 2 and self._is_list(items[1]) else []
        if len(function) < 3 or _text(function[0]) not in {"lambda", "λ"} or not self._is_list(function[1]):
            return part
        names = self._items(function[1])
        if len(names) != len(items) - 2 or any(n.type != "symbol" for n in names):
            return part
        part.add(self._word(items[0]), "kind")
        self._turns(part, names, items[2:])
        part.add(self._block(function[2:]))
        return part

    def _turns(self, part: Part, names: list[Node], values: list[Node]) -> None:
        """The loop's variables and what each runs through, side by side."""
        if len(names) == 1:
            part.add(self._name(names[0]), "left")
            part.add(self._values(values[0]), "right")
            return
        pattern = part.add(Part("list_pattern", names[0].start_byte, names[-1].end_byte), "left")
        zipped = part.add(Part("zipped", values[0].start_byte, values[-1].end_byte), "right")
        for name, value in zip(names, values, strict=True):
            pattern.add(self._name(name))
            zipped.add(self._values(value))

    def _values(self, node: Node) -> Part:
        """What a loop runs through; numbers in a row as `counting_range`."""
        items = self._items(node) if self._is_list(node) else []
        if not items or _text(items[0]) not in {"in-range", "range"} or not 2 <= len(items) <= 4:
            return self._form(node)
        part = self._part("counting_range", node)
        part.add(self._name(items[0]))
        fields = ["limit"] if len(items) == 2 else ["first", "limit", "step"]
        if len(items) == 2:
            part.add(Part("integer", items[0].end_byte, items[0].end_byte, "first", [], True, "0"))
        for item, field in zip(items[1:], fields, strict=False):
            part.add(self._form(item), field)
        return part

    def _let(self, node: Node, items: list[Node]) -> Part:
        """Names for values: the values are worked out outside of the scope in which the names mean them."""
        word, rest = _text(items[0]), items[1:]
        own = rest.pop(0) if rest[0].type == "symbol" else None
        clauses = [
            self._items(c) if self._is_list(c) else [c]
            for c in (self._items(rest[0]) if self._is_list(rest[0]) else [])
        ]
        if len(rest) < 2 or any(len(c) != 2 or c[0].type != "symbol" for c in clauses):
            return self._special(node, items)
        whole = self._part("let_block", node)
        whole.add(self._word(items[0]))
        if word == "let*":
            inner = whole
            for name, value in clauses:
                inner.add(self._form(value))
                inner = inner.add(self._part("let_scope", node))
                inner.add(self._named([name]))
            inner.add(self._block(rest[1:]))
            return whole
        values = [self._form(value) for _, value in clauses]
        scope = self._part("let_scope", node)
        if word == "let":
            whole.children += values
        whole.add(scope)
        scope.add(self._named([*([own] if own is not None else []), *(name for name, _ in clauses)]))
        if word != "let":
            scope.children += values
        scope.add(self._block(rest[1:]))
        return whole

    def _named(self, names: list[Node]) -> Part:
        start, stop = (names[0].start_byte, names[-1].end_byte) if names else (0, 0)
        return Part("let_names", start, stop, "", [self._name(name, "left") for name in names])
