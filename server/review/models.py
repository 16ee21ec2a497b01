"""What the reviewer decides: marks and remarks."""

from __future__ import annotations

from django.conf import settings
from django.db import models


class Mark(models.Model):
    """A criterion's outcome for an attempt: measured, or set by a person with a reason."""

    attempt = models.ForeignKey("intake.Attempt", on_delete=models.CASCADE, related_name="marks")
    criterion = models.CharField(max_length=100)
    title = models.CharField(max_length=200)
    level = models.PositiveIntegerField(null=True)
    points = models.FloatField(null=True)
    of = models.FloatField()
    because = models.TextField()
    set_level = models.PositiveIntegerField(null=True)
    set_points = models.FloatField(null=True)
    set_by = models.ForeignKey(settings.AUTH_USER_MODEL, null=True, on_delete=models.SET_NULL)
    set_at = models.DateTimeField(null=True)
    reason = models.TextField(blank=True)
    order = models.PositiveIntegerField(default=0)
    version = models.PositiveIntegerField(default=0)
    """Counts changes by people."""
    changed_by = models.ForeignKey(settings.AUTH_USER_MODEL, null=True, on_delete=models.SET_NULL, related_name="+")
    changed_at = models.DateTimeField(null=True)

    class Meta:
        ordering = ["order", "pk"]
        constraints = [models.UniqueConstraint(fields=["attempt", "criterion"], name="one_mark_a_criterion")]

    @property
    def final_points(self) -> float | None:
        """What counts: the person's points where there are some."""
        return self.points if self.set_points is None else self.set_points


class Remark(models.Model):
    """A remark for the student: from a finding, or the reviewer's own."""

    class State(models.TextChoices):
        """Open remarks are given back by weight; accepted ones always, those set aside never."""

        OPEN = "open"
        ACCEPTED = "accepted"
        ASIDE = "aside"

    class Hint(models.TextChoices):
        """How much of the way out is shown."""

        WHERE = "where"
        SHAPE = "shape"
        ANSWER = "answer"

    attempt = models.ForeignKey("intake.Attempt", on_delete=models.CASCADE, related_name="remarks")
    finding = models.CharField(max_length=20, blank=True)
    """The finding's id in the attempt's report; empty for the reviewer's own."""
    key = models.CharField(max_length=200, blank=True)
    """Tells the same finding after a new check."""
    weight = models.FloatField(default=0)
    """The finding's weight: what open remarks are chosen by."""
    state = models.CharField(max_length=10, choices=State.choices, default=State.OPEN)
    hint = models.CharField(max_length=10, choices=Hint.choices, blank=True)
    words = models.TextField(blank=True)
    line = models.PositiveIntegerField(null=True)
    path = models.CharField(max_length=400, blank=True)
    version = models.PositiveIntegerField(default=0)
    """Counts changes by people."""
    changed_by = models.ForeignKey(settings.AUTH_USER_MODEL, null=True, on_delete=models.SET_NULL, related_name="+")
    changed_at = models.DateTimeField(null=True)

    class Meta:
        ordering = ["pk"]
