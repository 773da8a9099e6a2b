"""The climate of the region about any point on land: monthly means, rain and height on a grid of a quarter of a degree."""

from __future__ import annotations

import lzma
from dataclasses import dataclass
from functools import lru_cache
from pathlib import Path
from typing import Any

import numpy as np
from numpy.typing import NDArray

FILE = Path(__file__).parent / "data" / "climate.xz"
CREDIT = "Contains modified Copernicus Climate Change Service information: ERA5, means of 2000 to 2025."
ROWS, COLUMNS, STEP_DEG = 721, 1440, 0.25
TENTHS, RAIN_STEPS = 10.0, 16.0
"""Steps in which values are kept: 0.1 K, and a sixteenth of the logarithm of 1 mm and the month's rain (3 to 6 %)."""
SEARCH_CELLS = 6
"""An island smaller than a cell takes the nearest cell within so many steps."""
KM_PER_DEG = 111.2


@dataclass(frozen=True)
class Region:
    """Monthly climate around a point, January first.

    Parameters
    ----------
    mean_c : ndarray
        Monthly means of the air at 2 m [°C], (12,).
    rain_mm : ndarray
        Monthly rain and melted snow [mm], (12,).
    relief_k : float
        Standard deviation of the yearly mean among the cells about it [K]: what hills and coasts leave open.
    away_km : float
        How far the nearest cell lies that is known; 0 within the grid.
    height_m : float
        Mean height of the ground that these means belong to [m].
    """

    mean_c: NDArray[np.float64]
    rain_mm: NDArray[np.float64]
    relief_k: float
    away_km: float
    height_m: float


@dataclass(frozen=True)
class Grid:
    """Cells on land or next to it, in rows from the North Pole and eastwards from Greenwich.

    Parameters
    ----------
    cells : ndarray of int
        Row * COLUMNS + column of each cell, ascending, (n,).
    tenths_c : ndarray of int16
        Monthly means in tenths of a degree, (12, n).
    rain : ndarray of uint8
        RAIN_STEPS * ln(1 + mm), (12, n).
    height_m : ndarray of int16
        Mean height of the ground, the sea counted as 0 [m], (1, n).
    """

    cells: NDArray[np.int32]
    tenths_c: NDArray[np.int16]
    rain: NDArray[np.uint8]
    height_m: NDArray[np.int16]

    def index_of(self, row: int, column: int) -> int | None:
        """Return the index of a cell in the arrays, None for open sea.

        Parameters
        ----------
        row : int
            From the north pole.
        column : int
            From Greenwich eastwards; columns go around the earth.
        """
        if not 0 <= row < ROWS:
            return None
        wanted = row * COLUMNS + column % COLUMNS
        at = int(np.searchsorted(self.cells, wanted))
        return at if at < len(self.cells) and int(self.cells[at]) == wanted else None

    def year_mean_c(self, rows: NDArray[np.int64], columns: NDArray[np.int64]) -> NDArray[np.float64]:
        """Return the annual mean of every cell in a block [°C].

        Parameters
        ----------
        rows : ndarray of int
            From the north pole, (rows,).
        columns : ndarray of int
            From Greenwich eastwards, (columns,); they go around the earth.

        Returns
        -------
        ndarray
            (rows, columns) [°C], nan over open sea and beyond the poles.
        """
        wanted = rows[:, None] * COLUMNS + columns[None, :] % COLUMNS
        at = np.minimum(np.searchsorted(self.cells, wanted.astype(self.cells.dtype)), len(self.cells) - 1)
        there = (self.cells[at] == wanted) & ((rows >= 0) & (rows < ROWS))[:, None]
        return np.where(there, self.tenths_c[:, at].mean(axis=0) / 10, np.nan)


def pack(grid: Grid) -> bytes:
    """Compress a grid: first which cells exist, then differences between months and cells.

    Parameters
    ----------
    grid : Grid
        What is to be shipped.
    """
    known = np.zeros(ROWS * COLUMNS, dtype=bool)
    known[grid.cells] = True
    changes = [
        np.diff(np.diff(values, axis=0, prepend=values.dtype.type(0)), axis=1, prepend=values.dtype.type(0))
        for values in (grid.tenths_c, grid.rain, grid.height_m)
    ]
    parts = [np.packbits(known).tobytes(), *(part.tobytes() for part in changes)]
    return lzma.compress(b"".join(parts), preset=9 | lzma.PRESET_EXTREME)


def unpack(packed: bytes) -> Grid:
    """Restore a compressed grid.

    Parameters
    ----------
    packed : bytes
        The whole file.

    Raises
    ------
    lzma.LZMAError
        Where it is no such file.
    """
    plain = lzma.decompress(packed)
    bits = ROWS * COLUMNS // 8
    cells = np.flatnonzero(np.unpackbits(np.frombuffer(plain[:bits], dtype=np.uint8))).astype(np.int32)
    count = 12 * len(cells)
    tenths = np.frombuffer(plain, dtype=np.int16, count=count, offset=bits).reshape(12, -1)
    rain = np.frombuffer(plain, dtype=np.uint8, count=count, offset=bits + 2 * count).reshape(12, -1)
    height = np.frombuffer(plain, dtype=np.int16, count=len(cells), offset=bits + 3 * count).reshape(1, -1)
    return Grid(cells, _summed(tenths), _summed(rain), _summed(height))


def _summed(changes: NDArray[Any]) -> NDArray[Any]:
    along = np.cumsum(changes, axis=1, dtype=changes.dtype)
    return np.cumsum(along, axis=0, dtype=changes.dtype)


@lru_cache(maxsize=1)
def shipped() -> Grid:
    """Return the grid that comes with the application.

    Returns
    -------
    Grid
        See `docs/sources.md`.
    """
    return unpack(FILE.read_bytes())


def region_at(latitude_deg: float, longitude_deg: float, grid: Grid | None = None) -> Region | None:
    """Return the climate around a point.

    Between the four cells about it, as many of them as are known (bilinear); on a small island the nearest cell.

    Parameters
    ----------
    latitude_deg : float
        North positive [°].
    longitude_deg : float
        East positive [°].
    grid : Grid, optional
        Another than the shipped one.

    Returns
    -------
    Region or None
        None far out at sea.
    """
    grid = grid or shipped()
    y, x = (90 - latitude_deg) / STEP_DEG, (longitude_deg % 360) / STEP_DEG
    top, left = int(np.floor(y)), int(np.floor(x))
    weights: dict[int, float] = {}
    for row, across in ((top, top + 1 - y), (top + 1, y - top)):
        for column, along in ((left, left + 1 - x), (left + 1, x - left)):
            index = grid.index_of(row, column)
            if index is not None and across * along > 0:
                weights[index] = across * along
    away_km = 0.0
    if not weights:
        nearest = _nearest(grid, y, x, latitude_deg)
        if nearest is None:
            return None
        index, away_km = nearest
        weights = {index: 1.0}
    at, share = np.array(list(weights)), np.array(list(weights.values()))
    share = share / share.sum()
    mean_c = (grid.tenths_c[:, at] / TENTHS) @ share
    rain_mm = np.expm1(grid.rain[:, at] / RAIN_STEPS) @ share
    height_m = float(grid.height_m[0, at] @ share)
    return Region(mean_c, rain_mm, _relief(grid, round(y), round(x)), away_km, height_m)


def _nearest(grid: Grid, y: float, x: float, latitude_deg: float) -> tuple[int, float] | None:
    best: tuple[float, int] | None = None
    narrow = float(np.cos(np.radians(latitude_deg)))
    around = range(-SEARCH_CELLS, SEARCH_CELLS + 1)
    for row in (round(y) + step for step in around):
        for column in (round(x) + step for step in around):
            index = grid.index_of(row, column)
            if index is not None:
                away = float(np.hypot(row - y, (column - x) * narrow)) * STEP_DEG * KM_PER_DEG
                best = min(best, (away, index)) if best else (away, index)
    return (best[1], best[0]) if best else None


def _relief(grid: Grid, row: int, column: int) -> float:
    steps = [(r, c) for r in (-1, 0, 1) for c in (-1, 0, 1)]
    near = [index for r, c in steps if (index := grid.index_of(row + r, column + c)) is not None]
    return float(np.std(grid.tenths_c[:, near].mean(axis=0)) / TENTHS) if len(near) > 1 else 0.0
