"""A place's coming year as seed and plants feel it, in all scenarios: what every crop there is judged by."""

from __future__ import annotations

from dataclasses import dataclass
from functools import cached_property
from statistics import NormalDist

import numpy as np
from numpy.typing import NDArray

from cloche.core.crops.catalogue import Crop
from cloche.core.germination.emergence import Development, SeedBed, develop, rotting_per_h
from cloche.core.germination.steady import FIELD_FACTOR
from cloche.core.weather.record import DailyRecord
from cloche.core.weather.sun import day_length_h
from cloche.core.windows import series
from cloche.core.windows.growth import growth_index
from cloche.core.windows.limits import LEAST_LIGHT_H, WORK_WITHIN_D

Array = NDArray[np.float64]

TOO_WET = 1.04
"""Water in the top, as a share of what it holds once it has drained, above which soil smears rather than crumbles (assumption):
hours on sand, some days on clay."""
SOON = 1_000


@dataclass(frozen=True)
class Season:
    """Days from day 0. air: (days, members) as the plants feel it, at their height and under their cover; light_h: (days,);
    moist: (soil days, members), water in the top as a share of what it holds."""

    air: DailyRecord
    light_h: Array
    moist: Array

    @classmethod
    def of(cls, air: DailyRecord, latitude_deg: float, hourly_moist: Array | None = None) -> Season:
        """hourly_moist: (hours, members); None: never too wet to work."""
        if hourly_moist is None:
            moist = np.full((1, air.low_c.shape[1]), 0.5)
        else:
            moist = hourly_moist.reshape(-1, 24, hourly_moist.shape[1]).mean(axis=1)
        return cls(air, day_length_h(air.day_of_year, latitude_deg), moist)

    @property
    def days(self) -> int:
        """How many days of air there are."""
        return len(self.air)

    @cached_property
    def _coldest(self) -> dict[int, Array]:
        return {}

    def coldest(self, days: int) -> Array:
        """Coldest night of each day and the days - 1 after it [°C]."""
        if days not in self._coldest:
            self._coldest[days] = series.lowest_ahead(self.air.low_c, days)
        return self._coldest[days]

    @cached_property
    def nights_c(self) -> Array:
        """Mean low of each day and the six after [°C]."""
        return series.mean_ahead(self.air.low_c, 7)

    @cached_property
    def fortnight_c(self) -> Array:
        """Mean air of the fortnight that ends with each day [°C]."""
        return series.mean_behind(self.air.mean_c, 14)

    @cached_property
    def hot_spell_c(self) -> Array:
        """Mean high of the ten days that end with each day [°C]."""
        return series.mean_behind(self.air.high_c, 10)

    @cached_property
    def until_dark(self) -> NDArray[np.intp]:
        """Days until the day is shorter than ten hours, 0 while it is; beyond the year `SOON`."""
        return _days_until(self.light_h < LEAST_LIGHT_H)

    @cached_property
    def until_light(self) -> NDArray[np.intp]:
        """Days until the day has ten hours again, 0 while it has."""
        return _days_until(self.light_h >= LEAST_LIGHT_H)

    @cached_property
    def _grown(self) -> dict[str, Array]:
        return {}

    def grown_d(self, crop: Crop) -> Array:
        """Days of full growth from day 0 until each day begins, (days + 1, members)."""
        if crop.season not in self._grown:
            index = growth_index(self.air.mean_c, crop)
            self._grown[crop.season] = np.concatenate([np.zeros_like(index[:1]), np.cumsum(index, axis=0)])
        return self._grown[crop.season]


@dataclass(frozen=True)
class Bed:
    """Scenarios of one place at one depth, shared by every crop that lies that deep. soil_c: (soil days, members), daily means
    [°C]. field_factor: one, or one a member."""

    seed_bed: SeedBed
    soil_c: Array
    season: Season
    field_factor: float | Array = FIELD_FACTOR

    @classmethod
    def of(
        cls,
        hourly_soil_c: Array,
        season: Season,
        field_factor: float | Array = FIELD_FACTOR,
        hourly_moist: Array | None = None,
    ) -> Bed:
        """hourly_soil_c: (days * 24, members) from the first day of the season; hourly_moist: where nobody waters it."""
        daily = hourly_soil_c.reshape(len(hourly_soil_c) // 24, 24, -1).mean(axis=1)
        return cls(SeedBed.of(hourly_soil_c, hourly_moist), daily, season, field_factor)

    @cached_property
    def week_c(self) -> Array:
        """Mean soil of each day and the six after."""
        return series.mean_ahead(self.soil_c, 7)

    @cached_property
    def _developed(self) -> dict[tuple[object, ...], Development]:
        return {}

    def develop(self, crop: Crop) -> Development:
        """Development of a crop's seed in this bed; kin that share their curves share it."""
        key = (crop.rate.grid.tobytes(), crop.share.grid.tobytes(), rotting_per_h(crop))
        if key not in self._developed:
            self._developed[key] = develop(self.seed_bed, crop, self.field_factor)
        return self._developed[key]

    @cached_property
    def week_mid_c(self) -> Array:
        """The middle scenario's `week_c`, (soil days,)."""
        return np.asarray(np.median(self.week_c, axis=1))

    @cached_property
    def ten_days_c(self) -> Array:
        """Mean soil of each day and the nine after."""
        return series.mean_ahead(self.soil_c, 10)

    @cached_property
    def unworkable(self) -> NDArray[np.bool_]:
        """Whether the ground is frozen or too wet on each day and the week after it."""
        days = min(len(self.soil_c), len(self.season.moist))
        bad = self.soil_c <= 0.0
        bad[:days] |= self.season.moist[:days] > TOO_WET
        return np.asarray(series.lowest_ahead(bad.astype(np.float64), WORK_WITHIN_D) > 0)


def field_factors(middle: float, log_sd: float, members: int, seed: int) -> Array:
    """How much slower than the laboratory's the soil may be, one for each scenario: evenly through a log-normal, shuffled."""
    rank = (np.random.default_rng(seed).permutation(members) + 0.5) / members
    normal = NormalDist()
    return np.asarray(middle * np.exp(log_sd * np.array([normal.inv_cdf(float(r)) for r in rank])))


def _days_until(true: NDArray[np.bool_]) -> NDArray[np.intp]:
    found = np.full(len(true), SOON)
    ahead = SOON
    for day in range(len(true) - 1, -1, -1):
        ahead = 0 if true[day] else min(ahead + 1, SOON)
        found[day] = ahead
    return found
