"""The shape of a day in the soil: how a day of sun reaches depth, weaker and later the deeper.

Sun on the surface is a half sine from sunrise to sunset. Each of its harmonics is damped by exp(-z sqrt(n)/d) and
delayed by z sqrt(n)/d in a half-space that also gives heat back to the air [CampbellNorman1998, ch. 2 and 8].
"""

from __future__ import annotations

from functools import lru_cache

import numpy as np
from numpy.typing import ArrayLike, NDArray

HARMONICS = 5
SURFACE_LOSS = 1.5
"""Heat given back to the air over heat conducted: H d / lambda, with H about 15 W/m²K, d 0.1 m, lambda 1 W/mK (assumption)."""
LOW_SUN_H = 1.5
"""The ground gains only once the sun is somewhat up: hours of day length that bring nothing (assumption)."""


def damped_wave(hour: ArrayLike, depth_m: float, damping_depth_m: float, harmonic: int = 1) -> NDArray[np.float64]:
    """A surface wave cos(2 pi n hour/24) as it arrives at depth, any shape; amplitude 1 at the surface.

    [CampbellNorman1998, eq. 2.4]: exp(-z/d) and a delay of z/d radians, with d / sqrt(n) for the n-th harmonic.
    """
    reach = depth_m * np.sqrt(harmonic) / damping_depth_m
    phase = 2 * np.pi * harmonic * np.asarray(hour, dtype=np.float64) / 24
    return np.exp(-reach) * np.cos(phase - reach)


@lru_cache(maxsize=512)
def _day(day_length_h: float, depth_m: float, damping_depth_m: float) -> NDArray[np.float64]:
    hour = np.linspace(-12.0, 12.0, 480, endpoint=False)
    length = np.clip(day_length_h - LOW_SUN_H, 1.0, 24.0)
    sun = np.where(np.abs(hour) < length / 2, np.cos(np.pi * hour / length), 0.0)
    shape = np.zeros(24)
    first = 1.0
    for n in range(1, HARMONICS + 1):
        strength = 2 * np.mean(sun * np.cos(2 * np.pi * n * hour / 24))
        transfer = strength / ((1 + 1j) * np.sqrt(n) + SURFACE_LOSS)
        lag_h = -np.angle(transfer if strength >= 0 else -transfer) * 24 / (2 * np.pi * n)
        size = np.copysign(abs(transfer), strength)
        first = abs(transfer) if n == 1 else first
        shape += size * damped_wave(np.arange(24) + 0.5 - 12.0 - lag_h, depth_m, damping_depth_m, n)
    return shape / first


def day_shapes(day_length_h: ArrayLike, depth_m: float, damping_depth_m: float) -> NDArray[np.float64]:
    """Departure from the day's mean at each solar hour's centre: (days, 24), per unit of the surface's first harmonic.

    day_length_h: (days,). Solar time: hour 12 is the sun's highest.
    """
    lengths = np.round(np.atleast_1d(np.asarray(day_length_h, dtype=np.float64)) * 4) / 4
    return np.stack([_day(float(h), round(depth_m, 3), damping_depth_m) for h in lengths])
