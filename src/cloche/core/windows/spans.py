"""Spans of sensible days: from the chance of each day to windows with their reasons."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from cloche.core.windows.limits import SENSIBLE, Limit

Array = NDArray[np.float64]
Failing = dict[Limit, Array]

SHORTEST = 3
"""Candidate days that a window holds at least."""
BEST_DAYS_FACTOR = 1.5
BEST_SHARE_FACTOR = 0.9


@dataclass(frozen=True)
class Window:
    """One span of sensible days, as days from day 0 of the series; best_* lie within it."""

    earliest: int
    best_from: int
    best_to: int
    last: int
    opens_after: Limit | None
    closes_before: Limit | None
    probability: float
    open_ended: bool


def windows(day: NDArray[np.intp], success: Array, failing: Failing, good: NDArray[np.bool_]) -> list[Window]:
    """Spans in which eight scenarios of ten succeed. good: (days,) those that count as best where they lie within a span."""
    sensible = success >= SENSIBLE
    edges = np.flatnonzero(np.diff(np.concatenate([[False], sensible, [False]]).astype(int)))
    spans = [(a, b - 1) for a, b in zip(edges[::2], edges[1::2], strict=True) if b - a >= SHORTEST]
    return [_window(first, last, day, success, failing, good) for first, last in spans]


def quick_and_full(half_d: Array, share: Array, success: Array) -> NDArray[np.bool_]:
    """Days on which seed comes up nearly as soon and as fully as on the best of the sensible ones."""
    among = success >= SENSIBLE
    if not among.any():
        return among
    return (half_d <= BEST_DAYS_FACTOR * half_d[among].min()) & (share >= BEST_SHARE_FACTOR * share[among].max())


def _window(first: int, last: int, day: NDArray[np.intp], success: Array, failing: Failing, good: NDArray[np.bool_]) -> Window:
    span = np.arange(first, last + 1)
    best = span[good[span]] if good[span].any() else span
    open_ended = bool(last == len(day) - 1)
    return Window(
        earliest=int(day[first]),
        best_from=int(day[best[0]]),
        best_to=int(day[best[-1]]),
        last=int(day[last]),
        opens_after=_main_limit(failing, first - 1) if first > 0 else None,
        closes_before=None if open_ended else _main_limit(failing, last + 1),
        probability=float(success[span].mean()),
        open_ended=open_ended,
    )


def _main_limit(failing: Failing, index: int) -> Limit:
    return max(failing, key=lambda limit: float(failing[limit][index]))


def main_limit(failing: Failing) -> Limit:
    """What stands in the way most, over all candidate days: for a crop without a window."""
    return max(failing, key=lambda limit: float(failing[limit].mean()))
