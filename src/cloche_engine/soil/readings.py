"""Readings as the engine takes them."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, replace
from enum import IntEnum

import numpy as np
from numpy.typing import NDArray


@dataclass(frozen=True)
class Readings:
    """Soil readings of one place in any order, arrays of (readings,).

    Attributes
    ----------
    hour : ndarray
        Hours since midnight of day 0.
    depth_m, temperature_c : ndarray
        Depth [m] and temperature [°C].
    """

    hour: NDArray[np.float64]
    depth_m: NDArray[np.float64]
    temperature_c: NDArray[np.float64]

    def __len__(self) -> int:
        return len(self.hour)


class What(IntEnum):
    """Quantity observed under a cover besides the soil temperature.

    These are the air at that moment, its minimum and maximum since the thermometer was reset, the gain of the soil over a
    bare bed beside it, and for a room the first three of its air.
    """

    AIR = 0
    LOWEST = 1
    HIGHEST = 2
    GAIN = 3
    ROOM = 4
    ROOM_LOW = 5
    ROOM_HIGH = 6


_ROOM = {What.ROOM: 1.2, What.ROOM_LOW: 1.0, What.ROOM_HIGH: 1.2}
SCATTER_K = {What.AIR: 1.5, What.LOWEST: 1.0, What.HIGHEST: 2.5, What.GAIN: 0.8} | _ROOM
SHARED_K = {What.AIR: 0.5, What.LOWEST: 0.5, What.HIGHEST: 1.0, What.GAIN: 0.4} | dict.fromkeys(_ROOM, 0.5)
"""Scatter of each, and what all of a kind err by together: where the thermometer hangs, sun on it, how beds differ
(assumptions)."""
GUESSED = 2.0
"""Scatter grows by this where nobody noted how far the cover stood open, only how it is usually aired (assumption)."""


@dataclass(frozen=True)
class AuxiliaryObservations:
    """Observations under covers, arrays of (rows,).

    Attributes
    ----------
    what : ndarray
        Values of `What`.
    hour, since_h : ndarray
        Hour of the observation and start of a minimum's or maximum's period [h since midnight of day 0].
    depth_m : ndarray
        Depth of a gain [m], otherwise 0.
    value : ndarray
        Temperature [°C], or gain [K].
    guessed : ndarray
        Whether the cover's opening had to be assumed.
    """

    what: NDArray[np.int64]
    hour: NDArray[np.float64]
    since_h: NDArray[np.float64]
    depth_m: NDArray[np.float64]
    value: NDArray[np.float64]
    guessed: NDArray[np.bool_]

    def __len__(self) -> int:
        return len(self.hour)

    @classmethod
    def of(
        cls, rows: Sequence[tuple[What, float, float, float, float]], guessed: Sequence[bool] | None = None
    ) -> AuxiliaryObservations:
        """Build the observations from rows of (what, hour, since_h, depth_m, value).

        Parameters
        ----------
        rows : Sequence[tuple[What, float, float, float, float]]
            What was seen: (what, hour, since_h, depth_m, value).
        guessed : Sequence[bool] | None
            Whether each row is doubtful; None: none is.
        """
        what, *rest = zip(*rows, strict=True) if rows else ((),) * 5
        hour, since_h, depth_m, value = (np.array(column, dtype=np.float64) for column in rest)
        doubts = np.zeros(len(rows), dtype=bool) if guessed is None else np.array(guessed, dtype=bool)
        return cls(np.array(what, dtype=np.int64), hour, since_h, depth_m, value, doubts)

    def within(self, first_h: float, last_h: float) -> AuxiliaryObservations:
        """Return the observations whose whole period lies between two hours.

        Parameters
        ----------
        first_h : float
            First hour that is wanted.
        last_h : float
            Last hour that is wanted.
        """
        mine = (self.since_h >= first_h) & (self.hour <= last_h)
        where = (self.hour[mine], self.since_h[mine], self.depth_m[mine])
        return AuxiliaryObservations(self.what[mine], *where, self.value[mine], self.guessed[mine])

    def shifted(self, hours: float) -> AuxiliaryObservations:
        """Return the observations on a clock that starts some hours later.

        Parameters
        ----------
        hours : float
            Hours by which to shift.
        """
        return replace(self, hour=self.hour - hours, since_h=self.since_h - hours)

    @property
    def scatter_k(self) -> NDArray[np.float64]:
        """Return the standard deviation of each observation, (rows,) [K]."""
        return np.array([SCATTER_K[What(w)] for w in self.what]) * np.where(self.guessed, GUESSED, 1.0)

    def covariance(self, factor: NDArray[np.float64] | float = 1.0) -> NDArray[np.float64]:
        """Return the covariance of the observation errors, (rows, rows) [K²].

        Parameters
        ----------
        factor : ndarray | float
            Factor of each row's own variance.

        Returns
        -------
        ndarray
            (rows, rows) [K²].
        """
        alike = self.what[:, None] == self.what[None, :]
        shared = np.array([SHARED_K[What(w)] for w in self.what])
        return np.asarray(np.where(alike, np.outer(shared, shared), 0.0) + np.diag(self.scatter_k**2 * factor))


NOTHING = AuxiliaryObservations.of([])
