"""Plain columns of one material for checks against published solutions."""

from __future__ import annotations

import numpy as np

from cloche.core.soil.conduction import Conductor
from cloche.core.soil.grid import Grid, open_ground
from cloche.core.soil.layers import Columns

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
    )


def held_at(column: Columns, surface_c: float, frozen_w_mk: float | None = None) -> tuple[np.ndarray, np.ndarray]:
    """Flux a - b T into the first cell of a surface held at surface_c."""
    top = column.top if frozen_w_mk is None else column.top * frozen_w_mk / CONDUCTIVITY
    return top * surface_c, top.copy()


def conductor(
    column: Columns, depths_m: list[float], start_c: float, step_s: float = 3600.0, grid: Grid | None = None
) -> Conductor:
    """Ready to step, all cells at start_c."""
    cells, _ = (grid or open_ground()).weights_at(depths_m)
    return Conductor(column, step_s, np.full((1, len((grid or open_ground()).thickness_m)), start_c), cells[None])
