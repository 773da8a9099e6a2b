"""How the length of the day divides a year: when days lengthen, when bulbs swell, when winter comes and goes."""

from __future__ import annotations

from functools import cached_property

import numpy as np
from numpy.typing import NDArray

from cloche.core.windows.limits import LEAST_LIGHT_H, LEAST_LONG_H, LONG_BULBS_H, SHORTER_BULBS_H

Array = NDArray[np.float64]
Days = NDArray[np.intp]
SOON = 1_000
WINTER_WITHIN_H = 0.2


class Daylight:
    """Days from day 0 by their length. light_h: hours from sunrise to sunset, (days,)."""

    light_h: Array

    @cached_property
    def lengthens(self) -> NDArray[np.bool_]:
        """Whether each day is longer than the one before."""
        change = np.diff(self.light_h)
        return np.asarray(np.concatenate([change[:1], change]) >= 0)

    @cached_property
    def until_longest(self) -> Days:
        """Days until the longest of the year, 0 on it; beyond the year `SOON`."""
        turns = self.lengthens & ~np.append(self.lengthens[1:], self.lengthens[-1])
        return _days_until(turns)

    @cached_property
    def until_bulbing(self) -> list[Days]:
        """Days until kinds of bulbs that are grown at this latitude begin to swell, a list a kind, each as until_longest.

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
        """Days until winter, 0 where it is winter."""
        return _days_until(self._wintry)

    @cached_property
    def until_spring(self) -> Days:
        """Days until winter is over, 0 where it is not winter."""
        return _days_until(~self._wintry)

    @cached_property
    def _wintry(self) -> NDArray[np.bool_]:
        # The days short of ten hours, where there are none the weeks about the shortest.
        return np.asarray(self.light_h < max(LEAST_LIGHT_H, float(self.light_h.min()) + WINTER_WITHIN_H))

    @cached_property
    def until_light(self) -> NDArray[np.intp]:
        """Days until the day has ten hours again, 0 while it has."""
        return _days_until(self.light_h >= LEAST_LIGHT_H)


def _days_until(true: NDArray[np.bool_]) -> NDArray[np.intp]:
    days = np.full(len(true), SOON)
    ahead = SOON
    for day in range(len(true) - 1, -1, -1):
        ahead = 0 if true[day] else min(ahead + 1, SOON)
        days[day] = ahead
    return days
