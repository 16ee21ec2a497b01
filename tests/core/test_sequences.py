"""The array algorithms against slow, obvious ones, on random sequences."""

import itertools
from collections import Counter

from builders import file
from hypothesis import given, settings
from hypothesis import strategies as st

from partitor.repeats.order import _stretches, _Sums
from partitor.repeats.periods import Repetition, explains, maximal_repetitions
from partitor.repeats.suffixes import LONGEST, lcp_array, maximal_repeats, suffix_array

SYMBOLS = st.lists(st.integers(0, 3), max_size=40)


SHORT_OR_LONG = st.builds(
    lambda part, times: part * times, st.lists(st.integers(-3, 3), min_size=1, max_size=40), st.sampled_from([1, 1, 9])
)
"""Long ones are sorted in another way."""


@settings(max_examples=150, deadline=None)
@given(SHORT_OR_LONG)
def test_the_suffix_array_is_the_order_of_the_suffixes(text):
    order, rank = suffix_array(text)
    assert order == sorted(range(len(text)), key=lambda i: text[i:])
    assert [rank[i] for i in order] == list(range(len(text)))


@settings(max_examples=150, deadline=None)
@given(SHORT_OR_LONG)
def test_the_lcp_array_is_what_neighbours_share(text):
    order, rank = suffix_array(text)
    lcp = lcp_array(text, order, rank)
    for k in range(1, len(text)):
        a, b = text[order[k - 1] :], text[order[k] :]
        shared = next((n for n, (x, y) in enumerate(zip(a, b, strict=False)) if x != y), min(len(a), len(b)))
        assert lcp[k] == shared


def all_repeats(sequences: list[list[int]], shortest: int) -> set[tuple[int, tuple[int, ...]]]:
    """Every maximal repeat by trying every substring."""
    joined: list[object] = []
    for number, sequence in enumerate(sequences):
        joined += [*sequence, ("end", number)]
    places: dict[tuple[object, ...], list[int]] = {}
    for start, stop in itertools.combinations(range(len(joined) + 1), 2):
        piece = tuple(joined[start:stop])
        if not any(isinstance(x, tuple) for x in piece):
            places.setdefault(piece, []).append(start)
    found = set()
    for piece, starts in places.items():
        if len(starts) < 2 or len(piece) < shortest:
            continue
        before = {joined[s - 1] if s else None for s in starts}
        after = {joined[s + len(piece)] for s in starts}
        if (len(before) > 1 or 0 in starts or isinstance(next(iter(before)), tuple)) and len(after) > 1:
            found.add((len(piece), tuple(starts)))
    return found


@settings(max_examples=120, deadline=None)
@given(st.lists(st.lists(st.integers(0, 2), max_size=12), min_size=1, max_size=4), st.integers(1, 3))
def test_maximal_repeats_are_all_and_only_the_maximal_ones(sequences, shortest):
    assert {(r.length, r.starts) for r in maximal_repeats(sequences, shortest)} == all_repeats(sequences, shortest)


def test_a_monotonous_sequence_gives_no_more_than_so_many_repeats():
    found = list(maximal_repeats([[7] * 3000], 1))
    assert len(found) == LONGEST
    assert max(r.length for r in found) == LONGEST


@settings(max_examples=200, deadline=None)
@given(SYMBOLS, st.integers(2, 4), st.sampled_from([1, 1, 11]))
def test_repetitions_are_maximal_stretches_of_their_period(symbols, copies, times):
    symbols = symbols * times
    for found in maximal_repetitions(symbols, copies):
        start, stop, p = found.start, found.stop, found.period
        assert stop - start >= copies * p
        assert all(symbols[i] == symbols[i + p] for i in range(start, stop - p))
        assert start == 0 or symbols[start - 1] != symbols[start - 1 + p]
        assert stop == len(symbols) or symbols[stop] != symbols[stop - p]


@settings(max_examples=200, deadline=None)
@given(st.lists(st.integers(10, 13), min_size=1, max_size=4, unique=True), st.integers(3, 6), SYMBOLS, SYMBOLS)
def test_a_repetition_with_distinct_symbols_is_found_wherever_it_stands(unit, copies, before, after):
    symbols = before + unit * copies + after
    found = maximal_repetitions(symbols, 3)
    inside = [r for r in found if r.period == len(unit) and r.start <= len(before)]
    assert any(r.stop >= len(before) + len(unit) * copies for r in inside)


def test_a_multiple_of_a_period_says_nothing_new():
    assert explains(Repetition(0, 12, 2), Repetition(2, 10, 4))
    assert not explains(Repetition(0, 12, 2), Repetition(0, 12, 3))
    assert not explains(Repetition(2, 12, 2), Repetition(0, 12, 4))


def windows(symbols, length):
    """The windows of as many assignments."""
    program = file("".join(f"a{k} = {k}\n" for k in range(len(symbols))))
    return list(_Sums(program, program.blocks[0].statements, symbols).windows(length))


@settings(max_examples=100, deadline=None)
@given(
    st.lists(st.integers(0, 9), min_size=3, max_size=10).flatmap(lambda s: st.tuples(st.just(s), st.permutations(s)))
)
def test_windows_of_the_same_symbols_hash_alike_in_any_order(pair):
    one, other = pair
    assert [h for _, h in windows(one, len(one))] == [h for _, h in windows(list(other), len(one))]


def test_windows_lie_where_each_statement_has_its_like():
    symbols = [1, 2, 3, -5, 3, 9, 1, 2, 3, 2]
    known = Counter(x for x in symbols if x >= 0)
    assert list(_stretches(symbols, known)) == [(0, 3), (6, 10)]
