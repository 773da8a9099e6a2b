"""Weather of a room: what a tray on a mat, a shelf or a windowsill feels."""

from __future__ import annotations

from dataclasses import dataclass, replace

import numpy as np
from scipy.signal import lfilter

from cloche_engine.light.window import Window, behind_glass_w_m2
from cloche_engine.weather.record import HourlyWeather
from cloche_engine.weather.sky import KELVIN, STEFAN_BOLTZMANN, saturation_kpa

ROOM_WIND_M_S, ROOM_HUMIDITY = 0.1, 0.5
HELD_H = 24.0
"""Hours over which a room forgets how warm it was outdoors (assumption)."""


@dataclass(frozen=True)
class Room:
    """The air of a room.

    Attributes
    ----------
    mean_c, swing_k, warmest_h : float
        Mean [°C], half the daily range [K] and the warmest hour of the day.
    follows : float
        Fraction of changes in the outdoor air that its mean follows, 0-1 (assumptions by kind, corrected by readings).
    """

    mean_c: float
    swing_k: float
    warmest_h: float
    follows: float

    def between(self, night_c: float, day_c: float) -> Room:
        """Return the room kept between two temperatures, whatever the outdoor air [°C].

        Parameters
        ----------
        night_c : float
            Usual coldest of the night [°C].
        day_c : float
            Usual warmest of the day [°C].
        """
        return replace(self, mean_c=(night_c + day_c) / 2, swing_k=(day_c - night_c) / 2, follows=0.0)


HEATED = 0.05
ROOMS = {
    "shed": Room(17.0, 1.5, 17.0, 0.0),
    "living": Room(20.0, 1.5, 18.0, HEATED),
    "radiator": Room(21.0, 3.0, 18.0, HEATED),
    "cool": Room(14.0, 1.5, 16.0, 0.20),
    "garage": Room(11.0, 1.0, 17.0, 0.65),
    "corner": Room(22.0, 1.0, 17.0, 0.02),
}
USUAL = "shed"
"""A lived-in room or a kept-up propagating shed in spring."""


def room(outside: HourlyWeather, described: Room = ROOMS[USUAL], window: Window | None = None) -> HourlyWeather:
    """Return the weather of the same hours inside a room.

    Parameters
    ----------
    outside : HourlyWeather
        Weather outdoors.
    window : Window | None
        Window by which the tray stands; None: what sun comes in is not worth counting.
    """
    hour = (np.arange(len(outside)) + 0.5)[:, None]
    air = described.mean_c + described.swing_k * np.cos(2 * np.pi * (hour - described.warmest_h) / 24)
    if described.follows:
        kept = np.exp(-1 / HELD_H)
        first = outside.air_c[:24].mean(axis=0, keepdims=True)
        lately, _ = lfilter([1 - kept], [1, -kept], outside.air_c, axis=0, zi=kept * first)
        air = air + described.follows * (lately - described.mean_c)
    still = np.zeros_like(air)
    sun = still if window is None else behind_glass_w_m2(outside, window)
    return replace(
        outside,
        air_c=air,
        sun_w_m2=sun,
        diffuse_w_m2=sun,
        sky_w_m2=STEFAN_BOLTZMANN * (air + KELVIN) ** 4,
        wind_m_s=still + ROOM_WIND_M_S,
        vapour_kpa=ROOM_HUMIDITY * saturation_kpa(air),
        rain_mm=still,
        snow_m=still + np.nan,
    )
