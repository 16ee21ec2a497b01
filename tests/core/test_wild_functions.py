"""What is proved for wild pairs of functions and wild numbered variables prints the same before and after."""

from __future__ import annotations

import pytest

from core.builders import file, run
from core.wild_functions import near_pair, numbered_runs
from partitor.deadline import Deadline
from partitor.program.program import Program
from partitor.repeats.find import find_repeats
from partitor.repeats.limits import Limits
from partitor.suggestions.attempts import Proved, attempt
from partitor.suggestions.merges import merge_candidate
from partitor.suggestions.near_merges import near_merge_candidate
from partitor.suggestions.worked import proved_suggestions, work_through


def same(before: str, after: str) -> bool:
    """Equal outputs; two programs that both fail may say it otherwise, but not after other lines."""
    was, now = run(before), run(after)
    return was == now or (bool(was[0]) and bool(now[0]) and was[1] == now[1])


@pytest.mark.parametrize("start", range(0, 120, 20))
def test_merged_functions_print_the_same(start: int) -> None:
    merged = 0
    for seed in range(start, start + 20):
        text = near_pair(seed)
        program = file(text)
        found = find_repeats(Program([program]), Limits(), frozenset(), near=True)
        results = [attempt(lambda t=t: merge_candidate(t)) for t in found.twins]  # type: ignore[misc]
        results += [attempt(lambda n=n: near_merge_candidate(n)) for n in found.near_twins]  # type: ignore[misc]
        proved = [r.after.source.text for r in results if isinstance(r, Proved)]
        merged += len(proved)
        chain = work_through(Program([program]), Limits(), frozenset(), Deadline(60), found)
        for after in [*proved, *([chain.program.files[0].source.text] if chain.steps else [])]:
            assert same(text, after), f"{text}\n----- became\n{after}"
    assert merged > 2


@pytest.mark.parametrize("start", range(0, 80, 20))
def test_variables_kept_in_lists_print_the_same(start: int) -> None:
    listed = 0
    for seed in range(start, start + 20):
        text = numbered_runs(seed)
        program = file(text)
        proved = proved_suggestions(program, Limits())
        listed += sum(p.candidate.is_listing for p in proved)
        chain = work_through(Program([program]), Limits(), frozenset(), Deadline(60))
        after = [p.after.source.text for p in proved] + ([chain.program.files[0].source.text] if chain.steps else [])
        for new in after:
            assert same(text, new), f"{text}\n----- became\n{new}"
    assert listed > 0
