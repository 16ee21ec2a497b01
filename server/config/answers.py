"""Errors outside the API's own views: JSON below /api/, else a page of ours."""

from __future__ import annotations

from django.http import HttpRequest, HttpResponse, JsonResponse
from django.template.loader import render_to_string

INTERRUPTED = "The database was interrupted; Partitor is waiting for it. Nothing is lost: checking goes on by itself."
RETRY_AFTER = "3"
"""Seconds after which a client may ask again."""
OURS = "Partitor itself failed at that. Nothing was changed. Try again; if it stays, tell whoever runs it."
SENTENCES = {
    400: "The address or the data that was sent cannot be read.",
    403: "That is not open to you. Load the page again, and log in again if that does not help.",
    404: "There is nothing at this address, or it is not yours to see.",
    500: OURS,
    503: INTERRUPTED,
}


def answer(request: HttpRequest, code: int, detail: str = "") -> HttpResponse:
    """An error outside the API's views: JSON below /api/, else a page."""
    said = detail or SENTENCES[code]
    response: HttpResponse
    if request.path.startswith("/api/"):
        response = JsonResponse({"detail": said}, status=code)
    else:
        nonce = str(getattr(request, "csp_nonce", ""))
        response = HttpResponse(render_to_string("error.html", {"sentence": said, "nonce": nonce}), status=code)
    if code == 503:
        response["Retry-After"] = RETRY_AFTER
    return response
