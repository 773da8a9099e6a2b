"""What the soil model takes and gives: the interface that any engine behind it keeps."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Protocol

import numpy as np
from numpy.typing import NDArray

from cloche.core.weather.scenarios import DailyAir


@dataclass(frozen=True)
class Site:
    """Where the ground lies. Hours run in the site's standard time, all year without summer time.

    latitude_deg: north positive. solar_noon_h: the standard clock's hour at which the sun stands highest, about 12.
    """

    latitude_deg: float
    solar_noon_h: float = 12.0


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


class KnownGround(Protocol):
    """A place as learned from its readings: it can be run under any weather."""

    def run(self, air: DailyAir, depth_m: float, rng: np.random.Generator) -> NDArray[np.float64]:
        """Hourly soil temperature at depth [°C]: (days * 24, members), hour centres from midnight of day 0."""
        ...

    def surprise_k(self) -> NDArray[np.float64]:
        """Reading less what was expected there and then [K], one a reading, in their order."""
        ...


class SoilModel(Protocol):
    """Learns a place from readings and the air over the same days."""

    def learn(self, kind: str, site: Site, air: DailyAir, readings: Readings) -> KnownGround:
        """air: (days, members) from day 0, covering every reading."""
        ...
