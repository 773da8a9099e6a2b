"""The air that plants feel: under a cover, and in the open."""

from __future__ import annotations

import numpy as np
from numpy.typing import NDArray

from cloche.core.soil.simulate import Trajectory

OPEN_COLDER_K = 1.5
"""Air among low plants in the open is colder on clear nights than at screen height [K] (assumption, low side of 2-4)."""


def felt_c(trajectory: Trajectory, covered: bool) -> NDArray[np.float64]:
    """What leaves feel, (hours, members): they face a cover as much as the air; in the open they lie below the screen.

    Parameters
    ----------
    trajectory : Trajectory
        A place's simulated hours.
    covered : bool
        Whether it stands under a cover.

    Returns
    -------
    ndarray
        (hours, members).
    """
    air = trajectory.air_c.astype(np.float64)
    return np.minimum(air, (air + trajectory.cover_c) / 2) if covered else air - OPEN_COLDER_K
