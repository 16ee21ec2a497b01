"""A batch while workers, server and database are killed at random: at its end everything is there exactly once.

usage: chaos.py [PROGRAMS] [KILLS] [SEED]

Runs on a database, workers and a server of its own, started here; `./run chaos` sets the environment. Exits with 1
where anything is lost, doubled, or left unfinished.
"""

from __future__ import annotations

import os
import random
import signal
import subprocess
import sys
import time
import urllib.error
import urllib.request
from collections import Counter
from pathlib import Path

import django

ROOT = Path(__file__).resolve().parents[1]
os.environ.setdefault("DJANGO_SETTINGS_MODULE", "config.settings")
django.setup()

from django.contrib.auth import get_user_model  # noqa: E402
from django.core.files.uploadedfile import SimpleUploadedFile  # noqa: E402
from django.core.management import call_command  # noqa: E402
from django.db import InterfaceError, OperationalError, close_old_connections  # noqa: E402
from throughput import ASSIGNMENT, class_zip  # noqa: E402

from assignments.services import create_assignment  # noqa: E402
from checking.models import Check  # noqa: E402
from courses.services import create_course  # noqa: E402
from intake.models import Batch  # noqa: E402
from intake.services import receive  # noqa: E402

LONGEST = 600
"""Seconds after the last kill within which everything has to be finished."""
PORT = os.environ.get("PARTITOR_PORT", "8590")


class Kept:
    """A process that is started again whenever it was killed, as `./run` does."""

    def __init__(self, *command: str) -> None:
        self.command = command
        self.process = subprocess.Popen(command, cwd=ROOT / "server")

    def kill(self) -> None:
        """End it without any chance to tidy up, and start the next."""
        self.process.send_signal(signal.SIGKILL)
        self.process.wait()
        self.process = subprocess.Popen(self.command, cwd=ROOT / "server")

    def stop(self) -> None:
        """End it for good."""
        self.process.terminate()
        try:
            self.process.wait(20)
        except subprocess.TimeoutExpired:
            self.process.kill()


def restart_database(how: str) -> None:
    """Stop the private cluster at once, as a crash would, and start it again after a moment."""
    folder, binaries, port = (os.environ[f"PARTITOR_PG_{name}"] for name in ("DIR", "BIN", "PORT"))
    as_owner = ["runuser", "-u", "postgres", "--"] if os.getuid() == 0 else []
    control = [*as_owner, f"{binaries}/pg_ctl", "-D", folder, "-s", "-w"]
    subprocess.run([*control, "-m", how, "stop"], check=False, cwd="/")
    time.sleep(random.uniform(0.2, 2.0))
    options = f"-c listen_addresses=127.0.0.1 -p {port} -c unix_socket_directories=''"
    subprocess.run([*control, "-l", f"{folder}/log", "-o", options, "start"], check=True, cwd="/")


def answered() -> tuple[int, str]:
    """What the server says to a person's browser: its status and words."""
    try:
        with urllib.request.urlopen(f"http://127.0.0.1:{PORT}/api/session", timeout=10) as answer:
            return answer.status, ""
    except urllib.error.HTTPError as problem:
        return problem.code, problem.read().decode(errors="replace")
    except OSError:
        return 0, ""


def finished(batch: int) -> bool:
    """True once the batch has ended; False while the database is away."""
    try:
        close_old_connections()
        return Batch.objects.get(pk=batch).state not in {Batch.State.RECEIVED, Batch.State.CHECKING}
    except (OperationalError, InterfaceError):
        return False


def wrong(batch: Batch, count: int) -> list[str]:
    """What is lost, doubled or unfinished, in sentences."""
    said = []
    names = Counter(batch.attempts.values_list("submission__name", flat=True))
    if len(names) != count or set(names.values()) != {1}:
        said.append(f"{count} programs went in, {len(names)} are there, {sum(names.values()) - len(names)} twice")
    checks = Check.objects.filter(attempt__batch=batch)
    states = Counter(checks.values_list("state", flat=True))
    if states != {"done": count}:
        said.append(f"checks: {dict(states)}")
    for check in checks.select_related("attempt").filter(state="done"):
        attempt, report = check.attempt, check.record()
        remarks = Counter(attempt.remarks.values_list("finding", flat=True))
        if remarks != Counter(f.id for f in report.findings):
            said.append(f"{attempt.received_as}: remarks do not fit the report")
        if attempt.marks.count() != len(report.scores):
            said.append(f"{attempt.received_as}: {attempt.marks.count()} marks, not {len(report.scores)}")
    if batch.state != Batch.State.DONE:
        said.append(f"the batch is {batch.state}: {batch.problem}")
    return said


def main(count: int, kills: int, seed: int) -> int:
    """Run it; the exit status."""
    drawn = random.Random(seed)
    random.seed(seed)
    call_command("migrate", verbosity=0)
    user, _ = get_user_model().objects.get_or_create(username="chaos")
    assignment = create_assignment(create_course(user, "Chaos", ""), user, ASSIGNMENT)
    python = sys.executable
    server = Kept(
        python, "-m", "gunicorn", "config.wsgi", "--bind", f"127.0.0.1:{PORT}", "--workers", "2", "--threads", "4"
    )
    workers = [Kept(python, "manage.py", "work") for _ in range(2)]
    batch = receive(assignment, user, [SimpleUploadedFile("class.zip", class_zip(count))])
    done: Counter[str] = Counter()
    unplain: Counter[str] = Counter()
    for _ in range(kills):
        time.sleep(drawn.uniform(0.3, 1.6))
        what = drawn.choices(("worker", "server", "database"), (6, 2, 2))[0]
        done[what] += 1
        if what == "worker":
            drawn.choice(workers).kill()
        elif what == "server":
            server.kill()
        else:
            restart_database(drawn.choice(("immediate", "fast")))
        status, words = answered()
        if status not in {0, 200} and '"detail"' not in words:
            unplain[f"{status} {words[:80]}"] += 1
    last = time.monotonic()
    while not finished(batch.pk) and time.monotonic() - last < LONGEST:
        time.sleep(0.5)
    took = time.monotonic() - last
    for kept in (*workers, server):
        kept.stop()
    close_old_connections()
    batch.refresh_from_db()
    problems = wrong(batch, count)
    print(f"{count} programs, {kills} kills (seed {seed}): {dict(done)}; finished {took:.0f} s after the last kill")
    print(f"{len(problems)} lost, doubled or unfinished; {sum(unplain.values())} answers without a sentence")
    for problem in [*problems[:20], *unplain]:
        print(f"  {problem}")
    return 1 if problems or unplain else 0


if __name__ == "__main__":
    given = [int(argument) for argument in sys.argv[1:]]
    sys.exit(main(*given, *(300, 50, 29)[len(given) :]))
