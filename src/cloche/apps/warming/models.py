"""Trials of a cover against a bare strip."""

from __future__ import annotations

from django.db import models
from simple_history.models import HistoricalRecords

from cloche.apps.gardens.models import Place
from cloche.apps.readings.models import Reading


class CoverTrial(models.Model):
    """A covered place and a bare one beside it, read at the same depth and hour. alike: what was checked, keys of CHECKS."""

    covered = models.ForeignKey(Place, on_delete=models.CASCADE, related_name="trials_covered")
    bare = models.ForeignKey(Place, on_delete=models.CASCADE, related_name="trials_bare")
    depth_m = models.FloatField()
    begun_on = models.DateField()
    ended_on = models.DateField(null=True, blank=True)
    alike = models.JSONField(default=list)
    history = HistoricalRecords()

    class Meta:
        ordering = ["-begun_on", "-id"]


class Pair(models.Model):
    """Two readings of a trial taken together. Each also stands in its place's own record; without one the pair is gone."""

    trial = models.ForeignKey(CoverTrial, on_delete=models.CASCADE, related_name="pairs")
    covered = models.OneToOneField(Reading, on_delete=models.CASCADE, related_name="+")
    bare = models.OneToOneField(Reading, on_delete=models.CASCADE, related_name="+")

    class Meta:
        ordering = ["covered__taken_at", "id"]
