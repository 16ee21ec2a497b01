"""Visual Basic macros as parts of the program tree: lines by the grammar, blocks by what opens and closes them."""

from __future__ import annotations

import re
from itertools import accumulate

import lark
import msgspec
from lark import Tree

from ...deadline import look
from ..parts import Built, Layout, Part, token
from .expressions import Expressions, Spelling, named, tokens_of, trees_of
from .lines import Line, Node, Reader, logical_lines

LAYOUT_BEGIN = re.compile(r"\s*Begin(Property)?\b", re.IGNORECASE)
LAYOUT_END = re.compile(r"\s*End(Property)?\s*$", re.IGNORECASE)
CLOSES = {
    "sub": "procedure",
    "function": "procedure",
    "property": "procedure",
    "if": "if",
    "select": "select",
    "with": "with",
    "type": "type",
    "enum": "type",
}
OPENED = {"procedure": "Sub or Function", "if": "If", "select": "Select Case", "with": "With", "type": "Type"}
OPENED |= {"for": "For", "do": "Do", "while": "While"}


class _Open(msgspec.Struct, eq=False):
    """Something that a later line closes: the part that grows, and the block that takes statements now."""

    word: str
    part: Part
    block: Part
    line: int


def build(source: bytes) -> Built:
    """The nodes of a macro file; never raises."""
    return _Builder(source).run()


class _Builder:
    def __init__(self, source: bytes) -> None:
        self.text = text = source.decode(errors="replace")
        size = len(source)
        self.offsets = None if len(text) == size else list(accumulate((len(c.encode()) for c in text), initial=0))
        self.root = Part("program", 0, size)
        self.built = Built(Layout(source))
        self.spelling = Spelling(text)
        self.expressions = Expressions(self.spelling, self._byte)
        self.reader = Reader()
        self.stack = [_Open("program", self.root, self.root, 0)]
        self.base = 0
        """Where the line at hand begins."""
        self.layout = 0
        self.end = 0
        """Byte behind the line at hand."""

    def _byte(self, character: int) -> int:
        place = self.base + character
        return place if self.offsets is None else self.offsets[min(place, len(self.offsets) - 1)]

    def run(self) -> Built:
        for line in logical_lines(self.text):
            look()
            self.base = line.start
            self.end = self._byte(len(line.text.rstrip()))
            if line.comment:
                self.built.comments.append(
                    (self._byte(line.comment[0] - line.start), self._byte(line.comment[1] - line.start))
                )
            if line.text.strip():
                self._line(line)
        while len(self.stack) > 1:
            self._unclosed(self.stack[-1])
            self._pop()
        self.built.layout.add(self.root)
        return self.built

    # -- the stack ---------------------------------------------------------------------------------

    @property
    def top(self) -> _Open:
        return self.stack[-1]

    def _add(self, part: Part) -> Part:
        """A statement into the block at hand."""
        block = self.top.block
        if block is not self.root and not block.children:
            block.start = part.start
        block.add(part)
        block.stop = max(block.stop, part.stop)
        return part

    def _push(self, word: str, part: Part, header: list[Part]) -> Part:
        part.children += header
        block = part.add(Part("block", self.end, self.end), "body")
        self.stack.append(_Open(word, part, block, part.start))
        return part

    def _pop(self) -> _Open:
        """Close what is on top: everything around it reaches as far."""
        done = self.stack.pop()
        done.part.stop = max(done.part.stop, done.block.stop, self.end if self.base else done.part.stop)
        around = self.top.block
        if around is not self.root:
            around.stop = max(around.stop, done.part.stop)
        return done

    def _unclosed(self, opened: _Open) -> None:
        what = OPENED.get(opened.word, opened.word)
        self.built.problems.append((opened.line, f"this {what} is never closed; the program is read as if it were"))

    def _close(self, words: frozenset[str], said: str) -> _Open | None:
        """Close the innermost of the kinds; what stands open inside it is closed with it."""
        depth = next((k for k in range(len(self.stack) - 1, 0, -1) if self.stack[k].word in words), 0)
        bounded = next((k for k in range(len(self.stack) - 1, 0, -1) if self.stack[k].word == "procedure"), 0)
        if depth == 0 or (depth < bounded and "procedure" not in words):
            self.built.problems.append((self._byte(0), f"{said} closes nothing; the program is read without it"))
            return None
        while len(self.stack) - 1 > depth:
            self._unclosed(self.top)
            self._pop()
        self.built.braces.add(max(self.end - 1, 0))
        return self._pop()

    # -- lines -------------------------------------------------------------------------------------

    def _line(self, line: Line) -> None:
        text = line.text
        if self._is_layout(text):
            return
        start = self._byte(len(text) - len(text.lstrip()))
        inside_type = self.top.word == "type" and not re.match(r"\s*End\b", text, re.IGNORECASE)
        found = None if inside_type else self.reader.read(text)
        if inside_type:
            self._add(token("field", start, self.end))
            return
        if found is None:
            self._unreadable(start, text)
            return
        try:
            for child in found.children:
                if isinstance(child, Tree):
                    self._statement(child)
        except RecursionError:
            self._unreadable(start, text)

    def _unreadable(self, start: int, text: str) -> None:
        shown = " ".join(text.split())[:60]
        self.built.problems.append((start, f"this line cannot be read: {shown!r}; the program is read around it"))
        self._add(token("ERROR", start, self.end))

    def _is_layout(self, text: str) -> bool:
        """The lines at the head of a form or class file that say how it looks."""
        at_head = self.layout > 0 or (
            len(self.stack) == 1 and not any(c.kind != "preprocessor" for c in self.top.block.children)
        )
        if not at_head:
            return False
        if LAYOUT_BEGIN.match(text):
            self.layout += 1
        elif self.layout and LAYOUT_END.match(text):
            self.layout -= 1
        elif not self.layout:
            return False
        self.root.add(token("preprocessor", self._byte(len(text) - len(text.lstrip())), self.end))
        return True

    def _part(self, kind: str, tree: Node, children: list[Part] | None = None) -> Part:
        start, stop = self._byte(tree.meta.start_pos), self._byte(tree.meta.end_pos)
        return Part(kind, start, stop, "", children or [])

    def _word(self, word: lark.Token, field: str = "") -> Part:
        return self.expressions.word(word, field)

    def _statement(self, tree: Node) -> None:
        convert = getattr(self, f"read_{tree.data}", None)
        if convert is not None:
            convert(tree)
        elif tree.data not in {"part", "label"}:
            self._add(self.expressions.statement(tree))
        elif tree.data == "label":
            self._add(token("goto_statement", self._byte(tree.meta.start_pos), self._byte(tree.meta.end_pos)))

    # -- what opens blocks ---------------------------------------------------------------------------

    def read_procedure_open(self, tree: Node) -> None:
        while len(self.stack) > 1:
            self._unclosed(self.top)
            self._pop()
        header = [self._word(t) for t in tokens_of(tree, "MODIFIERS", "PROCEDURE")]
        name = tokens_of(tree, "NAME")[0]
        header.append(self.expressions.name(name, "name"))
        parameters = named(tree, "parameters")
        told = named(tree, "type_name")
        if told is not None:
            header.append(self.expressions.type_of(told, "result"))
        if parameters is not None:
            header.append(self.expressions.parameters(parameters))
        part = self._push("procedure", self._add(self._part("function_definition", tree)), header)
        is_function = "function" in str(tokens_of(tree, "PROCEDURE")[0]).lower()
        self.expressions.result = str(name).casefold() if is_function else ""
        part.stop = self.end

    def read_type_open(self, tree: Node) -> None:
        header = [self.expressions.name(tokens_of(tree, "NAME")[0], "name")]
        self._push("type", self._add(self._part("type_definition", tree)), header)

    def read_if_open(self, tree: Node) -> None:
        header = [self._word(tokens_of(tree, "IF")[0]), self._condition(tree)]
        self._push("if", self._add(self._part("if_statement", tree)), header)

    def _condition(self, tree: Node) -> Part:
        part = self.expressions.expression(trees_of(tree, "expr")[0])
        part.field = "condition"
        return part

    def read_elseif_open(self, tree: Node) -> None:
        self._clause("elif_clause", tree, [self._word(tokens_of(tree, "ELSEIF")[0]), self._condition(tree)])

    def read_else_open(self, tree: Node) -> None:
        if self.top.word == "select":
            self.read_case_else_open(tree)
            return
        self._clause("else_clause", tree, [self._word(tokens_of(tree, "ELSE")[0])])

    def _clause(self, kind: str, tree: Node, header: list[Part]) -> None:
        if self.top.word != "if":
            self.built.problems.append((self._byte(0), "this Else belongs to no If; the program is read without it"))
            return
        opened = self.top
        clause = opened.part.add(self._part(kind, tree, header), "alternative")
        opened.block = clause.add(Part("block", self.end, self.end), "body")

    def read_if_line(self, tree: Node) -> None:
        """`If a Then b Else c` on one line."""
        part = self._add(self._part("if_statement", tree))
        part.children += [self._word(tokens_of(tree, "IF")[0]), self._condition(tree)]
        holder = part
        for child in tree.children[1:]:
            if isinstance(child, Tree) and child.data == "line_body":
                holder.add(self._line_body(child), "body")
                holder.stop = holder.children[-1].stop
            elif isinstance(child, lark.Token) and child.type == "ELSE":
                holder = part.add(
                    Part("else_clause", self._word(child).start, part.stop, "", [self._word(child)]), "alternative"
                )

    def _line_body(self, tree: Node) -> Part:
        block = self._part("block", tree)
        self.stack.append(_Open("line", block, block, block.start))
        for child in tree.children:
            if isinstance(child, Tree):
                self._statement(child)
            else:
                block.add(token("goto_statement", self._byte(child.start_pos or 0), self._byte(child.end_pos or 0)))
        while self.top.block is not block:
            self._unclosed(self.top)
            self._pop()
        self.stack.pop()
        return block

    def read_for_open(self, tree: Node) -> None:
        first, last, *step = trees_of(tree, "expr")
        begin, end = self.expressions.expression(first), self.expressions.expression(last)
        begin.field, end.field = "first", "last"
        values = Part("counting_range", begin.start, end.stop, "right", [begin, end])
        for given in step:
            values.add(self.expressions.expression(given), "step")
            values.stop = values.children[-1].stop
        header = [
            self._word(tokens_of(tree, "FOR")[0]),
            self.expressions.name(tokens_of(tree, "NAME")[0], "left"),
            values,
        ]
        self._push("for", self._add(self._part("for_statement", tree)), header)

    def read_each_open(self, tree: Node) -> None:
        values = self.expressions.expression(trees_of(tree, "expr")[0])
        values.field = "right"
        words = [self._word(t) for t in tokens_of(tree, "FOR", "EACH")]
        header = [*words, self.expressions.name(tokens_of(tree, "NAME")[0], "left"), values]
        self._push("for", self._add(self._part("for_statement", tree)), header)

    def read_do_open(self, tree: Node) -> None:
        told = tokens_of(tree, "WHILE_UNTIL")
        header = [self._word(t) for t in tokens_of(tree, "DO")] + [self._word(t) for t in told]
        if told:
            header.append(self._condition(tree))
        self._push("do", self._add(self._part("while_statement", tree)), header)

    def read_while_open(self, tree: Node) -> None:
        header = [self._word(tokens_of(tree, "WHILE")[0]), self._condition(tree)]
        self._push("while", self._add(self._part("while_statement", tree)), header)

    def read_with_open(self, tree: Node) -> None:
        header = [self._word(tokens_of(tree, "WITH")[0]), self.expressions.expression(trees_of(tree, "expr")[0])]
        self._push("with", self._add(self._part("with_block", tree)), header)

    def read_select_open(self, tree: Node) -> None:
        part = self._add(self._part("choice_statement", tree))
        part.children.append(self._word(tokens_of(tree, "SELECT")[0]))
        part.add(self.expressions.expression(trees_of(tree, "expr")[0]), "subject")
        # Until the first Case nothing can stand here; what does is kept in a block that is not shown.
        self.stack.append(_Open("select", part, Part("block", self.end, self.end), part.start))

    def read_case_open(self, tree: Node) -> None:
        values = [self.expressions.case_value(t) for t in tree.children[1:] if isinstance(t, Tree)]
        self._case("case_clause", tree, [self._word(tokens_of(tree, "CASE")[0]), *values])

    def read_case_else_open(self, tree: Node) -> None:
        self._case("else_clause", tree, [self._word(tokens_of(tree, "CASE_ELSE", "ELSE")[0])])

    def _case(self, kind: str, tree: Node, header: list[Part]) -> None:
        if self.top.word != "select":
            self.built.problems.append(
                (self._byte(0), "this Case belongs to no Select Case; the program is read without it")
            )
            return
        clause = self.top.part.add(self._part(kind, tree, header))
        self.top.block = clause.add(Part("block", self.end, self.end), "body")

    # -- what closes them ------------------------------------------------------------------------------

    def read_closing(self, tree: Node) -> None:
        said = " ".join(str(tree.children[0]).split())
        self._close(frozenset({CLOSES[said.lower().removeprefix("end").strip()]}), said)
        if len(self.stack) == 1:
            self.expressions.result = ""

    def read_next_close(self, tree: Node) -> None:
        for _ in tokens_of(tree, "NAME")[1:]:
            self._close(frozenset({"for"}), "Next")
        self._close(frozenset({"for"}), "Next")

    def read_loop_close(self, tree: Node) -> None:
        done = self._close(frozenset({"do"}), "Loop")
        told = tokens_of(tree, "WHILE_UNTIL")
        if done is not None and told:
            done.part.kind = "do_statement"
            done.part.children += [self._word(told[0]), self._condition(tree)]

    def read_wend_close(self, tree: Node) -> None:
        self._close(frozenset({"while"}), "Wend")

    def read_exit(self, tree: Node) -> None:
        """Out of the procedure, or out of the innermost loop; out of another loop it is a jump."""
        word = str(tree.children[0]).split()[-1].lower()
        kind = "return_statement"
        if word in {"for", "do"}:
            loops = [o.word for o in self.stack if o.word in {"for", "do", "while"}]
            kind = "break_statement" if loops and loops[-1] == word else "goto_statement"
        part = self._part(kind, tree)
        part.children.append(self._word(tree.children[0]))  # type: ignore[arg-type]
        self._add(part)
