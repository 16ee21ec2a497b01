"""Where a request comes from, behind as many proxies of ours as the setting says."""

from __future__ import annotations

from django.conf import settings
from django.http import HttpRequest


def client_address(request: HttpRequest) -> str:
    """The address that the outermost trusted proxy saw: anyone can write what is further left in the header."""
    direct = str(request.META.get("REMOTE_ADDR", ""))
    trusted: int = settings.TRUSTED_PROXIES
    if not trusted:
        return direct
    entries = [part.strip() for part in request.META.get("HTTP_X_FORWARDED_FOR", "").split(",") if part.strip()]
    return entries[-min(trusted, len(entries))] if entries else direct
