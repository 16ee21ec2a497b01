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
from typing import NamedTuple

import tree_sitter

from ..deadline import look
from ..languages.grammars import words_of
from ..languages.parts import MAX_DEPTH
from ..languages.table import Language, Reading
from .tree import MISSING, Flattener, Tree

WHOLE = re.compile(r"-?(?:0|[1-9][0-9]*)\Z")
FUNCTION_VALUES = frozenset({"arrow_function", "function_expression", "function"})
DECLARING = frozenset({"declaration", "field_declaration"})
RECORDS = frozenset({"struct_specifier", "class_specifier"})
FORMED = frozenset({"counting_loop", "declarator", "named_expression"})
"""Kinds of the program tree of which some children have other fields than the grammar tells."""
BRACES = ("{", "}")
DECLARATORS = frozenset(
    {
        "function_declarator",
        "pointer_declarator",
        "reference_declarator",
        "abstract_function_declarator",
        "lambda_declarator",
    }
)


class _Ways:
    """What of a grammar's nodes needs more than a look at their kind."""

    def __init__(self, language: Language, reading: Reading) -> None:
        kinds = reading.kinds
        self.kinds = kinds
        self.compound = language.branches | language.clauses
        self.interpolations = {k for k, v in kinds.items() if v == language.interpolation} | {language.interpolation}
        declared = {k for k, v in kinds.items() if v == "declaration"} | {"declaration"}
        self.told_by_form = reading.assignments | reading.updates | {reading.pointers} | RECORDS | declared
        """Nodes of which only what is in them tells what they are."""
        self.unlike_others = (
            DECLARING | {"if_statement", reading.member_call} | reading.switches | reading.functions | reading.dissolved
        )
        """Nodes that are built in ways of their own."""
        plain_texts = {k for k in (*kinds, *language.strings) if kinds.get(k, k) in language.strings}
        self.tokens = reading.leaves | (frozenset() if language.interpolation else plain_texts)
        """Nodes kept as one token, whatever is in them."""
        self.special = (self.told_by_form | self.unlike_others | language.comment | set(BRACES)) - reading.leaves
        self.formed = FORMED | self.compound | language.blocks | (language.strings if language.interpolation else set())
        """Kinds of the program tree whose children may become something else than what they are."""
        words = words_of(language.grammar)
        self.plain = {number: self._plain(kind, words.signs.get(number)) for number, kind in words.kinds.items()}
        """What each kind of the grammar becomes, by its number."""
        self.words = words
        self.own_fields = reading.fields
        self.fields: dict[tuple[int, int], str] = {}
        """The tree's names for the fields that were seen, by the numbers of the kind of node and of the field."""

    def field(self, kind: int, field: int) -> str:
        """The tree's name for a field in a kind of node of the grammar."""
        names = self.words.kinds[kind], self.words.fields[field]
        found = self.fields[kind, field] = intern(self.own_fields.get(names, names[1]))
        return found

    def _plain(self, kind: str, sign: str | None) -> _Plain:
        becomes = self.kinds.get(kind, kind)
        is_plain = kind in self.tokens or (kind not in self.special and becomes not in self.formed)
        known = intern(becomes) if is_plain else ""
        return _Plain(kind, known, known and (kind if sign else known), kind in self.tokens, sign)


class _Plain(NamedTuple):
    """What a node of one of the grammar's kinds becomes, together with its children as they are."""

    kind: str
    becomes: str
    """Its kind in the program tree; "" where it needs a closer look."""
    leaf: str
    """The same where it has no children."""
    is_token: bool
    sign: str | None
    """The sign or word that is all of it."""


_known_ways: dict[str, _Ways] = {}


def _ways_of(language: Language, reading: Reading) -> _Ways:
    """Worked out once a language."""
    if language.id not in _known_ways:
        _known_ways[language.id] = _Ways(language, reading)
    return _known_ways[language.id]


class Normaliser(Flattener):
    """Walks the grammar's tree once, recursively to a bounded depth, and writes the program tree."""

    def __init__(self, source: bytes, language: Language, reading: Reading) -> None:
        super().__init__(source, language)
        self.reading = reading
        self.braces: set[int] = set()
        self.depth = 0
        self.broken = False
        self.ways = _ways_of(language, reading)

    def flatten(self, root: tree_sitter.Node) -> Tree:
        self.cursor = root.walk()
        self.broken = root.has_error
        self.at_hand = (
            self.cursor,
            self.ways.plain,
            self.ways.fields,
            self.source,
            self.texts,
            self.broken,
            self.kind,
            self.text,
            self.field,
            self.parent,
            self.end,
            self.start,
            self.stop,
        )
        top = self._open(self.reading.kinds.get(root.type, root.type), root, "", -1)
        for child in self._children():
            self._statement(child, top)
        self._close(top)
        return self.tree(frozenset(self.braces))

    # -- building ----------------------------------------------------------------------------------

    def _open(self, kind: str, node: tree_sitter.Node, field: str, parent: int, text: str = "") -> int:
        index = len(self.kind)
        self.kind.append(intern(kind))
        self.text.append(text)
        self.field.append(field)
        self.parent.append(parent)
        self.end.append(index + 1)
        self.start.append(node.start_byte)
        self.stop.append(node.end_byte)
        return index

    def _close(self, index: int) -> None:
        self.end[index] = len(self.kind)

    def _text_of(self, node: tree_sitter.Node) -> str:
        return intern(self.source[node.start_byte : node.end_byte].decode(errors="replace"))

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
        field = self.cursor.field_name
        return self.reading.fields.get((kind, field), field) if field else ""

    # -- statements --------------------------------------------------------------------------------

    def _statement(self, node: tree_sitter.Node, parent: int, field: str = "") -> None:
        """Add the node at the cursor where a statement may stand."""
        look()
        if node.type == self.reading.expression_statement:
            for child in self._children():
                self._visit(child, parent, field, as_statement=True)
        else:
            self._visit(node, parent, field, as_statement=True)

    def _body(self, node: tree_sitter.Node, parent: int, field: str) -> None:
        """Add the statement at the cursor as a block of its own, if it is not one."""
        if self.reading.kinds.get(node.type, node.type) in self.language.blocks:
            self._visit(node, parent, field)
            return
        if node.type in self.language.comment or node.type == ";":
            self._visit(node, parent, field)
            return
        block = self._open("block", node, field, parent)
        self._statement(node, block)
        self._close(block)

    def _visit(self, node: tree_sitter.Node, parent: int, field: str, as_statement: bool = False) -> None:
        """Add the node at the cursor and what is below it."""
        kind = node.type
        if self.broken and (node.is_error or node.is_missing) and kind not in self.language.comment:
            self.add_problem(node)
            kind = MISSING if node.is_missing and node.is_named else kind
        alone = node.child_count == 0
        if alone:
            if kind == ";":
                return
            if kind in BRACES and parent >= 0 and self.kind[parent] in self.language.blocks:
                self._brace(node)
                return
        if kind in self.language.comment:
            self.add_comment(node.start_byte, node.end_byte)
            return
        reading = self.reading
        self.depth += 1
        if alone or kind in reading.leaves or self.depth >= MAX_DEPTH:
            self._leaf(kind, node, field, parent)
        elif kind not in self.ways.unlike_others:
            self._plain(node, kind, field, parent, as_statement)
        elif kind in DECLARING and _is_prototype(node):
            self._open("prototype", node, field, parent, self._text_of(node))
        elif kind == "if_statement":
            top = self._open(kind, node, field, parent)
            self._branch(node, top, top)
            self._close(top)
        elif kind in reading.switches:
            self._switch(node, field, parent)
        elif kind in reading.functions:
            self._function(node, field, parent)
        elif kind == reading.member_call and node.child_by_field_name("object") is not None:
            self._member_call(node, field, parent)
        elif kind in reading.dissolved and field != "initializer":
            for child in self._children():
                inner = self._field(kind) or (field if child.is_named else "")
                self._visit(child, parent, inner, as_statement)
        else:
            self._plain(node, kind, field, parent, as_statement)
        self.depth -= 1

    def _plain(self, node: tree_sitter.Node, kind: str, field: str, parent: int, as_statement: bool) -> None:
        known = self._kind_of(node, kind, as_statement)
        language = self.language
        if known in language.strings and not any(c.type in self.ways.interpolations for c in node.children):
            self._open(known, node, field, parent, self._text_of(node))
            return
        index = self._open(known, node, field, parent)
        if known in language.blocks:
            for child in self._children():
                self._statement(child, index)
        elif known in FORMED or known in self.ways.compound:
            self._formed(kind, known, index)
        else:
            self._below(node.kind_id, index)
        self._close(index)

    def _below(self, kind: int, parent: int) -> None:
        """The nodes below a plain one, as far as they are plain too, in one loop, as most nodes come through here."""
        cursor, plain, fields, source, known, broken, kinds, texts, names, parents, ends, starts, stops = self.at_hand
        descend, aside = cursor.goto_first_child, cursor.goto_next_sibling
        if not descend():
            return
        around: list[tuple[int, int]] = []
        while True:
            node = cursor.node
            assert node is not None
            number = node.kind_id
            named = cursor.field_id
            field = "" if named is None else fields.get((kind, named)) or self.ways.field(kind, named)
            own, becomes, leaf, is_token, text = plain[number]
            if own == ";" and not broken:
                pass
            elif not becomes or broken or self.depth + 1 >= MAX_DEPTH:
                self._visit(node, parent, field)
            else:
                start, stop = node.start_byte, node.end_byte
                index = len(kinds)
                names.append(field)
                parents.append(parent)
                ends.append(index + 1)
                starts.append(start)
                if text is None or len(text) != stop - start:
                    if not is_token and descend():
                        stops.append(stop)
                        kinds.append(becomes)
                        texts.append("")
                        around.append((kind, parent))
                        kind, parent = number, index
                        self.depth += 1
                        continue
                    written = source[start:stop]
                    text = known.get(written)
                    if text is None:
                        text = known[written] = intern(written.decode(errors="replace"))
                    if becomes == "integer" and not WHOLE.match(text):
                        leaf = "float"
                    elif text[-1:] == "\n":
                        text = intern(text.rstrip())
                        stop = start + len(text.encode())
                stops.append(stop)
                kinds.append(leaf)
                texts.append(text)
            while not aside():
                cursor.goto_parent()
                if not around:
                    return
                ends[parent] = len(kinds)
                kind, parent = around.pop()
                self.depth -= 1

    def _formed(self, kind: str, known: str, index: int) -> None:
        """The children of a node of which some take on another form or field than the grammar gives them."""
        bodies = self.reading.body_fields if known in self.ways.compound else frozenset()
        past_equals = False
        for child in self._children():
            below = self._field(kind)
            if below in bodies:
                self._body(child, index, below)
            elif below in ("initializer", "update") and known == "counting_loop":
                self._visit(child, index, below, as_statement=True)
            else:
                if known == "declarator" and past_equals and not below:
                    below = "right"
                if known == "named_expression" and below == "left":
                    below = "name"
                self._visit(child, index, below)
            past_equals = past_equals or child.type == "="

    def _kind_of(self, node: tree_sitter.Node, kind: str, as_statement: bool) -> str:
        reading = self.reading
        if kind not in self.ways.told_by_form:
            return reading.kinds.get(kind, kind)
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
        if kind in RECORDS and node.child_by_field_name("body") is None:
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
        known = self.reading.kinds.get(kind)
        known = intern(kind) if known is None or not node.is_named else known
        start, stop = node.start_byte, node.end_byte
        text = intern(self.source[start:stop].decode(errors="replace"))
        if known == "integer" and not WHOLE.match(text):
            known = "float"
        if text.endswith("\n"):
            text = intern(text.rstrip())
            stop = start + len(text.encode())
        self.kind.append(known)
        self.text.append(text)
        self.field.append(field)
        self.parent.append(parent)
        self.end.append(len(self.kind))
        self.start.append(start)
        self.stop.append(stop)

    def _brace(self, node: tree_sitter.Node) -> None:
        self.braces.add(bisect_right(self.line_starts, node.start_byte))

    # -- what grammars build in their own ways -------------------------------------------------------

    def _branch(self, node: tree_sitter.Node, target: int, top: int) -> None:
        """Add an `if` at the cursor to `target`; its further branches become clauses of `top`."""
        kind = node.type
        state = [target]
        for child in self._children():
            if child.type == "else_clause":
                for part in self._children():
                    self._else(part, state, top)
            else:
                field = self._field(kind)
                if child.type == "else" or state[0] != target or field == "alternative":
                    self._else(child, state, top)
                elif field == "consequence":
                    self._body(child, target, field)
                else:
                    self._visit(child, target, field)
        if state[0] >= 0:
            self._close(state[0])

    def _else(self, node: tree_sitter.Node, state: list[int], top: int) -> None:
        """A part of an else branch: the word opens a clause, the statement fills it."""
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
            self._branch(node, state[0], top)
            state[0] = -1
        else:
            self._body(node, state[0], "consequence")

    def _switch(self, node: tree_sitter.Node, field: str, parent: int) -> None:
        index = self._open("match_statement", node, field, parent)
        for child in self._children():
            if any(c.type in self.reading.cases for c in child.children) or self.cursor.field_name == "body":
                for inner in self._children():
                    if inner.type in self.reading.cases:
                        self._case(inner, index)
                    elif inner.type in ("{", "}"):
                        self._brace(inner)
                    else:
                        self._visit(inner, index, "")
            else:
                self._visit(child, index, "subject")
        self._close(index)

    def _case(self, node: tree_sitter.Node, parent: int) -> None:
        """One branch: its values, a block of its statements, and the `break` that ends it."""
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
                    self._visit(child, clause, "value")
            elif arrow:
                self._body(child, clause, "body")
            elif last is not None and child == last:
                self._close(block)
                self._visit(child, clause, "")
                block = -1
            else:
                self._statement(child, block)
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
                self._visit(child, call, below)
                continue
            if below == "function":
                below = "attribute"
                self.stop[member] = child.end_byte
            self._visit(child, member, below)
        self._close(call)

    def _function(self, node: tree_sitter.Node, field: str, parent: int) -> None:
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
                self._visit(child, index, below)


def _is_prototype(node: tree_sitter.Node) -> bool:
    """True for a declaration of a function that is defined elsewhere."""
    declarator = node.child_by_field_name("declarator")
    while declarator is not None and declarator.type in ("pointer_declarator", "reference_declarator"):
        declarator = declarator.child_by_field_name("declarator")
    return declarator is not None and declarator.type == "function_declarator"
