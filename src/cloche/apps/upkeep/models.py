"""What was backed up."""

from __future__ import annotations

from django.db import models


class Backup(models.Model):
    """One night's backup. file: its name; proved_at: when it was restored on trial and found whole; copied_at: when it reached
    the second folder, copy_failure: why it did not; failure: why there is none."""

    made_at = models.DateTimeField()
    file = models.CharField(max_length=80, blank=True)
    size_bytes = models.PositiveBigIntegerField(default=0)
    proved_at = models.DateTimeField(null=True)
    copied_at = models.DateTimeField(null=True)
    copy_failure = models.TextField(blank=True)
    failure = models.TextField(blank=True)

    class Meta:
        ordering = ["-made_at"]
