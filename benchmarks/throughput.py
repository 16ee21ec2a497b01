"""A class of 400 programs of 65 lines, from the upload to all results, with one worker and with two; what each part
costs; and how long the views of such a class take. Everything on a real database with real workers.

usage: throughput.py [PROGRAMS]
"""

from __future__ import annotations

import io
import os
import random
import resource
import subprocess
import sys
import time
import zipfile
from collections.abc import Callable
from pathlib import Path
from typing import Any

import django

ROOT = Path(__file__).resolve().parents[1]
os.environ.setdefault("DJANGO_SETTINGS_MODULE", "config.settings")
django.setup()

from django.contrib.auth import get_user_model  # noqa: E402
from django.core.files.uploadedfile import SimpleUploadedFile  # noqa: E402
from django.core.management import call_command  # noqa: E402
from django.db import connection  # noqa: E402
from django.test import Client  # noqa: E402
from django.test.utils import CaptureQueriesContext  # noqa: E402
from procrastinate.contrib.django import app  # noqa: E402

from assignments.models import Assignment  # noqa: E402
from assignments.services import create_assignment  # noqa: E402
from checking import services as checking  # noqa: E402
from checking.models import Check  # noqa: E402
from config import children  # noqa: E402
from courses.services import create_course  # noqa: E402
from intake import services as intake  # noqa: E402
from partitor.reading.encoding import decode  # noqa: E402

LINES = 65
ASSIGNMENT = (ROOT / "demo" / "sluice-gates" / "assignment.toml").read_text()


def class_zip(count: int) -> bytes:
    """So many programs of about 65 lines, each of the demo's joined and with numbers of its own."""
    drawn = random.Random(29)
    found = (decode(p.read_bytes()) for p in sorted((ROOT / "demo/sluice-gates/submissions").glob("*.py")))
    texts = [one.text for one in found if one is not None]
    out = io.BytesIO()
    with zipfile.ZipFile(out, "w", zipfile.ZIP_DEFLATED) as archive:
        for number in range(count):
            lines: list[str] = []
            while len(lines) < LINES:
                lines += drawn.choice(texts).splitlines()
            text = "\n".join(lines[:LINES]).replace("310", str(300 + number % 97))
            archive.writestr(f"Student {number:04d}_gates.py", text + "\n")
    return out.getvalue()


def workers(count: int) -> list[subprocess.Popen[bytes]]:
    """So many workers, each in a process of its own."""
    command = [sys.executable, str(ROOT / "server" / "manage.py"), "work"]
    return [subprocess.Popen(command) for _ in range(count)]


def end_to_end(assignment: Assignment, user: Any, data: bytes, count: int) -> None:
    """Print seconds to the first and to all results, with so many workers."""
    started = workers(count)
    time.sleep(4)  # they are there before the class comes, as on any evening
    begin, first = time.monotonic(), 0.0
    batch = intake.receive(assignment, user, [SimpleUploadedFile("class.zip", data)])
    while True:
        done = Check.objects.filter(attempt__batch=batch, state="done").count()
        first = first or (time.monotonic() - begin if done else 0.0)
        batch.refresh_from_db()
        if batch.state == "done":
            break
        time.sleep(0.1)
    took = time.monotonic() - begin
    for process in started:
        process.terminate()
        process.wait()
    rate = batch.attempts.count() / took
    print(f"  {count} worker{'s' * (count > 1)}: first result {first:.1f} s, all {took:.1f} s, {rate:.0f} a second")


def timed(parts: dict[str, float], name: str, holder: Any, function: str) -> Callable[[], None]:
    """Count the time spent in a function under a name; gives what puts the function back."""
    real = getattr(holder, function)

    def counted(*arguments: Any, **named: Any) -> Any:
        begin = time.perf_counter()
        try:
            return real(*arguments, **named)
        finally:
            parts[name] = parts.get(name, 0.0) + time.perf_counter() - begin

    setattr(holder, function, counted)
    return lambda: setattr(holder, function, real)


def cost_split(assignment: Assignment, user: Any, data: bytes) -> None:
    """Print what unpacking, storing, queueing, checking and writing cost, one after the other in this process."""
    parts: dict[str, float] = {}
    undo = [
        timed(parts, "unpack", children, "read"),
        timed(parts, "store", intake, "store_attempts"),
        timed(parts, "queue", intake, "defer_checks"),
        timed(parts, "check", checking, "outcome"),
        timed(parts, "write", checking, "keep"),
    ]
    batch = intake.receive(assignment, user, [SimpleUploadedFile("class.zip", data)])
    intake.divide(batch.pk)
    numbers = list(Check.objects.filter(attempt__batch=batch).order_by("pk").values_list("pk", flat=True))
    for start in range(0, len(numbers), 8):
        checking.run(numbers[start : start + 8])
    for put_back in undo:
        put_back()
    parts["store"] -= parts["queue"]
    whole = sum(parts.values())
    print("  " + ", ".join(f"{name} {took:.1f} s ({took / whole:.0%})" for name, took in parts.items()))
    own = resource.getrusage(resource.RUSAGE_SELF).ru_maxrss
    print(f"  memory of the process that asks: {own / 1024:.0f} MB at most")


def views(assignment: Assignment, user: Any) -> None:
    """Print milliseconds, compressed size and queries of the views of this class."""
    client = Client(headers={"accept-encoding": "gzip", "host": "127.0.0.1"})
    client.force_login(user)
    submission = assignment.submissions.first()
    batch = assignment.batches.first()
    for name, path in [
        ("class", f"assignments/{assignment.pk}/class"),
        ("return", f"assignments/{assignment.pk}/return"),
        ("desk", f"submissions/{submission.pk}"),
        ("batch", f"batches/{batch.pk}"),
        ("courses", "courses"),
    ]:
        took = []
        for _ in range(5):
            begin = time.perf_counter()
            with CaptureQueriesContext(connection) as queries:
                answer = client.get(f"/api/{path}")
            took.append(time.perf_counter() - begin)
        size = len(answer.content) / 1000
        print(f"  {name}: {1000 * sorted(took)[2]:.0f} ms, {size:.0f} kB, {len(queries)} queries")


def main(count: int) -> None:
    """Print everything."""
    call_command("migrate", verbosity=0)
    user, _ = get_user_model().objects.get_or_create(username="bench")
    data = class_zip(count)
    with connection.cursor() as cursor:
        cursor.execute("TRUNCATE procrastinate_jobs RESTART IDENTITY CASCADE")
    print(f"{count} programs of {LINES} lines, {len(data) / 1000:.0f} kB")
    for number in (1, 2):
        assignment = create_assignment(create_course(user, f"With {number}", ""), user, ASSIGNMENT)
        end_to_end(assignment, user, data, number)
    print("what it costs, one after the other:")
    assignment = create_assignment(create_course(user, "Split", ""), user, ASSIGNMENT)
    cost_split(assignment, user, data)
    print("views:")
    views(assignment, user)


if __name__ == "__main__":
    assert app is not None
    main(int(sys.argv[1]) if len(sys.argv) > 1 else 400)
