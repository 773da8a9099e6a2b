"""Weather of a room: what a tray on a mat or a shelf feels."""

from __future__ import annotations

from dataclasses import replace

import numpy as np

from cloche.core.weather.record import HourlyWeather
from cloche.core.weather.sky import KELVIN, STEFAN_BOLTZMANN, saturation_kpa

ROOM_C, ROOM_SWING_K, ROOM_WIND_M_S, ROOM_HUMIDITY = 17.0, 1.5, 0.1, 0.5
"""A lived-in room or a kept-up propagating shed in spring (assumption); readings put it right."""


def room(outside: HourlyWeather) -> HourlyWeather:
    """The same hours in a room, one member.

    Parameters
    ----------
    outside : HourlyWeather
        Weather outdoors.

    Returns
    -------
    HourlyWeather
    """
    hour = (np.arange(len(outside)) + 0.5)[:, None]
    air = ROOM_C + ROOM_SWING_K * np.cos(2 * np.pi * (hour - 17.0) / 24)
    still = np.zeros_like(air)
    return replace(
        outside,
        air_c=air,
        sun_w_m2=still,
        diffuse_w_m2=still,
        sky_w_m2=STEFAN_BOLTZMANN * (air + KELVIN) ** 4,
        wind_m_s=still + ROOM_WIND_M_S,
        vapour_kpa=ROOM_HUMIDITY * saturation_kpa(air),
        rain_mm=still,
        snow_m=still + np.nan,
    )
