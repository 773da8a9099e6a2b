"""Emergence: development integrated over hourly soil temperature at sowing depth, never over a daily mean.

One idea carries all of it. Development advances by `rate(T)` a day; the middle seed shows when one unit is done, a slower
or faster seed when exp(spread * z) units are done (log-normal between seeds), more where it lies deep. The share that comes
up is the published share at each temperature weighted by the progress made there, less what rots while it lies stalled.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from statistics import NormalDist

import numpy as np
from numpy.typing import ArrayLike, NDArray

from cloche.core.crops.catalogue import Crop
from cloche.core.germination.passage import HALF_DAY, STILL, accumulate, crossings, placed
from cloche.core.germination.steady import FIELD_FACTOR, ICE_C, TABLE_DEPTH_M, depth_need, refuse_wrong_unit

NORMAL = NormalDist()
STALLED_PACE = 0.1
"""Seed that advances by less than this share of its best pace lies there and slowly rots (assumption)."""
STALLED_HALF_D = {"hardy": 60.0, "half-hardy": 40.0, "tender": 14.0}
"""Days of lying stalled that cost half of the seed (assumption)."""
DRY = 0.08
"""Water in the top few centimetres, as a share of what they hold, below which seed takes up none (assumption)."""


@dataclass(frozen=True)
class Development:
    """Cumulative development of seed lying in the soil from hour 0 on.

    progress: (members, hours + 1), in units of the middle seed's need. halves: (3, members, half days + 1), by the half day:
    progress; yield, the integral of share times rate, which divided by progress is the share; and loss: what of the seed
    rotted is 1 - exp(-loss).
    """

    progress: NDArray[np.float64]
    halves: NDArray[np.float64]


@dataclass(frozen=True)
class SeedBed:
    """Hourly soil at one depth, checked and placed on the curves' grid, ready for any crop. Both (members, hours): below, STILL
    where ice, drought or a gap stops seed; part, of the way to the next point."""

    below: NDArray[np.int32]
    part: NDArray[np.float64]

    @classmethod
    def of(cls, temperature_c: ArrayLike, moist: ArrayLike | None = None) -> SeedBed:
        """temperature_c: (hours,) or (hours, members), soil at sowing depth [°C]; hourly means; nan: missing.

        moist: the same shape, share of what the top can hold; None: kept moist. Raises OutOfRange outside -30..60 °C.
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


def develop(bed: SeedBed, crop: Crop, field_factor: float | NDArray[np.float64] = FIELD_FACTOR) -> Development:
    """Integrate a crop's rate over hourly soil temperature; a missing, dry or frozen hour makes no progress.

    field_factor: one, or one for each member (members,).
    """
    pace = np.ascontiguousarray(np.broadcast_to(1.0 / np.asarray(field_factor, dtype=np.float64), (len(bed.below),)))
    rate = crop.rate.grid
    loss_per_h = rotting_per_h(crop)
    return Development(*accumulate(bed.below, bed.part, rate, crop.share.grid, pace, STALLED_PACE * rate.max(), loss_per_h))


def rotting_per_h(crop: Crop) -> float:
    """How fast seed that lies stalled is lost [1/h]; sets, cloves and tubers are not."""
    return float(np.log(2.0) / (24.0 * STALLED_HALF_D[crop.hardiness])) if crop.start == "seed" else 0.0


def hours_to_emergence(
    development: Development,
    sown_at_hour: ArrayLike,
    crop: Crop,
    fractions: Sequence[float] = (0.5,),
    depth_m: float = TABLE_DEPTH_M,
) -> NDArray[np.float64]:
    """Hours from sowing until each of `fractions` of those that come up have shown.

    sown_at_hour: (sowings,) whole hours into the series, in rising order; depth_m: by default that of the published table.
    Returns (fractions, sowings, members) [h]; inf: not within it.
    """
    need = np.exp([crop.spread_log_sd * NORMAL.inv_cdf(fraction) for fraction in fractions]) + depth_need(crop, depth_m)
    return crossings(development.progress, np.asarray(sown_at_hour, dtype=np.int64), need)


def share_by(development: Development, sown_at_hour: ArrayLike, until_hour: NDArray[np.float64]) -> NDArray[np.float64]:
    """Share of live seed that comes up when emergence ends at until_hour: (sowings, members), 0-1; 0 where it never does.

    sown_at_hour: rounded down to half days, until_hour up: what is taken in besides is far less than a share can be known to.
    """
    sown = np.asarray(sown_at_hour, dtype=np.intp) // HALF_DAY
    last = development.halves.shape[2] - 1
    reached = np.isfinite(until_hour)
    end = np.minimum(np.ceil(np.where(reached, until_hour, 0) / HALF_DAY), last).astype(np.intp)
    row = np.arange(development.halves.shape[1])[None, :]
    made, yielded, lost = development.halves[:, row, end] - development.halves[:, :, sown].transpose(0, 2, 1)
    with np.errstate(invalid="ignore", divide="ignore"):
        share = yielded / made
    # Rounding in the running sums may leave a share a hair above one.
    return np.where(reached & (made > 0), np.minimum(share, 1.0) * np.exp(-lost), 0.0)
