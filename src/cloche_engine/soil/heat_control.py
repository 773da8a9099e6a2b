"""Heat from below and what switches it: nothing, the clock, a thermostat with hysteresis, or a hotbed's own fading."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import replace
from typing import NamedTuple

import numpy as np
from numpy.typing import NDArray

from cloche_engine.compiled import lean
from cloche_engine.heat.source import Heating
from cloche_engine.soil.grid import Grid

Array = NDArray[np.float64]
Index = NDArray[np.int64]


TOPPED_SHARE = 0.5
"""What is added to a sunken hotbed, as a share of what it was filled with (assumption)."""
NO_HOTBED = -1.0


FLUSH_D = 0.8
"""A first flush is at its height after so many times the days that a heap takes to rise (assumption)."""


@lean
def hotbed_share(days: float, rise_d: float, fade_d: float, flush: float) -> float:
    """Return the share of a hotbed's lasting power some days after it was filled.

    It rises over days and fades over weeks, and is 0 before the filling.

    Parameters
    ----------
    days : float
        Days since it was filled.
    rise_d : float
        Days over which it rises [d].
    fade_d : float
        Days over which it fades to a third [d].
    flush : float
        How strong its first heat is besides, which is over in a week or so.
    """
    if days <= 0:
        return 0.0
    part = days / (FLUSH_D * rise_d)
    first = flush * part * part * np.exp(2.0 * (1.0 - part))
    return (1 - np.exp(-days / rise_d)) * np.exp(-days / fade_d) + first


def filled_again(fills: Sequence[Heating]) -> tuple[Heating, ...]:
    """Combine several fillings of a hotbed in order of their days.

    Each one continues from what the earlier ones still give.

    Parameters
    ----------
    fills : Sequence[Heating]
        Each by itself, as by `hotbed.heating_of`.
    """
    sources: list[Heating] = []
    for fill in fills:
        left = _still_gives(sources[-1], fill.filled_h) if sources else 0.0
        sources.append(replace(fill, power_w_m2=fill.power_w_m2 + left))
    return tuple(sources)


def _still_gives(heap: Heating, hour: float) -> float:
    rise_d, fade_d = heap.fading_d or (1.0, 1.0)
    return heap.power_w_m2 * hotbed_share((hour - heap.filled_h) / 24.0, rise_d, fade_d, heap.flush)


class Heat(NamedTuple):
    """Hourly heating of all cases, arrays of (hours, cases), with no case at all if nothing is heated.

    Attributes
    ----------
    watts_m2 : ndarray
        Power without a thermostat's cuts [W/m²].
    cell, probe : ndarray
        Cell in which the heat is released and cell in which the thermostat measures.
    start_c, stop_c : ndarray
        Thermostat limits [°C], -inf and inf for always on.
    full_c, none_c : ndarray
        Element temperatures at which a self-regulating source begins to ease and gives nothing [°C], inf for others.
    rise_d, fade_d, flush, filled_h, topped_h : ndarray
        Course of a hotbed; `rise_d` is NO_HOTBED elsewhere, `topped_h` inf if it was not topped up.
    """

    watts_m2: Array
    cell: Index
    probe: Index
    start_c: Array
    stop_c: Array
    full_c: Array
    none_c: Array
    rise_d: Array
    fade_d: Array
    flush: Array
    filled_h: Array
    topped_h: Array

    @property
    def is_ruled(self) -> bool:
        """Return whether a thermostat switches any source."""
        return bool(np.isfinite(self.start_c).any())


def heat_of(heatings: list[tuple[Heating, ...]], grids: list[Grid], hours: int) -> Heat:
    """Return the heating of the cases over a run. Of several sources at one time, the latest counts.

    Parameters
    ----------
    heatings : list[tuple[Heating, ...]]
        The heat sources of each case.
    grids : list[Grid]
        The columns' grids, by case.
    hours : int
        Number of hours.
    """
    shape = (hours, len(heatings)) if any(heatings) else (0, 0)
    cell, probe = np.zeros(shape, dtype=np.int64), np.zeros(shape, dtype=np.int64)
    start, stop, rise = np.full(shape, -np.inf), np.full(shape, np.inf), np.full(shape, NO_HOTBED)
    full, none = np.full(shape, np.inf), np.full(shape, np.inf)
    fade, flush, filled, topped = np.ones(shape), np.zeros(shape), np.zeros(shape), np.full(shape, np.inf)
    heat = Heat(np.zeros(shape), cell, probe, start, stop, full, none, rise, fade, flush, filled, topped)
    for i, (sources, grid) in enumerate(zip(heatings, grids, strict=True)):
        for heating in sorted(sources, key=lambda source: source.during[0]):
            _put(heat, i, heating, grid)
    return heat


def _put(heat: Heat, i: int, heating: Heating, grid: Grid) -> None:
    hours = len(heat.watts_m2)
    there = slice(int(np.clip(np.floor(heating.during[0]), 0, hours)), int(np.clip(np.ceil(heating.during[1]), 0, hours)))
    heat.watts_m2[there, i] = [heating.power_w_m2 * heating.share_of_hour(hour) for hour in range(there.start, there.stop)]
    heat.cell[there, i] = np.argmin(np.abs(grid.centre_m - heating.depth_m))
    heat.probe[there, i] = np.argmin(np.abs(grid.centre_m - heating.probe_m))
    heat.start_c[there, i] = heating.start_c if heating.is_ruled else -np.inf
    heat.stop_c[there, i] = heating.stop_c if heating.is_ruled else np.inf
    heat.full_c[there, i], heat.none_c[there, i] = heating.eases_c
    if heating.fading_d:
        heat.rise_d[there, i], heat.fade_d[there, i] = heating.fading_d
        heat.flush[there, i], heat.filled_h[there, i] = heating.flush, heating.filled_h
        heat.topped_h[there, i] = np.inf if heating.topped_h is None else heating.topped_h
    else:
        heat.rise_d[there, i] = NO_HOTBED


@lean
def watts_of(heat: Heat, hour: int, case: int, rise: float, fade: float) -> float:
    """Return the power of a case during an hour [W/m²].

    Parameters
    ----------
    heat : Heat
        Heat sources of the batch.
    hour : int
        Hour of the run.
    case : int
        Number of the case in its batch.
    rise : float
        Learned factor of the days over which a hotbed rises.
    fade : float
        Learned factor of the days over which it fades.
    """
    watts = heat.watts_m2[hour, case]
    if heat.rise_d[hour, case] < 0.0 or watts == 0.0:
        return watts
    rise_d, fade_d, flush = heat.rise_d[hour, case] * rise, heat.fade_d[hour, case] * fade, heat.flush[hour, case]
    share = hotbed_share((hour + 0.5 - heat.filled_h[hour, case]) / 24.0, rise_d, fade_d, flush)
    return watts * (share + TOPPED_SHARE * hotbed_share((hour + 0.5 - heat.topped_h[hour, case]) / 24.0, rise_d, fade_d, flush))


@lean
def eased(watts: float, element_c: float, full_c: float, none_c: float) -> float:
    """Return what a self-regulating source gives of its power at the temperature of its element [W/m²].

    Parameters
    ----------
    watts : float
        Its full power [W/m²].
    element_c : float
        Temperature of the element [°C].
    full_c : float
        Temperature up to which it gives all of it [°C]; inf for a source that does not regulate itself.
    none_c : float
        Temperature from which it gives nothing [°C].
    """
    if element_c <= full_c:
        return watts
    return watts * max(none_c - element_c, 0.0) / (none_c - full_c)


@lean
def is_on(probe_c: float, start_c: float, stop_c: float, was_on: bool) -> bool:
    """Return whether the thermostat is on.

    It turns on below `start_c` and off above `stop_c`, and otherwise stays as it was. Without limits (inf) it is always on.

    Parameters
    ----------
    probe_c : float
        Temperature at the thermostat's probe [°C].
    start_c : float
        Temperature below which it switches on [°C].
    stop_c : float
        Temperature above which it switches off [°C].
    was_on : bool
        Whether it was on.
    """
    if probe_c < start_c or stop_c == np.inf:
        return True
    return was_on and probe_c <= stop_c
