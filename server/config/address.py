"""Where a request comes from, behind as many proxies of ours as the setting says."""

from __future__ import annotations

from django.conf import settings
from django.http import HttpRequest


def client_address(request: HttpRequest) -> str:
    """The address that the outermost trusted proxy saw: what stands further left in the header anyone can write."""
    direct = str(request.META.get("REMOTE_ADDR", ""))
    trusted: int = settings.TRUSTED_PROXIES
    if not trusted:
        return direct
    told = [part.strip() for part in request.META.get("HTTP_X_FORWARDED_FOR", "").split(",") if part.strip()]
    return told[-min(trusted, len(told))] if told else direct
