"""What server tests share: people, a course, the demo assignment, and a worker that runs what is queued."""

from __future__ import annotations

from collections.abc import Callable, Iterator
from pathlib import Path
from typing import Any

import pytest
from api_client import DEMO, PASSWORD, Api, demo_zip, hand_in
from django.contrib.auth import get_user_model
from django.core.cache import cache
from procrastinate.contrib.django import app

from assignments.models import Assignment
from assignments.services import create_assignment
from courses.models import Course, Membership
from courses.services import create_course, replace_roster


@pytest.fixture(autouse=True)
def _quick_and_apart(settings: Any, tmp_path: Path) -> None:
    settings.UPLOADS = tmp_path / "uploads"
    settings.PASSWORD_HASHERS = ["django.contrib.auth.hashers.MD5PasswordHasher"]


@pytest.fixture(autouse=True)
def _nothing_counted(request: pytest.FixtureRequest) -> None:
    """What earlier tests were throttled for does not count."""
    if {"db", "transactional_db"} & set(request.fixturenames):
        request.getfixturevalue("transactional_db" if "transactional_db" in request.fixturenames else "db")
        cache.clear()


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


@pytest.fixture
def checked(assignment: Assignment, people: dict[str, Any], work: Callable[[], None]) -> Assignment:
    """Four students' work, checked."""
    hand_in(assignment, people["ines"], demo_zip("Nadia", "Salma", "Femke", "Anton"))
    work()
    return assignment
