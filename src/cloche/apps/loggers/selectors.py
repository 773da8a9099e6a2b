"""Questions about devices and what they sent."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass
from datetime import UTC, datetime, timedelta

from django.core.cache import caches
from django.db.models import Sum

from cloche.apps.gardens.models import Garden
from cloche.apps.loggers.models import Device, LoggedHour, Probe
from cloche.apps.places.models import Room
from cloche.bridge.services.readings import silence

HALF = timedelta(minutes=30)
EPOCH_H = 3_600
COUNTED_S = 3_600
STILL_THERE = {"place__removed_at__isnull": True, "room__removed_at__isnull": True}
"""Of probes: neither its place nor its room was removed."""


@dataclass(frozen=True)
class HourPoint:
    """An hour of a probe as a reading, with a negative number; the place is 0 in a room."""

    pk: int
    place_id: int
    taken_at: datetime
    depth_m: float
    temperature_c: float


def number_of(probe_id: int, hour: datetime) -> int:
    """Return a negative number for an hour of a probe."""
    return -(probe_id * 10_000_000 + int(hour.timestamp()) // EPOCH_H)


def hour_of(number: int) -> tuple[int, datetime]:
    """Return the probe and the hour for such a number."""
    probe_id, hour = divmod(-number, 10_000_000)
    return probe_id, datetime.fromtimestamp(hour * EPOCH_H, tz=UTC)


def values_in(garden_id: int) -> int:
    """Return how many values its devices have sent, updated hourly."""
    return caches["process"].get_or_set(f"values-{garden_id}", lambda: _count(garden_id), COUNTED_S) or 0


def _count(garden_id: int) -> int:
    hours = LoggedHour.objects.filter(probe__device__garden_id=garden_id)
    return hours.aggregate(values=Sum("number"))["values"] or 0


def hours_between(
    places: Iterable[int], start: datetime, end: datetime, left_out: bool = False, in_air: bool = False
) -> list[HourPoint]:
    """Return hours of probes in the soil of some places, or with `in_air` in their air, oldest first."""
    return _hours(Probe.objects.filter(place_id__in=list(places), in_air=in_air), start, end, left_out)


def hours_in(room: Room, start: datetime, end: datetime) -> list[HourPoint]:
    """Return hours of all probes in a room, oldest first."""
    return _hours(Probe.objects.filter(room=room), start, end)


def _hours(stuck: Iterable[Probe], start: datetime, end: datetime, left_out: bool = False) -> list[HourPoint]:
    probes = {probe.pk: probe for probe in stuck}
    if not probes:
        return []
    rows = LoggedHour.objects.filter(probe_id__in=probes, hour__gte=start - HALF, hour__lte=end).order_by("hour")
    if not left_out:
        rows = rows.exclude(review="left_out")
    return [
        HourPoint(number_of(p, hour), probes[p].place_id or 0, hour + HALF, probes[p].depth_m, total / number)
        for p, hour, total, number in rows.values_list("probe_id", "hour", "sum_c", "number")
    ]


def hours_by_probe(garden: Garden, start: datetime, end: datetime) -> dict[int, list[HourPoint]]:
    """Return hours by probe, oldest first."""
    by_probe: dict[int, list[HourPoint]] = {}
    for hour in _hours(Probe.objects.filter(device__garden=garden, until__isnull=True), start, end, left_out=True):
        by_probe.setdefault(hour_of(hour.pk)[0], []).append(hour)
    return by_probe


def newest(garden: Garden) -> dict[int, Probe]:
    """Return by place the soil probe with the latest value."""
    probes: dict[int, Probe] = {}
    for probe in Probe.objects.filter(place__garden=garden, in_air=False, last_at__isnull=False).order_by("last_at"):
        probes[probe.place_id or 0] = probe
    return probes


@dataclass(frozen=True)
class Silence:
    """A probe that should have reported."""

    device: Device
    probe: Probe
    since: datetime


def silences(garden: Garden, now: datetime) -> list[Silence]:
    """Return probes in use that have been silent for longer than usual, the longest first."""
    probes = Probe.objects.filter(
        device__garden=garden, device__revoked_at__isnull=True, until__isnull=True, last_at__isnull=False
    )
    silent = [
        Silence(probe.device, probe, probe.last_at)
        for probe in probes.filter(**STILL_THERE).select_related("device", "place", "room")
        if probe.last_at and now - probe.last_at > silence(probe.every_s)
    ]
    return sorted(silent, key=lambda silence: silence.since)
