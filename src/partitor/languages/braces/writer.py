"""Prints loops, functions and calls in the languages with braces."""

from __future__ import annotations

import re
from abc import abstractmethod
from collections.abc import Mapping, Sequence
from functools import cached_property

from ...errors import CannotWrite
from ...program.streams import is_streamed
from ...program.types import Type
from ..writing import (
    WIDTH,
    Counting,
    Gap,
    Listed,
    LoopText,
    Turns,
    Variable,
    Writer,
    around,
    inner_parts,
    leading_space,
    pieces,
)

SAFE_PARENTS = frozenset({"argument_list", "assignment", "declarator", "list", "subscript", "interpolation", "pair"})


REPEATED = re.compile(r"""(["']).\1\.repeat\([^()]*\)""")


class BraceWriter(Writer):
    """What the languages with braces share."""

    comment_mark = "//"
    lists_by_index = True
    texts_chain = False
    """What is joined to a text becomes a text."""

    def value_text(self, node: int, expression: str) -> str:
        simple = re.fullmatch(r"\w+(?:\[\w+\])?", expression) or REPEATED.fullmatch(expression)
        if simple or self.file.tree.kind[self.file.tree.parent[node]] in SAFE_PARENTS:
            return expression
        return f"({expression})"

    def _joined(self, node: int, before: str, expression: str, after: str) -> str:
        """A text with a value in it, put together with `+`."""
        quote = self.file.tree.source_of(node)[0]
        text = " + ".join(around(quote, before, expression, after))
        return text if self._joins_on(node, text) else f"({text})"

    def _joins_on(self, node: int, text: str) -> bool:
        """True where a text put together with `+` needs no brackets in the place of `node`: it stands alone, or is
        joined on, at the left, or at the right beginning with a text, which makes a text of what is before it."""
        tree = self.file.tree
        if tree.kind[tree.parent[node]] in SAFE_PARENTS:
            return True
        begins = tree.field[node] == "left" or (self.texts_chain and text[:1] in "\"'`")
        return begins and self._is_joined(node)

    def _is_joined(self, node: int) -> bool:
        """True for a part of a text that is put together with `+`."""
        tree = self.file.tree
        parent = tree.parent[node]
        return tree.kind[parent] == "binary_operator" and tree.text[tree.child(parent, "operator") or parent] == "+"

    def loop(
        self,
        variables: Sequence[Variable],
        turns: Turns,
        body: Sequence[str],
        indent: str,
        tables: Sequence[tuple[Variable, tuple[str, ...]]] = (),
    ) -> LoopText:
        before = [line for table, values in tables for line in self._table(table, values, indent)]
        if isinstance(turns, Counting):
            head = self._counting_head(variables[0].name, turns)
        else:
            head = self._listing_head(variables, turns)
        lines = (*before, *self._braced(f"{indent}{head}", body, indent))
        return LoopText(lines, len(before), tuple(table.name for table, _ in tables))

    def function(
        self,
        name: str,
        parameters: Sequence[Variable],
        body: Sequence[str],
        returned: Sequence[Variable],
        beside: int,
    ) -> list[str]:
        if len(returned) > 1:
            raise CannotWrite(f"the function would have to return {len(returned)} values")
        indent = self.function_indent(beside)
        head = self._function_head(name, ", ".join(self.typed(p) for p in parameters), returned, beside)
        lines = list(body)
        if returned:
            lines.append(f"{indent}{self.style.indent}return {returned[0].name}{self.stop}")
        return self._braced(f"{indent}{head}", lines, indent)

    def function_indent(self, beside: int) -> str:
        return leading_space(self.file, beside) if beside else self.file.margin

    def call(
        self,
        name: str,
        arguments: Sequence[str],
        targets: Sequence[str],
        indent: str,
        declares: str = "",
    ) -> str:
        call = f"{name}({', '.join(arguments)}){self.stop}"
        if not targets:
            return f"{indent}{call}"
        return f"{indent}{declares + ' ' if declares else ''}{targets[0]} = {call}"

    def choice(self, flag: str, yes: Sequence[str], no: Sequence[str], indent: str) -> list[str]:
        if not yes:
            return self._braced(f"{indent}if {self._asked(f'!{flag}')}", no, indent)
        lines = self._braced(f"{indent}if {self._asked(flag)}", yes, indent)
        if not no:
            return lines
        otherwise = self._braced(f"{indent}else", no, indent)
        if self.style.brace_below:
            return [*lines, *otherwise]
        return [*lines[:-1], f"{lines[-1]} {otherwise[0].lstrip()}", *otherwise[1:]]

    def _asked(self, condition: str) -> str:
        """A condition as it stands behind `if`."""
        return f"({condition})"

    def declaration(self, variable: Variable) -> str:
        return f"{self.typed(variable)}{self.stop}"

    def named(self, variable: Variable, value: str) -> str:
        return super().named(variable, value) + self.stop

    # -- parts ---------------------------------------------------------------------------------------

    @property
    def stop(self) -> str:
        """What ends a statement."""
        return ";"

    @abstractmethod
    def _function_head(self, name: str, parameters: str, returned: Sequence[Variable], beside: int) -> str: ...

    @abstractmethod
    def _listing_head(self, variables: Sequence[Variable], turns: Listed) -> str: ...

    def _table(self, table: Variable, values: Sequence[str], indent: str) -> list[str]:
        """The declaration of a list of values."""
        return self._wrapped(f"{indent}{self.typed(table)} = {{", values, f"}}{self.stop}", indent)

    def array(self, array: Variable, values: Sequence[str], places: int, indent: str) -> list[str]:
        return self._table(array, values, indent) if values else [f"{indent}{self._places(array, places)}{self.stop}"]

    def _places(self, array: Variable, places: int) -> str:
        """The declaration of an array with so many places."""
        raise CannotWrite(f"{array.name} would have to be an array")

    def _wrapped(self, before: str, values: Sequence[str], after: str, indent: str) -> list[str]:
        """A list on one line, or on as many as it needs."""
        inline = f"{before}{', '.join(values)}{after}"
        if len(inline) <= WIDTH:
            return [inline]
        step = indent + self.style.indent
        lines: list[str] = []
        for value in values:
            if lines and len(lines[-1]) + len(value) + 2 <= WIDTH:
                lines[-1] += f" {value},"
            else:
                lines.append(f"{step}{value},")
        lines[-1] = lines[-1].removesuffix(",")
        return [before, *lines, f"{indent}{after}"]

    def _counter_type(self) -> str:
        """The type with which this student declares the counters of loops, or the usual one."""
        return "int "

    def _counting_head(self, variable: str, turns: Counting) -> str:
        first, step, count = turns.first, turns.step, turns.count
        last = first + step * (count - 1)
        if step > 0:
            test = f"{variable} < {last + 1}" if step == 1 else f"{variable} <= {last}"
        else:
            test = f"{variable} >= {last}"
        by = {1: f"{variable}++", -1: f"{variable}--"}.get(
            step, f"{variable} += {step}" if step > 0 else f"{variable} -= {-step}"
        )
        return f"for ({self._counter_type()}{variable} = {first}; {test}; {by})"

    def _braced(self, head: str, body: Sequence[str], indent: str) -> list[str]:
        if self.style.brace_below:
            return [head, f"{indent}{{", *body, f"{indent}}}"]
        return [f"{head} {{", *body, f"{indent}}}"]

    def _concatenated(self, parts: Sequence[str], gaps: Mapping[int, Gap]) -> str:
        """`"gate 3!"` as `"gate " + i + "!"`."""
        return " + ".join(pieces(inner_parts(parts), parts[0][0], gaps))


class TypedWriter(BraceWriter):
    """The languages that name types."""

    def typed(self, variable: Variable) -> str:
        kind = variable.type
        if kind is None:
            raise CannotWrite(f"the type of {variable.name} is not in sight")
        return self.declared(kind, variable.name)

    @abstractmethod
    def declared(self, kind: Type, name: str) -> str:
        """`name` declared with its type."""

    def _result(self, returned: Sequence[Variable]) -> str:
        if not returned:
            return "void"
        kind = returned[0].type
        if kind is None:
            raise CannotWrite(f"the type of {returned[0].name} is not in sight")
        if kind.dimensions and self.file.language.struct_values:
            raise CannotWrite("a function cannot give an array back")
        return self.declared(kind, "").strip()

    def _counter_type(self) -> str:
        tree = self.file.tree
        own = [
            tree.leaf_texts(node)[0]
            for node, kind in enumerate(tree.kind)
            if kind == "declaration" and tree.field[node] == "initializer"
        ]
        return "byte " if own and own.count("byte") * 2 > len(own) and self.file.language.id == "arduino" else "int "


FORMATTED = frozenset({"printf", "scanf"})


class CWriter(TypedWriter):
    """C, C++ and board sketches."""

    runs_through_lists = False

    def value_text(self, node: int, expression: str) -> str:
        tree = self.file.tree
        arguments = tree.parent[node]
        if tree.kind[node] == "string" and tree.kind[arguments] == "argument_list":
            first = tree.text[node - 1] == "("
            if first and self.file.called_name(tree.parent[arguments]) in FORMATTED:
                raise CannotWrite("the text that differs says how to print, which a variable should not")
        return super().value_text(node, expression)

    def declared(self, kind: Type, name: str) -> str:
        stars = "*" * kind.pointers
        reference = "&" if kind.reference else ""
        dimensions = "".join(f"[{d}]" for d in kind.dimensions)
        return f"{kind.base} {stars}{reference}{name}{dimensions}"

    @cached_property
    def _has_truth(self) -> bool:
        """True where the language, or what the file includes, has `true` and `false`."""
        included = any("stdbool.h" in line for line in self.file.lines if line.lstrip().startswith("#"))
        return self.file.language.id != "c" or included

    def truth(self, value: bool) -> str:
        return super().truth(value) if self._has_truth else str(int(value))

    def flag_type(self) -> Type | None:
        return super().flag_type() if self._has_truth else Type("int")

    def string_with(self, node: int, parts: Sequence[str], gaps: Mapping[int, Gap]) -> str:
        """`printf` takes a number into its text, and a stream behind one text and before the next."""
        tree = self.file.tree
        if is_streamed(self.file, node):
            return " << ".join(pieces(inner_parts(parts), '"', gaps))
        arguments = tree.parent[node]
        given = tree.items(arguments)
        printed = tree.kind[arguments] == "argument_list" and self.file.called_name(tree.parent[arguments]) == "printf"
        if not printed or given[0] != node or "%" in "".join(parts[: max(gaps)]):
            raise CannotWrite("a number inside a text differs")
        shown = {k: "%s" if gap.is_text else "%d" for k, gap in gaps.items()}
        text = "".join(shown.get(k, part) for k, part in enumerate(parts))
        return ", ".join([text, *(gaps[k].expression for k in sorted(gaps))])

    def format_with(self, before: str, after: str) -> str:
        return f'"{before}%s{after}"'

    def _places(self, array: Variable, places: int) -> str:
        return self.typed(array).removesuffix("[]") + f"[{places}]"

    def _function_head(self, name: str, parameters: str, returned: Sequence[Variable], beside: int) -> str:
        result = self._result(returned)
        empty = "void" if self.file.language.id == "c" and self._writes_void() else ""
        space = "" if result.endswith("*") else " "
        static = "static " if beside and "static" in self.file.words_before_name(beside) else ""
        behind = " const" if beside and "const" in self.file.words_behind_parameters(beside) else ""
        return f"{static}{result}{space}{name}({parameters or empty}){behind}"

    def _writes_void(self) -> bool:
        return any(re.search(r"\(\s*void\s*\)", line) for line in self.file.lines)

    def _listing_head(self, variables: Sequence[Variable], turns: Listed) -> str:
        raise CannotWrite("the language has no list to run through in place")


class MethodWriter(TypedWriter):
    """Java and C#, whose functions are methods of a class."""

    texts_chain = True

    def text_around(self, node: int, before: str, expression: str, after: str) -> str:
        return self._joined(node, before, expression, after)

    def declared(self, kind: Type, name: str) -> str:
        return f"{kind.base}{'[]' * len(kind.dimensions)} {name}"

    def string_with(self, node: int, parts: Sequence[str], gaps: Mapping[int, Gap]) -> str:
        text = self._concatenated(parts, gaps)
        return text if self._joins_on(node, text) else f"({text})"

    def _places(self, array: Variable, places: int) -> str:
        kind = array.type
        return f"{self.typed(array)} = new {kind.base if kind else ''}[{places}]"

    def _function_head(self, name: str, parameters: str, returned: Sequence[Variable], beside: int) -> str:
        words = self.file.words_before_name(beside)
        access = "private " if "private" in words or "public" in words else ""
        static = "static " if "static" in words else ""
        throws = self._throws(beside)
        return f"{access}{static}{self._result(returned)} {name}({parameters}){throws}"

    def _throws(self, procedure: int) -> str:
        tree = self.file.tree
        found = [tree.text[c] for c in tree.children(procedure) if tree.kind[c] == "throws"]
        return f" {found[0]}" if found else ""


class JavaWriter(MethodWriter):
    """Java."""

    def repeated(self, literal: str, expression: str) -> str:
        return f"{literal}.repeat({expression})"

    def _listing_head(self, variables: Sequence[Variable], turns: Listed) -> str:
        kind = variables[0].type
        values = ", ".join(row[0] for row in turns.rows)
        head = (
            f"for ({self.typed(variables[0])} : new {self.declared(kind, '').strip() if kind else ''}[] {{{values}}})"
        )
        if len(head) > WIDTH:
            raise CannotWrite("the list is too long for one line")
        return head


class CSharpWriter(MethodWriter):
    """C#."""

    def gap(self, expression: str) -> str:
        return f"{{{expression}}}"

    def repeated(self, literal: str, expression: str) -> str:
        return f"new string('{literal[1:-1]}', {expression})"

    def _listing_head(self, variables: Sequence[Variable], turns: Listed) -> str:
        values = ", ".join(row[0] for row in turns.rows)
        return f"foreach ({self.typed(variables[0])} in new[] {{ {values} }})"


class JavaScriptWriter(BraceWriter):
    """JavaScript and TypeScript."""

    texts_chain = True

    @cached_property
    def stop(self) -> str:
        lines = [line.rstrip() for line in self.file.lines if line.strip() and line.rstrip()[-1:] not in "{},("]
        ending = sum(line.endswith(";") for line in lines)
        return "" if lines and ending * 3 < len(lines) else ";"

    def declaration(self, variable: Variable) -> str:
        return f"{self._keyword('let')} {variable.name}{self.stop}"

    def named(self, variable: Variable, value: str) -> str:
        return f"{self._keyword('const')} {variable.name} = {value}{self.stop}"

    def _keyword(self, modern: str) -> str:
        return "var" if self._is_old else modern

    @cached_property
    def _is_old(self) -> bool:
        """True where this student declares with `var` alone."""
        words = set(self.file.tree.text)
        return "var" in words and not words & {"let", "const"}

    def _counter_type(self) -> str:
        return f"{self._keyword('let')} "

    def _table(self, table: Variable, values: Sequence[str], indent: str) -> list[str]:
        return self._wrapped(f"{indent}{self._keyword('const')} {table.name} = [", values, f"]{self.stop}", indent)

    def _places(self, array: Variable, places: int) -> str:
        return f"{self._keyword('const')} {array.name} = []"

    def _listing_head(self, variables: Sequence[Variable], turns: Listed) -> str:
        names = [v.name for v in variables]
        target = names[0] if len(names) == 1 else f"[{', '.join(names)}]"
        rows = [row[0] if len(row) == 1 else f"[{', '.join(row)}]" for row in turns.rows]
        return f"for ({self._keyword('const')} {target} of [{', '.join(rows)}])"

    def string_with(self, node: int, parts: Sequence[str], gaps: Mapping[int, Gap]) -> str:
        literal = self.file.tree.source_of(node)
        old = self._keyword("let") == "var" or self._is_joined(node)
        if old or "`" in literal or "${" in literal or "\\" in literal:
            text = self._concatenated(parts, gaps)
            return text if self._joins_on(node, text) else f"({text})"
        return f"`{self.words_with(inner_parts(parts), gaps)}`"

    def gap(self, expression: str) -> str:
        return f"${{{expression}}}"

    def repeated(self, literal: str, expression: str) -> str:
        return f"{literal}.repeat({expression})"

    def text_around(self, node: int, before: str, expression: str, after: str) -> str:
        if self._keyword("let") == "var" or self._is_joined(node):
            return self._joined(node, before, expression, after)
        return f"`{before}${{{expression}}}{after}`"

    def _function_head(self, name: str, parameters: str, returned: Sequence[Variable], beside: int) -> str:
        if beside:
            return f"{name}({parameters})"
        if self._arrows():
            return f"{self._keyword('const')} {name} = ({parameters}) =>"
        return f"function {name}({parameters})"

    def _arrows(self) -> bool:
        """True where this student writes top-level functions as arrow functions only."""
        tree = self.file.tree
        top = [tree.kind[s] for s in self.file.blocks[0].statements]
        return "function_variable" in top and "function_definition" not in top


class TypeScriptWriter(JavaScriptWriter):
    """TypeScript: parameters tell their types, as far as these are in sight."""

    def typed(self, variable: Variable) -> str:
        kind = variable.type
        return f"{variable.name}: {kind.base + '[]' * len(kind.dimensions) if kind else 'any'}"

    def _places(self, array: Variable, places: int) -> str:
        kind = array.type or Type("any", 0, ("",))
        return f"{self._keyword('const')} {self.typed(Variable(array.name, kind))} = []"


class GameScriptWriter(JavaScriptWriter):
    """Game scripts: `var` only, and lists that are run through by their places."""

    runs_through_lists = False
    texts_chain = False

    def repeated(self, literal: str, expression: str) -> str:
        return f"string_repeat({literal}, {expression})"

    def _keyword(self, modern: str) -> str:
        return "var"

    def loop(
        self,
        variables: Sequence[Variable],
        turns: Turns,
        body: Sequence[str],
        indent: str,
        tables: Sequence[tuple[Variable, tuple[str, ...]]] = (),
    ) -> LoopText:
        name = variables[0].name
        if isinstance(turns, Counting) and not tables and not any(re.search(rf"\b{name}\b", line) for line in body):
            return LoopText(tuple(self._braced(f"{indent}repeat ({turns.count})", body, indent)))
        return super().loop(variables, turns, body, indent, tables)

    def _listing_head(self, variables: Sequence[Variable], turns: Listed) -> str:
        raise CannotWrite("the language has no list to run through in place")

    def _arrows(self) -> bool:
        return False
