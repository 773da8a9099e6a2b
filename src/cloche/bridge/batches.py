"""Sowings that were made, and lots of seed, as the rooms see them."""

from __future__ import annotations

from datetime import date, timedelta
from typing import Any

import numpy as np
from numpy.typing import NDArray

from cloche.bridge.crops import with_values
from cloche.bridge.evidence import SownBatch
from cloche.bridge.plain import short
from cloche.core.crops import catalogue
from cloche.core.germination.batch import Batch, BatchOutlook, foretell, pooled_pace

SHOWN_D = 150
NOON_H = 12


def batch_outlook(
    sown: SownBatch, soil_c: NDArray[np.float64], first: date, pace: tuple[float, float], moist: NDArray[np.float64] | None
) -> dict[str, Any]:
    """What is foretold of a sowing, as plain values: `plain`. soil_c, moist: hourly at its depth from midnight of `first`."""
    usual = catalogue.crop(sown.crop_key)
    hours = [((on - first).days * 24 + NOON_H, up) for on, up in sown.counts]
    batch = Batch(
        sown_hour=(sown.sown_on - first).days * 24 + NOON_H,
        depth_m=sown.depth_m,
        usual_depth_m=usual.sowing_depth_m,
        seeds=sown.seeds,
        rate=sown.rate,
        pace=pace,
        counts=hours,
    )
    end = min(len(soil_c), batch.sown_hour + SHOWN_D * 24)
    found = foretell(batch, soil_c[:end], with_values(usual, sown.values), None if moist is None else moist[:end])
    began = [round(float(np.log(pace[0])), 4), round(pace[1], 4)]
    return plain(found, sown) | {"pace": [*(round(v, 4) for v in found.pace), *began]}


def plain(found: BatchOutlook, sown: SownBatch) -> dict[str, Any]:
    """Dates as ISO text, None for never; up: band by day, of 100 sown. Beside it stands pace: mean and SD of
    its logarithm after the counts, and those that it began with."""

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


__all__ = ["batch_outlook", "pooled_pace"]
