"""Swift's text as parts of the program tree, over the tree-sitter grammar of that name.

The grammar leaves statements outside of blocks (`{`, `statements`, `}` stand side by side in a loop), puts
calls and subscripts into suffixes, and nests binary operators by an order of its own; here they become what
the program tree has.
"""

from __future__ import annotations

import re
from collections.abc import Iterable

import tree_sitter

from ...deadline import look
from ..grammars import parser_for
from ..parts import Built, Layout, Part, incomplete, token
from ..precedence import SIGN, nested

Node = tree_sitter.Node
COMMENTS = frozenset({"comment", "multiline_comment"})
BINARY = frozenset(
    """
    additive_expression multiplicative_expression comparison_expression equality_expression conjunction_expression
    disjunction_expression infix_expression nil_coalescing_expression range_expression bitwise_operation
    """.split()
)
LEVELS = (("||",), ("&&",), ("==", "!=", "<", ">", "<=", ">=", "===", "!=="), ("??",), ("...", "..<"))
SUMS = (("+", "-", "|", "^", "&+", "&-"), ("*", "/", "%", "&", "&*"), ("<<", ">>"))
PREFIXES = frozenset({"-", "+", "bang", "~", "&"})
OPERANDS = frozenset({"lhs", "rhs", "start", "end", "value", "if_nil", "target"})
DEEPEST = 150
RENAMED = {
    "simple_identifier": "identifier",
    "array_literal": "list",
    "dictionary_literal": "dictionary",
    "ternary_expression": "conditional_expression",
    "prefix_expression": "unary_operator",
    "real_literal": "float",
    "nil": "none",
    "self_expression": "this",
    "super_expression": "super",
    "import_declaration": "import_statement",
    "await_expression": "await_expression",
    "enum_entry": "field",
    "protocol_function_declaration": "method_signature",
    "protocol_property_declaration": "method_signature",
    "typealias_declaration": "type_definition",
    "while_statement": "while_statement",
    "repeat_while_statement": "do_statement",
    "guard_statement": "guard_statement",
    "do_statement": "try_statement",
    "catch_block": "except_clause",
}
LEAVES = frozenset(
    """
    user_type array_type dictionary_type optional_type tuple_type function_type opaque_type type_annotation
    import_declaration enum_entry protocol_function_declaration protocol_property_declaration attribute
    inheritance_specifier typealias_declaration type_parameters type_constraints line_str_text multi_line_str_text
    multi_line_string_literal raw_string_literal regex_literal availability_condition directive
    """.split()
)
BRACED = frozenset({"while_statement", "repeat_while_statement", "guard_statement", "do_statement", "catch_block"})
LEAVING = {
    "return": "return_statement",
    "break": "break_statement",
    "continue": "continue_statement",
    "throw": "raise_statement",
    "fallthrough": "fallthrough_statement",
}
HEADER_WORDS = frozenset({"if", "else", "while", "guard", "repeat", "do", "catch", "catch_keyword", ","})
WHOLE = re.compile(rb"(?:0|[1-9][0-9]*)\Z")


def build(source: bytes) -> Built:
    """The nodes of a Swift file; never raises."""
    return _Builder(source).run(parser_for("swift").parse(source).root_node)


class _Builder:
    def __init__(self, source: bytes) -> None:
        self.source = source
        self.root = Part("program", 0, len(source))
        self.built = Built(Layout(source))
        self.depth = 0

    def run(self, root: Node) -> Built:
        self._statements(root.children, self.root)
        self.built.layout.add(self.root)
        return self.built

    # -- statements --------------------------------------------------------------------------------

    def _statements(self, nodes: Iterable[Node], into: Part) -> None:
        for node in nodes:
            look()
            if node.type == "statements":
                self._statements(node.children, into)
            elif node.type not in {"{", "}", ";"}:
                self._into(into, node)

    def _into(self, parent: Part, node: Node, field: str = "") -> Part | None:
        """Convert a node and add it; comments and semicolons go elsewhere."""
        part = self._part(node)
        return parent.add(part, field) if part is not None else None

    def _part(self, node: Node) -> Part | None:
        kind = node.type
        if kind in COMMENTS:
            self.built.comments.append((node.start_byte, node.end_byte))
            return None
        if kind == ";":
            return None
        if node.is_missing:
            self.built.problems.append((node.start_byte, f"{kind!r} is missing here; the program is read around it"))
        elif node.is_error:
            self.built.problems.append((node.start_byte, incomplete(self.source[node.start_byte : node.end_byte])))
        if self.depth > DEEPEST:
            return self._token(node)
        self.depth += 1
        try:
            return self._converted(node)
        finally:
            self.depth -= 1

    def _converted(self, node: Node) -> Part:
        kind = node.type
        convert = getattr(self, f"read_{kind}", None)
        if convert is not None:
            part = convert(node)
            assert isinstance(part, Part)
            return part
        if kind in BINARY:
            return self._binary(node)
        if node.child_count == 0 or kind in LEAVES:
            return self._token(node)
        if kind in BRACED:
            return self._braced(Part(RENAMED[kind], node.start_byte, node.end_byte), node.children)
        part = Part(RENAMED.get(kind, kind), node.start_byte, node.end_byte)
        for k, child in enumerate(node.children):
            self._into(part, child, node.field_name_for_child(k) or "")
        return part

    def _token(self, node: Node) -> Part:
        kind = RENAMED.get(node.type, node.type)
        text = self.source[node.start_byte : node.end_byte]
        if node.type == "simple_identifier" and text.startswith(b"$"):
            kind = "closure_argument"
        elif node.type in {"user_type", "array_type", "optional_type"}:
            kind = "type"
        stop = node.end_byte
        return token(kind, node.start_byte, stop - (len(text) - len(text.rstrip())))

    def _braced(self, part: Part, children: list[Node]) -> Part:
        """Children of which some stand between braces: these become a block."""
        block: Part | None = None
        for child in children:
            if child.type == "{" and block is None:
                block = part.add(Part("block", child.start_byte, child.end_byte), "body")
                self.built.braces.add(child.start_byte)
            elif child.type == "}" and block is not None:
                block.stop = child.end_byte
                self.built.braces.add(child.start_byte)
                block = None
            elif child.type == "catch_block" or block is None:
                self._header(part, child, children)
            else:
                self._statements([child], block)
                block.stop = child.end_byte
        return part

    def _header(self, part: Part, child: Node, children: list[Node]) -> None:
        """A part of a condition; `let x = …` in it declares x."""
        if child.type == "value_binding_pattern":
            found = part.add(Part("declaration", child.start_byte, child.end_byte), "condition")
            self._into(found, child.children[0] if child.children else child)
            found.add(Part("declarator", child.end_byte, child.end_byte))
            return
        last = part.children[-1] if part.children else None
        binding = last.children[-1] if last and last.kind == "declaration" and last.children else None
        if binding is not None and last is not None and len(binding.children) < 3 and child.type != ",":
            field = "left" if child.type == "simple_identifier" and not binding.children else ""
            if any(c.kind == "=" for c in binding.children):
                field = "right"
            self._into(binding, child, field)
            if field == "left":
                binding.start = child.start_byte
            binding.stop = last.stop = child.end_byte
            return
        self._into(part, child, "" if child.type in HEADER_WORDS else "condition")

    def read_if_statement(self, node: Node) -> Part:
        top = Part("if_statement", node.start_byte, node.end_byte)
        self._branch(node, top, top)
        return top

    def _branch(self, node: Node, into: Part, top: Part) -> None:
        before: list[Node] = []
        after: list[Node] = []
        for child in node.children:
            (after if after or child.type == "else" else before).append(child)
        self._braced(into, before)
        if into is not top:
            into.stop = before[-1].end_byte if before else into.stop
        if not after:
            return
        nested = next((c for c in after if c.type == "if_statement"), None)
        clause = Part("elif_clause" if nested else "else_clause", after[0].start_byte, node.end_byte)
        top.add(clause, "alternative")
        clause.add(self._token(after[0]))
        for child in after[1:]:
            if child.type in COMMENTS:
                self._part(child)
        if nested is not None:
            self._branch(nested, clause, top)
        else:
            self._braced(clause, [c for c in after[1:] if c.type not in COMMENTS])

    def read_for_statement(self, node: Node) -> Part:
        part = Part("for_statement", node.start_byte, node.end_byte)
        head = [c for c in node.children if c.type != "{"]
        first = next((k for k, c in enumerate(node.children) if c.type == "{"), len(node.children))
        for child in node.children[:first]:
            if child.type == "for":
                part.add(self._token(child), "kind")
            elif child.type == "pattern":
                part.add(self._pattern(child), "left")
            elif head.index(child) and part.children[-1].kind == "in":
                part.add(self._collection(child), "right")
            else:
                self._into(part, child)
        return self._braced(part, node.children[first:])

    def _collection(self, node: Node) -> Part:
        """What a loop runs through; numbers between two ends as `counting_range`."""
        whole = self._part(node) or self._token(node)
        if whole.kind == "binary_operator" and whole.children[1].kind in {"...", "..<"}:
            first, sign, last = whole.children
            last.field = "last" if sign.kind == "..." else "limit"
            first.field, sign.field = "first", ""
            return Part("counting_range", whole.start, whole.stop, "", [first, sign, last])
        if whole.kind != "call" or self.source[whole.start : whole.start + 6] != b"stride":
            return whole
        ends = {"from": "first", "to": "limit", "through": "last", "by": "step"}
        given = whole.children[-1].children
        labelled = [g for g in given if g.kind == "labelled_argument"]
        labels = [self.source[g.children[0].start : g.children[0].stop].decode() for g in labelled]
        if len(labels) != 3 or any(label not in ends for label in labels):
            return whole
        part = Part("counting_range", whole.start, whole.stop, "", [whole.children[0]])
        whole.children[0].field = ""
        for label, argument in zip(labels, labelled, strict=True):
            part.add(argument.children[-1], ends[label])
        return part

    def read_switch_statement(self, node: Node) -> Part:
        part = Part("match_statement", node.start_byte, node.end_byte)
        for child in node.children:
            if child.type == "switch_entry":
                part.add(self._case(child))
            elif child.type in {"{", "}"}:
                self.built.braces.add(child.start_byte)
            else:
                self._into(part, child, "" if child.type == "switch" else "subject")
        return part

    def _case(self, node: Node) -> Part:
        clause = Part("case_clause", node.start_byte, node.end_byte)
        for child in node.children:
            if child.type == "statements":
                block = clause.add(Part("block", child.start_byte, child.end_byte), "body")
                self._statements(child.children, block)
            else:
                self._into(clause, child, "value" if child.type == "switch_pattern" else "")
        return clause

    def read_control_transfer_statement(self, node: Node) -> Part:
        word = node.children[0].type if node.children else ""
        if word == "throw_keyword":
            word = "throw"
        part = Part(LEAVING.get(word, "return_statement"), node.start_byte, node.end_byte)
        for child in node.children:
            self._into(part, child)
        return part

    def read_assignment(self, node: Node) -> Part:
        sign = node.child_by_field_name("operator")
        plain = sign is None or sign.type == "="
        part = Part("assignment" if plain else "augmented_assignment", node.start_byte, node.end_byte)
        for k, child in enumerate(node.children):
            field = {"target": "left", "result": "right"}.get(node.field_name_for_child(k) or "", "")
            if child.type == "directly_assignable_expression" and child.child_count:
                child = child.children[0]
            self._into(part, child, field or ("operator" if sign == child else ""))
        return part

    # -- declarations --------------------------------------------------------------------------------

    def read_property_declaration(self, node: Node) -> Part:
        if node.child_by_field_name("computed_value") is not None:
            return self._computed(node)
        in_class = node.parent is not None and node.parent.type in {"class_body", "enum_class_body"}
        closure = next((c for c in node.children if c.type == "lambda_literal"), None)
        kind = "field" if in_class else "declaration"
        part = Part(kind, node.start_byte, node.end_byte)
        declarator: Part | None = None
        for k, child in enumerate(node.children):
            field = node.field_name_for_child(k)
            if child.type == "value_binding_pattern":
                for word in child.children:
                    self._into(part, word)
            elif field == "name" and child.type == "pattern":
                declarator = part.add(Part("declarator", child.start_byte, child.end_byte))
                declarator.add(self._pattern(child), "left")
            elif declarator is None or child.type == ",":
                self._into(part, child)
            else:
                if child.type == "type_annotation":
                    declarator.add(self._annotated(child), "type")
                else:
                    self._into(declarator, child, "right" if field == "value" else "")
                declarator.stop = child.end_byte
        blocked = declarator is not None and any(c.kind == "function_definition" for c in declarator.children)
        if closure is not None and blocked and not in_class:
            part.kind = "function_variable"
        return part

    def _annotated(self, node: Node) -> Part:
        """The type behind a colon."""
        inner = [c for c in node.children if c.type != ":"]
        return token("type", inner[0].start_byte, inner[-1].end_byte) if inner else self._token(node)

    def _computed(self, node: Node) -> Part:
        """`var area: Double { … }` is a procedure without parameters."""
        part = Part("function_definition", node.start_byte, node.end_byte)
        for k, child in enumerate(node.children):
            field = node.field_name_for_child(k)
            if child.type == "value_binding_pattern":
                for word in child.children:
                    self._into(part, word)
            elif field == "name" and child.type == "pattern":
                part.add(self._pattern(child), "name")
            elif child.type == "type_annotation":
                part.add(self._annotated(child), "result")
            elif child.type == "computed_property":
                self._braced(part, child.children)
            else:
                self._into(part, child)
        return part

    def _pattern(self, node: Node) -> Part:
        if node.type == "pattern" and node.child_count == 1:
            return self._part(node.children[0]) or self._token(node)
        part = Part("list_pattern", node.start_byte, node.end_byte)
        for child in node.children:
            if child.type == "pattern":
                part.add(self._pattern(child))
            else:
                self._into(part, child)
        return part

    def read_function_declaration(self, node: Node) -> Part:
        part = Part("function_definition", node.start_byte, node.end_byte)
        parameters: Part | None = None
        past_arrow = False
        for k, child in enumerate(node.children):
            field = node.field_name_for_child(k)
            if child.type == "(" and parameters is None:
                parameters = part.add(Part("parameters", child.start_byte, child.end_byte), "parameters")
                parameters.add(self._token(child))
            elif parameters is not None and self.source[parameters.stop - 1 : parameters.stop] != b")":
                self._parameter_part(parameters, child, field)
                parameters.stop = child.end_byte
            elif child.type == "function_body":
                self._braced(part, child.children)
            elif past_arrow and field == "name":
                part.add(token("type", child.start_byte, child.end_byte), "result")
            else:
                past_arrow = past_arrow or child.type == "->"
                self._into(part, child, "name" if field == "name" and not past_arrow else "")
        if part.children and part.children[0].kind == "init":
            part.children[0] = token("identifier", part.children[0].start, part.children[0].stop, "name")
        return part

    read_init_declaration = read_function_declaration
    read_deinit_declaration = read_function_declaration

    def _parameter_part(self, parameters: Part, child: Node, field: str | None) -> None:
        if child.type == "parameter":
            part = parameters.add(Part("typed_parameter", child.start_byte, child.end_byte))
            names = 0
            for k, inner in enumerate(child.children):
                named = child.field_name_for_child(k)
                if named == "external_name":
                    part.add(token("label", inner.start_byte, inner.end_byte), "label")
                elif named == "name" and inner.type == "simple_identifier" and not names:
                    names += 1
                    part.add(self._token(inner), "name")
                elif named == "name":
                    part.add(token("type", inner.start_byte, inner.end_byte), "type")
                else:
                    self._into(part, inner)
        elif child.type in {"=", "..."} or field == "default_value":
            last = parameters.children[-1]
            self._into(last, child, "value" if field == "default_value" else "")
            last.stop = child.end_byte
        else:
            self._into(parameters, child)

    def read_class_declaration(self, node: Node) -> Part:
        part = Part("class_definition", node.start_byte, node.end_byte)
        for k, child in enumerate(node.children):
            field = node.field_name_for_child(k)
            if child.type in {"class_body", "enum_class_body", "protocol_body"}:
                self._braced(part, child.children)
            elif field == "name":
                part.add(token("identifier", child.start_byte, child.end_byte), "name")
            else:
                self._into(part, child, "superclasses" if child.type == "inheritance_specifier" else "")
        return part

    read_protocol_declaration = read_class_declaration

    # -- expressions ---------------------------------------------------------------------------------

    def read_value_argument(self, node: Node) -> Part:
        named = node.child_by_field_name("name")
        value = node.child_by_field_name("value")
        if named is None:
            inner = self._part(value) if value is not None else None
            return inner or self._token(node)
        part = Part("labelled_argument", node.start_byte, node.end_byte)
        part.add(token("identifier", named.start_byte, named.end_byte), "name")
        if value is not None:
            self._into(part, value, "value")
        return part

    def read_lambda_literal(self, node: Node) -> Part:
        """A closure: a procedure where it does something, an expression with a scope where it is one value."""
        body = next((c for c in node.children if c.type == "statements"), None)
        statements = [c for c in body.named_children if c.type not in COMMENTS] if body is not None else []
        inline = node.start_point[0] == node.end_point[0] and len(statements) <= 1
        single = inline and not any(c.type in {"assignment", "property_declaration"} for c in statements)
        part = Part("lambda" if single else "function_definition", node.start_byte, node.end_byte)
        head = next((c for c in node.children if c.type == "lambda_function_type"), None)
        if head is not None:
            part.add(self._closure_parameters(head), "parameters")
        if single:
            for child in statements:
                self._into(part, child, "body")
            return part
        opening = node.children[0]
        block = part.add(Part("block", opening.start_byte, node.end_byte), "body")
        self.built.braces |= {opening.start_byte, node.end_byte - 1}
        if body is not None:
            self._statements(body.children, block)
        return part

    def _closure_parameters(self, node: Node) -> Part:
        part = Part("parameters", node.start_byte, node.end_byte)
        for listed in node.children:
            for child in listed.children if listed.type == "lambda_function_type_parameters" else [listed]:
                named = child.child_by_field_name("name") if child.type == "lambda_parameter" else None
                if named is not None:
                    inner = part.add(Part("typed_parameter", child.start_byte, child.end_byte))
                    inner.add(self._token(named), "name")
                elif child.type in {"(", ")", ","}:
                    self._into(part, child)
        return part

    def _binary(self, node: Node) -> Part:
        """A chain of operators, nested by Swift's own precedence: the grammar takes `a / b.c` for `(a / b).c`."""
        chain = self._chain(node)
        if _is_whole(chain):
            return nested(chain, (*LEVELS, *SUMS))
        part = Part("binary_operator", node.start_byte, node.end_byte)
        for child in node.children:
            self._into(part, child)
        return part

    read_navigation_expression = _binary
    read_call_expression = _binary

    def read_prefix_expression(self, node: Node) -> Part:
        if node.children[0].type in PREFIXES:
            return self._binary(node)
        part = Part("unary_operator", node.start_byte, node.end_byte)
        for child in node.children:
            self._into(part, child)
        return part

    def _chain(self, node: Node) -> list[Part]:
        """Operands and signs in the order of the text; what follows an operand closely belongs to it alone."""
        if node.type in BINARY or (node.type == "prefix_expression" and node.children[0].type in PREFIXES):
            chain: list[Part] = []
            for k, child in enumerate(node.children):
                if node.field_name_for_child(k) in OPERANDS:
                    chain += self._chain(child)
                elif child.type in COMMENTS:
                    self._part(child)
                else:
                    spelled = self.source[child.start_byte : child.end_byte].decode(errors="replace")
                    chain.append(token(spelled, child.start_byte, child.end_byte, SIGN))
            return chain
        if node.type in {"navigation_expression", "call_expression"} and self.depth < DEEPEST:
            self.depth += 1
            chain = self._chain(node.children[0])
            self.depth -= 1
            told = self._member if node.type == "navigation_expression" else self._called
            return [*chain[:-1], told(node, chain[-1])]
        return [self._part(node) or self._token(node)]

    def _called(self, node: Node, callee: Part) -> Part:
        """A call, or an element in square brackets."""
        arguments = Part("argument_list", node.end_byte, node.end_byte)
        for suffix in node.children[1:]:
            for child in suffix.children if suffix.type == "call_suffix" else [suffix]:
                if child.type == "value_arguments" and child.children and child.children[0].type == "[":
                    part = Part("subscript", callee.start, node.end_byte)
                    part.add(callee, "value")
                    for inner in child.children:
                        self._into(part, inner, "" if inner.type in {"[", "]", ","} else "subscript")
                    return part
                arguments.start = min(arguments.start, child.start_byte)
                for inner in child.children if child.type == "value_arguments" else [child]:
                    self._into(arguments, inner)
        call = Part("call", callee.start, node.end_byte)
        call.add(callee, "function")
        call.add(arguments, "arguments")
        return call

    def _member(self, node: Node, held: Part) -> Part:
        """A member of what is held."""
        part = Part("attribute", held.start, node.end_byte)
        part.add(held, "object")
        for child in node.children[1:]:
            for inner in child.children if child.type == "navigation_suffix" else [child]:
                wanted = child.type == "navigation_suffix" and inner.type != "."
                self._into(part, inner, "attribute" if wanted else "")
        return part

    def read_tuple_expression(self, node: Node) -> Part:
        inner = [c for c in node.children if c.type not in {"(", ")"}]
        plain = len(inner) == 1 and node.child_by_field_name("name") is None
        part = Part("parenthesized_expression" if plain else "tuple", node.start_byte, node.end_byte)
        for child in node.children:
            self._into(part, child)
        return part

    def read_line_string_literal(self, node: Node) -> Part:
        if not any(c.type == "interpolated_expression" for c in node.children):
            return token("string", node.start_byte, node.end_byte)
        part = Part("string", node.start_byte, node.end_byte)
        gap: Part | None = None
        for child in node.children:
            if child.type == "\\(":
                gap = part.add(Part("interpolation", child.start_byte, child.end_byte))
                gap.add(self._token(child))
            elif gap is not None:
                wrapped = child.type == "interpolated_expression" and child.child_count == 1
                inner = child.children[0] if wrapped else child
                self._into(gap, inner)
                gap.stop = child.end_byte
                gap = None if child.type == ")" else gap
            else:
                kind = "string_content" if child.is_named else "string_mark"
                part.add(token(kind, child.start_byte, child.end_byte))
        return part

    def read_integer_literal(self, node: Node) -> Part:
        plain = WHOLE.match(self.source[node.start_byte : node.end_byte])
        return token("integer" if plain else "float", node.start_byte, node.end_byte)

    def read_boolean_literal(self, node: Node) -> Part:
        text = self.source[node.start_byte : node.end_byte].decode()
        return token(text if text in {"true", "false"} else "true", node.start_byte, node.end_byte)


def _is_whole(chain: list[Part]) -> bool:
    """True where operands and signs take turns, but for signs before an operand."""
    operand_wanted = True
    for part in chain:
        if part.field != SIGN and not operand_wanted:
            return False
        operand_wanted = part.field == SIGN
    return not operand_wanted
