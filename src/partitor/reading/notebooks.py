"""Notebooks as program text: the code cells in order, each under a comment with its number."""

from __future__ import annotations

import re

from ..errors import UnreadableSubmission

CELL = "# cell {}"
NOT_PYTHON = re.compile(r"^(\s*)([%!?]|\S.*\?$)")


def program_text(text: str) -> str:
    """The Python text of a notebook. Lines that only a notebook understands become comments, so that they stay
    where they are. Raises UnreadableSubmission with a clause that can follow the file's path.
    """
    import nbformat  # slow to load, and seldom needed

    try:
        notebook = nbformat.reads(text, as_version=4)  # type: ignore[no-untyped-call]
        language = str(notebook.get("metadata", {}).get("kernelspec", {}).get("language", "python"))
        sources = [str(cell.get("source", "")) for cell in notebook.cells if cell.get("cell_type") == "code"]
        numbers = [number for number, cell in enumerate(notebook.cells, 1) if cell.get("cell_type") == "code"]
    except Exception as problem:  # nbformat lets errors of many kinds through; each means the same here
        raise UnreadableSubmission("is not a whole notebook") from problem
    if language != "python":
        raise UnreadableSubmission(f"is a notebook in {language[:40]}, and only Python's are read")
    parts = []
    for number, source in zip(numbers, sources, strict=True):
        if not source.strip() or source.lstrip().startswith("%%"):
            continue
        lines = [NOT_PYTHON.sub(r"\1# \2", line) for line in source.rstrip("\n").split("\n")]
        parts.append("\n".join([CELL.format(number), *lines]) + "\n")
    return "\n\n".join(parts)
