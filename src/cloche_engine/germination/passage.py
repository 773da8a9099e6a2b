"""The inner loops of emergence: development over the hours, and when it reaches what each seed needs."""

from __future__ import annotations

import numpy as np
from numpy.typing import NDArray

from cloche_engine.compiled import compiled
from cloche_engine.crops.curves import GRID_CELLS, GRID_FROM_C, GRID_STEP_C

Array = NDArray[np.float64]

HOURS_PER_DAY, HALF_DAY = 24, 12
STILL = -1


@compiled
def placed(soil_c: Array, ice_c: float) -> tuple[NDArray[np.int32], Array]:
    """Locate hourly soil (hours, members) on the curves' grid.

    Returns index and fraction, (members, hours) each; STILL where a value is missing or the soil holds ice.

    Parameters
    ----------
    soil_c : ndarray
        Soil [°C].
    ice_c : float
        Temperature at which the ground holds ice [°C].
    """
    hours, members = soil_c.shape
    below, part = np.empty((members, hours), np.int32), np.empty((members, hours))
    for h in range(hours):
        for m in range(members):
            soil = soil_c[h, m]
            if np.isnan(soil) or soil < ice_c:
                below[m, h], part[m, h] = STILL, 0.0
            else:
                position = min(max((soil - GRID_FROM_C) / GRID_STEP_C, 0.0), GRID_CELLS - 1e-6)
                below[m, h] = int(position)
                part[m, h] = position - int(position)
    return below, part


@compiled
def accumulate(
    below: NDArray[np.int32], part: Array, rate: Array, share: Array, pace: Array, stalled: float, loss_per_h: float
) -> tuple[Array, Array]:
    """Return running sums since hour 0.

    The first is hourly progress, (members, hours + 1). The second holds progress, progress times emerging fraction, and the
    loss from stalling, by half days, (3, members, hours // HALF_DAY + 1).

    Hours slower than `stalled` [1/d] cost loss_per_h.

    Parameters
    ----------
    below : ndarray of int
        (members, hours), cell of the curves' grid in which the soil lies; below STILL in hours that do not count.
    part : ndarray
        (members, hours), how far into that cell it lies, 0-1.
    rate : ndarray
        Rate on the curves' grid [1/d].
    share : ndarray
        Share of live seed that comes up, 0-1.
    pace : ndarray
        Factor of the rate, (members,).
    stalled : float
        Rate below which seed counts as stalled [1/d].
    loss_per_h : float
        Share of stalled seed lost in an hour [1/h].
    """
    members, hours = below.shape
    progress = np.empty((members, hours + 1))
    halves = np.zeros((3, members, hours // HALF_DAY + 1))
    for m in range(members):
        made, yielded, gone = 0.0, 0.0, 0.0
        progress[m, 0] = 0.0
        hourly = pace[m] / HOURS_PER_DAY
        for h in range(hours):
            if below[m, h] != STILL:
                # Unsigned: an index that cannot be negative is not looked at from the other end, which costs a fifth.
                i, beyond = np.uintp(below[m, h]), np.uintp(below[m, h] + 1)
                fast = rate[i] + part[m, h] * (rate[beyond] - rate[i])
                step = fast * hourly if fast > 0.0 else 0.0
                made += step
                yielded += step * (share[i] + part[m, h] * (share[beyond] - share[i]))
                gone += loss_per_h if fast < stalled else 0.0
            progress[m, h + 1] = made
            if (h + 1) % HALF_DAY == 0:
                half = (h + 1) // HALF_DAY
                halves[0, m, half], halves[1, m, half], halves[2, m, half] = made, yielded, gone
    return progress, halves


@compiled
def crossings(progress: Array, sown: NDArray[np.int64], need: Array) -> Array:
    """Return the hours from each sowing until development has advanced by each need, (needs, sowings, members).

    inf means that it does not happen within the series.

    Parameters
    ----------
    progress : ndarray
        (members, hours + 1), never falling.
    sown : ndarray of int
        (sowings,) hours in rising order.
    need : ndarray
        (needs,), development that each needs.

    Returns
    -------
    ndarray
        (needs, sowings, members).
    """
    members, last = progress.shape[0], progress.shape[1] - 1
    crossed = np.full((len(need), len(sown), members), np.inf)
    for n in range(len(need)):
        for m in range(members):
            made, hour = progress[m], 0
            for s in range(len(sown)):
                # A target that differs from the last value by rounding alone counts as reached.
                target = made[sown[s]] + need[n] - 1e-12
                if made[last] < target:
                    break
                hour = max(hour, sown[s])
                while hour + HOURS_PER_DAY <= last and made[np.uintp(hour + HOURS_PER_DAY)] < target:
                    hour += HOURS_PER_DAY
                # Within the day found, by halves: the last hour whose end is still short of the target is the one before.
                beyond = min(hour + HOURS_PER_DAY, last)
                while beyond - hour > 1:
                    middle = (hour + beyond) // 2
                    short = made[np.uintp(middle)] < target
                    hour, beyond = (middle, beyond) if short else (hour, middle)
                low = made[np.uintp(hour)]
                step = made[np.uintp(hour + 1)] - low
                part = (target - low) / step if step > 0 else 1.0
                crossed[n, s, m] = hour + min(max(part, 0.0), 1.0) - sown[s]
    return crossed


@compiled
def shares(halves: Array, sown: NDArray[np.int64], until: Array) -> Array:
    """Return the emerging fraction of each sowing if emergence ends at the hour `until`, (sowings, members).

    Where `until` is inf, none emerges.

    Parameters
    ----------
    halves : ndarray
        Progress, yield and loss as `accumulate` gives them.
    sown : ndarray of int
        (sowings,) hours.
    until : ndarray
        Hour at which emergence ends, (sowings, members); inf: never.

    Returns
    -------
    ndarray
        (sowings, members).
    """
    reached = np.zeros(until.shape)
    last = halves.shape[2] - 1
    for s in range(until.shape[0]):
        start = sown[s] // HALF_DAY
        for m in range(until.shape[1]):
            if np.isfinite(until[s, m]):
                end = min(int(np.ceil(until[s, m] / HALF_DAY)), last)
                made = halves[0, m, end] - halves[0, m, start]
                if made > 0:
                    # Rounding in the running sums may leave a share a hair above one.
                    share = min((halves[1, m, end] - halves[1, m, start]) / made, 1.0)
                    reached[s, m] = share * np.exp(halves[2, m, start] - halves[2, m, end])
    return reached
