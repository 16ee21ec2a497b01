"""The API as a person's browser calls it, and what is handed in."""

from __future__ import annotations

import io
import json
import zipfile
from pathlib import Path
from typing import Any

from django.core.files.uploadedfile import SimpleUploadedFile
from django.test import Client
from procrastinate.contrib.django.models import ProcrastinateJob

from assignments.models import Assignment
from intake.models import Batch
from intake.services import receive

DEMO = Path(__file__).resolve().parents[2] / "demo" / "sluice-gates"
PASSWORD = "salt-marsh-2026"


class Api:
    """The API as one person's browser calls it: JSON in, (status, JSON) out."""

    def __init__(self, user: Any = None) -> None:
        self.client = Client()
        if user is not None:
            self.client.force_login(user)

    def __call__(self, method: str, path: str, body: Any = None) -> tuple[int, Any]:
        answer = self.client.generic(method, f"/api/{path}", json.dumps(body), content_type="application/json")
        return answer.status_code, json.loads(answer.content) if answer.content else None

    def good(self, method: str, path: str, body: Any = None) -> Any:
        """The answer's JSON; fails where the call does."""
        status, data = self(method, path, body)
        assert status < 300, (status, data)
        return data

    def upload(self, path: str, *files: tuple[str, bytes], method: str = "post") -> tuple[int, Any]:
        """Send files as a form does."""
        body = {"file": [SimpleUploadedFile(name, data) for name, data in files]}
        if method == "post":
            answer = self.client.post(f"/api/{path}", body)
        else:
            from django.test.client import BOUNDARY, MULTIPART_CONTENT, encode_multipart

            answer = self.client.put(f"/api/{path}", encode_multipart(BOUNDARY, body), content_type=MULTIPART_CONTENT)
        return answer.status_code, json.loads(answer.content)


def zipped(files: dict[str, bytes | str]) -> bytes:
    """A ZIP of these files."""
    out = io.BytesIO()
    with zipfile.ZipFile(out, "w", zipfile.ZIP_DEFLATED) as archive:
        for name, data in files.items():
            archive.writestr(name, data)
    return out.getvalue()


def demo_zip(*names: str) -> bytes:
    """The demo class's work, or that of the students whose names begin so."""
    paths = sorted((DEMO / "submissions").iterdir())
    chosen = [p for p in paths if not names or p.name.startswith(names)]
    return zipped({p.name: p.read_bytes() for p in chosen})


def hand_in(assignment: Assignment, user: Any, data: bytes, name: str = "class.zip") -> Batch:
    """Receive an upload; the worker still has to run."""
    return receive(assignment, user, [SimpleUploadedFile(name, data)])


def queued() -> list[str]:
    """The names of the jobs that wait."""
    return [j.task_name for j in ProcrastinateJob.objects.filter(status="todo").order_by("pk")]


def numbers(assignment: Assignment) -> dict[str, int]:
    """What stands for the numbers in the API's addresses."""
    return {
        "course": assignment.course_id,
        "assignment": assignment.pk,
        "batch": assignment.batches.first().pk,
        "submission": assignment.submissions.first().pk,
        "remark": assignment.submissions.get(name="Nadia Ferrow").latest().remarks.first().pk,
    }
