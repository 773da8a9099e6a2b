"""From a plan, a day and a seed to records: the same in, the same out."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import UTC, date, datetime, time, timedelta
from zoneinfo import ZoneInfo

import numpy as np

from cloche.demo import nature, sky
from cloche.demo.plan import HOTBED_AGE_D, GardenPlan, PlacePlan

PAST_D = 2 * 365 + 80

LOGGER_D = 110


@dataclass(frozen=True)
class ReadingRow:
    """An invented reading."""

    taken_at: datetime
    depth_m: float
    temperature_c: float
    note: str = ""


@dataclass(frozen=True)
class GardenRecords:
    """Daily air (day, low, high, rain), and readings by name of the place."""

    weather: list[tuple[date, float, float, float | None]]
    readings: dict[str, list[ReadingRow]]


def invent(plan: GardenPlan, now: datetime, seed: int) -> GardenRecords:
    """Invent two past seasons and the current one up to now."""
    rng = np.random.default_rng([seed, round(abs(plan.latitude_deg) * 10)])
    zone = ZoneInfo(plan.timezone_name)
    today = now.astimezone(zone).date()
    now = now.astimezone(UTC)  # hours counted on a local clock would stumble over summer time
    first = today - timedelta(days=PAST_D)
    days = [first + timedelta(days=i) for i in range(PAST_D + 1)]
    doy = np.array([day.timetuple().tm_yday for day in days], dtype=float)
    truth = sky.history(plan.latitude_deg, plan.longitude_deg, plan.climate, days[-1], seed)
    rows = truth.rows(first, days[-1])
    low, high, rain = truth.low_c[rows], truth.high_c[rows], truth.rain_mm[rows]
    air, sun = nature.hours_of_air(low, high), nature.hours_of_sun(plan.climate, doy, low, high)
    hour_0 = datetime.combine(first, time(), tzinfo=zone).astimezone(UTC)
    readings = {}
    for place in plan.places:
        readings[place.name] = _readings(plan, place, air, sun, hour_0, now, np.random.default_rng(rng.integers(2**32)))
    return GardenRecords(_weather(days, low, high, rain, today, rng), readings)


def _weather(
    days: list[date], low: nature.Array, high: nature.Array, rain: nature.Array, today: date, rng: np.random.Generator
) -> list[tuple[date, float, float, float | None]]:
    rows: list[tuple[date, float, float, float | None]] = []
    for day, low_c, high_c, rain_mm in zip(days, low, high, rain, strict=True):
        if day >= today or rng.random() < 0.01:
            continue  # not over yet, or a day nobody wrote down
        rows.append((day, round(float(low_c), 1), round(float(high_c), 1), round(float(rain_mm), 1)))
    return rows


def _readings(
    plan: GardenPlan,
    place: PlacePlan,
    air: nature.Array,
    sun: nature.Array,
    hour_0: datetime,
    now: datetime,
    rng: np.random.Generator,
) -> list[ReadingRow]:
    hot = None
    if place.kind == "hotbed":
        filled = (now - timedelta(days=HOTBED_AGE_D) - hour_0) / timedelta(hours=1)
        hot = np.arange(len(air), dtype=np.float64) - filled
    soil = nature.soil(place.kind, air, sun, place.seed_depth_m, hot)
    rows = [
        row for row in _rounds(plan, place, soil, hour_0, now, rng) if hot is None or (now - row.taken_at).days < HOTBED_AGE_D
    ]
    if place.logger:
        rows += _logged(place, air, sun, hour_0, now, rng)
    return _with_slips(rows, rng) if place.kind in ("open", "frame") else rows


def _rounds(
    plan: GardenPlan, place: PlacePlan, soil: nature.Array, hour_0: datetime, now: datetime, rng: np.random.Generator
) -> list[ReadingRow]:
    """Invent morning and afternoon rounds in season, with some missed and a holiday each summer."""
    zone = ZoneInfo(plan.timezone_name)
    rows = []
    day = hour_0.astimezone(zone).date()
    while day <= now.astimezone(zone).date():
        for hour in (7, 16):
            at = datetime.combine(day, time(hour, int(rng.integers(15, 50))), tzinfo=zone).astimezone(UTC)
            value = _value(soil, hour_0, at) + float(rng.normal(0, 0.25))
            read = _in_season(day, plan.season) and rng.random() < place.read and not (day.month == 8 and 3 <= day.day <= 13)
            if read and at <= now:
                rows.append(ReadingRow(at, place.seed_depth_m, round(value, 1)))
        day += timedelta(days=1)
    return rows


def _in_season(day: date, season: tuple[tuple[int, int], tuple[int, int]]) -> bool:
    start, end = season
    at = (day.month, day.day)
    return start <= at <= end if start <= end else at >= start or at <= end


def _logged(
    place: PlacePlan, air: nature.Array, sun: nature.Array, hour_0: datetime, now: datetime, rng: np.random.Generator
) -> list[ReadingRow]:
    """Invent hourly values of a probe twice as deep, with a gap of four days."""
    depth_m = 2 * place.seed_depth_m
    soil = nature.soil(place.kind, air, sun, depth_m)
    rows = []
    for back in range(LOGGER_D * 24, 0, -1):
        at = (now - timedelta(hours=back)).replace(minute=0, second=0, microsecond=0)
        if not 40 * 24 <= back < 44 * 24:
            value = _value(soil, hour_0, at) + float(rng.normal(0, 0.06))
            rows.append(ReadingRow(at, depth_m, round(value, 2), "" if back > 1 else "logger"))
    return rows


def _value(soil: nature.Array, hour_0: datetime, at: datetime) -> float:
    hours = (at - hour_0) / timedelta(hours=1)
    return float(np.interp(hours, np.arange(len(soil)) + 0.5, soil))


def _with_slips(rows: list[ReadingRow], rng: np.random.Generator) -> list[ReadingRow]:
    """Introduce three mistakes: air instead of soil, a probe that had not settled, transposed digits."""
    for back, value, note in ((9, 24.6, ""), (31, 1.2, "in a hurry"), (160, 41.7, "")):
        index = len(rows) - back - int(rng.integers(0, 3))
        if 0 <= index < len(rows):
            rows[index] = ReadingRow(rows[index].taken_at, rows[index].depth_m, value, note)
    return rows
