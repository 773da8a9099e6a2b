"""Plain columns of one material for checks against published solutions."""

from __future__ import annotations

import numpy as np

from cloche_engine.soil.conduction import WORK_ROWS, prepare, step
from cloche_engine.soil.grid import Grid, open_ground
from cloche_engine.soil.layers import Columns

CONDUCTIVITY, CAPACITY = 1.2, 2.0e6
"""W/mK and J/m³K: a moist loam."""
HARD = 1e5
"""Conductance of a surface held at a temperature, W/m²K."""


def columns(
    grid: Grid | None = None, water: float = 0.0, frozen_w_mk: float = CONDUCTIVITY, frozen_j: float = CAPACITY
) -> Columns:
    """One column; water: J/m³ of latent heat."""
    thick = (grid or open_ground()).thickness_m[None, :]
    distance = (thick[:, 1:] + thick[:, :-1]) / 2
    return Columns(
        CAPACITY * thick,
        frozen_j * thick,
        water * thick,
        CONDUCTIVITY / distance,
        frozen_w_mk / distance,
        CONDUCTIVITY / (thick[:, 0] / 2),
        np.zeros(1),
        np.zeros_like(thick),
    )


def held_at(column: Columns, surface_c: float, frozen_w_mk: float | None = None) -> tuple[np.ndarray, np.ndarray]:
    """Flux a - b T into the first cell of a surface held at surface_c."""
    top = column.top if frozen_w_mk is None else column.top * frozen_w_mk / CONDUCTIVITY
    return top * surface_c, top.copy()


class Moving:
    """Columns stepped by the hour, all cells at start_c at first. soil_c: (columns, cells)."""

    def __init__(self, column: Columns, depths_m: list[float], start_c: float) -> None:
        self.columns, self.ready = column, prepare(column, 3600.0)
        self.soil_c = np.full(column.capacity.shape, start_c)
        self.above, self.part = open_ground().between(depths_m)

    def step(self, a: np.ndarray, b: np.ndarray, deep_c: float) -> tuple[np.ndarray, np.ndarray]:
        """Means over the hour under the flux a - b T: at the depths, (columns, depths) [°C], and of that flux [W/m²]."""
        points, flux = [], []
        for c, soil in enumerate(self.soil_c):
            work = np.zeros((WORK_ROWS, len(soil)))
            step(c, self.columns, self.ready, (float(a[c]), float(b[c]), deep_c), soil, work)
            flux.append(a[c] - b[c] * work[0, 0])
            face = work[0, 0] + flux[-1] / self.columns.top[c]
            upper = np.where(self.above < 0, face, work[0, self.above])
            points.append(upper + self.part * (work[0, self.above + 1] - upper))
        return np.array(points), np.array(flux)
