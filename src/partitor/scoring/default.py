"""The default rubric: six criteria that any first course can begin with."""

from __future__ import annotations

from .rubric import Criterion, Level


def default_criteria() -> tuple[Criterion, ...]:
    """Repetition, loops, required functions, size, parameters, and the main routine."""
    return (
        Criterion(
            "repetition",
            "Repetition",
            "repeated_share",
            8,
            (
                Level(8, "Hardly anything is written twice.", at_most=0.05),
                Level(5, "Some code is copied.", at_most=0.20),
                Level(2, "Much is copied.", at_most=0.45),
                Level(0, "Most of the program is copies."),
            ),
        ),
        Criterion(
            "loops",
            "Loops where loops fit",
            "run_share",
            4,
            (
                Level(4, "What happens again and again stands in loops.", at_most=0.04),
                Level(2, "Some steps in a row are written out.", at_most=0.20),
                Level(0, "Long rows of the same steps are written out."),
            ),
        ),
        Criterion(
            "functions",
            "The required functions",
            "required_present",
            6,
            (
                Level(6, "All are there, as asked, and used.", at_least=1.0),
                Level(4, "Most are there.", at_least=0.66),
                Level(2, "Some are there.", at_least=0.33),
                Level(0, "Hardly any is there."),
            ),
        ),
        Criterion(
            "size",
            "Procedure size",
            "oversized_share",
            4,
            (
                Level(4, "Every procedure can be taken in at a glance.", at_most=0.0),
                Level(2, "Some of the program stands in procedures that are too long.", at_most=0.5),
                Level(0, "Most of the program stands in procedures that are too long."),
            ),
        ),
        Criterion(
            "parameters",
            "Parameters",
            "self_contained",
            4,
            (
                Level(4, "Functions get what they need and give back what they find.", at_least=0.9),
                Level(2, "Some functions reach outside or are written once per value.", at_least=0.5),
                Level(0, "Values are not passed to functions yet."),
            ),
        ),
        Criterion(
            "entry",
            "The main routine",
            "entry_call_share",
            4,
            (
                Level(4, "The main routine reads like a table of contents.", at_least=0.6),
                Level(2, "The main routine mixes steps and details.", at_least=0.3),
                Level(0, "The main routine does the work itself."),
            ),
        ),
    )
