"""The places of a garden and the rooms in which some of them stand."""

from __future__ import annotations

from django.core.exceptions import ValidationError
from django.core.validators import MaxValueValidator, MinValueValidator
from django.db import models
from django.db.models.functions import Lower
from django.utils.translation import gettext as _
from simple_history.models import HistoricalRecords

from cloche.apps.gardens.models import Garden
from cloche.apps.shared import fields
from cloche.apps.shared.words import lazy
from cloche.bridge.services.offered import place_name, place_names

ASPECTS = [
    (0.0, lazy("north")),
    (90.0, lazy("east")),
    (135.0, lazy("south-east")),
    (180.0, lazy("south")),
    (225.0, lazy("south-west")),
    (270.0, lazy("west")),
]
WINDOW_ASPECTS = [*ASPECTS[:2], (45.0, lazy("north-east")), *ASPECTS[2:], (315.0, lazy("north-west"))]
WINDOW_ASPECTS.sort(key=lambda aspect: aspect[0])


class Room(models.Model):
    """Room for trays.

    `night_c` and `day_c` are its temperatures, None for those usual for its kind.
    """

    class Kind(models.TextChoices):
        SHED = "shed", lazy("back room in use, or frost-free shed")
        LIVING = "living", lazy("warm living room")
        RADIATOR = "radiator", lazy("sill or shelf by a radiator")
        COOL = "cool", lazy("cool room, little heated")
        GARAGE = "garage", lazy("unheated garage, porch or cellar")
        CORNER = "corner", lazy("enclosed warm corner")

    garden = models.ForeignKey(Garden, on_delete=models.CASCADE, related_name="rooms")
    name = models.CharField(max_length=60, validators=[fields.plain])
    kind = models.CharField(max_length=10, choices=Kind, default=Kind.SHED)
    night_c = models.FloatField(null=True, blank=True, validators=[MinValueValidator(-20.0), MaxValueValidator(40.0)])
    day_c = models.FloatField(null=True, blank=True, validators=[MinValueValidator(-20.0), MaxValueValidator(45.0)])
    removed_at = models.DateTimeField(null=True, editable=False)
    history = HistoricalRecords()

    class Meta:
        ordering = ["id"]
        constraints = [
            models.UniqueConstraint(
                "garden", Lower("name"), condition=models.Q(removed_at__isnull=True), name="one_room_of_a_name"
            )
        ]

    def __str__(self) -> str:
        return self.name

    def clean(self) -> None:
        """Require both temperatures or neither, with the night no warmer than the day."""
        if (self.night_c is None) != (self.day_c is None):
            raise ValidationError({"day_c": _("Enter both the night and the daytime temperature, or neither.")})
        if self.night_c is not None and self.day_c is not None and self.day_c < self.night_c:
            raise ValidationError({"day_c": _("The daytime temperature must not be below the night temperature.")})


class CurrentPlaces(models.Manager["Place"]):
    """Manager of places that have not been removed, the default for every page."""

    def get_queryset(self) -> models.QuerySet[Place]:
        return super().get_queryset().filter(removed_at__isnull=True)


class Place(models.Model):
    """Bed, frame, tray or other place that is measured and sown."""

    class Texture(models.TextChoices):
        SAND = "sand", lazy("sand")
        LOAM = "loam", lazy("loam")
        CLAY = "clay", lazy("clay")
        COMPOST = "compost", lazy("rich in compost")

    class House(models.TextChoices):
        POLYTUNNEL = "polytunnel", lazy("an unheated polytunnel")
        GREENHOUSE = "greenhouse", lazy("an unheated greenhouse")

    garden = models.ForeignKey(Garden, on_delete=models.CASCADE, related_name="places")
    name = models.CharField(max_length=60, validators=[fields.plain])
    kind = models.CharField(max_length=10, choices=place_names, default="open")
    seed_depth_m = models.FloatField(default=0.05, validators=[MinValueValidator(0.005), MaxValueValidator(0.5)])
    walking_order = models.PositiveIntegerField(default=0)
    texture = models.CharField(max_length=10, choices=Texture, default=Texture.LOAM)
    slope_deg = models.FloatField(default=0.0, validators=[MinValueValidator(0.0), MaxValueValidator(60.0)])
    aspect_deg = models.FloatField(default=180.0, choices=ASPECTS)
    shaded_from_h = models.PositiveSmallIntegerField(null=True, blank=True, validators=[MaxValueValidator(23)])
    shaded_to_h = models.PositiveSmallIntegerField(null=True, blank=True, validators=[MaxValueValidator(24)])
    width_m = models.FloatField(default=1.2, validators=[MinValueValidator(0.1), MaxValueValidator(20.0)])
    within = models.CharField(max_length=20, blank=True, choices=House)
    room = models.ForeignKey(Room, null=True, blank=True, on_delete=models.SET_NULL, related_name="places")
    window_aspect_deg = models.FloatField(null=True, blank=True, choices=WINDOW_ASPECTS)
    window_shade = models.FloatField(default=0.0, validators=[MinValueValidator(0.0), MaxValueValidator(1.0)])
    window_away_m = models.FloatField(default=0.1, validators=[MinValueValidator(0.0), MaxValueValidator(10.0)])
    input_revision = models.PositiveBigIntegerField(
        default=0, editable=False, help_text="Grows whenever anything the forecast rests on has changed."
    )

    removed_at = models.DateTimeField(null=True, editable=False)
    history = HistoricalRecords(excluded_fields=["input_revision"])

    objects = CurrentPlaces()
    everything = models.Manager()

    class Meta:
        ordering = ["walking_order", "id"]
        constraints = [
            models.UniqueConstraint(
                "garden", Lower("name"), condition=models.Q(removed_at__isnull=True), name="one_place_of_a_name"
            )
        ]

    def __str__(self) -> str:
        return self.name

    def get_kind_display(self) -> str:  # type: ignore[no-redef]
        """Return the name of this kind only; Django would look up the names of all kinds."""
        return place_name(self.kind)

    def clean(self) -> None:
        """Require both hours of shade or neither, in order."""
        if (self.shaded_from_h is None) != (self.shaded_to_h is None):
            raise ValidationError({"shaded_to_h": _("Enter both hours of shade, or neither.")})
        if self.shaded_from_h is not None and self.shaded_to_h is not None and self.shaded_from_h >= self.shaded_to_h:
            raise ValidationError({"shaded_to_h": _("The shade must end after it starts.")})
