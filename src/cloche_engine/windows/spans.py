"""Spans of sensible days: from the chance of each day to windows with their reasons."""

from __future__ import annotations

from dataclasses import dataclass
from itertools import pairwise

import numpy as np
from numpy.typing import NDArray

from cloche_engine.crops.catalogue import Crop
from cloche_engine.windows.limits import SENSIBLE, Limit

Array = NDArray[np.float64]
Failing = dict[Limit, Array]

SHORT_GAP_D, CHANCE = 25, 0.15
"""Two sensible days this near with no worse between than chance makes of forty scenarios (two standard deviations) are one
window."""
BEST_WORTH, SLOW_D, RIPE_WITHIN_D = 0.9, 75, 14
"""Slow crops take the season they get: the earliest sensible days are their best (common practice, no source)."""
SHORTEST = 3
"""Candidate days that a window holds at least."""
OUTSIDE = 3
"""Candidate days beyond an edge that tell what binds there."""
BEST_DAYS_FACTOR = 1.5
BEST_SHARE_FACTOR = 0.9


@dataclass(frozen=True)
class Window:
    """A span of sensible days, in days from day 0; best_* lie within it."""

    earliest: int
    best_from: int
    best_to: int
    last: int
    opens_after: Limit | None
    closes_before: Limit | None
    probability: float
    open_ended: bool


def windows(day: NDArray[np.intp], success: Array, failing: Failing, good: NDArray[np.bool_]) -> list[Window]:
    """Return the spans in which eight of ten members succeed.

    Parameters
    ----------
    day : ndarray of int
        The day, in days from day 0.
    success : ndarray
        Share of scenarios in which a sowing succeeds, (days,).
    failing : Failing
        Share of scenarios in which each limit acts, (days,) by limit.
    good : ndarray of bool
        (days,), those that count as best where they lie within a span.
    """
    return [window(first, last, day, success, failing, good) for first, last in spans_of(joined(day, success))]


def spans_of(sensible: NDArray[np.bool_]) -> list[tuple[int, int]]:
    """Return first and last index of every run of days that is long enough to name.

    Parameters
    ----------
    sensible : ndarray of bool
        (days,), whether a day is sensible.
    """
    edges = np.flatnonzero(np.diff(np.concatenate([[False], sensible, [False]]).astype(int)))
    return [(int(a), int(b) - 1) for a, b in zip(edges[::2], edges[1::2], strict=True) if b - a >= SHORTEST]


def joined(day: NDArray[np.intp], success: Array, enough: float = SENSIBLE) -> NDArray[np.bool_]:
    """The days that succeed often enough, and the short gaps between them that are no deeper than chance among a few dozen
    scenarios makes.

    Parameters
    ----------
    day : ndarray of int
        The day, in days from day 0.
    success : ndarray
        Share of scenarios in which a sowing succeeds, (days,).
    enough : float
        Chance from which a day counts.
    """
    sensible = success >= enough
    edges = np.flatnonzero(np.diff(sensible.astype(int)))
    for end, start in pairwise(edges):
        gap = slice(end + 1, start + 1)
        if sensible[end] and day[start + 1] - day[end] <= SHORT_GAP_D and success[gap].min() >= enough - CHANCE:
            sensible[gap] = True
    return sensible


def best_days(
    crop: Crop, day: NDArray[np.intp], success: Array, worth: Array, harvest_d: Array, eager: NDArray[np.bool_]
) -> NDArray[np.bool_]:
    """The days that are best for the harvest: nearly the most of it; of slow crops those that are ripe about as soon as any, of
    quick ones those on which it starts eagerly.

    Parameters
    ----------
    day : ndarray of int
        The day, in days from day 0.
    success : ndarray
        Share of scenarios in which a sowing succeeds, (days,).
    worth : ndarray
        Share of a good harvest, (days, members), 0-1.
    harvest_d : ndarray
        Days to harvest, (days, members) [d].
    eager : ndarray of bool
        (days, members), whether growth starts eagerly on a day.
    """
    among = success >= SENSIBLE
    if not among.any():
        return among
    full = worth >= BEST_WORTH * worth[among].max()
    ripe = day + harvest_d
    if crop.winter is None and crop.maturity_d >= SLOW_D and np.isfinite(ripe[among & full]).any():
        return np.asarray(full & (ripe <= ripe[among & full].min() + RIPE_WITHIN_D))
    return np.asarray(full & eager)


def quick_and_full(half_d: Array, share: Array, success: Array) -> NDArray[np.bool_]:
    """Days on which seed comes up nearly as soon and as fully as on the best of the sensible ones.

    Parameters
    ----------
    half_d : ndarray
        Days until half are up, (days, members) [d]; inf: never.
    share : ndarray
        Share of live seed that comes up, 0-1.
    success : ndarray
        Share of scenarios in which a sowing succeeds, (days,).
    """
    among = success >= SENSIBLE
    if not among.any():
        return among
    return (half_d <= BEST_DAYS_FACTOR * half_d[among].min()) & (share >= BEST_SHARE_FACTOR * share[among].max())


def window(first: int, last: int, day: NDArray[np.intp], success: Array, failing: Failing, good: NDArray[np.bool_]) -> Window:
    """The window between two indices, with what binds at its edges.

    Parameters
    ----------
    first : int
        First index of the span.
    last : int
        Last index of the span.
    day : ndarray of int
        The day, in days from day 0.
    success : ndarray
        Share of scenarios in which a sowing succeeds, (days,).
    failing : Failing
        Share of scenarios in which each limit acts, (days,) by limit.
    good : ndarray of bool
        (days,), whether a day counts as best.
    """
    span = np.arange(first, last + 1)
    best = span[good[span]] if good[span].any() else span
    open_ended = bool(last == len(day) - 1)
    return Window(
        earliest=int(day[first]),
        best_from=int(day[best[0]]),
        best_to=int(day[best[-1]]),
        last=int(day[last]),
        opens_after=_main_limit(failing, slice(max(first - OUTSIDE, 0), first)) if first > 0 else None,
        closes_before=None if open_ended else _main_limit(failing, slice(last + 1, last + 1 + OUTSIDE)),
        probability=float(success[span].mean()),
        open_ended=open_ended,
    )


def _main_limit(failing: Failing, span: slice) -> Limit:
    # One sum over all of them: there are hundreds of edges in a place.
    weight = np.array(list(failing.values()))[:, span].sum(axis=1)
    return list(failing)[int(np.argmax(weight))]


def main_limit(failing: Failing, success: Array) -> Limit:
    """What stands in the way on the likeliest of all days: for a crop without a window.

    Parameters
    ----------
    failing : Failing
        Share of scenarios in which each limit acts, (days,) by limit.
    success : ndarray
        Share of scenarios in which a sowing succeeds, (days,).
    """
    best = success >= success.max() - 0.02
    return max(failing, key=lambda limit: float(failing[limit][best].mean()))
