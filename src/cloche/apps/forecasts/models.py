"""The last finished forecast of each place, and what would come of each crop there. Both can be computed again at will."""

from __future__ import annotations

from typing import Any
from uuid import uuid4

from django.contrib.postgres.fields import ArrayField
from django.db import models

from cloche.apps.places.models import Place
from cloche.apps.shared.fields import RecordField
from cloche.apps.shared.words import lazy
from cloche_engine.results import (
    CandidateDays,
    CoverEvidence,
    FrostDates,
    NightsAhead,
    PlaceForecast,
    RibbonDays,
    RuleChoice,
    Watch,
    Window,
)


class Forecast(models.Model):
    """One finished run (see cloche_engine.results.ForecastResult). `ground` holds what the pages draw."""

    place = models.OneToOneField(Place, on_delete=models.CASCADE, related_name="forecast")
    made_at = models.DateTimeField()
    day = models.DateField(help_text="The local day the run calls today.")
    input_revision = models.PositiveBigIntegerField(help_text="The revision of the place’s inputs that the run rests on.")
    model_version = models.CharField(max_length=40)
    ground = RecordField(PlaceForecast)
    frosts = RecordField(FrostDates)
    cover_evidence = RecordField(CoverEvidence, null=True)
    nights = RecordField(NightsAhead, null=True)
    watch = RecordField(Watch, null=True, help_text="The coming three days; none indoors.")
    stored = models.UUIDField(null=True, editable=False, help_text="Another one whenever anything of it is stored.")

    def save(self, *args: Any, **kwargs: Any) -> None:
        """Save and discard the cached value of this name."""
        self.stored = uuid4()
        if kwargs.get("update_fields") is not None:
            kwargs["update_fields"] = {*kwargs["update_fields"], "stored"}
        super().save(*args, **kwargs)


class ModelSnapshot(models.Model):
    """State for simulating a place again (see forecast.snapshots), kept apart because lists do not need it."""

    place = models.OneToOneField(Place, on_delete=models.CASCADE, related_name="snapshot")
    packed = models.BinaryField()


class CropOutlook(models.Model):
    """One crop in one place by one method: windows and all candidate days (see cloche_engine.results.CropDays)."""

    class Method(models.TextChoices):
        DIRECT = "direct", lazy("sown in place")
        TRANSPLANTED = "transplanted", lazy("raised and planted out")

    place = models.ForeignKey(Place, on_delete=models.CASCADE, related_name="outlooks")
    crop_key = models.CharField(max_length=40)
    method = models.CharField(max_length=12, choices=Method, default=Method.DIRECT)
    better = models.BooleanField(default=True, help_text="Whether this is the method that suits the place, or was chosen.")
    windows = RecordField(list[Window], nothing=list)
    sow_now = models.BooleanField()
    main_limit = models.CharField(max_length=20, blank=True, help_text="A cloche_engine.windows.limits.Limit.")
    half_d = models.FloatField(null=True, help_text="Days until half are up, sown on the forecast's day.")
    share = models.FloatField(default=0.0, help_text="Share of live seed that comes up, sown on the forecast's day.")
    fails_now = models.FloatField(default=1.0, help_text="Chance that it fails, if done on the forecast's day.")
    hopeless = models.BooleanField(default=False, help_text="Nobody grows it that way there.")
    ribbon = RecordField(RibbonDays)
    days = RecordField(CandidateDays)
    members = models.TextField(default="", help_text="Days to half emergence in each member in which it succeeds, packed.")
    sowing_rules = RecordField(list[RuleChoice], nothing=list)

    class Meta:
        constraints = [models.UniqueConstraint(fields=["place", "crop_key", "method"], name="one_outlook_a_crop_and_method")]

    @property
    def sown(self) -> bool:
        """Whether it is sown, as seed, set or tuber, instead of planted."""
        return self.method == self.Method.DIRECT


class WindowChange(models.Model):
    """A window that a new forecast moved, opened or closed. `before` and `after` are its first and last day, or None."""

    place = models.ForeignKey(Place, on_delete=models.CASCADE, related_name="window_changes")
    crop_key = models.CharField(max_length=40)
    method = models.CharField(max_length=12, choices=CropOutlook.Method)
    at = models.DateTimeField()
    before = models.DateField(null=True)
    after = models.DateField(null=True)

    class Meta:
        ordering = ["at", "id"]
        indexes = [models.Index(fields=["place", "at"], name="window_change_newest")]


class SoilYear(models.Model):
    """Daily soil at seed depth of a place from 1 January, None where unknown [°C].

    `measured` counts days with readings, `depth_m` is the depth of the last computation, and `kwh` the daily energy of its
    heat, None without heat.
    """

    place = models.ForeignKey(Place, on_delete=models.CASCADE, related_name="soil_years")
    year = models.PositiveSmallIntegerField()
    depth_m = models.FloatField()
    mean_c = ArrayField(models.FloatField(null=True))
    measured = models.PositiveSmallIntegerField(default=0)
    kwh = ArrayField(models.FloatField(null=True), null=True)

    class Meta:
        ordering = ["year"]
        constraints = [models.UniqueConstraint(fields=["place", "year"], name="one_soil_a_year")]
