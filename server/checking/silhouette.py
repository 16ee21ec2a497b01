"""A program's outline as numbers: each code line's indent and length, its copy group, its procedure."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Any

MOST_ROWS = 400
REPEATS = {"repeated-run", "repeated-block", "twin-functions"}


def silhouette(files: Sequence[tuple[str, str]], report: dict[str, Any] | None) -> dict[str, list[int]]:
    """One row a line that is not blank, at most 400. Inner groups show over outer ones."""
    rows: dict[str, list[int]] = {"indents": [], "lengths": [], "groups": [], "heads": []}
    groups = _groups(report)
    heads = {(p["file"], p["start_line"]) for p in report["procedures"] if p["name"]} if report else set()
    for path, text in files:
        for number, line in enumerate(text.split("\n"), 1):
            stripped = line.strip()
            if not stripped or len(rows["indents"]) >= MOST_ROWS:
                continue
            if (path, number) in heads:
                rows["heads"].append(len(rows["indents"]))
            indent = len(line.expandtabs(4)) - len(line.expandtabs(4).lstrip())
            rows["indents"].append(min(indent, 40))
            rows["lengths"].append(min(len(stripped), 100))
            rows["groups"].append(groups.get((path, number), 0))
    return rows


def _groups(report: dict[str, Any] | None) -> dict[tuple[str, int], int]:
    groups: dict[tuple[str, int], int] = {}
    if report is None:
        return groups
    repeats = [f for f in report["findings"] if f["rule"] in REPEATS]
    by_size = sorted(
        enumerate(repeats, 1),
        key=lambda item: -sum(p["end_line"] - p["start_line"] + 1 for p in item[1]["places"]),
    )
    for number, finding in by_size:
        for place in finding["places"]:
            for line in range(place["start_line"], place["end_line"] + 1):
                groups[place["file"], line] = number
    return groups
