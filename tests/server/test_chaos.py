"""A short chaos: two real workers, one killed again and again, and all is there exactly once at the end."""

import os
import random
import signal
import subprocess
import sys
import time
from pathlib import Path

import pytest
from api_client import hand_in
from chaos import class_zip, wrong
from django.conf import settings
from django.db import connection

from config.health import state

SERVER = Path(settings.ROOT) / "server"


@pytest.fixture
def workers(_real_database):
    """Starts workers on the tests' own database; those that are left are ended."""
    started = []

    def start():
        environment = {**os.environ, "PARTITOR_DB_NAME": connection.settings_dict["NAME"]}
        environment["PARTITOR_UPLOADS"] = str(settings.UPLOADS)
        started.append(subprocess.Popen([sys.executable, "manage.py", "work"], cwd=SERVER, env=environment))
        return started[-1]

    yield start
    for process in started:
        process.kill()
        process.wait()


def wait_until(done, seconds):
    end = time.monotonic() + seconds
    while not done():
        assert time.monotonic() < end, "it is not done in time"
        time.sleep(0.1)


def test_killed_workers_lose_and_double_nothing(assignment, people, workers):
    count, drawn = 60, random.Random(29)
    running = [workers(), workers()]
    batch = hand_in(assignment, people["ines"], class_zip(count))
    for _ in range(4):
        time.sleep(drawn.uniform(0.5, 2.0))
        victim = running.pop(0)
        victim.send_signal(signal.SIGKILL)
        victim.wait()
        running.append(workers())

    def ended():
        batch.refresh_from_db()
        return batch.state not in {"received", "checking"}

    wait_until(ended, 120)
    assert wrong(batch, count) == []


def test_the_job_of_a_killed_worker_is_taken_up_within_15_seconds(assignment, people, workers):
    first = workers()
    wait_until(lambda: state()["workers"] == 1, 30)
    text = "".join(f"def f{n}(a):\n    b = a * {n}\n    print(a, b)\n    return b + f{n + 1}(a)\n" for n in range(3000))
    hand_in(assignment, people["ines"], text.encode(), "long_1.py")
    wait_until(lambda: batch_check(assignment) == "running", 30)
    second = workers()
    wait_until(lambda: state()["workers"] == 2, 30)
    first.send_signal(signal.SIGKILL)
    begin = time.monotonic()
    wait_until(lambda: attempts_of_the_job() == 1, 25)
    assert time.monotonic() - begin < 15
    assert second.poll() is None


def batch_check(assignment):
    check = assignment.batches.get().attempts.values_list("checks__state", flat=True).first()
    return check


def attempts_of_the_job():
    with connection.cursor() as cursor:
        cursor.execute("SELECT max(attempts) FROM procrastinate_jobs WHERE task_name = 'checking.tasks.run_checks'")
        return cursor.fetchone()[0]


def test_ready_says_what_is_wrong(db, client):
    answer = client.get("/ready")
    assert answer.status_code == 503
    assert answer.json()["problems"] == ["No worker gives a sign of life: nothing is checked."]
