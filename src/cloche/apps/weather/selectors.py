"""Queries on the weather."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from datetime import date, datetime, timedelta
from itertools import islice
from statistics import quantiles
from typing import Any

from django.utils.translation import gettext as _

from cloche.apps.gardens.models import Garden
from cloche.apps.shared import words
from cloche.apps.weather.models import DailyWeather, WeatherReport
from cloche_engine.inputs import Day


def weather_days(garden: Garden) -> list[Day]:
    """Return all known days, oldest first; recorded days replace the provider's."""
    days = {day.day: day for day in reported_days(garden)}
    for row in garden.weather.order_by("day").values_list(*DailyWeather.LINE):
        days[row[0]] = day_of(*row)
    return [days[day] for day in sorted(days)]


def is_simulated(garden: Garden) -> bool:
    """Return whether the garden's weather comes from a simulated service."""
    return WeatherReport.objects.filter(garden=garden, simulated=True).exists()


def day_of(
    day: date, low_c: float, high_c: float, rain_mm: float | None, sky: str, wind_m_s: float | None, snow_m: float | None
) -> Day:
    """Convert a recorded line to a Day, in the order of `DailyWeather.LINE`."""
    return Day(day, low_c, high_c, rain_mm, sky or None, wind_m_s=wind_m_s, snow_m=snow_m)


def reported_days(garden: Garden, since: date = date.min) -> Iterator[Day]:
    """Yield the provider's days: measured from `since` on, then forecast. There may be thirty years of them."""
    report = WeatherReport.objects.filter(garden=garden, received_at__isnull=False).first()
    if report is None or report.received_at is None:
        return
    first = date.fromisoformat(report.past["first"])
    rows = zip(report.past["low_c"], report.past["high_c"], report.past["rain_mm"], strict=True)
    skipped = max((since - first).days, 0)
    for index, (low_c, high_c, rain_mm) in enumerate(islice(rows, skipped, None), skipped):
        yield Day(first + timedelta(days=index), low_c, high_c, rain_mm)
    yield from _reported_ahead(report, garden)


def _reported_ahead(report: WeatherReport, garden: Garden) -> Iterator[Day]:
    assert report.received_at is not None  # noqa: S101 - asked for
    issued = report.received_at.astimezone(garden.timezone).date()
    for row in report.ahead:
        day = date.fromisoformat(row["day"])
        lead = max((day - issued).days, 0)
        runs = tuple((low_c, high_c, rain_mm) for low_c, high_c, rain_mm in row.get("runs", ()))
        yield Day(day, row["low_c"], row["high_c"], row.get("rain_mm"), row["sky"], lead, row.get("wind_m_s"), runs=runs)


def lows_apart(day: Day) -> tuple[float, float] | None:
    """Return the 10th and 90th percentile of the ensemble's lows, or None."""
    if len(day.runs) < 2:
        return None
    tenths = quantiles([low_c for low_c, *_others in day.runs], n=10, method="inclusive")
    return tenths[0], tenths[-1]


def known_day(garden: Garden, day: date, report: list[Day]) -> Day | None:
    """Return a day as recorded, or else as reported by the provider.

    `report` comes from reported_days.
    """
    line = garden.weather.filter(day=day).values_list(*DailyWeather.LINE).first()
    if line is not None:
        return day_of(*line)
    return next((states for states in report if states.day == day), None)


@dataclass(frozen=True)
class Original:
    """First value of a corrected day, who changed it and when, and `service`, the provider's value."""

    first: tuple[float, float] | None
    by: str
    at: datetime | None
    service: tuple[float, float] | None


def originals(garden: Garden, days: list[date], report: list[Day]) -> dict[date, Original]:
    """Return the original of each day that was corrected or differs from the provider's.

    `report` comes from reported_days.
    """
    states: dict[date, list[Any]] = {}
    rows = DailyWeather.history.filter(garden=garden, day__in=days).select_related("history_user").order_by("history_id")
    for row in rows:
        states.setdefault(row.day, []).append(row)
    service = {day.day: (day.low_c, day.high_c) for day in report if day.lead_d == 0}
    by_day = {}
    for day in days:
        was = states.get(day, [])
        changed = [row for row in was if (row.low_c, row.high_c) != (was[0].low_c, was[0].high_c)]
        if changed:
            by = changed[-1].history_user.username if changed[-1].history_user else ""
            first = (was[0].low_c, was[0].high_c)
            by_day[day] = Original(first, by, changed[-1].history_date, service.get(day))
        elif day in service:
            by_day[day] = Original(None, "", None, service[day])
    return by_day


def forecast_days(garden: Garden, today: date) -> list[Day]:
    """Return the provider's forecast from today on, without recorded days."""
    report = WeatherReport.objects.filter(garden=garden, received_at__isnull=False).defer("past").first()
    if report is None:
        return []
    written = set(garden.weather.filter(day__gte=today).values_list("day", flat=True))
    return [day for day in _reported_ahead(report, garden) if day.day >= today and day.day not in written]


def report_words(garden: Garden, now: datetime) -> str:
    """Describe when the provider last answered and any problem; empty without a provider."""
    report = WeatherReport.objects.filter(garden=garden).only("received_at", "failed_at", "failure", "garden").first()
    if report is None:
        return ""
    if report.received_at is None:
        return _("{failure} It has not answered yet.").format(failure=report.failure)
    local, today = report.received_at.astimezone(garden.timezone), now.astimezone(garden.timezone).date()
    text = _("The weather service last answered at {clock}, {day}.").format(
        clock=words.clock(local), day=words.day(local.date(), today)
    )
    if report.failed_at is not None:
        text += _(" It is not responding now: the older its forecast, the wider the band.")
    return text


def weather_around(garden: Garden, today: date, back: int, ahead: int) -> list[DailyWeather]:
    """Return recorded days near today, newest first."""
    return list(garden.weather.filter(day__gte=today - timedelta(days=back), day__lte=today + timedelta(days=ahead)))
