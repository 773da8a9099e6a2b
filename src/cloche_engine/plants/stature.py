"""How tall a crop stands as it grows, and until when it has room under a cover."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import date, timedelta

import numpy as np
from numpy.typing import ArrayLike, NDArray

from cloche_engine.crops.catalogue import Crop
from cloche_engine.windows.growth import full_growth_d, growth_index, light_share

UP_M, SET_OUT_M = 0.01, 0.08
"""Height of what is just up, and of a plant that is set out where nobody measured it (assumptions)."""
HALFWAY, STEEP = 0.57, 7.0
"""At so much of its growth to harvest a crop stands half as tall as it gets; how steeply it shoots up about then: a logistic
curve, held to greens that touch a roof of twenty centimetres after four to six weeks (assumption)."""
TOUCHES = 0.95
"""Share of the room's height at which leaves touch what is over them."""


def height_share(grown: ArrayLike) -> NDArray[np.float64]:
    """Return the fraction of the full height at a fraction of the growth, which may exceed 1.

    Parameters
    ----------
    grown : array_like
        Share of the growth to harvest, any shape.
    """
    low, high = (1 / (1 + np.exp(-STEEP * (at - HALFWAY))) for at in (0.0, 1.0))
    share = 1 / (1 + np.exp(-STEEP * (np.clip(grown, 0.0, 1.0) - HALFWAY)))
    return np.asarray((share - low) / (high - low))


def grown_at(height_m: float, full_m: float) -> float:
    """Return the fraction of its growth at which a crop has a height.

    Parameters
    ----------
    height_m : float
        Height [m].
    full_m : float
        Height that it gets [m].
    """
    shares = np.linspace(0.0, 1.0, 1001)
    return float(np.interp(height_m / full_m, height_share(shares), shares))


def grown_shares(crop: Crop, mean_c: ArrayLike, first: date, latitude_deg: float, printed_d: float) -> NDArray[np.float64]:
    """Return the fraction of the growth to harvest at the end of each day, above 1 once it is ripe.

    Parameters
    ----------
    mean_c : array_like
        Day's mean air among the plants [°C].
    first : date
        First day.
    latitude_deg : float
        Latitude, north positive [°].
    printed_d : float
        Days to harvest, as printed.
    """
    air_c = np.asarray(mean_c, dtype=np.float64)
    day = (first.timetuple().tm_yday - 1 + np.arange(air_c.size)) % 365 + 1
    pace = np.minimum(growth_index(air_c, crop), light_share(day, latitude_deg))
    return np.asarray(np.cumsum(pace) / max(full_growth_d(crop, printed_d), 1.0))


def heights_m(crop: Crop, start_m: float, grown: ArrayLike) -> NDArray[np.float64]:
    """Return the height as the remaining growth proceeds from a measured start [m].

    Parameters
    ----------
    start_m : float
        Height before the first day [m].
    grown : array_like
        Share of its growth since, any shape.
    """
    before = grown_at(min(start_m, crop.height_m), crop.height_m)
    return np.maximum(crop.height_m * height_share(before + (1 - before) * np.asarray(grown)), start_m)


@dataclass(frozen=True)
class Room:
    """Space under a cover over a bed.

    Attributes
    ----------
    middle_m, side_m, width_m : float
        Height in the middle, height at the edges, and width [m].
    shape : str
        "arch", "lean" (a lid that rises from `side_m` to `middle_m`) or "flat".
    """

    middle_m: float
    side_m: float
    width_m: float
    shape: str = "arch"

    def height_m(self, across_m: float) -> float:
        """Return the clear height at a distance from the left, or lower, edge [m].

        Parameters
        ----------
        across_m : float
            From the edge [m].
        """
        at = min(max(across_m / self.width_m, 0.0), 1.0)
        rise = self.middle_m - self.side_m
        if self.shape == "flat":
            return self.middle_m
        if self.shape == "lean":
            return self.side_m + rise * at
        # An arch of a film over hoops: half an ellipse above its straight sides.
        return self.side_m + rise * float(np.sqrt(max(1 - (2 * at - 1) ** 2, 0.0)))


def touches(heights: ArrayLike, first: date, room_m: float) -> date | None:
    """Return the day on which a crop touches its cover, None if not within these days.

    Parameters
    ----------
    heights : array_like
        Height by the day [m].
    first : date
        The first of them.
    room_m : float
        Clear height where it stands [m].
    """
    reached = np.flatnonzero(np.asarray(heights) >= TOUCHES * room_m)
    return first + timedelta(days=int(reached[0])) if reached.size else None
