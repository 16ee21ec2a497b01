"""Texts that are sent to a stream piece by piece: numbers inside them, and variables that a stream fills."""

from __future__ import annotations

from pathlib import Path

import pytest

from core.builders import read, report, rules, worked
from core.runners import can_run, outputs
from partitor.suggestions.edits import rewritten
from partitor.suggestions.proof import NewLoop, prove

HEAD = "#include <iostream>\nusing namespace std;\n"
GATES = "".join(f'    cout << "gate {n} opens at " << {n + 6} << endl;\n    total += {n};\n' for n in range(1, 6))
PROGRAM = HEAD + f"int main() {{\n    int total = 0;\n{GATES}    cout << total << endl;\n}}\n"


def test_a_number_in_a_text_is_sent_by_itself() -> None:
    after = worked(PROGRAM, "cpp")
    assert 'cout << "gate " << gate << " opens at " << (gate + 6) << endl;' in after
    with_names = PROGRAM.replace("using namespace std;\n", "").replace("cout", "std::cout").replace("endl", "std::endl")
    assert 'std::cout << "gate " << gate << " opens' in worked(with_names, "cpp")


@pytest.mark.parametrize(
    ("old", "new"),
    [
        ('cout << "gate', 'cout << setw(20) << "gate'),
        ("int total = 0;", "int total = 0;\n    cout << hex;"),
        ("int total = 0;", "int total = 0;\n    cout.width(9);"),
        ("int main", "struct Log { template <class T> Log &operator<<(T) { return *this; } } cout;\nint main"),
    ],
    ids=["wide", "other digits", "a set width", "a stream of its own"],
)
def test_a_stream_that_shows_numbers_otherwise_keeps_its_texts(old: str, new: str) -> None:
    assert '"gate " << gate' not in worked(PROGRAM.replace(old, new), "cpp")


def test_a_wrong_piece_is_refused() -> None:
    before, after = read(PROGRAM, "cpp"), worked(PROGRAM, "cpp")
    claim = NewLoop(before.path, 5)
    assert prove(before, rewritten(before, after), claim).proved
    for old, new in (('"gate "', '"gate"'), ("<< gate <<", "<< (gate + 1) <<"), ('"gate " << gate', 'gate << "gate "')):
        faulty = after.replace(old, new)
        assert faulty != after
        assert not prove(before, rewritten(before, faulty), claim).proved


STUDENTS = HEAD + (
    "int main() {\n    string name1, name2, name3;\n    double mark1, mark2, mark3;\n"
    + "".join(
        f'    cout << "Name of student {n}: ";\n    cin >> name{n};\n    cout << "Mark of student {n}: ";\n'
        f"    cin >> mark{n};\n"
        for n in (1, 2, 3)
    )
    + '    cout << (mark1 + mark2 + mark3) / 3 << name1 << name3 << "\\n";\n}\n'
)


def test_variables_that_a_stream_fills_become_arrays(tmp_path: Path) -> None:
    text = STUDENTS.replace("#include <iostream>", "#include <iostream>\n#include <string>")
    after = worked(text, "cpp")
    assert "cin >> names[student - 1];" in after
    assert "(marks[0] + marks[1] + marks[2]) / 3" in after
    if can_run("cpp"):
        before, now = outputs("cpp", [text, after], tmp_path)
        assert before == now


def test_what_the_library_has_is_no_slip() -> None:
    text = HEAD + "int main() {\n    cout << setprecision(3) << stof(x) << endl;\n    cout << pirnt(3) << endl;\n}\n"
    assert rules(text, language="cpp").count("undefined-call") <= 1
    assert "setprecision" not in str(report(text, language="cpp").findings)


@pytest.mark.parametrize("language", [x for x in ("javascript", "gamescript") if can_run(x)])
def test_a_variable_declared_twice_keeps_its_value(language: str, tmp_path: Path) -> None:
    log = "console.log" if language == "javascript" else "show_debug_message"
    block = f'    {log}("gate", g2);\n    g2 = g2 + 1;\n    if (g2 > 3) {{ var g2 = 5; {log}("inner", g2); }}\n    {log}("so", g2);\n'
    text = (
        f"function main() {{\n    var g2 = 1;\n{block}    {log}('--');\n{block}    {log}('--');\n{block}}}\nmain();\n"
    )
    after = worked(text, language)
    before, now = outputs(language, [text, after], tmp_path)
    assert before == now
