"""What is let in: JSON and addresses that can be stored and worked with, everything else refused with a sentence."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from typing import IO, Any
from urllib.parse import unquote

from django.http import HttpRequest, HttpResponseBase
from rest_framework.exceptions import ParseError
from rest_framework.parsers import JSONParser

from partitor.reading.text import storable

from .answers import answer

DEEPEST = 30
"""Lists and objects inside each other; the deepest that a call needs has six."""
LARGEST = 10**15
"""A number beyond this is a slip or an attack; counts and points are far below, and databases hold it."""


class StrictJSONParser(JSONParser):
    """JSON without what no field of ours can hold."""

    def parse(
        self, stream: IO[Any], media_type: str | None = None, parser_context: Mapping[str, Any] | None = None
    ) -> Any:
        """The data. Raises ParseError with a sentence."""
        try:
            data = super().parse(stream, media_type, parser_context)  # type: ignore[arg-type]
        except RecursionError as problem:
            raise ParseError("The data is nested too deep.") from problem
        except ParseError as problem:
            raise ParseError("The data that was sent is not whole JSON.") from problem
        _look_through(data, 0)
        return data


def _look_through(value: object, depth: int) -> None:
    if depth > DEEPEST:
        raise ParseError("The data is nested too deep.")
    if isinstance(value, str) and storable(value) != value:
        raise ParseError("The data holds a character that cannot be stored (a NUL or half of a character).")
    if isinstance(value, (int, float)) and not abs(value) <= LARGEST:
        raise ParseError("The data holds a number that is too large.")
    if isinstance(value, dict):
        for key, inner in value.items():
            _look_through(key, depth)
            _look_through(inner, depth + 1)
    elif isinstance(value, list):
        for inner in value:
            _look_through(inner, depth + 1)


class StorableAddress:
    """Middleware that refuses addresses with a NUL, which no database can look for."""

    def __init__(self, get_response: Callable[[HttpRequest], HttpResponseBase]) -> None:
        self.get_response = get_response

    def __call__(self, request: HttpRequest) -> HttpResponseBase:
        """The answer to a request."""
        if "\x00" in request.path_info or "\x00" in unquote(request.META.get("QUERY_STRING", "")):
            return answer(request, 400)
        return self.get_response(request)
