"""The two curves of a crop against soil temperature: how fast seed advances, and how much of it comes up."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, field

import numpy as np
from numpy.typing import ArrayLike, NDArray

FIELD_FACTOR = 1.1
"""Garden soil takes so many times the laboratory's days (assumption)."""
SLOWEST_RATE_PER_D = 1.0 / 500.0
"""Interpolated rates below this are noise of the interpolation, not germination: taken as none."""
GRID_STEP_C = 0.05
GRID_FROM_C = -10.0
GRID_TO_C = 60.0
GRID_CELLS = round((GRID_TO_C - GRID_FROM_C) / GRID_STEP_C)


@dataclass(frozen=True)
class GridPosition:
    """Position of temperatures on the grid, computed once for all crops' curves. nan counts as missing."""

    below: NDArray[np.intp]
    part: NDArray[np.float64]
    missing: NDArray[np.bool_]

    @classmethod
    def of(cls, temperature_c: ArrayLike) -> GridPosition:
        """Locate temperatures on the curves' grid.

        Parameters
        ----------
        temperature_c : array_like
            Temperatures, any shape [°C]; beyond the grid's ends counts as its ends.
        """
        position = (np.asarray(temperature_c, dtype=np.float64) - GRID_FROM_C) / GRID_STEP_C
        missing = np.isnan(position)
        position = np.clip(np.where(missing, 0.0, position), 0.0, GRID_CELLS - 1e-6)
        below = position.astype(np.intp)
        return cls(below, position - below, missing)


@dataclass(frozen=True)
class Curve:
    """A shape-preserving curve through published values, tabulated on a fine grid for fast evaluation."""

    knots: tuple[tuple[float, float], ...]
    grid: NDArray[np.float64] = field(repr=False, compare=False)

    def at(self, temperature_c: ArrayLike) -> NDArray[np.float64]:
        """Return the value at each temperature [°C], nan where it is missing and the edge value outside.

        Parameters
        ----------
        temperature_c : array_like
            Temperature [°C].
        """
        position = GridPosition.of(temperature_c)
        return np.where(position.missing, np.nan, self.on(position))

    def on(self, position: GridPosition) -> NDArray[np.float64]:
        """Return the value at located positions. Missing ones give that of the cold end, a zero rate.

        Parameters
        ----------
        position : GridPosition
            Where temperatures lie on the grid.
        """
        low = self.grid[position.below]
        return low + position.part * (self.grid[position.below + 1] - low)


class RateCurve(Curve):
    """Rate of development [1/d], monotone cubic in 1/days through every published value, zero outside."""

    @classmethod
    def through(cls, knots: Sequence[Sequence[float]]) -> RateCurve:
        """Build the curve from (temperature [°C], value) pairs in rising order of temperature.

        Parameters
        ----------
        knots : Sequence[Sequence[float]]
            Points of the curve: temperature [°C] and value.
        """
        values = _pchip(knots, outside=0.0)
        values[values < SLOWEST_RATE_PER_D] = 0.0
        return cls(tuple((t, v) for t, v in knots), _keep_knots(values, knots))

    def slowed(self, times: float) -> RateCurve:
        """Return the curve with all durations multiplied by a factor.

        Parameters
        ----------
        times : float
            Factor of the days.
        """
        return RateCurve(tuple((t, rate / times) for t, rate in self.knots), self.grid / times)

    @property
    def fastest_c(self) -> float:
        """Soil temperature of the fastest emergence [°C]."""
        return float(GRID_FROM_C + GRID_STEP_C * np.argmax(self.grid))


class ShareCurve(Curve):
    """Fraction of live seed that emerges relative to the table's best value, 0-1, constant outside."""

    @classmethod
    def through(cls, knots: Sequence[Sequence[float]]) -> ShareCurve:
        """Build the curve from (temperature [°C], value) pairs in rising order of temperature.

        Parameters
        ----------
        knots : Sequence[Sequence[float]]
            Points of the curve: temperature [°C] and value.
        """
        return cls(tuple((t, v) for t, v in knots), np.clip(_pchip(knots, outside=None), 0.0, 1.0))


def _grid_c() -> NDArray[np.float64]:
    return np.arange(GRID_FROM_C, GRID_TO_C + GRID_STEP_C / 2, GRID_STEP_C)


def _pchip(knots: Sequence[Sequence[float]], outside: float | None) -> NDArray[np.float64]:
    # Imported here: it takes longer to load than a web process to start.
    from scipy.interpolate import PchipInterpolator

    temperature_c, value = np.asarray(knots, dtype=np.float64).T
    grid_c = _grid_c()
    inside = np.clip(grid_c, temperature_c[0], temperature_c[-1])
    curve = np.asarray(PchipInterpolator(temperature_c, value)(inside))
    if outside is not None:
        curve[(grid_c < temperature_c[0]) | (grid_c > temperature_c[-1])] = outside
    return curve


def _keep_knots(grid: NDArray[np.float64], knots: Sequence[Sequence[float]]) -> NDArray[np.float64]:
    """Restore the published values that the smallest-rate rule would have removed."""
    for temperature_c, value in knots:
        index = round((temperature_c - GRID_FROM_C) / GRID_STEP_C)
        if abs(GRID_FROM_C + index * GRID_STEP_C - temperature_c) < 1e-9:
            grid[index] = value
    return grid
