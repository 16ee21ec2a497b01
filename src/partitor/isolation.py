"""Calls in a child process with limits, so that no input can hang, fill or end the process that asks.

A child serves one call after the other. It is ended, and the next call gets a fresh one, when a call uses more
processor time, wall time or memory than its limits say, or gives too large an answer.
"""

from __future__ import annotations

import multiprocessing
import os
import pickle
import resource
import signal
import time
from collections.abc import Callable, Iterator, Sequence
from contextlib import suppress
from multiprocessing.connection import Connection, wait
from typing import Any

import msgspec

from .errors import PartitorError, where

CALLS_OF_A_CHILD = 200
"""Calls after which a child is replaced, so that what its memory collects stays small."""
LOADED = ["partitor.check", "partitor.reading.collect"]
"""Modules that are loaded once, in the process from which children are forked."""


class CallLimits(msgspec.Struct, frozen=True):
    """What one call may use: processor and wall time in seconds; memory beyond what the child has at its start, and
    the pickled answer, in bytes."""

    cpu_seconds: int = 30
    wall_seconds: float = 90.0
    memory: int = 1_500_000_000
    answer: int = 64_000_000


class Stopped(PartitorError):
    """A call passed a limit and was ended; the message is a clause that says which."""


class Failed(Exception):
    """An error of ours inside the child; the message is its kind and where it happened, for the log."""


class Child:
    """A process that serves calls. `method` is how it is started: "forkserver" where this process has threads or
    connections that a fork would copy, "fork" elsewhere, which is quicker."""

    def __init__(self, limits: CallLimits, method: str = "forkserver") -> None:
        self.limits = limits
        self.context: Any = multiprocessing.get_context(method)
        self.calls = 0
        self.until = 0.0
        self.process: Any = None
        self.connection: Connection | None = None
        if method == "forkserver":
            self.context.set_forkserver_preload(LOADED)

    def call(self, function: Callable[..., Any], *arguments: Any) -> Any:
        """What `function` (of a module) gives. Raises Stopped past a limit, Failed for an error of ours, and whatever
        PartitorError it raises itself."""
        self.begin(function, *arguments)
        assert self.connection is not None
        self.connection.poll(max(0.0, self.until - time.monotonic()))
        return self.answer()

    def begin(self, function: Callable[..., Any], *arguments: Any) -> None:
        """Start a call; `answer` ends it."""
        if self.calls >= CALLS_OF_A_CHILD:
            self.close()
        call = pickle.dumps((function, arguments))
        try:
            self._connected().send_bytes(call)
        except OSError:  # it was ended between two calls, by the system or a person
            self.close()
            self._connected().send_bytes(call)
        self.calls += 1
        self.until = time.monotonic() + self.limits.wall_seconds

    def answer(self) -> Any:
        """The answer of the call that was begun: it must be there, or the call be out of time."""
        assert self.connection is not None
        if not self.connection.poll(0):
            self.close()
            raise Stopped(f"took more than {self.limits.wall_seconds:g} s")
        try:
            data = self.connection.recv_bytes(self.limits.answer)
        except EOFError:
            raise Stopped(self._why_it_ended()) from None
        except OSError:
            self.close()
            raise Stopped(f"gave an answer of more than {self.limits.answer // 1_000_000} MB") from None
        how, what = pickle.loads(data)
        if how == "memory":
            self.close()
            raise Stopped(self._too_much_memory())
        if how == "failed":
            raise Failed(what)
        if how == "raised":
            raise what
        return what

    def close(self) -> None:
        """End the process, whatever it does."""
        if self.process is not None:
            self.process.kill()
            self.process.join()
        if self.connection is not None:
            self.connection.close()
        self.process = self.connection = None
        self.calls = 0

    def _connected(self) -> Connection:
        if self.connection is None or not self.process.is_alive():
            self.close()
            self.connection, theirs = self.context.Pipe()
            self.process = self.context.Process(target=_serve, args=(theirs, self.limits), daemon=True)
            self.process.start()
            theirs.close()
        assert self.connection is not None
        return self.connection

    def _why_it_ended(self) -> str:
        self.process.join(5)
        code = self.process.exitcode
        self.close()
        if code == -signal.SIGXCPU:
            return f"used more than {self.limits.cpu_seconds} s of processor time"
        return self._too_much_memory()

    def _too_much_memory(self) -> str:
        return f"needed more than {self.limits.memory // 1_000_000} MB of memory"


def in_children(
    function: Callable[..., Any], calls: Sequence[Any], limits: CallLimits, count: int
) -> Iterator[Any | Stopped | Failed]:
    """`function` of each of `calls`, in their order, by so many children at a time; an error in place of an answer."""
    children = [Child(limits, "fork") for _ in range(max(1, min(count, len(calls))))]
    idle, busy = list(children), dict[int, Child]()
    results: dict[int, Any] = {}
    begun = given = 0
    try:
        while given < len(calls):
            while idle and begun < len(calls):
                child = idle.pop()
                child.begin(function, calls[begun])
                busy[begun] = child
                begun += 1
            for number in _answered(busy):
                child = busy.pop(number)
                try:
                    results[number] = child.answer()
                except (Stopped, Failed) as problem:
                    results[number] = problem
                idle.append(child)
            while given in results:
                yield results.pop(given)
                given += 1
    finally:
        for child in children:
            child.close()


def _answered(busy: dict[int, Child]) -> list[int]:
    """The numbers of the calls that are answered or out of time, after waiting for the first."""
    left = min(child.until for child in busy.values()) - time.monotonic()
    ready = set(wait([child.connection for child in busy.values() if child.connection], max(0.0, left)))
    now = time.monotonic()
    return [number for number, child in busy.items() if child.connection in ready or child.until <= now]


# -- in the child ----------------------------------------------------------------------------------


def _serve(connection: Connection, limits: CallLimits) -> None:
    """Answer calls until the other end is closed or a limit ends this process."""
    signal.signal(signal.SIGINT, signal.SIG_IGN)  # a Ctrl-C is for the process that asks
    signal.signal(signal.SIGXCPU, signal.SIG_DFL)
    resource.setrlimit(resource.RLIMIT_CORE, (0, 0))
    allowed = _mapped() + limits.memory
    resource.setrlimit(resource.RLIMIT_AS, (allowed, allowed))
    with suppress(EOFError, OSError, KeyboardInterrupt):
        while True:
            function, arguments = pickle.loads(connection.recv_bytes())
            _allow_processor_time(limits.cpu_seconds)
            answer = _answer(function, arguments)
            connection.send_bytes(answer)
    os._exit(0)


def _answer(function: Callable[..., Any], arguments: tuple[Any, ...]) -> bytes:
    try:
        return pickle.dumps(("done", function(*arguments)))
    except PartitorError as problem:
        return pickle.dumps(("raised", problem))
    except MemoryError:
        return pickle.dumps(("memory", ""))
    except Exception as problem:
        return pickle.dumps(("failed", "; ".join(where(problem))))


def _allow_processor_time(seconds: int) -> None:
    """Let this process be ended by the system after so many more seconds of processor time."""
    used = resource.getrusage(resource.RUSAGE_SELF)
    _, most = resource.getrlimit(resource.RLIMIT_CPU)
    resource.setrlimit(resource.RLIMIT_CPU, (int(used.ru_utime + used.ru_stime) + 1 + seconds, most))


def _mapped() -> int:
    """Bytes of address space that this process has."""
    with open("/proc/self/statm") as counts:
        return int(counts.read().split()[0]) * resource.getpagesize()
