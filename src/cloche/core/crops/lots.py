"""How much of a lot of seed is alive: from its age, a germination test and what came up of it."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass

import numpy as np

from cloche.core.crops.catalogue import Crop

FRESH_RATE = 0.9
PRIOR_SEEDS = 12.0
"""What age tells of a lot counts as much as this many tested seeds (assumption)."""
LEAST_RATE = 0.02
_GRID = (np.arange(200) + 0.5) / 200


@dataclass(frozen=True)
class Viability:
    """Share of the lot that is alive: expected, and the ends of the band that holds eight times in ten."""

    rate: float
    low: float
    high: float


def by_age(crop: Crop, age_y: float) -> float:
    """Rate to expect of seed packed age_y years ago: full while it keeps, then halved with every further half of that time
    (keeping times of handbooks, from memory; the halving is an assumption).

    Parameters
    ----------
    crop : Crop
        The crop.
    age_y : float
        Years since it was packed.

    Returns
    -------
    float
    """
    over = max(0.0, age_y - crop.keeps_y)
    return max(LEAST_RATE, FRESH_RATE * 0.5 ** (over / (crop.keeps_y / 2)))


def viability(expected: float, trials: Iterable[tuple[int, int, float]]) -> Viability:
    """Bayes over what was seen. Clumps and birds make a bed's counts vary more than chance alone: there each seed counts as
    half of one.

    Parameters
    ----------
    expected : float
        Share of live seed to expect before anything was seen, 0-1.
    trials : Iterable[tuple[int, int, float]]
        (seeds, of which up, share that would come up were all alive); a germination test has share 1.

    Returns
    -------
    Viability
    """
    weight = (expected * PRIOR_SEEDS - 1) * np.log(_GRID) + ((1 - expected) * PRIOR_SEEDS - 1) * np.log(1 - _GRID)
    for seeds, up, share in trials:
        chance = np.clip(_GRID * share, 1e-6, 1 - 1e-6)
        trust = 1.0 if share >= 1 else 0.5
        weight = weight + trust * (up * np.log(chance) + (seeds - up) * np.log(1 - chance))
    mass = np.exp(weight - weight.max())
    mass /= mass.sum()
    low, high = np.interp((0.1, 0.9), np.cumsum(mass), _GRID)
    return Viability(float((mass * _GRID).sum()), float(low), float(high))
