"""All addresses: the API, the student's page, and the interface for everything else."""

from django.http import HttpRequest, HttpResponse
from django.urls import include, path, re_path
from drf_spectacular.views import SpectacularAPIView

from returns.api import preview, student_page

from .spa import page


def healthy(request: HttpRequest) -> HttpResponse:
    """Answers once the server can reach its database."""
    from django.db import connection

    with connection.cursor() as cursor:
        cursor.execute("SELECT 1")
    return HttpResponse("ok", content_type="text/plain")


urlpatterns = [
    path("healthy", healthy),
    path("api/schema", SpectacularAPIView.as_view(), name="schema"),
    path("api/", include("courses.urls")),
    path("api/", include("assignments.urls")),
    path("api/", include("intake.urls")),
    path("api/", include("checking.urls")),
    path("api/", include("review.urls")),
    path("api/", include("returns.urls")),
    path("preview/<int:submission>", preview, name="preview"),
    path("s/<str:key>", student_page, name="student-page"),
    re_path(r"^(?!api/|static/).*$", page),
]
