"""Questions about what was measured."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass, replace
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
SAME_DEPTH_M, WHOLE_DAY_H = 0.006, 20


def recent_readings(place: Place, limit: int = SHOWN_IN_LIST) -> QuerySet[Reading]:
    """The newest current readings of a place."""
    return place.readings.all().filter(removed_at__isnull=True).select_related("entered_by")[:limit]


def points_between(place: Place, start: datetime, end: datetime) -> list[Reading | HourPoint]:
    """Readings and loggers' hours for a chart, each thinned evenly where there are thousands."""
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
    """(number, taken_at, depth_m, temperature_c) for the forecast, oldest first: readings, and loggers' hours.

    What a grower left out is left out.
    """
    rows = Reading.objects.current().filter(place=place, taken_at__gte=start).exclude(review=Reading.Review.LEFT_OUT)
    found = list(rows.values_list("id", "taken_at", "depth_m", "temperature_c"))
    found += [(h.pk, h.taken_at, h.depth_m, h.temperature_c) for h in logged.hours_between([place.pk], start, end)]
    return sorted(found, key=lambda row: row[1])


def weather_days(garden: Garden) -> list[Day]:
    """All that is known of the site's days, oldest first: the provider's, and over them what was written down."""
    days = {day.day: day for day in heard_days(garden)}
    for row in garden.weather.order_by("day").values_list(*DailyWeather.LINE):
        days[row[0]] = day_of(*row)
    return [days[day] for day in sorted(days)]


def day_of(
    day: date, low_c: float, high_c: float, rain_mm: float | None, sky: str, wind_m_s: float | None, snow_m: float | None
) -> Day:
    """A written line in plain values, in the order of `DailyWeather.LINE`."""
    return Day(day, low_c, high_c, rain_mm, sky or None, wind_m_s=wind_m_s, snow_m=snow_m)


def heard_days(garden: Garden) -> Iterator[Day]:
    """Days as the weather service has them, measured first, then foretold."""
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
        lead = max((day - issued).days, 0)
        yield Day(day, row["low_c"], row["high_c"], row.get("rain_mm"), row["sky"], lead, row.get("wind_m_s"))


def known_day(garden: Garden, day: date, heard: list[Day]) -> Day | None:
    """A day as it is written down, else as the service has it, measured or foretold; heard from heard_days."""
    line = garden.weather.filter(day=day).values_list(*DailyWeather.LINE).first()
    if line is not None:
        return day_of(*line)
    return next((told for told in heard if told.day == day), None)


@dataclass(frozen=True)
class Original:
    """What a day's line said first, and who put another in its place and when; service: what the weather service says."""

    first: tuple[float, float] | None
    by: str
    at: datetime | None
    service: tuple[float, float] | None


def originals(garden: Garden, days: list[date], heard: list[Day]) -> dict[date, Original]:
    """For days whose line was corrected, or differs from the service's: what stands beside it; heard from heard_days."""
    told: dict[date, list[Any]] = {}
    rows = DailyWeather.history.filter(garden=garden, day__in=days).select_related("history_user").order_by("history_id")
    for row in rows:
        told.setdefault(row.day, []).append(row)
    service = {day.day: (day.low_c, day.high_c) for day in heard if day.lead_d == 0}
    found = {}
    for day in days:
        states = told.get(day, [])
        changed = [row for row in states if (row.low_c, row.high_c) != (states[0].low_c, states[0].high_c)]
        if changed:
            by = changed[-1].history_user.username if changed[-1].history_user else ""
            first = (states[0].low_c, states[0].high_c)
            found[day] = Original(first, by, changed[-1].history_date, service.get(day))
        elif day in service:
            found[day] = Original(None, "", None, service[day])
    return found


def forecast_days(garden: Garden, today: date) -> list[Day]:
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
    text = f"The weather service was last heard from at {words.clock(local)}, {words.day(local.date(), today)}."
    if heard.failed_at is not None:
        text += " It does not answer now: the older its forecast, the wider the band."
    return text


def weather_around(garden: Garden, today: date, back: int, ahead: int) -> list[DailyWeather]:
    """The days near today that have a line, newest first."""
    return list(garden.weather.filter(day__gte=today - timedelta(days=back), day__lte=today + timedelta(days=ahead)))


@dataclass(frozen=True)
class Latest:
    """The newest that was measured in a place."""

    taken_at: datetime
    temperature_c: float


def latest_by_place(garden: Garden) -> dict[int, Latest]:
    """The newest current reading or logger's value of each place that has one."""
    newest = Reading.objects.current().filter(place=OuterRef("pk")).order_by("-taken_at").values("pk")[:1]
    ids = [pk for pk in garden.places.annotate(newest=Subquery(newest)).values_list("newest", flat=True) if pk]
    rows = Reading.objects.filter(pk__in=ids).values_list("place_id", "taken_at", "temperature_c")
    found = {place: Latest(at, value) for place, at, value in rows}
    for place, probe in logged.newest(garden).items():
        if probe.last_at and probe.last_c is not None and (place not in found or probe.last_at > found[place].taken_at):
            found[place] = Latest(probe.last_at, probe.last_c)
    return found


@dataclass(frozen=True)
class DayRead:
    """What was read at seed depth within 36 hours: the last early and late reading, and a logger's whole day [°C]."""

    early: Latest | None = None
    late: Latest | None = None
    logged_c: float | None = None

    @property
    def mean_c(self) -> float | None:
        """The day's figure: the mean of the two; None where one of them lacks."""
        return (self.early.temperature_c + self.late.temperature_c) / 2 if self.early and self.late else None


def day_reads(garden: Garden, now: datetime, only: Place | None = None) -> dict[int, DayRead]:
    """By place, or of one only, what a day's figure can be made from."""
    places = {place.pk: place for place in ([only] if only else garden.places.all())}
    rows = (
        Reading.objects.current()
        .filter(place__in=places, taken_at__gt=now - FRESH, taken_at__lte=now)
        .exclude(review=Reading.Review.LEFT_OUT)
        .order_by("taken_at")
        .values_list("place_id", "taken_at", "depth_m", "temperature_c")
    )
    found = {pk: DayRead(logged_c=mean) for pk, mean in _logged_days(places, now).items()}
    for place_id, taken_at, depth_m, value in rows:
        if abs(depth_m - places[place_id].seed_depth_m) < SAME_DEPTH_M:
            early = taken_at.astimezone(garden.timezone).hour < MORNING_BEFORE_H
            read = {"early" if early else "late": Latest(taken_at, value)}
            found[place_id] = replace(found.get(place_id, DayRead()), **read)  # type: ignore[arg-type]
    return found


def _logged_days(places: dict[int, Place], now: datetime) -> dict[int, float]:
    """Means of the last day of loggers at seed depth, where nearly all of its hours are there."""
    hours: dict[int, list[float]] = {}
    for hour in logged.hours_between(places, now - timedelta(days=1), now):
        if abs(hour.depth_m - places[hour.place_id].seed_depth_m) < SAME_DEPTH_M:
            hours.setdefault(hour.place_id, []).append(hour.temperature_c)
    return {place: sum(values) / len(values) for place, values in hours.items() if len(values) >= WHOLE_DAY_H}


def read_since(garden: Garden, start: datetime) -> set[int]:
    """Places with a current reading from an instant on."""
    rows = Reading.objects.current().filter(place__garden=garden, place__removed_at__isnull=True, taken_at__gte=start)
    return set(rows.values_list("place_id", flat=True).distinct())
