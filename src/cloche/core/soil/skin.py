"""The surface of open ground: sun, infrared, wind, evaporation and snow, as a flux into the soil that is straight in its
first cell's temperature. A guess carried on from the last hour's slope and one Newton round find it and its tangent."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from cloche.core.weather.sky import KELVIN, STEFAN_BOLTZMANN

Array = NDArray[np.float64]

SOIL_EMISSIVITY = 0.96
PSYCHROMETER_KPA_K = 0.066
STILL_AIR_W_M2K, WIND_W_M2K = 2.5, 3.6
"""Convection over bare ground: 2.5 + 3.6 u [W/m²K], a smooth surface by the logarithmic law (assumption)."""
FREE_CONVECTION = 1.4
STABLE = 0.3


@dataclass(frozen=True)
class Hour:
    """What acts on every column in an hour, (columns,): sun reaching the plane of the ground [W/m²], air [°C], infrared from
    above [W/m²], wind [m/s], vapour [kPa]."""

    sun: Array
    air: Array
    sky: Array
    wind: Array
    vapour: Array


@dataclass(frozen=True)
class Skin:
    """A surface, (columns,): share of sun absorbed, conductance to the first centre [W/m²K] through crust, mulch and snow,
    factor of convection, wetness 0-1 (1: evaporates as water does)."""

    absorbs: Array
    conductance: Array
    convection: Array
    wet: Array

    def only(self, index: NDArray[np.intp] | slice) -> Skin:
        """Of some of the columns."""
        return Skin(self.absorbs[index], self.conductance[index], self.convection[index], self.wet[index])


@dataclass(frozen=True)
class Balance:
    """Flux into the first cell a - b T, surface s0 + s1 T (T of the first cell), and latent heat leaving [W/m²].

    gains, slope [W/m²], [W/m²K]: what the surface took up and how its losses grow, for the next hour's guess.
    """

    a: Array
    b: Array
    s0: Array
    s1: Array
    latent: Array
    gains: Array
    slope: Array


def vapour_curve(surface_c: Array) -> tuple[Array, Array]:
    """Saturation pressure [kPa] and its slope [kPa/K] [FAO56 eq. 11, 13]."""
    warm = surface_c + 237.3
    pressure = 0.6108 * np.exp(17.27 * surface_c / warm)
    return pressure, 4098.0 * pressure / (warm * warm)


def convection_w_m2k(warmer_k: Array, wind_m_s: Array, factor: Array) -> Array:
    """Exchange with the air over open ground: wind, helped when the ground is warmer, hindered when it is colder."""
    forced = STILL_AIR_W_M2K + WIND_W_M2K * wind_m_s
    hindered = forced / (1.0 + STABLE / (1.0 + wind_m_s * wind_m_s) * np.maximum(-warmer_k, 0.0))
    return np.asarray(factor * (hindered + FREE_CONVECTION * np.cbrt(np.maximum(warmer_k, 0.0))))


def open_balance(skin: Skin, hour: Hour, first_c: Array, surface_c: Array, last: Balance | None = None) -> Balance:
    """Balance of open ground, linearised about its own solution for the first cell at first_c.

    surface_c: the last hour's surface; last: the last hour's balance, where there was one.
    """
    conductance = skin.conductance
    gains = skin.absorbs * hour.sun
    gains += SOIL_EMISSIVITY * hour.sky
    gains += conductance * first_c
    guess = surface_c if last is None else surface_c + np.minimum(np.maximum((gains - last.gains) / last.slope, -12.0), 12.0)
    surface, slope, latent = guess, conductance, conductance
    for _ in range(2 if last is None else 1):
        warmer = surface - hour.air
        exchange = convection_w_m2k(warmer, hour.wind, skin.convection)
        pressure, curve = vapour_curve(surface)
        lift = pressure - hour.vapour
        moist = np.where(lift > 0, skin.wet, 1.0) * exchange
        moist *= 1.0 / PSYCHROMETER_KPA_K
        kelvin = surface + KELVIN
        emitted = (SOIL_EMISSIVITY * STEFAN_BOLTZMANN) * (kelvin * kelvin) * (kelvin * kelvin)
        curve *= moist
        slope = 4.0 * emitted / kelvin + exchange + curve + conductance
        latent = moist * lift
        change = (gains - emitted - exchange * warmer - latent - conductance * surface) / slope
        surface = surface + change
        latent += curve * change
    s1 = conductance / slope
    s0 = surface - s1 * first_c
    return Balance(conductance * s0, conductance * (1.0 - s1), s0, s1, latent, gains, slope)
