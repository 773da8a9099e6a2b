"""The surface of open ground: sun, infrared, wind, evaporation and snow, as a flux into the soil that is straight in its
first cell's temperature. Two Newton rounds find the surface, then its tangent is handed on."""

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
NEWTON_ROUNDS = 2


@dataclass(frozen=True)
class Hour:
    """What acts on every column in an hour, (columns,): sun reaching the plane of the ground [W/m²], air [°C], infrared from
    above [W/m²], wind [m/s], vapour [kPa]."""

    sun: Array
    air: Array
    sky: Array
    wind: Array
    vapour: Array

    def only(self, index: NDArray[np.intp]) -> Hour:
        """For some of the columns."""
        return Hour(self.sun[index], self.air[index], self.sky[index], self.wind[index], self.vapour[index])


@dataclass(frozen=True)
class Skin:
    """A surface, (columns,): share of sun absorbed, conductance to the first centre [W/m²K] through crust, mulch and snow,
    factor of convection, wetness 0-1 (1: evaporates as water does)."""

    absorbs: Array
    conductance: Array
    convection: Array
    wet: Array


@dataclass(frozen=True)
class Balance:
    """Flux into the first cell a - b T, surface s0 + s1 T (T of the first cell), and latent heat leaving [W/m²]."""

    a: Array
    b: Array
    s0: Array
    s1: Array
    latent: Array


def vapour_curve(surface_c: Array) -> tuple[Array, Array]:
    """Saturation pressure [kPa] and its slope [kPa/K] [FAO56 eq. 11, 13]."""
    warm = surface_c + 237.3
    pressure = 0.6108 * np.exp(17.27 * surface_c / warm)
    return pressure, 4098.0 * pressure / (warm * warm)


def convection_w_m2k(surface_c: Array, hour: Hour, factor: Array) -> Array:
    """Exchange with the air over open ground: wind, helped when the ground is warmer, hindered when it is colder."""
    warmer = surface_c - hour.air
    forced = STILL_AIR_W_M2K + WIND_W_M2K * hour.wind
    hindered = forced / (1.0 + STABLE * np.maximum(-warmer, 0.0) / (1.0 + hour.wind * hour.wind))
    return np.asarray(factor * (hindered + FREE_CONVECTION * np.cbrt(np.maximum(warmer, 0.0))))


def open_balance(skin: Skin, hour: Hour, first_c: Array, surface_c: Array) -> Balance:
    """Balance of open ground, linearised about its own solution for the first cell at first_c.

    surface_c: last surface temperature, where to start.
    """
    gains = skin.absorbs * hour.sun + SOIL_EMISSIVITY * hour.sky + skin.conductance * first_c
    surface, slope, latent = surface_c, skin.conductance, np.zeros_like(surface_c)
    for _ in range(NEWTON_ROUNDS):
        exchange = convection_w_m2k(surface, hour, skin.convection)
        pressure, curve = vapour_curve(surface)
        lift = pressure - hour.vapour
        moist = np.where(lift > 0, skin.wet, 1.0) * exchange / PSYCHROMETER_KPA_K
        kelvin = surface + KELVIN
        emitted = SOIL_EMISSIVITY * STEFAN_BOLTZMANN * kelvin**4
        slope = 4.0 * emitted / kelvin + exchange + moist * curve + skin.conductance
        latent = moist * lift
        net = gains - emitted - exchange * (surface - hour.air) - latent - skin.conductance * surface
        change = np.clip(net / slope, -15.0, 15.0)
        surface = surface + change
        latent = latent + moist * curve * change
    s1 = skin.conductance / slope
    s0 = surface - s1 * first_c
    return Balance(skin.conductance * s0, skin.conductance * (1.0 - s1), s0, s1, latent)
