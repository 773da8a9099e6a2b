"""Sun and sky through a window."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from cloche_engine.weather.record import HourlyWeather

Array = NDArray[np.float64]

GLASS, GROUND = 0.75, 0.2
"""Double glazing passes so much of the light; the ground before the window throws so much back (common figures)."""
HALF_AT_M = 0.6
"""Away from the pane by so much a tray gets half of what it gets at the glass (assumption: a window of about 1.2 m)."""
UMOL_PER_J = 2.1
"""Light that plants use in sunlight, per joule of all its energy: 45 % of it at 4.57 µmol a joule [ThimijanHeins1983]."""


@dataclass(frozen=True)
class Window:
    """A window beside which trays stand.

    Attributes
    ----------
    aspect_deg : float
        Direction it faces, from north through east [°].
    shade : float
        Fraction of sun and sky blocked by trees, roofs and curtains, 0-1.
    away_m : float
        Distance from pane to tray [m].
    """

    aspect_deg: float
    shade: float = 0.0
    away_m: float = 0.1

    @property
    def passes(self) -> float:
        """Fraction of the light on the pane that reaches the tray, 0-1."""
        return GLASS * (1 - self.shade) / (1 + (self.away_m / HALF_AT_M) ** 2)


def on_pane_w_m2(weather: HourlyWeather, aspect_deg: float) -> Array:
    """Return the sun on a vertical pane: direct, half the sky and half of the reflection from the ground [W/m²].

    Parameters
    ----------
    weather : HourlyWeather
        Weather outdoors.
    aspect_deg : float
        The way it looks, from north through east [°].

    Returns
    -------
    ndarray
        (hours, members) [W/m²].
    """
    height = weather.sun.elevation_rad
    turned = weather.sun.azimuth_rad - np.radians(aspect_deg)
    level = np.sin(height)
    towards = np.maximum(np.cos(height) * np.cos(turned), 0.0)
    # A sun on the horizon has hardly any beam left, whatever the quotient says.
    focus = np.divide(towards, level, out=np.zeros_like(level), where=level > 0.03)
    beam = np.maximum(weather.sun_w_m2 - weather.diffuse_w_m2, 0.0)
    return np.asarray(beam * focus[:, None] + 0.5 * weather.diffuse_w_m2 + 0.5 * GROUND * weather.sun_w_m2)


def behind_glass_w_m2(weather: HourlyWeather, window: Window) -> Array:
    """Return the sun on a tray behind the window [W/m²].

    Parameters
    ----------
    weather : HourlyWeather
        Weather outdoors.

    Returns
    -------
    ndarray
        (hours, members) [W/m²].
    """
    return on_pane_w_m2(weather, window.aspect_deg) * window.passes


def daily_mol(sun_w_m2: Array) -> Array:
    """Return the daily light integral of sunlight [mol/m²].

    Parameters
    ----------
    sun_w_m2 : ndarray
        (hours, ...), whole days [W/m²].

    Returns
    -------
    ndarray
        (days, ...) [mol/m²].
    """
    days = sun_w_m2.reshape(len(sun_w_m2) // 24, 24, *sun_w_m2.shape[1:])
    return np.asarray(days.sum(axis=1) * 3600 * UMOL_PER_J / 1e6)
