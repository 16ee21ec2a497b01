"""The statement lists of a tree, and the lines on which code stands."""

from __future__ import annotations

from bisect import bisect_right

from ..frozen import Frozen
from .tree import Tree


class Block(Frozen, frozen=True):
    """A list of statements: the node that holds them, the statements, the procedure around them."""

    node: int
    statements: tuple[int, ...]
    procedure: int
    depth: int
    """How many branches and loops stand around the block within its procedure."""


def code_line_numbers(tree: Tree) -> frozenset[int]:
    """1-based numbers of the lines on which a token stands."""
    lines: set[int] = set(tree.braces)
    line_starts, texts, starts = tree.line_starts, tree.text, tree.start_byte
    line, first, end = 0, 0, 0
    for node in range(len(texts)):
        # Nearly all tokens come in the order of the text, several on a line.
        if texts[node] and not first <= starts[node] < end:
            line = bisect_right(line_starts, starts[node], line if starts[node] >= first else 0)
            first, end = line_starts[line - 1], line_starts[line] if line < len(line_starts) else len(tree.source) + 1
            lines.add(line)
    long = {text for text in set(texts) if "\n" in text}
    for node in [i for i, text in enumerate(texts) if text in long] if long else ():
        top = bisect_right(line_starts, tree.start_byte[node])
        lines.update(n for n, part in enumerate(texts[node].split("\n"), top) if part.strip())
    return frozenset(lines)


def find_blocks(tree: Tree) -> tuple[Block, ...]:
    language = tree.language
    blocks: list[Block] = []
    around = [(len(tree.kind), 0, 0)]
    wanted = language.procedures | language.branches | language.blocks
    for node in [n for n, kind in enumerate(tree.kind) if kind in wanted or not n]:
        kind = tree.kind[node]
        while node >= around[-1][0] and len(around) > 1:
            around.pop()
        _, procedure, depth = around[-1]
        if kind in language.procedures:
            around.append((tree.end[node], node, 0))
        elif kind in language.branches:
            around.append((tree.end[node], procedure, depth + 1))
        elif kind in language.blocks or node == 0:
            clauses = language.clauses
            statements = tuple([child for child in tree.children(node) if tree.kind[child] not in clauses])
            if kind not in language.blocks:
                # A text so broken that the grammar finds no program in it: what it could read, without loose tokens.
                statements = tuple(child for child in statements if not tree.text[child])
            blocks.append(Block(node, statements, procedure, depth))
    return tuple(blocks)
