"""Programs in Racket and Scheme to break the proof on, as `wild` does for Python.

Statements print, change variables of the program or of the function, or are only values, which Racket shows at
the top and which are a function's result at its end.
"""

from __future__ import annotations

import re
from random import Random

SHARED = ["tide", "turn"]
OWN = ["gate", "level"]
WORDS = ["north", "mill", "east", "ferry", "creek"]
CONTEXTS = ["plain", "plain", "when", "cond", "if", "loop", "let", "begin"]


class WildLisp:
    """One random program in `language`: racket or scheme."""

    def __init__(self, seed: int, language: str) -> None:
        self.random = Random(seed)
        self.language = language

    def text(self) -> str:
        """The program's text."""
        r = self.random
        functions = []
        for k in range(r.randint(1, 2)):
            block = [self._statement([*SHARED, *OWN, "size"]) for _ in range(r.randint(2, 4))]
            lines: list[str] = []
            for _ in range(r.randint(1, 2)):
                lines += self._in_context(r.choice(CONTEXTS), block)
            own = [f"(define {name} {r.randint(0, 9)})" for name in OWN]
            functions.append(_closed([f"(define (work{k} size)", *_deeper([*own, *lines])], ")"))
        block = [self._statement(SHARED) for _ in range(r.randint(1, 3))]
        loose = self._in_context(r.choice(["plain", "when"]), block)
        head = ["#lang racket/base"] if self.language == "racket" else []
        helpers = [
            "(define tide 1)",
            "(define turn 2)",
            "(define (noisy value)\n  (display (list 'noisy value))\n  (newline)\n  value)",
            "(define (bump)\n  (set! turn (+ turn 1))\n  (display turn)\n  (newline))",
        ]
        ends = [f"(display (work{k} {k + 2}))\n(newline)" for k in range(len(functions))]
        texts = ["\n".join(f) for f in functions]
        return "\n\n".join([*head, *helpers, *texts, *ends, *loose, "(display (list tide turn))"]) + "\n"

    def _statement(self, names: list[str]) -> str:
        r = self.random
        name, other, number = r.choice(names), r.choice(names), r.randint(1, 9)
        kind = r.randrange(9)
        if kind < 2:
            return f'(display "{r.choice(WORDS)} {number} ")'
        if kind < 4:
            return f"(set! {name} (+ {other} {number}))"
        if kind == 4:
            return f"(display (list '{r.choice(WORDS)} {name} {number}))"
        if kind == 5:
            return f"(noisy (* {name} {number}))"
        if kind == 6:
            return r.choice(["(bump)", "(newline)"])
        if kind == 7:
            return f'(when (> {name} {number}) (display "{r.choice(WORDS)}"))'
        return f"(- {name} {number})"

    def _copy(self, block: list[str], k: int) -> list[str]:
        """The block once more: some numbers move on, words change, rarely a name or a line."""
        r = self.random
        lines = []
        for line in block:
            if r.random() < 0.7:
                line = re.sub(r"\b\d+\b", lambda m: str(int(m.group()) + k), line)
            if r.random() < 0.15:
                line = re.sub("|".join(WORDS), lambda m: r.choice(WORDS), line)
            if r.random() < 0.06:
                line = re.sub("|".join(SHARED), lambda m: r.choice(SHARED), line)
            lines.append(line)
        if r.random() < 0.08:
            lines.insert(r.randrange(len(lines)), "(bump)")
        return lines

    def _in_context(self, context: str, block: list[str]) -> list[str]:
        copies = [self._copy(block, k) for k in range(self.random.randint(2, 4))]
        flat = [line for copy in copies for line in copy]
        first, second = copies[0], copies[1]
        if context == "when":
            return _closed(["(when (> tide 0)", *_deeper(flat)], ")")
        if context == "cond":
            one = _closed(["  [(> turn 2)", *_deeper(_deeper(first))], "]")
            return _closed(["(cond", *one, *_closed(["  [else", *_deeper(_deeper(second))], "])")], "")
        if context == "if":
            one = _closed(["    (begin", *_deeper(_deeper(_deeper(first)))], ")")
            return _closed(["(if (> turn 2)", *one, "    (begin", *_deeper(_deeper(_deeper(second)))], "))")
        if context == "loop":
            head = "(for ([lap (list 1 2)])" if self.language == "racket" else "(for-each (lambda (lap)"
            return _closed([head, *_deeper(flat)], ")" if self.language == "racket" else ") (list 1 2))")
        if context == "let":
            return _closed(["(let ([lap tide])", *_deeper(flat)], ")")
        if context == "begin":
            return _closed(["(begin", *_deeper(flat)], ")")
        return flat


def _deeper(lines: list[str]) -> list[str]:
    return [f"  {line}" for line in lines]


def _closed(lines: list[str], brackets: str) -> list[str]:
    return [*lines[:-1], lines[-1] + brackets]


def wild_lisp(seed: int, language: str) -> str:
    """The text of a random program."""
    return WildLisp(seed, language).text()
