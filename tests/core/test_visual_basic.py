"""Visual Basic macros: reading line by line, what is found and written, and what the proof refuses."""

from __future__ import annotations

from collections.abc import Callable

import pytest

from core.builders import prove, read, report, rules, worked
from core.macros import can_run_macros, outputs_of_macros
from core.sweeps import proved_in, require_same
from core.wild_macros import wild_macro_pair, wild_macros
from partitor.suggestions.edits import rewritten
from partitor.suggestions.proof import Claim, NewFunction, NewLoop

TICKETS = """
Attribute VB_Name = "Tickets"
Option Explicit
Private total As Double, fees(3) As Integer

' Sells what is asked for.
Public Sub Sell()
    Dim i As Integer
    Rem the tally
    For i = 1 To 3 Step 1
        Debug.Print "Boat "; i
        If total > 3 And Not i = 2 Then Exit For
    Next i
    If total > 3 Then
        MsgBox ("many"), vbOKOnly
    ElseIf total < 0 Then fees(1) = 2: total = 0
    Else
        Beep
    End If
    Select Case i
        Case 1, 2 To 5: Show "adult", 3
        Case Is > 7
            Call Show("child", Fee(2))
        Case Else
            Show Text:="dog", Price:=1
    End Select
    With Range("A1")
        .Value = "a" & _
            "b" ' goes on
    End With
    Do
        total = total - 1
    Loop Until total < 0
End Sub

Function Fee(ByVal people As Integer, Optional extra As Integer = 2) As Integer
    Fee = people * extra
    If people > 3 Then Fee = Fee + 1 Else Fee = 4
End Function

Private Sub Show(text As String, price As Integer): Debug.Print TEXT, price: End Sub
"""


def proved(before: str, after: str, claim: Claim) -> str:
    """The reason of a refusal; "" where the rewriting is proved."""
    return prove(read(before, "visualbasic"), read(after, "visualbasic"), claim).reason


def test_a_macro_becomes_the_common_tree() -> None:
    text = TICKETS.replace("ElseIf total < 0 Then fees(1) = 2: total = 0", "ElseIf total < 0 Then")
    file = read(text, "visualbasic")
    tree = file.tree
    assert not tree.problems
    assert [(p.name, p.parameters) for p in file.procedures[1:]] == [
        ("Sell", ()),
        ("Fee", ("people", "extra")),
        ("Show", ("text", "price")),
    ]
    assert {"for_statement", "counting_range", "elif_clause", "choice_statement", "with_block", "do_statement"} <= set(
        tree.kind
    )
    assert [c.words for c in tree.comments] == ["Sells what is asked for.", "Rem the tally", "goes on"]
    calls = {file.called_name(n) for n, kind in enumerate(tree.kind) if kind == "call"}
    assert {"Print", "MsgBox", "Beep", "Show", "Fee", "Range"} <= calls
    assert "TEXT" not in tree.text, "a name is told as it is first written"


def test_a_functions_own_name_is_its_result() -> None:
    file = read(TICKETS, "visualbasic")
    assert file.tree.kind.count("result_statement") == 3
    assert file.tree.kind.count("result_name") == 4


@pytest.mark.parametrize(
    ("line", "told"),
    [
        ("    total = = 3", "cannot be read"),
        ("    Next", "closes nothing"),
        ("    If total > 3 Then", "never closed"),
        ("    Else", "belongs to no If"),
        ("    Case 3", "belongs to no Select Case"),
    ],
)
def test_a_line_that_does_not_fit_is_told_and_read_around(line: str, told: str) -> None:
    text = f"Sub One()\n    Beep\n{line}\n    Beep\nEnd Sub\n\nSub Two()\n    Beep\nEnd Sub\n"
    file = read(text, "visualbasic")
    assert [p.name for p in file.procedures[1:]] == ["One", "Two"]
    assert [(p.line, told in p.message) for p in file.problems] == [(3, True)]


def test_the_head_of_a_form_is_no_code() -> None:
    text = """
    VERSION 5.00
    Begin {C62A69F0-16DC-11CE-9E98-00AA00574A4F} Gates
       Caption = "Gates"
       Begin Frame One
       End
    End
    Attribute VB_Name = "Gates"
    Private Sub cmdOpen_Click()
        MsgBox "open"
    End Sub
    """
    file = read(text, "visualbasic")
    assert not file.problems
    assert [p.name for p in file.procedures[1:]] == ["cmdOpen_Click"]
    assert rules(text, language="visualbasic") == [], "an event's handler is called by its form"


def sub(*lines: str, head: str = "") -> str:
    """A macro with these lines."""
    return head + "Sub Go()\n" + "".join(f"    {line}\n" for line in lines) + "End Sub\n"


def test_rows_of_a_sheet_become_a_loop() -> None:
    lines = [f'Range("{c}{n}").Value = {v}' for n in (2, 3, 4) for c, v in (("A", n * 10), ("B", f'"gate {n}"'))]
    text = worked(sub(*lines), "visualbasic")
    assert "    For " in text
    assert 'Range("A" & ' in text
    assert '.Value = "gate " & ' in text
    asked = worked(sub(*lines, head="Option Explicit\n"), "visualbasic")
    assert " As Integer\n    For " in asked


def test_words_become_a_list_with_the_counter_beside_it() -> None:
    words = ["ash", "elm", "oak", "yew"]
    lines = [
        x for k, w in enumerate(words, 1) for x in (f'Cells({k}, 2).Value = "{w}"', f"Cells({k}, 2).Font.Bold = True")
    ]
    text = worked(sub(*lines, head="Option Explicit\n"), "visualbasic")
    assert '= Array("ash", "elm", "oak", "yew")\n' in text
    assert "As Variant\n" in text
    one = worked(
        sub(*[x for w in words for x in (f'Worksheets("{w}").Activate', "Selection.ClearContents")]), "visualbasic"
    )
    assert 'In Array("ash", "elm", "oak", "yew")\n' in one


TWINS = """
Sub Main()
    ShowKale
    ShowThrift
End Sub

Sub ShowKale()
    Debug.Print "Label"
    Debug.Print "sow in spring"
    Debug.Print 20
    Debug.Print "done"
End Sub

Sub ShowThrift()
    Debug.Print "Label"
    Debug.Print "sow in spring"
    Debug.Print 5
    Debug.Print "done"
End Sub
"""


def test_twins_become_one_procedure_that_is_called_as_the_student_calls() -> None:
    text = worked(TWINS, "visualbasic")
    assert "\n    ShowLabel 20\n    ShowLabel 5\n" in text
    assert "Sub ShowLabel(ByVal " in text
    handlers = TWINS.replace("ShowKale", "Kale_Click").replace("ShowThrift", "Thrift_Click")
    found = report(handlers, language="visualbasic").suggestions
    assert [(s.kind, s.status) for s in found] == [("function", "proved")]
    lines = found[0].diff.split("\n")
    assert {"+Sub Kale_Click()", "+    PrintLabel 20", "+    PrintLabel 5"} <= set(lines), "a handler keeps its name"


def test_twin_functions_keep_giving_their_results() -> None:
    function = """
    Function {0}(ByVal people As Integer) As Integer
        Debug.Print "fee"
        Debug.Print people
        {0} = people * {1}
        If {0} > 50 Then {0} = 50
    End Function
    """
    text = "Sub Main()\n    Debug.Print AdultFee(2), ChildFee(3)\nEnd Sub\n"
    merged = worked(text + function.format("AdultFee", 12) + function.format("ChildFee", 6), "visualbasic")
    name = merged.split("Debug.Print ")[1].split("(")[0]
    assert merged.count(f"{name} = people * ") == 1
    assert f"If {name} > 50 Then {name} = 50" in merged
    assert f"Debug.Print {name}(2, 12), {name}(3, 6)" in merged


# -- what the proof refuses --------------------------------------------------------------------------

PRINTS = sub('Debug.Print "gate 1"', 'Debug.Print "gate 2"', 'Debug.Print "gate 3"')


def test_loops_that_mean_something_else_are_refused() -> None:
    def loop(*lines: str, head: str = "", declared: tuple[str, ...] = ()) -> str:
        at = next(k for k, line in enumerate(lines) if line.startswith("For"))
        claim = NewLoop("Module1.bas", 2 + at + head.count("\n"), declared=declared)
        return proved(head + PRINTS, sub(*lines, head=head), claim)

    body = ('    Debug.Print "gate " & i', "Next i")
    assert loop("For i = 1 To 3", *body) == ""
    assert loop("For i = 1 To 4", *body) != ""
    assert loop("For i = 1 To 3 Step 2", *body) != ""
    assert loop("For i = 1 To 3", '    Debug.Print "gate " + i', "Next i") != "", "+ would add"
    explicit = "Option Explicit\n"
    assert "declared" in loop("For i = 1 To 3", *body, head=explicit)
    assert loop("Dim i As Integer", "For i = 1 To 3", *body, head=explicit, declared=("i",)) == ""
    assert "type" in loop("Dim i As String", "For i = 1 To 3", *body, head=explicit, declared=("i",))
    assert loop("For Each i In Array(1, 2, 3)", *body) == ""
    assert "count from 0" in loop("For Each i In Array(1, 2, 3)", *body, head="Option Base 1\n")


def test_a_name_that_differs_only_in_capitals_is_taken() -> None:
    before = sub("GATE = 3", 'Debug.Print "gate 1"', 'Debug.Print "gate 2"', 'Debug.Print "gate 3"')
    after = sub("GATE = 3", "For Gate = 1 To 3", '    Debug.Print "gate " & Gate', "Next Gate")
    assert proved(before, after, NewLoop("Module1.bas", 3)) != ""


COPIES = ["total = total + 1", 'Debug.Print "sum"', "Debug.Print total"]
HEAD = "Dim total As Integer"


def function(head: str, call: str = "total = Count(total)", body: list[str] | None = None) -> str:
    lines = [*(body or COPIES), "Count = total"]
    return (
        f"{head}\n"
        + "".join(f"    {line}\n" for line in lines)
        + "End Function\n"
        + sub(HEAD, call, call, "Beep", "Debug.Print total")
    )


def test_a_function_changes_copies_only() -> None:
    before = sub(HEAD, *COPIES, *COPIES, "Beep", "Debug.Print total")
    claim = NewFunction("Module1.bas", "Count")
    good = "Function Count(ByVal total As Integer) As Integer"
    assert proved(before, function(good), claim) == ""
    assert "changes a variable" in proved(before, function(good.replace("ByVal ", "")), claim)
    assert "another type" in proved(before, function(good.replace("As Integer)", "As Long)")), claim)
    assert proved(before, function(good, "Count total"), claim) != ""
    assert proved(before, function(good, body=COPIES[:2]), claim) != ""


@pytest.mark.parametrize("handling", ["On Error Resume Next", "On Error GoTo Oops", "Oops:"])
def test_a_procedure_that_handles_errors_by_jumps_keeps_its_lines(handling: str) -> None:
    before = sub(handling, HEAD, *COPIES, *COPIES, "Beep", "Debug.Print total")
    after = function("Function Count(ByVal total As Integer) As Integer").replace(HEAD, f"{handling}\n    {HEAD}")
    assert "errors" in proved(before, after, NewFunction("Module1.bas", "Count"))


def test_what_a_with_block_names_stays_in_it() -> None:
    copies = [".Value = 3", ".Font.Bold = True", ".Font.Size = 12"]
    inside = ['With Range("A1")', *copies, *copies, "End With"]
    after = "Sub Mark()\n" + "\n".join(copies) + "\nEnd Sub\n" + sub(inside[0], "Mark", "Mark", "End With")
    assert "object" in proved(sub(*inside), after, NewFunction("Module1.bas", "Mark"))


def test_a_variable_that_a_procedure_may_change_counts_as_changed() -> None:
    text = """
    Sub Raise(n As Integer, ByVal m As Integer)
        Lift n
        m = 2
    End Sub
    Sub Lift(n As Integer)
        n = n + 1
    End Sub
    Sub Go()
        Dim a As Integer, b As Integer
        Raise a, b
    End Sub
    """
    file = read(text, "visualbasic")
    names = file.names
    last = {file.tree.text[i]: names.role[i].name for i in names.nodes}
    assert (last["a"], last["b"]) == ("UPDATE", "READ")


def test_a_counter_is_not_given_where_another_type_is_wanted() -> None:
    own = "Sub Show(n As Long)\n    Debug.Print n\nEnd Sub\n"
    before = own + sub("Show 1", "Show 2", "Show 3", head="Option Explicit\n")
    after = own + sub("Dim i As Integer", "For i = 1 To 3", "    Show i", "Next i", head="Option Explicit\n")
    assert "another type" in proved(before, after, NewLoop("Module1.bas", 7, declared=("i",)))
    wide = after.replace("i As Integer", "i As Long")
    assert proved(before, wide, NewLoop("Module1.bas", 7, declared=("i",))) == ""


def test_well_made_macros_get_no_remark() -> None:
    text = """
    Option Explicit
    Private Const RATE As Double = 0.4

    ' Fills the sheet with one row for each boat.
    Public Sub FillSheet()
        Dim row As Integer
        For row = 2 To 9
            FillRow row
        Next row
    End Sub

    ' Works out what one boat owes.
    Private Sub FillRow(ByVal row As Integer)
        Dim hours As Double
        hours = Cells(row, 2).Value
        If hours < 0 Then
            MsgBox "Row " & row & " has no hours"
            Exit Sub
        End If
        Cells(row, 3).Value = hours * RATE
    End Sub
    """
    assert rules(text, language="visualbasic") == []


def test_the_macro_that_uses_the_others_is_the_main_routine() -> None:
    text = TWINS.replace("Sub Main()", "Sub PrintAll()")
    assert report(text, language="visualbasic").measures["entry_call_share"] == 1.0


COLOURS = """
Sub Colours()
    Range("A1").Interior.Color = vbRed
    Range("A1").Value = "stop"
    Range("A2").Interior.Color = vbYellow
    Range("A2").Value = "wait"
    Range("A3").Interior.Color = vbGreen
    Range("A3").Value = "go"
End Sub
"""


def test_named_constants_go_into_lists() -> None:
    (found,) = report(COLOURS, language="visualbasic").suggestions
    assert found.status == "proved"
    assert "= Array(vbRed, vbYellow, vbGreen)\n" in found.diff
    other = COLOURS.replace("vbRed", "first").replace("vbYellow", "second").replace("vbGreen", "third")
    assert [s.status for s in report(other, language="visualbasic").suggestions] == ["outline"]


def test_variables_are_declared_where_the_procedure_begins() -> None:
    lines = "".join(
        f'    Range("A{n}").Value = {v}\n    Range("A{n}").Font.Bold = True\n' for n, v in enumerate((4, 7, 5, 5, 8), 1)
    )
    text = worked(f"Option Explicit\nSub Fill()\n{lines}End Sub\n", "visualbasic")
    assert "Sub Fill()\n    Dim i As Integer\n    Dim numbers As Variant\n    numbers = Array(4, 7, 5, 5, 8)\n" in text
    inside = "".join(f"    {line}\n" for line in lines.splitlines())
    head = "Option Explicit\nSub Fill()\n    Dim total As Integer\n    total = 3\n    If total > 2 Then\n"
    text = worked(f"{head}{inside}    End If\nEnd Sub\n", "visualbasic")
    assert "    Dim total As Integer\n    Dim i As Integer\n    Dim numbers As Variant\n    total = 3\n" in text


MACROS = """
Sub ClearNorth()
    Worksheets("North").Activate
    Range("B2:B20").ClearContents
    Range("A1").Value = "cleared"
    Range("A1").Font.Italic = True
    Range("A1").Select
End Sub

Sub ClearSouth()
    Worksheets("South").Activate
    Range("B2:B40").ClearContents
    Range("A1").Value = "cleared"
    Range("A1").Font.Italic = True
    Range("A1").Select
End Sub
"""


def test_macros_that_people_start_keep_their_names() -> None:
    (found,) = report(MACROS, language="visualbasic").suggestions
    assert (found.kind, found.status) == ("function", "proved")
    assert 'Sub ClearNorth()\n+    ClearOne "North", 20\n' in found.diff


def test_a_declaration_stays_where_its_variable_is_used_too() -> None:
    step = '    Dim level As Long\n    level = 9\n    Debug.Print "level " & level\n    Range("A1").Value = level\n'
    text = f"Option Explicit\nSub Main()\n{step}    level = 5\n    Debug.Print level\nEnd Sub\n"
    before = read(text, "visualbasic")
    moved = text.replace(step, "    ShowLevel\n").replace(
        "Sub Main", f"Private Sub ShowLevel()\n{step}End Sub\n\nSub Main"
    )
    claim = NewFunction(before.path, "ShowLevel")
    assert not prove(before, rewritten(before, moved), claim).proved
    alone = text.replace("    level = 5\n    Debug.Print level\n", "")
    moved = moved.replace("    level = 5\n    Debug.Print level\n", "")
    assert prove(read(alone, "visualbasic"), read(moved, "visualbasic"), claim).proved


RECORDED = """Sub FormatSheet()
    Range("A1:D1").Select
    Selection.Font.Bold = True
    Selection.Interior.ColorIndex = 6
    Selection.HorizontalAlignment = xlCenter
    Debug.Print Selection.Columns.Count
    Range("A2:A10").Select
    Selection.Font.Bold = True
    Selection.HorizontalAlignment = xlCenter
    Selection.Interior.ColorIndex = 15
    Debug.Print "middle"
    Range("D2:D10").Select
    Selection.Font.Bold = True
    Selection.Interior.ColorIndex = 8
    Selection.HorizontalAlignment = xlCenter
    Debug.Print Selection.Columns.Count
End Sub

Sub Main()
    FormatSheet
End Sub
"""


def test_what_a_person_has_selected_is_no_variable() -> None:
    """What is recorded works on the selection, which nothing can hand on or give back."""
    after = worked(RECORDED, "visualbasic")
    assert '    PrintCenter "D2:D10", 8\n' in after
    assert "Selection =" not in after
    if can_run_macros():
        first, second = outputs_of_macros([RECORDED, after])
        assert first == second != ""


@pytest.mark.parametrize("wild", [wild_macros, wild_macro_pair])
def test_wild_macros_do_the_same(wild: Callable[[int], str]) -> None:
    """What is proved parses again, and does the same where an office suite can run it."""
    groups = [(text, proved_in(text, "visualbasic")[1]) for text in map(wild, range(60))]
    assert sum(len(texts) for _, texts in groups) > 30
    assert not any(read(after, "visualbasic").problems for _, texts in groups for after in texts)
    if can_run_macros():
        require_same(groups, outputs_of_macros)
