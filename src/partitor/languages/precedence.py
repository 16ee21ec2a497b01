"""Operators by precedence: a chain of operands and signs as nested parts, for languages read by hand."""

from __future__ import annotations

from collections.abc import Sequence

from .parts import Part


def by_precedence(
    operands: list[Part], signs: list[Part], levels: Sequence[Sequence[str]], kind: str = "binary_operator"
) -> Part:
    """Nest a chain by `levels` (the loosest first, all from left to right); signs on no level bind loosest.
    One operand more than signs is needed. A sign's kind is its spelling."""
    rank = {sign: k for k, level in enumerate(levels) for sign in level}
    output: list[Part] = [operands[0]]
    waiting: list[Part] = []

    def join() -> None:
        sign, right = waiting.pop(), output.pop()
        left = output.pop()
        left.field, sign.field, right.field = "left", "operator", "right"
        output.append(Part(kind, left.start, right.stop, "", [left, sign, right]))

    for sign, operand in zip(signs, operands[1:], strict=True):
        while waiting and rank.get(waiting[-1].kind, -1) >= rank.get(sign.kind, -1):
            join()
        waiting.append(sign)
        output.append(operand)
    while waiting:
        join()
    output[0].field = ""
    return output[0]
