"""Seed in steadily warm soil, and the few numbers that every reckoning of emergence shares. Light: pages use it."""

from __future__ import annotations

from statistics import NormalDist
from typing import TypeVar

import numpy as np
from numpy.typing import ArrayLike, NDArray

from cloche_engine.crops.catalogue import Crop
from cloche_engine.crops.curves import FIELD_FACTOR
from cloche_engine.errors import OutOfRange
from cloche_engine.quantities import SOIL_C

Factor = TypeVar("Factor", float, NDArray[np.float64], float | NDArray[np.float64])

FIELD_LOG_SD = 0.15
"""How far gardens differ from `FIELD_FACTOR` (assumption)."""
LABORATORY = 1.0
LOT_K = 0.6
"""Lots and kinds of a crop differ in the coldest soil in which they still grow, by about this much [K], and slow ones want more
(assumption: base temperatures within one crop lie about two kelvins apart, Covell et al. 1986, from memory)."""
LOTS_FROM_C, LOTS_TO_C = 15.0, 25.0
"""Up to the first they differ so, beyond the second not at all: no base temperature decides there (assumption)."""
ICE_C = 0.0
"""Nothing advances while the soil at depth holds ice. The 0 °C cells of the table were unfrozen, hence strictly below."""
TABLE_DEPTH_M = 0.013
"""The published days are through half an inch of soil: depth counts only beyond it."""
SHOOT_M_D = 0.045
"""How far a shoot pushes up in a day of soil that suits it best, slower as it is colder (assumption)."""
DEEP_TIMES, NEVER_TIMES = 2.0, 5.0
"""Seed this many times as deep as usual begins to fail, and fails altogether (assumption)."""


def in_soil(crop: Crop, field_factor: Factor) -> Factor:
    """Return the factor of the published days in soil that slows all seed by `field_factor`.

    Parameters
    ----------
    field_factor : Factor
        Garden soil's days against the laboratory's.
    """
    return field_factor * crop.field_times


def days_to_emergence(
    temperature_c: ArrayLike, crop: Crop, times: float | None = None, depth_m: float = TABLE_DEPTH_M
) -> NDArray[np.float64]:
    """Return the days until half the seedlings emerge at constant soil temperature.

    The result has the shape of `temperature_c`; inf means never.

    Swinging soil needs `emergence.develop` over hourly temperatures: the curve is not straight, so a mean is not enough.

    Parameters
    ----------
    temperature_c : array_like
        Temperature [°C].
    times : float | None
        Factor of the table's days; None: as in garden soil.
    depth_m : float
        Depth at which it is sown [m]; by default that of the published table.
    """
    temperature = np.asarray(temperature_c, dtype=np.float64)
    refuse_wrong_unit(temperature)
    times = in_soil(crop, FIELD_FACTOR) if times is None else times
    rate = np.where(temperature < ICE_C, 0.0, crop.rate.at(temperature))
    with np.errstate(divide="ignore"):
        return np.where(rate == 0.0, np.inf, times * (1 + depth_need(crop, depth_m)) / rate)


def depth_need(crop: Crop, depth_m: float) -> float:
    """Return the additional development needed to emerge from below the table's depth.

    It is in units of the development of the median seed.

    What is planted rather than sown has its days told of its own depth.

    Parameters
    ----------
    depth_m : float
        Depth below the surface, positive down [m].
    """
    if crop.start != "seed":
        return 0.0
    return max(0.0, depth_m - TABLE_DEPTH_M) / SHOOT_M_D * float(crop.rate.grid.max())


def depth_share(usual_m: float, depth_m: float) -> float:
    """Return the fraction of seedlings that reach the surface from `depth_m`, 0-1.

    Parameters
    ----------
    usual_m : float
        The crop's usual depth [m].
    depth_m : float
        Depth below the surface, positive down [m].
    """
    times = depth_m / usual_m
    return float(np.clip((NEVER_TIMES - times) / (NEVER_TIMES - DEEP_TIMES), 0.0, 1.0))


def refuse_wrong_unit(temperature: NDArray[np.float64]) -> None:
    """..60 °C: usually °F sent by mistake.

    Parameters
    ----------
    temperature : ndarray
        Temperatures that should be °C.

    Raises
    ------
    OutOfRange
        Outside -30.
    """
    if ((temperature < SOIL_C[0]) | (temperature > SOIL_C[1])).any():
        low, high = np.nanmin(temperature), np.nanmax(temperature)
        limits = f"{SOIL_C[0]:g} to {SOIL_C[1]:g} °C"
        raise OutOfRange(f"Soil temperatures from {low:g} to {high:g} °C are outside {limits}. Are they in °F?")


def felt_by_lots(soil_c: NDArray[np.float64], pace: NDArray[np.float64]) -> NDArray[np.float64]:
    """Return the effective soil temperature for seed lots that differ in pace.

    Cool soil acts slightly colder on slow lots and warmer on quick ones.

    At the cool edge that is why days vary so, and why part of a sowing never comes. The middle lot is that of the published
    table.

    Parameters
    ----------
    soil_c : ndarray
        (hours, members) [°C].
    pace : ndarray
        Each member's days against the laboratory's, (members,).

    Returns
    -------
    ndarray
        (hours, members) [°C].
    """
    slow = np.log(pace) - np.log(pace).mean()
    spread = slow.std()
    if spread == 0:
        return soil_c
    cool = np.clip((LOTS_TO_C - soil_c) / (LOTS_TO_C - LOTS_FROM_C), 0.0, 1.0)
    return np.where(soil_c > ICE_C, np.maximum(soil_c - LOT_K * cool * slow / spread, ICE_C), soil_c)


def field_factors(middle: float, log_sd: float, members: int, seed: int) -> NDArray[np.float64]:
    """Return for every scenario how many times slower seed is in soil than in the laboratory.

    The values cover a log-normal evenly, in random order.

    Parameters
    ----------
    middle : float
        Middle of the garden's factor.
    log_sd : float
        Standard deviation of the logarithm.
    members : int
        Number of members.
    seed : int
        Seed of the random numbers.
    """
    rank = (np.random.default_rng(seed).permutation(members) + 0.5) / members
    normal = NormalDist()
    return np.asarray(middle * np.exp(log_sd * np.array([normal.inv_cdf(float(r)) for r in rank])))
