"""Checking a class again after its assignment has changed."""

from __future__ import annotations

import msgspec
from drf_spectacular.utils import extend_schema
from rest_framework import serializers
from rest_framework.request import Request
from rest_framework.response import Response
from rest_framework.views import APIView

from assignments.api import own_assignment
from assignments.models import Assignment
from courses.permissions import require_deciding

from . import again


class ChangeSerializer(serializers.Serializer):
    """What checking again would change for one submission."""

    submission = serializers.IntegerField()
    name = serializers.CharField()
    total_before = serializers.FloatField()
    total_after = serializers.FloatField()
    of_after = serializers.FloatField()
    remarks_before = serializers.IntegerField()
    remarks_after = serializers.IntegerField()


class AgainSerializer(serializers.Serializer):
    """How far checking again is."""

    outdated = serializers.IntegerField()
    total = serializers.IntegerField()
    done = serializers.IntegerField()
    failed = serializers.IntegerField()
    changes = ChangeSerializer(many=True)


class AgainView(APIView):
    """Checking again: start it, see what it would change, take it over or leave it."""

    def _find(self, request: Request, assignment: int) -> Assignment:
        found = own_assignment(request, assignment)
        require_deciding(request, found.course)
        return found

    @extend_schema(responses=AgainSerializer, operation_id="again")
    def get(self, request: Request, assignment: int) -> Response:
        """How far it is, and what it would change."""
        return self._answer(own_assignment(request, assignment))

    @extend_schema(request=None, responses=AgainSerializer, operation_id="start_again")
    def post(self, request: Request, assignment: int) -> Response:
        """Check every submission whose check is of an older version, as a trial."""
        found = self._find(request, assignment)
        again.start(found, request.user)
        return self._answer(found)

    @extend_schema(request=None, responses=AgainSerializer, operation_id="take_again_over")
    def put(self, request: Request, assignment: int) -> Response:
        """Let the trials count."""
        found = self._find(request, assignment)
        again.take_over(found, request.user)
        return self._answer(found)

    @extend_schema(responses=AgainSerializer, operation_id="drop_again")
    def delete(self, request: Request, assignment: int) -> Response:
        """Leave everything as it is."""
        found = self._find(request, assignment)
        again.drop(found, request.user)
        return self._answer(found)

    def _answer(self, assignment: Assignment) -> Response:
        return Response(msgspec.to_builtins(again.progress(assignment)))
