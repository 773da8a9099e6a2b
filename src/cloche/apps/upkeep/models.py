"""What was backed up."""

from __future__ import annotations

from django.db import models

from cloche.apps.gardens.models import Garden


class Alert(models.Model):
    """Something that wants somebody's hand, from when to when. key: what and where; told_at: when its letter was queued;
    over_at: when it was over, after which it is remembered for a day, so that what comes and goes sends no letter each time."""

    key = models.CharField(max_length=80, unique=True)
    garden = models.ForeignKey(Garden, null=True, on_delete=models.CASCADE, related_name="alerts")
    since = models.DateTimeField()
    told_at = models.DateTimeField(null=True)
    over_at = models.DateTimeField(null=True)


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
