"""What is proved for wild programs in other languages prints the same when it is compiled and run."""

from random import Random

import pytest
from builders import DEMO, read
from faults import with_faults
from runners import can_run, outputs
from wild_braces import wild_braces

from partitor.deadline import Deadline
from partitor.program.program import Program
from partitor.repeats.limits import Limits
from partitor.suggestions.edits import rewritten
from partitor.suggestions.proof import prove
from partitor.suggestions.worked import proved_suggestions, work_through

PROGRAMS = {"javascript": 120, "c": 50, "cpp": 50, "java": 60, "typescript": 60, "gamescript": 60, "arduino": 50}
PROGRAMS["csharp"] = 40
PANELS = DEMO.parent / "pump-panel"


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


@pytest.mark.parametrize("language", [x for x in ("javascript", "c") if can_run(x)])
def test_a_seeded_fault_is_refused_or_changes_nothing(language, tmp_path):
    random = Random(7)
    accepted: list[tuple[str, str, str]] = []
    seeded = 0
    for seed in range(3000, 3000 + PROGRAMS[language]):
        text = wild_braces(seed, language)
        file = read(text, language)
        for proved in proved_suggestions(file, Limits()):
            for _ in range(3):
                for kind, faulty in with_faults(text, proved.after.source.text, random):
                    seeded += 1
                    if prove(file, rewritten(file, faulty), proved.candidate.claim).proved:
                        accepted.append((kind, text, faulty))
    assert seeded > 2 * PROGRAMS[language]
    found = outputs(language, [x for _, text, faulty in accepted for x in (text, faulty)], tmp_path)
    for (kind, text, faulty), was, now in zip(accepted, found[::2], found[1::2], strict=True):
        assert was.startswith("DOES NOT COMPILE") or was == now, f"{kind}\n{text}\n----- became\n{faulty}"
    assert len(accepted) <= seeded // 15


@pytest.mark.parametrize("path", sorted(PANELS.rglob("*.ino")) if can_run("arduino") else [], ids=lambda p: p.stem)
def test_the_sketches_of_the_demo_do_the_same_to_the_board(path, tmp_path):
    text = path.read_text()
    file = read(text, "arduino")
    worked = work_through(Program([file]), Limits(), frozenset(), Deadline(60)).program.files[0].source.text
    after = [p.after.source.text for p in proved_suggestions(file, Limits())]
    found = outputs("arduino", [text, *after, worked], tmp_path)
    assert found == [found[0]] * len(found)
    assert "readLevl" in text or not found[0].startswith("DOES NOT COMPILE"), found[0]
