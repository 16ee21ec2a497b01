"""How work is put on the queue: by task name, in the transaction that stores what it is about."""

from __future__ import annotations

from collections.abc import Iterable, Sequence

from django.db import transaction
from procrastinate.contrib.django import app
from procrastinate.exceptions import AlreadyEnqueued

TOGETHER = 8
"""Small submissions that one job checks: few enough that the first result comes soon and a dead worker costs little."""
LARGE = 20_000
"""Characters of a program from which it is checked by a job of its own."""
FIRST = 10
"""Priority of what people wait for most: that a batch is divided, so that they see what is in it."""


def defer_receive(batch: int, assignment: int) -> None:
    """Queue the dividing of a batch. Batches of one assignment are divided one after the other, in the
    order they came in, so that attempts are numbered as they were handed in."""
    app.configure_task(
        "checking.tasks.receive_batch", queue="batches", lock=f"assignment-{assignment}", priority=FIRST
    ).defer(batch=batch)


def defer_checks(checks: Iterable[tuple[int, int]], before: int = 0) -> None:
    """Queue checks, (id, characters of the program) each. Jobs are served in turns: the n-th of one batch before the
    (n+1)-th of any other, so that a small class does not wait behind a huge one; `before` counts the batch's own that
    are queued already."""
    for number, group in enumerate(grouped(checks)):
        app.configure_task("checking.tasks.run_checks", queue="checks", priority=-(before // TOGETHER + number)).defer(
            checks=list(group)
        )


def grouped(checks: Iterable[tuple[int, int]]) -> list[Sequence[int]]:
    """Checks that go into one job: several small ones, a large one by itself.

    >>> grouped([(1, 50), (2, 90_000), (3, 60)])
    [[2], [1, 3]]
    """
    small = []
    groups: list[Sequence[int]] = []
    for check, size in checks:
        if size >= LARGE:
            groups.append([check])
        else:
            small.append(check)
    return groups + [small[k : k + TOGETHER] for k in range(0, len(small), TOGETHER)]


def defer_finish(assignment: int) -> None:
    """Queue the finishing of a class's results; a job for it that waits already is enough."""
    try:
        with transaction.atomic():
            app.configure_task(
                "checking.tasks.finish_class", queue="batches", queueing_lock=f"finish-{assignment}"
            ).defer(assignment=assignment)
    except AlreadyEnqueued:
        pass  # the one that waits will see the newest results too
