"""When plants reach their stages: days of full growth summed from emergence or planting, in every scenario."""

from __future__ import annotations

from typing import TypeVar

import numpy as np
from numpy.typing import NDArray

from cloche_engine.compiled import compiled

Array = NDArray[np.float64]
Days = NDArray[np.intp]
T = TypeVar("T", bound=np.generic)


@compiled
def reached(grown: Array, start: Days, need: Array, parts: Array) -> Days:
    """The days on which growth since `start` has come to each part of `need`, rising: (parts, days, members); the last day + 1
    where it never does.

    Parameters
    ----------
    grown : ndarray
        (days + 1, members), full growth from day 0 until each day begins, never falling.
    start : Days
        (days, members), the day from which growth is summed.
    need : ndarray
        (days, members), days of full growth that are needed.
    parts : ndarray
        (parts,), rising shares of the need.
    """
    last = grown.shape[0] - 1
    days_reached = np.full((len(parts), *start.shape), last + 1, np.intp)
    near = np.zeros(start.shape[1], np.intp)
    for p in range(len(parts)):
        near[:] = 0
        for s in range(start.shape[0]):
            for m in range(start.shape[1]):
                begin = start[s, m]
                target = grown[begin, m] + need[s, m] * parts[p]
                if grown[last, m] < target:
                    continue
                # What starts a little later is reached a little later: from the day found last it is a few steps either way.
                day = max(near[m], begin)
                while grown[day, m] < target:
                    day += 1
                while day > begin and grown[day - 1, m] >= target:
                    day -= 1
                days_reached[p, s, m] = near[m] = day
    return days_reached


@compiled
def on(table: NDArray[T], day: Days) -> NDArray[T]:
    """What the table, (days, members), holds in each scenario on its own day: (sowings, members).

    Parameters
    ----------
    table : NDArray[T]
        (days, members), a value for each day.
    day : Days
        The scenario's own day, (sowings, members).
    """
    values = np.empty(day.shape, table.dtype)
    for s in range(day.shape[0]):
        for m in range(day.shape[1]):
            values[s, m] = table[day[s, m], m]
    return values


@compiled
def mean_between(total: Array, start: Days, end: Days) -> Array:
    """Mean of what `total` is the running sum of, from start to before end, at least over one day: (sowings, members) each.

    Parameters
    ----------
    total : ndarray
        (days + 1, members), the sum until each day begins.
    start : Days
        First day, (sowings, members).
    end : Days
        Day before which it ends, (sowings, members).

    Returns
    -------
    ndarray
        (sowings, members).
    """
    means = np.empty(start.shape)
    last = total.shape[0] - 1
    for s in range(start.shape[0]):
        for m in range(start.shape[1]):
            stop = min(max(end[s, m], start[s, m] + 1), last)
            begin = min(start[s, m], stop - 1)
            means[s, m] = (total[stop, m] - total[begin, m]) / (stop - begin)
    return means


@compiled
def counted(limiting: NDArray[np.bool_]) -> tuple[Array, NDArray[np.bool_]]:
    """Of what ends a crop, (limits, days, members): the share of scenarios in which each bites, (limits, days), and where none
    does, (days, members).

    Parameters
    ----------
    limiting : ndarray of bool
        (limits, days, members), whether each limit acts.
    """
    limits, days, members = limiting.shape
    shares, none = np.empty((limits, days)), np.ones((days, members), np.bool_)
    for k in range(limits):
        for d in range(days):
            count = 0
            for m in range(members):
                count += limiting[k, d, m]
                none[d, m] &= not limiting[k, d, m]
            shares[k, d] = count / members
    return shares, none


@compiled
def next_day(true: NDArray[np.bool_]) -> Days:
    """For each day the first day from it on on which it is so, (days + 1, members); days where there is none.

    Parameters
    ----------
    true : ndarray of bool
        (days, members), whether it holds on a day.
    """
    days, members = true.shape
    following = np.empty((days + 1, members), np.intp)
    for m in range(members):
        ahead = days
        following[days, m] = days
        for d in range(days - 1, -1, -1):
            if true[d, m]:
                ahead = d
            following[d, m] = ahead
    return following
