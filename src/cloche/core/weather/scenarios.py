"""Weather scenarios: members that share the days already known and differ in those that are not.

Days ahead for which the grower gave a forecast keep to it with a spread that grows with lead time; beyond, days wander
about the site's normals as a first-order autoregression of the daily mean on top of a slow drift (a warm or a cold
spring). The simplest relative of Richardson's generator [Richardson1981]; rain and radiation are not simulated.
"""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from cloche.core.weather.normals import GUESS_SPREAD_K, Normals

PERSISTENCE = 0.72
"""Correlation of one day's departure from normal with the next (assumption; mid-latitude stations lie at 0.65-0.8)."""
SEASON_SD_K = 1.0
"""How far a whole season strays from normal [K] (assumption)."""
SEASON_PERSISTENCE = 0.985
FORECAST_SD_K = 0.9
FORECAST_GROWTH_K_PER_D = 0.35
RANGE_LOG_SD = 0.35


@dataclass(frozen=True)
class DailyAir:
    """Air by local day from day 0: (days,) or (days, members). low_c, high_c [°C], nan where not known."""

    first_day_of_year: int
    low_c: NDArray[np.float64]
    high_c: NDArray[np.float64]

    @property
    def day_of_year(self) -> NDArray[np.float64]:
        """Day of the year 1-366 of each row, running on through New Year."""
        return (self.first_day_of_year - 1 + np.arange(len(self.low_c), dtype=np.float64)) % 365.25 + 1

    @property
    def mean_c(self) -> NDArray[np.float64]:
        """Middle of low and high [°C]."""
        return (self.low_c + self.high_c) / 2

    @property
    def range_k(self) -> NDArray[np.float64]:
        """High less low [K]."""
        return self.high_c - self.low_c


def scenarios(known: DailyAir, normals: Normals, today: int, members: int, rng: np.random.Generator) -> DailyAir:
    """Fill every day that is not known: (days,) in, (days, members) out.

    today: index of the current day; known days after it are a forecast and get a spread, known days up to it do not.
    """
    days = len(known.low_c)
    doy = known.day_of_year
    normal_c, sd_k = normals.mean_on(doy), normals.sd_on(doy)
    departure = np.empty((days, members))
    season = _drift(days, members, rng) * SEASON_SD_K
    if normals.source == "guess":
        season = season + rng.normal(0, GUESS_SPREAD_K, members)
    told = known.mean_c - normal_c
    lead_d = np.clip(np.arange(days) - today, 0, None)
    last = np.zeros(members)
    for day in range(days):
        wander = season[day] + PERSISTENCE * (last - season[day])
        wander = wander + sd_k[day] * np.sqrt(1 - PERSISTENCE**2) * rng.standard_normal(members)
        last = wander if np.isnan(told[day]) else told[day] + _forecast_error(lead_d[day], members, rng)
        departure[day] = last
    mean_c = normal_c[:, None] + departure
    half_range = _ranges(known, normals, members, rng) / 2
    return DailyAir(known.first_day_of_year, mean_c - half_range, mean_c + half_range)


def _drift(days: int, members: int, rng: np.random.Generator) -> NDArray[np.float64]:
    steps = rng.standard_normal((days, members))
    level = np.empty_like(steps)
    level[0] = steps[0]
    for day in range(1, days):
        level[day] = SEASON_PERSISTENCE * level[day - 1] + np.sqrt(1 - SEASON_PERSISTENCE**2) * steps[day]
    return level


def _forecast_error(lead_d: int, members: int, rng: np.random.Generator) -> NDArray[np.float64]:
    if lead_d == 0:
        return np.zeros(members)
    return rng.normal(0, FORECAST_SD_K + FORECAST_GROWTH_K_PER_D * (lead_d - 1), members)


def _ranges(known: DailyAir, normals: Normals, members: int, rng: np.random.Generator) -> NDArray[np.float64]:
    normal = normals.range_on(known.day_of_year)[:, None]
    drawn = normal * np.exp(RANGE_LOG_SD * rng.standard_normal((len(known.low_c), members)) - RANGE_LOG_SD**2 / 2)
    told = known.range_k[:, None]
    return np.where(np.isnan(told), drawn, told)
