"""Water at the surface: what the top holds for evaporation, and the snow that lies on it."""

from __future__ import annotations

from typing import NamedTuple

import numpy as np
from numpy.typing import NDArray

from cloche_engine.compiled import lean
from cloche_engine.soil.soil_surface import Balance, SoilSurface

Array = NDArray[np.float64]

RISES_MM_H = 0.03
"""What rises from deeper (assumption)."""
POOL_SHARE, STORE_SHARE = 0.3, 0.7
"""How full both are when nothing is known."""
VAPORISATION_J_KG, MELT_J_KG = 2.45e6, 3.34e5
FAST_SHARE = 0.2
"""Of the wet surface's water, the most that an hour takes."""
SNOW_BELOW_C = 0.8
SNOW_M_PER_MM, SNOW_W_MK, SNOW_ABSORBS = 0.005, 0.2, 0.2
"""Snow of 200 kg/m³: conductivity within 0.1-0.3 W/mK, albedo 0.8."""
FULL_SNOW_MM = 4.0
UNCOVERED = 0.25
"""Ground that is usually as wet as this lies open."""


class Holds(NamedTuple):
    """Water capacity near the surface at field capacity, of one column or (columns,).

    A surface dries in stages, fast while wet and then ever more slowly.

    Attributes
    ----------
    pool, store : float or ndarray
        Capacity of the wet surface and of the few centimetres that supply it [mm].
    above : float or ndarray
        Further capacity of the store after rain [mm].
    drains : float or ndarray
        Fraction of that left an hour later.
    """

    pool: float
    store: float
    above: float
    drains: float


class Water(NamedTuple):
    """Water of every column: pool at the surface, store below it, and snow, (columns,) [mm]."""

    pool: Array
    store: Array
    snow: Array

    @classmethod
    def usual(cls, pool_mm: Array, store_mm: Array) -> Water:
        """Return the water assumed where nothing is known.

        Parameters
        ----------
        pool_mm : ndarray
            Water at the surface, at field capacity [mm].
        store_mm : ndarray
            Water below it, at field capacity [mm].
        """
        return cls(POOL_SHARE * pool_mm, STORE_SHARE * store_mm, np.zeros(len(pool_mm)))


@lean
def soil_surface_of(
    bare: SoilSurface,
    wetness: float,
    evaporation: float,
    unlogged_wetness: float,
    water: tuple[float, float, float],
    holds: Holds,
) -> SoilSurface:
    """Return the surface with its present wetness and snow.

    Parameters
    ----------
    bare : SoilSurface
        Dry and free of snow.
    wetness : float
        Wetness of the surface by its water, 0-1.
    evaporation : float
        The place's learned factor of evaporation.
    unlogged_wetness : float
        Wetness nobody logged, less of it where mulch or stones cover the ground.
    water : tuple[float, float, float]
        Pool, store and snow [mm].
    holds : Holds
        What the ground's top can hold, by texture.
    """
    pool, store, snow = water
    reckoned = evaporation * (wetness * min(store / holds.store, 1.0) + (1 - wetness) * (pool / holds.pool))
    wet = min(max(reckoned + unlogged_wetness * min(wetness / UNCOVERED, 1.0), 0.0), 1.0)
    if snow <= 0.0:
        return SoilSurface(bare.absorbs, bare.conductance, bare.convection, wet)
    white = min(snow / FULL_SNOW_MM, 1.0)
    through = 1.0 / (1.0 / bare.conductance + snow * (SNOW_M_PER_MM / SNOW_W_MK))
    return SoilSurface(bare.absorbs + (SNOW_ABSORBS - bare.absorbs) * white, through, bare.convection, wet * (1 - white))


@lean
def snow_on(reckoned_mm: float, noted_m: float, covered: bool) -> float:
    """Return the snow [mm of water], from the recorded depth on open ground where there is one (nan: none).

    Parameters
    ----------
    reckoned_mm : float
        Water of the snow by the weather [mm].
    noted_m : float
        Depth of snow that was noted; nan: none [m].
    covered : bool
        Whether it stands under a cover.

    Returns
    -------
    float
        [mm].
    """
    return reckoned_mm if covered or np.isnan(noted_m) else noted_m / SNOW_M_PER_MM


@lean
def held_at_freezing(balance: Balance, soil_surface: SoilSurface, first_c: float) -> tuple[Balance, float]:
    """Limit the surface under snow to 0 °C.

    Returns the limited balance and the snow melted by the excess heat [mm in the hour].

    Parameters
    ----------
    balance : Balance
        The surface's balance before freezing is considered.
    soil_surface : SoilSurface
        What the air meets: absorption, conductance, convection, wetness.
    first_c : float
        Temperature of the column's first cell [°C].
    """
    surface = balance.s0 + balance.s1 * first_c
    if surface <= 0.0:
        return balance, 0.0
    melt = surface * soil_surface.conductance / balance.s1 * 3600.0 / MELT_J_KG
    return Balance(0.0, soil_surface.conductance, 0.0, 0.0, balance.latent), melt


@lean
def after_hour(
    water: tuple[float, float, float],
    falls: tuple[float, float, float, float],
    latent: float,
    supply: float,
    holds: Holds,
    covered: bool,
) -> tuple[float, float, float]:
    """Return pool, store and snow an hour later. No snow lies on covered ground.

    Parameters
    ----------
    water : tuple[float, float, float]
        Pool, store and snow [mm].
    falls : tuple[float, float, float, float]
        Rain that reaches the ground [mm], air [°C], snow that melted, water given by hand [mm]; latent [W/m²].
    latent : float
        Latent heat leaving the ground [W/m²].
    supply : float
        Factor of what rises.
    holds : Holds
        What the ground's top can hold, by texture.
    covered : bool
        Whether it stands under a cover.
    """
    pool, store, snow = water
    rain, air_c, melt, given = falls
    snowing = air_c < SNOW_BELOW_C and not covered
    if covered:
        snow = 0.0
    elif snow > 0.0 or snowing:
        snow = max(snow + (rain if snowing else 0.0) - melt, 0.0)
    before = pool + (0.0 if snowing else rain) + melt + given
    gone = latent * (3600.0 / VAPORISATION_J_KG)
    from_pool = min(gone, max(before, 0.0) * FAST_SHARE)
    pool = min(before - from_pool, holds.pool)
    store += RISES_MM_H * supply + (before - from_pool - pool) - (gone - from_pool)
    store = min(max(store, 0.0), holds.store + holds.above)
    if store > holds.store:
        store = holds.store + (store - holds.store) * holds.drains
    return pool, store, snow
