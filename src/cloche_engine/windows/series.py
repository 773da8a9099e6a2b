"""Running means and lows over days, along axis 0."""

from __future__ import annotations

import numpy as np
from numpy.typing import NDArray
from scipy.ndimage import median_filter, minimum_filter1d

Array = NDArray[np.float64]


def running(daily: Array) -> Array:
    """Return the sum of the days before each day, one row more than there are days.

    Parameters
    ----------
    daily : ndarray
        Daily values, (days, members).
    """
    return np.concatenate([np.zeros_like(daily[:1]), np.cumsum(daily, axis=0)])


def mean_ahead(daily: Array, days: int) -> Array:
    """Return the mean of each day and the next days - 1, fewer at the end.

    Parameters
    ----------
    daily : ndarray
        Daily values, (days, members).
    days : int
        Number of days.
    """
    total = running(daily)
    start = np.arange(len(daily))
    end = np.minimum(start + days, len(daily))
    count = (end - start).reshape(-1, *[1] * (daily.ndim - 1))
    return np.asarray((total[end] - total[start]) / count)


def lowest_ahead(daily: Array, days: int) -> Array:
    """Return the lowest of each day and the next days - 1, fewer at the end.

    Parameters
    ----------
    daily : ndarray
        Daily values, (days, members).
    days : int
        Number of days.
    """
    return np.asarray(minimum_filter1d(daily, days, axis=0, mode="nearest", origin=-(days // 2)))


def calm(values: Array) -> Array:
    """Return the median of five neighbours: a few dozen members vary from day to day more than the season does."""
    return np.asarray(median_filter(values, 5, mode="nearest"))
