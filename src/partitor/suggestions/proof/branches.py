"""Proof of joined branches: each of the tests joined by "or", with the one body, is a branch of the original."""

from __future__ import annotations

from collections.abc import Iterator

from ...program.program import ProgramFile
from .folding import Term, as_term
from .terms import term_of
from .verdict import JoinedBranches, Refused
from .walk import Walk

Branch = tuple[list[Term], list[Term], int]
"""The tests, any of which leads into it; its statements; its node."""

CLAUSES = frozenset({"elif_clause", "else_clause"})
KEYWORDS = frozenset({"if", "elif", "else", ":", "(", ")"})
SIDES = 4
"""Parts of a test joined with another: its kind, what stands on either side, the sign between."""


def prove_branches(before: ProgramFile, after: ProgramFile, claim: JoinedBranches) -> None:
    """Raises Refused unless the one choice that changes asks the same, in the same order, and does the same."""
    proof = _BranchProof(before, after, claim.line)
    Walk(before, after, lambda left, s: None, proof.choice).run()
    if not proof.found:
        raise Refused("there is no joined branch where one is claimed")


class _BranchProof:
    def __init__(self, before: ProgramFile, after: ProgramFile, line: int) -> None:
        self.before = before
        self.after = after
        self.line = line
        self.found = False
        self.sign = before.language.either_sign

    def choice(self, old: int, new: int) -> bool:
        """Deal with the choice of which a branch begins on the line claimed."""
        tree = self.after.tree
        if tree.kind[new] != "if_statement" or self.before.tree.kind[old] != "if_statement" or self.found:
            return False
        if self.line not in {tree.start_line(branch) for branch in self.after.tree.branches_of(new)}:
            return False
        self.found = True
        if not self.sign:
            raise Refused("the language asks both of two tests, even where the first one holds")
        if "static" in self.before.tree.text[old : self.before.tree.end[old]]:
            raise Refused("what one branch keeps for the next time is not what another keeps")
        olds, news = (list(self._branches(f, n)) for f, n in ((self.before, old), (self.after, new)))
        position = 0
        for tests, body, node in news:
            asked: list[Term] = []
            while len(asked) < len(tests) and position < len(olds):
                more, done, line = olds[position]
                if done != body:
                    raise Refused(f"the branch on line {self.before.tree.start_line(line)} does something else")
                asked += more
                position += 1
            if asked != tests:
                raise Refused(f"the branch on line {tree.start_line(node)} asks for something else")
        if position != len(olds) or self._rest(self.before, old) != self._rest(self.after, new):
            raise Refused("a branch is lost")
        return True

    def _branches(self, file: ProgramFile, choice: int) -> Iterator[Branch]:
        tree = file.tree
        for part in file.tree.branches_of(choice):
            asked = [c for c in tree.children(part) if tree.field[c] == "condition"]
            blocks = [c for c in tree.children(part) if c in file.block_at]
            others = [c for c in tree.children(part) if c not in {*asked, *blocks} and tree.kind[c] not in CLAUSES]
            if len(asked) != 1 or len(blocks) != 1 or not KEYWORDS.issuperset(tree.text[c] for c in others):
                raise Refused("a choice has an unusual form")
            body = [term_of(file, s) for s in file.block_at[blocks[0]].statements]
            yield list(self._tests(term_of(file, asked[0]))), body, part

    def _tests(self, test: Term) -> Iterator[Term]:
        """What is asked, one test after the other until one holds."""
        sign = (self.sign, self.sign)
        if test[0] in {"boolean_operator", "binary_operator"} and len(test) == SIDES and test[2] == sign:
            yield from self._tests(as_term(test[1]))
            yield from self._tests(as_term(test[3]))
        else:
            yield test

    @staticmethod
    def _rest(file: ProgramFile, choice: int) -> list[Term]:
        """What is done where no branch is taken."""
        tree = file.tree
        return [term_of(file, c) for c in tree.children(choice) if tree.kind[c] == "else_clause"]
