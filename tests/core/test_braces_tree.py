"""The program tree of the languages with braces: one form for what their grammars write in many."""

import pytest

from partitor.languages.registry import LANGUAGES, language_of
from partitor.program.flow import flow_of
from partitor.program.names import Role
from partitor.program.program import ProgramFile
from partitor.program.types import Type, type_of_name
from partitor.source import Source

WRAPPED = {
    "javascript": "function work(a, n) {{\n{}\n}}\n",
    "typescript": "function work(a: number, n: number): void {{\n{}\n}}\n",
    "c": "void work(int a, int n) {{\n{}\n}}\n",
    "cpp": "void work(int a, int n) {{\n{}\n}}\n",
    "arduino": "void work(int a, int n) {{\n{}\n}}\n",
    "java": "class Main {{\n  void work(int a, int n) {{\n{}\n  }}\n}}\n",
    "csharp": "class Main {{\n  void work(int a, int n) {{\n{}\n  }}\n}}\n",
}


def parsed(language: str, text: str) -> ProgramFile:
    return ProgramFile(Source(path="work", text=text, language=language), LANGUAGES[language])


def body(language: str, statements: str) -> tuple[ProgramFile, tuple[int, ...]]:
    file = parsed(language, WRAPPED[language].format(statements))
    assert not file.problems
    procedure = next(p for p in file.procedures if p.name == "work")
    block = file.body_of(procedure)
    assert block is not None
    return file, block.statements


@pytest.mark.parametrize("language", WRAPPED)
def test_a_branch_without_braces_has_a_block_all_the_same(language):
    file, (first, second) = body(
        language, "if (a > 1) n = 2; else if (a > 0) n = 3; else { n = 4; }\nif (a > 1) { n = 2; }"
    )
    kinds = [file.tree.kind[c] for c in file.tree.children(first)]
    assert kinds[-2:] == ["elif_clause", "else_clause"]
    assert [len(b.statements) for b in file.blocks if first < b.node < file.tree.end[first]] == [1, 1, 1]
    assert file.tree.kind[second] == "if_statement"


@pytest.mark.parametrize("language", WRAPPED)
def test_statements_keep_one_kind_in_all_languages(language):
    file, statements = body(language, "n = 2;\nn += 3;\nn++;\nwork(n, 1);\nreturn;")
    assert [file.tree.kind[s] for s in statements] == [
        "assignment",
        "augmented_assignment",
        "update",
        "call",
        "return_statement",
    ]


@pytest.mark.parametrize("language", WRAPPED)
def test_a_switch_has_a_block_a_branch_and_the_break_stays_outside(language):
    file, (switch,) = body(language, "switch (a) {\ncase 1:\nn = 1;\nwork(n, 2);\nbreak;\ndefault:\nn = 3;\nbreak;\n}")
    blocks = [b for b in file.blocks if switch < b.node < file.tree.end[switch]]
    assert [len(b.statements) for b in blocks] == [2, 1]
    assert file.tree.kind[switch] == "match_statement"


@pytest.mark.parametrize("language", WRAPPED)
def test_counting_loops_name_their_parts(language):
    word = "let" if language in ("javascript", "typescript") else "int"
    file, (loop,) = body(language, f"for ({word} i = 0; i < n; i++) work(i, 1);")
    assert file.tree.kind[loop] == "counting_loop"
    assert all(file.tree.child(loop, f) is not None for f in ("initializer", "condition", "update", "body"))
    counter = next(i for i in file.names.nodes if file.tree.text[i] == "i")
    assert file.names.declared_at(counter)
    assert file.names.role[counter] is Role.WRITE


@pytest.mark.parametrize("language", WRAPPED)
def test_lines_with_nothing_but_a_bracket_hold_code(language):
    file = parsed(language, WRAPPED[language].format("// a note\n\nn = 2;"))
    without = {n for n, line in enumerate(file.lines, 1) if line.strip() and not line.strip().startswith("//")}
    assert file.code_lines == without


def test_an_assignment_inside_an_expression_is_told_from_a_statement():
    file, (loop,) = body("c", "while ((a = n) > 0) n--;")
    assert "named_expression" in file.tree.kind[loop : file.tree.end[loop]]


def test_a_name_that_a_function_does_not_declare_is_the_programs():
    file = parsed("javascript", "let tide = 1;\nfunction rise() {\n  let by = 2;\n  tide = tide + by;\n}\n")
    procedure = file.procedures[1].node
    assert file.names.owner_of("tide", procedure) == 0
    assert file.names.owner_of("by", procedure) == procedure
    assert file.names.outward[procedure] == {"tide": True}


def test_a_case_that_runs_on_needs_what_the_next_one_needs():
    file, (first, switch, _) = body(
        "c", "int x = 1;\nswitch (a) {\ncase 1:\nn = 2;\ncase 2:\nn = x;\nbreak;\n}\nwork(n, 1);"
    )
    flow = flow_of(file, file.procedures[1].node)
    assert "x" in flow.live_after[first]
    assert "n" in flow.live_after[switch]


@pytest.mark.parametrize(
    ("language", "declaration", "name", "expected"),
    [
        ("c", "const char *word;", "word", Type("const char", 1)),
        ("c", "int table[3][4];", "table", Type("int", 0, ("3", "4"))),
        ("c", "unsigned long big = 3;", "big", Type("unsigned long")),
        ("java", "int[] list = {1};", "list", Type("int", 0, ("",))),
        ("java", "int old[] = {1};", "old", Type("int", 0, ("",))),
        ("java", "List<String> many = null;", "many", Type("List<String>")),
        ("cpp", "auto half = 2.5;", "half", Type("double")),
        ("csharp", 'var text = "a";', "text", Type("string")),
        ("arduino", "byte pin = 3;", "pin", Type("byte")),
    ],
)
def test_types_are_read_off_declarations(language, declaration, name, expected):
    file, _ = body(language, declaration)
    procedure = next(p.node for p in file.procedures if p.name == "work")
    assert type_of_name(file, name, procedure) == expected


def test_functions_that_are_constants_have_their_names():
    file = parsed(
        "javascript", "const open = (gate) => {\n  close(gate);\n};\nbutton.onclick = function () {\n  open(1);\n};\n"
    )
    assert [p.name for p in file.procedures[1:]] == ["open", "onclick"]


def test_methods_outside_their_class_have_plain_names():
    file = parsed("cpp", "void Gate::open(int by) {\n  level = by;\n}\n")
    assert [p.name for p in file.procedures[1:]] == ["open"]


@pytest.mark.parametrize(
    ("path", "language"),
    [
        ("a.js", "javascript"),
        ("A.java", "java"),
        ("a.ino", "arduino"),
        ("a.C", "c"),
        ("a.cpp", "cpp"),
        ("a.cs", "csharp"),
        ("a.ts", "typescript"),
    ],
)
def test_the_extension_tells_the_language(path, language):
    found = language_of(path)
    assert found is not None
    assert found.id == language
