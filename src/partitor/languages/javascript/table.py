"""JavaScript and TypeScript, over the tree-sitter grammars of those names."""

from __future__ import annotations

from typing import Any

from ..braces.base import BRACES, TARGETS
from ..table import Binding, Language, Reading, TypeNames
from .pages import code_spans, masked, told_outside

KINDS = {
    "statement_block": "block",
    "class_body": "block",
    "lexical_declaration": "declaration",
    "variable_declaration": "declaration",
    "variable_declarator": "declarator",
    "class_declaration": "class_definition",
    "class": "class_definition",
    "call_expression": "call",
    "arguments": "argument_list",
    "member_expression": "attribute",
    "subscript_expression": "subscript",
    "binary_expression": "binary_operator",
    "ternary_expression": "conditional_expression",
    "formal_parameters": "parameters",
    "assignment_pattern": "default_parameter",
    "rest_pattern": "list_splat_pattern",
    "required_parameter": "typed_parameter",
    "optional_parameter": "typed_parameter",
    "array": "list",
    "object": "dictionary",
    "array_pattern": "list_pattern",
    "number": "integer",
    "template_string": "string",
    "template_substitution": "interpolation",
    "string_fragment": "string_content",
    "null": "none",
    "undefined": "none",
    "property_identifier": "identifier",
    "private_property_identifier": "identifier",
    "shorthand_property_identifier": "identifier",
    "shorthand_property_identifier_pattern": "identifier",
    "for_in_statement": "for_statement",
    "for_statement": "counting_loop",
    "catch_clause": "except_clause",
    "throw_statement": "raise_statement",
    "spread_element": "list_splat",
    "field_definition": "field",
    "public_field_definition": "field",
    "interface_declaration": "type_definition",
    "type_alias_declaration": "type_definition",
    "enum_declaration": "type_definition",
    "import_statement": "import_statement",
}

READING = Reading(
    kinds=KINDS,
    fields={
        ("variable_declarator", "name"): "left",
        ("variable_declarator", "value"): "right",
        ("member_expression", "property"): "attribute",
        ("subscript_expression", "object"): "value",
        ("subscript_expression", "index"): "subscript",
        ("assignment_pattern", "left"): "name",
        ("assignment_pattern", "right"): "value",
        ("required_parameter", "pattern"): "name",
        ("optional_parameter", "pattern"): "name",
        ("for_statement", "increment"): "update",
        ("update_expression", "argument"): "",
        ("field_definition", "property"): "name",
        ("public_field_definition", "name"): "name",
    },
    dissolved=frozenset({"else_clause", "named_imports"}),
    leaves=frozenset({"regex", "type_annotation", "hash_bang_line", "import_require_clause"}),
    expression_statement="expression_statement",
    body_fields=frozenset({"consequence", "alternative", "body"}),
    switches=frozenset({"switch_statement"}),
    cases=frozenset({"switch_case", "switch_default"}),
    assignments=frozenset({"assignment_expression", "augmented_assignment_expression"}),
    updates=frozenset({"update_expression", "unary_expression"}),
    functions=frozenset(
        {
            "function_declaration",
            "function_expression",
            "generator_function_declaration",
            "generator_function",
            "arrow_function",
            "method_definition",
        }
    ),
)

GLOBALS = frozenset(
    """
    console Math JSON Number String Boolean Array Object Date RegExp Error Map Set Promise Symbol parseInt
    parseFloat isNaN isFinite alert prompt confirm document window setTimeout setInterval clearTimeout
    clearInterval requestAnimationFrame require module exports process fetch navigator localStorage encodeURIComponent
    decodeURIComponent Buffer global globalThis undefined NaN Infinity eval structuredClone queueMicrotask
    """.split()
)
KEYWORDS = frozenset(
    """
    await break case catch class const continue debugger default delete do else enum export extends false finally
    for function if implements import in instanceof interface let new null package private protected public return
    static super switch this throw true try typeof var void while with yield arguments async of get set type
    """.split()
)
TABLE: dict[str, Any] = {
    **BRACES,
    "loops_declare": True,
    "reading": READING,
    "interpolation": "interpolation",
    "shebangs": ("node", "deno"),
    "comment": frozenset({"comment", "html_comment"}),
    "targets": (
        *TARGETS,
        Binding("import_clause", ""),
        Binding("namespace_import", ""),
        Binding("import_specifier", "name"),
        Binding("import_specifier", "alias"),
    ),
    "builtins": GLOBALS,
    "reflective": frozenset({"eval", "with_statement", "caller", "callee"}),
    "pure_calls": frozenset({"Number", "String", "parseInt", "parseFloat", "isNaN", "Boolean"}),
    "runs_top_down": True,
    "output_calls": frozenset({"log", "error", "warn", "write", "alert"}),
    "input_calls": frozenset({"prompt", "question", "confirm"}),
    "keywords": KEYWORDS,
    "framework_calls": frozenset(
        {
            "setup",
            "draw",
            "toString",
            "valueOf",
            "toJSON",
            "preload",
            "mousePressed",
            "keyPressed",
            "mouseReleased",
            "keyReleased",
            "constructor",
            "render",
        }
    ),
    "hoists": True,
    "shares_top": True,
    "texts_take_texts": True,
    "own_object": "this",
    "functions_keep_variables": True,
    "argument_names": {
        "prompt": ("question",),
        "alert": ("message",),
        "getElementById": ("id",),
        "querySelector": ("selector",),
        "createElement": ("tag",),
        "replace": ("old", "new"),
        "replaceAll": ("old", "new"),
        "circle": ("x", "y", "size"),
        "rect": ("x", "y", "width", "height"),
        "ellipse": ("x", "y", "width", "height"),
        "fillRect": ("x", "y", "width", "height"),
        "strokeRect": ("x", "y", "width", "height"),
        "fillText": ("text", "x", "y"),
        "arc": ("x", "y", "radius"),
        "moveTo": ("x", "y"),
        "lineTo": ("x", "y"),
    },
    "functions_are_values": True,
    "global_style": True,
}

JAVASCRIPT = Language(
    id="javascript",
    title="JavaScript",
    grammar="javascript",
    extensions=(".js", ".mjs", ".cjs", ".jsx", ".html", ".htm"),
    mask=masked,
    code_spans=code_spans,
    told_outside=told_outside,
    **TABLE,
)
TYPESCRIPT = Language(
    id="typescript",
    title="TypeScript",
    grammar="typescript",
    extensions=(".ts", ".mts", ".tsx"),
    types=TypeNames("number", "number", "string", "boolean", 2**53 - 1, ("number",)),
    annotates=True,
    types_behind=True,
    **TABLE,
)
