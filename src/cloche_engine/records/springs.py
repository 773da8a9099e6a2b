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
    """Daily mean of the soil at seed depth from the first day of a year, nan where it is unknown [°C]."""

    first: date
    mean_c: Array

    def on(self, day: date) -> float:
        """Return the mean of a day, nan where it is unknown [°C]."""
        at = (day - self.first).days
        return float(self.mean_c[at]) if 0 <= at < self.mean_c.size else float("nan")


def degree_days(soil: YearSoil, until: date, base_c: float = BASE_C) -> float | None:
    """Return the warmth above a base from the first day of the year to a day, inclusive [K d].

    Gaps are interpolated; None where too much is missing.

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
    """Return the first day of the first week with a mean of at least `level_c`.

    The week has to be complete; None means not yet.

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
    """Return the last day of a span with a low below freezing, or None.

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
    """Return by how many days this spring's warmth is ahead of the mean of other years, negative for behind.

    None where either is unknown or the others never reach it.

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
    """Return the mean of the years' cumulative warmth by day [K d], None without a complete year.

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
