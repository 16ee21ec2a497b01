"""A worker: takes jobs off the queue, requeues those of workers that died, and outlives the database's restarts."""

from __future__ import annotations

import asyncio
import logging
import signal
import sys
import threading
import time
from typing import Any

from django.core.management.base import BaseCommand
from django.db import OperationalError, close_old_connections, connection
from procrastinate import App, exceptions, jobs
from procrastinate.contrib.django import app

from checking.tasks import MOST_RETRIES
from config import children

log = logging.getLogger(__name__)
QUEUES = ["batches", "checks"]
HEARTBEAT, STALLED = 1.5, 6.0
"""Seconds between a worker's signs of life, and seconds without one after which it counts as dead."""
SWEEP = 2.0
"""Seconds between two looks for jobs of dead workers: with the above, a lost job is taken up within 15."""
POLLING = 2.0
"""Seconds between two looks for jobs whose announcement was missed."""


class Command(BaseCommand):
    """`manage.py work`: runs until it is told to stop."""

    help = "Check what is handed in, until stopped."
    stopping = False

    def handle(self, *args: Any, **options: Any) -> None:
        """Work; when the database goes away wait for it, say so, and go on."""
        for number in (signal.SIGTERM, signal.SIGINT):
            signal.signal(number, self._stop)
        # Beside the work: a worker that starts can take up the jobs of a dead one at once.
        threading.Thread(target=children.warm, daemon=True).start()
        while not self.stopping:
            try:
                asyncio.run(self._work())
            except (exceptions.ConnectorException, OperationalError, OSError) as problem:
                log.warning("The worker lost the database", exc_info=problem)
                time.sleep(1)
            self._wait_for_database()

    def _stop(self, *_: Any) -> None:
        self.stopping = True
        sys.exit(0)

    async def _work(self) -> None:
        # An app of its own for fetching jobs: tasks queue further ones through Django's connection, in the transaction
        # that stores what they are about.
        own = app.with_connector(app.connector.get_worker_connector())  # type: ignore[attr-defined]
        async with own.open_async():
            sweep = asyncio.create_task(_sweep(own))
            try:
                await own.run_worker_async(
                    queues=QUEUES,
                    concurrency=1,
                    delete_jobs="successful",
                    fetch_job_polling_interval=POLLING,
                    update_heartbeat_interval=HEARTBEAT,
                    stalled_worker_timeout=STALLED,
                )
                self.stopping = True
            finally:
                sweep.cancel()

    def _wait_for_database(self) -> None:
        said = False
        while not self.stopping:
            try:
                close_old_connections()
                connection.ensure_connection()
                return
            except OperationalError:
                if not said:
                    log.warning("The database does not answer; the worker waits for it")
                said = True
                time.sleep(1)


async def _sweep(own: App) -> None:
    """Give jobs whose worker died back to the queue, or end them where they died too often."""
    while True:
        await asyncio.sleep(SWEEP)
        try:
            await _take_up_lost_jobs(own)
        except (exceptions.ConnectorException, OperationalError) as problem:
            log.warning("Jobs of dead workers could not be looked for; the next look comes soon", exc_info=problem)


async def _take_up_lost_jobs(own: App) -> None:
    await own.job_manager.prune_stalled_workers(STALLED)
    for job in await own.job_manager.get_stalled_jobs(seconds_since_heartbeat=STALLED):
        if job.attempts < MOST_RETRIES:
            await own.job_manager.retry_job(job)
            continue
        await asyncio.to_thread(_give_up, job)
        await own.job_manager.finish_job(job, status=jobs.Status.FAILED, delete_job=False)


def _give_up(job: jobs.Job) -> None:
    from checking.services import give_up
    from intake.services import give_up as give_batch_up

    if job.task_name.endswith("run_checks"):
        give_up(job.task_kwargs["checks"])
    elif job.task_name.endswith("receive_batch"):
        give_batch_up(job.task_kwargs["batch"])
