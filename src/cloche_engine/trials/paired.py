"""A covered place against a bare one beside it: the mean difference, how surely, and how many more days would settle it.

Two pairs of a day share its weather, so a day counts once; days that follow each other share a spell, so they count as fewer
than they are where their differences hang together.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from math import ceil, inf, sqrt

import numpy as np
from numpy.typing import NDArray
from scipy.stats import nct, t

Array = NDArray[np.float64]

CONFIDENCE, POWER = 0.95, 0.80
FEWEST_DAYS = 3
MOST_DAYS = 400
FEWEST_FOR_SPELLS = 8
"""Days from which it can be told at all whether they hang together."""


@dataclass(frozen=True)
class Difference:
    """Mean difference between a covered and a bare bed.

    Attributes
    ----------
    mean_k, low_k, high_k : float
        Mean and 95 % interval, infinite with less than three days [K].
    sd_k : float
        Standard deviation between days [K].
    days, counts_as : int, float
        Number of days, and the equivalent number of independent days.
    """

    mean_k: float
    low_k: float
    high_k: float
    sd_k: float
    days: int
    counts_as: float

    @property
    def settled(self) -> bool:
        """Whether the interval excludes zero."""
        return self.low_k > 0 or self.high_k < 0


def difference(pairs_k: Sequence[float], day: Sequence[int]) -> Difference:
    """Return the mean difference of paired beds with its interval. Days count as independent.

    Parameters
    ----------
    pairs_k : Sequence[float]
        Covered less bare of each pair [K].
    day : Sequence[int]
        Which day each belongs to.

    Raises
    ------
    ValueError
        Without any.
    """
    if not len(pairs_k):
        raise ValueError("A trial has at least one pair.")
    numbers, which = np.unique(np.asarray(day), return_inverse=True)
    daily = np.bincount(which, np.asarray(pairs_k, dtype=np.float64)) / np.bincount(which)
    mean, count = float(daily.mean()), len(numbers)
    if count < FEWEST_DAYS:
        return Difference(mean, -inf, inf, float("nan"), count, float(count))
    sd, own = float(daily.std(ddof=1)), _counts_as(daily)
    half = half_width_k(sd, own)
    return Difference(mean, mean - half, mean + half, sd, count, own)


def half_width_k(sd_k: float, days: float) -> float:
    """Return half of the 95 % interval of a mean over independent days [K] (Student's t).

    Parameters
    ----------
    sd_k : float
        Standard deviation of the pairs' differences [K].
    days : float
        Number of days.
    """
    return float(t.ppf((1 + CONFIDENCE) / 2, days - 1)) * sd_k / sqrt(days) if days > 1 else inf


def days_for_width(sd_k: float, half_k: float) -> int | None:
    """Return the independent days that determine the mean to half_k, None if more than a season.

    Parameters
    ----------
    sd_k : float
        Standard deviation of the pairs' differences [K].
    half_k : float
        Half of the width that is wanted [K].
    """
    return next((n for n in range(FEWEST_DAYS, MOST_DAYS) if half_width_k(sd_k, n) <= half_k), None)


def days_for_power(mean_k: float, sd_k: float, power: float = POWER) -> int | None:
    """Return the independent days after which a difference of this size is detected in 80 % of cases.

    None means too many.

    Parameters
    ----------
    mean_k : float
        Difference to be told from none [K].
    sd_k : float
        Standard deviation of the pairs' differences [K].
    power : float
        Chance with which it is to be told.
    """
    if sd_k == 0:
        return FEWEST_DAYS if mean_k else None
    return next((n for n in range(FEWEST_DAYS, MOST_DAYS) if _power(abs(mean_k) / sd_k, n) >= power), None)


def more_days(difference: Difference, wanted: int | None) -> int | None:
    """Return the further days needed, assuming the same autocorrelation as before.

    Parameters
    ----------
    difference : Difference
        What the pairs have shown so far.
    wanted : int | None
        Days that are wanted in all; None: more than a season has.
    """
    if wanted is None:
        return None
    return max(0, ceil(wanted * difference.days / difference.counts_as) - difference.days)


def _power(effect: float, days: int) -> float:
    """Return the power of a two-sided paired t-test from the noncentral t distribution."""
    critical, away = float(t.ppf((1 + CONFIDENCE) / 2, days - 1)), effect * sqrt(days)
    return float(nct.sf(critical, days - 1, away) + nct.cdf(-critical, days - 1, away))


def _counts_as(daily: Array) -> float:
    """Return n (1 - r) / (1 + r).

    r is the correlation between neighbouring days where it is positive and can be estimated.
    """
    count = len(daily)
    if count < FEWEST_FOR_SPELLS or daily.std() == 0:
        return float(count)
    centred = daily - daily.mean()
    r = float((centred[1:] * centred[:-1]).sum() / (centred**2).sum())
    return float(max(count * (1 - r) / (1 + r), 2.0)) if r > 0 else float(count)
