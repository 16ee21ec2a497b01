"""Prints loops, functions and calls in Visual Basic."""

from __future__ import annotations

import re
from collections.abc import Mapping, Sequence
from functools import cached_property

from ...errors import CannotWrite
from ...program.types import Type
from ..writing import WIDTH, Counting, Gap, LoopText, Turns, Variable, Writer, around, inner_parts, pieces

SAFE_PARENTS = frozenset({"argument_list", "assignment", "declarator", "subscript", "result_statement"})


class VisualBasicWriter(Writer):
    """Macros: procedures of a module, lists by Array(…), variables declared as this student does."""

    comment_mark = "'"
    lists_by_index = True

    @cached_property
    def _declares(self) -> bool:
        """True where the file asks for declarations, or this student makes them."""
        tree = self.file.tree
        asked = any(k == "preprocessor" and "explicit" in t.lower() for k, t in zip(tree.kind, tree.text, strict=True))
        return asked or "Dim" in tree.text

    def string_with(self, node: int, parts: Sequence[str], gaps: Mapping[int, Gap]) -> str:
        tree = self.file.tree
        literal = tree.source_of(node)
        if '""' in literal[1:-1]:
            raise CannotWrite("a number inside a text differs")
        joined = " & ".join(pieces(inner_parts(parts), '"', gaps))
        parent = tree.parent[node]
        joins = tree.kind[parent] == "binary_operator" and "&" in [tree.text[c] for c in tree.children(parent)]
        return joined if joins or tree.kind[parent] in SAFE_PARENTS else f"({joined})"

    def text_around(self, node: int, before: str, expression: str, after: str) -> str:
        joined = " & ".join(around('"', before, expression, after))
        return joined if self.file.tree.kind[self.file.tree.parent[node]] in SAFE_PARENTS else f"({joined})"

    def value_text(self, node: int, expression: str) -> str:
        simple = re.fullmatch(r"\w+(?:\(\w+\))?", expression) is not None
        if simple or self.file.tree.kind[self.file.tree.parent[node]] in SAFE_PARENTS:
            return expression
        return f"({expression})"

    def element(self, table: str, index: str) -> str:
        return f"{table}({index})"

    def loop(
        self,
        variables: Sequence[Variable],
        turns: Turns,
        body: Sequence[str],
        indent: str,
        tables: Sequence[tuple[Variable, tuple[str, ...]]] = (),
    ) -> LoopText:
        name = variables[0].name
        lists = [table.name for table, _ in tables]
        before = [f"{indent}{t.name} = Array({', '.join(values)})" for t, values in tables]
        if isinstance(turns, Counting):
            last = turns.first + turns.step * (turns.count - 1)
            step = "" if turns.step == 1 else f" Step {turns.step}"
            head, kind = f"For {name} = {turns.first} To {last}{step}", "Integer"
        else:
            if len(variables) > 1 or turns.start is not None:
                raise CannotWrite("the loop would have to run through several lists at once")
            head, kind = f"For Each {name} In Array({', '.join(row[0] for row in turns.rows)})", "Variant"
        if max(map(len, [*before, head])) > 3 * WIDTH:
            raise CannotWrite("the list is too long for one line")
        told = [(name, kind), *((t, "Variant") for t in lists)] if self._declares else []
        declarations = tuple(f"Dim {n} As {k}" for n, k in told)
        lines = (*before, f"{indent}{head}", *body, f"{indent}Next {name}")
        return LoopText(lines, len(before), tuple(lists), tuple(n for n, _ in told), declarations)

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
        kind = "Function" if returned else "Sub"
        result = f" As {self._type(returned[0])}" if returned else ""
        lines = [f"Private {kind} {name}({', '.join(self.typed(p) for p in parameters)}){result}", *body]
        if returned:
            lines.append(f"{self.style.indent}{name} = {returned[0].name}")
        return [*lines, f"End {kind}"]

    def choice(self, flag: str, yes: Sequence[str], no: Sequence[str], indent: str) -> list[str]:
        if not yes:
            return [f"{indent}If Not {flag} Then", *no, f"{indent}End If"]
        otherwise = [f"{indent}Else", *no] if no else []
        return [f"{indent}If {flag} Then", *yes, *otherwise, f"{indent}End If"]

    def truth(self, value: bool) -> str:
        return str(value)

    def call(
        self,
        name: str,
        arguments: Sequence[str],
        targets: Sequence[str],
        indent: str,
        declares: str = "",
    ) -> str:
        if declares:
            raise CannotWrite("the copies declare a variable that is needed after them")
        given = ", ".join(arguments)
        if targets:
            return f"{indent}{targets[0]} = {name}({given})"
        if self._calls_with_brackets:
            return f"{indent}Call {name}({given})" if given else f"{indent}Call {name}"
        return f"{indent}{name} {given}".rstrip()

    @cached_property
    def _calls_with_brackets(self) -> bool:
        """True where this student writes `Call Say("x")` as a rule."""
        lines = [line.strip().lower() for line in self.file.lines]
        names = tuple(f"{p.name.lower()} " for p in self.file.procedures[1:] if p.name)
        return sum(line.startswith("call ") for line in lines) > sum(line.startswith(names) for line in lines if names)

    def with_arguments(self, arguments: int, added: Sequence[str]) -> tuple[int, str]:
        """Behind the last value; a call that is a statement needs no brackets."""
        tree = self.file.tree
        start, stop = tree.start_byte[arguments], tree.end_byte[arguments]
        given = tree.items(arguments)
        if given and tree.end_byte[given[-1]] == stop:
            return stop, "".join(f", {text}" for text in added)
        if stop > start:
            return stop - 1, (", " if given else "") + ", ".join(added)
        return stop, " " + ", ".join(added)

    def typed(self, variable: Variable) -> str:
        return f"ByVal {variable.name} As {self._type(variable)}"

    def declaration(self, variable: Variable) -> str:
        return f"Dim {variable.name} As {self._type(variable)}"

    @staticmethod
    def _type(variable: Variable) -> str:
        kind: Type | None = variable.type
        if kind is None:
            raise CannotWrite(f"the type of {variable.name} is not in sight")
        if kind.dimensions:
            raise CannotWrite("a list would have to be handed on")
        return kind.base
