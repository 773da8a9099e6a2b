"""How well plants grow once they are up: by the day's mean air and by the light of the season. Coming up is not growing."""

from __future__ import annotations

from enum import StrEnum

import numpy as np
from numpy.typing import ArrayLike, NDArray

from cloche.core.crops.catalogue import Crop
from cloche.core.weather.sun import extraterrestrial_w_m2

THRIVES, SURVIVES = 0.5, 0.25
"""Above the first it thrives, below the second it merely survives (assumption)."""
ENOUGH_SUN_W_M2 = 280.0
"""Sun above the air, mean of a day, from which light no longer holds plants back: half of it arrives, some 25 mol/m² of light
in a day. At 52° from late March to mid-September; in December a third of it (assumption)."""


def growth_index(mean_c: ArrayLike, crop: Crop) -> NDArray[np.float64]:
    """Share of its best growth, 0-1, at a day's mean air [°C]: beta function of three cardinal temperatures [YanHunt1999].

    Parameters
    ----------
    mean_c : array_like
        Day's mean air, any shape [°C].
    crop : Crop
        The crop.

    Returns
    -------
    ndarray

    References
    ----------
    YanHunt1999: see :doc:`/sources`.
    """
    low, best, high = crop.life.begins_c, crop.life.best_c, crop.life.ends_c
    t = np.clip(np.asarray(mean_c, dtype=np.float64), low, high)
    return np.asarray((high - t) / (high - best) * ((t - low) / (best - low)) ** ((best - low) / (high - best)))


def development_index(growth: NDArray[np.float64], mean_c: ArrayLike, crop: Crop) -> NDArray[np.float64]:
    """Pace towards harvest, 0-1, where growth_index is `growth`: heat beyond the best spoils a crop but does not make it wait.

    Parameters
    ----------
    growth : ndarray
        Growth index of the same days, 0-1.
    mean_c : array_like
        Day's mean air, any shape [°C].
    crop : Crop
        The crop.

    Returns
    -------
    ndarray
    """
    return np.where(np.asarray(mean_c) > crop.life.best_c, 1.0, growth)


def light_share(day_of_year: ArrayLike, latitude_deg: float) -> NDArray[np.float64]:
    """Share of its best growth, 0-1, that a day's light allows.

    Parameters
    ----------
    day_of_year : array_like
        Day of the year from 1, any shape.
    latitude_deg : float
        Latitude, north positive [°].

    Returns
    -------
    ndarray
    """
    return np.asarray(np.minimum(extraterrestrial_w_m2(day_of_year, latitude_deg) / ENOUGH_SUN_W_M2, 1.0))


def full_growth_d(crop: Crop, printed_d: float) -> float:
    """Days of full growth in so many days of the season for which they are printed, in long days.

    Parameters
    ----------
    crop : Crop
        The crop.
    printed_d : float
        Days to harvest that are printed [d].

    Returns
    -------
    float
    """
    return printed_d * float(growth_index(crop.life.printed_c, crop))


class Vigour(StrEnum):
    """What an index of growth means for seedlings."""

    THRIVE = "thrive"
    SLOW = "slow"
    SURVIVE = "survive"


def vigour(index: float) -> Vigour:
    """Of an index, 0-1.

    Parameters
    ----------
    index : float
        Growth index, 0-1.

    Returns
    -------
    Vigour
    """
    if index >= THRIVES:
        return Vigour.THRIVE
    return Vigour.SURVIVE if index < SURVIVES else Vigour.SLOW
