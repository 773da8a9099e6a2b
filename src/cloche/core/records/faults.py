"""What probes say when they do not measure, and clocks that do not tell the time."""

from __future__ import annotations

from datetime import timedelta
from enum import IntEnum

import numpy as np
from numpy.typing import ArrayLike, NDArray

from cloche.core.quantities import SOIL_C

DISCONNECTED_C, POWER_ON_C = -127.0, 85.0
"""One-wire digital thermometers give -127 when they do not answer and 85 before their first conversion [DS18B20]."""
AGREE_C = 0.06
LEAST_SILENCE = timedelta(hours=2)
MISSED = 3


class Fault(IntEnum):
    """Why a value is kept but counts for nothing."""

    NONE = 0
    DISCONNECTED = 1
    POWER_ON = 2
    OUTSIDE = 3


def faults(temperature_c: ArrayLike) -> NDArray[np.int16]:
    """The fault of each value; any shape, [°C]. Not a number counts as outside. 85 °C itself is outside any garden's soil.

    Parameters
    ----------
    temperature_c : array_like
        Temperature [°C].

    Returns
    -------
    NDArray[np.int16]
    """
    value = np.asarray(temperature_c, dtype=np.float64)
    fault = np.where((value >= SOIL_C[0]) & (value <= SOIL_C[1]), Fault.NONE, Fault.OUTSIDE)
    fault = np.where(np.abs(value - DISCONNECTED_C) <= AGREE_C, Fault.DISCONNECTED, fault)
    return np.where(np.abs(value - POWER_ON_C) <= AGREE_C, Fault.POWER_ON, fault).astype(np.int16)


def silent_after(every: timedelta | None) -> timedelta:
    """How long a logger may say nothing before it is missed: three of its intervals, two hours at least.

    Parameters
    ----------
    every : timedelta | None
        The logger's interval; None: not known.

    Returns
    -------
    timedelta
    """
    return LEAST_SILENCE if every is None else max(MISSED * every, LEAST_SILENCE)
