"""What soil columns are made of and the heat that they hold."""

from __future__ import annotations

from typing import NamedTuple

import numpy as np
from numpy.typing import NDArray

from cloche_engine.compiled import compiled

Array = NDArray[np.float64]

GAMMA = 2.0 - 2.0**0.5
STAGE = GAMMA / 2
"""Share of the step that each stage of TR-BDF2 takes implicitly, and the weight of the step's end in its mean."""
WEIGHT = 2.0**0.5 / 4
"""Weight of the step's start and of the middle stage in its mean."""
MIDDLE, START = 1 / (GAMMA * (2 - GAMMA)), (1 - GAMMA) ** 2 / (GAMMA * (2 - GAMMA))
FREEZING_RANGE_K = 0.1
"""Water freezes between 0 °C and this much below."""


class Columns(NamedTuple):
    """Thermal properties of all columns, arrays of (columns, cells), (columns, cells - 1) or (columns,).

    capacity [J/m²K] of each cell unfrozen and frozen; latent [J/m²] of its water; conductance [W/m²K] between
    neighbouring centres, unfrozen and frozen; top from the face to the first centre; bottom from the last centre to below;
    side_per_s [1/s]: how fast each cell follows what stands beside it, (columns, cells).
    """

    capacity: Array
    frozen_capacity: Array
    latent: Array
    conductance: Array
    frozen_conductance: Array
    top: Array
    bottom: Array
    side_per_s: Array


@compiled
def ice_share(soil_c: Array | float) -> Array:
    """Return the fraction of the water that is frozen, 0-1.

    Parameters
    ----------
    soil_c : ndarray | float
        Soil [°C].
    """
    return np.minimum(np.maximum(soil_c * (-1.0 / FREEZING_RANGE_K), 0.0), 1.0)


@compiled
def enthalpy(soil_c: Array | float, capacity: Array | float, frozen_capacity: Array | float, latent: Array | float) -> Array:
    """Return the heat content relative to unfrozen ground at 0 °C [J/m²], for numbers or arrays.

    Parameters
    ----------
    soil_c : ndarray | float
        Soil [°C].
    capacity : ndarray | float
        Heat capacity of unfrozen soil [J/m³K].
    frozen_capacity : ndarray | float
        Heat capacity of frozen soil [J/m³K].
    latent : ndarray | float
        Latent heat of the water that freezes [J/m³].
    """
    warm, cold = np.maximum(soil_c, -FREEZING_RANGE_K), np.minimum(soil_c + FREEZING_RANGE_K, 0.0)
    return capacity * warm + frozen_capacity * cold - latent * ice_share(soil_c)


@compiled
def heat_slope(soil_c: float, capacity: float, frozen_capacity: float, latent: float) -> float:
    """Return the derivative of `enthalpy` with respect to temperature [J/m²K].

    Parameters
    ----------
    soil_c : float
        Soil [°C].
    capacity : float
        Heat capacity of unfrozen soil [J/m³K].
    frozen_capacity : float
        Heat capacity of frozen soil [J/m³K].
    latent : float
        Latent heat of the water that freezes [J/m³].
    """
    if soil_c >= 0:
        return capacity
    return capacity + latent / FREEZING_RANGE_K if soil_c > -FREEZING_RANGE_K else frozen_capacity
