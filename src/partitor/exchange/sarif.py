"""Findings as SARIF 2.1.0 (OASIS Standard, 27 March 2020)."""

from __future__ import annotations

from typing import Any
from urllib.parse import quote

import msgspec

from .. import __version__
from ..records import Finding
from ..rules import RULES
from .report import Report

SCHEMA = "https://docs.oasis-open.org/sarif/sarif/v2.1.0/errata01/os/schemas/sarif-schema-2.1.0.json"
MISTAKES = frozenset({"missing-function", "undefined-call", "redefined-function", "idle-loop"})


def sarif(report: Report) -> bytes:
    """One run with a result for each finding. A repeat has all its copies as locations, since it is
    mended only by changing every one of them."""
    rules = [
        {
            "id": rule,
            "shortDescription": {"text": f"{title}."},
            "help": {"text": advice},
        }
        for rule, (title, advice) in RULES.items()
    ]
    order = {rule: index for index, rule in enumerate(RULES)}
    results = [
        _result(submission.name, finding, order) for submission in report.submissions for finding in submission.findings
    ]
    notices = [{"level": "error", "message": {"text": f"{u.name}: {u.why}"}} for u in report.unreadable]
    run: dict[str, Any] = {
        "tool": {"driver": {"name": "Partitor", "version": __version__, "rules": rules}},
        "columnKind": "unicodeCodePoints",
        "invocations": [{"executionSuccessful": True, "toolExecutionNotifications": notices}],
        "results": results,
    }
    document = {"$schema": SCHEMA, "version": "2.1.0", "runs": [run]}
    return msgspec.json.format(msgspec.json.encode(document), indent=1) + b"\n"


def _result(name: str, finding: Finding, order: dict[str, int]) -> dict[str, Any]:
    return {
        "ruleId": finding.rule,
        "ruleIndex": order[finding.rule],
        "level": "warning" if finding.rule in MISTAKES else "note",
        "message": {"text": finding.message},
        "locations": [
            {
                "physicalLocation": {
                    "artifactLocation": {"uri": quote(f"{name}/{place.file}")},
                    "region": {"startLine": place.start_line, "endLine": place.end_line},
                }
            }
            for place in finding.places
        ],
        "properties": {"submission": name, "weight": finding.weight},
    }
