"""What may stand in the way of a crop, and the few numbers that say what counts as a success. Light: pages use it."""

from __future__ import annotations

from enum import StrEnum
from functools import lru_cache

import numpy as np

from cloche_engine.crops.catalogue import Crop
from cloche_engine.germination.steady import days_to_emergence

FRACTIONS = (0.02, 0.1, 0.25, 0.5, 0.75, 0.9, 0.98)
"""Of those that come up, how many have shown: the points of the emergence curve."""
HALF = FRACTIONS.index(0.5)
SENSIBLE = SURE = 0.8
LEAST_IN_SOIL_D = {"hardy": 42.0, "half-hardy": 35.0, "tender": 25.0}
MOST_IN_SOIL_D = 56.0
WINTER_IN_SOIL_D, SET_IN_SOIL_D = 75.0, 75.0
IN_SOIL_FACTOR = 4.0
"""Seed that lies four times as long as at its best rots, is eaten or crusts over, within the days above: hardy seed sown in
March lies six weeks and comes up (common practice, no source). Sets and tubers keep."""
LEAST_SHARE = 0.5
SEEDLING_D = 21
YOUNG_NIGHT = 0.5
"""Of the mean night wanted for planting out, what tender seedlings want that came up in place (common practice, no source)."""
STRETCHES, LEAST_PRINTED_D = {"hardy": 1.75, "half-hardy": 1.75, "tender": 2.0}, 28.0
"""A harvest that takes this many times its printed days is not the one that was sown for: roots and heads that fill so slowly
run to seed first. What takes less than the second number of days may take as long as that (assumption)."""
PICKED = 0.9
"""What is so nearly ripe is picked before the frost."""
SENSITIVE_FROM = 0.55
"""Share of growth from which it flowers, sets, heads or bulbs."""
HEAT_SPAN_K = 3.0
"""So far under its heat limit a crop begins to yield less, as far above it nothing is left (assumption)."""
LEAST_YIELD = 0.5
LONG_DAY_H = 14.5
"""Peas, broad beans and their like that came up in long days crop as they should if they flower in days that lengthen, or are
as long as this (common practice, no source)."""
BOLTS_ABOVE_H, BOLTS_K_H = 13.5, 1.5
"""Spinach and its like bolt in long days: for each hour beyond the first the heat they stand is so much less (assumption)."""
BOLT_LIGHT_H = 12.0
"""What was chilled bolts in days longer than this."""
BULBS_TO_D, SET_OUT_LEAD = 21, 0.6
"""Bulbs are as large as what has grown until three weeks after the longest day: kinds are bred for their latitude (common
practice, no source). Plants set out bring their part of it."""
SHORTER_BULBS_H, LONG_BULBS_H, LEAST_LONG_H = (12.25, 13.25), 15.0, 14.3
"""Where no day has as much light as the second, kinds are grown whose bulbs swell in days as long as the first [h] (common
practice, no source: onions are sown in autumn there, and lifted in spring); below the third no others swell."""
RIPENS_D, BULB_WAIT_D = 35, 170
"""Days from then until the first bulbs ripen; what waits for it longer than the second runs to seed."""
COOL_NIGHTS_K, SETS_BY_NIGHT_K, RANGE_K = 0.3, 0.6, 10.0
"""Cool nights let crops stand hot days: each kelvin by which the night is more than ten cooler counts for so much less heat,
and more for the fruits of warm crops and for tubers, which set by the night as much as by the day (assumption, after tomatoes:
fruit set falls with the daily mean, Peet et al. 1998, from memory)."""
REGROWS_K = 2.0
"""How much more frost seedlings get over whose growing point is still below ground (common practice, no source)."""
DELAYED_D = 12.0
"""What frost on their shoots costs potatoes and their like [d]."""
ESTABLISHES_D = 60.0
"""Full growth before winter that perennials want to come again."""
LEAST_LIGHT_H = 10.0
"""In days shorter than this growth pauses, most growers say (common practice, no source)."""
DARK_GRACE_D = 14
"""Days short of light that a seedling or a nearly ripe crop gets over (assumption)."""
WORK_WITHIN_D = 7
"""Who finds the ground frozen or too wet waits for another day of the week."""


TOLD_K = 1.5
"""Growers tell nights, and handbooks what hardy crops stand, as the weather report does; among the plants it is colder by this
much [K] (assumption)."""
SHORT_DAY_H = 12.75
"""What comes up in longer days than these after midsummer flowers at once, while it is small (common practice, no source)."""


class Limit(StrEnum):
    """What limits success, as a code."""

    COLD = "soil_cold"
    HOT = "soil_hot"
    WET = "unworkable"
    FROZEN = "frozen"
    NIGHTS = "cold_nights"
    FROST = "frost"
    LATE_FROST = "late_frost"
    LIGHT = "light"
    SEASON = "season"
    HEAT = "heat"
    BOLTS = "bolts"
    DAYLENGTH = "day_length"
    FORWARD = "forward"
    WINTER = "winter"
    UNCOMFORTABLE = "uncomfortable"
    DATE = "before_date"


def lost_at_c(crop: Crop) -> float:
    """Return the temperature at which frost kills seedlings for good [°C]: growing points below ground survive a bit more."""
    return crop.frost_limit_c - (REGROWS_K if crop.life.regrows else 0.0)


def among_plants_c(crop: Crop, limit_c: float) -> float:
    """Return the air temperature among the plants for a frost limit [°C]: limits of tender crops refer to the leaf, those of
    hardy ones to screen height.

    Parameters
    ----------
    limit_c : float
        One of its frost limits [°C].
    """
    return limit_c if crop.hardiness == "tender" else limit_c - TOLD_K


@lru_cache(maxsize=512)
def longest_in_soil_d(crop: Crop) -> float:
    """Return the longest time in the soil until half are up for a sensible sowing [d]."""
    if crop.winter:
        return WINTER_IN_SOIL_D
    if crop.start != "seed":
        return SET_IN_SOIL_D
    best = float(days_to_emergence(min(crop.rate.fastest_c, crop.optimum_to_c), crop, depth_m=crop.sowing_depth_m))
    return float(np.clip(IN_SOIL_FACTOR * best, LEAST_IN_SOIL_D[crop.hardiness], MOST_IN_SOIL_D))


NEVER_UP = 1.5
"""So many times the longest that seed may lie, beyond which it is told as never coming up: rotten or eaten (assumption)."""


def never_up_d(crop: Crop) -> float:
    """Return the time in the soil after which seed counts as failed [d]."""
    return NEVER_UP * longest_in_soil_d(crop)
