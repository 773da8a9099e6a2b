"""When plants reach their stages: days of full growth summed from emergence or planting, in every scenario."""

from __future__ import annotations

import numpy as np
from numpy.typing import NDArray

from cloche.core.compiled import compiled

Array = NDArray[np.float64]
Days = NDArray[np.intp]


@compiled
def reached(grown: Array, start: Days, need: Array, parts: Array) -> Days:
    """The days on which growth since `start` has come to each part of `need`, rising: (parts, days, members); the last day + 1
    where it never does. start, need: (days, members).

    grown: (days + 1, members), full growth from day 0 until each day begins, never falling.
    """
    last = grown.shape[0] - 1
    found = np.full((len(parts), *start.shape), last + 1, np.intp)
    for m in range(start.shape[1]):
        for s in range(start.shape[0]):
            low = start[s, m]
            for p in range(len(parts)):
                target = grown[start[s, m], m] + need[s, m] * parts[p]
                if grown[last, m] < target:
                    break
                high = last
                while low < high:
                    middle = (low + high) // 2
                    if grown[middle, m] >= target:
                        high = middle
                    else:
                        low = middle + 1
                found[p, s, m] = low
    return found


@compiled
def next_day(true: NDArray[np.bool_]) -> Days:
    """For each day the first day from it on on which it is so, (days + 1, members); days where there is none."""
    days, members = true.shape
    found = np.empty((days + 1, members), np.intp)
    for m in range(members):
        ahead = days
        found[days, m] = days
        for d in range(days - 1, -1, -1):
            if true[d, m]:
                ahead = d
            found[d, m] = ahead
    return found
