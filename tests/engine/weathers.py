"""Made-up spells of weather and plain places, for checks on ground and covers."""

from __future__ import annotations

from collections.abc import Sequence
from datetime import date

import numpy as np

from cloche_engine.covers.kinds import kind
from cloche_engine.covers.periods import CoverPeriod, Vent
from cloche_engine.soil.bed import Bed, Parameters
from cloche_engine.soil.place import AnnualWave, Place
from cloche_engine.soil.simulate import Trajectory, simulate
from cloche_engine.weather.hourly import hours_of
from cloche_engine.weather.record import DailyRecord, HourlyWeather, Site

SITE = Site(50.0, 10.0, 200.0, 1.0)
WAVE = AnnualWave(10.0, 9.0, 203.0)
MIXED_D = 12
FOR_EVER_H = 1e6


def spell(
    first: date,
    low: float,
    high: float,
    sun: float,
    days: int = 3,
    before: int = MIXED_D,
    rain_mm: float = 0.0,
    wind: float = 2.0,
) -> HourlyWeather:
    """Mixed days of 2 to 9 °C, then so many of a kind; one member."""
    count = before + days
    columns = [np.full((count, 1), usual) for usual in (2.0, 9.0, 0.6, 0.5)]
    for column, value in zip(columns, (low, high, sun, rain_mm), strict=True):
        column[before:] = value
    return hours_of(DailyRecord(first, *columns, np.full((count, 1), wind), np.full((count, 1), np.nan)), SITE)


def under(key: str, **how: object) -> CoverPeriod:
    """A cover of a kind, on all along."""
    return CoverPeriod(kind(key), 0.0, FOR_EVER_H, **how)  # type: ignore[arg-type]


def closed_and(opening: float, key: str = "glass_frame", **vent: float) -> tuple[CoverPeriod, CoverPeriod]:
    """The same cover closed, and opened."""
    return under(key), under(key, vent=Vent(opening, **vent))


def trajectories(weather: HourlyWeather, covers: Sequence[CoverPeriod | None], bed: Bed | None = None) -> list[Trajectory]:
    """Soil at the face and 5 cm under each of the covers side by side (None: open), as described, not learned."""
    places = [Place(bed or Bed(), WAVE, () if cover is None else (cover,)) for cover in covers]
    return simulate([place.case(weather, Parameters.typical(1)) for place in places], [0.0, 0.05])
