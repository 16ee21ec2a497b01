"""Log lines: JSON with time, level and what it is about (request, job, check), never anything that a student wrote."""

from __future__ import annotations

import re
from typing import Any

import structlog

from partitor.errors import where

ABOUT = ["job", "check", "batch", "kind", "status"]
"""What a line may carry beside its words: numbers and kinds, no text of people."""


PRIVATE = re.compile(r"/s/\w+")


def where_it_happened(logger: Any, method: str, line: dict[str, Any]) -> dict[str, Any]:
    """The kind of an error and its frames in place of its message, which may hold a person's words."""
    problem = line.pop("exc_info", None)
    if isinstance(problem, tuple):
        problem = problem[1]
    if isinstance(problem, BaseException):
        line["kind"], *line["frames"] = where(problem)
    return line


def without_keys(logger: Any, method: str, line: dict[str, Any]) -> dict[str, Any]:
    """The line without the keys of students' private pages."""
    line["event"] = PRIVATE.sub("/s/…", str(line["event"]))
    return line


def logging_of(level: str) -> dict[str, Any]:
    """The configuration for Python's own logging, through which all packages speak."""
    return {
        "version": 1,
        "disable_existing_loggers": False,
        "formatters": {
            "json": {
                "()": structlog.stdlib.ProcessorFormatter,
                "foreign_pre_chain": [
                    structlog.contextvars.merge_contextvars,
                    structlog.stdlib.add_log_level,
                    structlog.stdlib.add_logger_name,
                    structlog.stdlib.ExtraAdder(allow=ABOUT),
                    structlog.processors.TimeStamper(fmt="iso", utc=True),
                    where_it_happened,
                    without_keys,
                ],
                "processors": [
                    structlog.stdlib.ProcessorFormatter.remove_processors_meta,
                    structlog.processors.JSONRenderer(),
                ],
            }
        },
        "handlers": {"console": {"class": "logging.StreamHandler", "formatter": "json"}},
        "root": {"handlers": ["console"], "level": "WARNING"},
        "loggers": {
            **{app: {"level": level} for app in ("config", "checking", "intake", "returns", "courses", "partitor")},
            "django.request": {"level": "ERROR"},
            "django.security": {"level": "CRITICAL"},  # a stranger's scan must not fill the log
            "procrastinate": {"level": "ERROR"},
        },
    }
