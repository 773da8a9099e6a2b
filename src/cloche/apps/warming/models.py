"""Trials of a cover against a bare strip."""

from __future__ import annotations

from django.db import models
from simple_history.models import HistoricalRecords

from cloche.apps.gardens.models import Place


class CoverTrial(models.Model):
    """A covered place and a bare one beside it. Its pairs are readings of both at one depth within the same half hour, whoever
    took them; alike: what was checked, keys of forms.ALIKE."""

    covered = models.ForeignKey(Place, on_delete=models.CASCADE, related_name="trials_covered")
    bare = models.ForeignKey(Place, on_delete=models.CASCADE, related_name="trials_bare")
    depth_m = models.FloatField()
    begun_on = models.DateField()
    ended_on = models.DateField(null=True, blank=True)
    alike = models.JSONField(default=list)
    history = HistoricalRecords()

    class Meta:
        ordering = ["-begun_on", "-id"]
