"""What a batch carries along that is nobody's work: left out, and counted."""

from __future__ import annotations

from pathlib import PurePosixPath

FOLDERS = frozenset(
    {
        "__MACOSX",
        "__pycache__",
        ".git",
        ".svn",
        ".idea",
        ".vscode",
        ".settings",
        "node_modules",
        ".venv",
        "venv",
        ".ipynb_checkpoints",
        ".mypy_cache",
        ".pytest_cache",
    }
)
NAMES = frozenset({".ds_store", "thumbs.db", "desktop.ini", ".gitignore", ".project", ".classpath"})
COMPILED = (".pyc", ".pyo", ".class", ".o", ".obj", ".exe", ".dll", ".so")
ENDINGS = (*COMPILED, "~", ".swp", ".swo", ".tmp", ".lock")


def is_junk(path: str) -> bool:
    """True for system, editor and compiled files, by their path.

    >>> is_junk("__MACOSX/ada/._main.py"), is_junk("ada/main.py")
    (True, False)
    """
    parts = PurePosixPath(path).parts
    if any(part in FOLDERS for part in parts):
        return True
    name = parts[-1].lower() if parts else ""
    return name in NAMES or name.startswith("._") or name.endswith(ENDINGS)


def is_compiled(path: str) -> bool:
    """True for what a compiler made of somebody's work."""
    return path.lower().endswith(COMPILED)
