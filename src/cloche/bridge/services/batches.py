"""Sowings that were made, and lots of seed, as the rooms see them."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import date, timedelta
from typing import Any

import numpy as np
from numpy.typing import NDArray

from cloche.bridge.services.crops import with_values
from cloche.bridge.values.inputs import SownBatch
from cloche.bridge.values.packing import short
from cloche.core.crops import catalogue
from cloche.core.germination.batch import Batch, BatchOutlook, foretell, pooled, pooled_pace
from cloche.core.germination.stand import STAND_LOG_SD, stands


@dataclass(frozen=True)
class Learned:
    """What a garden's counts tell: middle and log SD of how much slower its soil is than the laboratory's, and of how much
    more comes through there than elsewhere. bench: whether this place only raises."""

    pace: tuple[float, float]
    stand: tuple[float, float]
    bench: bool


SHOWN_D = 150
NOON_H = 12


def batch_outlook(
    sown: SownBatch, soil_c: NDArray[np.float64], first: date, learned: Learned, moist: NDArray[np.float64] | None
) -> dict[str, Any]:
    """What is foretold of a sowing, as plain values: `plain`. soil_c, moist: hourly at its depth from midnight of `first`."""
    pace, stand = learned.pace, (learned.stand[0] * stands(catalogue.crop(sown.crop_key), learned.bench), learned.stand[1])
    usual = catalogue.crop(sown.crop_key)
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
    found = foretell(batch, soil_c[:end], with_values(usual, sown.values), None if moist is None else moist[:end])
    # Of the stand what all gardens' seed of its kind does is taken out: the rest is this garden's.
    usual_log = float(np.log(stand[0] / learned.stand[0]))
    own = (found.stand[0] - usual_log, found.stand[1])
    return plain(found, sown) | {"pace": _with_beginning(found.pace, pace), "stand": _with_beginning(own, learned.stand)}


def _with_beginning(after: tuple[float, float], before: tuple[float, float]) -> list[float]:
    """Mean and SD of a factor's logarithm after the counts, and those that it began with."""
    return [round(v, 4) for v in (*after, float(np.log(before[0])), before[1])]


def plain(found: BatchOutlook, sown: SownBatch) -> dict[str, Any]:
    """Dates as ISO text, None for never; up: band by day, of 100 sown. Beside it stand pace and stand: mean and
    SD of their logarithm after the counts, and those that they began with."""

    def dates(days: NDArray[np.float64]) -> list[str | None]:
        return [(sown.sown_on + timedelta(days=int(d))).isoformat() if np.isfinite(d) else None for d in days]

    done = int(np.argmax(found.up[2] >= 0.995 * found.up[2, -1])) + 3
    return {
        "up": [short(band[: max(done, 14)], 1) for band in found.up],
        "first": dates(found.first_d),
        "half": dates(found.half_d),
        "most": dates(found.most_d),
        "overdue": dates(np.array([found.overdue_d]))[0],
        "share": round(found.share, 3),
        "rate": [round(v, 3) for v in found.rate],
    }


def pooled_stand(batches: list[tuple[float, float, float, float]]) -> tuple[float, float]:
    """How much more comes through in a garden than in others, from what its batches tell: middle and log SD."""
    return pooled(batches, 1.0, STAND_LOG_SD)


__all__ = ["Learned", "batch_outlook", "pooled_pace", "pooled_stand"]
