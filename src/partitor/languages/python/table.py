"""The Python table, over the tree-sitter-python grammar."""

from __future__ import annotations

import builtins
import keyword

from ..table import Binding, Language
from .repair import close_brackets

PYTHON = Language(
    id="python",
    title="Python",
    grammar="python",
    extensions=(".py", ".pyw"),
    shebangs=("python",),
    comment=frozenset({"comment", "line_continuation"}),
    blocks=frozenset({"module", "block"}),
    clauses=frozenset(
        {
            "elif_clause",
            "else_clause",
            "except_clause",
            "except_group_clause",
            "finally_clause",
            "case_clause",
        }
    ),
    procedures=frozenset({"function_definition"}),
    classes=frozenset({"class_definition"}),
    wrappers=frozenset({"decorated_definition"}),
    branches=frozenset(
        {
            "if_statement",
            "for_statement",
            "while_statement",
            "try_statement",
            "with_statement",
            "match_statement",
        }
    ),
    loops=frozenset({"for_statement", "while_statement"}),
    conditionals=frozenset({"if_statement", "match_statement"}),
    imports=frozenset({"import_statement", "import_from_statement", "future_import_statement"}),
    name="identifier",
    member=("attribute", "attribute"),
    keyword_argument=("keyword_argument", "name"),
    call="call",
    callee_field="function",
    arguments_field="arguments",
    strings=frozenset({"string", "concatenated_string"}),
    numbers=frozenset({"integer", "float"}),
    constants=frozenset({"true", "false", "none"}),
    opaque=frozenset({"string_content", "format_specifier", "type_conversion"}),
    interpolation="interpolation",
    shows_decimals=True,
    parentheses=frozenset({"parenthesized_expression"}),
    targets=(
        Binding("assignment", "left"),
        Binding("augmented_assignment", "left", reads_too=True),
        Binding("named_expression", "name"),
        Binding("for_statement", "left"),
        Binding("for_in_clause", "left"),
        Binding("as_pattern", "alias"),
    ),
    patterns=frozenset(
        {
            "pattern_list",
            "tuple_pattern",
            "list_pattern",
            "list_splat_pattern",
            "as_pattern_target",
            "tuple",
            "list",
            "parenthesized_expression",
            "expression_list",
            "list_splat",
        }
    ),
    captures=frozenset({"case_pattern", "splat_pattern"}),
    parameter_lists=frozenset({"parameters", "lambda_parameters"}),
    parameter_kinds=frozenset(
        {
            "default_parameter",
            "typed_parameter",
            "typed_default_parameter",
            "list_splat_pattern",
            "dictionary_splat_pattern",
        }
    ),
    iterable_field=("for_in_clause", "right"),
    parameters_field="parameters",
    body_field="body",
    name_field="name",
    scopes=frozenset(
        {
            "lambda",
            "list_comprehension",
            "set_comprehension",
            "dictionary_comprehension",
            "generator_expression",
        }
    ),
    outer_declarations=frozenset({"global_statement", "nonlocal_statement"}),
    leaving=frozenset({"return_statement", "break_statement", "continue_statement", "raise_statement"}),
    returning="return_statement",
    suspending=frozenset({"yield", "await"}),
    deleting=frozenset({"delete_statement"}),
    definitions_run_in_place=frozenset({"class_definition"}),
    builtins=frozenset(n for n in dir(builtins) if not n.startswith("__"))
    | {"__name__", "__file__", "__doc__", "__import__"},
    reflective=frozenset({"locals", "globals", "vars", "eval", "exec", "dir", "compile", "__import__"})
    | {"_getframe", "currentframe", "getframeinfo", "stacklevel"},
    pure_calls=frozenset(
        {
            "abs",
            "all",
            "any",
            "bool",
            "chr",
            "divmod",
            "enumerate",
            "float",
            "int",
            "len",
            "list",
            "max",
            "min",
            "ord",
            "pow",
            "range",
            "reversed",
            "round",
            "set",
            "sorted",
            "str",
            "sum",
            "tuple",
            "zip",
            "dict",
            "bin",
            "hex",
            "isinstance",
        }
    ),
    output_calls=frozenset({"print"}),
    input_calls=frozenset({"input", "askstring", "askinteger", "numinput", "textinput"}),
    runs_top_down=True,
    either_sign="or",
    changes_unseen=True,
    functions_are_values=True,
    variables_as_lists=True,
    texts_take_texts=True,
    own_object="self",
    object_is_given=True,
    argument_names={
        "input": ("prompt",),
        "open": ("path", "mode"),
        "sleep": ("seconds",),
        "forward": ("distance",),
        "backward": ("distance",),
        "left": ("angle",),
        "right": ("angle",),
        "randint": ("low", "high"),
        "goto": ("x", "y"),
        **dict.fromkeys(("create_oval", "create_rectangle", "create_line", "create_text", "create_arc"), ("x", "y")),
        "circle": ("radius",),
        "split": ("separator",),
        "replace": ("old", "new"),
    },
    keywords=frozenset(keyword.kwlist) | {"match", "case", "type", "_"},
    repair=close_brackets,
)
