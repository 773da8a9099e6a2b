"""What may stand in the way of a crop, and the few numbers that say what counts as a success. Light: pages use it."""

from __future__ import annotations

from enum import StrEnum

import numpy as np

from cloche.core.crops.catalogue import Crop
from cloche.core.germination.steady import days_to_emergence

FRACTIONS = (0.02, 0.1, 0.25, 0.5, 0.75, 0.9, 0.98)
"""Of those that come up, how many have shown: the points of the emergence curve."""
HALF = FRACTIONS.index(0.5)
BAND = (0.1, 0.5, 0.9)
SENSIBLE = 0.8
LONGEST_LIE_D = (21.0, 35.0)
WINTER_LIE_D = 75.0
LIE_FACTOR = 3.0
"""Seed that lies three times as long as at its best rots, is eaten or crusts over (assumption), within the days above."""
LEAST_SHARE = 0.5
SEEDLING_D = 21
SEASON_END_C = {"hardy": 5.0, "half-hardy": 7.0, "tender": 11.0}
"""Growth is over when the fortnight's mean air falls below this (assumption)."""
LEAST_LIGHT_H = 10.0
"""In days shorter than this growth pauses, most growers say (common practice, no source)."""
DARK_GRACE_D = 14
"""Days short of light that a seedling or a nearly ripe crop gets over (assumption)."""
WORK_WITHIN_D = 7
"""Who finds the ground frozen or too wet waits for another day of the week."""


class Limit(StrEnum):
    """The one thing that stands in the way."""

    COLD = "soil too cold"
    HOT = "soil too hot"
    WET = "ground frozen or too wet"
    NIGHTS = "nights too cold"
    FROST = "frost after emergence"
    LATE_FROST = "frost before harvest"
    LIGHT = "under ten hours of light"
    SEASON = "too little season left"
    HEAT = "hot days before harvest"
    FORWARD = "too far grown before winter"
    WINTER = "winter too hard"


def longest_lie_d(crop: Crop) -> float:
    """Days that seed may lie before half are up for the sowing to be sensible."""
    if crop.winter:
        return WINTER_LIE_D
    best = float(days_to_emergence(min(crop.rate.fastest_c, crop.optimum_to_c), crop, depth_m=crop.sowing_depth_m))
    return float(np.clip(LIE_FACTOR * best, *LONGEST_LIE_D))
