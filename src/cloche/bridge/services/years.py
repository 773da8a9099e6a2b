"""Comparison of years, winter day length and cold survived. Only the learning of limits imports SciPy."""

from __future__ import annotations

from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass
from datetime import date, timedelta

import numpy as np

from cloche.bridge.services import crops
from cloche_engine.records import springs
from cloche_engine.records.springs import YearSoil
from cloche_engine.weather.sun import day_length_h
from cloche_engine.windows.learned_limit import LearnedLimit, Seen

TEN_H, WARM_C = 10.0, 10.0
"""Hours of day without which growth pauses, most growers say (common practice, no source); warmth of the first warm week."""
SPRING_D = 212
__all__ = ["LearnedLimit", "Seen", "Spring", "begins_on", "limit_of", "short_days", "springs_of"]


@dataclass(frozen=True)
class Spring:
    """Daily soil temperatures of a year's first half.

    With the degree days above 5 °C up to the day of comparison [K d], the lead over the other years in days (None where
    unknown), and the first warm week and last frost as days (None where absent).
    """

    first: date
    soil_c: list[float | None]
    warmth: float | None
    ahead_d: int | None
    warm_week: date | None
    last_frost: date | None


def begins_on(year: int, south: bool) -> date:
    """Return the first day of a garden's growing year, at midwinter."""
    return date(year, 7, 1) if south else date(year, 1, 1)


def springs_of(years: Mapping[date, Sequence[float | None]], lows: Mapping[date, float], until: date) -> list[Spring]:
    """Return the springs of all years by first day, compared up to the day of the year of `until` in the latest year."""
    soils = {first: YearSoil(first, np.array([np.nan if v is None else v for v in values])) for first, values in years.items()}
    latest = max(soils)
    span = min(max((until - latest).days, 0), SPRING_D - 1)
    rows = []
    for first, soil in sorted(soils.items()):
        others = [soil for start, soil in soils.items() if start != first]
        day = first + timedelta(days=span)
        rows.append(
            Spring(
                first,
                [None if np.isnan(v) else float(v) for v in soil.mean_c],
                springs.degree_days(soil, day),
                springs.days_ahead(soil, day, others),
                springs.warm_week(soil, WARM_C),
                springs.last_frost(lows, first, min(first + timedelta(days=SPRING_D), until)),
            )
        )
    return rows


def short_days(year: int, latitude_deg: float) -> tuple[date, date] | None:
    """Return the first autumn day shorter than ten hours and the first day after it that is longer.

    None where days never get that short.
    """
    first = date(year, 7, 1) if latitude_deg >= 0 else date(year, 1, 1)
    days = [first + timedelta(days=i) for i in range(365)]
    light = day_length_h(np.array([day.timetuple().tm_yday for day in days]), latitude_deg)
    short = np.flatnonzero(light < TEN_H)
    return (days[int(short[0])], days[int(short[-1])] + timedelta(days=1)) if short.size else None


def limit_of(crop_key: str, seen: Iterable[Seen]) -> LearnedLimit:
    """Return the cold limit of established plants of a kind, learned from what survived here."""
    from cloche_engine.windows.learned_limit import learned_limit

    return learned_limit(crops.crop(crop_key).frost_grown_c, seen)
