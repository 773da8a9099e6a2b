"""People, gardens, who belongs to which, and the places of a garden."""

from __future__ import annotations

from zoneinfo import ZoneInfo

from django.contrib.auth.models import AbstractUser
from django.contrib.postgres.fields import ArrayField
from django.core.validators import MaxValueValidator, MinValueValidator
from django.db import models


class User(AbstractUser):
    """A person and the units they think in."""

    class Temperature(models.TextChoices):
        CELSIUS = "C", "°C"
        FAHRENHEIT = "F", "°F"

    class Length(models.TextChoices):
        CENTIMETRES = "cm", "centimetres"
        INCHES = "in", "inches"

    temperature_unit = models.CharField(max_length=1, choices=Temperature, default=Temperature.CELSIUS)
    length_unit = models.CharField(max_length=2, choices=Length, default=Length.CENTIMETRES)


class Garden(models.Model):
    """One site. Monthly normals are optional: January first, °C."""

    name = models.CharField(max_length=80)
    latitude_deg = models.FloatField(validators=[MinValueValidator(-66.0), MaxValueValidator(66.0)])
    longitude_deg = models.FloatField(validators=[MinValueValidator(-180.0), MaxValueValidator(180.0)])
    elevation_m = models.FloatField(default=100.0, validators=[MinValueValidator(-430.0), MaxValueValidator(5000.0)])
    timezone_name = models.CharField(max_length=60, default="UTC")
    normal_lows_c = ArrayField(models.FloatField(), size=12, null=True, blank=True)
    normal_highs_c = ArrayField(models.FloatField(), size=12, null=True, blank=True)
    created_at = models.DateTimeField(auto_now_add=True)
    people = models.ManyToManyField(User, through="Membership", related_name="gardens")

    class Meta:
        ordering = ["name", "id"]

    def __str__(self) -> str:
        return self.name

    @property
    def timezone(self) -> ZoneInfo:
        """The garden's clock; its days are the days of everything recorded here."""
        return ZoneInfo(self.timezone_name)


class Membership(models.Model):
    """A person in a garden."""

    class Role(models.TextChoices):
        OWNER = "owner", "owner"
        GROWER = "grower", "grower"

    garden = models.ForeignKey(Garden, on_delete=models.CASCADE, related_name="memberships")
    user = models.ForeignKey(User, on_delete=models.CASCADE, related_name="memberships")
    role = models.CharField(max_length=10, choices=Role, default=Role.GROWER)

    class Meta:
        constraints = [models.UniqueConstraint(fields=["garden", "user"], name="one_membership_per_person")]


class StandingPlaces(models.Manager["Place"]):
    """Places that have not been removed: what every page means by a garden's places."""

    def get_queryset(self) -> models.QuerySet[Place]:
        return super().get_queryset().filter(removed_at__isnull=True)


class Place(models.Model):
    """A bed, a frame, a tray on a mat: ground that is measured and sown."""

    class Kind(models.TextChoices):
        OPEN = "open", "open bed"
        RAISED = "raised", "raised bed"
        MULCHED = "mulched", "mulched bed"
        FLEECE = "fleece", "bed under fleece"
        TUNNEL = "tunnel", "low tunnel of film"
        ARCH = "arch", "arch of bent sheet"
        FRAME = "frame", "cold frame"
        BELL = "bell", "bells or upturned bins"
        MAT = "mat", "tray on a heat mat"
        CABLE = "cable", "bed over a soil-warming cable"
        HOTBED = "hotbed", "hotbed"

    garden = models.ForeignKey(Garden, on_delete=models.CASCADE, related_name="places")
    name = models.CharField(max_length=60)
    kind = models.CharField(max_length=10, choices=Kind, default=Kind.OPEN)
    seed_depth_m = models.FloatField(default=0.05, validators=[MinValueValidator(0.005), MaxValueValidator(0.5)])
    walking_order = models.PositiveIntegerField(default=0)
    evidence = models.PositiveBigIntegerField(
        default=0, editable=False, help_text="Grows whenever anything the forecast rests on has changed."
    )

    removed_at = models.DateTimeField(null=True, editable=False)

    objects = StandingPlaces()
    everything = models.Manager()

    class Meta:
        ordering = ["walking_order", "id"]
        constraints = [
            models.UniqueConstraint(
                fields=["garden", "name"], condition=models.Q(removed_at__isnull=True), name="one_place_of_a_name"
            )
        ]

    def __str__(self) -> str:
        return self.name
