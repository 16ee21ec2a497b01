"""Block programs as readable text: projects (.sb3, .xml) and workspaces (XML, JSON)."""

from __future__ import annotations

from ...errors import UnreadableSubmission
from .model import Sheet, rendered
from .project_archive import read_archive
from .project_xml import read_project
from .workspace import read_workspace_json, read_workspace_xml

__all__ = ["UnreadableSubmission", "block_sheets", "is_block_file", "rendered"]


def is_block_file(path: str, data: bytes) -> bool:
    """True for a file that holds a block program, by its name and its first words."""
    lower = path.lower()
    start = data[:4000].lstrip()
    if lower.endswith(".sb3"):
        return True
    if lower.endswith(".xml"):
        return b"<block" in data and start.startswith(b"<")
    return lower.endswith(".json") and b'"blocks"' in data and b'"languageVersion"' in data


def block_sheets(path: str, data: bytes) -> list[Sheet]:
    """The sheets (sprites, stage or workspace) of a block program, each with its stacks. Raises
    UnreadableSubmission with a clause that can follow the file's path."""
    lower = path.lower()
    if lower.endswith(".sb3"):
        return read_archive(data)
    if lower.endswith(".json"):
        return read_workspace_json(data)
    return read_project(data) if b"<project" in data or b"<blocks" in data else read_workspace_xml(data)
