"""One spring against the others: warmth of the soil summed, the first warm week, the last frost, by how many days it is
ahead."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from datetime import date, timedelta

import numpy as np
from numpy.typing import NDArray

Array = NDArray[np.float64]
BASE_C, WEEK_D = 5.0, 7
"""Most seed of the cool season starts at about five degrees (common practice, no source)."""
MOST_MISSING = 0.15
"""A span with more days missing than this is not summed."""


@dataclass(frozen=True)
class YearSoil:
    """Soil of a year at seed depth: daily mean from its first day, NaN where it is not known [°C]."""

    first: date
    mean_c: Array

    def on(self, day: date) -> float:
        """Mean of a day, NaN where it is not known [°C]."""
        at = (day - self.first).days
        return float(self.mean_c[at]) if 0 <= at < self.mean_c.size else float("nan")


def degree_days(soil: YearSoil, until: date, base_c: float = BASE_C) -> float | None:
    """Warmth above a base from the year's first day to a day, that included [K d]; missing days between known ones are bridged;
    None where too many are missing.

    Parameters
    ----------
    soil : YearSoil
        The year.
    until : date
        Last day.
    base_c : float
        Base [°C].
    """
    days = (until - soil.first).days + 1
    mean = _bridged(soil.mean_c[:days], days)
    return None if mean is None else float(np.maximum(mean - base_c, 0.0).sum())


def warm_week(soil: YearSoil, level_c: float = 10.0) -> date | None:
    """First day of the first week whose mean is at least level_c and none of whose days is missing; None: not yet.

    Parameters
    ----------
    soil : YearSoil
        The year.
    level_c : float
        Warmth [°C].
    """
    if soil.mean_c.size < WEEK_D:
        return None
    weeks = np.convolve(soil.mean_c, np.ones(WEEK_D) / WEEK_D, "valid")
    warm = np.flatnonzero(weeks >= level_c)
    return soil.first + timedelta(days=int(warm[0])) if warm.size else None


def last_frost(lows: Mapping[date, float], first: date, until: date) -> date | None:
    """Last day of a span whose low was below freezing; None where none was.

    Parameters
    ----------
    lows : Mapping[date, float]
        Lowest air by day [°C].
    first : date
        First day.
    until : date
        Last day.
    """
    return max((day for day, low_c in lows.items() if first <= day <= until and low_c < 0), default=None)


def days_ahead(soil: YearSoil, until: date, others: Sequence[YearSoil], base_c: float = BASE_C) -> int | None:
    """By how many days this spring's warmth is ahead of the others' mean course (below 0: behind); None where either is not
    known or the others never come as far.

    Parameters
    ----------
    soil : YearSoil
        This year.
    until : date
        The day up to which it counts.
    others : Sequence[YearSoil]
        Other years.
    base_c : float
        Base [°C].
    """
    warmth = degree_days(soil, until, base_c)
    course = usual_course(others, base_c)
    if warmth is None or course is None:
        return None
    reached = np.flatnonzero(course >= warmth)
    if not reached.size or warmth <= 0:
        return None
    return int(reached[0]) - (until - soil.first).days


def usual_course(others: Sequence[YearSoil], base_c: float = BASE_C) -> Array | None:
    """Mean of the years' warmth summed from their first day, by the day [K d]; None without a whole year.

    Parameters
    ----------
    others : Sequence[YearSoil]
        The years.
    base_c : float
        Base [°C].
    """
    courses = []
    for other in others:
        mean = _bridged(other.mean_c, other.mean_c.size)
        if mean is not None:
            courses.append(np.cumsum(np.maximum(mean - base_c, 0.0)))
    if not courses:
        return None
    shortest = min(course.size for course in courses)
    return np.asarray(np.mean([course[:shortest] for course in courses], axis=0))


def _bridged(mean_c: Array, days: int) -> Array | None:
    known = np.isfinite(mean_c)
    if days < 1 or mean_c.size < days or known.sum() < (1 - MOST_MISSING) * days:
        return None
    at = np.arange(days)
    return np.asarray(np.interp(at, at[known], mean_c[known]))
