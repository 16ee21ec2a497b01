"""The core is partly compiled where `./run` starts it: nothing but the time may differ."""

from __future__ import annotations

import json
import os
import shutil
import subprocess
import sys
from pathlib import Path

import pytest
from builders import ROOT

GROUPS = {
    "Python": sorted((ROOT / "demo" / "sluice-gates" / "submissions").iterdir())[:8],
    "JavaScript": sorted((ROOT / "demo" / "ferry-tickets" / "submissions").iterdir())[:5],
    "board sketches": sorted((ROOT / "demo" / "pump-panel" / "submissions").iterdir())[:4],
    "each further language": sorted((ROOT / "demo" / "seed-labels").glob("[lL]abels.*")),
}


def reports(work: Path, out: Path, path: str) -> list[object]:
    """The report of each program, from the core that `path` leads to."""
    done = subprocess.run(
        [sys.executable, "-m", "partitor.cli", "check", work, "--out", out],
        env={**os.environ, "PYTHONPATH": path},
        capture_output=True,
        text=True,
        check=False,
    )
    assert done.returncode == 0, done.stderr
    found = json.loads((out / "report.json").read_text())["submissions"]
    assert isinstance(found, list)
    return found


@pytest.mark.parametrize("group", GROUPS)
def test_reports_are_the_same_compiled_or_not(group: str, tmp_path: Path) -> None:
    work = tmp_path / "work"
    for program in GROUPS[group]:
        (work / program.name).mkdir(parents=True, exist_ok=True)
        shutil.copy(program, work / program.name)
    as_started = reports(work, tmp_path / "started", os.environ.get("PYTHONPATH", ""))
    as_it_stands = reports(work, tmp_path / "stands", str(ROOT / "src"))
    assert len(as_started) == len({program.name for program in GROUPS[group]}) > 2
    assert as_started == as_it_stands
