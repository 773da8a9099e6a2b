"""Questions about what was measured."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from datetime import date, datetime, timedelta
from typing import Any

from django.db.models import OuterRef, QuerySet, Subquery

from cloche.apps.gardens import words
from cloche.apps.gardens.models import Garden, Place
from cloche.apps.loggers import selectors as logged
from cloche.apps.loggers.selectors import HourPoint
from cloche.apps.readings.models import DailyWeather, Reading, WeatherHeard
from cloche.bridge.evidence import Day

SHOWN_IN_LIST = 30
MOST_POINTS = 400
MORNING_BEFORE_H = 12
FRESH = timedelta(hours=36)


def recent_readings(place: Place, limit: int = SHOWN_IN_LIST) -> QuerySet[Reading]:
    """The newest standing readings of a place."""
    return place.readings.all().filter(removed_at__isnull=True).select_related("entered_by")[:limit]


def points_between(place: Place, start: datetime, end: datetime) -> list[Reading | HourPoint]:
    """Readings and loggers' hours for a chart, each thinned evenly where there are thousands."""
    rows = list(
        Reading.objects.standing()
        .filter(place=place, taken_at__gte=start, taken_at__lte=end)
        .order_by("taken_at")
        .only("id", "taken_at", "depth_m", "temperature_c", "place_id")
    )
    return [*_thinned(rows), *_thinned(logged.hours_between([place.pk], start, end))]


def _thinned(rows: list[Any]) -> list[Any]:
    step = max(1, -(-len(rows) // MOST_POINTS))
    return rows[::step]


def readings_since(place: Place, start: datetime, end: datetime) -> list[tuple[int, datetime, float, float]]:
    """(number, taken_at, depth_m, temperature_c) for the forecast, oldest first: readings, and loggers' hours.

    What a grower left out is left out.
    """
    rows = Reading.objects.standing().filter(place=place, taken_at__gte=start).exclude(verdict=Reading.Verdict.LEFT_OUT)
    found = list(rows.values_list("id", "taken_at", "depth_m", "temperature_c"))
    found += [(h.pk, h.taken_at, h.depth_m, h.temperature_c) for h in logged.hours_between([place.pk], start, end)]
    return sorted(found, key=lambda row: row[1])


def weather_days(garden: Garden) -> list[Day]:
    """All that is known of the site's days, oldest first: the provider's, and over them what was written down."""
    days = {day.day: day for day in _heard_days(garden)}
    for row in garden.weather.order_by("day").values_list(*DailyWeather.LINE):
        days[row[0]] = day_of(*row)
    return [days[day] for day in sorted(days)]


def day_of(
    day: date, low_c: float, high_c: float, rain_mm: float | None, sky: str, wind_m_s: float | None, snow_m: float | None
) -> Day:
    """A written line in plain values, in the order of `DailyWeather.LINE`."""
    return Day(day, low_c, high_c, rain_mm, sky or None, wind_m_s=wind_m_s, snow_m=snow_m)


def _heard_days(garden: Garden) -> Iterator[Day]:
    heard = WeatherHeard.objects.filter(garden=garden, heard_at__isnull=False).first()
    if heard is None or heard.heard_at is None:
        return
    first = date.fromisoformat(heard.past["first"])
    rows = zip(heard.past["low_c"], heard.past["high_c"], heard.past["rain_mm"], strict=True)
    for index, (low_c, high_c, rain_mm) in enumerate(rows):
        yield Day(first + timedelta(days=index), low_c, high_c, rain_mm)
    yield from _heard_ahead(heard, garden)


def _heard_ahead(heard: WeatherHeard, garden: Garden) -> Iterator[Day]:
    assert heard.heard_at is not None  # noqa: S101 - asked for
    issued = heard.heard_at.astimezone(garden.timezone).date()
    for row in heard.ahead:
        day = date.fromisoformat(row["day"])
        yield Day(day, row["low_c"], row["high_c"], None, row["sky"], max((day - issued).days, 0))


def foretold(garden: Garden, today: date) -> list[Day]:
    """What the weather service foretells of today and later, without days that are written down."""
    heard = WeatherHeard.objects.filter(garden=garden, heard_at__isnull=False).defer("past").first()
    if heard is None:
        return []
    written = set(garden.weather.filter(day__gte=today).values_list("day", flat=True))
    return [day for day in _heard_ahead(heard, garden) if day.day >= today and day.day not in written]


def heard_words(garden: Garden, now: datetime) -> str:
    """When the weather service was last heard from, and what is amiss; empty where there is none."""
    heard = WeatherHeard.objects.filter(garden=garden).only("heard_at", "failed_at", "failure", "garden").first()
    if heard is None:
        return ""
    if heard.heard_at is None:
        return f"{heard.failure} It has not been heard from yet."
    local, today = heard.heard_at.astimezone(garden.timezone), now.astimezone(garden.timezone).date()
    said = f"The weather service was last heard from at {words.clock(local)}, {words.day(local.date(), today)}."
    if heard.failed_at is not None:
        said += " It does not answer now: the older its forecast, the wider the band."
    return said


def weather_around(garden: Garden, today: date, back: int, ahead: int) -> list[DailyWeather]:
    """The days near today that have a line, newest first."""
    return list(garden.weather.filter(day__gte=today - timedelta(days=back), day__lte=today + timedelta(days=ahead)))


@dataclass(frozen=True)
class Latest:
    """The newest that was measured in a place."""

    taken_at: datetime
    temperature_c: float


def latest_by_place(garden: Garden) -> dict[int, Latest]:
    """The newest standing reading or logger's value of each place that has one."""
    newest = Reading.objects.standing().filter(place=OuterRef("pk")).order_by("-taken_at").values("pk")[:1]
    ids = [pk for pk in garden.places.annotate(newest=Subquery(newest)).values_list("newest", flat=True) if pk]
    rows = Reading.objects.filter(pk__in=ids).values_list("place_id", "taken_at", "temperature_c")
    found = {place: Latest(at, value) for place, at, value in rows}
    for place, probe in logged.newest(garden).items():
        if probe.last_at and probe.last_c is not None and (place not in found or probe.last_at > found[place].taken_at):
            found[place] = Latest(probe.last_at, probe.last_c)
    return found


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


def read_since(garden: Garden, start: datetime) -> set[int]:
    """Places with a standing reading from an instant on."""
    rows = Reading.objects.standing().filter(place__garden=garden, place__removed_at__isnull=True, taken_at__gte=start)
    return set(rows.values_list("place_id", flat=True).distinct())
