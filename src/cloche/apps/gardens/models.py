"""People, gardens, who belongs to which, and the places of a garden."""

from __future__ import annotations

from zoneinfo import ZoneInfo

from django.contrib.auth.models import AbstractUser
from django.contrib.postgres.fields import ArrayField
from django.core.exceptions import ValidationError
from django.core.validators import MaxValueValidator, MinValueValidator
from django.db import models
from django.db.models.functions import Lower
from simple_history.models import HistoricalRecords

from cloche.apps.gardens import validators
from cloche.bridge.border import is_zone


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


def zone_of(name: str) -> ZoneInfo:
    """A time zone; UTC where the name is none that is known (any more), so that one garden's zone stops no page and no work."""
    return ZoneInfo(name if is_zone(name) else "UTC")


class Garden(models.Model):
    """One site. Monthly normals are optional: January first, °C. crops: keys of the catalogue; none: what most people grow.

    school: how its people decide when to sow; watered: whether seed beds are kept moist; zone: winter hardiness, as told;
    off_school: how they decide when a cover comes off; away_from_h, away_to_h: hours in which nobody is there on most days.
    """

    class School(models.TextChoices):
        COMFORTABLE = "comfortable", "when the soil is comfortably warm"
        MINIMUM = "minimum", "as soon as the soil reaches the minimum"
        CALENDAR = "calendar", "by the date of the last frost"

    class OffSchool(models.TextChoices):
        NIGHTS = "nights", "when nights are warm enough for what grows there"
        HEIGHT = "height", "when the plants touch the top"
        ESTABLISHED = "established", "when seedlings are established"
        HEAT = "heat", "when it is too hot inside however far it is opened"

    name = models.CharField(max_length=80, validators=[validators.plain])
    latitude_deg = models.FloatField(validators=[MinValueValidator(-66.0), MaxValueValidator(66.0)])
    longitude_deg = models.FloatField(validators=[MinValueValidator(-180.0), MaxValueValidator(180.0)])
    elevation_m = models.FloatField(default=100.0, validators=[MinValueValidator(-430.0), MaxValueValidator(5000.0)])
    timezone_name = models.CharField(max_length=60, default="UTC", validators=[validators.zone])
    normal_lows_c = ArrayField(models.FloatField(), size=12, null=True, blank=True)
    normal_highs_c = ArrayField(models.FloatField(), size=12, null=True, blank=True)
    crops = ArrayField(models.CharField(max_length=40), default=list, blank=True)
    school = models.CharField(max_length=12, choices=School, default=School.COMFORTABLE)
    watered = models.BooleanField(default=True)
    off_school = models.CharField(max_length=12, choices=OffSchool, default=OffSchool.NIGHTS)
    away_from_h = models.PositiveSmallIntegerField(null=True, blank=True, validators=[MaxValueValidator(23)])
    away_to_h = models.PositiveSmallIntegerField(null=True, blank=True, validators=[MaxValueValidator(24)])
    zone = models.CharField(max_length=4, blank=True)
    created_at = models.DateTimeField(auto_now_add=True)
    people = models.ManyToManyField(User, through="Membership", related_name="gardens")

    class Meta:
        ordering = ["name", "id"]

    def __str__(self) -> str:
        return self.name

    def clean(self) -> None:
        """Being away has a beginning and an end."""
        if (self.away_from_h is None) != (self.away_to_h is None):
            raise ValidationError({"away_to_h": "Say both from when and to when, or neither."})
        if self.away_from_h is not None and self.away_to_h is not None and self.away_from_h >= self.away_to_h:
            raise ValidationError({"away_to_h": "You are back before you leave."})

    @property
    def timezone(self) -> ZoneInfo:
        """The garden's clock; its days are the days of everything recorded here."""
        return zone_of(self.timezone_name)

    @property
    def lost_its_zone(self) -> bool:
        """Whether its time zone is none that this machine knows, and UTC stands in for it."""
        return not is_zone(self.timezone_name)


class Membership(models.Model):
    """A person in a garden."""

    class Role(models.TextChoices):
        OWNER = "owner", "owner"
        GROWER = "grower", "grower"
        HELPER = "helper", "helper, who only logs"
        VIEWER = "viewer", "viewer"

    garden = models.ForeignKey(Garden, on_delete=models.CASCADE, related_name="memberships")
    user = models.ForeignKey(User, on_delete=models.CASCADE, related_name="memberships")
    role = models.CharField(max_length=10, choices=Role, default=Role.GROWER)

    class Meta:
        constraints = [models.UniqueConstraint(fields=["garden", "user"], name="one_membership_per_person")]

    def may(self, role: str) -> bool:
        """Whether this person may do what that role may."""
        rank = list(self.Role)
        return rank.index(self.Role(self.role)) <= rank.index(self.Role(role))


class Invitation(models.Model):
    """A link by which one person may join. Only a fingerprint of its secret is kept; the link itself is shown once."""

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


MOST_TESTED, MOST_MONEY = 1_000_000, 1e6


class Packet(models.Model):
    """A packet of seed: its variety, how old and how good it is, and what it says of its crop instead of the catalogue.

    values: by name of the value (see bridge.crops.with_values). The packet in use is the one that windows go by.
    """

    garden = models.ForeignKey(Garden, on_delete=models.CASCADE, related_name="packets")
    crop_key = models.CharField(max_length=40)
    variety = models.CharField(max_length=60, blank=True, validators=[validators.plain])
    packed_year = models.PositiveSmallIntegerField(null=True, blank=True)
    tested_of = models.PositiveIntegerField(
        null=True, blank=True, validators=[MaxValueValidator(MOST_TESTED)], help_text="Seeds laid out in a germination test."
    )
    tested_up = models.PositiveIntegerField(
        null=True, blank=True, validators=[MaxValueValidator(MOST_TESTED)], help_text="How many of them germinated."
    )
    price = models.FloatField(
        null=True,
        blank=True,
        validators=[MinValueValidator(0.0), MaxValueValidator(MOST_MONEY)],
        help_text="What it cost, in the grower's own money.",
    )
    values = models.JSONField(default=dict, blank=True)
    in_use = models.BooleanField(default=True)
    removed_at = models.DateTimeField(null=True, editable=False)

    class Meta:
        ordering = ["-in_use", "id"]
        constraints = [
            models.UniqueConstraint(
                fields=["garden", "crop_key"],
                condition=models.Q(in_use=True, removed_at__isnull=True),
                name="one_packet_in_use",
            )
        ]

    def clean(self) -> None:
        """A test has both its numbers, and no more come up than were laid out."""
        of, up = self.tested_of, self.tested_up
        if (of is None) != (up is None):
            raise ValidationError({"tested_up": "A test needs both numbers: seeds laid out, and how many germinated."})
        if of is not None and up is not None and (up > of or of == 0):
            raise ValidationError({"tested_up": "No more can germinate than were laid out."})


class CropChoice(models.Model):
    """How a garden goes about one crop, where that differs from what is derived or from its other crops."""

    garden = models.ForeignKey(Garden, on_delete=models.CASCADE, related_name="crop_choices")
    crop_key = models.CharField(max_length=40)
    school = models.CharField(max_length=12, blank=True)
    way = models.CharField(max_length=12, blank=True)

    class Meta:
        constraints = [models.UniqueConstraint(fields=["garden", "crop_key"], name="one_choice_a_crop")]


ASPECTS = [(0.0, "north"), (90.0, "east"), (135.0, "south-east"), (180.0, "south"), (225.0, "south-west"), (270.0, "west")]


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
        TUB = "tub", "pot or tub"
        CELLS = "cells", "tray or cells outdoors"
        TRAY = "tray", "tray in a room"
        MAT = "mat", "tray on a heat mat"
        CABLE = "cable", "bed over a soil-warming cable"
        HOTBED = "hotbed", "hotbed"

    class Texture(models.TextChoices):
        SAND = "sand", "sand"
        LOAM = "loam", "loam"
        CLAY = "clay", "clay"
        COMPOST = "compost", "rich in compost"

    class House(models.TextChoices):
        POLYTUNNEL = "polytunnel", "an unheated polytunnel"
        GREENHOUSE = "greenhouse", "an unheated greenhouse"

    garden = models.ForeignKey(Garden, on_delete=models.CASCADE, related_name="places")
    name = models.CharField(max_length=60, validators=[validators.plain])
    kind = models.CharField(max_length=10, choices=Kind, default=Kind.OPEN)
    seed_depth_m = models.FloatField(default=0.05, validators=[MinValueValidator(0.005), MaxValueValidator(0.5)])
    walking_order = models.PositiveIntegerField(default=0)
    texture = models.CharField(max_length=10, choices=Texture, default=Texture.LOAM)
    slope_deg = models.FloatField(default=0.0, validators=[MinValueValidator(0.0), MaxValueValidator(60.0)])
    aspect_deg = models.FloatField(default=180.0, choices=ASPECTS)
    shaded_from_h = models.PositiveSmallIntegerField(null=True, blank=True, validators=[MaxValueValidator(23)])
    shaded_to_h = models.PositiveSmallIntegerField(null=True, blank=True, validators=[MaxValueValidator(24)])
    width_m = models.FloatField(default=1.2, validators=[MinValueValidator(0.1), MaxValueValidator(20.0)])
    within = models.CharField(max_length=20, blank=True, choices=House)
    evidence = models.PositiveBigIntegerField(
        default=0, editable=False, help_text="Grows whenever anything the forecast rests on has changed."
    )

    removed_at = models.DateTimeField(null=True, editable=False)
    history = HistoricalRecords(excluded_fields=["evidence"])

    objects = StandingPlaces()
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
            raise ValidationError({"shaded_to_h": "Say both when the shade comes and when it goes, or neither."})
        if self.shaded_from_h is not None and self.shaded_to_h is not None and self.shaded_from_h >= self.shaded_to_h:
            raise ValidationError({"shaded_to_h": "The shade goes before it comes."})


class Cover(models.Model):
    """A cover that the garden owns: one thing, which can be on one bed at a time. kind: key of bridge.offered.cover_names.

    length_m along the bed, width_m of the sheet or across the frame; spread_m: how far apart a bent sheet's edges are set.
    """

    garden = models.ForeignKey(Garden, on_delete=models.CASCADE, related_name="covers")
    kind = models.CharField(max_length=20)
    name = models.CharField(max_length=60, validators=[validators.plain])
    length_m = models.FloatField(default=1.2, validators=[MinValueValidator(0.1), MaxValueValidator(60.0)])
    width_m = models.FloatField(default=1.2, validators=[MinValueValidator(0.1), MaxValueValidator(12.0)])
    spread_m = models.FloatField(null=True, blank=True, validators=[MinValueValidator(0.1), MaxValueValidator(12.0)])
    bought_year = models.PositiveSmallIntegerField(null=True, blank=True)
    dirty = models.BooleanField(default=False)
    price = models.FloatField(null=True, blank=True, validators=[MinValueValidator(0.0), MaxValueValidator(MOST_MONEY)])
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


class CoverPeriod(models.Model):
    """A cover on a place from one day to another, both included; without a last day it is still on. item: which of those that
    the garden owns, if it is told."""

    class Opens(models.TextChoices):
        CLOSED = "closed", "kept closed"
        ABOVE = "above", "opened as far as needed to stay below a warmth"
        HOURS = "hours", "opened between hours"

    place = models.ForeignKey(Place, on_delete=models.CASCADE, related_name="cover_periods")
    item = models.ForeignKey(Cover, null=True, blank=True, on_delete=models.SET_NULL, related_name="periods")
    cover = models.CharField(max_length=20)
    first = models.DateField(validators=[validators.sane_day])
    last = models.DateField(null=True, blank=True, validators=[validators.sane_day])
    ends_capped = models.BooleanField(default=True)
    opens = models.CharField(max_length=10, choices=Opens, default=Opens.CLOSED)
    above_c = models.FloatField(default=26.0)
    from_h = models.PositiveSmallIntegerField(default=10, validators=[MaxValueValidator(23)])
    to_h = models.PositiveSmallIntegerField(default=16, validators=[MaxValueValidator(24)])
    opening = models.FloatField(default=0.4, validators=[MinValueValidator(0.0), MaxValueValidator(1.0)])
    blanket = models.BooleanField(default=False)
    history = HistoricalRecords()

    class Meta:
        ordering = ["first", "id"]

    def clean(self) -> None:
        """Days and hours in order."""
        if self.first and self.last and self.last < self.first:
            raise ValidationError({"last": "It comes off before it goes on."})
        if self.opens == self.Opens.HOURS and self.from_h >= self.to_h:
            raise ValidationError({"to_h": "It is closed before it is opened."})


class Deed(models.Model):
    """Something done to a place that changes how it warms; `work` in the words of bridge.offered.work_names."""

    place = models.ForeignKey(Place, on_delete=models.CASCADE, related_name="deeds")
    work = models.CharField(max_length=20)
    at = models.DateTimeField(validators=[validators.sane_instant])
    amount = models.FloatField(default=0.0, help_text="mm of water or m of mulch or compost; 0: the usual.")
    history = HistoricalRecords()

    class Meta:
        ordering = ["-at", "-id"]


class Hotbed(models.Model):
    """What a place's hotbed was built of. Keys of material, moist and trodden: bridge.hotbeds."""

    place = models.OneToOneField(Place, on_delete=models.CASCADE, related_name="hotbed")
    material = models.CharField(max_length=12, default="horse")
    depth_m = models.FloatField(default=0.6, validators=[MinValueValidator(0.2), MaxValueValidator(2.0)])
    length_m = models.FloatField(default=2.0, validators=[MinValueValidator(0.3), MaxValueValidator(50.0)])
    width_m = models.FloatField(default=1.2, validators=[MinValueValidator(0.3), MaxValueValidator(10.0)])
    moist = models.CharField(max_length=8, default="moist")
    trodden = models.CharField(max_length=8, default="firm")
    insulated = models.BooleanField(default=True)
    soil_m = models.FloatField(default=0.15, validators=[MinValueValidator(0.05), MaxValueValidator(0.5)])
    filled_on = models.DateField(validators=[validators.sane_day])
    topped_up_on = models.DateField(null=True, blank=True, validators=[validators.sane_day])
    history = HistoricalRecords()

    def clean(self) -> None:
        """Days in order."""
        if self.filled_on and self.topped_up_on and self.topped_up_on <= self.filled_on:
            raise ValidationError({"topped_up_on": "It is topped up after it was filled."})
