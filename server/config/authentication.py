"""Session login for the API: CSRF is checked, and no login answers 401 instead of 403."""

from typing import Any

from drf_spectacular.extensions import OpenApiAuthenticationExtension
from rest_framework.authentication import SessionAuthentication
from rest_framework.request import Request


class SessionLogin(SessionAuthentication):
    """Django's session, with a challenge so that clients can tell "log in" from "not allowed"."""

    def authenticate_header(self, request: Request) -> str:
        """The challenge of a 401."""
        return "Session"


class SessionLoginScheme(OpenApiAuthenticationExtension):  # type: ignore[no-untyped-call]
    """Tells the schema that the session's cookie is the login."""

    target_class = SessionLogin
    name = "session"

    def get_security_definition(self, auto_schema: Any) -> dict[str, str]:
        """The cookie."""
        return {"type": "apiKey", "in": "cookie", "name": "sessionid"}
