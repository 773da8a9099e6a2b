"""Plantings, bed sizes, events and saved seed."""

from __future__ import annotations

from django.conf import settings
from django.core.exceptions import ValidationError
from django.core.validators import MaxValueValidator, MinValueValidator
from django.db import models
from django.utils.translation import gettext as _
from simple_history.models import HistoricalRecords

from cloche.apps.places.models import Place
from cloche.apps.seed.models import Packet
from cloche.apps.shared import fields
from cloche.apps.shared.fields import sane_day
from cloche.apps.shared.words import lazy
from cloche.apps.sowings.models import Sowing

MOST_PLANTS, MOST_KG = 1_000_000, 100_000
SIDE_M, APART_M, HEIGHT_M = (0.05, 60.0), (0.01, 5.0), (0.0, 6.0)


def _within(limits: tuple[float, float]) -> list[MinValueValidator | MaxValueValidator]:
    return [MinValueValidator(limits[0]), MaxValueValidator(limits[1])]


class BedShape(models.Model):
    """Size and direction of a bed on its plan.

    `square_m` is the side of its grid squares; `runs_deg` the bearing of its length.
    """

    place = models.OneToOneField(Place, on_delete=models.CASCADE, related_name="shape")
    length_m = models.FloatField(default=3.0, validators=_within((0.2, 60.0)))
    width_m = models.FloatField(default=1.2, validators=_within((0.2, 20.0)))
    square_m = models.FloatField(default=0.3, validators=_within((0.05, 2.0)))
    runs_deg = models.FloatField(
        default=90.0,
        choices=[
            (0.0, lazy("north to south")),
            (45.0, lazy("north-east to south-west")),
            (90.0, lazy("east to west")),
            (135.0, lazy("south-east to north-west")),
        ],
    )
    history = HistoricalRecords()


class Planting(models.Model):
    """Plants of one crop in one place: planned, standing or ended.

    An empty crop_key reserves ground for later.

    planned_on: meant for that day; planted_on: sown or set out then, None while it is only planned. x_m, y_m: its corner in
    the bed, None while it is not on the plan; plant_m, row_m: distances, None for the crop's own.
    """

    class Origin(models.TextChoices):
        SOWN = "sown", lazy("sown here")
        RAISED = "raised", lazy("own seedlings")
        PURCHASED = "bought", lazy("bought plants")
        SETS = "sets", lazy("sets, cloves or tubers")
        THINNINGS = "thinnings", lazy("thinnings transplanted here")
        OVERWINTERED = "overwintered", lazy("survived the winter here")
        SELF_SOWN = "self_sown", lazy("self-sown")

    class Layout(models.TextChoices):
        SQUARES = "squares", lazy("in squares")
        ROWS = "rows", lazy("in rows")
        BROADCAST = "broadcast", lazy("broadcast")

    class Thinning(models.TextChoices):
        NONE = "none", lazy("not thinned")
        PAIRS = "pairs", lazy("several sown per station, thinned to one")
        EVERY_OTHER = "every_other", lazy("every other plant is pulled young")

    place = models.ForeignKey(Place, on_delete=models.CASCADE, related_name="plantings")
    crop_key = models.CharField(max_length=40, blank=True)
    packet = models.ForeignKey(Packet, null=True, blank=True, on_delete=models.SET_NULL, related_name="plantings")
    sowing = models.ForeignKey(Sowing, null=True, blank=True, on_delete=models.SET_NULL, related_name="plantings")
    origin = models.CharField(max_length=12, choices=Origin, default=Origin.SOWN)
    planned_on = models.DateField(null=True, blank=True, validators=[sane_day])
    planted_on = models.DateField(null=True, blank=True, validators=[sane_day])
    ended_on = models.DateField(null=True, blank=True, validators=[sane_day])
    number = models.PositiveIntegerField(
        null=True, blank=True, validators=[MinValueValidator(1), MaxValueValidator(MOST_PLANTS)]
    )
    height_m = models.FloatField(null=True, blank=True, validators=_within(HEIGHT_M), help_text="When it was set out.")
    x_m = models.FloatField(null=True, blank=True, validators=_within((0.0, 60.0)))
    y_m = models.FloatField(null=True, blank=True, validators=_within((0.0, 60.0)))
    length_m = models.FloatField(default=0.3, validators=_within(SIDE_M))
    width_m = models.FloatField(default=0.3, validators=_within(SIDE_M))
    layout = models.CharField(max_length=10, choices=Layout, default=Layout.SQUARES)
    plant_m = models.FloatField(null=True, blank=True, validators=_within(APART_M))
    row_m = models.FloatField(null=True, blank=True, validators=_within(APART_M))
    per_station = models.PositiveSmallIntegerField(null=True, blank=True, validators=_within((1, 20)))
    thinning = models.CharField(max_length=12, choices=Thinning, default=Thinning.NONE)
    note = models.CharField(max_length=200, blank=True, validators=[fields.plain])
    entered_by = models.ForeignKey(settings.AUTH_USER_MODEL, null=True, on_delete=models.SET_NULL, related_name="+")
    removed_at = models.DateTimeField(null=True, editable=False)
    history = HistoricalRecords()

    class Meta:
        ordering = ["place", "y_m", "x_m", "id"]

    def clean(self) -> None:
        """Check that the dates are in order and that either both corners are given or none."""
        if self.planted_on and self.ended_on and self.ended_on < self.planted_on:
            raise ValidationError({"ended_on": _("The end date must not be before the planting date.")})
        if (self.x_m is None) != (self.y_m is None):
            raise ValidationError(_("A planting on the plan needs both distances, or neither."))
        if not self.crop_key and self.planted_on:
            raise ValidationError({"planted_on": _("Nothing can be planted in space kept for later.")})

    @property
    def is_seeded(self) -> bool:
        """Return whether seed or sets go into the ground, so that it is a sowing as well."""
        return self.origin in (self.Origin.SOWN, self.Origin.SETS)

    @property
    def is_standing(self) -> bool:
        """Return whether it has been planted and has not ended."""
        return self.planted_on is not None and self.ended_on is None


class PlantEvent(models.Model):
    """Observation or task of a planting on a day.

    `night` is the morning after the damaging night; `lowest_c` the lowest temperature among the plants that night if known
    [°C].
    """

    class Kind(models.TextChoices):
        HARVESTED = "harvested", lazy("harvested")
        EATEN = "eaten", lazy("thinnings eaten")
        MOVED = "moved", lazy("thinnings transplanted")
        DIED = "died", lazy("died")
        STOOD = "stood", lazy("survived a cold night")
        MEASURED = "measured", lazy("height measured")
        GROWS = "grows", lazy("growing again after winter")

    class Cause(models.TextChoices):
        UNKNOWN = "", lazy("not known")
        FROST = "frost", lazy("frost")
        HEAT = "heat", lazy("heat")
        DROUGHT = "drought", lazy("drought")
        WET = "wet", lazy("wet, rot")
        SLUGS = "slugs", lazy("slugs or snails")
        MICE = "mice", lazy("mice or voles")
        BIRDS = "birds", lazy("birds")
        INSECTS = "insects", lazy("insects")
        DISEASE = "disease", lazy("disease")
        BOLTED = "bolted", lazy("bolted")
        WIND = "wind", lazy("wind")

    planting = models.ForeignKey(Planting, on_delete=models.CASCADE, related_name="events")
    kind = models.CharField(max_length=10, choices=Kind)
    on = models.DateField(validators=[sane_day])
    number = models.PositiveIntegerField(
        null=True, blank=True, validators=[MinValueValidator(1), MaxValueValidator(MOST_PLANTS)]
    )
    weight_kg = models.FloatField(null=True, blank=True, validators=_within((0.0, MOST_KG)))
    height_m = models.FloatField(null=True, blank=True, validators=_within(HEIGHT_M))
    cause = models.CharField(max_length=10, choices=Cause, blank=True)
    lowest_c = models.FloatField(null=True, blank=True, validators=_within((-60.0, 40.0)))
    note = models.CharField(max_length=200, blank=True, validators=[fields.plain])
    history = HistoricalRecords()

    class Meta:
        ordering = ["on", "id"]


class SavedSeed(models.Model):
    """Packet of seed saved from a planting; the planting's own packet is its parent."""

    packet = models.OneToOneField(Packet, on_delete=models.CASCADE, related_name="saved")
    planting = models.ForeignKey(Planting, on_delete=models.CASCADE, related_name="saved_seed")
