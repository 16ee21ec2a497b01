"""Class and Desk: the whole class side by side, and one submission with all there is to decide."""

from __future__ import annotations

from typing import Any

import msgspec
from drf_spectacular.utils import extend_schema
from rest_framework import serializers
from rest_framework.request import Request
from rest_framework.response import Response
from rest_framework.views import APIView

from assignments.api import ReportField, SpecField, own_assignment
from assignments.models import Assignment
from checking.models import Check
from config.conflict import VersionField
from courses.permissions import find_own
from intake.models import Attempt, Submission, Unread
from intake.services import missing_students
from partitor.rules import RULES

from . import services
from .models import Mark, Remark

NOTHING_DRAWN: dict[str, list[int]] = {"indents": [], "lengths": [], "groups": [], "heads": []}


class SilhouetteSerializer(serializers.Serializer):
    """A program's outline: a row a code line."""

    indents = serializers.ListField(child=serializers.IntegerField())
    lengths = serializers.ListField(child=serializers.IntegerField())
    groups = serializers.ListField(child=serializers.IntegerField())
    """The repeat group of each row, counted from 1; 0 for none."""
    heads = serializers.ListField(child=serializers.IntegerField())
    """Rows at which a procedure begins."""


class ClassMemberSerializer(serializers.Serializer):
    """A submission in the class view."""

    id = serializers.IntegerField()
    name = serializers.CharField()
    matched = serializers.BooleanField()
    attempt = serializers.IntegerField()
    state = serializers.ChoiceField(choices=Check.State.choices)
    problem = serializers.CharField()
    reviewed = serializers.BooleanField()
    total = serializers.FloatField()
    of = serializers.FloatField()
    measures = serializers.DictField(child=serializers.FloatField())
    rules = serializers.DictField(child=serializers.IntegerField())
    silhouette = SilhouetteSerializer()


class PatternSerializer(serializers.Serializer):
    """A template that several submissions share."""

    rule = serializers.CharField()
    title = serializers.CharField()
    example = serializers.CharField()
    submissions = serializers.ListField(child=serializers.IntegerField())


class RuleSerializer(serializers.Serializer):
    """A rule's title."""

    id = serializers.CharField()
    title = serializers.CharField()


class UnreadLineSerializer(serializers.Serializer):
    """Work that could not be read."""

    name = serializers.CharField()
    why = serializers.CharField()


class ClassSerializer(serializers.Serializer):
    """The whole class."""

    title = serializers.CharField()
    spec = SpecField()
    members = ClassMemberSerializer(many=True)
    patterns = PatternSerializer(many=True)
    rules = RuleSerializer(many=True)
    missing = serializers.ListField(child=serializers.CharField())
    unread = UnreadLineSerializer(many=True)


class ClassView(APIView):
    """The class of an assignment."""

    @extend_schema(responses=ClassSerializer, operation_id="class_view")
    def get(self, request: Request, assignment: int) -> Response:
        """Every submission with its silhouette and measures, and what they share."""
        found = own_assignment(request, assignment)
        return Response(
            {
                "title": found.title,
                "spec": msgspec.to_builtins(found.current().spec()),
                "members": _members(found),
                "patterns": list(found.patterns.values("rule", "title", "example", "submissions")),
                "rules": [{"id": rule, "title": title} for rule, (title, _) in RULES.items()],
                "missing": [s.name for s in missing_students(found)],
                "unread": list(Unread.objects.filter(batch__assignment=found).values("name", "why")),
            }
        )


def _members(assignment: Assignment) -> list[dict[str, Any]]:
    """The submissions by their newest attempts, in a handful of queries however many there are."""
    newest = Attempt.objects.filter(submission__assignment=assignment).order_by("submission_id", "-number")
    attempts = list(newest.distinct("submission_id").select_related("submission"))
    attempts.sort(key=lambda a: (a.submission.name, a.submission_id))
    current: dict[int, Check] = {}
    finished: dict[int, Check] = {}
    checks = Check.objects.filter(attempt__in=[a.pk for a in attempts], trial=False).defer("report").order_by("pk")
    for check in checks:
        current[check.attempt_id] = check
        if check.state == Check.State.DONE:
            finished[check.attempt_id] = check
    points = services.totals_of([a.pk for a in attempts])
    return [
        _member(a, current[a.pk], finished.get(a.pk), points.get(a.pk, (0.0, 0.0))) for a in attempts if a.pk in current
    ]


def _member(attempt: Attempt, current: Check, done: Check | None, points: tuple[float, float]) -> dict[str, Any]:
    submission = attempt.submission
    return {
        "id": submission.pk,
        "name": submission.name,
        "matched": submission.student_id is not None,
        "attempt": attempt.number,
        "state": current.state,
        "problem": current.problem,
        "reviewed": submission.reviewed,
        "total": points[0],
        "of": points[1],
        "measures": done.measures if done else {},
        "rules": done.rules if done else {},
        "silhouette": done.silhouette if done else NOTHING_DRAWN,
    }


# -- one submission --------------------------------------------------------------------------------


class MarkSerializer(serializers.ModelSerializer):
    """A criterion's outcome."""

    set_by = serializers.CharField(source="set_by.get_full_name", default="", read_only=True)

    class Meta:
        model = Mark
        fields = [
            "criterion",
            "title",
            "level",
            "points",
            "of",
            "because",
            "set_level",
            "set_points",
            "set_by",
            "set_at",
            "reason",
            "version",
        ]


class RemarkSerializer(serializers.ModelSerializer):
    """A remark."""

    class Meta:
        model = Remark
        fields = ["id", "finding", "state", "hint", "words", "line", "path", "version"]


class FileSerializer(serializers.Serializer):
    """A file's text."""

    path = serializers.CharField()
    text = serializers.CharField()
    language = serializers.CharField()


class AttemptLineSerializer(serializers.Serializer):
    """An attempt in the list of attempts."""

    number = serializers.IntegerField()
    created = serializers.DateTimeField()
    total = serializers.FloatField()
    of = serializers.FloatField()


class DeskSerializer(serializers.Serializer):
    """Everything on the desk."""

    id = serializers.IntegerField()
    name = serializers.CharField()
    assignment = serializers.IntegerField()
    assignment_title = serializers.CharField()
    spec = SpecField()
    attempt = serializers.IntegerField()
    attempts = AttemptLineSerializer(many=True)
    received_as = serializers.CharField()
    state = serializers.ChoiceField(choices=Check.State.choices)
    problem = serializers.CharField()
    reviewed = serializers.BooleanField()
    files = FileSerializer(many=True)
    report = ReportField(allow_null=True)
    marks = MarkSerializer(many=True)
    remarks = RemarkSerializer(many=True)
    rule_titles = serializers.DictField(child=serializers.CharField())
    position = serializers.IntegerField()
    count = serializers.IntegerField()
    previous = serializers.IntegerField(allow_null=True)
    next = serializers.IntegerField(allow_null=True)


def own_submission(request: Request, pk: int) -> Submission:
    """The submission, if it is in one of the person's courses."""
    return find_own(request, Submission.objects.select_related("assignment__course"), "assignment__course", pk=pk)


class AttemptQuerySerializer(serializers.Serializer):
    """Which attempt is wanted; the newest where none is said."""

    attempt = serializers.IntegerField(required=False, min_value=1, max_value=1_000_000)


class SubmissionView(APIView):
    """One submission."""

    @extend_schema(parameters=[AttemptQuerySerializer], responses=DeskSerializer, operation_id="desk")
    def get(self, request: Request, submission: int) -> Response:
        """The submission with code, remarks, marks, and who comes before and after."""
        found = own_submission(request, submission)
        asked = AttemptQuerySerializer(data=request.query_params)
        asked.is_valid(raise_exception=True)
        attempt = found.attempts.filter(number=asked.validated_data.get("attempt")).first()
        return Response(_desk(found, attempt or found.latest()))


def _desk(submission: Submission, attempt: Attempt) -> dict[str, Any]:
    check = attempt.current_check()
    ids = list(submission.assignment.submissions.values_list("pk", flat=True))
    place = ids.index(submission.pk)
    attempts = []
    others = list(submission.attempts.all())
    points = services.totals_of([other.pk for other in others])
    for other in others:
        total, out_of = points.get(other.pk, (0.0, 0.0))
        attempts.append({"number": other.number, "created": other.created, "total": total, "of": out_of})
    return {
        "id": submission.pk,
        "name": submission.name,
        "assignment": submission.assignment_id,
        "assignment_title": submission.assignment.title,
        "spec": msgspec.to_builtins(check.version.spec()),
        "attempt": attempt.number,
        "attempts": attempts,
        "received_as": attempt.received_as,
        "state": check.state,
        "problem": check.problem,
        "reviewed": submission.reviewed,
        "files": list(attempt.files.values("path", "text", "language")),
        "report": check.report,
        "marks": MarkSerializer(attempt.marks.select_related("set_by"), many=True).data,
        "remarks": RemarkSerializer(attempt.remarks, many=True).data,
        "rule_titles": {rule: title for rule, (title, _) in RULES.items()},
        "position": place + 1,
        "count": len(ids),
        "previous": ids[place - 1] if place else None,
        "next": ids[place + 1] if place + 1 < len(ids) else None,
    }


class MarkInputSerializer(serializers.Serializer):
    """An override; level null goes back to what was measured."""

    level = serializers.IntegerField(allow_null=True)
    reason = serializers.CharField(allow_blank=True, required=False, max_length=2000)
    version = VersionField()


class MarkView(APIView):
    """One criterion's mark."""

    @extend_schema(request=MarkInputSerializer, responses=MarkSerializer, operation_id="set_mark")
    def put(self, request: Request, submission: int, criterion: str) -> Response:
        """Override it, or take the override back."""
        found = own_submission(request, submission)
        given = MarkInputSerializer(data=request.data)
        given.is_valid(raise_exception=True)
        data = given.validated_data
        mark = services.set_mark(
            found.latest(), criterion, data["level"], data.get("reason", ""), request.user, data.get("version")
        )
        return Response(MarkSerializer(mark).data)


class RemarkChangeSerializer(serializers.Serializer):
    """What can be decided about a remark."""

    state = serializers.ChoiceField(choices=Remark.State.choices, required=False)
    hint = serializers.ChoiceField(choices=Remark.Hint.choices, required=False, allow_blank=True)
    words = serializers.CharField(required=False, allow_blank=True, max_length=5000)
    version = VersionField()


class NewRemarkSerializer(serializers.Serializer):
    """The reviewer's own remark."""

    words = serializers.CharField(max_length=5000)
    path = serializers.CharField(required=False, allow_blank=True, max_length=400)
    line = serializers.IntegerField(required=False, allow_null=True, min_value=1, max_value=10_000_000)


class RemarkView(APIView):
    """One remark."""

    @extend_schema(request=RemarkChangeSerializer, responses=RemarkSerializer, operation_id="change_remark")
    def patch(self, request: Request, remark: int) -> Response:
        """Accept it, set it aside, reword it, choose its hint level."""
        found = find_own(request, Remark.objects, "attempt__submission__assignment__course", pk=remark)
        given = RemarkChangeSerializer(data=request.data)
        given.is_valid(raise_exception=True)
        data = given.validated_data
        return Response(
            RemarkSerializer(services.change_remark(found.pk, request.user, data, data.get("version"))).data
        )

    @extend_schema(responses={204: None}, operation_id="drop_remark")
    def delete(self, request: Request, remark: int) -> Response:
        """Take back one's own remark; remarks from findings are set aside instead."""
        found = find_own(request, Remark.objects, "attempt__submission__assignment__course", pk=remark)
        if found.finding:
            return Response({"detail": "A remark from a finding is set aside, not deleted."}, status=400)
        services.delete_remark(found, request.user)
        return Response(status=204)


class RemarksView(APIView):
    """The remarks of a submission."""

    @extend_schema(request=NewRemarkSerializer, responses=RemarkSerializer, operation_id="add_remark")
    def post(self, request: Request, submission: int) -> Response:
        """Add one's own."""
        found = own_submission(request, submission)
        given = NewRemarkSerializer(data=request.data)
        given.is_valid(raise_exception=True)
        data = given.validated_data
        remark = services.add_remark(
            found.latest(), request.user, data["words"], data.get("path", ""), data.get("line")
        )
        return Response(RemarkSerializer(remark).data, status=201)


class ReviewedSerializer(serializers.Serializer):
    """Whether a submission is looked through."""

    reviewed = serializers.BooleanField()


class ReviewedView(APIView):
    """Whether a submission is looked through."""

    @extend_schema(request=ReviewedSerializer, responses=ReviewedSerializer, operation_id="set_reviewed")
    def put(self, request: Request, submission: int) -> Response:
        """Say that it is, or not."""
        found = own_submission(request, submission)
        given = ReviewedSerializer(data=request.data)
        given.is_valid(raise_exception=True)
        services.set_reviewed(found, request.user, given.validated_data["reviewed"])
        return Response(given.validated_data)
