"""Every error is one sentence: in `detail` for the API, on a page of ours for a person."""

from __future__ import annotations

import sys
from typing import Any

from django.db import DataError, IntegrityError, InterfaceError, OperationalError
from django.http import HttpRequest, HttpResponse, HttpResponseBase, JsonResponse
from rest_framework import status
from rest_framework.exceptions import ValidationError
from rest_framework.response import Response
from rest_framework.views import exception_handler

from config.conflict import Conflict
from partitor.errors import PartitorError

from .answers import INTERRUPTED, RETRY_AFTER, answer

NOT_STORABLE = "Something in what was sent cannot be stored: it is too long, too large, or holds odd characters."
AT_ONCE = "Someone changed the same thing at the same time. Load the page again and look at what is there now."


def sentence(problem: Exception, context: dict[str, Any]) -> Response | None:
    """DRF's handler: the answer of the API to an error of any kind."""
    if isinstance(problem, PartitorError):
        return Response({"detail": str(problem)}, status=status.HTTP_400_BAD_REQUEST)
    if isinstance(problem, DataError):
        return Response({"detail": NOT_STORABLE}, status=status.HTTP_400_BAD_REQUEST)
    if isinstance(problem, IntegrityError):
        return Response({"detail": AT_ONCE}, status=status.HTTP_409_CONFLICT)
    if isinstance(problem, (OperationalError, InterfaceError)):
        return Response({"detail": INTERRUPTED}, status=503, headers={"Retry-After": RETRY_AFTER})
    response = exception_handler(problem, context)
    if response is not None and isinstance(problem, ValidationError):
        response.data = {"detail": _first(response.data)}
    if response is not None and isinstance(problem, Conflict):
        response.data["current"] = problem.current
    return response


def bad_request(request: HttpRequest, exception: Exception | None = None) -> HttpResponseBase:
    """Django's handler400."""
    return answer(request, 400)


def forbidden(request: HttpRequest, exception: Exception | None = None) -> HttpResponseBase:
    """Django's handler403."""
    return answer(request, 403)


def not_found(request: HttpRequest, exception: Exception | None = None) -> HttpResponseBase:
    """Django's handler404."""
    return answer(request, 404)


def failed(request: HttpRequest) -> HttpResponseBase:
    """Django's handler500: an outage of the database is told apart from an error of ours."""
    outage = isinstance(sys.exc_info()[1], (OperationalError, InterfaceError))
    return answer(request, 503 if outage else 500)


def no_token(request: HttpRequest, reason: str = "") -> HttpResponseBase:
    """Django's CSRF_FAILURE_VIEW."""
    return answer(request, 403)


def locked_out(request: HttpRequest, credentials: Any = None, *args: Any, **kwargs: Any) -> HttpResponse:
    """What a locked login answers, in the form of every other error."""
    detail = "Too many wrong tries. Wait a quarter of an hour and try again."
    return JsonResponse({"detail": detail}, status=status.HTTP_429_TOO_MANY_REQUESTS)


def _first(data: Any, field: str = "") -> str:
    if isinstance(data, dict):
        key, value = next(iter(data.items()))
        return _first(value, "" if key in {"detail", "non_field_errors"} else f"{key}: ")
    if isinstance(data, list):
        return _first(data[0], field)
    return f"{field}{data}"
