"""C, C++ and board sketches, over the tree-sitter grammars of those names."""

from __future__ import annotations

from typing import Any

from ..braces.base import BRACES, TARGETS
from ..table import Binding, Language, Reading, TypeNames

KINDS = {
    "translation_unit": "program",
    "compound_statement": "block",
    "field_declaration_list": "block",
    "declaration_list": "block",
    "init_declarator": "declarator",
    "class_specifier": "class_definition",
    "struct_specifier": "class_definition",
    "namespace_definition": "namespace_definition",
    "call_expression": "call",
    "field_expression": "attribute",
    "subscript_expression": "subscript",
    "binary_expression": "binary_operator",
    "parameter_list": "parameters",
    "parameter_declaration": "typed_parameter",
    "optional_parameter_declaration": "typed_parameter",
    "initializer_list": "list",
    "number_literal": "integer",
    "string_literal": "string",
    "raw_string_literal": "string",
    "char_literal": "character",
    "null": "none",
    "nullptr": "none",
    "field_identifier": "identifier",
    "for_statement": "counting_loop",
    "for_range_loop": "for_statement",
    "catch_clause": "except_clause",
    "throw_statement": "raise_statement",
    "field_declaration": "field",
    "type_definition": "type_definition",
    "enum_specifier": "type_definition",
    "union_specifier": "type_definition",
    "alias_declaration": "type_definition",
    "using_declaration": "import_statement",
    "linkage_specification": "preprocessor",
    **{
        f"preproc_{name}": "preprocessor"
        for name in ("include", "def", "function_def", "ifdef", "if", "call", "else", "elif", "endif")
    },
}

READING = Reading(
    kinds=KINDS,
    fields={
        ("init_declarator", "declarator"): "left",
        ("init_declarator", "value"): "right",
        ("declaration", "declarator"): "left",
        ("for_range_loop", "declarator"): "left",
        ("field_declaration", "declarator"): "left",
        ("field_expression", "argument"): "object",
        ("field_expression", "field"): "attribute",
        ("subscript_expression", "argument"): "value",
        ("subscript_expression", "index"): "subscript",
        ("subscript_expression", "indices"): "subscript",
        ("function_declarator", "declarator"): "name",
        ("pointer_declarator", "declarator"): "declarator",
        ("parameter_declaration", "declarator"): "name",
        ("optional_parameter_declaration", "declarator"): "name",
        ("optional_parameter_declaration", "default_value"): "value",
        ("update_expression", "argument"): "",
    },
    dissolved=frozenset({"else_clause", "condition_clause", "subscript_argument_list"}),
    leaves=frozenset(
        {
            "qualified_identifier",
            "char_literal",
            "sized_type_specifier",
            "primitive_type",
            "template_type",
            "system_lib_string",
            "type_descriptor",
            "destructor_name",
            *(k for k, v in KINDS.items() if v in ("preprocessor", "import_statement")),
        }
    ),
    expression_statement="expression_statement",
    body_fields=frozenset({"consequence", "alternative", "body"}),
    switches=frozenset({"switch_statement"}),
    cases=frozenset({"case_statement"}),
    assignments=frozenset({"assignment_expression"}),
    updates=frozenset({"update_expression", "unary_expression"}),
    functions=frozenset({"function_definition", "lambda_expression"}),
    pointers="pointer_expression",
)

LIBRARY = frozenset(
    """
    printf scanf puts gets putchar getchar fprintf sprintf snprintf fgets fputs fopen fclose fscanf sscanf fflush
    stdin stdout stderr NULL EOF malloc calloc realloc free exit abs atoi atof strtol strlen strcpy strncpy strcat
    strcmp strncmp strchr strstr strtok memset memcpy memmove toupper tolower isdigit isalpha isalnum isspace isupper
    islower ispunct sqrt pow sin cos tan floor ceil round fabs fmod log log10 exp rand srand time clock assert qsort
    bsearch perror feof remove rename sizeof
    """.split()
)
STANDARD = frozenset(
    "std cout cin cerr endl string vector map set pair swap sort min max getline to_string stoi stod make_pair".split()
)
CPP_LIBRARY = (
    LIBRARY
    | STANDARD
    | frozenset(
        """
        stof stol setw setfill setprecision fixed hex boolalpha accumulate make_unique make_shared unique_ptr shared_ptr
        ifstream ofstream stringstream istringstream ostringstream runtime_error invalid_argument
        """.split()
    )
)
BOARD = (LIBRARY | STANDARD) | frozenset(
    """
    pinMode digitalWrite digitalRead analogRead analogWrite delay delayMicroseconds millis micros tone noTone pulseIn
    shiftOut shiftIn attachInterrupt detachInterrupt digitalPinToInterrupt random randomSeed map constrain Serial Wire
    SPI EEPROM HIGH LOW INPUT OUTPUT INPUT_PULLUP LED_BUILTIN A0 A1 A2 A3 A4 A5 A6 A7 F bitRead bitWrite bitSet
    bitClear bit lowByte highByte sq interrupts noInterrupts String byte word boolean analogReference yield
    """.split()
)
KEYWORDS = frozenset(
    """
    auto break case char const continue default do double else enum extern float for goto if inline int long register
    restrict return short signed sizeof static struct switch typedef union unsigned void volatile while main
    """.split()
)
CPP_KEYWORDS = KEYWORDS | frozenset(
    """
    alignas and asm bool catch class constexpr decltype delete explicit export false friend mutable namespace new not
    nullptr operator or private protected public template this throw true try typeid typename using virtual xor
    byte word boolean String
    """.split()
)

TABLE: dict[str, Any] = {
    **BRACES,
    "loops_declare": True,
    "reading": READING,
    "comment": frozenset({"comment"}),
    "typed": True,
    "capitals": True,
    "struct_values": True,
    "texts_take_numbers": frozenset({"printf"}),
    "pure_calls": frozenset({"abs", "sqrt", "pow", "fabs", "floor", "ceil", "strlen", "toupper", "tolower"}),
    "reflective": frozenset({"__func__", "__FUNCTION__", "__PRETTY_FUNCTION__", "__LINE__", "__COUNTER__"}),
    "output_calls": frozenset({"printf", "puts", "putchar", "print", "println", "fprintf", "write"}),
    "input_calls": frozenset({"scanf", "gets", "fgets", "getchar", "getline", "digitalRead", "analogRead", "pulseIn"}),
}

C = Language(
    id="c",
    changes_unseen=True,
    title="C",
    grammar="c",
    extensions=(".c", ".h"),
    builtins=LIBRARY,
    keywords=KEYWORDS,
    framework_calls=frozenset({"main"}),
    **TABLE,
)
READY = r"(?:std::)?(?:string|String|(?:vector|map|set|list|deque|stack|queue|pair|unordered_map|unordered_set)<.*>)"
CPP_TABLE = {**TABLE, "references": True, "targets": (*TARGETS, Binding("field", "left")), "ready_types": READY}
CPP = Language(
    id="cpp",
    title="C++",
    grammar="cpp",
    extensions=(".cpp", ".cc", ".cxx", ".hpp", ".hh"),
    builtins=CPP_LIBRARY,
    keywords=CPP_KEYWORDS,
    own_object="this",
    bare_members=True,
    framework_calls=frozenset({"main"}),
    **CPP_TABLE,
)
ARDUINO = Language(
    id="arduino",
    changes_unseen=True,
    title="Board sketch",
    grammar="arduino",
    extensions=(".ino", ".pde"),
    types=TypeNames(widest=2**15 - 1),
    builtins=BOARD,
    keywords=CPP_KEYWORDS,
    framework_calls=frozenset({"setup", "loop", "serialEvent"}),
    global_style=True,
    argument_names={
        "digitalWrite": ("pin", "state"),
        "analogWrite": ("pin", "strength"),
        "pinMode": ("pin", "mode"),
        "digitalRead": ("input",),
        "analogRead": ("sensor",),
        "tone": ("pin", "pitch", "time"),
        "delay": ("pause",),
        "write": ("angle",),
        "println": ("text",),
        "print": ("text",),
    },
    **CPP_TABLE,
)
