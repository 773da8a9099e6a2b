"""People, gardens, and who belongs to which."""

from __future__ import annotations

from zoneinfo import ZoneInfo

from django.conf import settings
from django.contrib.auth.models import AbstractUser
from django.contrib.postgres.fields import ArrayField
from django.core.exceptions import ValidationError
from django.core.validators import MaxValueValidator, MinValueValidator
from django.db import models
from django.utils.translation import get_language
from django.utils.translation import gettext as _

from cloche.apps.shared import fields
from cloche.apps.shared.words import lazy
from cloche.bridge.services.crops import usual_names
from cloche.bridge.values.border import is_zone


def languages() -> list[tuple[str, str]]:
    """Return languages with a translation, evaluated late so that a new one requires no migration."""
    return list(settings.LANGUAGES)


class User(AbstractUser):
    """A person with their language and units."""

    class Temperature(models.TextChoices):
        CELSIUS = "C", "°C"
        FAHRENHEIT = "F", "°F"

    class Length(models.TextChoices):
        CENTIMETRES = "cm", lazy("centimetres, millimetres of rain, kilograms, metres per second")
        INCHES = "in", lazy("inches, pounds, miles per hour")

    username = models.CharField(
        max_length=150,
        unique=True,
        validators=[fields.plain],
        error_messages={"unique": lazy("Someone here already has that name.")},
    )
    temperature_unit = models.CharField(max_length=1, choices=Temperature, default=Temperature.CELSIUS)
    length_unit = models.CharField(max_length=2, choices=Length, default=Length.CENTIMETRES)
    language = models.CharField(max_length=10, choices=languages, blank=True, help_text="Empty: as the browser says.")


def zone_of(name: str) -> ZoneInfo:
    """Return a time zone, or UTC if the name is unknown, so that one garden cannot stop a page or a task."""
    return ZoneInfo(name if is_zone(name) else "UTC")


class Garden(models.Model):
    """One site. Monthly normals are optional, January first [°C]. An empty `crops` stands for the usual ones.

    sowing_rule: how its people decide when to sow; watered: whether seed beds are kept moist; zone: winter hardiness, as told;
    own_crops: crops of its own making (see crops.grown); names: whether crops are called as in America or in Britain,
    empty: as is usual there; uncover_rule: how they decide when a cover comes off; away_from_h, away_to_h: hours in which
    nobody is there on most days.
    """

    class SowingRule(models.TextChoices):
        COMFORTABLE = "comfortable", lazy("when the soil is comfortably warm")
        MINIMUM = "minimum", lazy("as soon as the soil reaches the minimum")
        CALENDAR = "calendar", lazy("by date, counted from the last frost")

    class UncoverRule(models.TextChoices):
        NIGHTS = "nights", lazy("when nights are warm enough for the plants")
        HEIGHT = "height", lazy("when the plants touch the top")
        ESTABLISHED = "established", lazy("when seedlings are established")
        HEAT = "heat", lazy("when it is too hot inside however far it is open")

    class HeatOffRule(models.TextChoices):
        FIRST = "first", lazy("when the first are up")
        HALF = "half", lazy("when half of them are up")
        ALL = "all", lazy("when all of a crop are up, plus a few days until the first true leaf")
        KEPT = "kept", lazy("never: once they are up, the thermostat is turned down in steps")

    class Names(models.TextChoices):
        AMERICAN = "american", lazy("American: eggplant, fava bean, arugula")
        BRITISH = "british", lazy("British: aubergine, broad bean, rocket")

    name = models.CharField(max_length=80, validators=[fields.plain])
    latitude_deg = models.FloatField(validators=[MinValueValidator(-80.0), MaxValueValidator(80.0)])
    longitude_deg = models.FloatField(validators=[MinValueValidator(-180.0), MaxValueValidator(180.0)])
    elevation_m = models.FloatField(default=100.0, validators=[MinValueValidator(-430.0), MaxValueValidator(5000.0)])
    timezone_name = models.CharField(max_length=60, default="UTC", validators=[fields.zone])
    normal_lows_c = ArrayField(models.FloatField(), size=12, null=True, blank=True)
    normal_highs_c = ArrayField(models.FloatField(), size=12, null=True, blank=True)
    crops = ArrayField(models.CharField(max_length=40), default=list, blank=True)
    sowing_rule = models.CharField(max_length=12, choices=SowingRule, default=SowingRule.COMFORTABLE)
    watered = models.BooleanField(default=True)
    uncover_rule = models.CharField(max_length=12, choices=UncoverRule, default=UncoverRule.NIGHTS)
    away_from_h = models.PositiveSmallIntegerField(null=True, blank=True, validators=[MaxValueValidator(23)])
    away_to_h = models.PositiveSmallIntegerField(null=True, blank=True, validators=[MaxValueValidator(24)])
    heat_off_rule = models.CharField(max_length=6, choices=HeatOffRule, default=HeatOffRule.HALF)
    bring_in_c = models.FloatField(default=-3.0, validators=[MinValueValidator(-15.0), MaxValueValidator(15.0)])
    price_kwh = models.FloatField(
        null=True, blank=True, validators=[MinValueValidator(0.0), MaxValueValidator(fields.MOST_MONEY)]
    )
    zone = models.CharField(max_length=4, blank=True)
    own_crops = models.JSONField(default=dict, blank=True)
    names = models.CharField(max_length=10, choices=Names, blank=True)
    created_at = models.DateTimeField(auto_now_add=True)
    people = models.ManyToManyField(User, through="Membership", related_name="gardens")

    class Meta:
        ordering = ["name", "id"]

    @property
    def spoken(self) -> str:
        """Language of crop names, as chosen or by the reader's language."""
        return self.names or usual_names(get_language() or settings.LANGUAGE_CODE)

    def __str__(self) -> str:
        return self.name

    def clean(self) -> None:
        """Require a beginning and an end of an absence."""
        if (self.away_from_h is None) != (self.away_to_h is None):
            raise ValidationError({"away_to_h": _("Enter both hours, or neither.")})
        if self.away_from_h is not None and self.away_to_h is not None and self.away_from_h >= self.away_to_h:
            raise ValidationError({"away_to_h": _("The end must be after the start.")})

    @property
    def timezone(self) -> ZoneInfo:
        """The garden's time zone, whose days are the days of all its records."""
        return zone_of(self.timezone_name)

    @property
    def lost_its_zone(self) -> bool:
        """Whether its time zone is unknown on this machine, so that UTC is used."""
        return not is_zone(self.timezone_name)


class Membership(models.Model):
    """A person in a garden."""

    class Role(models.TextChoices):
        OWNER = "owner", lazy("owner")
        GROWER = "grower", lazy("grower")
        HELPER = "helper", lazy("helper (adds entries)")
        VIEWER = "viewer", lazy("viewer")

    garden = models.ForeignKey(Garden, on_delete=models.CASCADE, related_name="memberships")
    user = models.ForeignKey(User, on_delete=models.CASCADE, related_name="memberships")
    role = models.CharField(max_length=10, choices=Role, default=Role.GROWER)

    class Meta:
        constraints = [models.UniqueConstraint(fields=["garden", "user"], name="one_membership_per_person")]

    def may(self, role: str) -> bool:
        """Return whether the person has the permissions of a role."""
        rank = list(self.Role)
        return rank.index(self.Role(self.role)) <= rank.index(self.Role(role))


class Invitation(models.Model):
    """A link by which one person may join. Only a hash of its secret is stored."""

    garden = models.ForeignKey(Garden, on_delete=models.CASCADE, related_name="invitations")
    role = models.CharField(max_length=10, choices=Membership.Role, default=Membership.Role.GROWER)
    fingerprint = models.CharField(max_length=64, unique=True)
    made_by = models.ForeignKey(User, on_delete=models.CASCADE, related_name="+")
    made_at = models.DateTimeField()
    ends_at = models.DateTimeField()
    used_by = models.ForeignKey(User, null=True, on_delete=models.SET_NULL, related_name="+")
    used_at = models.DateTimeField(null=True)

    class Meta:
        ordering = ["-made_at"]
