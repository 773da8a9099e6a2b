"""Heat in soil columns: implicit, second order, L-stable, with freezing in enthalpy form.

One step is TR-BDF2 [Bank1985]: a trapezoidal stage to 2 - sqrt(2) of the step, then a backward difference, both with the same
matrix. Elimination runs from the bottom up, so that only its last row knows the surface and all else is prepared once. A column
with ice in it, or about to have some, is stepped in `freezing` by the same scheme.
"""

from __future__ import annotations

from typing import NamedTuple

import numpy as np
from numpy.typing import NDArray

from cloche.core.compiled import lean, woven
from cloche.core.soil.freezing import step_with_ice
from cloche.core.soil.layers import MIDDLE, STAGE, START, WEIGHT, Columns

Array = NDArray[np.float64]

WORK_ROWS = 11
"""Scratch rows that a step needs, and one more for a mean over several."""


class Ready(NamedTuple):
    """Unfrozen columns prepared for steps of one length. held [W/m²K]: capacity over what a stage reaches, (columns, cells);
    lift, share: factors of the elimination upwards and of the way back, (columns, cells)."""

    step_s: float
    held: Array
    lift: Array
    share: Array


def prepare(columns: Columns, step_s: float) -> Ready:
    """Columns ready to be stepped.

    Parameters
    ----------
    columns : Columns
        The batch's columns: conductances, capacities, water that freezes.
    step_s : float
        Length of the step [s].

    Returns
    -------
    Ready
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
    """One step of column c; whether it then holds ice.

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

    Returns
    -------
    bool
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
    """Mean in row 0, end in row 4 of work; the coldest that any cell came to. Each sweep upwards builds its right-hand side
    and eliminates, each sweep downwards solves."""
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
