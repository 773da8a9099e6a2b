"""What one more reading would tell."""

from __future__ import annotations

import numpy as np
from numpy.typing import ArrayLike, NDArray

READING_SD_K = 0.6
"""How far one settled reading with a kitchen probe strays from its bed's mean: half a degree of the probe, a third of the
spot (common practice, no source)."""
SLOWEST_K_D = 0.1
"""Midsummer and midwinter stand still; no window is told to move by more than ten days a degree."""


def narrowing_k(spread_k: ArrayLike, reading_sd_k: float = READING_SD_K) -> NDArray[np.float64]:
    """By how much a reading would narrow the standard deviation of what is known of that hour and depth [K].

    Both errors are taken as normal and independent, so that the variance left is s²r²/(s² + r²).

    Parameters
    ----------
    spread_k : array_like
        Standard deviation before it, any shape [K].
    reading_sd_k : float
        Standard deviation of a reading [K].

    Returns
    -------
    ndarray
        Its shape; 0 where nothing is in doubt.
    """
    before = np.asarray(spread_k, dtype=np.float64)
    total = np.hypot(before, reading_sd_k)
    return before * (1.0 - reading_sd_k / total)


def days_narrowed(narrowed_k: float, warming_k_d: float) -> float:
    """What that is worth in days of a window's edge: degrees over the season's pace, which is taken as 0.1 K/d at least.

    Parameters
    ----------
    narrowed_k : float
        Standard deviation taken away [K].
    warming_k_d : float
        The season's pace [K/d].

    Returns
    -------
    float
    """
    return narrowed_k / max(abs(warming_k_d), SLOWEST_K_D)
