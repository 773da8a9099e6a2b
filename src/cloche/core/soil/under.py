"""What a fitted place shows under its cover besides its soil: inside air as a thermometer there has it, and soil against a bare
bed's beside it."""

from __future__ import annotations

import numpy as np
from numpy.typing import NDArray

from cloche.core.soil.readings import Beside, What
from cloche.core.soil.simulate import Trajectory

Array = NDArray[np.float64]


def shown(beside: Beside, covered: Trajectory, bare: Trajectory | None, around_c: Array) -> Array:
    """What each row would show, (rows, members).

    Parameters
    ----------
    beside : Beside
        What was seen under the covers besides the soil: rows of kind, hour and value.
    covered : Trajectory
        Run of the covered ground.
    bare : Trajectory | None
        Run of the same ground without its covers, where gains are among the rows.
    around_c : ndarray
        Air of the room or garden about it, (hours, members) [°C].

    Returns
    -------
    ndarray
        (rows, members).
    """
    inside = covered.air_c.astype(np.float64)
    around = np.broadcast_to(around_c, inside.shape)
    seen = np.empty((len(beside), inside.shape[1]))
    for row in range(len(beside)):
        what, hour = What(beside.what[row]), float(beside.hour[row])
        since, until = int(beside.since_h[row]), max(int(np.ceil(hour)), int(beside.since_h[row]) + 1)
        air = around if what in (What.ROOM, What.ROOM_LOW, What.ROOM_HIGH) else inside
        if what in (What.AIR, What.ROOM):
            seen[row] = _at(air, hour)
        elif what in (What.LOWEST, What.ROOM_LOW):
            seen[row] = air[since:until].min(axis=0)
        elif what in (What.HIGHEST, What.ROOM_HIGH):
            seen[row] = air[since:until].max(axis=0)
        elif bare is not None:
            depth = float(beside.depth_m[row])
            seen[row] = _at(covered.at(depth).astype(np.float64), hour) - _at(bare.at(depth).astype(np.float64), hour)
    return seen


def _at(values: Array, hour: float) -> Array:
    """Hourly means (hours, members) at a moment."""
    spot = min(max(hour - 0.5, 0.0), len(values) - 1.0)
    below = min(int(spot), max(len(values) - 2, 0))
    part = spot - below
    return np.asarray(values[below] * (1 - part) + values[min(below + 1, len(values) - 1)] * part)
