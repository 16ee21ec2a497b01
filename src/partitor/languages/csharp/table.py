"""C#, over the tree-sitter grammar of that name."""

from __future__ import annotations

from ..braces.base import BRACES
from ..table import Language, Reading, TypeNames

KINDS = {
    "compilation_unit": "program",
    "declaration_list": "block",
    "enum_member_declaration_list": "block",
    "local_declaration_statement": "declaration",
    "variable_declaration": "declaration",
    "variable_declarator": "declarator",
    "class_declaration": "class_definition",
    "struct_declaration": "class_definition",
    "interface_declaration": "class_definition",
    "enum_declaration": "class_definition",
    "record_declaration": "class_definition",
    "namespace_declaration": "namespace_definition",
    "invocation_expression": "call",
    "object_creation_expression": "new_expression",
    "member_access_expression": "attribute",
    "element_access_expression": "subscript",
    "binary_expression": "binary_operator",
    "parameter_list": "parameters",
    "parameter": "typed_parameter",
    "initializer_expression": "list",
    "integer_literal": "integer",
    "real_literal": "float",
    "string_literal": "string",
    "verbatim_string_literal": "string",
    "interpolated_string_expression": "string",
    "character_literal": "character",
    "null_literal": "none",
    "boolean_literal": "true",
    "for_statement": "counting_loop",
    "foreach_statement": "for_statement",
    "catch_clause": "except_clause",
    "throw_statement": "raise_statement",
    "field_declaration": "field",
    "property_declaration": "field",
    "event_field_declaration": "field",
    "using_directive": "import_statement",
    "local_function_statement": "function_definition",
    "global_statement": "global_statement",
}

READING = Reading(
    kinds=KINDS,
    fields={
        ("variable_declarator", "name"): "left",
        ("member_access_expression", "expression"): "object",
        ("member_access_expression", "name"): "attribute",
        ("element_access_expression", "expression"): "value",
        ("catch_declaration", "name"): "parameter",
        ("class_declaration", "bases"): "superclasses",
    },
    dissolved=frozenset(
        {"variable_declaration", "argument", "bracketed_argument_list", "catch_declaration", "global_statement"}
    ),
    leaves=frozenset(
        {
            "using_directive",
            "boolean_literal",
            "character_literal",
            "array_type",
            "generic_name",
            "implicit_type",
            "nullable_type",
            "base_list",
            "attribute_list",
            "constant_pattern",
            "property_declaration",
        }
    ),
    expression_statement="expression_statement",
    body_fields=frozenset({"consequence", "alternative", "body"}),
    switches=frozenset({"switch_statement"}),
    cases=frozenset({"switch_section"}),
    assignments=frozenset({"assignment_expression"}),
    updates=frozenset({"postfix_unary_expression", "prefix_unary_expression"}),
    functions=frozenset(
        {
            "method_declaration",
            "constructor_declaration",
            "local_function_statement",
            "lambda_expression",
            "anonymous_method_expression",
        }
    ),
)

CSHARP = Language(
    id="csharp",
    title="C#",
    grammar="csharp",
    extensions=(".cs",),
    **{
        **BRACES,
        "loops_declare": True,
        "interpolation": "interpolation",
        "reading": READING,
        "comment": frozenset({"comment"}),
        "typed": True,
        "texts_take_texts": True,
        "copied_types": frozenset(
            """
            Point PointF Size SizeF Rectangle RectangleF Color Vector2 Vector3 Vector4 Quaternion Matrix4x4 Rect
            DateTime TimeSpan KeyValuePair
            """.split()
        ),
        "capitals": True,
        "types": TypeNames(text="string"),
        "methods": True,
        "global_style": True,
        "builtins": frozenset(
            "Console Math String Convert Int32 Random List Dictionary Array Environment Thread DateTime nameof".split()
        ),
        "pure_calls": frozenset({"Abs", "Max", "Min", "Equals", "Sqrt", "Pow", "Round", "ToInt32"}),
        "reflective": frozenset(
            {"CallerMemberName", "CallerLineNumber", "GetCurrentMethod", "StackTrace", "StackFrame"}
        ),
        "output_calls": frozenset({"WriteLine", "Write"}),
        "input_calls": frozenset({"ReadLine", "ReadKey", "Read"}),
        "keywords": frozenset(
            """
            abstract as base bool break byte case catch char checked class const continue decimal default delegate do
            double else enum event explicit extern false finally fixed float for foreach goto if implicit in int
            interface internal is lock long namespace new null object operator out override params private protected
            public readonly ref return sbyte sealed short sizeof stackalloc static string struct switch this throw true
            try typeof uint ulong unchecked unsafe ushort using virtual void volatile while var async await
            """.split()
        ),
        "constant_holders": frozenset(
            "ConsoleColor DayOfWeek Color Keys Key KeyCode DialogResult FontStyle BorderStyle".split()
        ),
        "framework_calls": frozenset(
            """
            Main Start Update Awake OnEnable OnDisable FixedUpdate ToString Equals GetHashCode CompareTo Dispose
            """.split()
        ),
    },
)
