"""What cold a kind stands, learned from what was seen to stand or to die: Bayes on a grid of limits."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass
from math import erf, sqrt

import numpy as np
from numpy.typing import NDArray

PRIOR_SD_K = 2.5
"""How far a garden's own varieties, hardened as they are there, and its thermometer may lie from a kind's listed limit
(assumption)."""
SOFT_K = 0.8
"""Between plants of one bed, and between the thermometer and the leaf (assumption)."""
SLIP = 0.02
"""This share of reports is of something else: slugs, drought, another bed (assumption)."""
WORTH = 4
"""Plants of one bed that count on one night (assumption)."""
REACH_K, STEP_K = 10.0, 0.05


@dataclass(frozen=True)
class Seen:
    """Lowest temperature of a night among the plants [°C], and the numbers that survived and died."""

    lowest_c: float
    stood: int
    died: int


@dataclass(frozen=True)
class LearnedLimit:
    """Temperature at which half of the plants are lost, its standard deviation, and the listed limit [°C, K]."""

    limit_c: float
    sd_k: float
    listed_c: float
    nights: int


def learned_limit(listed_c: float, seen: Iterable[Seen]) -> LearnedLimit:
    """Return the frost limit after observations. Many plants in one night share its cold and count as few.

    Plants that stood a night show that the limit lies below it, but not how far: it never moves beyond the nights that were
    seen, unless it was listed there.

    Parameters
    ----------
    listed_c : float
        The kind's listed limit [°C].
    seen : Iterable[Seen]
        Nights.
    """
    nights = [night for night in seen if night.stood + night.died > 0]
    grid = np.arange(listed_c - REACH_K, listed_c + REACH_K + STEP_K, STEP_K)
    worth = -0.5 * ((grid - listed_c) / PRIOR_SD_K) ** 2
    for night in nights:
        dies = SLIP + (1 - 2 * SLIP) * _normal((grid - night.lowest_c) / SOFT_K)
        # A bed of a hundred plants is one bed on one night: a few plants' worth at most.
        share = WORTH / max(night.stood + night.died, WORTH)
        worth = worth + share * (night.died * np.log(dies) + night.stood * np.log(1 - dies))
    weight = np.exp(worth - worth.max())
    weight /= weight.sum()
    mean = float((weight * grid).sum())
    ends = [listed_c, *(night.lowest_c for night in nights)]
    return LearnedLimit(
        min(max(mean, min(ends)), max(ends)), float(np.sqrt((weight * (grid - mean) ** 2).sum())), listed_c, len(nights)
    )


# Pages ask for this, and SciPy weighs more than a page may load. Between its points the error is below a millionth.
_AT = np.linspace(-8.0, 8.0, 8001)
_NORMAL = np.array([0.5 * (1 + erf(float(z) / sqrt(2))) for z in _AT])


def _normal(z: NDArray[np.float64]) -> NDArray[np.float64]:
    return np.interp(z, _AT, _NORMAL)
