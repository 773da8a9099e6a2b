"""The cells of a soil column: thin near the surface, where seed lies, thicker towards the deep ground."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from numpy.typing import ArrayLike, NDArray

TOP_CELLS_M = (0.005, 0.01, 0.01, 0.01, 0.01, 0.012, 0.014, 0.016, 0.02, 0.025, 0.03, 0.035, 0.045, 0.055, 0.07, 0.09)
DEEP_CELLS_M = (0.11, 0.14, 0.17, 0.22, 0.28, 0.36)


@dataclass(frozen=True)
class Grid:
    """Cells of a soil column from the surface down; `thickness_m` has the shape (cells,)."""

    thickness_m: NDArray[np.float64]

    @property
    def centre_m(self) -> NDArray[np.float64]:
        """Return the depth of each cell centre, (cells,) [m]."""
        return np.asarray(np.cumsum(self.thickness_m) - self.thickness_m / 2)

    @property
    def depth_m(self) -> float:
        """Return the depth of the lower end [m]."""
        return float(self.thickness_m.sum())

    def between(self, depth_m: ArrayLike) -> tuple[NDArray[np.int64], NDArray[np.float64]]:
        """Return the interpolation between cell centres for each depth.

        Gives the index of the centre above (-1 for the soil surface) and the weight of the one below, 0-1, (depths,) each.

        Below the last centre its value.

        Parameters
        ----------
        depth_m : array_like
            Depth below the surface, positive down [m].
        """
        points = np.concatenate([[0.0], self.centre_m])
        wanted = np.clip(np.atleast_1d(np.asarray(depth_m, dtype=np.float64)), 0.0, points[-1])
        below = np.clip(np.searchsorted(points, wanted, side="right"), 1, len(points) - 1)
        return (below - 2).astype(np.int64), (wanted - points[below - 1]) / (points[below] - points[below - 1])


def open_ground() -> Grid:
    """Return 22 cells down to 1.73 m, about 1 cm thick at sowing depth."""
    return Grid(np.array(TOP_CELLS_M + DEEP_CELLS_M))


def small_volume(depth_m: float) -> Grid:
    """Return the cells of a tray, pot or tub.

    There are as many as in open ground, so that both can be simulated side by side; the lowest is twice as thick as the
    highest.

    Parameters
    ----------
    depth_m : float
        Depth below the surface, positive down [m].
    """
    steps = np.linspace(1.0, 2.0, len(TOP_CELLS_M) + len(DEEP_CELLS_M))
    return Grid(depth_m * steps / steps.sum())
