"""Calls in a child process: what passes a limit is ended with a sentence, and the next call is served."""

import os
import signal
import time

import pytest

from partitor.deadline import Deadline, keeping, look
from partitor.errors import PartitorError, TooCostly
from partitor.isolation import CallLimits, Child, Failed, Stopped, in_children

LIMITS = CallLimits(cpu_seconds=1, wall_seconds=4, memory=300_000_000, answer=1_000_000)


def double(number):
    return 2 * number


def spin(_):
    while True:
        pass


def sleep(_):
    time.sleep(60)


def fill(_):
    return len([bytes(10_000_000) for _ in range(100)])


def talk(_):
    return b"x" * 2_000_000


def refuse(_):
    raise PartitorError("a sentence")


def break_down(_):
    raise ValueError(" of ".join(["words", "a student"]))


def die(_):
    os.kill(os.getpid(), signal.SIGKILL)


@pytest.fixture(params=["fork", "forkserver"])
def child(request):
    child = Child(LIMITS, request.param)
    yield child
    child.close()


@pytest.mark.parametrize(
    ("function", "why"),
    [
        (spin, "used more than 1 s of processor time"),
        (sleep, "took more than 4 s"),
        (fill, "needed more than 300 MB of memory"),
        (talk, "gave an answer of more than 1 MB"),
        (die, "needed more than 300 MB of memory"),
    ],
)
def test_a_call_past_a_limit_is_ended_and_the_next_is_served(child, function, why):
    with pytest.raises(Stopped) as caught:
        child.call(function, 0)
    assert str(caught.value) == why
    assert child.call(double, 21) == 42


def test_processor_time_is_counted_for_each_call_anew(child):
    for _ in range(3):
        assert child.call(busy_for, 0.6)


def busy_for(seconds):
    end = time.process_time() + seconds
    while time.process_time() < end:
        pass
    return True


def test_errors_come_through_without_a_students_words(child):
    with pytest.raises(PartitorError, match="a sentence"):
        child.call(refuse, 0)
    with pytest.raises(Failed) as caught:
        child.call(break_down, 0)
    assert "break_down" in str(caught.value)
    assert "words of a student" not in str(caught.value)


def test_a_child_that_was_killed_between_two_calls_is_replaced(child):
    assert child.call(double, 1) == 2
    os.kill(child.process.pid, signal.SIGKILL)
    child.process.join()
    assert child.call(double, 2) == 4


def mixed(number):
    return {3: die, 5: spin, 7: break_down}.get(number, double)(number)


def test_many_calls_come_back_in_order_whatever_one_of_them_does():
    answers = list(in_children(mixed, range(12), LIMITS, 3))
    assert [type(a) for a in answers if not isinstance(a, int)] == [Stopped, Stopped, Failed]
    assert [a for a in answers if isinstance(a, int)] == [2 * n for n in range(12) if n not in (3, 5, 7)]
    assert list(in_children(double, [], LIMITS, 3)) == []


def test_the_deadline_that_is_looked_at_is_the_innermost():
    look()
    with keeping(Deadline(60)):
        look()
        with keeping(Deadline(-1)), pytest.raises(TooCostly):
            look()
        look()
