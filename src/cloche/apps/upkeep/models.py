"""Alerts and backups."""

from __future__ import annotations

from django.db import models

from cloche.apps.gardens.models import Garden


class Alert(models.Model):
    """A problem that needs somebody, with its start and end.

    `key` tells what and where, `told_at` when the email was queued, `over_at` when it ended; it is remembered for another
    day, so that an intermittent problem sends one email.
    """

    key = models.CharField(max_length=80, unique=True)
    garden = models.ForeignKey(Garden, null=True, on_delete=models.CASCADE, related_name="alerts")
    since = models.DateTimeField()
    told_at = models.DateTimeField(null=True)
    over_at = models.DateTimeField(null=True)


class Backup(models.Model):
    """A nightly backup.

    `file` is its name, `proved_at` when a test restore found it complete, `copied_at` when it reached the second folder
    (else `copy_failure`), and `failure` why there is none.
    """

    made_at = models.DateTimeField()
    file = models.CharField(max_length=80, blank=True)
    size_bytes = models.PositiveBigIntegerField(default=0)
    proved_at = models.DateTimeField(null=True)
    copied_at = models.DateTimeField(null=True)
    copy_failure = models.TextField(blank=True)
    failure = models.TextField(blank=True)

    class Meta:
        ordering = ["-made_at"]
