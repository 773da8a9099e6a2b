"""Recorded weather, and the provider's reports."""

from __future__ import annotations

from django.core.exceptions import ValidationError
from django.db import models
from django.utils.translation import gettext as _
from simple_history.models import HistoricalRecords

from cloche.apps.gardens.models import Garden
from cloche.apps.shared import fields
from cloche.apps.shared.sources import Source
from cloche.apps.shared.words import lazy


class DailyWeather(models.Model):
    """Air temperature and weather of a local day, measured or typed ahead as a forecast; `snow_m` lies in the morning."""

    LINE = ("day", "low_c", "high_c", "rain_mm", "sky", "wind_m_s", "snow_m")

    class Sky(models.TextChoices):
        CLEAR = "clear", lazy("clear")
        BROKEN = "broken", lazy("broken")
        OVERCAST = "overcast", lazy("overcast")

    garden = models.ForeignKey(Garden, on_delete=models.CASCADE, related_name="weather")
    day = models.DateField(validators=[fields.sane_day])
    low_c = models.FloatField()
    high_c = models.FloatField()
    rain_mm = models.FloatField(null=True, blank=True)
    sky = models.CharField(max_length=10, blank=True, choices=Sky)
    wind_m_s = models.FloatField(null=True, blank=True)
    snow_m = models.FloatField(null=True, blank=True)
    source = models.CharField(max_length=10, choices=Source, default=Source.HAND)
    history = HistoricalRecords()

    class Meta:
        ordering = ["-day"]
        constraints = [models.UniqueConstraint(fields=["garden", "day"], name="one_line_a_day")]

    def clean(self) -> None:
        """Check that the low is not above the high."""
        if self.low_c is not None and self.high_c is not None and self.low_c > self.high_c:
            raise ValidationError({"high_c": _("The high is below the low.")})


class WeatherReport(models.Model):
    """Latest report of a provider for a garden, and its latest failure."""

    garden = models.OneToOneField(Garden, on_delete=models.CASCADE, related_name="weather_report")
    asked_at = models.DateTimeField(null=True, help_text="When it was last asked, by the database's clock.")
    received_at = models.DateTimeField(null=True)
    failed_at = models.DateTimeField(null=True)
    failure = models.CharField(max_length=200, blank=True)
    current_c = models.FloatField(null=True)
    ahead = models.JSONField(default=list, help_text="Days from the day it was issued: day, low_c, high_c, sky.")
    past = models.JSONField(default=dict, help_text="Earlier days: first, low_c, high_c, rain_mm, one value a day.")
    simulated = models.BooleanField(default=False, help_text="Whether the service says that its weather is made up.")


class ProviderState(models.Model):
    """Consecutive failures of a provider, and until when it is paused by the database's clock."""

    address = models.CharField(max_length=500, unique=True)
    failures = models.PositiveIntegerField(default=0)
    failure = models.CharField(max_length=200, blank=True)
    rests_until = models.DateTimeField(null=True)


class WeatherCell(models.Model):
    """A provider's report for a grid cell shared by neighbouring gardens."""

    address = models.CharField(max_length=500)
    row = models.IntegerField()
    column = models.IntegerField()
    zone = models.CharField(max_length=60)
    asked_at = models.DateTimeField(db_index=True)
    answer = models.JSONField()

    class Meta:
        constraints = [models.UniqueConstraint(fields=["address", "row", "column", "zone"], name="one_answer_a_cell")]
