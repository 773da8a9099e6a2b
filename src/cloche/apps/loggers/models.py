"""Devices, where their probes stick, and what they sent: every value once, and its hour."""

from __future__ import annotations

from django.conf import settings
from django.core.exceptions import ValidationError
from django.db import models
from django.utils.translation import gettext as _

from cloche.apps.gardens.models import Garden
from cloche.apps.places.models import Place, Room
from cloche.apps.shared.fields import plain


class Device(models.Model):
    """A logger with one or more probes. Only a hash of its token is stored."""

    class Unit(models.TextChoices):
        CELSIUS = "C", "°C"
        FAHRENHEIT = "F", "°F"
        KELVIN = "K", "K"

    garden = models.ForeignKey(Garden, on_delete=models.CASCADE, related_name="devices")
    name = models.CharField(max_length=60, validators=[plain])
    unit = models.CharField(max_length=1, choices=Unit, default=Unit.CELSIUS, help_text="Unless it says otherwise itself.")
    fingerprint = models.CharField(max_length=64, unique=True)
    made_by = models.ForeignKey(settings.AUTH_USER_MODEL, null=True, on_delete=models.SET_NULL, related_name="+")
    made_at = models.DateTimeField()
    revoked_at = models.DateTimeField(null=True)
    heard_at = models.DateTimeField(null=True, help_text="When it last sent anything, by our clock.")
    drift_s = models.IntegerField(default=0, help_text="How far its clock ran ahead when it last told its time.")

    class Meta:
        ordering = ["name", "id"]


class Probe(models.Model):
    """Position of a channel during a period, open-ended for its present position.

    It is in a place, or in a room, whose air is that of all trays in it.
    """

    device = models.ForeignKey(Device, on_delete=models.CASCADE, related_name="probes")
    channel = models.CharField(max_length=40)
    place = models.ForeignKey(Place, null=True, on_delete=models.CASCADE, related_name="probes")
    room = models.ForeignKey(Room, null=True, on_delete=models.CASCADE, related_name="probes")
    depth_m = models.FloatField()
    in_air = models.BooleanField(default=False, help_text="It hangs among the plants; its depth counts for nothing.")
    since = models.DateTimeField(null=True, help_text="None: as far back as it sends.")
    until = models.DateTimeField(null=True)
    last_at = models.DateTimeField(null=True)
    last_c = models.FloatField(null=True)
    every_s = models.PositiveIntegerField(null=True, help_text="Usual time between two values.")

    class Meta:
        ordering = ["channel", "-since", "id"]
        constraints = [
            models.UniqueConstraint(
                fields=["device", "channel"], condition=models.Q(until__isnull=True), name="a_channel_sticks_in_one_place"
            ),
            models.CheckConstraint(
                condition=models.Q(place__isnull=False, room__isnull=True)
                | models.Q(place__isnull=True, room__isnull=False, in_air=True),
                name="a_probe_is_in_a_place_or_a_room",
            ),
        ]

    def clean(self) -> None:
        """Require a place or a room."""
        if (self.place_id is None) == (self.room_id is None):
            raise ValidationError({"place": _("Choose either a place or a room for the probe.")})

    @property
    def where(self) -> Place | Room:
        """The place or room."""
        target = self.place or self.room
        assert target is not None  # noqa: S101 - a constraint of the table
        return target

    @property
    def feeling(self) -> list[Place]:
        """Places whose forecast depends on it, in a fixed order so that two devices cannot deadlock."""
        return [self.place] if self.place else list(self.room.places.order_by("pk")) if self.room else []


class LoggedReading(models.Model):
    """One value, unique by the device’s own time. `shift_s` is added for a correct clock."""

    pk = models.CompositePrimaryKey("probe_id", "at")
    at = models.DateTimeField()
    probe = models.ForeignKey(Probe, on_delete=models.CASCADE, related_name="+", db_index=False)
    temperature_c = models.FloatField()
    shift_s = models.IntegerField(default=0)
    fault = models.SmallIntegerField(default=0)

    class Meta:
        db_table = "loggers_reading"


class LoggedHour(models.Model):
    """Valid values of one hour by a correct clock. `left_out` excludes it from the forecast by request of the grower."""

    pk = models.CompositePrimaryKey("probe_id", "hour")
    hour = models.DateTimeField()
    probe = models.ForeignKey(Probe, on_delete=models.CASCADE, related_name="hours", db_index=False)
    number = models.SmallIntegerField()
    sum_c = models.FloatField()
    low_c = models.FloatField()
    high_c = models.FloatField()
    review = models.CharField(max_length=10, blank=True, default="")

    class Meta:
        db_table = "loggers_hour"

    @property
    def mean_c(self) -> float:
        """Mean of the hour [°C]."""
        return self.sum_c / self.number


class MessageMapping(models.Model):
    """Position of values in a device's own messages (see loggers.mapped). `unplaced` lists channels without a place."""

    device = models.ForeignKey(Device, on_delete=models.CASCADE, related_name="mappings")
    topic = models.CharField(max_length=200, blank=True, default="", help_text="Of the broker; empty: it comes over HTTP.")
    each = models.CharField(max_length=120, blank=True, default="")
    value = models.CharField(max_length=120, blank=True, default="")
    at = models.CharField(max_length=120, blank=True, default="")
    channel = models.CharField(max_length=120, blank=True, default="")
    unplaced = models.JSONField(default=list, blank=True)

    class Meta:
        ordering = ["device", "topic", "id"]
        constraints = [models.UniqueConstraint(fields=["device", "topic"], name="a_topic_is_read_in_one_way")]


class RefusedMessage(models.Model):
    """A refused message from the broker with the reason, for people to look at.

    device, garden: none where it was not known whose it is. sample: how it began, without its token.
    """

    garden = models.ForeignKey(Garden, null=True, on_delete=models.CASCADE, related_name="refused_messages")
    device = models.ForeignKey(Device, null=True, on_delete=models.CASCADE, related_name="+")
    at = models.DateTimeField()
    reason = models.CharField(max_length=300)
    sample = models.CharField(max_length=400)

    class Meta:
        ordering = ["-at", "-id"]
