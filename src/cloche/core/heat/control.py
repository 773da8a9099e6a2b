"""Heat from below and what switches it: nothing, the clock, a thermostat with hysteresis, or a hotbed's own fading."""

from __future__ import annotations

import numpy as np
from numpy.typing import NDArray

from cloche.core.soil.bed import Heating
from cloche.core.soil.conduction import Conductor
from cloche.core.soil.lanes import Batch

Array = NDArray[np.float64]


def hotbed_share(hours_since_fill: float, rise_d: float, fade_d: float) -> float:
    """Share of a hotbed's peak-free power: it rises over days and fades over weeks; 0 before the fill."""
    days = hours_since_fill / 24.0
    return float((1 - np.exp(-days / rise_d)) * np.exp(-days / fade_d)) if days > 0 else 0.0


class Heater:
    """The heating of every lane of a batch, with the state of its switches."""

    def __init__(self, batch: Batch) -> None:
        pairs = zip(batch.lanes, batch.slices, strict=True)
        self._heated = [(lane.bed.heating, lane, s) for lane, s in pairs if lane.bed.heating]
        self._factor = batch.factor("heat")
        self._on = np.ones(batch.columns, dtype=bool)
        self.power_w_m2 = np.zeros(batch.columns)
        self._unit: Array | None = None

    def enter(self, conductor: Conductor) -> None:
        """Take the modes of a stretch's columns."""
        self._conductor = conductor
        if not self._heated:
            return
        self._unit = np.zeros_like(conductor.modes)
        for heating, lane, s in self._heated:
            cell = int(np.argmin(np.abs(lane.grid.centre_m - heating.depth_m)))
            self._unit[:, s] = conductor.modes_of_heat(cell)[:, s]

    def modes_at(self, hour: int) -> Array | None:
        """Rate of change of the modes by all heating in an hour [1/s]; None where there is none."""
        if self._unit is None:
            return None
        for heating, lane, s in self._heated:
            self.power_w_m2[s] = heating.power_w_m2 * self._factor[s] * self._share(heating, hour, s, lane.grid.centre_m)
        return self._unit * self.power_w_m2

    def _share(self, heating: Heating, hour: int, s: slice, depth_m: Array) -> Array | float:
        of_day = hour % 24 + 0.5
        inside = (
            heating.from_h <= of_day < heating.to_h
            if heating.from_h <= heating.to_h
            else (of_day >= heating.from_h or of_day < heating.to_h)
        )
        if not inside:
            return 0.0
        if heating.fading_d:
            return hotbed_share(hour + 0.5 - heating.filled_h, *heating.fading_d)
        if heating.start_c is None or heating.stop_c is None:
            return 1.0
        probe = self._conductor.cell_c(int(np.argmin(np.abs(depth_m - heating.probe_m))))[s]
        self._on[s] = np.where(probe < heating.start_c, True, np.where(probe > heating.stop_c, False, self._on[s]))
        return self._on[s].astype(np.float64)
