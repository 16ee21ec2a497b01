"""Racket and Scheme, whose parts `reader.py` builds."""

from __future__ import annotations

import itertools
from typing import Any

from ..braces.base import BRACES, TARGETS
from ..table import Binding, Language
from .reader import build_racket, build_scheme

BUILTINS = frozenset(
    """
    + - * / = < > <= >= abs add1 sub1 append apply assoc assq boolean? caar cadr car cdr cddr cons cons? display
    displayln empty empty? eq? equal? error even? exact->inexact expt filter first floor foldl foldr for-each format
    hash-ref hash-set integer? last length list list-ref list? map max member min modulo negative? newline not null
    null? number->string number? odd? or and pair? positive? print printf quotient random range remainder remove rest
    reverse round second set-add sqrt square string string->number string->symbol string-append string-length
    string-ref string-upcase string=? string? substring symbol->string symbol? third vector vector-ref vector-set! void
    write zero? check-expect check-equal? check-within test begin0 sort andmap ormap build-list circle square rectangle
    overlay beside above above/align place-image text scene+rectangle empty-scene big-bang on-tick to-draw on-key true
    false else exact-round ceiling exp log sin cos pi string-join string-contains? number->string list->string
    current-output-port read-line read values call-with-values eof-object? char? vector-length make-vector count
    """.split()
) | {f"c{''.join(way)}r" for length in (2, 3, 4) for way in itertools.product("ad", repeat=length)}
VOID_CALLS = frozenset(
    """
    display displayln newline print printf write void vector-set! hash-set! set-box! check-expect check-equal?
    check-within check-true check-false error
    """.split()
)
TABLE: dict[str, Any] = {
    **BRACES,
    "either_sign": "",
    "comment": frozenset(),
    "comment_marks": (";", "#|"),
    "keyword_argument": ("", ""),
    "scopes": frozenset({"lambda", "let_scope"}),
    "fields": frozenset({"type_definition"}),
    "imports": frozenset({"import_statement"}),
    "targets": (*TARGETS, Binding("let_names", "left")),
    "wrappers": frozenset({"function_variable"}),
    "leaving": frozenset({"raise_statement"}),
    "builtins": BUILTINS,
    "reflective": frozenset({"eval", "namespace-set-variable-value!"}),
    "pure_calls": BUILTINS - VOID_CALLS - {"random", "read", "read-line", "for-each", "map", "apply", "sort"},
    "output_calls": frozenset({"display", "displayln", "newline", "print", "printf", "write"}),
    "input_calls": frozenset({"read", "read-line", "read-char"}),
    "keywords": frozenset(
        """
        define lambda λ let let* letrec if cond case when unless begin set! quote quasiquote and or do delay for
        for-each struct define-struct require provide match local else
        """.split()
    ),
    "framework_calls": frozenset({"main"}),
    "started_by_hand": True,
    "list_call": "list",
    "values_everywhere": True,
    "texts_take_texts": True,
    "void_calls": VOID_CALLS,
    "word_joint": "-",
    "closers_trail": True,
    "functions_are_values": True,
    "global_style": True,
}
RACKET = Language(
    id="racket",
    title="Racket",
    grammar="racket",
    extensions=(".rkt", ".rktl"),
    shebangs=("racket",),
    build=build_racket,
    shows_values=True,
    **TABLE,
)
SCHEME = Language(
    id="scheme",
    title="Scheme",
    grammar="scheme",
    extensions=(".scm", ".ss"),
    shebangs=("guile", "scheme"),
    build=build_scheme,
    **TABLE,
)
