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


TOPPED_SHARE = 0.5
"""What is added to a sunken hotbed, as a share of what it was filled with (assumption)."""
NO_HOTBED = -1.0


FLUSH_D = 0.8
"""A first flush is at its height after so many times the days that a heap takes to rise (assumption)."""


@compiled
def hotbed_share(days: float, rise_d: float, fade_d: float, flush: float) -> float:
    """Share of a hotbed's lasting power some days after its fill: it rises over days and fades over weeks; 0 before.

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

    Returns
    -------
    float
    """
    if days <= 0:
        return 0.0
    part = days / (FLUSH_D * rise_d)
    first = flush * part * part * np.exp(2.0 * (1.0 - part))
    return (1 - np.exp(-days / rise_d)) * np.exp(-days / fade_d) + first


class Heat(NamedTuple):
    """Heating of all cases. watts_m2: where no thermostat cuts it, (hours, cases), without any case if nothing is heated;
    cell: where it enters, probe: where a thermostat looks, start_c, stop_c of it (-inf, inf: always on), (cases,); of hotbeds
    rise_d (NO_HOTBED elsewhere), fade_d, flush, filled_h, topped_h (inf: not topped up), (cases,)."""

    watts_m2: Array
    cell: Index
    probe: Index
    start_c: Array
    stop_c: Array
    rise_d: Array
    fade_d: Array
    flush: Array
    filled_h: Array
    topped_h: Array


def heat_of(heatings: list[Heating | None], grids: list[Grid], hours: int) -> Heat:
    """The heating of cases over the hours of a run.

    Parameters
    ----------
    heatings : list[Heating | None]
        The heat source of each case; None: none.
    grids : list[Grid]
        The columns' grids, by case.
    hours : int
        Number of hours.

    Returns
    -------
    Heat
    """
    count = len(heatings) if any(heatings) else 0
    cell, probe = np.zeros(count, dtype=np.int64), np.zeros(count, dtype=np.int64)
    start, stop, rise = np.full(count, -np.inf), np.full(count, np.inf), np.full(count, NO_HOTBED)
    fade, flush, filled, topped = np.ones(count), np.zeros(count), np.zeros(count), np.full(count, np.inf)
    heat = Heat(np.zeros((hours if count else 0, count)), cell, probe, start, stop, rise, fade, flush, filled, topped)
    for i, (heating, grid) in enumerate(zip(heatings, grids, strict=True)):
        if heating:
            _put(heat, i, heating, grid)
    return heat


def _put(heat: Heat, i: int, heating: Heating, grid: Grid) -> None:
    heat.watts_m2[:, i] = [heating.power_w_m2 * _by_clock(heating, hour) for hour in range(len(heat.watts_m2))]
    heat.cell[i] = np.argmin(np.abs(grid.centre_m - heating.depth_m))
    heat.probe[i] = np.argmin(np.abs(grid.centre_m - heating.probe_m))
    if heating.fading_d:
        heat.rise_d[i], heat.fade_d[i] = heating.fading_d
        heat.flush[i], heat.filled_h[i] = heating.flush, heating.filled_h
        heat.topped_h[i] = np.inf if heating.topped_h is None else heating.topped_h
    elif heating.start_c is not None and heating.stop_c is not None:
        heat.start_c[i], heat.stop_c[i] = heating.start_c, heating.stop_c


def _by_clock(heating: Heating, hour: int) -> float:
    """Whether its timer lets it, 0 or 1."""
    of_day, start, end = hour % 24 + 0.5, heating.from_h, heating.to_h
    return float(start <= of_day < end if start <= end else of_day >= start or of_day < end)


@compiled
def watts_of(heat: Heat, hour: int, case: int, rise: float, fade: float) -> float:
    """Power of a case in an hour [W/m²].

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

    Returns
    -------
    float
    """
    watts = heat.watts_m2[hour, case]
    if heat.rise_d[case] < 0.0 or watts == 0.0:
        return watts
    rise_d, fade_d, flush = heat.rise_d[case] * rise, heat.fade_d[case] * fade, heat.flush[case]
    share = hotbed_share((hour + 0.5 - heat.filled_h[case]) / 24.0, rise_d, fade_d, flush)
    return watts * (share + TOPPED_SHARE * hotbed_share((hour + 0.5 - heat.topped_h[case]) / 24.0, rise_d, fade_d, flush))


@compiled
def is_on(probe_c: float, start_c: float, stop_c: float, was_on: bool) -> bool:
    """A thermostat's switch: on below start_c, off above stop_c, between them as it was.

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

    Returns
    -------
    bool
    """
    if probe_c < start_c:
        return True
    return was_on and probe_c <= stop_c
