"""Work in the background. A job that dies with its worker is tried again by another."""

from __future__ import annotations

from procrastinate import RetryStrategy
from procrastinate.contrib.django import app

AGAIN = RetryStrategy(max_attempts=3, wait=1)


@app.task(name="checking.tasks.receive_batch", queue="batches", retry=AGAIN)
def receive_batch(batch: int) -> None:
    """Divide a batch into submissions."""
    from intake.models import Batch
    from intake.services import divide

    divide(Batch.objects.select_related("assignment__course").get(pk=batch))


@app.task(name="checking.tasks.run_check", queue="checks", retry=AGAIN)
def run_check(check: int) -> None:
    """Check one attempt."""
    from .services import run

    run(check)


@app.task(name="checking.tasks.finish_class", queue="batches", retry=AGAIN)
def finish_class(assignment: int) -> None:
    """Finish the class results."""
    from assignments.models import Assignment

    from . import services

    services.finish_class(Assignment.objects.get(pk=assignment))


@app.periodic(cron="*/2 * * * *")
@app.task(name="checking.tasks.take_up_lost_jobs", queue="batches", pass_context=False)
async def take_up_lost_jobs(timestamp: int) -> None:
    """Give jobs whose worker died back to the queue."""
    for job in await app.job_manager.get_stalled_jobs(seconds_since_heartbeat=120):
        await app.job_manager.retry_job(job)
