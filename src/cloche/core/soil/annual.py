"""The year's wave in deep ground: annual mean and swing, damped and late with depth [CampbellNorman1998, eq. 2.4]."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from numpy.typing import ArrayLike, NDArray

Array = NDArray[np.float64]

YEAR_D = 365.25
GROUND_ABOVE_AIR_K = 1.0
"""Annual mean of the soil over the air's (assumption)."""


@dataclass(frozen=True)
class AnnualWave:
    """Mean [°C], half swing [K] and warmest day of the year of the soil's surface; damping depth of the year [m]."""

    mean_c: float
    half_swing_k: float
    warmest_day: float
    damping_m: float = 2.2

    @classmethod
    def of_months(cls, monthly_c: Array) -> AnnualWave:
        """Through twelve monthly means of the air, January first: their first harmonic.

        Parameters
        ----------
        monthly_c : ndarray
            Twelve monthly means of the air, January first [°C].

        Returns
        -------
        AnnualWave
        """
        angle = 2 * np.pi * (np.arange(12) + 0.5) / 12
        wave = 2 * np.mean(np.asarray(monthly_c) * np.exp(-1j * angle))
        warmest = (-np.angle(wave)) % (2 * np.pi) / (2 * np.pi) * YEAR_D
        return cls(float(np.mean(monthly_c)) + GROUND_ABOVE_AIR_K, float(abs(wave)), float(warmest))

    def at(self, day_of_year: ArrayLike, depth_m: ArrayLike) -> Array:
        """Temperature [°C] at days and depths; the two broadcast.

        Parameters
        ----------
        day_of_year : array_like
            Day of the year from 1, any shape.
        depth_m : array_like
            Depth below the surface, positive down [m].

        Returns
        -------
        ndarray
            [°C].
        """
        reach = np.asarray(depth_m, dtype=np.float64) / self.damping_m
        phase = 2 * np.pi * (np.asarray(day_of_year, dtype=np.float64) - self.warmest_day) / YEAR_D
        return self.mean_c + self.half_swing_k * np.exp(-reach) * np.cos(phase - reach)
