"""How much moister or drier a surface is than reckoned: watering nobody logged, a canopy, a crust, as a process of its own.

Wetness added at knots two days apart, straight between them, each knot remembering the one before for two months
(Ornstein-Uhlenbeck; lengths: assumption). The readings tell the knots, and it wanders on from the last of them.
"""

from __future__ import annotations

import numpy as np
from numpy.typing import NDArray

Array = NDArray[np.float64]

KNOT_D, MEMORY_D = 2.0, 60.0
REMEMBERS = float(np.exp(-KNOT_D / MEMORY_D))
FRESH = float(np.sqrt(1 - REMEMBERS**2))


def knots_over(hours: float) -> int:
    """Return the number of knots for a number of hours, at least two.

    Parameters
    ----------
    hours : float
        Hours by which to shift.
    """
    return max(int(np.ceil(hours / (24 * KNOT_D))), 1) + 1


def path(z: Array, sd: float) -> Array:
    """Return the wetness added at each knot from independent standard normals, (knots, members).

    Parameters
    ----------
    z : ndarray
        Values before scaling, in standard deviations.
    sd : float
        Standard deviation.

    Returns
    -------
    ndarray
        (knots, members).
    """
    steps = z.copy()
    for k in range(1, len(z)):
        steps[k] = REMEMBERS * steps[k - 1] + FRESH * z[k]
    return sd * steps


def hourly(knots: Array, first_h: float, hours: int) -> Array:
    """Interpolate knots (knots, members), the first at `first_h`, to hours from 0 on, (hours, members).

    The values are constant before the first and after the last knot.

    Parameters
    ----------
    knots : ndarray
        (knots, members), values at the knots.
    first_h : float
        First hour that is wanted.
    hours : int
        Number of hours.

    Returns
    -------
    ndarray
        (hours, members).
    """
    position = np.clip((np.arange(hours) + 0.5 - first_h) / (24 * KNOT_D), 0, len(knots) - 1)
    below = np.minimum(position.astype(np.intp), len(knots) - 2)
    part = (position - below)[:, None]
    return np.asarray(knots[below] * (1 - part) + knots[below + 1] * part)
