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
    """Weather of one hour at one column.

    Attributes
    ----------
    sun, sky : float
        Sun on the plane of the ground and infrared from above [W/m²].
    air, wind, vapour : float
        Air temperature [°C], wind speed [m/s], vapour pressure [kPa].
    toward, around : float
        Direct sun on vertical faces with the area of the ground: one that faces the noon sun and one that turns with the sun
        [W/m²].
    puddles : float
        Fraction of a film on the ground under puddles, 0-1.
    """

    sun: float
    air: float
    sky: float
    wind: float
    vapour: float
    toward: float = 0.0
    around: float = 0.0
    puddles: float = 0.0


class SoilSurface(NamedTuple):
    """Properties of a surface.

    Attributes
    ----------
    absorbs : float
        Fraction of the sun absorbed.
    conductance : float
        Conductance to the first cell centre through crust, mulch and snow [W/m²K].
    convection : float
        Factor of the convection.
    wet : float
        0-1; at 1 it evaporates like open water.
    """

    absorbs: float
    conductance: float
    convection: float
    wet: float


class Balance(NamedTuple):
    """Solution of the surface balance as a function of the first cell's temperature T.

    The flux into the cell is a - b T [W/m²], the surface temperature s0 + s1 T [°C]; `latent` is the latent heat flux away
    from the surface [W/m²].
    """

    a: float
    b: float
    s0: float
    s1: float
    latent: float


@lean
def vapour_curve(surface_c: float) -> tuple[float, float]:
    """Return the saturation vapour pressure [kPa] and its slope [kPa/K] [FAO56 eq. 11, 13].

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
    """Return the heat exchange with the air over open ground [W/m²K].

    It grows with the wind and is stronger over ground warmer than the air, weaker over colder ground.

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
    """Solve the energy balance of open ground, linearised around the first cell's temperature.

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
