"""Steps of columns with ice in them, cell by cell: the scheme of `conduction`, its stages solved by a safeguarded Newton.

Enthalpy is kept exactly: heat that freezes water is the heat that thaws it. All columns stand in one long tridiagonal
system, so that a round is one call of LAPACK. Conductance is that of the ice at the step's start.
"""

from __future__ import annotations

import numpy as np
from numpy.typing import NDArray
from scipy.linalg.lapack import dptsv

from cloche.core.soil.layers import FREEZING_RANGE_K, MIDDLE, STAGE, START, WEIGHT, Columns, Drive, net_heat

Array = NDArray[np.float64]

CLOSE_J_M2 = 0.01
"""A stage is solved when no cell's heat is off by more: a hundred-millionth of a day's sun."""
MOST_ROUNDS = 60
_A_HAIR = 1e-12


def step(columns: Columns, step_s: float, soil_c: Array, drive: Drive) -> tuple[Array, Array]:
    """End and mean of one step [°C], (columns, cells) each."""
    reach = STAGE * step_s
    conductance = columns.conductance_at(soil_c)
    held = columns.enthalpy(soil_c)
    start = net_heat(conductance, columns, drive, soil_c)
    middle = _stage(columns, conductance, reach, held + reach * start, drive, soil_c)
    end = _stage(columns, conductance, reach, MIDDLE * columns.enthalpy(middle) - START * held, drive, middle)
    return end, WEIGHT * (soil_c + middle) + STAGE * end


def _stage(columns: Columns, conductance: Array, reach: float, wanted: Array, drive: Drive, guess_c: Array) -> Array:
    """Soil whose heat, less what flows in meanwhile, is as wanted."""
    soil = guess_c.copy()
    leaves, beside = leaving(conductance, columns), _beside(conductance)
    leaves[:, 0] += drive.b
    for round_ in range(MOST_ROUNDS):
        missing = wanted - columns.enthalpy(soil) + reach * net_heat(conductance, columns, drive, soil)
        if np.abs(missing).max() < CLOSE_J_M2:
            break
        change = _solved(columns.heat_slope(soil) / reach + leaves, beside, missing / reach)
        soil = _safeguarded(soil, soil + change, round_)
    return soil


def _safeguarded(before: Array, after: Array, round_: int) -> Array:
    """Never across a kink of the enthalpy at one go: stop just beyond it, so that the next slope is the right one."""
    cold = -FREEZING_RANGE_K
    mushy = (before < 0) & (before > cold)
    result = np.where((before >= 0) & (after < 0), -_A_HAIR, after)
    result = np.where(mushy & (after >= 0), 0.0, result)
    result = np.where(mushy & (after <= cold), cold, result)
    result = np.where((before <= cold) & (after > cold), cold + _A_HAIR, result)
    return np.asarray((before + result) / 2 if round_ > MOST_ROUNDS // 2 else result)


def leaving(conductance: Array, columns: Columns) -> Array:
    """Diagonal of the conduction matrix."""
    diagonal = np.zeros_like(columns.capacity)
    diagonal[:, :-1] += conductance
    diagonal[:, 1:] += conductance
    diagonal[:, -1] += columns.bottom
    return diagonal


def _beside(conductance: Array) -> Array:
    """Off-diagonal of all columns in one: nothing links the last cell of one with the first of the next."""
    count, cells = conductance.shape[0], conductance.shape[1] + 1
    beside = np.zeros((count, cells))
    beside[:, :-1] = -conductance
    return beside.reshape(-1)[:-1]


def _solved(diagonal: Array, beside: Array, right: Array) -> Array:
    _, _, solved, failed = dptsv(diagonal.reshape(-1), beside, right.reshape(-1))
    if failed:
        raise ArithmeticError(f"The soil's heat has no solution at row {failed}: a capacity or conductance is not positive.")
    return np.asarray(solved).reshape(right.shape)
