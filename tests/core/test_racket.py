"""Racket and Scheme: nested lists as a program tree, what is found and written, and what the proof refuses."""

from __future__ import annotations

from pathlib import Path

import pytest

from core.builders import prove, read, report, rules, worked
from core.runners import can_run, outputs
from core.wild_lisp import wild_lisp
from partitor.deadline import Deadline
from partitor.program.program import Program
from partitor.repeats.limits import Limits
from partitor.suggestions.proof import Claim, MergedFunctions, NewFunction, NewLoop
from partitor.suggestions.worked import proved_suggestions, work_through

GATES = """
#lang racket
; the gates
(define gap 3)
(struct gate (name row))
#| none of this
runs |#
(define (area w [h 2])
  (* w h))
(define shout (lambda (n)
  (displayln n)
  (string-upcase n)))
(define (show n)
  (cond
    [(> n 3) (displayln "many") 'many]
    [(< n 0) 'none]
    [else (printf "gate ~a\\n" n)]))
(for ([i (in-range 1 4)] [j '(a b)])
  (displayln i))
(for-each (lambda (x) (displayln x)) (list 1 2 3))
(let* ([a 1] [b a])
  (displayln a)
  (+ a b))
(define (count-up n)
  (let loop ([i 0])
    (when (< i n)
      (loop (add1 i)))))
(set! gap -4)
(if #t (display `(1 ,gap)) (area 2))
"""


def proved(before: str, after: str, claim: Claim) -> str:
    """The reason of a refusal; "" where the rewriting is proved."""
    return prove(read(before, "racket"), read(after, "racket"), claim).reason


@pytest.mark.parametrize("language", ["racket", "scheme"])
def test_nested_lists_become_the_common_tree(language: str) -> None:
    text = GATES if language == "racket" else GATES.replace("#lang racket", "")
    file = read(text, language)
    tree = file.tree
    assert not tree.problems
    assert [(p.name, p.parameters) for p in file.procedures[1:]] == [
        ("area", ("w", "h")),
        ("shout", ("n",)),
        ("show", ("n",)),
        ("count-up", ("n",)),
    ]
    kinds = set(tree.kind)
    assert {"if_statement", "elif_clause", "else_clause", "for_statement", "let_scope", "special_form"} <= kinds
    assert len(tree.comments) == 2
    names = file.names
    inner = [i for i in names.nodes if tree.text[i] in {"a", "b"}]
    assert all(tree.kind[names.owner(i)] == "let_scope" for i in inner), "what let binds is its own"


def test_a_bracket_that_is_missing_is_told() -> None:
    file = read('(define (f n)\n  (display n)\n(display "a"\n', "racket")
    assert file.problems


RUN = """
#lang racket
(define (rule w)
  (displayln (make-string w #\\-)))

(define (main)
  (printf "gate 1 opens\\n")
  (rule 10)
  (printf "gate 2 opens\\n")
  (rule 20)
  (printf "gate 3 opens\\n")
  (rule 30)) ; the last

(main)
"""


def test_a_run_becomes_a_loop_and_the_brackets_stay_behind_it() -> None:
    text = worked(RUN, "racket")
    assert (
        "(define (main)\n"
        "  ; the last\n"
        "  (for ([gate (in-range 1 4)])\n"
        '    (printf "gate ~a opens\\n" gate)\n'
        "    (rule (* 10 gate))))\n"
    ) in text


def test_scheme_runs_through_lists() -> None:
    text = worked(RUN.replace("#lang racket", "").replace("printf", "display").replace("\\n", ""), "scheme")
    assert "(for-each (lambda (gate)\n" in text
    assert '(display (string-append "gate " (number->string gate) " opens"))' in text
    assert "(list 1 2 3)))\n" in text


def test_unlike_values_become_lists_side_by_side() -> None:
    rows = (("ash", 4), ("elm", 9), ("oak", 1))
    head = '#lang racket\n(define (plant tree row)\n  (printf "~a ~a\\n" tree row))\n'
    text = head + "".join(
        f'(plant "{tree}" 1)\n(plant "{tree}" {row})\n(displayln "and water it")\n' for tree, row in rows
    )
    after = worked(text, "racket")
    assert '(list "ash" "elm" "oak")]\n      [' in after
    assert "(list 4 9 1)])\n" in after


OPERATIONS = """
#lang racket
(define (area-of-room w h)
  (define raw (* w h))
  (if (> raw 30)
      (* raw 2)
      raw))

(define (edge-of-room w h)
  (define raw (+ w h))
  (if (> raw 30)
      (* raw 2)
      raw))

(displayln (area-of-room 3 4))
(displayln (edge-of-room 3 4))
(check-expect (area-of-room 3 4) 12)
"""


def test_functions_alike_but_for_an_operation_become_one_that_is_given_it() -> None:
    after = worked(OPERATIONS, "racket")
    assert "(define raw (operation w h))" in after
    name = after.split("(define (")[1].split()[0]
    assert f"(displayln ({name} 3 4 *))\n(displayln ({name} 3 4 +))\n(check-expect ({name} 3 4 *) 12)" in after


EACH = """#lang racket
(define ({0} {1})
  (cond
    [(empty? {1}) {2}]
    {3}))
"""


def each(name: str, items: str, otherwise: str, *clauses: str) -> str:
    return EACH.format(name, items, otherwise, "\n    ".join(clauses)).removeprefix("#lang racket\n")


@pytest.mark.parametrize(
    ("functions", "calls", "head"),
    [
        (
            each(
                "sum-of-lengths", "words", "0", "[else (+ (string-length (first words)) (sum-of-lengths (rest words)))]"
            )
            + each("sum-of-squares", "sizes", "0", "[else (+ (sqr (first sizes)) (sum-of-squares (rest sizes)))]"),
            ('(sum-of-lengths (list "oar"))', "(sum-of-squares (list 2 3))"),
            "(sum-words items action)",
        ),
        (
            each("louder", "words", "'()", "[else (cons (string-upcase (first words)) (louder (rest words)))]")
            + each("softer", "words", "'()", "[else (cons (string-downcase (first words)) (softer (rest words)))]"),
            ('(louder (list "oar"))', '(softer (list "OAR"))'),
            "(change-words words action)",
        ),
        (
            each(
                "evens",
                "sizes",
                "'()",
                "[(even? (first sizes)) (cons (first sizes) (evens (rest sizes)))]",
                "[else (evens (rest sizes))]",
            )
            + each(
                "odds",
                "sizes",
                "'()",
                "[(odd? (first sizes)) (cons (first sizes) (odds (rest sizes)))]",
                "[else (odds (rest sizes))]",
            ),
            ("(evens (list 1 2 3))", "(odds (list 1 2 3))"),
            "(keep-sizes sizes wanted)",
        ),
    ],
)
def test_what_is_done_with_each_part_is_given(functions: str, calls: tuple[str, str], head: str) -> None:
    text = "#lang racket\n" + functions + "\n".join(calls) + "\n"
    after = worked(text, "racket")
    assert f"(define {head}" in after
    assert after.count("(define ") == 1
    # A name that nobody knows may stand for something else where it is given than where it was called.
    unknown = text.replace("sqr", "mill").replace("string-upcase", "mill").replace("even?", "mill")
    assert worked(unknown, "racket").count("(define ") == 2


SHOWS = """(define (show-crabs)
  (display "crabs")
  (display (apply + (list 3 4 5)))
  (newline)
  (display (length (list 3 4 5))))
(define (show-gulls)
  (display "gulls")
  (display (apply + (list 7 1 "2")))
  (newline)
  (display (length (list 7 1 "2"))))
{0}(show-crabs)
(show-gulls)
"""


@pytest.mark.parametrize("language", ["racket", "scheme"])
@pytest.mark.parametrize(
    ("between", "functions"),
    [
        ("", 1),
        ("(define (spoil l) (set-car! l 3))\n", 3),
        ("(define (same a b) (eq? a b))\n", 3),
        ("(define (list . parts) parts)\n", 3),
    ],
)
def test_a_list_is_given_as_one_where_nobody_can_tell_it_from_another(
    language: str, between: str, functions: int
) -> None:
    after = worked(SHOWS.format(between), language)
    assert after.count("(define ") == functions
    if functions == 1:
        assert '(show-one "gulls" (list 7 1 "2"))\n' in after


@pytest.mark.parametrize(("between", "functions"), [("", 1), ("(define (spoil l) (set-car! l 3))\n", 1)])
def test_copies_are_given_lists(between: str, functions: int) -> None:
    copies = "".join(
        f'(display "{name}")\n(display (apply + (list {numbers})))\n(newline)\n(display (length (list {numbers})))\n'
        '(display " in all, counted by hand")\n(newline)\n'
        for name, numbers in (("crabs", "3 4 5"), ("gulls", "7 1 2"))
    )
    after = worked(between + copies, "scheme")
    assert after.count("counted by hand") == (2 if between else 1)
    assert after.count("(define ") == functions


PRICES = """#lang racket
(define (price-of-tea cups)
  (if (> cups 10)
      (* 0.9 (* cups 1.8))
      (* cups 1.8)))
(define (price-of-soup cups)
  (if (> cups 5)
      (* 0.8 (* cups 3.2))
      (* cups 3.2)))
(price-of-tea 12)
(price-of-soup 3)
"""


def test_operators_count_as_what_is_called_and_tell_what_a_number_is() -> None:
    after = worked(PRICES, "racket")
    assert "(define (price cups limit factor other-factor)\n  (if (> cups limit)\n" in after
    assert "(price 12 10 0.9 1.8)\n(price 3 5 0.8 3.2)\n" in after


def test_examples_of_a_function_are_no_repetition() -> None:
    checks = "".join(f"(check-expect (double {n}) {2 * n})\n" for n in range(1, 7))
    assert rules(f"#lang racket\n; Twice a number.\n(define (double n)\n  (* 2 n))\n{checks}", language="racket") == []


# -- what the proof refuses --------------------------------------------------------------------------


def test_values_that_are_shown_or_used_are_not_lost() -> None:
    before = "#lang racket\n(+ 1 1)\n(+ 2 1)\n(+ 3 1)\n"
    after = "#lang racket\n(for ([i (in-range 1 4)])\n  (+ i 1))\n"
    assert "shown" in proved(before, after, NewLoop("main.rkt", 2))
    inside = "(define (f)\n  (display 1)\n  (display 2)\n  {0})\n"
    looped = "(define (f)\n  (for ([i (in-range 1 4)])\n    {0}))\n"
    assert proved(inside.format("(display 3)"), looped.format("(display i)"), NewLoop("main.rkt", 2)) == ""
    adding = inside.replace("display", "add1").format("(add1 3)")
    assert "value" in proved(adding, looped.format("(add1 i)"), NewLoop("main.rkt", 2))


def test_a_function_at_the_top_shows_what_was_shown() -> None:
    def function(first: str) -> str:
        copy = f'{first}\n(display "b")\n(newline)\n'
        body = f'(define (show)\n  {first}\n  (display "b")\n  (newline))\n'
        return proved(copy + copy, body + "(show)\n(show)\n", NewFunction("main.rkt", "show"))

    assert function('(display "a")') == ""
    assert "shown" in function("(* 2 3)")


PRINTS = '(display "gate 1")\n(display "gate 2")\n(display "gate 3")\n'


def test_loops_that_mean_something_else_are_refused() -> None:
    def loop(head: str, body: str = '(display (format "gate ~a" i))', own: str = "") -> str:
        return proved(own + PRINTS, f"{own}({head}\n  {body})\n", NewLoop("main.rkt", 1 + own.count("\n")))

    assert loop("for ([i (in-range 1 4)])") == ""
    assert loop("for ([i (list 1 2 3)])") == ""
    assert loop("for ([i (in-range 1 3)])") != ""
    assert loop("for ([i (in-range 4)])") != ""
    assert loop("for ([i (list 1 2 4)])") != ""
    assert loop("for ([i (in-range 1 4)])", '(display (format "gate ~b" i))') != ""
    assert "own" in loop("for ([i (in-range 1 4)])", own="(define (in-range a b) (list a b))\n")
    assert loop("for ([i (in-range 1 4)])", own="(define (format a b) a)\n") != ""
    assert "own" in loop("for ([i (list 1 2 3)])", own="(define (list a b c) 3)\n")


def test_a_part_of_a_form_that_binds_is_no_value() -> None:
    copy = "(match tide\n  [{0} (display 'low)]\n  [x (display x)])\n(newline)\n"
    before = "(define tide 3)\n(define (f)\n" + copy.format(1) + copy.format(2) + ")\n"
    body = "(define (show n)\n  (match tide\n    [n (display 'low)]\n    [x (display x)])\n  (newline))\n"
    after = "(define tide 3)\n" + body + "(define (f)\n  (show 1)\n  (show 2))\n"
    assert "form" in proved(before, after, NewFunction("main.rkt", "show"))


def test_an_operation_must_be_the_one_that_was_called() -> None:
    def merged(first: str, second: str) -> str:
        head, calls = OPERATIONS.split("(displayln", 1)
        one = (
            head[: head.index("(define (edge")]
            .replace("area-of-room w h", "room w h operation")
            .replace("(* w h)", "(operation w h)")
        )
        after = (
            one
            + "(displayln"
            + calls.replace("area-of-room 3 4", f"room 3 4 {first}").replace("edge-of-room 3 4", f"room 3 4 {second}")
        )
        return proved(OPERATIONS, after, MergedFunctions("main.rkt", "room", ("area-of-room", "edge-of-room")))

    assert merged("*", "+") == ""
    assert merged("+", "*") != ""
    assert merged("*", "-") != ""


@pytest.mark.parametrize("language", ["racket", "scheme"])
def test_rewritten_programs_print_the_same(language: str, tmp_path: Path) -> None:
    """Proved for all; run as well where the machine has the language."""
    originals: list[str] = []
    pairs: list[tuple[int, str]] = []
    for seed in range(40):
        text = wild_lisp(seed, language)
        file = read(text, language)
        assert not file.problems
        after = [p.after.source.text for p in proved_suggestions(file, Limits())]
        chain = work_through(Program([file]), Limits(), frozenset(), Deadline(60))
        after += [chain.program.files[0].source.text] if chain.steps else []
        assert not any(read(new, language).problems for new in after)
        pairs += [(len(originals), new) for new in after]
        originals += [text] if after else []
    assert len(pairs) > 40
    if can_run(language):
        found = outputs(language, [*originals, *(text for _, text in pairs)], tmp_path)
        for (k, text), now in zip(pairs, found[len(originals) :], strict=True):
            assert now == found[k], f"{originals[k]}\n----- became\n{text}"


def test_suggestions_come_with_patches() -> None:
    found = report(RUN, language="racket")
    assert [f.rule for f in found.findings] == ["repeated-run"]
    assert [s.status for s in found.suggestions] == ["proved"]


def test_recursions_that_differ_in_one_expression_are_twins() -> None:
    text = """#lang racket
(define (squares lst)
  (cond
    [(empty? lst) 0]
    [else (+ (* (first lst) (first lst)) (squares (rest lst)))]))

(define (doubles lst)
  (cond
    [(empty? lst) 0]
    [else (+ (* 2 (first lst)) (doubles (rest lst)))]))

(define (known? wanted lst)
  (cond
    [(empty? lst) #f]
    [(equal? wanted (first lst)) #t]
    [else (known? wanted (rest lst))]))

(define (told lst)
  (displayln "so many:")
  (displayln (squares lst))
  (displayln (doubles lst)))

(told '(1 2 3))
"""
    found = [(f.rule, [(p.start_line, p.end_line) for p in f.places]) for f in report(text, language="racket").findings]
    assert found == [("twin-functions", [(2, 5), (7, 10)])]


FLEET = """#lang racket
{before}(define (total-length boats)
  (cond
    [(empty? boats) 0]
    [else (+ (boat-length (first boats)) (total-length (rest boats)))]))

(define (total-masts boats)
  (cond
    [(empty? boats) 0]
    [else (+ (boat-masts (first boats)) (total-masts (rest boats)))]))

{after}(define fleet (list (boat 4 1) (boat 9 2)))
(displayln (total-length fleet))
(displayln (total-masts fleet))
"""
RECORD = "(struct boat (length [masts #:mutable]) #:transparent)\n"


@pytest.mark.parametrize(("before", "after"), [(RECORD, ""), ("", RECORD)])
def test_what_a_record_gives_besides_can_be_handed_on(before: str, after: str, tmp_path: Path) -> None:
    text = FLEET.format(before=before, after=after)
    rewritten = worked(text, "racket")
    assert rewritten.count("(cond") == 1
    assert "boat-length)" in rewritten
    if can_run("racket"):
        said = outputs("racket", [text, rewritten], tmp_path)
        assert said[0].split() == said[1].split() == ["13", "3"]


@pytest.mark.parametrize("after", ["(displayln (total-length '()))\n" + RECORD, "(define boat-length car)\n" + RECORD])
def test_not_before_the_record_is_there(after: str) -> None:
    assert worked(FLEET.format(before="", after=after), "racket").count("(cond") == 2


KEPT = """#lang racket

(define (long-names names)
  (cond
    [(empty? names) '()]
    [(> (string-length (first names)) 6)
     (cons (first names) (long-names (rest names)))]
    [else (long-names (rest names))]))

(define (heavy-loads loads)
  (cond
    [(empty? loads) '()]
    [(> (first loads) 250)
     (cons (first loads) (heavy-loads (rest loads)))]
    [else (heavy-loads (rest loads))]))

(long-names (list "Ebb" "Saltmarsh" "Kingfisher"))
(heavy-loads (list 120 300 275))
"""


def test_functions_that_ask_something_else_of_each_part_are_twins_that_want_a_lambda() -> None:
    (found,) = report(KEPT, language="racket").findings
    (suggestion,) = report(KEPT, language="racket").suggestions
    assert found.message == "long-names and heavy-loads are alike but for one line."
    assert "lambda" in suggestion.outline
    more = KEPT.replace("[else (heavy-loads (rest loads))]", "[else (cons 0 (heavy-loads (rest loads)))]")
    assert rules(more, language="racket") == []


@pytest.mark.parametrize(("branch", "told"), [("[(record) (list 1)]", []), ("[(1) (record)]", ["undefined-call"])])
def test_the_data_of_a_case_are_called_by_nobody(branch: str, told: list[str]) -> None:
    text = f"""#lang racket
(define (records) (list 1 2))
(define (asked what)
  (case what
    {branch}
    [else (records)]))

(asked 'record)
"""
    assert rules(text, language="racket") == told
