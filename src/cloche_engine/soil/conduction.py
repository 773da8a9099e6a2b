"""Heat through the column of ground, where it freezes too."""

from __future__ import annotations

from typing import NamedTuple

import numpy as np
from numpy.typing import NDArray

from cloche_engine.compiled import lean, woven
from cloche_engine.soil.layers import FREEZING_RANGE_K, MIDDLE, STAGE, START, WEIGHT, Columns, enthalpy, heat_slope, ice_share

Array = NDArray[np.float64]

CLOSE_J_M2 = 0.01
"""A stage is solved when no cell's heat is off by more: a hundred-millionth of a day's sun."""
MOST_ROUNDS = 60
_A_HAIR = 1e-12


@lean
def step_with_ice(c: int, columns: Columns, step_s: float, drive: tuple[float, float, float], soil: Array, work: Array) -> None:
    """Advance column c by one step, with freezing and thawing.

    `soil` (cells,) is changed in place; `work` as in `conduction.step`.

    Parameters
    ----------
    c : int
        Number of the column.
    columns : Columns
        The batch's columns: conductances, capacities, water that freezes.
    step_s : float
        Length of the step [s].
    drive : tuple[float, float, float]
        A and b of the surface flux a - b T [W/m²] into the first cell, and the temperature below [°C].
    soil : ndarray
        (cells,), temperatures, moved on [°C].
    work : ndarray
        Scratch memory, (rows, cells).
    """
    cells, reach = len(soil), STAGE * step_s
    mean, start, wanted, net, conductance = work[0], work[3], work[4], work[5], work[6]
    for i in range(cells - 1):
        ice = (ice_share(soil[i]) + ice_share(soil[i + 1])) / 2
        thawed = columns.conductance[c, i]
        conductance[i] = thawed + (columns.frozen_conductance[c, i] - thawed) * ice
    _net_heat(c, columns, drive, conductance, soil, work)
    for i in range(cells):
        start[i] = soil[i]
        wanted[i] = _held(c, columns, i, soil[i]) + reach * net[i]
    _stage(c, columns, reach, drive, soil, work)
    for i in range(cells):
        mean[i] = WEIGHT * (start[i] + soil[i])
        wanted[i] = MIDDLE * _held(c, columns, i, soil[i]) - START * _held(c, columns, i, start[i])
    _stage(c, columns, reach, drive, soil, work)
    for i in range(cells):
        mean[i] += STAGE * soil[i]


@lean
def _held(c: int, columns: Columns, i: int, soil_c: float) -> float:
    return float(enthalpy(soil_c, columns.capacity[c, i], columns.frozen_capacity[c, i], columns.latent[c, i]))


@lean
def _net_heat(
    c: int, columns: Columns, drive: tuple[float, float, float], conductance: Array, soil: Array, work: Array
) -> None:
    """Write the net heat into each cell to row 5 of work [W/m²]."""
    a, b, deep_c = drive
    net, cells = work[5], len(soil)
    above = a - b * soil[0]
    for i in range(cells):
        below = conductance[i] * (soil[i + 1] - soil[i]) if i + 1 < cells else columns.bottom[c] * (deep_c - soil[i])
        beside = columns.side_per_s[c, i] * columns.capacity[c, i] * (work[2, i] - soil[i])
        net[i] = work[1, i] + beside + above + below
        above = -below


@lean
def _stage(c: int, columns: Columns, reach: float, drive: tuple[float, float, float], soil: Array, work: Array) -> None:
    """Solve one implicit stage.

    The enthalpy minus the heat that flows in meanwhile has to reach the target in row 4 of work.
    """
    wanted, net, conductance, missing = work[4], work[5], work[6], work[7]
    for round_ in range(MOST_ROUNDS):
        _net_heat(c, columns, drive, conductance, soil, work)
        worst = 0.0
        for i in range(len(soil)):
            missing[i] = wanted[i] - _held(c, columns, i, soil[i]) + reach * net[i]
            worst = max(worst, abs(missing[i]))
        if worst < CLOSE_J_M2:
            return
        _change(c, columns, reach, drive[1], soil, work)
        for i in range(len(soil)):
            moved = _safeguarded(soil[i], soil[i] + missing[i])
            soil[i] = (soil[i] + moved) / 2 if round_ > MOST_ROUNDS // 2 else moved


@lean
def _change(c: int, columns: Columns, reach: float, b: float, soil: Array, work: Array) -> None:
    """Write the Newton step [K] for the residual in row 7 of work to the same row."""
    conductance, missing, upper = work[6], work[7], work[8]
    pivot, lowered = 1.0, 0.0
    for i in range(len(soil)):
        capacity = columns.capacity[c, i]
        diagonal = heat_slope(soil[i], capacity, columns.frozen_capacity[c, i], columns.latent[c, i]) / reach
        diagonal += columns.side_per_s[c, i] * capacity + (b if i == 0 else conductance[i - 1])
        diagonal += conductance[i] if i + 1 < len(soil) else columns.bottom[c]
        above = conductance[i - 1] if i > 0 else 0.0
        pivot = diagonal - above * (upper[i - 1] if i > 0 else 0.0)
        lowered = (missing[i] / reach + above * lowered) / pivot
        upper[i] = (conductance[i] if i + 1 < len(soil) else 0.0) / pivot
        missing[i] = lowered
    for i in range(len(soil) - 2, -1, -1):
        missing[i] += upper[i] * missing[i + 1]


@lean
def _safeguarded(before: float, after: float) -> float:
    """Limit a Newton step that would cross a kink of the enthalpy.

    It stops just beyond the kink, so that the next slope is the right one.
    """
    cold = -FREEZING_RANGE_K
    if before >= 0:
        return -_A_HAIR if after < 0 else after
    if before <= cold:
        return cold + _A_HAIR if after > cold else after
    return min(max(after, cold), 0.0)


WORK_ROWS = 11
"""Scratch rows that a step needs, and one more for a mean over several."""


class Ready(NamedTuple):
    """Factors of the elimination for unfrozen columns and one length of step.

    Attributes
    ----------
    held : ndarray
        Heat capacity over the length of a stage, (columns, cells) [W/m²K].
    lift, share : ndarray
        Factors of the upward elimination and of the substitution, (columns, cells).
    """

    step_s: float
    held: Array
    lift: Array
    share: Array


def prepare(columns: Columns, step_s: float) -> Ready:
    """Factorise the columns for steps of one length.

    Parameters
    ----------
    columns : Columns
        The batch's columns: conductances, capacities, water that freezes.
    step_s : float
        Length of the step [s].
    """
    held = columns.capacity / (STAGE * step_s)
    diagonal = held + columns.side_per_s * columns.capacity
    diagonal[:, :-1] += columns.conductance
    diagonal[:, 1:] += columns.conductance
    diagonal[:, -1] += columns.bottom
    lift = np.zeros_like(diagonal)
    for i in range(diagonal.shape[1] - 2, -1, -1):
        lift[:, i] = columns.conductance[:, i] / diagonal[:, i + 1]
        diagonal[:, i] -= columns.conductance[:, i] * lift[:, i]
    return Ready(step_s, held, lift, 1.0 / diagonal)


@woven
def step(c: int, columns: Columns, ready: Ready, drive: tuple[float, float, float], soil: Array, work: Array) -> bool:
    """Advance column c by one step and return whether it then holds ice.

    Parameters
    ----------
    c : int
        Number of the column.
    columns : Columns
        The batch's columns: conductances, capacities, water that freezes.
    ready : Ready
        The matrix of a step, factored.
    drive : tuple[float, float, float]
        a and b of the surface flux a - b T [W/m²] into the first cell, and the temperature below.
    soil : ndarray
        (cells,), moved on.
    work : ndarray
        Scratch (WORK_ROWS, cells): row 0 returns the mean over the step [°C], row 1 holds sources [W/m²] in each cell, row
        2 the temperature at its side.
    """
    cells = len(soil)
    coldest = 0.0
    for i in range(cells):
        coldest = min(coldest, soil[i])
    if coldest >= 0.0:
        coldest = _unfrozen(c, columns, ready, drive, soil, work)
        if coldest >= 0.0:
            for i in range(cells):
                soil[i] = work[4, i]
            return False
    step_with_ice(c, columns, ready.step_s, drive, soil, work)
    coldest = soil[0]
    for i in range(1, cells):
        coldest = min(coldest, soil[i])
    return bool(coldest < 0.0)


@lean
def _unfrozen(c: int, columns: Columns, ready: Ready, drive: tuple[float, float, float], soil: Array, work: Array) -> float:
    """Advance an unfrozen column and return the lowest temperature of any cell.

    The mean is left in row 0 and the end in row 4 of work. Each sweep upwards builds its right-hand side and eliminates,
    each sweep downwards solves.
    """
    a, b, deep_c = drive
    last, side = len(soil) - 1, columns.side_per_s[c]
    capacity, conductance = columns.capacity[c], columns.conductance[c]
    held, lift, share = ready.held[c], ready.lift[c], ready.share[c]
    mean, middle, end, push = work[0], work[3], work[4], work[5]
    # What the next cell needs stays in plain numbers: arrays would send it through memory.
    below_c = soil[last]
    flow, carried = columns.bottom[c] * (2 * deep_c - below_c), 0.0
    for i in range(last, 0, -1):
        above_c = soil[i - 1]
        rising = conductance[i - 1] * (below_c - above_c)
        pushed = work[1, i] + side[i] * capacity[i] * work[2, i]
        right = (held[i] - side[i] * capacity[i]) * below_c + flow - rising + 2 * pushed + carried
        push[i], middle[i] = pushed, right
        carried, flow, below_c = right * lift[i - 1], rising, above_c
    pushed = work[1, 0] + side[0] * capacity[0] * work[2, 0]
    first = 1.0 / (1.0 / share[0] + b)
    solved = first * ((held[0] - side[0] * capacity[0] - b) * below_c + flow + 2 * (a + pushed) + carried)
    first_wanted = held[0] * (MIDDLE * solved - START * below_c) + pushed + a
    coldest, middle[0] = solved, solved
    for i in range(1, last + 1):
        solved = middle[i] * share[i] + lift[i - 1] * solved
        middle[i] = solved
        coldest = min(coldest, solved)
    carried = columns.bottom[c] * deep_c
    for i in range(last, 0, -1):
        right = held[i] * (MIDDLE * middle[i] - START * soil[i]) + push[i] + carried
        end[i] = right
        carried = right * lift[i - 1]
    solved = first * (first_wanted + carried)
    coldest, end[0] = min(coldest, solved), solved
    mean[0] = WEIGHT * (soil[0] + middle[0]) + STAGE * solved
    for i in range(1, last + 1):
        solved = end[i] * share[i] + lift[i - 1] * solved
        end[i] = solved
        mean[i] = WEIGHT * (soil[i] + middle[i]) + STAGE * solved
        coldest = min(coldest, solved)
    return coldest
