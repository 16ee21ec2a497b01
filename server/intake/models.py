"""What a class hands in: batches, submissions, attempts and their files."""

from __future__ import annotations

from typing import TYPE_CHECKING

from django.conf import settings
from django.db import models

from assignments.models import Assignment
from courses.models import RosterEntry
from partitor.reading.collect import Submission as Work
from partitor.source import Source

if TYPE_CHECKING:
    from checking.models import Check


class Batch(models.Model):
    """One upload, from its arrival until every submission in it is checked."""

    class State(models.TextChoices):
        """Where it stands."""

        RECEIVED = "received"
        CHECKING = "checking"
        DONE = "done"
        CANCELLED = "cancelled"
        REFUSED = "refused"

    assignment = models.ForeignKey(Assignment, on_delete=models.CASCADE, related_name="batches")
    user = models.ForeignKey(settings.AUTH_USER_MODEL, null=True, on_delete=models.SET_NULL)
    file_name = models.CharField(max_length=300)
    path = models.CharField(max_length=400)
    """Where the upload lies, below the uploads folder."""
    state = models.CharField(max_length=10, choices=State.choices, default=State.RECEIVED)
    problem = models.TextField(blank=True)
    junk = models.PositiveIntegerField(default=0)
    created = models.DateTimeField(auto_now_add=True)
    finished = models.DateTimeField(null=True)

    class Meta:
        ordering = ["-created", "-pk"]


class Unread(models.Model):
    """A part of a batch that could not be read, and why."""

    batch = models.ForeignKey(Batch, on_delete=models.CASCADE, related_name="unread")
    name = models.CharField(max_length=300)
    why = models.TextField()

    class Meta:
        ordering = ["name"]


class Submission(models.Model):
    """One student's work for one assignment, over all attempts."""

    assignment = models.ForeignKey(Assignment, on_delete=models.CASCADE, related_name="submissions")
    student = models.ForeignKey(RosterEntry, null=True, on_delete=models.PROTECT, related_name="submissions")
    name = models.CharField(max_length=300)
    """The student's name, or what the course system wrote where no student is matched."""
    reviewed = models.BooleanField(default=False)

    class Meta:
        ordering = ["name", "pk"]
        constraints = [models.UniqueConstraint(fields=["assignment", "student"], name="one_submission_a_student")]

    def latest(self) -> Attempt:
        """The newest attempt."""
        attempt = self.attempts.order_by("-number").first()
        assert attempt is not None, "a submission is made together with its first attempt"
        return attempt


class Attempt(models.Model):
    """What was handed in at one time."""

    submission = models.ForeignKey(Submission, on_delete=models.CASCADE, related_name="attempts")
    batch = models.ForeignKey(Batch, on_delete=models.CASCADE, related_name="attempts")
    number = models.PositiveIntegerField()
    received_as = models.CharField(max_length=300)
    ignored = models.JSONField(default=list)
    created = models.DateTimeField(auto_now_add=True)

    class Meta:
        ordering = ["number"]
        constraints = [models.UniqueConstraint(fields=["submission", "number"], name="one_attempt_a_number")]

    def current_check(self) -> Check:
        """The newest check that counts, whatever its state; uses `checks` where it is prefetched."""
        return max((c for c in self.checks.all() if not c.trial), key=lambda c: c.pk)

    def work(self) -> Work:
        """The attempt as the core reads it."""
        sources = tuple(Source(f.path, f.text, f.language, f.encoding, f.newline, f.original) for f in self.files.all())
        return Work(self.submission.name, sources)


class SourceFile(models.Model):
    """A file of an attempt, whole."""

    attempt = models.ForeignKey(Attempt, on_delete=models.CASCADE, related_name="files")
    path = models.CharField(max_length=400)
    text = models.TextField()
    original = models.TextField(null=True)
    """The text with its own line ends and mark, where they differ."""
    language = models.CharField(max_length=20)
    encoding = models.CharField(max_length=30)
    newline = models.CharField(max_length=2)

    class Meta:
        ordering = ["path"]
