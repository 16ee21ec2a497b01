"""All addresses: the API, the student's page, and the interface for everything else."""

from django.urls import include, path, re_path
from drf_spectacular.views import SpectacularAPIView

from returns.api import preview, student_page

from .health import healthy, ready
from .spa import page

handler400, handler403 = "config.errors.bad_request", "config.errors.forbidden"
handler404, handler500 = "config.errors.not_found", "config.errors.failed"

urlpatterns = [
    path("healthy", healthy),
    path("ready", ready),
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
