"""What stands on the bench: rooms and their air, heat below a place, lamps above it."""

from __future__ import annotations

from typing import Any

from django.core.exceptions import ValidationError
from django.core.validators import MaxValueValidator, MinValueValidator
from django.db import models
from django.utils.translation import gettext as _
from simple_history.models import HistoricalRecords

from cloche.apps.places.models.places import Place, Room
from cloche.apps.shared import fields
from cloche.apps.shared.words import lazy
from cloche.bridge.services.offered import most_watts
from cloche.bridge.values.clocks import check_spans
from cloche.bridge.values.texts import number_text
from cloche_engine.errors import OutOfRange

MOST_WATTS = 5000.0
LEAST_SWING_K = 0.5
SPOTS = 9
"""Three by three over the bench."""
SIDE = [MinValueValidator(0.05), MaxValueValidator(20.0)]


def sane_spans(spans: Any) -> None:
    """Validate pairs of hours of the day."""
    try:
        check_spans(spans)
    except OutOfRange as refusal:
        raise ValidationError(str(refusal)) from refusal


def sane_spots(spots: Any) -> None:
    """Validate nine temperatures, any of which may be missing."""
    known = isinstance(spots, list) and len(spots) == SPOTS
    if not known or not all(spot is None or (isinstance(spot, int | float) and -40 <= spot <= 90) for spot in spots):
        raise ValidationError(_("Enter nine temperatures; some may be left out."))


class RoomAir(models.Model):
    """Air temperature read in a room."""

    class What(models.TextChoices):
        NOW = "room", lazy("now")
        LOWEST = "room_low", lazy("lowest since reset")
        HIGHEST = "room_high", lazy("highest since reset")

    room = models.ForeignKey(Room, on_delete=models.CASCADE, related_name="air")
    what = models.CharField(max_length=10, choices=What, default=What.NOW)
    at = models.DateTimeField(validators=[fields.sane_instant])
    since = models.DateTimeField(null=True, blank=True, validators=[fields.sane_instant])
    temperature_c = models.FloatField(validators=[MinValueValidator(-40.0), MaxValueValidator(60.0)])
    history = HistoricalRecords()

    class Meta:
        ordering = ["-at", "-id"]
        constraints = [models.UniqueConstraint(fields=["room", "what", "at"], name="one_room_air_at_a_time")]


class HeatPeriod(models.Model):
    """Heat source of a place from one day to another, both included; without a last day it is still there.

    `watts` is the power over length_m by width_m; a cable has cable_w_m along its cable_m instead, or `lift_k` gives the
    measured rise above the room. `spans` are a timer's pairs of hours; `over_m` and `under_m` the spreading layer around a
    cable.
    """

    class Kind(models.TextChoices):
        MAT = "mat", lazy("heat mat")
        BASE = "base", lazy("heated propagator base")
        CABLE = "cable", lazy("soil-warming cable")
        WIRE = "wire", lazy("low-voltage warming wire")
        HOUSE = "house", lazy("heater for the air of the room or house")

    class Control(models.TextChoices):
        ALWAYS = "always", lazy("always on")
        TIMER = "timer", lazy("timer")
        THERMOSTAT = "thermostat", lazy("thermostat")
        SELF = "self", lazy("self-regulating: gives less the warmer it is")

    class Probe(models.TextChoices):
        ROOTS = "roots", lazy("in the mix, beside the roots")
        BOTTOM = "bottom", lazy("at the heat, under the tray")
        AIR = "air", lazy("in the air")

    class Filling(models.TextChoices):
        SAND = "sharp_sand", lazy("sharp sand")
        GRIT = "grit", lazy("grit")
        VERMICULITE = "vermiculite", lazy("vermiculite")
        PERLITE = "perlite", lazy("perlite")

    place = models.ForeignKey(Place, on_delete=models.CASCADE, related_name="heat_periods")
    source = models.CharField(max_length=8, choices=Kind, default=Kind.MAT)
    first = models.DateField(validators=[fields.sane_day])
    last = models.DateField(null=True, blank=True, validators=[fields.sane_day])
    watts = models.FloatField(null=True, blank=True, validators=[MinValueValidator(0.5), MaxValueValidator(MOST_WATTS)])
    cable_m = models.FloatField(null=True, blank=True, validators=[MinValueValidator(0.5), MaxValueValidator(500.0)])
    cable_w_m = models.FloatField(null=True, blank=True, validators=[MinValueValidator(0.5), MaxValueValidator(60.0)])
    length_m = models.FloatField(default=0.5, validators=SIDE)
    width_m = models.FloatField(default=0.28, validators=SIDE)
    lift_k = models.FloatField(null=True, blank=True, validators=[MinValueValidator(0.5), MaxValueValidator(30.0)])
    control = models.CharField(max_length=10, choices=Control, default=Control.ALWAYS)
    spans = models.JSONField(default=list, blank=True, validators=[sane_spans])
    start_c = models.FloatField(default=18.0, validators=[MinValueValidator(-5.0), MaxValueValidator(42.0)])
    stop_c = models.FloatField(default=21.0, validators=[MinValueValidator(-5.0), MaxValueValidator(42.0)])
    probe = models.CharField(max_length=8, choices=Probe, default=Probe.ROOTS)
    over_m = models.FloatField(default=0.0, validators=[MinValueValidator(0.0), MaxValueValidator(0.4)])
    under_m = models.FloatField(default=0.0, validators=[MinValueValidator(0.0), MaxValueValidator(0.3)])
    filling = models.CharField(max_length=12, choices=Filling, default=Filling.SAND)
    filling_wet = models.BooleanField(default=True)
    history = HistoricalRecords()

    class Meta:
        ordering = ["first", "id"]

    @property
    def area_m2(self) -> float:
        """Return the heated area."""
        return self.length_m * self.width_m

    @property
    def power_w(self) -> float | None:
        """Return the total power [W], or None if unknown."""
        if self.cable_m and self.cable_w_m:
            return self.cable_m * self.cable_w_m
        return self.watts

    def clean(self) -> None:
        """Check the order of the dates, a plausible power for the area, and the thermostat's switching span."""
        if self.first and self.last and self.last < self.first:
            raise ValidationError({"last": _("The last day must not be before the first.")})
        if (self.cable_m is None) != (self.cable_w_m is None):
            raise ValidationError({"cable_w_m": _("Enter both the length of the cable and its watts per metre, or neither.")})
        self._refuse_too_strong()
        ruled = self.control == self.Control.THERMOSTAT and self.source != self.Kind.HOUSE
        if ruled and self.stop_c - self.start_c < LEAST_SWING_K:
            raise ValidationError({"stop_c": _("The thermostat must stop at least half a degree above its start.")})

    def _refuse_too_strong(self) -> None:
        most = most_watts(self.source, self.area_m2)
        if most is None or self.power_w is None or self.power_w <= most:
            return
        text = _(
            "{watts} W on {area} m² would be {density} W/m². No heater under plants gives more than {most}: "
            "check the watts and the size."
        )
        density, limit = self.power_w / self.area_m2, most / self.area_m2
        shown = {
            "watts": f"{self.power_w:.0f}",
            "area": number_text(f"{self.area_m2:.3g}"),
            "density": f"{density:,.0f}",
            "most": f"{limit:.0f}",
        }
        raise ValidationError({"cable_w_m" if self.cable_m else "watts": text.format(**shown)})


class Lamp(models.Model):
    """Lamp over a place from one day to another, lit during spans of the day; `ppfd` is measured at the leaves [µmol/m²s]."""

    class Kind(models.TextChoices):
        LED = "led", lazy("LED")
        TUBE = "tube", lazy("fluorescent tube")
        BULB = "bulb", lazy("filament bulb")

    place = models.ForeignKey(Place, on_delete=models.CASCADE, related_name="lamps")
    kind = models.CharField(max_length=6, choices=Kind, default=Kind.LED)
    first = models.DateField(validators=[fields.sane_day])
    last = models.DateField(null=True, blank=True, validators=[fields.sane_day])
    watts = models.FloatField(default=30.0, validators=[MinValueValidator(1.0), MaxValueValidator(MOST_WATTS)])
    ppfd = models.FloatField(null=True, blank=True, validators=[MinValueValidator(1.0), MaxValueValidator(2500.0)])
    length_m = models.FloatField(default=0.6, validators=SIDE)
    width_m = models.FloatField(default=0.5, validators=SIDE)
    away_m = models.FloatField(default=0.1, validators=[MinValueValidator(0.02), MaxValueValidator(3.0)])
    spans = models.JSONField(default=list, validators=[sane_spans])
    history = HistoricalRecords()

    class Meta:
        ordering = ["first", "id"]

    @property
    def area_m2(self) -> float:
        """Return the lit area."""
        return self.length_m * self.width_m

    def clean(self) -> None:
        """Check the order of the dates."""
        if self.first and self.last and self.last < self.first:
            raise ValidationError({"last": _("The last day must not be before the first.")})


class HeatTest(models.Model):
    """Test of a heater before the season.

    `minutes` from switching on to the set-point; `spots` nine readings of the bench row by row [°C], None where not read.
    """

    place = models.ForeignKey(Place, on_delete=models.CASCADE, related_name="heat_tests")
    on = models.DateField(validators=[fields.sane_day])
    minutes = models.PositiveIntegerField(null=True, blank=True, validators=[MaxValueValidator(10_000)])
    spots = models.JSONField(default=list, validators=[sane_spots])
    history = HistoricalRecords()

    class Meta:
        ordering = ["-on", "-id"]


class BenchCheck(models.Model):
    """Day on which a check of a heater was last done."""

    class Item(models.TextChoices):
        RUN = "run", lazy("test run")
        SPOTS = "spots", lazy("hot and cold spots")
        BREAKER = "breaker", lazy("residual-current device")
        CABLE = "cable", lazy("cable undamaged and covered")
        PROBE = "probe", lazy("probe beside the roots")
        CUT_OUT = "cut_out", lazy("second cut-out and spare thermostat")
        OFF_FLOOR = "off_floor", lazy("off the floor")
        ROOTS = "roots", lazy("root-proof sheet")
        TIMER = "timer", lazy("lamp’s timer")

    place = models.ForeignKey(Place, on_delete=models.CASCADE, related_name="bench_checks")
    item = models.CharField(max_length=10, choices=Item)
    on = models.DateField(validators=[fields.sane_day])
    history = HistoricalRecords()

    class Meta:
        ordering = ["id"]
        constraints = [models.UniqueConstraint(fields=["place", "item"], name="one_tick_of_a_check")]


MOST_TUBERS = 10_000


class TuberTray(models.Model):
    """Seed potatoes set out to sprout in a place, until they are planted."""

    place = models.ForeignKey(Place, on_delete=models.CASCADE, related_name="tuber_trays")
    crop_key = models.CharField(max_length=40)
    variety = models.CharField(max_length=60, blank=True, validators=[fields.plain])
    tubers = models.PositiveIntegerField(default=20, validators=[MinValueValidator(1), MaxValueValidator(MOST_TUBERS)])
    set_out_on = models.DateField(validators=[fields.sane_day])
    plant_on = models.DateField(validators=[fields.sane_day])
    planted_on = models.DateField(null=True, blank=True, validators=[fields.sane_day])
    removed_at = models.DateTimeField(null=True, editable=False)
    history = HistoricalRecords()

    class Meta:
        ordering = ["plant_on", "id"]

    def clean(self) -> None:
        """Check the order of the dates."""
        if self.set_out_on and self.plant_on and self.plant_on < self.set_out_on:
            raise ValidationError({"plant_on": _("The planting date must not be before they are set out.")})
