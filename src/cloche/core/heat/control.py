"""Heat from below and what switches it: nothing, the clock, a thermostat with hysteresis, or a hotbed's own fading."""

from __future__ import annotations

from typing import NamedTuple

import numpy as np
from numpy.typing import NDArray

from cloche.core.compiled import compiled
from cloche.core.soil.bed import Heating
from cloche.core.soil.grid import Grid

Array = NDArray[np.float64]
Index = NDArray[np.int64]


def hotbed_share(hours_since_fill: float, rise_d: float, fade_d: float) -> float:
    """Share of a hotbed's peak-free power: it rises over days and fades over weeks; 0 before the fill."""
    days = hours_since_fill / 24.0
    return float((1 - np.exp(-days / rise_d)) * np.exp(-days / fade_d)) if days > 0 else 0.0


class Heat(NamedTuple):
    """Heating of all lanes. watts_m2: where no thermostat cuts it, (hours, lanes), without any lane if nothing is heated;
    cell: where it enters, probe: where a thermostat looks, start_c, stop_c of it (-inf, inf: always on), (lanes,)."""

    watts_m2: Array
    cell: Index
    probe: Index
    start_c: Array
    stop_c: Array


def heat_of(heatings: list[Heating | None], grids: list[Grid], hours: int) -> Heat:
    """The heating of lanes over the hours of a run."""
    if not any(heatings):
        none = np.zeros(0, dtype=np.int64)
        return Heat(np.zeros((0, 0)), none, none, np.zeros(0), np.zeros(0))
    count = len(heatings)
    heat = Heat(
        np.zeros((hours, count)),
        np.zeros(count, dtype=np.int64),
        np.zeros(count, dtype=np.int64),
        np.full(count, -np.inf),
        np.full(count, np.inf),
    )
    for i, (heating, grid) in enumerate(zip(heatings, grids, strict=True)):
        if heating:
            heat.watts_m2[:, i] = [heating.power_w_m2 * _share(heating, hour) for hour in range(hours)]
            heat.cell[i] = np.argmin(np.abs(grid.centre_m - heating.depth_m))
            heat.probe[i] = np.argmin(np.abs(grid.centre_m - heating.probe_m))
            if heating.start_c is not None and heating.stop_c is not None and not heating.fading_d:
                heat.start_c[i], heat.stop_c[i] = heating.start_c, heating.stop_c
    return heat


def _share(heating: Heating, hour: int) -> float:
    """Of its power by clock and age, 0-1."""
    of_day, start, end = hour % 24 + 0.5, heating.from_h, heating.to_h
    if not (start <= of_day < end if start <= end else of_day >= start or of_day < end):
        return 0.0
    return hotbed_share(hour + 0.5 - heating.filled_h, *heating.fading_d) if heating.fading_d else 1.0


@compiled
def is_on(probe_c: float, start_c: float, stop_c: float, was_on: bool) -> bool:
    """A thermostat's switch: on below start_c, off above stop_c, between them as it was."""
    if probe_c < start_c:
        return True
    return was_on and probe_c <= stop_c
