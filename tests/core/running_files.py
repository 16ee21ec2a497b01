"""Runs programs of several files: every module of Python as it would be started, every page as it would be loaded."""

from __future__ import annotations

import json
import posixpath
import re
import subprocess
import sys
import tempfile
from collections.abc import Sequence
from pathlib import Path

SCRIPT = re.compile(r'<script(?: src="([^"]*)")?( defer)?>(.*?)</script>', re.DOTALL)
RUN_PAGES = """
const vm = require("vm");
for (const scripts of JSON.parse(require("fs").readFileSync(0, "utf8"))) {
  const said = [];
  const context = vm.createContext({ console: { log: (...words) => said.push(words.join(" ")) } });
  for (const text of scripts) {
    try { vm.runInContext(text, context, { timeout: 2000 }); }
    catch (error) { said.push(String(error.name)); }
  }
  console.log(JSON.stringify(said));
}
"""


def modules_say(files: dict[str, str]) -> list[str]:
    """What each module prints when it is started."""
    with tempfile.TemporaryDirectory() as folder:
        for path, text in files.items():
            (Path(folder) / path).write_text(text)
        told = []
        for path in sorted(files):
            if path.startswith("shared"):
                continue
            done = subprocess.run(
                [sys.executable, path], cwd=folder, capture_output=True, text=True, timeout=20, check=False
            )
            told.append(done.stdout + re.sub(r"\(.*\)", "", done.stderr.strip().rpartition("\n")[2]))
        return told


def pages_say(programs: list[dict[str, str]]) -> list[list[str]]:
    """What the pages of each program print, page by page, handlers pressed once at the end."""
    runs: list[list[str]] = []
    sizes = []
    for files in programs:
        pages = [p for p in sorted(files) if p.endswith(".html")]
        sizes.append(len(pages))
        for page in pages:
            runs.append(_scripts_of(files, page))
    done = subprocess.run(
        ["node", "-e", RUN_PAGES], input=json.dumps(runs), capture_output=True, text=True, timeout=120, check=True
    )
    lines = iter(done.stdout.splitlines())
    return [[next(lines) for _ in range(size)] for size in sizes]


Rewritten = tuple[dict[str, str], list[dict[str, str]]]
"""A program's files, and the files of every program that became of it."""


def require_pages_same(groups: Sequence[Rewritten]) -> None:
    """The pages of what became of a program say what the program's pages said."""
    told = iter(pages_say([files for before, afters in groups for files in (before, *afters)]))
    for before, afters in groups:
        said = next(told)
        for after in afters:
            assert next(told) == said, f"{before}\n----- became\n{after}"


def require_modules_same(groups: Sequence[Rewritten]) -> None:
    """The modules of what became of a program print what the program's modules printed."""
    for before, afters in groups:
        said = modules_say(before) if afters else []
        for after in afters:
            assert modules_say(after) == said, f"{before}\n----- became\n{after}"


def _scripts_of(files: dict[str, str], page: str) -> list[str]:
    text = files[page]
    now, late = [], []
    for source, defer, code in SCRIPT.findall(text):
        path = posixpath.normpath(posixpath.join(posixpath.dirname(page), source)) if source else ""
        found = files.get(path, 'throw new Error("missing")') if source else code
        (late if defer and source else now).append(found)
    return [*now, *late, *re.findall(r'onclick="([^"]*)"', text)]
