"""Sun on the plane of a bed: slope, aspect and shade act on the beam, the sky's part comes from everywhere."""

from __future__ import annotations

import numpy as np
from numpy.typing import NDArray

from cloche.core.soil.bed import Bed
from cloche.core.weather.record import HourlyWeather

Array = NDArray[np.float64]

MOST_FOCUS = 4.0
"""A low sun on a steep slope: beam over its level strength is kept below this."""


def sun_on(bed: Bed, weather: HourlyWeather) -> Array:
    """Sun arriving on the bed's plane [W/m²], (hours, members).

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


def _focus(bed: Bed, weather: HourlyWeather) -> Array:
    """Beam on the slope over beam on the level, (hours,)."""
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
