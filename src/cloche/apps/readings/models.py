"""Readings, visits and imported files."""

from __future__ import annotations

from django.conf import settings
from django.core.exceptions import ValidationError
from django.db import models
from django.utils.translation import gettext as _
from simple_history.models import HistoricalRecords

from cloche.apps.gardens.models import Garden
from cloche.apps.places.models import Operation, Place
from cloche.apps.shared import fields
from cloche.apps.shared.sources import Source
from cloche.apps.shared.words import lazy


class ReadingQuerySet(models.QuerySet["Reading"]):
    """Queryset of readings."""

    def current(self) -> ReadingQuerySet:
        """Return readings that have not been removed."""
        return self.filter(removed_at__isnull=True)


class Visit(models.Model):
    """One stop of a round: person, place, time and observations other than soil temperature.

    key: given by the device that it was written on, so that sending twice keeps it once. Removal only marks it.
    """

    class Moisture(models.TextChoices):
        DRY = "dry", lazy("dry")
        MOIST = "moist", lazy("moist")
        WET = "wet", lazy("wet")

    key = models.UUIDField(unique=True)
    place = models.ForeignKey(Place, on_delete=models.CASCADE, related_name="visits")
    at = models.DateTimeField(validators=[fields.sane_instant])
    made_by = models.ForeignKey(settings.AUTH_USER_MODEL, null=True, on_delete=models.SET_NULL, related_name="+")
    air_c = models.FloatField(null=True, blank=True, help_text="Air in the cover at that moment.")
    air_low_c = models.FloatField(null=True, blank=True, help_text="Lowest since the thermometer was set back.")
    air_high_c = models.FloatField(null=True, blank=True, help_text="Highest since the thermometer was set back.")
    moisture = models.CharField(max_length=5, blank=True, choices=Moisture)
    snow_m = models.FloatField(null=True, blank=True)
    note = models.CharField(max_length=200, blank=True, validators=[fields.plain])
    losses = models.CharField(
        max_length=200,
        blank=True,
        validators=[fields.plain],
        help_text="What stood or died after a cold night or a hot day.",
    )
    photo = models.BinaryField(null=True, blank=True, help_text="A small JPEG without its camera's notes.")
    operations = models.ManyToManyField(Operation, blank=True, related_name="visits")
    removed_at = models.DateTimeField(null=True, editable=False)
    history = HistoricalRecords(excluded_fields=["photo"])

    class Meta:
        ordering = ["-at", "-id"]
        indexes = [models.Index(fields=["place", "-at"], name="visit_newest_first")]

    def clean(self) -> None:
        """Check that a low is not above its high."""
        if self.air_low_c is not None and self.air_high_c is not None and self.air_low_c > self.air_high_c:
            raise ValidationError({"air_high_c": _("The highest is below the lowest.")})


class Reading(models.Model):
    """One soil temperature read after the thermometer has settled; removal only marks it, so that it can be undone."""

    class Review(models.TextChoices):
        RIGHT = "right", lazy("checked and correct")
        LEFT_OUT = "left_out", lazy("left out of the forecast")

    place = models.ForeignKey(Place, on_delete=models.CASCADE, related_name="readings")
    taken_at = models.DateTimeField(validators=[fields.sane_instant])
    depth_m = models.FloatField()
    temperature_c = models.FloatField()
    note = models.CharField(max_length=200, blank=True, validators=[fields.plain])
    source = models.CharField(max_length=10, choices=Source, default=Source.HAND)
    review = models.CharField(max_length=10, blank=True, choices=Review, help_text="A grower's word on a doubtful one.")
    visit = models.ForeignKey(Visit, null=True, blank=True, on_delete=models.SET_NULL, related_name="readings")
    entered_by = models.ForeignKey(settings.AUTH_USER_MODEL, null=True, on_delete=models.SET_NULL, related_name="+")
    removed_at = models.DateTimeField(null=True, editable=False)
    history = HistoricalRecords()

    objects = ReadingQuerySet.as_manager()

    class Meta:
        ordering = ["-taken_at", "depth_m"]
        constraints = [
            models.UniqueConstraint(
                fields=["place", "taken_at", "depth_m"],
                condition=models.Q(removed_at__isnull=True),
                name="one_reading_at_a_time_and_depth",
            )
        ]
        indexes = [models.Index(fields=["place", "-taken_at"], name="reading_newest_first")]


class FileSource(models.Model):
    """Column mapping of files from one source, remembered from the last import; `signature` identifies its heading."""

    garden = models.ForeignKey(Garden, on_delete=models.CASCADE, related_name="file_sources")
    kind = models.CharField(max_length=10)
    signature = models.CharField(max_length=64)
    mapping = models.JSONField()

    class Meta:
        constraints = [models.UniqueConstraint(fields=["garden", "kind", "signature"], name="one_memory_a_heading")]


class WatchedFile(models.Model):
    """File imported from the watched folder.

    `kind` is empty for a typical year, `left_out` counts refused rows, and `reason` explains the first of them or the
    failure of the whole file.
    """

    garden = models.ForeignKey(Garden, on_delete=models.CASCADE, related_name="watched_files")
    name = models.CharField(max_length=200)
    at = models.DateTimeField()
    kind = models.CharField(max_length=10, blank=True, default="")
    taken = models.BooleanField(default=True)
    added = models.PositiveIntegerField(default=0)
    left_out = models.PositiveIntegerField(default=0)
    reason = models.CharField(max_length=300, blank=True, default="")

    class Meta:
        ordering = ["-at", "-id"]


class IncomingFile(models.Model):
    """Uploaded file whose text is kept until it is imported or cancelled.

    familiar: its heading is that of an earlier one. A long file is taken outside the request: done of total rows are in.
    """

    class State(models.TextChoices):
        WAITING = "waiting", lazy("waiting for your answer")
        TAKING = "taking", lazy("import running")
        TAKEN = "taken", lazy("imported")

    class Kind(models.TextChoices):
        READINGS = "readings", lazy("soil readings")
        WEATHER = "weather", lazy("daily weather")

    garden = models.ForeignKey(Garden, on_delete=models.CASCADE, related_name="incoming_files")
    user = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.CASCADE, related_name="+")
    kind = models.CharField(max_length=10, choices=Kind)
    name = models.CharField(max_length=200)
    text = models.TextField()
    mapping = models.JSONField(default=dict)
    familiar = models.BooleanField(default=False)
    state = models.CharField(max_length=8, choices=State, default=State.WAITING)
    done = models.PositiveIntegerField(default=0)
    total = models.PositiveIntegerField(default=0)
    created_at = models.DateTimeField(auto_now_add=True)
