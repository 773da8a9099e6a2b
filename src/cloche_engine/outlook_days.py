"""Access to the days of a stored outlook, light enough for pages."""

from __future__ import annotations

import math
from dataclasses import dataclass
from typing import Any

import numpy as np

from cloche_engine.packing import DAYS, SHARES, TENTHS
from cloche_engine.results import CandidateDays
from cloche_engine.windows.limits import FRACTIONS, Limit
from cloche_engine.windows.spans import joined, spans_of


@dataclass(frozen=True)
class DayOutlook:
    """Outlook of a sowing on one day.

    Attributes
    ----------
    offset : int
        Days from the day of the outlook.
    failing : list of tuple
        Limits and their probabilities, the most likely first.
    growth : float
        Growth index.
    yields : float
        Fraction of a good harvest that heat leaves, 0-1.
    harvest_d : int or None
        Days to harvest, None for never.
    days_to : list
        Days by fraction and quantile, None for never.
    share : list of float
        Quantiles of the emerging fraction, empty for plantings.
    """

    offset: int
    success: float
    soil_c: float
    growth: float
    yields: float
    harvest_d: int | None
    failing: list[tuple[Limit, float]]
    days_to: list[list[float | None]]
    share: list[float]


def sure_spans(days: CandidateDays) -> list[tuple[int, int]]:
    """Return first and last day of every span of reliable days, in days from that of the outlook, next year included."""
    at = np.array(days.day)
    return [(int(at[first]), int(at[last])) for first, last in spans_of(joined(at, np.array(days.success)))]


def day_of(days: CandidateDays, offset: int) -> DayOutlook:
    """Return the candidate day nearest to an offset."""
    at = days.day
    i = min(range(len(at)), key=lambda index: abs(at[index] - offset))
    chances = SHARES.unpack(days.failing, len(days.limits), len(at))[:, i]
    failing = sorted(zip(days.limits, map(float, chances), strict=True), key=lambda pair: -pair[1])
    days_to: list[list[float | None]] = []
    share: list[float] = []
    if days.days_to:
        table = TENTHS.unpack(days.days_to, len(FRACTIONS), -1, len(at))[:, :, i]
        days_to = [[_finite(value) for value in band] for band in table]
        share = [float(value) for value in SHARES.unpack(days.share, -1, len(at))[:, i]]
    return DayOutlook(
        offset=at[i],
        success=days.success[i],
        soil_c=days.soil_c[i],
        growth=float(SHARES.unpack(days.growth, -1)[i]),
        yields=min(float(SHARES.unpack(days.worth, -1)[i]) / max(days.success[i], 0.01), 1.0),
        harvest_d=_whole(float(TENTHS.unpack(days.harvest_d, -1)[i])),
        failing=failing,
        days_to=days_to,
        share=share,
    )


def harvests(days: CandidateDays) -> list[float]:
    """Return days until harvest for every candidate day; inf for never."""
    return [float(value) for value in TENTHS.unpack(days.harvest_d, -1)]


def members_of(text: str, members: int) -> Any:
    """Return days until half are up in each member in which a sowing succeeds, (days, members); inf elsewhere."""
    return DAYS.unpack(text, -1, members)


def _finite(value: float) -> float | None:
    return float(value) if math.isfinite(value) else None


def _whole(value: float) -> int | None:
    return round(value) if math.isfinite(value) else None
