"""Grammar nodes to the program tree, for languages whose grammars speak otherwise.

The tree's kinds are the same for all languages, so that the rest of the core knows one form of an
assignment, a call or a branch: every branch and loop has a block, however short its body; `else if`
is a clause beside the others; a `switch` has clauses with blocks; a call of a member has the member
as its callee; an assignment inside an expression is told from one that is a statement.
"""

from __future__ import annotations

import re
from bisect import bisect_right
from collections.abc import Iterator
from sys import intern

import tree_sitter

from ..languages.table import Language, Reading
from .tree import MAX_DEPTH, Flattener, Tree

WHOLE = re.compile(r"-?(?:0|[1-9][0-9]*)\Z")
FUNCTION_VALUES = frozenset({"arrow_function", "function_expression", "function"})
DECLARATORS = frozenset(
    {
        "function_declarator",
        "pointer_declarator",
        "reference_declarator",
        "abstract_function_declarator",
        "lambda_declarator",
    }
)


class Normaliser(Flattener):
    """Walks the grammar's tree once, recursively to a bounded depth, and writes the program tree."""

    def __init__(self, source: bytes, language: Language, reading: Reading) -> None:
        super().__init__(source, language)
        self.reading = reading
        self.braces: set[int] = set()
        self.depth = 0
        self.compound = language.branches | language.clauses
        self.interpolations = {k for k, v in reading.kinds.items() if v == language.interpolation}
        self.interpolations.add(language.interpolation)

    def flatten(self, root: tree_sitter.Node) -> Tree:
        self.cursor = root.walk()
        top = self._open(self.reading.kinds.get(root.type, root.type), root, "", -1)
        for _ in self._children():
            self._statement(top)
        self._close(top)
        return self.tree(frozenset(self.braces))

    # -- building ----------------------------------------------------------------------------------

    def _open(self, kind: str, node: tree_sitter.Node, field: str, parent: int, leaf: bool = False) -> int:
        index = len(self.kind)
        self.kind.append(intern(kind))
        start, stop = node.start_byte, node.end_byte
        self.text.append(intern(self.source[start:stop].decode(errors="replace")) if leaf else "")
        self.field.append(field)
        self.parent.append(parent)
        self.end.append(index + 1)
        self.start.append(start)
        self.stop.append(stop)
        return index

    def _close(self, index: int) -> None:
        self.end[index] = len(self.kind)

    def _children(self) -> Iterator[tree_sitter.Node]:
        """Move the cursor over the children of the node it is at, and back."""
        cursor = self.cursor
        if not cursor.goto_first_child():
            return
        while True:
            assert cursor.node is not None
            yield cursor.node
            if not cursor.goto_next_sibling():
                break
        cursor.goto_parent()

    def _field(self, kind: str) -> str:
        """The tree's name for the field at the cursor within a grammar node of `kind`."""
        field = self.cursor.field_name or ""
        return self.reading.fields.get((kind, field), field)

    @property
    def _node(self) -> tree_sitter.Node:
        node = self.cursor.node
        assert node is not None
        return node

    # -- statements --------------------------------------------------------------------------------

    def _statement(self, parent: int, field: str = "") -> None:
        """Add the node at the cursor where a statement may stand."""
        node, reading = self._node, self.reading
        kind = node.type
        if kind == reading.expression_statement:
            for _ in self._children():
                self._visit(parent, field, as_statement=True)
        else:
            self._visit(parent, field, as_statement=True)

    def _body(self, parent: int, field: str) -> None:
        """Add the statement at the cursor as a block of its own, if it is not one."""
        node = self._node
        if self.reading.kinds.get(node.type, node.type) in self.language.blocks:
            self._visit(parent, field)
            return
        if node.type in self.language.comment or node.type == ";":
            self._visit(parent, field)
            return
        block = self._open("block", node, field, parent)
        self._statement(block)
        self._close(block)

    def _visit(self, parent: int, field: str, as_statement: bool = False) -> None:
        """Add the node at the cursor and what is below it."""
        node, reading, language = self._node, self.reading, self.language
        kind = node.type
        if kind in language.comment:
            self.add_comment(node.start_byte, node.end_byte)
            return
        if node.is_error or node.is_missing:
            self.add_problem(node)
        if kind == ";":
            return
        if kind in ("{", "}") and parent >= 0 and self.kind[parent] in language.blocks:
            self._brace(node)
            return
        self.depth += 1
        if node.child_count == 0 or kind in reading.leaves or self.depth >= MAX_DEPTH:
            self._leaf(kind, node, field, parent)
        elif kind in ("declaration", "field_declaration") and _is_prototype(node):
            self._open("prototype", node, field, parent, leaf=True)
        elif kind == "if_statement":
            top = self._open(kind, node, field, parent)
            self._branch(top, top)
            self._close(top)
        elif kind in reading.switches:
            self._switch(node, field, parent)
        elif kind in reading.functions:
            self._function(node, field, parent, as_statement)
        elif kind == reading.member_call and node.child_by_field_name("object") is not None:
            self._member_call(node, field, parent)
        elif kind in reading.dissolved and field != "initializer":
            for child in self._children():
                self._visit(parent, self._field(kind) or (field if child.is_named else ""), as_statement)
        else:
            self._plain(node, field, parent, as_statement)
        self.depth -= 1

    def _plain(self, node: tree_sitter.Node, field: str, parent: int, as_statement: bool) -> None:
        kind = node.type
        known = self._kind_of(node, as_statement)
        if known in self.language.strings and not any(c.type in self.interpolations for c in node.children):
            self._open(known, node, field, parent, leaf=True)
            return
        index = self._open(known, node, field, parent)
        in_block = known in self.language.blocks
        bodies = self.reading.body_fields if known in self.compound else frozenset()
        past_equals = False
        for child in self._children():
            below = self._field(kind)
            if in_block:
                self._statement(index)
            elif below in bodies:
                self._body(index, below)
            elif below in ("initializer", "update") and known == "counting_loop":
                self._visit(index, below, as_statement=True)
            else:
                if known == "declarator" and past_equals and not below:
                    below = "right"
                if known == "named_expression" and below == "left":
                    below = "name"
                self._visit(index, below)
            past_equals = past_equals or child.type == "="
        self._close(index)

    def _kind_of(self, node: tree_sitter.Node, as_statement: bool) -> str:
        kind, reading = node.type, self.reading
        if kind in reading.assignments:
            operator = next((c.type for c in node.children if c.type.endswith("=") and not c.is_named), "=")
            if operator != "=":
                return "augmented_assignment"
            return "assignment" if as_statement else "named_expression"
        if kind in reading.updates:
            return "update" if any(c.type in ("++", "--") for c in node.children) else "unary_operator"
        if kind == reading.pointers:
            return "address_of" if node.children and node.children[0].type == "&" else "dereference"
        known = reading.kinds.get(kind, kind)
        if kind in ("struct_specifier", "class_specifier") and node.child_by_field_name("body") is None:
            return "struct_type"
        if known == "declaration" and self._holds_a_function(node):
            return "function_variable"
        return known

    def _holds_a_function(self, node: tree_sitter.Node) -> bool:
        """True for `const f = (a) => { … }`: a procedure that is written as a variable."""
        inner = node.named_children
        value = inner[0].child_by_field_name("value") if len(inner) == 1 else None
        if value is None or value.type not in FUNCTION_VALUES:
            return False
        body = value.child_by_field_name("body")
        return body is not None and self.reading.kinds.get(body.type, body.type) in self.language.blocks

    def _leaf(self, kind: str, node: tree_sitter.Node, field: str, parent: int) -> None:
        known = self.reading.kinds.get(kind, kind) if node.is_named else kind
        if known == "integer" and not WHOLE.match(self.source[node.start_byte : node.end_byte].decode("ascii", "x")):
            known = "float"
        index = self._open(known, node, field, parent, leaf=True)
        if self.text[index].endswith("\n"):
            self.text[index] = intern(self.text[index].rstrip())
            self.stop[index] = self.start[index] + len(self.text[index].encode())

    def _brace(self, node: tree_sitter.Node) -> None:
        self.braces.add(bisect_right(self.line_starts, node.start_byte))

    # -- what grammars build in their own ways -------------------------------------------------------

    def _branch(self, target: int, top: int) -> None:
        """Add an `if` at the cursor to `target`; its further branches become clauses of `top`."""
        kind = self._node.type
        state = [target]
        for child in self._children():
            if child.type == "else_clause":
                for _ in self._children():
                    self._else(state, top)
            else:
                field = self._field(kind)
                if child.type == "else" or state[0] != target or field == "alternative":
                    self._else(state, top)
                elif field == "consequence":
                    self._body(target, field)
                else:
                    self._visit(target, field)
        if state[0] >= 0:
            self._close(state[0])

    def _else(self, state: list[int], top: int) -> None:
        """A part of an else branch: the word opens a clause, the statement fills it."""
        node = self._node
        if node.type == "else":
            if state[0] != top and state[0] >= 0:
                self._close(state[0])
            follows = node.next_named_sibling
            while follows is not None and follows.type in self.language.comment:
                follows = follows.next_named_sibling
            chained = follows is not None and follows.type == "if_statement"
            clause = self._open("elif_clause" if chained else "else_clause", follows or node, "alternative", top)
            self.start[clause] = node.start_byte
            self._leaf("else", node, "", clause)
            state[0] = clause
        elif node.type == "if_statement":
            self._branch(state[0], top)
            state[0] = -1
        else:
            self._body(state[0], "consequence")

    def _switch(self, node: tree_sitter.Node, field: str, parent: int) -> None:
        index = self._open("match_statement", node, field, parent)
        for child in self._children():
            if any(c.type in self.reading.cases for c in child.children) or self.cursor.field_name == "body":
                for inner in self._children():
                    if inner.type in self.reading.cases:
                        self._case(index)
                    elif inner.type in ("{", "}"):
                        self._brace(inner)
                    else:
                        self._visit(index, "")
            else:
                self._visit(index, "subject")
        self._close(index)

    def _case(self, parent: int) -> None:
        """One branch: its values, a block of its statements, and the `break` that ends it."""
        node = self._node
        clause = self._open("case_clause", node, "", parent)
        children = [c for c in node.children if c.type not in self.language.comment]
        last = children[-1] if children and children[-1].type == "break_statement" else None
        block = -1
        arrow = False
        for child in self._children():
            if block < 0 and not arrow:
                if child.type in (":", "->", "=>"):
                    rest = [c for c in children if c.start_byte > child.start_byte and c != last]
                    arrow = child.type != ":"
                    self._leaf(child.type, child, "", clause)
                    if rest and not arrow:
                        block = self._open("block", rest[0], "body", clause)
                        self.stop[block] = rest[-1].end_byte
                else:
                    self._visit(clause, "value")
            elif arrow:
                self._body(clause, "body")
            elif last is not None and child == last:
                self._close(block)
                self._visit(clause, "")
                block = -1
            else:
                self._statement(block)
        if block >= 0:
            self._close(block)
        self._close(clause)

    def _member_call(self, node: tree_sitter.Node, field: str, parent: int) -> None:
        call = self._open("call", node, field, parent)
        member = -1
        for child in self._children():
            below = self._field(node.type)
            if below == "object":
                member = self._open("attribute", child, "function", call)
            if below == "arguments":
                self._close(member)
                self._visit(call, below)
                continue
            if below == "function":
                below = "attribute"
                self.stop[member] = child.end_byte
            self._visit(member, below)
        self._close(call)

    def _function(self, node: tree_sitter.Node, field: str, parent: int, as_statement: bool) -> None:
        """A function with a block is a procedure; without one it is an expression with a scope."""
        body = node.child_by_field_name("body")
        blocks = self.language.blocks
        has_block = body is not None and self.reading.kinds.get(body.type, body.type) in blocks
        if not has_block and node.type not in FUNCTION_VALUES and not node.type.startswith("lambda"):
            kind = "method_signature"
        else:
            kind = "function_definition" if has_block else "lambda"
        index = self._open(kind, node, field, parent)
        self._function_parts(index, node.type)
        self._close(index)

    def _function_parts(self, index: int, kind: str) -> None:
        for child in self._children():
            if child.type in DECLARATORS and self.cursor.field_name in ("declarator", None):
                self._function_parts(index, child.type)
            else:
                below = self._field(kind)
                if below == "declarator":
                    below = "name"
                self._visit(index, below)


def _is_prototype(node: tree_sitter.Node) -> bool:
    """True for a declaration of a function that is defined elsewhere."""
    declarator = node.child_by_field_name("declarator")
    while declarator is not None and declarator.type in ("pointer_declarator", "reference_declarator"):
        declarator = declarator.child_by_field_name("declarator")
    return declarator is not None and declarator.type == "function_declarator"
