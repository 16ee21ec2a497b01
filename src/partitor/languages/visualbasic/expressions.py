"""The statements and values of one macro line as parts of the program tree."""

from __future__ import annotations

import re
from collections.abc import Callable

import lark
from lark import Tree

from ..parts import Part, token
from ..precedence import SIGN, nested
from .lines import Node

LEVELS = (
    ("Imp",),
    ("Eqv",),
    ("Xor",),
    ("Or",),
    ("And",),
    ("=", "<>", "<", ">", "<=", ">=", "Like", "Is"),
    ("&",),
    ("+", "-"),
    ("Mod",),
    ("\\",),
    ("*", "/"),
    ("^",),
)
PREFIXES = {"Not": 5, "-": 11, "+": 11, "AddressOf": 12}
WORDS = {
    word.lower(): word
    for word in """
    And Or Xor Eqv Imp Mod Like Not Is If Then Else ElseIf For Each To Step Next Do Loop While Until Wend Select Case
    With Exit End Sub Function Property Get Let Set Dim Const Public Private Friend Global Static ReDim Preserve Call
    ByVal ByRef Optional ParamArray As New True False Nothing Null Empty AddressOf TypeOf On Error GoTo Resume Stop
    Integer Long Single Double String Boolean Byte Currency Date Variant Object Collection Range Worksheet Workbook
    """.split()
}
WHOLE = re.compile(r"(?:0|[1-9][0-9]*)\Z")
SUFFIXES = {"$": "String", "%": "Integer", "#": "Double"}


def tokens_of(tree: Node, *kinds: str) -> list[lark.Token]:
    """The tokens of these kinds directly below."""
    return [c for c in tree.children if isinstance(c, lark.Token) and c.type in kinds]


def trees_of(tree: Node, *kinds: str) -> list[Node]:
    """The trees of these kinds directly below."""
    return [c for c in tree.children if isinstance(c, Tree) and c.data in kinds]


def named(tree: Node, kind: str) -> Node | None:
    """The one tree of this kind directly below, or None."""
    return next(iter(trees_of(tree, kind)), None)


class Spelling:
    """Names are the same in capitals and small letters: each is told as it is first written. Also which names
    are lists, so that `bags(3)` is one of its values and no call."""

    def __init__(self, text: str) -> None:
        self.known: dict[str, str] = {}
        lists = re.findall(
            r"(?im)^[ \t]*(?:Dim|ReDim(?:[ \t]+Preserve)?|Public|Private|Static)[ \t]+"
            r"(?!.*\b(?:Sub|Function|Property|Declare)\b)[^'\n]*",
            text,
        )
        self.lists = {m.casefold() for line in lists for m in re.findall(r"(\w+)[$%#]?[ \t]*\(", line)}
        self.lists |= {m.casefold() for m in re.findall(r"(?im)^[ \t]*(\w+)[ \t]*=[ \t]*Array[ \t]*\(", text)}

    def name(self, text: str) -> str:
        text = text.rstrip("$%#") if text[:1] != "[" else text
        return self.known.setdefault(text.casefold(), text)


class Expressions:
    """Builds parts of a line; `byte` turns a place in the line into one in the file."""

    def __init__(self, spelling: Spelling, byte: Callable[[int], int]) -> None:
        self.spelling = spelling
        self.byte = byte
        self.result = ""
        """The function around, whose name stands for its result."""

    def _part(self, kind: str, tree: Node, children: list[Part] | None = None) -> Part:
        return Part(kind, self.byte(tree.meta.start_pos), self.byte(tree.meta.end_pos), "", children or [])

    def word(self, word: lark.Token, field: str = "") -> Part:
        """A keyword, or several, in their usual capitals."""
        start, stop = self.byte(word.start_pos or 0), self.byte(word.end_pos or 0)
        text = " ".join(WORDS.get(w.lower(), w) for w in word.split())
        trimmed = len(word) - len(word.rstrip())
        return Part(text, start, stop - trimmed, field, [], True, text)

    def name(self, word: lark.Token, field: str = "") -> Part:
        """A name as it is first spelled; the function's own name is its result."""
        start, stop = self.byte(word.start_pos or 0), self.byte(word.end_pos or 0)
        if field != "name" and self.result and word.casefold() == self.result:
            return Part("result_name", start, stop, field)
        return Part("identifier", start, stop, field, [], True, self.spelling.name(str(word)))

    def type_of(self, tree: Node, field: str) -> Part:
        told = tokens_of(tree, "TYPE_NAME")[0]
        text = WORDS.get(told.lower(), str(told))
        return Part("type", self.byte(told.start_pos or 0), self.byte(told.end_pos or 0), field, [], True, text)

    def parameters(self, tree: Node) -> Part:
        part = self._part("parameters", tree)
        part.field = "parameters"
        for given in trees_of(tree, "parameter"):
            inner = part.add(self._part("typed_parameter", given))
            inner.children += [self.word(t) for t in tokens_of(given, "PASSING")]
            name = tokens_of(given, "NAME")[0]
            told = named(given, "type_name")
            inner.add(self.name(name, "name"))
            if named(given, "empty") is not None:
                inner.add(token("...", inner.stop, inner.stop), "")
                inner.children[-1].text = "..."
            if told is not None:
                inner.children.append(self.type_of(told, "type"))
            inner.children += self._suffix(name)
            for value in trees_of(given, "expr"):
                inner.add(self.expression(value), "value")
        return part

    def _suffix(self, name: lark.Token) -> list[Part]:
        """`name$` tells its type itself."""
        told = SUFFIXES.get(name[-1:])
        end = self.byte(name.end_pos or 0)
        return [Part("type", end - 1, end, "type", [], True, told)] if told else []

    # -- statements --------------------------------------------------------------------------------

    def statement(self, tree: Node) -> Part:
        """Any statement that is whole in itself."""
        convert = getattr(self, f"read_{tree.data}", None)
        if convert is None:
            return self.words(tree)
        part = convert(tree)
        assert isinstance(part, Part)
        return part

    def words(self, tree: Node) -> Part:
        """A statement of the language's own words: its values are read, and may be changed."""
        part = self._part(str(tree.data), tree)
        for child in tree.children:
            if isinstance(child, Tree):
                part.children += self.arguments(child) if child.data == "arguments" else [self.value(child)]
            else:
                part.children.append(self.word(child))
        return part

    def read_opaque(self, tree: Node) -> Part:
        return token("preprocessor", self.byte(tree.meta.start_pos), self.byte(tree.meta.end_pos))

    def read_stop(self, tree: Node) -> Part:
        return self._part("raise_statement", tree, [self.word(tokens_of(tree, "STOP_WORD")[0])])

    def read_jump(self, tree: Node) -> Part:
        return token("goto_statement", self.byte(tree.meta.start_pos), self.byte(tree.meta.end_pos))

    def read_declaration(self, tree: Node) -> Part:
        part = self._part("declaration", tree)
        for child in tree.children:
            part.children.append(self._declared(child) if isinstance(child, Tree) else self.word(child))
        return part

    def _declared(self, tree: Node) -> Part:
        part = self._part("declarator", tree)
        name = self.name(tokens_of(tree, "NAME")[0])
        sizes = named(tree, "dimensions")
        if sizes is not None:
            bounds = [self.expression(e) for b in trees_of(sizes, "bounds") for e in trees_of(b, "expr")]
            for bound in bounds:
                bound.field = "size"
            name = self._part("array_declarator", tree, [name, *bounds])
            name.stop = self.byte(sizes.meta.end_pos)
        part.add(name, "left")
        told = named(tree, "type_name")
        if told is not None:
            part.children += [self.word(t) for t in tokens_of(told, "NEW")]
            part.children.append(self.type_of(told, "type"))
        else:
            part.children += self._suffix(tokens_of(tree, "NAME")[0])
        for value in trees_of(tree, "expr"):
            part.children += [self.word(t) for t in tokens_of(tree, "EQUALS")]
            part.add(self.expression(value), "right")
        return part

    def read_redim(self, tree: Node) -> Part:
        part = self._part("redim_statement", tree, [self.word(t) for t in tokens_of(tree, "REDIM")])
        part.children += [self._declared(d) for d in trees_of(tree, "declared")]
        return part

    def read_assignment(self, tree: Node) -> Part:
        part = self._part("assignment", tree, [self.word(t) for t in tokens_of(tree, "SET_LET")])
        target = self.primary(trees_of(tree, "primary")[0], is_target=True)
        if target.kind == "result_name":
            part.kind = "result_statement"
        part.add(target, "left")
        part.children += [self.word(t) for t in tokens_of(tree, "EQUALS")]
        part.add(self.expression(trees_of(tree, "expr")[0]), "right")
        return part

    def read_call_statement(self, tree: Node, more: bool = False) -> Part:
        """`Say "x", 3`, `Call Say("x", 3)` and `Say("x")` are one call."""
        whole = self.primary(trees_of(tree, "primary")[0])
        given = named(tree, "arguments")
        start, stop = self.byte(tree.meta.start_pos), self.byte(tree.meta.end_pos)
        if more or given is None:
            call = whole
            if call.kind != "call":
                call = Part("call", start, stop, "", [whole])
                whole.field = "function"
                call.add(Part("argument_list", whole.stop, whole.stop), "arguments")
        else:
            whole.field = "function"
            first = self.byte(given.meta.start_pos)
            call = Part(
                "call", start, stop, "", [whole, Part("argument_list", first, stop, "arguments", self.arguments(given))]
            )
        if more and given is not None:
            call.children[-1].children += self.arguments(given)
            call.children[-1].stop = stop
        call.start, call.stop = start, stop
        return call

    def read_more_arguments(self, tree: Node) -> Part:
        """`MsgBox ("x"), vbOK`: what looks like the call's own bracket is the first of its values."""
        return self.read_call_statement(tree, more=True)

    def arguments(self, tree: Node) -> list[Part]:
        return [self.value(c) if isinstance(c, Tree) else self.word(c) for c in tree.children]

    # -- values --------------------------------------------------------------------------------------

    def value(self, tree: Node) -> Part:
        if tree.data == "expr":
            return self.expression(tree)
        if tree.data == "primary":
            return self.primary(tree)
        if tree.data == "named_argument":
            part = self._part("keyword_argument", tree)
            name = tokens_of(tree, "NAME")[0]
            part.add(token("identifier", self.byte(name.start_pos or 0), self.byte(name.end_pos or 0)), "name")
            part.add(self.expression(trees_of(tree, "expr")[0]), "value")
            return part
        return self.words(tree)

    def case_value(self, tree: Node) -> Part:
        part = self.value(tree)
        part.field = "value"
        return part

    def expression(self, tree: Node) -> Part:
        chain: list[Part] = []
        for child in tree.children:
            assert isinstance(child, Tree)
            if child.data in {"sign", "operator"}:
                chain.append(self.word(child.children[0], SIGN))  # type: ignore[arg-type]
            else:
                chain.append(self.atom(child))
        return nested(chain, LEVELS, PREFIXES)

    def atom(self, tree: Node) -> Part:
        if tree.data == "primary":
            return self.primary(tree)
        if tree.data == "literal":
            return self._literal(tree.children[0])  # type: ignore[arg-type]
        if tree.data == "parenthesized":
            start, stop = self.byte(tree.meta.start_pos), self.byte(tree.meta.end_pos)
            inner = self.expression(trees_of(tree, "expr")[0])
            ends = [token("(", start, start + 1), token(")", stop - 1, stop)]
            return Part("parenthesized_expression", start, stop, "", [ends[0], inner, ends[1]])
        if tree.data == "new":
            return self._part("new_expression", tree, [self.word(t) for t in tokens_of(tree, "NEW", "TYPE_NAME")])
        return self.words(tree)

    def _literal(self, word: lark.Token) -> Part:
        start, stop = self.byte(word.start_pos or 0), self.byte(word.end_pos or 0)
        if word.type == "NUMBER":
            return token("integer" if WHOLE.match(word) else "float", start, stop)
        if word.type == "CONSTANT":
            text = word.lower()
            return Part(text if text in {"true", "false"} else "none", start, stop, "", [], True, WORDS[text])
        return token("string" if word.type == "STRING" else "character", start, stop)

    def primary(self, tree: Node, is_target: bool = False) -> Part:
        """A name with what follows it: members, values in brackets."""
        start = self.byte(tree.meta.start_pos)
        words = [c for c in tree.children if isinstance(c, lark.Token)]
        trailers = trees_of(tree, "trailer")
        if words[0].type == "DOT":
            holder = token("with_object", start, start + 1, "object")
            whole = Part("attribute", start, self.byte(words[1].end_pos or 0), "", [holder])
            whole.add(self._member(words[1]), "attribute")
        else:
            whole = self.name(words[0])
            if whole.kind == "result_name" and trailers and named(trailers[0], "given") is not None:
                # With brackets behind it the function's own name is a call of itself.
                whole = Part("identifier", whole.start, whole.stop, "", [], True, self.spelling.name(str(words[0])))
        for trailer in trailers:
            whole = self._with_trailer(whole, trailer, is_target and trailer is trailers[-1])
        return whole

    def _with_trailer(self, whole: Part, trailer: Node, is_target: bool) -> Part:
        """What stands before, with a member of it, an element, or a call."""
        start, stop = whole.start, self.byte(trailer.meta.end_pos)
        given = named(trailer, "given")
        if given is None:
            mark, member = (c for c in trailer.children if isinstance(c, lark.Token))
            whole.field = "object"
            whole = Part("attribute", start, stop, "", [whole, self.word(mark)])
            whole.add(self._member(member), "attribute")
            return whole
        opening = self.byte(given.meta.start_pos)
        values = self.arguments(given)
        if whole.kind == "identifier" and (is_target or whole.text.casefold() in self.spelling.lists):
            whole.field = "value"
            for value in values:
                value.field = "subscript"
            brackets = token("(", opening, opening + 1), token(")", stop - 1, stop)
            return Part("subscript", start, stop, "", [whole, brackets[0], *values, brackets[1]])
        whole.field = "function"
        return Part("call", start, stop, "", [whole, Part("argument_list", opening, stop, "arguments", values)])

    def _member(self, word: lark.Token) -> Part:
        return Part(
            "identifier",
            self.byte(word.start_pos or 0),
            self.byte(word.end_pos or 0),
            "",
            [],
            True,
            self.spelling.name(str(word)),
        )
