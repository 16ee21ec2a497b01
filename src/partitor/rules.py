"""The rules a finding can have, each with its title and the advice it carries."""

RULES: dict[str, tuple[str, str]] = {
    "repeated-run": ("The same statements several times in a row", "Write them once, in a loop."),
    "repeated-block": (
        "The same statements in separate places",
        "Write a function and call it in each place.",
    ),
    "twin-functions": ("Functions that are alike", "Write one function with parameters."),
    "oversized-procedure": ("A procedure that does too much", "Give each of its steps a function."),
    "missing-function": ("A required function is not there", "Write it, or move the lines that do its job."),
    "uncalled-function": ("A function that nothing calls", "Call it, or take it out."),
    "undefined-call": ("A call to something that is not defined", "Mend the name."),
    "redefined-function": ("One name defined twice", "Give one of them another name."),
    "loose-code": ("Statements outside any function", "Move them into the entry function."),
    "unused-parameter": ("A parameter that is never read", "Use it, or take it out."),
    "idle-loop": ("A loop that cannot run as meant", "Mend where it starts and ends."),
    "outer-variable": ("A function that changes a variable outside itself", "Pass it in and return it."),
    "undocumented-function": ("A function without a comment", "Add one line on what it does."),
    "vague-name": ("A function whose name says little", "Name it with a verb and a noun."),
}
