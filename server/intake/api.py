"""Collect: uploads, their progress, and whose work is whose."""

from __future__ import annotations

from collections import Counter
from typing import Any

from django.db.models import Count, Prefetch
from drf_spectacular.utils import extend_schema
from rest_framework import serializers
from rest_framework.parsers import MultiPartParser
from rest_framework.request import Request
from rest_framework.response import Response
from rest_framework.views import APIView

from assignments.api import own_assignment
from checking.models import Check
from checking.services import light_checks
from courses.permissions import find_own, require_deciding

from . import services
from .models import Attempt, Batch, Submission


class UnreadSerializer(serializers.Serializer):
    """A part of a batch that could not be read."""

    name = serializers.CharField()
    why = serializers.CharField()


class ProgressSerializer(serializers.Serializer):
    """One submission of a batch on its way."""

    submission = serializers.IntegerField()
    name = serializers.CharField()
    student = serializers.IntegerField(allow_null=True)
    received_as = serializers.CharField()
    attempt = serializers.IntegerField()
    state = serializers.ChoiceField(choices=Check.State.choices)
    remarks = serializers.IntegerField()
    problem = serializers.CharField()
    ignored = serializers.IntegerField()


class BatchSerializer(serializers.Serializer):
    """A batch with everything in it."""

    id = serializers.IntegerField()
    file_name = serializers.CharField()
    state = serializers.ChoiceField(choices=Batch.State.choices)
    problem = serializers.CharField()
    junk = serializers.IntegerField()
    created = serializers.DateTimeField()
    total = serializers.IntegerField()
    done = serializers.IntegerField()
    """Ended, however: checked, failed or cancelled."""
    checked = serializers.IntegerField()
    failed = serializers.IntegerField()
    unmatched = serializers.IntegerField()
    start = serializers.IntegerField()
    """How many submissions come before the first that is listed."""
    page = serializers.IntegerField()
    """How many are listed at a time."""
    unread = UnreadSerializer(many=True)
    submissions = ProgressSerializer(many=True)


class BatchUploadSerializer(serializers.Serializer):
    """An archive, or program files, of a whole class."""

    file = serializers.ListField(child=serializers.FileField(), allow_empty=False)


class PageQuerySerializer(serializers.Serializer):
    """Which part of a long list is wanted."""

    start = serializers.IntegerField(required=False, min_value=0, max_value=1_000_000, default=0)


ENDED = (Check.State.DONE, Check.State.FAILED, Check.State.CANCELLED)
PAGE = 100
"""Submissions of a batch that are listed at a time; the counts are of all."""


def represent(batch: Batch, start: int = 0) -> dict[str, Any]:
    """A batch as the API gives it, with the submissions from `start` on."""
    attempts = batch.attempts.select_related("submission").order_by("submission__name", "number", "pk")
    states = Counter(
        dict(
            Check.objects.filter(attempt__batch=batch, trial=False)
            .order_by()
            .values_list("state")
            .annotate(count=Count("attempt", distinct=True))
        )
    )
    listed = attempts[start : start + PAGE].prefetch_related(Prefetch("checks", light_checks()))
    return {
        "id": batch.pk,
        "file_name": batch.file_name,
        "state": batch.state,
        "problem": batch.problem,
        "junk": batch.junk,
        "created": batch.created,
        "total": batch.attempts.count(),
        "done": sum(states[state] for state in ENDED),
        "checked": states[Check.State.DONE],
        "failed": states[Check.State.FAILED],
        "unmatched": batch.attempts.filter(submission__student=None).count(),
        "start": start,
        "page": PAGE,
        "unread": list(batch.unread.values("name", "why")),
        "submissions": [_line(attempt) for attempt in listed],
    }


def _line(attempt: Attempt) -> dict[str, Any]:
    check = attempt.current_check()
    return {
        "submission": attempt.submission_id,
        "name": attempt.submission.name,
        "student": attempt.submission.student_id,
        "received_as": attempt.received_as,
        "attempt": attempt.number,
        "state": check.state,
        "remarks": check.remark_count,
        "problem": check.problem,
        "ignored": len(attempt.ignored),
    }


class BatchesView(APIView):
    """The batches of an assignment."""

    parser_classes = [MultiPartParser]

    @extend_schema(responses=BatchSerializer(many=True), operation_id="batches")
    def get(self, request: Request, assignment: int) -> Response:
        """All batches, newest first."""
        found = own_assignment(request, assignment)
        return Response([represent(b) for b in found.batches.all()[:20]])

    @extend_schema(
        request={"multipart/form-data": BatchUploadSerializer},
        responses=BatchSerializer,
        operation_id="collect",
    )
    def post(self, request: Request, assignment: int) -> Response:
        """Hand in a class's work; it is unpacked and checked in the background."""
        found = own_assignment(request, assignment)
        require_deciding(request, found.course)
        given = BatchUploadSerializer(data={"file": request.FILES.getlist("file")})
        given.is_valid(raise_exception=True)
        batch = services.receive(found, request.user, given.validated_data["file"])
        return Response(represent(batch), status=201)


class BatchView(APIView):
    """One batch."""

    @extend_schema(parameters=[PageQuerySerializer], responses=BatchSerializer, operation_id="batch")
    def get(self, request: Request, batch: int) -> Response:
        """How far it is, and a page of its submissions."""
        found = find_own(request, Batch.objects, "assignment__course", pk=batch)
        asked = PageQuerySerializer(data=request.query_params)
        asked.is_valid(raise_exception=True)
        return Response(represent(found, asked.validated_data["start"]))

    @extend_schema(responses=BatchSerializer, operation_id="cancel_batch")
    def delete(self, request: Request, batch: int) -> Response:
        """Stop it; what is checked already stays."""
        found = find_own(request, Batch.objects, "assignment__course", pk=batch)
        require_deciding(request, found.assignment.course)
        services.cancel(found, request.user)
        found.refresh_from_db()
        return Response(represent(found))


class MatchSerializer(serializers.Serializer):
    """Whose work a submission is."""

    student = serializers.IntegerField(allow_null=True)


class MatchedSerializer(serializers.Serializer):
    """The submission the work now belongs to."""

    submission = serializers.IntegerField()
    name = serializers.CharField()


class MatchView(APIView):
    """Whose work a submission is."""

    @extend_schema(request=MatchSerializer, responses=MatchedSerializer, operation_id="match_submission")
    def put(self, request: Request, submission: int) -> Response:
        """Say whose work it is."""
        found = find_own(request, Submission.objects, "assignment__course", pk=submission)
        require_deciding(request, found.assignment.course)
        given = MatchSerializer(data=request.data)
        given.is_valid(raise_exception=True)
        student = None
        if given.validated_data["student"] is not None:
            student = found.assignment.course.roster.filter(pk=given.validated_data["student"]).first()
            if student is None:
                return Response({"detail": "That student is not on this course's class list."}, status=400)
        kept = services.assign_student(found, student, request.user)
        return Response({"submission": kept.pk, "name": kept.name})
