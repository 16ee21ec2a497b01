"""Java, over the tree-sitter grammar of that name."""

from __future__ import annotations

from ..braces.base import BRACES
from ..table import Language, Reading, TypeNames

KINDS = {
    "constructor_body": "block",
    "class_body": "block",
    "interface_body": "block",
    "enum_body": "block",
    "local_variable_declaration": "declaration",
    "variable_declarator": "declarator",
    "class_declaration": "class_definition",
    "interface_declaration": "class_definition",
    "enum_declaration": "class_definition",
    "record_declaration": "class_definition",
    "method_invocation": "call",
    "object_creation_expression": "new_expression",
    "field_access": "attribute",
    "array_access": "subscript",
    "binary_expression": "binary_operator",
    "ternary_expression": "conditional_expression",
    "formal_parameters": "parameters",
    "inferred_parameters": "parameters",
    "formal_parameter": "typed_parameter",
    "spread_parameter": "typed_parameter",
    "array_initializer": "list",
    "decimal_integer_literal": "integer",
    "decimal_floating_point_literal": "float",
    "string_literal": "string",
    "character_literal": "character",
    "null_literal": "none",
    "for_statement": "counting_loop",
    "enhanced_for_statement": "for_statement",
    "catch_clause": "except_clause",
    "throw_statement": "raise_statement",
    "try_with_resources_statement": "try_statement",
    "field_declaration": "field",
    "constant_declaration": "field",
    "import_declaration": "import_statement",
    "package_declaration": "import_statement",
}

READING = Reading(
    kinds=KINDS,
    fields={
        ("variable_declarator", "name"): "left",
        ("variable_declarator", "value"): "right",
        ("method_invocation", "name"): "function",
        ("field_access", "field"): "attribute",
        ("array_access", "array"): "value",
        ("array_access", "index"): "subscript",
        ("enhanced_for_statement", "name"): "left",
        ("enhanced_for_statement", "value"): "right",
        ("for_statement", "init"): "initializer",
        ("catch_formal_parameter", "name"): "parameter",
        ("class_declaration", "superclass"): "superclasses",
        ("class_declaration", "interfaces"): "superclasses",
    },
    dissolved=frozenset({"switch_label", "catch_formal_parameter"}),
    leaves=frozenset(
        {
            "import_declaration",
            "package_declaration",
            "array_type",
            "generic_type",
            "integral_type",
            "floating_point_type",
            "scoped_type_identifier",
            "throws",
            "superclass",
            "super_interfaces",
            "marker_annotation",
            "annotation",
        }
    ),
    expression_statement="expression_statement",
    body_fields=frozenset({"consequence", "alternative", "body"}),
    switches=frozenset({"switch_expression", "switch_statement"}),
    cases=frozenset({"switch_block_statement_group", "switch_rule"}),
    assignments=frozenset({"assignment_expression"}),
    updates=frozenset({"update_expression", "unary_expression"}),
    functions=frozenset({"method_declaration", "constructor_declaration", "lambda_expression"}),
    member_call="method_invocation",
)

JAVA = Language(
    id="java",
    title="Java",
    grammar="java",
    extensions=(".java",),
    **{
        **BRACES,
        "loops_declare": True,
        "reading": READING,
        "comment": frozenset({"line_comment", "block_comment"}),
        "typed": True,
        "texts_take_texts": True,
        "types": TypeNames(text="String", truth="boolean"),
        "methods": True,
        "global_style": True,
        "builtins": frozenset(
            "System Math String Integer Double Boolean Character Scanner Random List Arrays Thread Long".split()
        ),
        "pure_calls": frozenset({"length", "charAt", "abs", "max", "min", "equals", "sqrt", "pow", "round"}),
        "reflective": frozenset({"getStackTrace", "StackWalker", "getEnclosingMethod", "printStackTrace"}),
        "output_calls": frozenset({"println", "print", "printf"}),
        "input_calls": frozenset({"nextInt", "nextLine", "nextDouble", "next", "readLine", "showInputDialog"}),
        "changes_unseen": True,
        "keywords": frozenset(
            """
            abstract assert boolean break byte case catch char class const continue default do double else enum
            extends final finally float for goto if implements import instanceof int interface long native new
            package private protected public return short static strictfp super switch synchronized this throw
            throws transient try void volatile while true false null var record yield
            """.split()
        ),
        "constant_holders": frozenset({"Color"}),
        "argument_names": {
            "fillRect": ("x", "y", "width", "height"),
            "drawRect": ("x", "y", "width", "height"),
            "fillOval": ("x", "y", "width", "height"),
            "drawOval": ("x", "y", "width", "height"),
            "drawString": ("text", "x", "y"),
        },
        "framework_calls": frozenset(
            "main act run actionPerformed start stop init paint toString equals hashCode compareTo update".split()
        ),
    },
)
