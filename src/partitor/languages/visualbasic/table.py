"""Visual Basic macros, whose parts `reader.py` builds."""

from __future__ import annotations

from ..braces.base import BRACES
from ..table import Language, TypeNames
from .reader import build

VISUAL_BASIC = Language(
    id="visualbasic",
    title="Visual Basic",
    grammar="",
    extensions=(".bas", ".cls", ".frm", ".vba"),
    build=build,
    types=TypeNames("Integer", "Double", "String", "Boolean", 2**15 - 1, ("Byte", "Integer", "Long", "Double")),
    **{
        **BRACES,
        "either_sign": "",
        "variables_as_lists": False,
        "comment": frozenset(),
        "comment_marks": ("'", "Rem ", "rem "),
        "branches": BRACES["branches"] | {"choice_statement", "with_block"},
        "conditionals": BRACES["conditionals"] | {"choice_statement"},
        "keyword_argument": ("keyword_argument", "name"),
        "typed": True,
        "texts_take_texts": True,
        "named_constants": r"(?i:vb[a-z]\w+|xl[a-z]\w+|mso[a-z]\w+)",
        "global_style": True,
        "types_behind": True,
        "untyped": "Variant",
        "implicit_locals": True,
        "by_reference": True,
        "list_call": "Array",
        "capitals": True,
        "case_blind": True,
        "started_by_hand": True,
        "texts_take_numbers": None,
        "builtins": frozenset(
            """
            MsgBox InputBox Range Cells Worksheets Sheets ActiveSheet ActiveCell ActiveWorkbook Selection Application
            Debug Array Split Join Len Left Right Mid Trim UCase LCase Str CStr CInt CLng CDbl Val Int Abs Rnd Round
            Sqr IsNumeric IsEmpty Format Date Time Now Year Month Day vbCrLf vbNewLine vbTab Chr Asc InStr Replace
            UBound LBound Me Err Columns Rows ThisWorkbook Shell Beep DoEvents Randomize Space String StrReverse
            vbOK vbYes vbNo vbOKOnly vbYesNo vbRed vbGreen vbBlue RGB xlUp xlDown
            """.split()
        ),
        "pure_calls": frozenset("Len Left Right Mid Trim UCase LCase CStr CInt CDbl Val Int Abs Round Sqr".split()),
        "output_calls": frozenset({"Print", "MsgBox"}),
        "input_calls": frozenset({"InputBox"}),
        "keywords": frozenset(
            """
            And As Boolean ByRef Byte ByVal Call Case Const Currency Date Declare Dim Do Double Each Else ElseIf Empty
            End Enum Eqv Erase Error Event Exit False For Friend Function Get Global GoSub GoTo If Imp Implements In
            Input Integer Is Let Lib Like Line Lock Long Loop LSet Me Mod Name New Next Not Nothing Null Object On Open
            Option Optional Or ParamArray Preserve Print Private Property Public Put RaiseEvent ReDim Rem Resume Return
            RSet Select Set Single Static Step Stop String Sub Then To True Type Until Variant Wend While With
            WithEvents Write Xor
            """.split()
        ),
        "framework_calls": frozenset({"Main", "Workbook_Open", "Worksheet_Change", "UserForm_Initialize"}),
    },
)
