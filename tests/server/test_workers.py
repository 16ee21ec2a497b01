"""A worker that dies loses nothing, and two people do not tread on each other."""

from api_client import demo_zip, hand_in, queued
from procrastinate.contrib.django.models import ProcrastinateJob

from checking.models import Check
from checking.services import run
from intake.models import Attempt


def test_a_check_that_was_begun_by_a_dead_worker_is_done_by_the_next(assignment, people, work):
    hand_in(assignment, people["ines"], demo_zip("Nadia"))
    from intake.services import divide

    divide(assignment.batches.get().pk)
    check = Check.objects.get()
    Check.objects.filter(pk=check.pk).update(state=Check.State.RUNNING)
    work()
    check.refresh_from_db()
    assert check.state == "done"
    assert check.attempt.remarks.count() == check.remark_count


def test_a_check_that_runs_twice_gives_each_remark_once(checked):
    check = Check.objects.filter(state="done").first()
    before = list(check.attempt.remarks.values_list("pk", "key"))
    Check.objects.filter(pk=check.pk).update(state=Check.State.QUEUED)
    run([check.pk])
    assert list(check.attempt.remarks.values_list("pk", "key")) == before


def test_a_check_whose_submission_is_gone_is_no_error(checked):
    check = Check.objects.filter(state="done").first()
    number = check.pk
    check.attempt.submission.delete()
    run([number])
    assert not Attempt.objects.filter(checks=number).exists()


def test_batches_of_one_assignment_are_divided_one_after_the_other(assignment, people):
    for name in ("Nadia", "Salma"):
        hand_in(assignment, people["ines"], demo_zip(name))
    assert queued() == ["checking.tasks.receive_batch"] * 2
    locks = set(ProcrastinateJob.objects.values_list("lock", flat=True))
    assert locks == {f"assignment-{assignment.pk}"}
