"""Outlook of sowings, corrected by what was counted."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import date, timedelta

import numpy as np
from numpy.typing import NDArray

from cloche_engine.crops.catalogue import Crop
from cloche_engine.crops.grown import with_values
from cloche_engine.germination.batch import Batch, BatchOutlook, foretell
from cloche_engine.germination.pooling import stands
from cloche_engine.inputs import SownBatch
from cloche_engine.packing import short
from cloche_engine.results import SowingOutlook


@dataclass(frozen=True)
class Learned:
    """What a garden has taught."""

    pace: tuple[float, float]
    stand: tuple[float, float]
    bench: bool


Factor = tuple[float, float, float, float]
SHOWN_D = 150
NOON_H = 12


def batch_outlook(
    sown: SownBatch, usual: Crop, soil_c: NDArray[np.float64], first: date, learned: Learned, moist: NDArray[np.float64] | None
) -> SowingOutlook:
    """Return what is expected of a sowing.

    usual: its crop with the values of the catalogue; soil_c, moist: hourly values at its depth from midnight of `first` on.
    """
    pace, stand = learned.pace, (learned.stand[0] * stands(usual, learned.bench), learned.stand[1])
    hours = [((on - first).days * 24 + NOON_H, up) for on, up in sown.counts]
    batch = Batch(
        sown_hour=(sown.sown_on - first).days * 24 + NOON_H,
        depth_m=sown.depth_m,
        usual_depth_m=usual.sowing_depth_m,
        seeds=sown.seeds,
        rate=sown.rate,
        pace=pace,
        stand=stand,
        counts=hours,
    )
    end = min(len(soil_c), batch.sown_hour + SHOWN_D * 24)
    outlook = foretell(batch, soil_c[:end], with_values(usual, sown.values), None if moist is None else moist[:end])
    # Of the stand what all gardens' seed of its kind does is taken out: the rest is this garden's.
    usual_log = float(np.log(stand[0] / learned.stand[0]))
    own = (outlook.stand[0] - usual_log, outlook.stand[1])
    return _dated(outlook, sown, _with_beginning(outlook.pace, pace), _with_beginning(own, learned.stand))


def _with_beginning(after: tuple[float, float], before: tuple[float, float]) -> Factor:
    """Return mean and SD of the logarithm of a factor, after the counts and before them."""
    return round(after[0], 4), round(after[1], 4), round(float(np.log(before[0])), 4), round(before[1], 4)


def _dated(outlook: BatchOutlook, sown: SownBatch, pace: Factor, stand: Factor) -> SowingOutlook:
    def day(days: float) -> date | None:
        return sown.sown_on + timedelta(days=int(days)) if np.isfinite(days) else None

    def band(days: NDArray[np.float64]) -> tuple[date | None, date | None, date | None]:
        return day(days[0]), day(days[1]), day(days[2])

    # As far as anything still changes: a count may lie below or above what was expected on the days before it.
    moving = np.flatnonzero(
        (np.abs(outlook.up - outlook.up[:, [-1]]) > 0.005 * np.maximum(outlook.up[:, [-1]], 1.0)).any(axis=0)
    )
    done = (int(moving[-1]) if len(moving) else 0) + 3
    return SowingOutlook(
        up=[short(row[: max(done, 14)], 1) for row in outlook.up],
        first=band(outlook.first_d),
        half=band(outlook.half_d),
        most=band(outlook.most_d),
        overdue=day(outlook.overdue_d),
        share=round(outlook.share, 3),
        rate=[round(v, 3) for v in outlook.rate],
        pace=pace,
        stand=stand,
    )
