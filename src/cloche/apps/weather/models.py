"""The weather of a garden’s site: days written down, and the last that the provider said."""

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
    """A local day's air at the site: measured, or typed in ahead as a forecast; snow_m lies in the morning."""

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
        """A low is no higher than its high."""
        if self.low_c is not None and self.high_c is not None and self.low_c > self.high_c:
            raise ValidationError({"high_c": _("The high is below the low.")})


class WeatherReport(models.Model):
    """The last that a weather provider said of a garden's site, and when it was last asked in vain."""

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
    """How a provider of this installation does: failures on end, and until when it is left alone, by the database's clock."""

    address = models.CharField(max_length=500, unique=True)
    failures = models.PositiveIntegerField(default=0)
    failure = models.CharField(max_length=200, blank=True)
    rests_until = models.DateTimeField(null=True)


class WeatherCell(models.Model):
    """What a provider said of a cell of its grid, for gardens beside each other."""

    address = models.CharField(max_length=500)
    row = models.IntegerField()
    column = models.IntegerField()
    zone = models.CharField(max_length=60)
    asked_at = models.DateTimeField(db_index=True)
    answer = models.JSONField()

    class Meta:
        constraints = [models.UniqueConstraint(fields=["address", "row", "column", "zone"], name="one_answer_a_cell")]
