"""Seed in steadily warm soil, and the few numbers that every reckoning of emergence shares. Light: pages use it."""

from __future__ import annotations

from typing import TypeVar

import numpy as np
from numpy.typing import ArrayLike, NDArray

from cloche.core.crops.catalogue import Crop
from cloche.core.errors import OutOfRange
from cloche.core.quantities import SOIL_C

Factor = TypeVar("Factor", float, NDArray[np.float64], float | NDArray[np.float64])

FIELD_FACTOR, FIELD_LOG_SD = 1.1, 0.15
"""Garden soil is slower than the laboratory's by about this much, and gardens differ (assumption)."""
LABORATORY = 1.0
ICE_C = 0.0
"""Nothing advances while the soil at depth holds ice. The 0 °C cells of the table were unfrozen, hence strictly below."""
TABLE_DEPTH_M = 0.013
"""The published days are through half an inch of soil: depth counts only beyond it."""
SHOOT_M_D = 0.045
"""How far a shoot pushes up in a day of soil that suits it best, slower as it is colder (assumption)."""
DEEP_TIMES, NEVER_TIMES = 2.0, 5.0
"""Seed this many times as deep as usual begins to fail, and fails altogether (assumption)."""


def in_soil(crop: Crop, field_factor: Factor) -> Factor:
    """How many times the table's days a crop takes in soil that slows all seed by field_factor."""
    return field_factor * crop.field_times


def days_to_emergence(
    temperature_c: ArrayLike, crop: Crop, times: float | None = None, depth_m: float = TABLE_DEPTH_M
) -> NDArray[np.float64]:
    """Days until half the seedlings show in steadily warm soil: the shape of temperature_c [d]; inf: never.

    times: of the table's days, None: as in garden soil; depth_m: by default that of the published table. Swinging soil needs
    `emergence.develop` over hourly temperatures: the curve is not straight, so a mean is not enough."""
    temperature = np.asarray(temperature_c, dtype=np.float64)
    refuse_wrong_unit(temperature)
    times = in_soil(crop, FIELD_FACTOR) if times is None else times
    rate = np.where(temperature < ICE_C, 0.0, crop.rate.at(temperature))
    with np.errstate(divide="ignore"):
        return np.where(rate == 0.0, np.inf, times * (1 + depth_need(crop, depth_m)) / rate)


def depth_need(crop: Crop, depth_m: float) -> float:
    """What pushing up from beyond the table's depth adds to the need for development, in units of the middle seed's.

    What is planted rather than sown has its days told of its own depth.
    """
    if crop.start != "seed":
        return 0.0
    return max(0.0, depth_m - TABLE_DEPTH_M) / SHOOT_M_D * float(crop.rate.grid.max())


def depth_share(usual_m: float, depth_m: float) -> float:
    """Share of seedlings that still reach the light from depth_m, where usual_m is the depth for that seed; 0-1."""
    times = depth_m / usual_m
    return float(np.clip((NEVER_TIMES - times) / (NEVER_TIMES - DEEP_TIMES), 0.0, 1.0))


def refuse_wrong_unit(temperature: NDArray[np.float64]) -> None:
    """Raises OutOfRange outside -30..60 °C: usually °F sent by mistake."""
    if ((temperature < SOIL_C[0]) | (temperature > SOIL_C[1])).any():
        low, high = np.nanmin(temperature), np.nanmax(temperature)
        limits = f"{SOIL_C[0]:g} to {SOIL_C[1]:g} °C"
        raise OutOfRange(f"Soil temperatures from {low:g} to {high:g} °C are outside {limits}. Are they in °F?")
