"""A place's newest readings held against what was expected of them."""

from __future__ import annotations

from collections.abc import Sequence
from datetime import datetime, timedelta
from typing import Any

import numpy as np

from cloche.bridge.services.expected import hours_from
from cloche.bridge.values.stored import PlaceForecast
from cloche.core.records.quality import QualityFlag, Series, day_mean_from_one, flags

Row = tuple[int, datetime, float, float]


def flags_of(rows: Sequence[Row], ground: PlaceForecast | None, usual_depths_m: tuple[float, ...]) -> dict[int, QualityFlag]:
    """Doubts by a reading's number. rows: (number, at, depth, temperature), oldest first; ground: the stored forecast."""
    if not rows:
        return {}
    hour = np.array([(row[1] - rows[0][1]) / timedelta(hours=1) for row in rows])
    band = np.full((3, len(rows)), np.nan)
    if ground is not None:
        for depth_m in {row[2] for row in rows}:
            _expect(rows, ground, depth_m, band)
    depth, value = np.array([row[2] for row in rows]), np.array([row[3] for row in rows])
    flagged = flags(Series(hour, value, depth, band[0], band[1], band[2], usual_depths_m))
    return {row[0]: flag for row, flag in zip(rows, flagged, strict=True) if flag is not None}


def expected_at(ground: PlaceForecast | None, depth_m: float) -> list[tuple[datetime, float, float]]:
    """The band of every hour that the stored forecast has at a depth: when, low, high [°C]."""
    start = ground.start if ground else None
    known = hours_from(ground, start, len(ground.near_mid_c), depth_m) if ground and start else None
    if known is None or start is None:
        return []
    middles = (start + timedelta(hours=i + 0.5) for i in range(len(known.low_c)))
    return list(zip(middles, known.low_c, known.high_c, strict=False))


def _expect(rows: Sequence[Row], ground: PlaceForecast, depth_m: float, band: Any) -> None:
    start = ground.start
    known = hours_from(ground, start, len(ground.near_mid_c), depth_m)
    if known is None:
        return
    for i, (_, at, depth, _) in enumerate(rows):
        index = int((at - start) / timedelta(hours=1))
        if depth == depth_m and 0 <= index < len(known.low_c) and at >= start:
            band[:, i] = known.low_c[index], known.high_c[index], known.air_c[index]


__all__ = ["QualityFlag", "day_mean_from_one", "expected_at", "flags_of"]
