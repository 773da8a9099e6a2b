"""The last finished forecast of each place, and what would come of each crop there. Both can be computed again at will."""

from __future__ import annotations

from django.db import models

from cloche.apps.gardens.models import Garden, Place, User


class Forecast(models.Model):
    """One finished run. `ground` holds what the pages draw (see bridge.forecasting.PlaceForecast)."""

    place = models.OneToOneField(Place, on_delete=models.CASCADE, related_name="forecast")
    made_at = models.DateTimeField()
    day = models.DateField(help_text="The local day the run calls today.")
    evidence = models.PositiveBigIntegerField(help_text="The place's evidence number that the run rests on.")
    model_version = models.CharField(max_length=40)
    ground = models.JSONField()


class CropOutlook(models.Model):
    """One crop in one place: the windows found, and every candidate day in `days` (see bridge.forecasting.CropDays)."""

    place = models.ForeignKey(Place, on_delete=models.CASCADE, related_name="outlooks")
    crop_key = models.CharField(max_length=40)
    windows = models.JSONField()
    sow_now = models.BooleanField()
    main_limit = models.CharField(max_length=40, blank=True)
    half_d = models.FloatField(null=True, help_text="Days until half are up, sown on the forecast's day.")
    share = models.FloatField(default=0.0, help_text="Share of live seed that comes up, sown on the forecast's day.")
    ribbon = models.JSONField()
    days = models.JSONField()

    class Meta:
        constraints = [models.UniqueConstraint(fields=["place", "crop_key"], name="one_outlook_a_crop")]


class CalendarLink(models.Model):
    """A person's secret address under which a calendar may read a garden's windows."""

    garden = models.ForeignKey(Garden, on_delete=models.CASCADE, related_name="calendar_links")
    user = models.ForeignKey(User, on_delete=models.CASCADE, related_name="+")
    token = models.CharField(max_length=64, unique=True)
    created_at = models.DateTimeField(auto_now_add=True)

    class Meta:
        constraints = [models.UniqueConstraint(fields=["garden", "user"], name="one_address_a_person_and_garden")]
