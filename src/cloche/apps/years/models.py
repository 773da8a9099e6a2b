"""Signs in nature by which growers tell the time of year."""

from __future__ import annotations

from django.db import models
from simple_history.models import HistoricalRecords

from cloche.apps.gardens.models import Garden
from cloche.apps.shared import fields
from cloche.apps.shared.fields import sane_day


class Sign(models.Model):
    """A phenological sign, such as the first dandelion."""

    garden = models.ForeignKey(Garden, on_delete=models.CASCADE, related_name="signs")
    name = models.CharField(max_length=60, validators=[fields.plain])
    on = models.DateField(validators=[sane_day])
    history = HistoricalRecords()

    class Meta:
        ordering = ["on", "id"]
