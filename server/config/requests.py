"""Gives each request a number that its log lines and its answer carry."""

from __future__ import annotations

import uuid
from collections.abc import Callable

import structlog
from django.http import HttpRequest, HttpResponseBase


class RequestNumber:
    """Middleware: `X-Request-Id` of the answer is `request` in the log."""

    def __init__(self, get_response: Callable[[HttpRequest], HttpResponseBase]) -> None:
        self.get_response = get_response

    def __call__(self, request: HttpRequest) -> HttpResponseBase:
        """The answer to a request."""
        number = uuid.uuid4().hex[:16]
        with structlog.contextvars.bound_contextvars(request=number):
            response = self.get_response(request)
        response["X-Request-Id"] = number
        return response
