"""Serves the built interface: its one page, with the request's CSP nonce put in."""

from __future__ import annotations

from functools import lru_cache

from django.conf import settings
from django.http import HttpRequest, HttpResponse
from django.views.decorators.csrf import ensure_csrf_cookie


@lru_cache(maxsize=1)
def _page() -> str:
    return (settings.WEB_BUILD / "index.html").read_text()


@ensure_csrf_cookie
def page(request: HttpRequest) -> HttpResponse:
    """The interface's page for every address that is not the API's."""
    nonce = str(request.csp_nonce)  # type: ignore[attr-defined]
    html = _page().replace("<script>", f'<script nonce="{nonce}">')
    html = html.replace("<head>", f'<head><meta name="csp-nonce" content="{nonce}">', 1)
    response = HttpResponse(html)
    response["Cache-Control"] = "no-store"
    return response
