"""Readings as the engine takes them."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray


@dataclass(frozen=True)
class Readings:
    """Soil readings of one place, in any order; three arrays of the same length.

    hour: hours since midnight of day 0, fractional. depth_m [m]. temperature_c [°C].
    """

    hour: NDArray[np.float64]
    depth_m: NDArray[np.float64]
    temperature_c: NDArray[np.float64]

    def __len__(self) -> int:
        return len(self.hour)
