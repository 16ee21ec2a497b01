"""Set up: assignments by form or by file, the code that goes with them, and the live sample."""

from __future__ import annotations

from typing import Any

import msgspec
from django.http import HttpResponse
from drf_spectacular.types import OpenApiTypes
from drf_spectacular.utils import extend_schema, extend_schema_field
from rest_framework import serializers
from rest_framework.request import Request
from rest_framework.response import Response
from rest_framework.throttling import UserRateThrottle
from rest_framework.views import APIView

from config.conflict import VersionField
from config.schema import reference
from courses.models import Course
from courses.permissions import find_own, require_deciding
from partitor.exchange.assignment import Assignment as Spec
from partitor.exchange.assignment import write_assignment
from partitor.exchange.report import SubmissionReport
from partitor.languages.registry import LANGUAGES
from partitor.scoring.measures import MEASURES

from . import services
from .models import Assignment, GivenFile

MOST_GIVEN = 200
"""Files of starter code or of a reference solution."""


@extend_schema_field(reference(Spec))
class SpecField(serializers.JSONField):
    """An assignment as the core's record."""


@extend_schema_field({"oneOf": [reference(SubmissionReport), {"type": "null"}]})
class ReportField(serializers.JSONField):
    """A submission's report as the core's record."""


class AssignmentSerializer(serializers.Serializer):
    """An assignment with what it asks."""

    id = serializers.IntegerField()
    course = serializers.IntegerField()
    course_title = serializers.CharField()
    title = serializers.CharField()
    version = serializers.IntegerField()
    may_decide = serializers.BooleanField()
    spec = SpecField()
    starter = serializers.DictField(child=serializers.CharField())
    reference = serializers.DictField(child=serializers.CharField())


class GivenFilesField(serializers.DictField):
    """Texts by their paths."""

    child = serializers.CharField(trim_whitespace=False, allow_blank=True, max_length=2_000_000)

    def to_internal_value(self, data: Any) -> dict[str, str]:
        """The texts. Raises ValidationError where there are too many, or a path cannot be one."""
        files: dict[str, str] = super().to_internal_value(data)
        if len(files) > MOST_GIVEN:
            raise serializers.ValidationError(f"holds {len(files)} files; up to {MOST_GIVEN} are taken.")
        for path in files:
            if not 0 < len(path) <= 250:
                raise serializers.ValidationError("each file needs a name of 1 to 250 characters.")
        return files


class AssignmentInputSerializer(serializers.Serializer):
    """An assignment by form (`spec`) or by file (`text`)."""

    spec = SpecField(required=False)
    text = serializers.CharField(required=False, trim_whitespace=False, max_length=500_000)
    version = VersionField()
    starter = GivenFilesField(required=False)
    reference = GivenFilesField(required=False)

    def file_text(self) -> str:
        """The assignment file's text, whichever way it came."""
        data = self.validated_data
        if "text" in data:
            return str(data["text"])
        if "spec" not in data:
            raise serializers.ValidationError({"detail": "Nothing was said about the assignment."})
        return services.text_of(data["spec"])


def represent(assignment: Assignment, request: Request) -> dict[str, Any]:
    """An assignment as the API gives it."""
    version = assignment.current()
    part = assignment.course.memberships.get(user=request.user).part
    files: dict[str, dict[str, str]] = {"starter": {}, "reference": {}}
    for file in assignment.given_files.all():
        files[file.kind][file.path] = file.text
    return {
        "id": assignment.pk,
        "course": assignment.course_id,
        "course_title": assignment.course.title,
        "title": assignment.title,
        "version": version.number,
        "may_decide": part != "assistant",
        "spec": msgspec.to_builtins(version.spec()),
        **files,
    }


def own_assignment(request: Request, pk: int) -> Assignment:
    """The assignment, if it is in one of the person's courses."""
    return find_own(request, Assignment.objects.select_related("course"), "course", pk=pk)


def _take_files(assignment: Assignment, request: Request, data: dict[str, Any]) -> None:
    for kind in (GivenFile.Kind.STARTER, GivenFile.Kind.REFERENCE):
        if kind in data:
            services.replace_given(assignment, request.user, kind, data[kind])


class AssignmentsView(APIView):
    """A course's assignments."""

    @extend_schema(request=AssignmentInputSerializer, responses=AssignmentSerializer, operation_id="make_assignment")
    def post(self, request: Request, course: int) -> Response:
        """Make an assignment."""
        found = find_own(request, Course.objects, "", pk=course)
        require_deciding(request, found)
        given = AssignmentInputSerializer(data=request.data)
        given.is_valid(raise_exception=True)
        assignment = services.create_assignment(found, request.user, given.file_text())
        _take_files(assignment, request, given.validated_data)
        return Response(represent(assignment, request), status=201)


class AssignmentView(APIView):
    """One assignment."""

    @extend_schema(responses=AssignmentSerializer, operation_id="assignment")
    def get(self, request: Request, assignment: int) -> Response:
        """What it asks."""
        return Response(represent(own_assignment(request, assignment), request))

    @extend_schema(request=AssignmentInputSerializer, responses=AssignmentSerializer, operation_id="change_assignment")
    def put(self, request: Request, assignment: int) -> Response:
        """Change what it asks; this makes a new version."""
        found = own_assignment(request, assignment)
        require_deciding(request, found.course)
        given = AssignmentInputSerializer(data=request.data)
        given.is_valid(raise_exception=True)
        services.change_assignment(found, request.user, given.file_text(), given.validated_data.get("version"))
        _take_files(found, request, given.validated_data)
        return Response(represent(found, request))


class AssignmentFileView(APIView):
    """The assignment as a file."""

    @extend_schema(responses={(200, "application/toml"): OpenApiTypes.STR}, operation_id="assignment_file")
    def get(self, request: Request, assignment: int) -> HttpResponse:
        """The assignment file, with its whole rubric."""
        found = own_assignment(request, assignment)
        response = HttpResponse(write_assignment(found.current().spec()), content_type="application/toml")
        response["Content-Disposition"] = 'attachment; filename="assignment.toml"'
        return response


class SampleInputSerializer(serializers.Serializer):
    """A program and what is asked of it."""

    spec = SpecField()
    text = serializers.CharField(allow_blank=True, trim_whitespace=False, max_length=200_000)


class SampleSerializer(serializers.Serializer):
    """What would be said."""

    report = ReportField(allow_null=True)


class SampleThrottle(UserRateThrottle):
    """So many live samples a person: enough for whoever types, too few to keep the server busy."""

    scope = "sample"


class SampleView(APIView):
    """The live sample beside the form."""

    throttle_classes = [SampleThrottle]

    @extend_schema(request=SampleInputSerializer, responses=SampleSerializer, operation_id="sample")
    def post(self, request: Request) -> Response:
        """Check one program against a form that is not saved."""
        given = SampleInputSerializer(data=request.data)
        given.is_valid(raise_exception=True)
        from partitor.exchange.assignment import parse_assignment

        spec = parse_assignment(services.text_of(given.validated_data["spec"]), "The assignment")
        report = services.sample_report(spec, given.validated_data["text"])
        return Response({"report": msgspec.to_builtins(report) if report else None})


class MeasureSerializer(serializers.Serializer):
    """A measure a criterion can use."""

    id = serializers.CharField()
    title = serializers.CharField()
    unit = serializers.CharField()
    better = serializers.CharField()
    definition = serializers.CharField()


class MeasuresView(APIView):
    """The measures."""

    @extend_schema(responses=MeasureSerializer(many=True), operation_id="measures")
    def get(self, request: Request) -> Response:
        """All measures with their definitions."""
        return Response([{"id": k, **msgspec.to_builtins(m)} for k, m in MEASURES.items()])


class LanguageSerializer(serializers.Serializer):
    """A language that is read."""

    id = serializers.CharField()
    title = serializers.CharField()
    extensions = serializers.ListField(child=serializers.CharField())


class LanguagesView(APIView):
    """The languages."""

    @extend_schema(responses=LanguageSerializer(many=True), operation_id="languages")
    def get(self, request: Request) -> Response:
        """All languages that an assignment can ask for."""
        return Response([{"id": k, "title": v.title, "extensions": v.extensions} for k, v in LANGUAGES.items()])


class DefaultSpecView(APIView):
    """The form's starting point."""

    @extend_schema(responses=AssignmentInputSerializer, operation_id="default_assignment")
    def get(self, request: Request) -> Response:
        """An empty assignment with the default limits and rubric."""
        spec = Spec(title="")
        return Response({"spec": msgspec.to_builtins(msgspec.structs.replace(spec, criteria=spec.rubric()))})
