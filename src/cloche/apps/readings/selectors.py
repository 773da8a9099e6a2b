"""Queries on readings and logger data."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass, replace
from datetime import datetime, timedelta
from typing import Any

from django.db.models import OuterRef, QuerySet, Subquery

from cloche.apps.gardens.models import Garden
from cloche.apps.loggers import selectors as logged
from cloche.apps.loggers.selectors import HourPoint
from cloche.apps.places.models import Place
from cloche.apps.readings.models import Reading

SHOWN_IN_LIST = 30
MOST_POINTS = 400
MORNING_BEFORE_H = 12
FRESH = timedelta(hours=36)
SAME_DEPTH_M, WHOLE_DAY_H = 0.006, 20


def recent_readings(place: Place, limit: int = SHOWN_IN_LIST) -> QuerySet[Reading]:
    """Return the newest readings of a place."""
    return place.readings.all().filter(removed_at__isnull=True).select_related("entered_by")[:limit]


def points_between(place: Place, start: datetime, end: datetime) -> list[Reading | HourPoint]:
    """Return readings and logger hours for a chart, each thinned evenly where there are thousands."""
    rows = list(
        Reading.objects.current()
        .filter(place=place, taken_at__gte=start, taken_at__lte=end)
        .order_by("taken_at")
        .only("id", "taken_at", "depth_m", "temperature_c", "place_id")
    )
    return [*_thinned(rows), *_thinned(logged.hours_between([place.pk], start, end))]


def _thinned(rows: list[Any]) -> list[Any]:
    step = max(1, -(-len(rows) // MOST_POINTS))
    return rows[::step]


def readings_since(place: Place, start: datetime, end: datetime) -> list[tuple[int, datetime, float, float]]:
    """Return (number, taken_at, depth_m, temperature_c) of readings and logger hours for the forecast, oldest first.

    What a grower left out is left out.
    """
    rows = Reading.objects.current().filter(place=place, taken_at__gte=start).exclude(review=Reading.Review.LEFT_OUT)
    readings = list(rows.values_list("id", "taken_at", "depth_m", "temperature_c"))
    readings += [(h.pk, h.taken_at, h.depth_m, h.temperature_c) for h in logged.hours_between([place.pk], start, end)]
    return sorted(readings, key=lambda row: row[1])


@dataclass(frozen=True)
class Latest:
    """Newest measurement of a place."""

    taken_at: datetime
    temperature_c: float


def latest_by_place(garden: Garden) -> dict[int, Latest]:
    """Return the newest reading or logger value of each place that has one."""
    newest = Reading.objects.current().filter(place=OuterRef("pk")).order_by("-taken_at")
    at, value = (Subquery(newest.values(name)[:1]) for name in ("taken_at", "temperature_c"))
    rows = garden.places.annotate(at=at, value=value).values_list("pk", "at", "value")
    by_place = {place: Latest(at, value) for place, at, value in rows if at is not None}
    for place, probe in logged.newest(garden).items():
        if probe.last_at and probe.last_c is not None and (place not in by_place or probe.last_at > by_place[place].taken_at):
            by_place[place] = Latest(probe.last_at, probe.last_c)
    return by_place


@dataclass(frozen=True)
class DayRead:
    """Readings at seed depth within 36 hours: the last early and late one, or a logger's daily mean [°C]."""

    early: Latest | None = None
    late: Latest | None = None
    logged_c: float | None = None

    @property
    def mean_c(self) -> float | None:
        """Return the daily mean from the early and late reading, or None if one is missing."""
        return (self.early.temperature_c + self.late.temperature_c) / 2 if self.early and self.late else None


def day_reads(garden: Garden, now: datetime, only: Iterable[Place] | None = None) -> dict[int, DayRead]:
    """Return by place the readings that a daily mean can be derived from."""
    places = {place.pk: place for place in (garden.places.all() if only is None else only)}
    rows = (
        Reading.objects.current()
        .filter(place__in=places, taken_at__gt=now - FRESH, taken_at__lte=now)
        .exclude(review=Reading.Review.LEFT_OUT)
        .order_by("taken_at")
        .values_list("place_id", "taken_at", "depth_m", "temperature_c")
    )
    days = {pk: DayRead(logged_c=mean) for pk, mean in _logged_days(places, now).items()}
    for place_id, taken_at, depth_m, value in rows:
        if abs(depth_m - places[place_id].seed_depth_m) < SAME_DEPTH_M:
            early = taken_at.astimezone(garden.timezone).hour < MORNING_BEFORE_H
            read = {"early" if early else "late": Latest(taken_at, value)}
            days[place_id] = replace(days.get(place_id, DayRead()), **read)  # type: ignore[arg-type]
    return days


def _logged_days(places: dict[int, Place], now: datetime) -> dict[int, float]:
    """Return yesterday's means of loggers at seed depth with nearly complete hours."""
    hours: dict[int, list[float]] = {}
    for hour in logged.hours_between(places, now - timedelta(days=1), now):
        if abs(hour.depth_m - places[hour.place_id].seed_depth_m) < SAME_DEPTH_M:
            hours.setdefault(hour.place_id, []).append(hour.temperature_c)
    return {place: sum(values) / len(values) for place, values in hours.items() if len(values) >= WHOLE_DAY_H}


def read_since(garden: Garden, start: datetime) -> set[int]:
    """Return the places read since a time."""
    rows = Reading.objects.current().filter(place__garden=garden, place__removed_at__isnull=True, taken_at__gte=start)
    return set(rows.values_list("place_id", flat=True).distinct())
