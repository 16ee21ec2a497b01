"""What is proved for wild programs in other languages prints the same when it is compiled and run."""

import pytest
from builders import read
from runners import can_run, outputs
from wild_braces import wild_braces

from partitor.program.program import Program
from partitor.repeats.find import Limits
from partitor.suggestions.worked import Deadline, proved_suggestions, work_through

PROGRAMS = {"javascript": 120, "c": 60, "cpp": 60, "java": 60}


@pytest.mark.parametrize("language", [x for x in PROGRAMS if can_run(x)])
def test_rewritten_programs_print_the_same(language, tmp_path):
    originals: list[str] = []
    pairs: list[tuple[int, str]] = []
    for seed in range(PROGRAMS[language]):
        text = wild_braces(seed, language)
        file = read(text, language)
        assert not file.problems
        rewritings = [p.after.source.text for p in proved_suggestions(file, Limits())]
        worked = work_through(Program([file]), Limits(), frozenset(), Deadline(60))
        rewritings += [worked.program.files[0].source.text] if worked.steps else []
        if rewritings:
            pairs += [(len(originals), rewriting) for rewriting in rewritings]
            originals.append(text)
    assert len(pairs) > PROGRAMS[language] // 2
    found = outputs(language, [*originals, *(text for _, text in pairs)], tmp_path)
    told = 0
    for (k, text), after in zip(pairs, found[len(originals) :], strict=True):
        if found[k].startswith("DOES NOT COMPILE"):
            continue
        told += 1
        assert after == found[k], f"{originals[k]}\n----- became\n{text}"
    assert told > PROGRAMS[language] // 3
