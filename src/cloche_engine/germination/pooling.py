"""How a garden’s own sowings come up: pace and stand, pooled over them."""

from __future__ import annotations

from collections.abc import Sequence

import numpy as np

from cloche_engine.crops.catalogue import Crop
from cloche_engine.germination.steady import FIELD_FACTOR, FIELD_LOG_SD

SMALL_STANDS, LARGE_STANDS, SET_STANDS, BENCH_STANDS = 0.7, 0.8, 0.95, 0.95
"""Share that comes through in a garden's bed of small seed, of large seed, of sets and tubers; of any on a bench. Field
factors of handbooks lie at 0.5-0.8 (from memory)."""
SMALL_M = 0.016
"""Seed that is sown no deeper is small."""
STAND_LOG_SD = 0.22
"""How far gardens and weeks differ (assumption)."""


def stands(crop: Crop, bench: bool = False) -> float:
    """Return the fraction of live seed that survives to a seedling in suitable soil and depth, 0-1.

    Parameters
    ----------
    bench : bool
        Whether it stands on a bench, where nothing crusts or eats it.
    """
    if bench:
        return BENCH_STANDS
    if crop.start != "seed":
        return SET_STANDS
    return SMALL_STANDS if crop.sowing_depth_m <= SMALL_M else LARGE_STANDS


def pooled_pace(batches: Sequence[tuple[float, float, float, float]]) -> tuple[float, float]:
    """Return mean and standard deviation of the logarithm of a garden's pace. See `pooled`.

    Parameters
    ----------
    batches : Sequence[tuple[float, float, float, float]]
        Mean and SD of the logarithm of the pace after the counts of each, and those it began with.
    """
    return pooled(batches, FIELD_FACTOR, FIELD_LOG_SD)


def pooled(batches: Sequence[tuple[float, float, float, float]], middle: float, log_sd: float) -> tuple[float, float]:
    """Estimate a garden's own factor from its batches, starting from that of all gardens.

    Returns mean and standard deviation of its logarithm; the estimate moves slowly.

    Parameters
    ----------
    batches : Sequence[tuple[float, float, float, float]]
        Mean and SD of its logarithm after the counts of each, and those that it began with.
    middle : float
        Middle of all gardens.
    log_sd : float
        Standard deviation of the logarithm.
    """
    precision, mean = 1 / log_sd**2, np.log(middle) / log_sd**2
    for log_mean, sd, before, before_sd in batches:
        sure = 1 / max(sd, 0.02) ** 2
        information = sure - 1 / before_sd**2
        if information > 1.0:
            own = (log_mean * sure - before / before_sd**2) / information
            # The weather and bed of one batch are not the garden's: each may stray as far as gardens do.
            slow = 1 / (1 / information + log_sd**2)
            precision, mean = precision + slow, mean + slow * own
    return float(np.exp(mean / precision)), float(1 / np.sqrt(precision))


def pooled_stand(batches: Sequence[tuple[float, float, float, float]]) -> tuple[float, float]:
    """Return how much more seed survives in a garden than elsewhere.

    Gives mean and standard deviation of the logarithm. See `pooled`.

    Parameters
    ----------
    batches : Sequence[tuple[float, float, float, float]]
        Mean and SD of its logarithm after the counts of each, and those it began with.
    """
    return pooled(batches, 1.0, STAND_LOG_SD)
