"""Emergence: development integrated over hourly soil temperature at sowing depth, never over a daily mean.

One idea carries all of it. Development advances by `rate(T)` a day; the middle seed shows when one unit is done, a slower
or faster seed when exp(spread * z) units are done (log-normal between seeds), more where it lies deep. The share that comes
up is the published share at each temperature weighted by the progress made there, less what rots while it lies stalled.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from functools import cached_property
from statistics import NormalDist

import numpy as np
from numpy.typing import ArrayLike, NDArray

from cloche_engine.crops.catalogue import Crop
from cloche_engine.crops.curves import GRID_FROM_C, GRID_STEP_C
from cloche_engine.germination.passage import STILL, accumulate, crossings, placed, shares
from cloche_engine.germination.steady import FIELD_FACTOR, ICE_C, TABLE_DEPTH_M, depth_need, in_soil, refuse_wrong_unit

NORMAL = NormalDist()
STALLED_PACE = 0.1
"""Seed that advances by less than this share of its best pace lies there and slowly rots (assumption)."""
STALLED_HALF_D = {"hardy": 60.0, "half-hardy": 40.0, "tender": 14.0}
"""Days of lying stalled that cost half of the seed, bare as it is (assumption)."""
PROTECTED_TIMES = 2.5
"""Seed treated against rot lies so much longer for the same loss (assumption)."""
CHILLED = {"Phaseolus", "Zea", "Vigna", "Glycine"}
CHILLED_BELOW_C, CHILLED_PER_K, LEAST_CHILLED = 12.0, 0.05, 0.5
"""Beans, cowpeas, soybeans and corn that take up water in cold soil are hurt for good: so much of them lost for each kelvin
that their first day lies under the limit, at most half (from memory of trials on imbibitional chilling, assumption)."""
CHILLED_FOR_H = 24
INHIBITED = {"Lactuca", "Apium"}
INHIBITED_ABOVE_C, INHIBITED_FROM_H, INHIBITED_TO_H, INHIBITED_FULLY_H = 29.0, 4, 16, 6.0
LEAST_UNINHIBITED = 0.12
"""Lettuce and celery that lie in soil above this from the fourth to the sixteenth hour fall asleep: six such hours leave what
the table has at a steady 30 °C (from memory of trials on thermoinhibition, assumption). So they are sown in the evening; a hot
afternoon later on does nothing to them."""
MIDDAY_H, EVENING_H = 12, 18
DRY = 0.08
"""Water in the top few centimetres, as a share of what they hold, below which seed takes up none (assumption)."""


@dataclass(frozen=True)
class Development:
    """Cumulative development of seed in the soil from hour 0 on.

    Attributes
    ----------
    progress : ndarray
        In units of the median seed's need, (members, hours + 1).
    halves : ndarray
        By half days, (3, members, half days + 1): progress; yield, the integral of share times rate, whose ratio to progress is
        the emerging fraction; and loss, with a rotted fraction of 1 - exp(-loss).
    """

    progress: NDArray[np.float64]
    halves: NDArray[np.float64]


@dataclass(frozen=True)
class SeedBed:
    """Hourly soil at one depth, checked and located on the curves' grid for any crop.

    Attributes
    ----------
    below : ndarray
        Grid index, (members, hours); STILL where ice, drought or a gap stops the seed.
    part : ndarray
        Fraction of the way to the next grid point, (members, hours).
    """

    below: NDArray[np.int32]
    part: NDArray[np.float64]

    @cached_property
    def _warmth(self) -> NDArray[np.float64]:
        """Cumulative soil temperature up to each hour, (members, hours + 1)."""
        soil = np.where(self.below == STILL, ICE_C, GRID_FROM_C + (self.below + self.part) * GRID_STEP_C)
        return np.concatenate([np.zeros((len(soil), 1)), np.cumsum(soil, axis=1)], axis=1)

    @cached_property
    def _hot_h(self) -> NDArray[np.int64]:
        """Number of hours above the thermoinhibition limit up to each hour."""
        hot = self.below >= round((INHIBITED_ABOVE_C - GRID_FROM_C) / GRID_STEP_C)
        return np.concatenate([np.zeros((len(hot), 1), np.int64), np.cumsum(hot, axis=1)], axis=1)

    def first_day_share(self, crop: Crop, sown_at_hour: ArrayLike) -> NDArray[np.float64]:
        """Return the fraction of the seed that survives the first day, 0-1, (sowings, members).

        Parameters
        ----------
        sown_at_hour : array_like
            (sowings,), whole hours into the series, in rising order.

        Returns
        -------
        ndarray
            (sowings, members).
        """
        sown, last = np.asarray(sown_at_hour, dtype=np.intp), self.below.shape[1]
        if crop.start == "seed" and crop.genus in CHILLED:
            end = np.minimum(sown + CHILLED_FOR_H, last)
            mean = ((self._warmth[:, end] - self._warmth[:, sown]) / np.maximum(end - sown, 1)).T
            return np.asarray(np.clip(1 - CHILLED_PER_K * (CHILLED_BELOW_C - mean), LEAST_CHILLED, 1.0))
        if crop.genus in INHIBITED:
            start, end = (np.minimum(sown + hours, last) for hours in (INHIBITED_FROM_H, INHIBITED_TO_H))
            hot = (self._hot_h[:, end] - self._hot_h[:, start]).T
            return np.asarray(1 - (1 - LEAST_UNINHIBITED) * np.minimum(hot / INHIBITED_FULLY_H, 1.0))
        return np.ones((len(sown), len(self.below)))

    @classmethod
    def of(cls, temperature_c: ArrayLike, moist: ArrayLike | None = None) -> SeedBed:
        """..60 °C.

        Parameters
        ----------
        temperature_c : array_like
            (hours,) or (hours, members), soil at sowing depth [°C]; hourly means; nan: missing.
        moist : array_like | None
            The same shape, share of what the top can hold; None: kept moist.

        Raises
        ------
        OutOfRange
            Outside -30.
        """
        temperature = np.asarray(temperature_c, dtype=np.float64)
        if temperature.ndim == 1:
            temperature = temperature[:, None]
        refuse_wrong_unit(temperature)
        below, part = placed(np.ascontiguousarray(temperature), ICE_C)
        if moist is not None:
            dry = np.asarray(moist) < DRY
            below[(dry if dry.ndim == 2 else dry[:, None]).T] = STILL
        return cls(below, part)


def develop(bed: SeedBed, crop: Crop, times: float | NDArray[np.float64] | None = None) -> Development:
    """Integrate a crop's rate over the hourly soil. Missing, dry and frozen hours make no progress.

    Parameters
    ----------
    bed : SeedBed
        The seed bed's hourly soil.
    times : float | ndarray | None
        Factor of the table's days, one, or one for each member (members,); None: as in garden soil.
    """
    times = in_soil(crop, FIELD_FACTOR) if times is None else times
    pace = np.ascontiguousarray(np.broadcast_to(1.0 / np.asarray(times, dtype=np.float64), (len(bed.below),)))
    rate = crop.rate.grid
    loss_per_h = rotting_per_h(crop)
    share = lasting_share(crop)
    return Development(*accumulate(bed.below, bed.part, rate, share, pace, STALLED_PACE * rate.max(), loss_per_h))


def lasting_share(crop: Crop) -> NDArray[np.float64]:
    """Return the emerging fraction on the curves' grid, excluding effects of the first day.

    Those are in `SeedBed.first_day_share`.
    """
    share = crop.share.grid
    if crop.genus not in INHIBITED:
        return share
    best = int(np.argmax(share))
    awake = np.where(share > 0, share.max(), 0.0)
    return np.asarray(np.where(np.arange(len(share)) > best, awake, share))


def rotting_per_h(crop: Crop) -> float:
    """Return the hourly loss of stalled seed [1/h]; zero for sets, cloves and tubers.

    Returns
    -------
    float
        [1/h].
    """
    if crop.start != "seed":
        return 0.0
    return float(np.log(2.0) / (24.0 * STALLED_HALF_D[crop.hardiness] * (PROTECTED_TIMES if crop.protected else 1.0)))


def sowing_hour(crop: Crop) -> int:
    """Return the hour of the day at which experienced growers sow it."""
    return EVENING_H if crop.genus in INHIBITED else MIDDAY_H


def hours_to_emergence(
    development: Development,
    sown_at_hour: ArrayLike,
    crop: Crop,
    fractions: Sequence[float] = (0.5,),
    depth_m: float = TABLE_DEPTH_M,
) -> NDArray[np.float64]:
    """Return the hours from sowing until each fraction of the emerging seedlings is visible.

    Parameters
    ----------
    development : Development
        The crop's running development in a seed bed.
    sown_at_hour : array_like
        (sowings,) whole hours into the series, in rising order.
    fractions : Sequence[float]
        Shares of those that come up.
    depth_m : float
        Depth at which it is sown [m]; by default that of the published table.

    Returns
    -------
    ndarray
        (fractions, sowings, members) [h]; inf: not within it.
    """
    need = np.exp([crop.spread_log_sd * NORMAL.inv_cdf(fraction) for fraction in fractions]) + depth_need(crop, depth_m)
    return crossings(development.progress, np.asarray(sown_at_hour, dtype=np.int64), need)


def share_up(
    bed: SeedBed, development: Development, crop: Crop, sown_at_hour: ArrayLike, until_hour: NDArray[np.float64]
) -> NDArray[np.float64]:
    """Return the fraction of live seed that emerges, including the effect of the first day.

    Otherwise as `share_by`.

    Parameters
    ----------
    bed : SeedBed
        The seed bed's hourly soil.
    development : Development
        The crop's running development in a seed bed.
    sown_at_hour : array_like
        (sowings,), whole hours into the series, in rising order.
    until_hour : ndarray
        Hour at which emergence ends, (sowings, members); inf: never.
    """
    return share_by(development, sown_at_hour, until_hour) * bed.first_day_share(crop, sown_at_hour)


def share_by(development: Development, sown_at_hour: ArrayLike, until_hour: NDArray[np.float64]) -> NDArray[np.float64]:
    """Return the fraction of live seed that emerges if emergence ends at `until_hour`.

    The shape is (sowings, members), the values 0-1; 0 where emergence never happens.

    Parameters
    ----------
    development : Development
        The crop's running development in a seed bed.
    sown_at_hour : array_like
        Rounded down to half days, until_hour up: what is taken in besides is far less than a share can be known to.
    until_hour : ndarray
        Hour at which emergence ends, (sowings, members); inf: never.

    Returns
    -------
    ndarray
        (sowings, members).
    """
    return shares(development.halves, np.asarray(sown_at_hour, dtype=np.int64), until_hour)
