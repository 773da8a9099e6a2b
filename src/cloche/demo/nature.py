"""Made-up weather and ground for the demo. Deliberately another model than the engine's, so that the engine has to learn it."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any

import numpy as np
from numpy.typing import NDArray

Array = NDArray[np.float64]


def filtered(b: Any, a: Any, x: Array, zi: Any = None) -> Any:
    """Call SciPy's lfilter, imported only when a demo is generated."""
    from scipy.signal import lfilter

    return lfilter(b, a, x) if zi is None else lfilter(b, a, x, zi=zi)


@dataclass(frozen=True)
class Climate:
    """A site's year [°C]: mean, amplitude, warmest day of the year, and usual daily range."""

    mean_c: float
    half_swing_k: float
    warmest_day: int
    range_k: float
    latitude_deg: float

    def monthly(self) -> tuple[list[float], list[float]]:
        """Return mean lows and highs, January first."""
        day = np.array([15.5, 45, 74.5, 105, 135.5, 166, 196.5, 227.5, 258, 288.5, 319, 349.5])
        mean = self.mean_c + self.half_swing_k * np.cos(2 * np.pi * (day - self.warmest_day) / 365.25)
        half = self.range_k / 2
        return [round(float(m - half), 1) for m in mean], [round(float(m + half), 1) for m in mean]


def hours_of_air(low_c: Array, high_c: Array) -> Array:
    """Return hourly air, lowest at 6 and highest at 15 h."""
    hour = np.arange(len(low_c) * 24) + 0.5
    mean, half = np.repeat((low_c + high_c) / 2, 24), np.repeat((high_c - low_c) / 2, 24)
    smooth = filtered([1 / 24] * 24, [1.0], mean)
    smooth[:24] = mean[:24]
    return np.asarray(smooth + half * np.cos(2 * np.pi * (hour % 24 - 15) / 24))


def hours_of_sun(climate: Climate, day_of_year: Array, low_c: Array, high_c: Array) -> Array:
    """Return the sun at the ground relative to a clear midsummer noon, 0-1."""
    hour = np.arange(len(low_c) * 24) % 24 + 0.5
    tilt = 0.409 * np.sin(2 * np.pi / 365 * np.repeat(day_of_year, 24) - 1.39)
    phi = np.radians(climate.latitude_deg)
    height = np.sin(phi) * np.sin(tilt) + np.cos(phi) * np.cos(tilt) * np.cos(2 * np.pi * (hour - 12) / 24)
    clear = np.repeat(np.clip((high_c - low_c) / climate.range_k, 0.2, 1.2), 24)
    return np.asarray(np.clip(height, 0, None) * clear)


@dataclass(frozen=True)
class Parameters:
    """Properties of a place.

    They are the warming by full sun [K], the lift by day and night [K], the fraction of the air and of the daily swing that
    reaches the surface, the thermal diffusivity [m²/s], and heat from below [K].
    """

    sun_k: float = 12.0
    lift_k: float = -0.2
    air: float = 1.0
    swing: float = 0.85
    spread: float = 5.0e-7
    heat_k: float = 0.0


CHARACTERS = {
    "open": Parameters(),
    "raised": Parameters(sun_k=13.5, lift_k=0.2, swing=0.95, spread=4.2e-7),
    "mulched": Parameters(sun_k=6.0, lift_k=-0.2, swing=0.25),
    "fleece": Parameters(sun_k=14.5, lift_k=0.4, swing=0.75),
    "tunnel": Parameters(sun_k=20.0, lift_k=0.6, swing=0.75),
    "arch": Parameters(sun_k=21.0, lift_k=1.0, swing=0.75),
    "frame": Parameters(sun_k=22.0, lift_k=1.4, swing=0.7),
    "bell": Parameters(sun_k=18.0, lift_k=0.6, swing=0.85),
    "mat": Parameters(sun_k=0.0, lift_k=18.0, air=0.04, swing=0.5, spread=4.0e-7, heat_k=6.0),
    "tray": Parameters(sun_k=0.0, lift_k=17.0, air=0.05, swing=0.6, spread=4.0e-7),
    "box": Parameters(sun_k=2.0, lift_k=13.0, air=0.1, swing=0.4, spread=4.0e-7, heat_k=4.0),
    "cable": Parameters(sun_k=16.0, lift_k=1.0, swing=0.6, heat_k=6.0),
    "hotbed": Parameters(sun_k=18.0, lift_k=1.2, swing=0.6),
}
HOUR_S, MARGIN_H = 3600.0, 24 * 120


def soil(kind: str, air_c: Array, sun: Array, depth_m: float, hot_since_h: Array | None = None) -> Array:
    """Return hourly soil of a place [°C].

    The surface follows air and sun. Each of its waves is damped and delayed with depth as in a half-space
    [CarslawJaeger1959, section 2.6].
    """
    parameters = CHARACTERS[kind]
    surface = parameters.air * air_c + parameters.lift_k + parameters.heat_k + parameters.sun_k * sun
    slow = _rolling(surface, 24)
    surface = slow + parameters.swing * (surface - slow)
    ground = _sunk(surface, depth_m, parameters.spread)
    if hot_since_h is not None:
        rising = 1 - np.exp(-np.clip(hot_since_h, 0, None) / (24 * 4))
        fading = np.exp(-np.clip(hot_since_h, 0, None) / (24 * 33))
        ground = ground + 20.0 * rising * fading * (hot_since_h > 0)
    return np.asarray(ground)


def _sunk(surface_c: Array, depth_m: float, spread_m2_s: float) -> Array:
    """Return the course of the surface at a depth, extended backwards by its first weeks so that it does not wrap."""
    usual = surface_c[: 24 * 14].mean()
    padded = np.concatenate([np.full(MARGIN_H, usual), surface_c, np.full(MARGIN_H, usual)]) - usual
    omega = 2 * np.pi * np.fft.rfftfreq(len(padded), HOUR_S)
    damped = np.fft.rfft(padded) * np.exp(-depth_m * np.sqrt(1j * omega / spread_m2_s))
    return np.asarray(usual + np.fft.irfft(damped, len(padded))[MARGIN_H : MARGIN_H + len(surface_c)])


def _rolling(surface_c: Array, hours: int) -> Array:
    """Return a centred mean, shorter at the ends."""
    total = np.convolve(surface_c, np.ones(hours), "same")
    return np.asarray(total / np.convolve(np.ones(len(surface_c)), np.ones(hours), "same"))
