"""Login, courses, members and class lists."""

from __future__ import annotations

from typing import Any

from django.contrib.auth import authenticate, get_user_model, login, logout
from django.http import Http404
from django.middleware.csrf import get_token
from django.utils.decorators import method_decorator
from django.views.decorators.csrf import csrf_protect
from drf_spectacular.utils import extend_schema
from rest_framework import serializers, status
from rest_framework.parsers import MultiPartParser
from rest_framework.permissions import AllowAny
from rest_framework.request import Request
from rest_framework.response import Response
from rest_framework.throttling import SimpleRateThrottle
from rest_framework.views import APIView

from . import services
from .models import Course, Membership
from .permissions import find_own, own_courses, require_deciding


class SessionSerializer(serializers.Serializer):
    """Who is logged in; `user` is empty where no one is."""

    user = serializers.CharField()
    name = serializers.CharField()


class LoginSerializer(serializers.Serializer):
    """A login."""

    user = serializers.CharField(max_length=150)
    password = serializers.CharField(max_length=200, trim_whitespace=False)


class LoginThrottle(SimpleRateThrottle):
    """So many tries to log in from one address, whoever they are for: hashing costs time, which nobody else may use
    up. A whole classroom behind one address stays below."""

    scope = "login"

    def allow_request(self, request: Request, view: APIView) -> bool:
        """True for everything but a login beyond the rate."""
        return request.method != "POST" or super().allow_request(request, view)

    def get_cache_key(self, request: Request, view: APIView) -> str:
        """The address, whoever is logged in there."""
        return self.cache_format % {"scope": self.scope, "ident": self.get_ident(request)}


class SessionView(APIView):
    """The session."""

    permission_classes = [AllowAny]
    throttle_classes = [LoginThrottle]

    @extend_schema(responses=SessionSerializer, operation_id="session")
    def get(self, request: Request) -> Response:
        """Who is logged in."""
        get_token(request._request)
        return Response(_who(request.user))

    @extend_schema(request=LoginSerializer, responses=SessionSerializer, operation_id="log_in")
    @method_decorator(csrf_protect)
    def post(self, request: Request) -> Response:
        """Log in. Too many wrong tries lock the login for a while."""
        given = LoginSerializer(data=request.data)
        given.is_valid(raise_exception=True)
        name, password = given.validated_data["user"], given.validated_data["password"]
        user = authenticate(request._request, username=name, password=password)
        if user is None:
            return Response({"detail": "The name and the password do not go together."}, status=400)
        login(request._request, user)
        return Response(_who(user))

    @extend_schema(responses={204: None}, operation_id="log_out")
    @method_decorator(csrf_protect)
    def delete(self, request: Request) -> Response:
        """Log out."""
        logout(request._request)
        return Response(status=status.HTTP_204_NO_CONTENT)


def _who(user: Any) -> dict[str, str]:
    if not user.is_authenticated:
        return {"user": "", "name": ""}
    return {"user": user.get_username(), "name": user.get_full_name() or user.get_username()}


class AssignmentLineSerializer(serializers.Serializer):
    """An assignment in a course's list, with what waits there."""

    id = serializers.IntegerField()
    title = serializers.CharField()
    language = serializers.CharField()
    submissions = serializers.IntegerField()
    unfinished = serializers.IntegerField()
    unread = serializers.IntegerField()
    returned = serializers.IntegerField()


class CourseSerializer(serializers.ModelSerializer):
    """A course with its assignments."""

    part = serializers.SerializerMethodField()
    students = serializers.SerializerMethodField()
    assignments = serializers.SerializerMethodField()

    class Meta:
        model = Course
        fields = ["id", "title", "term", "part", "students", "assignments"]

    def get_part(self, course: Course) -> str:
        """The person's own part in it."""
        return str(course.memberships.get(user=self.context["request"].user).part)

    def get_students(self, course: Course) -> int:
        """Students on the class list."""
        return course.roster.count()

    @extend_schema(responses=AssignmentLineSerializer(many=True))
    def get_assignments(self, course: Course) -> list[dict[str, Any]]:
        """The course's assignments, newest first."""
        from assignments.services import assignment_lines

        return assignment_lines(course)

    get_assignments._spectacular_annotation = {"field": AssignmentLineSerializer(many=True)}  # type: ignore[attr-defined]


class NewCourseSerializer(serializers.ModelSerializer):
    """What is needed for a new course."""

    class Meta:
        model = Course
        fields = ["title", "term"]


class CoursesView(APIView):
    """The person's courses."""

    @extend_schema(responses=CourseSerializer(many=True), operation_id="courses")
    def get(self, request: Request) -> Response:
        """All courses the person is a member of."""
        found = own_courses(request).order_by("-created")
        return Response(CourseSerializer(found, many=True, context={"request": request}).data)

    @extend_schema(request=NewCourseSerializer, responses=CourseSerializer, operation_id="make_course")
    def post(self, request: Request) -> Response:
        """Make a course."""
        given = NewCourseSerializer(data=request.data)
        given.is_valid(raise_exception=True)
        course = services.create_course(
            request.user, given.validated_data["title"], given.validated_data.get("term", "")
        )
        return Response(CourseSerializer(course, context={"request": request}).data, status=201)


class RosterEntrySerializer(serializers.Serializer):
    """A student on the class list."""

    id = serializers.IntegerField()
    name = serializers.CharField()
    number = serializers.CharField()


class RosterUploadSerializer(serializers.Serializer):
    """A class list as CSV."""

    file = serializers.FileField()


class RosterView(APIView):
    """A course's class list."""

    parser_classes = [MultiPartParser]

    @extend_schema(responses=RosterEntrySerializer(many=True), operation_id="roster")
    def get(self, request: Request, course: int) -> Response:
        """All students."""
        found = find_own(request, Course.objects, "", pk=course)
        return Response(RosterEntrySerializer(found.roster.all(), many=True).data)

    @extend_schema(
        request={"multipart/form-data": RosterUploadSerializer},
        responses=RosterEntrySerializer(many=True),
        operation_id="read_roster",
    )
    def put(self, request: Request, course: int) -> Response:
        """Replace the class list by a CSV file."""
        found = find_own(request, Course.objects, "", pk=course)
        require_deciding(request, found)
        given = RosterUploadSerializer(data=request.data)
        given.is_valid(raise_exception=True)
        services.replace_roster(found, request.user, given.validated_data["file"].read())
        return Response(RosterEntrySerializer(found.roster.all(), many=True).data)


class MemberSerializer(serializers.Serializer):
    """A member of a course."""

    user = serializers.CharField()
    name = serializers.CharField(read_only=True)
    part = serializers.ChoiceField(choices=Membership.Part.choices)


class MembersView(APIView):
    """A course's members."""

    @extend_schema(responses=MemberSerializer(many=True), operation_id="members")
    def get(self, request: Request, course: int) -> Response:
        """All members."""
        found = find_own(request, Course.objects, "", pk=course)
        return Response(_members(found))

    @extend_schema(request=MemberSerializer, responses=MemberSerializer(many=True), operation_id="add_member")
    def post(self, request: Request, course: int) -> Response:
        """Add a member by login name, or change a member's part."""
        found = find_own(request, Course.objects, "", pk=course)
        require_deciding(request, found)
        given = MemberSerializer(data=request.data)
        given.is_valid(raise_exception=True)
        user = get_user_model().objects.filter(username=given.validated_data["user"]).first()
        if user is None:
            return Response({"detail": f"No one here logs in as {given.validated_data['user']}."}, status=400)
        services.set_member(found, request.user, user, given.validated_data["part"])
        return Response(_members(found), status=201)


class MemberView(APIView):
    """One member of a course."""

    @extend_schema(responses={200: MemberSerializer(many=True)}, operation_id="remove_member")
    def delete(self, request: Request, course: int, user: str) -> Response:
        """Remove a member, or leave the course oneself."""
        found = find_own(request, Course.objects, "", pk=course)
        member = found.members.filter(username=user).first()
        if member is None:
            raise Http404
        services.remove_member(found, request.user, member)
        return Response(_members(found))


def _members(course: Course) -> list[dict[str, str]]:
    return [
        {"user": m.user.get_username(), "name": m.user.get_full_name(), "part": m.part}
        for m in course.memberships.select_related("user").order_by("pk")
    ]
