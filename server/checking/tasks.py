"""Work in the background. A job that fails, or dies with its worker, is tried again; after the last try it ends with a
sentence where people see it."""

from __future__ import annotations

import logging
import time
from collections.abc import Callable

from django.db import InterfaceError, OperationalError, close_old_connections
from procrastinate import JobContext, RetryStrategy
from procrastinate.contrib.django import app

log = logging.getLogger(__name__)
MOST_RETRIES = 3
AGAIN = RetryStrategy(max_attempts=MOST_RETRIES, wait=1)
"""Three retries: what fails four times fails for a reason of its own."""
OUTAGE = 120.0
"""Seconds for which a job waits for a database that went away under it, before the try counts as failed."""


@app.task(name="checking.tasks.receive_batch", queue="batches", retry=AGAIN, pass_context=True)
def receive_batch(context: JobContext, batch: int) -> None:
    """Divide a batch into submissions."""
    from intake.services import divide, give_up

    _tried(context, lambda: divide(batch), lambda: give_up(batch))


@app.task(name="checking.tasks.run_checks", queue="checks", retry=AGAIN, pass_context=True)
def run_checks(context: JobContext, checks: list[int]) -> None:
    """Check attempts."""
    from .services import give_up, run

    _tried(context, lambda: run(checks), lambda: give_up(checks))


@app.task(name="checking.tasks.finish_class", queue="batches", retry=AGAIN, pass_context=True)
def finish_class(context: JobContext, assignment: int) -> None:
    """Finish the class results."""
    from . import services

    _tried(context, lambda: services.finish_class(assignment), lambda: None)


def _tried(context: JobContext, work: Callable[[], None], give_up: Callable[[], None]) -> None:
    """Do the work; in an outage of the database wait and do it again; after the last retry give up."""
    end = time.monotonic() + OUTAGE
    while True:
        try:
            work()
            return
        except (OperationalError, InterfaceError):
            close_old_connections()
            if time.monotonic() > end:
                raise
            log.warning("The database went away; the job waits and goes on", extra={"job": context.job.id})
            time.sleep(1)
        except Exception:
            if context.job.attempts >= MOST_RETRIES:
                give_up()
            raise
