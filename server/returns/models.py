"""What goes back to students, frozen when it is published."""

from django.conf import settings
from django.db import models


class ReturnPlan(models.Model):
    """How an assignment is handed back: the hint level for all."""

    assignment = models.OneToOneField("assignments.Assignment", on_delete=models.CASCADE, related_name="return_plan")
    hint = models.CharField(max_length=10, default="shape")


class Handback(models.Model):
    """One student's feedback. `page` is frozen at publishing; `key_hash` opens it."""

    submission = models.OneToOneField("intake.Submission", on_delete=models.CASCADE, related_name="handback")
    hint = models.CharField(max_length=10, blank=True)
    """Empty: as the plan says."""
    held = models.BooleanField(default=False)
    words = models.TextField(blank=True)
    """The instructor's own words to this student."""
    published = models.DateTimeField(null=True)
    page = models.JSONField(null=True)
    key_hash = models.CharField(max_length=64, blank=True, db_index=True)
    salt = models.CharField(max_length=32, blank=True)
    made_from = models.CharField(max_length=64, blank=True)
    """Fingerprint of everything that the published page was made of: another one now means that it would differ."""
    version = models.PositiveIntegerField(default=0)
    """Counts changes by people."""
    changed_by = models.ForeignKey(settings.AUTH_USER_MODEL, null=True, on_delete=models.SET_NULL, related_name="+")
    changed_at = models.DateTimeField(null=True)
