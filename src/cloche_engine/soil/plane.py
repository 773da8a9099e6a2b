"""Sun on the plane of a bed: slope, aspect and shade act on the beam, the sky's part comes from everywhere."""

from __future__ import annotations

import numpy as np
from numpy.typing import NDArray

from cloche_engine.soil.bed import Bed
from cloche_engine.weather.record import HourlyWeather

Array = NDArray[np.float64]

LOWEST_RAD = np.radians(8.0)
"""A sun lower than that is behind trees and houses, and comes through glass no more (assumption)."""
HOLLOWS_MM, FLAT_PART = 2.0, 2.0
"""Water that stands on a film drawn over a bed; half of that covers it all (assumption)."""
DRIES_BY_SUN, DRIES_W_M2, LATENT_WH_KG = 0.7, 20.0, 680.0
"""Share of the sun and what the air adds to dry it; latent heat of water [Wh/kg]."""
MOST_FOCUS = 4.0
"""A low sun on a steep slope: beam over its level strength is kept below this."""


def sun_on(bed: Bed, weather: HourlyWeather) -> Array:
    """Return the sun on the plane of the bed, (hours, members) [W/m²].

    Parameters
    ----------
    bed : Bed
        The bed: its slope, surface and what was done to it.
    weather : HourlyWeather
        Hourly weather.

    Returns
    -------
    ndarray
        (hours, members).
    """
    beam = weather.sun_w_m2 - weather.diffuse_w_m2
    open_sky = (1 + np.cos(np.radians(bed.slope_deg))) / 2
    return np.asarray(beam * (_focus(bed, weather) * _unshaded(bed, weather))[:, None] + weather.diffuse_w_m2 * open_sky)


def low_sun_on(bed: Bed, weather: HourlyWeather) -> tuple[Array, Array]:
    """Return the direct sun on vertical faces beside the bed [W/m²].

    This is what a sloping lid, walls and hoops catch of a low sun in addition to a level pane.

    Parameters
    ----------
    bed : Bed
        The bed, for its shade.
    weather : HourlyWeather
        Hourly weather.

    Returns
    -------
    toward, around : ndarray
        On a face that looks towards the noon sun, and on one that looks at the sun all day [W/m²], (hours, members).
    """
    height = np.maximum(weather.sun.elevation_rad, LOWEST_RAD)
    beam = (weather.sun_w_m2 - weather.diffuse_w_m2) * _unshaded(bed, weather)[:, None]
    around = beam / np.tan(height)[:, None]
    northward = np.cos(weather.sun.azimuth_rad)
    noon = np.sign(northward @ np.maximum(weather.sun.elevation_rad, 0.0))  # -1 where it stands in the south
    return np.asarray(around * np.maximum(noon * northward, 0.0)[:, None]), np.asarray(around)


def puddles_on(weather: HourlyWeather) -> Array:
    """Return the fraction of a film on the ground that is under puddles.

    Rain fills the hollows, and sun and air dry them.

    Parameters
    ----------
    weather : HourlyWeather
        Hourly weather.

    Returns
    -------
    ndarray
        0-1, (hours, members).
    """
    rain_mm = np.broadcast_to(weather.rain_mm, weather.sun_w_m2.shape)
    dries_mm = (DRIES_BY_SUN * weather.sun_w_m2 + DRIES_W_M2) / LATENT_WH_KG
    water, ponded = np.zeros(rain_mm.shape[1]), np.empty(rain_mm.shape)
    for hour in range(len(rain_mm)):
        water = np.clip(water + rain_mm[hour] - dries_mm[hour], 0.0, HOLLOWS_MM)
        ponded[hour] = water / HOLLOWS_MM
    return np.minimum(ponded * FLAT_PART, 1.0)


def _focus(bed: Bed, weather: HourlyWeather) -> Array:
    """Return the ratio of direct sun on the slope to that on level ground, (hours,)."""
    if bed.slope_deg == 0:
        return np.ones(len(weather))
    height, slope = weather.sun.elevation_rad, np.radians(bed.slope_deg)
    turned = weather.sun.azimuth_rad - np.radians(bed.aspect_deg)
    onto = np.sin(height) * np.cos(slope) + np.cos(height) * np.sin(slope) * np.cos(turned)
    level = np.sin(height)
    return np.asarray(np.clip(np.divide(onto, level, out=np.zeros_like(onto), where=level > 0.02), 0.0, MOST_FOCUS))


def _unshaded(bed: Bed, weather: HourlyWeather) -> Array:
    if not bed.shade:
        return np.ones(len(weather))
    return 1.0 - np.asarray(bed.shade, dtype=np.float64)[np.arange(len(weather)) % 24]
