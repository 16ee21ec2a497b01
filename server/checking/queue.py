"""How work is put on the queue: by task name, in the transaction that stores what it is about."""

from __future__ import annotations

from procrastinate.contrib.django import app


def defer_receive(batch: int, assignment: int) -> None:
    """Queue the dividing of a batch. Batches of one assignment are divided one after the other, in the
    order they came in, so that attempts are numbered as they were handed in."""
    app.configure_task("checking.tasks.receive_batch", queue="batches", lock=f"assignment-{assignment}").defer(
        batch=batch
    )


def defer_check(check: int) -> None:
    """Queue one check."""
    app.configure_task("checking.tasks.run_check", queue="checks").defer(check=check)


def defer_finish(assignment: int) -> None:
    """Queue the finishing of a class's results."""
    app.configure_task("checking.tasks.finish_class", queue="batches").defer(assignment=assignment)
