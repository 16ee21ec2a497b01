"""Swift, whose parts `reader.py` builds."""

from __future__ import annotations

from ..braces.base import BRACES
from ..table import Language, TypeNames
from .reader import build

SWIFT = Language(
    id="swift",
    title="Swift",
    grammar="swift",
    extensions=(".swift",),
    shebangs=("swift",),
    build=build,
    types=TypeNames("Int", "Double", "String", "Bool", 2**63 - 1, ("Int", "Double")),
    **{
        **BRACES,
        "variables_as_lists": False,
        "comment": frozenset(),
        "branches": BRACES["branches"] | {"guard_statement"},
        "conditionals": BRACES["conditionals"] | {"guard_statement"},
        "keyword_argument": ("labelled_argument", "name"),
        "typed": True,
        "own_object": "self",
        "bare_members": True,
        "texts_take_texts": True,
        "types_behind": True,
        "value_types": True,
        "fixed_parameters": True,
        "cases_end": True,
        "global_style": True,
        "shares_top": True,
        "builtins": frozenset(
            """
            print String Int Double Float Bool Array Set Dictionary Character readLine abs min max zip stride
            fatalError repeatElement Date Timer DispatchQueue Text Button VStack HStack pow sqrt Range round floor ceil
            swap type debugPrint precondition assert enumerate
            """.split()
        ),
        "pure_calls": frozenset({"abs", "min", "max", "Int", "Double", "String", "sqrt", "pow"}),
        "reflective": frozenset({"#function", "#line", "#column", "callStackSymbols"}),
        "output_calls": frozenset({"print", "debugPrint"}),
        "input_calls": frozenset({"readLine"}),
        "keywords": frozenset(
            """
            associatedtype class deinit enum extension fileprivate func import init inout internal let open operator
            private precedencegroup protocol public rethrows static struct subscript typealias var break case catch
            continue default defer do else fallthrough for guard if in repeat return throw switch where while Any as
            await false is nil self Self super true try async some lazy weak mutating override
            """.split()
        ),
        "framework_calls": frozenset(
            "init deinit body main viewDidLoad viewWillAppear viewDidAppear application didReceiveMemoryWarning".split()
        ),
    },
)
