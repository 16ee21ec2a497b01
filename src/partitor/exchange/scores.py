"""Scores as CSV (RFC 4180, UTF-8). Cells that a spreadsheet would run as a formula are made harmless."""

from __future__ import annotations

import csv
import io
from collections.abc import Iterable, Sequence

from ..scoring.rubric import Criterion
from .report import Report

RISKY = ("=", "+", "-", "@", "\t", "\r", "\n")


def harmless(cell: str) -> str:
    """The text with an apostrophe before it where a spreadsheet would take it for a formula.

    >>> harmless("=1+1"), harmless("Ada")
    ("'=1+1", 'Ada')
    """
    return f"'{cell}" if cell.startswith(RISKY) else cell


def csv_text(rows: Iterable[Sequence[str]]) -> str:
    """Rows as CSV with CRLF line ends, every cell made harmless."""
    out = io.StringIO()
    writer = csv.writer(out, lineterminator="\r\n")
    for row in rows:
        writer.writerow([harmless(cell) for cell in row])
    return out.getvalue()


def scores_csv(report: Report, criteria: Sequence[Criterion]) -> str:
    """One row a submission: name, one column a criterion, total, out of, percent."""
    rows = [["name", *(c.id for c in criteria), "total", "out of", "percent"]]
    for submission in report.submissions:
        points = {s.criterion: s.points for s in submission.scores}
        percent = f"{100 * submission.total / submission.of:.1f}" if submission.of else ""
        cells = ["" if points.get(c.id) is None else f"{points[c.id]:g}" for c in criteria]
        rows.append([submission.name, *cells, f"{submission.total:g}", f"{submission.of:g}", percent])
    return csv_text(rows)
