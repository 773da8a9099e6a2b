"""What stands over a place, what was done to it, what it is built of."""

from __future__ import annotations

from django.core.exceptions import ValidationError
from django.core.validators import MaxValueValidator, MinValueValidator
from django.db import models
from django.db.models.functions import Lower
from django.utils.translation import gettext as _
from simple_history.models import HistoricalRecords

from cloche.apps.gardens.models import Garden
from cloche.apps.places.models.places import Place
from cloche.apps.shared import fields
from cloche.apps.shared.words import lazy
from cloche.bridge.services.offered import is_box, refuse_shape
from cloche_engine.errors import OutOfRange

COVERED_M = (0.1, 60.0)
"""Length of a bed that a cover can lie over [m]."""


class Cover(models.Model):
    """Cover owned by the garden, a single item that can be on one bed at a time; `kind` is a key of
    bridge.services.offered.cover_names.

    length_m along the bed, width_m of the sheet or across the frame; spread_m: how far apart a bent sheet's edges are set;
    low_m, high_m: of a frame, at its front and back.
    """

    garden = models.ForeignKey(Garden, on_delete=models.CASCADE, related_name="covers")
    kind = models.CharField(max_length=20)
    name = models.CharField(max_length=60, validators=[fields.plain])
    length_m = models.FloatField(default=1.2, validators=[MinValueValidator(0.1), MaxValueValidator(60.0)])
    width_m = models.FloatField(default=1.2, validators=[MinValueValidator(0.1), MaxValueValidator(12.0)])
    spread_m = models.FloatField(null=True, blank=True, validators=[MinValueValidator(0.1), MaxValueValidator(12.0)])
    low_m = models.FloatField(null=True, blank=True, validators=[MinValueValidator(0.03), MaxValueValidator(3.0)])
    high_m = models.FloatField(null=True, blank=True, validators=[MinValueValidator(0.03), MaxValueValidator(3.0)])
    purchase_year = models.PositiveSmallIntegerField(null=True, blank=True)
    dirty = models.BooleanField(default=False)
    price = models.FloatField(null=True, blank=True, validators=[MinValueValidator(0.0), MaxValueValidator(fields.MOST_MONEY)])
    weight_kg = models.FloatField(null=True, blank=True, validators=[MinValueValidator(0.0), MaxValueValidator(500.0)])
    removed_at = models.DateTimeField(null=True, editable=False)
    history = HistoricalRecords()

    class Meta:
        ordering = ["id"]
        constraints = [
            models.UniqueConstraint(
                "garden", Lower("name"), condition=models.Q(removed_at__isnull=True), name="one_cover_of_a_name"
            )
        ]

    def __str__(self) -> str:
        return self.name

    def clean(self) -> None:
        """A bend that is a roof, and both heights of a frame."""
        if self.spread_m is not None and self.width_m is not None:
            try:
                refuse_shape(self.kind, self.width_m, self.spread_m)
            except OutOfRange as refusal:
                raise ValidationError({"spread_m": str(refusal)}) from refusal
        if is_box(self.kind) and (self.low_m is None) != (self.high_m is None):
            raise ValidationError({"high_m": _("Enter both heights of a frame, front and back, or neither.")})


class CoverDamage(models.Model):
    """Damage to a cover on a day and its cause."""

    class What(models.TextChoices):
        TORN = "torn", lazy("torn")
        BLOWN = "blown", lazy("blown away")
        BROKEN = "broken", lazy("broken or cracked")
        SAGGED = "sagged", lazy("sagged or crushed")
        CLOUDED = "clouded", lazy("clouded or brittle")

    class Cause(models.TextChoices):
        WIND = "wind", lazy("wind")
        SNOW = "snow", lazy("snow")
        HAIL = "hail", lazy("hail")
        SUN = "sun", lazy("sun and age")
        OTHER = "other", lazy("something else")

    cover = models.ForeignKey(Cover, on_delete=models.CASCADE, related_name="damage")
    on = models.DateField(validators=[fields.sane_day])
    what = models.CharField(max_length=10, choices=What)
    cause = models.CharField(max_length=10, choices=Cause)
    note = models.CharField(max_length=200, blank=True, validators=[fields.plain])

    class Meta:
        ordering = ["on", "id"]


class CoverPeriod(models.Model):
    """Cover on a place from one day to another, both included; without a last day it is still on.

    `item` is the garden's own cover if given; `covered_m` the covered length of the bed, None for all of it.
    """

    class Opens(models.TextChoices):
        CLOSED = "closed", lazy("kept closed")
        ABOVE = "above", lazy("opened to stay below a temperature")
        HOURS = "hours", lazy("opened between hours")

    place = models.ForeignKey(Place, on_delete=models.CASCADE, related_name="cover_periods")
    item = models.ForeignKey(Cover, null=True, blank=True, on_delete=models.SET_NULL, related_name="periods")
    cover = models.CharField(max_length=20)
    first = models.DateField(validators=[fields.sane_day])
    last = models.DateField(null=True, blank=True, validators=[fields.sane_day])
    ends_capped = models.BooleanField(default=True)
    opens = models.CharField(max_length=10, choices=Opens, default=Opens.CLOSED)
    above_c = models.FloatField(default=26.0)
    from_h = models.PositiveSmallIntegerField(default=10, validators=[MaxValueValidator(23)])
    to_h = models.PositiveSmallIntegerField(default=16, validators=[MaxValueValidator(24)])
    opening = models.FloatField(default=0.4, validators=[MinValueValidator(0.0), MaxValueValidator(1.0)])
    blanket = models.BooleanField(default=False)
    covered_m = models.FloatField(
        null=True, blank=True, validators=[MinValueValidator(COVERED_M[0]), MaxValueValidator(COVERED_M[1])]
    )
    history = HistoricalRecords()

    class Meta:
        ordering = ["first", "id"]

    def clean(self) -> None:
        """Days and hours in order."""
        if self.first and self.last and self.last < self.first:
            raise ValidationError({"last": _("The date off must not be before the date on.")})
        if self.opens == self.Opens.HOURS and self.from_h >= self.to_h:
            raise ValidationError({"to_h": _("The hour of closing must be after the hour of opening.")})


class Operation(models.Model):
    """Work on a place that changes its temperature; `work` is a cloche_engine.soil.bed.Work."""

    place = models.ForeignKey(Place, on_delete=models.CASCADE, related_name="operations")
    work = models.CharField(max_length=20)
    at = models.DateTimeField(validators=[fields.sane_instant])
    amount = models.FloatField(default=0.0, help_text="mm of water or m of mulch or compost; 0: the usual.")
    history = HistoricalRecords()

    class Meta:
        ordering = ["-at", "-id"]


class Hotbed(models.Model):
    """Filling of a hotbed; material, moist and trodden are keys of bridge.services.hotbeds."""

    place = models.OneToOneField(Place, on_delete=models.CASCADE, related_name="hotbed")
    material = models.CharField(max_length=12, default="horse")
    depth_m = models.FloatField(default=0.6, validators=[MinValueValidator(0.2), MaxValueValidator(2.0)])
    length_m = models.FloatField(default=2.0, validators=[MinValueValidator(0.3), MaxValueValidator(50.0)])
    width_m = models.FloatField(default=1.2, validators=[MinValueValidator(0.3), MaxValueValidator(10.0)])
    moist = models.CharField(max_length=8, default="moist")
    trodden = models.CharField(max_length=8, default="firm")
    insulated = models.BooleanField(default=True)
    soil_m = models.FloatField(default=0.15, validators=[MinValueValidator(0.0), MaxValueValidator(0.5)])
    filled_on = models.DateField(validators=[fields.sane_day])
    topped_up_on = models.DateField(null=True, blank=True, validators=[fields.sane_day])
    matted_until = models.DateField(null=True, blank=True, validators=[fields.sane_day])
    history = HistoricalRecords()

    def clean(self) -> None:
        """Days in order."""
        if self.filled_on and self.topped_up_on and self.topped_up_on <= self.filled_on:
            raise ValidationError({"topped_up_on": _("The date of topping up must be after the date of filling.")})
        if self.filled_on and self.matted_until and self.matted_until <= self.filled_on:
            raise ValidationError({"matted_until": _("The date the mat comes off must be after the date of filling.")})


class HotbedTray(models.Model):
    """Tray on a hotbed from one day to another, both included; without a last day it is still there."""

    place = models.ForeignKey(Place, on_delete=models.CASCADE, related_name="on_hotbeds")
    hotbed = models.ForeignKey(Place, on_delete=models.CASCADE, related_name="trays_on_it")
    first = models.DateField(validators=[fields.sane_day])
    last = models.DateField(null=True, blank=True, validators=[fields.sane_day])
    history = HistoricalRecords()

    class Meta:
        ordering = ["first", "id"]

    def clean(self) -> None:
        """On a hotbed, days in order."""
        if self.first and self.last and self.last < self.first:
            raise ValidationError({"last": _("The last day must not be before the first.")})
        if self.hotbed_id and self.hotbed.kind != "hotbed":
            raise ValidationError({"hotbed": _("{name} is not a hotbed.").format(name=self.hotbed.name)})
        if self.place_id and self.place.kind == "hotbed":
            raise ValidationError({"hotbed": _("{name} is a hotbed itself.").format(name=self.place.name)})


class HotbedFill(models.Model):
    """Further filling of a hotbed, with keys as in Hotbed."""

    place = models.ForeignKey(Place, on_delete=models.CASCADE, related_name="hotbed_fills")
    on = models.DateField(validators=[fields.sane_day])
    material = models.CharField(max_length=12, default="horse")
    depth_m = models.FloatField(default=0.3, validators=[MinValueValidator(0.05), MaxValueValidator(2.0)])
    moist = models.CharField(max_length=8, default="moist")
    trodden = models.CharField(max_length=8, default="firm")
    history = HistoricalRecords()

    class Meta:
        ordering = ["on", "id"]


class HotbedNote(models.Model):
    """Entry in a hotbed's diary: core temperature [°C] and height of the heap [m]."""

    place = models.ForeignKey(Place, on_delete=models.CASCADE, related_name="hotbed_notes")
    on = models.DateField(validators=[fields.sane_day])
    core_c = models.FloatField(null=True, blank=True, validators=[MinValueValidator(-10.0), MaxValueValidator(90.0)])
    height_m = models.FloatField(null=True, blank=True, validators=[MinValueValidator(0.0), MaxValueValidator(2.5)])
    note = models.CharField(max_length=200, blank=True, validators=[fields.plain])
    history = HistoricalRecords()

    class Meta:
        ordering = ["on", "id"]
