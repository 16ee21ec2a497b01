"""Courses, who teaches them, and who takes them."""

from django.conf import settings
from django.db import models


class Course(models.Model):
    """A course with its members and its class list."""

    title = models.CharField(max_length=200)
    term = models.CharField(max_length=100, blank=True)
    created = models.DateTimeField(auto_now_add=True)
    members = models.ManyToManyField(settings.AUTH_USER_MODEL, through="Membership", related_name="courses")

    def __str__(self) -> str:
        return self.title


class Membership(models.Model):
    """A person's part in a course."""

    class Part(models.TextChoices):
        """Owners and teachers decide; assistants review."""

        OWNER = "owner"
        TEACHER = "teacher"
        ASSISTANT = "assistant"

    course = models.ForeignKey(Course, on_delete=models.CASCADE, related_name="memberships")
    user = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.CASCADE, related_name="memberships")
    part = models.CharField(max_length=10, choices=Part.choices)

    class Meta:
        constraints = [models.UniqueConstraint(fields=["course", "user"], name="one_part_a_course")]


class RosterEntry(models.Model):
    """A student on the class list."""

    course = models.ForeignKey(Course, on_delete=models.CASCADE, related_name="roster")
    name = models.CharField(max_length=200)
    number = models.CharField(max_length=60, blank=True)
    also = models.JSONField(default=list, blank=True)
    """Other names the course system may write: logins, short forms."""

    class Meta:
        ordering = ["name"]
        constraints = [models.UniqueConstraint(fields=["course", "name", "number"], name="one_entry_a_student")]

    def __str__(self) -> str:
        return self.name


class Event(models.Model):
    """Who did what when; rows are only ever added."""

    course = models.ForeignKey(Course, on_delete=models.CASCADE, related_name="events")
    user = models.ForeignKey(settings.AUTH_USER_MODEL, null=True, on_delete=models.SET_NULL)
    verb = models.CharField(max_length=60)
    data = models.JSONField(default=dict)
    at = models.DateTimeField(auto_now_add=True)

    class Meta:
        ordering = ["-at"]
