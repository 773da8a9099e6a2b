"""The surface of open ground: sun, infrared, wind and evaporation, as a flux into the soil that is straight in its first
cell's temperature: the tangent where all fluxes add up to nothing."""

from __future__ import annotations

from typing import NamedTuple

import numpy as np

from cloche_engine.compiled import lean
from cloche_engine.weather.sky import KELVIN, STEFAN_BOLTZMANN

SOIL_EMISSIVITY = 0.96
PSYCHROMETER_KPA_K = 0.066
STILL_AIR_W_M2K, WIND_W_M2K = 2.5, 3.6
"""Convection over bare ground: 2.5 + 3.6 u [W/m²K], a smooth surface by the logarithmic law (assumption)."""
FREE_CONVECTION = 1.4
STABLE = 0.3
CLOSE_K, MOST_ROUNDS = 0.02, 12
"""A surface is found when Newton's next change is this small: its square is what remains."""


class Hour(NamedTuple):
    """What acts on a column in an hour: sun reaching the plane of the ground [W/m²], air [°C], infrared from above [W/m²],
    wind [m/s], vapour [kPa]; toward, around: beam on upright faces of as much area as the ground, one that looks towards the
    noon sun and one that looks at it all day [W/m²]; puddles: share of a film upon the ground on which rain stands, 0-1."""

    sun: float
    air: float
    sky: float
    wind: float
    vapour: float
    toward: float = 0.0
    around: float = 0.0
    puddles: float = 0.0


class SoilSurface(NamedTuple):
    """A surface: share of sun absorbed, conductance to the first centre [W/m²K] through crust, mulch and snow, factor of
    convection, wetness 0-1 (1: evaporates as water does)."""

    absorbs: float
    conductance: float
    convection: float
    wet: float


class Balance(NamedTuple):
    """Flux into the first cell a - b T, surface s0 + s1 T (T of the first cell), and latent heat leaving [W/m²]."""

    a: float
    b: float
    s0: float
    s1: float
    latent: float


@lean
def vapour_curve(surface_c: float) -> tuple[float, float]:
    """Saturation pressure [kPa] and its slope [kPa/K] [FAO56 eq. 11, 13].

    Parameters
    ----------
    surface_c : float
        The soil's surface [°C].

    References
    ----------
    FAO56 eq. 11, 13: see :doc:`/sources`.
    """
    warm = surface_c + 237.3
    pressure = 0.6108 * np.exp(17.27 * surface_c / warm)
    return pressure, 4098.0 * pressure / (warm * warm)


@lean
def convection_w_m2k(warmer_k: float, wind_m_s: float, factor: float) -> float:
    """Exchange with the air over open ground: wind, helped when the ground is warmer, hindered when it is colder.

    Parameters
    ----------
    warmer_k : float
        How much warmer the ground is than the air [K].
    wind_m_s : float
        Wind [m/s].
    factor : float
        The learned factor.
    """
    forced = STILL_AIR_W_M2K + WIND_W_M2K * wind_m_s
    if warmer_k < 0.0:
        return factor * forced / (1.0 + STABLE / (1.0 + wind_m_s * wind_m_s) * -warmer_k)
    return factor * (forced + FREE_CONVECTION * np.cbrt(warmer_k))


@lean
def open_balance(soil_surface: SoilSurface, hour: Hour, first_c: float, surface_c: float) -> Balance:
    """Balance of open ground for the first cell at first_c.

    Parameters
    ----------
    soil_surface : SoilSurface
        What the air meets: absorption, conductance, convection, wetness.
    hour : Hour
        Weather of the hour.
    first_c : float
        Temperature of the column's first cell [°C].
    surface_c : float
        A guess of the surface.
    """
    conductance, surface = soil_surface.conductance, surface_c
    gains = soil_surface.absorbs * hour.sun + SOIL_EMISSIVITY * hour.sky + conductance * first_c
    slope, latent = conductance, 0.0
    for _ in range(MOST_ROUNDS):
        warmer = surface - hour.air
        exchange = convection_w_m2k(warmer, hour.wind, soil_surface.convection)
        pressure, curve = vapour_curve(surface)
        lift = pressure - hour.vapour
        moist = (soil_surface.wet if lift > 0 else 1.0) * exchange / PSYCHROMETER_KPA_K
        kelvin = surface + KELVIN
        emitted = SOIL_EMISSIVITY * STEFAN_BOLTZMANN * kelvin**4
        slope = 4.0 * emitted / kelvin + exchange + moist * curve + conductance
        change = (gains - emitted - exchange * warmer - moist * lift - conductance * surface) / slope
        latent = moist * (lift + curve * change)
        surface += change
        if abs(change) < CLOSE_K:
            break
    s1 = conductance / slope
    s0 = surface - s1 * first_c
    return Balance(conductance * s0, conductance * (1.0 - s1), s0, s1, latent)
