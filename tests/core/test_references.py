"""What a function changes of its callers: references in C++, and what is needed where a procedure ends."""

from __future__ import annotations

import pytest

from core.builders import read, worked
from core.runners import can_run, outputs, require_same_output
from core.sweeps import Group, proved_in, require_same
from core.wild_braces import wild_again, wild_braces
from partitor.suggestions.edits import rewritten
from partitor.suggestions.proof import NewFunction, prove

SORTING = """
#include <iostream>
using namespace std;

int main() {
    int a = 5, b = 2, c = 1;
    int t;
    if (a > b) {
        t = a;
        a = b;
        b = t;
        cout << "swapped" << endl;
    }
    if (b > c) {
        t = b;
        b = c;
        c = t;
        cout << "swapped" << endl;
    }
    if (a > b) {
        t = a;
        a = b;
        b = t;
        cout << "swapped" << endl;
    }
    cout << a << b << c << endl;
    return 0;
}
"""


def test_a_function_in_cpp_changes_several_variables_of_its_caller(tmp_path) -> None:
    after = worked(SORTING, "cpp")
    assert "(int &value, int &result) {" in after
    assert after.count("printSwapped(a, b);") == 2
    require_same_output("cpp", SORTING, after, tmp_path)


@pytest.mark.parametrize(
    ("was", "now"),
    [
        ("int &value", "int value"),
        ("int &result", "const int &result"),
        ("int &result", "long &result"),
        ("printSwapped(b, c)", "printSwapped(c, b)"),
        ("printSwapped(b, c)", "printSwapped(b, b)"),
        ("        result = t;\n", ""),
    ],
)
def test_another_function_in_its_place_is_refused(was: str, now: str) -> None:
    before, after = read(SORTING, "cpp"), worked(SORTING, "cpp")
    claim = NewFunction("main.cpp", "printSwapped", ("t",))
    assert prove(before, rewritten(before, after), claim).proved
    assert was in after
    assert not prove(before, rewritten(before, after.replace(was, now)), claim).proved


CALLERS = {
    "cpp": (
        'void feed(int &shells, int crabs) {{\n    printf("start\\n");\n{0}    printf("middle\\n");\n{0}}}\nint main() {{\n    int s = 3;\n    feed(s, 2);\n    printf("%d\\n", s);\n}}\n',
        '    printf("one\\n");\n    printf("%d\\n", crabs);\n    printf("three %d\\n", crabs + 1);\n    shells = crabs * 3;\n',
    ),
    "csharp": (
        'class P\n{{\n    static void Feed(ref int shells, int crabs)\n    {{\n        Console.WriteLine("start");\n{0}        Console.WriteLine("middle");\n{0}    }}\n    static void Main()\n    {{\n        int s = 3;\n        Feed(ref s, 2);\n        Console.WriteLine(s);\n    }}\n}}\n',
        '        Console.WriteLine("one");\n        Console.WriteLine(crabs);\n        Console.WriteLine("three " + (crabs + 1));\n        shells = crabs * 3;\n',
    ),
    "swift": (
        'func feed(_ shells: inout Int, _ crabs: Int) {{\n    print("start")\n{0}    print("middle")\n{0}}}\nvar s = 3\nfeed(&s, 2)\nprint(s)\n',
        '    print("one")\n    print(crabs)\n    print("three \\(crabs + 1)")\n    shells = crabs * 3\n',
    ),
    "visualbasic": (
        'Sub Feed(shells As Integer, crabs As Integer)\n    Debug.Print "start"\n{0}    Debug.Print "middle"\n{0}End Sub\n\nSub Main()\n    Dim s As Integer\n    s = 3\n    Feed s, 2\n    Debug.Print s\nEnd Sub\n',
        '    Debug.Print "one"\n    Debug.Print crabs\n    Debug.Print "three"; crabs + 1\n    shells = crabs * 3\n',
    ),
}


@pytest.mark.parametrize("language", sorted(CALLERS))
def test_what_a_caller_gets_back_is_not_lost(language: str) -> None:
    form, copy = CALLERS[language]
    text = form.format(copy)
    proved, texts = proved_in(text, language)
    assert proved
    for after in texts:
        # It is given by reference, or given back to the caller's variable.
        given = "&shells)" in after and "shells);" in after
        assert given or after.lower().count("shells = findshells(crabs)") == 2, after


@pytest.mark.parametrize("language", [x for x in ("cpp",) if can_run(x)])
def test_wild_programs_with_references_print_the_same(language: str, tmp_path) -> None:
    groups: list[Group] = []
    for seed in range(7000, 7025):
        for text in (wild_braces(seed, language), wild_again(seed, language)):
            _, texts = proved_in(text, language)
            new = [after for after in texts if after.count("&") > text.count("&")]
            groups += [(text, new)] if new else []
    assert len(groups) > 3
    require_same(groups, lambda texts: outputs(language, texts, tmp_path), "DOES NOT COMPILE")


KEPT = """
#include <stdio.h>
void feed(int crabs) {
    static int shells = 0;
    printf("start %d\\n", shells);
    printf("one\\n");
    printf("%d\\n", crabs);
    printf("three %d\\n", crabs + 1);
    shells = crabs * 3;
    printf("middle\\n");
    printf("one\\n");
    printf("%d\\n", crabs);
    printf("three %d\\n", crabs + 1);
    shells = crabs * 3;
}
int main(void) {
    feed(2);
    feed(5);
    return 0;
}
"""


@pytest.mark.parametrize("language", ["c", "cpp"])
def test_what_is_kept_from_call_to_call_is_not_lost(language: str, tmp_path) -> None:
    _, texts = proved_in(KEPT, language)
    assert texts
    for after in texts:
        assert after.count("shells = findShells(crabs);") == 2
        require_same_output(language, KEPT, after, tmp_path)


def test_so_it_is_in_visual_basic() -> None:
    copy = '    Debug.Print "one"\n    Debug.Print crabs\n    Debug.Print "three"; crabs + 1\n    shells = crabs * 3\n'
    head = 'Sub Feed(ByVal crabs As Integer)\n    Static shells As Integer\n    Debug.Print "start"; shells\n'
    _, texts = proved_in(f'{head}{copy}    Debug.Print "middle"\n{copy}End Sub\n', "visualbasic")
    assert texts
    assert all(after.count("shells = FindShells(crabs)") == 2 for after in texts)
