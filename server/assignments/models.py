"""Assignments: what is asked, in versions, and the code that goes with it."""

from __future__ import annotations

from functools import lru_cache

import msgspec
from django.conf import settings
from django.db import models

from courses.models import Course
from partitor.exchange.assignment import Assignment as Spec
from partitor.exchange.assignment import parse_assignment
from partitor.languages.registry import language_of
from partitor.source import Source


@lru_cache(maxsize=64)
def _parsed(text: str) -> Spec:
    """An assignment file's record with its whole rubric: a version never changes, and is asked for again and again."""
    spec = parse_assignment(text)
    return msgspec.structs.replace(spec, criteria=spec.rubric())


class Assignment(models.Model):
    """An assignment; what it asks stands in its newest version."""

    course = models.ForeignKey(Course, on_delete=models.CASCADE, related_name="assignments")
    title = models.CharField(max_length=200)
    created = models.DateTimeField(auto_now_add=True)

    class Meta:
        ordering = ["-created", "-pk"]

    def current(self) -> AssignmentVersion:
        """The newest version."""
        version = self.versions.order_by("-number").first()
        assert version is not None, "an assignment is made together with its first version"
        return version

    def given(self, kind: str) -> tuple[Source, ...]:
        """The starter code or the reference solution, as the core reads it."""
        sources = []
        for file in self.given_files.all():
            if file.kind != kind:
                continue
            language = language_of(file.path, file.text)
            sources.append(Source(file.path, file.text, language.id if language else None))
        return tuple(s for s in sources if s.language)


class AssignmentVersion(models.Model):
    """What is asked, frozen: the assignment file's text."""

    assignment = models.ForeignKey(Assignment, on_delete=models.CASCADE, related_name="versions")
    number = models.PositiveIntegerField()
    text = models.TextField()
    created = models.DateTimeField(auto_now_add=True)
    created_by = models.ForeignKey(settings.AUTH_USER_MODEL, null=True, on_delete=models.SET_NULL)

    class Meta:
        constraints = [models.UniqueConstraint(fields=["assignment", "number"], name="one_version_a_number")]

    def spec(self) -> Spec:
        """The text as the core's record."""
        return _parsed(self.text)


class GivenFile(models.Model):
    """A file of the starter code or of the reference solution."""

    class Kind(models.TextChoices):
        """What the file is for."""

        STARTER = "starter"
        REFERENCE = "reference"

    assignment = models.ForeignKey(Assignment, on_delete=models.CASCADE, related_name="given_files")
    kind = models.CharField(max_length=10, choices=Kind.choices)
    path = models.CharField(max_length=400)
    text = models.TextField()

    class Meta:
        ordering = ["path"]
        constraints = [models.UniqueConstraint(fields=["assignment", "kind", "path"], name="one_given_file_a_path")]
