"""The outlook of a crop in a place: what would come of sowing it on each of the coming days, over all scenarios.

A sowing succeeds in a scenario when none of the `Limit`s bites. The window is where that happens in eight scenarios of ten.
"""

from __future__ import annotations

from dataclasses import dataclass
from enum import StrEnum

import numpy as np
from numpy.typing import NDArray

from cloche.core.crops.catalogue import Crop
from cloche.core.germination.emergence import SeedBed, days_to_emergence, develop, hours_to_emergence, share_by
from cloche.core.weather.record import DailyRecord

FRACTIONS = (0.02, 0.1, 0.25, 0.5, 0.75, 0.9, 0.98)
"""Of those that come up, how many have shown: the points of the emergence curve."""
HALF = FRACTIONS.index(0.5)
BAND = (0.1, 0.5, 0.9)
SENSIBLE = 0.8
LONGEST_LIE_D = (21.0, 35.0)
LIE_FACTOR = 3.0
"""Seed that lies three times as long as at its best rots, is eaten or crusts over (assumption), within the days above."""
LEAST_SHARE = 0.5
SEEDLING_D = 21
SEASON_END_C = {"hardy": 5.0, "half-hardy": 7.0, "tender": 11.0}
"""Growth is over when the fortnight's mean air falls below this (assumption)."""
BEST_DAYS_FACTOR = 1.5
BEST_SHARE_FACTOR = 0.9


class Limit(StrEnum):
    """The one thing that stands in the way."""

    COLD = "soil too cold"
    HOT = "soil too hot"
    FROST = "frost after emergence"
    SEASON = "too little season left"
    HEAT = "hot days before harvest"


@dataclass(frozen=True)
class Window:
    """One span of sensible sowing days, as days from day 0 of the series; best_* lie within it."""

    earliest: int
    best_from: int
    best_to: int
    last: int
    opens_after: Limit | None
    closes_before: Limit | None
    probability: float
    open_ended: bool


@dataclass(frozen=True)
class Outlook:
    """sow_day (S,); success (S,); failing: Limit -> (S,), all 0-1. days_to (fractions, band, S) [d], inf: never;
    share (band, S) of live seed; soil_c (S,) mean over the week after sowing [°C]."""

    crop: Crop
    sow_day: NDArray[np.intp]
    success: NDArray[np.float64]
    failing: dict[Limit, NDArray[np.float64]]
    days_to: NDArray[np.float64]
    share: NDArray[np.float64]
    soil_c: NDArray[np.float64]
    windows: list[Window]


@dataclass(frozen=True)
class Bed:
    """Scenarios of one place at one sowing depth, shared by every crop sown that deep.

    air: (days, members) as the plants feel it, at their height and under their cover. soil_c: (days, members), daily means
    at sowing depth [°C], of the same days or fewer.
    """

    seed_bed: SeedBed
    soil_c: NDArray[np.float64]
    air: DailyRecord

    @classmethod
    def of(cls, hourly_soil_c: NDArray[np.float64], air: DailyRecord) -> Bed:
        """hourly_soil_c: (days * 24, members) from the first day of air."""
        daily = hourly_soil_c.reshape(len(hourly_soil_c) // 24, 24, -1).mean(axis=1)
        return cls(SeedBed.of(hourly_soil_c), daily, air)


def outlook(crop: Crop, bed: Bed, sow_day: NDArray[np.intp]) -> Outlook:
    """Judge every candidate day; sow_day (S,): days from day 0 of the bed's series, sown at midday."""
    development = develop(bed.seed_bed, crop)
    sown = sow_day * 24 + 12
    hours = hours_to_emergence(development, sown, crop, FRACTIONS)
    share = share_by(development, sown, sown[:, None] + hours[HALF])
    bites = _limits(crop, bed, sow_day, hours[HALF] / 24, share)
    failed = np.zeros_like(share, dtype=bool)
    for limit in bites.values():
        failed |= limit
    success = _calm(1 - failed.mean(axis=1))
    failing = {limit: bite.mean(axis=1) for limit, bite in bites.items()}
    days_to = np.quantile(hours / 24, BAND, axis=2, method="higher").transpose(1, 0, 2)
    shares = np.quantile(share, BAND, axis=1)
    week = _mean_ahead(bed.soil_c.mean(axis=1), 7)[sow_day]
    windows = _windows(sow_day, success, failing, days_to[HALF, 1], shares[1])
    return Outlook(crop, sow_day, success, failing, days_to, shares, week, windows)


def longest_lie_d(crop: Crop) -> float:
    """Days that seed may lie before half are up for the sowing to be sensible."""
    best = float(days_to_emergence(min(crop.rate.fastest_c, crop.optimum_to_c), crop))
    return float(np.clip(LIE_FACTOR * best, *LONGEST_LIE_D))


def _limits(
    crop: Crop,
    bed: Bed,
    sow_day: NDArray[np.intp],
    half_d: NDArray[np.float64],
    share: NDArray[np.float64],
) -> dict[Limit, NDArray[np.bool_]]:
    """Which limit bites on which sowing in which member: each (sowings, members)."""
    air, soil_days, days = bed.air, len(bed.soil_c), len(bed.air)
    poor = (half_d > longest_lie_d(crop)) | (share < LEAST_SHARE)
    week_c = _mean_ahead(bed.soil_c, 10)[sow_day]
    hot = poor & (week_c > crop.optimum_c)
    up = np.where(np.isfinite(half_d), sow_day[:, None] + half_d, soil_days - 1)
    up_day = np.clip(np.ceil(up), 0, soil_days - 1).astype(np.intp)
    ripe_day = up_day + round(crop.maturity_d)
    beyond = ripe_day >= days
    ripe_day = np.minimum(ripe_day, days - 1)
    column = np.arange(air.low_c.shape[1])[None, :]
    coldest = _lowest_ahead(air.low_c, SEEDLING_D)[up_day, column]
    season_c = _mean_behind(air.mean_c, 14)[ripe_day, column]
    cold_end = season_c < SEASON_END_C[crop.hardiness]
    bites = {
        Limit.COLD: poor & ~hot,
        Limit.HOT: hot,
        Limit.FROST: ~poor & (coldest < crop.frost_limit_c),
        Limit.SEASON: ~poor & (cold_end | beyond),
    }
    if crop.heat_limit_c is not None:
        bites[Limit.HEAT] = ~poor & ~beyond & (_mean_behind(air.high_c, 10)[ripe_day, column] > crop.heat_limit_c)
    return bites


def _windows(
    sow_day: NDArray[np.intp],
    success: NDArray[np.float64],
    failing: dict[Limit, NDArray[np.float64]],
    half_d: NDArray[np.float64],
    share: NDArray[np.float64],
) -> list[Window]:
    good = success >= SENSIBLE
    edges = np.flatnonzero(np.diff(np.concatenate([[False], good, [False]]).astype(int)))
    spans = [(a, b - 1) for a, b in zip(edges[::2], edges[1::2], strict=True) if b - a >= 2]
    return [_window(first, last, sow_day, success, failing, half_d, share) for first, last in spans]


def _window(
    first: int,
    last: int,
    sow_day: NDArray[np.intp],
    success: NDArray[np.float64],
    failing: dict[Limit, NDArray[np.float64]],
    half_d: NDArray[np.float64],
    share: NDArray[np.float64],
) -> Window:
    span = np.arange(first, last + 1)
    quick = half_d[span] <= BEST_DAYS_FACTOR * half_d[span].min()
    full = share[span] >= BEST_SHARE_FACTOR * share[span].max()
    best = span[quick & full] if (quick & full).any() else span
    open_ended = bool(last == len(sow_day) - 1)
    return Window(
        earliest=int(sow_day[first]),
        best_from=int(sow_day[best[0]]),
        best_to=int(sow_day[best[-1]]),
        last=int(sow_day[last]),
        opens_after=_main_limit(failing, first - 1) if first > 0 else None,
        closes_before=None if open_ended else _main_limit(failing, last + 1),
        probability=float(success[span].mean()),
        open_ended=open_ended,
    )


def _main_limit(failing: dict[Limit, NDArray[np.float64]], index: int) -> Limit:
    return max(failing, key=lambda limit: float(failing[limit][index]))


def main_limit(outlook: Outlook) -> Limit:
    """What stands in the way most, over all candidate days: for a crop without a window."""
    return max(outlook.failing, key=lambda limit: float(outlook.failing[limit].mean()))


def _calm(values: NDArray[np.float64]) -> NDArray[np.float64]:
    """Median of five neighbours: a few dozen scenarios flicker from day to day, the year does not."""
    padded = np.pad(values, 2, mode="edge")
    return np.asarray(np.median(np.lib.stride_tricks.sliding_window_view(padded, 5), axis=1))


def _mean_ahead(daily: NDArray[np.float64], days: int) -> NDArray[np.float64]:
    """Mean of each day and the next days - 1, fewer at the end; along axis 0."""
    total = np.concatenate([np.zeros_like(daily[:1]), np.cumsum(daily, axis=0)])
    start = np.arange(len(daily))
    end = np.minimum(start + days, len(daily))
    count = (end - start).reshape(-1, *[1] * (daily.ndim - 1))
    return (total[end] - total[start]) / count


def _mean_behind(daily: NDArray[np.float64], days: int) -> NDArray[np.float64]:
    return _mean_ahead(daily[::-1], days)[::-1]


def _lowest_ahead(daily: NDArray[np.float64], days: int) -> NDArray[np.float64]:
    padded = np.concatenate([daily, np.repeat(daily[-1:], days - 1, axis=0)])
    return np.asarray(np.lib.stride_tricks.sliding_window_view(padded, days, axis=0).min(axis=-1))
