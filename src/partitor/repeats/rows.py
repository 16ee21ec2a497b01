"""Runs inside blocks: a block takes a run as a whole or not at all, as half a row is no step of anything."""

from __future__ import annotations

from collections.abc import Iterable, Sequence

from .judge import inner_statements
from .runs import Run
from .slots import Copy, Table


class Rows:
    """Where the runs of a program stand."""

    def __init__(self, runs: Iterable[Run]) -> None:
        self.ends: dict[tuple[int, int], tuple[int, int]] = {}
        """(identity of the file, statement): the first and last statement of the run it is part of."""
        self.columns: dict[tuple[int, int], int] = {}
        """How many things differ in the run that begins at a statement."""
        self.later: set[tuple[int, int]] = set()
        """The statements of second and further copies."""
        for run in runs:
            copies = [*run.table.copies, *([run.rest] if run.rest else []), *run.more]
            file = id(copies[0].file)
            statements = [s for copy in copies for s in copy.statements]
            ends = min(statements), max(statements)
            self.ends.update(dict.fromkeys(((file, s) for s in statements), ends))
            self.columns[file, ends[0]] = len(run.table.columns)
            self.later.update((file, s) for copy in copies[1:] for s in copy.statements)

    def kept_whole(self, copies: Sequence[Copy]) -> list[Copy]:
        """The copies, without what is only part of a run at either end of one of them; [] where nothing is left, or
        nothing but runs."""
        if not self.ends or not copies:
            return list(copies)
        start, stop = 0, len(copies[0].statements)
        before = None
        while before != (start, stop) and start < stop:
            before = (start, stop)
            for copy in copies:
                statements, file = copy.statements[start:stop], id(copy.file)
                if not statements:
                    break
                first, last = self.ends.get((file, statements[0])), self.ends.get((file, statements[-1]))
                if first and first[0] != statements[0]:
                    start += sum(s <= first[1] for s in statements)
                elif last and last[1] != statements[-1]:
                    stop -= sum(s >= last[0] for s in statements)
        if start >= stop or all((id(copies[0].file), s) in self.ends for s in copies[0].statements[start:stop]):
            return []
        return [Copy(c.file, c.statements[start:stop]) for c in copies]

    def are_whole(self, table: Table) -> bool:
        """True where the copies hold no part of a run without the rest of it."""
        kept = self.kept_whole(table.copies)
        return bool(kept) and kept[0].statements == table.copies[0].statements

    def are_inside(self, table: Table) -> bool:
        """True where there is a run in the copies."""
        return any((id(c.file), s) in self.columns for c in table.copies for s in c.statements)

    def are_unlike(self, table: Table) -> bool:
        """True where runs inside the copies become loops that are not alike."""
        return len({tuple(self.columns.get((id(c.file), s), -1) for s in c.statements) for c in table.copies}) > 1

    def folded_size(self, copy: Copy) -> int:
        """Statements of a copy, where each run in it is a loop over its first copy."""
        file = copy.file
        kept = [s for s in copy.statements if (id(file), s) not in self.later]
        return sum(inner_statements(Copy(file, (s,))) for s in kept)
