"""How crops grow by warmth and by length of day."""

from __future__ import annotations

from enum import StrEnum
from functools import cached_property

import numpy as np
from numpy.typing import ArrayLike, NDArray

from cloche_engine.crops.catalogue import Crop
from cloche_engine.weather.sun import extraterrestrial_w_m2
from cloche_engine.windows.limits import LEAST_LIGHT_H, LEAST_LONG_H, LONG_BULBS_H, SHORTER_BULBS_H

THRIVES, SURVIVES = 0.5, 0.25
"""Above the first it thrives, below the second it merely survives (assumption)."""
ENOUGH_SUN_W_M2 = 280.0
"""Sun above the air, mean of a day, from which light no longer holds plants back: half of it arrives, some 25 mol/m² of light
in a day. At 52° from late March to mid-September; in December a third of it (assumption)."""


def growth_index(mean_c: ArrayLike, crop: Crop) -> NDArray[np.float64]:
    """Return the share of best growth at a daily mean air temperature, 0 to 1: beta function of three cardinal temperatures
    [YanHunt1999].

    Parameters
    ----------
    mean_c : array_like
        Day's mean air, any shape [°C].

    References
    ----------
    YanHunt1999: see :doc:`/sources`.
    """
    low, best, high = crop.life.begins_c, crop.life.best_c, crop.life.ends_c
    t = np.clip(np.asarray(mean_c, dtype=np.float64), low, high)
    return np.asarray((high - t) / (high - best) * ((t - low) / (best - low)) ** ((best - low) / (high - best)))


def development_index(growth: NDArray[np.float64], mean_c: ArrayLike, crop: Crop) -> NDArray[np.float64]:
    """Return the pace towards harvest, 0 to 1: heat above the best temperature spoils a crop but does not slow its development.

    Parameters
    ----------
    growth : ndarray
        Growth index of the same days, 0-1.
    mean_c : array_like
        Day's mean air, any shape [°C].
    """
    return np.where(np.asarray(mean_c) > crop.life.best_c, 1.0, growth)


def light_share(day_of_year: ArrayLike, latitude_deg: float) -> NDArray[np.float64]:
    """Return the share of best growth that a day's light allows, 0 to 1.

    Parameters
    ----------
    day_of_year : array_like
        Day of the year from 1, any shape.
    latitude_deg : float
        Latitude, north positive [°].
    """
    return np.asarray(np.minimum(extraterrestrial_w_m2(day_of_year, latitude_deg) / ENOUGH_SUN_W_M2, 1.0))


def full_growth_d(crop: Crop, printed_d: float) -> float:
    """Return the days of full growth in a printed number of days of the usual season, in long days.

    Parameters
    ----------
    printed_d : float
        Days to harvest that are printed [d].
    """
    return printed_d * float(growth_index(crop.life.printed_c, crop))


class Vigour(StrEnum):
    """Growth of seedlings in words."""

    THRIVE = "thrive"
    SLOW = "slow"
    SURVIVE = "survive"


def vigour(index: float) -> Vigour:
    """Return the vigour for a growth index.

    Parameters
    ----------
    index : float
        Growth index, 0-1.
    """
    if index >= THRIVES:
        return Vigour.THRIVE
    return Vigour.SURVIVE if index < SURVIVES else Vigour.SLOW


Array = NDArray[np.float64]
Days = NDArray[np.intp]
SOON = 1_000
WINTER_WITHIN_H = 0.2


class Daylight:
    """Day length from day 0 on; `light_h` counts hours from sunrise to sunset, (days,)."""

    light_h: Array

    @cached_property
    def lengthens(self) -> NDArray[np.bool_]:
        """Return whether each day is longer than the one before."""
        change = np.diff(self.light_h)
        return np.asarray(np.concatenate([change[:1], change]) >= 0)

    @cached_property
    def until_longest(self) -> Days:
        """Return days until the longest day of the year, 0 on that day; `SOON` beyond the year."""
        turns = self.lengthens & ~np.append(self.lengthens[1:], self.lengthens[-1])
        return _days_until(turns)

    @cached_property
    def until_bulbing(self) -> list[Days]:
        """Return days until kinds of bulbs grown at this latitude begin to swell, one array per kind.

        In most places kinds for which the longest day is long enough; where no day is very long, those bred for shorter ones.
        """
        longest = float(self.light_h.max())
        kinds = [hours for hours in SHORTER_BULBS_H if hours + 0.5 <= longest < LONG_BULBS_H]
        shorter = [_days_until(self._passes(hours)) for hours in kinds]
        return shorter if shorter and longest < LEAST_LONG_H else [self.until_longest, *shorter]

    def _passes(self, hours: float) -> NDArray[np.bool_]:
        long = self.light_h >= hours
        return np.asarray(long & ~np.concatenate([long[:1], long[:-1]]) & self.lengthens)

    @cached_property
    def until_winter(self) -> Days:
        """Return days until winter, 0 in winter."""
        return _days_until(self._wintry)

    @cached_property
    def until_spring(self) -> Days:
        """Return days until the end of winter, 0 outside winter."""
        return _days_until(~self._wintry)

    @cached_property
    def _wintry(self) -> NDArray[np.bool_]:
        # The days short of ten hours, where there are none the weeks about the shortest.
        return np.asarray(self.light_h < max(LEAST_LIGHT_H, float(self.light_h.min()) + WINTER_WITHIN_H))

    @cached_property
    def until_light(self) -> NDArray[np.intp]:
        """Return days until the day has ten hours of light again, 0 while it has."""
        return _days_until(self.light_h >= LEAST_LIGHT_H)


def _days_until(true: NDArray[np.bool_]) -> NDArray[np.intp]:
    days = np.full(len(true), SOON)
    ahead = SOON
    for day in range(len(true) - 1, -1, -1):
        ahead = 0 if true[day] else min(ahead + 1, SOON)
        days[day] = ahead
    return days
