"""What a writer is: it prints loops, functions and calls in one language, in the student's own style."""

from __future__ import annotations

import re
from abc import ABC, abstractmethod
from collections import Counter
from collections.abc import Mapping, Sequence

import msgspec

from ..errors import CannotWrite
from ..program.names import Role
from ..program.program import ProgramFile
from ..program.types import Type

WIDTH = 88


class Style(msgspec.Struct, frozen=True):
    """How this student writes: one indent step, the usual quote, names like_this or likeThis."""

    indent: str = "    "
    quote: str = '"'
    snake_case: bool = True
    blank_lines: int = 2
    joint: str = "_"
    """What joins the words of a name where it is not a capital."""
    capital_functions: bool = False
    """Functions are called LikeThis."""
    brace_below: bool = False
    """An opening brace has a line to itself."""


class Variable(msgspec.Struct, frozen=True):
    """A name with its type, where the language tells types."""

    name: str
    type: Type | None = None


class Counting(msgspec.Struct, frozen=True):
    """`count` turns, the variable runs from `first` by `step`."""

    first: int
    step: int
    count: int


class Listed(msgspec.Struct, frozen=True):
    """One row of values a turn; `start` is the number of the first turn where turns are counted too."""

    rows: tuple[tuple[str, ...], ...]
    start: int | None = None


Turns = Counting | Listed


class LoopText(msgspec.Struct, frozen=True):
    """Lines of a loop; it begins on line `head` of them (from 0), after the lists that it needs."""

    lines: tuple[str, ...]
    head: int = 0
    tables: tuple[str, ...] = ()
    """Names of the lists that stand before it."""
    declared: tuple[str, ...] = ()
    """Variables that are declared for it, by the lines `above`, which have their place where its procedure begins."""
    above: tuple[str, ...] = ()


class Gap(msgspec.Struct, frozen=True):
    """What comes into a text: an expression, and whether its value is a text itself or a number."""

    expression: str
    is_text: bool = False


class Writer(ABC):
    """Writes for one file."""

    def __init__(self, file: ProgramFile) -> None:
        self.file = file
        self.style = style_of(file)

    comment_mark = "#"
    lists_by_index = False
    """Several columns of values are separate arrays that share an index."""
    runs_through_lists = True
    """A loop can run through a list that stands in its head."""
    counts_turns = True
    """A loop through a list can count its turns besides."""

    @abstractmethod
    def string_with(self, node: int, parts: Sequence[str], gaps: Mapping[int, Gap]) -> str:
        """The plain string literal at `node`, cut into parts, with values in the place of some parts. Raises
        CannotWrite where the language has no way to write that in place."""

    def text_around(self, node: int, before: str, expression: str, after: str) -> str:
        """A text with the value of an expression in it, in the place of the literal at `node`. Raises CannotWrite
        where the language has no way to write that in place."""
        raise CannotWrite("a text differs inside")

    def repeated(self, literal: str, expression: str) -> str:
        """A text that is a shorter one so many times. Raises CannotWrite where the language has no way to write that
        in place."""
        raise CannotWrite("the texts grow, which would need a loop of its own")

    def in_letters(self, expression: str, way: str) -> str:
        """A text in capital or small letters, by one of the language's methods. Raises CannotWrite where there are
        none, or the expression cannot be asked for it as it stands."""
        raise CannotWrite("the texts differ in their letters")

    def line_below(self, literal: str, expression: str, more: int) -> str:
        """A text of one sign as long as another one, and so many signs more. Raises CannotWrite where the language has
        no way to write that in place."""
        raise CannotWrite("the texts are as long as others")

    def gap(self, expression: str) -> str:
        """The value of an expression as it stands in a text with gaps. Raises CannotWrite where there are none."""
        raise CannotWrite("a text differs inside")

    def format_with(self, before: str, after: str) -> str:
        """A text that says how to print, with a place for one more text. Raises CannotWrite where there is no such
        text."""
        raise CannotWrite("the text that differs says how to print, which a variable should not")

    def words_with(self, parts: Sequence[str], gaps: Mapping[int, Gap]) -> str:
        """The words in a text with gaps, cut into parts, with values in the place of some parts."""
        return "".join(self.gap(gaps[k].expression) if k in gaps else part for k, part in enumerate(parts))

    @abstractmethod
    def value_text(self, node: int, expression: str) -> str:
        """An expression as it must be written in the place of `node`: in parentheses where needed."""

    @abstractmethod
    def loop(
        self,
        variables: Sequence[Variable],
        turns: Turns,
        body: Sequence[str],
        indent: str,
        tables: Sequence[tuple[Variable, tuple[str, ...]]] = (),
    ) -> LoopText:
        """A loop around `body`, which is indented already; `tables` are lists to stand before it."""

    @abstractmethod
    def function(
        self,
        name: str,
        parameters: Sequence[Variable],
        body: Sequence[str],
        returned: Sequence[Variable],
        beside: int,
    ) -> list[str]:
        """A function definition; it is to stand beside the procedure at node `beside` (0: the loose code)."""

    @abstractmethod
    def call(
        self,
        name: str,
        arguments: Sequence[str],
        targets: Sequence[str],
        indent: str,
        declares: str = "",
    ) -> str:
        """A call, its results assigned where there are any; `declares` are the words of a declaration."""

    def choice(self, flag: str, yes: Sequence[str], no: Sequence[str], indent: str) -> list[str]:
        """Lines that do `yes` where a flag is set and `no` where not; both are indented already, and one of them may
        be empty. Raises CannotWrite where lines are no way to say that."""
        raise CannotWrite("the functions are alike only but for a line or two")

    def leaving(self, call: str, asked: str, jump: str, indent: str) -> list[str]:
        """Lines of a call that leave by `jump` where what it gives `asked` is nothing; with nothing asked, where it
        says no. Raises CannotWrite where lines are no way to say that."""
        raise CannotWrite("the copies leave what they stand in")

    def given_up(self, count: int) -> str:
        """What a function gives in place of `count` results where it is time to leave; with none, it says no."""
        raise CannotWrite("the copies leave what they stand in")

    def truth(self, value: bool) -> str:
        """The value of a flag."""
        return "true" if value else "false"

    def flag_type(self) -> Type | None:
        """The type of a flag, where the language tells types."""
        return Type(self.file.language.types.truth)

    def linear(self, variable: str, factor: int, offset: int) -> str:
        """The text of `factor * variable + offset`."""
        return linear(variable, factor, offset)

    def with_parameters(self, parameters: int, added: Sequence[str]) -> tuple[int, int, str]:
        """How further parameters are put behind those at node `parameters`: (from byte, to byte, text)."""
        tree = self.file.tree
        start, stop = tree.start_byte[parameters], tree.end_byte[parameters]
        if all(text in {"(", ")", "void"} for text in tree.leaf_texts(parameters)):
            return start, stop, f"({', '.join(added)})"
        return stop - 1, stop - 1, "".join(f", {text}" for text in added)

    def with_arguments(self, arguments: int, added: Sequence[str]) -> tuple[int, str]:
        """How further values are put behind those of a call at node `arguments`: (at byte, text)."""
        tree = self.file.tree
        empty = all(text in {"(", ")"} for text in tree.leaf_texts(arguments))
        return tree.end_byte[arguments] - 1, ("" if empty else ", ") + ", ".join(added)

    def element(self, table: str, index: str) -> str:
        """One element of a list."""
        return f"{table}[{index}]"

    def argument(self, parameter: str, value: str) -> str:
        """A value as it is given in a call of a new function that has `parameter`."""
        return value

    def argument_of(self, function: int, place: int, value: str) -> str:
        """A value as it is given at `place` (from 0) in a call of the function at node `function`."""
        return value

    def typed(self, variable: Variable) -> str:
        """A variable as it is declared among parameters. Raises CannotWrite where its type is not in sight."""
        return variable.name

    def declaration(self, variable: Variable) -> str:
        """A declaration of a variable without a value; "" where the language needs none."""
        return ""

    def named(self, variable: Variable, value: str) -> str:
        """The line that makes a new variable and gives it a value. Raises CannotWrite where that takes more."""
        declaration = self.declaration(variable).removesuffix(";")
        if declaration and not declaration.endswith(variable.name):
            raise CannotWrite("variables are declared in another way")
        return f"{declaration or variable.name} = {value}"

    def outer_declaration(self, names: Sequence[str]) -> str:
        """The line with which a function says that it changes these variables of the program. Raises CannotWrite where
        the language has none."""
        raise CannotWrite(f"the function would have to change {names[0]}, which belongs to the program")

    def array(self, array: Variable, values: Sequence[str], places: int, indent: str) -> list[str]:
        """The declaration of an array with these values, or with so many places. Raises CannotWrite where the
        language has none."""
        raise CannotWrite(f"{array.name} would have to be a list")

    def table(self, name: str, entries: Sequence[str], indent: str) -> list[str]:
        """What makes a table of entries (`key: value`). Raises CannotWrite where the language has none."""
        raise CannotWrite("what differs in the branches would have to be one list first")

    def looked_up(self, name: str, variable: str, before: str, otherwise: str, indent: str) -> list[str]:
        """`before` with what a table has for a variable, or `otherwise`; where that is "", only if it has something."""
        raise CannotWrite("what differs in the branches would have to be one list first")

    def function_indent(self, beside: int) -> str:
        """The white space at which a new function beside the procedure at `beside` begins."""
        return ""


def around(quote: str, before: str, expression: str, after: str) -> list[str]:
    """A value with texts around it, as literals and the expression to be joined.

    >>> around('"', "buy ", "item", "")
    ['"buy "', 'item']
    """
    return [
        part for part in (before and f"{quote}{before}{quote}", expression, after and f"{quote}{after}{quote}") if part
    ]


def inner_parts(parts: Sequence[str]) -> list[str]:
    """The parts of a literal without the quotes with which the first begins and the last ends."""
    return [part[k == 0 : len(part) - (k == len(parts) - 1)] for k, part in enumerate(parts)]


def pieces(parts: Sequence[str], quote: str, gaps: Mapping[int, Gap]) -> list[str]:
    """A text of these parts, with values in the place of some, as literals and expressions to be joined.

    >>> pieces(["gate ", "3", "!"], '"', {1: Gap("i + 1")})
    ['"gate "', '(i + 1)', '"!"']
    """
    out: list[str] = []
    text = ""
    for k, part in enumerate(parts):
        if k not in gaps:
            text += part
            continue
        if text or not out:
            out.append(f"{quote}{text}{quote}")
        value = gaps[k].expression
        simple = re.fullmatch(r"\w+(?:[\[(]\w+[\])])?", value)
        out.append(value if simple else f"({value})")
        text = ""
    return [*out, f"{quote}{text}{quote}"] if text else out


def linear(variable: str, factor: int, offset: int) -> str:
    """The text of `factor * variable + offset`.

    >>> linear("i", 40, 10), linear("i", -40, 310), linear("i", 1, 0), linear("i", 1, -2)
    ('40 * i + 10', '310 - 40 * i', 'i', 'i - 2')
    """
    if factor < 0:
        product = variable if factor == -1 else f"{-factor} * {variable}"
        return f"{offset} - {product}"
    product = variable if factor == 1 else f"{factor} * {variable}"
    if offset == 0:
        return product
    return f"{product} + {offset}" if offset > 0 else f"{product} - {-offset}"


def leading_space(file: ProgramFile, node: int) -> str:
    """The white space at the start of the node's first line."""
    line = file.lines[file.tree.start_line(node) - 1]
    return line[: len(line) - len(line.lstrip())]


def style_of(file: ProgramFile) -> Style:
    """Read the style off the file, once; where it is mixed, the commoner habit wins."""
    known = file.derived.get("style")
    if not isinstance(known, Style):
        known = file.derived["style"] = _style_of(file)
    return known


def _style_of(file: ProgramFile) -> Style:
    declares = file.language.declares
    indents = Counter(_indent_steps(file))
    quotes = Counter(
        text[0]
        for kind, text in zip(file.tree.kind, file.tree.text, strict=True)
        if kind == "string" and text[:1] in ("'", '"')
    )
    names = [p.name for p in file.procedures[1:]] + [
        file.tree.text[i] for i in file.names.nodes if file.names.role[i] is Role.WRITE
    ]
    if file.language.started_by_hand and file.language.case_blind:
        # The names of a form's handlers say nothing of how this student names things.
        names = [name for name in names if "_" not in name]
    snake = sum("_" in n.strip("_") and not n.isupper() for n in names)
    camel = sum(bool(re.search(r"[a-z][A-Z]", n)) for n in names)
    gaps = Counter(_gaps_above_functions(file))
    below = Counter(_braces_below(file)) if declares else Counter[bool]()
    return Style(
        indent=indents.most_common(1)[0][0] if indents else "    ",
        quote=quotes.most_common(1)[0][0] if quotes else '"',
        snake_case=bool(file.language.word_joint) or (snake > camel if declares else snake >= camel),
        blank_lines=gaps.most_common(1)[0][0] if gaps else 1 if declares else 2,
        joint=file.language.word_joint or "_",
        capital_functions=_capital_functions(file),
        brace_below=below[True] > below[False],
    )


def _capital_functions(file: ProgramFile) -> bool:
    """True where most of this student's functions begin with a capital, in a language where that is usual."""
    if not file.language.capitals:
        return False
    own = [p.name for p in file.procedures[1:] if p.name and p.name not in file.language.framework_calls]
    usual = file.language.case_blind or file.language.methods
    return sum(name[0].isupper() for name in own) * 2 >= len(own) and (bool(own) or usual)


def _indent_steps(file: ProgramFile) -> list[str]:
    steps = []
    for block in file.blocks:
        if block.node and block.statements:
            inner = leading_space(file, block.statements[0])
            outer = leading_space(file, file.tree.parent[block.node])
            if inner.startswith(outer) and len(inner) > len(outer):
                steps.append(inner[len(outer) :])
    return steps


def _braces_below(file: ProgramFile) -> list[bool]:
    tree = file.tree
    return [
        tree.start_line(block.node) > tree.start_line(tree.parent[block.node])
        for block in file.blocks
        if block.node and tree.source[tree.start_byte[block.node] : tree.start_byte[block.node] + 1] == b"{"
    ]


def _gaps_above_functions(file: ProgramFile) -> list[int]:
    gaps = []
    marks = file.language.comment_marks
    for procedure in file.procedures[1:]:
        line = procedure.start_line - 2
        while line >= 0 and file.lines[line].lstrip().startswith(marks):
            line -= 1
        count = 0
        while line >= 0 and not file.lines[line].strip():
            count += 1
            line -= 1
        if line >= 0 and not (procedure.in_class and not file.language.methods):
            gaps.append(min(count, 2))
    return gaps
