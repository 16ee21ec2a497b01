"""What server tests share: people, a course, the demo assignment, and a worker that runs what is queued."""

from __future__ import annotations

import io
import json
import zipfile
from collections.abc import Callable, Iterator
from pathlib import Path
from typing import Any

import pytest
from django.contrib.auth import get_user_model
from django.core.files.uploadedfile import SimpleUploadedFile
from django.test import Client
from procrastinate.contrib.django import app
from procrastinate.contrib.django.models import ProcrastinateJob

from assignments.models import Assignment
from assignments.services import create_assignment
from courses.models import Course, Membership
from courses.services import create_course, replace_roster
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


@pytest.fixture(autouse=True)
def _quick_and_apart(settings: Any, tmp_path: Path) -> None:
    settings.UPLOADS = tmp_path / "uploads"
    settings.PASSWORD_HASHERS = ["django.contrib.auth.hashers.MD5PasswordHasher"]


@pytest.fixture
def _real_database(transactional_db: None) -> Iterator[None]:
    """A database whose commits are real, as the worker needs them; the queue is left empty."""
    yield
    from django.db import connection

    with connection.cursor() as cursor:
        cursor.execute("TRUNCATE procrastinate_jobs RESTART IDENTITY CASCADE")


@pytest.fixture
def work(_real_database: None) -> Callable[[], None]:
    """Runs every queued job to its end, as a worker does."""

    def run() -> None:
        worker = app.with_connector(app.connector.get_worker_connector())
        worker.run_worker(
            wait=False, install_signal_handlers=False, listen_notify=False, fetch_job_polling_interval=0.05
        )

    return run


@pytest.fixture
def people(db: None) -> dict[str, Any]:
    """A teacher, an assistant of theirs, and a teacher of another course."""
    make = get_user_model().objects.create_user
    return {
        name: make(username=name, password=PASSWORD, first_name=name.title(), last_name="Valder")
        for name in ("ines", "rolf", "stranger")
    }


@pytest.fixture
def course(people: dict[str, Any]) -> Course:
    """The evening class with its class list; the stranger has a course of their own."""
    create_course(people["stranger"], "Another course", "")
    found = create_course(people["ines"], "Evening class", "Winter")
    Membership.objects.create(course=found, user=people["rolf"], part="assistant")
    replace_roster(found, people["ines"], (DEMO / "roster.csv").read_bytes())
    return found


@pytest.fixture
def assignment(course: Course, people: dict[str, Any]) -> Assignment:
    """The demo assignment without any work."""
    return create_assignment(course, people["ines"], (DEMO / "assignment.toml").read_text())


@pytest.fixture
def teacher(people: dict[str, Any]) -> Api:
    """The teacher's API."""
    return Api(people["ines"])


@pytest.fixture
def assistant(people: dict[str, Any]) -> Api:
    """The assistant's API."""
    return Api(people["rolf"])


@pytest.fixture
def stranger(people: dict[str, Any]) -> Api:
    """The API of a teacher who is no member."""
    return Api(people["stranger"])


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


@pytest.fixture
def checked(assignment: Assignment, people: dict[str, Any], work: Callable[[], None]) -> Assignment:
    """Four students' work, checked."""
    hand_in(assignment, people["ines"], demo_zip("Nadia", "Salma", "Femke", "Anton"))
    work()
    return assignment


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
