"""The measures: one named number each, with its unit and what it counts."""

from __future__ import annotations

import msgspec


class Measure(msgspec.Struct, frozen=True):
    """`unit` is "share" (0 to 1), "statements", "lines" or "count"; `better` says which way is good."""

    title: str
    unit: str
    better: str
    definition: str


MEASURES: dict[str, Measure] = {
    "statements": Measure(
        "Statements", "statements", "neither", "All statements but definitions and documentation strings."
    ),
    "code_lines": Measure("Code lines", "lines", "neither", "Lines that are not blank or only a comment."),
    "procedures": Measure("Functions", "count", "neither", "Functions and methods that are defined."),
    "repeated_share": Measure(
        "Repeated share",
        "share",
        "low",
        "Statements in a second or later copy of a repeated run or block ÷ all statements.",
    ),
    "repeated_runs": Measure("Repeated runs", "count", "low", "Runs of copies in a row."),
    "repeated_blocks": Measure("Repeated blocks", "count", "low", "Blocks that stand in separate places."),
    "twin_groups": Measure("Twin groups", "count", "low", "Groups of functions that are alike."),
    "run_share": Measure(
        "Unrolled share",
        "share",
        "low",
        "Statements in a second or later copy of a repeated run ÷ all statements: loops left unwritten.",
    ),
    "longest_procedure": Measure(
        "Longest procedure", "statements", "low", "Statements of the longest procedure or main program."
    ),
    "oversized_share": Measure(
        "Oversized share",
        "share",
        "low",
        "Statements that stand in procedures longer than the assignment allows ÷ all statements.",
    ),
    "deepest_nesting": Measure(
        "Deepest nesting", "count", "low", "Branches and loops around the most deeply nested statement."
    ),
    "required_present": Measure(
        "Required functions present",
        "share",
        "high",
        "Required functions that are there, take and return what is asked, and are called ÷ all "
        "required ones (1 where none is required).",
    ),
    "uncalled": Measure("Uncalled functions", "count", "low", "Functions that nothing calls."),
    "undefined": Measure("Undefined calls", "count", "low", "Calls to names that nothing defines."),
    "loose_statements": Measure(
        "Loose statements",
        "statements",
        "low",
        "Statements outside any function; imports, plain values given to names and the entry's call do not count.",
    ),
    "entry_call_share": Measure(
        "Entry's calls",
        "share",
        "high",
        "Of the main routine's own statements that do work, the share that call the program's functions; "
        "taking in and naming values does not count.",
    ),
    "parameters_used": Measure(
        "Parameters used", "share", "high", "Parameters that are read ÷ all parameters (1 where none)."
    ),
    "self_contained": Measure(
        "Self-contained functions",
        "share",
        "high",
        "Functions that work through parameters and return values only: no outer variable changed, no "
        "parameter unread, no twin that differs by a value ÷ all functions (0 where there are none).",
    ),
    "deciding_functions": Measure(
        "Functions with a deciding parameter",
        "count",
        "neither",
        "Functions with a parameter that decides which statements run.",
    ),
    "documented_share": Measure(
        "Documented functions",
        "share",
        "high",
        "Functions with a documentation string or a comment at their head ÷ all functions (1 where none).",
    ),
    "well_named_share": Measure(
        "Well-named functions",
        "share",
        "high",
        "Functions whose name says something and follows the convention ÷ all functions (1 where none).",
    ),
    "possible_saving": Measure(
        "Possible saving", "share", "low", "Code lines that the worked answer saves ÷ all code lines."
    ),
}
