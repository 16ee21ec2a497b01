"""Racket and Scheme, whose parts `reader.py` builds."""

from __future__ import annotations

import itertools
from typing import Any

from ..braces.base import BRACES, TARGETS
from ..table import Binding, Language
from .reader import build_racket, build_scheme

NUMBERS = """
    + - * / = < > <= >= abs add1 sub1 ceiling cos even? exact->inexact exact-round exact-floor exact-ceiling
    exact-truncate exp expt floor gcd inexact->exact integer? integer-sqrt lcm log max min modulo negative? number? odd?
    pi positive? quotient rational? real? remainder round sgn sin sqr sqrt square tan truncate zero? exact? inexact?
    infinite? nan? natural? exact-integer? number->string
"""
TEXTS = """
    char-alphabetic? char-downcase char-numeric? char-upcase char-whitespace? char=? char<? char>? char? char->integer
    integer->char format list->string string string->list string->number string->symbol string-append string-contains?
    string-copy string-downcase string-join string-length string-prefix? string-ref string-replace string-split
    string-suffix? string-titlecase string-trim string-upcase string<=? string<? string=? string>=? string>? string-ci=?
    string? substring symbol->string symbol=? symbol? make-string implode explode string-ith replicate string-numeric?
    string-alphabetic? string-whitespace? 1string?
"""
LISTS = """
    append append* assoc assq assv boolean? caar cadr car cdr cddr cons cons? drop drop-right eighth empty empty?
    eq? equal? eqv? fifth first flatten fourth last last-pair length list list* list? list-ref list-tail make-list
    member memq memv ninth not null null? pair? range remove remove* remove-duplicates rest reverse second seventh
    sixth take take-right tenth third values hash-count hash-has-key? hash-keys hash-ref hash-set hash-values hash?
    hash make-immutable-hash set-add set-count set-member? set-remove set-union set-intersect vector vector-length
    vector-ref vector->list list->vector vector? vector-append make-vector index-of list-set list-update split-at
    void void? true false else and or boolean=? false? identity
"""
PICTURES = """
    above above/align add-line beside beside/align circle crop ellipse empty-image empty-scene flip-horizontal
    flip-vertical frame image-height image-width image? isosceles-triangle line overlay overlay/align overlay/xy
    place-image place-image/align polygon rectangle regular-polygon rhombus right-triangle rotate scale scale/xy
    scene+line scene+rectangle square star text text/font triangle underlay underlay/align underlay/xy wedge make-color
    color make-posn posn-x posn-y posn?
"""
GIVEN_FUNCTIONS = frozenset(
    """
    andmap apply argmax argmin build-list build-string build-vector compose count curry dropf filter filter-map
    filter-not foldl foldr for-each hash-for-each hash-map hash-update map memf ormap partition sort string-map takef
    vector-for-each vector-map append-map remf
    """.split()
)
"""What calls functions that it is given: as pure as these are."""
WITH_EFFECTS = frozenset(
    """
    begin0 big-bang call-with-values check-expect check-random check-satisfied check-equal? check-within
    current-output-port current-seconds current-milliseconds display displayln eof-object? error exit newline on-key
    on-mouse on-tick stop-when to-draw print printf random read read-char read-line sleep test vector-fill!
    vector-set! hash-set! hash-remove! write write-string
    """.split()
)
BUILTINS = (
    frozenset(f"{NUMBERS} {TEXTS} {LISTS} {PICTURES}".split())
    | {f"c{''.join(way)}r" for length in (2, 3, 4) for way in itertools.product("ad", repeat=length)}
    | GIVEN_FUNCTIONS
    | WITH_EFFECTS
)
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
    "pure_calls": BUILTINS - VOID_CALLS - GIVEN_FUNCTIONS - WITH_EFFECTS,
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
    lists_below=True,
    **TABLE,
)
