"""Made-up weather and ground for the demo. Deliberately another model than the core's, so that the core has to learn it."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any

import numpy as np
from numpy.typing import NDArray

Array = NDArray[np.float64]


def filtered(b: Any, a: Any, x: Array, zi: Any = None) -> Any:
    """scipy's lfilter, loaded only when a demo is made up."""
    from scipy.signal import lfilter

    return lfilter(b, a, x) if zi is None else lfilter(b, a, x, zi=zi)


@dataclass(frozen=True)
class Climate:
    """A site's usual year [°C]: mean, half swing, warmest day of the year, usual daily range."""

    mean_c: float
    half_swing_k: float
    warmest_day: int
    range_k: float
    latitude_deg: float

    def monthly(self) -> tuple[list[float], list[float]]:
        """Mean lows and highs, January first."""
        day = np.array([15.5, 45, 74.5, 105, 135.5, 166, 196.5, 227.5, 258, 288.5, 319, 349.5])
        mean = self.mean_c + self.half_swing_k * np.cos(2 * np.pi * (day - self.warmest_day) / 365.25)
        half = self.range_k / 2
        return [round(float(m - half), 1) for m in mean], [round(float(m + half), 1) for m in mean]


def hours_of_air(low_c: Array, high_c: Array) -> Array:
    """Hourly air: lowest at six, highest at fifteen."""
    hour = np.arange(len(low_c) * 24) + 0.5
    mean, half = np.repeat((low_c + high_c) / 2, 24), np.repeat((high_c - low_c) / 2, 24)
    smooth = filtered([1 / 24] * 24, [1.0], mean)
    smooth[:24] = mean[:24]
    return np.asarray(smooth + half * np.cos(2 * np.pi * (hour % 24 - 15) / 24))


def hours_of_sun(climate: Climate, day_of_year: Array, low_c: Array, high_c: Array) -> Array:
    """Sun at the ground, 0-1 of a clear midsummer noon."""
    hour = np.arange(len(low_c) * 24) % 24 + 0.5
    tilt = 0.409 * np.sin(2 * np.pi / 365 * np.repeat(day_of_year, 24) - 1.39)
    phi = np.radians(climate.latitude_deg)
    height = np.sin(phi) * np.sin(tilt) + np.cos(phi) * np.cos(tilt) * np.cos(2 * np.pi * (hour - 12) / 24)
    clear = np.repeat(np.clip((high_c - low_c) / climate.range_k, 0.2, 1.2), 24)
    return np.asarray(np.clip(height, 0, None) * clear)


@dataclass(frozen=True)
class Character:
    """How a place differs: warmth of full sun at the surface [K], lift day and night [K], share of the air it feels."""

    sun_k: float = 13.0
    lift_k: float = -0.6
    air: float = 1.0
    swing: float = 1.0
    heat_k: float = 0.0


CHARACTERS = {
    "open": Character(),
    "raised": Character(sun_k=15.0, lift_k=-0.3, swing=1.15),
    "mulched": Character(sun_k=6.0, lift_k=-0.5, swing=0.35),
    "fleece": Character(sun_k=15.5, lift_k=0.2, swing=0.95),
    "tunnel": Character(sun_k=22.0, lift_k=0.3),
    "arch": Character(sun_k=23.0, lift_k=0.8),
    "frame": Character(sun_k=24.0, lift_k=1.2),
    "bell": Character(sun_k=20.0, lift_k=0.4, swing=1.1),
    "mat": Character(sun_k=1.5, lift_k=18.0, air=0.08, swing=0.3, heat_k=4.5),
    "cable": Character(sun_k=8.0, lift_k=6.0, air=0.55, swing=0.5, heat_k=2.0),
    "hotbed": Character(sun_k=16.0, lift_k=1.0),
}


def soil(kind: str, air_c: Array, sun: Array, depth_m: float, hot_since_h: Array | None = None) -> Array:
    """Hourly soil [°C] of a place: surface warmed by sun, then two lags in a row that grow with depth."""
    character = CHARACTERS[kind]
    lag_h = 2.2 + depth_m * 70.0
    surface = character.air * air_c + character.lift_k + character.heat_k + character.sun_k * character.swing * sun
    slow = _lag(character.air * air_c + character.lift_k + character.heat_k + character.sun_k * sun, 60.0 + depth_m * 500)
    fast = _lag(_lag(surface, lag_h), lag_h)
    ground = 0.55 * fast + 0.45 * slow
    if hot_since_h is not None:
        rising = 1 - np.exp(-np.clip(hot_since_h, 0, None) / (24 * 4))
        fading = np.exp(-np.clip(hot_since_h, 0, None) / (24 * 33))
        ground = ground + 24.0 * rising * fading * (hot_since_h > 0)
    return np.asarray(ground)


def _lag(course: Array, constant_h: float) -> Array:
    keep = float(np.exp(-1 / constant_h))
    out, _ = filtered([1 - keep], [1.0, -keep], course, zi=[keep * course[:240].mean()])
    return np.asarray(out)
