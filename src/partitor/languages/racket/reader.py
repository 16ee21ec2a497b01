"""Racket's and Scheme's nested lists as parts of the program tree.

Where a body stands, a definition, a choice or a loop is a statement with blocks, and any other form an
expression that is a statement. A form whose parts may bind names or be no expressions at all (`match`, macros of
the program's own) is a `special_form`, in which nothing is put in another's place.
"""

from __future__ import annotations

import re

import tree_sitter

from ...deadline import look
from ..grammars import parser_for, words_of
from ..parts import Built, Layout, incomplete

COMMENTS = frozenset({"comment", "block_comment", "sexp_comment"})
BRACKETS = frozenset("()[]{}")
NO_DATA = COMMENTS | BRACKETS
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
FORMS = frozenset({"define", "set!", "if", "cond", "when", "unless", "begin", "for", "for-each"})
"""What is a statement where a body stands."""
LAMBDAS = frozenset({"lambda", "λ"})
LETS = frozenset({"let", "let*", "letrec", "let-rec"})
IMPORTED_FORMS = frozenset({"require", "provide", "import", "export", "library", "load", "define-library"})
ALL_FORMS = SPECIAL | DEFINED_FORMS | FORMS | LAMBDAS | LETS | IMPORTED_FORMS
"""What is no call."""


DEEPEST = 150
"""Forms in each other, beyond which one is read as a single token."""


class _Datum:
    """What the grammar read, with what is asked of it again and again."""

    def __init__(self, node: tree_sitter.Node, kind: str) -> None:
        self.node = node
        self.kind = kind
        self.start: int = node.start_byte
        self.stop: int = node.end_byte


Data = list[_Datum]


def build_racket(source: bytes) -> Built:
    """The nodes of a Racket file; never raises."""
    return _Builder(source, "racket").run()


def build_scheme(source: bytes) -> Built:
    """The nodes of a Scheme file; never raises."""
    return _Builder(source, "scheme").run()


class _Builder:
    def __init__(self, source: bytes, grammar: str) -> None:
        self.source = source
        self.grammar = grammar
        self.kinds = words_of(grammar).kinds
        self.layout = Layout(source)
        self.built = Built(self.layout)
        macros = re.findall(rb"\(define-(?:syntax(?:-rule)?|macro)\s+\(?\s*([^\s()\[\]]+)", source)
        own = frozenset([m.decode(errors="replace") for m in macros])
        self.special = SPECIAL | own
        self.forms = ALL_FORMS | own
        self.depth = 0
        self.broken = False

    def run(self) -> Built:
        root = parser_for(self.grammar).parse(self.source).root_node
        self.broken = root.has_error
        self.layout.open("program", 0, len(self.source))
        for datum in self._among(root.children):
            look()
            self._statement(datum)
        self.layout.close()
        return self.built

    # -- reading lists -----------------------------------------------------------------------------

    def _among(self, nodes: list[tree_sitter.Node]) -> Data:
        """The data among the grammar's nodes: comments, brackets and what is broken are put where they belong."""
        found: Data = []
        for node in nodes:
            kind = self.kinds[node.kind_id]
            if not self.broken and kind not in NO_DATA:
                found.append(_Datum(node, kind))
            elif kind in COMMENTS:
                self.built.comments.append((node.start_byte, node.end_byte))
            elif self.broken and node.is_missing:
                said = f"{kind!r} is missing here; the program is read around it"
                self.built.problems.append((node.start_byte, said))
            elif self.broken and node.is_error:
                found.append(_Datum(node, kind))
                self.built.problems.append((node.start_byte, incomplete(self.source[node.start_byte : node.end_byte])))
            elif kind in BRACKETS:
                self.built.braces.add(node.start_byte)
            else:
                found.append(_Datum(node, kind))
        return found

    def _items(self, datum: _Datum) -> Data:
        """What stands in a list, without brackets and comments."""
        if self.broken or datum.kind != "list":
            return self._among(datum.node.children)
        items = self._among(datum.node.named_children)
        # A bracket beside a datum stands on a line of code anyway.
        if not items or items[0].start > datum.start + 1:
            self.built.braces.add(datum.start)
        if not items or items[-1].stop < datum.stop - 1:
            self.built.braces.add(datum.stop - 1)
        return items

    def _items_of_list(self, datum: _Datum) -> Data:
        """What stands in a list; nothing in what is none."""
        return self._items(datum) if datum.kind == "list" else []

    def _leave_out(self, data: Data) -> None:
        """What stands where the language has no place for it; its lines are lines of code all the same."""
        for datum in data:
            self.built.braces.update((datum.start, datum.stop - 1))

    def _text(self, datum: _Datum) -> str:
        return self.layout.written(datum.start, datum.stop)

    def _symbol(self, datum: _Datum) -> str:
        """The text of a symbol; "" for anything else."""
        return self._text(datum) if datum.kind == "symbol" else ""

    # -- laying out --------------------------------------------------------------------------------

    def _open(self, kind: str, datum: _Datum, field: str = "") -> int:
        return self.layout.open(kind, datum.start, datum.stop, field)

    def _leaf(self, kind: str, datum: _Datum, field: str = "") -> None:
        self.layout.leaf(kind, datum.start, datum.stop, field)

    def _word(self, datum: _Datum, field: str = "") -> None:
        self._leaf("word", datum, field)

    def _name(self, datum: _Datum, field: str = "") -> None:
        self._leaf("identifier", datum, field)

    # -- statements --------------------------------------------------------------------------------

    def _statement(self, datum: _Datum) -> None:
        self._form(datum, "", True)

    def _block(self, data: Data, field: str = "body") -> None:
        self.layout.open("block", data[0].start, data[-1].stop, field)
        for datum in data:
            self._statement(datum)
        self.layout.close()

    def _form(self, datum: _Datum, field: str = "", as_statement: bool = False) -> None:
        """A datum as an expression, or a form in a place where one may be a statement."""
        if self.depth > DEEPEST:
            self._leaf("character", datum, field)
            return
        self.depth += 1
        if datum.kind == "list":
            self._list(datum, field, as_statement)
        else:
            self._atom(datum, field)
        self.depth -= 1

    def _atom(self, datum: _Datum, field: str) -> None:
        kind = datum.kind
        if kind == "symbol":
            self._name(datum, field)
        elif kind == "number":
            whole = WHOLE.match(self.source[datum.start : datum.stop])
            self._leaf("integer" if whole else "float", datum, field)
        elif kind == "boolean":
            true = self.source[datum.start : datum.start + 2] == b"#t"
            self._leaf("true" if true else "false", datum, field)
        elif kind in LEAVES:
            text = self.source[datum.start : datum.stop]
            self.layout.leaf(LEAVES[kind], datum.start, datum.start + len(text.rstrip()), field)
        elif datum.node.child_count == 0 or kind == "ERROR":
            self._leaf(kind, datum, field)
        else:
            self._open("special_form", datum, field)
            for item in self._items(datum):
                self._form(item)
            self.layout.close()

    def _list(self, datum: _Datum, field: str, as_statement: bool) -> None:
        items = self._items(datum)
        head = self._symbol(items[0]) if items else ""
        if not items:
            self._leaf("list", datum, field)
        elif head not in self.forms:
            self._call(datum, items, field)
        elif head in DEFINED_FORMS:
            self._leaf("type_definition", datum, field)
        elif head in IMPORTED_FORMS:
            self._leaf("import_statement", datum, field)
        elif head in LAMBDAS and len(items) > 2:
            self._lambda(datum, items, field)
        elif head in LETS and len(items) > 2:
            self._let(datum, items, field)
        elif as_statement and head in FORMS and self._statement_form(head, datum, items, field):
            pass
        elif head in self.special or head in {"define", "set!"}:
            self._special(datum, items, field)
        else:
            self._call(datum, items, field)

    def _call(self, datum: _Datum, items: Data, field: str) -> None:
        self._open("call", datum, field)
        self._form(items[0], "function")
        self.layout.open("argument_list", items[0].stop, items[-1].stop, "arguments")
        for k in range(1, len(items)):
            self._form(items[k])
        self.layout.close()
        self.layout.close()

    def _statement_form(self, head: str, datum: _Datum, items: Data, field: str) -> bool:
        """Read a form as a statement; False, and nothing is read, where it is not written as one."""
        if head == "define":
            return self._define(datum, items, field)
        if head == "set!":
            return self._set(datum, items, field)
        if head == "if":
            return self._if(datum, items, field)
        if head == "cond":
            return self._cond(datum, items, field)
        if head == "begin":
            return self._begin(datum, items, field)
        if head == "for":
            return self._for(datum, items, field)
        if head == "for-each":
            return self._for_each(datum, items, field)
        return self._when(datum, items, field)

    def _special(self, datum: _Datum, items: Data, field: str) -> None:
        self._open("special_form", datum, field)
        self._word(items[0])
        asks = self._symbol(items[0]) == "case"
        for k, item in enumerate(items[1:]):
            if asks and k and item.kind == "list":
                self._case(item)
            else:
                self._form(item)
        self.layout.close()

    def _case(self, datum: _Datum) -> None:
        """A branch of a `case`, for data that stand there as they are: `[(north south) …]`."""
        self._open("special_form", datum)
        for k, item in enumerate(self._items(datum)):
            if k:
                self._form(item)
            else:
                self._leaf("character", item)
        self.layout.close()

    def _define(self, datum: _Datum, items: Data, field: str) -> bool:
        if len(items) < 3:
            return False
        target = items[1]
        if target.kind == "list":
            inner = self._items(target)
            if not inner or inner[0].kind == "list":
                return False
            self._open("function_definition", datum, field)
            self._word(items[0])
            self._name(inner[0], "name")
            self._parameters(inner[1:], inner[0].stop, target.stop)
            self._block(items[2:])
            self.layout.close()
            return True
        self._leave_out(items[3:])
        index = self._open("declaration", datum, field)
        self._word(items[0])
        self.layout.open("declarator", target.start, items[-1].stop)
        self._name(target, "left")
        value = len(self.layout.kind)
        self._form(items[2], "right")
        if index >= 0 and value < len(self.layout.kind) and self.layout.kind[value] == "function_definition":
            self.layout.kind[index] = "function_variable"
        self.layout.close()
        self.layout.close()
        return True

    def _parameters(self, data: Data, start: int, stop: int) -> None:
        """Parameters, from behind the function's name up to and including the bracket that closes them."""
        self.layout.open("parameters", start, stop, "parameters")
        for datum in data:
            inner = self._items_of_list(datum)
            if inner and inner[0].kind == "symbol":
                self._open("default_parameter", datum)
                self._name(inner[0], "name")
                for value in inner[1:]:
                    self._form(value, "value")
                self.layout.close()
            elif datum.kind == "symbol" and self._text(datum) != ".":
                self._name(datum)
            else:
                self._leaf("*", datum)
        self.layout.close()

    def _lambda(self, datum: _Datum, items: Data, field: str) -> None:
        """A function without a name: a procedure where it has several lines, else an expression with a scope."""
        single = len(items) == 3 and not (items[2].kind == "list" and self._head(items[2]) in FORMS)
        self._open("lambda" if single else "function_definition", datum, field)
        self._word(items[0])
        given = self._items(items[1]) if items[1].kind == "list" else [items[1]]
        self._parameters(given, items[1].start, items[1].stop)
        if single:
            self._form(items[2], "body")
        else:
            self._block(items[2:])
        self.layout.close()

    def _head(self, datum: _Datum) -> str:
        first = datum.node.named_child(0)
        if first is None or self.kinds[first.kind_id] != "symbol":
            return ""
        return self.layout.written(first.start_byte, first.end_byte)

    def _set(self, datum: _Datum, items: Data, field: str) -> bool:
        if len(items) != 3 or items[1].kind != "symbol":
            return False
        self._open("assignment", datum, field)
        self._word(items[0])
        self._name(items[1], "left")
        self._form(items[2], "right")
        self.layout.close()
        return True

    def _begin(self, datum: _Datum, items: Data, field: str) -> bool:
        if len(items) < 2:
            return False
        self._open("block", datum, field)
        for item in items[1:]:
            self._statement(item)
        self.layout.close()
        return True

    # -- choices ---------------------------------------------------------------------------------------

    def _if(self, datum: _Datum, items: Data, field: str) -> bool:
        if len(items) < 3:
            return False
        self._open("if_statement", datum, field)
        self._word(items[0])
        self._form(items[1], "condition")
        self._block([items[2]])
        self._leave_out(items[4:])
        for other in items[3:4]:
            self._open("else_clause", other, "alternative")
            self._block([other])
            self.layout.close()
        self.layout.close()
        return True

    def _when(self, datum: _Datum, items: Data, field: str) -> bool:
        if len(items) < 3:
            return False
        self._open("if_statement", datum, field)
        self._word(items[0])
        self._form(items[1], "condition")
        self._block(items[2:])
        self.layout.close()
        return True

    def _cond(self, datum: _Datum, items: Data, field: str) -> bool:
        branches = [self._items_of_list(item) for item in items[1:]]
        if not branches or any(len(inner) < 2 for inner in branches):
            return False
        if any(self._symbol(datum) == "=>" for inner in branches for datum in inner):
            return False
        self._open("if_statement", datum, field)
        self._word(items[0])
        for k, inner in enumerate(branches):
            last = self._text(inner[0]) == "else"
            clause = last or k > 0
            if clause:
                self._open("else_clause" if last else "elif_clause", items[k + 1], "alternative")
            if last:
                self._word(inner[0])
            else:
                self._form(inner[0], "condition")
            self._block(inner[1:])
            if clause:
                self.layout.close()
        self.layout.close()
        return True

    # -- loops and scopes --------------------------------------------------------------------------------

    def _for(self, datum: _Datum, items: Data, field: str) -> bool:
        if len(items) < 3:
            return False
        clauses = [self._items(clause) for clause in self._items_of_list(items[1])]
        if not clauses or any(len(c) != 2 or c[0].kind != "symbol" for c in clauses):
            return False
        self._open("for_statement", datum, field)
        self._word(items[0], "kind")
        self._turns([c[0] for c in clauses], [c[1] for c in clauses])
        self._block(items[2:])
        self.layout.close()
        return True

    def _for_each(self, datum: _Datum, items: Data, field: str) -> bool:
        """`(for-each (lambda (x) …) values)` is a loop over the values."""
        function = self._items_of_list(items[1]) if len(items) > 2 else []
        if len(function) < 3 or self._text(function[0]) not in LAMBDAS or function[1].kind != "list":
            return False
        names = self._items(function[1])
        if len(names) != len(items) - 2 or any(n.kind != "symbol" for n in names):
            return False
        self._open("for_statement", datum, field)
        self._word(items[0], "kind")
        self._turns(names, items[2:])
        self._block(function[2:])
        self.layout.close()
        return True

    def _turns(self, names: Data, values: Data) -> None:
        """The loop's variables and what each runs through, side by side."""
        if len(names) == 1:
            self._name(names[0], "left")
            self._values(values[0], "right")
            return
        self.layout.open("list_pattern", names[0].start, names[-1].stop, "left")
        for name in names:
            self._name(name)
        self.layout.close()
        self.layout.open("zipped", values[0].start, values[-1].stop, "right")
        for value in values:
            self._values(value)
        self.layout.close()

    def _values(self, datum: _Datum, field: str = "") -> None:
        """What a loop runs through; numbers in a row as `counting_range`."""
        items = self._items_of_list(datum)
        if not items or self._text(items[0]) not in {"in-range", "range"} or not 2 <= len(items) <= 4:
            self._form(datum, field)
            return
        self._open("counting_range", datum, field)
        self._name(items[0])
        fields = ["first", "limit", "step"]
        if len(items) == 2:
            self.layout.leaf("integer", items[0].stop, items[0].stop, "first", "0")
            fields = ["limit"]
        for k in range(1, len(items)):
            self._form(items[k], fields[k - 1])
        self.layout.close()

    def _let(self, datum: _Datum, items: Data, field: str) -> None:
        """Names for values: the values are worked out outside of the scope in which the names mean them."""
        word, rest = self._text(items[0]), items[1:]
        names = [rest.pop(0)] if rest[0].kind == "symbol" else []
        clauses = [self._items(c) if c.kind == "list" else [c] for c in self._items_of_list(rest[0])]
        if len(rest) < 2 or any(len(c) != 2 or c[0].kind != "symbol" for c in clauses):
            self._special(datum, items, field)
            return
        self._open("let_block", datum, field)
        self._word(items[0])
        if word == "let*":
            for name, value in clauses:
                self._form(value)
                self._open("let_scope", datum)
                self._named([name])
            self._block(rest[1:])
            for _ in clauses:
                self.layout.close()
            self.layout.close()
            return
        if word == "let":
            for clause in clauses:
                self._form(clause[1])
        self._open("let_scope", datum)
        self._named([*names, *(clause[0] for clause in clauses)])
        if word != "let":
            for clause in clauses:
                self._form(clause[1])
        self._block(rest[1:])
        self.layout.close()
        self.layout.close()

    def _named(self, names: Data) -> None:
        start, stop = (names[0].start, names[-1].stop) if names else (0, 0)
        self.layout.open("let_names", start, stop)
        for name in names:
            self._name(name, "left")
        self.layout.close()
