"""Compiles what every check goes through most, with mypyc, for a quarter less time.

usage: compile_core.py SOURCES FOLDER

FOLDER becomes a copy of SOURCES with the compiled modules beside their texts, to stand before SOURCES on the path.
It appears only when all of it is there. The texts stay what is worked on: whoever changes them uses SOURCES.
"""

from __future__ import annotations

import os
import shutil
import sys
from collections.abc import Sequence
from concurrent.futures import ThreadPoolExecutor
from pathlib import Path

from mypyc.build import mypycify
from setuptools import Distribution
from setuptools.command.build_ext import build_ext

MODULES = (
    "program/*.py",
    "repeats/*.py",
    "procedures/calls.py",
    "procedures/required.py",
    "languages/parts.py",
    "languages/racket/reader.py",
    "suggestions/column_words.py",
    "suggestions/steps.py",
    "suggestions/words.py",
    "suggestions/proof/definitions.py",
    "suggestions/proof/rules.py",
    "suggestions/proof/terms.py",
    "suggestions/proof/walk.py",
)
"""What every check goes through most."""
AS_THEY_ARE = frozenset({"limits.py"})
"""Records that are read from files, of which mypyc would lose how strictly."""


class _Build(build_ext):
    """Compiles as many files at once as there are processors."""

    def build_extensions(self) -> None:
        one_by_one = self.compiler.compile

        def compile(sources: Sequence[str], *more: object, **named: object) -> list[str]:
            with ThreadPoolExecutor(os.cpu_count()) as pool:
                made = pool.map(lambda source: one_by_one([source], *more, **named), sources)
                return [path for paths in made for path in paths]

        self.compiler.compile = compile
        super().build_extensions()


def compile_core(sources: Path, folder: Path) -> None:
    """Make `folder`; raises or exits where something cannot be compiled."""
    made = folder.with_name(f"{folder.name}.part{os.getpid()}")
    shutil.copytree(sources, made, ignore=shutil.ignore_patterns("__pycache__", "*.egg-info", "*.so"))
    os.chdir(made)  # mypyc takes a module's name from where it stands
    own = Path("partitor")
    paths = [path for pattern in MODULES for path in sorted(own.glob(pattern))]
    modules = [str(path) for path in paths if path.name not in AS_THEY_ARE]
    options = ["--config-file=", "--ignore-missing-imports", "--cache-dir=build/mypy"]
    extensions = mypycify([*options, *modules], opt_level="1", debug_level="0", multi_file=True)
    build = _Build(Distribution({"name": "core", "ext_modules": extensions}))
    build.inplace = True
    build.build_temp = "build/objects"
    build.ensure_finalized()
    build.run()
    shutil.rmtree("build")
    made.rename(folder)


if __name__ == "__main__":
    compile_core(Path(sys.argv[1]).resolve(), Path(sys.argv[2]).resolve())
