"""How well plants grow at a temperature once they are up: coming up is not growing."""

from __future__ import annotations

import numpy as np
from numpy.typing import ArrayLike, NDArray

from cloche.core.crops.catalogue import Crop

CARDINAL_C = {"cool": (2.0, 18.0, 31.0), "warm": (9.0, 27.0, 40.0)}
"""Day's mean air at which growth begins, is best and ends [°C] (assumption, within what handbooks give for each season)."""
THRIVES, SURVIVES = 0.5, 0.25
"""Above the first it thrives, below the second it merely survives (assumption)."""


def growth_index(mean_c: ArrayLike, crop: Crop) -> NDArray[np.float64]:
    """Share of its best growth, 0-1, at a day's mean air [°C]: beta function of three cardinal temperatures [YanHunt1999]."""
    low, best, high = CARDINAL_C[crop.season]
    t = np.clip(np.asarray(mean_c, dtype=np.float64), low, high)
    return np.asarray((high - t) / (high - best) * ((t - low) / (best - low)) ** ((best - low) / (high - best)))


def growth_words(index: float) -> str:
    """What an index means for seedlings."""
    if index >= THRIVES:
        return "thrive"
    return "merely survive" if index < SURVIVES else "grow slowly"
