"""Everything `partitor check` writes, into a folder that changes whole or not at all."""

from __future__ import annotations

import shutil
import tempfile
from collections.abc import Sequence
from pathlib import Path

import msgspec

from ..reading.collect import file_name
from ..records import Suggestion
from ..source import Source
from .report import Report, SubmissionReport, report_json
from .sarif import sarif

WRITTEN = ("report.json", "scores.csv", "findings.sarif", "index.html", "feedback", "suggestions")


class Output:
    """A new folder of results beside the old ones, until `finish` puts it in their place."""

    def __init__(self, folder: Path) -> None:
        folder.mkdir(parents=True, exist_ok=True)
        self.folder = folder
        self.new = Path(tempfile.mkdtemp(prefix=".partitor-", dir=folder))
        (self.new / "feedback").mkdir()
        (self.new / "suggestions").mkdir()
        self.names: dict[str, str] = {}

    def name_for(self, submission: str) -> str:
        """The submission's file name, told apart from others that would be the same on disk."""
        if submission not in self.names:
            base = file_name(submission)
            candidate, number = base, 2
            used = {n.casefold() for n in self.names.values()}
            while candidate.casefold() in used:
                candidate, number = f"{base}-{number}", number + 1
            self.names[submission] = candidate
        return self.names[submission]

    def write(self, path: str, content: bytes | str) -> None:
        """Write one file below the new folder."""
        target = self.new / path
        target.parent.mkdir(parents=True, exist_ok=True)
        target.write_bytes(content.encode() if isinstance(content, str) else content)

    def write_patches(self, report: SubmissionReport, sources: Sequence[Source]) -> SubmissionReport:
        """Write the patches of one submission; returns the report with their paths in it."""
        name = self.name_for(report.name)
        encodings = {s.path: s.encoding for s in sources}
        suggestions: list[Suggestion] = []
        for number, suggestion in enumerate(report.suggestions, 1):
            path = None
            if suggestion.status == "proved" and suggestion.diff:
                path = f"suggestions/{name}/{number:02d}.patch"
                self.write(path, suggestion.diff.encode(encodings[suggestion.path]))
            suggestions.append(msgspec.structs.replace(suggestion, patch=path))
        for source in sources:
            if source.path.endswith(".ipynb.py") and any(s.patch and s.path == source.path for s in suggestions):
                # A notebook's patches are of its program text, which stands beside them.
                self.write(f"suggestions/{name}/{source.path}", source.text)
        worked = report.worked_answer
        if worked.diff:
            path = f"suggestions/{name}/all.patch"
            encoding = next(iter(encodings.values())) if len(set(encodings.values())) == 1 else "utf-8"
            self.write(path, worked.diff.encode(encoding))
            worked = msgspec.structs.replace(worked, patch=path)
        return msgspec.structs.replace(report, suggestions=tuple(suggestions), worked_answer=worked)

    def write_report(self, report: Report) -> None:
        """Write what is about the whole batch."""
        self.write("report.json", report_json(report))
        self.write("findings.sarif", sarif(report))

    def finish(self) -> None:
        """Put the new results in the old ones' place; on any failure the old ones come back."""
        old = Path(tempfile.mkdtemp(prefix=".partitor-old-", dir=self.folder))
        moved: list[str] = []
        try:
            for name in WRITTEN:
                if (self.folder / name).exists():
                    (self.folder / name).rename(old / name)
                    moved.append(name)
            for name in WRITTEN:
                (self.new / name).rename(self.folder / name)
        except OSError:
            for name in WRITTEN:
                if name in moved:
                    if (self.folder / name).exists():
                        (self.folder / name).rename(self.new / name)
                    (old / name).rename(self.folder / name)
            raise
        finally:
            shutil.rmtree(old, ignore_errors=True)
            self.discard()

    def discard(self) -> None:
        """Remove what was written so far."""
        shutil.rmtree(self.new, ignore_errors=True)
