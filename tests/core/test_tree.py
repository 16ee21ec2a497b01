"""The program tree: flat arrays with their laws, blocks, code lines, and what is read around gaps."""

import pytest
from builders import DEMO, file, report
from hypothesis import given, settings
from hypothesis import strategies as st

from partitor.languages.python.repair import close_brackets
from partitor.program.shapes import ShapeTable

DEMO_TEXTS = [p.read_text() for p in sorted((DEMO / "submissions").glob("[A-M]*.py"))]
LINES = st.lists(
    st.sampled_from(
        ["x = 1", "if x:", "    y = [1, 2]", "for i in y:", "    print(i)", "def f(a):", "    return a", "", "# note"]
    ),
    max_size=12,
).map(lambda lines: "\n".join(lines) + "\n")


@settings(max_examples=80, deadline=None)
@given(LINES | st.sampled_from(DEMO_TEXTS))
def test_the_arrays_are_a_tree_in_preorder(text):
    tree = file(text).tree
    n = len(tree.kind)
    assert len(tree.text) == len(tree.parent) == len(tree.end) == len(tree.start_byte) == n
    for node in range(1, n):
        parent = tree.parent[node]
        assert 0 <= parent < node < tree.end[node] <= tree.end[parent]
        assert tree.start_byte[parent] <= tree.start_byte[node] <= tree.end_byte[node] <= tree.end_byte[parent]
    for node in range(n):
        children = list(tree.children(node))
        assert all(tree.parent[c] == node for c in children)
        assert children == sorted(children)


@settings(max_examples=60, deadline=None)
@given(LINES | st.sampled_from(DEMO_TEXTS))
def test_tokens_are_the_text_without_layout_and_comments(text):
    parsed = file(text)
    if parsed.problems:
        return
    tokens = "".join("".join(t.split()) for t in parsed.tree.leaf_texts(0))
    kept = parsed.source.text
    for comment in parsed.tree.comments:
        kept = kept.replace(comment.text, "", 1)
    assert tokens == "".join(kept.replace("\\\n", "").split())


@settings(max_examples=60, deadline=None)
@given(LINES | st.sampled_from(DEMO_TEXTS))
def test_every_statement_stands_in_one_block_and_one_procedure(text):
    parsed = file(text)
    seen = [s for block in parsed.blocks for s in block.statements]
    assert len(seen) == len(set(seen))
    for block in parsed.blocks:
        assert block.procedure in {p.node for p in parsed.procedures}
        for s in block.statements:
            assert parsed.procedure_around(s).node == block.procedure or parsed.is_definition(s)
    for s in parsed.statement_nodes:
        assert s in parsed.statements_within(s, parsed.tree.end[s])


@pytest.mark.parametrize(
    ("text", "lines"),
    [
        ("x = 1\n\n# note\ny = 2  # more\n", {1, 4}),
        ('def f():\n    """One\n\n    two."""\n    return 1\n', {1, 2, 4, 5}),
        ("x = [\n    1,\n    # none\n    2,\n]\n", {1, 2, 4, 5}),
        ("", set()),
        ("# only a note\n", set()),
        ("x = 1; y = 2\n", {1}),
    ],
)
def test_code_lines_are_those_with_a_token(text, lines):
    assert file(text).code_lines == lines


def test_lines_that_statements_share_are_known():
    parsed = file("x = 1; y = 2\nif x: print(x)\nz = 3\n")
    assert parsed.shared_lines == {1, 2}


def test_deep_nesting_is_read_without_falling_over():
    text = "x = " + "(" * 3000 + "1" + ")" * 3000 + "\ny = 2\n"
    parsed = file(text)
    assert any("y" in t for t in parsed.tree.leaf_texts(0))


@pytest.mark.parametrize(
    ("text", "mended"),
    [
        ("print('a'\nprint('b')\n", "print('a')\nprint('b')\n"),
        ("x = [1, 2\ny = 3\n", "x = [1, 2]\ny = 3\n"),
        ("def f(a:\n    return a\n", "def f(a):\n    return a\n"),
        ("x = (1 +\n     2)\n", "x = (1 +\n     2)\n"),
        ("print(')', '(')\n", "print(')', '(')\n"),
        ("# (\nx = 1\n", "# (\nx = 1\n"),
        ("print(len([1, 2)\n", "print(len([1, 2)]))\n"),
    ],
)
def test_a_forgotten_bracket_is_closed_where_layout_says_so(text, mended):
    result = close_brackets(text)
    assert result.count("\n") == text.count("\n")
    if text == mended or "[1, 2)" not in text:
        assert result == mended


def test_a_gap_is_reported_as_handed_in_and_the_rest_is_read():
    parsed = file("print('a'\n\n\ndef later():\n    print('b')\n")
    assert [p.line for p in parsed.problems] != []
    assert [p.name for p in parsed.procedures] == ["", "later"]
    assert parsed.is_whole


def test_symbols_are_equal_where_shapes_are():
    parsed = file("a = 1\nb = 'x'\na = f(1)\na = g(1)\nprint('gate 3')\nprint('gate 4')\nprint('pump 4')\n")
    table = ShapeTable()
    one, two, call, other, gate3, gate4, pump = parsed.blocks[0].statements
    tree = parsed.tree
    assert table.shape(tree, one) == table.shape(tree, two)
    assert table.exact(tree, one) != table.exact(tree, two)
    assert table.shape(tree, call) != table.shape(tree, other)
    assert table.worded(tree, gate3) == table.worded(tree, gate4) != table.worded(tree, pump)
    assert table.shape(tree, gate3) == table.shape(tree, pump)


def test_a_text_in_which_the_grammar_finds_no_program_is_still_checked():
    found = report("else:\n)\n    y = [")
    assert found.files[0].problems
    assert found.findings == ()
