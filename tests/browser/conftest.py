"""A real server, a real worker in a process of its own, and Chromium in front of them."""

from __future__ import annotations

import os
import subprocess
import sys
from collections.abc import Iterator
from pathlib import Path
from typing import Any

import pytest
from chrome import Browser
from django.core.management import call_command
from django.db import connection

ROOT = Path(__file__).resolve().parents[2]


@pytest.fixture
def worker(transactional_db: None, settings: Any, tmp_path: Path) -> Iterator[None]:
    """`./run worker`'s process on the test's database."""
    settings.UPLOADS = tmp_path / "uploads"
    environment = {**os.environ, "PARTITOR_DB_NAME": str(connection.settings_dict["NAME"])}
    environment["PARTITOR_UPLOADS"] = str(settings.UPLOADS)
    with (tmp_path / "worker.log").open("wb") as log:
        process = subprocess.Popen(
            [sys.executable, ROOT / "server" / "manage.py", "work"],
            env=environment,
            stdout=log,
            stderr=log,
        )
        yield
        process.terminate()
        process.wait(20)
    with connection.cursor() as cursor:
        cursor.execute("TRUNCATE procrastinate_jobs RESTART IDENTITY CASCADE")


@pytest.fixture
def demo(worker: None) -> None:
    """The demo class, being checked."""
    call_command("demo_class")


@pytest.fixture
def people(transactional_db: None) -> None:
    """The demo's people without a course."""
    call_command("demo_class", "--people")


@pytest.fixture
def browser(live_server: Any) -> Iterator[Browser]:
    """A browser on the live server; the page may not have complained in its console."""
    opened = Browser(live_server.url)
    yield opened
    complaints = [c for c in opened.complaints() if "favicon" not in c]
    opened.close()
    assert complaints == []
