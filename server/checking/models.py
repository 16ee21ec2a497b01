"""Checks: one for each attempt and version of the assignment."""

from __future__ import annotations

import msgspec
from django.db import models

from assignments.models import AssignmentVersion
from partitor.exchange.report import SubmissionReport


class Check(models.Model):
    """A check, waiting or done; the report whole, and what the class view sorts by as columns."""

    class State(models.TextChoices):
        """Where it stands."""

        QUEUED = "queued"
        RUNNING = "running"
        DONE = "done"
        FAILED = "failed"
        CANCELLED = "cancelled"

    attempt = models.ForeignKey("intake.Attempt", on_delete=models.CASCADE, related_name="checks")
    version = models.ForeignKey(AssignmentVersion, on_delete=models.CASCADE, related_name="checks")
    state = models.CharField(max_length=10, choices=State.choices, default=State.QUEUED)
    problem = models.TextField(blank=True)
    trial = models.BooleanField(default=False)
    """A check against a changed assignment, whose result counts only when a person takes it over."""
    report = models.JSONField(null=True)
    measures = models.JSONField(default=dict)
    rules = models.JSONField(default=dict)
    """How many findings there are of each rule."""
    silhouette = models.JSONField(default=dict)
    """What the class view draws, so that it need not load reports and files."""
    remark_count = models.PositiveIntegerField(default=0)
    statements = models.PositiveIntegerField(default=0)
    repeated_share = models.FloatField(default=0)
    longest_procedure = models.PositiveIntegerField(default=0)
    possible_saving = models.FloatField(default=0)
    created = models.DateTimeField(auto_now_add=True)
    finished = models.DateTimeField(null=True)

    class Meta:
        ordering = ["-pk"]

    def record(self) -> SubmissionReport:
        """The report as the core's record."""
        return msgspec.convert(self.report, SubmissionReport)


class ClassPattern(models.Model):
    """A template that several submissions share, found when a batch is finished."""

    assignment = models.ForeignKey("assignments.Assignment", on_delete=models.CASCADE, related_name="patterns")
    rule = models.CharField(max_length=40)
    title = models.CharField(max_length=300)
    example = models.TextField()
    submissions = models.JSONField()
    """Ids of the submissions that have it."""

    class Meta:
        ordering = ["pk"]
