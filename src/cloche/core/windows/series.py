"""Running means and lows over days, along axis 0."""

from __future__ import annotations

import numpy as np
from numpy.typing import NDArray
from scipy.ndimage import median_filter, minimum_filter1d

Array = NDArray[np.float64]


def mean_ahead(daily: Array, days: int) -> Array:
    """Mean of each day and the next days - 1, fewer at the end."""
    total = np.concatenate([np.zeros_like(daily[:1]), np.cumsum(daily, axis=0)])
    start = np.arange(len(daily))
    end = np.minimum(start + days, len(daily))
    count = (end - start).reshape(-1, *[1] * (daily.ndim - 1))
    return np.asarray((total[end] - total[start]) / count)


def mean_behind(daily: Array, days: int) -> Array:
    """Mean of each day and the days - 1 before it, fewer at the start."""
    return mean_ahead(daily[::-1], days)[::-1]


def lowest_ahead(daily: Array, days: int) -> Array:
    """Lowest of each day and the next days - 1, fewer at the end."""
    return np.asarray(minimum_filter1d(daily, days, axis=0, mode="nearest", origin=-(days // 2)))


def calm(values: Array) -> Array:
    """Median of five neighbours: a few dozen scenarios flicker from day to day, the year does not."""
    return np.asarray(median_filter(values, 5, mode="nearest"))
