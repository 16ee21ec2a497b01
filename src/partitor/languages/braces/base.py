"""What the tables of all languages with braces share: the kinds of the program tree."""

from __future__ import annotations

from typing import Any

from ..table import Binding

TARGETS = (
    Binding("declarator", "left"),
    Binding("declaration", "left"),
    Binding("assignment", "left"),
    Binding("augmented_assignment", "left", reads_too=True),
    Binding("named_expression", "name"),
    Binding("update", "", reads_too=True),
    Binding("for_statement", "left"),
    Binding("except_clause", "parameter"),
    Binding("address_of", "argument", reads_too=True),
)

BRACES: dict[str, Any] = {
    "declares": True,
    "open_library": True,
    "either_sign": "||",
    "comment_marks": ("//", "/*", "*"),
    "blocks": frozenset({"program", "block"}),
    "clauses": frozenset({"elif_clause", "else_clause", "except_clause", "finally_clause", "case_clause"}),
    "procedures": frozenset({"function_definition"}),
    "classes": frozenset({"class_definition", "namespace_definition"}),
    "wrappers": frozenset({"function_variable", "export_statement", "template_declaration"}),
    "fields": frozenset({"field", "prototype", "method_signature", "type_definition", "access_specifier"}),
    "branches": frozenset(
        {
            "if_statement",
            "for_statement",
            "counting_loop",
            "while_statement",
            "do_statement",
            "try_statement",
            "match_statement",
            "with_statement",
        }
    ),
    "loops": frozenset({"for_statement", "counting_loop", "while_statement", "do_statement"}),
    "conditionals": frozenset({"if_statement", "match_statement"}),
    "imports": frozenset({"import_statement", "preprocessor"}),
    "name": "identifier",
    "member": ("attribute", "attribute"),
    "keyword_argument": ("pair", "key"),
    "call": "call",
    "callee_field": "function",
    "arguments_field": "arguments",
    "strings": frozenset({"string", "concatenated_string"}),
    "numbers": frozenset({"integer", "float"}),
    "constants": frozenset({"true", "false", "none", "character"}),
    "opaque": frozenset(),
    "interpolation": "",
    "variables_as_lists": True,
    "parentheses": frozenset({"parenthesized_expression"}),
    "targets": TARGETS,
    "patterns": frozenset(
        {"list_pattern", "object_pattern", "array_declarator", "pointer_declarator", "reference_declarator"}
    ),
    "captures": frozenset(),
    "parameter_lists": frozenset({"parameters"}),
    "parameter_kinds": frozenset(
        {
            "typed_parameter",
            "default_parameter",
            "list_splat_pattern",
            "pointer_declarator",
            "array_declarator",
            "reference_declarator",
        }
    ),
    "iterable_field": ("", ""),
    "parameters_field": "parameters",
    "body_field": "body",
    "name_field": "name",
    "scopes": frozenset({"lambda"}),
    "outer_declarations": frozenset(),
    "leaving": frozenset(
        {"return_statement", "break_statement", "continue_statement", "raise_statement", "goto_statement"}
    ),
    "returning": "return_statement",
    "suspending": frozenset({"yield_expression", "await_expression"}),
    "deleting": frozenset(),
    "definitions_run_in_place": frozenset(),
    "reflective": frozenset(),
}
"""Keyword arguments for `Language`; each language adds its own."""
