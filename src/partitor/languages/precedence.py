"""Operators by precedence: a chain of operands and signs as nested parts, for languages read by hand."""

from __future__ import annotations

from collections.abc import Mapping, Sequence

from .parts import Part

SIGN = "operator"
"""The field that marks a part of a chain as a sign; a sign's kind is its spelling."""


def nested(chain: Sequence[Part], levels: Sequence[Sequence[str]], prefixes: Mapping[str, int] | None = None) -> Part:
    """Nest a chain of operands and signs by `levels` (the loosest first, each from left to right; a sign on none
    binds loosest). `prefixes`: signs that stand before an operand, with the level from which its operators are
    taken in. The chain must end with an operand."""
    rank = {sign: k for k, level in enumerate(levels) for sign in level}
    position = 0

    def operand() -> Part:
        nonlocal position
        part = chain[position]
        position += 1
        if part.field != SIGN:
            return part
        inner = expression((prefixes or {}).get(part.kind, len(levels)))
        part.field, inner.field = "", "argument"
        return Part("unary_operator", part.start, inner.stop, "", [part, inner])

    def expression(least: int) -> Part:
        nonlocal position
        left = operand()
        while position < len(chain) and rank.get(chain[position].kind, 0) >= least:
            sign = chain[position]
            position += 1
            right = expression(rank.get(sign.kind, 0) + 1)
            left.field, right.field = "left", "right"
            left = Part("binary_operator", left.start, right.stop, "", [left, sign, right])
        return left

    whole = expression(0)
    whole.field = ""
    return whole
