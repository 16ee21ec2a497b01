"""Return: what each student gets, publishing, the pack and the gradebook; and the student's page."""

from __future__ import annotations

from typing import Any

from csp.constants import SELF
from csp.decorators import csp_replace
from django.db import transaction
from django.http import Http404, HttpRequest, HttpResponse
from django.views.decorators.clickjacking import xframe_options_sameorigin
from drf_spectacular.types import OpenApiTypes
from drf_spectacular.utils import extend_schema
from rest_framework import serializers
from rest_framework.request import Request
from rest_framework.response import Response
from rest_framework.views import APIView

from assignments.api import own_assignment
from config.conflict import VersionField
from courses.permissions import decides, find_own, require_deciding
from intake.models import Submission
from partitor.feedback.render import page_html
from partitor.feedback.wording import FeedbackPage
from review.models import Remark

from . import services

HINTS = Remark.Hint.choices


class HandbackSerializer(serializers.Serializer):
    """What one student gets."""

    submission = serializers.IntegerField()
    name = serializers.CharField()
    hint = serializers.CharField()
    held = serializers.BooleanField()
    words = serializers.CharField()
    ready = serializers.BooleanField()
    reviewed = serializers.BooleanField()
    remarks = serializers.IntegerField()
    total = serializers.CharField()
    published = serializers.DateTimeField(allow_null=True)
    stale = serializers.BooleanField()
    """The published page is no longer what would be given now."""
    link = serializers.CharField()
    version = serializers.IntegerField()


class ReturnSerializer(serializers.Serializer):
    """The whole return of an assignment."""

    title = serializers.CharField()
    may_decide = serializers.BooleanField()
    hint = serializers.ChoiceField(choices=HINTS)
    students = HandbackSerializer(many=True)


class PlanInputSerializer(serializers.Serializer):
    """The hint level for all."""

    hint = serializers.ChoiceField(choices=HINTS)


class ReturnView(APIView):
    """The return of an assignment."""

    @extend_schema(responses=ReturnSerializer, operation_id="returns")
    def get(self, request: Request, assignment: int) -> Response:
        """What each student will get."""
        found = own_assignment(request, assignment)
        return Response(_represent(found, request))

    @extend_schema(request=PlanInputSerializer, responses=ReturnSerializer, operation_id="set_hint")
    def put(self, request: Request, assignment: int) -> Response:
        """Choose the hint level for all."""
        found = own_assignment(request, assignment)
        require_deciding(request, found.course)
        given = PlanInputSerializer(data=request.data)
        given.is_valid(raise_exception=True)
        services.set_plan(found, request.user, given.validated_data["hint"])
        return Response(_represent(found, request))

    @extend_schema(request=None, responses=ReturnSerializer, operation_id="publish")
    def post(self, request: Request, assignment: int) -> Response:
        """Publish every page that is not held back."""
        found = own_assignment(request, assignment)
        require_deciding(request, found.course)
        services.publish(found, request.user)
        return Response(_represent(found, request))


def _represent(assignment: Any, request: Request) -> dict[str, Any]:
    plan = services.plan_of(assignment)
    deciding = decides(request.user, assignment.course)
    return {
        "title": assignment.title,
        "may_decide": deciding,
        "hint": plan.hint,
        "students": [_line(state, deciding) for state in services.states_of(assignment, plan)],
    }


def _line(state: services.State, deciding: bool) -> dict[str, Any]:
    """One student's return; the private link is for those who hand it out."""
    submission, handback = state.submission, state.handback
    return {
        "submission": submission.pk,
        "name": submission.name,
        "hint": handback.hint,
        "held": handback.held,
        "words": handback.words,
        "ready": state.check is not None,
        "reviewed": submission.reviewed,
        "remarks": state.remarks,
        "total": state.total,
        "published": handback.published,
        "stale": state.stale,
        "link": f"/s/{services.key_of(handback)}" if handback.published and deciding else "",
        "version": handback.version,
    }


class HandbackInputSerializer(serializers.Serializer):
    """What can be chosen for one student."""

    hint = serializers.ChoiceField(choices=HINTS, required=False, allow_blank=True)
    held = serializers.BooleanField(required=False)
    words = serializers.CharField(required=False, allow_blank=True, max_length=5000)
    withdraw = serializers.BooleanField(required=False)
    version = VersionField()


class HandbackView(APIView):
    """One student's return."""

    @extend_schema(request=HandbackInputSerializer, responses=ReturnSerializer, operation_id="set_handback")
    def patch(self, request: Request, submission: int) -> Response:
        """Hold it back, choose its hint level, add words, or close a published page."""
        found = find_own(
            request, Submission.objects.select_related("assignment__course"), "assignment__course", pk=submission
        )
        given = HandbackInputSerializer(data=request.data)
        given.is_valid(raise_exception=True)
        changes = dict(given.validated_data)
        version = changes.pop("version", None)
        with transaction.atomic():
            if changes.pop("withdraw", False):
                require_deciding(request, found.assignment.course)
                services.withdraw(services.handback_of(found), request.user)
            if changes:
                services.set_handback(found, request.user, changes, version)
        return Response(_represent(found.assignment, request))


class PackView(APIView):
    """Everything as one ZIP."""

    @extend_schema(responses={(200, "application/zip"): OpenApiTypes.BINARY}, operation_id="pack")
    def get(self, request: Request, assignment: int) -> HttpResponse:
        """Pages, gradebook and links."""
        found = own_assignment(request, assignment)
        require_deciding(request, found.course)
        data = services.pack(found, request.build_absolute_uri("/").rstrip("/"))
        response = HttpResponse(data, content_type="application/zip")
        response["Content-Disposition"] = 'attachment; filename="feedback.zip"'
        return response


class GradebookView(APIView):
    """The gradebook."""

    @extend_schema(responses={(200, "text/csv"): OpenApiTypes.STR}, operation_id="gradebook")
    def get(self, request: Request, assignment: int) -> HttpResponse:
        """All marks as CSV."""
        found = own_assignment(request, assignment)
        require_deciding(request, found.course)
        response = HttpResponse(services.gradebook(found), content_type="text/csv; charset=utf-8")
        response["Content-Disposition"] = 'attachment; filename="gradebook.csv"'
        return response


@csp_replace({"frame-ancestors": [SELF]})  # type: ignore[dict-item]
@xframe_options_sameorigin
def preview(request: HttpRequest, submission: int) -> HttpResponse:
    """The page exactly as the student will get it, for the Return screen's frame."""
    found = None
    if request.user.is_authenticated:
        found = Submission.objects.filter(pk=submission, assignment__course__memberships__user=request.user).first()
    if found is None:
        raise Http404
    page = services.page_for(found, services.plan_of(found.assignment), services.handback_of(found))
    if page is None:
        return HttpResponse("Nothing is checked yet.", content_type="text/plain; charset=utf-8")
    return _page_response(request, page)


def student_page(request: HttpRequest, key: str) -> HttpResponse:
    """The student's page behind its private link; no login, and no sign of whether a key was close."""
    page = services.published_page(key) if len(key) == 40 else None
    if page is None:
        text = "This page is not open. Ask your instructor for the link."
        return HttpResponse(text, status=404, content_type="text/plain; charset=utf-8")
    response = _page_response(request, page)
    response["X-Robots-Tag"] = "noindex"
    return response


def _page_response(request: HttpRequest, page: FeedbackPage) -> HttpResponse:
    nonce = str(request.csp_nonce)  # type: ignore[attr-defined]
    response = HttpResponse(page_html(page).replace("<style>", f'<style nonce="{nonce}">', 1))
    response["Cache-Control"] = "private, no-store"
    return response
