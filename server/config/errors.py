"""Every error of the API is one sentence in `detail`; the core's own sentences pass through."""

from __future__ import annotations

from typing import Any

from django.http import HttpRequest, HttpResponse, JsonResponse
from rest_framework import status
from rest_framework.exceptions import ValidationError
from rest_framework.response import Response
from rest_framework.views import exception_handler

from partitor.errors import PartitorError


def sentence(problem: Exception, context: dict[str, Any]) -> Response | None:
    """DRF's answer with the first field error turned into a sentence."""
    if isinstance(problem, PartitorError):
        return Response({"detail": str(problem)}, status=status.HTTP_400_BAD_REQUEST)
    response = exception_handler(problem, context)
    if response is not None and isinstance(problem, ValidationError):
        response.data = {"detail": _first(response.data)}
    return response


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
