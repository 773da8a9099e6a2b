"""Sowings, their counts and steps, and planned sowings."""

from __future__ import annotations

from django.conf import settings
from django.contrib.postgres.fields import ArrayField
from django.core.validators import MaxValueValidator, MinValueValidator
from django.db import models
from simple_history.models import HistoricalRecords

from cloche.apps.gardens.models import Garden
from cloche.apps.places.models import Place
from cloche.apps.seed.models import Packet
from cloche.apps.shared.fields import RecordField, sane_day
from cloche.apps.shared.words import lazy
from cloche_engine.results import SowingOutlook

MOST_SEEDS = 1_000_000
THERMOSTAT = [MinValueValidator(-5.0), MaxValueValidator(42.0)]


class Sowing(models.Model):
    """Seed sown in a place on a day.

    `place` is where it stands now and `sown_in` where it was sown if different. Removal only marks it; `outlook` is
    calculated with the place's forecast. An empty `heat_off_rule` follows the garden's.
    """

    place = models.ForeignKey(Place, on_delete=models.CASCADE, related_name="sowings")
    sown_in = models.ForeignKey(Place, null=True, blank=True, on_delete=models.SET_NULL, related_name="+", editable=False)
    packet = models.ForeignKey(Packet, on_delete=models.SET_NULL, null=True, blank=True, related_name="sowings")
    crop_key = models.CharField(max_length=40)
    sown_on = models.DateField(validators=[sane_day])
    seeds = models.PositiveIntegerField(null=True, blank=True, validators=[MinValueValidator(1), MaxValueValidator(MOST_SEEDS)])
    depth_m = models.FloatField(validators=[MinValueValidator(0.0), MaxValueValidator(0.5)])
    entered_by = models.ForeignKey(settings.AUTH_USER_MODEL, null=True, on_delete=models.SET_NULL, related_name="+")
    cell_m = models.FloatField(
        null=True, blank=True, validators=[MinValueValidator(0.01), MaxValueValidator(0.5)], help_text="Width of its cells."
    )
    heat_off_rule = models.CharField(max_length=6, choices=Garden.HeatOffRule, blank=True)
    finished = models.BooleanField(default=False, help_text="Nothing more is expected of it.")
    outlook = RecordField(SowingOutlook, null=True, blank=True, editable=False)
    removed_at = models.DateTimeField(null=True, editable=False)
    history = HistoricalRecords(excluded_fields=["outlook"])

    class Meta:
        ordering = ["-sown_on", "-id"]


class Step(models.Model):
    """Step in the life of a sowing.

    For a move, `place` is the new place and `left` the old one; `cell_m` is the cell size after potting on; `left_c` is
    hourly soil temperature [°C] of the old place up to noon that day. For a lowered thermostat, `start_c` is its new and
    `start_before_c` its old temperature for switching on [°C].
    """

    class Kind(models.TextChoices):
        LEAF = "leaf", lazy("first true leaf")
        HEAT_OFF = "heat_off", lazy("heat off")
        TURNED_DOWN = "turned_down", lazy("thermostat turned down")
        POTTED = "potted", lazy("potted on")
        MOVED = "moved", lazy("moved")
        HARDENING = "hardening", lazy("hardening off started")
        BROUGHT_IN = "brought_in", lazy("brought in from the cold")
        PUT_OUT = "put_out", lazy("put out again")
        PLANTED = "planted", lazy("planted out")

    sowing = models.ForeignKey(Sowing, on_delete=models.CASCADE, related_name="steps")
    kind = models.CharField(max_length=12, choices=Kind)
    on = models.DateField(validators=[sane_day])
    place = models.ForeignKey(Place, null=True, blank=True, on_delete=models.SET_NULL, related_name="+")
    left = models.ForeignKey(Place, null=True, blank=True, on_delete=models.SET_NULL, related_name="+", editable=False)
    cell_m = models.FloatField(null=True, blank=True, validators=[MinValueValidator(0.01), MaxValueValidator(0.5)])
    left_c = ArrayField(models.FloatField(), null=True, blank=True, editable=False)
    start_c = models.FloatField(null=True, blank=True, editable=False, validators=THERMOSTAT)
    start_before_c = models.FloatField(null=True, blank=True, editable=False, validators=THERMOSTAT)
    history = HistoricalRecords(excluded_fields=["left_c"])

    class Meta:
        ordering = ["on", "id"]


class Count(models.Model):
    """Number of seedlings up on a day."""

    sowing = models.ForeignKey(Sowing, on_delete=models.CASCADE, related_name="counts")
    on = models.DateField(validators=[sane_day])
    up = models.PositiveIntegerField(validators=[MaxValueValidator(MOST_SEEDS)])
    history = HistoricalRecords()

    class Meta:
        ordering = ["on"]
        constraints = [models.UniqueConstraint(fields=["sowing", "on"], name="one_count_a_day")]


class Intention(models.Model):
    """Sowing planned for a day; `made` is the resulting sowing, `dropped_at` its cancellation."""

    place = models.ForeignKey(Place, on_delete=models.CASCADE, related_name="intentions")
    crop_key = models.CharField(max_length=40)
    sow_on = models.DateField(validators=[sane_day])
    entered_by = models.ForeignKey(settings.AUTH_USER_MODEL, null=True, on_delete=models.SET_NULL, related_name="+")
    made = models.OneToOneField(Sowing, null=True, on_delete=models.SET_NULL, related_name="intention")
    dropped_at = models.DateTimeField(null=True, editable=False)
    history = HistoricalRecords()

    class Meta:
        ordering = ["sow_on", "id"]
