"""Germination trials, their batches and counts."""

from __future__ import annotations

from django.core.exceptions import ValidationError
from django.core.validators import MaxValueValidator, MinValueValidator
from django.db import models
from django.utils.translation import gettext as _
from simple_history.models import HistoricalRecords

from cloche.apps.gardens.models import Garden
from cloche.apps.places.models import Place
from cloche.apps.seed.models import Packet
from cloche.apps.shared import fields
from cloche.apps.shared.fields import sane_day

MOST_SEEDS, WARMTH_C = 10_000, (-5.0, 45.0)


class GerminationTrial(models.Model):
    """Germination trial of several batches started on the same day."""

    garden = models.ForeignKey(Garden, on_delete=models.CASCADE, related_name="germination_trials")
    name = models.CharField(max_length=60, validators=[fields.plain])
    begun_on = models.DateField(validators=[sane_day])
    ended_on = models.DateField(null=True, blank=True, validators=[sane_day])
    history = HistoricalRecords()

    class Meta:
        ordering = ["-begun_on", "-id"]


class TrialBatch(models.Model):
    """Seeds of one crop at one temperature.

    `warmth_c` is set or measured, None where a place gives it; `packet` is the source of the seed.
    """

    trial = models.ForeignKey(GerminationTrial, on_delete=models.CASCADE, related_name="batches")
    crop_key = models.CharField(max_length=40)
    packet = models.ForeignKey(Packet, null=True, blank=True, on_delete=models.SET_NULL, related_name="trial_batches")
    place = models.ForeignKey(Place, null=True, blank=True, on_delete=models.SET_NULL, related_name="trial_batches")
    warmth_c = models.FloatField(
        null=True, blank=True, validators=[MinValueValidator(WARMTH_C[0]), MaxValueValidator(WARMTH_C[1])]
    )
    seeds = models.PositiveIntegerField(validators=[MinValueValidator(1), MaxValueValidator(MOST_SEEDS)])
    history = HistoricalRecords()

    class Meta:
        ordering = ["crop_key", "warmth_c", "id"]


class TrialCount(models.Model):
    """Number of germinated seeds of a batch on a day."""

    batch = models.ForeignKey(TrialBatch, on_delete=models.CASCADE, related_name="counts")
    on = models.DateField(validators=[sane_day])
    up = models.PositiveIntegerField(validators=[MaxValueValidator(MOST_SEEDS)])
    history = HistoricalRecords()

    class Meta:
        ordering = ["on"]
        constraints = [models.UniqueConstraint(fields=["batch", "on"], name="one_trial_count_a_day")]

    def clean(self) -> None:
        """Refuse more germinated seeds than were laid out."""
        if self.batch_id and self.up is not None and self.up > self.batch.seeds:
            raise ValidationError({"up": _("Enter at most {seeds}, the number tested.").format(seeds=self.batch.seeds)})
