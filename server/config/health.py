"""Whether this server can answer, and whether the whole of Partitor can work."""

from __future__ import annotations

from typing import Any

from django.db import OperationalError, connection
from django.db.migrations.executor import MigrationExecutor
from django.http import HttpRequest, HttpResponse, JsonResponse

QUIET_WORKER = 15
"""Seconds without a sign of life after which a worker counts as gone."""
OLD_JOB = 120
"""Seconds for which the first job in the queue may wait while workers are there."""


def healthy(request: HttpRequest) -> HttpResponse:
    """Answers once the server can reach its database: what a load balancer asks."""
    with connection.cursor() as cursor:
        cursor.execute("SELECT 1")
    return HttpResponse("ok", content_type="text/plain")


def ready(request: HttpRequest) -> JsonResponse:
    """Database, migrations, workers and queue: 200 where all are well, else 503 with what is not."""
    try:
        found = state()
    except OperationalError:
        return JsonResponse({"ready": False, "problems": ["The database does not answer."]}, status=503)
    return JsonResponse(found, status=200 if found["ready"] else 503)


def state() -> dict[str, Any]:
    """What `ready` answers. Times are in seconds."""
    executor = MigrationExecutor(connection)
    waiting = len(executor.migration_plan(executor.loader.graph.leaf_nodes()))
    with connection.cursor() as cursor:
        cursor.execute(
            "SELECT count(*), extract(epoch FROM now() - max(last_heartbeat)) FROM procrastinate_workers"
            " WHERE last_heartbeat > now() - %s * interval '1 second'",
            [QUIET_WORKER],
        )
        workers, heard = cursor.fetchone()
        cursor.execute(
            "SELECT count(*), extract(epoch FROM now() - min(e.at)) FROM procrastinate_jobs j"
            " JOIN procrastinate_events e ON e.job_id = j.id AND e.type = 'deferred' WHERE j.status = 'todo'"
        )
        jobs, oldest = cursor.fetchone()
    problems = []
    if waiting:
        problems.append(f"{waiting} migrations have not run.")
    if not workers:
        problems.append("No worker gives a sign of life: nothing is checked.")
    elif oldest is not None and oldest > OLD_JOB:
        problems.append(f"The first of {jobs} jobs has waited for {oldest:.0f} s.")
    return {
        "ready": not problems,
        "problems": problems,
        "workers": workers,
        "last_sign_of_life": None if heard is None else round(float(heard), 1),
        "waiting_jobs": jobs,
        "oldest_job": None if oldest is None else round(float(oldest), 1),
    }
