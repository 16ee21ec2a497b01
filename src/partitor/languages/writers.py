"""Which writer prints which language."""

from __future__ import annotations

from ..program.program import ProgramFile
from .braces.writer import CSharpWriter, CWriter, GameScriptWriter, JavaScriptWriter, JavaWriter, TypeScriptWriter
from .python.writer import PythonWriter
from .racket.writer import RacketWriter, SchemeWriter
from .swift.writer import SwiftWriter
from .visualbasic.writer import VisualBasicWriter
from .writing import Writer

WRITERS: dict[str, type[Writer]] = {
    "python": PythonWriter,
    "javascript": JavaScriptWriter,
    "typescript": TypeScriptWriter,
    "java": JavaWriter,
    "c": CWriter,
    "cpp": CWriter,
    "arduino": CWriter,
    "csharp": CSharpWriter,
    "gamescript": GameScriptWriter,
    "swift": SwiftWriter,
    "visualbasic": VisualBasicWriter,
    "racket": RacketWriter,
    "scheme": SchemeWriter,
    "blocks": PythonWriter,
}


def writer_for(file: ProgramFile) -> Writer:
    """The writer of a file's language, in the style of the file, which is read off once."""
    known = file.derived.get("writer")
    if not isinstance(known, Writer):
        known = file.derived["writer"] = WRITERS[file.language.id](file)
    return known
