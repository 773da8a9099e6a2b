"""The places of a garden."""

from __future__ import annotations

from django.core.exceptions import ValidationError
from django.core.validators import MaxValueValidator, MinValueValidator
from django.db import models
from django.db.models.functions import Lower
from django.utils.translation import gettext as _
from simple_history.models import HistoricalRecords

from cloche.apps.gardens.models import Garden
from cloche.apps.shared import validators
from cloche.apps.shared.i18n import lazy
from cloche.bridge.services.offered import place_names

ASPECTS = [
    (0.0, lazy("north")),
    (90.0, lazy("east")),
    (135.0, lazy("south-east")),
    (180.0, lazy("south")),
    (225.0, lazy("south-west")),
    (270.0, lazy("west")),
]


class CurrentPlaces(models.Manager["Place"]):
    """Places that have not been removed: what every page means by a garden's places."""

    def get_queryset(self) -> models.QuerySet[Place]:
        return super().get_queryset().filter(removed_at__isnull=True)


class Place(models.Model):
    """A bed, a frame, a tray on a mat: ground that is measured and sown."""

    class Texture(models.TextChoices):
        SAND = "sand", lazy("sand")
        LOAM = "loam", lazy("loam")
        CLAY = "clay", lazy("clay")
        COMPOST = "compost", lazy("rich in compost")

    class House(models.TextChoices):
        POLYTUNNEL = "polytunnel", lazy("an unheated polytunnel")
        GREENHOUSE = "greenhouse", lazy("an unheated greenhouse")

    garden = models.ForeignKey(Garden, on_delete=models.CASCADE, related_name="places")
    name = models.CharField(max_length=60, validators=[validators.plain])
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

    def clean(self) -> None:
        """Shade has a beginning and an end."""
        if (self.shaded_from_h is None) != (self.shaded_to_h is None):
            raise ValidationError({"shaded_to_h": _("Say both when the shade comes and when it goes, or neither.")})
        if self.shaded_from_h is not None and self.shaded_to_h is not None and self.shaded_from_h >= self.shaded_to_h:
            raise ValidationError({"shaded_to_h": _("The shade goes before it comes.")})
