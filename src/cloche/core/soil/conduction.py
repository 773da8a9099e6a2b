"""Heat in many soil columns at once: implicit, second order, L-stable, with freezing in enthalpy form.

One step is TR-BDF2 [Bank1985]: a trapezoidal stage to 2 - sqrt(2) of the step, then a backward difference, both with the same
matrix. Where nothing freezes that matrix never changes, so each column is taken apart into its own modes once: a step is then a
handful of whole-array operations, and only the surface couples the modes. Columns with ice, or about to have some, are
stepped cell by cell in `freezing`, by the same scheme.
"""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from cloche.core.soil import freezing
from cloche.core.soil.layers import MIDDLE, STAGE, START, WEIGHT, Columns, Drive

Array = NDArray[np.float64]


@dataclass(frozen=True)
class Step:
    """Means over a step. points_c: at the points asked for, (points, columns) [°C]. first_c: of the
    first cell [°C], and flux_w_m2 through the surface, (columns,)."""

    points_c: Array
    first_c: Array
    flux_w_m2: Array


class Conductor:
    """Columns of constant make-up and their state, stepped by a constant time.

    soil_c: (columns, cells) at the start. points: weights (columns, points, cells) of what each step reports. side_per_s:
    (columns,) rate at which every cell follows what stands beside it.
    """

    def __init__(self, columns: Columns, step_s: float, soil_c: Array, points: Array, side_per_s: Array | float = 0.0) -> None:
        self.columns, self.step_s = columns, step_s
        self.side_per_s = np.broadcast_to(np.asarray(side_per_s, dtype=np.float64), columns.bottom.shape).copy()
        self._reach = STAGE * step_s
        decay = self._take_apart() + self.side_per_s
        self._keep = 1.0 - self._reach * decay
        self._share = 1.0 / (1.0 + self._reach * decay)
        to_cells, to_modes = self._to_cells, self._to_modes
        self._first, self._last = _by_mode(to_cells[:, 0]), _by_mode(to_cells[:, -1])
        self._deep = self._reach * self.modes_of_heat(-1) * columns.bottom
        self._push_first = self._reach * self.modes_of_heat(0)
        self._first_share = self._first * self._share
        self._answer = self._share * self._push_first
        self._answer_first = (self._first * self._answer).sum(axis=0)
        self._point_weights = points
        self._points = np.ascontiguousarray(np.matmul(points, to_cells).transpose(1, 2, 0))
        self.one = _by_mode(to_modes.sum(axis=2))
        self.modes = _by_mode(_apply(to_modes, soil_c))
        self._icy = np.flatnonzero(soil_c.min(axis=1) < 0.0)
        self._icy_c = soil_c[self._icy]
        self._gather()

    def _take_apart(self) -> Array:
        """Eigenmodes of the symmetrised conduction matrix of every column; their decay rates [1/s], (modes, columns)."""
        columns = self.columns
        root = np.sqrt(columns.capacity)
        count, cells = root.shape
        matrix = np.zeros((count, cells, cells))
        inner = np.arange(cells - 1)
        matrix[:, inner, inner + 1] = matrix[:, inner + 1, inner] = -columns.conductance / (root[:, 1:] * root[:, :-1])
        matrix[:, np.arange(cells), np.arange(cells)] = freezing.leaving(columns.conductance, columns) / columns.capacity
        decay, vectors = np.linalg.eigh(matrix)
        self._to_cells = vectors / root[:, :, None]  # column, cell, mode
        self._to_modes = np.ascontiguousarray((vectors * root[:, :, None]).transpose(0, 2, 1))  # column, mode, cell
        return _by_mode(np.maximum(decay, 0.0))

    @property
    def first_c(self) -> Array:
        """Temperature of the first cell [°C], (columns,)."""
        return np.asarray((self._first * self.modes).sum(axis=0))

    def cell_c(self, cell: int) -> Array:
        """Temperature of one cell of every column [°C], (columns,)."""
        return np.asarray(np.einsum("cm,mc->c", self._to_cells[:, cell], self.modes))

    @property
    def soil_c(self) -> Array:
        """Temperature of every cell [°C], (columns, cells)."""
        soil = _apply(self._to_cells, self.modes.T)
        soil[self._icy] = self._icy_c
        return soil

    def modes_of_heat(self, cell: int) -> Array:
        """Change of the modes by one W/m² into a cell for a second, (modes, columns)."""
        return _by_mode(self._to_modes[:, :, cell] / self.columns.capacity[:, cell, None])

    def step(self, a: Array, b: Array, deep_c: Array, beside: Array | None = None, heat: Array | None = None) -> Step:
        """One step under a surface flux a - b T [W/m²] into the first cell; moves the state on.

        beside: modes of what stands at the side. heat: rate of change of the modes by sources [1/s].
        """
        modes = self.modes
        push = self._deep * deep_c
        if beside is not None:
            push += (self._reach * self.side_per_s) * beside
        if heat is not None:
            push += self._reach * heat
        first = (self._first * modes).sum(axis=0)
        right = self._keep * modes
        right += self._push_first * (a - b * first)
        right += 2.0 * push
        middle, middle_first = self._solve(right, a, b)
        right = MIDDLE * middle
        right -= START * modes
        right += push
        end, end_first = self._solve(right, a, b)
        mean = modes + middle
        mean *= WEIGHT
        mean += STAGE * end
        first_mean = WEIGHT * (first + middle_first) + STAGE * end_first
        points = np.einsum("zmc,mc->zc", self._points, mean)
        self._find_ice(np.minimum(middle_first, end_first), (self._last * end).sum(axis=0))
        if len(self._icy):
            drive = self._drive(a, b, deep_c, beside, heat)
            mean_c = self._step_with_ice(drive, end)
            first_mean[self._icy] = mean_c[:, 0]
            points[:, self._icy] = np.einsum("czn,cn->zc", self._point_weights[self._icy], mean_c)
        self.modes = end
        return Step(points, first_mean, a - b * first_mean)

    def _solve(self, right: Array, a: Array, b: Array) -> tuple[Array, Array]:
        """(1 + reach (decay + surface)) modes = right; modes and the first cell's temperature."""
        free = (self._first_share * right).sum(axis=0)
        first = (free + self._answer_first * a) / (1.0 + self._answer_first * b)
        right *= self._share
        right += self._answer * (a - b * first)
        return right, first

    def _find_ice(self, top_c: Array, bottom_c: Array) -> None:
        """Columns freeze from an end; those whose every cell has thawed return to their modes."""
        thawed = self._icy_c.min(axis=1) >= 0.0 if len(self._icy) else np.zeros(0, dtype=bool)
        cold = (top_c < 0.0) | (bottom_c < 0.0)
        cold[self._icy[~thawed]] = True
        icy = np.flatnonzero(cold)
        if len(icy) == len(self._icy) and (icy == self._icy).all():
            return
        soil = _apply(self._to_cells[icy], self.modes[:, icy].T)
        kept = np.isin(icy, self._icy)
        soil[kept] = self._icy_c[np.isin(self._icy, icy)]
        self._icy, self._icy_c = icy, soil
        self._gather()

    def _gather(self) -> None:
        self._icy_columns = self.columns.only(self._icy)
        self._icy_to_modes, self._icy_to_cells = self._to_modes[self._icy], self._to_cells[self._icy]

    def _drive(self, a: Array, b: Array, deep_c: Array, beside: Array | None, heat: Array | None) -> Drive:
        """What acts on the columns with ice, cell by cell."""
        icy, capacity = self._icy, self._icy_columns.capacity
        source = np.zeros_like(capacity)
        if beside is not None:
            at_side = _apply(self._icy_to_cells, beside[:, icy].T)
            source += capacity * self.side_per_s[icy, None] * (at_side - self._icy_c)
        if heat is not None:
            source += capacity * _apply(self._icy_to_cells, heat[:, icy].T)
        return Drive(a[icy], b[icy], source, np.broadcast_to(deep_c, b.shape)[icy])

    def _step_with_ice(self, drive: Drive, end: Array) -> Array:
        """The same step cell by cell; replaces these columns' end modes, returns their mean over the step [°C]."""
        self._icy_c, mean_c = freezing.step(self._icy_columns, self.step_s, self._icy_c, drive)
        end[:, self._icy] = _apply(self._icy_to_modes, self._icy_c).T
        return mean_c


def _apply(matrices: Array, vectors: Array) -> Array:
    """Each column's matrix on its vector: (columns, n, n), (columns, n) to (columns, n)."""
    return np.asarray(np.matmul(matrices, vectors[:, :, None])[:, :, 0])


def _by_mode(values: Array) -> Array:
    return np.ascontiguousarray(values.T)
