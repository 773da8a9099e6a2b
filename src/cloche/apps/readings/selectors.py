"""Questions about what was measured."""

from __future__ import annotations

from datetime import date, datetime, timedelta

from django.db.models import OuterRef, QuerySet, Subquery

from cloche.apps.gardens.models import Garden, Place
from cloche.apps.readings.models import DailyWeather, Reading

SHOWN_IN_LIST = 30
MOST_POINTS = 400
MORNING_BEFORE_H = 12
FRESH = timedelta(hours=36)


def recent_readings(place: Place, limit: int = SHOWN_IN_LIST) -> QuerySet[Reading]:
    """The newest standing readings of a place."""
    return place.readings.all().filter(removed_at__isnull=True).select_related("entered_by")[:limit]


def points_between(place: Place, start: datetime, end: datetime) -> list[Reading]:
    """Readings for a chart, thinned evenly when a logger wrote thousands."""
    rows = list(
        Reading.objects.standing()
        .filter(place=place, taken_at__gte=start, taken_at__lte=end)
        .order_by("taken_at")
        .only("id", "taken_at", "depth_m", "temperature_c", "place_id")
    )
    step = max(1, -(-len(rows) // MOST_POINTS))
    return rows[::step]


def readings_since(place: Place, start: datetime) -> list[tuple[int, datetime, float, float]]:
    """(id, taken_at, depth_m, temperature_c) for the forecast."""
    rows = Reading.objects.standing().filter(place=place, taken_at__gte=start).order_by("taken_at")
    return list(rows.values_list("id", "taken_at", "depth_m", "temperature_c"))


def weather_rows(garden: Garden) -> list[tuple[date, float, float]]:
    """(day, low_c, high_c) of all days, oldest first."""
    return list(garden.weather.order_by("day").values_list("day", "low_c", "high_c"))


def weather_around(garden: Garden, today: date, back: int, ahead: int) -> list[DailyWeather]:
    """The days near today that have a line, newest first."""
    return list(garden.weather.filter(day__gte=today - timedelta(days=back), day__lte=today + timedelta(days=ahead)))


def latest_by_place(garden: Garden) -> dict[int, Reading]:
    """The newest standing reading of each place that has one."""
    newest = Reading.objects.standing().filter(place=OuterRef("pk")).order_by("-taken_at").values("pk")[:1]
    ids = [pk for pk in garden.places.annotate(newest=Subquery(newest)).values_list("newest", flat=True) if pk]
    return {reading.place_id: reading for reading in Reading.objects.filter(pk__in=ids)}


def day_figures(garden: Garden, now: datetime) -> dict[int, float]:
    """The day's figure of each place read both early and late within 36 hours: the mean of the two, at seed depth [°C]."""
    places = {place.pk: place for place in garden.places.all()}
    rows = (
        Reading.objects.standing()
        .filter(place__in=places, taken_at__gt=now - FRESH, taken_at__lte=now)
        .order_by("taken_at")
        .values_list("place_id", "taken_at", "depth_m", "temperature_c")
    )
    early: dict[int, float] = {}
    late: dict[int, float] = {}
    for place_id, taken_at, depth_m, value in rows:
        if abs(depth_m - places[place_id].seed_depth_m) < 0.006:
            local_hour = taken_at.astimezone(garden.timezone).hour
            (early if local_hour < MORNING_BEFORE_H else late)[place_id] = value
    return {place_id: (early[place_id] + late[place_id]) / 2 for place_id in early.keys() & late.keys()}
